"""Sentences that recipes share about tables that do not fit."""

import math
from collections.abc import Callable

from kavlet.core.messages import NOTHING, Message, counted, named, say
from kavlet.core.recipes.recipe import Inputs
from kavlet.core.spreadsheet.cells import ErrorValue, Value, text_of
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.errors import KavletError


def cell_name(column: int, row: int) -> str:
    """The A1 name of a row of figures, rows counted from 0."""
    return f"{column_letters(column)}{row + HEADER + 1}"


def need_numbers(inputs: Inputs, role: str) -> None:
    """Every cell of the role's columns is a number or empty, and each column holds at least one."""
    for column in inputs.ids(role):
        place = inputs.places[column]
        for row, value in enumerate(inputs.values[column]):
            if value in ("", ErrorValue.MISSING):
                continue  # how a formula says that there is no value
            if isinstance(value, ErrorValue):
                raise KavletError(
                    say("{cell} shows {value}.", cell=cell_name(place, row), value=value.value),
                    remedy=say(value.meaning),
                )
            if value is not None and not isinstance(value, float):
                raise KavletError(
                    say(
                        "{cell} holds “{text}”, which is not a number.", cell=cell_name(place, row), text=_short(value)
                    ),
                    remedy=say("Type a number, or leave the cell empty."),
                )
        if not any(isinstance(value, float) for value in inputs.values[column]):
            raise KavletError(say("Column {column} holds no numbers.", column=column_letters(place)))


def need_no_negatives(inputs: Inputs, role: str, what: Message) -> None:
    """No number of the role is below zero; `what` names one of them, such as “A stage”."""
    for column in inputs.ids(role):
        for row, number in enumerate(inputs.numbers[column]):
            if not math.isnan(number) and number < 0:
                place = cell_name(inputs.places[column], row)
                raise KavletError(say("{cell} is negative. {what} can’t be below zero.", cell=place, what=what))


def need_something(inputs: Inputs, role: str, what: Message) -> None:
    """Not all numbers of the role are zero; `what` names them, such as “parts”."""
    if not any(number for number in inputs.figures(role) if not math.isnan(number)):
        raise KavletError(say("All {what} are 0, so there is nothing to draw.", what=what))


def need_above_zero(inputs: Inputs, *settings: str) -> None:
    """Settings that divide or measure are above zero."""
    for name in settings:
        if inputs.is_set(name) and not inputs.setting(name) > 0:
            raise KavletError(say("The setting {name} must be above 0.", name=named(name)))


def need_row(inputs: Inputs, setting: str) -> None:
    """The setting counts a row that the table has."""
    row = inputs.setting(setting)
    if not (1 <= row <= inputs.rows and row == int(row)):
        raise KavletError(
            counted(
                "There is no row {row}; the table has {count} row.",
                "There is no row {row}; the table has {count} rows.",
                inputs.rows,
                row=row,
            ),
            remedy=say("Choose a whole number from 1 to {rows}.", rows=inputs.rows),
        )


def needing(*roles: str, negatives: Message = NOTHING) -> Callable[[Inputs], None]:
    """A check that only asks for numbers in the roles; with `negatives`, for none below zero."""

    def check(inputs: Inputs) -> None:
        for role in roles:
            need_numbers(inputs, role)
            if negatives:
                need_no_negatives(inputs, role, negatives)

    return check


def largest(numbers: Floats) -> float:
    """The largest of the numbers that are values; NaN when there is none."""
    return max((float(number) for number in numbers if not math.isnan(number)), default=math.nan)


def _short(value: Value) -> str:
    text = text_of(value)
    return text if len(text) <= 24 else text[:23] + "…"
