"""Criteria of SUMIF and its kin: a value to equal, or text such as ``>15`` or ``<>North`` (ODF 1.3 part 4, 4.11.8).

A text that reads as a number is met by that number, and by a cell that holds the same text: years and codes are often
typed as texts. In other texts ``*`` stands for any letters and ``?`` for one; ``~`` before them takes them as they are.
Case does not count.
"""

import operator
import re
from collections.abc import Callable, Sequence

from kavlet.core.spreadsheet.cell_input import typed_number
from kavlet.core.spreadsheet.cells import Value
from kavlet.core.spreadsheet.functions.registry import Argument, single
from kavlet.core.spreadsheet.ranges import Block, Key, key_of
from kavlet.core.values.cancellation import check_cancelled

Test = Callable[[Value], bool]
_SIGNS: dict[str, Callable[[float, float], bool]] = {
    "<=": operator.le,
    ">=": operator.ge,
    "<>": operator.ne,
    "<": operator.lt,
    ">": operator.gt,
    "=": operator.eq,
}


class Criterion:
    """A test of values. `keys` are those of all values that can meet it, None where any can."""

    def __init__(self, argument: Argument) -> None:
        value = single(argument)
        self.meets = _test(value)
        self.keys = _keys(value)

    def rows(self, of: Block) -> Sequence[int]:
        """The rows of a block, from 0, where a value can meet it."""
        return range(of.used) if self.keys is None else of.rows_of(self.keys)


def _keys(value: Value) -> tuple[Key, ...] | None:
    """The keys of what a value is equal to; None where it is no plain value."""
    if type(value) is float:
        return (value,)
    if not isinstance(value, str) or not value or value[0] in "<>=" or any(sign in value for sign in "*?~"):
        return None
    number = typed_number(value) if value.strip() else None
    return (key_of(value),) if number is None else (number, key_of(value))


def _test(value: Value) -> Test:
    if isinstance(value, bool):
        return lambda other: other is value
    if not isinstance(value, str):
        return lambda other: (other == (0.0 if value is None else value) and type(other) is not bool) or other is value
    sign = next((sign for sign in _SIGNS if value.startswith(sign)), "=")
    wanted = value.removeprefix(sign) if value.startswith(sign) else value
    number = typed_number(wanted) if wanted.strip() else None
    if number is not None:
        compare = _SIGNS[sign]
        if sign in ("=", "<>"):
            is_it: Test = lambda other: other == number if type(other) is float else other == wanted  # noqa: E731
            return is_it if sign == "=" else lambda other: not is_it(other)
        return lambda other: type(other) is float and compare(other, number)
    if sign in ("=", "<>"):
        pattern = re.compile(wildcards(wanted), re.IGNORECASE | re.DOTALL)
        equal: Test = (
            (lambda other: isinstance(other, str) and _fits(pattern, other))
            if wanted
            else (lambda other: other is None or other == "")
        )
        return equal if sign == "=" else lambda other: not equal(other)
    order = _SIGNS[sign]
    folded = wanted.casefold()
    return lambda other: isinstance(other, str) and order(_compared(other.casefold(), folded), 0)


def _fits(pattern: re.Pattern[str], text: str) -> bool:
    check_cancelled()  # both may be long
    return pattern.fullmatch(text) is not None


def _compared(one: str, other: str) -> int:
    return (one > other) - (one < other)


def wildcards(text: str) -> str:
    """The regular expression of a text with wildcards. What a star stands for is never tried again once what follows it
    was found, which is the same for texts of known length and takes time in proportion to the text."""
    pieces = re.findall(r"~[*?~]|.", text, re.DOTALL)
    parts: list[str] = [""]
    for piece in pieces:
        if piece == "*":
            parts.append("")
        else:
            bare = piece.removeprefix("~") if len(piece) > 1 else piece
            parts[-1] += "." if piece == "?" else re.escape(bare)
    first, *inner = parts
    if not inner:
        return first
    *inner, last = inner
    return first + "".join(f"(?>.*?{part})" for part in inner if part) + ".*" + last
