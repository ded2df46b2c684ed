"""What can be dressed on each part: fields, declared, in few plain groups. The panel shows only what a part has."""

from typing import get_args

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.colouring import Shades
from kavlet.core.charts.fields import Field, choices
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.labels import Leader, Position
from kavlet.core.charts.legend import LegendSide
from kavlet.core.charts.looks import below, of_layer, parse
from kavlet.core.charts.scale import Dash, Marks
from kavlet.core.charts.solid import MAX_ANGLE, Form
from kavlet.core.interaction.parts import Part
from kavlet.core.layout.kinds import kind_of, plain_types
from kavlet.core.messages import named
from kavlet.core.solid.material import Material
from kavlet.core.text.faces import Family
from kavlet.core.values.number_text import MAX_DECIMALS

ANGLES = (-MAX_ANGLE, MAX_ANGLE)
FILL = ("fill",)
MAIN = (FILL, *(("label", field) for field in ("template", "position", "size", "colour")))
POSITIONS = choices(Position, only=[one for one in get_args(Position) if one != "centre"])
LEADERS = choices(Leader, only=("plain", "elbow", "arrow", "none"))
ALIGNS = (("start", named("left")), ("middle", named("middle")), ("end", named("right")))
FACES = (("", named("automatic")), *choices(Family))  # the theme's where none is chosen
SOLID = "Solid"
ANGLE = {
    "turn": Field(SOLID, "Turn", "solid.turn", "number", unit="°", span=ANGLES),
    "tilt": Field(SOLID, "Tilt", "solid.tilt", "number", unit="°", span=ANGLES),
}  # also typed beside the rails
BODIES = choices(Form, {"drawn": "as drawn"})
MATERIALS = choices(Material)
STYLES = (
    ("number", named("number")), ("percent", named("percent")), ("currency", named("amount of money")),
    ("short", named("short")), ("long", named("in words")), ("exponent", named("power of ten")),
    ("date", named("date")),
)  # fmt: skip
SIGNS = (("auto", named("only −")), ("always", named("always")), ("never", named("never")))
MINUSES = (("−", named("−1")), ("-", named("-1")), ("()", named("(1)")))


def offers(chart: Chart, part: Part | None) -> list[Field]:
    """The fields of a part; of the chart itself when nothing is chosen."""
    if part is None or part.kind == "plot":
        return [*_of_frame(chart), *_of_grounds(chart)]
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
    return _of_axis(chart, part.key)


def _of_grounds(chart: Chart) -> list[Field]:
    """The colours behind the chart and its plot, and the lines around them."""
    found = [
        Field("Ground", "Colour", "ground", "colour", named="colour of the ground"),
        Field("Ground", "Runs to", "ground_to", "colour", named="second colour of the ground"),
        Field("Ground", "Picture", "ground_picture", "symbol", named="picture of the ground"),
        Field("Ground", "Border", "border", "colour", named="border of the chart"),
        Field("Ground", "Margin", "margin", "number", unit="pt", optional=True, span=(0, 300)),
        Field("Ground", "Type", "type_scale", "number", unit="%", times=100, optional=True, span=(30, 300),
              named="size of all type"),
    ]  # fmt: skip
    if chart.ground_picture:
        found.append(Field("Ground", "Veil", "ground_veil", "number", unit="%", times=100, span=(0, 100)))
    if chart.border:
        found.append(Field("Ground", "Border width", "border_width", "number", unit="pt", span=(0, 20)))
    if chart.as_solid is None:
        found += [
            Field("Ground", "Plot", "plot_ground", "colour", named="colour of the plot"),
            Field("Ground", "Plot runs to", "plot_to", "colour", named="second colour of the plot"),
            Field("Ground", "Plot picture", "plot_picture", "symbol", named="picture of the plot"),
            Field("Ground", "Plot border", "plot_border", "colour", named="border of the plot"),
        ]
        if chart.plot_picture:
            found.append(Field("Ground", "Plot veil", "plot_veil", "number", unit="%", times=100, span=(0, 100)))
    return found


def of_main(chart: Chart) -> list[Field]:
    """What is offered of the layer a chart is about, where nothing is chosen: how it is labelled; its fill too where
    that is one colour of its own, and not one of several series or of rows that differ."""
    layer = chart.layer(chart.main)
    if layer is None:
        return []
    fields = [one for one in offers(chart, Part("layer", layer.key)) if parse(one.path).field in MAIN]
    series = [one for one in chart.layers if kind_of(one) is kind_of(layer) and one.listed and _is_shown(one)]
    plain = len(series) == 1 and not layer.differs
    return [one for one in fields if plain or parse(one.path).field != FILL]


def drop_path(chart: Chart, part: Part | None, is_colour: bool, chosen: bool) -> str:
    """Where a colour, a symbol or a picture goes that is dropped on a part; `chosen` says whether the part is.

    A colour on words is theirs, and on the ground the ground's. On a mark it goes to the layer, or to the mark alone
    where that is chosen or the layer's marks differ in colour.
    """
    layer = chart.layer(part.key) if part is not None and part.kind in ("layer", "mark", "label") else None
    if is_colour and part is not None and part.kind == "text":
        return f"{part.key}.colour"
    if is_colour and part is not None and part.kind == "label" and layer is not None:
        return of_layer(layer.key, "label", "colour")
    if is_colour and layer is None:
        return "ground"
    if part is None or layer is None:
        return of_layer(chart.main, "fill")
    if part.kind == "mark" and (chosen or layer.differs):
        return below(part.path, "fill")
    return of_layer(layer.key, "fill")


def labelled_alike(chart: Chart, key: str) -> list[str]:
    """The other layers whose labels go with those of a layer: of its kind, and labelled as it is."""
    layer = chart.layer(key)
    if layer is None:
        return []
    alike = [one for one in chart.layers if kind_of(one) is kind_of(layer) and _is_shown(one) and one.key != key]
    return [one.key for one in alike if (one.label is None) == (layer.label is None)]


def _is_shown(layer: AnyLayer) -> bool:
    return not (layer.helper or layer.hidden or layer.joins)


def _of_layer(layer: AnyLayer, chart: Chart) -> list[Field]:
    at = of_layer(layer.key)
    kind = kind_of(layer)
    found = [Field("Fill", "Fill", f"{at}.fill", "fill")]
    if kind.mark.bars_texts and not layer.vary:
        found += [
            Field("Fill", "By value", f"{at}.shades", "choice", choices(Shades), named="colour by value"),
            Field("Fill", "In steps", f"{at}.shade_steps", "number", span=(0, 12), named="steps of colour"),
            Field("Fill", "Rules", f"{at}.colour_rules", "rules", named="colour rules"),
        ]
    found.append(Field("Edge", "Colour", f"{at}.edge", "colour"))
    if layer.edge:
        found.append(Field("Edge", "Width", f"{at}.edge_width", "number", unit="pt"))
    if kind.plain and isinstance(chart.frame, Cartesian):
        found += [
            Field("Layer", "Drawn as", f"{at}.type", "choice", choices(None, only=plain_types()), named="layer type"),
            Field("Layer", "Column", f"{at}.values", "column"),
            Field("Layer", "On the second axis", f"{at}.second", "flag"),
        ]
    found.append(Field("Layer", "Name", f"{at}.name", "text"))
    return [*found, *(field.under(at) for field in kind.fields)]


def _of_mark(layer: AnyLayer, part: Part) -> list[Field]:
    found = [
        Field("Fill", "Fill of this one", f"{part.path}.fill", "fill"),
        Field("Edge", "Colour", f"{part.path}.edge", "colour"),
    ]
    return [
        *found,
        *(field.under(part.path) for field in kind_of(layer).row_fields),
        Field("Label", "Labelled", f"{part.path}.label", "flag"),
        Field("Label", "Text instead", f"{part.path}.text", "text", optional=True, named="text of one label"),
        *_of_type("This label", f"{part.path}.text_look"),
        Field("Layer", "Hidden", f"{part.path}.hidden", "flag"),
    ]


def _of_label(layer: AnyLayer) -> list[Field]:
    at = of_layer(layer.key, "label")
    return [
        Field("Label", "Text", f"{at}.template", "says", named="label text"),
        Field("Label", "Position", f"{at}.position", "choice", POSITIONS, named="label position"),
        Field("Label", "Distance", f"{at}.distance", "number", unit="pt", span=(-50, 200), named="label distance"),
        Field("Label", "Angle", f"{at}.angle", "number", unit="°", span=(-90, 90), named="label angle"),
        Field("Label", "One of", f"{at}.every", "number", span=(1, 1000), named="how many labels"),
        Field("Label", "Face", f"{at}.family", "choice", FACES, named="face of labels"),
        Field("Label", "Size", f"{at}.size", "number", unit="pt", optional=True),
        Field("Label", "Colour", f"{at}.colour", "colour"),
        Field("Label", "Bold", f"{at}.bold", "flag"),
        Field("Label", "Italic", f"{at}.italic", "flag"),
        Field("Label", "Rules", f"{at}.colour_rules", "rules", named="colour rules of labels"),
        Field("Label", "Leader", f"{at}.leader", "choice", LEADERS),
        *_of_number("Number", f"{at}.number"),
    ]


def _of_number(group: str, at: str) -> list[Field]:
    """How numbers are written, of labels or of an axis."""
    return [
        Field(group, "Written as", f"{at}.style", "choice", STYLES, named="number style"),
        Field(group, "Currency", f"{at}.currency", "text", named="currency of numbers"),
        Field(group, "Most decimals", f"{at}.most_decimals", "number", optional=True, span=(0, MAX_DECIMALS)),
        Field(group, "Least decimals", f"{at}.least_decimals", "number", optional=True, span=(0, MAX_DECIMALS)),
        Field(group, "Before", f"{at}.prefix", "text"),
        Field(group, "After", f"{at}.suffix", "text"),
        Field(group, "Sign", f"{at}.sign", "choice", SIGNS, named="sign of numbers"),
        Field(group, "Negative", f"{at}.minus", "choice", MINUSES, named="negative numbers"),
        Field(group, "Grouped", f"{at}.grouping", "flag"),
        Field(group, "Zero as", f"{at}.zero", "text", optional=True),
        Field(group, "No value as", f"{at}.missing", "text"),
    ]


def _of_text(key: str) -> list[Field]:
    return [
        Field("Text", "Face", f"{key}.family", "choice", FACES, named="face of a text"),
        Field("Text", "Size", f"{key}.size", "number", unit="pt", optional=True),
        Field("Text", "Bold", f"{key}.bold", "flag"),
        Field("Text", "Italic", f"{key}.italic", "flag"),
        Field("Text", "Colour", f"{key}.colour", "colour"),
        Field("Text", "Position", f"{key}.align", "choice", ALIGNS, named="text alignment"),
    ]


def _of_legend() -> list[Field]:
    return [
        Field("Legend", "Position", "legend.side", "choice", choices(LegendSide), named="place of the legend"),
        Field("Legend", "Title", "legend.title", "text"),
        Field("Legend", "Width", "legend.width", "number", unit="pt", optional=True, span=(20, 5000)),
        Field("Legend", "Reversed", "legend.reversed", "flag"),
        Field("Legend", "Ground", "legend.ground", "colour", named="ground of the legend"),
        *_of_type("Text of the legend", "legend.text"),
    ]


def _of_type(group: str, at: str) -> list[Field]:
    """How one kind of text is set."""
    return [
        Field(group, "Face", f"{at}.family", "choice", FACES),
        Field(group, "Size", f"{at}.size", "number", unit="pt", optional=True, span=(4, 200)),
        Field(group, "Bold", f"{at}.bold", "flag"),
        Field(group, "Italic", f"{at}.italic", "flag"),
        Field(group, "Colour", f"{at}.colour", "colour"),
    ]


def _of_axis(chart: Chart, key: str) -> list[Field]:
    """What a scale has, or the rows' names. A dial's ends are its recipe's."""
    if key == "scale":
        fields = _of_scale(key, "Scale")
        return [one for one in fields if parse(one.path).last == "visible" or "number" in parse(one.path).field]
    across = chart.frame.across if isinstance(chart.frame, Cartesian) else None
    return _of_across() if key == "across" and across is not None and across.kind == "category" else (
        _of_scale(key, "Scale")
    )  # fmt: skip


def _of_scale(axis: str, group: str) -> list[Field]:
    at = f"frame.{axis}"
    kinds = (("linear", named("linear")), ("log", named("logarithmic")))
    rules = (("125", named("1-2-5")), ("heckbert", named("loose")), ("extended", named("searched")))
    return [
        Field(group, "From", f"{at}.minimum", "number", optional=True, named="start of the scale"),
        Field(group, "To", f"{at}.maximum", "number", optional=True, named="end of the scale"),
        Field(group, "Step", f"{at}.step", "number", optional=True),
        Field(group, "Shown", f"{at}.visible", "flag"),
        Field(group, "Axis line", f"{at}.line", "flag"),
        Field(group, "Reversed", f"{at}.reversed", "flag"),
        Field(group, "Kind", f"{at}.kind", "choice", kinds),
        Field(group, "Ticks", f"{at}.rule", "choice", rules),
        Field(group, "Tick marks", f"{at}.marks", "choice", choices(Marks)),
        Field(group, "Cut at", f"{at}.cap", "number", optional=True),
        Field(group, "Title", f"{at}.title", "text"),
        *_of_grid(at),
        *_of_number("Numbers of the scale", f"{at}.number"),
        *_of_type("Text of the scale", f"{at}.text"),
        *_of_type("Title of the scale", f"{at}.title_text"),
    ]


def _of_grid(at: str) -> list[Field]:
    """Gridlines of one direction."""
    return [
        Field("Gridlines", "Shown", f"{at}.grid", "flag", named="gridlines"),
        Field("Gridlines", "Colour", f"{at}.grid_colour", "colour", named="colour of gridlines"),
        Field("Gridlines", "Strength", f"{at}.strength", "number", unit="%", times=100, span=(0, 100)),
        Field("Gridlines", "Dashes", f"{at}.grid_dash", "choice", choices(Dash), named="dashes of gridlines"),
        Field("Gridlines", "Parts between", f"{at}.minor", "number", span=(0, 20), named="lines between gridlines"),
    ]


def _of_across() -> list[Field]:
    crowded = (("wrap", named("wrap")), ("skip", named("skip")), ("turn", named("turn")))
    return [
        Field("Names", "Shown", "frame.across.visible", "flag"),
        Field("Names", "Line", "frame.across.line", "flag"),
        Field("Names", "Gridlines", "frame.across.grid", "flag"),
        Field("Names", "Reversed", "frame.across.reversed", "flag"),
        Field("Names", "Where crowded", "frame.across.crowded", "choice", crowded),
        Field("Names", "Angle", "frame.across.angle", "number", unit="°", span=(0, 90), named="angle of names"),
        Field("Names", "One of", "frame.across.every", "number", span=(0, 1000), named="how many names"),
        Field("Names", "Title", "frame.across.title", "text"),
        *_of_type("Text of the names", "frame.across.text"),
        *_of_type("Title of the names", "frame.across.title_text"),
    ]


def _of_frame(chart: Chart) -> list[Field]:
    """What the whole chart has: geometry, solid bodies, scale, legend."""
    if isinstance(chart.frame, Cartesian):
        return [
            Field("Geometry", "Gap width", "frame.gap_width", "number", unit="%"),
            Field("Geometry", "Overlap", "frame.overlap", "number", unit="%"),
            Field("Geometry", "Lying", "frame.lying", "flag"),
            *_of_solid(chart),
            *_of_scale("along", "Scale"),
            *_of_legend(),
        ]
    if isinstance(chart.frame, Polar):
        return [
            Field("Geometry", "Hole", "frame.hole", "number", unit="%", times=100),
            Field("Geometry", "Start", "frame.start", "number", unit="°"),
            Field("Geometry", "Ring gap", "frame.ring_gap", "number", unit="pt"),
            *_of_solid(chart),
            *_of_legend(),
        ]
    return _of_legend()


def _of_solid(chart: Chart) -> list[Field]:
    """Solid bodies: only where there is something to make solid, and all but the switch only once it is."""
    if not chart.has_bodies:
        return []
    if chart.as_solid is None:
        return [Field(SOLID, "", "", "switch")]
    bars = any(kind_of(layer).mark.can_be_round for layer in chart.layers)
    return [
        Field(SOLID, "", "", "switch"),
        ANGLE["turn"],
        ANGLE["tilt"],
        Field(SOLID, "Perspective", "solid.perspective", "number", unit="%", times=100, span=(0, 100)),
        Field(SOLID, "Depth", "solid.depth", "number", unit="%", times=100, optional=True, span=(1, 1000)),
        *([Field(SOLID, "Body", "solid.form", "choice", BODIES)] if bars else []),
        Field(SOLID, "Edge", "solid.edge", "number", unit="pt", span=(0, 50)),
        Field(SOLID, "Material", "solid.material", "choice", MATERIALS),
        Field(SOLID, "Light across", "solid.light_turn", "number", unit="°", span=(-180, 180)),
        Field(SOLID, "Light height", "solid.light_tilt", "number", unit="°", span=ANGLES),
        Field(SOLID, "Even light", "solid.ambient", "number", unit="%", times=100, span=(25, 100)),
        Field(SOLID, "Shadow", "solid.shadow", "flag"),
        *([Field(SOLID, "Walls and floor", "solid.walls", "flag")] if isinstance(chart.frame, Cartesian) else []),
    ]
