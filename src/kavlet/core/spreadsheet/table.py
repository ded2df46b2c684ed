"""A table: a grid of cells with a name, the first row holding the columns' names."""

from msgspec import Struct

from kavlet.core.messages import Message, say
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import NumberText

HEADER = 1  # rows that hold names; the rows of figures follow


class Helper(Struct, frozen=True, forbid_unknown_fields=True):
    """Marks a helper column, or a helper table: the chart it was made for and which of its helpers it is."""

    chart: str
    name: str


class Source(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """The file a table's figures come from, how it is read, and whether its changes are taken over by themselves.

    `sheet` and `part` choose from a workbook; `encoding`, `separator` and `decimal` say how a text is read, and are
    guessed where they are not set; with `accounts`, (200) and 200- are negative. `seen` is the stamp of the file's
    content when it was last taken over, `taken` the cells it held then, and `columns` the table's columns they went to.
    """

    path: str
    sheet: str | None = None
    part: str | None = None
    encoding: str | None = None
    separator: str | None = None
    decimal: str | None = None
    accounts: bool = False
    always: bool = False
    seen: str = ""
    taken: tuple[tuple[Cell, ...], ...] = ()
    columns: tuple[str, ...] = ()


MAX_ROWS, MAX_COLUMNS = 100_000, 1_000


def check_extent(rows: int, columns: int) -> None:
    """Raises KavletError for a table larger than can be held."""
    if rows > MAX_ROWS or columns > MAX_COLUMNS:
        raise KavletError(
            say("The table is larger than {rows} rows or {columns} columns.", rows=MAX_ROWS, columns=MAX_COLUMNS)
        )


class Column(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A column's cells from the header down, with an identity that survives moves and renaming.

    `width` is in points on screen, 0 to fit what it holds.
    """

    id: str
    cells: tuple[Cell, ...]
    helper: Helper | None = None
    number: NumberText | None = None
    width: float = 0.0

    @property
    def name(self) -> str:
        """The header as typed; empty when there is none or it is a formula."""
        head = self.cells[0] if self.cells else None
        return head if isinstance(head, str) else ""

    @property
    def writes(self) -> NumberText | None:
        """How it writes its numbers: as set for it, else as the first of its cells was typed; None for neither."""
        if self.number is not None:
            return self.number
        return next(
            (
                cell.number
                for cell in self.cells[HEADER:]
                if isinstance(cell, FormattedNumber | Formula) and cell.number
            ),
            None,
        )


class Table(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Columns of equal length. Rows are never reordered behind the author's back. A helper table belongs to a chart."""

    id: str
    name: str
    columns: tuple[Column, ...]
    source: Source | None = None
    helper: Helper | None = None

    @property
    def height(self) -> int:
        """Rows, with the header."""
        return len(self.columns[0].cells) if self.columns else 0

    @property
    def rows(self) -> int:
        """Rows of figures, without the header."""
        return max(0, self.height - HEADER)

    def place(self, column: str) -> int:
        """Where the column of that id stands; -1 when it is not here."""
        return next((i for i, one in enumerate(self.columns) if one.id == column), -1)

    def column(self, index: int) -> Column | None:
        """The column at a place; None where there is none."""
        return self.columns[index] if 0 <= index < len(self.columns) else None

    def called(self, index: int) -> Message:
        """What to call a column: its name, else its letters."""
        name = self.columns[index].name
        return say("{name}", name=name) if name else say("column {letters}", letters=column_letters(index))


NO_TABLE = Table("", "", ())  # stands where there is no table
