"""Checks of sizes: areas against figures, type and pictures large enough to be seen."""

import math
from collections.abc import Iterable, Iterator, Sequence

import msgspec

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.looks import of_layer
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.document.pages.page_edits import change_item, placed
from kavlet.core.layout.figure import Mark
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.solid.visible_areas import seen
from kavlet.core.messages import Message, say
from kavlet.core.pages.items.words import Words
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject
from kavlet.core.scene.primitives import Group, Image, Primitive, Stamp
from kavlet.core.styling.fills import PictureFill
from kavlet.core.values.affine import Affine
from kavlet.core.values.geometry import Rect

# The lie factor: the size of an effect as shown over its size in the figures, where a mark's area grows otherwise.
#
# Source: E. R. Tufte, The Visual Display of Quantitative Information (1983), chapter 2: lie factor = size of effect
# shown in the graphic / size of effect in the data; above 1.05 or below 0.95 the distortion is substantial. The size of
# an effect is |second − first| / first.

LOW, HIGH = 0.95, 1.05
SAME = 1.01  # times the smallest figure, up to which there is no effect to speak of


def effect(first: float, second: float) -> float:
    """The size of an effect, as a share of the first figure."""
    return abs(second - first) / abs(first)


def lie_factor(data: tuple[float, float], shown: tuple[float, float]) -> float:
    """The effect as shown over that in the data; NaN where there is none in the data."""
    of_data = effect(*data)
    return effect(*shown) / of_data if of_data else math.nan


def check_lie_factor(subject: ChartSubject) -> Iterator[Finding]:
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
            LIE_FACTOR.name,
            "warning",
            factor,
            message,
            subject.place(layer=layer.key),
            tuple(_remedies(subject, layer)),
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


LIE_FACTOR = Check(
    "lie-factor",
    "Areas that grow otherwise than the figures",
    "Tufte 1983, chapter 2: 0.95 to 1.05",
    of_drawing=check_lie_factor,
)


# A solid whose view makes one of its parts take more, or less, of what is seen than its value's share.
#
# Source: E. R. Tufte 1983, chapter 2, on depth; a fifth as the limit is common practice.

COARSE = 1.0  # places to a point; enough to tell shares apart by a percent
MIN_DEVIATION, MAX_DEVIATION = 0.03, 0.2  # by how much of the whole, and by which part of its share, an area may be off


def check_solid_share(subject: ChartSubject) -> Iterator[Finding]:
    """Depth and slant give and take area; the part whose share of it is off most, in proportion, is named."""
    distorted = [area for area in seen(subject.figure, COARSE) if area.flat_share > 0]
    if len(distorted) < 2:
        return
    worst = max(distorted, key=lambda area: abs(area.area_share - area.flat_share))
    off = abs(worst.area_share - worst.flat_share)
    if off < MIN_DEVIATION or off <= MAX_DEVIATION * worst.flat_share:
        return
    message = say(
        "Seen this way, “{name}” takes {seen}\u00a0% of what is seen of all bodies, in the flat chart {flat}\u00a0%.",
        name=worst.mark.says or worst.mark.layer,
        seen=round(100 * worst.area_share, 1),
        flat=round(100 * worst.flat_share, 1),
    )
    front = {"solid.turn": 0.0, "solid.tilt": 0.0, "solid.perspective": 0.0}
    remedies = (
        subject.looks("front view", say("See it from the front"), front),
        subject.looks("flat", say("Make it flat"), {"solid.on": False}),
    )  # fmt: skip
    yield Finding(SOLID_SHARE.name, "note", worst.area_share, message, subject.mark_place(worst.mark), remedies)


SOLID_SHARE = Check(
    "solid-share",
    "A view that gives parts more or less than their share",
    "common practice: a fifth",
    of_chart=check_solid_share,
)


# Type too small to be read: on paper, or from the last row.
#
# Source: common practice (7 pt on paper, 14 pt on a slide, at the final size).

PAPER, SLIDE = 7.0, 14.0
SLACK = 0.05
"""Points; sizes are shares of others, and so are not round."""


def check_small_text(subject: ChartSubject) -> Iterator[Finding]:
    """The smallest text of a chart by itself, which is for paper."""
    yield from _chart(subject, PAPER)


def check_small_text_on_page(subject: PageSubject) -> Iterator[Finding]:
    """The smallest text of each chart and of each item of words on a page."""
    least = SLIDE if subject.page.is_slide else PAPER
    for chart_subject in subject.charts.values():
        yield from _chart(chart_subject, least)
    for item in subject.page.items:
        if isinstance(item, Words):
            sizes = [run.size for paragraph in item.paragraphs for run in paragraph.runs if run.size is not None]
            own_sizes = [*sizes, *([item.size] if item.size is not None else [])]
            if own_sizes and min(own_sizes) < least - SLACK:
                yield Finding(
                    SMALL_TEXT.name,
                    "note",
                    min(own_sizes),
                    _small_text_said(min(own_sizes), least),
                    subject.place(item.id),
                    (_words(subject, item, least),),
                )


def _chart(subject: ChartSubject, least: float) -> Iterator[Finding]:
    texts = [text for text in subject.figure.texts if text.text]
    if not texts:
        return
    smallest = min(texts, key=lambda text: text.size)
    if smallest.size >= least - SLACK:
        return
    yield Finding(
        SMALL_TEXT.name, "note", smallest.size, _small_text_said(smallest.size, least), subject.text_place(smallest),
        tuple(_larger(subject, smallest.size, least)),
    )  # fmt: skip


def _small_text_said(size: float, least: float) -> Message:
    return (
        say("The smallest type is {size} pt; on paper, {least} pt is the least.", size=round(size, 1), least=least)
        if least == PAPER
        else say(
            "The smallest type is {size} pt; on a slide, {least} pt is the least.", size=round(size, 1), least=least
        )
    )


def _larger(subject: ChartSubject, size: float, least: float) -> Iterator[Remedy]:
    """All type of the chart larger in proportion; sizes set by hand that are too small are given back."""
    overrides = subject.entry.dress.overrides
    sizes = [
        path
        for path, value in overrides.items()
        if path.endswith("size") and isinstance(value, float | int) and value < least and "title" not in path
    ]
    old_scale = float(subject.chart.type_scale or 1.0)
    looks: dict[str, float | None] = dict.fromkeys(sizes)
    if not sizes:
        looks["type_scale"] = round(old_scale * least / size + 0.005, 2)
    yield subject.looks("larger text", say("Larger type"), looks)


def _words(subject: PageSubject, item: Words, least: float) -> Remedy:
    def edit(document: Document) -> Document:
        paragraphs = tuple(
            msgspec.structs.replace(
                paragraph,
                runs=tuple(
                    msgspec.structs.replace(run, size=max(run.size, least) if run.size is not None else None)
                    for run in paragraph.runs
                ),
            )
            for paragraph in item.paragraphs
        )
        size = max(item.size, least) if item.size is not None else None
        return change_item(document, subject.page.id, item.id, paragraphs=paragraphs, size=size)

    return Remedy("larger text", say("Larger type"), edit)


SMALL_TEXT = Check(
    "small-text", "Type too small to be read", "common practice: 7 pt on paper, 14 pt on slides",
    of_chart=check_small_text, of_page=check_small_text_on_page,
)  # fmt: skip


# Pictures of too few pixels for the size they are placed at.
#
# Source: common practice (150 dpi in print).

MIN_RESOLUTION = 150.0


def resolution(pixels: float, points: float) -> float:
    """Pixels to an inch of a picture so many pixels wide that is so many points wide as placed."""
    return pixels / points * 72 if points > 0 else math.inf


def images(items: Iterable[Primitive], scale: float = 1.0) -> Iterator[tuple[Image, float]]:
    """All pictures among primitives, with how much wider than they say they are placed."""
    for item in items:
        if isinstance(item, Image):
            yield item, scale
        elif isinstance(item, Group):
            yield from images(item.items, scale * _wide(item.place))


def _wide(place: Affine) -> float:
    return math.hypot(place.a, place.b)


def least_of(document: Document, items: Iterable[Primitive]) -> tuple[float, str]:
    """The least resolution of the document's pictures among primitives, and the picture's name."""
    pixels = {picture.name: picture.width for picture in document.pictures if picture.content}
    found = [
        (resolution(pixels[image.name], scale * _wide(image.place)), image.name)
        for image, scale in images(items)
        if image.name in pixels
    ]
    return min(found, default=(math.inf, ""))


def check_low_resolution(subject: ChartSubject) -> Iterator[Finding]:
    """The picture of a chart that has the fewest pixels to an inch."""
    found, name = least_of(subject.document, subject.picture.scene.items)
    if found >= MIN_RESOLUTION - 0.5:
        return
    entry, share = subject.entry, found / MIN_RESOLUTION
    smaller = Remedy(
        "smaller", say("Make it smaller"),
        lambda document: change_chart(document, entry.id, width=share * entry.width, height=share * entry.height),
    )  # fmt: skip
    yield Finding(LOW_RESOLUTION.name, "note", found, _low_resolution_said(name, found), subject.place(), (smaller,))


def check_low_resolution_on_page(subject: PageSubject) -> Iterator[Finding]:
    """Each picture that stands on a page by itself."""
    for item in subject.page.items:
        if item.id in subject.charts:
            continue
        found, name = least_of(subject.document, subject.picture.made[item.id].items)
        if found >= MIN_RESOLUTION - 0.5:
            continue
        box, share = subject.picture.boxes[item.id], found / MIN_RESOLUTION
        x, y = box.center
        small = Rect(x - share * box.width / 2, y - share * box.height / 2, share * box.width, share * box.height)
        smaller = _smaller(subject.page.id, item.id, small)
        yield Finding(
            LOW_RESOLUTION.name, "note", found, _low_resolution_said(name, found), subject.place(item.id), (smaller,)
        )


def _smaller(page: str, item: str, box: Rect) -> Remedy:
    return Remedy("smaller", say("Make it smaller"), lambda document: placed(document, page, {item: box}))


def _low_resolution_said(name: str, found: float) -> Message:
    return say(
        "The picture “{name}” has {found} dots to an inch at this size; {least} are needed in print.",
        name=name, found=round(found), least=round(MIN_RESOLUTION),
    )  # fmt: skip


LOW_RESOLUTION = Check(
    "low-resolution",
    "Pictures of too few pixels",
    "common practice: 150 dpi",
    of_chart=check_low_resolution,
    of_page=check_low_resolution_on_page,
)
