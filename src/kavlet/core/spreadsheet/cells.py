"""What a cell holds and what it evaluates to.

An empty cell is None, both as content and as value: it is *no value*, never zero.
"""

import math
from datetime import date
from enum import Enum

from msgspec import Struct

from kavlet.core.values.number_text import NumberText

EPOCH = date(1899, 12, 30)  # day 0 of dates as numbers


class Formula(Struct, frozen=True, tag_field="kind", tag="formula", omit_defaults=True, forbid_unknown_fields=True):
    """A formula as typed, with its equals sign. `made` marks one that a recipe made and may renew."""

    text: str
    made: bool = False
    number: NumberText | None = None


class FormattedNumber(Struct, frozen=True, tag_field="kind", tag="number", forbid_unknown_fields=True):
    """A number typed with a way to write it: a percent, a date, an amount of money."""

    value: float
    number: NumberText


class ErrorValue(Enum):
    """The errors a formula can evaluate to (OASIS ODF 1.3 part 4, 5.12), and the one for a cycle."""

    DIVISION = "#DIV/0!"
    REFERENCE = "#REF!"
    NAME = "#NAME?"
    VALUE = "#VALUE!"
    MISSING = "#N/A"
    NUMBER = "#NUM!"
    LOOP = "#LOOP!"

    @property
    def meaning(self) -> str:
        """What happened, in words."""
        return _MEANINGS[self]


_MEANINGS = {
    ErrorValue.DIVISION: "A number is divided by zero or by an empty cell.",
    ErrorValue.REFERENCE: "The formula refers to cells that are no longer there.",
    ErrorValue.NAME: "The formula names a function or a table that does not exist.",
    ErrorValue.VALUE: "The formula can't be read, or a number is needed where a text stands.",
    ErrorValue.MISSING: "No value is available.",
    ErrorValue.NUMBER: "The result is no number.",
    ErrorValue.LOOP: "The formula refers to itself, directly or by way of other cells.",
}

Cell = Formula | FormattedNumber | bool | float | str | None
Value = ErrorValue | bool | float | str | None

ERRORS = {error.value: error for error in ErrorValue}


def is_number(cell: Cell) -> bool:
    """Whether a cell holds a number that was typed or read, not computed."""
    return isinstance(cell, float | FormattedNumber)


def plain_value(cell: Cell) -> Value:
    """The value of a cell that holds no formula."""
    return cell.value if isinstance(cell, FormattedNumber) else None if isinstance(cell, Formula) else cell


def number_of(value: Value) -> float:
    """The number of a value for drawing: NaN for all that is no number."""
    return value if type(value) is float else math.nan


def text_of(value: Value) -> str:
    """A value as plain text, as `&` joins it: whole numbers without a decimal sign, TRUE and FALSE in capitals."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "TRUE" if value else "FALSE"
    if isinstance(value, float):
        return f"{value:.15g}"
    return value.value if isinstance(value, ErrorValue) else value
