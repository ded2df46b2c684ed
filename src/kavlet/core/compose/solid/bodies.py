"""Which bodies a chart's flat marks become: bars, flanks, wedges and rings carried into depth, or round bars."""

import math

from msgspec import Struct

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.solid import Solid
from kavlet.core.compose.figure import Mark
from kavlet.core.compose.frames.disc import Disc
from kavlet.core.compose.frames.plane import Plane
from kavlet.core.compose.marks.bars import bar_box, break_path, bulb_size
from kavlet.core.compose.marks.placing import Placing
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Shape
from kavlet.core.shapes.body import End, ellipse
from kavlet.core.shapes.box import box, quad
from kavlet.core.solid.cover import cut, polygons
from kavlet.core.solid.loft import Along, Level, Loft, Outline, outline_of
from kavlet.core.values.geometry import Rect

BAR_DEPTH, ROUND_DEPTH = 0.6, 1.0  # as shares of a bar's thickness
DISC_DEPTH, RINGS_DEPTH = 0.22, 0.1  # as shares of a disc's radius; rings of their own are slender
BETWEEN = 0.25  # of a slot's depth, free between series that stand one behind the other
CUT = 2.0  # points free between the cells of a round bar
LEAST_EDGE = 0.05  # points from which an edge is rounded
# Of a rounded edge's quarter circle, how far out and how far up its levels lie.
BEVEL = tuple((math.cos(math.radians(turn)), math.sin(math.radians(turn))) for turn in (0.0, 30.0, 60.0, 90.0))


class BodyPart(Struct, frozen=True, eq=False):
    """One body and what it shows: the number of its mark; `rest` when it is the track that its value leaves empty.

    A "slab" wears the flat mark's own primitives in front, at depth `front`; a "round" body the mark's fill around it.
    `front` is also where its label stands. `box` is the flat mark's own box, `end` the side its value grows to.
    """

    mark: int
    loft: Loft
    round: bool
    front: float
    box: Rect
    end: End = "up"
    rest: bool = False


class Ball(Struct, frozen=True, eq=False):
    """A sphere: a bar's bulb, with the height of the tube's foot that stands in it."""

    mark: int
    center: tuple[float, float, float]
    radius: float
    cut: float
    lying: bool


class Bodies(Struct, frozen=True, eq=False):
    """All bodies of one panel, and the depth they fill: from z = 0 back to `-depth`."""

    parts: tuple[BodyPart, ...]
    balls: tuple[Ball, ...]
    depth: float


def is_body(mark: Mark, chart: Chart) -> bool:
    """Whether a mark becomes a body; all others stay flat and stand before or behind the bodies."""
    if not mark.visible or mark.path is None:
        return False
    if mark.type == "flank":
        layer = chart.layer(mark.key)
        return isinstance(layer, Flanks) and layer.form == "body"
    return mark.type in ("bar", "wedge", "ring")


def bodies(solid: Solid, frame: Plane | Disc, to: Placing) -> Bodies:
    """The bodies of the marks that have been placed."""
    mine = [i for i, mark in enumerate(to.marks) if is_body(mark, to.chart)]
    if isinstance(frame, Disc):
        return _discs(solid, frame, to, mine)
    return _bars(solid, frame, to, mine)


def _discs(solid: Solid, frame: Disc, to: Placing, mine: list[int]) -> Bodies:
    usual = RINGS_DEPTH if any(to.marks[i].type == "ring" for i in mine) else DISC_DEPTH
    depth = frame.radius * max(0.01, solid.depth if solid.depth is not None else usual)
    parts = []
    for i in mine:
        path = to.marks[i].path
        outline = outline_of(path) if path is not None else None
        if outline is None or outline.empty:
            continue
        loft = Loft(outline, _levels(outline, -depth, 0.0, min(solid.edge, depth / 2)))
        parts.append(BodyPart(i, loft, False, 0.0, to.marks[i].bounds))
    return Bodies(tuple(parts), (), depth)


def _levels(outline: Outline, back: float, front: float, edge: float) -> tuple[Level, ...]:
    """The levels of a body carried back, its front edge rounded as far as its outline allows."""
    if edge < LEAST_EDGE:
        return Level(back), Level(front)
    inset = outline.most_inset(edge)
    return Level(back), *(Level(front - edge * (1 - up), inset=inset * (1 - out)) for out, up in BEVEL)


def _rounded(edge: float, w: float, way: float, thick: float) -> list[Level]:
    """Levels of an edge rounded toward `w`, of a round bar so thick; `way` is the direction outward along the axis."""
    made = []
    for out, up in BEVEL:
        share = 1 - 2 * edge * (1 - out) / max(thick, 1e-9)
        made.append(Level(w - way * edge * (1 - up), share, share))
    return made


# Bars


def _bars(solid: Solid, on: Plane, to: Placing, mine: list[int]) -> Bodies:
    slots = _slots(to, mine)
    count = 1 + max(slots.values(), default=0)
    share = solid.depth
    broadest = max((_thickness(solid, to, to.marks[i], on) for i in mine), default=1.0)
    is_round = any(_round(solid, to, to.marks[i]) for i in mine)
    usual = ROUND_DEPTH if is_round else BAR_DEPTH
    deep = max(0.5, broadest * max(0.01, share if share is not None else usual))
    parts: list[BodyPart] = []
    balls: list[Ball] = []
    for i in mine:
        mark = to.marks[i]
        front = -(count - 1 - slots[i]) * deep * (1 + BETWEEN)
        if _round(solid, to, mark):
            made, bulb = _round_parts(solid, on, to, i, front - deep / 2, share if share is not None else ROUND_DEPTH)
            parts += made
            balls += bulb
        else:
            parts += _slabs(solid, to, i, front, deep)
    depth = deep * (count + (count - 1) * BETWEEN)
    return Bodies(tuple(parts), tuple(balls), depth)


def _slots(to: Placing, mine: list[int]) -> dict[int, int]:
    """Which series stand in front of which: one that lies over an earlier one in the flat chart stands before it."""
    keys = list(dict.fromkeys(to.marks[i].key for i in mine))
    rects: dict[str, dict[int, Rect]] = {key: {} for key in keys}
    for i in mine:
        rects[to.marks[i].key][to.marks[i].row] = to.marks[i].bounds
    places: dict[str, int] = {}
    for n, key in enumerate(keys):
        under = [other for other in keys[:n] if _overlap(rects[key], rects[other])]
        places[key] = 1 + max((places[other] for other in under), default=-1)
    return {i: places[to.marks[i].key] for i in mine}


def _overlap(one: dict[int, Rect], other: dict[int, Rect]) -> bool:
    return any(
        row in other and rect.inset(0.01, 0.01, 0.01, 0.01).overlaps(other[row].inset(0.01, 0.01, 0.01, 0.01))
        for row, rect in one.items()
        if rect.width > 0.03 and rect.height > 0.03
    )


def _thickness(solid: Solid, to: Placing, mark: Mark, on: Plane) -> float:
    """How broad a mark is about the axis that its depth is measured against."""
    corners = _corners(mark) if _round(solid, to, mark) else None
    if corners is not None:
        (ax, ay), (bx, by), (cx, cy), (dx, dy) = corners
        return max(abs(bx - ax), abs(cx - dx)) if on.lying else max(abs(by - ay), abs(cy - dy))
    return mark.bounds.height if on.lying else mark.bounds.width


def _round(solid: Solid, to: Placing, mark: Mark) -> bool:
    layer = to.chart.layer(mark.key)
    if solid.form != "drawn":
        return mark.type in ("bar", "flank")
    return isinstance(layer, Bars) and (layer.form == "cylinder" or layer.bulb > 0)


def _slabs(solid: Solid, to: Placing, number: int, front: float, deep: float) -> list[BodyPart]:
    """A flat mark carried back; where its value goes on beyond its end, in two pieces with the break between."""
    mark = to.marks[number]
    path = _outline(mark)
    if path is None or mark.bounds.width < 0.01 or mark.bounds.height < 0.01:
        return []
    end: End = mark.block.end if mark.block is not None else "up"
    paths = [path]
    if mark.block is not None and mark.block.broken:
        paths = _parted(mark.block.rect, end)
    made = []
    for one in paths:
        outline = outline_of(one)
        if not outline.empty:
            edge = min(solid.edge, deep / 2, one.bounds.width / 3, one.bounds.height / 3)
            loft = Loft(outline, _levels(outline, front - deep, front, edge))
            made.append(BodyPart(number, loft, False, front, mark.bounds, end))
    return made


def _outline(mark: Mark) -> Path | None:
    """A mark's outline, less what a clip cuts from it: a capsule's value that is shorter than it is thick."""
    clip = next((item.clip for item in mark.items if isinstance(item, Shape) and item.clip is not None), None)
    if clip is None or mark.path is None or mark.block is None or mark.block.form != "capsule":
        return mark.path
    points = polygons(mark.path)[0]
    area = clip.bounds
    for axis, low, high in ((0, area.x, area.right), (1, area.y, area.bottom)):
        points = cut(cut(points, axis, low, True), axis, high, False)
    return recorded(quad, *points) if len(points) > 2 else None


def _parted(rect: Rect, end: End) -> list[Path]:
    """The two pieces of a bar at both sides of its break."""
    c = break_path(rect, end).coordinates
    one, two, three, four = ((c[i], c[i + 1]) for i in (0, 2, 4, 6))
    x, y, right, bottom = rect.x, rect.y, rect.right, rect.bottom
    if end == "right":
        return [recorded(quad, (x, y), one, four, (x, bottom)), recorded(quad, two, (right, y), (right, bottom), three)]
    if end == "left":
        return [recorded(quad, two, (right, y), (right, bottom), three), recorded(quad, (x, y), one, four, (x, bottom))]
    upper, lower = (three, four), (one, two)
    return [
        recorded(quad, (x, y), (right, y), (right, upper[0][1]), (x, upper[1][1])),
        recorded(quad, (x, lower[0][1]), (right, lower[1][1]), (right, bottom), (x, bottom)),
    ]


# Round bars


def _round_parts(
    solid: Solid, on: Plane, to: Placing, number: int, middle: float, share: float
) -> tuple[list[BodyPart], list[Ball]]:
    """A bar turned on its axis: cylinder, cone or pyramid, in cells or broken where the flat one is; its bulb."""
    mark = to.marks[number]
    layer = to.chart.layer(mark.key)
    corners = _corners(mark)
    if corners is not None:
        return _frustum(solid, on, mark, number, corners, middle, share), []
    rect = mark.block.rect if mark.block is not None else mark.bounds
    end: End = mark.block.end if mark.block is not None else "up"
    lying = end in ("right", "left")
    low, high = (rect.x, rect.right) if lying else (-rect.bottom, -rect.y)
    if high - low < 0.01:
        return [], []
    half = (rect.height if lying else rect.width) / 2
    center = -rect.center[1] if lying else rect.center[0]
    balls: list[Ball] = []
    spans = [(low, high)]
    if isinstance(layer, Bars):
        spans = _spans(layer, on, mark, low, high, lying)
        if layer.bulb > 0:
            balls.append(_bulb(layer, rect, number, middle, lying))
            first = max(balls[0].cut, -math.inf)
            spans = [(first, spans[0][1]), *spans[1:]]
    made: list[BodyPart] = []
    for a, b in spans:
        levels = _tapered(solid, to, mark, a, b, lying, half)
        made.append(_turned(number, center, middle, half, share, levels, solid, rect, end, rest=False))
    if isinstance(layer, Bars) and layer.track and solid.form in ("drawn", "round"):
        made += _rest(layer, on, to, number, made[-1], lying, (center, middle, half, share), solid)
    return made, balls


def _turned(
    number: int, center: float, middle: float, half: float, share: float, levels: tuple[Level, ...], solid: Solid,
    rect: Rect, end: End, rest: bool,
) -> BodyPart:  # fmt: skip
    deep = half * share
    if solid.form == "pyramid":
        section = recorded(box, Rect(center - half, middle - deep, 2 * half, 2 * deep))
    else:
        section = recorded(ellipse, center, middle, half, deep)
    axis: Along = "right" if end in ("right", "left") else "up"
    return BodyPart(number, Loft(outline_of(section), levels, axis), True, middle + deep, rect, end, rest)


def _spans(layer: Bars, on: Plane, mark: Mark, low: float, high: float, lying: bool) -> list[tuple[float, float]]:
    """The pieces of a round bar along its axis: its cells, or those at both sides of its break."""
    cuts: list[tuple[float, float]] = []
    scale = on.axis(layer.second)
    for i in range(1, layer.cuts):
        place = on.along(scale.minimum + i / layer.cuts * (scale.maximum - scale.minimum), layer.second)
        place = place if lying else -place
        cuts.append((place - CUT / 2, place + CUT / 2))
    if mark.block is not None and mark.block.broken:
        gap = break_path(mark.block.rect, mark.block.end).bounds
        middle = gap.center[0] if lying else -gap.center[1]
        cuts.append((middle - 2.5, middle + 2.5))
    spans, start = [], low
    for a, b in sorted(cuts):
        if low < a and b < high:
            spans.append((start, a))
            start = b
    return [*spans, (start, high)]


def _tapered(
    solid: Solid, to: Placing, mark: Mark, low: float, high: float, lying: bool, half: float
) -> tuple[Level, ...]:
    """The levels of a piece of a round bar: as broad throughout, or a slice of the cone its whole stack makes."""
    if solid.form not in ("cone", "pyramid"):
        edge = min(solid.edge, (high - low) / 2, half / 2)
        if edge < LEAST_EDGE:
            return Level(low), Level(high)
        return (*_rounded(edge, low, -1.0, 2 * half)[::-1], *_rounded(edge, high, 1.0, 2 * half))
    end = mark.block.end if mark.block is not None else "up"
    same = [
        one.block.rect for one in to.marks
        if one.visible and one.block is not None and one.block.end == end and one.row == mark.row
        and abs(one.block.rect.center[1 if lying else 0] - mark.bounds.center[1 if lying else 0]) < 1e-6
    ]  # fmt: skip
    first = min((rect.x if lying else -rect.bottom) for rect in same)
    last = max((rect.right if lying else -rect.y) for rect in same)
    long = max(1e-9, last - first)

    def size(w: float) -> float:
        share = (w - first) / long
        return min(1.0, max(0.0, 1 - share if end in ("right", "up") else share))

    def level(w: float) -> Level:
        k = size(w)
        return Level(w, k, k) if k > 1e-6 else Level(w, 0.0, 0.0)

    return level(low), level(high)


def _bulb(layer: Bars, rect: Rect, number: int, middle: float, lying: bool) -> Ball:
    thick = rect.height if lying else rect.width
    radius, sunk = bulb_size(layer, thick)
    reach = math.sqrt(max(0.0, radius * radius - (thick / 2) ** 2))
    if lying:
        center = (rect.x - sunk, -rect.center[1], middle)
        return Ball(number, center, radius, center[0] + reach, True)
    center = (rect.center[0], -(rect.bottom + sunk), middle)
    return Ball(number, center, radius, center[1] + reach, False)


def _rest(
    layer: Bars, on: Plane, to: Placing, number: int, last: BodyPart, lying: bool,
    where: tuple[float, float, float, float], solid: Solid,
) -> list[BodyPart]:  # fmt: skip
    """What a round bar's value leaves empty of its track."""
    mark = to.marks[number]
    scale = on.axis(layer.second)
    row = to.data.ids.index(mark.row)
    whole, end = bar_box(layer, on, row, scale.minimum, scale.maximum)
    top = max(level.w for level in last.loft.levels)
    far = whole.right if lying else -whole.y
    if far - top < 0.5:
        return []
    center, middle, half, share = where
    levels = Level(top), Level(far)
    return [_turned(number, center, middle, half, share, levels, solid, whole, end, rest=True)]


def _corners(mark: Mark) -> tuple[tuple[float, float], ...] | None:
    """The four corners of a tapered bar or a flank: leading start and end, trailing end and start."""
    if mark.block is not None:
        return mark.block.corners or None
    if mark.type == "flank" and mark.path is not None:
        c = mark.path.coordinates
        return tuple((c[i], c[i + 1]) for i in range(0, 8, 2))
    return None


def _frustum(
    solid: Solid, on: Plane, mark: Mark, number: int, corners: tuple[tuple[float, float], ...], middle: float,
    share: float,
) -> list[BodyPart]:  # fmt: skip
    """A tapered bar turned on its axis, across the rows."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = corners
    if on.lying:
        lead, trail, center = abs(bx - ax) / 2, abs(cx - dx) / 2, (ax + bx) / 2
        ends = (-ay, -dy)
        axis: Along = "up"
    else:
        lead, trail, center = abs(by - ay) / 2, abs(cy - dy) / 2, -(ay + by) / 2
        ends = (ax, dx)
        axis = "right"
    broad = max(lead, trail)
    if broad < 0.01 or abs(ends[0] - ends[1]) < 0.01:
        return []
    if solid.form == "pyramid":
        section = recorded(box, Rect(center - broad, middle - broad * share, 2 * broad, 2 * broad * share))
    else:
        section = recorded(ellipse, center, middle, broad, broad * share)
    levels = tuple(
        Level(w, half / broad, half / broad) if half > 1e-6 else Level(w, 0.0, 0.0)
        for w, half in zip(ends, (lead, trail), strict=True)
    )
    front = middle + min(lead, trail) * share
    return [BodyPart(number, Loft(outline_of(section), levels, axis), True, front, mark.bounds, "up")]
