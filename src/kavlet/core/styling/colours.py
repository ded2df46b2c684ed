"""Colour texts: hex codes, names of the theme's colours, and tints of either.

`#7a2e5d`, `ink`, `ground`, `tone2` (the palette's second colour), `tone1 +60` (60 % of the way to the ground),
`tone1 -20` (20 % of the way to the ink), `white /40` (40 % opaque).
"""

import re
from collections.abc import Mapping

from kavlet.core.messages import say
from kavlet.core.values.colour import Colour, colour, from_oklab, mix, oklab
from kavlet.core.values.errors import KavletError

_TEXT = re.compile(r"\s*(#[0-9a-fA-F]{3,8}|[a-z]+)(\d*)\s*(?:([+-])\s*(\d{1,3}))?\s*(?:/\s*(\d{1,3}))?\s*")

NAMES = ("ink", "quiet", "line", "ground", "track", "rise", "fall", "total", "alarm", "white", "black")


def resolved(text: str, names: Mapping[str, Colour], palette: tuple[Colour, ...]) -> Colour:
    """The colour of a text. Raises KavletError when it is none."""
    match = _TEXT.fullmatch(text)
    if match is None:
        return colour(text)
    base, number, sign, share, alpha = match.groups()
    if base.startswith("#"):
        base_colour = colour(base + number)
    elif base == "tone" and number:
        base_colour = palette[(max(1, int(number)) - 1) % len(palette)]
    elif base in names and not number:
        base_colour = names[base]
    else:
        raise KavletError(
            say("“{text}” is not a colour.", text=text), remedy=say("Write it like #7a2e5d, ink or tone2.")
        )
    if sign:
        base_colour = mix(base_colour, names["ground" if sign == "+" else "ink"], min(100, int(share)) / 100)
    return base_colour.faded(min(100, int(alpha)) / 100) if alpha else base_colour


def is_colour(text: str) -> bool:
    """Whether a text is a colour, by a theme of any colours."""
    black = Colour(0.0, 0.0, 0.0)
    try:
        resolved(text, dict.fromkeys(NAMES, black), (black,))
    except KavletError:
        return False
    return True


def lighter(of: Colour, by: float) -> Colour:
    """The colour with more (or less) OKLab lightness, hue and chroma kept as far as sRGB can show them."""
    lightness, a, b = oklab(of)
    return from_oklab(max(0.0, min(1.0, lightness + by)), a, b, of.alpha)
