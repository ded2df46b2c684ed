"""How far figures reach along the value axes, and how much room labels need beyond the marks."""

import math

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.layer import Layer
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.context import Context
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.planes.scales import FixedScale, extent
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import PLAIN, NumberText

AIR = 0.45  # free space between a mark and its label, in font sizes
MAX_LABEL_SHARE = 0.4  # of an axis, kept free for labels beyond the marks


def along(context: Context, second: bool) -> tuple[float, float] | None:
    """Smallest and largest figure on an axis; None without any."""
    layers = [layer for layer in context.chart.layers if layer.second == second and not layer.hidden]
    found = extent([figure for layer in layers for figure in kind_of(layer).figures(layer, context)])
    return _padded(context, found)


def across(context: Context) -> tuple[float, float] | None:
    """Smallest and largest figure on a numeric across axis."""
    columns = [layer.across_column for layer in context.chart.layers if layer.across_column]
    return _padded(context, extent([float(number) for one in columns for number in context.data.column(one)]))


def axis_columns(chart: Chart, axis: str) -> list[str]:
    """The columns whose figures stand on an axis: along, second or across."""
    if axis == "across":
        return [layer.across_column for layer in chart.layers if layer.across_column]
    second = axis == "second"
    return [one.values for one in chart.layers if one.second == second and not (one.hidden or one.helper)]


def number_text(context: Context, axis: str) -> NumberText:
    """How the figures on an axis are written: as the first column on it that says so."""
    texts = context.data.number_texts
    return next((texts[column] for column in axis_columns(context.chart, axis) if column in texts), PLAIN)


def _padded(context: Context, span: tuple[float, float] | None) -> tuple[float, float] | None:
    """Room around bubbles and points on numeric axes, so that none lies on the plot's edge."""
    asked = [kind_of(layer).edge_room(layer) for layer in context.chart.layers]
    pads = [pad for pad in asked if pad is not None]
    if span is None or not pads:
        return span
    air = max(pads) * (span[1] - span[0])
    low, high = span[0] - air, span[1] + air
    return (low if span[0] < 0 or low > 0 else min(span[0], 0.0), high)


MAX_ITERATIONS = 24  # until discs at both ends of a scale fit between its ends


def holding(scale: FixedScale, axis: str, own: Scale, context: Context, room: Rect) -> FixedScale:
    """A scale (`along`, `second` or `across`, as set by `own`) reaching further than its ticks where discs stand at its
    ends, so that none lies on what stands around the plot; ends that were set stay."""
    side, lying = min(room.width, room.height), isinstance(context.chart.frame, Cartesian) and context.chart.frame.lying
    length = room.width if lying != (axis == "across") else room.height
    if scale.kind == "log" or length <= 0:
        return scale
    span = scale.maximum - scale.minimum
    discs: list[tuple[float, float]] = []  # where each stands, and its radius, as shares of the scale
    for layer in context.chart.layers:
        if layer.hidden or (axis != "across" and layer.second != (axis == "second")):
            continue
        column = layer.across_column if axis == "across" else layer.values
        radii = kind_of(layer).radii(layer, context, side)
        discs += [
            ((value - scale.minimum) / span, radius / length)
            for value, radius in zip(context.data.column(column) if radii else (), radii, strict=False)
            if not math.isnan(value) and radius > 0 and not scale.beyond(value)
        ]
    below = above = 0.0
    for _ in range(MAX_ITERATIONS if discs else 0):  # the further the scale reaches, the more of it a disc takes
        reach = 1 + below + above
        low = max(0.0, *(radius * reach - at for at, radius in discs))
        high = max(0.0, *(at + radius * reach - 1 for at, radius in discs))
        if max(low - below, high - above) < 1e-4:
            break
        below, above = max(below, low), max(above, high)
    return msgspec.structs.replace(
        scale,
        minimum=scale.minimum - below * span if own.minimum is None else scale.minimum,
        maximum=scale.maximum + above * span if own.maximum is None else scale.maximum,
    )


class AxisRequest(Struct, frozen=True):
    """A value axis for which room is asked: its scale, its length in points, and whether it lies."""

    scale: FixedScale
    length: float
    lying: bool


def label_room(context: Context, axis: AxisRequest) -> tuple[float, float]:
    """Points to keep free at the low and the high end of the value axis for labels that stand beyond the marks."""
    low = high = 0.0
    for layer in context.chart.layers:
        if layer.label is None or layer.helper or layer.hidden or layer.second:
            continue
        if not kind_of(layer).labels_beyond(layer, axis.lying):
            continue
        needs = _needs(layer, context, axis)
        low, high = max(low, needs[0]), max(high, needs[1])
    most = MAX_LABEL_SHARE * axis.length
    return min(low, most), min(high, most)


def _needs(layer: Layer, context: Context, axis: AxisRequest) -> tuple[float, float]:
    """What the labels of one layer need beyond the ends of an axis."""
    low = high = 0.0
    label, wording = layer.label, context.wording
    if label is None:
        return low, high
    face, size = context.style.bold, label.size or context.sizes.text
    for row, end in enumerate(map(float, kind_of(layer).ends(layer, context))):
        text = wording.text(layer, row) if not math.isnan(end) else ""
        if not text:
            continue
        lines = text.split("\n")
        need = 2 * AIR * size
        if axis.lying:
            need += max(width(one, face, size) for one in lines)
        else:
            need += (metrics(face).cap_height + 1.22 * (len(lines) - 1)) * size
        share = min(1.0, max(0.0, axis.scale.share(end)))
        below = label.position == "below" or (end < 0 and label.position != "above")
        if below != axis.scale.reversed:
            low = max(low, need - share * axis.length)
        else:
            high = max(high, need - (1 - share) * axis.length)
    return low, high
