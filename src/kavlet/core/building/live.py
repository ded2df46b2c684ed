"""Figures changed where they are shown: the cell whose number a mark or a key figure shows."""

import math
from collections.abc import Iterator

from msgspec import Struct

from kavlet.core.building.stages import Picture
from kavlet.core.charts.layer import GATHERED
from kavlet.core.compose.figure import Mark
from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.tweening import number, with_value
from kavlet.core.figures.cells import Formula
from kavlet.core.figures.recalculate import Values
from kavlet.core.figures.references import SCAN, reference
from kavlet.core.figures.table import HEADER, Table
from kavlet.core.messages import say
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.values.errors import KavletError


class LiveCell(Struct, frozen=True):
    """A cell: its table by id, column and row, both counted from 0, the header being row 0."""

    table: str
    column: int
    row: int


def cell_of_mark(document: Document, values: Values, chart: ChartEntry, picture: Picture, mark: Mark) -> LiveCell:
    """The cell whose number a mark shows. Raises KavletError where it shows what is computed of several."""
    table = document.table(chart.table)
    layer = picture.build.chart.layer(mark.key)
    own = [getattr(layer, "values", "")] if layer is not None else []
    roles = [column for held in chart.roles.values() for column in held]
    columns = [one for one in dict.fromkeys((*own, *roles)) if table.place(one) >= 0]
    columns = [one for one in columns if table.columns[table.place(one)].helper is None]
    for place in _candidates(table, columns, mark.row):
        held = values.of(table.id)[place.column].values[place.row]
        if isinstance(held, float) and math.isclose(held, mark.value, rel_tol=1e-9, abs_tol=1e-12):
            return _typed(document, place)
    of_row = [one for one in chart.roles.get("value", ()) if one in columns]
    if len(of_row) == 1 and 0 <= mark.row < table.rows and mark.row < GATHERED:
        # It is drawn otherwise, as a share or by symbols, but it is the row's only figure.
        return _typed(document, LiveCell(table.id, table.place(of_row[0]), mark.row + HEADER))
    raise _computed()


def cell_of_figure(document: Document, item: KeyFigure) -> LiveCell:
    """The cell whose number a key figure shows. Raises KavletError where it shows what is computed."""
    bare = item.value.removeprefix("=").strip()
    found = SCAN.fullmatch(bare) if item.value.startswith("=") else None
    if found is None or found["text"] is not None or not document.tables:
        raise _computed()
    cell = reference(bare)
    home = next((one for one in document.tables if one.name == cell.table), document.tables[0])
    if cell.other is not None or not cell.one.inside:
        raise _computed()
    return _typed(document, LiveCell(home.id, cell.one.column, cell.one.row))


def with_number(document: Document, place: LiveCell, new: float) -> Document:
    """The document with another number in a cell."""
    held = document.table(place.table).columns[place.column].cells[place.row]
    return edits.set_cells(document, place.table, {(place.column, place.row): with_value(held, new)})


def _candidates(table: Table, columns: list[str], row: int) -> Iterator[LiveCell]:
    """Where a mark's number may stand: in its own row first, then in any."""
    rows = range(HEADER, table.height)
    for at in (*(one for one in rows if one == row + HEADER), *(one for one in rows if one != row + HEADER)):
        for column in columns:
            yield LiveCell(table.id, table.place(column), at)


def _typed(document: Document, place: LiveCell) -> LiveCell:
    """The cell, where a number is typed. Raises KavletError where it is computed."""
    table = document.table(place.table)
    column = table.column(place.column)
    cell = column.cells[place.row] if column is not None and place.row < table.height else None
    if number(cell) is None and not (isinstance(cell, Formula) and cell.made and table.helper is not None):
        raise _computed()
    return place


def _computed() -> KavletError:
    return KavletError(say("This figure is computed of others."), remedy=say("Change the cells that it is made of."))
