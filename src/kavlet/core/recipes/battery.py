"""Battery: what is left of a budget, as a stack of cylinders: cap, left, spent, cap."""

import math

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import Percent, say
from kavlet.core.recipes.building_blocks import (
    OF,
    ROW,
    added_goals,
    direction,
    goal_of,
    number,
    optional,
    text,
    total_of,
)
from kavlet.core.recipes.features import Features, Suitability, round_above, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Recipe, Repeats, Role, Setting
from kavlet.core.recipes.table_problems import need_above_zero, need_numbers
from kavlet.core.styling.fills import GradientFill
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PERCENT, WHOLE_PERCENT

CAP = 0.05  # common practice: caps of 5 %


def formulas(places: CellAddresses) -> dict[str, list[str]]:
    """What is spent as a share of the budget, what is left, and the two caps."""
    value, budget = places.role("value"), places.helper("budget")
    spent, left_column = places.helper("spent"), places.helper("left")
    summed = places.settings["of"] == "sum"
    columns: dict[str, list[str]] = {
        name: [] for name in ("budget", "spent", "left", "bottom", "charge", "empty", "cap")
    }
    for row in places.span:
        if summed and row > places.first:
            for cells in columns.values():
                cells.append("")
            continue
        total = total_of(places, value, row)
        columns["budget"].append("=" + goal_of(places, "budget", row))
        columns["spent"].append(f"={total}/{budget}{row}")
        columns["left"].append(f"=1-{spent}{row}")
        columns["bottom"].append(f"={places.number('caps')}/100")
        columns["charge"].append(f"=MAX(0;MIN(1;{left_column}{row}))")
        columns["empty"].append(f"=1-MAX(0;MIN(1;{left_column}{row}))")
        columns["cap"].append(f"={places.number('caps')}/100")
    return columns


def check(inputs: Inputs) -> None:
    """There is a budget above zero."""
    need_numbers(inputs, "value")
    need_above_zero(inputs, "budget")
    budget = float(inputs.helper("budget")[_row(inputs)])
    if math.isnan(budget):
        raise KavletError(
            say("A battery needs a budget."), remedy=say("Set budget to a number or a cell, such as =B9.")
        )
    if budget <= 0:
        raise KavletError(say("The budget must be above 0."))


def _row(inputs: Inputs) -> int:
    return 0 if inputs.settings["of"] == "sum" else inputs.row


def chart(inputs: Inputs) -> Chart:
    """A stack of cylinders on a locked axis; the colour of what is left follows thresholds."""
    row = _row(inputs)
    left, budget = float(inputs.helper("left")[row]), float(inputs.helper("budget")[row])
    caps = inputs.setting("caps") / 100
    how = inputs.number_text("value")
    low, middle = inputs.setting("low") / 100, inputs.setting("middle") / 100
    colour = "fall" if left <= low else "tone3" if left <= middle else "rise"
    over = inputs.drawn("over by {amount}", amount=written(-left * budget, how, inputs.locale))
    said = written(left, WHOLE_PERCENT, inputs.locale) if left >= 0 else over
    cuts = int(inputs.setting("cells"))
    lying = inputs.settings["direction"] == "lying"
    thick = 0.92
    strong = Label(template=said, bold=True, size=20.0)
    layers = (
        Bars(
            "bottom",
            inputs.drawn("cap"),
            inputs.helpers["bottom"],
            fill=GradientFill(("quiet",), run="round"),
            thickness=thick,
            listed=False,
            stack="stacked",
            form="cylinder",
        ),
        Bars(
            "left",
            inputs.drawn("left"),
            inputs.helpers["charge"],
            fill=GradientFill((colour,), run="round"),
            thickness=thick,
            cuts=cuts,
            label=strong if left > 0.12 else None,
            stack="stacked",
            form="cylinder",
        ),
        Bars(
            "spent",
            inputs.drawn("spent"),
            inputs.helpers["empty"],
            fill=GradientFill(("track",), run="round"),
            thickness=thick,
            label=strong if left <= 0.12 else None,
            stack="stacked",
            form="cylinder",
        ),
        Bars(
            "cap",
            inputs.drawn("cap"),
            inputs.helpers["cap"],
            fill=GradientFill(("quiet",), run="round"),
            thickness=0.42,
            listed=False,
            stack="stacked",
            form="cylinder",
        ),
    )
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=0.0,
            along=Scale(minimum=0.0, maximum=1 + 2 * caps, number=PERCENT, visible=False, grid=False),
            across=Scale(kind="category", visible=False, line=False),
            aspect=0.46,
        ),
        layers,
        names=inputs.id("name"),
        rows=(row,),
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "Battery of {what}: {left} of the budget of {budget} is left, {spent} is spent, {over}."
            if left < 0
            else "Battery of {what}: {left} of the budget of {budget} is left, {spent} is spent.",
            what=inputs.title("value"),
            left=written(max(0.0, left), PERCENT, inputs.locale),
            budget=text(budget, how, inputs),
            spent=written(1 - left, PERCENT, inputs.locale),
            over=over,
        ),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    left = float(inputs.helper("left")[_row(inputs)])
    added = added_goals(inputs, "budget")
    if not left < 0:
        return added
    over = say("More is spent than the budget holds: {share} over.", share=Percent(-left))
    return (Notice("out-of-range", left, over), *added)


def suits(of: Features) -> Suitability:
    return when(
        (bool(of.budget) and not of.negative, 0.97, "what is left of a budget"),
        (of.rows <= 8 and not of.negative and of.numbers == 1, 0.35, "what is left of a budget"),
        otherwise=(0.2, ""),
    )


def proposes(of: Features) -> dict[str, Setting]:
    """A round budget above what is spent, until its author sets one."""
    return {"budget": round_above(of.total)}


BATTERY = Recipe(
    name="battery",
    title="Battery",
    question="goal",
    known_as="budget left, money left, remaining, charge, spent, rest",
    adds=True,
    needs="A column of spendings, or one number, and a budget.",
    roles=(
        Role("name", "text", "Names what is spent.", required=False),
        Role("value", "number", "What is spent; the column is added up."),
        Role("budget", "number", "The budget of each row.", required=False),
    ),
    parameters=(
        optional("budget", "What there is to spend.", 0.0),
        OF,
        ROW,
        direction("standing"),
        number("cells", 0.0, "Cells the charge is parted into; 0 for none.", 0.0, 40.0),
        number("low", 20.0, "Up to this much left, the charge has the colour of a fall.", 0.0, 100.0, "%"),
        number("middle", 45.0, "Up to this much left, it has a colour between.", 0.0, 100.0, "%"),
        number("caps", 100 * CAP, "The length of each cap.", 0.0, 20.0, "%"),
    ),
    helpers=(
        HelperColumn("budget", "What there is to spend."),
        HelperColumn("spent", "The share that is spent.", PERCENT),
        HelperColumn("left", "The share that is left.", PERCENT),
        HelperColumn("bottom", "The lower cap.", PERCENT),
        HelperColumn("charge", "What is left, as far as the battery can show it.", PERCENT),
        HelperColumn("empty", "The empty part.", PERCENT),
        HelperColumn("cap", "The upper cap.", PERCENT),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    repeats=Repeats("row", "of"),
    size=(320.0, 420.0),
    suits=suits,
    proposes=proposes,
)
