"""Lookup functions (ODF 1.3 part 4, 6.14)."""

from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.spreadsheet.functions.criteria import Criterion
from kavlet.core.spreadsheet.functions.registry import (
    Argument,
    Failure,
    Later,
    block,
    function,
    number,
    plain,
    truth,
    whole,
)
from kavlet.core.spreadsheet.ranges import Block, ValueBlock


@function(
    "INDEX",
    "range; row; [column]",
    "The value at a place of a range; 0 takes a whole row or column.",
    2,
    3,
    takes="ranges",
)
def _index(of: Argument, row: Argument, column: Argument | None = None) -> Argument:
    held = block(of)
    at_row, at_column = whole(row), whole(column) if column is not None else None
    if at_column is None:
        in_row = held.height == 1 and held.width > 1
        at_row, at_column = (1, at_row) if in_row else (at_row, 1 if held.width == 1 else 0)
    if not (0 <= at_row <= held.height and 0 <= at_column <= held.width):
        return ErrorValue.REFERENCE
    rows = range(held.used) if at_row == 0 else (at_row - 1,)
    columns = range(held.width) if at_column == 0 else (at_column - 1,)
    return ValueBlock([[held.at(r, c) for c in columns] for r in rows])


def _line(of: Block) -> list[Value]:
    """The values of a block that is one row or one column."""
    if of.width == 1:
        return [of.at(row, 0) for row in range(of.used)]
    if of.height == 1:
        return [of.at(0, column) for column in range(of.width)] if of.used else []
    raise Failure(ErrorValue.MISSING)


@function("MATCH", "value; range; [1, 0 or −1]", "The place of a value in a row or column.", 2, 3, takes="ranges")
def _match(value: Argument, of: Argument, kind: Argument = 1.0) -> Value:
    return _place(plain(value), _line(block(of)), number(kind))


def _place(wanted: Value, line: list[Value], kind: float) -> Value:
    """0: the first equal one. 1: the last not above, going up. -1: the last not below, going down."""
    if kind == 0:
        meets = Criterion(wanted if not isinstance(wanted, str) else f"={wanted}").meets
        equal = meets if isinstance(wanted, str) and wanted else (lambda other: other == wanted)
        return next((float(i + 1) for i, held in enumerate(line) if equal(held)), ErrorValue.MISSING)
    best: Value = ErrorValue.MISSING
    for i, held in enumerate(line):
        if not _comparable(held, wanted):
            continue
        above = _key(held) > _key(wanted)
        below = _key(held) < _key(wanted)
        if (kind > 0 and above) or (kind < 0 and below):
            break
        best = float(i + 1)
    return best


def _comparable(one: Value, other: Value) -> bool:
    return type(one) is type(other) and one is not None


def _key(value: Value) -> tuple[float, str]:
    if isinstance(value, str):
        return 0.0, value.casefold()
    return (float(value), "") if isinstance(value, float | bool) else (0.0, "")


@function(
    "VLOOKUP",
    "value; range; column; [near]",
    "Finds a value in the first column and gives another of its row.",
    3,
    4,
    takes="ranges",
)
def _vlookup(value: Argument, source: Argument, column: Argument, near: Argument = True) -> Value:
    lookup_block, column_number = block(source), whole(column)
    if not 1 <= column_number <= lookup_block.width:
        return ErrorValue.REFERENCE
    found = _place(
        plain(value), [lookup_block.at(row, 0) for row in range(lookup_block.used)], 1.0 if truth(near) else 0.0
    )
    return lookup_block.at(int(found) - 1, column_number - 1) if isinstance(found, float) else found


@function(
    "HLOOKUP",
    "value; range; row; [near]",
    "Finds a value in the first row and gives one below it.",
    3,
    4,
    takes="ranges",
)
def _hlookup(value: Argument, source: Argument, row: Argument, near: Argument = True) -> Value:
    lookup_block, row_number = block(source), whole(row)
    if not 1 <= row_number <= lookup_block.height:
        return ErrorValue.REFERENCE
    found = _place(
        plain(value), [lookup_block.at(0, column) for column in range(lookup_block.width)], 1.0 if truth(near) else 0.0
    )
    return lookup_block.at(row_number - 1, int(found) - 1) if isinstance(found, float) else found


@function("CHOOSE", "place; value; …", "The value at a place of a list.", 2, takes="formulas")
def _choose(place: Later, *choices: Later) -> Argument:
    at = whole(place())
    return choices[at - 1]() if 1 <= at <= len(choices) else ErrorValue.VALUE
