"""Sets the rows' names of a Cartesian frame: wrapped, shrunk, skipped or turned where they are crowded."""

import math
from collections.abc import Sequence
from math import ceil

from msgspec import Struct

from kavlet.core.charts.frame import Cartesian
from kavlet.core.compose.context import Context
from kavlet.core.compose.figure import PlacedText
from kavlet.core.compose.frames.plane import Plane
from kavlet.core.compose.words.lettering import FLOOR, LEADING, Ink, Owner, Stand, block, tall, widest, within
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.geometry import Rect

LEAST_PITCH = 0.05  # points from row to row, however little room there is


class Names(Struct, frozen=True):
    """The rows' names as they are set: their lines, size, angle, the strip they take, each how-many-th is shown, and
    where those of lying bars begin."""

    lines: tuple[tuple[str, ...], ...] = ()
    left: float = 0.0
    size: float = 10.0
    strip: float = 0.0
    every: int = 1
    angle: float = 0.0


def lay_out(context: Context, frame: Cartesian, room: Rect) -> tuple[Names, Rect]:
    """The rows' names, wrapped; left of lying bars, below standing ones; skipped, shrunk or turned where crowded."""
    data, style, sizes = context.data, context.style, context.sizes
    texts = data.names(context.chart.names)
    rows = max(1, data.rows)
    if frame.lying:
        pitch = max(LEAST_PITCH, room.height / rows)
        size = max(FLOOR, min(sizes.text, pitch / 1.15))
        every = max(1, ceil(1.15 * size / pitch - 1e-9))
        lines = 2 if pitch >= 2 * LEADING * size else 1
        names = tuple(wrapped(text, style.face, size, 0.3 * room.width, lines) for text in texts)
        strip = max((widest(name, style.face, size) for name in names), default=0.0)
        return Names(names, room.x, size, strip, every), room.inset(left=strip + (1.0 * size if strip else 0))
    pitch = max(LEAST_PITCH, room.width / rows)
    if frame.across.crowded == "turn" or frame.across.angle:
        return _turned_names(texts, frame.across.angle or 45.0, context, room)
    longest = max((width(word, style.face, 1.0) for text in texts for word in text.split()), default=0.0)
    size = min(sizes.text, 0.94 * pitch / longest) if longest else sizes.text
    least = max(FLOOR, 0.72 * sizes.text)
    if size < least:
        size = max(least, min(sizes.text, pitch / 3.2))
    every = max(1, ceil(min(longest, 3.2) * size / (0.98 * pitch) - 1e-9)) if longest * size > pitch else 1
    if frame.across.crowded == "skip":
        whole = max((width(text, style.face, size) for text in texts), default=0.0)
        every = max(1, ceil((whole + 0.6 * size) / pitch - 1e-9))
    lines = 1 if frame.across.crowded == "skip" else 3
    names = tuple(wrapped(text, style.face, size, 0.96 * pitch * every, lines) for text in texts)
    count = max((len(name) for name in names), default=0)
    strip = tall(count, style.face, size) + 0.35 * size if count else 0.0
    return Names(names, 0.0, size, strip, every), room.inset(bottom=strip + (0.6 * size if strip else 0))


def _turned_names(texts: list[str], angle: float, context: Context, room: Rect) -> tuple[Names, Rect]:
    style, sizes, pitch = context.style, context.sizes, max(LEAST_PITCH, room.width / max(1, context.data.rows))
    size = max(FLOOR, min(sizes.text, 0.9 * pitch))
    every = max(1, ceil(1.15 * size / pitch - 1e-9))
    lines = tuple((wrapped(text, style.face, size, 0.35 * room.height, 1) or ("",)) for text in texts)
    most = max((width(line[0], style.face, size) for line in lines), default=0.0)
    turn = math.radians(min(90.0, abs(angle)))
    strip = most * math.sin(turn) + size * math.cos(turn)
    left = max(0.0, (width(lines[0][0], style.face, size) if lines else 0.0) * math.cos(turn) - pitch / 2)
    return Names(lines, 0.0, size, strip, every, -abs(angle)), room.inset(bottom=strip + 0.5 * size, left=left)


def texts(plane: Plane, names: Names, ink: Ink, ids: Sequence[int], sheet: Rect) -> list[PlacedText]:
    """The rows' names: left of lying bars and centred on them, below standing ones, all on the `sheet`; one that would
    then lie on the name before is left out. `ids` are the table's rows."""
    texts: list[PlacedText] = []
    for row, lines in enumerate(names.lines):
        if row % names.every or not lines:
            continue
        middle = plane.row_middle(row)
        if plane.lying:
            at = (names.left, middle)
            texts.append(block(lines, "name", Stand(at, "start", "middle"), ink, Owner(row=ids[row])))
        elif names.angle:
            at = (middle + 0.3 * ink.size, plane.plot.bottom + 0.6 * ink.size)
            texts.append(block(lines, "name", Stand(at, "end", "middle", names.angle), ink, Owner(row=ids[row])))
        else:
            at = (middle, plane.plot.bottom + 0.6 * ink.size)
            made = within(block(lines, "name", Stand(at, "middle", "top"), ink, Owner(row=ids[row])), sheet)
            if not (texts and texts[-1].bounds.overlaps(made.bounds)):
                texts.append(made)
    return texts
