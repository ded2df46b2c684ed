"""Edits of what cells hold: filling, pasting with references, number text, clearing by hand."""

import msgspec

from kavlet.core.document.document import Document, with_table
from kavlet.core.document.edits import set_cells
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.reference_updates import with_references
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.spreadsheet.references import RangeReference, column_letters, filled, quoted
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.number_text import NumberText

Box = tuple[int, int, int, int]  # first column, first row, last column, last row, both ends included


def fill(document: Document, table_id: str, source: Box, target: Box) -> Document:
    """Fill the target from the source, which lies at one end of it: formulas follow, two or more numbers go on as a
    series, a date goes on by days, all else repeats.
    """
    table = document.table(table_id)
    c1, r1, c2, r2 = source
    t1, s1, t2, s2 = target
    down = (t1, t2) == (c1, c2)
    cells: dict[tuple[int, int], Cell] = {}
    for line in range(c1, c2 + 1) if down else range(r1, r2 + 1):
        places = [(line, row) for row in range(r1, r2 + 1)] if down else [(col, line) for col in range(c1, c2 + 1)]
        held = [table.columns[c].cells[r] if r < table.height else None for c, r in places]
        first = places[0][1] if down else places[0][0]
        for at in range(s1, s2 + 1) if down else range(t1, t2 + 1):
            place = (line, at) if down else (at, line)
            if place not in places:
                cells[place] = _going_on(held, at - first, down)
    return set_cells(document, table_id, cells)


def _going_on(held: list[Cell], step: int, down: bool) -> Cell:
    """The cell `step` places after the first of `held`, which may lie before it."""
    numbers = [cell.value if isinstance(cell, FormattedNumber) else cell for cell in held]
    if all(isinstance(number, float) for number in numbers) and (len(held) > 1 or _is_date(held[0])):
        values = [number for number in numbers if isinstance(number, float)]
        slope = (values[-1] - values[0]) / (len(values) - 1) if len(values) > 1 else 1.0
        value = float(f"{values[0] + slope * step:.15g}")
        last = held[-1]
        return FormattedNumber(value, last.number) if isinstance(last, FormattedNumber) else value
    index = step % len(held)
    cell = held[index]
    if isinstance(cell, Formula):
        moved = step - index
        return Formula(filled(cell.text, 0 if down else moved, moved if down else 0), number=cell.number)
    return cell


def _is_date(cell: Cell) -> bool:
    return isinstance(cell, FormattedNumber) and cell.number.style == "date"


def moved_block(block: list[list[Cell]], columns: int, rows: int) -> list[list[Cell]]:
    """Copied cells as they read that many columns and rows away: relative references go along."""
    return [
        [
            Formula(filled(cell.text, columns, rows), number=cell.number) if isinstance(cell, Formula) else cell
            for cell in line
        ]
        for line in block
    ]


def move_cells(document: Document, table_id: str, source: Box, column: int, row: int) -> Document:
    """Move a block to another place of its table: every reference to its cells goes along with them."""
    table = document.table(table_id)
    c1, r1, c2, r2 = source
    by = (column - c1, row - r1)
    taken = {(c, r): table.columns[c].cells[r] for c in range(c1, c2 + 1) for r in range(r1, min(r2 + 1, table.height))}
    cleared: dict[tuple[int, int], Cell] = dict.fromkeys(taken)
    document = set_cells(document, table_id, cleared | {(c + by[0], r + by[1]): cell for (c, r), cell in taken.items()})

    return fitted(with_references(document, table_id, lambda old: _gone_along(old, source, by)))


def _gone_along(old: RangeReference, box: Box, by: tuple[int, int]) -> RangeReference:
    """A reference whose cells all lie in the block, moved with it; others stay."""
    c1, r1, c2, r2 = box
    corners = [corner for corner in (old.one, old.other) if corner is not None]
    if old.whole or not all(c1 <= corner.column <= c2 and r1 <= corner.row <= r2 for corner in corners):
        return old
    moved = [
        msgspec.structs.replace(corner, column=corner.column + by[0], row=corner.row + by[1]) for corner in corners
    ]
    return RangeReference(moved[0], moved[1] if old.other else None, old.table)


def set_number_text(document: Document, table_id: str, box: Box, number: NumberText) -> Document:
    """How numbers are written: for whole columns where all their figures are in the box, else cell by cell."""
    table = document.table(table_id)
    c1, r1, c2, r2 = box
    whole = r1 <= HEADER and r2 >= table.height - 1
    columns = list(table.columns)
    for index in range(c1, min(c2 + 1, len(columns))):
        column = columns[index]
        cells = tuple(
            _rewritten_number(cell, None if whole else number) if r1 <= row <= r2 and row >= HEADER else cell
            for row, cell in enumerate(column.cells)
        )
        columns[index] = msgspec.structs.replace(column, cells=cells, number=number if whole else column.number)
    return fitted(with_table(document, msgspec.structs.replace(table, columns=tuple(columns))))


def _rewritten_number(cell: Cell, number: NumberText | None) -> Cell:
    if isinstance(cell, Formula):
        return Formula(cell.text, cell.made, number)
    if isinstance(cell, FormattedNumber):
        return FormattedNumber(cell.value, number) if number else cell.value
    return FormattedNumber(cell, number) if isinstance(cell, float) and number else cell


def address(box: Box, table: str = "") -> str:
    """A box as formulas write it: ``B2``, ``B2:C9``, ``'My table'!B2``."""
    c1, r1, c2, r2 = box
    one, other = f"{column_letters(c1)}{r1 + 1}", f"{column_letters(c2)}{r2 + 1}"
    cells = one if one == other else f"{one}:{other}"
    return f"{quoted(table)}!{cells}" if table else cells
