"""Pictures of too few pixels for the size they are placed at.

Source: common practice (150 dpi in print).
"""

import math
from collections.abc import Iterable, Iterator

from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.document.pages.page_edits import placed
from kavlet.core.messages import Message, say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject
from kavlet.core.scene.primitives import Group, Image, Primitive
from kavlet.core.values.affine import Affine
from kavlet.core.values.geometry import Rect

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


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The picture of a chart that has the fewest pixels to an inch."""
    found, name = least_of(subject.document, subject.picture.scene.items)
    if found >= MIN_RESOLUTION - 0.5:
        return
    entry, share = subject.entry, found / MIN_RESOLUTION
    smaller = Remedy(
        "smaller", say("Make it smaller"),
        lambda document: change_chart(document, entry.id, width=share * entry.width, height=share * entry.height),
    )  # fmt: skip
    yield Finding(CHECK.name, "note", found, _said(name, found), subject.place(), (smaller,))


def page(subject: PageSubject) -> Iterator[Finding]:
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
        yield Finding(CHECK.name, "note", found, _said(name, found), subject.place(item.id), (smaller,))


def _smaller(page: str, item: str, box: Rect) -> Remedy:
    return Remedy("smaller", say("Make it smaller"), lambda document: placed(document, page, {item: box}))


def _said(name: str, found: float) -> Message:
    return say(
        "The picture “{name}” has {found} dots to an inch at this size; {least} are needed in print.",
        name=name, found=round(found), least=round(MIN_RESOLUTION),
    )  # fmt: skip


CHECK = Check("low-resolution", "Pictures of too few pixels", "common practice: 150 dpi", of_chart=check, of_page=page)
