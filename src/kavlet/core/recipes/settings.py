"""Which values a recipe's parameter may have."""

import math

from kavlet.core.messages import Message, named, say
from kavlet.core.recipes.recipe import Parameter, Setting, split_list
from kavlet.core.spreadsheet.cells import Value, text_of
from kavlet.core.styling.colours import is_colour
from kavlet.core.values.errors import KavletError


def checked_setting(parameter: Parameter, value: Value) -> Setting:
    """The value when the parameter may have it. Raises KavletError otherwise."""
    name = named(parameter.name)
    if parameter.type == "flag" and not isinstance(value, bool):
        raise KavletError(say("The setting {name} is yes or no, not “{value}”.", name=name, value=value))
    if parameter.type == "choice" and value not in parameter.choices:
        raise KavletError(
            say("The setting {name} can’t be “{value}”.", name=name, value=value),
            remedy=say("It is one of these: {choices}.", choices=[named(one) for one in parameter.choices]),
        )
    if parameter.type == "numbers":
        for part in split_list(str(value)):
            _number(name, part)
        return str(value)
    if parameter.type == "number":
        if parameter.optional and value in ("", None):
            return ""
        number = _number(name, value)
        low, high = parameter.minimum, parameter.maximum
        if (low is not None and number < low) or (high is not None and number > high):
            raise KavletError(
                say("The setting {name} can’t be {number}.", name=name, number=number), remedy=_span(low, high)
            )
        return number
    if parameter.type == "colour" and value and not is_colour(str(value)):
        raise KavletError(say("“{text}” is not a colour.", text=value))
    return value if isinstance(value, bool) else text_of(value)


def _span(low: float | None, high: float | None) -> Message:
    if low is None:
        return say("It is at most {high}.", high=high)
    return (
        say("It is at least {low}.", low=low)
        if high is None
        else say("It goes from {low} to {high}.", low=low, high=high)
    )


def _number(name: Message, value: Value) -> float:
    try:
        number = float(value) if isinstance(value, float | int | str) and not isinstance(value, bool) else math.nan
    except ValueError:
        number = math.nan
    if not math.isfinite(number):
        raise KavletError(say("The setting {name} needs a number, not “{value}”.", name=name, value=value))
    return number
