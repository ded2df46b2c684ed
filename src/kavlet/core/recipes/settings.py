"""Which values a recipe's parameter may have."""

import math

from kavlet.core.figures.cells import Value, text_of
from kavlet.core.recipes.recipe import Parameter, Setting, split_list
from kavlet.core.values.errors import KavletError


def checked_setting(parameter: Parameter, value: Value) -> Setting:
    """The value when the parameter may have it. Raises KavletError otherwise."""
    name = parameter.name
    if parameter.type == "flag" and not isinstance(value, bool):
        raise KavletError(f"The setting {name} is yes or no, not “{value}”.")
    if parameter.type == "choice" and value not in parameter.choices:
        raise KavletError(f"The setting {name} can’t be “{value}”.", remedy=f"It is {' or '.join(parameter.choices)}.")
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
            span = f"It goes from {low:g} to {high:g}." if low is not None and high is not None else ""
            span = span or (f"It is at least {low:g}." if low is not None else f"It is at most {high:g}.")
            raise KavletError(f"The setting {name} can’t be {number:g}.", remedy=span)
        return number
    return value if isinstance(value, bool) else text_of(value)


def _number(name: str, value: Value) -> float:
    try:
        number = float(value) if isinstance(value, float | int | str) and not isinstance(value, bool) else math.nan
    except ValueError:
        number = math.nan
    if not math.isfinite(number):
        raise KavletError(f"The setting {name} needs a number, not “{value}”.")
    return number
