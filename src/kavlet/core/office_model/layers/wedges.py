"""Wedges: a pie or a ring, with what is left over and what small rows add up to as points of their own."""

import math

from kavlet.core.charts.frame import Polar
from kavlet.core.charts.layer import GATHERED, LEFT_OVER, Row
from kavlet.core.charts.wedges import Wedges
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, DataPoint, Series
from kavlet.core.office_model.converter import ChartConverter
from kavlet.core.office_model.labels import labels
from kavlet.core.spreadsheet.cells import Cell, Formula

UNUSED = -1  # the part of the turn that the dial does not take


def tell(layer: Wedges, converter: ChartConverter) -> None:
    """Add wedges: one ring of them."""
    frame = converter.chart.frame
    if layer.helper or not isinstance(frame, Polar):
        return
    rings = [
        layer_
        for layer_ in converter.chart.layers
        if isinstance(layer_, Wedges) and not layer_.hidden and not layer_.helper
    ]
    whole = len(rings) == 1 and frame.hole <= 0
    draft = converter.group("pie" if whole else "rings")
    draft.first_angle = frame.start % 360.0
    draft.hole = max(1.0, min(90.0, 100.0 * frame.hole)) if frame.hole > 0 else 10.0
    if frame.hole <= 0 and not whole:
        converter.differ(say("a small hole stays in the middle of the rings"))
    if frame.rings and len(set(frame.rings)) > 1:
        converter.differ(say("all rings are equally thick"))
    if layer.corner:
        converter.differ(say("slices have straight corners"))
    rows, names, values = _parts(layer, frame, converter)
    fills: list[DataPoint] = []
    for index, row in enumerate(rows):
        marks = converter.pieces if layer.parts and row not in (GATHERED, LEFT_OVER) else converter.marks
        mark = marks.get((layer.key, row))
        is_seen = mark is not None and mark.visible and row != UNUSED
        row_look = layer.rows.get(row, Row())
        out = row_look.explode if row_look.explode is not None else layer.explode
        fill = converter.fill(mark) if mark is not None and is_seen else None
        fills.append(DataPoint(index, fill, converter.edge(layer, row), 100.0 * out if is_seen else 0.0))
    draft.series.append(
        Series(
            name=converter.name(layer),
            names=names,
            values=values,
            fill=converter.filled(layer.fill, layer.tone),
            points=tuple(fills),
            labels=labels(layer, converter, rows=rows, seated=whole),
            listed=layer.listed,
        )
    )


def _parts(layer: Wedges, frame: Polar, converter: ChartConverter) -> tuple[list[int], CellRange, CellRange]:
    """The rows (or what stands for one) of all points in order, and the cells of their names and figures."""
    rows: list[int] = []
    names: list[Cell] = []
    refs: list[str] = []
    if layer.parts:
        at = converter.data.ids.index(layer.row) if layer.row in converter.data.ids else 0
        for number, column in enumerate(layer.parts):
            rows.append(number)
            names.append(converter.title(column))
            refs.append(f"={converter.at(column, at)}")
    else:
        order = layer.order or tuple(converter.data.ids)
        for row in order:
            if row not in converter.data.ids:
                continue
            index = converter.data.ids.index(row)
            value = float(converter.data.column(layer.values)[index])
            if math.isnan(value):
                continue
            rows.append(row)
            has_names = converter.source.table.place(converter.chart.names) >= 0
            names.append(Formula(f"={converter.at(converter.chart.names, index)}") if has_names else str(index + 1))
            refs.append(f"={converter.at(layer.values, index)}")
    if layer.gathered and (layer.key, GATHERED) in converter.marks:
        rows.append(GATHERED)
        names.append(layer.gathered_name or "…")
        refs.append(f"=SUM({converter.workings.all(converter.cells(layer.gathered))})")
    if layer.rest and any(number > 0 for number in map(float, converter.data.column(layer.rest))):
        rows.append(LEFT_OVER if layer.rest_shown else UNUSED)
        names.append(layer.rest_name or "…")
        ref = (
            converter.at(layer.rest, converter.data.ids.index(layer.row))
            if layer.parts and layer.row in converter.data.ids
            else ""
        )
        refs.append(f"={ref or f'SUM({converter.workings.all(converter.cells(layer.rest))})'}")
    turn = layer.turn if layer.turn is not None else frame.sweep
    if turn < 359.99:
        rows.append(UNUSED)
        names.append("…")
        total = "+".join(ref[1:] for ref in refs)
        refs.append(f"=({total})*{360.0 - turn:g}/{turn:g}")
    heading = layer.name
    return (
        rows,
        converter.workings.column(f"{heading}: names", names),
        converter.workings.formulas(heading, [ref[1:] for ref in refs], converter.data.number_text(layer.values)),
    )
