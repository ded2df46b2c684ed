"""The columns a chart reads, by their identity."""

from msgspec import Struct

from kavlet.core.figures.cells import Value, text_of
from kavlet.core.figures.ranges import Floats
from kavlet.core.text.numbers import DEFAULT_LOCALE


class Data(Struct, frozen=True):
    """Values and numbers per column id, all of the same length, and the locale to write them in."""

    values: dict[str, list[Value]]
    numbers: dict[str, Floats]
    rows: int
    locale: str = DEFAULT_LOCALE

    def names(self, column: str) -> list[str]:
        """The entries of a column as plain text."""
        return [text_of(value) for value in self.values[column]]
