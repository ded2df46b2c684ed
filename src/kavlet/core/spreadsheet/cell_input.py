"""What was typed or read as text, understood as a cell: number, percent, formula or text, by the locale's signs."""

import re
import unicodedata
from datetime import date, timedelta
from functools import lru_cache

from kavlet.core.spreadsheet.cells import EPOCH, Cell, FormattedNumber, Formula, text_of
from kavlet.core.values.number_text import DATE, NumberText

_SPACES = " \u00a0\u202f\u2009"  # plain, no-break, narrow no-break and thin space, all used between groups of digits


_ACCOUNTED = re.compile(r"\(([^()]*)\)|(.*\d[^\d−-]*)[−-]")  # (200) and 200-


def typed(text: str, decimal: str = ".", group: str = ",") -> Cell:
    """The cell for a text. A leading apostrophe keeps a text as it is; blank text gives an empty cell."""
    stripped = text.strip()
    if not stripped:
        return None
    if stripped.startswith("'"):
        return stripped[1:]
    if stripped.startswith("=") and len(stripped) > 1:
        return Formula(_from_locale(stripped) if decimal == "," else stripped)
    if stripped.upper() in ("TRUE", "FALSE"):
        return stripped.upper() == "TRUE"
    number = typed_number(stripped, decimal, group)
    if number is not None:
        return FormattedNumber(number, _percent(stripped, decimal)) if stripped.endswith("%") else number
    return _date(stripped) or _money(stripped, decimal, group) or text


def _percent(text: str, decimal: str) -> NumberText:
    """The number text that shows a percent with the decimals it was typed with."""
    decimals = len(text.rstrip("% ").partition(decimal)[2])
    return NumberText(style="percent", most_decimals=max(1, decimals))


def _date(text: str) -> FormattedNumber | None:
    """A date as ISO 8601 writes it (2026-03-01), or with points, day first (1.3.2026)."""
    found = re.fullmatch(r"(\d{4})-(\d{1,2})-(\d{1,2})", text)
    parts = [int(part) for part in found.groups()] if found else []
    if not parts and (found := re.fullmatch(r"(\d{1,2})\.(\d{1,2})\.(\d{4})", text)):
        parts = [int(part) for part in reversed(found.groups())]
    if not parts:
        return None
    try:
        return FormattedNumber(float((date(*parts) - EPOCH).days), DATE)
    except ValueError:
        return None


def _money(text: str, decimal: str, group: str) -> FormattedNumber | None:
    """An amount with a currency sign before or after it (Unicode category Sc)."""
    for sign, rest, leads in ((text[0], text[1:], True), (text[-1], text[:-1], False)):
        if unicodedata.category(sign) == "Sc":
            number = typed_number(rest, decimal, group)
            if number is None:
                return None
            decimals = 2 if decimal in rest else 0
            prefix, suffix = (f"{sign} ", "") if leads else ("", f" {sign}")
            return FormattedNumber(number, NumberText("number", decimals, 2, prefix=prefix, suffix=suffix))
    return None


def read_field(text: str, decimal: str = ".", group: str = ",", accounts: bool = False) -> Cell:
    """The cell for a field of a file: as typed, but an apostrophe is a letter like any other.

    With `accounts`, numbers in brackets or with a minus behind them are negative, as in books of accounts.
    """
    if text.lstrip().startswith("'"):
        return text
    bare = _ACCOUNTED.fullmatch(text.strip()) if accounts else None
    cell = typed(bare[1] or bare[2] or "", decimal, group) if bare is not None else typed(text, decimal, group)
    if bare is None or not isinstance(cell, float | FormattedNumber):
        return text if bare is not None else cell
    return FormattedNumber(-cell.value, cell.number) if isinstance(cell, FormattedNumber) else -cell


def typed_number(text: str, decimal: str = ".", group: str = ",") -> float | None:
    """The number a text writes, or None. Understands grouping, a percent sign, and a typographic minus."""
    body = text.strip().replace("−", "-")
    percent = body.endswith("%")
    if percent:
        body = body[:-1].rstrip()
    pattern = _number_pattern(decimal, group)
    if not pattern.fullmatch(body):
        return None
    for sign in (*_group_signs(group), *_SPACES):
        body = body.replace(sign, "")
    body = body.replace(decimal, ".")
    if percent and "e" not in body.lower():
        return float(f"{body}e-2")  # exact where a division by 100 would not be
    return float(body) / 100 if percent else float(body)


def _group_signs(group: str) -> str:
    """The signs that part groups of digits: the locale's own; typed apostrophes stand for the curved one."""
    return group + "'" if group == "’" else group


@lru_cache(maxsize=16)
def _number_pattern(decimal: str, group: str) -> re.Pattern[str]:
    """Groups of three parted by one sign throughout; with the locale's own sign also 12,34,567 as in India."""
    own = f"[{re.escape(_group_signs(group))}]"
    point = re.escape(decimal)
    threes = rf"\d{{1,3}}(?P<between>{own}|[{_SPACES}])\d{{3}}(?:(?P=between)\d{{3}})*"
    whole = rf"(?:\d+|{threes}|\d{{1,2}}(?:{own}\d{{2}})+{own}\d{{3}})"
    return re.compile(rf"[+-]?(?:{whole}(?:{point}\d*)?|{point}\d+)(?:[eE][+-]?\d{{1,3}})?")


def shown_for_editing(cell: Cell, decimal: str = ".") -> str:
    """The text that, typed again, gives the same cell."""
    if isinstance(cell, Formula):
        return _to_locale(cell.text) if decimal == "," else cell.text
    if isinstance(cell, FormattedNumber):
        return _written_for_editing(cell, decimal)
    if isinstance(cell, float):
        return repr(cell).removesuffix(".0").replace(".", decimal)
    if isinstance(cell, str):
        again = typed(cell, decimal, "," if decimal == "." else ".")
        return cell if again == cell else f"'{cell}"
    return text_of(cell)


def _written_for_editing(cell: FormattedNumber, decimal: str) -> str:
    if cell.number.style == "date":
        try:
            return (EPOCH + timedelta(days=int(cell.value))).isoformat()
        except OverflowError:
            return shown_for_editing(cell.value, decimal)
    if cell.number.style == "percent":
        return shown_for_editing(float(f"{cell.value * 100:.15g}"), decimal) + " %"
    return cell.number.prefix + shown_for_editing(cell.value, decimal) + cell.number.suffix


_QUOTED = r"""("(?:[^"]|"")*"|'(?:[^']|'')*')"""


def _from_locale(formula: str) -> str:
    """A formula typed where the comma is the decimal sign, in the standard's form: 1,5 becomes 1.5."""
    return re.sub(_QUOTED + r"|(?<![\w$])(\d+),(\d+)", lambda found: found[1] or f"{found[2]}.{found[3]}", formula)


def _to_locale(formula: str) -> str:
    """A formula as it is typed where the comma is the decimal sign: 1.5 becomes 1,5, and semicolons part arguments."""

    def shown(found: re.Match[str]) -> str:
        return found[1] or (f"{found[2]},{found[3]}" if found[2] else ";")

    return re.sub(_QUOTED + r"|(?<![\w$])(\d+)\.(\d+)|,", shown, formula)
