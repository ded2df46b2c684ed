"""Places rings: each row an arc with its track, its name at the start and its figure at the end."""

import math

from msgspec import Struct

from kavlet.core.charts.rings import Rings
from kavlet.core.compose.context import Context
from kavlet.core.compose.figure import MarkKind, PlacedText
from kavlet.core.compose.frames.disc import Disc
from kavlet.core.compose.kind import Kind, Listed
from kavlet.core.compose.marks.painting import painted
from kavlet.core.compose.marks.placing import Drawn, Placing, Who
from kavlet.core.compose.words.labels import LabelSpot, Manner, ink
from kavlet.core.compose.words.lettering import FLOOR, Ink, Owner, Stand, block
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import Sector, at, wedge
from kavlet.core.shapes.box import box
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import shortened
from kavlet.core.values.colour import Colour

THICKEST = 0.25  # of the radius; how thick a ring may be
TALL = 0.9  # a line from the top of its capitals to below its letters, in font sizes


def place(layer: Rings, on: Disc, to: Placing) -> None:
    """One arc per row, the first outermost; no value, only the track."""
    places = {one: i for i, one in enumerate(to.data.ids)}
    order = [places[one] for one in layer.order if one in places] or list(range(to.data.rows))
    sweeps, style = to.data.column(layer.values), to.style
    start = on.frame.start
    for turn, row in enumerate(order):
        inner, outer = _radii(on, turn)
        thick = outer - inner
        corner = thick / 2 if layer.round else 0.0
        sweep = float(sweeps[row])
        figure = to.wording.figure(layer, row)
        track = recorded(wedge, Sector(on.center, inner, outer, start, start + on.frame.sweep), 0.0, corner)
        track_items = (Shape(track, style.named["track"]),) if layer.track else ()
        items: tuple[Primitive, ...] = ()
        swept = 0.0 if math.isnan(sweep) else max(0.0, min(sweep, on.frame.sweep))
        # A round end needs at least its own diameter, so that the smallest value is still seen as a dot.
        least = math.degrees(thick / ((inner + outer) / 2)) if layer.round and swept > 0 else 0.0
        shown = min(on.frame.sweep, max(swept, least))
        sector = Sector(on.center, inner, outer, start, start + swept)
        path = recorded(wedge, Sector(on.center, inner, outer, start, start + shown), 0.0, corner)
        filling = to.filling(layer, row, figure)
        visible = to.is_drawn(layer, row)
        if visible and path.verbs:
            items = painted(filling, path, path.bounds, "right", to.context)
        behind_text = style.behind(filling.fill, filling.tone) if path.verbs else style.named["track"]
        ring = _Ring(row, inner, outer, start + shown, behind_text)
        name = _name(layer, ring, on, to)
        if visible and name is not None:
            items = (*items, *_plate(name, ring, on, to))
        outline = path if path.verbs else track
        drawn = Drawn(
            path=outline, fill=style.solid(filling.fill, filling.tone), items=items if visible else (), sector=sector,
            dressed=filling.fill, tone=filling.tone, track=track_items if visible else (),
            visible=visible and bool(items or track_items),
        )  # fmt: skip
        to.put(layer, Who(to.id(row), to.wording.says(layer, row)), figure, outline.bounds, drawn)
        if visible:
            _label(layer, ring, name, on, to)
        if name is not None:
            to.texts.append(name)


class _Ring(Struct, frozen=True):
    """A ring as it is labelled: its radii, the angle its value ends at, and what is behind a text on it."""

    row: int
    inner: float
    outer: float
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


def _label(layer: Rings, ring: _Ring, name: PlacedText | None, on: Disc, to: Placing) -> None:
    """The figure just beyond the arc's end, upright, as far along as its own size asks for; inside it where the arc
    comes round to its name."""
    text = to.wording.text(layer, ring.row)
    if not text or layer.label is None:
        return
    style, radius = to.style, ring.middle
    wished = layer.label.size or to.sizes.text
    size = max(ring.size(wished), min(FLOOR, _size_beside(ring, on, wished)))
    if size < min(FLOOR, wished):
        to.lost += 1
        return
    face = style.bold if layer.label.bold is not False else style.face
    wide, high = width(text, face, size), metrics(face).cap_height * size

    def taken(angle: float) -> float:
        turn = math.radians(angle)
        return abs(math.cos(turn)) * wide / 2 + abs(math.sin(turn)) * high / 2

    def degrees(points: float) -> float:
        return math.degrees(points / max(radius, 1.0))

    last = on.frame.start + min(on.frame.sweep, 360.0 - _named(name, on, radius))
    angle = ring.end + degrees(taken(ring.end) + 0.45 * size)
    x, y = at(on.center, radius, angle)
    beyond = LabelSpot(x, y, "middle", "middle", ink(layer.label, style, None))
    end = min(ring.end, last)
    bx, by = at(on.center, radius, end - degrees(taken(end) + 0.6 * size))
    inside = LabelSpot(bx, by, "middle", "middle", ink(layer.label, style, ring.behind))
    full = on.frame.sweep > 300 and angle + degrees(taken(angle)) > last
    spots = [inside] if full or layer.label.position == "inside end" else [beyond, inside]
    to.label(layer, to.id(ring.row), text, spots, Manner(size, (x, y), bold=True))


def _size_beside(ring: _Ring, on: Disc, wanted: float) -> float:
    """The largest size of type beside a ring, where it may take half the gaps around it too."""
    thick = ring.outer - ring.inner
    pitch = max(thick, on.ring(1)[0] - on.ring(0)[0]) if on.rings > 1 else thick
    return min(wanted, pitch / TALL)


def _named(name: PlacedText | None, on: Disc, radius: float) -> float:
    """How many degrees before the start a ring's name begins."""
    if name is None:
        return 0.0
    return math.degrees(math.asin(min(1.0, max(0.0, on.center[0] - name.bounds.x) / max(radius, 1.0))))


def _name(layer: Rings, ring: _Ring, on: Disc, to: Placing) -> PlacedText | None:
    """The row's name at its ring's start, right-aligned to the start line; on the ring where that comes round to it."""
    name = to.wording.names[ring.row] if ring.row < len(to.wording.names) else ""
    size = _size_beside(ring, on, to.sizes.text)
    if not layer.named or layer.helper or not name:
        return None
    if size < FLOOR:
        to.lost += 1
        return None
    most = on.center[0] - on.plot.x - 6
    x, y = at(on.center, ring.middle, on.frame.start)
    comes_round = ring.end - on.frame.start > 360.0 - math.degrees(0.5 * size / max(1.0, ring.middle))
    if comes_round:  # it stays on the ring, which bends away below a long name
        size = ring.size(size)
        most = math.sqrt(max(0.0, ring.outer**2 - (ring.middle + 0.36 * size) ** 2)) - 0.5 * size
        size = max(FLOOR, size * min(1.0, most / max(1e-9, width(name, to.style.face, size))))
    line = shortened(name, to.style.face, size, most)
    colour = to.style.on(ring.behind) if comes_round else to.style.ink
    return block(
        (line,), "name", Stand((x - 0.5 * size, y), "end", "middle"), Ink(to.style.face, size, colour),
        Owner(row=to.id(ring.row)),
    )  # fmt: skip


def _plate(name: PlacedText, ring: _Ring, on: Disc, to: Placing) -> tuple[Primitive, ...]:
    """The ground behind a name that the arc's end only reaches into, so that it is read on one colour."""
    reached = ring.end - on.frame.start
    if reached <= 360.0 - _named(name, on, ring.middle) or name.lines[0].width <= 0 or name.colour != to.style.ink:
        return ()
    room = 0.25 * name.size
    return (Shape(recorded(box, name.bounds.inset(-room, -room, -2 * room, -room), room), to.style.ground),)


class RingsKind(Kind[Rings]):
    spec = Rings
    mark = MarkKind("ring", disc_depth=0.1, has_body=True)
    places = ((Disc, place),)

    def rings(self, layer: Rings, rows: int) -> int:
        return len(layer.order) or rows

    def entries(self, layer: Rings, context: Context) -> list[Listed]:
        return []


KIND = RingsKind()
