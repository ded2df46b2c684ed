"""Number texts that were set by hand in part: what was not set stays as the column writes its figures."""

from collections.abc import Iterable, Mapping

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.looks import Look, parse
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.frames.reach import axis_columns
from kavlet.core.values.number_text import PLAIN, NumberText

NUMBER = "number"


def numbered(chart: Chart, looks: Iterable[str], texts: Mapping[str, NumberText]) -> Chart:
    """The chart with a number text of its own wherever a look sets a part of one that followed its column."""
    for path in looks:
        look = parse(path)
        if NUMBER not in look.field[:-1] or look.row is not None:
            continue
        chart = _of_label(chart, look, texts) if look.layer else _of_axis(chart, look, texts)
    return chart


def _of_label(chart: Chart, look: Look, texts: Mapping[str, NumberText]) -> Chart:
    layer = chart.layer(look.layer)
    if layer is None or layer.label is None or layer.label.number is not None:
        return chart
    label = msgspec.structs.replace(layer.label, number=texts.get(layer.figure_column, PLAIN))
    changed = msgspec.structs.replace(layer, label=label)
    return msgspec.structs.replace(chart, layers=tuple(changed if one is layer else one for one in chart.layers))


def _of_axis(chart: Chart, look: Look, texts: Mapping[str, NumberText]) -> Chart:
    axis = look.field[1] if look.field[0] == "frame" else ""
    scale = getattr(chart.frame, axis, None)
    if not isinstance(scale, Scale) or scale.number is not None:
        return chart
    columns = axis_columns(chart, axis)
    found = next((texts[column] for column in columns if column in texts), PLAIN)
    held = msgspec.structs.replace(found, most_decimals=None, least_decimals=0, zero=None, missing="")
    frame = msgspec.structs.replace(chart.frame, **{axis: msgspec.structs.replace(scale, number=held)})
    return msgspec.structs.replace(chart, frame=frame)
