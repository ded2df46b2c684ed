"""What the layers of one chart share while they are placed."""

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.layer import Row
from kavlet.core.compose.data import Data
from kavlet.core.compose.figure import Mark, PlacedText
from kavlet.core.compose.furniture import Sizes
from kavlet.core.compose.marks.painting import fill_of
from kavlet.core.compose.marks.stacks import Span
from kavlet.core.compose.words.fan import Fanned
from kavlet.core.compose.words.labels import Wanted
from kavlet.core.compose.words.wording import Wording
from kavlet.core.dress.fills import Fill
from kavlet.core.dress.style import Style
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect


class Placing:
    """The chart, its data, style and words; and what its layers have placed so far: marks, texts,
    and labels to be settled."""

    def __init__(
        self, chart: Chart, data: Data, style: Style, sizes: Sizes, wording: Wording, spans: dict[str, Span],
        panel: int = 0,
    ) -> None:  # fmt: skip
        self.chart = chart
        self.data = data
        self.style = style
        self.sizes = sizes
        self.wording = wording
        self.spans = spans
        self.panel = panel
        self.marks: list[Mark] = []
        self.labels: list[Wanted] = []
        self.fans: list[Fanned] = []
        self.texts: list[PlacedText] = []
        self.obstacles: list[Rect] = []

    def id(self, row: int) -> int:
        """The table's row of a row shown here."""
        return self.data.ids[row]

    def own(self, layer: AnyLayer, row: int) -> Row:
        """What is set for one row of a layer."""
        return layer.rows.get(self.id(row), Row())

    def fill(self, layer: AnyLayer, row: int) -> tuple[Fill | None, int]:
        return fill_of(layer, self.id(row), row, self.data)

    def edge(self, layer: AnyLayer, row: int) -> tuple[Colour | None, float]:
        text = self.own(layer, row).edge or layer.edge
        return (self.style.colour(text), layer.edge_width) if text else (None, 0.0)

    def undrawn(self, layer: AnyLayer, kind: str, row: int, series: int, value: float, bounds: Rect) -> Mark:
        """The mark of a helper, or of a row its author hid: known, never seen."""
        return Mark(
            layer.name, layer.key, kind, self.id(row), series, layer.helper, False, value, bounds, panel=self.panel
        )
