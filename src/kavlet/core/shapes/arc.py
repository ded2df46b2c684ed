"""Arcs, wedges and rings. Angles are degrees clockwise from 12 o'clock; y points down."""

import math

from msgspec import Struct

from kavlet.core.scene.pens import Pen
from kavlet.core.values.geometry import Point

FULL = 360.0


class Sector(Struct, frozen=True):
    """A sector of a ring: degrees clockwise from 12 o'clock, radii in points; of a disc where the inner one is 0."""

    center: Point
    inner: float
    outer: float
    start: float
    end: float


def at(center: Point, radius: float, angle: float) -> Point:
    """The point of a circle at an angle."""
    turn = math.radians(angle)
    return center[0] + radius * math.sin(turn), center[1] - radius * math.cos(turn)


def arc_to(pen: Pen, center: Point, radius: float, start: float, end: float) -> None:
    """Go along a circle from `start` to `end` (either way round), from a pen that stands at the start.

    Each piece of at most 90° is one cubic Bézier with control points at 4/3·tan(sweep/4) radii along the tangents
    (Riskus 2006); the radius is off by less than 0.03 %.
    """
    sweep = end - start
    pieces = max(1, math.ceil(abs(sweep) / 90 - 1e-9))
    step = math.radians(sweep / pieces)
    reach = 4 / 3 * math.tan(step / 4) * radius
    for i in range(pieces):
        one, two = math.radians(start) + i * step, math.radians(start) + (i + 1) * step
        x1, y1 = center[0] + radius * math.sin(one), center[1] - radius * math.cos(one)
        x2, y2 = center[0] + radius * math.sin(two), center[1] - radius * math.cos(two)
        pen.curve_to(
            x1 + reach * math.cos(one), y1 + reach * math.sin(one),
            x2 - reach * math.cos(two), y2 - reach * math.sin(two),
            x2, y2,
        )  # fmt: skip


def disc(pen: Pen, center: Point, radius: float) -> None:
    """A full circle."""
    pen.move_to(*at(center, radius, 0))
    arc_to(pen, center, radius, 0, FULL)
    pen.close()


def wedge(pen: Pen, sector: Sector, gap: float = 0.0, corner: float = 0.0) -> None:
    """A sector of a disc or ring.

    `gap` points are left free between neighbours, half of it at each side, so that the free strip has parallel sides
    as far in as there is room. `corner` rounds all corners by a radius in points, as far as the sector allows. A full
    turn becomes a disc or a ring; an empty sweep nothing.
    """
    center, inner, outer, start, end = sector.center, sector.inner, sector.outer, sector.start, sector.end
    sweep = end - start
    if sweep <= 0 or outer <= 0 or outer <= inner:
        return
    if sweep >= FULL - 1e-9:
        disc(pen, center, outer)
        if inner > 0:
            pen.move_to(*at(center, inner, 0))
            arc_to(pen, center, inner, 0, -FULL)
            pen.close()
        return
    pad_outer = math.degrees(math.asin(min(1.0, gap / 2 / outer))) if gap else 0.0
    pad_inner = math.degrees(math.asin(min(1.0, gap / 2 / inner))) if gap and inner > 0 else pad_outer
    middle = (start + end) / 2
    o1, o2 = min(middle, start + pad_outer), max(middle, end - pad_outer)
    i1, i2 = min(middle, start + pad_inner), max(middle, end - pad_inner)
    if inner <= 0:
        # Without a hole the two sides meet on the bisector, where strips of half a gap cross.
        depth = gap / 2 / math.sin(math.radians(sweep / 2)) if gap and sweep < 180 else gap / 2
        tip = at(center, min(depth, outer), middle) if gap else center
        _with_tip(pen, Sector(center, 0.0, outer, o1, o2), tip, corner)
        return
    most = min((outer - inner) / 2, math.radians(max(0.0, o2 - o1)) * outer / 2.2)
    r = max(0.0, min(corner, most))
    if r < 0.05:
        pen.move_to(*at(center, outer, o1))
        arc_to(pen, center, outer, o1, o2)
        pen.line_to(*at(center, inner, i2))
        arc_to(pen, center, inner, i2, i1)
        pen.close()
        return
    _rounded(pen, center, (inner, outer), (i1, i2), (o1, o2), r)


def _with_tip(pen: Pen, sector: Sector, tip: Point, corner: float) -> None:
    center, outer, start, end = sector.center, sector.outer, sector.start, sector.end
    r = max(0.0, min(corner, outer / 3, math.radians(max(0.0, end - start)) * outer / 2.2))
    if r < 0.05:
        pen.move_to(*tip)
        pen.line_to(*at(center, outer, start))
        arc_to(pen, center, outer, start, end)
        pen.close()
        return
    turn = math.degrees(math.asin(min(1.0, r / (outer - r))))
    along = math.sqrt(max(0.0, (outer - r) ** 2 - r * r))
    pen.move_to(*tip)
    pen.line_to(*at(center, along, start))
    _corner(pen, at(center, along, start), at(center, outer, start), at(center, outer, start + turn))
    arc_to(pen, center, outer, start + turn, end - turn)
    _corner(pen, at(center, outer, end - turn), at(center, outer, end), at(center, along, end))
    pen.close()


def _rounded(
    pen: Pen, center: Point, radii: tuple[float, float], inside: tuple[float, float], outside: tuple[float, float],
    r: float,
) -> None:  # fmt: skip
    """A ring sector whose four corners are rounded; at half the ring's width the ends are round."""
    inner, outer = radii
    (i1, i2), (o1, o2) = inside, outside
    turn_out = math.degrees(math.asin(min(1.0, r / (outer - r))))
    turn_in = min(math.degrees(math.asin(min(1.0, r / (inner + r)))), (i2 - i1) / 2)
    along_out = math.sqrt(max(0.0, (outer - r) ** 2 - r * r))
    along_in = math.sqrt(max(0.0, (inner + r) ** 2 - r * r))
    along_out, along_in = max(along_out, (inner + outer) / 2), min(along_in, (inner + outer) / 2)
    pen.move_to(*at(center, outer, o1 + turn_out))
    arc_to(pen, center, outer, o1 + turn_out, o2 - turn_out)
    _corner(pen, at(center, outer, o2 - turn_out), at(center, outer, o2), at(center, along_out, o2))
    pen.line_to(*at(center, along_in, i2))
    _corner(pen, at(center, along_in, i2), at(center, inner, i2), at(center, inner, i2 - turn_in))
    arc_to(pen, center, inner, i2 - turn_in, i1 + turn_in)
    _corner(pen, at(center, inner, i1 + turn_in), at(center, inner, i1), at(center, along_in, i1))
    pen.line_to(*at(center, along_out, o1))
    _corner(pen, at(center, along_out, o1), at(center, outer, o1), at(center, outer, o1 + turn_out))
    pen.close()


def _corner(pen: Pen, start: Point, corner: Point, end: Point, reach: float = 0.5522847498307936) -> None:
    """A rounded corner: a quarter-circle-like curve from start to end that stays inside the corner."""
    pen.curve_to(
        start[0] + (corner[0] - start[0]) * reach, start[1] + (corner[1] - start[1]) * reach,
        end[0] + (corner[0] - end[0]) * reach, end[1] + (corner[1] - end[1]) * reach,
        *end,
    )  # fmt: skip
