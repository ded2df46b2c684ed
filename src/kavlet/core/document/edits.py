"""Edits of tables and charts: pure functions from document to document. Helper columns follow each of them."""

from collections.abc import Mapping
from typing import Any

import msgspec

from kavlet.core.document.charts.recipe_lookup import find_recipe, series_role
from kavlet.core.document.document import ChartEntry, Document, fresh_id, fresh_name, with_chart, with_page, with_table
from kavlet.core.document.looks.look_updates import following_rows, with_roles, without_read
from kavlet.core.document.tables import filled_runs
from kavlet.core.document.tables.evaluated_table import settled
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.helper_tables import NAMES, VALUES, refuse_helper, written_through
from kavlet.core.document.tables.reference_updates import Place, with_formulas
from kavlet.core.document.tables.role_guessing import guess_roles
from kavlet.core.document.tables.total_rows import closing_rows
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.references import Shift, column_letters, shifted
from kavlet.core.spreadsheet.table import HEADER, MAX_COLUMNS, MAX_ROWS, Column, Table, check_extent
from kavlet.core.values.errors import KavletError

CellChanges = Mapping[tuple[int, int], Cell]


def add_table(document: Document, name: str, rows: list[list[Cell]]) -> tuple[Document, str]:
    """A new table from rows of cells, the first of them the header. Returns the document and the table's id."""
    width = max((len(row) for row in rows), default=0)
    if not width:
        raise KavletError(say("The table is empty."))
    check_extent(len(rows), width)
    table_id = fresh_id("t", (table.id for table in document.tables))
    columns = tuple(Column(f"c{i + 1}", tuple(row[i] if i < len(row) else None for row in rows)) for i in range(width))
    title = fresh_name(name, (table.name for table in document.tables))
    table = Table(table_id, title, columns)
    return msgspec.structs.replace(document, tables=(*document.tables, table)), table_id


def add_chart(
    document: Document, table_id: str, recipe: str, roles: dict[str, tuple[str, ...]] | None = None
) -> tuple[Document, str]:
    """A new chart on a table; roles that are not given are guessed. Returns the document and the chart's id."""
    table = document.table(table_id)
    made_by = find_recipe(document, recipe)
    chosen = guess_roles(settled(document, table_id), made_by, roles)
    chart_id = fresh_id("k", (chart.id for chart in document.charts))
    name = fresh_name(table.name, (chart.name for chart in document.charts))
    width, height = made_by.size
    chart = ChartEntry(chart_id, name, table_id, recipe, chosen, title=name, width=width, height=height)
    return fitted(msgspec.structs.replace(document, charts=(*document.charts, chart))), chart_id


def set_locale(document: Document, locale: str) -> Document:
    """The document with its numbers, dates and drawn words written, and read, as in another locale."""
    return msgspec.structs.replace(document, locale=locale)


def change_chart(document: Document, chart_id: str, **changes: Any) -> Document:
    """The chart with some of its fields changed. Where its columns change, looks of series go with their columns."""
    chart = document.chart(chart_id)
    if "roles" in changes:
        chart = with_roles(chart, changes.pop("roles"), series_role(document, chart))
    return fitted(with_chart(document, msgspec.structs.replace(chart, **changes)), document)


def set_role(document: Document, chart_id: str, role: str, column: str | None) -> Document:
    """Give a column a role in a chart, or take the role away; a column has one role at most.

    A role that many columns may share takes it up beside them; otherwise two columns swap their roles.
    """
    chart = document.chart(chart_id)
    shared = find_recipe(document, chart.recipe).role(role) if chart.recipe else None
    roles = {name: tuple(one for one in held if one != column) for name, held in chart.roles.items() if name != role}
    before = chart.roles.get(role, ())
    if column is not None and shared is not None and shared.many:
        roles[role] = (*(one for one in before if one != column), column)
    elif column is not None:
        swapped = next((name for name, held in chart.roles.items() if column in held and name != role), None)
        if swapped and before and before != (column,):
            roles[swapped] = (*roles.get(swapped, ()), *before)
        roles[role] = (column,)
    return change_chart(document, chart_id, roles={name: held for name, held in roles.items() if held})


def drop_role(document: Document, chart_id: str, column: str) -> Document:
    """Take a column's role away; others that share it keep it."""
    roles = {name: tuple(one for one in held if one != column) for name, held in document.chart(chart_id).roles.items()}
    return change_chart(document, chart_id, roles={name: held for name, held in roles.items() if held})


def set_cells(document: Document, table_id: str, cells: CellChanges) -> Document:
    """Put cells, keyed by column and row, into the table's columns. Rows below its end make it grow.

    Raises KavletError for a column that the table does not have.
    """
    document, cells = written_through(document, table_id, cells)
    table = document.table(table_id)
    most_row = max((row for _, row in cells), default=-1)
    if most_row >= table.height:
        document = insert_rows(document, table_id, table.height, most_row + 1 - table.height)
        table = document.table(table_id)
    by_column: dict[int, dict[int, Cell]] = {}
    for (column, row), cell in cells.items():
        by_column.setdefault(column, {})[row] = cell
    columns = list(table.columns)
    for index, changes in by_column.items():
        if not 0 <= index < len(columns):
            raise KavletError(say("There is no cell {cell}.", cell=f"{column_letters(index)}{min(changes) + 1}"))
        held = list(columns[index].cells)
        for row, cell in changes.items():
            held[row] = cell
        if tuple(held) != columns[index].cells:
            columns[index] = msgspec.structs.replace(columns[index], cells=tuple(held))
    return fitted(with_table(document, msgspec.structs.replace(table, columns=tuple(columns))), document)


def paste(document: Document, table_id: str, column: int, row: int, block: list[list[Cell]]) -> Document:
    """Put a block of cells with its top left corner at a place; rows and columns are added where it needs them."""
    width = max((len(line) for line in block), default=0)
    if not width:
        return document
    table = document.table(table_id)
    own = sum(one.helper is None for one in table.columns)
    if column < own < column + width:
        document = insert_columns(document, table_id, own, column + width - own)
    elif column + width > len(table.columns):
        raise KavletError(say("The block is wider than the helper columns here."), remedy=say("Paste it further left."))
    cells = {(column + c, row + r): cell for r, line in enumerate(block) for c, cell in enumerate(line)}
    return set_cells(document, table_id, cells)


def insert_rows(document: Document, table_id: str, at: int, count: int = 1) -> Document:
    """Empty rows before the row `at` (the header is row 0). Columns of one formula go on through them."""
    table = document.table(table_id)
    refuse_helper(table)
    at = max(HEADER, min(at, table.height))
    if table.height + count > MAX_ROWS:
        raise KavletError(say("A table has at most {most} rows.", most=MAX_ROWS))
    before, empty = table, (None,) * count
    ends = (table.height, table.height - closing_rows(table))
    shift = Shift(at, count, ends, HEADER)
    document = _shift(document, table, shift, by_rows=True)
    table = document.table(table_id)
    columns = tuple(
        msgspec.structs.replace(column, cells=(*column.cells[:at], *empty, *column.cells[at:]))
        for column in table.columns
    )
    table = filled_runs.continued(before, msgspec.structs.replace(table, columns=columns), shift)
    document = following_rows(document, table_id, lambda row: row + count if row >= at - HEADER else row)
    return fitted(with_table(document, table))


def delete_rows(document: Document, table_id: str, at: int, count: int = 1) -> Document:
    """Delete rows; the header stays."""
    table = document.table(table_id)
    first, last = max(HEADER, at), min(table.height, at + count)
    if last - first == table.rows:
        refuse_helper(table)
    if last <= first:
        raise KavletError(say("The row of names stays."), remedy=say("Delete rows of figures instead."))
    before = table
    shift = Shift(first, first - last, (table.height,), HEADER)
    document = _shift(document, table, shift, by_rows=True)
    table = document.table(table_id)
    columns = tuple(
        msgspec.structs.replace(column, cells=(*column.cells[:first], *column.cells[last:])) for column in table.columns
    )
    table = filled_runs.closed_up(before, msgspec.structs.replace(table, columns=columns), shift)
    document = following_rows(document, table_id, lambda row: _after_delete(row, first - HEADER, last - HEADER))
    return fitted(with_table(document, table))


def _after_delete(row: int, first: int, last: int) -> int | None:
    return row if row < first else None if row < last else row - (last - first)


def insert_columns(document: Document, table_id: str, place: int, count: int = 1) -> Document:
    """Empty columns before the column `at`, among the table's own; helper columns stay behind them."""
    table = document.table(table_id)
    own_count = sum(column.helper is None for column in table.columns)
    place = max(0, min(place, own_count))
    if len(table.columns) + count > MAX_COLUMNS:
        raise KavletError(say("A table has at most {most} columns.", most=MAX_COLUMNS))
    document = _shift(document, table, Shift(place, count, (len(table.columns),)), by_rows=False)
    table = document.table(table_id)
    ids = [column.id for column in table.columns]
    new: list[Column] = []
    for _ in range(count):
        new.append(Column(fresh_id("c", [*ids, *(column.id for column in new)]), (None,) * table.height))
    columns = (*table.columns[:place], *new, *table.columns[place:])
    return fitted(with_table(document, msgspec.structs.replace(table, columns=columns)))


def set_width(document: Document, table_id: str, index: int, width: float) -> Document:
    """A column's width on screen; 0 fits it to what it holds."""
    table = document.table(table_id)
    columns = list(table.columns)
    columns[index] = msgspec.structs.replace(columns[index], width=width)
    return with_table(document, msgspec.structs.replace(table, columns=tuple(columns)))


def delete_columns(document: Document, table_id: str, at: int, count: int = 1) -> Document:
    """Delete columns of the table's own. Raises KavletError for helper columns, and for the last one."""
    table = document.table(table_id)
    doomed = table.columns[at : at + count]
    if {column.id for column in doomed} & {NAMES, VALUES}:
        refuse_helper(table)
    if any(column.helper is not None for column in doomed):
        raise KavletError(say("A helper column belongs to its chart."), remedy=say("It goes when the chart goes."))
    if sum(column.helper is None for column in table.columns) <= len(doomed):
        raise KavletError(say("A table keeps at least one column."))
    document = _shift(document, table, Shift(at, -len(doomed), (len(table.columns),)), by_rows=False)
    table = document.table(table_id)
    columns = (*table.columns[:at], *table.columns[at + len(doomed) :])
    gone = {column.id for column in doomed}
    charts = tuple(
        with_roles(chart, _left(chart.roles, gone), series_role(document, chart)) if chart.table == table_id else chart
        for chart in document.charts
    )
    document = without_read(msgspec.structs.replace(document, charts=charts), table_id, gone)
    return fitted(with_table(document, msgspec.structs.replace(table, columns=columns)))


def _left(roles: dict[str, tuple[str, ...]], removed: set[str]) -> dict[str, tuple[str, ...]]:
    """The columns that are left of each role."""
    remaining = {role: tuple(column for column in columns if column not in removed) for role, columns in roles.items()}
    return {role: columns for role, columns in remaining.items() if columns}


def _shift(document: Document, table: Table, shift: Shift, by_rows: bool) -> Document:
    """All formulas of the document following rows or columns of one table."""

    def followed(text: str, home: str, place: Place) -> str:
        at = None if place is None else place[1 if by_rows else 0]
        return shifted(text, home == table.id, table.name, shift, by_rows, at)

    return with_formulas(document, followed)


MAX_REASON = 500  # letters


def silenced(document: Document, check: str, reason: str, chart: str = "", page: str = "") -> Document:
    """A check silenced for a chart, for a page, or for the whole document where neither is named. Raises KavletError
    without a reason, or for one that is very long."""
    why = " ".join(reason.split())
    if not why:
        raise KavletError(say("Silencing needs a reason, which stays in the document."))
    if len(why) > MAX_REASON:
        raise KavletError(say("The reason is longer than {most} letters.", most=MAX_REASON))
    return _with(document, {**_held(document, chart, page), check: why}, chart, page)


def listened_to(document: Document, check: str, chart: str = "", page: str = "") -> Document:
    """A check listened to again: for a chart and its page, and in the whole document, wherever it was silenced."""
    for one, other in {(chart, ""), ("", page), ("", "")}:
        held = _held(document, one, other)
        if check in held:
            document = _with(document, {key: why for key, why in held.items() if key != check}, one, other)
    return document


def _held(document: Document, chart: str, page: str) -> dict[str, str]:
    if chart:
        return document.chart(chart).silenced
    return document.page(page).silenced if page else document.silenced


def _with(document: Document, reasons: dict[str, str], chart: str, page: str) -> Document:
    if chart:
        return with_chart(document, msgspec.structs.replace(document.chart(chart), silenced=reasons))
    if page:
        return with_page(document, msgspec.structs.replace(document.page(page), silenced=reasons))
    return msgspec.structs.replace(document, silenced=reasons)
