"""Fields in texts of a page: {=Walks!B7}, {=B7 | 0.0 %}, {name}, {page}, {pages}, {date}, {document}."""

import re

from babel.dates import format_date
from babel.numbers import format_decimal

from kavlet.core.pipeline.page_items.page_context import PageContext
from kavlet.core.spreadsheet.cells import ErrorValue, Value, text_of
from kavlet.core.text.numbers import locale_of, written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import NumberText

_FIELD = re.compile(r"\{(=[^{}]+|[a-z]+)\}")
BRIEF = NumberText(most_decimals=2)


def filled(text: str, context: PageContext) -> tuple[str, tuple[tuple[str, ErrorValue], ...]]:
    """A text with its fields as they are now, and the formulas among them that failed. What is no field stays."""
    failed: list[tuple[str, ErrorValue]] = []

    def one(found: re.Match[str]) -> str:
        asked = found[1]
        if asked.startswith("="):
            formula, _, how = asked.partition("|")
            value = evaluated(formula.strip(), context)
            if isinstance(value, ErrorValue):
                failed.append((formula.strip(), value))
                return "…"
            return said(value, how.strip(), context)
        return _named(asked, context) if _named(asked, context) is not None else found[0]  # type: ignore[return-value]

    return _FIELD.sub(one, text), tuple(failed)


def _named(name: str, context: PageContext) -> str | None:
    match name:
        case "name":
            return context.page.name
        case "page":
            return str(context.number)
        case "pages":
            return str(context.count)
        case "date":
            return format_date(context.today, "long", locale_of(context.document.locale))
        case "source":
            lines = dict.fromkeys(chart.source for chart in context.document.charts if chart.source)
            return next((line for line in lines if not line.startswith("=")), "")
    return None


def evaluated(formula: str, context: PageContext) -> Value:
    """What a formula gives; an error where it can't be read or there is no table."""
    if not context.home:
        return ErrorValue.REFERENCE
    try:
        return context.values.evaluate(formula, context.home)
    except KavletError:
        return ErrorValue.NAME


def said(value: Value, how: str, context: PageContext) -> str:
    """A value as text, by a number pattern (UTS 35, such as `#,##0.0` or `0 %`), else as plainly as it can be."""
    if not isinstance(value, float):
        return text_of(value)
    if how:
        try:
            return format_decimal(value, how, locale_of(context.document.locale))
        except (ValueError, ArithmeticError):
            pass
    return written(value, BRIEF, context.document.locale)
