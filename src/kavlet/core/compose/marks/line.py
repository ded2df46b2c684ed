"""Places lines: one mark per row with a value; the course itself is drawn once, under its first mark."""

import math

from kavlet.core.charts.line import Line
from kavlet.core.compose.figure import Mark
from kavlet.core.compose.frames.plane import Plane
from kavlet.core.compose.marks.courses import runs
from kavlet.core.compose.marks.placing import Placing
from kavlet.core.compose.words.labels import ink, point_spots, wanted
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.curve import course
from kavlet.core.shapes.spots import spot
from kavlet.core.values.geometry import Rect


def place(layer: Line, series: int, on: Plane, to: Placing) -> None:
    """The course, a spot at each value, and labels."""
    style = to.style
    colour = style.solid(layer.fill, layer.tone)
    strokes: list[Primitive] = []
    reach = max(layer.width / 2, layer.size / 2 if layer.spot != "none" else 0.0)
    for run in runs(to.data.column(layer.values), layer.x, layer.missing, layer.second, on, to):
        points = [on.point(across, along) for _, across, along in run]
        if len(points) > 1:
            path = recorded(course, points, layer.course, on.lying)
            strokes.append(Shape(path, None, colour, layer.width, dash=layer.dash))
        for row, across, along in run:
            x, y = on.point(across, along)
            number = float(to.data.column(layer.values)[row])
            if math.isnan(number):
                continue
            area = Rect(x - reach, y - reach, 2 * reach, 2 * reach)
            if layer.helper or to.own(layer, row).hidden:
                to.marks.append(to.undrawn(layer, "line", row, series, number, area))
                continue
            fill, tone = to.fill(layer, row)
            mine = style.solid(fill, tone)
            dot = recorded(spot, x, y, layer.size, layer.spot, on.lying)
            alone = len(run) == 1 and layer.spot == "none"
            if alone:
                dot = recorded(disc, (x, y), layer.width)
            items = (*strokes, Shape(dot, mine, style.ground, 1.25)) if dot.verbs else tuple(strokes)
            strokes = []
            touch = dot if dot.verbs else recorded(disc, (x, y), max(5.0, reach))
            to.marks.append(
                Mark(
                    layer.name,
                    layer.key,
                    "line",
                    to.id(row),
                    series,
                    False,
                    True,
                    number,
                    area,
                    touch,
                    mine,
                    to.wording.says(layer, row),
                    items,
                    dressed=fill,
                    tone=tone,
                    panel=to.panel,
                )
            )
            text = to.wording.text(layer, row)
            if text and layer.label is not None:
                spots = point_spots(layer.label, x, y, reach, ink(layer.label, style, None), on.lying)
                to.labels.append(wanted(layer, to.id(row), text, spots, style, to.sizes.text, (x, y)))
