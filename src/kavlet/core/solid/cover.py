"""Which body is seen at each place: a small raster of numbers, painted in the painter's order."""

import math

import numpy as np
from numpy.typing import NDArray

from kavlet.core.scene.path import CLOSE, CURVE, LINE, MOVE, Path
from kavlet.core.values.geometry import Rect

STEPS = 6  # straight pieces a curve is followed in


class Cover:
    """A raster over an area of the sheet, `fineness` places to a point; 0 where nothing is."""

    def __init__(self, area: Rect, fineness: float) -> None:
        from PIL import Image, ImageDraw

        self._x, self._y, self._fineness = area.x, area.y, fineness
        size = max(1, round(area.width * fineness)), max(1, round(area.height * fineness))
        self._image = Image.new("I", size, 0)
        self._draw = ImageDraw.Draw(self._image)
        self._held: NDArray[np.int32] | None = None

    def paint(self, path: Path, number: int) -> None:
        """Put a number wherever the path is; holes in it are filled."""
        self._held = None
        for points in polygons(path):
            if len(points) > 2:
                at = [
                    ((x - self._x) * self._fineness - 0.5, (y - self._y) * self._fineness - 0.5) for x, y in points
                ]  # fmt: skip
                self._draw.polygon(at, fill=number)

    @property
    def numbers(self) -> NDArray[np.int32]:
        """The raster, rows from top to bottom."""
        if self._held is None:
            self._held = np.array(self._image, dtype=np.int32)
        return self._held

    def areas(self, most: int) -> list[float]:
        """Square points on which each number up to `most` is seen."""
        counts = np.bincount(self.numbers.ravel(), minlength=most + 1)
        return [float(count) / self._fineness**2 for count in counts.tolist()]

    def at(self, x: float, y: float) -> int:
        """What is seen at a point."""
        held = self.numbers
        column, row = int((x - self._x) * self._fineness), int((y - self._y) * self._fineness)
        if not (0 <= row < held.shape[0] and 0 <= column < held.shape[1]):
            return 0
        return int(held[row, column])

    def within(self, box: Rect) -> set[int]:
        """All that is seen in a box."""
        held = self.numbers
        fine = self._fineness
        left, top = max(0, int((box.x - self._x) * fine)), max(0, int((box.y - self._y) * fine))
        right = max(0, math.ceil((box.right - self._x) * fine))
        bottom = max(0, math.ceil((box.bottom - self._y) * fine))
        return set(np.unique(held[top:bottom, left:right]).tolist())


def polygons(path: Path, steps: int = STEPS) -> list[list[tuple[float, float]]]:
    """A path's rings as polygons; curves in so many straight pieces."""
    rings: list[list[tuple[float, float]]] = []
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
            for i in range(1, steps + 1):
                t = i / steps
                s = 1 - t
                a, b, d, e = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
                rings[-1].append((a * x0 + b * x1 + d * x2 + e * x3, a * y0 + b * y1 + d * y2 + e * y3))
            at += 6
        elif verb == CLOSE:
            continue
    return rings


def cut(points: list[tuple[float, float]], axis: int, limit: float, low: bool) -> list[tuple[float, float]]:
    """A polygon without what lies beyond a limit along an axis (Sutherland and Hodgman 1974)."""
    made: list[tuple[float, float]] = []
    for one, other in zip(points, [*points[1:], points[0]], strict=True) if points else ():
        a, b = (one[axis] - limit, other[axis] - limit) if low else (limit - one[axis], limit - other[axis])
        if a >= 0:
            made.append(one)
        if a * b < 0:
            t = a / (a - b)
            made.append((one[0] + (other[0] - one[0]) * t, one[1] + (other[1] - one[1]) * t))
    return made
