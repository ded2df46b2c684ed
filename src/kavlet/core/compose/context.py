"""What all of one panel's composing reads, as one value."""

from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.compose.data import Data
from kavlet.core.compose.furniture import Sizes
from kavlet.core.compose.stacks import Span, spans
from kavlet.core.compose.words.wording import Wording
from kavlet.core.dress.style import Style
from kavlet.core.values.geometry import Size


class Panel(Struct, frozen=True):
    """One of the charts that share a figure: its title, specification and data, and the id of the chart it shows."""

    title: str
    chart: Chart
    data: Data
    name: str = ""


class Context(Struct, frozen=True, eq=False):
    """A chart with its data, its look and font sizes, its words, where its stacks stand, the size of the whole sheet,
    which of the sheet's panels it is, and its id."""

    chart: Chart
    data: Data
    style: Style
    sizes: Sizes
    wording: Wording
    spans: dict[str, Span]
    sheet: Size
    panel: int = 0
    name: str = ""


def context(panel: Panel, style: Style, sizes: Sizes, sheet: Size, number: int = 0) -> Context:
    """The context of the panel with that number."""
    chart, data = panel.chart, panel.data
    words = Wording(chart, data)
    return Context(chart, data, style, sizes, words, spans(chart, data), sheet, number, panel.name)
