"""Rectangles and sizes in points (1/72 inch), y downward."""

from msgspec import Struct

Point = tuple[float, float]  # x and y


class Size(Struct, frozen=True, gc=False):
    """Width and height in points."""

    width: float
    height: float


class Rect(Struct, frozen=True, gc=False):
    """A rectangle by its top left corner and its size, in points."""

    x: float
    y: float
    width: float
    height: float

    @property
    def right(self) -> float:
        """The right side's x."""
        return self.x + self.width

    @property
    def bottom(self) -> float:
        """The lower side's y."""
        return self.y + self.height

    @property
    def center(self) -> tuple[float, float]:
        """The middle point."""
        return self.x + self.width / 2, self.y + self.height / 2

    def inset(self, left: float = 0.0, top: float = 0.0, right: float = 0.0, bottom: float = 0.0) -> "Rect":
        """The rectangle made smaller at each side; a side never passes its opposite."""
        width = max(0.0, self.width - left - right)
        height = max(0.0, self.height - top - bottom)
        return Rect(self.x + left, self.y + top, width, height)

    def moved(self, dx: float, dy: float) -> "Rect":
        """The same rectangle at another place."""
        return Rect(self.x + dx, self.y + dy, self.width, self.height)

    def overlaps(self, other: "Rect") -> bool:
        """Whether the two share an area; touching edges do not count."""
        return self.x < other.right and other.x < self.right and self.y < other.bottom and other.y < self.bottom

    def holds(self, other: "Rect", slack: float = 1e-6) -> bool:
        """Whether the other lies inside this one, up to `slack` points."""
        return (
            other.x >= self.x - slack
            and other.y >= self.y - slack
            and other.right <= self.right + slack
            and other.bottom <= self.bottom + slack
        )

    def way_into(self, outer: "Rect") -> tuple[float, float]:
        """How far to move it so that it lies inside another; where it is too large, its top left corner does."""
        dx = max(outer.x - self.x, min(0.0, outer.right - self.right))
        dy = max(outer.y - self.y, min(0.0, outer.bottom - self.bottom))
        return dx, dy

    @staticmethod
    def around(corners: list[tuple[float, float]]) -> "Rect":
        """The smallest rectangle around the points; empty input gives an empty rectangle at the origin."""
        if not corners:
            return Rect(0.0, 0.0, 0.0, 0.0)
        xs = [x for x, _ in corners]
        ys = [y for _, y in corners]
        return Rect(min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys))

    @staticmethod
    def around_all(boxes: "list[Rect]") -> "Rect":
        """The smallest rectangle around all of them."""
        x, y = min(box.x for box in boxes), min(box.y for box in boxes)
        return Rect(x, y, max(box.right for box in boxes) - x, max(box.bottom for box in boxes) - y)
