"""An outline as a frozen value: recorded with a pen, drawn onto any other."""

from collections.abc import Callable

from msgspec import Struct

from kavlet.core.scene.pens import Pen
from kavlet.core.values.geometry import Rect

MOVE, LINE, CURVE, CLOSE = "M", "L", "C", "Z"
_TAKES = {MOVE: 2, LINE: 2, CURVE: 6, CLOSE: 0}


class Path(Struct, frozen=True):
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

    @property
    def bounds(self) -> Rect:
        """The box around all points, control points among them."""
        return Rect.around(list(zip(self.coordinates[::2], self.coordinates[1::2], strict=True)))


class PathPen:
    """Records what is drawn onto it as a Path."""

    def __init__(self) -> None:
        self._verbs: list[str] = []
        self._coordinates: list[float] = []

    def move_to(self, x: float, y: float) -> None:
        self._add(MOVE, x, y)

    def line_to(self, x: float, y: float) -> None:
        self._add(LINE, x, y)

    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None:
        self._add(CURVE, x1, y1, x2, y2, x, y)

    def close(self) -> None:
        self._add(CLOSE)

    def _add(self, verb: str, *coordinates: float) -> None:
        self._verbs.append(verb)
        self._coordinates.extend(coordinates)

    @property
    def path(self) -> Path:
        return Path("".join(self._verbs), tuple(self._coordinates))


def recorded(draw: Callable[[Pen], None]) -> Path:
    """The path that `draw` puts onto a pen."""
    pen = PathPen()
    draw(pen)
    return pen.path
