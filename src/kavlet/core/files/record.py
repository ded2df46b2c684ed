"""The record: what was computed for a chart, as JSON that scripts and tests read."""

import json
import math
from collections.abc import Sequence
from typing import Any

from kavlet.core.layout.figure import Figure, Mark, PlacedAxis, PlacedText
from kavlet.core.layout.solid.visible_areas import VisibleArea, seen
from kavlet.core.recipes.recipe import HelperBuild
from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.values.geometry import Rect

DECIMALS = 6  # of coordinates; values are not rounded


def record(
    recipe: str, helpers: tuple[HelperBuild, ...], figure: Figure, findings: Sequence[dict[str, Any]] = ()
) -> dict[str, Any]:
    """The record of one chart; `findings` as Proof tells them. Coordinates are points, y downward; no value and
    infinities are null."""
    seen_marks = {id(one.mark): one for one in seen(figure)}
    return {
        "recipe": recipe,
        "size": [_rounded(figure.size.width), _rounded(figure.size.height)],
        "plot": _box(figure.plot),
        "helpers": [_helper(helper) for helper in helpers],
        "marks": [_mark(mark, seen_marks.get(id(mark))) for mark in figure.marks],
        "labels": [_label(text) for text in figure.texts if text.kind in ("label", "note")],
        "names": [_label(text) for text in figure.texts if text.kind in ("name", "panel")],
        "axes": [_axis(axis) for axis in figure.axes],
        "legend": list(figure.legend),
        "title": figure.title,
        "alt_text": figure.alt_text,
        "long_text": figure.long_text,
        "findings": list(findings),
    }


def dumps(records: dict[str, Any] | list[dict[str, Any]]) -> bytes:
    """The record (or several) as JSON text."""
    return (json.dumps(records, ensure_ascii=False, indent=1, allow_nan=False) + "\n").encode()


def _helper(helper: HelperBuild) -> dict[str, Any]:
    return {
        "name": helper.name,
        "role": helper.role,
        "formulas": list(helper.formulas),
        "values": [_value(value) for value in helper.values],
    }


def _mark(mark: Mark, as_solid: VisibleArea | None) -> dict[str, Any]:
    made: dict[str, Any] = {
        "layer": mark.layer,
        "type": mark.kind.name,
        "row": mark.row,
        "series": mark.series,
        "helper": mark.helper,
        "visible": mark.visible,
        "value": _number(mark.value),
        "bounds": _box(mark.bounds),
        "fill": mark.fill.hex if mark.fill else None,
    }
    if mark.panel:
        made["panel"] = mark.panel
    if mark.sector is not None:
        made |= {
            "start_angle": _rounded(mark.sector.start),
            "end_angle": _rounded(mark.sector.end),
            "inner_radius": _rounded(mark.sector.inner),
            "outer_radius": _rounded(mark.sector.outer),
            "center": [_rounded(part) for part in mark.sector.center],
        }
    if as_solid is not None:
        made |= {
            "visible_area": _rounded(as_solid.area),
            "visible_share": _rounded(as_solid.area_share),
            "value_share": _rounded(as_solid.value_share),
        }
    return made


def _label(text: PlacedText) -> dict[str, Any]:
    return {
        "text": text.text,
        "row": text.row,
        "layer": text.layer,
        "bounds": _box(text.bounds),
        "anchor": text.anchor,
        "size": _rounded(text.size),
        "fill": text.colour.hex,
        "angle": _rounded(text.angle),
        "leader": [[_rounded(x), _rounded(y)] for x, y in text.leader] or None,
    }


def _axis(axis: PlacedAxis) -> dict[str, Any]:
    return {
        "name": axis.name,
        "min": _number(axis.minimum),
        "max": _number(axis.maximum),
        "ticks": [_number(tick) for tick in axis.ticks],
        "visible": axis.visible,
    }


def _box(rect: Rect) -> list[float]:
    return [_rounded(part) for part in (rect.x, rect.y, rect.width, rect.height)]


def _rounded(number: float) -> float:
    return round(number, DECIMALS) + 0.0


def _number(number: float) -> float | None:
    return number if math.isfinite(number) else None


def _value(value: Value) -> Any:
    return value.value if isinstance(value, ErrorValue) else value
