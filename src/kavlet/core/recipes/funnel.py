"""Funnel: what gets through each stage.

Each bar is centred by a hidden offset, so the bars of a stacked chart stand as a funnel::

    offset |########################| offset      18,400
        offset  |###############|                  6,900   step 37.5 %, overall 37.5 %
             offset |######|                       2,760   step 40 %,   overall 15 %
"""

from kavlet.core.charts.bars import Bars, Form
from kavlet.core.charts.chart import Chart, Layer, Scale
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.labels import Label
from kavlet.core.charts.points import Points
from kavlet.core.figures.cells import text_of
from kavlet.core.recipes.checks import largest, need_no_negatives, need_numbers
from kavlet.core.recipes.recipe import HelperColumn, Inputs, Parameter, Places, Recipe, Role
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PERCENT, PLAIN

STANDING = "standing"


def formulas(places: Places) -> dict[str, list[str]]:
    """Half of what is missing to the widest stage; each stage over the one before; each stage over the first.

    An empty stage has no rate, and neither has the stage after it.
    """
    value, first, last = places.role("value"), places.first, places.last
    rows = range(first, last + 1)
    return {
        "offset": [f"=(MAX({value}${first}:{value}${last})-{value}{row})/2" for row in rows],
        "step": [
            "" if row == first else f'=IF(COUNT({value}{row - 1}:{value}{row})=2;{value}{row}/{value}{row - 1};"")'
            for row in rows
        ],
        "overall": [f'=IF(ISNUMBER({value}{row});{value}{row}/{value}${first};"")' for row in rows],
    }


def check(inputs: Inputs) -> None:
    """A funnel needs two stages or more, none negative, and something in one of them."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", "A stage")
    stages = len(inputs.entries("value"))
    if stages < 2:
        raise KavletError("A funnel needs at least two stages; this table has one.", remedy="Add a row below it.")
    if largest(inputs.figures("value")) == 0:
        raise KavletError("All stages are 0, so there is no funnel to draw.")


def chart(inputs: Inputs) -> Chart:
    """The offsets, the stages on them, and the rates as labels of points without a shape."""
    settings = inputs.settings
    figures = inputs.figures("value")
    value_name = inputs.role_names["value"]
    tapered = settings["shape"] == "tapered"
    layers: list[Layer] = [Bars("offset", "offset", inputs.helper_ids["offset"], helper=True)]
    joined = settings["flanks"] and not tapered
    if joined:
        layers.append(Flanks("flanks", "flanks", of="value"))
    label = Label(inputs.number_text("value"), "inside", "strong") if settings["values"] else None
    form: Form = "tapered" if tapered else "square"
    layers.append(Bars("value", value_name, inputs.role_ids["value"], stacked=True, form=form, label=label))
    rate = Label(PERCENT, "centre", "plain")
    if settings["rates"] == "between":
        on = "value" if joined else ""
        layers.append(Points("step", "step", inputs.helper_ids["step"], between=True, on=on, label=rate))
    elif settings["rates"] == "beside":
        layers.append(_margin(inputs, "step", "of the stage before", rate))
    if settings["overall"]:
        layers.append(_margin(inputs, "overall", "of all", Label(PERCENT, "centre", "quiet")))
    return Chart(
        layers=tuple(layers),
        scale=Scale(0.0, largest(figures)),
        names=inputs.role_ids["name"],
        lying=settings["direction"] != STANDING,
        gap_width=float(settings["gap"]),
        alt_text=_alt_text(inputs),
    )


def _margin(inputs: Inputs, helper: str, heading: str, label: Label) -> Points:
    return Points(helper, helper, inputs.helper_ids[helper], beside=True, heading=heading, label=label)


def _alt_text(inputs: Inputs) -> str:
    figures = inputs.figures("value")
    names = [text_of(value) or f"row {row + 1}" for row, value in enumerate(inputs.entries("name"))]
    number = inputs.number_text("value")
    parts = [
        f"{name} {written(float(figure), number, inputs.locale) or 'no value'}"
        for name, figure in zip(names[:12], figures[:12], strict=True)
    ]
    more = f", and {len(names) - 12} more" if len(names) > 12 else ""
    overall = inputs.numbers[inputs.helper_ids["overall"]][-1]
    end = written(float(overall), PERCENT, inputs.locale)
    reached = f" {end} of {names[0]} reach {names[-1]}." if end else ""
    return f"Funnel of {inputs.role_names['value']} in {len(names)} stages: {', '.join(parts)}{more}.{reached}"


FUNNEL = Recipe(
    name="funnel",
    title="Funnel",
    question="What gets through each stage?",
    needs="A column that names the stages, and one of numbers, from the first stage to the last.",
    roles=(
        Role("name", "text", "Names the stages, first to last."),
        Role("value", "number", "How many are left at each stage."),
    ),
    parameters=(
        Parameter(
            "shape", "choice", "stepped", "Square steps, or bodies that narrow to the next.", ("stepped", "tapered")
        ),
        Parameter("direction", "choice", "lying", "Stages below or beside each other.", ("lying", STANDING)),
        Parameter("values", "flag", True, "Write each stage’s value on its bar."),
        Parameter("rates", "choice", "between", "Where the step rates stand.", ("between", "beside", "none")),
        Parameter("overall", "flag", True, "Write the share of the first stage in a margin."),
        Parameter("flanks", "flag", True, "Join square steps by a pale tone."),
        Parameter("gap", "number", 62.0, "Gap between the bars, of their thickness.", (), 0.0, 500.0, "%"),
    ),
    helpers=(
        HelperColumn("offset", "Hidden, so that each bar is centred: half of what is missing to the widest.", PLAIN),
        HelperColumn("step", "The share of the stage before that got here.", PERCENT),
        HelperColumn("overall", "The share of the first stage that got here.", PERCENT),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
)
