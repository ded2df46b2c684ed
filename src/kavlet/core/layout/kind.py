"""What is known of a layer type beside its specification: a `Kind`, which stands in the type's own file under `marks`.

All other stages ask the kind of a layer, or of the layer a mark belongs to; none of them tests for a type. So a new
layer type is one specification, one file with its kind, and one line in `kinds.py`.
"""

import math
from collections.abc import Callable
from typing import Any, Generic, TypeVar

from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.colouring import limits, shade
from kavlet.core.charts.fields import Field
from kavlet.core.charts.frame import Cartesian, Frame, Grid, Polar
from kavlet.core.charts.layer import Layer
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.painting import Filling, painted
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.planes.field import GridField
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive
from kavlet.core.shapes.box import box
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.styling.fills import Fill
from kavlet.core.text.numbers import written
from kavlet.core.values.geometry import Rect

PLACES: dict[type, type] = {Cartesian: Plane, Polar: Disc, Grid: GridField}  # what each frame is, once laid out
L = TypeVar("L", bound=Layer)


BEFORE_FIGURE = "  "


class LegendEntry(Struct, frozen=True):
    """One entry of the legend: its name, fill and tone, the layer it stands for (None: an entry of its own), the
    table's row whose name it is, where it is one, and a figure after its name."""

    name: str
    fill: Fill | None
    tone: int
    layer: Layer | None = None
    row: int | None = None
    figure: str = ""

    @property
    def text(self) -> str:
        """Its name and figure."""
        return f"{self.name}{BEFORE_FIGURE}{self.figure}" if self.figure else self.name


class Kind(Generic[L]):
    """One layer type.

    `mark` is what is known of its marks. `places` holds, by the type of the frame, what places a layer on
    it; a frame without an entry does not show the type. `fields` are what an author can set of a layer, `row_fields` of
    one row of it, beside what all layers have.
    """

    spec: type[L]
    mark: MarkKind
    places: tuple[tuple[type, Callable[[L, Any, Placing], None]], ...]
    fields: tuple[Field, ...] = ()
    row_fields: tuple[Field, ...] = ()
    plain = False  # whether a layer bound to a column may also be drawn as this type
    addable = False  # whether an author can add such a layer to a chart
    on_zero = False  # whether its marks stand on the zero line
    hub = False  # whether it has a hub, which reaches beyond the middle of a half disc
    is_length = False  # whether its lengths, from zero on, say its figures
    is_course = False  # whether it runs across, so that it may cross another
    is_compared = False  # whether its rows are marks of their own, to be compared by their size
    is_hatched = False  # whether hatches can tell its marks apart
    only_shares = False  # whether no figure below zero can be shown

    def shares_whole(self, layer: L, frame: Frame) -> bool:
        """Whether its marks are parts of one whole on a frame."""
        return self.mark.has_slices

    def size_column(self, layer: L) -> str:
        """The column that the size of its marks speaks of, where it is another than that of their places."""
        return ""

    def by_area(self) -> dict[str, Any]:
        """The fields that make such sizes areas."""
        return {}

    def placer(self, frame: object) -> Callable[[L, Any, Placing], None] | None:
        """What places a layer on a frame; None where the frame does not show the type."""
        return next((place for of, place in self.places if isinstance(frame, of)), None)

    def stands_on(self, frame: Frame) -> bool:
        """Whether a chart with such a frame can show the type."""
        return any(of is PLACES[type(frame)] for of, _ in self.places)

    def new(self, key: str, name: str, column: str, chart: Chart) -> L:
        """A layer of this type that an author adds to a chart, on a column."""
        return self.spec(key, name, column, tone=len(chart.layers))

    # On a Cartesian frame

    def figures(self, layer: L, context: Context) -> list[float]:
        """All figures of a layer that the value axis must hold."""
        return []

    def edge_room(self, layer: L) -> float | None:
        """Room on numeric axes around its marks, so that none lies on the plot's edge, as a share of the axis."""
        return None

    def radii(self, layer: L, context: Context, side: float) -> Floats:
        """How far the mark of each row reaches around its point on numeric axes, in points, on a plot whose shorter
        side is `side` long; nothing for marks of no size of their own."""
        return []

    def labels_beyond(self, layer: L, lying: bool) -> bool:
        """Whether its labels may stand beyond its marks along the value axis, so that room must be kept for them."""
        return False

    def ends(self, layer: L, context: Context) -> Floats:
        """Where along the value axis the mark of each row ends, in figures."""
        span = context.spans.get(layer.key)
        return span.ends if span is not None else context.data.column(layer.values)

    def overhang(self, layer: L, thickness: float) -> tuple[float, float]:
        """Points that marks so thick reach beyond the scale's ends, at the base and at the end."""
        return 0.0, 0.0

    def fixed_end(self, layer: L) -> float | None:
        """The end it gives the value axis, where that is not set otherwise."""
        return None

    def strip_heading(self, layer: L) -> str | None:
        """The heading of the strip beside the plot its labels stand in; None where they stand at its marks."""
        return None

    # On a polar frame

    def foot(self, layer: L, context: Context, frame: Polar) -> float:
        """Points it needs under the hub of a half dial."""
        return 0.0

    def margins(self, layer: L, context: Context, on: Disc) -> tuple[float, float]:
        """Points its labels and marks need beside the disc and above it; `on` is the disc that would fit without."""
        return 0.0, 0.0

    def explosion(self, layer: L) -> float:
        """How far its marks stand out at most, as a share of the disc's radius."""
        return 0.0

    def rings(self, layer: L, rows: int) -> int:
        """How many rings the disc must have for it."""
        return 1

    # In the legend

    def entries(self, layer: L, context: Context) -> list[LegendEntry]:
        """What the legend lists of it: itself, unless the type says otherwise; the spans of its shades where it has
        some."""
        spans = shade_spans(layer, context) if layer.shades == "one hue" else []
        return spans or [LegendEntry(layer.name, layer.fill, layer.tone, layer)]

    def key(self, item: LegendEntry, layer: L, chip: Rect, context: Context) -> tuple[Primitive, ...]:
        """What the legend draws beside the name of an entry, into a box."""
        return painted(Filling(item.fill, item.tone), recorded(box, chip, 0.18 * chip.width), chip, "up", context)


def shade_spans(layer: Layer, context: Context) -> list[LegendEntry]:
    """What the shades of a layer mean: from where to where each goes."""
    figures = context.data.column(layer.figure_column)
    how, locale = context.data.number_text(layer.figure_column), context.data.locale
    base = layer.fill if isinstance(layer.fill, str) and layer.fill else f"tone{layer.tone + 1}"
    found = []
    for low, high in limits(layer.shade_steps, figures):
        fill = shade("one hue", layer.shade_steps, (low + high) / 2, figures, base)
        text = f"{written(rounded(low, high - low), how, locale)} – {written(rounded(high, high - low), how, locale)}"
        found.append(LegendEntry(text, fill, layer.tone, layer))
    return found


def rounded(value: float, wide: float) -> float:
    """An end of a span, as exact as the span is wide asks for."""
    return round(value, max(0, 1 - math.floor(math.log10(wide)))) if wide > 0 else value


PLAIN: Kind[Any] = Kind()  # what is known of no layer in particular: legend entries of their own ask it
