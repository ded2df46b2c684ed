"""Hatches as geometry: one tile each, which writers repeat or expand over an area."""

import math
from functools import lru_cache

from msgspec import Struct

from kavlet.core.scene.paints import Hatch
from kavlet.core.values.geometry import Point, Rect

MAX_STROKES = 4_000  # lines or dots of one hatch
Segment = tuple[float, float, float, float]


class Tile(Struct, frozen=True):
    """What repeats, before it is turned: `across` are heights of lines that go on through all tiles beside each other,
    `down` places of such lines downward, `dashes` lines that end within the tile, `dots` centres of dots."""

    width: float
    height: float
    across: tuple[float, ...] = ()
    down: tuple[float, ...] = ()
    dashes: tuple[Segment, ...] = ()
    dots: tuple[Point, ...] = ()


@lru_cache(maxsize=256)
def tile(hatch: Hatch) -> Tile:
    """The tile of a hatch: a line along its middle, a cross, a dot in its middle, or a dash over its first half."""
    s = hatch.step
    match hatch.kind:
        case "lines":
            return Tile(s, s, across=(s / 2,))
        case "cross":
            return Tile(s, s, across=(s / 2,), down=(s / 2,))
        case "dashes":
            return Tile(2 * s, s, dashes=((0.0, s / 2, s, s / 2),))
        case "dots":
            return Tile(s, s, dots=((s / 2, s / 2),))


def expanded(hatch: Hatch, area: Rect) -> tuple[list[Segment], list[Point]]:
    """The lines and the dots of a hatch over an area, in the hatch's own turned plane.

    Lines reach over the whole area. Where there would be more than `MOST`, only so many rows are drawn, and dots stand
    farther apart.
    """
    one = tile(hatch)
    wide, tall = one.width, one.height
    if wide <= 0 or tall <= 0 or area.width <= 0 or area.height <= 0:
        return [], []
    if one.dots:
        grown = max(1.0, math.sqrt(area.width * area.height / MAX_STROKES) / wide)
        wide, tall = wide * grown, tall * grown
    top = math.floor(area.y / tall)
    rows = range(top, min(top + MAX_STROKES, math.ceil(area.bottom / tall)))
    columns = range(math.floor(area.x / wide), math.ceil(area.right / wide))
    lines = [(area.x, r * tall + y, area.right, r * tall + y) for r in rows for y in one.across]
    lines += [(c * wide + x, area.y, c * wide + x, area.bottom) for c in columns for x in one.down]
    lines += [
        (c * wide + x1, r * tall + y1, c * wide + x2, r * tall + y2)
        for r in rows for c in columns for x1, y1, x2, y2 in one.dashes
    ]  # fmt: skip
    scale = wide / one.width
    dots = [(c * wide + x * scale, r * tall + y * scale) for r in rows for c in columns for x, y in one.dots]
    return lines, dots
