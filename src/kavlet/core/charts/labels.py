"""What a layer's labels say, how they look and where they stand."""

from typing import Literal

from msgspec import Struct

from kavlet.core.text.faces import Family
from kavlet.core.values.number_text import NumberText
from kavlet.core.values.sizes import TypeSize

Position = Literal[
    "auto", "inside start", "middle", "inside end", "outside", "base", "above", "below", "by sign", "beside", "centre"
]
When = Literal["all", "highlighted", "ends", "above"]
Leader = Literal["none", "plain", "elbow", "arrow"]


class Label(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A layer's labels.

    `template` names fields in braces: {name} {value} {share} {step} {series}, a column by its name or id, or a cell
    ({=B7}); a line break is kept. `number` writes the value, `numbers` any field by its name. `when` says which rows
    are labelled: with "above", those whose share is at least `least`.

    Looks that are None follow the theme; `colour` empty is chosen for contrast on what lies behind. `turn` lets a label
    follow a ring; `lines` is the most lines it may wrap to. `shorten` ends what is too long in an ellipsis, else it is
    left out. `width` is the most it may take, in points. `distance` moves labels beside their marks so many points
    further out, `angle` turns them clockwise in degrees; `every` labels one of so many rows.
    `colour_rules` colour them by their values (`colouring.py`).
    """

    template: str = "{value}"
    number: NumberText | None = None
    numbers: dict[str, NumberText] = {}
    position: Position = "auto"
    when: When = "all"
    least: float = 0.0
    leader: Leader = "plain"
    size: TypeSize | None = None
    bold: bool | None = None
    italic: bool = False
    colour: str = ""
    family: Family | None = None
    distance: float = 0.0
    angle: float = 0.0
    every: int = 1
    colour_rules: str = ""
    turn: bool = False
    lines: int = 2
    shorten: bool = False
    width: float | None = None
