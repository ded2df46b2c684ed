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


def tell(layer: Needle, converter: ChartConverter) -> None:
    """Add the needle."""
    if layer.helper or layer.row not in converter.data.ids or not isinstance(converter.chart.frame, Polar):
        return
    index = converter.data.ids.index(layer.row)
    if math.isnan(converter.data.column(layer.values)[index]):
        return
    angle = converter.at(layer.values, index)
    x = converter.workings.formulas(f"{layer.name}: x", ["0", f"{layer.length:g}*SIN(RADIANS({angle}))"])
    y = converter.workings.formulas(f"{layer.name}: y", ["0", f"{layer.length:g}*COS(RADIANS({angle}))"])
    colour = converter.style.solid(layer.fill, layer.tone) if layer.fill is not None else converter.style.ink
    converter.overlay().series.append(
        Series(
            name=converter.name(layer),
            x=x,
            values=y,
            fill=colour,
            line=Stroke(colour, THICK),
            labels=labels(layer, converter, rows=(layer.row, -1)),
            listed=False,
            as_ring=pointing(layer.name, angle, colour, converter),
        )
    )


def pointing(name: str, angle: str, colour: Colour, converter: ChartConverter) -> Series:
    """A ring with one thin slice at an angle, clockwise from the top; `angle` is a formula's text in degrees."""
    assert isinstance(converter.chart.frame, Polar)
    first = f"MAX(0;MOD({angle}-{converter.chart.frame.start:g};360)-{SLICE / 2:g})"
    values = converter.workings.formulas(f"{name}: ring", [first, f"{SLICE:g}", f"360-{SLICE:g}-({first})"])
    return Series(
        name=converter.workings.one(name),
        names=converter.workings.column("parts of a needle", ["before", "needle", "after"]),
        values=values,
        fill=colour,
        points=(DataPoint(0, None), DataPoint(1, colour), DataPoint(2, None)),
        listed=False,
    )
