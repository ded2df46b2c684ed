"""The functions of formulas (OASIS ODF 1.3 part 4, 6), each with its arguments and a line of help.

A function takes evaluated arguments: values, or ranges. Errors among plain arguments never reach it, unless it asks.
"""

import math
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING

from msgspec import Struct

from kavlet.core.figures.cells import ErrorValue, Value, text_of
from kavlet.core.figures.ranges import Range

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Numbers = list[float] | NDArray[np.float64]

Argument = Value | Range
Body = Callable[..., Value]


class Function(Struct, frozen=True):
    """A function's name, arguments as shown, help, and body; `lazy` bodies get thunks and decide what to evaluate."""

    name: str
    arguments: str
    help: str
    body: Body
    least: int
    most: int
    lazy: bool = False


FUNCTIONS: dict[str, Function] = {}


class Failure(Exception):  # noqa: N818 - it carries an error value, it is none of the program's
    """Ends an evaluation with an error value."""

    def __init__(self, error: ErrorValue) -> None:
        super().__init__(error.value)
        self.error = error


def _function(
    name: str, arguments: str, text: str, least: int, most: int = 255, lazy: bool = False
) -> Callable[[Body], Body]:
    def register(body: Body) -> Body:
        FUNCTIONS[name] = Function(name, arguments, text, body, least, most, lazy)
        return body

    return register


def number(argument: Argument) -> float:
    """An argument as a number: empty is 0, a logical value 0 or 1, text only where it reads as a number."""
    value = single(argument)
    if type(value) is float:
        return value
    if value is None:
        return 0.0
    if isinstance(value, bool):
        return float(value)
    if isinstance(value, ErrorValue):
        raise Failure(value)
    try:
        result = float(value)
    except ValueError:
        raise Failure(ErrorValue.VALUE) from None
    if not math.isfinite(result):
        raise Failure(ErrorValue.VALUE)
    return result


def single(argument: Argument) -> Value:
    """An argument as one value; a range of one cell gives that cell."""
    if isinstance(argument, Range):
        if argument.height != 1 or argument.width != 1:
            raise Failure(ErrorValue.VALUE)
        return argument.at(0, 0)
    return argument


def truth(argument: Argument) -> bool:
    """An argument as a condition: a number is true unless it is 0."""
    value = single(argument)
    if isinstance(value, str):
        if value.upper() in ("TRUE", "FALSE"):
            return value.upper() == "TRUE"
        raise Failure(ErrorValue.VALUE)
    return bool(number(value))


def numbers(arguments: tuple[Argument, ...]) -> "Numbers":
    """All numbers of the arguments: in ranges only numbers count, plain arguments are converted."""
    if len(arguments) == 1 and isinstance(arguments[0], Range) and arguments[0].error is None:
        return arguments[0].numbers
    found: list[float] = []
    for argument in arguments:
        if isinstance(argument, Range):
            if error := argument.error:
                raise Failure(error)
            found.extend(argument.numbers)
        elif argument is not None:
            found.append(number(argument))
    return found


def total(found: "Numbers") -> float:
    """The sum, exact for few numbers, pairwise for many."""
    return math.fsum(found) if isinstance(found, list) else float(found.sum())


def everything(arguments: tuple[Argument, ...]) -> Iterator[Value]:
    """All values of the arguments, empty cells among them."""
    for argument in arguments:
        if isinstance(argument, Range):
            yield from argument.values()
        else:
            yield argument


@_function("SUM", "number; …", "Adds the numbers.", 1)
def _sum(*arguments: Argument) -> Value:
    return total(numbers(arguments))


@_function("PRODUCT", "number; …", "Multiplies the numbers.", 1)
def _product(*arguments: Argument) -> Value:
    return float(math.prod(numbers(arguments)))


@_function("MIN", "number; …", "The smallest of the numbers; 0 when there are none.", 1)
def _min(*arguments: Argument) -> Value:
    found = numbers(arguments)
    return float(found.min() if not isinstance(found, list) else min(found)) if len(found) else 0.0


@_function("MAX", "number; …", "The largest of the numbers; 0 when there are none.", 1)
def _max(*arguments: Argument) -> Value:
    found = numbers(arguments)
    return float(found.max() if not isinstance(found, list) else max(found)) if len(found) else 0.0


@_function("AVERAGE", "number; …", "The mean of the numbers.", 1)
def _average(*arguments: Argument) -> Value:
    found = numbers(arguments)
    return total(found) / len(found) if len(found) else ErrorValue.DIVISION


@_function("COUNT", "value; …", "How many of the values are numbers.", 1)
def _count(*arguments: Argument) -> Value:
    return float(sum(type(value) is float for value in everything(arguments)))


@_function("COUNTA", "value; …", "How many of the values are not empty.", 1)
def _count_all(*arguments: Argument) -> Value:
    return float(sum(value is not None for value in everything(arguments)))


@_function("ABS", "number", "The number without its sign.", 1, 1)
def _abs(value: Argument) -> Value:
    return abs(number(value))


@_function("ROUND", "number; [decimals]", "Rounds to so many decimals, half away from zero.", 1, 2)
def _round(value: Argument, decimals: Argument = 0.0) -> Value:
    from decimal import ROUND_HALF_UP, Decimal

    places = int(number(decimals))
    exact = Decimal(repr(number(value)))
    if abs(places) > 300:
        return float(exact) if places > 0 else 0.0
    return float(exact.quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP)) if abs(exact) < 10**20 else float(exact)


@_function("INT", "number", "Rounds down to a whole number.", 1, 1)
def _int(value: Argument) -> Value:
    return float(math.floor(number(value)))


@_function("MOD", "number; divisor", "What is left after a division, with the sign of the divisor.", 2, 2)
def _mod(value: Argument, divisor: Argument) -> Value:
    by = number(divisor)
    if by == 0:
        return ErrorValue.DIVISION
    return number(value) - by * math.floor(number(value) / by)


@_function("SQRT", "number", "The square root.", 1, 1)
def _sqrt(value: Argument) -> Value:
    of = number(value)
    return math.sqrt(of) if of >= 0 else ErrorValue.NUMBER


@_function("IF", "condition; [then]; [else]", "One value or another, by a condition.", 1, 3, lazy=True)
def _if(condition: Callable[[], Argument], *choices: Callable[[], Argument]) -> Value:
    picked = 0 if truth(condition()) else 1
    if picked < len(choices):
        return single(choices[picked]())
    return picked == 0


@_function("IFERROR", "value; otherwise", "A value, or another where the first is an error.", 2, 2, lazy=True)
def _if_error(value: Callable[[], Argument], otherwise: Callable[[], Argument]) -> Value:
    try:
        found = single(value())
    except Failure:
        return single(otherwise())
    return single(otherwise()) if isinstance(found, ErrorValue) else found


@_function("ISBLANK", "value", "Whether the cell is empty.", 1, 1, lazy=True)
def _is_blank(value: Callable[[], Argument]) -> Value:
    return single(value()) is None


@_function("ISNUMBER", "value", "Whether the value is a number.", 1, 1, lazy=True)
def _is_number(value: Callable[[], Argument]) -> Value:
    try:
        return type(single(value())) is float
    except Failure:
        return False


@_function("AND", "condition; …", "Whether all conditions are true.", 1)
def _and(*arguments: Argument) -> Value:
    found = [truth(value) for value in everything(arguments) if value is not None]  # errors count, wherever they stand
    return all(found)


@_function("OR", "condition; …", "Whether any condition is true.", 1)
def _or(*arguments: Argument) -> Value:
    found = [truth(value) for value in everything(arguments) if value is not None]
    return any(found)


@_function("NOT", "condition", "The opposite of the condition.", 1, 1)
def _not(condition: Argument) -> Value:
    return not truth(condition)


@_function("NA", "", "The error value #N/A: no value is available.", 0, 0)
def _na() -> Value:
    return ErrorValue.MISSING


@_function("CONCAT", "text; …", "Joins texts.", 1)
def _concat(*arguments: Argument) -> Value:
    found = list(everything(arguments))
    for value in found:
        if isinstance(value, ErrorValue):
            return value
    return "".join(text_of(value) for value in found)
