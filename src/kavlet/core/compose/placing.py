"""What the layers of one chart share while they are placed, back to front."""

from kavlet.core.compose.data import Data
from kavlet.core.compose.layout import Layout
from kavlet.core.dress.style import Style
from kavlet.core.figures.ranges import Floats
from kavlet.core.values.number_text import PLAIN, NumberText

Corner = tuple[float, float]


class Placing:
    """The layout, the data and the style; and, as layers are placed, where each row's stack has come to.

    `spans` keeps the start and end of every placed layer of bars by key, for layers that refer to them.
    """

    def __init__(self, layout: Layout, data: Data, style: Style, names: list[str]) -> None:
        self.layout = layout
        self.data = data
        self.style = style
        self.names = names
        self.ends: Floats = [0.0] * data.rows
        self.spans: dict[str, tuple[Floats, Floats]] = {}
        self.dropped = 0
        self.plain: NumberText = PLAIN

    def shown(self, row: int) -> bool:
        """Whether the row's texts are shown; where rows are too dense, only each so many-th is."""
        return row % self.layout.every == 0
