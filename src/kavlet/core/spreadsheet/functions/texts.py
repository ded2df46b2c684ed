"""Text functions (ODF 1.3 part 4, 6.20)."""

import re

from kavlet.core.spreadsheet.cell_input import typed_number
from kavlet.core.spreadsheet.cells import ErrorValue, Value, text_of
from kavlet.core.spreadsheet.functions.criteria import wildcards
from kavlet.core.spreadsheet.functions.dates import as_date
from kavlet.core.spreadsheet.functions.registry import (
    MAX_TEXT,
    Argument,
    Failure,
    everything,
    function,
    number,
    plain,
    short_enough,
    truth,
    whole,
)
from kavlet.core.values.xml_text import xml_text


def text(argument: Argument) -> str:
    """An argument as text."""
    return text_of(plain(argument))


@function("LEN", "text", "How many characters a text has.", 1, 1)
def _len(of: Argument) -> Value:
    return float(len(text(of)))


def _count(argument: Argument) -> int:
    found = whole(argument)
    if found < 0:
        raise Failure(ErrorValue.VALUE)
    return found


@function("CHAR", "number", "The character of a number from 1 to 255: 10 is a line break.", 1, 1)
def _char(of: Argument) -> Value:
    number = whole(of)
    made = chr(number) if 1 <= number <= 255 else ""
    return made if xml_text(made) else ErrorValue.VALUE  # no control characters, which no office file can hold


@function("LEFT", "text; [count]", "The first characters of a text.", 1, 2)
def _left(of: Argument, count: Argument = 1.0) -> Value:
    return text(of)[: _count(count)]


@function("RIGHT", "text; [count]", "The last characters of a text.", 1, 2)
def _right(argument: Argument, count: Argument = 1.0) -> Value:
    whole_text, length = text(argument), _count(count)
    return whole_text[max(0, len(whole_text) - length) :]


@function("MID", "text; start; count", "Characters from inside a text, the first being 1.", 3, 3)
def _mid(of: Argument, start: Argument, count: Argument) -> Value:
    first = whole(start)
    if first < 1:
        return ErrorValue.VALUE
    return text(of)[first - 1 : first - 1 + _count(count)]


@function("FIND", "part; text; [start]", "Where a part begins in a text, the first character being 1.", 2, 3)
def _find(part: Argument, of: Argument, start: Argument = 1.0) -> Value:
    first = whole(start)
    at = text(of).find(text(part), first - 1) if first >= 1 else -1
    return float(at + 1) if at >= 0 else ErrorValue.VALUE


@function("SEARCH", "part; text; [start]", "As FIND, but case does not count, and * and ? are wildcards.", 2, 3)
def _search(part: Argument, argument: Argument, start: Argument = 1.0) -> Value:
    first = whole(start)
    pattern = re.compile(wildcards(text(part)), re.IGNORECASE | re.DOTALL)
    match = pattern.search(text(argument), first - 1) if first >= 1 else None
    return float(match.start() + 1) if match is not None else ErrorValue.VALUE


@function("TRIM", "text", "The text with single spaces between words and none around.", 1, 1)
def _trim(of: Argument) -> Value:
    return " ".join(part for part in text(of).split(" ") if part)


@function("UPPER", "text", "The text in capitals.", 1, 1)
def _upper(of: Argument) -> Value:
    return text(of).upper()


@function("LOWER", "text", "The text in small letters.", 1, 1)
def _lower(of: Argument) -> Value:
    return text(of).lower()


@function("REPT", "text; count", "The text so many times.", 2, 2)
def _rept(of: Argument, count: Argument) -> Value:
    held, times = text(of), _count(count)
    return held * times if len(held) * times <= MAX_TEXT else ErrorValue.VALUE


def _joined(arguments: tuple[Argument, ...]) -> Value:
    parts: list[str] = []
    for value in everything(arguments):
        if isinstance(value, ErrorValue):
            return value
        parts.append(text_of(value))
    return short_enough("".join(parts))


@function("CONCAT", "text; …", "Joins texts, those of ranges among them.", 1)
def _concat(*arguments: Argument) -> Value:
    return _joined(arguments)


@function("CONCATENATE", "text; …", "Joins texts.", 1)
def _concatenate(*arguments: Argument) -> Value:
    return _joined(arguments)


@function("TEXTJOIN", "between; skip empty; text; …", "Joins texts with something between them.", 3)
def _text_join(between: Argument, skip_empty: Argument, *arguments: Argument) -> Value:
    skip, parts = truth(skip_empty), []
    for value in everything(arguments):
        if isinstance(value, ErrorValue):
            return value
        if text_of(value) or not skip:
            parts.append(text_of(value))
    return short_enough(text(between).join(parts))


@function("VALUE", "text", "The number a text writes.", 1, 1)
def _value(argument: Argument) -> Value:
    cell = plain(argument)
    if isinstance(cell, float):
        return cell
    number = typed_number(text_of(cell)) if isinstance(cell, str) else None
    return ErrorValue.VALUE if number is None else number


@function("TEXT", "number; pattern", "A number or date written by a pattern, such as #,##0.0 or yyyy-MM-dd.", 2, 2)
def _text(value: Argument, pattern: Argument) -> Value:
    """Patterns are those of Unicode UTS #35: parts 3 (numbers) and 4 (dates)."""
    held, how = plain(value), text(pattern)
    if isinstance(held, str):
        return held
    if any(sign in how for sign in "0#"):
        from babel.numbers import parse_pattern

        try:
            return str(parse_pattern(how).apply(number(held), "en"))
        except (ValueError, ArithmeticError):
            return ErrorValue.VALUE
    from babel.dates import format_date

    try:
        return str(format_date(as_date(number(held)), how, "en"))
    except (ValueError, KeyError, AttributeError):
        return ErrorValue.VALUE
