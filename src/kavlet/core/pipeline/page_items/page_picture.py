"""A page as a picture: every item composed at its place, back to front, on the page's ground."""

import importlib
import itertools
from collections.abc import Callable, Container
from datetime import date
from functools import cache
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document
from kavlet.core.document.pages.page_edits import item_name
from kavlet.core.pages.arrangements import places
from kavlet.core.pages.items.words import Paragraph, Run, Words
from kavlet.core.pages.page import NO_PAGE, AnyItem, Page, sized
from kavlet.core.pipeline.page_items import (
    words,
)
from kavlet.core.pipeline.page_items.page_context import ComposedItem, Draws, PageContext, style_of
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Scene, Shape, Writing
from kavlet.core.shapes.box import box as box_outline
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.styling.style import Dress, Style, resolve
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.geometry import Rect, Size

MARGINS = ""  # stands for what is in the margins where items are named
LINES = 60.0  # points from the page's edge, within which its header and footer stand


class PagePicture(Struct, frozen=True):
    """A page at the end of all stages: its scene, where each item stands, what each is called and has become."""

    page: Page
    number: int
    style: Style
    scene: Scene
    boxes: dict[str, Rect]
    names: dict[str, str]
    made: dict[str, ComposedItem]
    drawn: dict[str, tuple[Primitive, ...]]

    def scene_of(self, items: Container[str]) -> Scene:
        """Some of its items alone, without a ground."""
        shown = [one for item in self.page.items if item.id in items for one in self.drawn[item.id]]
        return msgspec.structs.replace(self.scene, ground=None, items=tuple(shown))

    def scene_without(self, items: Container[str]) -> Scene:
        """All but some of its items, on its ground."""
        primitives = [
            primitive
            for item, item_primitives in self.drawn.items()
            if item not in items
            for primitive in item_primitives
        ]
        return msgspec.structs.replace(self.scene, items=tuple(primitives))

    @property
    def overflowing(self) -> list[str]:
        """The items that do not hold all that they should."""
        return [item for item, composed_item in self.made.items() if composed_item.overflows]


NO_PAGE_PICTURE = PagePicture(NO_PAGE, 0, resolve(Dress()), Scene(Size(1.0, 1.0), None, ()), {}, {}, {}, {})


def page_picture(document: Document, values: Values, page: str, draws: Draws, today: date | None = None) -> PagePicture:
    """A page composed. Raises KavletError where there is no such page, it has a size that no sheet has, or its look
    names what there is not."""
    context = sheet_of(document, values, page, draws, today)
    page_, style, number = context.page, context.style, context.number
    boxes = places(page_)
    composed_items = {item.id: composed(item, boxes[item.id], context) for item in page_.items}
    primitives = {
        item: tuple(_refusal(composed_item.refused, boxes[item], context))
        if composed_item.refused
        else composed_item.items
        for item, composed_item in composed_items.items()
    }
    primitives[MARGINS] = tuple(
        composed_item
        for line, box in margin_lines(context)
        for composed_item in words.compose(line, box, context).items
    )
    says = " ".join(
        composed_item.says.rstrip(".") + "." for composed_item in composed_items.values() if composed_item.says
    )
    scene = Scene(
        page_.size, style.ground, tuple(itertools.chain(*primitives.values())), page_.name, says, f"{page_.id}-"
    )
    names = {item.id: item_name(document, item) for item in page_.items}
    return PagePicture(page_, number, style, scene, boxes, names, composed_items, primitives)


def sheet_of(document: Document, values: Values, page: str, draws: Draws, today: date | None = None) -> PageContext:
    """What the items of a page read. Raises KavletError as `page_picture` does."""
    page_ = document.page(page)
    sized(page_, page_.width, page_.height)
    number = document.pages.index(page_) + 1
    style = style_of(document, page_)
    return PageContext(document, values, page_, style, number, len(document.pages), today or date.today(), draws)


def composed(item: AnyItem, box: Rect, context: PageContext) -> ComposedItem:
    """One item at its place."""
    composed_item: ComposedItem = _composer(type(item))(item, box, context)
    return composed_item


@cache
def _composer(kind: type[AnyItem]) -> Callable[[Any, Rect, PageContext], ComposedItem]:
    """What composes items of a kind: it stands in the file here that is called as that of the kind in `core/pages`."""
    stem = kind.__module__.rpartition(".")[2]
    compose: Callable[[Any, Rect, PageContext], ComposedItem] = importlib.import_module(f"{__package__}.{stem}").compose
    return compose


def margin_lines(context: PageContext) -> list[tuple[Words, Rect]]:
    """The lines in the page's upper and lower margin, and their boxes."""
    page, inner = context.page, context.page.inner
    left, top, right, bottom = page.margins
    del left, right
    size = context.style.small_size
    found: list[tuple[Words, Rect]] = []
    for text, y in (
        (page.header, 0.45 * min(top, LINES) - 0.6 * size),
        (page.footer, page.height - 0.55 * min(bottom, LINES) - 0.6 * size),
    ):
        if text:
            line = Words("", paragraphs=(Paragraph((Run(text),)),), style="small")
            found.append((line, Rect(inner.x, max(0.0, y), inner.width, 1.6 * size)))
    return found


def _refusal(sentence: str, box: Rect, context: PageContext) -> list[Primitive]:
    """What stands where an item can't be drawn: a quiet box with the reason."""
    style = context.style
    size = style.small_size
    made: list[Primitive] = [
        Shape(recorded(box_outline, box, style.corner), style.named["track"].faded(0.5), style.line, style.strokes.hair)
    ]
    lines = wrapped(sentence, style.face, size, max(1.0, box.width - 2 * size), max(1, int(box.height / (1.4 * size))))
    y = box.center[1] - 0.7 * size * len(lines) + metrics(style.face).cap_height * size
    for line in lines:
        long = width(line, style.face, size)
        made.append(Writing(line, box.center[0] - long / 2, y, long, style.face, size, style.quiet))
        y += 1.4 * size
    return made


def record(picture: PagePicture) -> dict[str, Any]:
    """What was computed for a page: its items back to front with their kinds, names and places in points."""
    return {
        "page": picture.page.name,
        "number": picture.number,
        "width": round(picture.page.width, 6),
        "height": round(picture.page.height, 6),
        "items": [
            {
                "id": item.id,
                "kind": item.kind,
                "name": picture.names[item.id],
                "bounds": [round(one, 6) for one in msgspec.structs.astuple(picture.boxes[item.id])],
                "overflows": picture.made[item.id].overflows,
                "text": picture.made[item.id].says,
            }
            for item in picture.page.items
        ],
    }
