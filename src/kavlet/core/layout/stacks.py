"""Where stacking layers start and end: stacked, above and below zero apart, or as shares of their row's sum."""

import math

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.layer import Layer, Stacking
from kavlet.core.layout.data import Data
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.values.sums import exact_sum


class Span(Struct, frozen=True):
    """Start and end of each row's part, in figures; NaN ends where there is no value."""

    starts: Floats
    ends: Floats


def with_places_kept(chart: Chart) -> Chart:
    """A chart whose hidden layers keep their places in their stacks, as helpers do: what stands on them stands where it
    stood. A stack of which nothing is seen has no place."""
    seen = {_stack_of(layer) for layer in _stacking(chart) if layer.stack != "none" and not layer.helper}
    if not any(layer.hidden and _stack_of(layer) in seen for layer in chart.layers):
        return chart
    layers = tuple(
        msgspec.structs.replace(layer, helper=True, hidden=False, label=None)
        if layer.hidden and _stack_of(layer) in seen
        else layer
        for layer in chart.layers
    )
    return msgspec.structs.replace(chart, layers=layers)


def _stack_of(layer: Layer) -> tuple[type, bool, bool]:
    """What tells a layer's stack from others; the last is whether it stands in one."""
    return type(layer), layer.second, isinstance(layer, Stacking) and layer.stack != "none"


def _stacking(chart: Chart) -> list[Stacking]:
    """The layers that may stand on others and are not hidden."""
    return [layer for layer in chart.layers if isinstance(layer, Stacking) and not layer.hidden]


def spans(chart: Chart, data: Data) -> dict[str, Span]:
    """The span of every stacking layer, by key; those of one type and axis stand on each other."""
    found: dict[str, Span] = {}
    stacks: dict[tuple[type, bool], list[Stacking]] = {}
    for layer in _stacking(chart):
        stacks.setdefault((type(layer), layer.second), []).append(layer)
    for layers in stacks.values():
        sums = _sums([data.column(one.values) for one in layers if one.stack == "share"], data.rows)
        above, below = [0.0] * data.rows, [0.0] * data.rows
        for layer in layers:
            numbers = data.column(layer.values)
            if layer.stack == "none":
                found[layer.key] = Span([0.0] * data.rows, list(map(float, numbers)))
                continue
            divided = [
                number / total if layer.stack == "share" and total else 0.0 if layer.stack == "share" else number
                for number, total in zip(map(float, numbers), sums, strict=True)
            ]
            found[layer.key] = _stacked(divided, above, below)
    return found


def _stacked(numbers: Floats, above: list[float], below: list[float]) -> Span:
    """The span of one layer; `above` and `below`, where the stacks have come to, are moved on."""
    starts: list[float] = []
    ends: list[float] = []
    for row, number in enumerate(numbers):
        side = below if number < 0 else above
        starts.append(side[row])
        if math.isnan(number):
            ends.append(math.nan)
            continue
        side[row] += number
        ends.append(side[row])
    return Span(starts, ends)


def _sums(columns: list[Floats], rows: int) -> list[float]:
    return [
        exact_sum(abs(float(column[row])) for column in columns if not math.isnan(column[row])) for row in range(rows)
    ]


def slots(chart: Chart, second: bool) -> list[list[str]]:
    """Keys of the layers that share a place across: stacked ones share one, each other has its own."""
    found: list[list[str]] = []
    shared: list[str] | None = None
    for layer in _stacking(chart):
        if not layer.clusters or layer.second != second:
            continue
        if layer.stack == "none":
            found.append([layer.key])
        elif shared is None:
            shared = [layer.key]
            found.append(shared)
        else:
            shared.append(layer.key)
    return found
