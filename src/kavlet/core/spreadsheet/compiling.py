"""A formula's tree to a closure that evaluates it, shared by all cells a formula was filled into.

References are kept relative to the formula's own cell, so that ``=B2/C2`` in row 2 and ``=B3/C3`` in row 3 are one
template, compiled once.
"""

import math
import operator
from collections.abc import Callable
from functools import lru_cache
from typing import Protocol

from msgspec import Struct

from kavlet.core.spreadsheet.cells import ErrorValue, Value, text_of
from kavlet.core.spreadsheet.functions import FUNCTIONS
from kavlet.core.spreadsheet.functions.arithmetic import raised
from kavlet.core.spreadsheet.functions.registry import Argument, Failure, number, plain, short_enough
from kavlet.core.spreadsheet.nodes import Call, FormulaError, Literal, Name, Node, Operation, Refer
from kavlet.core.spreadsheet.ranges import Block, Range, ValueBlock
from kavlet.core.spreadsheet.references import CellReference, RangeReference, rewritten
from kavlet.core.spreadsheet.syntax import parse


class Reader(Protocol):
    """Where a closure reads cells: resolved to a table by name ("" is the formula's own)."""

    def cell(self, table: str, column: int, row: int) -> Value:
        """The value of a cell; rows and columns from 0."""

    def range(self, table: str, column: int, row: int, last_column: int, last_row: int) -> Range:
        """The values of a block of cells, its corners included."""

    def shared(self, of: "Evaluate", column: int, row: int) -> "Argument":
        """What a part of a formula gives that is the same in all rows of its column: evaluated once."""


Evaluate = Callable[[Reader, int, int], Argument]


class Template(Struct, frozen=True):
    """A compiled formula, its references relative to a formula in the first cell, and why it failed, if it did."""

    evaluate: Evaluate
    references: tuple[RangeReference, ...]
    problem: str = ""


@lru_cache(maxsize=262_144)  # more than there are formulas: else going through them in order finds none
def template(formula: str, column: int, row: int) -> Template:
    """The template of a formula that stands at that place (counted from 0)."""

    found: list[RangeReference] = []

    def stand_in(old: RangeReference) -> RangeReference:
        other = old.other and _relative(old.other, column, row)
        found.append(RangeReference(_relative(old.one, column, row), other, old.table, old.whole))
        return RangeReference(_A1, _A1 if old.other else None, old.table)

    # Formulas of one shape have the same text once each reference is replaced by a stand-in of its kind.
    shape = rewritten(formula, stand_in)
    return _compiled(shape, tuple(found))


_A1 = CellReference(0, 0)


def _relative(corner: CellReference, column: int, row: int) -> CellReference:
    return CellReference(
        corner.column if corner.keep_column else corner.column - column,
        corner.row if corner.keep_row else corner.row - row,
        corner.keep_column,
        corner.keep_row,
    )


def resolved(corner: CellReference, column: int, row: int) -> tuple[int, int]:
    """The column and row a relative corner means in a formula at that place."""
    return (
        corner.column if corner.keep_column else corner.column + column,
        corner.row if corner.keep_row else corner.row + row,
    )


@lru_cache(maxsize=8192)
def _compiled(shape: str, references: tuple[RangeReference, ...]) -> Template:
    try:
        tree = parse(shape)
    except FormulaError as error:
        return Template(_constant(ErrorValue.VALUE), (), str(error))
    upcoming = iter(references)
    try:
        return Template(_compile(tree, upcoming.__next__), references)
    except StopIteration:
        return Template(_constant(ErrorValue.VALUE), (), "The formula can't be read.")


def _compile(node: Node, take: Callable[[], RangeReference], as_block: bool = False) -> Evaluate:
    """The closure of a node; `take` gives the formula's own references in the order they were typed.

    With `as_block` a reference to a single cell gives a block of one, for functions that tell cells from typed values.
    """
    if isinstance(node, Literal):
        return _constant(node.value)
    if isinstance(node, Refer):
        return _refer(take(), as_block)
    if isinstance(node, Name):
        return _constant(ErrorValue.NAME)
    if isinstance(node, Operation):
        operands = [_compile(operand, take) for operand in node.operands]
        return _prefix(node.sign, operands[0]) if len(operands) == 1 else _binary(node.sign, *operands)
    return _call(node, take)


def _constant(value: Value) -> Evaluate:
    return lambda _reader, _column, _row: value


def _refer(to: RangeReference, as_block: bool) -> Evaluate:
    one, other, table = to.one, to.other, to.table
    if other is None and not as_block:
        return lambda reader, column, row: reader.cell(table, *resolved(one, column, row))
    last = other or one

    def evaluate(reader: Reader, column: int, row: int) -> Argument:
        c1, r1 = resolved(one, column, row)
        c2, r2 = resolved(last, column, row)
        return reader.range(table, min(c1, c2), min(r1, r2), max(c1, c2), max(r1, r2))

    return evaluate


def _prefix(sign: str, operand: Evaluate) -> Evaluate:
    apply: Callable[[Value], Value] = {
        "%": lambda value: number(value) / 100,
        "-": lambda value: -number(value),
        "+": lambda value: value,
    }[sign]

    def evaluate(reader: Reader, column: int, row: int) -> Argument:
        value = operand(reader, column, row)
        return _over_blocks(apply, value) if isinstance(value, Block) else apply(plain(value))

    return evaluate


def _binary(sign: str, left: Evaluate, right: Evaluate) -> Evaluate:
    apply = _OPERATORS[sign]

    def evaluate(reader: Reader, column: int, row: int) -> Argument:
        one, other = left(reader, column, row), right(reader, column, row)
        if isinstance(one, Block) or isinstance(other, Block):
            return _over_blocks(apply, one, other)
        return apply(one, other)

    return evaluate


def _over_blocks(apply: Callable[..., Argument], *arguments: Argument) -> ValueBlock:
    """An operator or function value by value; a single value, row or column is used again for each of the others."""
    blocks = [one for one in arguments if isinstance(one, Block)]
    rows = max(one.used if one.height > 1 else min(1, one.height) for one in blocks)
    width = max(one.width for one in blocks)

    def at(one: Argument, row: int, column: int) -> Value:
        if not isinstance(one, Block):
            return one
        return one.at(0 if one.height == 1 else row, 0 if one.width == 1 else column)

    def cell(row: int, column: int) -> Value:
        """The value of a cell; rows and columns from 0."""
        values = [at(one, row, column) for one in arguments]
        error = next((value for value in values if isinstance(value, ErrorValue)), None)
        if error is not None:
            return error
        try:
            made = apply(*values)
        except Failure as failure:
            return failure.error
        return None if isinstance(made, Block) else made

    return ValueBlock([[cell(row, column) for column in range(width)] for row in range(rows)])


def _joined(left: Value, right: Value) -> Value:
    return short_enough(text_of(plain(left)) + text_of(plain(right)))


def _divide(left: float, right: float) -> float:
    if right == 0:
        raise Failure(ErrorValue.DIVISION)
    return left / right


def _power(left: float, right: float) -> float:
    result = raised(left, right)
    if isinstance(result, float):
        return result
    raise Failure(ErrorValue.NUMBER)


def _arithmetic(apply: Callable[[float, float], float]) -> Callable[[Value, Value], Value]:
    def evaluate(left: Value, right: Value) -> Value:
        result = apply(left if type(left) is float else number(left), right if type(right) is float else number(right))
        if not math.isfinite(result):
            raise Failure(ErrorValue.NUMBER)
        return result

    return evaluate


def _comparison(holds: Callable[[int, int], bool]) -> Callable[[Value, Value], Value]:
    return lambda left, right: holds(_order(plain(left), plain(right)), 0)


_OPERATORS: dict[str, Callable[[Value, Value], Value]] = {
    "+": _arithmetic(operator.add),
    "-": _arithmetic(operator.sub),
    "*": _arithmetic(operator.mul),
    "/": _arithmetic(_divide),
    "^": _arithmetic(_power),
    "&": _joined,
    "=": _comparison(operator.eq),
    "<>": _comparison(operator.ne),
    "<": _comparison(operator.lt),
    "<=": _comparison(operator.le),
    ">": _comparison(operator.gt),
    ">=": _comparison(operator.ge),
}


def _order(left: Value, right: Value) -> int:
    """-1, 0 or 1. Numbers come before texts, texts before logical values; texts compare without case.

    An empty cell equals 0, the empty text and FALSE (ODF 1.3 part 4, 4.7).
    """
    one, other = _sort_key(_filled(left, right)), _sort_key(_filled(right, left))
    return (one > other) - (one < other)


def _filled(value: Value, like: Value) -> Value:
    if value is not None:
        return value
    if isinstance(like, str):
        return ""
    return False if isinstance(like, bool) else 0.0


def _sort_key(value: Value) -> tuple[int, float | str]:
    if isinstance(value, bool):
        return 2, float(value)
    if isinstance(value, float):
        return 0, value
    return 1, str(value).casefold()


def _call(node: Call, take: Callable[[], RangeReference]) -> Evaluate:
    function = FUNCTIONS.get(node.function)
    if node.function in ("ROW", "COLUMN") and not node.arguments:
        own_row = node.function == "ROW"
        return lambda _reader, column, row: float((row if own_row else column) + 1)
    used: list[RangeReference] = []

    def taking() -> RangeReference:
        used.append(take())
        return used[-1]

    arguments = [_compile(argument, taking, bool(function and function.blocks)) for argument in node.arguments]
    if function is None:
        return _constant(ErrorValue.NAME)
    if not function.least <= len(arguments) <= function.most:
        return _constant(ErrorValue.VALUE)
    body, lifts = function.body, function.single
    if function.lazy:

        def lazily(reader: Reader, column: int, row: int) -> Argument:
            return body(*(_thunk(argument, reader, column, row) for argument in arguments))

        return lazily

    if function.errors:
        return lambda reader, column, row: body(*(_or_error(argument, reader, column, row) for argument in arguments))

    def evaluate(reader: Reader, column: int, row: int) -> Argument:
        values = [argument(reader, column, row) for argument in arguments]
        for value in values:
            if isinstance(value, ErrorValue):
                return value
        if lifts and any(isinstance(value, Block) and value.height * value.width != 1 for value in values):
            return _over_blocks(body, *values)
        return body(*values)

    if _same_in_all_rows(used) and not _tells_row(node):
        return lambda reader, column, row: reader.shared(evaluate, column, row)
    return evaluate


def _same_in_all_rows(references: list[RangeReference]) -> bool:
    """Whether all rows read the same cells, among them more than one: such parts are evaluated once for all rows."""
    corners = (corner for to in references for corner in (to.one, to.other or to.one))
    return any(to.other is not None for to in references) and all(corner.keep_row for corner in corners)


def _tells_row(node: Node) -> bool:
    """Whether a part of a formula asks where it stands."""
    if isinstance(node, Call):
        return (node.function == "ROW" and not node.arguments) or any(map(_tells_row, node.arguments))
    return isinstance(node, Operation) and any(map(_tells_row, node.operands))


def _or_error(evaluate: Evaluate, reader: Reader, column: int, row: int) -> Argument:
    """What an argument gives, an error that ends its evaluation as a value."""
    try:
        return evaluate(reader, column, row)
    except Failure as failure:
        return failure.error


def _thunk(evaluate: Evaluate, reader: Reader, column: int, row: int) -> Callable[[], Argument]:
    return lambda: evaluate(reader, column, row)
