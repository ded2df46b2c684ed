"""The tables that go along with charts: which ones, their sheets' names, and the cells charts refer to."""

from collections.abc import Iterable, Sequence

from msgspec import Struct

from kavlet.core.files import workbook
from kavlet.core.office_model.chart_model import CellRange, ChartModel
from kavlet.core.spreadsheet.cells import ErrorValue, Formula, Value
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.spreadsheet.references import SCAN, column_letters, reference
from kavlet.core.spreadsheet.table import Table


class Worksheets(Struct, frozen=True):
    """Tables with their values, in the order of the sheets, and what each is called there."""

    tables: tuple[Table, ...]
    values: Values
    names: dict[str, str]

    def sheet(self, table: str) -> str:
        """The name of the sheet of a table's id."""
        return self.names[next(one.name for one in self.tables if one.id == table)]

    def where(self, cells: CellRange) -> str:
        """The reference to cells, with the sheet in apostrophes: ``'My table'!$B$2:$B$9``."""
        sheet = self.sheet(cells.table).replace("'", "''")
        letters, first = column_letters(cells.column), cells.first + 1
        last = f":${letters}${first + cells.count - 1}" if cells.count > 1 else ""
        return f"'{sheet}'!${letters}${first}{last}"

    def held(self, cells: CellRange) -> list[Value]:
        """What the cells evaluate to."""
        column = self.values.of(cells.table)[cells.column].values
        return list(column[cells.first : cells.first + cells.count])

    def numbers(self, cells: CellRange) -> list[float]:
        """The numbers of cells; NaN for all else."""
        column = self.values.of(cells.table)[cells.column].numbers
        return [float(one) for one in column[cells.first : cells.first + cells.count]]


def sheets_for(
    tables: Sequence[Table], charts: Iterable[ChartModel], all_tables: bool = False, more: Iterable[str] = ()
) -> Worksheets:
    """The sheets that charts need: the tables they refer to (and `more` by their ids), those these read, and the
    charts' workings; or all. A chart's own tables stand for those of the same id."""
    models = tuple(charts)
    own_tables = {table.id: table for chart in models for table in chart.tables}
    tables = [own_tables.get(table.id, table) for table in tables]
    workings = tuple(chart.workings for chart in models if chart.workings.columns)
    by_name = {table.name: table for table in tables}
    ids: list[str] = []
    used = [cells.table for chart in models for cells in chart.cells]
    queue = [*([table.id for table in tables] if all_tables else more), *used]
    by_id = {table.id: table for table in (*tables, *workings)}
    while queue:
        table_id = queue.pop(0)
        if table_id in ids:
            continue
        ids.append(table_id)
        queue += [by_name[name].id for name in _read(by_id[table_id]) if name in by_name]
    tables_kept = tuple(table for table in (*tables, *workings) if table.id in ids)
    return Worksheets(tables_kept, recalculate(tables_kept), workbook.titles(tables_kept))


def _read(table: Table) -> set[str]:
    """The names of the other tables that a table's formulas read."""
    found: set[str] = set()
    for column in table.columns:
        for cell in column.cells:
            if isinstance(cell, Formula) and "!" in cell.text:
                for part in SCAN.finditer(cell.text):
                    if part["text"] is None:
                        found.add(reference(part[0]).table)
    return found


def shown(value: Value) -> str:
    """A value as a chart's cache holds it as text."""
    if value is None or isinstance(value, ErrorValue):
        return ""
    if isinstance(value, bool):
        return "TRUE" if value else "FALSE"
    return f"{value:.15g}" if isinstance(value, float) else value
