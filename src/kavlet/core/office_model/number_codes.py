"""Numbers as spreadsheets write them: format codes (ISO/IEC 29500-1, 18.8.31), and texts by formulas."""

import math
from collections.abc import Iterable

from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import NumberText

MAX_DECIMALS = 12  # decimals that a code goes to


def decimals(how: NumberText, values: Iterable[float]) -> int:
    """How many decimals the longest of some numbers is written with."""
    found = 0
    for value in values:
        if math.isfinite(value):
            digits = "".join(sign for sign in written(value, how, "en") if sign.isdigit() or sign == ".")
            found = max(found, len(digits.partition(".")[2]))
    return min(MAX_DECIMALS, found)


def code(how: NumberText, values: Iterable[float] = ()) -> str:
    """The format code of a number text, with as many decimals as the numbers that it is for need."""
    if how.style == "date":
        return "yyyy-mm-dd"
    digits = decimals(how, values)
    body = ("#,##0" if how.grouping else "0") + ("." + "0" * digits if digits else "")
    if how.style == "percent":
        body += "%"
    whole = f"{_literal(how.prefix)}{body}{_literal(how.suffix)}"
    if how.sign == "always":
        return f"+{whole};\u2212{whole};{whole}"
    if how.minus == "()":
        return f"{whole};({whole})"
    return f"{whole};\u2212{whole}" if how.minus == "\u2212" and how.sign != "never" else whole


def _literal(text: str) -> str:
    return '"' + text.replace('"', '""') + '"' if text else ""


def told(reference: str, value: float, how: NumberText, locale: str) -> str | None:
    """A formula part that writes the number of a cell as a number text does; None where none can."""
    if how.style not in ("number", "percent") or how.significant or math.isnan(value):
        return None
    digits = decimals(how, [value])
    body = ("#,##0" if how.grouping and locale.startswith("en") else "0") + ("." + "0" * digits if digits else "")
    pattern = body + ("%" if how.style == "percent" else "")
    text = f'TEXT(ABS({reference});"{pattern}")'
    minus = {"always": f'IF({reference}>0;"+";IF({reference}<0;"{how.minus}";""))&'}.get(how.sign, "")
    if not minus and value < 0:
        minus = f'IF({reference}<0;"{how.minus}";"")&'
    before = f"{quote(how.prefix)}&" if how.prefix else ""
    after = f"&{quote(how.suffix)}" if how.suffix else ""
    return f"{before}{minus}{text}{after}"


def quote(text: str) -> str:
    """A text as a formula holds it; line breaks by their number, since some readers drop them from formulas."""
    return "&CHAR(10)&".join('"' + part.replace('"', '""') + '"' for part in text.split("\n"))
