"""Runs of a formula filled down a column: they stay what they are when rows come, go or change places.

Such a formula says the same of every row, so it belongs to the place and not to the row: a running sum, a share, the
difference to the row before.
"""

from collections.abc import Callable, Iterator

import msgspec
from msgspec import Struct

from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import SCAN, Shift, filled, kept_shifted, reference
from kavlet.core.spreadsheet.table import HEADER, Column, Table


class FilledRun(Struct, frozen=True):
    """Rows `first` to `last` of a column hold one formula, filled down; at least two."""

    first: int
    last: int

    def covers(self, first: int, last: int) -> bool:
        """Whether it holds all these rows."""
        return self.first <= first and last <= self.last


def runs(column: Column) -> Iterator[FilledRun]:
    """The runs of an author's column, each as long as it goes; none of a helper column, which its recipe keeps."""
    if column.helper is not None:
        return
    first = HEADER
    for row in range(HEADER + 1, len(column.cells) + 1):
        if row == len(column.cells) or not _goes_on(column.cells[row - 1], column.cells[row]):
            if row - 1 > first:
                yield FilledRun(first, row - 1)
            first = row


def _goes_on(above: Cell, below: Cell) -> bool:
    return isinstance(above, Formula) and isinstance(below, Formula) and filled(above.text, 0, 1) == below.text


def continued(before: Table, after: Table, shift: Shift) -> Table:
    """A table into which empty rows came: runs go on through them. `before` is the table without them, `after` the one
    with them, its references shifted."""

    def one(place: int, old: Column, new: Column) -> Column:
        for run in runs(old):
            if run.first < shift.at <= run.last + 1:
                made = _filled_from(old, new, shift.at - 1, shift, range(shift.at, shift.at + shift.count))
                below = range(shift.at + shift.count, run.last + shift.count + 1)
                return _filled_from(old, made, run.first, shift, below) if _reads(old, run, place) else made
        return new

    return _each(before, after, one)


def closed_up(before: Table, after: Table, shift: Shift) -> Table:
    """A table from which rows went: a run that reads the row above goes on across the gap."""

    def one(place: int, old: Column, new: Column) -> Column:
        del place
        for run in runs(old):
            left = range(shift.at, max(shift.at - 1, run.last + shift.count) + 1)
            broken = any("#REF!" in str(getattr(new.cells[row], "text", "")) for row in left)
            if run.first < shift.at <= run.last and broken:
                return _filled_from(old, new, run.first, shift, left)
        return new

    return _each(before, after, one)


def _reads(column: Column, run: FilledRun, place: int) -> bool:
    """Whether a run reads its own column, as one does that goes on from the row above."""
    top = column.cells[run.first + 1]
    found = [reference(one[0]) for one in SCAN.finditer(getattr(top, "text", "")) if one["text"] is None]
    return any(one.one.column <= place <= (one.other or one.one).column and not one.table for one in found)


def kept_in_place(before: Table, after: Table, first: int, last: int) -> Table:
    """A table whose rows `first` to `last` have changed places: runs that hold all of them stand as they stood."""

    def kept(place: int, old: Column, new: Column) -> Column:
        del place
        if not any(run.covers(first, last) for run in runs(old)):
            return new
        cells = (*new.cells[:first], *old.cells[first : last + 1], *new.cells[last + 1 :])
        return msgspec.structs.replace(new, cells=cells)

    return _each(before, after, kept)


def _each(before: Table, after: Table, change: Callable[[int, Column, Column], Column]) -> Table:
    pairs = enumerate(zip(before.columns, after.columns, strict=True))
    return msgspec.structs.replace(after, columns=tuple(change(place, old, new) for place, (old, new) in pairs))


def _filled_from(old: Column, new: Column, row: int, shift: Shift, rows: range) -> Column:
    """A column with the formula that stood in a row filled into others: what it keeps when filled follows the rows that
    came or went, what it reads beside it stays beside it."""
    top = old.cells[row]
    if not isinstance(top, Formula):
        return new
    cells: list[Cell] = list(new.cells)
    for at in rows:
        held = cells[at]
        number = held.number if isinstance(held, Formula) else top.number
        cells[at] = Formula(kept_shifted(filled(top.text, 0, at - row), shift), number=number)
    return msgspec.structs.replace(new, cells=tuple(cells))
