"""Keeps helper tables true to the charts that read across a row: one for each of them, which comes and goes with it.

Cells the reading made are renewed; what an author typed over them stays, and comes back when emptied.
"""

from collections.abc import Mapping

import msgspec

from kavlet.core.document.document import ChartEntry, DataDirection, Document, fresh_id, fresh_name
from kavlet.core.document.tables.columns import kinds
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import column_letters, quoted
from kavlet.core.spreadsheet.table import HEADER, Column, Helper, Table
from kavlet.core.values.errors import KavletError

ACROSS = "across"  # which of a chart's helpers the table is
NAMES, VALUES = "c1", "c2"  # its own columns


def names_column(table: Table) -> int:
    """The column that says what a table's rows are called; -1 where it has none."""
    found = kinds(table)
    return next((i for i, column in enumerate(table.columns) if found.get(column.id) in ("names", "periods")), -1)


def reader_of(document: Document, table: Table) -> ChartEntry | None:
    """The chart whose helper table it is; None for a table of the author's."""
    return next(
        (entry for entry in document.charts if table.helper is not None and entry.id == table.helper.chart), None
    )


def refuse_helper(table: Table) -> None:
    """Raises KavletError for a helper table: its rows are the columns that are read."""
    if table.helper is not None:
        raise KavletError(
            say("This is a helper table: its rows are the columns that the chart reads."),
            remedy=say("Choose them under the chart, or have its figures run down the columns."),
        )


def loosened(table: Table) -> Table:
    """A helper table as the author's own: nothing renews its formulas. Any other table as it is."""
    if table.helper is None:
        return table
    columns = tuple(
        msgspec.structs.replace(
            column,
            cells=tuple(
                msgspec.structs.replace(cell, made=False) if isinstance(cell, Formula) and cell.made else cell
                for cell in column.cells
            ),
        )
        if column.helper is None
        else column
        for column in table.columns
    )
    return msgspec.structs.replace(table, columns=columns, helper=None)


def with_helper_tables(document: Document) -> Document:
    """The document with a helper table for each chart that reads across, and none else; the same object when nothing
    had to change."""
    readers = {chart.id: chart for chart in document.charts if chart.reading is not None}
    if not readers and not any(table.helper is not None for table in document.tables):
        return document
    tables = [table for table in document.tables if table.helper is None or table.helper.chart in readers]
    charts = list(document.charts)
    for i, chart in enumerate(charts):
        if chart.reading is None:
            continue
        mine = next((one for one in tables if one.helper is not None and one.helper.chart == chart.id), None)
        source = next(one for one in tables if one.id == chart.reading.table)
        if mine is None:
            mine = _new(document, tables, chart, source)
            behind = next((one for one in tables if one.id == chart.table), source)
            tables.insert(tables.index(behind) + 1, mine)
        tables[tables.index(mine)] = _fitted(mine, chart.reading, source)
        charts[i] = chart if chart.table == mine.id else msgspec.structs.replace(chart, table=mine.id)
    same = [*map(id, tables)] == [*map(id, document.tables)] and all(
        a is b for a, b in zip(charts, document.charts, strict=True)
    )
    return document if same else msgspec.structs.replace(document, tables=tuple(tables), charts=tuple(charts))


def _new(document: Document, tables: list[Table], chart: ChartEntry, source: Table) -> Table:
    name = say("{table}, across", table=source.name).said_in(document.locale)
    empty = tuple(Column(one, (None,) * (HEADER + 1)) for one in (NAMES, VALUES))
    taken = [*document.tables, *tables]
    return Table(
        fresh_id("t", (one.id for one in taken)),
        fresh_name(name, (one.name for one in taken)),
        empty,
        helper=Helper(chart.id, ACROSS),
    )


def _fitted(table: Table, direction: DataDirection, source: Table) -> Table:
    """The table with a row for each column read, and the formulas of the reading wherever the author typed nothing."""
    places = [place for place in map(source.place, direction.columns) if place >= 0]
    height = HEADER + max(1, len(places))
    names, row = names_column(source), max(0, min(direction.row, source.rows - 1))
    heads: list[Formula | None] = [_made("")] + [_made(f"{_sheet(source)}{column_letters(at)}$1") for at in places]
    values: list[Formula | None] = [_made(_picked(source, names, row)) if names >= 0 else None]
    values += [_made(_picked(source, at, row), source.columns[at]) for at in places]
    wanted = {NAMES: heads, VALUES: values}
    columns = tuple(
        _renewed(column, wanted[column.id], height) if column.id in wanted else _sized(column, height)
        for column in table.columns
    )
    same = all(a is b for a, b in zip(columns, table.columns, strict=True))
    return table if same else msgspec.structs.replace(table, columns=columns)


def _sheet(source: Table) -> str:
    return f"={quoted(source.name)}!"


def _picked(source: Table, column: int, row: int) -> str:
    """A cell of a column by its row, as a formula in which an author sees which row that is."""
    letters = column_letters(column)
    return f"=INDEX({quoted(source.name)}!{letters}${HEADER + 1}:{letters}${source.height};{row + 1})"


def _made(text: str, like: Column | None = None) -> Formula | None:
    return Formula(text, True, like.writes if like is not None else None) if text else None


def _renewed(column: Column, formulas: list[Formula | None], height: int) -> Column:
    cells: list[Cell] = []
    for row in range(height):
        formula = column.cells[row] if row < len(column.cells) else None
        is_own = formula is not None and not (isinstance(formula, Formula) and formula.made)
        cells.append(formula if is_own else formulas[row] if row < len(formulas) else None)
    return column if tuple(cells) == column.cells else msgspec.structs.replace(column, cells=tuple(cells))


def _sized(column: Column, height: int) -> Column:
    """A helper column of the chart's with as many cells; its recipe fills new ones."""
    held = column.cells[:height]
    return column if len(column.cells) == height else msgspec.structs.replace(
        column, cells=(*held, *(None,) * (height - len(held)))
    )  # fmt: skip


def written_through(document: Document, table_id: str, cells: Mapping[tuple[int, int], Cell]) -> tuple[
    Document, dict[tuple[int, int], Cell]
]:  # fmt: skip
    """Figures and names typed into a helper table, put where it reads them; returns what is left to be put there.

    A formula stays where it is typed, as an exception the author makes.
    """
    table = document.table(table_id)
    chart = reader_of(document, table)
    direction = chart.reading if chart is not None else None
    if direction is None:
        return document, dict(cells)
    source = document.table(direction.table)
    columns = list(source.columns)
    lost: dict[tuple[int, int], Cell] = {}
    for (column, row), cell in cells.items():
        held = table.columns[column].cells[row] if column < len(table.columns) and row < table.height else None
        origin = _origin(source, direction, table.columns[column].id if held is not None else "", row)
        if origin is None or cell is None or isinstance(cell, Formula) or not (isinstance(held, Formula) and held.made):
            lost[column, row] = cell
            continue
        changed = list(columns[origin[0]].cells)
        changed[origin[1]] = cell
        columns[origin[0]] = msgspec.structs.replace(columns[origin[0]], cells=tuple(changed))
    tables = tuple(
        msgspec.structs.replace(old, columns=tuple(columns)) if old.id == source.id else old for old in document.tables
    )
    return msgspec.structs.replace(document, tables=tables), lost


def _origin(source: Table, direction: DataDirection, column: str, row: int) -> tuple[int, int] | None:
    """The cell of the table read that stands in a row of one of the helper table's columns."""
    if (column, row) == (VALUES, 0):
        return names_column(source), direction.row + HEADER
    place = source.place(direction.columns[row - HEADER]) if 0 < row <= len(direction.columns) else -1
    if place < 0 or column not in (NAMES, VALUES):
        return None
    return place, 0 if column == NAMES else direction.row + HEADER
