"""The kind of each layer type. The one list of layer types is `AnyLayer` (`core/charts/chart.py`): a type's kind stands
in the file of the same name in `marks`, and is loaded when a chart first has such a layer."""

import importlib
from functools import cache
from typing import Any

from kavlet.core.charts.layer import Layer
from kavlet.core.charts.overrides import layer_types
from kavlet.core.layout.kind import Kind


@cache
def _kind(spec: type[Layer]) -> Kind[Any]:
    stem = spec.__module__.rpartition(".")[2]
    kind: Kind[Any] = importlib.import_module(f"kavlet.core.layout.marks.{stem}").KIND
    return kind


def kind_of(layer: Layer) -> Kind[Any]:
    """The kind of a layer."""
    return _kind(type(layer))


def type_name(kind: Kind[Any]) -> str:
    """What a layer type is called in files, and by authors."""
    return str(kind.spec.__struct_config__.tag)


@cache
def kinds() -> tuple[Kind[Any], ...]:
    """All kinds, in the order of their types."""
    return tuple(_kind(spec) for spec in layer_types())


def plain_types() -> tuple[str, ...]:
    """What a layer on a column can be drawn as."""
    return tuple(type_name(kind) for kind in kinds() if kind.plain)


def addable() -> dict[str, Kind[Any]]:
    """What an author can add to a chart, by the name of its type."""
    return {type_name(kind): kind for kind in kinds() if kind.addable}
