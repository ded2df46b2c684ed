"""Needle: two points on axes over the dial, whose places follow from the angle's cell."""

import math

from kavlet.core.charts.frame import Polar
from kavlet.core.charts.layer import Layer
from kavlet.core.charts.needle import Needle
from kavlet.core.plain.labels import labels
from kavlet.core.plain.model import Series, Stroke
from kavlet.core.plain.telling import Telling

THICK = 3.0  # points


def tell(layer: Layer, to: Telling) -> None:
    """Add the needle."""
    assert isinstance(layer, Needle)
    if layer.helper or layer.row not in to.data.ids or not isinstance(to.chart.frame, Polar):
        return
    index = to.data.ids.index(layer.row)
    if math.isnan(to.data.column(layer.values)[index]):
        return
    angle = to.at(layer.values, index)
    x = to.workings.formulas(f"{layer.name}: x", ["0", f"{layer.length:g}*SIN(RADIANS({angle}))"])
    y = to.workings.formulas(f"{layer.name}: y", ["0", f"{layer.length:g}*COS(RADIANS({angle}))"])
    colour = to.style.solid(layer.fill, layer.tone) if layer.fill is not None else to.style.ink
    to.overlay().series.append(
        Series(
            name=to.name(layer),
            x=x,
            values=y,
            fill=colour,
            line=Stroke(colour, THICK),
            labels=labels(layer, to, rows=(layer.row, -1)),
            listed=False,
        )
    )
