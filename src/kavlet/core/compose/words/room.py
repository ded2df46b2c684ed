"""What is taken on the chart, so that no two texts overlap and none leaves the chart."""

import math

from kavlet.core.compose.figure import PlacedText
from kavlet.core.values.affine import turned
from kavlet.core.values.geometry import Rect

CELL = 40.0  # points; texts are kept in a grid of buckets of this size, so that only near ones are compared


class Room:
    """The free room of a chart."""

    def __init__(self, bounds: Rect) -> None:
        self.bounds = bounds
        self._taken: dict[tuple[int, int], list[Rect]] = {}

    def take(self, text: PlacedText) -> None:
        """Note that a text stands there."""
        for rect in pieces(text):
            self.take_rect(rect)

    def take_rect(self, rect: Rect) -> None:
        """Mark a box as taken."""
        for cell in self._cells(rect):
            self._taken.setdefault(cell, []).append(rect)

    def free(self, text: PlacedText) -> bool:
        """Whether a text would stand inside the chart, on no other."""
        return all(self.bounds.holds(rect, 0.01) and self.free_rect(rect) for rect in pieces(text))

    def free_rect(self, rect: Rect) -> bool:
        """Whether a box touches nothing that is taken."""
        return not any(rect.overlaps(held) for cell in self._cells(rect) for held in self._taken.get(cell, ()))

    def _cells(self, rect: Rect) -> list[tuple[int, int]]:
        left, right = math.floor(rect.x / CELL), math.floor(rect.right / CELL)
        top, bottom = math.floor(rect.y / CELL), math.floor(rect.bottom / CELL)
        return [(x, y) for x in range(left, right + 1) for y in range(top, bottom + 1)]


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
