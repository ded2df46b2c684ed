"""Labels around a disc: each beside its wedge, spread so that none overlaps, with leaders back to the rim."""

import math
from typing import Protocol

import msgspec
from msgspec import Struct

from kavlet.core.layout.figure import PlacedText, TextAnchor
from kavlet.core.layout.texts.text_lines import FLOOR, LEADING, Anchor, TextOwner, TextStyle, block, tall, widest
from kavlet.core.layout.words.free_space import FreeSpace
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import STEP, LabelRequest, at_once
from kavlet.core.layout.words.spreading import spread
from kavlet.core.shapes.arc import Sector, at
from kavlet.core.text.disambiguate import disambiguated
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

FEW = 3  # lines, for which room is looked for
MIN_WIDTH = 4.0  # font sizes that a shortened label must have
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


class RadialLabel(Struct, frozen=True):
    """A wedge's label that may stand outside; with `inside_first`, only when it finds no place inside."""

    wanted: LabelRequest
    sector: Sector
    colour: Colour
    inside_first: bool
    seen_rim: Rim | None = None

    @property
    def rim(self) -> Rim:
        """The rim its labels stand around."""
        return self.seen_rim if self.seen_rim is not None else FlatRim(self.sector)


def place_radial_labels(labels: list[RadialLabel], space: FreeSpace) -> tuple[list[PlacedText], int]:
    """Place the labels inside where they want that and fit; all others around the disc, all in one size. Returns how
    many found no place."""
    best: tuple[list[PlacedText], int] | None = None
    for share in (1.0, STEP):
        size = max(min(FLOOR, label.wanted.size) / label.wanted.size for label in labels) if labels else 1.0
        sized = [_at_size(label, max(size, share)) for label in labels]
        found = _fanned(sized, space.branch())
        if best is None or found[1] < best[1]:
            best = found
        if not best[1]:
            break
    texts, lost = best or ([], 0)
    for text in texts:
        space.take(text)
    return texts, lost


def _at_size(label: RadialLabel, share: float) -> RadialLabel:
    return msgspec.structs.replace(label, wanted=msgspec.structs.replace(label.wanted, size=label.wanted.size * share))


def _fanned(labels: list[RadialLabel], space: FreeSpace) -> tuple[list[PlacedText], int]:
    texts: list[PlacedText] = []
    outside: list[RadialLabel] = []
    for label in sorted(labels, key=lambda label: -label.wanted.weight):
        if label.inside_first or label.wanted.dx or label.wanted.dy:
            by_hand = label.wanted if label.wanted.spots else _with_spot(label)
            found = at_once(by_hand, space)
            if found is not None:
                space.take(found)
                texts.append(found)
                continue
        outside.append(label)
    dropped = 0
    for side in (1, -1):
        side_labels = [label for label in outside if label.rim.side == side]
        column_texts, lost = _column(side_labels, side, space)
        texts += column_texts
        dropped += lost
    return texts, dropped


def _with_spot(label: RadialLabel) -> LabelRequest:
    x, y = label.rim.point(REACH * label.wanted.size)
    spot = LabelSpot(x, y, _anchor(label.rim.side), "middle", label.colour)
    return msgspec.structs.replace(label.wanted, spots=(spot,))


def _anchor(side: int) -> TextAnchor:
    return "start" if side > 0 else "end"


def _column(labels: list[RadialLabel], side: int, space: FreeSpace) -> tuple[list[PlacedText], int]:
    """The labels at one side, spread downward: wrapped, then shortened, then fewer where there is no room for all."""
    if not labels:
        return [], 0
    size = labels[0].wanted.size
    fits = max(1, int(space.bounds.height / (LEADING * size)) + 1)
    if len(labels) > fits:  # the least are left out at once
        kept_labels = sorted(labels, key=lambda label: -label.wanted.weight)[:fits]
        texts, lost = _column(kept_labels, side, space)
        return texts, lost + len(labels) - fits
    for most_lines in (0, 2, 1):
        spread_texts = _spread(labels, side, most_lines, space)
        if spread_texts is not None:
            for text in spread_texts:
                space.take(text)
            return spread_texts, 0
    smallest = min(labels, key=lambda label: label.wanted.weight)
    texts, lost = _column([label for label in labels if label is not smallest], side, space)
    return texts, lost + 1


def _spread(labels: list[RadialLabel], side: int, most_lines: int, space: FreeSpace) -> list[PlacedText] | None:
    """All labels at one side, as they are or each line of theirs shortened to so many; None where they do not fit."""
    size = labels[0].wanted.size
    labels = sorted(labels, key=lambda label: _natural(label, size)[1])
    edge = space.bounds.right if side > 0 else space.bounds.x
    wide = [abs(edge - _start(label, side, size)) for label in labels]
    made: list[tuple[str, ...] | None] = [
        _lines(label.wanted, size, most) for label, most in zip(labels, wide, strict=True)
    ]
    if most_lines:
        made = _shortened(labels, size, min(wide), most_lines)
    if any(lines is None for lines in made):
        return None
    heights = [tall(len(lines or ()), label.wanted.face, size) for lines, label in zip(made, labels, strict=True)]
    gap = (LEADING - 0.72) * size
    places = [_natural(label, size) for label in labels]
    longest = max(widest(lines or (), label.wanted.face, size) for lines, label in zip(made, labels, strict=True))
    xs = [x for x, _ in places]
    (cx, cy), far = labels[0].sector.center, labels[0].sector.outer
    around = Rect(cx - far, cy - far, 2 * far, 2 * far)
    side_room = (min(xs), max(xs) + longest) if side > 0 else (min(xs) - longest, max(xs))
    free = space.between(*side_room, around).inset(top=0.35 * size, bottom=0.6 * size)  # letters reach below their line
    ys = spread([y for _, y in places], heights, gap, free)
    if ys is None:
        return None
    texts: list[PlacedText] = []
    for label, lines, y in zip(labels, made, ys, strict=True):
        text = _beside(label, lines or (), y, side, size)
        if text is None or not space.free(text) or any(_touch(text, other) for other in texts):
            return None
        texts.append(text)
    return texts


def _touch(text: PlacedText, other: PlacedText) -> bool:
    return text.bounds.overlaps(other.bounds)


def _start(label: RadialLabel, side: int, size: float) -> float:
    """Where a label of a few lines would begin if it were alone: the rim bends towards what is tall."""
    x, y = _natural(label, size)
    tall_ = label.rim.clear(y, tall(FEW, label.wanted.face, size) / 2, REACH * size)
    return max(x, tall_) if side > 0 else min(x, tall_)


def _natural(label: RadialLabel, size: float) -> tuple[float, float]:
    """Where a label would stand if it were alone."""
    return label.rim.point(REACH * size)


def _lines(label: LabelRequest, size: float, most: float) -> tuple[str, ...] | None:
    lines = tuple(label.text.split("\n"))
    if widest(lines, label.face, size) <= most:
        return lines
    count = max(label.lines, len(lines))
    wrap = tuple(part for line in lines for part in wrapped(line, label.face, size, most, count))
    return wrap if len(wrap) <= count + 1 and not any(part.endswith("…") for part in wrap) else None


def _shortened(labels: list[RadialLabel], size: float, most: float, lines: int) -> list[tuple[str, ...] | None]:
    """Each line of each label in so many lines at most, shortened so that labels stay apart; None where hardly a word
    is left."""
    if most < MIN_WIDTH * size:
        return [None] * len(labels)
    wordings = [label.wanted.text.split("\n") for label in labels]
    found: list[list[str]] = [[] for _ in labels]
    for k in range(max(map(len, wordings))):
        indices = [i for i, text in enumerate(wordings) if k < len(text)]
        for i, shortened_lines in zip(
            indices,
            disambiguated([wordings[i][k] for i in indices], labels[indices[0]].wanted.face, size, most, lines),
            strict=True,
        ):
            found[i] += shortened_lines
    return [tuple(shortened_lines) for shortened_lines in found]


def _beside(one: RadialLabel, lines: tuple[str, ...], y: float, side: int, size: float) -> PlacedText | None:
    """The block at that height, just outside the circle, with a leader when it had to move."""
    label, circle = one.wanted, one.rim
    high = tall(len(lines), label.face, size) / 2
    x = circle.clear(y, high, REACH * size)
    natural = circle.point(REACH * size)
    x = max(x, natural[0]) if side > 0 else min(x, natural[0])
    anchor, owner = Anchor((x, y), _anchor(side), "middle"), TextOwner(label.row, label.layer, label.key)
    text = block(lines, "label", anchor, TextStyle(label.face, size, one.colour), owner)
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
