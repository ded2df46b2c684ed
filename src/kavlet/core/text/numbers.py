"""Numbers as text, by locale (Unicode CLDR through Babel; patterns by UTS #35 part 3).

A number is taken as the shortest decimal that reads back to it, and rounded once from there, half away from zero, as
people expect of printed figures: 1.005 with two decimals is 1.01, and no digit appears that nobody wrote.
"""

import math
import re
from datetime import timedelta
from decimal import ROUND_HALF_UP, Context, Decimal
from functools import lru_cache

import msgspec
from babel import Locale
from babel.core import UnknownLocaleError
from babel.numbers import NumberPattern, get_currency_precision, get_currency_symbol, parse_pattern

from kavlet.core.spreadsheet.cells import EPOCH
from kavlet.core.values.number_text import NumberText

DEFAULT_LOCALE = "en"
BEYOND_WORDS = Decimal(10) ** 21  # from there on no abbreviation helps
HUGE = Decimal("1E16")  # from here on a float holds no whole numbers exactly, and is written with an exponent
TINY = Decimal("1E-6")  # below, where no decimals were asked for, too
EXACT = Context(prec=60, rounding=ROUND_HALF_UP)
NBSP = "\u00a0"


@lru_cache(maxsize=32)
def locale_of(name: str) -> Locale:
    """The locale of that name, or English where it is unknown."""
    try:
        return Locale.parse(name.replace("-", "_"))
    except (ValueError, UnknownLocaleError):
        return Locale.parse(DEFAULT_LOCALE)


LOCALES = (
    "en", "en-GB", "en-IN", "ar", "bg", "bn", "ca", "cs", "da", "de", "de-AT", "de-CH", "el", "es", "es-MX", "et", "fi",
    "fr", "fr-CA", "fr-CH", "he", "hi", "hr", "hu", "id", "it", "it-CH", "ja", "ko", "lt", "lv", "nb", "nl", "pl", "pt",
    "pt-BR", "ro", "ru", "sk", "sl", "sr", "sv", "sw", "th", "tr", "uk", "vi", "zh",
)  # fmt: skip


def listed_locale(name: str) -> str:
    """The one of `LOCALES` that writes numbers as another does: de for de_DE; English where none is near."""
    whole = name.replace("_", "-")
    return next((one for one in (whole, whole.partition("-")[0]) if one in LOCALES), DEFAULT_LOCALE)


@lru_cache(maxsize=256)
def locale_title(name: str, language: str) -> str:
    """What a locale is called in a language, with a number written as it does."""
    title = locale_of(name).get_display_name(locale_of(language)) or name
    return f"{title[:1].upper()}{title[1:]}: {written(1234.5, NumberText(), name)}"


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
    exact = abs(Decimal(repr(float(value))))
    if how.style == "percent":
        exact = exact.scaleb(2)
    body = _body(exact, how, locale)
    nothing = not any(digit in body for digit in "123456789∞")
    before, after, minus_first = _around(how, locale, negative=value < 0 and not nothing and how.sign != "never")
    text = f"{how.prefix}{before}{body}{after}{how.suffix}"
    if how.sign == "never":
        return text
    if value < 0 and not nothing:
        return f"({text})" if how.minus == "()" else f"{how.minus}{text}" if minus_first else text
    return f"+{text}" if how.sign == "always" and value > 0 else text


def _body(size: Decimal, how: NumberText, locale: str) -> str:
    """The digits of a number that is not negative, with what an abbreviation adds."""
    if size.is_infinite():
        return "∞"
    if how.style in ("short", "long") and size < BEYOND_WORDS:
        return _abbreviated(size, how, locale)
    if how.style == "exponent" and size:
        return _with_exponent(size, how, locale)
    if size >= HUGE or (0 < size < TINY and how.most_decimals is None and not how.significant):
        return _with_exponent(size, how, locale)
    if how.style == "currency":
        decimals = min(get_currency_precision(how.currency) if how.currency else 2, how.decimals)
        how = NumberText(least_decimals=decimals, most_decimals=decimals, grouping=how.grouping)
    return _digits(size, how, locale)


def _digits(size: Decimal, how: NumberText, locale: str) -> str:
    least = max(0, how.least_decimals)
    most = max(least, how.decimals)
    if how.significant > 0 and size > 0:
        size = _to_digits(size, how.significant)
        most = max(0, how.significant - 1 - size.adjusted())
        least = min(least, most)
    elif how.most_decimals is None and 0 < size < Decimal("0.005"):
        most = max(most, 1 - _to_digits(size, 2).adjusted())  # two figures of what would be written 0
    pattern = _pattern(least, most, _groups(locale) if how.grouping else "")
    return str(pattern.apply(_rounded(size, most), locale_of(locale)))


def _with_exponent(size: Decimal, how: NumberText, locale: str) -> str:
    """A number times a power of ten: 1.5E16, 1E-9."""
    power = size.adjusted()
    mantissa = _rounded(size.scaleb(-power), how.decimals)
    if mantissa >= 10:
        power, mantissa = power + 1, _rounded(size.scaleb(-power - 1), how.decimals)
    return f"{mantissa.normalize(EXACT):f}E{power}".replace(".", decimal_sign(locale))


def _abbreviated(size: Decimal, how: NumberText, locale: str) -> str:
    """1.2 K, 1,2 Mio.: the locale's compact patterns; what rounds up to the next power of ten is written by its."""
    formats = locale_of(locale).compact_decimal_formats
    chosen = formats.get(how.style, formats["short"]) or formats["short"]
    plain = NumberText(most_decimals=how.decimals, least_decimals=how.least_decimals, grouping=how.grouping)
    power = max(0, size.adjusted())
    table, zeros = _compact(chosen, power)
    number = _rounded(size.scaleb(-zeros), how.decimals)
    if number.scaleb(zeros).adjusted() > power:  # 999,999 is 1 M, not 1,000 K
        table, zeros = _compact(chosen, power + 1)
        number = _rounded(size.scaleb(-zeros), how.decimals)
    if number < 10_000:  # four digits stay together before a word, as ICU writes them
        plain = msgspec.structs.replace(plain, grouping=False)
    digits = _digits(number, plain, locale)
    if not table:
        return digits
    pattern = str((table.get(locale_of(locale).plural_form(float(number))) or table["other"]).pattern)
    if "0" not in pattern and number != 1:
        pattern = str(table["other"].pattern)
    return re.sub("0+", digits, pattern.partition(";")[0].replace("'", ""), count=1)


def _compact(chosen: dict, power: int) -> tuple[dict, int]:  # type: ignore[type-arg]
    """The patterns by plural form for numbers of that power of ten, and the power to divide them by."""
    key = str(10 ** min(power, 14))
    other = chosen.get("other", {})
    if power < 3 or key not in other or str(other[key].pattern) == "0":
        return {}, 0
    digits = str(other[key].pattern).partition(";")[0].count("0")
    table = {plural: patterns[key] for plural, patterns in chosen.items() if key in patterns}
    return table, min(power, 14) - digits + 1


def _around(how: NumberText, locale: str, negative: bool) -> tuple[str, str, bool]:
    """What stands before and after the digits by the locale's pattern, and whether a minus is still to be set first."""
    of = locale_of(locale)
    if how.style == "percent":
        pattern = of.percent_formats[None].pattern
    elif how.style == "currency":
        pattern = of.currency_formats["standard"].pattern
    else:
        return "", "", True
    positive, _, other = str(pattern).partition(";")
    stands = negative and bool(other) and how.minus != "()"
    before, after = re.split(r"[#0,.]+", other if stands else positive, maxsplit=1)
    symbol = get_currency_symbol(how.currency, of) if how.currency else ""
    if how.style == "currency":
        gap_before = NBSP if symbol[-1:].isalpha() and before.endswith("¤") else ""
        gap_after = NBSP if symbol[:1].isalpha() and after.startswith("¤") else ""
        before, after = before.replace("¤", symbol) + gap_before, gap_after + after.replace("¤", symbol)
    if stands:
        before, after = before.replace("-", how.minus), after.replace("-", how.minus)
    return before, after, not stands


def _date(days: float, locale: str) -> str:
    """A date by its number of days, as the locale writes it; what is no date is written as a number."""
    from babel.dates import format_date

    try:
        return format_date(EPOCH + timedelta(days=math.floor(days)), "medium", locale_of(locale))
    except (OverflowError, ValueError):
        return written(days, NumberText(), locale)


def _rounded(value: Decimal, decimals: int) -> Decimal:
    """A number rounded to decimals, half away from zero."""
    return value.quantize(Decimal(1).scaleb(-decimals), context=EXACT)


def _to_digits(value: Decimal, digits: int) -> Decimal:
    """A number rounded to significant digits, half away from zero."""
    return Context(prec=digits, rounding=ROUND_HALF_UP).plus(value)


def decimals_of(value: float) -> int:
    """How many decimals the shortest text of a number has."""
    exponent = Decimal(repr(float(value))).normalize().as_tuple().exponent
    return max(0, -exponent) if isinstance(exponent, int) else 0


def decimal_sign(locale: str) -> str:
    """The character between the whole part and the decimals."""
    return str(locale_of(locale).number_symbols["latn"].get("decimal", "."))


def group_sign(locale: str) -> str:
    """The character between groups of digits."""
    return str(locale_of(locale).number_symbols["latn"].get("group", ","))
