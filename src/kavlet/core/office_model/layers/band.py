"""Band: two bars without gaps on axes of their own, the lower one unseen."""

from kavlet.core.charts.band import Band
from kavlet.core.charts.frame import Cartesian
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import Series
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.values.colour import Colour

MAX_OPAQUE = 0.35  # the band lies over the bars there, so they must show through


def tell(layer: Band, converter: ChartConverter) -> None:
    """Add a band."""
    frame = converter.chart.frame
    taken = isinstance(frame, Cartesian) and frame.second is not None
    if layer.helper or not isinstance(frame, Cartesian):
        return
    if taken or frame.across.kind != "category" or layer.low < 0:
        converter.differ(say("“{name}” is missing", name=layer.name))
        return
    draft = converter.group("bars", "second", "stacked", 0.0, 100.0)
    mark = next((mark for (key, _), mark in converter.marks.items() if key == layer.key), None)
    fill = mark.fill if mark is not None and mark.fill is not None else converter.colour(layer)
    before = converter.workings.column(f"{layer.name}: below", [float(layer.low)] * converter.rows)
    wide = converter.workings.column(f"{layer.name}: breadth", [float(layer.high - layer.low)] * converter.rows)
    converter.differ(say("“{name}” lies over the bars", name=layer.name))
    seen = Colour(*fill.rgb, min(fill.alpha, MAX_OPAQUE))
    draft.series.append(Series(name=converter.workings.one(f"{layer.name}, below"), values=before, listed=False))
    draft.series.append(Series(name=converter.workings.one(layer.name), values=wide, fill=seen, listed=layer.listed))
    converter.same_scale = True
