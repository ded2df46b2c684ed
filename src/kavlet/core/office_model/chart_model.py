"""What both office standards know of a chart (ISO/IEC 29500-1, 21.2; ISO/IEC 26300-3, 11): groups of series on axes."""

from typing import Literal

from msgspec import Struct

from kavlet.core.messages import Message
from kavlet.core.scene.primitives import Scene
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.number_text import NumberText

GroupKind = Literal["bars", "lines", "area", "scatter", "bubbles", "pie", "rings"]
Grouping = Literal["clustered", "stacked", "share"]
AxisPair = Literal["first", "second", "overlay"]
LabelPlace = Literal["auto", "centre", "inside end", "inside base", "outside", "above", "below", "left", "right"]
Marker = Literal["none", "disc", "square", "diamond", "triangle", "cross", "plus", "dash", "picture"]
BodyShape = Literal["box", "cylinder", "cone", "pyramid"]


class CellRange(Struct, frozen=True):
    """Cells of one column of a table, from row `first` on (0 is the header): `count` of them, below each other."""

    table: str
    column: int
    first: int
    count: int


class Gradient(Struct, frozen=True):
    """Colours from 0 to 1 along a direction in degrees clockwise from the right, or outward where it is None."""

    stops: tuple[tuple[float, Colour], ...]
    angle: float | None


class Pattern(Struct, frozen=True):
    """Lines or dots of a colour on a ground; the angle is that of the lines, in degrees."""

    kind: str
    colour: Colour
    ground: Colour
    angle: float


class PictureModel(Struct, frozen=True):
    """A picture that fills a part: once over all of it, in a stack, or one for each `unit` of the value.

    It is a scene of its own, or the bytes of a PNG or JPEG.
    """

    name: str
    what: Scene | bytes
    how: Literal["stretch", "stack", "scale"] = "stretch"
    unit: float = 1.0


FillModel = Colour | Gradient | Pattern | PictureModel


class Stroke(Struct, frozen=True):
    """A line: colour, width in points, dashes."""

    colour: Colour
    width: float
    dash: Literal["solid", "dash", "dot"] = "solid"


class TextProperties(Struct, frozen=True):
    """How a text is set: size in points, colour, weight, slope, the face's family, degrees clockwise."""

    size: float
    colour: Colour
    bold: bool = False
    italic: bool = False
    family: str = ""
    angle: float = 0.0


class DataPoint(Struct, frozen=True):
    """One point of a series that differs from it. `fill` None: not drawn at all. `explode` is percent of the radius."""

    index: int
    fill: FillModel | None
    edge: Stroke | None = None
    explode: float = 0.0


class PointLabel(Struct, frozen=True):
    """The label of one point: its text in a cell, how it is set, and where it stands."""

    index: int
    text: CellRange
    look: TextProperties
    place: LabelPlace = "auto"


class Labels(Struct, frozen=True):
    """Labels of a series: each point's text in a cell, or (`shown`) the values themselves, written by a number text."""

    points: tuple[PointLabel, ...] = ()
    shown: tuple[int, ...] = ()
    number: NumberText | None = None
    look: TextProperties | None = None
    place: LabelPlace = "auto"


class ErrorBars(Struct, frozen=True):
    """Error bars: how far they reach up and down from each value, and their line."""

    plus: CellRange | None
    minus: CellRange | None
    line: Stroke
    across: bool = False
    caps: bool = True


class Series(Struct, frozen=True, kw_only=True):
    """One series. Without fill, line and marker it is there and not seen, as a helper is.

    `name` is a cell; `names` are the categories or, where `x` is given, not used. `smooth` bends a line.
    `as_ring` says the same as a ring of slices, where points can't lie over rings.
    """

    name: CellRange
    values: CellRange
    names: CellRange | None = None
    x: CellRange | None = None
    sizes: CellRange | None = None
    fill: FillModel | None = None
    line: Stroke | None = None
    marker: Marker = "none"
    marker_size: float = 7.0
    marker_edge: Stroke | None = None
    marker_picture: PictureModel | None = None
    smooth: bool = False
    points: tuple[DataPoint, ...] = ()
    labels: Labels = Labels()
    errors: ErrorBars | None = None
    listed: bool = True
    shape: BodyShape = "box"
    as_ring: "Series | None" = None

    @property
    def cells(self) -> tuple[CellRange, ...]:
        """All cells it refers to."""
        ends = (self.errors.plus, self.errors.minus) if self.errors is not None else ()
        found = (self.name, self.values, self.names, self.x, self.sizes, *ends)
        more = self.as_ring.cells if self.as_ring is not None else ()
        return (*(one for one in found if one is not None), *(label.text for label in self.labels.points), *more)


class SeriesGroup(Struct, frozen=True, kw_only=True):
    """Series of one type on one pair of axes. Angles are degrees clockwise from the top, the hole a percentage."""

    kind: GroupKind
    series: tuple[Series, ...]
    axes: AxisPair = "first"
    grouping: Grouping = "clustered"
    gap: float = 60.0
    overlap: float = 0.0
    first_angle: float = 0.0
    hole: float = 50.0
    by_area: bool = True
    bubble_scale: float = 100.0


class AxisModel(Struct, frozen=True, kw_only=True):
    """One axis. Ends that are None are found by whoever shows the chart."""

    minimum: float | None = None
    maximum: float | None = None
    step: float | None = None
    log: bool = False
    category: bool = False
    reversed: bool = False
    shown: bool = True
    labelled: bool = True
    number: NumberText | None = None
    line: Stroke | None = None
    grid: Stroke | None = None
    title: str = ""
    title_look: TextProperties | None = None
    look: TextProperties | None = None
    every: int = 0


class Axes(Struct, frozen=True):
    """A pair of axes: across (names, or x) and along (values, or y)."""

    across: AxisModel
    along: AxisModel


class ChartText(Struct, frozen=True):
    """A text of the chart: written, or in a cell. `box` is where it stands, as shares of the chart."""

    text: str
    look: TextProperties
    box: Rect
    cell: CellRange | None = None
    align: Literal["start", "middle", "end"] = "start"


class View3D(Struct, frozen=True):
    """How a solid is looked at (ISO/IEC 29500-1, 21.2.2.228 view3D): degrees, perspective 0 to 1, depth in percent."""

    turn: float
    tilt: float
    perspective: float
    depth: float


class ChartModel(Struct, frozen=True, kw_only=True):
    """A chart in plain terms.

    `workings` is the table of what the chart computes beyond its own table: label texts, rests, places. `plot` and
    `legend` are places as shares of the chart. `differs` says what looks different there, part by part; `lost` are the
    names of those parts that are not there at all. `tables` are the tables it reads where they differ from the
    document's: those of a frame that shows another row, group or period.
    """

    name: str
    size: Size
    groups: tuple[SeriesGroup, ...]
    lying: bool
    first: Axes | None
    second: Axes | None
    title: ChartText | None
    texts: tuple[ChartText, ...]
    legend: Rect | None
    legend_look: TextProperties | None
    plot: Rect
    ground: Colour
    plot_ground: Colour | None
    family: str
    view: View3D | None
    workings: Table
    blanks: Literal["gap", "span", "zero"]
    alt_text: str
    differs: tuple[Message, ...]
    box: Rect = Rect(0.0, 0.0, 1.0, 1.0)
    tables: tuple[Table, ...] = ()

    @property
    def cells(self) -> tuple[CellRange, ...]:
        """All cells it refers to."""
        title = (self.title.cell,) if self.title is not None and self.title.cell is not None else ()
        return (*(cells for group in self.groups for series in group.series for cells in series.cells), *title)
