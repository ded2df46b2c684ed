"""Points: two figures against each other."""

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale, ScaleKind
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import NAME, choice, flag, number
from kavlet.core.recipes.columns import formulas
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import Inputs, Parameter, Recipe, Role
from kavlet.core.recipes.table_problems import needing
from kavlet.core.shapes.spots import SpotForm

X = Role("x", "number", "The figure that goes to the right.")
Y = Role("value", "number", "The figure that goes upward.", also=("y",))


def axes(inputs: Inputs) -> Cartesian:
    """Two numeric axes with their titles, zero only where the figures are near it."""
    log = bool(inputs.settings["log"])
    kind: ScaleKind = "log" if log else "linear"
    zero = bool(inputs.settings["zero"])
    return Cartesian(
        along=Scale(kind=kind, zero=zero, visible=True, grid=True, title=inputs.title("value")),
        across=Scale(kind=kind, zero=zero, visible=True, grid=True, line=True, title=inputs.title("x")),
    )


def chart(inputs: Inputs) -> Chart:
    """One layer of points."""
    spot: SpotForm = inputs.settings["spot"]  # type: ignore[assignment]
    label = Label(template="{name}", position="beside") if inputs.settings["labels"] and inputs.has("name") else None
    layer = Points(
        "value",
        inputs.title("value"),
        inputs.id("value"),
        x=inputs.id("x"),
        spot=spot,
        symbol=str(inputs.settings["symbol"]),
        size=inputs.setting("size"),
        label=label,
    )
    return Chart(
        axes(inputs),
        (layer,),
        names=inputs.id("name"),
        ink=1,
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "{rows} points of {what} against {x}.", rows=inputs.rows, what=inputs.title("value"), x=inputs.title("x")
        ),
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.numbers == 2 and of.across, 0.93, "two figures against each other"),
        (of.numbers == 2 and of.rows >= 6 and not (of.timed or of.pair) and of.units > 1, 0.92,
         "two figures against each other"),
        (of.numbers == 2 and of.rows >= 6 and not of.pair, 0.6, "two figures against each other"),
        otherwise=(0.15, ""),
    )  # fmt: skip


POINTS = Recipe(
    name="points",
    title="Points",
    question="time",
    known_as="scatter, correlation, dots, x and y, cloud",
    needs="Two columns of numbers.",
    roles=(NAME, X, Y),
    parameters=(
        choice("spot", "The points’ shape.", "disc", "square", "diamond", "triangle", "cross").at(
            of_layer("value", "spot")
        ),
        Parameter("symbol", "symbol", "", "A symbol instead of a shape."),
        number("size", 9.0, "The points’ size.", 1.0, 120.0, "pt").at(of_layer("value", "size")),
        flag("labels", True, "Write the names beside the points."),
        flag("zero", False, "Keep zero in sight."),
        flag("log", False, "Logarithmic scales.").moving("frame.along.kind"),
    ),
    helpers=(),
    formulas=formulas,
    check=needing("x", "value"),
    chart=chart,
    suits=suits,
    tells=ChartFacts(("x", "value"), sentences.relation, sentences.who_has_most),
)
