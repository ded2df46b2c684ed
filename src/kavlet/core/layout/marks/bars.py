"""Places bars: one per row, beside others or stacked on them, in any of their bodies."""

import math

import msgspec
from msgspec import Struct

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.fields import Field, choices
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Stack
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import BarBox, MarkKind
from kavlet.core.layout.kind import Kind
from kavlet.core.layout.marks.off_scale import Edge, say_value
from kavlet.core.layout.marks.shared_kinds import STACKED
from kavlet.core.layout.painting import painted
from kavlet.core.layout.placing import MarkDrawing, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.stacks import Span
from kavlet.core.layout.words.label_spots import AIR, LabelSpot, bar_spots
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.paints import RadialGradient
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.body import BodyForm, End, body, cylinder_lid, cylinder_reach
from kavlet.core.shapes.box import box, quad
from kavlet.core.styling.colours import lighter
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect

INSIDE = Label(position="middle")  # where the value of a bar stands that its axis cuts
OUTSIDE = ("outside", "by sign", "above", "below")  # where labels stand beyond the bar
BREAK = 5.0  # points; the width of the cut that shows that a bar goes on


def place(layer: Bars, on: Plane, placing: Placing) -> None:
    """The marks of a layer of bars, and its labels. No value, no mark."""
    span = placing.spans.get(layer.key)
    if span is None:
        return
    track = _tracks(layer, on, placing) if layer.track and not layer.helper else ()
    for row, number in enumerate(map(float, placing.data.column(layer.values))):
        bar = _bar(layer, on, placing, span, row)
        if bar is None:
            continue
        if not placing.is_drawn(layer, row):
            placing.mark(layer, row, number, bar.block.rect)
            continue
        _draw(layer, bar, on, placing, track)
        track = ()


class _Bar(Struct, frozen=True):
    """A bar before it is drawn: its row, the figure it stands for, its share where it stacks to one, and its box."""

    row: int
    value: float
    share: float | None
    block: BarBox
    beyond: int = 0


def _bar(layer: Bars, on: Plane, placing: Placing, span: Span, row: int) -> _Bar | None:
    """The bar of a row; None for no value."""
    number, start, end = float(placing.data.column(layer.values)[row]), float(span.starts[row]), float(span.ends[row])
    if math.isnan(number) or math.isnan(end):
        return None
    scale = on.axis(layer.second)
    cut = scale.cap is not None and abs(end) > abs(scale.cap) and scale.cap * end > 0
    rect, side = bar_box(layer, on, row, scale.inside(start), scale.inside(end))
    true = float(placing.data.column(layer.true)[row]) if layer.true else number
    beyond = scale.beyond(end)
    broken = (
        cut
        or bool(beyond and rect.width and rect.height)
        or (not math.isnan(true) and abs(true) > abs(number) * (1 + 1e-12))
    )
    corners = tuple(outline(layer, on, span, row)) if layer.form == "tapered" else ()
    thick = rect.height if on.lying else rect.width
    block = BarBox(
        rect if not corners else recorded(quad, *corners).bounds, layer.form, side, corners, broken,
        _cuts(layer, on), bulb_size(layer, thick) if layer.bulb > 0 else None,
        bar_box(layer, on, row, scale.minimum, scale.maximum) if layer.track else None,
    )  # fmt: skip
    share = abs(end - start) if layer.stack == "share" else None
    return _Bar(row, true if broken else number, share, block, beyond)


def _outside(bar: _Bar, on: Plane, second: bool) -> Edge | None:
    """The arrow for a bar of which its axis shows nothing."""
    rect, scale = bar.block.rect, on.axis(second)
    x, y = rect.center
    ahead = 1.0 if (bar.beyond > 0) != scale.reversed else -1.0
    return Edge((x, y), (ahead, 0.0) if on.lying else (0.0, -ahead))


def _draw(layer: Bars, bar: _Bar, on: Plane, placing: Placing, track: tuple[Primitive, ...]) -> None:
    style, block = placing.style, bar.block
    rect, side = block.rect, block.end
    filling = placing.filling(layer, bar.row, bar.value)
    if block.corners:
        path = recorded(quad, *block.corners)
    else:
        path = recorded(body, rect, layer.form, side, style.corner if layer.radius is None else layer.radius)
    colour, clip = style.solid(filling.fill, filling.tone), None
    tube = rect
    if block.bulb is not None:
        tube = _to_bulb(rect, side)  # its foot is hidden by the bulb, so that all above it is as wide as the tube
        path = recorded(body, tube, layer.form, side, style.corner if layer.radius is None else layer.radius)
    elif layer.form == "capsule":
        # A value shorter than the capsule is thick keeps the capsule's round base and ends where the value ends.
        path, clip = _capsule(rect, side)
    items = painted(filling, path, tube, side, placing.context)
    if clip is not None:
        items = tuple(msgspec.structs.replace(item, clip=clip) for item in items)
    if block.bulb is not None:
        items = (*items, *_bulb(rect, side, block.bulb, colour))
    items = (*items, *_gaps(block, on.lying, style.ground))
    if layer.form == "cylinder" and min(rect.width, rect.height) > 2:
        items = (*items, Shape(recorded(cylinder_lid, rect, side), lighter(colour, 0.09)))
    out = _outside(bar, on, layer.second) if bar.beyond and not block.broken else None
    if block.broken:
        items = (*items, _break(rect, side, style.ground))
    elif out is not None:
        items = (Shape(out.path, colour),)
    drawing = MarkDrawing(
        path=path, fill=colour, items=items, block=block, dressed=filling.fill, tone=filling.tone, track=track,
        share=bar.share, beyond=bool(bar.beyond),
    )  # fmt: skip
    placing.mark(layer, bar.row, bar.value, rect, drawing)
    if out is not None:
        if layer.stack == "none" or placing.wording.text(layer, bar.row):
            say_value(layer, bar.row, out, placing)
    else:
        _label(layer, bar, on, placing, style.behind(filling.fill, filling.tone))


def _label(layer: Bars, bar: _Bar, on: Plane, placing: Placing, behind: Colour) -> None:
    text, block = placing.wording.text(layer, bar.row), bar.block
    if bar.beyond and layer.stack == "none":
        text = placing.wording.beyond(layer, bar.row)
    label = layer.label or INSIDE
    if not text or bar.row % on.every:
        return
    room = _label_box(block.corners, on.lying, block.rect) if block.corners else block.rect
    base = on.along(on.axis(layer.second).inside(0.0), layer.second)
    inks = ink(label, placing.style, behind), ink(label, placing.style, None)
    dense = on.pitch if on.lying else math.inf
    if block.bulb is not None:
        room = _above_bulb(block.rect, block.end, block.bulb)
    if block.broken and not block.corners:
        room = before_break(room, block.end)
        inks = inks[0], inks[0]  # before the break it lies on the bar, wherever it stands
    spots = [_dense(spot, dense) for spot in bar_spots(label, room, block.end, inks, base)]
    if block.bulb is not None:
        spots.insert(1, _beside(block.rect, block.end, block.bulb, inks[1]))
    strong = label.bold is None and label.position in ("auto", "middle", "inside end", "inside start")
    label_style = LabelStyle(placing.sizes.text, block.rect.center, abs(bar.value), strong)
    placing.label(layer, placing.id(bar.row), text, spots, label_style)


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


def _to_bulb(rect: Rect, end: End) -> Rect:
    """A bar lengthened at its base by its own thickness, so that it ends inside its bulb."""
    lying = end in ("right", "left")
    return rect.inset(left=-rect.height) if lying else rect.inset(bottom=-rect.width)


def _above_bulb(rect: Rect, end: End, bulb: tuple[float, float]) -> Rect:
    """What is seen of a bar whose base a bulb hides."""
    hidden = bulb[0] - bulb[1]
    if end in ("right", "left"):
        return rect.inset(left=min(hidden, rect.width))
    return rect.inset(bottom=min(hidden, rect.height))


def _beside(rect: Rect, end: End, bulb: tuple[float, float], colour: Colour) -> LabelSpot:
    """The place for a label beside a bar, at its end, clear of its bulb."""
    hidden = bulb[0] - bulb[1]
    if end in ("right", "left"):
        return LabelSpot(max(rect.right, rect.x + hidden), rect.y, "middle", "bottom", colour, sx=0.5, sy=-AIR)
    return LabelSpot(rect.x, min(rect.y, rect.bottom - hidden), "end", "middle", colour, sx=-AIR, sy=-0.5)


def _bulb(rect: Rect, end: End, bulb: tuple[float, float], colour: Colour) -> tuple[Primitive, ...]:
    """A round bulb at the base that stands in front of it, always full."""
    radius, sunk = bulb
    x, y = rect.center
    center = (rect.x - sunk, y) if end in ("right", "left") else (x, rect.bottom + sunk)
    light = RadialGradient(
        center[0] - 0.3 * radius, center[1] - 0.3 * radius, 1.5 * radius,
        ((0.0, lighter(colour, 0.13)), (0.45, colour), (1.0, lighter(colour, -0.08))),
    )  # fmt: skip
    return (Shape(recorded(disc, center, radius), light),)


def _cuts(layer: Bars, on: Plane) -> tuple[float, ...]:
    """Where along its axis a bar is cut, so that the scale is parted into cells."""
    scale = on.axis(layer.second)
    shares = [i / layer.cuts for i in range(1, layer.cuts)]
    return tuple(on.along(scale.minimum + at * (scale.maximum - scale.minimum), layer.second) for at in shares)


def _gaps(block: BarBox, lying: bool, ground: Colour) -> list[Primitive]:
    """Thin gaps across the bar where it is cut."""
    rect = block.rect
    made: list[Primitive] = []
    for place in block.cuts:
        if lying and rect.x < place < rect.right:
            made.append(Shape(recorded(box, Rect(place - 1, rect.y - 1, 2, rect.height + 2)), ground))
        elif not lying and rect.y < place < rect.bottom:
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
    inside = on.axis(layer.second).inside  # a scale may end before a figure, and a logarithmic one has no zero
    start, end = inside(float(span.starts[row])), inside(float(span.ends[row]))
    far_start, far_end = start, end
    if row + 1 < len(span.starts) and not math.isnan(span.ends[row + 1]):
        share = on.thickness / on.pitch
        far_start += (inside(float(span.starts[row + 1])) - start) * share
        far_end += (inside(float(span.ends[row + 1])) - end) * share
    return [
        on.point(lead, on.along(start)),
        on.point(lead, on.along(end)),
        on.point(trail, on.along(far_end)),
        on.point(trail, on.along(far_start)),
    ]


def _label_box(corners: tuple[Point, ...], lying: bool, rect: Rect) -> Rect:
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


def _break_at(rect: Rect, end: End) -> tuple[float, float, float]:
    """Where along a bar its cut begins, how far that slants, and its width, in points."""
    lying = end in ("right", "left")
    long, across = (rect.width, rect.height) if lying else (rect.height, rect.width)
    return max(long * 0.5, long - max(14.0, 0.14 * long)), min(0.35 * across, 8.0), min(BREAK, long / 4)


def before_break(rect: Rect, end: End) -> Rect:
    """The part of a bar before its cut, where its label can be read."""
    at, _, _ = _break_at(rect, end)
    if end in ("right", "left"):
        return rect.inset(right=rect.width - at) if end == "right" else rect.inset(left=rect.width - at)
    return rect.inset(top=rect.height - at) if end == "up" else rect.inset(bottom=rect.height - at)


def break_path(rect: Rect, end: End) -> Path:
    """The cut's outline, a little longer than the bar is thick."""
    at, slant, cut = _break_at(rect, end)
    if end in ("right", "left"):
        x = rect.x + at if end == "right" else rect.right - at
        top, bottom = rect.y - 1, rect.bottom + 1
        return recorded(quad, (x + slant, top), (x + slant + cut, top), (x + cut, bottom), (x, bottom))
    y = rect.bottom - at if end == "up" else rect.y + at
    left, right = rect.x - 1, rect.right + 1
    return recorded(quad, (left, y), (right, y - slant), (right, y - slant - cut), (left, y - cut))


def _tracks(layer: Bars, on: Plane, placing: Placing) -> tuple[Primitive, ...]:
    """The light full bar behind each bar of a layer that wants one."""
    scale = on.axis(layer.second)
    radius = placing.style.corner if layer.radius is None else layer.radius
    form = "square" if layer.form == "tapered" else layer.form
    made: list[Primitive] = []
    for row in range(placing.data.rows):
        rect, side = bar_box(layer, on, row, scale.minimum, scale.maximum)
        rect = _to_bulb(rect, side) if layer.bulb > 0 else rect
        path = recorded(body, rect, form, side, radius) if form != "square" else recorded(box, rect)
        made.append(Shape(path, placing.style.named["track"]))
    return tuple(made)


class BarsKind(Kind[Bars]):
    spec = Bars
    mark = MarkKind("bar", handles=frozenset({"breadth"}), can_be_round=True, has_body=True, bars_texts=True)
    places = ((Plane, place),)
    plain = addable = True
    on_zero = True
    is_length = is_compared = is_hatched = True
    fields = (
        Field("Shape", "Form", "form", "choice", choices(BodyForm), does="The outline of each bar."),
        Field(
            "Shape",
            "Stacked",
            "stack",
            "choice",
            choices(Stack, STACKED),
            does="Side by side, on top of each other, or as parts of 100 %.",
        ),
        Field(
            "Shape",
            "Thickness",
            "thickness",
            "number",
            unit="%",
            times=100,
            does="How thick each mark is, in % of its row.",
        ),
        Field(
            "Shape",
            "Corner",
            "radius",
            "number",
            unit="pt",
            optional=True,
            does="How far corners are rounded, in points.",
        ),
        Field("Shape", "Pale track behind", "track", "flag", does="A pale bar behind, as long as the whole scale."),
    )

    def figures(self, layer: Bars, context: Context) -> list[float]:
        span = context.spans[layer.key]
        return [*span.starts, *span.ends]

    def labels_beyond(self, layer: Bars, lying: bool) -> bool:
        return layer.label is not None and layer.label.position in OUTSIDE

    def overhang(self, layer: Bars, thickness: float) -> tuple[float, float]:
        thick = thickness * layer.thickness
        round_end = cylinder_reach(thick) if layer.form == "cylinder" else 0.0
        return max(round_end, sum(bulb_size(layer, thick)) if layer.bulb > 0 else 0.0), round_end


KIND = BarsKind()
