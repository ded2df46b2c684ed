"""Flanks: lines from bar to bar as short lines of two points; bodies between bars have no plain form."""

import math

from kavlet.core.charts.flanks import Flanks
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import Series, Stroke
from kavlet.core.office_model.converter import ChartConverter


def tell(layer: Flanks, to: ChartConverter) -> None:
    """Add the lines, each at the height of its first bar's figure."""
    if layer.helper:
        return
    if layer.form == "body":
        to.differ(say("the pale bodies between the bars are missing"))
        return
    figures = to.data.column(layer.values)
    line = Stroke(to.colour(layer) if layer.fill is not None else to.style.line, to.style.strokes.hair)
    for i in range(to.rows - 1):
        if math.isnan(figures[i]):
            continue
        at = to.at(layer.values, i)
        level = to.workings.formulas(f"{layer.name} {i + 1}", [at, at])
        x, y = to.over_rows(to.spots(f"from {i + 1} to {i + 2}", [i + 0.5, i + 1.5]), level)
        to.overlay().series.append(Series(name=to.workings.one(layer.name), x=x, values=y, line=line, listed=False))
