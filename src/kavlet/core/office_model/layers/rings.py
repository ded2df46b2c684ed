"""Rings: a ring of its own per row, with the rest of its track and the part of the turn that stays free."""

import math

from kavlet.core.charts.frame import Polar
from kavlet.core.charts.rings import Rings
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, DataPoint, Labels, PointLabel, Series
from kavlet.core.office_model.converter import ChartConverter, lettered
from kavlet.core.spreadsheet.cells import Cell, Formula

NAMED = 2  # the point that carries the name and figure: the free part of the turn


def tell(layer: Rings, to: ChartConverter) -> None:
    """Add one ring per row, the first row outermost."""
    frame = to.chart.frame
    if layer.helper or not isinstance(frame, Polar):
        return
    draft = to.group("rings")
    draft.first_angle = frame.start % 360.0
    draft.hole = max(10.0, min(90.0, 100.0 * frame.hole))
    if layer.round:
        to.differ(say("arcs of “{name}” have straight ends", name=layer.name))
    angles = to.data.column(layer.values)
    order = [row for row in (layer.order or to.data.ids) if row in to.data.ids]
    for row in reversed(order):
        index = to.data.ids.index(row)
        if math.isnan(angles[index]):
            continue
        draft.series.append(_ring(layer, frame, row, to))


def _ring(layer: Rings, frame: Polar, row: int, to: ChartConverter) -> Series:
    index = to.data.ids.index(row)
    at = to.at(layer.values, index)
    name = to.source.context.wording.names[index] or layer.name
    mark = to.marks.get((layer.key, row))
    sweep = f"{frame.sweep:g}"
    values = to.workings.formulas(
        f"{name}: arc", [f"MAX(0;MIN({sweep};{at}))", f"{sweep}-MAX(0;MIN({sweep};{at}))", f"360-{sweep}"]
    )
    track = to.style.named["track"] if layer.track else None
    fill = to.fill(mark) if mark is not None and mark.visible else None
    return Series(
        name=to.workings.formula(to.at(to.chart.names, index))
        if to.source.table.place(to.chart.names) >= 0
        else to.workings.one(name),
        names=to.workings.column("parts of a ring", ["figure", "rest", "free"]),
        values=values,
        fill=fill,
        points=(DataPoint(0, fill), DataPoint(1, track), DataPoint(NAMED, None)),
        labels=_labels(layer, frame, index, to),
        listed=False,
    )


def _labels(layer: Rings, frame: Polar, index: int, to: ChartConverter) -> Labels:
    """Name and figure, in the part of the turn that is free, or on the arc where none is."""
    row = to.data.ids[index]
    figure = to.texts.get((layer.key, row))
    name_text = next((one for one in to.figure.texts if one.kind == "name" and one.row == row), None)
    text_shown = name_text or figure
    if text_shown is None:
        return Labels()
    parts: list[str] = []
    if name_text is not None and to.source.table.place(to.chart.names) >= 0:
        parts.append(to.at(to.chart.names, index))
    cell: Cell = " ".join(one.text for one in (name_text, figure) if one is not None)
    if figure is not None:
        from kavlet.core.office_model.labels import _field

        field_text = _field("value", layer, layer.label, index, to) if layer.label is not None else None
        if field_text is not None and to.source.values.evaluate(f"={field_text}", to.source.table.id) == figure.text:
            formula = '&" "&'.join([*parts, field_text])
            cell = Formula(f"={formula}")
    text = to.workings.column(f"{layer.name}: label {index + 1}", [cell])
    point = NAMED if frame.sweep < 330 else 0
    return Labels((PointLabel(point, CellRange(text.table, text.column, text.first, 1), lettered(text_shown)),))
