"""Words on a page: paragraphs of runs, with fields for live figures."""

from typing import Literal

from msgspec import Struct

from kavlet.core.pages.items.item import Item
from kavlet.core.text.faces import Family
from kavlet.core.values.sizes import TypeSize

Align = Literal["start", "middle", "end"]
Listing = Literal["", "dots", "numbers"]
Upright = Literal["top", "middle", "bottom"]


class Run(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Text of one look; empty or None is that of the whole item. Fields stand in braces: ``{=Walks!B7 | 0 %}``."""

    text: str
    family: Family | None = None
    size: TypeSize | None = None
    bold: bool = False
    italic: bool = False
    colour: str = ""


class Paragraph(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Runs after each other, aligned; in a list with dots or numbers."""

    runs: tuple[Run, ...] = ()
    align: Align = "start"
    listing: Listing = ""

    @property
    def text(self) -> str:
        """Its text without looks."""
        return "".join(run.text for run in self.runs)


class Words(Item, frozen=True, tag_field="item", tag="words", omit_defaults=True, forbid_unknown_fields=True):
    """Paragraphs in a box: `size` of type in points, `spacing` from line to line in sizes of type, `after` between
    paragraphs, `inset` to the box's sides in points. `style` takes the theme's look for headings."""

    paragraphs: tuple[Paragraph, ...] = ()
    style: Literal["text", "title", "heading", "small"] = "text"
    size: TypeSize | None = None
    family: Family | None = None
    colour: str = ""
    spacing: float = 1.32
    after: float = 0.5
    inset: float = 0.0
    upright: Upright = "top"
    fill: str = ""
    edge: str = ""

    @property
    def text(self) -> str:
        """All its text, a line for each paragraph."""
        return "\n".join(paragraph.text for paragraph in self.paragraphs)


def plain(text: str, align: Align = "start") -> tuple[Paragraph, ...]:
    """A text as paragraphs of one look, one for each line."""
    return tuple(Paragraph((Run(line),) if line else (), align) for line in text.split("\n"))
