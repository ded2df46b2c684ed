"""A picture of the document on a page."""

from typing import Literal

from kavlet.core.pages.items.item import Item


class PlacedPicture(Item, frozen=True, tag_field="item", tag="picture", omit_defaults=True, forbid_unknown_fields=True):
    """`picture` is the name of one of the document's pictures or a symbol. `fit` shows all of it, `fill` covers the
    box.

    `crop` cuts shares off its left, top, right and bottom side. `colour` is that of a symbol; `alt` what it shows, in
    words.
    """

    picture: str = ""
    fit: Literal["fit", "fill"] = "fit"
    crop: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    colour: str = ""
    alt: str = ""
