"""All layer types: one line each."""

from typing import Any

from kavlet.core.charts.layer import Layer
from kavlet.core.layout.kind import Kind
from kavlet.core.layout.marks import (
    area,
    band,
    bars,
    bubbles,
    cells,
    flanks,
    line,
    needle,
    points,
    ranges,
    reference,
    rings,
    wedges,
)

KINDS: tuple[Kind[Any], ...] = (
    bars.KIND,
    flanks.KIND,
    line.KIND,
    area.KIND,
    points.KIND,
    bubbles.KIND,
    wedges.KIND,
    rings.KIND,
    cells.KIND,
    needle.KIND,
    band.KIND,
    reference.KIND,
    ranges.KIND,
)
_BY_TYPE: dict[type, Kind[Any]] = {kind.spec: kind for kind in KINDS}


def kind_of(layer: Layer) -> Kind[Any]:
    """The kind of a layer."""
    return _BY_TYPE[type(layer)]


def type_name(kind: Kind[Any]) -> str:
    """What a layer type is called in files, and by authors."""
    return str(kind.spec.__struct_config__.tag)


PLAIN_TYPES = tuple(type_name(kind) for kind in KINDS if kind.plain)  # what a layer on a column can be drawn as
ADDABLE: dict[str, Kind[Any]] = {type_name(kind): kind for kind in KINDS if kind.addable}
