"""A number in large type with its caption, and how it changed."""

from typing import Literal

from kavlet.core.pages.items.item import Item
from kavlet.core.values.sizes import TypeSize


class KeyFigure(Item, frozen=True, tag_field="item", tag="key figure", omit_defaults=True, forbid_unknown_fields=True):
    """`value` and `against` are formulas (``=Walks!B7``) or texts; `number` is how the value is written (``0.0 %``).

    `change` says how it differs from `against`: in percent, as a difference, or not at all. `better` tells which way is
    good, so that arrow and colour mean the same. `size` is that of the figure in points; what fits when None.
    """

    value: str = ""
    caption: str = ""
    number: str = ""
    against: str = ""
    change: Literal["percent", "difference", "none"] = "percent"
    better: Literal["up", "down", "neither"] = "up"
    size: TypeSize | None = None
    colour: str = ""
    align: Literal["start", "middle", "end"] = "start"
