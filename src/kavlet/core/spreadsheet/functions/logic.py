"""Logical functions and questions about values (ODF 1.3 part 4, 6.13 and 6.15)."""

from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.spreadsheet.functions.registry import Argument, Failure, Later, everything, function, single, truth
from kavlet.core.spreadsheet.ranges import Block


@function("IF", "condition; [then]; [else]", "One value or another, by a condition.", 1, 3, takes="formulas")
def _if(condition: Later, *choices: Later) -> Argument:
    picked = 0 if truth(condition()) else 1
    if picked < len(choices):
        return choices[picked]()
    return picked == 0


@function("IFS", "condition; value; …", "The value after the first condition that is true.", 2, takes="formulas")
def _ifs(*parts: Later) -> Argument:
    if len(parts) % 2:
        return ErrorValue.VALUE
    for condition, value in zip(parts[::2], parts[1::2], strict=True):
        if truth(condition()):
            return value()
    return ErrorValue.MISSING


def _value(later: Later) -> Value:
    """What an argument gives, an error being a value like any other."""
    try:
        return single(later())
    except Failure as failure:
        return failure.error


@function("IFERROR", "value; otherwise", "A value, or another where the first is an error.", 2, 2, takes="formulas")
def _if_error(value: Later, otherwise: Later) -> Argument:
    found = _value(value)
    return otherwise() if isinstance(found, ErrorValue) else found


@function("IFNA", "value; otherwise", "A value, or another where the first is #N/A.", 2, 2, takes="formulas")
def _if_na(value: Later, otherwise: Later) -> Argument:
    found = _value(value)
    return otherwise() if found is ErrorValue.MISSING else found


@function("ISBLANK", "value", "Whether the cell is empty.", 1, 1, takes="formulas")
def _is_blank(value: Later) -> Value:
    return _value(value) is None


@function("ISNUMBER", "value", "Whether the value is a number.", 1, 1, takes="formulas")
def _is_number(value: Later) -> Value:
    return type(_value(value)) is float


@function("ISTEXT", "value", "Whether the value is a text.", 1, 1, takes="formulas")
def _is_text(value: Later) -> Value:
    return isinstance(_value(value), str)


@function("ISERROR", "value", "Whether the value is an error.", 1, 1, takes="formulas")
def _is_error(value: Later) -> Value:
    return isinstance(_value(value), ErrorValue)


@function("ISNA", "value", "Whether the value is #N/A.", 1, 1, takes="formulas")
def _is_na(value: Later) -> Value:
    return _value(value) is ErrorValue.MISSING


def _conditions(arguments: tuple[Argument, ...]) -> list[bool]:
    """The conditions of the arguments. In blocks texts and empty cells are passed over; an error anywhere counts."""
    found: list[bool] = []
    for argument in arguments:
        for value in everything((argument,)):
            if value is None or (isinstance(argument, Block) and isinstance(value, str)):
                continue
            found.append(truth(value))
    if not found:
        raise Failure(ErrorValue.VALUE)
    return found


@function("AND", "condition; …", "Whether all conditions are true.", 1, takes="ranges")
def _and(*arguments: Argument) -> Value:
    return all(_conditions(arguments))


@function("OR", "condition; …", "Whether any condition is true.", 1, takes="ranges")
def _or(*arguments: Argument) -> Value:
    return any(_conditions(arguments))


@function("NOT", "condition", "The opposite of the condition.", 1, 1)
def _not(condition: Argument) -> Value:
    return not truth(condition)


@function("TRUE", "", "The logical value TRUE.", 0, 0)
def _true() -> Value:
    return True


@function("FALSE", "", "The logical value FALSE.", 0, 0)
def _false() -> Value:
    return False


@function("NA", "", "The error value #N/A: no value is available.", 0, 0)
def _na() -> Value:
    return ErrorValue.MISSING
