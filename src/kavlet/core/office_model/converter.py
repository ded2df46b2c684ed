"""What the telling of a chart in plain terms reads, and what it has told so far."""

import math
from collections.abc import Callable, Sequence
from typing import Any, Literal

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.layer import Layer, Row
from kavlet.core.layout import painting
from kavlet.core.layout.context import Context, Panel
from kavlet.core.layout.figure import Figure, Mark, PlacedAxis, PlacedText
from kavlet.core.layout.painting import Filling, painted
from kavlet.core.messages import Message
from kavlet.core.office_model.chart_model import (
    AxisPair,
    BodyShape,
    CellRange,
    DataPoint,
    FillModel,
    Gradient,
    Grouping,
    GroupKind,
    Pattern,
    PictureModel,
    Series,
    SeriesGroup,
    Stroke,
    TextProperties,
)
from kavlet.core.office_model.workings import Workings
from kavlet.core.pipeline.stages import Build
from kavlet.core.scene import paints
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Scene
from kavlet.core.shapes.body import End
from kavlet.core.shapes.box import box
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.styling.fills import Fill, PictureFill
from kavlet.core.styling.style import Style
from kavlet.core.text.faces import face_of, named_face
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size

UNIT = Rect(0.0, 0.0, 1.0, 1.0)
PICTURE_SIDE = 96.0  # points of a symbol's picture, longer side
SHAPES: dict[str, BodyShape] = {"round": "cylinder", "cone": "cone", "pyramid": "pyramid"}


class DraftGroup(Struct):
    """A group that series are added to."""

    kind: GroupKind
    axes: AxisPair
    grouping: Grouping
    gap: float
    overlap: float
    series: list[Series]
    first_angle: float = 0.0
    hole: float = 50.0
    by_area: bool = True
    bubble_scale: float = 100.0

    def made(self) -> SeriesGroup:
        """The group as it is now."""
        return SeriesGroup(
            kind=self.kind,
            series=tuple(self.series),
            axes=self.axes,
            grouping=self.grouping,
            gap=self.gap,
            overlap=self.overlap,
            first_angle=self.first_angle,
            hole=self.hole,
            by_area=self.by_area,
            bubble_scale=self.bubble_scale,
        )


class PanelSource(Struct, frozen=True):
    """What is told: a panel of a chart's build and its figure, its style, and all tables with their values."""

    build: Build
    panel: Panel
    number: int
    figure: Figure
    context: Context
    table: Table
    values: Values


class ChartConverter:
    """One panel on its way: layers add groups, workings and what differs."""

    def __init__(self, source: PanelSource, workings: Workings) -> None:
        self.source = source
        self.chart: Chart = source.context.chart
        self.data = source.panel.data
        self.style: Style = source.context.style
        self.figure = source.figure
        self.workings = workings
        self.drafts: list[DraftGroup] = []
        self.differs: list[Message] = []
        self.needs_overlay = False
        self.same_scale = False
        self.blanks: Literal["gap", "span", "zero"] = "gap"
        self.marks: dict[tuple[str, int], Mark] = {}  # by the layer's key and the row, or what stands for one
        self.pieces: dict[tuple[str, int], Mark] = {}  # the same by the number of a part, where a row has several
        for mark in self.figure.marks:
            if mark.panel == source.number:
                self.marks.setdefault((mark.key, mark.row), mark)
                self.pieces.setdefault((mark.key, mark.series), mark)
        self.texts: dict[tuple[str, int], PlacedText] = {
            (text.key, text.row): text
            for text in self.figure.texts
            if text.kind == "label" and text.row is not None and text.panel == source.number
        }

    @property
    def lying(self) -> bool:
        """Whether bars lie."""
        return isinstance(self.chart.frame, Cartesian) and self.chart.frame.lying

    @property
    def end(self) -> End:
        """Where values grow to."""
        return "right" if self.lying else "up"

    @property
    def rows(self) -> int:
        """How many rows are shown."""
        return self.data.rows

    def differ(self, what: Message) -> None:
        """Say, once, what looks different."""
        if what not in self.differs:
            self.differs.append(what)

    # Cells

    def cells(self, column: str) -> CellRange:
        """The shown rows of a column of the chart's table: where they stand, or a copy by formulas where they are not
        below each other."""
        place, rows = self.source.table.place(column), [HEADER + row for row in self.data.ids]
        if rows == list(range(rows[0], rows[0] + len(rows))):
            return CellRange(self.source.table.id, place, rows[0], len(rows))
        return self.workings.formulas(
            self.title(column),
            [f'IF(ISBLANK({ref});"";{ref})' for ref in (self.at(column, i) for i in range(len(rows)))],
            self.data.number_text(column),
        )

    def at(self, column: str, row: int) -> str:
        """The reference to a shown row of a column, as formulas of the workings write it."""
        place = self.source.table.place(column)
        return self.workings.at(CellRange(self.source.table.id, place, HEADER + self.data.ids[row], 1), 0)

    def plotted(self, column: str) -> CellRange:
        """The figures of a column for marks that a text or an error would pull to zero: those are no value there."""
        figures, values = self.data.column(column), self.data.values.get(column, [])
        if not any(math.isnan(figure) and values[i] is not None for i, figure in enumerate(figures)):
            return self.cells(column)
        refs = [self.at(column, i) for i in range(self.rows)]
        return self.workings.formulas(
            self.title(column), [f"IF(ISNUMBER({ref});{ref};NA())" for ref in refs], self.data.number_text(column)
        )

    def title(self, column: str) -> str:
        """What a column is called."""
        return self.data.titles.get(column, column)

    def names(self) -> CellRange | None:
        """The cells that name the rows."""
        return self.cells(self.chart.names) if self.source.table.place(self.chart.names) >= 0 else None

    def name(self, layer: Layer) -> CellRange:
        """The cell that names a layer: its column's heading where that says the same."""
        place = self.source.table.place(layer.values)
        column = self.source.table.column(place)
        if column is not None and column.name == layer.name:
            return CellRange(self.source.table.id, place, 0, 1)
        return self.workings.one(layer.name)

    # Fills

    def fill(self, mark: Mark) -> FillModel:
        """What a mark is filled with."""
        end: End = mark.block.end if mark.block is not None else self.end
        return self.filled(mark.dressed, mark.tone, mark.value, end)

    def filled(self, fill: Fill | None, tone: int, value: float = 1.0, end: End = "up") -> FillModel:
        """A fill in plain terms."""
        if isinstance(fill, PictureFill):
            return self.picture(fill, tone, value)
        paint = painting.paint(fill, tone, UNIT, self.style, end)
        match paint:
            case paints.LinearGradient():
                angle = math.degrees(math.atan2(paint.y2 - paint.y1, paint.x2 - paint.x1)) % 360
                return _even(Gradient(paint.stops, angle))
            case paints.RadialGradient():
                return _even(Gradient(paint.stops, None))
            case paints.Hatch():
                return Pattern(paint.kind, paint.colour, paint.ground or self.style.ground, paint.angle)
        return paint

    def picture(self, fill: PictureFill, tone: int, value: float) -> FillModel:
        """A symbol or picture as a fill; its ground or colour where there is no such picture."""
        held = self.data.picture(fill.name)
        if held is None:
            return self.style.solid(fill.ground or None, tone)
        once = msgspec.structs.replace(fill, how="stretched", turned=False)
        wide, tall = _proportions(held)
        area = Rect(0.0, 0.0, PICTURE_SIDE * wide, PICTURE_SIDE * tall)
        items = painted(Filling(once, tone, value=value), recorded(box, area), area, "up", self.source.context)
        ground = self.style.colour(fill.ground) if fill.ground else None
        scene = Scene(Size(area.width, area.height), ground, items)
        if fill.how == "repeated":
            return PictureModel(fill.name, scene, "stack")
        return (
            PictureModel(fill.name, scene, "scale", fill.unit)
            if fill.how == "per unit"
            else PictureModel(fill.name, scene)
        )

    def dressed(
        self, layer: Layer, rows: Sequence[int] | None = None
    ) -> tuple[FillModel | None, tuple[DataPoint, ...]]:
        """The fill of a layer, and the points that differ from it. `rows` are the rows' ids by point."""
        if layer.helper:
            return None, ()
        made: list[tuple[int, FillModel | None]] = []
        for index, row in enumerate(rows if rows is not None else self.data.ids):
            mark = self.marks.get((layer.key, row))
            if mark is not None:
                made.append((index, self.fill(mark) if mark.visible else None))
        base = _commonest([fill for _, fill in made]) or self.filled(layer.fill, layer.tone, end=self.end)
        edges = {index: self.edge(layer, self.row(index)) for index, _ in made}
        own = self.edge(layer, None)
        points = tuple(
            DataPoint(index, fill, edges[index]) for index, fill in made if fill != base or edges[index] != own
        )
        return base, points

    def row(self, index: int) -> int:
        """The table's row of a shown one."""
        return self.data.ids[index] if index < len(self.data.ids) else -1

    def edge(self, layer: Layer, row: int | None) -> Stroke | None:
        """The edge of a layer, or of one of its rows."""
        own = layer.rows.get(row, Row()).edge if row is not None else ""
        text = own or layer.edge
        return Stroke(self.style.colour(text), layer.edge_width) if text else None

    def colour(self, layer: Layer) -> Colour:
        """One colour that stands for a layer."""
        return self.style.solid(layer.fill, layer.tone)

    def marks_fill(self, layer: Layer, index: int) -> tuple[Fill | None, int]:
        """The fill and tone of a shown row."""
        return painting.fill_of(layer, self.data.ids[index], index, self.data)

    # Groups

    def group(
        self, kind: GroupKind, axes: AxisPair = "first", grouping: Grouping = "clustered", gap: float = 60.0,
        overlap: float = 0.0,
    ) -> DraftGroup:  # fmt: skip
        """The group of that kind on those axes, made where there is none yet."""
        for draft in self.drafts:
            same = (draft.kind, draft.axes) == (kind, axes)
            if same and (kind not in ("bars", "area") or draft.grouping == grouping):
                return draft
        draft = DraftGroup(kind, axes, grouping, gap, overlap, [])
        self.drafts.append(draft)
        return draft

    def overlay(self) -> DraftGroup:
        """The points over the plot, on axes of their own that are not seen: rows from 0 on across, the scale along."""
        self.needs_overlay = True
        return self.group("scatter", "overlay")

    def spots(self, heading: str, across: Sequence[float]) -> CellRange:
        """Places across as a column of the workings."""
        cells: list[Cell] = [float(place) for place in across]
        return self.workings.column(heading, cells)

    def axis(self, name: str) -> PlacedAxis | None:
        """What an axis has come to."""
        return next((axis for axis in self.figure.axes if axis.name == name), None)

    def over_rows(self, across: CellRange, along: CellRange) -> tuple[CellRange, CellRange]:
        """x and y of points on the overlay."""
        return (along, across) if self.lying else (across, along)


def lettered(text: PlacedText) -> TextProperties:
    """How a text is set."""
    bold, italic = named_face(text.face)
    return TextProperties(text.size, text.colour, bold, italic, face_of(text.face).css_family, text.angle)


def _even(gradient: Gradient) -> FillModel:
    """A gradient of one colour is that colour."""
    return gradient.stops[0][1] if len({colour.hex for _, colour in gradient.stops}) == 1 else gradient


def _commonest(fills: Sequence[FillModel | None]) -> FillModel | None:
    """The fill of most points; the first of those where several are as common."""
    counts: list[tuple[FillModel, int]] = []
    for fill in fills:
        if fill is not None:
            known_index = next((i for i, (fill_, _) in enumerate(counts) if fill_ == fill), None)
            if known_index is None:
                counts.append((fill, 1))
            else:
                counts[known_index] = (fill, counts[known_index][1] + 1)
    return max(counts, key=lambda fill_: fill_[1])[0] if counts else None


def _proportions(held: object) -> tuple[float, float]:
    """Width and height of a symbol or picture, the longer side 1."""
    from kavlet.core.layout.data import Raster
    from kavlet.core.shapes.symbol import Symbol, extent

    if isinstance(held, Raster):
        longest = max(held.width, held.height, 1)
        return held.width / longest, held.height / longest
    assert isinstance(held, Symbol)
    wide, tall = extent(held.outline).width, extent(held.outline).height
    most = max(wide, tall, 1e-9)
    return wide / most, tall / most


Tell = Callable[[Any, ChartConverter], None]
