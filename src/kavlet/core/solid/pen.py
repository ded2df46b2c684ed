"""The pen that filters another: what is drawn on a plane of the chart falls onto the sheet as it is seen."""

from kavlet.core.scene.path import Path, PathPen
from kavlet.core.scene.pens import Pen
from kavlet.core.solid.camera import SeenPlane


class PlanePen:
    """Draws onto another pen what is drawn on a plane. Lines stay lines; curves are cut finer in perspective."""

    def __init__(self, onto: Pen, sheet: SeenPlane) -> None:
        self._onto, self._sheet = onto, sheet
        self._here = (0.0, 0.0)
        self._depth = 0 if sheet.affine is not None else 2

    def move_to(self, x: float, y: float) -> None:
        """Start a new part at a point."""
        self._here = (x, y)
        self._onto.move_to(*self._sheet.point(x, y))

    def line_to(self, x: float, y: float) -> None:
        """A straight line to a point."""
        self._here = (x, y)
        self._onto.line_to(*self._sheet.point(x, y))

    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None:
        """A cubic curve to a point, by two control points."""
        self._curve(self._here, (x1, y1), (x2, y2), (x, y), self._depth)
        self._here = (x, y)

    def close(self) -> None:
        """Close the part with a straight line."""
        self._onto.close()

    def _curve(
        self, a: tuple[float, float], b: tuple[float, float], c: tuple[float, float], d: tuple[float, float], depth: int
    ) -> None:
        """A cubic; halved until its control points may be projected one by one."""
        if depth == 0:
            point = self._sheet.point
            self._onto.curve_to(*point(*b), *point(*c), *point(*d))
            return
        ab, bc, cd = _middle(a, b), _middle(b, c), _middle(c, d)
        abc, bcd = _middle(ab, bc), _middle(bc, cd)
        centre = _middle(abc, bcd)
        self._curve(a, ab, abc, centre, depth - 1)
        self._curve(centre, bcd, cd, d, depth - 1)


def _middle(one: tuple[float, float], other: tuple[float, float]) -> tuple[float, float]:
    return (one[0] + other[0]) / 2, (one[1] + other[1]) / 2


def seen(path: Path, sheet: SeenPlane) -> Path:
    """An outline on a plane as it is seen."""
    if sheet.same:
        return path
    if sheet.affine is not None:
        return path.mapped(sheet.affine)
    pen = PathPen()
    path.draw(PlanePen(pen, sheet))
    return pen.path
