"""Lines through points: straight, stepped, and smooth without overshoot. Points go left to right or top to bottom."""

import itertools
import math
from typing import Literal

from kavlet.core.scene.pens import Pen
from kavlet.core.values.geometry import Point

Course = Literal["straight", "stepped", "smooth"]


def course(pen: Pen, points: list[Point], how: Course, lying: bool = False, begin: bool = True) -> None:
    """Draw a line through the points; `lying` means that it advances along y. One point gives no more than a place."""
    if not points:
        return
    (pen.move_to if begin else pen.line_to)(*points[0])
    if how == "stepped":
        _stepped(pen, points, lying)
    elif how == "smooth" and len(points) > 2:
        _smooth(pen, points, lying)
    else:
        for point in points[1:]:
            pen.line_to(*point)


def _stepped(pen: Pen, points: list[Point], lying: bool) -> None:
    """Steps in the middle between neighbours."""
    for (x1, y1), (x2, y2) in itertools.pairwise(points):
        if lying:
            pen.line_to(x1, (y1 + y2) / 2)
            pen.line_to(x2, (y1 + y2) / 2)
        else:
            pen.line_to((x1 + x2) / 2, y1)
            pen.line_to((x1 + x2) / 2, y2)
        pen.line_to(x2, y2)


def _smooth(pen: Pen, points: list[Point], lying: bool) -> None:
    """A cubic Hermite spline that is monotone between neighbours (Fritsch and Carlson 1980), so it never overshoots.

    Slopes at inner points are the weighted harmonic means of the neighbouring secants (Fritsch and Butland 1984).
    """
    along = [p[1] if lying else p[0] for p in points]
    values = [p[0] if lying else p[1] for p in points]
    steps = [b - a for a, b in itertools.pairwise(along)]
    secants = [
        (b - a) / step if step else 0.0 for a, b, step in zip(values, values[1:], steps, strict=False)
    ]  # fmt: skip
    slopes = [_slope(secants, steps, i) for i in range(len(points))]
    for i, step in enumerate(steps):
        a = (along[i] + step / 3, values[i] + slopes[i] * step / 3)
        b = (along[i + 1] - step / 3, values[i + 1] - slopes[i + 1] * step / 3)
        end = (along[i + 1], values[i + 1])
        parts = [(v, u) for u, v in (a, b, end)] if lying else [a, b, end]
        pen.curve_to(*parts[0], *parts[1], *parts[2])


def _slope(secants: list[float], steps: list[float], i: int) -> float:
    if i in (0, len(secants)):
        one = secants[0] if i == 0 else secants[-1]
        other = secants[1] if i == 0 else secants[-2]
        h0, h1 = (steps[0], steps[1]) if i == 0 else (steps[-1], steps[-2])
        guess = ((2 * h0 + h1) * one - h0 * other) / (h0 + h1) if h0 + h1 else one
        if guess * one <= 0:
            return 0.0
        return math.copysign(min(abs(guess), 3 * abs(one)), one)
    before, after = secants[i - 1], secants[i]
    if before * after <= 0:
        return 0.0
    w1, w2 = 2 * steps[i] + steps[i - 1], steps[i] + 2 * steps[i - 1]
    return (w1 + w2) / (w1 / before + w2 / after)
