"""Palettes: ordered lists of colours, shipped, read from any text that holds hex codes, or from a .gpl file."""

import re
from functools import lru_cache
from importlib.resources import files
from typing import Literal

import msgspec
from msgspec import Struct

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

PaletteKind = Literal["qualitative", "sequential", "diverging"]
MAX_COLOURS = 64
_HEX = re.compile(r"(?<![\w#&])#?([0-9a-fA-F]{6})(?:[0-9a-fA-F]{2})?(?![\w])|(?<![\w&])#([0-9a-fA-F]{3})(?![\w])")


class Palette(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Colours as `#rrggbb`, in their order."""

    name: str
    title: str
    kind: PaletteKind
    colours: tuple[str, ...]
    source: str = ""


@lru_cache(maxsize=1)
def palettes() -> dict[str, Palette]:
    """All shipped palettes by name."""
    content = (files("kavlet") / "assets" / "themes" / "palettes.json").read_bytes()
    return {palette.name: palette for palette in msgspec.json.decode(content, type=tuple[Palette, ...])}


def from_text(text: str) -> tuple[str, ...]:
    """The hex codes of any text, each once, in order: a style sheet, a mail, a list. Raises KavletError without any."""
    found: dict[str, None] = {}
    for match in _HEX.finditer(text):
        digits = match[1] or "".join(2 * digit for digit in match[2])
        # Six digits without a # are taken for a colour only where they could not be a plain number or word.
        if match[1] and not match[0].startswith("#") and (digits.isdigit() or not re.search(r"\d", digits)):
            continue
        found[f"#{digits.lower()}"] = None
        if len(found) == MAX_COLOURS:
            break
    if not found:
        raise KavletError(say("The text holds no colours."), remedy=say("Colours are written like #7a2e5d."))
    return tuple(found)
