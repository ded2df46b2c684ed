"""Whether what an author asks of a chart's scales can be drawn: asked before an edit is taken."""

from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.scale import Scale
from kavlet.core.document.document import Document
from kavlet.core.layout.figure import Figure
from kavlet.core.layout.planes.ticks import MAX_TICKS
from kavlet.core.messages import say
from kavlet.core.pipeline.stages import NO_PICTURE, picture_if_any
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.values.errors import KavletError


def check_scales(document: Document, values: Values, chart: str) -> Document:
    """The document itself. Raises KavletError where a scale of the chart has no way from its start to its end."""
    picture = picture_if_any(document, values, chart)
    frame = picture.build.chart.frame
    if picture is not NO_PICTURE and isinstance(frame, Cartesian):
        for scale in (frame.along, frame.second, frame.across):
            if scale is not None:
                _check_ends(scale)
        _check_steps(frame.along, picture.figure)
    return document


def _check_ends(scale: Scale) -> None:
    low, high = scale.minimum, scale.maximum
    if low is not None and high is not None and not low < high:
        raise KavletError(say("The scale starts at {low}, so it can’t end at {high}.", low=low, high=high))
    if scale.step is not None and not scale.step > 0:
        raise KavletError(say("The step of a scale is above 0, not {step}.", step=scale.step))
    if scale.kind == "log" and any(end is not None and not end > 0 for end in (low, high)):
        raise KavletError(say("A logarithmic scale has no place for 0 or less."))


def _check_steps(scale: Scale, figure: Figure) -> None:
    axis = next((axis for axis in figure.axes if axis.name in ("x", "y")), None)
    ticks = (axis.maximum - axis.minimum) / scale.step if axis is not None and scale.step is not None else 0.0
    if ticks > MAX_TICKS:
        raise KavletError(
            say("A step of {step} gives {count} ticks; at most {most} can be drawn.",
                step=scale.step, count=round(ticks), most=MAX_TICKS)
        )  # fmt: skip
