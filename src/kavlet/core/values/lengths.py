"""Lengths with units, written as in CSS: ``12mm``, ``3.5in``, ``640px``, ``480pt`` or ``480``.

A point is 1/72 inch, a pixel 1/96 inch (CSS Values 4, 6.2 "Absolute lengths"); a bare number is points.
"""

import math
import re

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size
from kavlet.core.values.sizes import CHARTS, sheets

POINTS_PER = {"": 1.0, "pt": 1.0, "px": 0.75, "in": 72.0, "mm": 72 / 25.4, "cm": 72 / 2.54}
_LENGTH = re.compile(r"\s*([0-9]*\.?[0-9]+)\s*(pt|px|in|mm|cm)?\s*")
SMALLEST, LARGEST = 36.0, 14_400.0  # half an inch to 200 inches, the limit of a PDF page (ISO 32000-1, annex C)


def points(text: str) -> float:
    """A length in points. Raises KavletError when the text is no length."""
    found = _LENGTH.fullmatch(text)
    if not found:
        raise KavletError(say("“{text}” is not a length.", text=text), remedy=say("Write it like 640, 160mm or 6.5in."))
    return float(found[1]) * POINTS_PER[found[2] or ""]


def size(text: str) -> Size:
    """A size in points from ``640x360``, ``160mmx90mm`` or a name (M, page width, A5, A4 lying).

    Raises KavletError when it is none or out of range.
    """
    named = _named(text.strip())
    if named is not None:
        return named
    parts = text.lower().replace("×", "x").split("x")
    parts = _rejoin_pixels(parts)
    if len(parts) != 2:
        raise KavletError(say("“{text}” is not a size.", text=text), remedy=say("Write width x height, like 640x360."))
    width, height = points(parts[0]), points(parts[1])
    if not all(math.isfinite(side) and SMALLEST <= side <= LARGEST for side in (width, height)):
        raise KavletError(
            say("“{text}” is out of range.", text=text), remedy=say("Each side may be 0.5 to 200 inches long.")
        )
    return Size(width, height)


def _named(text: str) -> Size | None:
    """The size of that name, whatever its case; “lying” behind a sheet's name turns it."""
    is_lying = text.casefold().endswith(" lying")
    wanted = text[: -len(" lying")].strip().casefold() if is_lying else text.casefold()
    for name, size_ in (*CHARTS.items(), *sheets().items()):
        if name.casefold() == wanted:
            return Size(size_.height, size_.width) if is_lying else size_
    return None


def _rejoin_pixels(parts: list[str]) -> list[str]:
    """Put the x of ``px`` back, which splitting at x has taken."""
    joined: list[str] = []
    for part in parts:
        if joined and joined[-1].rstrip().endswith("p"):
            joined[-1] += "x"
            if part.strip():
                joined.append(part)
        else:
            joined.append(part)
    return [part for part in joined if part.strip()]
