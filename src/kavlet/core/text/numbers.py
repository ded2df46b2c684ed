"""Numbers as text and text as numbers, by locale (Unicode CLDR through Babel)."""

import math
from datetime import timedelta
from functools import lru_cache

from babel import Locale
from babel.core import UnknownLocaleError
from babel.numbers import NumberPattern, get_currency_precision, get_currency_symbol, parse_pattern

from kavlet.core.figures.cells import EPOCH
from kavlet.core.values.number_text import NumberText

DEFAULT_LOCALE = "en"
HUGE = 1e15  # from here on a float holds no whole numbers exactly, and is written with an exponent


@lru_cache(maxsize=32)
def locale_of(name: str) -> Locale:
    """The locale of that name, or English where it is unknown."""
    try:
        return Locale.parse(name.replace("-", "_"))
    except (ValueError, UnknownLocaleError):
        return Locale.parse(DEFAULT_LOCALE)


@lru_cache(maxsize=256)
def _pattern(least: int, most: int, grouping: str) -> NumberPattern:
    digits = "0" * least + "#" * (most - least)
    return parse_pattern((grouping or "0") + ("." + digits if digits else ""))


@lru_cache(maxsize=64)
def _groups(locale: str) -> str:
    """How the locale groups digits, as a pattern without decimals: `#,##0`, or `#,##,##0` in India."""
    return str(locale_of(locale).decimal_formats[None].pattern).partition(".")[0]


@lru_cache(maxsize=8192)
def written(value: float, how: NumberText, locale: str = DEFAULT_LOCALE) -> str:
    """A number as text. No value (NaN) gives `how.missing`, empty by default; infinities give ∞."""
    if math.isnan(value):
        return how.missing
    if value == 0 and how.zero is not None:
        return how.zero
    if how.style == "date":
        return _date(value, locale)
    shown = value * 100 if how.style == "percent" else value
    body = _body(abs(shown), how, locale)
    negative = shown < 0 and any(digit in body for digit in "123456789∞")
    text = f"{how.prefix}{body}{' %' if how.style == 'percent' else ''}{how.suffix}"
    if how.sign == "never":
        return text
    if negative:
        return f"({text})" if how.minus == "()" else f"{how.minus}{text}"
    return f"+{text}" if how.sign == "always" and shown > 0 else text


def _body(size: float, how: NumberText, locale: str) -> str:
    """The digits of a number that is not negative, with what an abbreviation or a currency adds."""
    if math.isinf(size):
        return "∞"
    if how.style in ("short", "long"):
        return _abbreviated(size, how, locale)
    if size >= HUGE:
        return f"{size:.3g}".replace("e+", "E").replace(".", decimal_sign(locale))
    if how.style == "currency":
        return _money(size, how, locale)
    return _digits(size, how, locale)


def _digits(size: float, how: NumberText, locale: str) -> str:
    least = max(0, how.least_decimals)
    most = max(least, how.most_decimals)
    if how.significant > 0 and size > 0:
        most = max(0, how.significant - 1 - math.floor(math.log10(size)))
        least = min(least, most)
        if size >= 10**how.significant:
            step = 10 ** (math.floor(math.log10(size)) + 1 - how.significant)
            size = math.floor(size / step + 0.5) * step
    pattern = _pattern(least, most, _groups(locale) if how.grouping else "")
    return str(pattern.apply(_half_up(size, most), locale_of(locale)))


def _abbreviated(size: float, how: NumberText, locale: str) -> str:
    """1.2 K, 1,2 Mio.: the locale's compact patterns; what rounds up to the next one moves on to it."""
    formats = locale_of(locale).compact_decimal_formats
    chosen = formats.get(how.style, formats["short"]) or formats["short"]
    plain = NumberText(most_decimals=how.most_decimals, least_decimals=how.least_decimals, grouping=True)
    power = math.floor(math.log10(size)) if size >= 1 else 0
    table, divisor = _compact(chosen, power)
    number = _half_up(size / divisor, how.most_decimals)
    if number >= 1000 and (table or power == 2):  # 999,999 is 1 M, not 1,000 K
        table, divisor = _compact(chosen, power + 1)
        number = _half_up(size / divisor, how.most_decimals)
    digits = _digits(number, plain, locale)
    if not table:
        return digits
    pattern = str((table.get(locale_of(locale).plural_form(number)) or table["other"]).pattern)
    return pattern.replace("'", "").replace("0" * pattern.count("0"), digits, 1)


def _compact(chosen: dict, power: int) -> tuple[dict, float]:  # type: ignore[type-arg]
    """The patterns by plural form for numbers of that power of ten, and what to divide them by."""
    key = str(10 ** min(power, 14))
    other = chosen.get("other", {})
    if power < 3 or key not in other or str(other[key].pattern) == "0":
        return {}, 1
    zeros = str(other[key].pattern).count("0")
    table = {plural: patterns[key] for plural, patterns in chosen.items() if key in patterns}
    return table, 10.0 ** (min(power, 14) - zeros + 1)


def _money(size: float, how: NumberText, locale: str) -> str:
    """An amount in the locale's pattern: €1,234.50 or 1.234,50 €, with the currency's own decimals."""
    of = locale_of(locale)
    decimals = get_currency_precision(how.currency) if how.currency else 2
    decimals = min(decimals, how.most_decimals)
    digits = _digits(size, NumberText(least_decimals=decimals, most_decimals=decimals, grouping=how.grouping), locale)
    pattern = str(of.currency_formats["standard"].pattern).partition(";")[0]
    before, _, after = pattern.partition("#")
    after = after.lstrip("#,.0")
    symbol = get_currency_symbol(how.currency, of) if how.currency else ""
    gap = "\xa0" if before.endswith("¤") and symbol[-1:].isalpha() else ""
    return before.replace("¤", symbol) + gap + digits + after.replace("¤", symbol)


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
