"""The one protocol that shapes draw onto, and the pens of the core.

A pen takes coordinates in points, y downward. Curves are cubic Béziers.
"""

from typing import Protocol


class Pen(Protocol):
    """What every outline is drawn onto."""

    def move_to(self, x: float, y: float) -> None: ...
    def line_to(self, x: float, y: float) -> None: ...
    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None: ...
    def close(self) -> None: ...


class SvgPen:
    """Writes the `d` attribute of an SVG path, coordinates rounded to 1/1000 point."""

    def __init__(self) -> None:
        self._parts: list[str] = []

    @property
    def text(self) -> str:
        return "".join(self._parts)

    def move_to(self, x: float, y: float) -> None:
        self._parts.append(f"M{number(x)} {number(y)}")

    def line_to(self, x: float, y: float) -> None:
        self._parts.append(f"L{number(x)} {number(y)}")

    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None:
        self._parts.append(f"C{number(x1)} {number(y1)} {number(x2)} {number(y2)} {number(x)} {number(y)}")

    def close(self) -> None:
        self._parts.append("Z")


def number(value: float) -> str:
    """A coordinate as text: at most three decimals, no trailing zeros, no negative zero."""
    text = f"{value:.3f}".rstrip("0").rstrip(".")
    return "0" if text == "-0" else text
