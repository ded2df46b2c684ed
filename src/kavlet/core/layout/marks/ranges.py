"""Places ranges: a whisker with caps, or a rounded bar, from a low to a high figure per row."""

import math

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.fields import Field, choices
from kavlet.core.charts.ranges import RangeForm, Ranges
from kavlet.core.layout.context import Context
from kavlet.core.layout.data import Data
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.placing import MarkDrawing, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import point_spots
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.messages import named
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.box import box
from kavlet.core.shapes.spots import SpotForm, spot
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.values.geometry import Rect

TOUCHED = 3.0  # points to each side of a whisker that belong to it


def ends(layer: Ranges, data: Data, row: int) -> tuple[float, float]:
    """The low and the high end of a row's range, in figures; NaN for an end that is not known."""
    low, high = float(data.column(layer.low)[row]), float(data.column(layer.high)[row])
    if layer.by == "distance":
        middle = float(data.column(layer.values)[row])
        return middle - abs(low), middle + abs(high)
    if math.isnan(low) or math.isnan(high):
        return math.nan, math.nan
    return min(low, high), max(low, high)


def place(layer: Ranges, on: Plane, placing: Placing) -> None:
    """A mark per row of which both ends are known; what reaches beyond the scale ends there, without a cap."""
    data, style, scale = placing.data, placing.style, on.axis(layer.second)
    xs = data.column(layer.x) if layer.x else None
    for row in range(data.rows):
        low, high = ends(layer, data, row)
        if math.isnan(low) or math.isnan(high):
            continue
        across = on.across_value(float(xs[row])) if xs is not None else _middle(layer, on, row)
        start, end = (on.along(scale.inside(figure), layer.second) for figure in (low, high))
        if any(map(math.isnan, (across, start, end))):
            continue
        thick = max(layer.cap, layer.width, 2 * TOUCHED)
        area = on.box(across - thick / 2, thick, start, end)
        value = high - low
        if not placing.is_drawn(layer, row):
            placing.mark(layer, row, value, area)
            continue
        fill, tone = placing.fill(layer, row)
        colour = style.solid(fill if fill is not None or layer.form == "bar" else "ink", tone)
        items: list[Primitive]
        if layer.form == "bar":
            slim = max(1.0, layer.cap)
            body = recorded(box, on.box(across - slim / 2, slim, start, end), slim / 2)
            items = [Shape(body, colour)]
        else:
            capped = (scale.inside(low) == low, scale.inside(high) == high)
            items = [Shape(_whisker(on, across, (start, end), capped, layer.cap / 2), None, colour, layer.width)]
        middle = float(data.column(layer.values)[row]) if layer.values else math.nan
        if layer.spot != "none" and not math.isnan(middle):
            x, y = on.point(across, on.along(scale.inside(middle), layer.second))
            own = colour if layer.form == "whisker" else style.ground
            items.append(Shape(recorded(spot, x, y, max(4.0, 0.8 * layer.cap), layer.spot, on.lying), own))
        touch = recorded(box, area)
        placing.mark(
            layer, row, value, area, MarkDrawing(path=touch, fill=colour, items=tuple(items), dressed=fill, tone=tone)
        )
        text = placing.wording.text(layer, row)
        if text and layer.label is not None:
            x, y = on.point(across, end)
            spots = point_spots(layer.label, x, y, 2.0, ink(layer.label, style, None), on.lying)
            placing.label(layer, placing.id(row), text, spots, LabelStyle(placing.sizes.text, (x, y)))


def _middle(layer: Ranges, on: Plane, row: int) -> float:
    """The middle of the bar it stands on, else of the row."""
    if layer.on not in on.places:
        return on.row_middle(row)
    across, thickness = on.place(layer.on, row)
    return across + thickness / 2


def _whisker(on: Plane, across: float, ends: tuple[float, float], capped: tuple[bool, bool], half: float) -> Path:
    def lines(pen: Pen) -> None:
        pen.move_to(*on.point(across, ends[0]))
        pen.line_to(*on.point(across, ends[1]))
        for end, has_cap in zip(ends, capped, strict=True):
            if has_cap and half > 0:
                pen.move_to(*on.point(across - half, end))
                pen.line_to(*on.point(across + half, end))

    return recorded(lines)


BY = (("ends", named("figures")), ("distance", named("distances")))


class RangesKind(Kind[Ranges]):
    spec = Ranges
    mark = MarkKind("range")
    places = ((Plane, place),)
    addable = True
    fields = (
        Field(
            "Range", "From", "low", "column", does="The column of the lower ends, or of how far a range reaches down."
        ),
        Field("Range", "To", "high", "column", does="The column of the upper ends, or of how far a range reaches up."),
        Field(
            "Range",
            "These are",
            "by",
            "choice",
            BY,
            does="Whether the two columns hold the ends themselves, or how far it is from the middle to them.",
        ),
        Field("Range", "Middle", "values", "column", does="The column of the figures between the ends."),
        Field("Shape", "Form", "form", "choice", choices(RangeForm), does="A line with caps, or a rounded bar."),
        Field(
            "Shape",
            "Width",
            "width",
            "number",
            unit="pt",
            span=(0.25, 40),
            does="How thick the line or the bar is, in points.",
        ),
        Field(
            "Shape",
            "Caps",
            "cap",
            "number",
            unit="pt",
            span=(0, 80),
            does="How wide the short lines at both ends are, in points.",
        ),
        Field(
            "Shape", "Middle as", "spot", "choice", choices(SpotForm), does="The shape at the figure between the ends."
        ),
    )

    def new(self, key: str, name: str, column: str, chart: Chart) -> Ranges:
        """On the chart's main layer: the column holds how far each figure may be off, to both sides."""
        on = chart.layer(chart.main)
        if on is None:
            return Ranges(key, name, column, tone=len(chart.layers), low=column, high=column, by="distance")
        return Ranges(
            key, name, on.figure_column, fill="ink", listed=False, second=on.second, low=column, high=column,
            by="distance", on=on.key, x=on.across_column,
        )  # fmt: skip

    def figures(self, layer: Ranges, context: Context) -> list[float]:
        return [figure for row in range(context.data.rows) for figure in ends(layer, context.data, row)]

    def ends(self, layer: Ranges, context: Context) -> Floats:
        return [ends(layer, context.data, row)[1] for row in range(context.data.rows)]

    def labels_beyond(self, layer: Ranges, lying: bool) -> bool:
        return True

    def key(self, item: LegendEntry, layer: Ranges, chip: Rect, context: Context) -> tuple[Primitive, ...]:
        x, colour = chip.center[0], context.style.solid(item.fill, item.tone)

        def line(pen: Pen) -> None:
            pen.move_to(x, chip.y)
            pen.line_to(x, chip.bottom)

        return (Shape(recorded(line), None, colour, min(layer.width, 3.0) if layer.form == "whisker" else 4.0),)


KIND = RangesKind()
