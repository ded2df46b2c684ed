"""Lines that fit: breaking where Unicode lets a line break, and shortening what is still too long."""

import re
import unicodedata
from functools import lru_cache

from kavlet.core.text.shaping import width

ELLIPSIS = "…"
_PLAIN = re.compile(r"[A-Za-zÀ-ÖØ-öø-ɏ0-9…]+(?: [A-Za-zÀ-ÖØ-öø-ɏ0-9…]+)*")  # breaks after these and nowhere else:
_BREAKS = re.compile(r"(?<= )|(?<=…)(?=[^ …])")
_SIGNS = "%‰°"


def wrapped(text: str, face: str, size: float, most_width: float, most_lines: int) -> tuple[str, ...]:
    """Break a text into at most `most_lines` lines of at most `most_width` points; the last may end in an ellipsis.

    Line breaks in the text are kept. Empty text gives no line; a single character is shown even where it does not fit.
    """
    lines: list[str] = []
    for paragraph in text.splitlines():
        line = ""
        for piece in pieces(paragraph):
            if width((line + piece).strip(), face, size) <= most_width or not line.strip():
                line += piece
            else:
                lines.append(line.strip())
                line = piece.lstrip()
        if line.strip():
            lines.append(line.strip())
    if len(lines) > most_lines:
        lines = [*lines[: most_lines - 1], " ".join(lines[most_lines - 1 :])]
    return tuple(shortened(line, face, size, most_width) for line in lines)


@lru_cache(maxsize=4096)
def pieces(text: str) -> tuple[str, ...]:
    """The parts between which a line may break, each with the spaces that follow it.

    Source: Unicode Standard Annex 14; besides, a percent sign, a degree or a currency stays with the number before it.
    """
    if _PLAIN.fullmatch(text):
        return tuple(_BREAKS.split(text))
    from uniseg.linebreak import line_break_units  # its tables load slowly, and most texts are plain words

    found: list[str] = []
    for unit in line_break_units(text):
        if found and (unit[0] in _SIGNS or unicodedata.category(unit[0]) == "Sc") and found[-1].rstrip()[-1:].isdigit():
            found[-1] += unit
        else:
            found.append(unit)
    return tuple(found)


def shortened(line: str, face: str, size: float, most_width: float) -> str:
    """The line, or its beginning with an ellipsis, within `most_width` points; never less than one character."""
    if width(line, face, size) <= most_width:
        return line
    low, high = 1, max(1, len(line) - 1)
    while low < high:
        middle = (low + high + 1) // 2
        if width(line[:middle].rstrip() + ELLIPSIS, face, size) <= most_width:
            low = middle
        else:
            high = middle - 1
    return line[:low].rstrip() + ELLIPSIS
