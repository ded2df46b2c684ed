"""Bodies of bars: square, rounded, capsule, tapered, and one that looks like a cylinder.

A bar is a box and the side its value grows to; `end` is "right", "left", "up" or "down"::

          ______________
    base |              )  end
          --------------
"""

from typing import Literal

from kavlet.core.scene.pens import Pen
from kavlet.core.shapes.box import QUARTER, box
from kavlet.core.values.geometry import Rect

BodyForm = Literal["square", "rounded", "capsule", "tapered", "cylinder"]
End = Literal["right", "left", "up", "down"]
TIP = 0.26  # depth of a cylinder's elliptic ends, as a share of its thickness


def rounded_end(pen: Pen, rect: Rect, end: End, radius: float) -> None:
    """A bar whose two corners at its end are rounded; the base stays square."""
    long, across = (rect.width, rect.height) if end in ("right", "left") else (rect.height, rect.width)
    r = max(0.0, min(radius, across / 2, long))
    k = r * (1 - QUARTER)
    x, y, right, bottom = rect.x, rect.y, rect.right, rect.bottom
    if r <= 0:
        box(pen, rect)
    elif end == "right":
        pen.move_to(x, y)
        pen.line_to(right - r, y)
        pen.curve_to(right - k, y, right, y + k, right, y + r)
        pen.line_to(right, bottom - r)
        pen.curve_to(right, bottom - k, right - k, bottom, right - r, bottom)
        pen.line_to(x, bottom)
        pen.close()
    elif end == "left":
        pen.move_to(right, bottom)
        pen.line_to(x + r, bottom)
        pen.curve_to(x + k, bottom, x, bottom - k, x, bottom - r)
        pen.line_to(x, y + r)
        pen.curve_to(x, y + k, x + k, y, x + r, y)
        pen.line_to(right, y)
        pen.close()
    elif end == "up":
        pen.move_to(x, bottom)
        pen.line_to(x, y + r)
        pen.curve_to(x, y + k, x + k, y, x + r, y)
        pen.line_to(right - r, y)
        pen.curve_to(right - k, y, right, y + k, right, y + r)
        pen.line_to(right, bottom)
        pen.close()
    else:
        pen.move_to(right, y)
        pen.line_to(right, bottom - r)
        pen.curve_to(right, bottom - k, right - k, bottom, right - r, bottom)
        pen.line_to(x + r, bottom)
        pen.curve_to(x + k, bottom, x, bottom - k, x, bottom - r)
        pen.line_to(x, y)
        pen.close()


def cylinder_reach(thickness: float) -> float:
    """How far a cylinder's elliptic ends bulge beyond its box, in points."""
    return TIP * thickness / 2


def cylinder(pen: Pen, rect: Rect, end: End) -> None:
    """The silhouette of a cylinder seen from slightly above its end.

    Its ends are ellipses about the ends of the box, so that a value is read at an ellipse's middle and cylinders
    stacked on each other meet::

            ____
           (    )   <- end of the box in the middle
           |    |
           (____)
    """
    lying = end in ("right", "left")
    across = rect.height if lying else rect.width
    d, half, k = cylinder_reach(across), across / 2, QUARTER
    x, y, right, bottom = rect.x, rect.y, rect.right, rect.bottom
    cx, cy = rect.center
    if lying:
        pen.move_to(x, y)
        pen.line_to(right, y)
        pen.curve_to(right + k * d, y, right + d, cy - k * half, right + d, cy)
        pen.curve_to(right + d, cy + k * half, right + k * d, bottom, right, bottom)
        pen.line_to(x, bottom)
        pen.curve_to(x - k * d, bottom, x - d, cy + k * half, x - d, cy)
        pen.curve_to(x - d, cy - k * half, x - k * d, y, x, y)
    else:
        pen.move_to(x, bottom)
        pen.line_to(x, y)
        pen.curve_to(x, y - k * d, cx - k * half, y - d, cx, y - d)
        pen.curve_to(cx + k * half, y - d, right, y - k * d, right, y)
        pen.line_to(right, bottom)
        pen.curve_to(right, bottom + k * d, cx + k * half, bottom + d, cx, bottom + d)
        pen.curve_to(cx - k * half, bottom + d, x, bottom + k * d, x, bottom)
    pen.close()


def cylinder_lid(pen: Pen, rect: Rect, end: End) -> None:
    """The ellipse of a cylinder's visible end, drawn lighter on its body: the upper one, or the right one."""
    lying = end in ("right", "left")
    across = rect.height if lying else rect.width
    d = cylinder_reach(across)
    if lying:
        ellipse(pen, rect.right, rect.center[1], d, across / 2)
    else:
        ellipse(pen, rect.center[0], rect.y, across / 2, d)


def ellipse(pen: Pen, x: float, y: float, rx: float, ry: float) -> None:
    """An ellipse about a centre with two half axes."""
    k = QUARTER
    pen.move_to(x, y - ry)
    pen.curve_to(x + k * rx, y - ry, x + rx, y - k * ry, x + rx, y)
    pen.curve_to(x + rx, y + k * ry, x + k * rx, y + ry, x, y + ry)
    pen.curve_to(x - k * rx, y + ry, x - rx, y + k * ry, x - rx, y)
    pen.curve_to(x - rx, y - k * ry, x - k * rx, y - ry, x, y - ry)
    pen.close()


def body(pen: Pen, rect: Rect, form: BodyForm, end: End, radius: float) -> None:
    """A bar of a form (all but tapered, whose corners depend on its neighbour)."""
    if form == "capsule":
        box(pen, rect, min(rect.width, rect.height) / 2)
    elif form == "cylinder":
        cylinder(pen, rect, end)
    elif form == "rounded":
        rounded_end(pen, rect, end, radius)
    else:
        box(pen, rect)
