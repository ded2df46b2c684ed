"""Area: an area chart's series, stacked or not."""

from kavlet.core.charts.area import Area
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import Series
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels
from kavlet.core.office_model.layers.bars import GROUPINGS
from kavlet.core.office_model.layers.line import BLANKS
from kavlet.core.values.colour import Colour


def tell(layer: Area, converter: ChartConverter) -> None:
    """Add an area."""
    if layer.helper or converter.lying:
        if not layer.helper:
            converter.differ(say("“{name}” is missing", name=layer.name))
        return
    if layer.course != "straight":
        converter.differ(say("“{name}” goes straight from point to point", name=layer.name))
    fill = converter.filled(layer.fill, layer.tone)
    if layer.opacity < 1 and isinstance(fill, Colour):
        fill = fill.faded(layer.opacity)
    if BLANKS[layer.missing] != "gap":
        converter.blanks = BLANKS[layer.missing]
    converter.group("area", "second" if layer.second else "first", GROUPINGS[layer.stack]).series.append(
        Series(
            name=converter.name(layer),
            names=converter.names(),
            values=converter.plotted(layer.values),
            fill=fill,
            labels=labels(layer, converter, layer.values, seated=False),
            listed=layer.listed,
        )
    )
