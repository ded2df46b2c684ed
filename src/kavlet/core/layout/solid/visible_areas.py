"""What a view does to the reading: of each body, the area that is seen against the value it stands for."""

import math

from msgspec import Struct

from kavlet.core.layout.figure import Figure, Mark
from kavlet.core.values.geometry import Rect
from kavlet.core.values.sums import exact_sum

FINE = 2.0  # places to a point


class VisibleArea(Struct, frozen=True):
    """Of one mark: square points that are seen of it, and its shares, 0 to 1: of all that is seen, of all values (or of
    what else is drawn, such as shares of a sum), and of all areas in the flat chart."""

    mark: Mark
    area: float
    area_share: float
    value_share: float
    flat_share: float

    @property
    def off(self) -> float:
        """By how much its share of the area is larger than its share of the value."""
        return self.area_share - self.value_share


def seen(figure: Figure, fineness: float = FINE) -> tuple[VisibleArea, ...]:
    """All bodies of a solid chart, in the order of its marks; nothing of a flat one."""
    if not figure.faces:
        return ()
    from kavlet.core.solid.cover import Cover  # heavy, and only for charts that are solid

    boxes = [path.bounds for _, path in figure.faces]
    around = Rect.around([point for box in boxes for point in ((box.x, box.y), (box.right, box.bottom))])
    cover = Cover(around, fineness)
    for number, path in figure.faces:
        cover.paint(path, number + 1 if number >= 0 else len(figure.marks) + 1)
    areas = cover.areas(len(figure.marks) + 1)
    numbers = sorted({number for number, _ in figure.faces if number >= 0})
    marks = [(number, figure.marks[number]) for number in numbers if math.isfinite(figure.marks[number].value)]
    whole = sum(areas[number + 1] for number, _ in marks) or 1.0
    total = exact_sum(_drawn(mark) for _, mark in marks) or 1.0
    flat = exact_sum(mark.flat for _, mark in marks) or 1.0
    return tuple(
        VisibleArea(mark, areas[number + 1], areas[number + 1] / whole, _drawn(mark) / total, mark.flat / flat)
        for number, mark in marks
    )


def _drawn(mark: Mark) -> float:
    """How large the figure is that a mark draws."""
    return mark.share if mark.share is not None else abs(mark.value)
