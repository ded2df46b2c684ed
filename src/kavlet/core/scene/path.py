"""An outline as a frozen value: recorded with a pen, drawn onto any other."""

import math
import re
from collections.abc import Callable, Sequence
from functools import lru_cache
from itertools import chain

from msgspec import Struct

from kavlet.core.scene.pens import Pen
from kavlet.core.values.affine import Affine
from kavlet.core.values.geometry import Rect

MOVE, LINE, CURVE, CLOSE = "M", "L", "C", "Z"
_TAKES = {MOVE: 2, LINE: 2, CURVE: 6, CLOSE: 0}


_TRAILING = re.compile(r"0+(?![\d.])")  # every number has decimals, so that only theirs are at its end
_BARE = re.compile(r"\.(?!\d)")
_NEGATIVE_ZERO = re.compile(r"-0(?![\d.])")


@lru_cache(maxsize=1024)
def _template(verbs: str, decimals: int) -> str:
    """What the numbers of a path with these verbs are written into."""
    number = f"%.{decimals}f"
    return "".join(verb + " ".join([number] * _TAKES[verb]) for verb in verbs)


class Path(Struct, frozen=True, gc=False, cache_hash=True):
    """One letter of `verbs` per step (M, L, C, Z) and its coordinates in `coordinates`, in points."""

    verbs: str
    coordinates: tuple[float, ...]

    def draw(self, pen: Pen) -> None:
        """Draw the outline onto a pen."""
        at, c = 0, self.coordinates
        for verb in self.verbs:
            if verb == MOVE:
                pen.move_to(c[at], c[at + 1])
            elif verb == LINE:
                pen.line_to(c[at], c[at + 1])
            elif verb == CURVE:
                pen.curve_to(c[at], c[at + 1], c[at + 2], c[at + 3], c[at + 4], c[at + 5])
            else:
                pen.close()
            at += _TAKES[verb]

    def data(self, decimals: int = 3) -> str:
        """The `d` attribute of an SVG path: as an SvgPen would write it, but all numbers at once."""
        text = _template(self.verbs, decimals) % self.coordinates
        return _NEGATIVE_ZERO.sub("0", _BARE.sub("", _TRAILING.sub("", text)))

    def mapped(self, by: Affine) -> "Path":
        """The outline under an affine map."""
        c = self.coordinates
        points = (by.apply(c[i], c[i + 1]) for i in range(0, len(c), 2))
        return Path(self.verbs, tuple(part for point in points for part in point))

    @property
    def bounds(self) -> Rect:
        """The smallest box around the outline, curves at their true extremes."""
        at, c = 0, self.coordinates
        corners: list[tuple[float, float]] = []
        here = (0.0, 0.0)
        for verb in self.verbs:
            if verb == CURVE:
                x1, y1, x2, y2, x, y = c[at : at + 6]
                xs = (here[0], *_extremes(here[0], x1, x2, x), x)
                ys = (here[1], *_extremes(here[1], y1, y2, y), y)
                corners += [(min(xs), min(ys)), (max(xs), max(ys))]
                here = (x, y)
            elif verb != CLOSE:
                here = (c[at], c[at + 1])
                corners.append(here)
            at += _TAKES[verb]
        return Rect.around(corners)


def joined(paths: Sequence[Path]) -> Path:
    """Several outlines as one."""
    return Path("".join(path.verbs for path in paths), tuple(chain.from_iterable(path.coordinates for path in paths)))


def _extremes(p0: float, p1: float, p2: float, p3: float) -> list[float]:
    """Values of one coordinate of a cubic Bézier where its derivative vanishes between the ends."""
    low, high = min(p0, p3), max(p0, p3)
    if low <= p1 <= high and low <= p2 <= high:
        return []
    a, b, c = -p0 + 3 * p1 - 3 * p2 + p3, 2 * (p0 - 2 * p1 + p2), p1 - p0
    if abs(a) < 1e-12:
        roots = [-c / b] if abs(b) > 1e-12 else []
    else:
        inside = b * b - 4 * a * c
        roots = [] if inside < 0 else [(-b + sign * math.sqrt(inside)) / (2 * a) for sign in (1, -1)]
    return [
        (1 - t) ** 3 * p0 + 3 * (1 - t) ** 2 * t * p1 + 3 * (1 - t) * t * t * p2 + t**3 * p3 for t in roots if 0 < t < 1
    ]


class PathPen:
    """Records what is drawn onto it as a Path."""

    def __init__(self) -> None:
        self._verbs: list[str] = []
        self._coordinates: list[float] = []

    def move_to(self, x: float, y: float) -> None:
        """Start a new part at a point."""
        self._verbs.append(MOVE)
        self._coordinates += (x, y)

    def line_to(self, x: float, y: float) -> None:
        """A straight line to a point."""
        self._verbs.append(LINE)
        self._coordinates += (x, y)

    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None:
        """A cubic curve to a point, by two control points."""
        self._verbs.append(CURVE)
        self._coordinates += (x1, y1, x2, y2, x, y)

    def close(self) -> None:
        """Close the part with a straight line."""
        self._verbs.append(CLOSE)

    @property
    def path(self) -> Path:
        """What was drawn so far."""
        return Path("".join(self._verbs), tuple(self._coordinates))


def recorded(draw: Callable[..., None], *arguments: object) -> Path:
    """The path that `draw(pen, *arguments)` puts onto a pen."""
    pen = PathPen()
    draw(pen, *arguments)
    return pen.path
