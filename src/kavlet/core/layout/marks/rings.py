"""Places rings: each row an arc with its track, its name at the start and its figure at the end."""

import math

import msgspec
from msgspec import Struct

from kavlet.core.charts.rings import Rings
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind, PlacedText, TextAnchor
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.painting import painted
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.texts.text_lines import FLOOR, Anchor, TextOwner, TextStyle, block, widest
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.layout.words.spreading import spread
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import Sector, at, wedge
from kavlet.core.shapes.box import box
from kavlet.core.text.disambiguate import disambiguated
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.values.affine import turned
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect

THICKEST = 0.25  # of the radius; how thick a ring may be
OPEN = 280.0  # degrees; the sweep up to which there is room for a column of names before the start
KNEE = 1.8  # font sizes from a column of names to the start line
UPRIGHT = 50.0  # degrees that rings may start beside the top or the foot, and have upright names still
TALL = 0.9  # a line from the top of its capitals to below its letters, in font sizes


def place(layer: Rings, on: Disc, placing: Placing) -> None:
    """One arc per row, the first outermost; no value, only the track."""
    places = {one: i for i, one in enumerate(placing.data.ids)}
    order = [places[one] for one in layer.order if one in places] or list(range(placing.data.rows))
    rings = [_ring(layer, turn, row, on, placing) for turn, row in enumerate(order)]
    names = _names(layer, rings, on, placing)
    for ring in rings:
        name, row = names.get(ring.row), ring.row
        _put(layer, ring, name, on, placing)
        if placing.is_drawn(layer, row):
            _label(layer, ring, name, on, placing)
        if name is not None:
            placing.texts.append(name)


def _ring(layer: Rings, turn: int, row: int, on: Disc, placing: Placing) -> "_Ring":
    inner, outer = _radii(on, turn)
    sweep = float(placing.data.column(layer.values)[row])
    swept = 0.0 if math.isnan(sweep) else max(0.0, min(sweep, on.frame.sweep))
    # A round end needs at least its own diameter, so that the smallest value is still seen as a dot.
    least = math.degrees((outer - inner) / ((inner + outer) / 2)) if layer.round and swept > 0 else 0.0
    filling = placing.filling(layer, row, placing.wording.figure(layer, row))
    behind = placing.style.behind(filling.fill, filling.tone) if swept > 0 else placing.style.named["track"]
    end = on.frame.start + min(on.frame.sweep, max(swept, least))
    return _Ring(row, inner, outer, on.frame.start + swept, end, behind)


def _put(layer: Rings, ring: "_Ring", name: PlacedText | None, on: Disc, placing: Placing) -> None:
    """The arc of a row on its track, with a plate behind a name it only reaches into."""
    start, row, style = on.frame.start, ring.row, placing.style
    corner = (ring.outer - ring.inner) / 2 if layer.round else 0.0
    track = recorded(wedge, Sector(on.center, ring.inner, ring.outer, start, start + on.frame.sweep), 0.0, corner)
    track_items = (Shape(track, style.named["track"]),) if layer.track else ()
    path = recorded(wedge, Sector(on.center, ring.inner, ring.outer, start, ring.end), 0.0, corner)
    figure = placing.wording.figure(layer, row)
    filling = placing.filling(layer, row, figure)
    visible = placing.is_drawn(layer, row)
    items: tuple[Primitive, ...] = ()
    if visible and path.verbs:
        items = painted(filling, path, path.bounds, "right", placing.context)
    if visible and name is not None:
        items = (*items, *_plate(name, ring, on, placing))
    outline = path if path.verbs else track
    drawing = MarkDrawing(
        path=outline, fill=style.solid(filling.fill, filling.tone), items=items if visible else (),
        sector=Sector(on.center, ring.inner, ring.outer, start, ring.value),
        dressed=filling.fill, tone=filling.tone, track=track_items if visible else (),
        visible=visible and bool(items or track_items),
    )  # fmt: skip
    placing.put(layer, MarkSource(placing.id(row), placing.wording.says(layer, row)), figure, outline.bounds, drawing)


class _Ring(Struct, frozen=True):
    """A ring as it is labelled: its radii, the angles its value and its drawn arc end at, and what is behind a text on
    it."""

    row: int
    inner: float
    outer: float
    value: float
    end: float
    behind: Colour

    @property
    def middle(self) -> float:
        return (self.inner + self.outer) / 2

    def size(self, wanted: float) -> float:
        """The largest size of type the ring is thick enough for."""
        return min(wanted, 0.95 * (self.outer - self.inner) / 0.72)


def _radii(on: Disc, turn: int) -> tuple[float, float]:
    """Inner and outer radius of a ring, counted from outside; few rings keep to the rim, so that they stay rings."""
    inner, outer = on.ring(on.rings - 1 - turn)
    thickest = THICKEST * on.radius
    if outer - inner <= thickest:
        return inner, outer
    outer = on.radius - turn * (thickest + on.frame.ring_gap)
    return outer - thickest, outer


def _label(layer: Rings, ring: _Ring, name: PlacedText | None, on: Disc, placing: Placing) -> None:
    """The figure just beyond the arc's end, upright, as far along as its own size asks for; inside it where the arc
    comes round to its name."""
    text = placing.wording.text(layer, ring.row)
    if not text or layer.label is None:
        return
    style, radius = placing.style, ring.middle
    wished = layer.label.size or placing.sizes.text
    size = max(ring.size(wished), min(FLOOR, wished))
    face = style.bold if layer.label.bold is not False else style.face
    wide, high = width(text, face, size), metrics(face).cap_height * size

    def taken(angle: float) -> float:
        turn = math.radians(angle)
        return abs(math.cos(turn)) * wide / 2 + abs(math.sin(turn)) * high / 2

    def degrees(points: float) -> float:
        return math.degrees(points / max(radius, 1.0))

    last = on.frame.start + min(on.frame.sweep, 360.0 - _named(name, radius))
    angle = ring.end + degrees(taken(ring.end) + 0.45 * size)
    x, y = at(on.center, radius, angle)
    beyond = LabelSpot(x, y, "middle", "middle", ink(layer.label, style, None))
    end = min(ring.end, last)
    bx, by = at(on.center, radius, end - degrees(taken(end) + 0.6 * size))
    inside = LabelSpot(bx, by, "middle", "middle", ink(layer.label, style, ring.behind))
    full = on.frame.sweep > 300 and angle + degrees(taken(angle)) > last
    spots = [inside] if full or layer.label.position == "inside end" else [beyond, inside]
    placing.label(layer, placing.id(ring.row), text, spots, LabelStyle(size, (x, y), bold=True))


class _Before(Struct, frozen=True):
    """Where names stand: on the side that rings come from. All is reckoned as if they came from the left, on a disc
    turned back by quarters, and turned where it is set: upright at the left and the right, else upward.

    `disc` begins near the top; `quarters` is how often it was turned back.
    """

    disc: Disc
    quarters: int

    def point(self, x: float, y: float) -> Point:
        """A point of the turned disc where it is in the chart."""
        return turned(90.0 * self.quarters, *self.disc.center).apply(x, y)

    def text(self, lines: tuple[str, ...], at: Point, text_style: TextStyle, owner: TextOwner) -> PlacedText:
        """A name that ends at a point of the turned disc."""
        anchor: TextAnchor = "start" if self.quarters in (1, 2) else "end"
        stand = Anchor(self.point(*at), anchor, "middle", -90.0 if self.quarters % 2 else 0.0)
        return block(lines, "name", stand, text_style, owner)


def _before(on: Disc) -> _Before:
    sin, cos = math.sin(math.radians(on.frame.start)), math.cos(math.radians(on.frame.start))
    upright = abs(cos) >= math.cos(math.radians(UPRIGHT))
    quarters = (0 if cos > 0 else 2) if upright else (1 if sin > 0 else 3)
    back = turned(-90.0 * quarters, *on.center)
    p = on.plot
    plot = Rect.around([back.apply(*corner) for corner in ((p.x, p.y), (p.right, p.bottom))])
    start = math.remainder(on.frame.start - 90.0 * quarters, 360.0)
    frame = msgspec.structs.replace(on.frame, start=start)
    return _Before(msgspec.structs.replace(on, plot=plot, frame=frame) if quarters else on, quarters)


def _rise_of_end(on: Disc) -> float:
    """How steeply the line rises to the left on which the arcs' ends lie, where they come round as far as that."""
    end = on.frame.start + on.frame.sweep - 360.0
    return 1 / math.tan(math.radians(-end)) if -90.0 < end < 0.0 else 0.0


def _size_beside(ring: _Ring, on: Disc, wanted: float) -> float:
    """The largest size of type beside a ring, where it may take half the gaps around it too."""
    thick = ring.outer - ring.inner
    pitch = max(thick, on.ring(1)[0] - on.ring(0)[0]) if on.rings > 1 else thick
    return min(wanted, pitch * math.cos(math.radians(on.frame.start)) / TALL)


def _named(name: PlacedText | None, radius: float) -> float:
    """How many degrees before the start a ring's name begins."""
    if name is None:
        return 0.0
    long = 0.5 * name.size + (name.bounds.height if name.angle else name.bounds.width)
    return math.degrees(math.asin(min(1.0, long / max(radius, 1.0))))


def _names(layer: Rings, rings: list[_Ring], on: Disc, placing: Placing) -> dict[int, PlacedText]:
    """The rows' names at their rings' start, by row; in a column beside it, with leaders, where rings are too thin."""
    held = [ring for ring in rings if ring.row < len(placing.wording.names) and placing.wording.names[ring.row]]
    if not layer.named or layer.helper or not held:
        return {}
    before = _before(on)
    size = _size_beside(held[0], before.disc, placing.sizes.text)
    if size >= FLOOR:
        return {ring.row: _name(ring, size, before, placing, ring.end - on.frame.start) for ring in held}
    return _column_of_names(held, before, placing)


def _name(ring: _Ring, size: float, before: _Before, placing: Placing, swept: float) -> PlacedText:
    """A row's name, ending at the start line; on the ring where that comes round to it, having swept so far."""
    name, on = placing.wording.names[ring.row], before.disc
    x, y = at(on.center, ring.middle, on.frame.start)
    most = x - on.plot.x - 6
    comes_round = swept > 360.0 - math.degrees(0.5 * size / max(1.0, ring.middle))
    if comes_round:  # it stays on the ring, which bends away below a long name
        size = ring.size(size)
        most = math.sqrt(max(0.0, ring.outer**2 - (ring.middle + 0.36 * size) ** 2)) - 0.5 * size
        size = max(FLOOR, size * min(1.0, most / max(1e-9, width(name, placing.style.face, size))))
    lines = disambiguated(placing.wording.names, placing.style.face, size, most)[ring.row]
    colour = placing.style.on(ring.behind) if comes_round else placing.style.ink
    return before.text(
        lines, (x - 0.5 * size, y), TextStyle(placing.style.face, size, colour), TextOwner(row=placing.id(ring.row))
    )


def _column_of_names(rings: list[_Ring], before: _Before, placing: Placing) -> dict[int, PlacedText]:
    """Names one below the other, ending before the start line, each led to its ring; fewer where there is no room for
    all."""
    size, face, names, on = FLOOR, placing.style.face, placing.wording.names, before.disc
    if on.frame.sweep > OPEN:  # arcs come round to where the column would stand
        placing.lost += len(rings)
        return {}
    out = [at(on.center, ring.middle, on.frame.start) for ring in rings]
    x = min(place[0] for place in out) - KNEE * size
    long = min(widest(tuple(names[ring.row] for ring in rings), face, size), x - on.plot.x - 4)
    foot = min(on.center[1], on.center[1] - _rise_of_end(on) * (on.center[0] - x + long))
    beside = on.plot.inset(bottom=max(0.0, on.plot.bottom - foot))
    cap = metrics(face).cap_height * size
    most = max(1, int((beside.height + (TALL * size - cap)) / (TALL * size)))
    every = math.ceil(len(rings) / most)
    shown = [i for i in range(len(rings)) if i % every == 0]
    placing.lost += len(rings) - len(shown)
    ys = spread([out[i][1] for i in shown], [cap] * len(shown), TALL * size - cap, beside)
    lines = disambiguated([names[rings[i].row] for i in shown], face, size, x - on.plot.x - 4)
    made: dict[int, PlacedText] = {}
    for i, y, line in zip(shown, ys or [out[i][1] for i in shown], lines, strict=True):
        text = before.text(
            line, (x, y), TextStyle(face, size, placing.style.ink), TextOwner(row=placing.id(rings[i].row))
        )
        led = ((x + 0.25 * size, y), (x + 0.55 * KNEE * size, y), (out[i][0] - 1.0, out[i][1]))
        leader = tuple(before.point(*place) for place in led)
        made[rings[i].row] = msgspec.structs.replace(text, leader=leader, leader_colour=placing.style.quiet)
    return made


def _plate(name: PlacedText, ring: _Ring, on: Disc, placing: Placing) -> tuple[Primitive, ...]:
    """The ground behind a name that the arc's end only reaches into, so that it is read on one colour."""
    reached = ring.end - on.frame.start
    if reached <= 360.0 - _named(name, ring.middle) or name.lines[0].width <= 0 or name.colour != placing.style.ink:
        return ()
    room = 0.25 * name.size
    return (Shape(recorded(box, name.bounds.inset(-room, -room, -2 * room, -room), room), placing.style.ground),)


class RingsKind(Kind[Rings]):
    spec = Rings
    mark = MarkKind("ring", disc_depth=0.1, has_body=True, bars_texts=True)
    is_compared = is_hatched = only_shares = True
    places = ((Disc, place),)

    def rings(self, layer: Rings, rows: int) -> int:
        return len(layer.order) or rows

    def entries(self, layer: Rings, context: Context) -> list[LegendEntry]:
        return []


KIND = RingsKind()
