"""Rings: a ring of its own per row, with the rest of its track and the part of the turn that stays free."""

import math

from kavlet.core.charts.frame import Polar
from kavlet.core.charts.rings import Rings
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, DataPoint, Labels, PointLabel, Series
from kavlet.core.office_model.converter import ChartConverter, lettered
from kavlet.core.spreadsheet.cells import Cell, Formula

NAMED = 2  # the point that carries the name and figure: the free part of the turn


def tell(layer: Rings, converter: ChartConverter) -> None:
    """Add one ring per row, the first row outermost."""
    frame = converter.chart.frame
    if layer.helper or not isinstance(frame, Polar):
        return
    draft = converter.group("rings")
    draft.first_angle = frame.start % 360.0
    draft.hole = max(10.0, min(90.0, 100.0 * frame.hole))
    if layer.round:
        converter.differ(say("arcs of “{name}” have straight ends", name=layer.name))
    angles = converter.data.column(layer.values)
    order = [row for row in (layer.order or converter.data.ids) if row in converter.data.ids]
    for row in reversed(order):
        index = converter.data.ids.index(row)
        if math.isnan(angles[index]):
            continue
        draft.series.append(_ring(layer, frame, row, converter))


def _ring(layer: Rings, frame: Polar, row: int, converter: ChartConverter) -> Series:
    index = converter.data.ids.index(row)
    at = converter.at(layer.values, index)
    name = converter.source.context.wording.names[index] or layer.name
    mark = converter.marks.get((layer.key, row))
    sweep = f"{frame.sweep:g}"
    values = converter.workings.formulas(
        f"{name}: arc", [f"MAX(0;MIN({sweep};{at}))", f"{sweep}-MAX(0;MIN({sweep};{at}))", f"360-{sweep}"]
    )
    track = converter.style.named["track"] if layer.track else None
    fill = converter.fill(mark) if mark is not None and mark.visible else None
    return Series(
        name=converter.workings.formula(converter.at(converter.chart.names, index))
        if converter.source.table.place(converter.chart.names) >= 0
        else converter.workings.one(name),
        names=converter.workings.column("parts of a ring", ["figure", "rest", "free"]),
        values=values,
        fill=fill,
        points=(DataPoint(0, fill), DataPoint(1, track), DataPoint(NAMED, None)),
        labels=_labels(layer, frame, index, converter),
        listed=False,
    )


def _labels(layer: Rings, frame: Polar, index: int, converter: ChartConverter) -> Labels:
    """Name and figure, in the part of the turn that is free, or on the arc where none is."""
    row = converter.data.ids[index]
    figure = converter.texts.get((layer.key, row))
    name_text = next((one for one in converter.figure.texts if one.kind == "name" and one.row == row), None)
    text_shown = name_text or figure
    if text_shown is None:
        return Labels()
    parts: list[str] = []
    if name_text is not None and converter.source.table.place(converter.chart.names) >= 0:
        parts.append(converter.at(converter.chart.names, index))
    cell: Cell = " ".join(one.text for one in (name_text, figure) if one is not None)
    if figure is not None:
        from kavlet.core.office_model.labels import _field

        field_text = _field("value", layer, layer.label, index, converter) if layer.label is not None else None
        if (
            field_text is not None
            and converter.source.values.evaluate(f"={field_text}", converter.source.table.id) == figure.text
        ):
            formula = '&" "&'.join([*parts, field_text])
            cell = Formula(f"={formula}")
    text = converter.workings.column(f"{layer.name}: label {index + 1}", [cell])
    point = NAMED if frame.sweep < 330 else 0
    return Labels((PointLabel(point, CellRange(text.table, text.column, text.first, 1), lettered(text_shown)),))
