"""What a range gives to a function: its values, and their numbers as an array."""

import math
from array import array
from collections.abc import Iterator, Sequence
from functools import cached_property
from typing import TYPE_CHECKING, Protocol

from kavlet.core.figures.cells import ErrorValue, Value

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

Floats = Sequence[float]  # of a column: NaN is no value
SMALL = 256  # values; below this plain Python is faster than NumPy, whose import would also delay the start


class ColumnSource(Protocol):
    """A column that a range reads from: its values, and their numbers with NaN for all else."""

    values: list[Value]
    numbers: "array[float]"
    errors: dict[int, ErrorValue]


class Range:
    """Cells of one table, by columns; read at the moment it is used, clipped to what the table holds."""

    def __init__(self, columns: list[ColumnSource], first: int, last: int, wanted: tuple[int, int]) -> None:
        self._columns, self._first, self._last = columns, first, last
        self.height, self.width = wanted

    def values(self) -> Iterator[Value]:
        """All values, row by row."""
        for row in range(self._first, self._last):
            for column in self._columns:
                yield column.values[row]

    def at(self, row: int, column: int) -> Value:
        """The value at a place counted from 0 inside the range; beyond the table it is empty."""
        if column >= len(self._columns) or self._first + row >= self._last:
            return None
        return self._columns[column].values[self._first + row]

    @cached_property
    def numbers(self) -> "list[float] | NDArray[np.float64]":
        """The numbers of the range without gaps; text, logical values and empty cells are left out."""
        first, last = self._first, max(self._first, self._last)
        if (last - first) * len(self._columns) < SMALL:
            return [number for c in self._columns for number in c.numbers[first:last] if not math.isnan(number)]
        import numpy as np

        parts = [np.frombuffer(column.numbers)[first:last] for column in self._columns]
        whole = parts[0] if len(parts) == 1 else np.concatenate(parts)
        found: NDArray[np.float64] = whole[~np.isnan(whole)]
        return found

    @property
    def error(self) -> ErrorValue | None:
        """The first error in the range."""
        for column in self._columns:
            for row, error in column.errors.items():
                if self._first <= row < self._last:
                    return error
        return None
