"""Places bubbles, the largest at the back, so that small ones are never hidden."""

import math
from collections.abc import Callable
from typing import Any, Literal

from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.fields import Field, choices
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind, PlacedText
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.marks.off_scale import edge, place_arrow
from kavlet.core.layout.marks.shared_kinds import column_figures, disc_key
from kavlet.core.layout.placing import MarkDrawing, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import LabelSpot, scattered_spots
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.values.geometry import Point, Rect

HOLLOW = 2.0  # points; the rim of a bubble whose size is below zero


def diameters(layer: Bubbles, sizes: list[float], most: float) -> list[float]:
    """Diameters in points: the area, or the diameter, in proportion to the figures; 0 for no value or none to show."""
    amounts = [abs(size) if layer.hollow else size for size in sizes]
    largest = max((amount for amount in amounts if amount > 0), default=0.0)
    power = 0.5 if layer.by == "area" else 1.0
    return [most * (amount / largest) ** power if amount > 0 else 0.0 for amount in amounts]


def place(layer: Bubbles, on: Plane, placing: Placing) -> None:
    """One disc per row that has both places and a size above zero."""
    style = placing.style
    xs, ys = placing.data.column(layer.x), placing.data.column(layer.values)
    sizes = [float(size) for size in placing.data.column(layer.sizes)]
    most = layer.largest * min(on.plot.width, on.plot.height)
    made = diameters(layer, sizes, most)
    for row in sorted(range(len(sizes)), key=lambda row: -made[row]):
        across, along = on.across_value(float(xs[row])), on.along(float(ys[row]), layer.second)
        if made[row] <= 0 or math.isnan(across) or math.isnan(along):
            continue
        out = edge(on, across, along)
        if out is not None and placing.is_drawn(layer, row):
            place_arrow(layer, row, out, placing, (sizes[row], float(xs[row]) if out.way[0] else None))
            continue
        x, y = on.point(across, along)
        radius = made[row] / 2
        area = Rect(x - radius, y - radius, 2 * radius, 2 * radius)
        if not placing.is_drawn(layer, row):
            placing.mark(layer, row, sizes[row], area)
            continue
        fill, tone = placing.fill(layer, row)
        colour = style.solid(fill, tone)
        path = recorded(disc, (x, y), radius)
        negative = sizes[row] < 0
        if negative:
            ring = recorded(disc, (x, y), max(0.5, radius - HOLLOW / 2))
            shape = Shape(ring, style.ground.faded(layer.opacity), colour, HOLLOW)
        else:
            shape = Shape(path, colour.faded(layer.opacity), style.ground, style.strokes.rim)
        placing.mark(
            layer, row, sizes[row], area, MarkDrawing(path=path, fill=colour, items=(shape,), dressed=fill, tone=tone)
        )
        text = placing.wording.text(layer, row)
        if text and layer.label is not None:
            behind = None if negative else colour.faded(layer.opacity).over(style.ground)
            inside = LabelSpot(
                x, y, "middle", "middle", ink(layer.label, style, behind), width=2 * radius, height=2 * radius,
                pad=0.3, fits=_within((x, y), radius),
            )  # fmt: skip
            around = scattered_spots(layer.label, x, y, radius, ink(layer.label, style, None), lying=True)
            prefer = [inside, *around] if layer.label.position in ("auto", "middle", "centre") else around
            placing.label(layer, placing.id(row), text, prefer, LabelStyle(placing.sizes.small, (x, y), made[row]))


def _within(center: Point, radius: float) -> Callable[[PlacedText], bool]:
    """Whether all of a text lies in a disc, a little from its rim."""

    def fits(text: PlacedText) -> bool:
        box, most = text.bounds, radius - 0.15 * text.size
        return all(
            math.hypot(x - center[0], y - center[1]) <= most for x in (box.x, box.right) for y in (box.y, box.bottom)
        )

    return fits


class BubblesKind(Kind[Bubbles]):
    spec = Bubbles
    mark = MarkKind("bubble", bars_texts=True)
    places = ((Plane, place),)
    fields = (
        Field(
            "Shape",
            "Size by",
            "by",
            "choice",
            choices(Literal["area", "diameter"]),
            does="Whether a value twice as large has twice the area or twice the width.",
        ),
        Field(
            "Shape",
            "Largest",
            "largest",
            "number",
            unit="%",
            times=100,
            does="How wide the largest bubble is, in % of the plot’s shorter side.",
        ),
        Field("Shape", "Below zero, hollow", "hollow", "flag", does="Values below zero are rims without a filling."),
    )

    def size_column(self, layer: Bubbles) -> str:
        return layer.sizes

    def by_area(self) -> dict[str, Any]:
        return {"by": "area"}

    def figures(self, layer: Bubbles, context: Context) -> list[float]:
        return column_figures(layer, context)

    def edge_room(self, layer: Bubbles) -> float | None:
        return 0.62 * layer.largest if layer.x else None

    def radii(self, layer: Bubbles, context: Context, side: float) -> Floats:
        sizes = [float(size) for size in context.data.column(layer.sizes)]
        return [diameter / 2 for diameter in diameters(layer, sizes, layer.largest * side)]

    def key(self, item: LegendEntry, layer: Bubbles, chip: Rect, context: Context) -> tuple[Primitive, ...]:
        return disc_key(item, chip, context)


KIND = BubblesKind()
