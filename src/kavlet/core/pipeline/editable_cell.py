"""Figures changed where they are shown: the cell whose number a mark or a key figure shows."""

from collections.abc import Iterator

from msgspec import Struct

from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.interpolation import number, with_value
from kavlet.core.layout.figure import Mark
from kavlet.core.messages import say
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pipeline.stages import Picture
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.references import SCAN, reference
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.values.errors import KavletError

Place = tuple[int, int]  # column and row in a table, from 0


class EditableCell(Struct, frozen=True):
    """A cell: its table by id, column and row, both counted from 0, the header being row 0."""

    table: str
    column: int
    row: int


def cell_of_mark(document: Document, chart: ChartEntry, picture: Picture, mark: Mark) -> EditableCell:
    """The cell whose number a mark shows: that of its column in its row; where that is a helper's, the one figure of
    the row that the helper shows. Raises KavletError where it is computed of others."""
    table, row = document.table(chart.table), mark.row + HEADER
    column = table.place(mark.column)
    if column < 0 or not HEADER <= row < table.height:
        raise _computed()
    helper = table.columns[column].helper
    if helper is None:
        return _typed(document, EditableCell(table.id, column, row))
    shows = next((one.shows for one in picture.recipe.helpers if one.name == helper.name), "") if picture.recipe else ""
    values = [table.place(figures) for figures in chart.roles.get(shows or "value", ())]
    if len(values) == 1:
        read = {place for place in _read_by(table, (column, row)) if place[0] in values}
        if shows or read == {(values[0], row)}:
            return _typed(document, EditableCell(table.id, values[0], row))
    raise _computed()


def _read_by(table: Table, place: Place) -> set[Place]:
    """The author's cells that a helper cell reads one by one, through other helpers too. Ranges of helpers, and those
    over all rows of a column, such as the sum that a share is of, are none of them."""
    inputs_read: set[Place] = set()
    visited: set[Place] = set()
    waiting = [place]
    while waiting:
        at = waiting.pop()
        if at in visited:
            continue
        visited.add(at)
        column = table.column(at[0])
        if column is None or not at[1] < len(column.cells):
            continue
        cell = column.cells[at[1]]
        if column.helper is None:
            inputs_read.add(at)
        elif isinstance(cell, Formula):
            waiting += _named_in(table, cell.text)
    return inputs_read


def _named_in(table: Table, formula: str) -> Iterator[Place]:
    """The cells of a table that a formula names, but for ranges over all its rows."""
    for match in SCAN.finditer(formula):
        if match["text"] is not None:
            continue
        held = reference(match[0])
        if held.table not in ("", table.name) or not held.one.inside:
            continue
        last = held.other or held.one
        rows = range(max(HEADER, held.one.row), min(last.row, table.height - 1) + 1)
        if len(rows) > 1 and len(rows) >= table.rows:
            continue
        for place in range(held.one.column, last.column + 1):
            column = table.column(place)
            if column is not None and (held.other is None or column.helper is None):
                yield from ((place, row) for row in rows)


def cell_of_figure(document: Document, item: KeyFigure) -> EditableCell:
    """The cell whose number a key figure shows. Raises KavletError where it shows what is computed."""
    bare = item.value.removeprefix("=").strip()
    found = SCAN.fullmatch(bare) if item.value.startswith("=") else None
    if found is None or found["text"] is not None or not document.tables:
        raise _computed()
    cell = reference(bare)
    home = next((table for table in document.tables if table.name == cell.table), document.tables[0])
    if cell.other is not None or not cell.one.inside:
        raise _computed()
    return _typed(document, EditableCell(home.id, cell.one.column, cell.one.row))


def with_number(document: Document, cell: EditableCell, new: float) -> Document:
    """The document with another number in a cell. Raises KavletError where there is no such cell, or it is computed."""
    _typed(document, cell)
    held = document.table(cell.table).columns[cell.column].cells[cell.row]
    return edits.set_cells(document, cell.table, {(cell.column, cell.row): with_value(held, new)})


def same_cell(before: Document, now: Document, cell: EditableCell) -> bool:
    """Whether a cell is still the one it was, rows and columns having come and gone. Raises KavletError where its table
    is gone."""
    was, table = before.table(cell.table), now.table(cell.table)
    column, now_there = was.column(cell.column), table.column(cell.column)
    if column is None or now_there is None or column.id != now_there.id or was.rows != table.rows:
        return False
    return column.cells[cell.row] == now_there.cells[cell.row]


def _typed(document: Document, place: EditableCell) -> EditableCell:
    """The cell, where a number is typed. Raises KavletError where it is computed."""
    table = document.table(place.table)
    column = table.column(place.column)
    cell = column.cells[place.row] if column is not None and place.row < table.height else None
    if number(cell) is None and not (isinstance(cell, Formula) and cell.made and table.helper is not None):
        raise _computed()
    return place


def _computed() -> KavletError:
    return KavletError(say("This figure is computed of others."), remedy=say("Change the cells that it is made of."))
