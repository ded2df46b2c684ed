"""Numbers as text and text as numbers, by locale (Unicode CLDR through Babel)."""

import math
from datetime import timedelta
from functools import lru_cache

from babel import Locale
from babel.core import UnknownLocaleError
from babel.numbers import NumberPattern, parse_pattern

from kavlet.core.figures.cells import EPOCH
from kavlet.core.values.number_text import NumberText

DEFAULT_LOCALE = "en"
MINUS = "−"
HUGE = 1e15  # from here on a float holds no whole numbers exactly, and is written with an exponent


@lru_cache(maxsize=32)
def locale_of(name: str) -> Locale:
    """The locale of that name, or English where it is unknown."""
    try:
        return Locale.parse(name.replace("-", "_"))
    except (ValueError, UnknownLocaleError):
        return Locale.parse(DEFAULT_LOCALE)


@lru_cache(maxsize=256)
def _pattern(least: int, most: int, grouping: bool) -> NumberPattern:
    digits = "0" * least + "#" * (most - least)
    return parse_pattern(("#,##0" if grouping else "0") + ("." + digits if digits else ""))


@lru_cache(maxsize=8192)
def written(value: float, how: NumberText, locale: str = DEFAULT_LOCALE) -> str:
    """A number as text. No value (NaN) gives empty text; infinities give ∞."""
    if math.isnan(value):
        return ""
    if how.style == "date":
        return _date(value, locale)
    shown = value * 100 if how.style == "percent" else value
    if math.isinf(shown):
        body = "∞"
    elif abs(shown) >= HUGE:
        body = f"{abs(shown):.3g}".replace("e+", "E").replace(".", decimal_sign(locale))
    else:
        least = max(0, how.least_decimals)
        most = max(least, how.most_decimals)
        pattern = _pattern(least, most, how.grouping)
        body = pattern.apply(_half_up(abs(shown), most), locale_of(locale))
    negative = shown < 0 and any(digit in body for digit in "123456789∞")
    unit = " %" if how.style == "percent" else ""
    return f"{MINUS if negative else ''}{how.prefix}{body}{unit}{how.suffix}"


def _date(days: float, locale: str) -> str:
    """A date by its number of days, as the locale writes it; what is no date is written as a number."""
    from babel.dates import format_date

    try:
        return format_date(EPOCH + timedelta(days=math.floor(days)), "medium", locale_of(locale))
    except (OverflowError, ValueError):
        return written(days, NumberText(), locale)


def _half_up(value: float, decimals: int) -> float:
    """Round half away from zero, as people expect of printed figures; binary noise in the last digit is forgiven."""
    factor = 10.0**decimals
    return math.floor(value * factor * (1 + 2e-15) + 0.5) / factor


def decimal_sign(locale: str) -> str:
    """The character between the whole part and the decimals."""
    return str(locale_of(locale).number_symbols["latn"].get("decimal", "."))


def group_sign(locale: str) -> str:
    """The character between groups of digits."""
    return str(locale_of(locale).number_symbols["latn"].get("group", ","))
