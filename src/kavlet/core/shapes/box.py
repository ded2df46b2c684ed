"""Rectangles, square or with rounded corners."""

from kavlet.core.scene.pens import Pen
from kavlet.core.values.geometry import Rect

# Distance of the control points for a quarter circle, as a share of the radius: error below 0.03 % of the radius
# (Riskus 2006, "Approximation of a cubic Bézier curve by circular arcs").
QUARTER = 0.5522847498307936


def box(pen: Pen, rect: Rect, radius: float = 0.0) -> None:
    """Draw a rectangle clockwise from its top left corner; the radius is at most half the shorter side."""
    r = max(0.0, min(radius, rect.width / 2, rect.height / 2))
    left, top, right, bottom = rect.x, rect.y, rect.right, rect.bottom
    if r == 0:
        quad(pen, (left, top), (right, top), (right, bottom), (left, bottom))
        return
    k = r * (1 - QUARTER)
    pen.move_to(left + r, top)
    pen.line_to(right - r, top)
    pen.curve_to(right - k, top, right, top + k, right, top + r)
    pen.line_to(right, bottom - r)
    pen.curve_to(right, bottom - k, right - k, bottom, right - r, bottom)
    pen.line_to(left + r, bottom)
    pen.curve_to(left + k, bottom, left, bottom - k, left, bottom - r)
    pen.line_to(left, top + r)
    pen.curve_to(left, top + k, left + k, top, left + r, top)
    pen.close()


def quad(pen: Pen, *corners: tuple[float, float]) -> None:
    """Draw straight lines through the corners and close them."""
    pen.move_to(*corners[0])
    for corner in corners[1:]:
        pen.line_to(*corner)
    pen.close()
