"""Cells: a waffle as stacked unit cells that follow the counts, or symbols stacked by the figure."""

import math

from kavlet.core.charts.cells import Cells
from kavlet.core.charts.frame import Cartesian, Grid
from kavlet.core.layout.data import Raster
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, DataPoint, FillModel, PictureModel, Series, Stroke
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Scene, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.box import box
from kavlet.core.styling.fills import PictureFill
from kavlet.core.values.geometry import Rect, Size

MAX_SERIES = 250  # a chart of more series is refused by some programs (common practice: 255)


def tell(layer: Cells, converter: ChartConverter) -> None:
    """Add cells."""
    if layer.helper:
        return
    if isinstance(converter.chart.frame, Grid):
        _field(layer, converter.chart.frame, converter)
    elif isinstance(converter.chart.frame, Cartesian):
        _lines(layer, converter.chart.frame, converter)


def _field(layer: Cells, grid: Grid, converter: ChartConverter) -> None:
    """Cells of one unit, stacked: of each place, the row it belongs to has 1, all others 0."""
    if layer.cell != "square" or layer.symbol or layer.symbols:
        converter.differ(say("cells of “{name}” are squares", name=layer.name))
    draft = converter.group("bars", "first", "stacked", 0.0, 100.0)
    rows = [i for i in range(converter.rows) if not math.isnan(converter.data.column(layer.values)[i])]
    kinds = len(rows) + 1
    if kinds * grid.rows > MAX_SERIES:
        converter.drafts.remove(draft)
        return
    ends = _ends(layer, rows, converter)
    edge = Stroke(converter.style.ground, max(0.75, 40.0 * layer.gap / 4))
    track = converter.style.named["track"]
    for line in range(grid.rows):
        for k in range(kinds):
            formulas = []
            for column in range(grid.columns):
                place = line * grid.columns + column if grid.by == "rows" else column * grid.rows + line
                start = converter.workings.at(ends, k)
                end = converter.workings.at(ends, k + 1) if k < len(rows) else f"{grid.rows * grid.columns}"
                formulas.append(f"MAX(0;MIN(1;{end}-{place}))-MAX(0;MIN(1;{start}-{place}))")
            name = converter.source.context.wording.names[rows[k]] if k < len(rows) else layer.name
            row = converter.data.ids[rows[k]] if k < len(rows) else -1
            mark = converter.marks.get((layer.key, row))
            fill = converter.fill(mark) if mark is not None else track if layer.empty or k < len(rows) else None
            draft.series.append(
                Series(
                    name=_name(layer, rows[k], converter) if k < len(rows) else converter.workings.one(layer.name),
                    values=converter.workings.formulas(
                        f"{name} {line + 1}" if k < len(rows) else f"… {line + 1}", formulas
                    ),
                    fill=fill,
                    line=edge if fill is not None else None,
                    listed=line == 0 and k < len(rows),
                )
            )


def _name(layer: Cells, index: int, converter: ChartConverter) -> CellRange:
    place = converter.source.table.place(converter.chart.names)
    if place < 0:
        return converter.workings.one(layer.name)
    return CellRange(converter.source.table.id, place, 1 + converter.data.ids[index], 1)


def _ends(layer: Cells, rows: list[int], converter: ChartConverter) -> CellRange:
    """Where each row's cells begin, counted from the first place; after the last one, where they end."""
    refs = [converter.at(layer.values, i) for i in rows]
    sums = ["0", *("+".join(f"ROUND({ref};0)" for ref in refs[: i + 1]) for i in range(len(refs)))]
    return converter.workings.formulas(f"{layer.name}: from", sums)


def _lines(layer: Cells, frame: Cartesian, converter: ChartConverter) -> None:
    """Symbols stacked along each row, as many as its figure, the last one cut."""
    if layer.wrap:
        converter.differ(say("symbols of “{name}” stand in one line", name=layer.name))
    if layer.cut == "area":
        converter.differ(say("a symbol is cut by its width, not by its area"))
    draft = converter.group("bars", "first", "clustered", frame.gap_width, 100.0)
    names = converter.data.names(layer.symbols) if layer.symbols else [layer.symbol] * converter.rows
    fills: list[FillModel | None] = [_cell(layer, names[i], i, converter) for i in range(converter.rows)]
    base = fills[0] if fills else None
    draft.series.append(
        Series(
            name=converter.name(layer),
            names=converter.names(),
            values=converter.cells(layer.values),
            fill=base,
            points=tuple(DataPoint(i, fill) for i, fill in enumerate(fills) if fill != base),
            labels=labels(layer, converter, layer.values),
            listed=layer.listed,
        )
    )


def _cell(layer: Cells, name: str, index: int, converter: ChartConverter) -> FillModel:
    """One cell as a picture that is stacked once per unit."""
    fill, tone = converter.marks_fill(layer, index)
    colour = converter.style.solid(fill, tone)
    gap = max(0.0, min(0.6, layer.gap))
    if name and converter.data.picture(name) is not None:
        held = converter.picture(PictureFill(name, "per unit", 1.0, colour=colour.hex), tone, 1.0)
        return _padded(held, gap) if isinstance(held, PictureModel) else held
    side = 96.0
    area = Rect(side * gap / 2, side * gap / 2, side * (1 - gap), side * (1 - gap))
    outline = recorded(box, area) if layer.cell == "square" else recorded(disc, area.center, area.width / 2)
    return PictureModel("cell", Scene(Size(side, side), None, (Shape(outline, colour),)), "scale", 1.0)


def _padded(held: PictureModel, gap: float) -> PictureModel:
    """A symbol in the middle of a square with its share of air around."""
    scene = held.what
    if isinstance(scene, Raster | bytes):
        return held
    from kavlet.core.scene.primitives import Group
    from kavlet.core.values.affine import moved, scaled

    side = max(scene.size.width, scene.size.height) / (1 - gap)
    place = moved((side - scene.size.width) / 2, (side - scene.size.height) / 2)
    del scaled
    made = Scene(Size(side, side), scene.ground, (Group(scene.items, place),))
    return PictureModel(held.name, made, held.how, held.unit)
