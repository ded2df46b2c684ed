"""Places points: shapes or symbols at values, symbols that ride on bars, and places that only carry labels."""

import math

import msgspec

from kavlet.core.charts.fields import Field, choices
from kavlet.core.charts.labels import Label
from kavlet.core.charts.points import Points
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.marks.off_scale import edge, place_arrow
from kavlet.core.layout.marks.shared_kinds import column_figures
from kavlet.core.layout.painting import picture, proportions
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import AIR, LabelSpot, point_spots, scattered_spots
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.box import box
from kavlet.core.shapes.spots import SpotForm, spot
from kavlet.core.text.shaping import width
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect


def place(layer: Points, on: Plane, placing: Placing) -> None:
    """One per row; no value, no point."""
    if layer.at is not None:
        _places(layer, on, placing)
        return
    style = placing.style
    xs = placing.data.column(layer.x) if layer.x else None
    for row, number in enumerate(map(float, placing.data.column(layer.values))):
        across = on.across_value(float(xs[row])) if xs is not None else on.row_middle(row)
        exact, along = on.along(number, layer.second), on.along(on.axis(layer.second).inside(number), layer.second)
        if math.isnan(number) or math.isnan(across) or math.isnan(along):
            continue
        out = edge(on, across, exact) if not layer.ride and layer.spot != "none" else None
        if out is not None and placing.is_drawn(layer, row):
            sideways = xs is not None and out.way[0] and not on.lying
            place_arrow(layer, row, out, placing, (number, float(xs[row]) if xs is not None and sideways else None))
            continue
        size = layer.size or _row_size(layer, on)
        held = placing.data.picture(layer.symbol) if layer.symbol else None
        wide, tall = (size, size)
        if held is not None:
            w, h = proportions(held)
            wide, tall = size * w / max(w, h), size * h / max(w, h)
        if layer.ride:
            along = _ridden(layer, on, along, wide if on.lying else tall)
            cx, cy = on.point(across, along)
            placing.obstacles.append(Rect(cx - wide / 2, cy - tall / 2, wide, tall))
        x, y = on.point(across, along)
        area = Rect(x - wide / 2, y - tall / 2, wide, tall)
        if not placing.is_drawn(layer, row):
            placing.mark(layer, row, number, area)
            continue
        filling = placing.filling(layer, row)
        fill, tone = filling.fill, filling.tone
        colour = style.solid(fill, tone)
        if layer.ride and fill is None:
            colour = _riding_colour(layer, placing, row, (x, y))
        if held is not None:
            items: tuple[Primitive, ...] = (picture(held, area, colour),)
            path = recorded(box, area)
        else:
            path = recorded(spot, x, y, size, layer.spot, on.lying)
            plain = layer.spot in ("tick", "bar", "cross")
            edged = (None if plain else style.ground, style.strokes.rim) if filling.edge is None else (
                (filling.edge, filling.edge_width)
            )  # fmt: skip
            items = (Shape(path, colour, *edged),) if path.verbs else ()
            area = path.bounds if path.verbs else area
        drawing = MarkDrawing(
            path=path if path.verbs else None, fill=colour, items=items, dressed=fill, tone=tone, visible=bool(items)
        )
        placing.put(layer, MarkSource(placing.id(row), placing.wording.says(layer, row)), number, area, drawing)
        text = placing.wording.text(layer, row)
        if text and layer.label is not None:
            reach = _reach(layer, on, wide if on.lying else tall)
            spots = (scattered_spots if layer.x else point_spots)(
                _signed(layer.label, placing.wording.figure(layer, row)),
                x,
                y,
                reach,
                ink(layer.label, style, None),
                on.lying,
            )
            placing.label(layer, placing.id(row), text, spots, LabelStyle(placing.sizes.text, (x, y)))


def _reach(layer: Points, on: Plane, size: float) -> float:
    """How far from a point its label keeps: past its shape; past the bar it stands on where it has none."""
    if layer.spot in ("tick", "bar"):
        return 2.0
    if layer.spot == "none" and not layer.symbol:
        return on.thickness * 0.18 if layer.label is not None and layer.label.position == "beside" else 1.0
    return size / 2


def _signed(label: Label, figure: float) -> Label:
    """A label that stands by its figure's sign: above it, or below where the figure is negative."""
    if label.position != "by sign":
        return label
    return msgspec.structs.replace(label, position="below" if figure < 0 else "above")


def _row_size(layer: Points, on: Plane) -> float:
    """What a row's bar leaves room for."""
    return max(4.0, on.thickness * (1.0 if layer.spot in ("tick", "bar") else 0.62))


def _ridden(layer: Points, on: Plane, along: float, long: float) -> float:
    """Where a riding symbol's middle stands: inside the end of the value, or just beyond it where that is too short;
    never beyond the plot."""
    inset = long / 2 + layer.padding
    base = on.along(on.axis(layer.second).inside(0.0), layer.second)
    forward = 1 if on.lying else -1
    fits = abs(along - base) >= long + 2 * layer.padding
    direction = forward if (along - base) * forward >= 0 else -forward
    at = along - direction * inset if fits else along + direction * inset
    low, high = (on.plot.x, on.plot.right) if on.lying else (on.plot.y, on.plot.bottom)
    return min(max(at, low + long / 2), high - long / 2) if high - low > long else (low + high) / 2


def _riding_colour(layer: Points, placing: Placing, row: int, at: tuple[float, float]) -> Colour:
    """The colour that reads best on the bar the symbol rides on; its bar's own colour beyond it."""
    for mark in reversed(placing.marks):
        if mark.row == placing.id(row) and mark.block is not None and mark.fill is not None and mark.visible:
            box_ = mark.block.rect
            if box_.x <= at[0] <= box_.right and box_.y <= at[1] <= box_.bottom:
                return placing.style.on(mark.fill)
    return placing.style.solid(layer.fill, layer.tone)


def _places(layer: Points, on: Plane, placing: Placing) -> None:
    """Labels of rows at a fixed place along the value axis, in a gap, or in a strip of their own."""
    along = on.along_share(layer.at or 0.0)
    strip = on.strips.get(layer.key)
    if strip is not None:
        along = strip.start + strip.width if on.lying else strip.start + strip.width / 2
    for row, number in enumerate(map(float, placing.data.column(layer.values))):
        if math.isnan(number):
            continue
        across = on.row_start(row) - on.gap / 2 if layer.between else on.row_middle(row)
        x, y = on.point(across, along)
        placing.put(layer, MarkSource(placing.id(row), placing.wording.says(layer, row)), number, Rect(x, y, 0.0, 0.0))
        text = placing.wording.text(layer, row)
        if not text or layer.label is None or row % on.every:
            continue
        colour = ink(layer.label, placing.style, None)
        size = min(placing.sizes.text, on.name_size) if strip is not None else placing.sizes.small
        most = on.pitch * on.every if not on.lying else math.inf
        if strip is not None:
            spot_ = LabelSpot(x, y, "end" if on.lying else "middle", "middle", colour, width=most)
        elif layer.between:
            spot_ = _in_gap(layer, row, text, (x, y), on, placing)
        else:
            spot_ = LabelSpot(x, y, "middle", "middle", colour, width=most)
        placing.label(layer, placing.id(row), text, [spot_], LabelStyle(size, in_column=strip is not None and on.lying))


def _in_gap(layer: Points, row: int, text: str, at: tuple[float, float], on: Plane, placing: Placing) -> LabelSpot:
    """The gap before a row; just past its flank where that is too narrow to hold the label."""
    colour = ink(layer.label, placing.style, None)
    high = on.gap / 1.05 if on.lying else math.inf
    most = on.gap if not on.lying else math.inf
    span = placing.spans.get(layer.on)
    plain = LabelSpot(*at, "middle", "middle", colour, height=high, width=most)
    if span is None:
        return plain
    size = placing.sizes.small
    start, end = (float(side[row - 1] + side[row]) / 2 for side in (span.starts, span.ends))
    room = abs(on.along(end) - on.along(start))
    across = on.row_start(row) - on.gap / 2
    if on.lying and width(text, placing.style.face, size) + AIR * size > room:
        past = on.along(max(float(span.ends[row - 1]), float(span.ends[row])))
        return LabelSpot(past, across, "start", "middle", colour, sx=AIR, height=high)
    if not on.lying and 1.3 * size > room:
        return LabelSpot(across, on.along(end), "middle", "middle", colour, sy=-0.75, width=most)
    return plain


class PointsKind(Kind[Points]):
    spec = Points
    mark = MarkKind("point", shows_helpers=False, bars_texts=True)
    places = ((Plane, place),)
    plain = addable = True
    is_course = True
    fields = (
        Field("Shape", "Shape", "spot", "choice", choices(SpotForm), does="The shape at each value."),
        Field("Shape", "Symbol", "symbol", "symbol", does="The symbol drawn for each value or unit."),
        Field("Shape", "Size", "size", "number", unit="pt", does="How large each mark is, in points."),
    )

    def figures(self, layer: Points, context: Context) -> list[float]:
        return column_figures(layer, context) if layer.at is None else []

    def edge_room(self, layer: Points) -> float | None:
        return 0.03 if layer.x else None

    def labels_beyond(self, layer: Points, lying: bool) -> bool:
        return layer.at is None

    def strip_heading(self, layer: Points) -> str | None:
        return layer.heading if layer.beside and layer.label is not None else None

    def entries(self, layer: Points, context: Context) -> list[LegendEntry]:
        return super().entries(layer, context) if layer.at is None else []

    def key(self, item: LegendEntry, layer: Points, chip: Rect, context: Context) -> tuple[Primitive, ...]:
        colour = context.style.solid(item.fill, item.tone)
        held = context.data.picture(layer.symbol) if layer.symbol else None
        if held is not None:
            return (picture(held, chip, colour),)
        form = "bar" if layer.spot == "tick" else layer.spot
        return (Shape(recorded(spot, *chip.center, chip.width, form), colour),)


KIND = PointsKind()
