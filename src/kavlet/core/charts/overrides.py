"""Values set by hand, by their path in a chart's specification.

`layers.value.fill`, `layers.value.rows.3.explode`, `frame.along.maximum`, `title.size`; `layers.value.type` makes a
layer another plain type. A path that leads nowhere in this chart is kept and ignored.
"""

from collections.abc import Mapping
from functools import lru_cache
from typing import Any, get_args, get_type_hints

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.layer import Row
from kavlet.core.values.errors import KavletError

ORDER = "layers.order"


def overridden(chart: Chart, overrides: Mapping[str, Any]) -> Chart:
    """The chart with every value that was set by hand in its place; `layers.order` holds the keys, back to front."""
    for path, value in overrides.items():
        if path.startswith("layers.") and path.endswith(".type"):
            chart = _retyped(chart, path.split(".")[1], str(value))
    for path, value in overrides.items():
        if path != ORDER and not path.endswith(".type"):
            chart = _set(chart, path.split("."), value)
    order = overrides.get(ORDER)
    if order:
        place = {key: i for i, key in enumerate(order)}
        layers = sorted(chart.layers, key=lambda layer: place.get(layer.key, len(place)))
        chart = msgspec.structs.replace(chart, layers=tuple(layers))
    return chart


def _retyped(chart: Chart, key: str, wanted: str) -> Chart:
    """The chart with a layer as another plain type; what both types have stays."""
    types = {str(one.__struct_config__.tag): one for one in layer_types()}
    new = types.get(wanted)
    if new is None:
        return chart

    def turned(layer: AnyLayer) -> AnyLayer:
        if layer.key != key or type(layer) is new:
            return layer
        return new(**new.adopted({name: getattr(layer, name) for name in layer.__struct_fields__}))

    return msgspec.structs.replace(chart, layers=tuple(turned(layer) for layer in chart.layers))


def checked(chart: Chart, path: str, value: Any) -> None:
    """Raises KavletError when the path leads somewhere in the chart and the value can't stand there."""
    _set(chart, path.split("."), value, strict=True)


def held(chart: Chart, path: str) -> Any:
    """What stands at a path; None where it leads nowhere."""
    at: Any = chart
    for part in path.split("."):
        if isinstance(at, tuple):
            at = next((one for one in at if getattr(one, "key", None) == part), None)
        elif isinstance(at, dict):
            at = at.get(int(part), Row()) if part.lstrip("-").isdigit() else None
        else:
            at = getattr(at, part, None)
        if at is None:
            return None
    return at


def _set(at: Any, path: list[str], value: Any, strict: bool = False) -> Any:
    head, rest = path[0], path[1:]
    if isinstance(at, tuple):
        return tuple(
            _set(one, rest, value, strict) if rest and getattr(one, "key", None) == head else one for one in at
        )
    if isinstance(at, dict):
        if not head.lstrip("-").isdigit() or not rest:
            return at
        row = int(head)
        return {**at, row: _set(at.get(row, Row()), rest, value, strict)}
    if not isinstance(at, Struct) or head not in at.__struct_fields__:
        return at
    wanted = _types(type(at))[head]
    inner = getattr(at, head)
    if rest:
        if inner is None:
            inner = _made(wanted)
        new = _set(inner, rest, value, strict) if inner is not None else None
    else:
        try:
            new = msgspec.convert(value, wanted)
        except msgspec.ValidationError as error:
            if strict:
                raise KavletError(f"“{value}” can’t be set here.", where=".".join(path)) from error
            return at
    return msgspec.structs.replace(at, **{head: new})


def _made(wanted: Any) -> Any:
    """A fresh value of an optional structure, so that a path can go through what is not there yet."""
    for one in get_args(wanted):
        if isinstance(one, type) and issubclass(one, Struct):
            return one()
    return None


@lru_cache(maxsize=64)
def _types(of: type[Struct]) -> dict[str, Any]:
    return get_type_hints(of)


def layer_types() -> tuple[type[AnyLayer], ...]:
    """All types of layers."""
    return get_args(AnyLayer)
