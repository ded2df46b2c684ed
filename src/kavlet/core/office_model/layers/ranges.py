"""Ranges: error bars on unseen points at the middles, or bars that float from low to high."""

import msgspec

from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.ranges import Ranges
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, ErrorBars, Series, Stroke
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels
from kavlet.core.office_model.layers.line import MARKERS


def tell(layer: Ranges, converter: ChartConverter) -> None:
    """Add ranges."""
    frame = converter.chart.frame
    if layer.helper or not isinstance(frame, Cartesian):
        return
    middle, plus, minus = _reach(layer, converter)
    colour = converter.style.solid(layer.fill, layer.tone) if layer.fill is not None else converter.style.ink
    thick = layer.cap if layer.form == "bar" else layer.width
    if layer.form == "bar":
        converter.differ(say("ranges of “{name}” are thick lines", name=layer.name))
    if layer.on and sum(one.key != layer.on and one.kind == "bars" for one in _bars(converter)) > 0:
        converter.differ(say("ranges of “{name}” stand in the middle of their row", name=layer.name))
    made = Series(
        name=converter.workings.one(layer.name),
        names=converter.names(),
        values=middle,
        fill=colour,
        marker=MARKERS.get(layer.spot, "disc") if layer.spot != "none" else "none",
        errors=ErrorBars(plus, minus, Stroke(colour, thick), across=converter.lying, caps=layer.form == "whisker"),
        labels=labels(layer, converter, "" if converter.lying else layer.values),
        listed=layer.listed,
    )

    if layer.x:
        converter.group("scatter").series.append(msgspec.structs.replace(made, x=converter.plotted(layer.x)))
    elif converter.lying:
        places = converter.spots("places of rows", [i + 0.5 for i in range(converter.rows)])
        x, y = converter.over_rows(places, middle)
        converter.overlay().series.append(msgspec.structs.replace(made, x=x, values=y))
    else:
        converter.group("lines", "second" if layer.second else "first").series.append(made)


class _Bar:
    def __init__(self, key: str, kind: str) -> None:
        self.key, self.kind = key, kind


def _bars(converter: ChartConverter) -> list[_Bar]:
    from kavlet.core.charts.bars import Bars

    frame = converter.chart.frame
    apart = isinstance(frame, Cartesian) and frame.overlap < 100
    return [
        _Bar(one.key, "bars")
        for one in converter.chart.layers
        if isinstance(one, Bars) and one.stack == "none" and apart
    ]


def _reach(layer: Ranges, converter: ChartConverter) -> tuple[CellRange, CellRange, CellRange]:
    """Where the middles are, and how far ranges reach above and below them."""
    rows = range(converter.rows)
    low = [converter.at(layer.low, i) for i in rows]
    high = [converter.at(layer.high, i) for i in rows]
    mid = [converter.at(layer.values, i) for i in rows] if layer.values else low
    middle = converter.workings.formulas(f"{layer.name}: middle", [f"IF(ISNUMBER({one});{one};NA())" for one in mid])
    if layer.by == "distance":
        up, down = high, low
    else:
        up = [f"{h}-{m}" for h, m in zip(high, mid, strict=True)]
        down = [f"{m}-{one}" for one, m in zip(low, mid, strict=True)]
    return (
        middle,
        converter.workings.formulas(f"{layer.name}: up", [f"IFERROR({one};0)" for one in up]),
        converter.workings.formulas(f"{layer.name}: down", [f"IFERROR({one};0)" for one in down]),
    )
