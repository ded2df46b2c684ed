"""Blocks of values that functions work on: ranges of a table, and arrays that operators make of them."""

import math
from array import array
from bisect import bisect_left
from collections.abc import Iterator, Sequence
from functools import cached_property
from typing import TYPE_CHECKING, Protocol

from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.values.sums import exact_sum

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Numbers = list[float] | NDArray[np.float64]

Floats = Sequence[float]  # of a column: NaN is no value
SMALL = 256  # values; below this plain Python is faster than NumPy, whose import would also delay the start


Key = float | str  # what equal values have in common: a number, or a text whose letters' case does not count


def key_of(text: str) -> str:
    """The key of a text: texts that differ only in case have the same (and a few others, so that they are compared)."""
    return text.casefold().replace("\u0131", "i")


class ColumnSource(Protocol):
    """A column that a range reads from: its values, and their numbers with NaN for all else.

    Between changes of the column, `totals` keeps sums of stretches, `ordered` their numbers in order, and `found` the
    rows of each value;
    `asked` tells that those were asked for since.
    """

    values: list[Value]
    numbers: "array[float]"
    errors: dict[int, ErrorValue]
    totals: dict[tuple[int, int], float]
    ordered: dict[tuple[int, int], list[float]]
    found: dict[Key, list[int]] | None
    asked: bool


class Block:
    """Values in rows and columns. `height` and `width` count what was asked for, `used` the rows that hold anything."""

    height: int
    width: int
    used: int

    def at(self, row: int, column: int) -> Value:
        """The value at a place counted from 0 inside the block; where nothing is, it is empty."""
        raise NotImplementedError

    def values(self) -> Iterator[Value]:
        """All values, row by row."""
        for row in range(self.used):
            for column in range(self.width):
                yield self.at(row, column)

    @property
    def error(self) -> ErrorValue | None:
        """The first error in the block."""
        return next((value for value in self.values() if isinstance(value, ErrorValue)), None)

    def rows_of(self, keys: tuple[Key, ...]) -> Sequence[int]:
        """The rows, from 0 in the block, that can hold a value of these keys; for blocks that keep no account, all."""
        del keys
        return range(self.used)

    @property
    def numbers(self) -> "Numbers":
        """The numbers of the block without gaps; text, logical values and empty cells are left out."""
        return [value for value in self.values() if type(value) is float]

    @property
    def ordered(self) -> list[float]:
        """The numbers of the block from the smallest on."""
        return sorted(map(float, self.numbers))

    @property
    def total(self) -> float:
        """The sum of the numbers."""
        return exact_sum(self.numbers)


class ValueBlock(Block):
    """Values an operator made, row by row."""

    def __init__(self, rows: list[list[Value]]) -> None:
        self._rows = rows
        self.height = self.used = len(rows)
        self.width = len(rows[0]) if rows else 0

    def at(self, row: int, column: int) -> Value:
        """The value at a row and column of the range, from 0."""
        return self._rows[row][column] if row < self.height and column < self.width else None


class Range(Block):
    """Cells of one table, read at the moment they are used, clipped to what the table holds."""

    def __init__(self, columns: list[ColumnSource], place: tuple[int, int], last: int, size: tuple[int, int]) -> None:
        self._columns = columns
        self.column, self._first = place
        self._last = max(self._first, last)
        self.height, self.width = size
        self.used = self._last - self._first

    @property
    def row(self) -> int:
        """The first row, counted from 0 in the table; `column` likewise."""
        return self._first

    def values(self) -> Iterator[Value]:
        """All values, row by row."""
        for row in range(self._first, self._last):
            for column in self._columns:
                yield column.values[row]

    def at(self, row: int, column: int) -> Value:
        """The value at a row and column of the range, from 0."""
        if column >= len(self._columns) or self._first + row >= self._last:
            return None
        return self._columns[column].values[self._first + row]

    def rows_of(self, keys: tuple[Key, ...]) -> Sequence[int]:
        """The same, from an account of the column that all formulas share."""
        if len(self._columns) != 1 or self.used < SMALL:
            return range(self.used)
        column = self._columns[0]
        if not column.asked:  # an account pays from the second question on, and none where each one follows a change
            column.asked = True
            return range(self.used)
        if column.found is None:
            column.found = _rows_by_key(column.values)
        rows = sorted({row for key in keys for row in column.found.get(key, ())})
        first, last = bisect_left(rows, self._first), bisect_left(rows, self._last)
        return [row - self._first for row in rows[first:last]]

    @cached_property
    def numbers(self) -> "Numbers":
        """What of it is numbers."""
        first, last = self._first, self._last
        if (last - first) * len(self._columns) < SMALL:
            return [number for c in self._columns for number in c.numbers[first:last] if not math.isnan(number)]
        import numpy as np

        parts = [np.frombuffer(column.numbers)[first:last] for column in self._columns]
        whole = parts[0] if len(parts) == 1 else np.concatenate(parts)
        found: NDArray[np.float64] = whole[~np.isnan(whole)]
        return found

    @property
    def ordered(self) -> list[float]:
        """The same, shared by all formulas that ask for one column's stretch before it changes."""
        if len(self._columns) != 1:
            return super().ordered
        column, stretch = self._columns[0], (self._first, self._last)
        if stretch not in column.ordered:
            column.ordered[stretch] = super().ordered
        return column.ordered[stretch]

    @property
    def error(self) -> ErrorValue | None:
        """The first error among the values; None where there is none."""
        for column in self._columns:
            rows = [row for row in column.errors if self._first <= row < self._last]
            if rows:
                return column.errors[min(rows)]
        return None

    @property
    def total(self) -> float:
        """The sum, correctly rounded."""
        if self.used * len(self._columns) < SMALL:
            return exact_sum(self.numbers)
        return exact_sum(self._column_total(column) for column in self._columns)

    def _column_total(self, column: ColumnSource) -> float:
        """A column's sum, shared by all formulas that ask for the same stretch before the column changes."""
        stretch = (self._first, self._last)
        if stretch not in column.totals:
            import numpy as np

            column.totals[stretch] = float(np.nansum(np.frombuffer(column.numbers)[self._first : self._last]))
        return column.totals[stretch]


def _rows_by_key(values: list[Value]) -> dict[Key, list[int]]:
    found: dict[Key, list[int]] = {}
    for row, value in enumerate(values):
        if type(value) is float:
            found.setdefault(value, []).append(row)
        elif isinstance(value, str) and not isinstance(value, ErrorValue):
            found.setdefault(key_of(value), []).append(row)
    return found
