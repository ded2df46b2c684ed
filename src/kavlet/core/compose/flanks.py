"""Places flanks: between each bar and the next, from one's trailing edge to the other's leading edge."""

import math

from kavlet.core.charts.flanks import Flanks
from kavlet.core.compose.figure import Mark, Text
from kavlet.core.compose.placing import Placing
from kavlet.core.scene.path import recorded
from kavlet.core.shapes.box import quad
from kavlet.core.values.geometry import Rect


def place(layer: Flanks, series: int, to: Placing) -> tuple[list[Mark], list[Text]]:
    """One mark per gap, for the row after it; none beside a row without a value."""
    starts, ends = to.spans[layer.of]
    fill = to.style.tint(to.style.fill(layer.of, 0))
    lay = to.layout
    marks: list[Mark] = []
    for row in range(1, len(starts)):
        if lay.gap <= 0 or math.isnan(ends[row - 1]) or math.isnan(ends[row]):
            continue
        above, below = lay.row_start(row) - lay.gap, lay.row_start(row)
        corners = (
            lay.point(above, lay.along(float(starts[row - 1]))),
            lay.point(above, lay.along(float(ends[row - 1]))),
            lay.point(below, lay.along(float(ends[row]))),
            lay.point(below, lay.along(float(starts[row]))),
        )
        path = recorded(lambda pen, corners=corners: quad(pen, *corners))  # type: ignore[misc]
        value = float(ends[row] - starts[row])
        marks.append(
            Mark(
                layer.name, layer.key, "flank", row, series, layer.helper, True, value,
                Rect.around(list(corners)), path, fill,
            )
        )  # fmt: skip
    return marks, []
