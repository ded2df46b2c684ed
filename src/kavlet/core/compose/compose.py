"""From a specification and its values to a figure: lay out, then place layer by layer, back to front."""

from collections.abc import Callable
from typing import Any

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.points import Points
from kavlet.core.compose import bars, flanks, points, texts
from kavlet.core.compose.data import Data
from kavlet.core.compose.figure import Axis, Figure, Mark, Text
from kavlet.core.compose.layout import Layout
from kavlet.core.compose.placing import Placing
from kavlet.core.dress.style import Style

# One file per layer type, of the same name as its specification's.
PLACERS: dict[type, Callable[[Any, int, Placing], tuple[list[Mark], list[Text]]]] = {
    Bars: bars.place,
    Flanks: flanks.place,
    Points: points.place,
}


def place(chart: Chart, data: Data, style: Style, layout: Layout) -> Figure:
    """Everything in its place. Layers refer to bars anywhere in the chart, so bars are placed first and sorted back."""
    to = Placing(layout, data, style, data.names(chart.names))
    placed: dict[int, tuple[list[Mark], list[Text]]] = {}
    in_turn = sorted(enumerate(chart.layers), key=lambda pair: not isinstance(pair[1], Bars))
    for series, layer in in_turn:
        placed[series] = PLACERS[type(layer)](layer, series, to)
    labels = [text for series in sorted(placed) for text in placed[series][1]]
    return Figure(
        size=layout.size,
        plot=layout.plot,
        ground=style.ground,
        marks=tuple(mark for series in sorted(placed) for mark in placed[series][0]),
        texts=(*texts.around(layout, style), *texts.names(layout, style), *texts.headings(layout, style), *labels),
        axes=(Axis("x" if chart.lying else "y", chart.scale.minimum, chart.scale.maximum, chart.scale.visible),),
        legend=tuple(layer.name for layer in chart.layers if isinstance(layer, Bars) and not layer.helper),
        title=chart.texts.title,
        alt_text=chart.alt_text,
        dropped=to.dropped,
    )
