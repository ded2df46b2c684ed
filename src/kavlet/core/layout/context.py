"""What all of one panel's composing reads, as one value."""

from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.layout.data import Data
from kavlet.core.layout.furniture import Sizes
from kavlet.core.layout.stacks import Span, spans, with_places_kept
from kavlet.core.layout.texts.label_templates import Wording
from kavlet.core.styling.style import Style
from kavlet.core.values.geometry import Rect, Size

MIN_PLOT = 36.0  # points; a plot's side is never shorter
MIN_SHARE = 0.15  # of the sheet's


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

    @property
    def plot_by_hand(self) -> Rect | None:
        """Where its author put the plot on the sheet, never smaller than can be read; None where nobody did."""
        if self.chart.plot is None:
            return None
        (left, top, right, bottom), sheet = self.chart.plot, self.sheet
        wide = max(least_plot(sheet.width), (1 - left - right) * sheet.width)
        tall = max(least_plot(sheet.height), (1 - top - bottom) * sheet.height)
        x, y = min(left * sheet.width, sheet.width - wide), min(top * sheet.height, sheet.height - tall)
        return Rect(max(0.0, x), max(0.0, y), wide, tall)


def least_plot(side: float) -> float:
    """The least length of a plot's side on a sheet of a length, in points."""
    return min(side, max(MIN_PLOT, MIN_SHARE * side))


def context(panel: Panel, style: Style, sizes: Sizes, sheet: Size, number: int = 0) -> Context:
    """The context of the panel with that number."""
    chart, data = with_places_kept(panel.chart), panel.data
    words = Wording(chart, data)
    return Context(chart, data, style, sizes, words, spans(chart, data), sheet, number, panel.name)
