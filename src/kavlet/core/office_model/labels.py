"""Labels in plain terms: the values themselves, or texts in cells of the workings, by formulas wherever those give the
very text that is drawn."""

import math
import re
from collections.abc import Sequence

import msgspec

from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Layer, Row
from kavlet.core.layout.figure import Mark, PlacedText
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, LabelPlace, Labels, PointLabel, TextProperties
from kavlet.core.office_model.converter import ChartConverter, lettered
from kavlet.core.office_model.number_codes import quote, told
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.values.number_text import WHOLE_PERCENT, NumberText

_FIELD = re.compile(r"\{([^{}]*)\}")
_SPACES = re.compile(r"[\u00a0\u2009\u202f\u2060\n ]+")  # lines are broken as there is room


def labels(
    layer: Layer,
    converter: ChartConverter,
    charted: str = "",
    rows: Sequence[int] = (),
    outside: bool = True,
    seated: bool = True,
) -> Labels:
    """The labels of a layer whose points stand for those rows (ids; the shown rows when not given).

    Where they say nothing but the charted column's values, they are shown as such; else each refers to a cell.
    `seated` tells whether labels have places of their own there, `outside` whether they may stand beyond their marks.
    """
    ids = rows or converter.data.ids
    label_texts = [
        (index, row, converter.texts[layer.key, row])
        for index, row in enumerate(ids)
        if (layer.key, row) in converter.texts
    ]
    label = layer.label
    if not label_texts or label is None or layer.helper:
        return Labels()
    set_ = {
        row: _set(text, converter.marks.get((layer.key, row)), converter, outside and seated)
        for _, row, text in label_texts
    }
    has_own_text = any(layer.rows.get(row, Row()).text is not None for _, row, _ in label_texts)
    looks = {look for look, _ in set_.values()}
    places = {label_place if seated else "auto" for _, label_place in set_.values()}
    if (
        label.template == "{value}"
        and charted
        and charted == layer.figure_column
        and not has_own_text
        and len(looks) == 1
    ):
        return Labels(
            shown=tuple(index for index, _, _ in label_texts),
            number=converter.source.context.wording.number_text(layer),
            look=looks.pop(),
            place=places.pop() if len(places) == 1 else "auto",
        )
    cells: list[Cell] = ["" for _ in ids]
    for index, row, text in label_texts:
        cells[index] = _cell(layer, label, row, text, converter)
    if any(not isinstance(cells[index], Formula) for index, _, _ in label_texts):
        converter.differ(
            say("labels of “{name}”: some are written texts that do not follow the cells", name=layer.name)
        )
    column = converter.workings.column(f"{layer.name}: labels", cells)
    return Labels(
        tuple(
            PointLabel(
                index,
                CellRange(column.table, column.column, column.first + index, 1),
                set_[row][0],
                set_[row][1] if seated else "auto",
            )
            for index, row, _ in label_texts
        )
    )


def _set(
    text: PlacedText, mark: Mark | None, converter: ChartConverter, outside: bool
) -> tuple[TextProperties, LabelPlace]:
    """How a label is set and where it stands; one that may not stand outside is readable on its mark."""
    look, at = lettered(text), place(text, mark, converter)
    if at == "outside" and not outside and mark is not None:
        behind = converter.style.behind(mark.dressed, mark.tone)
        return msgspec.structs.replace(look, colour=converter.style.on(behind)), "inside end"
    return look, at


def place(text: PlacedText, mark: Mark | None, converter: ChartConverter) -> LabelPlace:
    """Where a label stands, as seen from its mark."""
    if mark is None:
        return "auto"
    x, y = text.bounds.center
    box = mark.bounds
    if mark.sector is not None:
        inside = (x - mark.sector.center[0]) ** 2 + (y - mark.sector.center[1]) ** 2 <= mark.sector.outer**2
        return "auto" if inside else "outside"
    if mark.block is None:
        dx, dy = x - box.center[0], y - box.center[1]
        if abs(dx) < box.width / 2 and abs(dy) < box.height / 2:
            return "centre"
        if abs(dy) >= abs(dx):
            return "below" if dy > 0 else "above"
        return "right" if dx > 0 else "left"
    if box.x <= x <= box.right and box.y <= y <= box.bottom:
        share = (x - box.x) / (box.width or 1.0) if converter.lying else (box.bottom - y) / (box.height or 1.0)
        if mark.block.end in ("left", "down"):
            share = 1.0 - share
        return "inside end" if share > 0.6 else "inside base" if share < 0.4 else "centre"
    return "outside"


def _same(one: object, other: str) -> bool:
    return isinstance(one, str) and _SPACES.sub(" ", one) == _SPACES.sub(" ", other)


def _cell(layer: Layer, label: Label, row: int, text: PlacedText, converter: ChartConverter) -> Cell:
    """The formula that gives a label's text now and later; the text itself where none does."""
    own = layer.rows.get(row, Row()).text
    shown = row if row in converter.data.ids else None
    if shown is not None:
        formula = _formula(
            layer, label, label.template if own is None else own, converter.data.ids.index(row), converter
        )
        if formula is not None and _same(
            converter.source.values.evaluate(f"={formula}", converter.source.table.id), text.text
        ):
            return Formula(f"={formula}")
    return text.text


def _formula(layer: Layer, label: Label, template: str, row: int, converter: ChartConverter) -> str | None:
    parts: list[str] = []
    done = 0
    for found in _FIELD.finditer(template):
        if found.start() > done:
            parts.append(quote(template[done : found.start()]))
        part = _field(found[1].strip(), layer, label, row, converter)
        if part is None:
            return None
        parts.append(part)
        done = found.end()
    if done < len(template):
        parts.append(quote(template[done:]))
    return "&".join(parts) or None


def _field(field: str, layer: Layer, label: Label, row: int, converter: ChartConverter) -> str | None:
    wording, own = converter.source.context.wording, label.numbers.get(field)
    if field == "series":
        return quote(layer.name)
    if field == "name":
        return _of_column(converter.chart.names, row, None, converter)
    if field == "value":
        column = layer.figure_column
        return told(
            _at(column, row, converter),
            wording.figure(layer, row),
            own or wording.number_text(layer),
            converter.data.locale,
        )
    if field == "step" and row:
        ratio = f"({_at(layer.figure_column, row, converter)}/{_at(layer.figure_column, row - 1, converter)})"
        numbers = converter.data.column(layer.figure_column)
        return told(ratio, numbers[row] / numbers[row - 1] if numbers[row - 1] else 0.0, own or WHOLE_PERCENT,
                    converter.data.locale)  # fmt: skip
    if field == "share":
        return _share(layer, row, own or WHOLE_PERCENT, converter)
    if field.startswith("="):
        return None
    column = wording.columns.get(field) or wording.columns.get(field.casefold()) or ""
    return _of_column(column, row, own, converter)


def _share(layer: Layer, row: int, how: NumberText, converter: ChartConverter) -> str | None:
    column = layer.figure_column
    peers = [
        one for one in converter.chart.layers
        if type(one) is type(layer) and getattr(one, "stack", "") == "share" and not one.hidden
    ] if getattr(layer, "stack", "") == "share" else []  # fmt: skip
    if peers:
        whole = "+".join(_at(one.values, row, converter) for one in peers)
        numbers = [float(converter.data.column(one.values)[row]) for one in peers]
    else:
        extra = [one for one in layer.extra_columns if one]
        whole = "+".join(f"SUM({converter.workings.all(converter.cells(one))})" for one in (column, *extra))
        numbers = [float(number) for one in (column, *extra) for number in converter.data.column(one)]
    total = sum(number for number in numbers if not math.isnan(number))
    value = float(converter.data.column(column)[row])
    return told(
        f"({_at(column, row, converter)}/({whole}))", value / total if total else 0.0, how, converter.data.locale
    )


def _of_column(column: str, row: int, how: NumberText | None, converter: ChartConverter) -> str | None:
    if converter.source.table.place(column) < 0:
        return None
    value = converter.data.values[column][row]
    if isinstance(value, float):
        number = how or converter.data.number_text(column)
        return told(_at(column, row, converter), value, number, converter.data.locale)
    return _at(column, row, converter)


def _at(column: str, row: int, converter: ChartConverter) -> str:
    return converter.at(column, row)
