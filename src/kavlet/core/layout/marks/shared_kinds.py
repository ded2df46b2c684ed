"""What several kinds of layers answer alike."""

import math

from kavlet.core.charts.layer import Layer
from kavlet.core.layout.context import Context
from kavlet.core.layout.kind import LegendEntry
from kavlet.core.layout.painting import Filling, fill_of, painted
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive
from kavlet.core.shapes.spots import spot
from kavlet.core.values.geometry import Rect

STACKED = {"none": "side by side", "share": "100 %"}  # the words for how layers stack


def column_figures(layer: Layer, context: Context) -> list[float]:
    """All figures of the layer's column."""
    return list(map(float, context.data.column(layer.values)))


def row_entries(layer: Layer, context: Context) -> list[LegendEntry]:
    """An entry for each row that has a name and a value above zero."""
    data, names = context.data, context.wording.names
    numbers = data.column(layer.values)
    rows = [row for row in range(data.rows) if names[row] and not math.isnan(numbers[row]) and numbers[row] > 0]
    return [LegendEntry(names[row], *fill_of(layer, data.ids[row], row, data), layer, data.ids[row]) for row in rows]


def disc_key(item: LegendEntry, chip: Rect, context: Context) -> tuple[Primitive, ...]:
    """A disc beside the entry's name."""
    path = recorded(spot, *chip.center, chip.width, "disc")
    return painted(Filling(item.fill, item.tone), path, chip, "up", context)
