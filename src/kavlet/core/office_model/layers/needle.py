"""Needle: two points on axes over the dial, whose places follow from the angle's cell."""

import math

from kavlet.core.charts.frame import Polar
from kavlet.core.charts.needle import Needle
from kavlet.core.office_model.chart_model import DataPoint, Series, Stroke
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels
from kavlet.core.values.colour import Colour

THICK = 3.0  # points
SLICE = 3.0  # degrees, of a needle that is a slice


def tell(layer: Needle, to: ChartConverter) -> None:
    """Add the needle."""
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
            as_ring=pointing(layer.name, angle, colour, to),
        )
    )


def pointing(name: str, angle: str, colour: Colour, to: ChartConverter) -> Series:
    """A ring with one thin slice at an angle, clockwise from the top; `angle` is a formula's text in degrees."""
    assert isinstance(to.chart.frame, Polar)
    first = f"MAX(0;MOD({angle}-{to.chart.frame.start:g};360)-{SLICE / 2:g})"
    values = to.workings.formulas(f"{name}: ring", [first, f"{SLICE:g}", f"360-{SLICE:g}-({first})"])
    return Series(
        name=to.workings.one(name),
        names=to.workings.column("parts of a needle", ["before", "needle", "after"]),
        values=values,
        fill=colour,
        points=(DataPoint(0, None), DataPoint(1, colour), DataPoint(2, None)),
        listed=False,
    )
