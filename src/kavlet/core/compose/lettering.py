"""Lines of text in their place: from a point and an anchor to a measured Text."""

from msgspec import Struct

from kavlet.core.compose.figure import Anchor, Text, TextKind
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

FLOOR = 6.0  # points; smaller text is left out rather than shrunk further
LEADING = 1.22  # from baseline to baseline, in font sizes


class Ink(Struct, frozen=True):
    """How a line is written: a face, a size in points and a colour."""

    face: str
    size: float
    colour: Colour


def line(
    text: str,
    kind: TextKind,
    at: tuple[float, float],
    anchor: Anchor,
    ink: Ink,
    row: int | None = None,
    layer: str = "",
) -> Text:
    """A line whose baseline starts, is centred or ends at a point."""
    face, size = ink.face, ink.size
    advance = width(text, face, size)
    x = at[0] - {"start": 0.0, "middle": advance / 2, "end": advance}[anchor]
    heights = metrics(face)
    bounds = Rect(x, at[1] - heights.cap_height * size, advance, (heights.cap_height + heights.descent * 0.6) * size)
    return Text(text, kind, x, at[1], advance, bounds, anchor, face, size, ink.colour, row, layer)


def centred(
    text: str,
    kind: TextKind,
    at: tuple[float, float],
    anchor: Anchor,
    ink: Ink,
    row: int | None = None,
    layer: str = "",
) -> Text:
    """A line whose capitals are centred on a point's height."""
    drop = metrics(ink.face).cap_height * ink.size / 2
    return line(text, kind, (at[0], at[1] + drop), anchor, ink, row, layer)
