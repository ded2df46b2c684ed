"""Mathematical functions (ODF 1.3 part 4, 6.16)."""

import math
from collections.abc import Callable
from decimal import ROUND_DOWN, ROUND_HALF_UP, ROUND_UP, Context, Decimal

from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.spreadsheet.functions.registry import Argument, block, function, number, numbers, total, whole
from kavlet.core.spreadsheet.ranges import Block
from kavlet.core.values.sums import exact_sum

_WIDE = Context(prec=800)


@function("SUM", "number; …", "Adds the numbers.", 1, takes="ranges")
def _sum(*arguments: Argument) -> Value:
    return total(arguments)


@function("PRODUCT", "number; …", "Multiplies the numbers.", 1, takes="ranges")
def _product(*arguments: Argument) -> Value:
    return float(math.prod(numbers(arguments)))


@function(
    "SUMPRODUCT", "block; …", "Multiplies blocks of one size cell by cell and adds the products.", 1, takes="ranges"
)
def _sum_product(*arguments: Argument) -> Value:
    blocks = [block(argument) for argument in arguments]
    first = blocks[0]
    if any((one.height, one.width) != (first.height, first.width) for one in blocks):
        return ErrorValue.VALUE
    products = []
    for row in range(min(one.used for one in blocks)):
        for column in range(first.width):
            values = [one.at(row, column) for one in blocks]
            error = next((value for value in values if isinstance(value, ErrorValue)), None)
            if error is not None:
                return error
            products.append(math.prod(value if type(value) is float else 0.0 for value in values))
    return exact_sum(products)


def _rounded(value: Argument, decimals: Argument, manner: str) -> Value:
    places = int(number(decimals))
    if not math.isfinite(number(value)):
        return ErrorValue.NUMBER
    exact = Decimal(repr(number(value)))
    if abs(places) > 330:
        return float(exact) if places > 0 else 0.0
    return float(exact.quantize(Decimal(1).scaleb(-places), manner, _WIDE))


@function("ROUND", "number; [decimals]", "Rounds to so many decimals, half away from zero.", 1, 2)
def _round(value: Argument, decimals: Argument = 0.0) -> Value:
    return _rounded(value, decimals, ROUND_HALF_UP)


@function("ROUNDUP", "number; [decimals]", "Rounds away from zero.", 1, 2)
def _round_up(value: Argument, decimals: Argument = 0.0) -> Value:
    return _rounded(value, decimals, ROUND_UP)


@function("ROUNDDOWN", "number; [decimals]", "Rounds toward zero.", 1, 2)
def _round_down(value: Argument, decimals: Argument = 0.0) -> Value:
    return _rounded(value, decimals, ROUND_DOWN)


@function("TRUNC", "number; [decimals]", "Cuts off the decimals after so many.", 1, 2)
def _trunc(value: Argument, decimals: Argument = 0.0) -> Value:
    return _rounded(value, decimals, ROUND_DOWN)


@function("INT", "number", "Rounds down to a whole number.", 1, 1)
def _int(value: Argument) -> Value:
    of = number(value)
    return float(math.floor(of)) if abs(of) < 1e300 else of


@function("MOD", "number; divisor", "What is left after a division, with the sign of the divisor.", 2, 2)
def _mod(value: Argument, divisor: Argument) -> Value:
    by = number(divisor)
    if by == 0:
        return ErrorValue.DIVISION
    return math.fmod(math.fmod(number(value), by) + by, by)


@function("ABS", "number", "The number without its sign.", 1, 1)
def _abs(value: Argument) -> Value:
    return abs(number(value))


@function("SIGN", "number", "−1, 0 or 1, as the number is below, at or above zero.", 1, 1)
def _sign(value: Argument) -> Value:
    of = number(value)
    return float((of > 0) - (of < 0))


@function("SQRT", "number", "The square root.", 1, 1)
def _sqrt(value: Argument) -> Value:
    of = number(value)
    return math.sqrt(of) if of >= 0 else ErrorValue.NUMBER


@function("POWER", "base; exponent", "The base raised to the exponent.", 2, 2)
def _power(base: Argument, exponent: Argument) -> Value:
    return raised(number(base), number(exponent))


def raised(base: float, exponent: float) -> Value:
    """The power, or the error that stands for what is no real number."""
    try:
        result = base**exponent
    except (OverflowError, ZeroDivisionError):
        return ErrorValue.NUMBER
    return ErrorValue.NUMBER if isinstance(result, complex) else float(result)


def _by_math(name: str, argument: str, text: str, apply: Callable[[float], float]) -> None:
    """Declare a function of one number that the mathematics of it decides."""

    def body(value: Argument) -> Value:
        try:
            return apply(number(value))
        except (ValueError, OverflowError):
            return ErrorValue.NUMBER

    function(name, argument, text, 1, 1)(body)


_by_math("EXP", "number", "e raised to the number.", math.exp)
_by_math("LN", "number", "The natural logarithm.", math.log)
_by_math("LOG10", "number", "The logarithm to base 10.", math.log10)
_by_math("SIN", "radians", "The sine of an angle.", math.sin)
_by_math("COS", "radians", "The cosine of an angle.", math.cos)
_by_math("TAN", "radians", "The tangent of an angle.", math.tan)
_by_math("RADIANS", "degrees", "Degrees as radians.", math.radians)
_by_math("DEGREES", "radians", "Radians as degrees.", math.degrees)


@function("PI", "", "The number π.", 0, 0)
def _pi() -> Value:
    return math.pi


@function("ATAN2", "x; y", "The angle of a point, in radians, counter-clockwise from the x axis.", 2, 2)
def _atan2(x: Argument, y: Argument) -> Value:
    if number(x) == 0 and number(y) == 0:
        return ErrorValue.DIVISION
    return math.atan2(number(y), number(x))


@function("ROW", "[cell]", "The row of a cell, or of the formula’s own.", 1, 1, takes="ranges")
def _row(of: Argument) -> Value:
    return float(getattr(of, "row", -1) + 1) or ErrorValue.VALUE


@function("COLUMN", "[cell]", "The column of a cell as a number, or of the formula’s own.", 1, 1, takes="ranges")
def _column(of: Argument) -> Value:
    return float(getattr(of, "column", -1) + 1) or ErrorValue.VALUE


@function("ROWS", "range", "How many rows a range has.", 1, 1, takes="ranges")
def _rows(of: Argument) -> Value:
    return float(of.height) if isinstance(of, Block) else 1.0


@function("COLUMNS", "range", "How many columns a range has.", 1, 1, takes="ranges")
def _columns(of: Argument) -> Value:
    return float(of.width) if isinstance(of, Block) else 1.0


@function("QUOTIENT", "number; divisor", "The whole part of a division.", 2, 2)
def _quotient(value: Argument, divisor: Argument) -> Value:
    by = number(divisor)
    return float(math.trunc(number(value) / by)) if by else ErrorValue.DIVISION


@function("EVEN", "number", "Rounds away from zero to an even number.", 1, 1)
def _even(value: Argument) -> Value:
    of = number(value)
    return math.copysign(2.0 * math.ceil(abs(of) / 2), of)


@function("FACT", "number", "The factorial of a whole number.", 1, 1)
def _fact(value: Argument) -> Value:
    of = whole(value)
    return float(math.factorial(of)) if 0 <= of <= 170 else ErrorValue.NUMBER
