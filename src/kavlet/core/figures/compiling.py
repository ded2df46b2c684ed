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

from kavlet.core.figures.cells import ErrorValue, Value, text_of
from kavlet.core.figures.functions import FUNCTIONS, Argument, Failure, number, single
from kavlet.core.figures.ranges import Range
from kavlet.core.figures.references import CellReference, Reference, rewritten
from kavlet.core.figures.syntax import Call, FormulaError, Literal, Name, Node, Operation, Refer, parse


class Reader(Protocol):
    """Where a closure reads cells: resolved to a table by name ("" is the formula's own)."""

    def cell(self, table: str, column: int, row: int) -> Value: ...
    def range(self, table: str, column: int, row: int, last_column: int, last_row: int) -> Range: ...


Evaluate = Callable[[Reader, int, int], Argument]


class Template(Struct, frozen=True):
    """A compiled formula, its references relative to a formula in the first cell, and why it failed, if it did."""

    evaluate: Evaluate
    references: tuple[Reference, ...]
    problem: str = ""


def template(formula: str, column: int, row: int) -> Template:
    """The template of a formula that stands at that place (counted from 0)."""

    found: list[Reference] = []

    def stand_in(old: Reference) -> Reference:
        other = old.other and _relative(old.other, column, row)
        found.append(Reference(_relative(old.one, column, row), other, old.table))
        return Reference(_A1, _A1 if old.other else None, old.table)

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
def _compiled(shape: str, references: tuple[Reference, ...]) -> Template:
    try:
        tree = parse(shape)
    except FormulaError as error:
        return Template(_constant(ErrorValue.VALUE), (), str(error))
    upcoming = iter(references)
    return Template(_compile(tree, upcoming.__next__), references)


def _compile(node: Node, take: Callable[[], Reference]) -> Evaluate:
    """The closure of a node; `take` gives the formula's own references in the order they were typed."""
    if isinstance(node, Literal):
        return _constant(node.value)
    if isinstance(node, Refer):
        return _refer(take())
    if isinstance(node, Name):
        return _constant(ErrorValue.NAME)
    if isinstance(node, Operation):
        operands = [_compile(operand, take) for operand in node.operands]
        return _prefix(node.sign, operands[0]) if len(operands) == 1 else _binary(node.sign, *operands)
    return _call(node, [_compile(argument, take) for argument in node.arguments])


def _constant(value: Value) -> Evaluate:
    return lambda _reader, _column, _row: value


def _refer(to: Reference) -> Evaluate:
    one, other, table = to.one, to.other, to.table
    if other is None:
        return lambda reader, column, row: reader.cell(table, *resolved(one, column, row))

    def evaluate(reader: Reader, column: int, row: int) -> Argument:
        c1, r1 = resolved(one, column, row)
        c2, r2 = resolved(other, column, row)
        return reader.range(table, min(c1, c2), min(r1, r2), max(c1, c2), max(r1, r2))

    return evaluate


def _prefix(sign: str, operand: Evaluate) -> Evaluate:
    if sign == "%":
        return lambda reader, column, row: number(operand(reader, column, row)) / 100
    if sign == "-":
        return lambda reader, column, row: -number(operand(reader, column, row))
    return lambda reader, column, row: number(operand(reader, column, row))


def _binary(sign: str, left: Evaluate, right: Evaluate) -> Evaluate:
    if sign == "&":
        return lambda reader, column, row: _joined(left(reader, column, row)) + _joined(right(reader, column, row))
    if sign in _COMPARE:
        compare = _COMPARE[sign]
        return lambda reader, column, row: compare(_order(left(reader, column, row), right(reader, column, row)), 0)
    apply = _ARITHMETIC[sign]
    return lambda reader, column, row: _finite(
        apply(number(left(reader, column, row)), number(right(reader, column, row)))
    )


def _joined(argument: Argument) -> str:
    value = single(argument)
    if isinstance(value, ErrorValue):
        raise Failure(value)
    return text_of(value)


def _divide(left: float, right: float) -> float:
    if right == 0:
        raise Failure(ErrorValue.DIVISION)
    return left / right


def _power(left: float, right: float) -> float:
    try:
        result = left**right
    except (OverflowError, ZeroDivisionError):
        raise Failure(ErrorValue.NUMBER) from None
    if isinstance(result, complex):
        raise Failure(ErrorValue.NUMBER)
    return float(result)


def _finite(value: float) -> float:
    if not math.isfinite(value):
        raise Failure(ErrorValue.NUMBER)
    return value


_ARITHMETIC: dict[str, Callable[[float, float], float]] = {
    "+": operator.add,
    "-": operator.sub,
    "*": operator.mul,
    "/": _divide,
    "^": _power,
}
_COMPARE: dict[str, Callable[[int, int], bool]] = {
    "=": operator.eq,
    "<>": operator.ne,
    "<": operator.lt,
    "<=": operator.le,
    ">": operator.gt,
    ">=": operator.ge,
}


def _order(left: Argument, right: Argument) -> int:
    """-1, 0 or 1. Numbers come before texts, texts before logical values; texts compare without case.

    An empty cell equals 0, the empty text and FALSE (ODF 1.3 part 4, 4.7).
    """
    one, other = single(left), single(right)
    for value in (one, other):
        if isinstance(value, ErrorValue):
            raise Failure(value)
    one, other = _filled(one, other), _filled(other, one)
    keys = [_sort_key(one), _sort_key(other)]
    return (keys[0] > keys[1]) - (keys[0] < keys[1])


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


def _call(node: Call, arguments: list[Evaluate]) -> Evaluate:
    function = FUNCTIONS.get(node.function)
    if function is None:
        return _constant(ErrorValue.NAME)
    if not function.least <= len(arguments) <= function.most:
        return _constant(ErrorValue.VALUE)
    body = function.body
    if function.lazy:

        def lazily(reader: Reader, column: int, row: int) -> Argument:
            return body(*(_thunk(argument, reader, column, row) for argument in arguments))

        return lazily

    def evaluate(reader: Reader, column: int, row: int) -> Argument:
        values = [argument(reader, column, row) for argument in arguments]
        for value in values:
            if isinstance(value, ErrorValue):
                return value
        return body(*values)

    return evaluate


def _thunk(evaluate: Evaluate, reader: Reader, column: int, row: int) -> Callable[[], Argument]:
    return lambda: evaluate(reader, column, row)
