"""The columns a chart reads, by their identity, in the rows it shows."""

import math
from collections.abc import Sequence

import msgspec
from msgspec import Struct

from kavlet.core.shapes.symbol import Symbol, shelf
from kavlet.core.spreadsheet.cells import Value, text_of
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.text.numbers import DEFAULT_LOCALE, written
from kavlet.core.values.number_text import PLAIN, NumberText


class Raster(Struct, frozen=True):
    """A PNG or JPEG with its size in pixels."""

    name: str
    content: bytes
    width: int
    height: int


class Data(Struct, frozen=True):
    """Values and numbers per column id, shape (rows,), with the locale to write them in.

    `ids` holds the table's row number (from 0) of each row here. `titles` names the columns. `cells` holds what the
    formulas in label templates give. `pictures` are the document's own symbols and pictures. `timed` says that the rows
    are times, one after the other.
    """

    values: dict[str, list[Value]]
    numbers: dict[str, Floats]
    ids: tuple[int, ...]
    titles: dict[str, str] = {}
    number_texts: dict[str, NumberText] = {}
    cells: dict[str, Value] = {}
    pictures: dict[str, Symbol | Raster] = {}
    locale: str = DEFAULT_LOCALE
    timed: bool = False

    @property
    def rows(self) -> int:
        """How many rows of figures there are."""
        return len(self.ids)

    def column(self, column: str) -> Floats:
        """The numbers of a column; NaN throughout when it is not here."""
        return self.numbers.get(column, [math.nan] * self.rows)

    def names(self, column: str) -> list[str]:
        """The entries of a column as text, numbers and dates as it writes them; empty ones when it is not here."""
        how = self.number_texts.get(column)
        return [
            written(value, how, self.locale) if isinstance(value, float) and how is not None else text_of(value)
            for value in self.values.get(column, [None] * self.rows)
        ]

    def number_text(self, column: str) -> NumberText:
        """How a column writes its numbers."""
        return self.number_texts.get(column, PLAIN)

    def picture(self, name: str) -> Symbol | Raster | None:
        """The symbol or picture of that name: the document's own, else the shelf's."""
        return self.pictures.get(name) or shelf().get(name)

    def only(self, rows: Sequence[int]) -> "Data":
        """The same columns in some of the table's rows, in that order."""
        places = {row: i for i, row in enumerate(self.ids)}
        chosen = [places[row] for row in rows if row in places]
        return msgspec.structs.replace(
            self,
            values={key: [held[i] for i in chosen] for key, held in self.values.items()},
            numbers={key: [float(held[i]) for i in chosen] for key, held in self.numbers.items()},
            ids=tuple(self.ids[i] for i in chosen),
        )
