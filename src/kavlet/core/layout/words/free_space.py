"""What is taken on the chart, so that no text overlaps another, lies on a mark it does not speak of, or leaves the
chart."""

import math
from collections import defaultdict
from collections.abc import Sequence
from itertools import pairwise

from msgspec import Struct

from kavlet.core.layout.figure import Mark, PlacedText
from kavlet.core.scene.path import CLOSE, CURVE, LINE, MOVE, Path
from kavlet.core.styling.fills import PictureFill
from kavlet.core.values.affine import turned
from kavlet.core.values.colour import Colour, contrast
from kavlet.core.values.geometry import Point, Rect

SERIES = "series "  # what the keys of layers begin with that a recipe makes one of for each column
CELL = 40.0  # points; texts are kept in a grid of buckets of this size, so that only near ones are compared
FINE = 6  # straight pieces of a curve, for what stands on a mark
APART = 4.0  # points between places at which a box is looked at
READ = 2.9  # to one, below which a text is not read where it stands
THIN = 0.03  # of the size of type, that a text's box is larger than its ink


class Obstacle(Struct, frozen=True, gc=False):
    """The outline of a mark, as boxes see it: plain where it is a box itself. It `covers` what is behind it, unless it
    is filled with symbols."""

    bounds: Rect
    rings: tuple[tuple[Point, ...], ...]
    row: int
    key: str
    fill: Colour | None = None
    covers: bool = True

    def under(self, rect: Rect) -> bool:
        """Whether a box lies on it."""
        if not self.bounds.overlaps(rect):
            return False
        if not self.rings:
            return True
        if any(rect.x < x < rect.right and rect.y < y < rect.bottom for ring in self.rings for x, y in ring):
            return True
        steps = max(2, math.ceil(rect.width / APART))
        across = [rect.x + i / steps * rect.width for i in range(steps + 1)]
        return any(
            _is_inside(met, x)
            for met in (_crossings(self.rings, y) for y in (rect.y, rect.center[1], rect.bottom)) if met
            for x in across
        )  # fmt: skip

    def at(self, x: float, y: float) -> bool:
        """Whether a point lies on it."""
        box = self.bounds
        if not (box.x <= x <= box.right and box.y <= y <= box.bottom):
            return False
        return not self.rings or _is_inside(_crossings(self.rings, y), x)

    def holds(self, rect: Rect) -> bool:
        """Whether a box lies on nothing else."""
        if not self.bounds.holds(rect, 0.5):
            return False
        across = (rect.x, rect.center[0], rect.right)
        return not self.rings or all(
            _is_inside(met, x) for met in (_crossings(self.rings, y) for y in (rect.y, rect.bottom)) for x in across
        )


def faces_of(marks: Sequence[Mark], faces: Sequence[tuple[int, Path]]) -> list[Obstacle]:
    """What is seen of solid marks, farthest first, as what no other row's text may lie on."""
    return [
        Obstacle(path.bounds, _rings(path), marks[of].row, marks[of].key)
        for of, path in faces
        if of >= 0 and path.verbs and marks[of].kind.bars_texts
    ]


def body_of(mark: Mark) -> Obstacle | None:
    """A drawn mark as what no other row's text may lie on; None for what covers nothing of its own."""
    if not mark.visible or mark.helper or mark.path is None or not mark.kind.bars_texts:
        return None
    return obstacle(mark.path, mark.row, mark.key, mark.fill, not isinstance(mark.dressed, PictureFill))


def obstacle(path: Path, row: int, key: str, fill: Colour | None = None, covers: bool = True) -> Obstacle:
    """An outline as boxes see it."""
    rings = _rings(path)
    plain = len(rings) == 1 and len(rings[0]) == 4 and _is_box(rings[0])
    return Obstacle(path.bounds, () if plain else rings, row, key, fill, covers)


class FreeSpace:
    """The free room of a chart; `ground` is its colour, where texts must be read on it."""

    def __init__(self, bounds: Rect, ground: Colour | None = None) -> None:
        self.bounds, self.ground = bounds, ground
        self._taken: dict[tuple[int, int], list[Rect]] = defaultdict(list)
        self._bodies: dict[tuple[int, int], list[tuple[int, Obstacle]]] = defaultdict(list)
        self._count = 0

    def branch(self) -> "FreeSpace":
        """The same room, to try something out in."""
        made = FreeSpace(self.bounds, self.ground)
        made._taken = defaultdict(list, {cell: list(held) for cell, held in self._taken.items()})
        made._bodies = self._bodies
        return made

    def take(self, text: PlacedText) -> None:
        """Note that a text stands there."""
        for rect in (*pieces(text), *_along(text)):
            self.take_rect(rect)

    def is_led_freely(self, text: PlacedText) -> bool:
        """Whether a text's leader, if it has one, crosses no text and no other row's mark."""
        return all(self.free_rect(rect) and self._stands(text, rect, any_colour=True) for rect in _along(text))

    def take_rect(self, rect: Rect) -> None:
        """Mark a box as taken."""
        for cell in self._cells(rect):
            self._taken[cell].append(rect)

    def take_body(self, body: Obstacle) -> None:
        """Note a mark that only its own row's texts may lie on, in front of those before it."""
        self._count += 1
        for cell in self._cells(body.bounds):
            self._bodies[cell].append((self._count, body))

    def free(self, text: PlacedText, any_colour: bool = False) -> bool:
        """Whether a text would stand inside the chart, on no other, on no other row's mark, and, but in `any_colour`,
        where it can be read."""
        boxes = pieces(text)
        if not all(self.bounds.holds(rect, 0.01) and self.free_rect(rect) for rect in boxes):
            return False
        if not self._bodies:
            return True
        thin = THIN * text.size
        return all(self._stands(text, rect.inset(top=thin, bottom=2 * thin), any_colour) for rect in boxes)

    def free_rect(self, rect: Rect) -> bool:
        """Whether a box touches nothing that is taken."""
        return not any(rect.overlaps(held) for cell in self._cells(rect) for held in self._taken.get(cell, ()))

    def between(self, left: float, right: float, around: Rect) -> Rect:
        """The part of the chart, from left to right, between what stands above and below a box."""
        held = {id(rect): rect for rects in self._taken.values() for rect in rects}.values()
        across = [rect for rect in held if rect.x < right and rect.right > left and not around.holds(rect)]
        middle = around.center[1]
        top = max((rect.bottom for rect in across if rect.center[1] < middle), default=self.bounds.y)
        bottom = min((rect.y for rect in across if rect.center[1] >= middle), default=self.bounds.bottom)
        top, bottom = max(self.bounds.y, top), min(self.bounds.bottom, bottom)
        return Rect(left, top, right - left, max(0.0, bottom - top))

    def _cells(self, rect: Rect) -> list[tuple[int, int]]:
        """The cells of the room that a box touches; beyond the room there are none, however far a box reaches."""
        room = self.bounds
        left, right = max(rect.x, room.x - CELL), min(rect.right, room.right + CELL)
        top, bottom = max(rect.y, room.y - CELL), min(rect.bottom, room.bottom + CELL)
        across = range(math.floor(left / CELL), math.floor(right / CELL) + 1)
        return [(x, y) for x in across for y in range(math.floor(top / CELL), math.floor(bottom / CELL) + 1)]

    def behind(self, rect: Rect) -> Colour | None:
        """What lies behind the middle of a box: the foremost mark, else the ground; None where it is not known."""
        x, y = rect.center
        middle = Rect(x - 0.5, y - 0.5, 1.0, 1.0)
        near = dict(held for cell in self._cells(middle) for held in self._bodies.get(cell, ()))
        found = next((body for _, body in sorted(near.items(), reverse=True) if body.under(middle)), None)
        return self.ground if found is None or found.fill is None or not found.covers else found.fill

    def _stands(self, text: PlacedText, rect: Rect, any_colour: bool) -> bool:
        """Whether a box of a text lies on its own mark only, or beside it, in a colour that is read there."""
        near = dict(held for cell in self._cells(rect) for held in self._bodies.get(cell, ()))
        for _, body in sorted(near.items(), reverse=True):  # from the front, down to what the text lies on as a whole
            if not body.under(rect):
                continue
            if is_foreign(text, body.row, body.key):
                return False
            if body.fill is not None and not any_colour and contrast(text.colour, body.fill) < READ:
                return False
            if body.holds(rect):
                return True
        return any_colour or self.ground is None or contrast(text.colour, self.ground) >= READ


def is_foreign(text: PlacedText, row: int, key: str) -> bool:
    """Whether a mark is none that a text speaks of: another row's, or another series' in the same row."""
    if text.row != row:
        return True
    return text.key != key and text.key.startswith(SERIES) and key.startswith(SERIES)


def pieces(text: PlacedText) -> list[Rect]:
    """A text as boxes: itself when upright, small boxes along its lines when turned."""
    if not text.angle:
        return [text.bounds]
    found: list[Rect] = []
    half = text.size * 0.36
    for line in text.lines:
        by = turned(text.angle, line.x, line.y)
        count = max(1, math.ceil(line.width / (2 * half)))
        for i in range(count):
            x, y = by.apply(line.x + line.width * (i + 0.5) / count, line.y - half * 0.9)
            found.append(Rect(x - half, y - half, 2 * half, 2 * half))
    return found


def _along(text: PlacedText) -> list[Rect]:
    """A text's leader as small boxes."""
    found: list[Rect] = []
    for (ax, ay), (bx, by) in pairwise(text.leader):
        steps = max(1, math.ceil(math.hypot(bx - ax, by - ay) / 2.5))
        found += [
            Rect(ax + i / steps * (bx - ax) - 0.4, ay + i / steps * (by - ay) - 0.4, 0.8, 0.8) for i in range(steps + 1)
        ]
    return found


def _rings(path: Path) -> tuple[tuple[Point, ...], ...]:
    """A path's outlines as corners, curves in a few straight pieces."""
    rings: list[list[Point]] = []
    at, c = 0, path.coordinates
    for verb in path.verbs:
        if verb == MOVE:
            rings.append([(c[at], c[at + 1])])
            at += 2
        elif verb == LINE:
            rings[-1].append((c[at], c[at + 1]))
            at += 2
        elif verb == CURVE:
            (x0, y0), (x1, y1, x2, y2, x3, y3) = rings[-1][-1], c[at : at + 6]
            for i in range(1, FINE + 1):
                t, s = i / FINE, 1 - i / FINE
                a, b, d, e = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
                rings[-1].append((a * x0 + b * x1 + d * x2 + e * x3, a * y0 + b * y1 + d * y2 + e * y3))
            at += 6
        elif verb == CLOSE:
            continue
    return tuple(tuple(ring) for ring in rings)


def _is_box(ring: tuple[Point, ...]) -> bool:
    xs, ys = {round(x, 3) for x, _ in ring}, {round(y, 3) for _, y in ring}
    return len(xs) == 2 and len(ys) == 2


def _crossings(rings: tuple[tuple[Point, ...], ...], y: float) -> list[float]:
    """Where outlines cross a level."""
    found: list[float] = []
    for ring in rings:
        px, py = ring[-1]
        for qx, qy in ring:
            if (py > y) != (qy > y):
                found.append(px + (y - py) * (qx - px) / (qy - py))
            px, py = qx, qy
    return found


def _is_inside(crossings: list[float], x: float) -> bool:
    """Whether a place on a level lies inside outlines, by the parity of crossings to its right."""
    return sum(x < one for one in crossings) % 2 == 1
