"""A chart: layers on one frame, with its scale and its texts. A frozen specification that draws nothing."""

from msgspec import Struct

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.points import Points

Layer = Bars | Flanks | Points


class Scale(Struct, frozen=True, omit_defaults=True):
    """A linear value scale with locked ends."""

    minimum: float
    maximum: float
    visible: bool = False


class Texts(Struct, frozen=True, omit_defaults=True):
    """Title, subtitle and source line as written, after cells have been read."""

    title: str = ""
    subtitle: str = ""
    source: str = ""


class Chart(Struct, frozen=True, omit_defaults=True):
    """Layers on one Cartesian frame, back to front.

    `lying` lays the bars along x, first row at the top; otherwise they stand along y, first row at the left.
    `names` is the column that names the rows. `gap_width` is the gap between bars in percent of their thickness
    (ISO/IEC 29500, c:gapWidth).
    """

    layers: tuple[Layer, ...]
    scale: Scale
    names: str
    lying: bool = True
    gap_width: float = 50.0
    texts: Texts = Texts()
    alt_text: str = ""
