"""The one protocol that shapes draw onto, and the pens of the core.

A pen takes coordinates in points, y downward. Curves are cubic Béziers.
"""

from typing import Protocol


class Pen(Protocol):
    """What every outline is drawn onto."""

    def move_to(self, x: float, y: float) -> None:
        """Start a new part at a point."""

    def line_to(self, x: float, y: float) -> None:
        """A straight line to a point."""

    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None:
        """A cubic curve to a point, by two control points."""

    def close(self) -> None:
        """Close the part with a straight line."""


class SvgPen:
    """Writes the `d` attribute of an SVG path, coordinates rounded to 1/1000 point, or to the decimals wished."""

    def __init__(self, decimals: int = 3) -> None:
        self._parts: list[str] = []
        self._decimals = decimals

    @property
    def text(self) -> str:
        """What was drawn so far, as path data."""
        return "".join(self._parts)

    def move_to(self, x: float, y: float) -> None:
        """Start a new part at a point."""
        self._parts.append(f"M{self._number(x)} {self._number(y)}")

    def line_to(self, x: float, y: float) -> None:
        """A straight line to a point."""
        self._parts.append(f"L{self._number(x)} {self._number(y)}")

    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None:
        """A cubic curve to a point, by two control points."""
        n = self._number
        self._parts.append(f"C{n(x1)} {n(y1)} {n(x2)} {n(y2)} {n(x)} {n(y)}")

    def close(self) -> None:
        """Close the part with a straight line."""
        self._parts.append("Z")

    def _number(self, value: float) -> str:
        return number(value, self._decimals)


def number(value: float, decimals: int = 3) -> str:
    """A coordinate as text: at most three decimals (or as wished), no trailing zeros, no negative zero."""
    text = f"{value:.{decimals}f}".rstrip("0").rstrip(".")
    return "0" if text == "-0" else text
