"""Places flanks: pale bodies between each bar and the next, or lines that carry a level on."""

import math

from kavlet.core.charts.flanks import Flanks
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import BarBox, MarkKind
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Shape
from kavlet.core.shapes.box import quad
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point


def place(layer: Flanks, on: Plane, placing: Placing) -> None:
    """One mark per gap, for the row after it; none beside a row without a value."""
    if layer.form == "line":
        _lines(layer, on, placing)
        return
    span, of = placing.spans.get(layer.of), placing.chart.layer(layer.of)
    if span is None or of is None or on.gap <= 0:
        return
    own = layer.fill if layer.fill is not None else of.fill
    colour = (
        placing.style.tint(placing.style.solid(own, of.tone))
        if layer.fill is None
        else placing.style.solid(own, of.tone)
    )
    for row in range(1, len(span.starts)):
        if math.isnan(span.ends[row - 1]) or math.isnan(span.ends[row]):
            continue
        above, below = on.row_start(row) - on.gap, on.row_start(row)
        corners = tuple(
            on.point(across, on.along(on.first.inside(float(figure))))
            for across, figure in (
                (above, span.starts[row - 1]), (above, span.ends[row - 1]), (below, span.ends[row]),
                (below, span.starts[row]),
            )
        )  # fmt: skip
        value = float(span.ends[row] - span.starts[row])
        _join(layer, row, value, _drawn(corners, colour, is_body=True), placing)


def _lines(layer: Flanks, on: Plane, placing: Placing) -> None:
    """From the end of each bar to the beginning of the next, at the height of the column."""
    levels = placing.data.column(layer.values)
    colour = placing.style.solid(layer.fill if layer.fill is not None else "quiet", layer.tone)
    for row in range(1, len(levels)):
        level = float(levels[row - 1])
        if math.isnan(level) or on.gap <= 0 or on.first.beyond(level):
            continue
        along = on.along(level)
        start, end = on.row_start(row) - on.gap, on.row_start(row)
        half = layer.edge_width / 2
        corners = (
            on.point(start, along - half), on.point(end, along - half),
            on.point(end, along + half), on.point(start, along + half),
        )  # fmt: skip
        _join(layer, row, level, _drawn(corners, colour, is_body=False), placing)


def _drawn(corners: tuple[Point, ...], colour: Colour, is_body: bool) -> MarkDrawing:
    """A join with those corners; one that is a body stands in depth as the bars do that it joins."""
    path = recorded(quad, *corners)
    block = BarBox(path.bounds, "tapered", "up", corners) if is_body else None
    return MarkDrawing(path=path, fill=colour, items=(Shape(path, colour),), block=block)


def _join(layer: Flanks, row: int, value: float, drawing: MarkDrawing, placing: Placing) -> None:
    """One join, from the row before to this one."""
    if drawing.path is not None:
        placing.put(layer, MarkSource(placing.id(row), is_computed=True), value, drawing.path.bounds, drawing)


class FlanksKind(Kind[Flanks]):
    spec = Flanks
    mark = MarkKind("flank", can_be_round=True, is_lit=False)
    places = ((Plane, place),)

    def entries(self, layer: Flanks, context: Context) -> list[LegendEntry]:
        return []


KIND = FlanksKind()
