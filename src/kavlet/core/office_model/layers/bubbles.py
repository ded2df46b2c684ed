"""Bubbles: a bubble chart's series."""

from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.office_model.chart_model import DataPoint, Series
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels
from kavlet.core.values.colour import Colour

USUAL = 0.25  # the largest bubble's share of the plot's shorter side at a scale of 100 (common practice)


def tell(layer: Bubbles, converter: ChartConverter) -> None:
    """Add bubbles."""
    if layer.helper:
        return
    fill, points = converter.dressed(layer)
    if isinstance(fill, Colour):
        fill = fill.faded(layer.opacity)
    points = tuple(
        DataPoint(one.index, one.fill.faded(layer.opacity) if isinstance(one.fill, Colour) else one.fill, one.edge)
        for one in points
    )
    draft = converter.group("bubbles")
    draft.by_area = layer.by == "area"
    draft.bubble_scale = max(1.0, min(300.0, 100.0 * layer.largest / USUAL))
    draft.series.append(
        Series(
            name=converter.name(layer),
            x=converter.plotted(layer.x),
            values=converter.plotted(layer.values),
            sizes=converter.cells(layer.sizes),
            fill=fill,
            points=points,
            labels=labels(layer, converter, layer.values),
            listed=layer.listed,
        )
    )
