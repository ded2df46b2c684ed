"""From a stroke drawn by hand to a closed outline of few cubic curves.

Least squares with corners kept, after Schneider, "An Algorithm for Automatically Fitting Digitized Curves" (Graphics
Gems, 1990): points are parametrised by the length of their chords, the two inner control points are found by least
squares along the tangents at the ends, parameters are improved by Newton's method, and a run that still misses is
parted at its worst point.
"""

import math
from collections.abc import Sequence
from itertools import pairwise

from msgspec import Struct

from kavlet.core.scene.pens import SvgPen
from kavlet.core.values.geometry import Point

CORNER = 50.0  # degrees a stroke must turn within a few points to be a corner
REACH = 3  # points to each side by which a turn is measured
ROUNDS = 4  # of Newton's method
SPACING = 2.0  # units between points of a stroke that count


class Curve(Struct, frozen=True):
    """A cubic Bézier curve by its four points."""

    start: Point
    one: Point
    two: Point
    end: Point

    def at(self, t: float) -> Point:
        """The point at a parameter from 0 to 1."""
        s = 1 - t
        a, b, c, d = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
        return (
            a * self.start[0] + b * self.one[0] + c * self.two[0] + d * self.end[0],
            a * self.start[1] + b * self.one[1] + c * self.two[1] + d * self.end[1],
        )


Outline = tuple[Curve, ...]


def outline(points: Sequence[Point], tolerance: float) -> Outline:
    """The closed outline of a stroke, nowhere much farther from its points than the tolerance, in the same unit.

    Nothing for a stroke that encloses nothing: fewer than three points apart from each other.
    """
    kept = _spaced(points)
    if len(kept) < 3:
        return ()
    corners = _corners(kept)
    first = corners[0] if corners else 0
    ring = [*kept[first:], *kept[:first], kept[first]]
    splits = sorted({0, len(ring) - 1, *((corner - first) % len(kept) for corner in corners)})
    if len(splits) == 2 and not corners:  # a smooth ring is parted where its tangent is known on both sides
        splits = [0, len(ring) // 2, len(ring) - 1]
    found: list[Curve] = []
    for a, b in pairwise(splits):
        run = ring[a : b + 1]
        start = _tangent(run, forward=True) if corners else _through(ring, a)
        end = _tangent(run, forward=False) if corners else _opposite(_through(ring, b))
        found += _fitted(run, start, end, tolerance)
    return tuple(found)


def mirrored(drawn: Outline, axis: float) -> Outline:
    """The same outline, reflected at a vertical line; it runs the same way round."""

    def flip(point: Point) -> Point:
        return 2 * axis - point[0], point[1]

    return tuple(
        Curve(flip(curve.end), flip(curve.two), flip(curve.one), flip(curve.start)) for curve in reversed(drawn)
    )


def moved(curves: Outline, number: int, to: Point) -> Outline:
    """The outline with the point where a curve starts put elsewhere; the curves at both sides follow with handles."""
    dx, dy = to[0] - curves[number].start[0], to[1] - curves[number].start[1]

    def along(point: Point) -> Point:
        return point[0] + dx, point[1] + dy

    before = (number - 1) % len(curves)
    new_curves = list(curves)
    if before == number:
        curve = new_curves[number]
        new_curves[number] = Curve(to, along(curve.one), along(curve.two), to)
        return tuple(new_curves)
    new_curves[number] = Curve(to, along(new_curves[number].one), new_curves[number].two, new_curves[number].end)
    new_curves[before] = Curve(new_curves[before].start, new_curves[before].one, along(new_curves[before].two), to)
    return tuple(new_curves)


def without(drawn: Outline, number: int) -> Outline:
    """The outline without the point where a curve starts; one of two curves stays as it is."""
    if len(drawn) < 3:
        return drawn
    before = (number - 1) % len(drawn)
    joined = Curve(drawn[before].start, drawn[before].one, drawn[number].two, drawn[number].end)
    return tuple(joined if i == before else curve for i, curve in enumerate(drawn) if i != number)


def path_data(outlines: Sequence[Outline]) -> str:
    """Outlines as SVG path data; one inside another is a hole where it runs the other way round."""
    pen = SvgPen(2)
    for drawn in outlines:
        if not drawn:
            continue
        pen.move_to(*drawn[0].start)
        for curve in drawn:
            pen.curve_to(*curve.one, *curve.two, *curve.end)
        pen.close()
    return pen.text


def turning(outlines: Sequence[Outline]) -> list[Outline]:
    """Outlines with those that lie inside an odd number of others turned, so that they are holes."""
    made: list[Outline] = []
    for i, curves in enumerate(outlines):
        depth = sum(_holds(other, curves[0].start) for j, other in enumerate(outlines) if j != i and curves)
        is_odd = depth % 2 == 1
        made.append(curves if (_area(curves) < 0) == is_odd else _reversed(curves))
    return made


def _reversed(drawn: Outline) -> Outline:
    return tuple(Curve(curve.end, curve.two, curve.one, curve.start) for curve in reversed(drawn))


def _polygon(drawn: Outline) -> list[Point]:
    return [curve.at(i / 8) for curve in drawn for i in range(8)]


def _area(drawn: Outline) -> float:
    points = _polygon(drawn)
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, [*points[1:], *points[:1]], strict=True)) / 2


def _holds(drawn: Outline, point: Point) -> bool:
    odd, (x, y) = False, point
    points = _polygon(drawn)
    for (ax, ay), (bx, by) in zip(points, [*points[1:], *points[:1]], strict=True):
        if (ay > y) != (by > y) and x < ax + (y - ay) * (bx - ax) / (by - ay):
            odd = not odd
    return odd


def _spaced(points: Sequence[Point]) -> list[Point]:
    kept: list[Point] = []
    for point in points:
        if not kept or math.dist(point, kept[-1]) >= SPACING:
            kept.append(point)
    while len(kept) > 1 and math.dist(kept[0], kept[-1]) < SPACING:
        kept.pop()
    return kept


def _corners(points: list[Point]) -> list[int]:
    """Where a closed stroke turns sharply: of neighbours, the sharpest."""
    count = len(points)
    turns = [_turn(points[i - REACH], points[i], points[(i + REACH) % count]) for i in range(count)]
    return [
        i
        for i, turn in enumerate(turns)
        if turn > CORNER and turn == max(turns[(i + k) % count] for k in range(-REACH, REACH + 1))
    ]


def _turn(before: Point, at: Point, after: Point) -> float:
    """How sharply a way turns at a point, in degrees: 0 is straight on."""
    one = math.atan2(at[1] - before[1], at[0] - before[0])
    other = math.atan2(after[1] - at[1], after[0] - at[0])
    return abs(math.degrees(math.remainder(other - one, math.tau)))


def _unit(x: float, y: float) -> Point:
    length = math.hypot(x, y) or 1.0
    return x / length, y / length


def _opposite(way: Point) -> Point:
    return -way[0], -way[1]


def _tangent(run: list[Point], forward: bool) -> Point:
    """The direction into a run from one of its ends."""
    at = min(2, len(run) - 1)
    a, b = (run[0], run[at]) if forward else (run[-1], run[-1 - at])
    return _unit(b[0] - a[0], b[1] - a[1])


def _through(ring: list[Point], place: int) -> Point:
    """The direction of a smooth ring at a point; its last point is its first."""
    count = len(ring) - 1
    a, b = ring[(place - 2) % count], ring[(place + 2) % count]
    return _unit(b[0] - a[0], b[1] - a[1])


def _fitted(run: list[Point], start: Point, end: Point, tolerance: float) -> list[Curve]:
    """Curves through a run of points; `start` and `end` are the directions into it."""
    if len(run) < 3:
        third = math.dist(run[0], run[-1]) / 3
        return [Curve(run[0], _on(run[0], start, third), _on(run[-1], end, third), run[-1])]
    at = _by_chords(run)
    for _ in range(ROUNDS):
        curve = _least_squares(run, at, start, end)
        worst, far = _worst(run, at, curve)
        if far <= tolerance:
            return [curve]
        at = [_nearer(curve, point, t) for point, t in zip(run, at, strict=True)]
    middle = _unit(run[worst - 1][0] - run[worst + 1][0], run[worst - 1][1] - run[worst + 1][1])
    return [
        *_fitted(run[: worst + 1], start, middle, tolerance),
        *_fitted(run[worst:], _opposite(middle), end, tolerance),
    ]


def _on(point: Point, way: Point, far: float) -> Point:
    return point[0] + way[0] * far, point[1] + way[1] * far


def _by_chords(run: list[Point]) -> list[float]:
    lengths = [0.0]
    for a, b in pairwise(run):
        lengths.append(lengths[-1] + math.dist(a, b))
    return [length / (lengths[-1] or 1.0) for length in lengths]


def _least_squares(run: list[Point], at: list[float], start: Point, end: Point) -> Curve:
    """The curve along the tangents that lies nearest to the points at their parameters."""
    c00 = c01 = c11 = x0 = x1 = 0.0
    first, last = run[0], run[-1]
    for point, t in zip(run, at, strict=True):
        s = 1 - t
        b0, b1, b2, b3 = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
        a0, a1 = (start[0] * b1, start[1] * b1), (end[0] * b2, end[1] * b2)
        c00 += a0[0] * a0[0] + a0[1] * a0[1]
        c01 += a0[0] * a1[0] + a0[1] * a1[1]
        c11 += a1[0] * a1[0] + a1[1] * a1[1]
        rest = (
            point[0] - first[0] * (b0 + b1) - last[0] * (b2 + b3),
            point[1] - first[1] * (b0 + b1) - last[1] * (b2 + b3),
        )
        x0 += a0[0] * rest[0] + a0[1] * rest[1]
        x1 += a1[0] * rest[0] + a1[1] * rest[1]
    determinant = c00 * c11 - c01 * c01
    span = math.dist(first, last)
    if abs(determinant) > 1e-12:
        left, right = (x0 * c11 - x1 * c01) / determinant, (c00 * x1 - c01 * x0) / determinant
    else:
        left = right = 0.0
    if left < 1e-6 * span or right < 1e-6 * span:  # tangents that hardly meet the points: a third of the way
        left = right = span / 3
    return Curve(first, _on(first, start, left), _on(last, end, right), last)


def _worst(run: list[Point], at: list[float], curve: Curve) -> tuple[int, float]:
    far = [math.dist(point, curve.at(t)) for point, t in zip(run, at, strict=True)]
    place = max(range(1, len(run) - 1), key=lambda i: far[i])
    return place, far[place]


def _nearer(curve: Curve, point: Point, t: float) -> float:
    """A parameter at which the curve is nearer to a point, by one step of Newton's method."""
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = curve.start, curve.one, curve.two, curve.end
    s = 1 - t
    x, y = curve.at(t)
    dx = 3 * (s * s * (x1 - x0) + 2 * s * t * (x2 - x1) + t * t * (x3 - x2))
    dy = 3 * (s * s * (y1 - y0) + 2 * s * t * (y2 - y1) + t * t * (y3 - y2))
    ddx = 6 * (s * (x2 - 2 * x1 + x0) + t * (x3 - 2 * x2 + x1))
    ddy = 6 * (s * (y2 - 2 * y1 + y0) + t * (y3 - 2 * y2 + y1))
    slope = dx * dx + dy * dy + (x - point[0]) * ddx + (y - point[1]) * ddy
    if abs(slope) < 1e-12:
        return t
    return min(1.0, max(0.0, t - ((x - point[0]) * dx + (y - point[1]) * dy) / slope))
