"""Edits of a chart's looks: values set by hand, given back, copied and pasted."""

from collections.abc import Iterable, Mapping
from typing import Any, Literal

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.looks import parse
from kavlet.core.charts.overrides import leads
from kavlet.core.document.document import ChartEntry, Document, with_chart

What = Literal["all", "labels", "colours", "numbers"]
_COLOURS = ("fill", "edge", "colour", "rules", "tone")


def set_looks(document: Document, chart_id: str, looks: Mapping[str, Any]) -> Document:
    """Values set by hand, by their path; None gives one back."""
    chart = document.chart(chart_id)
    overrides = {path: value for path, value in chart.dress.overrides.items() if path not in looks}
    overrides |= {path: value for path, value in looks.items() if value is not None}
    return _with(document, chart, overrides)


def give_back(document: Document, chart_id: str, paths: Iterable[str]) -> Document:
    """Values given back to recipe and theme: those at the paths, and all that lie below them."""
    chart = document.chart(chart_id)
    doomed = [parse(path) for path in paths]
    overrides = {
        path: value
        for path, value in chart.dress.overrides.items()
        if not any(parse(path).within(one) for one in doomed)
    }
    return _with(document, chart, overrides)


def give_all_back(document: Document, chart_id: str) -> Document:
    """Everything set by hand on a chart given back."""
    return _with(document, document.chart(chart_id), {})


def _with(document: Document, chart: ChartEntry, overrides: dict[str, Any]) -> Document:
    dress = msgspec.structs.replace(chart.dress, overrides=overrides)
    return with_chart(document, msgspec.structs.replace(chart, dress=dress))


def copied(chart: ChartEntry, what: What = "all", layer: str = "") -> dict[str, Any]:
    """What of a chart's looks is copied; with a `layer`, only that layer's. Looks of single rows stay behind."""
    found: dict[str, Any] = {}
    for path, value in chart.dress.overrides.items():
        look = parse(path)
        if look.row is not None or (layer and look.layer != layer):
            continue
        is_number = "number" in look.field or "numbers" in look.field
        is_label = "label" in look.field and not is_number
        fits = {
            "all": True,
            "labels": is_label or is_number,
            "colours": look.last in _COLOURS or "fill" in look.field,
            "numbers": is_number,
        }[what]
        if fits:
            found[path] = value
    return found


def pasted(
    document: Document, chart_id: str, looks: Mapping[str, Any], old: str = "", keys: tuple[str, ...] = ()
) -> Document:
    """Copied looks put on another chart; those of the layer `old` go to all of the layers `keys`."""
    return set_looks(document, chart_id, moved(looks, old, keys))


def moved(looks: Mapping[str, Any], old: str, keys: tuple[str, ...]) -> dict[str, Any]:
    """Looks with those of the layer `old` put on the layers `keys` instead; with none named they stay."""
    put: dict[str, Any] = {}
    for path, value in looks.items():
        look = parse(path)
        if old and look.layer == old:
            put |= {look.on(key).text: value for key in keys or (old,)}
        else:
            put[path] = value
    return put


def leftovers(chart: ChartEntry, spec: Chart) -> list[str]:
    """The paths of values set by hand that lead nowhere in what the chart is now; they are kept for the way back."""
    return [path for path in chart.dress.overrides if not leads(spec, path)]
