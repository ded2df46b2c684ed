"""The sheet of a chart's workings: columns of formulas that a plain chart needs beside its table's own."""

from collections.abc import Sequence

from kavlet.core.office_model.chart_model import CellRange
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import column_letters, quoted
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.number_text import NumberText


class Workings:
    """Columns are added one by one; `table` gives them all. Formulas are A1 text that names the tables it reads."""

    def __init__(self, id_: str, name: str, tables: Sequence[Table]) -> None:
        self.id, self.name = id_, name
        self._names = {table.id: table.name for table in tables}
        self._columns: list[tuple[list[Cell], NumberText | None]] = []
        self._known: dict[tuple[object, ...], CellRange] = {}

    def column(self, heading: str, cells: Sequence[Cell], number: NumberText | None = None) -> CellRange:
        """A column under a heading, and where it stands; the same column is not made twice."""
        key = (heading, tuple(cells))
        if key not in self._known:
            self._columns.append(([heading, *cells], number))
            self._known[key] = CellRange(self.id, len(self._columns) - 1, HEADER, len(cells))
        return self._known[key]

    def formulas(self, heading: str, formulas: Sequence[str], number: NumberText | None = None) -> CellRange:
        """A column of formulas."""
        return self.column(heading, [Formula(f"={text}") for text in formulas], number)

    def one(self, text: str) -> CellRange:
        """A cell that holds a text, as the heading of a column of its own."""
        return self._single(text)

    def _single(self, cell: Cell) -> CellRange:
        key = ("one", cell)
        if key not in self._known:
            self._columns.append(([cell], None))
            self._known[key] = CellRange(self.id, len(self._columns) - 1, 0, 1)
        return self._known[key]

    def formula(self, text: str) -> CellRange:
        """A single cell that holds a formula."""
        return self._single(Formula(f"={text}"))

    def at(self, cells: CellRange, index: int) -> str:
        """The reference to one of some cells, as formulas here write it."""
        if not 0 <= index < cells.count:
            raise IndexError(index)
        cell = f"${column_letters(cells.column)}${cells.first + index + 1}"
        return cell if cells.table == self.id else f"{quoted(self._names[cells.table])}!{cell}"

    def all(self, cells: CellRange) -> str:
        """The reference to all of some cells."""
        first, last = self.at(cells, 0), self.at(cells, cells.count - 1)
        return f"{first}:{last.rpartition('!')[2]}"

    def table(self) -> Table:
        """All columns, padded to one height."""
        height = max([HEADER + 1, *(len(cells) for cells, _ in self._columns)])
        return Table(
            self.id,
            self.name,
            tuple(
                Column(f"w{i}", (*cells, *((height - len(cells)) * (None,))), number=number)
                for i, (cells, number) in enumerate(self._columns)
            ),
        )
