"""A chart with everything in its place: marks, rules, texts and axes in points, each mark with its row."""

from typing import Literal

from msgspec import Struct

from kavlet.core.scene.path import Path
from kavlet.core.scene.primitives import MarkId, Primitive
from kavlet.core.shapes.arc import Sector
from kavlet.core.shapes.body import BodyForm, End
from kavlet.core.styling.fills import Fill
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect, Size

TextAnchor = Literal["start", "middle", "end"]
TextKind = Literal[
    "title", "subtitle", "source", "name", "heading", "label", "tick", "axis title", "legend", "note", "panel"
]
Handle = Literal["out", "value", "breadth"]
RuleKind = Literal["grid", "minor", "axis", "tick", "frame", "leader"]


class MarkKind(Struct, frozen=True):
    """What is known of the marks of one layer type: what they are called in the record, and what can be done with them.

    `handles` are what dragging one may change: how far it stands out, the value it is at, how broad its bars are.
    """

    name: str
    handles: frozenset[Handle] = frozenset()
    has_body: bool = False  # whether it can be solid
    has_slices: bool = False  # whether they are slices, whose labels keep inside them as a solid
    can_be_round: bool = False  # whether their bodies can be turned on their axis: cylinders, cones, pyramids
    disc_depth: float = 0.22  # how deep their bodies on a disc are, as a share of the disc's radius
    is_lit: bool = True  # whether they light up with the cells that drive them
    shows_helpers: bool = True  # whether X-ray shows undrawn ones
    bars_texts: bool = False  # whether no text of another row may lie on one


class BarBox(Struct, frozen=True):
    """The box that a bar fills, its form, and the side its value grows to; `broken` when its value goes on beyond.

    `corners` are those of a tapered one: start and end of its leading edge, end and start of its trailing edge. `cuts`
    are where it is cut into cells, along its axis; `bulb` is the radius of the bulb at its base and how far below the
    base its centre lies; `track` the box of the whole scale and the side it grows to, where
    that is drawn behind it.
    """

    rect: Rect
    form: BodyForm
    end: End
    corners: tuple[Point, ...] = ()
    broken: bool = False
    cuts: tuple[float, ...] = ()
    bulb: tuple[float, float] | None = None
    track: tuple[Rect, End] | None = None

    @property
    def is_round(self) -> bool:
        """Whether it looks round in the flat chart."""
        return self.form == "cylinder" or self.bulb is not None


class Mark(Struct, frozen=True, kw_only=True):
    """One drawn (or, for helpers, undrawn) item of a layer. `series` counts the chart's layers from the back.

    `items` are its primitives, back to front, before them `track`: what lies behind it. `path` is its outline, for
    touching and lighting up; `line` holds the ends of what is one. `fill` is one colour that stands for it; `dressed`
    and `tone` say how it was filled. Where
    not its value but its share of a sum is drawn, that is `share`. `flat` is the area of a body's outline in the flat
    chart, in square points. `beyond` says that its value lies beyond its axis. `column` is the id of the column of the
    chart's table whose cell in its row it shows; empty where what it shows is computed of others.
    """

    layer: str
    key: str
    kind: MarkKind
    row: int
    series: int
    helper: bool
    visible: bool
    value: float
    bounds: Rect
    column: str = ""
    path: Path | None = None
    fill: Colour | None = None
    says: str = ""
    items: tuple[Primitive, ...] = ()
    sector: Sector | None = None
    block: BarBox | None = None
    line: tuple[Point, Point] | None = None
    dressed: Fill | None = None
    tone: int = 0
    panel: int = 0
    track: tuple[Primitive, ...] = ()
    share: float | None = None
    flat: float = 0.0
    chart: str = ""
    beyond: bool = False

    @property
    def id(self) -> MarkId:
        """What names it in a scene."""
        return MarkId(self.layer, self.row, self.key, self.chart)


class PlacedLine(Struct, frozen=True):
    """One line of a text; `x` is the start of its baseline and `y` the baseline."""

    text: str
    x: float
    y: float
    width: float


class PlacedText(Struct, frozen=True):
    """A text of one line or more. `leader` holds the points of the line that leads to its mark."""

    text: str
    kind: TextKind
    lines: tuple[PlacedLine, ...]
    bounds: Rect
    anchor: TextAnchor
    face: str
    size: float
    colour: Colour
    row: int | None = None
    layer: str = ""
    key: str = ""
    angle: float = 0.0
    leader: tuple[tuple[float, float], ...] = ()
    leader_colour: Colour | None = None
    arrow: bool = False
    panel: int = 0


class PlacedRule(Struct, frozen=True):
    """A straight line that carries no figure: a gridline, an axis."""

    kind: RuleKind
    x1: float
    y1: float
    x2: float
    y2: float
    colour: Colour
    width: float = 0.75
    dash: tuple[float, ...] = ()


class Key(Struct, frozen=True):
    """One entry of the legend: what it draws, and its text among the figure's texts."""

    name: str
    items: tuple[Primitive, ...]
    bounds: Rect


class PlacedAxis(Struct, frozen=True):
    """One axis: its ends, and the ticks it shows."""

    name: str
    minimum: float
    maximum: float
    visible: bool
    ticks: tuple[float, ...] = ()


class Figure(Struct, frozen=True):
    """All that one chart draws, back to front: `behind` (grounds and borders), `room`, `under`, marks, `over`, legend,
    texts.

    Where the chart is a solid, `room` holds the walls around it, `painted` the primitives of all its marks, farthest
    first, each naming its mark, `faces` what is seen of each mark (by its number; -1 for what belongs to none) in the
    same order, and `fronts` how each panel's own plane falls onto the sheet, as the rows of a 3×3 matrix. `hair` is the
    weight of leaders in points, `name` the chart's id.
    """

    size: Size
    plot: Rect
    ground: Colour
    marks: tuple[Mark, ...]
    texts: tuple[PlacedText, ...]
    axes: tuple[PlacedAxis, ...]
    under: tuple[PlacedRule, ...] = ()
    over: tuple[PlacedRule, ...] = ()
    keys: tuple[Key, ...] = ()
    legend: tuple[str, ...] = ()
    title: str = ""
    alt_text: str = ""
    long_text: str = ""
    dropped: int = 0
    unnamed: int = 0
    unlisted: int = 0
    behind: tuple[Primitive, ...] = ()
    room: tuple[Primitive, ...] = ()
    painted: tuple[Primitive, ...] | None = None
    faces: tuple[tuple[int, Path], ...] = ()
    fronts: tuple[tuple[float, ...], ...] = ()
    hair: float = 0.75
    name: str = ""
