"""What was typed or read as text, understood as a cell: number, percent, formula or text, by the locale's signs."""

import re

from kavlet.core.figures.cells import Cell, Formula, text_of

_SPACES = "    "  # plain, no-break, narrow no-break and thin space, all used between groups of digits


def typed(text: str, decimal: str = ".", group: str = ",") -> Cell:
    """The cell for a text. A leading apostrophe keeps a text as it is; blank text gives an empty cell."""
    stripped = text.strip()
    if not stripped:
        return None
    if stripped.startswith("'"):
        return stripped[1:]
    if stripped.startswith("=") and len(stripped) > 1:
        return Formula(stripped)
    if stripped.upper() in ("TRUE", "FALSE"):
        return stripped.upper() == "TRUE"
    number = typed_number(stripped, decimal, group)
    return text if number is None else number


def typed_number(text: str, decimal: str = ".", group: str = ",") -> float | None:
    """The number a text writes, or None. Understands grouping, a percent sign, and a typographic minus."""
    body = text.strip().replace("−", "-")
    percent = body.endswith("%")
    if percent:
        body = body[:-1].rstrip()
    pattern = _number_pattern(decimal, group)
    if not pattern.fullmatch(body):
        return None
    for sign in (group, *_SPACES):
        body = body.replace(sign, "")
    number = float(body.replace(decimal, "."))
    return number / 100 if percent else number


def _number_pattern(decimal: str, group: str) -> re.Pattern[str]:
    between = f"[{re.escape(group)}{_SPACES}]"
    point = re.escape(decimal)
    whole = rf"(?:\d+|\d{{1,3}}(?:{between}\d{{3}})+)"
    return re.compile(rf"[+-]?(?:{whole}(?:{point}\d*)?|{point}\d+)(?:[eE][+-]?\d{{1,3}})?")


def shown_for_editing(cell: Cell, decimal: str = ".") -> str:
    """The text that, typed again, gives the same cell."""
    if isinstance(cell, Formula):
        return cell.text
    if isinstance(cell, float):
        return repr(cell).removesuffix(".0").replace(".", decimal)
    if isinstance(cell, str):
        again = typed(cell, decimal, "," if decimal == "." else ".")
        return cell if again == cell else f"'{cell}"
    return text_of(cell)
