"""Which bodies a chart's flat marks become: bars, flanks, wedges and rings carried into depth, or round bars."""

import math

from msgspec import Struct

from kavlet.core.charts.solid import Solid
from kavlet.core.layout.figure import BarBox, Mark
from kavlet.core.layout.marks.bars import break_path
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Shape
from kavlet.core.shapes.body import End, ellipse
from kavlet.core.shapes.box import box, quad
from kavlet.core.solid.cover import cut, polygons
from kavlet.core.solid.loft import Along, Level, Loft, Outline, outline_of
from kavlet.core.values.geometry import Rect

BAR_DEPTH, ROUND_DEPTH = 0.6, 1.0  # as shares of a bar's thickness
BETWEEN = 0.25  # of a slot's depth, free between series that stand one behind the other
CUT = 2.0  # points free between the cells of a round bar
MIN_EDGE = 0.05  # points from which an edge is rounded
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


def is_body(mark: Mark) -> bool:
    """Whether a mark becomes a body; all others stay flat and stand before or behind the bodies."""
    if not mark.visible or mark.path is None:
        return False
    return mark.block is not None or (mark.sector is not None and mark.kind.has_body)


def bodies(solid: Solid, frame: Plane | Disc, placing: Placing) -> Bodies:
    """The bodies of the marks that have been placed."""
    mine = [i for i, mark in enumerate(placing.marks) if is_body(mark)]
    if isinstance(frame, Disc):
        return _discs(solid, frame, placing, mine)
    return _Bars(solid, frame, placing).bodies(mine)


def _discs(solid: Solid, frame: Disc, placing: Placing, mine: list[int]) -> Bodies:
    usual = min((placing.marks[i].kind.disc_depth for i in mine), default=0.0)
    depth = frame.radius * max(0.01, solid.depth if solid.depth is not None else usual)
    parts = []
    for i in mine:
        path = placing.marks[i].path
        outline = outline_of(path) if path is not None else None
        if outline is None or outline.empty:
            continue
        loft = Loft(outline, _levels(outline, -depth, 0.0, min(solid.edge, depth / 2)))
        parts.append(BodyPart(i, loft, False, 0.0, placing.marks[i].bounds))
    return Bodies(tuple(parts), (), depth)


def _levels(outline: Outline, back: float, front: float, edge: float) -> tuple[Level, ...]:
    """The levels of a body carried back, its front edge rounded as far as its outline allows."""
    if edge < MIN_EDGE:
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


def _slots(placing: Placing, mine: list[int]) -> dict[int, int]:
    """Which series stand in front of which: one that lies over an earlier one in the flat chart stands before it."""
    keys = list(dict.fromkeys(placing.marks[i].key for i in mine))
    rects: dict[str, dict[int, Rect]] = {key: {} for key in keys}
    for i in mine:
        rects[placing.marks[i].key][placing.marks[i].row] = placing.marks[i].bounds
    places: dict[str, int] = {}
    for n, key in enumerate(keys):
        under = [other for other in keys[:n] if _overlap(rects[key], rects[other])]
        places[key] = 1 + max((places[other] for other in under), default=-1)
    return {i: places[placing.marks[i].key] for i in mine}


def _overlap(one: dict[int, Rect], other: dict[int, Rect]) -> bool:
    return any(
        row in other and rect.inset(0.01, 0.01, 0.01, 0.01).overlaps(other[row].inset(0.01, 0.01, 0.01, 0.01))
        for row, rect in one.items()
        if rect.width > 0.03 and rect.height > 0.03
    )


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


class _Bars:
    """Makes the bodies of bars and of what joins them, on one plane."""

    def __init__(self, solid: Solid, on: Plane, placing: Placing) -> None:
        self._solid, self._on, self._to = solid, on, placing

    def bodies(self, mine: list[int]) -> Bodies:
        """The bodies of those marks, series behind series."""
        placing, share = self._to, self._solid.depth
        slots = _slots(placing, mine)
        count = 1 + max(slots.values(), default=0)
        broadest = max((self._thickness(placing.marks[i]) for i in mine), default=1.0)
        usual = ROUND_DEPTH if any(self._is_round(placing.marks[i]) for i in mine) else BAR_DEPTH
        deep = max(0.5, broadest * max(0.01, share if share is not None else usual))
        parts: list[BodyPart] = []
        balls: list[Ball] = []
        for i in mine:
            front = -(count - 1 - slots[i]) * deep * (1 + BETWEEN)
            if self._is_round(placing.marks[i]):
                made, bulb = self._turned_on_axis(i, front - deep / 2, share if share is not None else ROUND_DEPTH)
                parts += made
                balls += bulb
            else:
                parts += self._slabs(i, front, deep)
        return Bodies(tuple(parts), tuple(balls), deep * (count + (count - 1) * BETWEEN))

    def _is_round(self, mark: Mark) -> bool:
        if self._solid.form != "drawn":
            return mark.kind.can_be_round
        return mark.block is not None and mark.block.is_round

    def _thickness(self, mark: Mark) -> float:
        """How broad a mark is about the axis that its depth is measured against."""
        lying = self._on.lying
        if self._is_round(mark) and mark.block is not None and mark.block.corners:
            (ax, ay), (bx, by), (cx, cy), (dx, dy) = mark.block.corners
            return max(abs(bx - ax), abs(cx - dx)) if lying else max(abs(by - ay), abs(cy - dy))
        return mark.bounds.height if lying else mark.bounds.width

    def _slabs(self, number: int, front: float, deep: float) -> list[BodyPart]:
        """A flat mark carried back; where its value goes on beyond its end, in two pieces with the break between."""
        mark = self._to.marks[number]
        path = _outline(mark)
        if path is None or mark.block is None or mark.bounds.width < 0.01 or mark.bounds.height < 0.01:
            return []
        end = mark.block.end
        made = []
        for one in _parted(mark.block.rect, end) if mark.block.broken else [path]:
            outline = outline_of(one)
            if not outline.empty:
                edge = min(self._solid.edge, deep / 2, one.bounds.width / 3, one.bounds.height / 3)
                loft = Loft(outline, _levels(outline, front - deep, front, edge))
                made.append(BodyPart(number, loft, False, front, mark.bounds, end))
        return made

    # Round bars

    def _turned_on_axis(self, number: int, middle: float, share: float) -> tuple[list[BodyPart], list[Ball]]:
        """A bar turned on its axis: cylinder, cone or pyramid, in cells or broken where the flat one is; its bulb."""
        block = self._to.marks[number].block
        if block is None:
            return [], []
        if block.corners:
            return self._frustum(number, block, middle, share), []
        rect, lying = block.rect, block.end in ("right", "left")
        low, high = (rect.x, rect.right) if lying else (-rect.bottom, -rect.y)
        if high - low < 0.01:
            return [], []
        half = (rect.height if lying else rect.width) / 2
        center = -rect.center[1] if lying else rect.center[0]
        core = _Core(number, center, middle, half, half * share)
        spans, balls = _spans(block, low, high, lying), []
        if block.bulb is not None:
            balls.append(_ball(block, block.bulb, number, middle, lying))
            spans = [(balls[0].cut, spans[0][1]), *spans[1:]]
        made = [self._piece(core, self._tapered(number, block, span, half), block.rect, block.end) for span in spans]
        if block.track is not None and self._solid.form in ("drawn", "round"):
            made += self._rest(core, block.track, max(level.w for level in made[-1].loft.levels), lying)
        return made, balls

    def _piece(self, core: "_Core", levels: tuple[Level, ...], rect: Rect, end: End, rest: bool = False) -> BodyPart:
        axis: Along = "right" if end in ("right", "left") else "up"
        loft = Loft(outline_of(self._section(core)), levels, axis)
        return BodyPart(core.mark, loft, True, core.middle + core.deep, rect, end, rest)

    def _section(self, core: "_Core") -> Path:
        """What is seen of a round body when it is cut across its axis."""
        if self._solid.form == "pyramid":
            return recorded(box, Rect(core.center - core.half, core.middle - core.deep, 2 * core.half, 2 * core.deep))
        return recorded(ellipse, core.center, core.middle, core.half, core.deep)

    def _tapered(self, number: int, block: BarBox, span: tuple[float, float], half: float) -> tuple[Level, ...]:
        """The levels of a piece of a round bar: as broad throughout, or a slice of the cone its whole stack makes."""
        low, high = span
        if self._solid.form not in ("cone", "pyramid"):
            edge = min(self._solid.edge, (high - low) / 2, half / 2)
            if edge < MIN_EDGE:
                return Level(low), Level(high)
            return (*_rounded(edge, low, -1.0, 2 * half)[::-1], *_rounded(edge, high, 1.0, 2 * half))
        first, last = self._stack(number, block)
        long = max(1e-9, last - first)

        def level(w: float) -> Level:
            share = (w - first) / long
            size = min(1.0, max(0.0, 1 - share if block.end in ("right", "up") else share))
            return Level(w, size, size) if size > 1e-6 else Level(w, 0.0, 0.0)

        return level(low), level(high)

    def _stack(self, number: int, block: BarBox) -> tuple[float, float]:
        """From where to where the bars reach that stand on each other in a row, along their axis."""
        lying, marks = block.end in ("right", "left"), self._to.marks
        mine, side = marks[number], 1 if lying else 0
        same = [
            mark.block.rect for mark in marks
            if mark.visible and mark.block is not None and mark.block.end == block.end and mark.row == mine.row
            and abs(mark.block.rect.center[side] - mine.bounds.center[side]) < 1e-6
        ]  # fmt: skip
        return (
            min((rect.x if lying else -rect.bottom) for rect in same),
            max((rect.right if lying else -rect.y) for rect in same),
        )

    def _rest(self, core: "_Core", track: tuple[Rect, End], top: float, lying: bool) -> list[BodyPart]:
        """What a round bar's value, which ends at `top`, leaves empty of its track."""
        whole, end = track
        far = whole.right if lying else -whole.y
        return [self._piece(core, (Level(top), Level(far)), whole, end, rest=True)] if far - top >= 0.5 else []

    def _frustum(self, number: int, block: BarBox, middle: float, share: float) -> list[BodyPart]:
        """A tapered bar turned on its axis, across the rows."""
        (ax, ay), (bx, by), (cx, cy), (dx, dy) = block.corners
        if self._on.lying:
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
        levels = tuple(
            Level(w, half / broad, half / broad) if half > 1e-6 else Level(w, 0.0, 0.0)
            for w, half in zip(ends, (lead, trail), strict=True)
        )
        section = outline_of(self._section(_Core(number, center, middle, broad, broad * share)))
        front = middle + min(lead, trail) * share
        return [BodyPart(number, Loft(section, levels, axis), True, front, self._to.marks[number].bounds, "up")]


class _Core(Struct, frozen=True):
    """The axis of a round body: its mark, where it lies across and in depth, and half its section's width and depth."""

    mark: int
    center: float
    middle: float
    half: float
    deep: float


def _spans(block: BarBox, low: float, high: float, lying: bool) -> list[tuple[float, float]]:
    """The pieces of a round bar along its axis: its cells, or those at both sides of its break."""
    places = [place if lying else -place for place in block.cuts]
    cuts = [(place - CUT / 2, place + CUT / 2) for place in places]
    if block.broken:
        gap = break_path(block.rect, block.end).bounds
        middle = gap.center[0] if lying else -gap.center[1]
        cuts.append((middle - 2.5, middle + 2.5))
    spans, start = [], low
    for a, b in sorted(cuts):
        if low < a and b < high:
            spans.append((start, a))
            start = b
    return [*spans, (start, high)]


def _ball(block: BarBox, bulb: tuple[float, float], number: int, middle: float, lying: bool) -> Ball:
    rect, (radius, sunk) = block.rect, bulb
    thick = rect.height if lying else rect.width
    reach = math.sqrt(max(0.0, radius * radius - (thick / 2) ** 2))
    if lying:
        center = (rect.x - sunk, -rect.center[1], middle)
        return Ball(number, center, radius, center[0] + reach, True)
    center = (rect.center[0], -(rect.bottom + sunk), middle)
    return Ball(number, center, radius, center[1] + reach, False)
