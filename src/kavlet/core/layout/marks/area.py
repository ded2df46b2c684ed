"""Places areas: one outline per run between the course and its base; a mark per row."""

import math

from kavlet.core.charts.area import Area
from kavlet.core.charts.fields import Field, choices
from kavlet.core.charts.layer import Stack
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind
from kavlet.core.layout.marks.courses import runs
from kavlet.core.layout.marks.off_scale import edge, plot_clip, say_value
from kavlet.core.layout.marks.shared_kinds import STACKED
from kavlet.core.layout.painting import paint
from kavlet.core.layout.placing import MarkDrawing, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.planes.scales import FixedScale
from kavlet.core.layout.words.label_spots import point_spots
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.curve import Course, course
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

ALONE = 8.0  # points; how wide an area of a single value is


def place(layer: Area, on: Plane, placing: Placing) -> None:
    """The areas under a course, back to front, each run under its first mark."""
    span = placing.spans.get(layer.key)
    if span is None:
        return
    style = placing.style
    colour = style.solid(layer.fill, layer.tone)
    numbers = placing.data.column(layer.values)
    for run in runs(span.ends, "", layer.missing, layer.second, on, placing):
        bases = [_base(float(span.starts[row]), on.axis(layer.second)) for row, _, _ in run]
        held = [
            (across, along, on.along(base, layer.second)) for (_, across, along), base in zip(run, bases, strict=True)
        ]
        if len(held) == 1:  # a value without neighbours stands as a narrow column
            across, along, base = held[0]
            held = [(across - ALONE / 2, along, base), (across + ALONE / 2, along, base)]
        upper = [on.point(*place) for place in _upper(held)]
        lower = [on.point(*place) for place in reversed(_lower(held))]

        def outline(
            pen: Pen, upper: list[tuple[float, float]] = upper, lower: list[tuple[float, float]] = lower
        ) -> None:
            course(pen, upper, layer.course, on.lying)
            _back(pen, lower, layer, on)
            pen.close()

        path = recorded(outline)
        fill = paint(layer.fill, layer.tone, path.bounds, style, "right" if on.lying else "up")
        if layer.opacity < 1 and isinstance(fill, Colour):
            fill = fill.faded(layer.opacity)
        clip = plot_clip(on) if any(edge(on, *place) for place in [*_upper(held), *_lower(held)]) else None
        strokes: list[Primitive] = [Shape(path, fill, clip=clip)]
        if layer.width > 0:
            line = recorded(course, upper, layer.course, on.lying)
            strokes.append(Shape(line, None, colour, layer.width, clip=clip))
        for row, across, along in run:
            x, y = on.point(across, along)
            number = float(numbers[row])
            if math.isnan(number):
                continue
            area = Rect(x - 3, y - 3, 6, 6)
            if not placing.is_drawn(layer, row):
                placing.mark(layer, row, number, area)
                continue
            if (out := edge(on, across, along)) is not None:
                items = (*strokes, Shape(out.path, style.on(colour), colour, style.strokes.hair))
                strokes = []
                drawing = MarkDrawing(
                    path=out.path, fill=colour, items=items, dressed=layer.fill, tone=layer.tone, beyond=True
                )
                placing.mark(layer, row, number, out.bounds, drawing)
                say_value(layer, row, out, placing, behind=colour if out.way[1] < 0 else None)
                continue
            touch = recorded(disc, (x, y), 5.0)
            drawing = MarkDrawing(path=touch, fill=colour, items=tuple(strokes), dressed=layer.fill, tone=layer.tone)
            placing.mark(layer, row, number, area, drawing)
            strokes = []
            text = placing.wording.text(layer, row)
            if text and layer.label is not None:
                spots = point_spots(layer.label, x, y, 2.0, ink(layer.label, style, None), on.lying)
                placing.label(layer, placing.id(row), text, spots, LabelStyle(placing.sizes.text, (x, y)))


def _upper(held: list[tuple[float, float, float]]) -> list[tuple[float, float]]:
    return [(across, along) for across, along, _ in held]


def _lower(held: list[tuple[float, float, float]]) -> list[tuple[float, float]]:
    return [(across, base) for across, _, base in held]


def _base(start: float, scale: FixedScale) -> float:
    """Where the lower side stands: at zero for want of an area below; at the end of a log scale, which has no zero."""
    base = 0.0 if math.isnan(start) else start
    return scale.inside(base) if scale.kind == "log" else base


def _back(pen: Pen, points: list[tuple[float, float]], layer: Area, on: Plane) -> None:
    """The lower side, backward; the smooth course is symmetric, so that areas stacked on each other meet."""
    pen.line_to(*points[0])
    if layer.course == "straight" or len(points) < 2:
        for point in points[1:]:
            pen.line_to(*point)
        return
    course(pen, points, layer.course, on.lying, begin=False)


class AreaKind(Kind[Area]):
    spec = Area
    mark = MarkKind("area")
    places = ((Plane, place),)
    plain = addable = True
    is_length = is_course = is_hatched = True
    fields = (
        Field(
            "Shape",
            "Course",
            "course",
            "choice",
            choices(Course),
            does="Straight from value to value, in steps, or as a smooth curve that never passes a value.",
        ),
        Field(
            "Shape",
            "Stacked",
            "stack",
            "choice",
            choices(Stack, STACKED),
            does="Side by side, on top of each other, or as parts of 100 %.",
        ),
        Field(
            "Shape",
            "Opacity",
            "opacity",
            "number",
            unit="%",
            times=100,
            does="How much of what lies behind is covered, in %.",
        ),
    )

    def figures(self, layer: Area, context: Context) -> list[float]:
        span = context.spans[layer.key]
        return [*span.starts, *span.ends]

    def labels_beyond(self, layer: Area, lying: bool) -> bool:
        return not lying


KIND = AreaKind()
