"""Tables that follow a file: what would change, and taking it over."""

from collections.abc import Callable

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document, with_table
from kavlet.core.document.edits import delete_columns, delete_rows, insert_columns, set_cells
from kavlet.core.document.following_looks import following_rows
from kavlet.core.figures.cells import Cell
from kavlet.core.figures.table import HEADER, Source, Table


class Difference(Struct, frozen=True):
    """One cell that a file holds otherwise: its place in the table, what stands there, and what would."""

    column: int
    row: int
    held: Cell
    coming: Cell


def link(document: Document, table_id: str, source: Source | None) -> Document:
    """Make a table follow a file, or stop following it."""
    return with_table(document, msgspec.structs.replace(document.table(table_id), source=source))


def differences(table: Table, coming: list[list[Cell]]) -> list[Difference]:
    """The cells of the table's own columns that the file holds otherwise; added and lost rows and columns count too."""
    own = [column for column in table.columns if column.helper is None]
    height = max(table.height, len(coming))
    width = max(len(own), max((len(row) for row in coming), default=0))
    found: list[Difference] = []
    for row in range(height):
        line = coming[row] if row < len(coming) else []
        for column in range(width):
            held = own[column].cells[row] if column < len(own) and row < table.height else None
            new = line[column] if column < len(line) else None
            if held != new or type(held) is not type(new):
                found.append(Difference(column, row, held, new))
    return found


def update(document: Document, table_id: str, coming: list[list[Cell]]) -> Document:
    """The table with the file's cells in its own columns, in the file's extent; helpers and charts follow."""
    table = document.table(table_id)
    own = sum(column.helper is None for column in table.columns)
    width = max((len(row) for row in coming), default=0)
    if width > own:
        document = insert_columns(document, table_id, own, width - own)
    elif 0 < width < own:
        document = delete_columns(document, table_id, width, own - width)
    document = following_rows(document, table_id, _rows_by_name(table, coming))
    if 1 < len(coming) < table.height:
        document = delete_rows(document, table_id, len(coming), table.height - len(coming))
    cells = {
        (column, row): line[column] if column < len(line) else None
        for row, line in enumerate(coming)
        for column in range(width)
    }
    return set_cells(document, table_id, cells)


def _rows_by_name(table: Table, coming: list[list[Cell]]) -> Callable[[int], int | None]:
    """Where each row of figures has gone to by its name, the first column; by its place where names repeat."""
    before = list(table.columns[0].cells[HEADER:])
    after = [line[0] if line else None for line in coming[HEADER:]]
    if len(set(before)) < len(before) or len(set(after)) < len(after):
        return lambda row: row
    places = {name: row for row, name in enumerate(after)}
    return lambda row: places.get(before[row]) if row < len(before) else row
