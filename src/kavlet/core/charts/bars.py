"""Bars: one per row, from the end of the layer they are stacked on."""

from typing import Literal

from msgspec import Struct

from kavlet.core.charts.labels import Label

Form = Literal["square", "tapered"]


class Bars(Struct, frozen=True, tag_field="type", tag="bars", omit_defaults=True):
    """Bars bound to a column.

    `key` names the layer for dress and never changes; `name` is for people. `stacked` starts each bar where the layer
    before it ends. A `tapered` bar narrows to where the next row's begins. `tone` picks the palette's colour. A
    `helper` is never drawn, labelled or listed.
    """

    key: str
    name: str
    values: str
    stacked: bool = False
    form: Form = "square"
    tone: int = 0
    helper: bool = False
    label: Label | None = None
