"""The legend of one or several charts, placed freely on a page."""

from kavlet.core.pages.items.item import Item
from kavlet.core.values.sizes import TypeSize


class SharedLegend(Item, frozen=True, tag_field="item", tag="legend", omit_defaults=True, forbid_unknown_fields=True):
    """What the charts of the page list, each entry once; of some `charts` only, by their ids, where any are named.

    A wide box sets the entries in a line, a narrow one below each other.
    """

    charts: tuple[str, ...] = ()
    title: str = ""
    size: TypeSize | None = None
