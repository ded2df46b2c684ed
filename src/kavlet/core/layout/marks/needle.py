"""Places a needle: a slim pointer with a hub, and an arrow at the stop when its value lies beyond the scale."""

import math

from kavlet.core.charts.frame import Polar
from kavlet.core.charts.needle import Needle
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import Sector, arc_to, at, disc
from kavlet.core.shapes.box import quad
from kavlet.core.values.colour import Colour

HUB = 0.062  # radius of the hub, as a share of the disc's
LABEL = 1.9  # size of its label, as a share of other labels'


def pointer(pen: Pen, center: tuple[float, float], length: float, angle: float, half: float) -> None:
    """A pointer that narrows to a blunt tip, round at the centre."""
    tip = max(0.6, half * 0.16)
    left, right = at(center, half, angle - 90), at(center, half, angle + 90)
    end = at(center, length, angle)
    t1 = at(end, tip, angle - 90)
    pen.move_to(*left)
    pen.line_to(*t1)
    arc_to(pen, end, tip, angle - 90, angle + 90)
    pen.line_to(*right)
    arc_to(pen, center, half, angle + 90, angle + 270)
    pen.close()


def place(layer: Needle, on: Disc, placing: Placing) -> None:
    """One mark; none without a value."""
    if layer.row not in placing.data.ids and not placing.data.rows:
        return
    row = placing.data.ids.index(layer.row) if layer.row in placing.data.ids else 0
    angle = float(placing.data.column(layer.values)[row])
    figure = placing.wording.figure(layer, row)
    style = placing.style
    hub = max(2.5, HUB * on.radius)
    fill, tone = placing.fill(layer, row)
    colour = style.solid(fill if fill is not None else "ink", tone)
    items: list[Primitive] = []
    path = recorded(disc, on.center, hub)
    if not math.isnan(angle):
        path = recorded(pointer, on.center, layer.length * on.radius, angle, hub * 0.72)
        items.append(Shape(path, colour))
        if layer.past:
            items.append(_arrow(on, angle, layer.past, style.named["alarm"]))
    items += [Shape(recorded(disc, on.center, hub), colour), Shape(recorded(disc, on.center, hub * 0.4), style.ground)]
    sector = Sector(on.center, 0.0, layer.length * on.radius, angle, angle)
    visible = not layer.helper and not placing.own(layer, row).hidden
    drawing = MarkDrawing(
        path=path, fill=colour, items=tuple(items) if visible else (), sector=sector, dressed=fill, tone=tone,
        visible=visible,
    )  # fmt: skip
    placing.put(layer, MarkSource(placing.id(row), placing.wording.says(layer, row)), figure, path.bounds, drawing)
    text = placing.wording.text(layer, row)
    if text and layer.label is not None and visible:
        size = layer.label.size or LABEL * placing.sizes.text
        x, y = on.center
        spot = LabelSpot(x, y + hub, "middle", "top", ink(layer.label, style, None), sy=0.34, width=1.5 * on.radius)
        placing.label(layer, placing.id(row), text, [spot], LabelStyle(size, on.center, math.inf, bold=True))


def _arrow(on: Disc, angle: float, past: int, colour: Colour) -> Primitive:
    """A small arrowhead on the rim that points on in the direction the value went."""
    radius, size = 1.05 * on.radius, max(4.0, 0.05 * on.radius)
    turn = math.degrees(size / radius)
    tip = at(on.center, radius, angle + past * 2.0 * turn)
    out, inside = at(on.center, radius + size, angle), at(on.center, radius - size, angle)
    return Shape(recorded(quad, out, tip, inside), colour)


class NeedleKind(Kind[Needle]):
    spec = Needle
    mark = MarkKind("needle")
    places = ((Disc, place),)
    hub = True

    def foot(self, layer: Needle, context: Context, frame: Polar) -> float:
        if layer.label is None or frame.shown > 200:
            return 0.0
        return 1.5 * (layer.label.size or LABEL * context.sizes.text)

    def margins(self, layer: Needle, context: Context, on: Disc) -> tuple[float, float]:
        return 0.0, 8.0 if layer.past else 0.0

    def entries(self, layer: Needle, context: Context) -> list[LegendEntry]:
        return []


KIND = NeedleKind()
