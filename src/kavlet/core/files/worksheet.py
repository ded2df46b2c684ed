"""A sheet read from a file: its cells, its formulas where all they use is known here, and notes on the others."""

import datetime
from collections.abc import Iterator
from functools import lru_cache

from msgspec import Struct

from kavlet.core.messages import Message, say
from kavlet.core.spreadsheet.cells import EPOCH, Cell, FormattedNumber, Formula
from kavlet.core.spreadsheet.functions import FUNCTIONS
from kavlet.core.spreadsheet.nodes import Call, FormulaError, Node, Operation, Refer
from kavlet.core.spreadsheet.references import CellReference, RangeReference, cell_reference, column_letters, rewritten
from kavlet.core.spreadsheet.syntax import parse
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import DATE


class FilledArea(Struct, frozen=True):
    """Columns and rows from 0, both ends included."""

    first_column: int
    first_row: int
    last_column: int
    last_row: int


class Worksheet(Struct, frozen=True):
    """Rows of cells, and one sentence for each kind of thing that could not be kept."""

    cells: list[list[Cell]]
    notes: tuple[Message, ...] = ()


_A1 = CellReference(0, 0)


def area(text: str) -> FilledArea:
    """An area such as ``A1:C9``. Raises KavletError when the text is none."""
    one, _, other = text.replace("$", "").strip().upper().partition(":")
    try:
        first, last = cell_reference(one), cell_reference(other or one)
    except ValueError:
        raise KavletError(say("“{text}” is not a range.", text=text), remedy=say("Write it like A1:C9.")) from None
    columns, rows = sorted((first.column, last.column)), sorted((first.row, last.row))
    return FilledArea(columns[0], rows[0], columns[1], rows[1])


def cell_of(value: object) -> Cell:
    """A cell from what a workbook reader gives."""
    if value is None or value == "":
        return None
    if isinstance(value, bool | str):
        return value
    if isinstance(value, int | float):
        return float(value)
    if isinstance(value, datetime.datetime):
        seconds = value.hour * 3600 + value.minute * 60 + value.second
        return FormattedNumber(float((value.date() - EPOCH).days) + seconds / 86_400, DATE)
    if isinstance(value, datetime.date):
        return FormattedNumber(float((value - EPOCH).days), DATE)
    if isinstance(value, datetime.time):
        return (value.hour * 3600 + value.minute * 60 + value.second) / 86_400
    if isinstance(value, datetime.timedelta):
        return value.total_seconds() / 86_400
    return str(value)


def sheet(
    values: list[list[object]], formulas: dict[tuple[int, int], str], name: str, chosen_area: FilledArea | None
) -> Worksheet:
    """The sheet from its values and its formulas (keyed by column and row, in this program's syntax).

    A formula that uses an unknown function, another sheet, or cells outside the chosen range keeps its value, and a
    note says so.
    """
    height = max([len(values), *(row + 1 for _, row in formulas)], default=0)
    width = max([max(map(len, values), default=0), *(column + 1 for column, _ in formulas)], default=0)
    read_area = chosen_area or FilledArea(0, 0, width - 1, height - 1)
    rows: list[list[Cell]] = []
    lost: dict[str, tuple[Message, list[str]]] = {}
    for row in range(read_area.first_row, min(read_area.last_row + 1, height)):
        line: list[Cell] = []
        for column in range(read_area.first_column, min(read_area.last_column + 1, width)):
            raw = values[row][column] if row < len(values) and column < len(values[row]) else None
            cell = cell_of(raw)
            if (column, row) in formulas:
                try:
                    cell = Formula(kept(formulas[column, row], name, read_area))
                except FormulaError as why:
                    lost.setdefault(str(why), (why.what, []))[1].append(f"{column_letters(column)}{row + 1}")
            line.append(cell)
        rows.append(line)
    while rows and all(cell is None for cell in rows[-1]):
        rows.pop()
    return Worksheet(
        rows, tuple(say("{cells} kept as values: {why}.", cells=_some(cells), why=why) for why, cells in lost.values())
    )


def kept(formula: str, name: str, taken: FilledArea) -> str:
    """The formula as it reads in the chosen range. Raises FormulaError, saying why, when it cannot be kept."""
    shape = rewritten(formula, lambda old: RangeReference(_A1, old.other and _A1, old.table, old.whole))
    problem = _problem(shape, name)
    if problem is not None:
        raise FormulaError(problem)

    def follow(old: RangeReference) -> RangeReference:
        if old.whole:
            return RangeReference(old.one, old.other, "", old.whole)
        return RangeReference(_moved(old.one, taken), old.other and _moved(old.other, taken))

    return rewritten(formula, follow)


@lru_cache(maxsize=4096)
def _problem(shape: str, name: str) -> Message | None:
    """Why formulas of a shape, which differ in their places alone, can't be kept; None where they can."""
    try:
        _check(shape, name)
    except FormulaError as error:
        return say("The formula can’t be read.") if "place" in error.what.fields else error.what  # not its own place
    return None


def _check(formula: str, name: str) -> None:
    """Raises FormulaError for what is not known here."""
    for call in _nodes(parse(formula)):
        if isinstance(call, Call) and call.function not in FUNCTIONS:
            raise FormulaError(say("the function {name} is not known here", name=call.function))
        if isinstance(call, Refer) and call.to.table not in ("", name):
            raise FormulaError(say("they refer to another sheet"))


def _moved(corner: CellReference, taken: FilledArea) -> CellReference:
    inside = (
        taken.first_column <= corner.column <= taken.last_column and taken.first_row <= corner.row <= taken.last_row
    )
    if not inside and (taken.first_column or taken.first_row):
        raise FormulaError(say("they refer to cells outside the range"))
    column, row = corner.column - taken.first_column, corner.row - taken.first_row
    return CellReference(column, row, corner.keep_column, corner.keep_row)


def _nodes(node: Node) -> Iterator[Node]:
    yield node
    parts = node.operands if isinstance(node, Operation) else node.arguments if isinstance(node, Call) else ()
    for part in parts:
        yield from _nodes(part)


def _some(cells: list[str]) -> Message:
    if len(cells) <= 3:
        return say("{cells}", cells=cells)
    return say("{cells} and {more} more", cells=cells[:3], more=len(cells) - 3)
