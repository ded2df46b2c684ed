"""The lie factor: the size of an effect as shown over its size in the figures, where a mark's area grows otherwise.

Source: E. R. Tufte, The Visual Display of Quantitative Information (1983), chapter 2: lie factor = size of effect shown
in the graphic / size of effect in the data; above 1.05 or below 0.95 the distortion is substantial. The size of an
effect is |second − first| / first.
"""

import math
from collections.abc import Iterator, Sequence

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.looks import of_layer
from kavlet.core.layout.figure import Mark
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.scene.primitives import Stamp
from kavlet.core.styling.fills import PictureFill

LOW, HIGH = 0.95, 1.05
SAME = 1.01  # times the smallest figure, up to which there is no effect to speak of


def effect(first: float, second: float) -> float:
    """The size of an effect, as a share of the first figure."""
    return abs(second - first) / abs(first)


def lie_factor(data: tuple[float, float], shown: tuple[float, float]) -> float:
    """The effect as shown over that in the data; NaN where there is none in the data."""
    of_data = effect(*data)
    return effect(*shown) / of_data if of_data else math.nan


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Of each layer whose marks are sized by areas, the smallest is compared with the one that is off most."""
    for layer in subject.layers:
        sized = _sizes(subject, layer)
        if len(sized) < 2:
            continue
        small, area = min(sized)
        against = [
            (lie_factor((small, value_size), (area, shown_size)), value_size, shown_size)
            for value_size, shown_size in sized
            if value_size > small * SAME
        ]
        worst = max(against, key=lambda value_size: abs(math.log(max(value_size[0], 1e-9))), default=None)
        if worst is None or LOW <= worst[0] <= HIGH:
            continue
        factor, large, other = worst
        message = say(
            "The lie factor is {factor}: from the smallest mark to another, areas grow by {shown}\u00a0%, the figures "
            "by {data}\u00a0%.",
            factor=round(factor, 2),
            shown=round(100 * effect(area, other)),
            data=round(100 * effect(small, large)),
        )
        yield Finding(
            CHECK.name, "warning", factor, message, subject.place(layer=layer.key), tuple(_remedies(subject, layer))
        )


def _sizes(subject: ChartSubject, layer: AnyLayer) -> Sequence[tuple[float, float]]:
    """Each mark's figure and the area drawn for it, above zero; nothing where areas stand for no figure."""
    marks = [mark for mark in subject.marks if mark.key == layer.key and mark.panel == 0 and not mark.beyond]
    column = kind_of(layer).size_column(layer)
    if column:
        data = subject.picture.build.panels[0].data
        sizes = dict(zip(data.ids, data.column(column), strict=False))
        held = [(abs(float(sizes.get(mark.row, math.nan))), mark.bounds.width**2) for mark in marks]
        return [(size, area) for size, area in held if size > 0 and area > 0]
    return [(abs(mark.value), grown) for mark in marks if mark.value and (grown := _stamped(mark)) > 0]


def _stamped(mark: Mark) -> float:
    """The area of the one symbol that a bar is filled with at its own proportions, grown in both directions; else 0."""
    stamps = [item for item in mark.items if isinstance(item, Stamp)]
    if not isinstance(mark.dressed, PictureFill) or mark.dressed.how != "fitted" or len(stamps) != 1:
        return 0.0
    place = stamps[0].place
    return abs(place.a * place.d - place.b * place.c)


def _remedies(subject: ChartSubject, layer: AnyLayer) -> Iterator[Remedy]:
    by_area = kind_of(layer).by_area()
    if by_area:
        looks = {of_layer(layer.key, field): value for field, value in by_area.items()}
        yield subject.looks("size by area", say("Size by area"), looks)
    elif subject.has_setting("how"):
        yield subject.setting("repeat by count", say("Repeat by count"), {"how": "repeated"})
    elif isinstance(layer.fill, PictureFill):
        yield subject.looks("repeat by count", say("Repeat by count"), {of_layer(layer.key, "fill", "how"): "repeated"})


CHECK = Check(
    "lie-factor", "Areas that grow otherwise than the figures", "Tufte 1983, chapter 2: 0.95 to 1.05", of_drawing=check
)
