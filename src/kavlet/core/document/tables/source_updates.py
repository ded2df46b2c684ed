"""Tables that follow a file: what would change, and taking it over without losing what an author made of it.

Three states are told apart: what the file held when it was last taken over, what the table holds now, and what the file
holds now. Columns are matched by their header, rows by their name (by place where names repeat); what is only in the
table is the author's own and stays.
"""

from collections.abc import Iterable

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document, with_table
from kavlet.core.document.edits import delete_rows, insert_columns, insert_rows, set_cells
from kavlet.core.document.tables.row_order import move_rows
from kavlet.core.messages import Message, counted, say
from kavlet.core.spreadsheet.cells import Cell, text_of
from kavlet.core.spreadsheet.table import HEADER, Source, Table

Rows = list[list[Cell]]
NEW, LEFT_OUT = -1, -2


class CellDifference(Struct, frozen=True):
    """One cell that a file holds otherwise: its place in the table, what stands there, and what would.

    `mine` where the author has changed it too, so that taking the file's over would lose that.
    """

    column: int
    row: int
    held: Cell
    coming: Cell
    mine: bool = False


class Alignment(Struct, frozen=True):
    """How a file fits a table: where each of its columns and rows stands there, and what it has no more.

    `NEW` is what the table does not have yet, `LEFT_OUT` what the author has deleted. Rows are counted with the header.
    `by_place` where names repeat, so that rows are told by their place.
    """

    columns: list[int]
    rows: list[int]
    gone_columns: list[int]
    gone_rows: list[int]
    by_place: bool


class SourceUpdate(Struct, frozen=True):
    """A document with a file's cells taken over, and what an author should know of it."""

    document: Document
    notes: tuple[Message, ...]


def link(document: Document, table_id: str, source: Source | None) -> Document:
    """Make a table follow a file, or stop following it."""
    return with_table(document, msgspec.structs.replace(document.table(table_id), source=source))


def linked_table(document: Document, table_id: str, source: Source, cells: Rows) -> Document:
    """A table that follows a file, which holds these cells now."""
    table = document.table(table_id)
    places = align(table, cells).columns
    own = tuple(table.columns[place].id if place >= 0 else "" for place in places)
    return link(document, table_id, msgspec.structs.replace(source, taken=tuple(map(tuple, cells)), columns=own))


def align(table: Table, file_rows: Rows) -> Alignment:
    """How the file's columns and rows fit the table's."""
    taken_rows = [list(row) for row in table.source.taken] if table.source is not None else []
    columns, gone_columns = _columns(table, taken_rows, file_rows)
    key = next(
        (i for i, cells in enumerate(zip(*_padded(file_rows), strict=True)) if _is_name_column(cells[HEADER:])), 0
    )
    place = columns[key] if key < len(columns) else NEW
    before = list(table.columns[place].cells) if place >= 0 else []
    after = [line[key] if key < len(line) else None for line in file_rows]
    old_keys = [line[key] if key < len(line) else None for line in taken_rows]
    if place < 0 or not all(_all_distinct(names[HEADER:]) for names in (before, after, old_keys)):
        rows = [i if i < table.height else NEW for i in range(len(file_rows))]
        last = min(table.height, len(taken_rows)) if taken_rows else table.height  # rows below are the author's own
        gone_rows = list(range(len(file_rows), last)) if len(file_rows) > 1 else []
        return Alignment(columns, rows, gone_columns, gone_rows, by_place=True)
    table_tuples = [
        tuple(table.columns[column].cells[row] for column in columns if column >= 0 and column != place)
        for row in range(table.height)
    ]
    common = [i for i, column in enumerate(columns) if column >= 0 and column != place]
    taken_tuples = [tuple(line[i] if i < len(line) else None for i in common) for line in taken_rows]
    row_of = _known_rows(before, old_keys, table_tuples, taken_tuples)
    rows = [0, *(row_of.get(name, NEW) for name in after[HEADER:])]
    gone_rows = [
        row for name, row in row_of.items() if row >= HEADER and row not in rows and (name in old_keys or not old_keys)
    ]
    return Alignment(columns, rows, gone_columns, gone_rows, by_place=False)


def _columns(table: Table, taken_rows: Rows, file_rows: Rows) -> tuple[list[int], list[int]]:
    """Where each of the file's columns stands, by its header; and which columns of the table it has no more."""
    heads = [_head(cell) for cell in (file_rows[0] if file_rows else [])]
    own_places = [i for i, column in enumerate(table.columns) if column.helper is None]
    known_heads = (
        [_head(cell) for cell in taken_rows[0]]
        if taken_rows
        else [_head(table.columns[i].cells[0]) for i in own_places]
    )
    ids = (
        table.source.columns
        if table.source is not None and taken_rows
        else tuple(table.columns[i].id for i in own_places)
    )
    found: list[int] = []
    for i, head in enumerate(heads):
        alone = heads.count(head) == known_heads.count(head) == 1
        old = known_heads.index(head) if alone else i if i < len(known_heads) and known_heads[i] == head else -1
        here = table.place(ids[old]) if 0 <= old < len(ids) else NEW
        found.append(here if old < 0 or here >= 0 else LEFT_OUT)
    places = [table.place(column_id) for column_id in ids]
    return found, [place for place in places if place >= 0 and place not in found]


def _known_rows(
    before: list[Cell], old_keys: list[Cell], table_tuples: list[tuple[Cell, ...]], taken_tuples: list[tuple[Cell, ...]]
) -> dict[Cell, int]:
    """Where the row of each name stands; those deleted by the author are left out.

    A row that the author renamed is told by its figures (`held` in the table, `told` by the file), else by its place.
    """
    row_of = {name: row for row, name in enumerate(before) if row >= HEADER}
    lost = [row for row, name in enumerate(old_keys) if row >= HEADER and name not in row_of]
    new = [row for name, row in row_of.items() if name not in old_keys]
    renamed: dict[int, int] = {}
    for same in (
        lambda old, row: table_tuples[row] == taken_tuples[old] and any(taken_tuples[old]),
        lambda old, row: old == row,
    ):
        for old in lost:
            match = next((row for row in new if row not in renamed.values() and same(old, row)), None)
            if old not in renamed and match is not None:
                renamed[old] = match
    moved_rows = {old_keys[old]: renamed.get(old, LEFT_OUT) for old in lost}
    return {name: row for name, row in row_of.items() if row not in renamed.values()} | moved_rows


def _head(cell: Cell) -> str:
    """A header as text, to be compared."""
    return text_of(cell).strip() if isinstance(cell, str | float | bool) else ""


def _padded(rows: Rows) -> Rows:
    width = max((len(row) for row in rows), default=0)
    return [[*row, *(None for _ in range(width - len(row)))] for row in rows]


def _is_name_column(cells: Iterable[Cell]) -> bool:
    """Whether a column holds names: texts, in most rows."""
    held = list(cells)
    return bool(held) and 2 * sum(isinstance(cell, str) for cell in held) > len(held)


def _all_distinct(names: list[Cell]) -> bool:
    """Whether each row has a name of its own."""
    told = [name for name in names if name is not None]
    return len(set(told)) == len(names)


def _base(table: Table) -> dict[tuple[int, int], Cell]:
    """What the file held when it was last taken over, by the place in the table; nothing where that is not known."""
    taken = [list(row) for row in table.source.taken] if table.source is not None else []
    if not taken:
        return {}
    was = align(table, taken)
    return {
        (column, row): new
        for row, line in zip(was.rows, _padded(taken), strict=True)
        for column, new in zip(was.columns, line, strict=False)
        if row >= 0 and column >= 0
    }


def differences(table: Table, file_rows: Rows) -> list[CellDifference]:
    """The cells that the file holds otherwise than when it was last taken over, and those of what is new or gone."""
    alignment, base = align(table, file_rows), _base(table)
    changes: list[CellDifference] = []
    below, right = table.height, len(table.columns)
    for row, line in zip(alignment.rows, _padded(file_rows), strict=True):
        if row == LEFT_OUT:
            continue
        for column, new in zip(alignment.columns, line, strict=False):
            if column == LEFT_OUT:
                continue
            here = row >= 0 and column >= 0
            ours = table.columns[column].cells[row] if here else None
            before = base.get((column, row), ours) if here else None
            if not _same(ours, new) and not (here and base and _same(before, new)):
                place = (column if column >= 0 else right), (row if row >= 0 else below)
                changes.append(CellDifference(*place, ours, new, mine=here and not _same(ours, before)))
        below += row == NEW
    for row in alignment.gone_rows:
        cells = {column: table.columns[column].cells[row] for column in alignment.columns if column >= 0}
        changes += [CellDifference(column, row, cell, None) for column, cell in cells.items() if cell is not None]
    return changes


def _same(one: Cell, other: Cell) -> bool:
    return type(one) is type(other) and one == other


def keep(document: Document, table_id: str, change: CellDifference) -> Document:
    """A cell as the author has it: what the file says there now counts as seen."""
    table = document.table(table_id)
    if table.source is None or not table.source.taken:
        return document
    taken_rows = [list(row) for row in table.source.taken]
    alignment = align(table, taken_rows)
    if change.row not in alignment.rows or change.column not in alignment.columns:
        return document
    row, column = alignment.rows.index(change.row), alignment.columns.index(change.column)
    taken_rows = _padded(taken_rows)
    taken_rows[row][column] = change.coming
    source = msgspec.structs.replace(table.source, taken=tuple(map(tuple, taken_rows)))
    return link(document, table_id, source)


def update(document: Document, table_id: str, file_rows: Rows, keep_mine: bool = False) -> SourceUpdate:
    """The table with the file's cells taken over; the author's own columns, rows, formulas, looks and roles stay.

    With `keep_mine`, cells that both have changed stay as the author has them.
    """
    table = document.table(table_id)
    alignment, base = align(table, file_rows), _base(table)
    notes: list[Message] = []
    if alignment.gone_columns:
        names = [_head(table.columns[i].cells[0]) for i in alignment.gone_columns]
        notes.append(say("The file has no column {names} any more; the figures and what reads them stay.", names=names))
    if alignment.by_place:
        notes.append(say("Names repeat, so rows are told by their place."))
    kept_cells = (
        {(change.column, change.row) for change in differences(table, file_rows) if change.mine} if keep_mine else set()
    )
    if kept_cells:
        notes.append(counted("{count} edit of yours is kept.", "{count} edits of yours are kept.", len(kept_cells)))
    document, columns = _with_columns(document, table_id, alignment)
    document, rows = _with_rows(document, table_id, alignment)
    cells: dict[tuple[int, int], Cell] = {}
    for old, row, line in zip(alignment.rows, rows, _padded(file_rows), strict=True):
        for file_place, column, new in zip(alignment.columns, columns, line, strict=False):
            here = file_place >= 0 and old >= 0
            unchanged = here and bool(base) and _same(base.get((file_place, old)), new)
            if row >= 0 and column >= 0 and not unchanged and (file_place, old) not in kept_cells:
                cells[column, row] = new
    return SourceUpdate(set_cells(document, table_id, cells), tuple(notes))


def _with_columns(document: Document, table_id: str, fit: Alignment) -> tuple[Document, list[int]]:
    """The table with the file's new columns behind its others, and where each of the file's columns stands now."""
    fresh = max([*fit.columns, *fit.gone_columns], default=NEW) + 1
    new = fit.columns.count(NEW)
    if new:
        document = insert_columns(document, table_id, fresh, new)
    places: list[int] = []
    for place in fit.columns:
        places.append(fresh if place == NEW else place)
        fresh += place == NEW
    return document, places


def _runs(rows: list[int]) -> list[tuple[int, int]]:
    """Rows in ascending order as runs without a gap: the first of each, and how many they are."""
    runs: list[tuple[int, int]] = []
    for row in rows:
        if runs and row == sum(runs[-1]):
            runs[-1] = (runs[-1][0], runs[-1][1] + 1)
        else:
            runs.append((row, 1))
    return runs


def _is_sorted(table: Table) -> bool:
    """Whether the author has put the rows into another order than the file had."""
    taken = [list(row) for row in table.source.taken] if table.source is not None else []
    stood = [row for row in align(table, taken).rows if row >= 0]
    return stood != sorted(stood)


def _with_rows(document: Document, table_id: str, alignment: Alignment) -> tuple[Document, list[int]]:
    """The table without the rows that the file has no more and with its new ones, and where each row stands now.

    The rows follow the file's order, new ones behind the one before them, the author's own behind all; where the author
    has sorted the table, its order stays and new rows stand at its end.
    """
    own_order = _is_sorted(document.table(table_id))
    for first, count in reversed(_runs(sorted(alignment.gone_rows))):
        document = delete_rows(document, table_id, first, count)
    new_rows = [
        row if row < 0 else row - sum(lost_row < row for lost_row in alignment.gone_rows) for row in alignment.rows
    ]
    for place in range(len(new_rows)):
        row = new_rows[place]
        if row == LEFT_OUT:
            continue
        before = [other for other in new_rows[:place] if other >= 0]
        behind = before[-1] + 1 if before and not own_order else document.table(table_id).height
        if row == NEW:
            count = next((i for i, other in enumerate(new_rows[place:]) if other != NEW), len(new_rows) - place)
            document = insert_rows(document, table_id, behind, count)
            new_rows = [other + count * (other >= behind) for other in new_rows]
            new_rows[place : place + count] = range(behind, behind + count)
        elif row != behind and not own_order and place:
            document = move_rows(document, table_id, row, 1, behind)
            if row > behind:
                new_rows = [other + (behind <= other < row) if other >= 0 else other for other in new_rows]
                new_rows[place] = behind
            else:
                new_rows = [other - (row < other < behind) if other >= 0 else other for other in new_rows]
                new_rows[place] = behind - 1
    return document, new_rows
