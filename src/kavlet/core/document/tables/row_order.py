"""Edits that arrange a table: moving and sorting rows, moving columns, turning rows into columns."""

import math

import msgspec

from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import ChartEntry, Document, with_table
from kavlet.core.document.looks.look_updates import following_rows
from kavlet.core.document.looks.look_updates import turned as turned_looks
from kavlet.core.document.tables import filled_runs
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.helper_tables import refuse_helper
from kavlet.core.document.tables.reference_updates import with_references
from kavlet.core.document.tables.role_guessing import guess_roles
from kavlet.core.document.tables.total_rows import closing_rows
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, Value
from kavlet.core.spreadsheet.references import CellReference, RangeReference
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.errors import KavletError


def move_rows(document: Document, table_id: str, first: int, count: int, to: int) -> Document:
    """Move rows so that they stand before the row `to`; references follow the rows they meant."""
    table = document.table(table_id)
    last = first + count
    if first < HEADER or to < HEADER:
        raise KavletError(say("The row of names stays at the top."))
    if first <= to <= last or not 0 < count <= table.height - first:
        return document
    others = [row for row in range(table.height) if not first <= row < last]
    at = others.index(to) if to < table.height else len(others)
    order = [*others[:at], *range(first, last), *others[at:]]
    return _with_rows_at(document, table_id, order)


def _with_rows_at(document: Document, table_id: str, order: list[int]) -> Document:
    """The table's rows in another order: references follow the rows they meant, filled runs stay as they stand."""
    before = document.table(table_id)
    place = {row: new for new, row in enumerate(order)}
    moved = [row for row, new in place.items() if row != new]
    if not moved:
        return document
    document = with_references(document, table_id, lambda old: _following(old, place, by_rows=True))
    table = document.table(table_id)
    columns = tuple(
        msgspec.structs.replace(column, cells=tuple(column.cells[row] for row in order)) for column in table.columns
    )
    table = filled_runs.kept_in_place(before, msgspec.structs.replace(table, columns=columns), min(moved), max(moved))
    document = following_rows(document, table_id, lambda row: place.get(row + HEADER, row + HEADER) - HEADER)
    return fitted(with_table(document, table))


def move_columns(document: Document, table_id: str, first: int, count: int, to: int) -> Document:
    """Move columns of the table's own before the column `to`; references follow, roles stay with their columns."""
    table = document.table(table_id)
    own = sum(column.helper is None for column in table.columns)
    to, last = min(to, own), first + count
    if last > own:
        raise KavletError(say("Helper columns stay behind the table’s own."))
    if first <= to <= last or count < 1:
        return document
    others = [index for index in range(len(table.columns)) if not first <= index < last]
    at = others.index(to) if to in others else len(others)
    order = [*others[:at], *range(first, last), *others[at:]]
    place = {index: new for new, index in enumerate(order)}
    document = with_references(document, table_id, lambda old: _following(old, place, by_rows=False))
    table = document.table(table_id)
    columns = tuple(table.columns[index] for index in order)
    return fitted(with_table(document, msgspec.structs.replace(table, columns=columns)))


def _following(old: RangeReference, place: dict[int, int], by_rows: bool) -> RangeReference:
    """A reference after rows or columns changed places; a range keeps the extent its cells have afterwards."""
    if old.whole == ("columns" if by_rows else "rows"):
        return old

    def part(corner: CellReference) -> int:
        return corner.row if by_rows else corner.column

    def put(corner: CellReference, new: int) -> CellReference:
        return msgspec.structs.replace(corner, **{"row" if by_rows else "column": new})

    if old.other is None:
        return RangeReference(put(old.one, place.get(part(old.one), part(old.one))), None, old.table)
    low, high = sorted((part(old.one), part(old.other)))
    known = [place[row] for row in range(low, min(high, len(place) - 1) + 1)]
    if len(known) != high - low + 1:
        return old  # it reaches beyond the table, so it means all there is
    ends = min(known), max(known)
    if ends[1] - ends[0] != high - low:
        ends = low, high  # rows have left it: it keeps its place rather than grow over others
    return RangeReference(put(old.one, ends[0]), put(old.other, ends[1]), old.table, old.whole)


def sort_rows(document: Document, table_id: str, values: list[Value], descending: bool = False) -> Document:
    """Sort the rows of figures, whole, by one value per row: numbers, then texts, then logical values; errors and
    empty ones last, whichever the direction. Equal rows keep their order; rows that sum up the others stay at the end.
    References follow the rows they meant.
    """
    table = document.table(table_id)
    end = table.height - closing_rows(table)
    rows = range(HEADER, end)
    filled_rows = [row for row in rows if not isinstance(values[row - HEADER], ErrorValue | None)]
    rest = [row for row in rows if row not in set(filled_rows)]
    ordered = sorted(filled_rows, key=lambda row: _sort_key(values[row - HEADER]), reverse=descending)
    return _with_rows_at(document, table_id, [*range(HEADER), *ordered, *rest, *range(end, table.height)])


def _sort_key(value: Value) -> tuple[int, float, str]:
    if isinstance(value, bool):
        return 2, float(value), ""
    if isinstance(value, float):
        return 0, value, ""
    return 1, math.inf, str(value).casefold()


def transpose(document: Document, table_id: str) -> Document:
    """Turn rows into columns: the names become the first column, the first column the names. References follow."""
    table = document.table(table_id)
    refuse_helper(table)
    own_columns = [column for column in table.columns if column.helper is None]
    if table.height > 1_000:
        raise KavletError(say("The table has more than 1,000 rows, which is too many to become columns."))
    bare = msgspec.structs.replace(table, columns=tuple(own_columns))
    document = with_references(with_table(document, bare), table_id, _turned)
    own_columns = list(document.table(table_id).columns)
    rows = [list(cells) for cells in zip(*(column.cells for column in own_columns), strict=True)]
    columns = tuple(Column(f"c{i + 1}", tuple(_as_name(cell) if r == 0 else cell for r, cell in enumerate(cells)))
                    for i, cells in enumerate(rows))  # fmt: skip
    new_table = Table(table.id, table.name, columns)
    recipes = recipes_of(document)

    def follow(chart: ChartEntry) -> ChartEntry:
        if chart.reading is not None and chart.reading.table == table_id:  # all columns there are, of the first row
            direction = msgspec.structs.replace(
                chart.reading, columns=tuple(column_id.id for column_id in columns[1:]), row=0
            )
            return msgspec.structs.replace(chart, reading=direction)
        if chart.table != table_id or chart.recipe not in recipes:
            return chart
        recipe = recipes[chart.recipe]
        roles = guess_roles(new_table, recipe)
        before = tuple(bare.place(column_id) for column_id in chart.roles.get(recipe.series, ()))
        after = tuple(new_table.place(column_id) for column_id in roles.get(recipe.series, ()))
        new_chart = turned_looks(chart, (before, after)) if recipe.series else chart
        return msgspec.structs.replace(new_chart, roles=roles)

    charts = tuple(follow(chart) for chart in document.charts)
    return fitted(msgspec.structs.replace(with_table(document, new_table), charts=charts))


def _as_name(cell: Cell) -> Cell:
    if isinstance(cell, float):
        return f"{cell:.15g}"
    return cell


def _turned(old: RangeReference) -> RangeReference:
    def turn(corner: CellReference) -> CellReference:
        return CellReference(corner.row, corner.column, corner.keep_row, corner.keep_column)

    whole = {"": "", "columns": "rows", "rows": "columns"}
    kind = whole[old.whole]
    return RangeReference(turn(old.one), old.other and turn(old.other), old.table, kind)  # type: ignore[arg-type]
