"""Places bars: one per row, stacked on what came before, square or tapered."""

import math

from kavlet.core.charts.bars import Bars
from kavlet.core.compose.figure import Mark, Text
from kavlet.core.compose.labels import on_bar
from kavlet.core.compose.placing import Corner, Placing
from kavlet.core.figures.ranges import Floats
from kavlet.core.scene.path import recorded
from kavlet.core.shapes.box import quad
from kavlet.core.text.numbers import written
from kavlet.core.values.geometry import Rect


def place(layer: Bars, series: int, to: Placing) -> tuple[list[Mark], list[Text]]:
    """The marks and labels of a layer of bars, and its ends for the layers stacked on it. No value, no mark."""
    numbers = to.data.numbers[layer.values]
    starts = to.ends if layer.stacked else [0.0] * len(numbers)
    ends = [start if math.isnan(number) else start + number for start, number in zip(starts, numbers, strict=True)]
    to.ends = ends
    shown = [math.nan if math.isnan(number) else end for number, end in zip(numbers, ends, strict=True)]
    to.spans[layer.key] = (starts, shown)
    fill = to.style.fill(layer.key, layer.tone)
    marks: list[Mark] = []
    texts: list[Text] = []
    for row, number in enumerate(numbers):
        if math.isnan(number):
            continue
        corners = outline(layer, to, starts, ends, row)
        name = to.names[row]
        label = written(float(number), layer.label.number if layer.label else to.plain, to.data.locale)
        path = None if layer.helper else recorded(lambda pen, corners=corners: quad(pen, *corners))  # type: ignore[misc]
        says = f"{name}: {label}" if name else label
        marks.append(
            Mark(
                layer.name, layer.key, "bar", row, series, layer.helper, not layer.helper, float(number),
                Rect.around(corners), path, None if layer.helper else fill, says,
            )
        )  # fmt: skip
        if layer.label and not layer.helper:
            text = on_bar(layer, label, row, corners, fill, to)
            if text:
                texts.append(text)
    return marks, texts


def outline(layer: Bars, to: Placing, starts: Floats, ends: Floats, row: int) -> list[Corner]:
    """The four corners of a row's bar: start and end of its leading edge, then end and start of its trailing edge.

    A tapered bar's flanks point at the next row's leading edge, so that the gap seems cut out of one body::

        a---------------b        leading edge of the row
         \\             /
          d-----------c          trailing edge
           . . . . . .           gap
            a'-----b'            leading edge of the next row
    """
    lay = to.layout
    lead = lay.row_start(row)
    trail = lead + lay.thickness
    start, end = float(starts[row]), float(ends[row])
    far_start, far_end = start, end
    if layer.form == "tapered" and row + 1 < len(starts) and not math.isnan(to.data.numbers[layer.values][row + 1]):
        share = lay.thickness / lay.pitch
        far_start += (float(starts[row + 1]) - start) * share
        far_end += (float(ends[row + 1]) - end) * share
    return [
        lay.point(lead, lay.along(start)),
        lay.point(lead, lay.along(end)),
        lay.point(trail, lay.along(far_end)),
        lay.point(trail, lay.along(far_start)),
    ]
