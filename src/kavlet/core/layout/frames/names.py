"""Sets the rows' names of a Cartesian frame: wrapped, shortened, turned or skipped where they are crowded."""

import math
from collections.abc import Sequence
from math import ceil

from msgspec import Struct

from kavlet.core.charts.frame import Cartesian
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import PlacedText
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.texts.text_lines import (
    FLOOR,
    LEADING,
    Anchor,
    TextOwner,
    TextStyle,
    block,
    lettered,
    tall,
    widest,
    within,
)
from kavlet.core.text.disambiguate import disambiguated
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import ELLIPSIS, wrapped
from kavlet.core.values.geometry import Rect

SHARES = (0.3, 0.4)  # of the width, that the column of names may take
TURN = 45.0  # degrees
LOW = 0.85  # sizes of type from one turned line to the next
TALLEST = 0.4  # of the height, that turned names may take
MIN_PITCH = 0.05  # points from row to row, however little room there is


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
    """The rows' names left of lying bars or below standing ones, at the text's size or one step smaller.

    Where they are crowded they are wrapped, then shortened so that they stay apart; below standing bars they are turned
    when a single word is too wide. Times are skipped instead, and so is what has no room at all.
    """
    texts = context.data.names(context.chart.names)
    if not any(texts):
        return Names((), room.x), room
    if frame.lying:
        return _beside(texts, context, room)
    crowded = frame.across.crowded
    if frame.across.every > 0:
        return _every(texts, frame.across.every, context, room)
    if crowded == "turn" or frame.across.angle:
        return _turned(texts, frame.across.angle or TURN, context, room)
    if crowded == "skip" or (context.data.timed and _longest_word(texts, context) > _pitch(context, room.width)):
        return _skipped(texts, context, room)
    return _below(texts, context, room) or _turned(texts, TURN, context, room)


def _pitch(context: Context, length: float) -> float:
    return max(MIN_PITCH, length / max(1, context.data.rows))


def ink_of(context: Context) -> TextStyle:
    """How names are written, as far as there is room."""
    frame, style = context.chart.frame, context.style
    usual = TextStyle(style.face, context.sizes.text, style.ink)
    return lettered(frame.across.text, usual, style) if isinstance(frame, Cartesian) else usual


def _steps(context: Context) -> tuple[float, float]:
    """The size of names, and the smaller one they step down to together, which is that of ticks; what an author has set
    stays."""
    size = ink_of(context).size
    return size, size if size != context.sizes.text else max(FLOOR, min(context.sizes.small, size))


def _longest_word(texts: list[str], context: Context) -> float:
    size = _steps(context)[1]
    return max((width(word, ink_of(context).face, size) for text in texts for word in text.split()), default=0.0)


def _beside(texts: list[str], context: Context, room: Rect) -> tuple[Names, Rect]:
    """Left of lying bars, in a column that grows to two fifths before a name is shortened."""
    face, pitch = ink_of(context).face, _pitch(context, room.height)
    size = next((size for size in _steps(context) if pitch >= 1.15 * size), _steps(context)[1])
    every = max(1, ceil(1.15 * size / pitch - 1e-9))
    most = max(1, min(3, int((pitch / size - 1.15) / LEADING + 1)))
    for share in SHARES:
        lines = [wrapped(text, face, size, share * room.width, most) for text in texts]
        if not any(_cut(text, held) for text, held in zip(texts, lines, strict=True)):
            break
    else:
        lines = disambiguated(texts, face, size, SHARES[-1] * room.width, most)
    strip = max((widest(held, face, size) for held in lines), default=0.0)
    return Names(tuple(lines), room.x, size, strip, every), room.inset(left=strip + 1.0 * size)


def _below(texts: list[str], context: Context, room: Rect) -> tuple[Names, Rect] | None:
    """Below standing bars, in three lines at most; None where a word is wider than its bar's place."""
    face, pitch = ink_of(context).face, _pitch(context, room.width)
    fitting = (
        size
        for size in _steps(context)
        if max((width(word, face, size) for text in texts for word in text.split()), default=0.0) <= 0.96 * pitch
    )
    size = next(fitting, None)
    if size is None:
        return None
    lines = disambiguated(texts, face, size, 0.96 * pitch, 3)
    return _strip(lines, size, 1, face, room)


def _skipped(texts: list[str], context: Context, room: Rect) -> tuple[Names, Rect]:
    """In one line, as many as have room side by side."""
    face, pitch, size = ink_of(context).face, _pitch(context, room.width), _steps(context)[0]
    whole = max((width(text, face, size) for text in texts), default=0.0)
    every = max(1, ceil((whole + 0.6 * size) / pitch - 1e-9))
    return _strip([wrapped(text, face, size, 0.96 * pitch * every, 1) for text in texts], size, every, face, room)


def _every(texts: list[str], every: int, context: Context, room: Rect) -> tuple[Names, Rect]:
    """One of so many, as the author says, wrapped to its share of the width."""
    face, pitch, size = ink_of(context).face, _pitch(context, room.width), _steps(context)[0]
    lines = [wrapped(text, face, size, 0.96 * pitch * every, 3) for text in texts]
    return _strip(lines, size, every, face, room)


def _strip(lines: list[tuple[str, ...]], size: float, every: int, face: str, room: Rect) -> tuple[Names, Rect]:
    count = max((len(name) for name in lines), default=0)
    strip = tall(count, face, size) + 0.35 * size if count else 0.0
    return Names(tuple(lines), 0.0, size, strip, every), room.inset(bottom=strip + (0.6 * size if strip else 0))


def _turned(texts: list[str], angle: float, context: Context, room: Rect) -> tuple[Names, Rect]:
    """Aslant below standing bars, in one line each: as steep as asked for, upright where that is too flat for them."""
    face, pitch = ink_of(context).face, _pitch(context, room.width)
    slope = min(90.0, abs(angle))
    tries = [(slope, size) for size in _steps(context)] + [(90.0, size) for size in _steps(context)]
    between = {steep: pitch * math.sin(math.radians(steep)) for steep, _ in tries}
    angle, size = next(((steep, size) for steep, size in tries if between[steep] >= LOW * size), tries[-1])
    every = max(1, ceil(LOW * size / max(1e-9, between[angle]) - 1e-9))
    turn = math.radians(angle)
    name_lines = disambiguated(texts[::every], face, size, TALLEST * room.height / max(0.5, math.sin(turn)), 1)
    lines = [name_lines[row // every] or ("",) if row % every == 0 else ("",) for row in range(len(texts))]
    most = max((width(line[0], face, size) for line in lines), default=0.0)
    strip = most * math.sin(turn) + size * math.cos(turn)
    places = [(row + 0.5) / len(lines) for row in range(len(lines))]  # room at the left moves the later ones less
    overhang = max(
        (width(line[0], face, size) * math.cos(turn) + 4.0 - room.x - place * room.width) / (1 - place)
        for line, place in zip(lines, places, strict=True)
    )
    return Names(tuple(lines), 0.0, size, strip, every, -angle), room.inset(
        bottom=strip + 0.5 * size, left=max(0.0, overhang)
    )


def _cut(text: str, lines: tuple[str, ...]) -> bool:
    """Whether a text was shortened to its lines."""
    return bool(lines) and lines[-1].endswith(ELLIPSIS) and not text.rstrip().endswith(ELLIPSIS)


def texts(plane: Plane, names: Names, text_style: TextStyle, ids: Sequence[int], sheet: Rect) -> list[PlacedText]:
    """The rows' names: left of lying bars and centred on them, below standing ones, all on the `sheet`; one that would
    then lie on the name before is left out. `ids` are the table's rows."""
    texts: list[PlacedText] = []
    for row, lines in enumerate(names.lines):
        if row % names.every or not any(lines):
            continue
        middle = plane.row_middle(row)
        if plane.lying:
            at = (names.left, middle)
            texts.append(block(lines, "name", Anchor(at, "start", "middle"), text_style, TextOwner(row=ids[row])))
        elif names.angle:
            at = (middle + 0.3 * text_style.size, plane.plot.bottom + 0.6 * text_style.size)
            texts.append(
                block(lines, "name", Anchor(at, "end", "middle", names.angle), text_style, TextOwner(row=ids[row]))
            )
        else:
            at = (middle, plane.plot.bottom + 0.6 * text_style.size)
            made = within(block(lines, "name", Anchor(at, "middle", "top"), text_style, TextOwner(row=ids[row])), sheet)
            if not (texts and texts[-1].bounds.overlaps(made.bounds)):
                texts.append(made)
    return texts
