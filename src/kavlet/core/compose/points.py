"""Places points: a spot per row, at a share of the value axis, in the row or in the gap before it, with its label."""

import math

from kavlet.core.charts.points import Points
from kavlet.core.compose.figure import Mark, Text
from kavlet.core.compose.labels import at_point
from kavlet.core.compose.placing import Placing
from kavlet.core.text.numbers import written
from kavlet.core.values.geometry import Rect


def place(layer: Points, series: int, to: Placing) -> tuple[list[Mark], list[Text]]:
    """The spots (drawn with no shape) and their labels. No value, no spot."""
    lay = to.layout
    along = lay.along(lay.minimum + layer.at * (lay.maximum - lay.minimum))
    if layer.beside and layer.key in lay.margins:
        strip = lay.margins[layer.key]
        along = strip.start + strip.width if lay.lying else strip.start + strip.width / 2
    marks: list[Mark] = []
    texts: list[Text] = []
    for row, number in enumerate(to.data.numbers[layer.values]):
        if math.isnan(number):
            continue
        across = lay.row_start(row) + (-lay.gap / 2 if layer.between else lay.thickness / 2)
        x, y = lay.point(across, along)
        label = written(float(number), layer.label.number if layer.label else to.plain, to.data.locale)
        says = f"{to.names[row]}, {layer.name}: {label}"
        marks.append(
            Mark(
                layer.name, layer.key, "point", row, series, layer.helper, False, float(number),
                Rect(x, y, 0.0, 0.0), None, None, says,
            )
        )  # fmt: skip
        if layer.label and not layer.helper:
            text = at_point(layer, label, row, (x, y), to)
            if text:
                texts.append(text)
    return marks, texts
