"""What an area is filled with: a colour, a gradient, a hatch. All in the scene's points."""

from typing import Literal

from msgspec import Struct

from kavlet.core.values.colour import Colour

Stops = tuple[tuple[float, Colour], ...]
HatchKind = Literal["lines", "cross", "dots", "dashes"]


class LinearGradient(Struct, frozen=True, gc=False):
    """Colours along the line from (x1, y1) to (x2, y2); `stops` go from 0 to 1."""

    x1: float
    y1: float
    x2: float
    y2: float
    stops: Stops


class RadialGradient(Struct, frozen=True, gc=False):
    """Colours outward from a centre to a radius."""

    x: float
    y: float
    radius: float
    stops: Stops


class Hatch(Struct, frozen=True, gc=False):
    """A pattern of `colour` on `ground` (none: what lies behind shows), repeated each `step` points.

    Lines turn clockwise by `angle` from horizontal. `width` is a line's width or a dot's diameter.
    """

    kind: HatchKind
    colour: Colour
    ground: Colour | None
    angle: float
    step: float
    width: float


Paint = Colour | LinearGradient | RadialGradient | Hatch


def mean(paint: Paint) -> Colour:
    """One colour that stands for the paint where a text is to be read on it."""
    if isinstance(paint, Colour):
        return paint
    if isinstance(paint, Hatch):
        return paint.ground or paint.colour
    parts = [colour for _, colour in paint.stops]
    return parts[len(parts) // 2]
