"""A1 references: reading, writing, and following them when rows and columns come and go.

Columns and rows are counted from 0 inside; ``B3`` is column 1, row 2. A ``$`` keeps its part when a formula is filled.
"""

import re
from collections.abc import Callable
from typing import Literal

from msgspec import Struct

MAX_ROWS, MAX_COLUMNS = 1_048_576, 16_384

_CELL = r"\$?[A-Za-z]{1,3}\$?[1-9][0-9]{0,6}"
_COLUMNS = r"\$?[A-Za-z]{1,3}:\$?[A-Za-z]{1,3}"
_ROWS = r"\$?[1-9][0-9]{0,6}:\$?[1-9][0-9]{0,6}"
_TABLE = r"(?:'(?:[^']|'')+'|[^\W\d]\w*)"
# Strings come first, so that what looks like a reference inside one is passed over.
SCAN = re.compile(
    rf"""(?P<text>"(?:[^"]|"")*")|(?<![\w.$#'])(?:{_TABLE}!)?(?:{_CELL}:{_CELL}|{_CELL}|{_COLUMNS}|{_ROWS})(?![\w(.!:])"""
)
_PARTS = re.compile(r"(\$?)([A-Za-z]{1,3})(\$?)([0-9]+)")


Whole = Literal["", "columns", "rows"]


class CellReference(Struct, frozen=True):
    """One corner of a reference; the flags tell which parts are kept when filled."""

    column: int
    row: int
    keep_column: bool = False
    keep_row: bool = False

    @property
    def text(self) -> str:
        """The reference as formulas write it."""
        column = ("$" if self.keep_column else "") + column_letters(self.column)
        return column + ("$" if self.keep_row else "") + str(self.row + 1)

    def part(self, which: "Whole") -> str:
        """Only the column's or only the row's part of the text."""
        if which == "columns":
            return ("$" if self.keep_column else "") + column_letters(self.column)
        return ("$" if self.keep_row else "") + str(self.row + 1)

    @property
    def inside(self) -> bool:
        """Whether it names a cell that a table may have."""
        return 0 <= self.column < MAX_COLUMNS and 0 <= self.row < MAX_ROWS

    def filled(self, columns: int, rows: int) -> "CellReference":
        """The reference as it stands in a formula filled that many columns and rows away."""
        column = self.column if self.keep_column else self.column + columns
        row = self.row if self.keep_row else self.row + rows
        return CellReference(column, row, self.keep_column, self.keep_row)


class RangeReference(Struct, frozen=True):
    """A cell, or a range from its first to its last cell, perhaps in another table.

    `whole` marks ranges of whole columns (``B:C``) or rows (``2:3``), which reach to the end of the grid.
    """

    one: CellReference
    other: CellReference | None = None
    table: str = ""
    whole: Whole = ""

    @property
    def text(self) -> str:
        """The reference as formulas write it."""
        if self.other is None:
            cells = self.one.text
        elif self.whole:
            cells = f"{self.one.part(self.whole)}:{self.other.part(self.whole)}"
        else:
            cells = f"{self.one.text}:{self.other.text}"
        return f"{quoted(self.table)}!{cells}" if self.table else cells


Follow = Callable[[RangeReference], RangeReference | None]


def column_letters(index: int) -> str:
    """A, B, … Z, AA, … for a column counted from 0."""
    letters = ""
    index += 1
    while index:
        index, rest = divmod(index - 1, 26)
        letters = chr(65 + rest) + letters
    return letters


def column_index(letters: str) -> int:
    """The column of its letters, counted from 0."""
    index = 0
    for letter in letters.upper():
        index = index * 26 + ord(letter) - 64
    return index - 1


def cell_reference(text: str) -> CellReference:
    """A corner from text such as ``$B$3``; the text must be one."""
    found = _PARTS.fullmatch(text)
    if found is None:
        raise ValueError(text)
    keep_column, letters, keep_row, row = found.groups()
    return CellReference(column_index(letters), int(row) - 1, bool(keep_column), bool(keep_row))


def reference(text: str) -> RangeReference:
    """A reference from its text, with or without a table; the text must be one."""
    table, _, cells = text.rpartition("!")
    one, _, other = cells.partition(":")
    if not other:
        return RangeReference(cell_reference(one), None, unquoted(table))
    if one.lstrip("$").isalpha():
        # Rows are kept when filled, as the whole column always runs from the first to the last.
        ends = cell_reference(f"{one}$1"), cell_reference(f"{other}${MAX_ROWS}")
        return RangeReference(*ends, unquoted(table), "columns")
    if one.lstrip("$").isdigit():
        ends = cell_reference(f"$A{one}"), cell_reference(f"${column_letters(MAX_COLUMNS - 1)}{other}")
        return RangeReference(*ends, unquoted(table), "rows")
    return RangeReference(cell_reference(one), cell_reference(other), unquoted(table))


def quoted(table: str) -> str:
    """A table's name as formulas write it: in apostrophes where it is no plain word."""
    plain = re.fullmatch(r"[^\W\d]\w*", table) and not re.fullmatch(_CELL, table)
    return table if plain else "'" + table.replace("'", "''") + "'"


def unquoted(table: str) -> str:
    """A table's name without its quotes."""
    return table[1:-1].replace("''", "'") if table.startswith("'") else table


def rewritten(formula: str, follow: Follow) -> str:
    """The formula with each of its references replaced by what `follow` gives; None becomes ``#REF!``.

    All other text stays as typed.
    """

    def replace(found: re.Match[str]) -> str:
        if found["text"] is not None:
            return found[0]
        old = reference(found[0])
        new = follow(old)
        if new is None or not new.one.inside or not (new.other is None or new.other.inside):
            return "#REF!"
        return found[0] if new == old else new.text

    return SCAN.sub(replace, formula)


def filled(formula: str, columns: int, rows: int) -> str:
    """The formula as it reads when filled that many columns right and rows down."""

    def follow(old: RangeReference) -> RangeReference:
        other = old.other.filled(columns, rows) if old.other else None
        return RangeReference(old.one.filled(columns, rows), other, old.table, old.whole)

    return rewritten(formula, follow)


class Shift(Struct, frozen=True):
    """Rows (or columns) `at` … inserted (count > 0) or deleted (count < 0). The figures begin at `start`, where that
    matters; they end before one of `ends`: the table's old length, and the first of the rows that sum up the others.

    A range over all figures goes on being one, and one that ends where they end, or right above its formula, grows with
    what is added there. Not one that ends, unkept, at its formula's own place, which is a running one.
    """

    at: int
    count: int
    ends: tuple[int, ...]
    start: int = -1

    def single(self, place: int) -> int | None:
        """Where a place has gone; None when it was deleted."""
        if place < self.at:
            return place
        if self.count < 0 and place < self.at - self.count:
            return None
        return place + self.count

    def span(self, first: int, last: int, home: int | None = None, kept: bool = True) -> tuple[int, int] | None:
        """Where a span has gone, shrunk by what was deleted from it; None when nothing is left. `home` is the place of
        its formula, where that stands in the same table; `kept` tells whether its end is kept when filled."""
        if self.count > 0:
            if self.at == first == self.start and first < last and last + 1 in self.ends:
                return first, last + self.count
            if first < last == self.at - 1 and (self.at in self.ends or home == self.at):
                return first, last if home == last and not kept else last + self.count
            grows = self.at <= last
            return (first + self.count if first >= self.at else first), (last + self.count if grows else last)
        gone = -self.count
        new_first = first if first < self.at else max(self.at, first - gone)
        new_last = last if last < self.at else max(self.at - 1, last - gone)
        return None if new_last < new_first else (new_first, new_last)


def shifted(formula: str, home: bool, table: str, shift: Shift, by_rows: bool, own_place: int | None = None) -> str:
    """The formula after rows or columns of `table` were inserted or deleted.

    `home` tells whether the formula stands in that table, so that references without a table's name mean it, and
    `own` in which of its rows (or columns), where it stands in a cell.
    """

    def follow(old: RangeReference) -> RangeReference | None:
        if not (old.table == table or (home and not old.table)) or old.whole == ("columns" if by_rows else "rows"):
            return old
        first = old.one.row if by_rows else old.one.column
        if old.other is None:
            place = shift.single(first)
            return None if place is None else RangeReference(_moved(old.one, place, by_rows), None, old.table)
        last = old.other.row if by_rows else old.other.column
        end = old.other if first <= last else old.one
        is_fixed = end.keep_row if by_rows else end.keep_column
        span = shift.span(min(first, last), max(first, last), own_place if home else None, is_fixed)
        if span is None:
            return None
        start, other = span if first <= last else (span[1], span[0])
        return RangeReference(_moved(old.one, start, by_rows), _moved(old.other, other, by_rows), old.table, old.whole)

    return rewritten(formula, follow)


def kept_shifted(formula: str, shift: Shift) -> str:
    """The formula after rows of its own table came or went, as one that is filled reads there: only the rows that are
    kept when filled follow."""

    def corner(old: CellReference) -> CellReference | None:
        place = shift.single(old.row) if old.keep_row else old.row
        return None if place is None else _moved(old, place, by_rows=True)

    def follow(old: RangeReference) -> RangeReference | None:
        if old.table or old.whole:
            return old
        if old.other is not None and old.one.keep_row and old.other.keep_row:
            first, last = sorted((old.one.row, old.other.row))
            span = shift.span(first, last)
            if span is None:
                return None
            return RangeReference(_moved(old.one, span[0], True), _moved(old.other, span[1], True))
        one, other = corner(old.one), corner(old.other) if old.other is not None else None
        return None if one is None or (old.other is not None and other is None) else RangeReference(one, other)

    return rewritten(formula, follow)


def _moved(corner: CellReference, place: int, by_rows: bool) -> CellReference:
    column, row = (corner.column, place) if by_rows else (place, corner.row)
    return CellReference(column, row, corner.keep_column, corner.keep_row)
