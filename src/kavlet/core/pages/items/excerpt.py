"""A part of a table on a page."""

from typing import Literal

from kavlet.core.pages.items.item import Item
from kavlet.core.values.sizes import TypeSize


class Excerpt(Item, frozen=True, tag_field="item", tag="table", omit_defaults=True, forbid_unknown_fields=True):
    """Columns of a table by their ids (all of figures and words when empty), rows `first` to `last` counted from 1
    (all when None), with or without its `header`; `rules` between rows; `total` sets the last row apart.

    `highlights` are rules in the reader's words, as for colours by value: ``above 100: #b3372f``.
    """

    table: str = ""
    columns: tuple[str, ...] = ()
    first: int = 1
    last: int | None = None
    header: bool = True
    rules: Literal["lines", "bands", "none"] = "lines"
    total: bool = False
    highlights: str = ""
    size: TypeSize | None = None
