"""Places reference lines: over the whole plot at a value, or a short stroke across a polar scale; named at the end."""

import math

from kavlet.core.charts.fields import Field
from kavlet.core.charts.reference import Reference
from kavlet.core.layout.context import Context
from kavlet.core.layout.data import Data
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.disc import Disc, facing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Primitive, Shape, cap_of
from kavlet.core.shapes.arc import at
from kavlet.core.shapes.box import quad
from kavlet.core.shapes.curve import course
from kavlet.core.text.shaping import width
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect

OUT = 1.06  # radii from the centre at which a stroke is named
AIR = 0.4  # beside its name, in font sizes


def on_plane(layer: Reference, on: Plane, placing: Placing) -> None:
    """One line over the plot; none for a value outside the scale."""
    value = reference_at(layer, placing.data)
    share = on.axis(layer.second).share(value)
    if math.isnan(share) or not -1e-9 <= share <= 1 + 1e-9:
        return
    along = on.along(value, layer.second)
    plot, style = on.plot, placing.style
    ends = [(along, plot.y), (along, plot.bottom)] if on.lying else [(plot.x, along), (plot.right, along)]
    colour = style.solid(layer.fill if layer.fill is not None else "ink", layer.tone)
    line = Shape(recorded(course, ends, "straight"), None, colour, layer.width, dash=layer.dash, cap=cap_of(layer.dash))
    reach = max(3.0, layer.width)
    (x1, y1), (x2, y2) = ends
    touch = (
        recorded(quad, (x1 - reach, y1), (x1 + reach, y1), (x2 + reach, y2), (x2 - reach, y2))
        if on.lying
        else recorded(quad, (x1, y1 - reach), (x2, y2 - reach), (x2, y2 + reach), (x1, y1 + reach))
    )
    _mark(layer, value, Rect.around(ends), (touch, colour, (line,), (ends[0], ends[1])), placing)
    if layer.label is not None and not layer.helper:
        text = placing.wording.filled(layer, layer.label, 0) if placing.data.rows else layer.name
        text = text or layer.name
        shade = ink(layer.label, style, None)
        if on.lying:
            spots = [
                LabelSpot(along, plot.y, "middle", "bottom", shade, sy=-0.3),
                LabelSpot(along, plot.y, "start", "top", shade, sx=0.35, sy=0.2),
            ]
        else:
            spots = [
                LabelSpot(plot.right, along, "end", "bottom", shade, sy=-0.35),
                LabelSpot(plot.right, along, "end", "top", shade, sy=0.35),
                LabelSpot(plot.x, along, "start", "bottom", shade, sy=-0.35),
            ]
        placing.label(layer, 0, text, spots, LabelStyle(placing.sizes.small, weight=math.inf))


def on_disc(layer: Reference, on: Disc, placing: Placing) -> None:
    """One stroke; none for a value outside the scale."""
    value = reference_at(layer, placing.data)
    if on.scale is None or not -1e-9 <= on.scale.share(value) <= 1 + 1e-9:
        return
    angle, style = on.angle(value), placing.style
    inner = on.hole * 0.97 if on.hole else 0.72 * on.radius
    ends = [at(on.center, inner, angle), at(on.center, 1.04 * on.radius, angle)]
    path = recorded(course, ends, "straight")
    colour = style.solid(layer.fill if layer.fill is not None else "ink", layer.tone)
    items = (Shape(path, None, style.ground, layer.width + 2.5), Shape(path, None, colour, layer.width))
    _mark(layer, value, path.bounds, (path, colour, items, None), placing)
    if layer.label is None or layer.helper:
        return
    text = placing.wording.filled(layer, layer.label, 0) or layer.name
    anchor, level = facing(angle)
    near, far = (at(on.center, OUT * on.radius + out * placing.sizes.small, angle) for out in (0.2, 1.7))
    shade = ink(layer.label, style, None)
    spots = [LabelSpot(*near, anchor, level, shade), LabelSpot(*far, anchor, level, shade)]
    if level == "middle":  # over or under a figure that stands there
        spots += [LabelSpot(*near, anchor, level, shade, sy=up) for up in (-1.1, 1.1)]
    placing.label(layer, 0, text, spots, LabelStyle(placing.sizes.small, ends[1]))


_Line = tuple[Path, Colour, tuple[Primitive, ...], tuple[Point, Point] | None]  # touched, colour, drawn, its ends


def _mark(layer: Reference, value: float, bounds: Rect, line: _Line, placing: Placing) -> None:
    path, colour, items, ends = line
    drawing = MarkDrawing(
        path=path, fill=colour, items=() if layer.helper else items, line=ends, dressed=layer.fill, tone=layer.tone,
        visible=not layer.helper,
    )  # fmt: skip
    placing.put(layer, MarkSource(0, layer.name, is_computed=True), value, bounds, drawing)


def reference_at(layer: Reference, data: Data) -> float:
    """The value a reference line stands at: its own, else its column's first value."""
    if layer.at is not None:
        return layer.at
    held = [float(number) for number in data.column(layer.values) if not math.isnan(number)] if layer.values else []
    return held[0] if held else 0.0


class ReferenceKind(Kind[Reference]):
    spec = Reference
    mark = MarkKind("reference", handles=frozenset({"value"}))
    fields = (
        Field(
            "Line",
            "Stands at",
            "at",
            "number",
            optional=True,
            named="value of a line",
            does="The value that the line stands at; that of its column where empty.",
        ),
        Field("Line", "Width", "width", "number", unit="pt", span=(0.25, 40), does="How thick the line is, in points."),
    )
    places = (
        (Plane, on_plane),
        (Disc, on_disc),
    )

    def figures(self, layer: Reference, context: Context) -> list[float]:
        return [reference_at(layer, context.data)]

    def margins(self, layer: Reference, context: Context, on: Disc) -> tuple[float, float]:
        if layer.label is None or layer.helper or layer.hidden or on.scale is None:
            return 0.0, 0.0
        text = context.wording.filled(layer, layer.label, 0) or layer.name
        size = layer.label.size or context.sizes.small
        turn = math.radians(on.angle(reference_at(layer, context.data)))
        long = max(width(line, context.style.bold, size) for line in text.split("\n")) + AIR * size
        out, half = OUT * abs(math.sin(turn)), on.plot.width / 2
        side = half - (half - long) / out if out > 0.35 else 0.0  # a disc so much narrower has it beside itself
        return max(0.0, side), max(0.0, (OUT * math.cos(turn) - 1) * on.radius + 1.7 * size)

    def entries(self, layer: Reference, context: Context) -> list[LegendEntry]:
        return []


KIND = ReferenceKind()
