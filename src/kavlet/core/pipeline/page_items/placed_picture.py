"""A picture at its place: all of it, or as much as covers the box."""

from kavlet.core.document.document import Document
from kavlet.core.layout.painting import covering, picture
from kavlet.core.messages import words_in
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pipeline.chart_inputs import pictures_of
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext
from kavlet.core.scene.path import recorded
from kavlet.core.shapes.box import box as box_outline
from kavlet.core.shapes.symbol import Symbol, extent, shelf
from kavlet.core.values.geometry import Rect


def compose(item: PlacedPicture, box: Rect, context: PageContext) -> ComposedItem:
    """The picture with its sides cropped; a sentence where it is lost."""
    held = context.picture(item.picture)
    if held is None:
        return ComposedItem(
            refused=words_in(
                context.document.locale, "The picture “{name}” is not in this document.", name=item.picture
            )
        )
    colour = context.style.colour(item.colour) if item.colour else context.style.tone(0)
    left, top, right, bottom = (max(0.0, min(0.95, share)) for share in item.crop)
    wide, tall = max(0.05, 1 - left - right), max(0.05, 1 - top - bottom)
    if item.fit == "fill":
        whole = covering(held, Rect(0.0, 0.0, box.width / wide, box.height / tall))
        into = Rect(box.x + whole.x - left * box.width / wide, box.y + whole.y - top * box.height / tall,
                    whole.width, whole.height)  # fmt: skip
        return ComposedItem((picture(held, into, colour, clip=recorded(box_outline, box)),), says=item.alt, whole=into)
    ratio = _ratio(held) * wide / tall
    shown = Rect(0.0, 0.0, min(box.width, box.height * ratio), min(box.height, box.width / ratio))
    shown = Rect(box.center[0] - shown.width / 2, box.center[1] - shown.height / 2, shown.width, shown.height)
    into = Rect(shown.x - left * shown.width / wide, shown.y - top * shown.height / tall,
                shown.width / wide, shown.height / tall)  # fmt: skip
    clip = recorded(box_outline, shown) if any(item.crop) else None
    return ComposedItem((picture(held, into, colour, clip=clip),), says=item.alt, whole=into)


def proportion(document: Document, name: str) -> float:
    """The width of a picture or symbol by its height; 1 where there is none of that name."""
    held = pictures_of(document).get(name) or shelf().get(name)
    return _ratio(held) if held is not None else 1.0


def _ratio(held: object) -> float:
    """A picture's width by its height."""
    if isinstance(held, Symbol):
        around = extent(held.outline)
        return around.width / max(1e-6, around.height)
    return float(held.width) / max(1.0, float(held.height))  # type: ignore[attr-defined]
