"""What a table's columns are: figures to be charted, names, times, groups; or numbers that only look like figures."""

import itertools
import re
from collections.abc import Sequence
from typing import Literal

from kavlet.core.document.tables import vocabulary
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula, text_of
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.identity_cache import cached_by_identity

ColumnKind = Literal["figures", "names", "periods", "identities", "notes", "nothing"]
FIRST_YEAR, LAST_YEAR = 1800, 2100
LONG = 40  # letters that the entries of a column of notes have on average
_UNIT = re.compile(r"[(\[]([^)\]]+)[)\]]")


@cached_by_identity(64)
def is_numeric(column: Column) -> bool:
    """Whether most of a column's filled cells are numbers or formulas."""
    filled = [cell for cell in column.cells[HEADER:] if cell is not None]
    numbers = sum(isinstance(cell, float | Formula | FormattedNumber) for cell in filled)
    return bool(filled) and numbers / len(filled) > 0.5


def is_ready(table: Table) -> bool:
    """Whether two rows or more hold a figure, so that there is something to draw."""
    own = [column for column in table.columns if column.helper is None]
    filled = [
        row
        for row in range(HEADER, table.height)
        if any(isinstance(column.cells[row], float | FormattedNumber | Formula) for column in own)
    ]
    return len(filled) > 1


def kinds(table: Table) -> dict[str, ColumnKind]:
    """What each of a table's own columns is, by its id; there are figures wherever there are numbers at all."""
    own = [column for column in table.columns if column.helper is None]
    found = {column.id: _kind(column, is_first=i == 0) for i, column in enumerate(own)}
    if "figures" not in found.values():
        numeric = [column.id for column in own if is_numeric(column)]
        found |= dict.fromkeys(numeric[-1:], "figures")
    return found


@cached_by_identity(64)
def _kind(column: Column, is_first: bool) -> ColumnKind:
    cells = [cell for cell in column.cells[HEADER:] if cell is not None]
    head = vocabulary.words_of(column.name)
    if not cells:
        return "nothing"
    if not is_numeric(column):
        texts = [text_of(cell) for cell in cells if isinstance(cell, str)]
        if vocabulary.are_periods(texts):
            return "periods"
        long = bool(texts) and sum(map(len, texts)) / len(texts) > LONG
        return "notes" if head & vocabulary.NOTE or (long and not is_first) else "names"
    if any(isinstance(cell, FormattedNumber) and cell.number.style == "date" for cell in cells):
        return "periods"
    numbers = [cell for cell in cells if isinstance(cell, float)]
    if head & vocabulary.IDENTITY or (is_first and head & vocabulary.NUMBERED):
        return "identities"
    if len(numbers) < len(cells) or not all(number.is_integer() for number in numbers):
        return "figures"
    if _are_years(numbers, is_first, bool(head & vocabulary.PERIOD_HEAD)):
        return "periods"
    running = is_first and len(numbers) > 2 and all(b - a == 1 for a, b in itertools.pairwise(numbers))
    return "identities" if running and not head & vocabulary.ACROSS else "figures"


def _are_years(numbers: Sequence[float], is_first: bool, is_called: bool) -> bool:
    """Whole numbers that could be years, in a column called so, or the first one where they rise."""
    if not all(FIRST_YEAR <= number <= LAST_YEAR for number in numbers):
        return False
    return is_called or (is_first and len(numbers) > 1 and sorted(set(numbers)) == list(numbers))


def unit(column: Column) -> str:
    """The unit of a column's figures: in its header, with or without brackets, or the way its numbers are written."""
    held = _UNIT.search(column.name)
    if held is not None:
        return held[1].strip()
    said = vocabulary.words_of(column.name) & vocabulary.UNITS
    if said:
        return min(said)
    how = column.writes
    if how is None:
        return ""
    return how.currency or ((how.prefix + how.suffix).strip() if how.style == "number" else how.style)


def entries(column: Column) -> list[str]:
    """A column's entries as text, "" for none."""
    return [_entry(cell) for cell in column.cells[HEADER:]]


def _entry(cell: Cell) -> str:
    if cell is None or isinstance(cell, Formula):
        return ""
    return text_of(cell.value if isinstance(cell, FormattedNumber) else cell)
