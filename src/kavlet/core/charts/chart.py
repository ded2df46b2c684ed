"""A chart: layers on one frame, with its texts, legend and ink. A frozen specification that draws nothing."""

from msgspec import Struct

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.frame import Frame
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.line import Line
from kavlet.core.charts.needle import Needle
from kavlet.core.charts.points import Points
from kavlet.core.charts.ranges import Ranges
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.rings import Rings
from kavlet.core.charts.solid import Solid
from kavlet.core.charts.texts import Note, Text
from kavlet.core.charts.wedges import Wedges

AnyLayer = Bars | Flanks | Line | Area | Points | Bubbles | Wedges | Rings | Cells | Needle | Band | Reference | Ranges


class Chart(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Layers on one frame, back to front.

    `names` is the column that names the rows; `rows` picks the rows that are shown, all when None. `ink` goes from 0
    (bare) over 1 (quiet gridlines and scale) and 2 (axes) to 3 (fully ruled); what an axis sets itself wins. `margin`
    is the free space around all, in points, `type_scale` the size of all type as a share of the theme's; both follow
    the chart's size when None. `plot` holds the plot's insets by hand: shares of the chart's width and height at left,
    top, right, bottom.

    `alt_text` is its message in at most 250 characters, `long_text` a description of all it shows.

    `ground` is the colour behind all, the theme's where empty, `plot_ground` one behind the plot alone; each may run
    down to another, `ground_to` and `plot_to`. `ground_picture` covers the sheet and `plot_picture` the plot, each
    under a veil of its ground's colour, strong enough for texts to be read. `border` and `plot_border` are colours of a
    line around each, empty for none.
    """

    frame: Frame
    layers: tuple[AnyLayer, ...]
    names: str = ""
    rows: tuple[int, ...] | None = None
    title: Text = Text()
    subtitle: Text = Text()
    source: Text = Text()
    notes: tuple[Note, ...] = ()
    legend: Legend = Legend()
    ink: int = 0
    margin: float | None = None
    type_scale: float | None = None
    plot: tuple[float, float, float, float] | None = None
    ground: str = ""
    ground_to: str = ""
    ground_picture: str = ""
    ground_veil: float = 0.7
    border: str = ""
    border_width: float = 1.0
    plot_ground: str = ""
    plot_to: str = ""
    plot_picture: str = ""
    plot_veil: float = 0.7
    plot_border: str = ""
    solid: Solid | None = None
    alt_text: str = ""
    long_text: str = ""

    @property
    def has_bodies(self) -> bool:
        """Whether it has what can be solid: bars, wedges or rings."""
        return any(layer.has_body and not (layer.helper or layer.hidden) for layer in self.layers)

    @property
    def as_solid(self) -> Solid | None:
        """How its bodies are shown as a solid; None for a flat chart. Seen from the front, a solid still looks flat."""
        return self.solid if self.solid is not None and self.solid.on and self.has_bodies else None

    @property
    def main(self) -> str:
        """The key of the layer it is about: the first that is drawn, labelled or listed, and no mere join or place."""
        shown = [layer for layer in self.layers if not (layer.helper or layer.hidden or layer.joins)]
        listed = [layer for layer in shown if layer.listed]
        return (listed or shown or list(self.layers))[0].key if self.layers else ""

    def layer(self, key: str) -> AnyLayer | None:
        """The layer of a key; None where there is none."""
        return next((layer for layer in self.layers if layer.key == key), None)
