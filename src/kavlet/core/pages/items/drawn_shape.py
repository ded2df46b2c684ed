"""A plain shape on a page: what sets things apart or points at them."""

from typing import Literal

from kavlet.core.pages.items.item import Item

ShapeForm = Literal["rectangle", "rounded", "ellipse", "line", "arrow"]


class DrawnShape(Item, frozen=True, tag_field="item", tag="shape", omit_defaults=True, forbid_unknown_fields=True):
    """Lines and arrows run from the box's top left to its bottom right corner, or upward where `rising`.

    `fill` and `edge` are colours; `radius` rounds corners, in points; `shadow` lies softly below.
    """

    form: ShapeForm = "rectangle"
    fill: str = "track"
    edge: str = ""
    edge_width: float = 1.0
    radius: float = 8.0
    rising: bool = False
    shadow: bool = False
