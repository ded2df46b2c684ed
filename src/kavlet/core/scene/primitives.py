"""The drawing primitives that a chart becomes: a list, painted from first to last.

Each means one thing, all of it data: writers only translate. They do so by `match`, so that the type checker sees that
none is left out.
"""

from typing import Literal

from msgspec import Struct

from kavlet.core.scene.paints import Paint
from kavlet.core.scene.path import Path
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size

Cap = Literal["round", "flat"]
Join = Literal["round", "miter"]


class MarkId(Struct, frozen=True, gc=False):
    """Which mark a primitive belongs to: the layer's name, the row (0 is the first row of figures), the layer's key,
    and the chart's id."""

    layer: str
    row: int
    key: str = ""
    chart: str = ""


class Shape(Struct, frozen=True, gc=False):
    """A filled and perhaps edged outline; `clip` cuts it.

    The edge runs along the outline, half of it to each side; `join` are its corners, `cap` the ends of open lines and
    of dashes, `dash` the lengths of dashes and gaps in points. With `place`, outline, fill and edge lie on a plane of
    their own that is put onto the sheet by that map; the clip is not.
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
    cap: Cap = "round"
    join: Join = "round"


def cap_of(dash: tuple[float, ...]) -> Cap:
    """The ends of a line: round, but of dashes, which keep their lengths."""
    return "flat" if dash else "round"


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


class Group(Struct, frozen=True, gc=False):
    """Primitives put somewhere together by an affine map, cut by a clip in the points outside of it.

    So scenes nest: a chart on a page is a group of its scene's items.
    """

    items: tuple["Primitive", ...]
    place: Affine = Affine()
    clip: Path | None = None
    mark: MarkId | None = None
    title: str = ""


Primitive = Shape | Stamp | Image | Writing | Group


class Scene(Struct, frozen=True):
    """All there is to draw, with what a screen reader says of it; `name` tells it from others in one file."""

    size: Size
    ground: Colour | None
    items: tuple[Primitive, ...]
    title: str = ""
    description: str = ""
    name: str = ""

    @property
    def bounds(self) -> Rect:
        """The whole of it as a box."""
        return Rect(0.0, 0.0, self.size.width, self.size.height)
