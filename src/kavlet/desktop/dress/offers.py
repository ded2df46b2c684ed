"""What can be dressed on each part: fields, declared, in few plain groups. The panel shows only what a part has."""

from typing import Any, Literal

from msgspec import Struct

from kavlet.core.charts.area import Area
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.line import Line
from kavlet.core.charts.points import Points
from kavlet.core.charts.solid import MOST_ANGLE
from kavlet.core.charts.wedges import Wedges
from kavlet.desktop.parts import Part

FieldKind = Literal["fill", "colour", "number", "choice", "flag", "text", "symbol", "column", "says", "switch"]


class Offer(Struct, frozen=True):
    """One field: the group it stands in, its words, the path it sets, and how it is shown.

    A `switch` only opens its group, where the panel has a widget of its own. `times` is what a stored number is
    multiplied with to be shown (100 for percents); `optional` numbers may be empty; `span` is what may be typed.
    """

    group: str
    label: str
    path: str
    kind: FieldKind
    choices: tuple[tuple[Any, str], ...] = ()
    unit: str = ""
    times: float = 1.0
    optional: bool = False
    span: tuple[float, float] | None = None


ANGLES = (-MOST_ANGLE, MOST_ANGLE)
POSITIONS = tuple((one, one) for one in (
    "auto", "inside start", "middle", "inside end", "outside", "base", "above", "below", "by sign", "beside",
))  # fmt: skip
LEADERS = tuple((one, one) for one in ("plain", "elbow", "arrow", "none"))
SPOTS = tuple((one, one) for one in ("none", "disc", "square", "diamond", "triangle", "cross", "tick", "bar"))
COURSES = tuple((one, one) for one in ("straight", "smooth", "stepped"))
STACKS = (("none", "side by side"), ("stacked", "stacked"), ("share", "100 %"))
TYPES = tuple((one, one) for one in ("bars", "line", "area", "points"))
ALIGNS = (("start", "left"), ("middle", "middle"), ("end", "right"))
SOLID = "Solid"
BODIES = (("drawn", "as drawn"), ("round", "round"), ("cone", "cone"), ("pyramid", "pyramid"))
MATERIALS = tuple((one, one) for one in ("matte", "satin", "glossy"))
STYLES = (("number", "number"), ("percent", "percent"), ("short", "1.2 K"), ("long", "1.2 thousand"))


def offers(chart: Chart, part: Part | None) -> list[Offer]:
    """The fields of a part; of the chart itself when nothing is chosen."""
    if part is None or part.kind == "plot":
        return _of_frame(chart)
    if part.kind in ("layer", "mark", "label"):
        layer = chart.layer(part.key)
        if layer is None:
            return []
        if part.kind == "label":
            return _of_label(layer)
        return _of_mark(layer, part) if part.kind == "mark" else [*_of_layer(layer, chart), *_of_label(layer)]
    if part.kind == "text":
        return _of_text(part.key)
    if part.kind == "legend":
        return _of_legend()
    return _of_scale("along", "Scale") if part.key == "along" else _of_across()


def _of_layer(layer: AnyLayer, chart: Chart) -> list[Offer]:
    at = f"layers.{layer.key}"
    found = [Offer("Fill", "Fill", f"{at}.fill", "fill"), Offer("Edge", "Colour", f"{at}.edge", "colour")]
    if layer.edge:
        found.append(Offer("Edge", "Width", f"{at}.edge_width", "number", unit="pt"))
    if isinstance(layer, Bars | Line | Area | Points) and isinstance(chart.frame, Cartesian):
        found += [
            Offer("Layer", "Drawn as", f"{at}.type", "choice", TYPES),
            Offer("Layer", "Column", f"{at}.values", "column"),
            Offer("Layer", "On the second axis", f"{at}.second", "flag"),
        ]
    found.append(Offer("Layer", "Name", f"{at}.name", "text"))
    found += _shape(layer, at)
    return found


def _shape(layer: AnyLayer, at: str) -> list[Offer]:
    if isinstance(layer, Bars):
        forms = tuple((one, one) for one in ("square", "rounded", "capsule", "cylinder", "tapered"))
        return [
            Offer("Shape", "Form", f"{at}.form", "choice", forms),
            Offer("Shape", "Stacked", f"{at}.stack", "choice", STACKS),
            Offer("Shape", "Thickness", f"{at}.thickness", "number", unit="%", times=100),
            Offer("Shape", "Corner", f"{at}.radius", "number", unit="pt", optional=True),
            Offer("Shape", "Pale track behind", f"{at}.track", "flag"),
        ]
    if isinstance(layer, Line):
        missing = tuple((one, one) for one in ("break", "bridge", "drop"))
        return [
            Offer("Shape", "Course", f"{at}.course", "choice", COURSES),
            Offer("Shape", "Width", f"{at}.width", "number", unit="pt"),
            Offer("Shape", "Points", f"{at}.spot", "choice", SPOTS),
            Offer("Shape", "Missing values", f"{at}.missing", "choice", missing),
        ]
    if isinstance(layer, Area):
        return [
            Offer("Shape", "Course", f"{at}.course", "choice", COURSES),
            Offer("Shape", "Stacked", f"{at}.stack", "choice", STACKS),
            Offer("Shape", "Opacity", f"{at}.opacity", "number", unit="%", times=100),
        ]
    if isinstance(layer, Points):
        return [
            Offer("Shape", "Shape", f"{at}.spot", "choice", SPOTS),
            Offer("Shape", "Symbol", f"{at}.symbol", "symbol"),
            Offer("Shape", "Size", f"{at}.size", "number", unit="pt"),
        ]
    if isinstance(layer, Wedges):
        return [
            Offer("Shape", "Explode", f"{at}.explode", "number", unit="%", times=100),
            Offer("Shape", "Gap", f"{at}.gap", "number", unit="pt"),
            Offer("Shape", "Corner", f"{at}.corner", "number", unit="pt"),
        ]
    if isinstance(layer, Cells):
        return [
            Offer("Shape", "Cell", f"{at}.cell", "choice", (("square", "square"), ("disc", "disc"))),
            Offer("Shape", "Symbol", f"{at}.symbol", "symbol"),
            Offer("Shape", "Gap", f"{at}.gap", "number", unit="%", times=100),
        ]
    if isinstance(layer, Bubbles):
        return [
            Offer("Shape", "Size by", f"{at}.by", "choice", (("area", "area"), ("diameter", "diameter"))),
            Offer("Shape", "Largest", f"{at}.largest", "number", unit="%", times=100),
        ]
    return []


def _of_mark(layer: AnyLayer, part: Part) -> list[Offer]:
    found = [
        Offer("Fill", "Fill of this one", f"{part.path}.fill", "fill"),
        Offer("Edge", "Colour", f"{part.path}.edge", "colour"),
    ]
    if isinstance(layer, Wedges):
        found.append(Offer("Shape", "Explode", f"{part.path}.explode", "number", unit="%", times=100, optional=True))
    return [
        *found,
        Offer("Label", "Labelled", f"{part.path}.label", "flag"),
        Offer("Label", "Says instead", f"{part.path}.text", "text", optional=True),
        Offer("Layer", "Hidden", f"{part.path}.hidden", "flag"),
    ]


def _of_label(layer: AnyLayer) -> list[Offer]:
    at = f"layers.{layer.key}.label"
    return [
        Offer("Label", "Says", f"{at}.template", "says"),
        Offer("Label", "Stands", f"{at}.position", "choice", POSITIONS),
        Offer("Label", "Size", f"{at}.size", "number", unit="pt", optional=True),
        Offer("Label", "Colour", f"{at}.colour", "colour"),
        Offer("Label", "Bold", f"{at}.bold", "flag"),
        Offer("Label", "Italic", f"{at}.italic", "flag"),
        Offer("Label", "Leader", f"{at}.leader", "choice", LEADERS),
        Offer("Number", "Written as", f"{at}.number.style", "choice", STYLES),
        Offer("Number", "Most decimals", f"{at}.number.most_decimals", "number"),
        Offer("Number", "Least decimals", f"{at}.number.least_decimals", "number"),
        Offer("Number", "Before", f"{at}.number.prefix", "text"),
        Offer("Number", "After", f"{at}.number.suffix", "text"),
    ]


def _of_text(key: str) -> list[Offer]:
    return [
        Offer("Text", "Size", f"{key}.size", "number", unit="pt", optional=True),
        Offer("Text", "Bold", f"{key}.bold", "flag"),
        Offer("Text", "Italic", f"{key}.italic", "flag"),
        Offer("Text", "Colour", f"{key}.colour", "colour"),
        Offer("Text", "Stands", f"{key}.align", "choice", ALIGNS),
    ]


def _of_legend() -> list[Offer]:
    sides = tuple((one, one) for one in ("auto", "none", "top", "bottom", "left", "right", "inside"))
    return [
        Offer("Legend", "Stands", "legend.side", "choice", sides),
        Offer("Legend", "Title", "legend.title", "text"),
    ]


def _of_scale(axis: str, group: str) -> list[Offer]:
    at = f"frame.{axis}"
    kinds = (("linear", "linear"), ("log", "logarithmic"))
    rules = (("125", "1-2-5"), ("heckbert", "loose"), ("extended", "searched"))
    return [
        Offer(group, "From", f"{at}.minimum", "number", optional=True),
        Offer(group, "To", f"{at}.maximum", "number", optional=True),
        Offer(group, "Step", f"{at}.step", "number", optional=True),
        Offer(group, "Shown", f"{at}.visible", "flag"),
        Offer(group, "Gridlines", f"{at}.grid", "flag"),
        Offer(group, "Axis line", f"{at}.line", "flag"),
        Offer(group, "Reversed", f"{at}.reversed", "flag"),
        Offer(group, "FieldKind", f"{at}.kind", "choice", kinds),
        Offer(group, "Ticks", f"{at}.rule", "choice", rules),
        Offer(group, "Cut at", f"{at}.cap", "number", optional=True),
        Offer(group, "Title", f"{at}.title", "text"),
    ]


def _of_across() -> list[Offer]:
    crowded = (("wrap", "wrap"), ("skip", "skip"), ("turn", "turn"))
    return [
        Offer("Names", "Shown", "frame.across.visible", "flag"),
        Offer("Names", "Line", "frame.across.line", "flag"),
        Offer("Names", "Gridlines", "frame.across.grid", "flag"),
        Offer("Names", "Reversed", "frame.across.reversed", "flag"),
        Offer("Names", "Where crowded", "frame.across.crowded", "choice", crowded),
        Offer("Names", "Title", "frame.across.title", "text"),
    ]


def _of_frame(chart: Chart) -> list[Offer]:
    """What the whole chart has: geometry, solid bodies, scale, legend."""
    if isinstance(chart.frame, Cartesian):
        return [
            Offer("Geometry", "Gap width", "frame.gap_width", "number", unit="%"),
            Offer("Geometry", "Overlap", "frame.overlap", "number", unit="%"),
            Offer("Geometry", "Lying", "frame.lying", "flag"),
            *_of_solid(chart),
            *_of_scale("along", "Scale"),
            *_of_legend(),
        ]
    if isinstance(chart.frame, Polar):
        return [
            Offer("Geometry", "Hole", "frame.hole", "number", unit="%", times=100),
            Offer("Geometry", "Start", "frame.start", "number", unit="°"),
            Offer("Geometry", "Ring gap", "frame.ring_gap", "number", unit="pt"),
            *_of_solid(chart),
            *_of_legend(),
        ]
    return _of_legend()


def _of_solid(chart: Chart) -> list[Offer]:
    """Solid bodies: only where there is something to make solid, and all but the switch only once it is."""
    if not chart.has_bodies:
        return []
    if chart.as_solid is None:
        return [Offer(SOLID, "", "", "switch")]
    bars = any(isinstance(layer, Bars) for layer in chart.layers)
    return [
        Offer(SOLID, "", "", "switch"),
        Offer(SOLID, "Turn", "solid.turn", "number", unit="°", span=ANGLES),
        Offer(SOLID, "Tilt", "solid.tilt", "number", unit="°", span=ANGLES),
        Offer(SOLID, "Perspective", "solid.perspective", "number", unit="%", times=100, span=(0, 100)),
        Offer(SOLID, "Depth", "solid.depth", "number", unit="%", times=100, optional=True, span=(1, 1000)),
        *([Offer(SOLID, "Body", "solid.form", "choice", BODIES)] if bars else []),
        Offer(SOLID, "Edge", "solid.edge", "number", unit="pt", span=(0, 50)),
        Offer(SOLID, "Material", "solid.material", "choice", MATERIALS),
        Offer(SOLID, "Light across", "solid.light_turn", "number", unit="°", span=(-180, 180)),
        Offer(SOLID, "Light height", "solid.light_tilt", "number", unit="°", span=ANGLES),
        Offer(SOLID, "Even light", "solid.ambient", "number", unit="%", times=100, span=(25, 100)),
        Offer(SOLID, "Shadow", "solid.shadow", "flag"),
        *([Offer(SOLID, "Walls and floor", "solid.walls", "flag")] if isinstance(chart.frame, Cartesian) else []),
    ]
