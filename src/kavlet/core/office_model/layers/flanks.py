"""Flanks: lines from bar to bar as short lines of two points; bodies between bars have no plain form."""

import math

from kavlet.core.charts.flanks import Flanks
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import Series, Stroke
from kavlet.core.office_model.converter import ChartConverter


def tell(layer: Flanks, converter: ChartConverter) -> None:
    """Add the lines, each at the height of its first bar's figure."""
    if layer.helper:
        return
    if layer.form == "body":
        converter.differ(say("the pale bodies between the bars are missing"))
        return
    figures = converter.data.column(layer.values)
    line = Stroke(
        converter.colour(layer) if layer.fill is not None else converter.style.line, converter.style.strokes.hair
    )
    for i in range(converter.rows - 1):
        if math.isnan(figures[i]):
            continue
        at = converter.at(layer.values, i)
        level = converter.workings.formulas(f"{layer.name} {i + 1}", [at, at])
        x, y = converter.over_rows(converter.spots(f"from {i + 1} to {i + 2}", [i + 0.5, i + 1.5]), level)
        converter.overlay().series.append(
            Series(name=converter.workings.one(layer.name), x=x, values=y, line=line, listed=False)
        )
