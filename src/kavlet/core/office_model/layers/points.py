"""Points: markers, symbols, or places that only carry labels."""

import msgspec

from kavlet.core.charts.points import Points
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, Marker, PictureModel, Series, Stroke
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels
from kavlet.core.office_model.layers.line import MARKERS
from kavlet.core.styling.fills import PictureFill

RIDING = 18.0  # points; a symbol's size where the bar's breadth gave it
FILLED = ("disc", "square", "diamond", "triangle")
MAX_MARKER_SIZE = 72.0  # points of a marker (ISO/IEC 29500-1, 21.2.3.24)


def tell(layer: Points, converter: ChartConverter) -> None:
    """Add points."""
    if layer.helper:
        return
    marker: Marker = "none" if layer.spot == "none" and not layer.symbol else MARKERS.get(layer.spot, "disc")
    picture = None
    if layer.symbol:
        held = converter.picture(PictureFill(layer.symbol, "stretched"), layer.tone, 1.0)
        picture = held if isinstance(held, PictureModel) else None
        marker = "picture" if picture is not None else "disc"
    fill, points = converter.dressed(layer) if marker != "none" else (None, ())
    marks = [mark for (key, _), mark in converter.marks.items() if key == layer.key and mark.visible]
    size = layer.size or max((max(mark.bounds.width, mark.bounds.height) for mark in marks), default=RIDING)
    over = layer.at is not None or layer.between or (converter.lying and not layer.x)
    made = Series(
        name=converter.name(layer),
        names=converter.names(),
        values=converter.plotted(layer.values),
        fill=fill,
        marker=marker,
        marker_size=min(MAX_MARKER_SIZE, size),
        marker_edge=Stroke(converter.style.ground, converter.style.strokes.rim) if layer.spot in FILLED else None,
        marker_picture=picture,
        points=points,
        labels=labels(layer, converter, "" if over else layer.values),
        listed=layer.listed and marker != "none",
    )
    if layer.ride:
        converter.differ(say("symbols of “{name}” stand on the bars’ ends", name=layer.name))
    _put(layer, made, converter)


def _put(layer: Points, made: Series, converter: ChartConverter) -> None:

    if layer.x:
        converter.group("scatter").series.append(msgspec.structs.replace(made, x=converter.plotted(layer.x)))
        return
    if layer.at is None and not layer.between and not converter.lying:
        converter.group("lines", "second" if layer.second else "first").series.append(made)
        return
    places = converter.spots(
        "places between rows" if layer.between else "places of rows",
        [i + (0.0 if layer.between else 0.5) for i in range(converter.rows)],
    )
    along = made.values if layer.at is None else _along(layer.at, converter)
    if layer.beside:
        after = tuple(msgspec.structs.replace(one, place="right") for one in made.labels.points)
        made = msgspec.structs.replace(made, labels=msgspec.structs.replace(made.labels, points=after))
    x, y = converter.over_rows(places, along)
    converter.overlay().series.append(msgspec.structs.replace(made, x=x, values=y))


def _along(at: float, converter: ChartConverter) -> CellRange:
    axis = converter.axis("x" if converter.lying else "y")
    low, high = (axis.minimum, axis.maximum) if axis is not None else (0.0, 1.0)
    return converter.workings.column("place along", [low + at * (high - low)] * converter.rows)
