"""Where the label of a mark may stand, in order of preference: in and beyond a bar, around a point."""

import math
from collections.abc import Callable

import msgspec
from msgspec import Struct

from kavlet.core.charts.labels import Label
from kavlet.core.layout.figure import PlacedText, TextAnchor
from kavlet.core.layout.texts.text_lines import Rise
from kavlet.core.shapes.body import End
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

AIR = 0.45  # free space at each side of a label inside its mark, in font sizes
SNUG = 1.2  # of the height of capitals, that a lying bar must have for a label inside
NEAR = 30.0  # points from a bar, up to which a label is still seen as its own


class LabelSpot(Struct, frozen=True):
    """A place where a label may stand.

    The point is (x, y) moved by (sx, sy) font sizes. `width` and `height` are the most it may take, less `pad` font
    sizes at each side. `fits` may ask for more. `leader` is where a line to the mark would end.
    """

    x: float
    y: float
    anchor: TextAnchor
    level: Rise
    colour: Colour
    sx: float = 0.0
    sy: float = 0.0
    width: float = math.inf
    height: float = math.inf
    pad: float = 0.0
    angle: float = 0.0
    fits: Callable[[PlacedText], bool] | None = None
    leader: tuple[float, float] | None = None


def bar_spots(
    label: Label, rect: Rect, end: End, inks: tuple[Colour, Colour], base: float | None = None
) -> list[LabelSpot]:
    """Spots for the label of a bar in order of preference; `base` is the coordinate where the axis starts.

    `inks` are its colours inside the bar and beyond it.
    """
    inside, outside = inks
    lying = end in ("right", "left")
    middle = _inside(rect, "middle", lying, end, inside)
    at_end = _inside(rect, "end", lying, end, inside)
    at_start = _inside(rect, "start", lying, end, inside)
    beyond = _beyond(rect, end, outside)
    position = label.position
    if position in ("auto", "middle", "centre"):
        return [middle, beyond]
    if position == "inside end":
        return [at_end, beyond]
    if position == "inside start":
        return [at_start, beyond]
    if position == "base":
        if base is None:
            return [at_start, beyond]
        from_axis = Rect(base, rect.y, rect.right - base, rect.height) if lying else (
            Rect(rect.x, rect.y, rect.width, base - rect.y)
        )  # fmt: skip
        thick = rect.height if lying else rect.width
        spots = [_inside(from_axis, "start", lying, end, inside), beyond]
        if not lying:  # over a target that stands close above
            spots += [msgspec.structs.replace(beyond, sy=beyond.sy * by, width=rect.width) for by in (3.0, 5.0)]
        if lying or thick < NEAR:  # past a symbol
            past = Rect(rect.x, rect.y, rect.width + thick, rect.height) if lying else (
                Rect(rect.x, rect.y - thick, rect.width, rect.height + thick)
            )  # fmt: skip
            spots.append(_beyond(past, end, outside))
        return spots
    if position == "above":
        return [_beyond(rect, "right" if lying else "up", outside), at_end]
    if position == "below":
        return [_beyond(rect, "left" if lying else "down", outside), at_start]
    return [beyond, at_end]


def _inside(rect: Rect, where: str, lying: bool, end: End, colour: Colour) -> LabelSpot:
    x, y = rect.center
    forward = end in ("right", "down")
    if lying:
        high = rect.height / SNUG
        if where == "middle":
            return LabelSpot(x, y, "middle", "middle", colour, width=rect.width, height=high, pad=AIR)
        at_right = (where == "end") == forward
        return LabelSpot(
            rect.right if at_right else rect.x, y, "end" if at_right else "start", "middle", colour,
            sx=-AIR * 1.2 if at_right else AIR * 1.2, width=rect.width, height=high, pad=AIR,
        )  # fmt: skip
    if where == "middle":
        return LabelSpot(x, y, "middle", "middle", colour, width=rect.width, height=rect.height - 2, pad=0.2)
    at_bottom = (where == "end") == forward
    return LabelSpot(
        x, rect.bottom if at_bottom else rect.y, "middle", "bottom" if at_bottom else "top", colour,
        sy=-AIR * 1.2 if at_bottom else AIR * 1.2, width=rect.width, height=rect.height - 6, pad=0.2,
    )  # fmt: skip


def _beyond(rect: Rect, end: End, colour: Colour) -> LabelSpot:
    x, y = rect.center
    if end == "right":
        return LabelSpot(rect.right, y, "start", "middle", colour, sx=AIR)
    if end == "left":
        return LabelSpot(rect.x, y, "end", "middle", colour, sx=-AIR)
    if end == "up":
        return LabelSpot(x, rect.y, "middle", "bottom", colour, sy=-AIR)
    return LabelSpot(x, rect.bottom, "middle", "top", colour, sy=AIR)


def scattered_spots(label: Label, x: float, y: float, reach: float, colour: Colour, lying: bool) -> list[LabelSpot]:
    """Spots around a point that lies anywhere: those beside it, at its corners, then further out with a leader."""
    near = point_spots(label, x, y, reach, colour, lying)
    if len(near) == 1:
        return near
    return [*near, *(_aslant(x, y, reach, colour, *corner) for corner in CORNERS),
            *(_led_out(x, y, reach, colour, way, far) for far in FAR for way in WAYS)]  # fmt: skip


def point_spots(label: Label, x: float, y: float, reach: float, colour: Colour, lying: bool) -> list[LabelSpot]:
    """Spots around a point whose shape reaches `reach` points from it."""
    above = LabelSpot(x, y - reach, "middle", "bottom", colour, sy=-AIR)
    below = LabelSpot(x, y + reach, "middle", "top", colour, sy=AIR)
    right = LabelSpot(x + reach, y, "start", "middle", colour, sx=AIR)
    left = LabelSpot(x - reach, y, "end", "middle", colour, sx=-AIR)
    if label.position in ("middle", "centre"):
        return [LabelSpot(x, y, "middle", "middle", colour)]
    near = [above, below, right, left]
    if label.position == "below":
        near = [below, above, right, left]
    elif label.position == "beside" or (lying and label.position != "above"):
        near = [right, left, above, below]
    return near


def _aslant(x: float, y: float, reach: float, colour: Colour, right: int, down: int) -> LabelSpot:
    """A spot at a corner of a point."""
    off = reach * math.sqrt(0.5)
    return LabelSpot(
        x + right * off, y + down * off, "start" if right > 0 else "end", "top" if down > 0 else "bottom", colour,
        sx=right * 0.6 * AIR, sy=down * 0.6 * AIR,
    )  # fmt: skip


def _led_out(x: float, y: float, reach: float, colour: Colour, way: tuple[float, float], far: float) -> LabelSpot:
    """A spot so many font sizes from a point's rim, with a leader back to it."""
    right, down = way
    anchor: TextAnchor = "start" if right > 0.3 else "end" if right < -0.3 else "middle"
    rise: Rise = "top" if down > 0.8 else "bottom" if down < -0.8 else "middle"
    rim = (x + right * (reach + 0.5), y + down * (reach + 0.5))
    return LabelSpot(
        x + right * reach, y + down * reach, anchor, rise, colour, sx=right * far, sy=down * far, leader=rim
    )


CORNERS = ((1, -1), (1, 1), (-1, -1), (-1, 1))
WAYS = tuple((math.cos(turn * math.pi / 6), math.sin(turn * math.pi / 6)) for turn in (0, -1, 1, 6, 7, 5, -3, 3, -2, 2))
FAR = (1.6, 2.8)  # font sizes
