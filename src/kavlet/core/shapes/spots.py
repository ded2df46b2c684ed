"""Small shapes that mark a point, of equal visual weight; `size` is the diameter of the disc in points."""

import math
from typing import Literal

from kavlet.core.scene.pens import Pen
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.box import quad

SpotForm = Literal["none", "disc", "square", "diamond", "triangle", "cross", "tick", "bar"]


def arrow(pen: Pen, tip: tuple[float, float], way: tuple[float, float], long: float) -> None:
    """A triangle whose tip points a way, given as a vector of length 1; `long` points from its base to its tip."""
    (x, y), (dx, dy) = tip, way
    bx, by, half = x - dx * long, y - dy * long, 0.55 * long
    pen.move_to(x, y)
    pen.line_to(bx - dy * half, by + dx * half)
    pen.line_to(bx + dy * half, by - dx * half)
    pen.close()


def spot(pen: Pen, x: float, y: float, size: float, form: SpotForm, lying: bool = False) -> None:
    """Draw one. A tick is a stroke across the value axis; a bar a broader one."""
    r = size / 2
    if form == "disc":
        disc(pen, (x, y), r)
    elif form == "square":
        a = r * math.sqrt(math.pi) / 2
        quad(pen, (x - a, y - a), (x + a, y - a), (x + a, y + a), (x - a, y + a))
    elif form == "diamond":
        a = r * math.sqrt(math.pi / 2)
        quad(pen, (x, y - a), (x + a, y), (x, y + a), (x - a, y))
    elif form == "triangle":
        side = 2 * r * math.sqrt(math.pi / math.sqrt(3))
        height = side * math.sqrt(3) / 2
        quad(pen, (x, y - height * 2 / 3), (x + side / 2, y + height / 3), (x - side / 2, y + height / 3))
    elif form == "cross":
        a, w = r * 0.95, r * 0.3
        for sign in (1, -1):
            quad(
                pen,
                *(
                    (x + (u - sign * v) * math.sqrt(0.5), y + (sign * u + v) * math.sqrt(0.5))
                    for u, v in ((-a, -w), (a, -w), (a, w), (-a, w))
                ),
            )
    elif form in ("tick", "bar"):
        w = min(7.0, max(1.0, size * (0.09 if form == "tick" else 0.2)))
        long, short = (w / 2, r) if lying else (r, w / 2)
        quad(pen, (x - long, y - short), (x + long, y - short), (x + long, y + short), (x - long, y + short))
