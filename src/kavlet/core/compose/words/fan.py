"""Labels around a disc: each beside its wedge, spread so that none overlaps, with leaders back to the rim."""

import math
from typing import Protocol

import msgspec
from msgspec import Struct

from kavlet.core.compose.figure import Anchor, PlacedText
from kavlet.core.compose.words.labels import SIZES, Wanted, settle
from kavlet.core.compose.words.lettering import FLOOR, LEADING, Ink, Owner, Stand, block, tall, widest
from kavlet.core.compose.words.room import Room
from kavlet.core.shapes.arc import Sector, at
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

REACH = 0.9  # from the rim to a label beside it, in font sizes


class Rim(Protocol):
    """The rim at one wedge: which side of the disc it is on, points beyond it, and where a label is clear of it."""

    side: int

    def point(self, out: float) -> tuple[float, float]:
        """A point of the rim, `out` points outside it."""

    def clear(self, y: float, high: float, reach: float) -> float:
        """How far out a label of a height must start at `y` to clear the rim, in points."""


class FlatRim:
    """The rim of a flat disc."""

    def __init__(self, sector: Sector) -> None:
        self._sector = sector
        self._middle = (sector.start + sector.end) / 2
        self.side = 1 if math.sin(math.radians(self._middle)) >= -1e-9 else -1

    def point(self, out: float) -> tuple[float, float]:
        """A point of the rim, `out` points outside it."""
        return at(self._sector.center, self._sector.outer + out, self._middle)

    def clear(self, y: float, high: float, reach: float) -> float:
        """How far out a label of a height must start at `y` to clear the rim, in points."""
        cx, cy = self._sector.center
        far = self._sector.outer + reach
        near = max(0.0, abs(y - cy) - high)
        return cx + self.side * math.sqrt(max(0.0, far * far - min(near, far) ** 2))


class Fanned(Struct, frozen=True):
    """A wedge's label that may stand outside; with `inside_first`, only when it finds no place inside."""

    wanted: Wanted
    sector: Sector
    colour: Colour
    inside_first: bool
    seen_rim: Rim | None = None

    @property
    def rim(self) -> Rim:
        """The rim its labels stand around."""
        return self.seen_rim if self.seen_rim is not None else FlatRim(self.sector)


def fan(labels: list[Fanned], room: Room) -> tuple[list[PlacedText], int]:
    """Place the labels inside where they want that and fit; all others around the disc. Returns how many found none."""
    texts: list[PlacedText] = []
    outside: list[Fanned] = []
    for one in sorted(labels, key=lambda one: -one.wanted.weight):
        if one.inside_first or one.wanted.dx or one.wanted.dy:
            by_hand = one.wanted if one.wanted.spots else _with_spot(one)
            found, _ = settle([by_hand], room)
            if found:
                texts += found
                continue
        outside.append(one)
    dropped = 0
    for side in (1, -1):
        mine = [one for one in outside if one.rim.side == side]
        placed, lost = _column(mine, side, room)
        texts += placed
        dropped += lost
    return texts, dropped


def _with_spot(one: Fanned) -> Wanted:
    from kavlet.core.compose.words.labels import LabelSpot

    x, y = one.rim.point(REACH * one.wanted.size)
    spot = LabelSpot(x, y, _anchor(one.rim.side), "middle", one.colour)
    return msgspec.structs.replace(one.wanted, spots=(spot,))


def _anchor(side: int) -> Anchor:
    return "start" if side > 0 else "end"


def _column(labels: list[Fanned], side: int, room: Room) -> tuple[list[PlacedText], int]:
    """The labels at one side, spread downward; smaller ones, then fewer ones, where there is no room for all."""
    if not labels:
        return [], 0
    for share in SIZES:
        size = max(FLOOR, labels[0].wanted.size * share)
        placed = _spread(labels, side, size, room)
        if placed is not None:
            for text in placed:
                room.take(text)
            return placed, 0
        if size <= FLOOR:
            break
    smallest = min(labels, key=lambda one: one.wanted.weight)
    placed, lost = _column([one for one in labels if one is not smallest], side, room)
    return placed, lost + 1


def _spread(labels: list[Fanned], side: int, size: float, room: Room) -> list[PlacedText] | None:
    labels = sorted(labels, key=lambda one: _natural(one, size)[1])
    made = []
    for one in labels:
        x, _ = _natural(one, size)
        edge = room.bounds.right if side > 0 else room.bounds.x
        made.append(_lines(one.wanted, size, abs(edge - x)))
    if any(lines is None for lines in made):
        return None
    heights = [tall(len(lines or ()), one.wanted.face, size) for lines, one in zip(made, labels, strict=True)]
    gap = (LEADING - 0.72) * size
    ys = _apart([_natural(one, size)[1] for one in labels], heights, gap, room.bounds)
    if ys is None:
        return None
    texts: list[PlacedText] = []
    for one, lines, y in zip(labels, made, ys, strict=True):
        text = _beside(one, lines or (), y, side, size)
        if text is None or not room.free(text) or any(_touch(text, other) for other in texts):
            return None
        texts.append(text)
    return texts


def _touch(one: PlacedText, other: PlacedText) -> bool:
    return one.bounds.overlaps(other.bounds)


def _natural(one: Fanned, size: float) -> tuple[float, float]:
    """Where a label would stand if it were alone."""
    return one.rim.point(REACH * size)


def _lines(label: Wanted, size: float, most: float) -> tuple[str, ...] | None:
    lines = tuple(label.text.split("\n"))
    if widest(lines, label.face, size) <= most:
        return lines
    count = max(label.lines, len(lines))
    wrap = tuple(part for line in lines for part in wrapped(line, label.face, size, most, count))
    return wrap if len(wrap) <= count + 1 and not any(part.endswith("…") for part in wrap) else None


def _apart(wishes: list[float], heights: list[float], gap: float, bounds: Rect) -> list[float] | None:
    """Heights of labels' middles, as near to the wishes as they can be with a gap between; None without room.

    Blocks that collide are merged and put where their mean wish is, as in isotonic regression.
    """
    if sum(heights) + gap * (len(heights) - 1) > bounds.height:
        return None
    offsets: list[float] = []
    total = 0.0
    for i, height in enumerate(heights):
        offsets.append(total + height / 2)
        total += height + gap
        del i
    blocks: list[list[float]] = []  # [mean start, weight, count]
    for wish, offset in zip(wishes, offsets, strict=True):
        blocks.append([wish - offset, 1.0, 1.0])
        while len(blocks) > 1 and blocks[-2][0] > blocks[-1][0]:
            last, before = blocks.pop(), blocks[-1]
            weight = before[1] + last[1]
            before[0] = (before[0] * before[1] + last[0] * last[1]) / weight
            before[1], before[2] = weight, before[2] + last[2]
    starts: list[float] = []
    for start, _, count in blocks:
        starts += [start] * int(count)
    low, high = bounds.y, bounds.bottom - (total - gap)
    return [min(max(start, low), high) + offset for start, offset in zip(starts, offsets, strict=True)]


def _beside(one: Fanned, lines: tuple[str, ...], y: float, side: int, size: float) -> PlacedText | None:
    """The block at that height, just outside the circle, with a leader when it had to move."""
    label, circle = one.wanted, one.rim
    high = tall(len(lines), label.face, size) / 2
    x = circle.clear(y, high, REACH * size)
    natural = circle.point(REACH * size)
    x = max(x, natural[0]) if side > 0 else min(x, natural[0])
    stand, owner = Stand((x, y), _anchor(side), "middle"), Owner(label.row, label.layer, label.key)
    text = block(lines, "label", stand, Ink(label.face, size, one.colour), owner)
    rim = circle.point(0.1 * size)
    end = (x - side * 0.3 * size, y)
    moved = math.hypot(end[0] - rim[0], end[1] - rim[1]) > 1.15 * size
    if label.leader == "none" or (not moved and label.leader == "plain"):
        return text
    points: tuple[tuple[float, float], ...] = (end, rim)
    if label.leader == "elbow":
        knee = circle.point(0.62 * REACH * size)
        points = (end, (knee[0], y) if abs(knee[1] - y) < 0.5 * size else knee, rim)
    return msgspec.structs.replace(
        text, leader=points, leader_colour=label.leader_colour, arrow=label.leader == "arrow"
    )
