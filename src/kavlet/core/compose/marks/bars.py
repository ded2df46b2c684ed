"""Places bars: one per row, beside others or stacked on them, in any of their bodies."""

import math

import msgspec

from kavlet.core.charts.bars import Bars
from kavlet.core.compose.figure import BarBox, Mark
from kavlet.core.compose.frames.plane import Plane
from kavlet.core.compose.marks.painting import painted
from kavlet.core.compose.marks.placing import Placing
from kavlet.core.compose.marks.stacks import Span
from kavlet.core.compose.words.labels import LabelSpot, bar_spots, ink, wanted
from kavlet.core.dress.colours import lighter
from kavlet.core.dress.fills import Fill
from kavlet.core.scene.paints import RadialGradient
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.body import End, body, cylinder_lid
from kavlet.core.shapes.box import box, quad
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect

BREAK = 5.0  # points; the width of the cut that shows that a bar goes on


def place(layer: Bars, series: int, on: Plane, to: Placing) -> None:
    """The marks of a layer of bars, and its labels. No value, no mark."""
    span = to.spans.get(layer.key)
    if span is None:
        return
    numbers = to.data.column(layer.values)
    scale = on.axis(layer.second)
    for row, number in enumerate(map(float, numbers)):
        start, end = float(span.starts[row]), float(span.ends[row])
        if math.isnan(number) or math.isnan(end):
            continue
        cut = scale.cap is not None and abs(end) > abs(scale.cap) and scale.cap * end > 0
        drawn_end = scale.inside(end)
        rect, side = bar_box(layer, on, row, scale.inside(start), drawn_end)
        if layer.helper or to.own(layer, row).hidden:
            to.marks.append(to.undrawn(layer, "bar", row, series, number, rect))
            continue
        true = float(to.data.column(layer.true)[row]) if layer.true else number
        broken = cut or (not math.isnan(true) and abs(true) > abs(number) * (1 + 1e-12))
        _place_one(layer, series, on, to, row, true if broken else number, rect, side, span, broken)


def _place_one(
    layer: Bars, series: int, on: Plane, to: Placing, row: int, value: float, rect: Rect, side: End, span: Span,
    broken: bool,
) -> None:  # fmt: skip
    style = to.style
    fill, tone = to.fill(layer, row)
    edge, edge_width = to.edge(layer, row)
    tapered = layer.form == "tapered"
    corners = outline(layer, on, span, row) if tapered else []
    if corners:
        path = recorded(quad, *corners)
        rect = path.bounds
    else:
        path = recorded(body, rect, layer.form, side, style.corner if layer.radius is None else layer.radius)
    colour = style.solid(fill, tone)
    if layer.form == "capsule":
        # A value shorter than the capsule is thick keeps the capsule's round base and ends where the value ends.
        path, clip = _capsule(rect, side)
    else:
        clip = None
    items = painted(fill, tone, path, rect, style, to.data, side, value, edge, edge_width)
    if clip is not None:
        items = tuple(msgspec.structs.replace(item, clip=clip) for item in items)
    if layer.bulb > 0:
        items = _with_bulb(layer, rect, side, fill, tone, to, items)
    if layer.cuts > 1:
        items = (*items, *_cuts(layer, on, rect, style.ground))
    if layer.form == "cylinder" and min(rect.width, rect.height) > 2:
        items = (*items, Shape(recorded(cylinder_lid, rect, side), lighter(colour, 0.09)))
    if broken:
        items = (*items, _break(rect, side, style.ground))
    behind = style.behind(fill, tone)
    to.marks.append(
        Mark(
            layer.name,
            layer.key,
            "bar",
            to.id(row),
            series,
            False,
            True,
            value,
            rect,
            path,
            colour,
            to.wording.says(layer, row),
            items,
            block=BarBox(rect, layer.form, side, tuple(corners), broken),
            dressed=fill,
            tone=tone,
            panel=to.panel,
            share=abs(float(span.ends[row]) - float(span.starts[row])) if layer.stack == "share" else None,
        )
    )
    text = to.wording.text(layer, row)
    if text and layer.label is not None and row % on.every == 0:
        room = _label_box(corners, on.lying, rect) if corners else rect
        base = on.along(on.axis(layer.second).inside(0.0), layer.second)
        inside, outside = ink(layer.label, style, behind), ink(layer.label, style, None)
        spots = bar_spots(layer.label, room, side, inside, outside, base)
        dense = on.pitch if on.lying else math.inf
        spots = [_dense(spot, dense) for spot in spots]
        strong = layer.label.bold is None and layer.label.position in ("auto", "middle", "inside end", "inside start")
        to.labels.append(
            wanted(layer, to.id(row), text, spots, style, to.sizes.text, rect.center, abs(value), bold=strong)
        )


def _capsule(rect: Rect, side: End) -> tuple[Path, Path | None]:
    lying = side in ("right", "left")
    long, across = (rect.width, rect.height) if lying else (rect.height, rect.width)
    if long >= across:
        return recorded(box, rect, across / 2), None
    x = rect.x if side == "right" else rect.right - across if side == "left" else rect.x
    y = rect.bottom - across if side == "up" else rect.y
    whole = Rect(x, y, across, across)
    return recorded(box, whole, across / 2), recorded(box, rect)


def bulb_size(layer: Bars, thickness: float) -> tuple[float, float]:
    """The radius of a bar's bulb, and how far below the base its centre lies, in points."""
    radius = layer.bulb * thickness / 2
    return radius, 0.8 * radius


def _with_bulb(
    layer: Bars, rect: Rect, side: End, fill: Fill | None, tone: int, to: Placing, items: tuple[Primitive, ...]
) -> tuple[Primitive, ...]:
    """The bar's own primitives, with a neck to a round bulb at the base that stands in front of it, always full."""
    lying = side in ("right", "left")
    thick = rect.height if lying else rect.width
    radius, sunk = bulb_size(layer, thick)
    x, y = rect.center
    center = (rect.x - sunk, y) if lying else (x, rect.bottom + sunk)
    reach = min(rect.width if lying else rect.height, thick / 2)
    neck = (
        Rect(center[0], rect.y, rect.x - center[0] + reach, thick)
        if lying
        else Rect(rect.x, rect.bottom - reach, thick, center[1] - rect.bottom + reach)
    )
    area = Rect(center[0] - radius, center[1] - radius, 2 * radius, 2 * radius)
    colour = to.style.solid(fill, tone)
    light = RadialGradient(
        center[0] - 0.3 * radius, center[1] - 0.3 * radius, 1.5 * radius,
        ((0.0, lighter(colour, 0.13)), (0.45, colour), (1.0, lighter(colour, -0.08))),
    )  # fmt: skip
    tube = painted(fill, tone, recorded(box, neck), neck, to.style, to.data, side)
    return (*items, *tube, Shape(recorded(disc, area.center, radius), light))


def _cuts(layer: Bars, on: Plane, rect: Rect, ground: Colour) -> list[Primitive]:
    """Thin gaps across the bar that part the scale into cells."""
    scale = on.axis(layer.second)
    made: list[Primitive] = []
    for i in range(1, layer.cuts):
        place = on.along(scale.minimum + i / layer.cuts * (scale.maximum - scale.minimum), layer.second)
        if on.lying and rect.x < place < rect.right:
            made.append(Shape(recorded(box, Rect(place - 1, rect.y - 1, 2, rect.height + 2)), ground))
        elif not on.lying and rect.y < place < rect.bottom:
            made.append(Shape(recorded(box, Rect(rect.x - 1, place - 1, rect.width + 2, 2)), ground))
    return made


def _dense(spot: LabelSpot, pitch: float) -> LabelSpot:
    """Lying bars that stand close hold their labels to the height of a row."""
    if spot.height <= pitch:
        return spot
    return msgspec.structs.replace(spot, height=pitch)


def bar_box(layer: Bars, on: Plane, row: int, start: float, end: float) -> tuple[Rect, End]:
    """The box of a bar from one figure to another, and the side its value grows to."""
    across, thickness = on.place(layer.key, row)
    narrow = thickness * max(0.02, min(1.0, layer.thickness))
    a, b = on.along(start, layer.second), on.along(end, layer.second)
    rect = on.box(across + (thickness - narrow) / 2, narrow, a, b)
    if on.lying:
        return rect, "right" if b > a or (b == a and end >= start) else "left"
    return rect, "up" if b < a or (b == a and end >= start) else "down"


def outline(layer: Bars, on: Plane, span: Span, row: int) -> list[Point]:
    """The four corners of a tapered bar: start and end of its leading edge, then end and start of its trailing edge.

    A tapered bar's flanks point at the next row's leading edge, so that the gap seems cut out of one body::

        a---------------b        leading edge of the row
         \\             /
          d-----------c          trailing edge
           . . . . . .           gap
            a'-----b'            leading edge of the next row
    """
    lead, thickness = on.place(layer.key, row)
    trail = lead + thickness
    start, end = float(span.starts[row]), float(span.ends[row])
    far_start, far_end = start, end
    if row + 1 < len(span.starts) and not math.isnan(span.ends[row + 1]):
        share = on.thickness / on.pitch
        far_start += (float(span.starts[row + 1]) - start) * share
        far_end += (float(span.ends[row + 1]) - end) * share
    return [
        on.point(lead, on.along(start)),
        on.point(lead, on.along(end)),
        on.point(trail, on.along(far_end)),
        on.point(trail, on.along(far_start)),
    ]


def _label_box(corners: list[Point], lying: bool, rect: Rect) -> Rect:
    """The box inside a tapered bar that a label may use, taken near its narrow end."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = corners
    if lying:
        lead, trail = abs(bx - ax), abs(cx - dx)
        width = min(lead, lead + 0.72 * (trail - lead))
        return Rect(rect.center[0] - width / 2, rect.y, width, rect.height)
    lead, trail = abs(by - ay), abs(cy - dy)
    height = min(lead, lead + 0.5 * (trail - lead))
    return Rect(rect.x, rect.center[1] - height / 2, rect.width, height)


def _break(rect: Rect, end: End, ground: Colour) -> Primitive:
    """A slanting cut across a bar near its end, in the colour of what is behind: the bar goes on."""
    return Shape(break_path(rect, end), ground)


def break_path(rect: Rect, end: End) -> Path:
    """The cut's outline, a little longer than the bar is thick."""
    lying = end in ("right", "left")
    long, across = (rect.width, rect.height) if lying else (rect.height, rect.width)
    at = max(long * 0.5, long - max(14.0, 0.14 * long))
    slant = min(0.35 * across, 8.0)
    cut = min(BREAK, long / 4)
    if lying:
        x = rect.x + at if end == "right" else rect.right - at
        top, bottom = rect.y - 1, rect.bottom + 1
        return recorded(quad, (x + slant, top), (x + slant + cut, top), (x + cut, bottom), (x, bottom))
    y = rect.bottom - at if end == "up" else rect.y + at
    left, right = rect.x - 1, rect.right + 1
    return recorded(quad, (left, y), (right, y - slant), (right, y - slant - cut), (left, y - cut))


def track(layer: Bars, on: Plane, to: Placing) -> list[Primitive]:
    """The light full bar behind each bar of a layer that wants one."""
    made: list[Primitive] = []
    for row in range(to.data.rows):
        scale = on.axis(layer.second)
        rect, side = bar_box(layer, on, row, scale.minimum, scale.maximum)
        radius = to.style.corner if layer.radius is None else layer.radius
        form = "square" if layer.form == "tapered" else layer.form
        path = recorded(body, rect, form, side, radius) if form != "square" else recorded(box, rect)
        made.append(Shape(path, to.style.named["track"]))
    return made
