"""Places rings: each row an arc with its track, its name at the start and its figure at the end."""

import math

from kavlet.core.charts.rings import Rings
from kavlet.core.compose.context import Context
from kavlet.core.compose.figure import MarkKind
from kavlet.core.compose.frames.disc import Disc
from kavlet.core.compose.kind import Kind, Listed
from kavlet.core.compose.marks.painting import painted
from kavlet.core.compose.marks.placing import Drawn, Placing, Who
from kavlet.core.compose.words.labels import LabelSpot, Manner, ink
from kavlet.core.compose.words.lettering import Ink, Owner, Stand, block
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import Sector, at, wedge
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import shortened


def place(layer: Rings, on: Disc, to: Placing) -> None:
    """One arc per row, the first outermost; no value, only the track."""
    places = {one: i for i, one in enumerate(to.data.ids)}
    order = [places[one] for one in layer.order if one in places] or list(range(to.data.rows))
    sweeps, style = to.data.column(layer.values), to.style
    start = on.frame.start
    for turn, row in enumerate(order):
        inner, outer = on.ring(on.rings - 1 - turn)
        thick = outer - inner
        corner = thick / 2 if layer.round else 0.0
        sweep = float(sweeps[row])
        figure = to.wording.figure(layer, row)
        track = recorded(wedge, Sector(on.center, inner, outer, start, start + on.frame.sweep), 0.0, corner)
        behind = (Shape(track, style.named["track"]),) if layer.track else ()
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
        outline = path if path.verbs else track
        drawn = Drawn(
            path=outline, fill=style.solid(filling.fill, filling.tone), items=items if visible else (), sector=sector,
            dressed=filling.fill, tone=filling.tone, track=behind if visible else (),
            visible=visible and bool(items or behind),
        )  # fmt: skip
        to.put(layer, Who(to.id(row), to.wording.says(layer, row)), figure, outline.bounds, drawn)
        if visible:
            _label(layer, row, on, to, (inner, outer, start + shown))
    if not layer.helper:
        _names(layer, order, on, to)


def _label(layer: Rings, row: int, on: Disc, to: Placing, arc: tuple[float, float, float]) -> None:
    """The figure just beyond the arc's end, upright, as far along as its own size asks for."""
    text = to.wording.text(layer, row)
    if not text or layer.label is None:
        return
    inner, outer, end = arc
    style, radius = to.style, (inner + outer) / 2
    size = min(layer.label.size or to.sizes.text, 0.95 * (outer - inner) / 0.72)
    face = style.bold if layer.label.bold is not False else style.face
    wide, high = width(text, face, size), metrics(face).cap_height * size
    turn = math.radians(end)
    half = abs(math.cos(turn)) * wide / 2 + abs(math.sin(turn)) * high / 2
    angle = end + math.degrees((half + 0.45 * size) / max(radius, 1.0))
    x, y = at(on.center, radius, angle)
    beyond = LabelSpot(x, y, "middle", "middle", ink(layer.label, style, None))
    back = end - math.degrees((half + 0.6 * size) / max(radius, 1.0))
    bx, by = at(on.center, radius, back)
    fill, tone = to.fill(layer, row)
    inside = LabelSpot(bx, by, "middle", "middle", ink(layer.label, style, style.behind(fill, tone)))
    full = angle - on.frame.start > on.frame.sweep and on.frame.sweep > 300
    spots = [inside] if full or layer.label.position == "inside end" else [beyond, inside]
    to.label(layer, to.id(row), text, spots, Manner(size, (x, y), bold=True))


def _names(layer: Rings, order: list[int], on: Disc, to: Placing) -> None:
    """The rows' names at the rings' start, right-aligned to the start line."""
    if not layer.named:
        return
    for turn, row in enumerate(order):
        inner, outer = on.ring(on.rings - 1 - turn)
        size = min(to.sizes.text, 0.95 * (outer - inner) / 0.72)
        name = to.wording.names[row] if row < len(to.wording.names) else ""
        if size < 6 or not name:
            continue
        most = on.center[0] - on.plot.x - 6
        x, y = at(on.center, (inner + outer) / 2, on.frame.start)
        line = shortened(name, to.style.face, size, most)
        made = block(
            (line,),
            "name",
            Stand((x - 0.5 * size, y), "end", "middle"),
            Ink(to.style.face, size, to.style.ink),
            Owner(row=to.id(row)),
        )
        to.texts.append(made)


class RingsKind(Kind[Rings]):
    spec = Rings
    mark = MarkKind("ring", disc_depth=0.1, has_body=True)
    places = ((Disc, place),)

    def rings(self, layer: Rings, rows: int) -> int:
        return len(layer.order) or rows

    def entries(self, layer: Rings, context: Context) -> list[Listed]:
        return []


KIND = RingsKind()
