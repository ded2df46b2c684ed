"""Titles and free texts."""

from typing import Literal

from msgspec import Struct

from kavlet.core.text.faces import Family
from kavlet.core.values.sizes import TypeSize


class Text(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A text with its look; None follows the theme. `dx`, `dy` move it by points from its place."""

    text: str = ""
    size: TypeSize | None = None
    bold: bool | None = None
    italic: bool = False
    colour: str = ""
    family: Family | None = None
    align: Literal["start", "middle", "end"] = "start"
    dx: float = 0.0
    dy: float = 0.0


class Note(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A free text at a place given as shares of the chart's width and height (or, `middle`, in the frame's middle).

    A `clear` one moves below the chart's own texts where it would lie on them.
    """

    key: str
    text: str
    x: float = 0.5
    y: float = 0.5
    middle: bool = False
    size: TypeSize | None = None
    bold: bool = False
    italic: bool = False
    colour: str = ""
    family: Family | None = None
    align: Literal["start", "middle", "end"] = "middle"
    clear: bool = False
