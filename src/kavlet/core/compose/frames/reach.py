"""How far figures reach along the value axes, and how much room labels need beyond the marks."""

import math

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.line import Line
from kavlet.core.charts.points import Points
from kavlet.core.charts.reference import Reference
from kavlet.core.compose.data import Data
from kavlet.core.compose.frames.scales import Scaled, extent
from kavlet.core.compose.marks.stacks import Span
from kavlet.core.compose.words.wording import Wording
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width

AIR = 0.45  # free space between a mark and its label, in font sizes
OUTSIDE = ("outside", "by sign", "above", "below")


def figures(layer: AnyLayer, data: Data, spans: dict[str, Span]) -> list[float]:
    """All figures of a layer that the value axis must hold."""
    if layer.hidden:
        return []
    if isinstance(layer, Bars | Area):
        span = spans[layer.key]
        return [*span.starts, *span.ends]
    if isinstance(layer, Points) and layer.at is not None:
        return []
    if isinstance(layer, Line | Points | Bubbles | Cells):
        return list(map(float, data.column(layer.values)))
    if isinstance(layer, Reference):
        return [reference_at(layer, data)]
    return [layer.low, layer.high] if isinstance(layer, Band) else []


def reference_at(layer: Reference, data: Data) -> float:
    """The value a reference line stands at: its column's first value, else its own."""
    held = [float(number) for number in data.column(layer.values) if not math.isnan(number)] if layer.values else []
    return held[0] if held else layer.at


def along(chart: Chart, data: Data, spans: dict[str, Span], second: bool) -> tuple[float, float] | None:
    """Smallest and largest figure on an axis; None without any."""
    found = extent(
        [figure for layer in chart.layers if layer.second == second for figure in figures(layer, data, spans)]
    )
    return _padded(chart, found)


def across(chart: Chart, data: Data) -> tuple[float, float] | None:
    """Smallest and largest figure on a numeric across axis."""
    columns = [layer.x for layer in chart.layers if isinstance(layer, Line | Points | Bubbles) and layer.x]
    return _padded(chart, extent([float(number) for column in columns for number in data.column(column)]))


def _padded(chart: Chart, span: tuple[float, float] | None) -> tuple[float, float] | None:
    """Room around bubbles and points on numeric axes, so that none lies on the plot's edge."""
    pads = [0.62 * layer.largest if isinstance(layer, Bubbles) else 0.03
            for layer in chart.layers if isinstance(layer, Bubbles | Points) and layer.x]  # fmt: skip
    if span is None or not pads:
        return span
    air = max(pads) * (span[1] - span[0])
    low, high = span[0] - air, span[1] + air
    return (low if span[0] < 0 or low > 0 else min(span[0], 0.0), high)


def label_room(
    chart: Chart, spans: dict[str, Span], scale: Scaled, wording: Wording, length: float, lying: bool, size: float,
    face: str,
) -> tuple[float, float]:  # fmt: skip
    """Points to keep free at the low and the high end of the value axis for labels that stand beyond the marks."""
    low = high = 0.0
    cap = metrics(face).cap_height
    for layer in chart.layers:
        if layer.label is None or layer.helper or layer.hidden or layer.second:
            continue
        is_bar = isinstance(layer, Bars)
        if not is_bar and not isinstance(layer, Line | Area | Points | Cells):
            continue
        if isinstance(layer, Points) and layer.at is not None:
            continue
        if is_bar and layer.label.position not in OUTSIDE:
            continue
        if lying and isinstance(layer, Line | Area):
            continue
        at_size = layer.label.size or size
        ends = spans[layer.key].ends if layer.key in spans else wording.data.column(layer.values)
        for row in range(wording.data.rows):
            end = float(ends[row])
            if isinstance(layer, Cells):
                end = min(float(math.ceil(end)), layer.wrap or math.inf) if not math.isnan(end) else end
            text = wording.text(layer, row) if not math.isnan(end) else ""
            if not text:
                continue
            lines = text.split("\n")
            need = max(width(one, face, at_size) for one in lines) + 2 * AIR * at_size if lying else (
                (cap + 1.22 * (len(lines) - 1)) * at_size + 2 * AIR * at_size
            )  # fmt: skip
            share = min(1.0, max(0.0, scale.share(end)))
            below = layer.label.position == "below" or (end < 0 and layer.label.position != "above")
            if below != scale.reversed:
                low = max(low, need - share * length) if share * length < need else low
            else:
                high = max(high, need - (1 - share) * length)
    most = 0.4 * length
    return min(low, most), min(high, most)
