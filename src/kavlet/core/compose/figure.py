"""A chart with everything in its place: marks, texts and axes in points, each with its row."""

from typing import Literal

from msgspec import Struct

from kavlet.core.scene.path import Path
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size

Anchor = Literal["start", "middle", "end"]
TextKind = Literal["title", "subtitle", "source", "name", "heading", "label"]


class Mark(Struct, frozen=True):
    """One drawn (or, for helpers, undrawn) item of a layer. `series` counts the chart's layers from the back."""

    layer: str
    key: str
    type: str
    row: int
    series: int
    helper: bool
    visible: bool
    value: float
    bounds: Rect
    path: Path | None = None
    fill: Colour | None = None
    says: str = ""


class Text(Struct, frozen=True):
    """One line of text; `x` is the start of its baseline, whatever its anchor, and `y` the baseline."""

    text: str
    kind: TextKind
    x: float
    y: float
    width: float
    bounds: Rect
    anchor: Anchor
    face: str
    size: float
    colour: Colour
    row: int | None = None
    layer: str = ""


class Axis(Struct, frozen=True):
    """One axis: its ends, and the ticks it shows."""

    name: str
    minimum: float
    maximum: float
    visible: bool
    ticks: tuple[float, ...] = ()


class Figure(Struct, frozen=True):
    """All marks and texts of one chart, back to front."""

    size: Size
    plot: Rect
    ground: Colour
    marks: tuple[Mark, ...]
    texts: tuple[Text, ...]
    axes: tuple[Axis, ...]
    legend: tuple[str, ...]
    title: str
    alt_text: str
    dropped: int = 0
