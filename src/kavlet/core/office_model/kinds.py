"""How each layer type is told in plain terms: one line each."""

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.layer import Layer
from kavlet.core.charts.line import Line
from kavlet.core.charts.needle import Needle
from kavlet.core.charts.points import Points
from kavlet.core.charts.ranges import Ranges
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.rings import Rings
from kavlet.core.charts.wedges import Wedges
from kavlet.core.office_model.converter import Tell
from kavlet.core.office_model.layers import (
    area,
    band,
    bars,
    bubbles,
    cells,
    flanks,
    line,
    needle,
    points,
    ranges,
    reference,
    rings,
    wedges,
)

TELL: dict[type[Layer], Tell] = {
    Bars: bars.tell,
    Flanks: flanks.tell,
    Line: line.tell,
    Area: area.tell,
    Points: points.tell,
    Bubbles: bubbles.tell,
    Wedges: wedges.tell,
    Rings: rings.tell,
    Cells: cells.tell,
    Needle: needle.tell,
    Band: band.tell,
    Reference: reference.tell,
    Ranges: ranges.tell,
}
