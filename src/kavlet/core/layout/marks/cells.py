"""Places cells: counted units, one field for all rows on a grid frame, a line per row on a Cartesian one."""

import math
from functools import lru_cache

from msgspec import Struct

from kavlet.core.charts import fields
from kavlet.core.charts.cells import CellForm, Cells
from kavlet.core.charts.frame import Frame, Grid
from kavlet.core.charts.layer import EMPTY
from kavlet.core.layout.context import Context
from kavlet.core.layout.data import Raster
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.marks.shared_kinds import column_figures, disc_key, row_entries
from kavlet.core.layout.painting import picture
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.field import GridField
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import Path, PathPen, recorded
from kavlet.core.scene.primitives import Primitive, Stamp
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.area import left_of
from kavlet.core.shapes.box import box
from kavlet.core.shapes.symbol import Symbol, fitted, outline
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.values.affine import moved, scaled
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

MAX_CELLS = 4_000  # cells of one row


def on_field(layer: Cells, on: GridField, placing: Placing) -> None:
    """Rows fill the field one after another; what stays empty is drawn pale, as a mark of no row."""
    number = 0
    for row, figure in enumerate(map(float, placing.data.column(layer.values))):
        count = 0 if math.isnan(figure) else max(0, round(figure))
        boxes = [_drawn(on.cell(number + i), layer.gap) for i in range(min(count, max(0, on.count - number)))]
        number += len(boxes)
        if math.isnan(figure):
            continue
        _mark(layer, row, figure, _Line(boxes), placing)
        text = placing.wording.text(layer, row)
        if text and layer.label is not None and boxes:
            middle = boxes[len(boxes) // 2]
            spot = LabelSpot(
                *middle.center, "middle", "middle", ink(layer.label, placing.style, None), width=middle.width
            )
            placing.label(layer, placing.id(row), text, [spot], LabelStyle(placing.sizes.small))
    rest = [_drawn(on.cell(i), layer.gap) for i in range(number, on.count)]
    if layer.empty and rest and not layer.helper and not layer.hidden:
        colour = placing.style.named["track"]
        items, path = _drawn_cells(layer, _Line(rest), colour, "", placing)
        drawing = MarkDrawing(path=path, fill=colour, items=items)
        placing.put(layer, MarkSource(EMPTY, name="empty"), float(len(rest)), path.bounds, drawing)


def on_plane(layer: Cells, on: Plane, placing: Placing) -> None:
    """Each row its line of cells from the axis on, the last one cut to the fraction, wrapped where wished."""
    figures = [float(figure) for figure in placing.data.column(layer.values)]
    step = cell_step(layer, on, figures)
    per_line = layer.wrap if layer.wrap > 0 else MAX_CELLS
    for row, figure in enumerate(figures):
        if math.isnan(figure):
            continue
        count = min(MAX_CELLS, math.ceil(max(0.0, figure) - 1e-9))
        used = max(1, math.ceil(count / per_line)) if count else 1
        across0 = on.row_middle(row) - used * step / 2
        boxes: list[Rect] = []
        for i in range(count):
            line, place = divmod(i, per_line)
            if on.lying:
                boxes.append(Rect(on.plot.x + place * step, across0 + line * step, step, step))
            else:
                boxes.append(Rect(across0 + line * step, on.plot.bottom - (place + 1) * step, step, step))
        boxes = [_drawn(box, layer.gap) for box in boxes]
        part = figure - (count - 1) if count else 1.0
        _mark(layer, row, figure, _Line(boxes, part, not on.lying), placing)
        text = placing.wording.text(layer, row)
        if not text or layer.label is None or row % on.every:
            continue
        longest = min(max(0.0, figure), float(per_line))
        colour = ink(layer.label, placing.style, None)
        if on.lying:
            spot = LabelSpot(on.plot.x + longest * step, on.row_middle(row), "start", "middle", colour, sx=0.35)
        else:
            spot = LabelSpot(on.row_middle(row), on.plot.bottom - longest * step, "middle", "bottom", colour, sy=-0.4)
        placing.label(layer, placing.id(row), text, [spot], LabelStyle(placing.sizes.text, (spot.x, spot.y), bold=True))


def cell_step(layer: Cells, on: Plane, figures: list[float]) -> float:
    """The side of a cell's place, so that all rows fit with cells of one size."""
    most = max((math.ceil(figure - 1e-9) for figure in figures if figure > 0), default=1)
    per_line = min(layer.wrap, most) if layer.wrap > 0 else most
    lines = max(1, math.ceil(most / max(1, per_line)))
    long, thick = (on.plot.width, on.thickness) if on.lying else (on.plot.height, on.thickness)
    return min(long / max(1, per_line), thick / lines)


def _drawn(place: Rect, gap: float) -> Rect:
    """The cell within its place, with half a gap at each side."""
    air_x, air_y = place.width * gap / 2, place.height * gap / 2
    return place.inset(air_x, air_y, air_x, air_y)


class _Line(Struct, frozen=True):
    """The cells of a row: their boxes, which part of the last one counts, and whether they stand on each other."""

    boxes: list[Rect]
    part: float = 1.0
    standing: bool = False


def _mark(layer: Cells, row: int, figure: float, line: _Line, placing: Placing) -> None:
    if not placing.is_drawn(layer, row):
        placing.mark(layer, row, figure, Rect(0, 0, 0, 0))
        return
    fill, tone = placing.fill(layer, row)
    colour = placing.style.solid(fill, tone)
    name = layer.symbol
    if layer.symbols:
        own = placing.data.names(layer.symbols)[row]
        name = own if placing.data.picture(own) is not None else name
    items, path = _drawn_cells(layer, line, colour, name, placing)
    drawing = MarkDrawing(path=path, fill=colour, items=items, dressed=fill, tone=tone, visible=bool(items))
    placing.put(layer, MarkSource(placing.id(row), placing.wording.says(layer, row)), figure, path.bounds, drawing)


def _drawn_cells(
    layer: Cells, line: _Line, colour: Colour, name: str, placing: Placing
) -> tuple[tuple[Primitive, ...], Path]:  # fmt: skip
    """The cells' primitives and the outline of all of them together."""
    boxes, part, standing = line.boxes, line.part, line.standing
    shape_or_raster = placing.data.picture(name) if name else None
    touch = PathPen()
    items: list[Primitive] = []
    for i, cell in enumerate(boxes):
        last = i == len(boxes) - 1 and part < 1 - 1e-9
        if shape_or_raster is not None:
            clip = _clip(shape_or_raster, cell, part, layer.cut, standing) if last else None
            items.append(picture(shape_or_raster, cell, colour, clip=None if clip is None else recorded(box, clip)))
            box(touch, clip or cell)
            continue
        frame = _cut_box(cell, part, standing) if last else cell
        box(touch, frame)
        corner = 0.0 if layer.cell == "disc" or cell.width <= 0 else min(placing.style.corner / cell.width, 0.18)
        place = moved(cell.x, cell.y).after(scaled(cell.width, cell.height))
        cut_path = recorded(box, frame) if last else None
        items.append(Stamp(layer.cell, _unit(layer.cell, round(corner, 4)), place, colour, cut_path))
    return tuple(items), touch.path


@lru_cache(maxsize=64)
def _unit(cell: str, corner: float) -> Path:
    """A cell in the unit square."""
    if cell == "disc":
        return recorded(disc, (0.5, 0.5), 0.5)
    return recorded(box, Rect(0.0, 0.0, 1.0, 1.0), corner)


def _cut_box(cell: Rect, part: float, standing: bool) -> Rect:
    if standing:
        return Rect(cell.x, cell.bottom - cell.height * part, cell.width, cell.height * part)
    return Rect(cell.x, cell.y, cell.width * part, cell.height)


def _clip(motif: Symbol | Raster, cell: Rect, part: float, side: str, standing: bool) -> Rect:
    """What of a symbol is kept: a share of its drawn width (height where it stands), or of its ink."""
    if isinstance(motif, Raster):
        return _cut_box(cell, part, standing)
    place = fitted(motif.outline, cell)
    frame = outline(motif.outline).bounds
    x, y = place.apply(frame.x, frame.y)
    extent_ = Rect(x, y, frame.width * place.a, frame.height * place.d)
    if side == "area" and not standing:
        edge = place.apply(_ink_left(motif.outline, round(part, 6)), 0)[0]
        return Rect(extent_.x, extent_.y, edge - extent_.x, extent_.height)
    return _cut_box(extent_, part, standing)


@lru_cache(maxsize=512)
def _ink_left(data: str, part: float) -> float:
    return left_of(outline(data), part)


class CellsKind(Kind[Cells]):
    spec = Cells
    mark = MarkKind("cells", bars_texts=True)
    is_compared = True
    places = (
        (Plane, on_plane),
        (GridField, on_field),
    )
    fields = (
        fields.Field("Shape", "Cell", "cell", "choice", fields.choices(CellForm), does="What one cell looks like."),
        fields.Field("Shape", "Symbol", "symbol", "symbol", does="The symbol drawn for each value or unit."),
        fields.Field(
            "Shape",
            "Gap",
            "gap",
            "number",
            unit="%",
            times=100,
            does="Free space between neighbours, in points or in % of a cell.",
        ),
    )

    def shares_whole(self, layer: Cells, frame: Frame) -> bool:
        return isinstance(frame, Grid)

    def figures(self, layer: Cells, context: Context) -> list[float]:
        return column_figures(layer, context)

    def labels_beyond(self, layer: Cells, lying: bool) -> bool:
        return True

    def ends(self, layer: Cells, context: Context) -> Floats:
        most = layer.wrap or math.inf
        numbers = column_figures(layer, context)
        return [number if math.isnan(number) else min(float(math.ceil(number)), most) for number in numbers]

    def fixed_end(self, layer: Cells) -> float | None:
        return float(layer.wrap) if layer.wrap > 0 else None

    def entries(self, layer: Cells, context: Context) -> list[LegendEntry]:
        return row_entries(layer, context) if layer.vary else []

    def key(self, item: LegendEntry, layer: Cells, chip: Rect, context: Context) -> tuple[Primitive, ...]:
        return disc_key(item, chip, context) if layer.cell == "disc" else super().key(item, layer, chip, context)


KIND = CellsKind()
