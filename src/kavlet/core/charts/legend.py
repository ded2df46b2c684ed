"""The legend: which colour is what."""

from typing import Literal

from msgspec import Struct

from kavlet.core.charts.lettering import Lettering
from kavlet.core.styling.fills import Fill

LegendSide = Literal["none", "auto", "top", "bottom", "left", "right", "inside"]


class Entry(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """One entry of its own, beside those of the layers; `row` is the table's row that it stands for, if any;
    `figure` stands after its name, and stays whole where the name is shortened."""

    name: str
    fill: Fill | None = None
    tone: int = 0
    row: int | None = None
    figure: str = ""


class Legend(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Where the legend stands; "auto" shows it above the plot when there is more than one entry.

    Entries come from the layers, or from `entries` where there are any. `key` says what one symbol stands for.
    `x`, `y` are the place inside the plot, as shares of what is free. `text` is how its entries are set; `reversed`
    turns their order; `ground` is a colour behind it; `width` is the most it may take, in points: wide ones are set in
    a line, narrow ones wrapped or shortened.
    """

    side: LegendSide = "auto"
    title: str = ""
    entries: tuple[Entry, ...] = ()
    key: str = ""
    key_symbol: str = ""
    x: float = 1.0
    y: float = 0.0
    text: Lettering = Lettering()
    reversed: bool = False
    width: float | None = None
    ground: str = ""
