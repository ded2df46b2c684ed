"""Places lines: one mark per row with a value; the course itself is drawn once, under its first mark."""

import math

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.fields import Field, choices
from kavlet.core.charts.layer import Missing
from kavlet.core.charts.line import Line
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.marks.courses import runs
from kavlet.core.layout.marks.off_scale import edge, place_arrow, plot_clip
from kavlet.core.layout.marks.shared_kinds import column_figures
from kavlet.core.layout.placing import MarkDrawing, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import point_spots
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape, cap_of
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.curve import Course, course
from kavlet.core.shapes.spots import SpotForm, spot
from kavlet.core.values.geometry import Rect


def place(layer: Line, on: Plane, placing: Placing) -> None:
    """The course, a spot at each value, and labels."""
    style = placing.style
    colour = style.solid(layer.fill, layer.tone)
    strokes: list[Primitive] = []
    reach = max(layer.width / 2, layer.size / 2 if layer.spot != "none" else 0.0)
    for run in runs(placing.data.column(layer.values), layer.x, layer.missing, layer.second, on, placing):
        points = [on.point(across, along) for _, across, along in run]
        leaves = any(edge(on, across, along) for _, across, along in run)
        if len(points) > 1:
            path = recorded(course, points, layer.course, on.lying)
            clip = plot_clip(on) if leaves else None
            strokes.append(Shape(path, None, colour, layer.width, dash=layer.dash, cap=cap_of(layer.dash), clip=clip))
        for row, across, along in run:
            x, y = on.point(across, along)
            number = float(placing.data.column(layer.values)[row])
            if math.isnan(number):
                continue
            area = Rect(x - reach, y - reach, 2 * reach, 2 * reach)
            if not placing.is_drawn(layer, row):
                placing.mark(layer, row, number, area)
                continue
            if (out := edge(on, across, along)) is not None:
                place_arrow(layer, row, out, placing, (number, None), strokes)
                strokes = []
                continue
            fill, tone = placing.fill(layer, row)
            mine = style.solid(fill, tone)
            dot = recorded(spot, x, y, layer.size, layer.spot, on.lying)
            alone = len(run) == 1 and layer.spot == "none"
            if alone:
                dot = recorded(disc, (x, y), layer.width)
            items = (
                (*strokes, Shape(dot, mine, style.ground, 1.25 * style.strokes.rim)) if dot.verbs else tuple(strokes)
            )
            strokes = []
            touch = dot if dot.verbs else recorded(disc, (x, y), max(5.0, reach))
            placing.mark(
                layer, row, number, area, MarkDrawing(path=touch, fill=mine, items=items, dressed=fill, tone=tone)
            )
            text = placing.wording.text(layer, row)
            if text and layer.label is not None:
                spots = point_spots(layer.label, x, y, reach, ink(layer.label, style, None), on.lying)
                placing.label(layer, placing.id(row), text, spots, LabelStyle(placing.sizes.text, (x, y)))


class LineKind(Kind[Line]):
    spec = Line
    mark = MarkKind("line")
    places = ((Plane, place),)
    plain = addable = True
    is_course = True
    fields = (
        Field(
            "Shape",
            "Course",
            "course",
            "choice",
            choices(Course),
            does="Straight from value to value, in steps, or as a smooth curve that never passes a value.",
        ),
        Field("Shape", "Width", "width", "number", unit="pt", does="How thick the line is, in points."),
        Field("Shape", "Points", "spot", "choice", choices(SpotForm), does="The shape at each value."),
        Field(
            "Shape",
            "Missing values",
            "missing",
            "choice",
            choices(Missing),
            does="Whether a line breaks where a value is missing, goes on, or falls to zero.",
        ),
    )

    def new(self, key: str, name: str, column: str, chart: Chart) -> Line:
        return Line(key, name, column, tone=len(chart.layers), spot="disc")

    def figures(self, layer: Line, context: Context) -> list[float]:
        return column_figures(layer, context)

    def labels_beyond(self, layer: Line, lying: bool) -> bool:
        return not lying

    def key(self, item: LegendEntry, layer: Line, chip: Rect, context: Context) -> tuple[Primitive, ...]:
        colour, middle = context.style.solid(item.fill, item.tone), chip.center[1]
        stroke = recorded(course, [(chip.x - 1, middle), (chip.right + 1, middle)], "straight")
        line = Shape(stroke, None, colour, min(layer.width, 3.0), dash=layer.dash, cap=cap_of(layer.dash))
        if layer.spot == "none":
            return (line,)
        return line, Shape(recorded(spot, *chip.center, 0.75 * chip.width, layer.spot), colour)


KIND = LineKind()
