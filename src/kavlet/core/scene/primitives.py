"""The drawing primitives that a chart becomes: a flat list, painted from first to last."""

from msgspec import Struct

from kavlet.core.scene.path import Path
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size


class MarkId(Struct, frozen=True):
    """Which mark a primitive belongs to: the layer's name and the row (0 is the first row of figures)."""

    layer: str
    row: int


class Shape(Struct, frozen=True):
    """A filled and perhaps edged outline."""

    path: Path
    fill: Colour | None = None
    edge: Colour | None = None
    edge_width: float = 0.0
    mark: MarkId | None = None
    title: str = ""


class Writing(Struct, frozen=True):
    """One line of text; `x`, `y` is the start of its baseline, `width` its measured advance, all in points."""

    text: str
    x: float
    y: float
    width: float
    face: str
    size: float
    colour: Colour
    mark: MarkId | None = None


Primitive = Shape | Writing


class Scene(Struct, frozen=True):
    """All there is to draw, with what a screen reader says of it."""

    size: Size
    ground: Colour | None
    items: tuple[Primitive, ...]
    title: str = ""
    description: str = ""

    @property
    def bounds(self) -> Rect:
        return Rect(0.0, 0.0, self.size.width, self.size.height)
