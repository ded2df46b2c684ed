"""The drawing primitives that a chart becomes: a flat list, painted from first to last."""

from msgspec import Struct

from kavlet.core.scene.paints import Paint
from kavlet.core.scene.path import Path
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size


class MarkId(Struct, frozen=True, gc=False):
    """Which mark a primitive belongs to: the layer's name, the row (0 is the first row of figures), the layer's key."""

    layer: str
    row: int
    key: str = ""


class Shape(Struct, frozen=True, gc=False):
    """A filled and perhaps edged outline; `dash` holds lengths of dashes and gaps; `clip` cuts it.

    With `place`, outline and fill lie on a plane of their own that is put onto the sheet by that map; the clip is not.
    A line's ends are round unless it has `flat_ends` or dashes.
    """

    path: Path
    fill: Paint | None = None
    edge: Colour | None = None
    edge_width: float = 0.0
    mark: MarkId | None = None
    title: str = ""
    dash: tuple[float, ...] = ()
    clip: Path | None = None
    place: Affine | None = None
    flat_ends: bool = False


class Stamp(Struct, frozen=True, gc=False):
    """A shared outline put somewhere by an affine map: a symbol. All stamps of one `name` have the same outline."""

    name: str
    outline: Path
    place: Affine
    fill: Colour
    clip: Path | None = None
    mark: MarkId | None = None
    title: str = ""


class Image(Struct, frozen=True, gc=False):
    """A PNG or JPEG in the unit square, put somewhere by an affine map."""

    name: str
    content: bytes
    place: Affine
    clip: Path | None = None
    mark: MarkId | None = None
    title: str = ""


class Writing(Struct, frozen=True, gc=False):
    """One line of text; `x`, `y` is the start of its baseline, `width` its measured advance, all in points.

    It is turned clockwise by `angle` degrees about (x, y).
    """

    text: str
    x: float
    y: float
    width: float
    face: str
    size: float
    colour: Colour
    mark: MarkId | None = None
    angle: float = 0.0


Primitive = Shape | Stamp | Image | Writing


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
