"""Line: a line chart's series, or points joined on two numeric axes."""

from typing import Literal

import msgspec

from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.line import Line
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import Marker, Series, Stroke
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels

MARKERS: dict[str, Marker] = {
    "none": "none", "disc": "disc", "ring": "disc", "square": "square", "diamond": "diamond",
    "triangle": "triangle", "cross": "cross", "plus": "plus", "tick": "dash",
}  # fmt: skip
BLANKS: dict[str, Literal["gap", "span", "zero"]] = {"break": "gap", "bridge": "span", "drop": "zero"}


def tell(layer: Line, converter: ChartConverter) -> None:
    """Add a line."""
    frame = converter.chart.frame
    if layer.helper or not isinstance(frame, Cartesian):
        return
    colour = converter.colour(layer)
    if BLANKS[layer.missing] != "gap":
        converter.blanks = BLANKS[layer.missing]
    values = converter.plotted(layer.values)
    dash: Literal["solid", "dash", "dot"] = "solid" if not layer.dash else "dot" if layer.dash[0] <= 1 else "dash"
    made = Series(
        name=converter.name(layer),
        names=converter.names(),
        values=values,
        fill=colour,
        line=Stroke(colour, layer.width, dash),
        marker=MARKERS.get(layer.spot, "disc"),
        marker_size=layer.size,
        smooth=layer.course == "smooth",
        labels=labels(layer, converter, "" if converter.lying else layer.values),
        listed=layer.listed,
    )
    if layer.course == "stepped" and not layer.x:
        _steps(layer, made, converter)
    elif layer.x:
        if layer.course == "stepped":
            converter.differ(say("“{name}” goes straight from point to point", name=layer.name))
        x = converter.plotted(layer.x)
        converter.group("scatter").series.append(msgspec.structs.replace(made, x=x))
    elif converter.lying:
        places = converter.spots("places of rows", [i + 0.5 for i in range(converter.rows)])
        x, y = converter.over_rows(places, values)
        converter.overlay().series.append(msgspec.structs.replace(made, x=x, values=y))
    else:
        converter.group("lines", "second" if layer.second else "first").series.append(made)


def _steps(layer: Line, made: Series, converter: ChartConverter) -> None:
    """A stepped line: each value twice, where its step begins and where it ends, halfway to its neighbours."""
    places: list[float] = []
    refs: list[str] = []
    for row in range(converter.rows):
        places += [row if row else 0.5, row + 1 if row + 1 < converter.rows else row + 0.5]
        refs += 2 * [converter.at(layer.values, row)]
    level = converter.workings.formulas(
        f"{layer.name}: steps",
        [f"IF(ISNUMBER({ref});{ref};NA())" for ref in refs],
        converter.data.number_text(layer.values),
    )
    x, y = converter.over_rows(converter.spots("ends of steps", places), level)
    both = labels(layer, converter, rows=[row for row in converter.data.ids for _ in (0, 1)])
    points = tuple(point for place, point in enumerate(both.points) if place % 2 == 0)
    held = msgspec.structs.replace(both, points=points)
    converter.overlay().series.append(msgspec.structs.replace(made, x=x, values=y, labels=held, marker="none"))
