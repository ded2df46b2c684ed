"""Sentences that recipes share about tables that do not fit."""

import math

from kavlet.core.figures.cells import ErrorValue, Value, text_of
from kavlet.core.figures.ranges import Floats
from kavlet.core.figures.references import column_letters
from kavlet.core.figures.table import HEADER
from kavlet.core.recipes.recipe import Inputs
from kavlet.core.values.errors import KavletError


def cell_name(column: int, row: int) -> str:
    """The A1 name of a row of figures, rows counted from 0."""
    return f"{column_letters(column)}{row + HEADER + 1}"


def need_numbers(inputs: Inputs, role: str) -> None:
    """Every cell of the role is a number or empty, and at least one is a number."""
    column = inputs.role_places[role]
    for row, value in enumerate(inputs.entries(role)):
        if isinstance(value, ErrorValue):
            raise KavletError(f"{cell_name(column, row)} shows {value.value}.", remedy=value.meaning)
        if value is not None and not isinstance(value, float):
            raise KavletError(
                f"{cell_name(column, row)} holds “{_short(value)}”, which is not a number.",
                remedy="Type a number, or leave the cell empty.",
            )
    if not any(isinstance(value, float) for value in inputs.entries(role)):
        raise KavletError(f"Column {column_letters(column)} holds no numbers.")


def need_no_negatives(inputs: Inputs, role: str, what: str) -> None:
    """No number of the role is below zero; `what` names one of them, such as “A stage”."""
    column = inputs.role_places[role]
    for row, number in enumerate(inputs.figures(role)):
        if not math.isnan(number) and number < 0:
            raise KavletError(f"{cell_name(column, row)} is negative. {what} can’t be below zero.")


def largest(numbers: Floats) -> float:
    """The largest of the numbers that are values; NaN when there is none."""
    return max((number for number in numbers if not math.isnan(number)), default=math.nan)


def _short(value: Value) -> str:
    text = text_of(value)
    return text if len(text) <= 24 else text[:23] + "…"
