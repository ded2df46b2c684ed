"""Values set by hand, put into a chart's specification at their paths (`looks.py`).

`layers.value.type` makes a layer another plain type. A path that leads nowhere in this chart is kept and ignored.
"""

from collections.abc import Mapping
from functools import lru_cache
from typing import Any, get_args, get_origin, get_type_hints

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.layer import Row
from kavlet.core.charts.looks import Look, parse
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

ORDER = "layers.order"
TYPE = ("type",)  # the field of a layer that says which plain type it is


def overridden(chart: Chart, overrides: Mapping[str, Any]) -> Chart:
    """The chart with every value that was set by hand in its place; `layers.order` holds the keys, back to front."""
    looks = [(parse(path), value) for path, value in overrides.items() if path != ORDER]
    for look, value in looks:
        if is_type(look):
            chart = _retyped(chart, look.layer, str(value))
    for look, value in sorted(looks, key=lambda one: one[0].row is not None):
        if not is_type(look):
            chart = _set(_bared(chart, look), look.steps, value)
    order = overrides.get(ORDER)
    if order:
        place = {key: i for i, key in enumerate(order)}
        layers = sorted(chart.layers, key=lambda layer: place.get(layer.key, len(place)))
        chart = msgspec.structs.replace(chart, layers=tuple(layers))
    return chart


def _bared(chart: Chart, look: Look) -> Chart:
    """The chart where a layer that is filled by hand has lost what its recipe filled row by row."""
    layer = chart.layer(look.layer) if look.field == ("fill",) and look.row is None else None
    if layer is None or not any(row.fill is not None for row in layer.rows.values()):
        return chart
    rows = {place: msgspec.structs.replace(row, fill=None) for place, row in layer.rows.items()}
    bare = msgspec.structs.replace(layer, rows=rows)
    return msgspec.structs.replace(chart, layers=tuple(bare if one is layer else one for one in chart.layers))


def is_type(look: Look) -> bool:
    """Whether a look says which plain type a layer is drawn as."""
    return bool(look.layer) and look.field == TYPE and look.row is None


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
    if not is_type(parse(path)):
        _set(chart, parse(path).steps, value, strict=True)


def expected(chart: Chart, path: str, value: Any) -> None:
    """Raises KavletError when the path leads nowhere in the chart, or the value can't stand where it leads."""
    if not leads(chart, path):
        keys = [f"layers.{layer.key}" for layer in chart.layers if not layer.helper]
        raise KavletError(
            say("The look {path} leads nowhere in this chart.", path=path),
            remedy=say("Its layers are {keys}.", keys=keys),
        )
    checked(chart, path, value)


def leads(chart: Chart, path: str) -> bool:
    """Whether a path leads to something that can be set in this chart."""
    look = parse(path)
    if path == ORDER or is_type(look):
        return path == ORDER or chart.layer(look.layer) is not None
    at: tuple[Any, Any] | None = (chart, Chart)
    for step in look.steps:
        at = _down(*at, step) if at is not None else None
    return at is not None and bool(look.field)


def _down(part: Any, kind_hint: Any, step: str) -> tuple[Any, Any] | None:
    """One step down a specification: what stands there (None for what is not there yet) and its type; None without."""
    if isinstance(part, tuple):
        member = next((entry for entry in part if getattr(entry, "key", None) == step), None)
        return (member, type(member)) if member is not None else None
    if get_origin(kind_hint) is dict:
        element, kind = get_args(kind_hint)
        return (None, kind) if element is str or step.lstrip("-").isdigit() else None
    struct = type(part) if isinstance(part, Struct) else _struct(kind_hint)
    if struct is None or step not in struct.__struct_fields__:
        return None
    return getattr(part, step, None), _types(struct)[step]


def held(chart: Chart, path: str) -> Any:
    """What stands at a path; None where it leads nowhere."""
    at: Any = chart
    for step in parse(path).steps:
        if isinstance(at, tuple):
            at = next((one for one in at if getattr(one, "key", None) == step), None)
        elif isinstance(at, dict):
            at = at.get(int(step), Row()) if step.lstrip("-").isdigit() else at.get(step)
        else:
            at = getattr(at, step, None)
        if at is None:
            return None
    return at


def _set(part: Any, path: tuple[str, ...], value: Any, strict: bool = False) -> Any:
    head, rest = path[0], path[1:]
    if isinstance(part, tuple):
        return tuple(
            _set(entry, rest, value, strict) if rest and getattr(entry, "key", None) == head else entry
            for entry in part
        )
    if not isinstance(part, Struct) or head not in part.__struct_fields__:
        return part
    hint = _types(type(part))[head]
    inner = getattr(part, head)
    if rest and get_origin(hint) is dict:
        return msgspec.structs.replace(part, **{head: _set_entry(inner, hint, rest, value, strict)})
    if rest:
        if inner is None:
            inner = _made(hint)
        new = _set(inner, rest, value, strict) if inner is not None else None
    else:
        try:
            new = msgspec.convert(_whole(value, hint), hint)
        except msgspec.ValidationError as error:
            if strict:
                raise KavletError(say("“{value}” can’t be set here.", value=value), where=".".join(path)) from error
            return part
    return msgspec.structs.replace(part, **{head: new})


def _whole(value: Any, wanted: Any) -> Any:
    """A number as a whole one where only such may stand and nothing is lost."""
    kinds = get_args(wanted) or (wanted,)
    whole = isinstance(value, float) and value.is_integer() and int in kinds and float not in kinds
    return int(value) if whole else value


def _set_entry(entries: dict[Any, Any], hint: Any, path: tuple[str, ...], value: Any, strict: bool) -> dict[Any, Any]:
    """A dictionary of rows by number, or of number texts by field, with a value set in one entry."""
    element, kind = get_args(hint)
    if not path[1:] or (element is int and not path[0].lstrip("-").isdigit()):
        return entries
    key = element(path[0])
    return {**entries, key: _set(entries.get(key, kind()), path[1:], value, strict)}


def _made(wanted: Any) -> Any:
    """A fresh value of an optional structure, so that a path can go through what is not there yet."""
    kind = _struct(wanted)
    return kind() if kind is not None else None


def _struct(wanted: Any) -> type[Struct] | None:
    """The structure among the types that may stand somewhere."""
    kinds = get_args(wanted) or (wanted,)
    return next((one for one in kinds if isinstance(one, type) and issubclass(one, Struct)), None)


@lru_cache(maxsize=64)
def _types(of: type[Struct]) -> dict[str, Any]:
    return get_type_hints(of)


def layer_types() -> tuple[type[AnyLayer], ...]:
    """All types of layers."""
    return get_args(AnyLayer)
