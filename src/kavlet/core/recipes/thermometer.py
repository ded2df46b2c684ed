"""Thermometer: how much of a goal is reached, as a column that fills up."""

import math

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.points import Points
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import Percent, say
from kavlet.core.recipes.building_blocks import OF, ROW, added_goals, flag, goal_of, optional, text, total_of
from kavlet.core.recipes.features import Features, Suitability, round_above, when
from kavlet.core.recipes.recipe import (
    CellAddresses,
    HelperColumn,
    Inputs,
    Notice,
    Parameter,
    Recipe,
    Repeats,
    Role,
    Setting,
)
from kavlet.core.recipes.table_problems import need_above_zero, need_numbers
from kavlet.core.styling.fills import GradientFill
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PERCENT, WHOLE_PERCENT


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The total, its share of the goal, and that share as far as the tube can show it."""
    value, total, goal, level = cells.role("value"), *(cells.helper(name) for name in ("total", "goal", "level"))
    summed = cells.settings["of"] == "sum"
    made: dict[str, list[str]] = {"total": [], "goal": [], "level": [], "shown": []}
    for row in cells.span:
        if summed and row > cells.first:
            for held in made.values():
                held.append("")
            continue
        made["total"].append(f"={total_of(cells, value, row)}")
        made["goal"].append("=" + goal_of(cells, "goal", row))
        made["level"].append(f"={total}{row}/{goal}{row}")
        made["shown"].append(f"=MAX(0;MIN(1;{level}{row}))")
    return made


def check(inputs: Inputs) -> None:
    """There is a goal above zero."""
    need_numbers(inputs, "value")
    need_above_zero(inputs, "goal")
    goal = float(inputs.helper("goal")[_row(inputs)])
    if math.isnan(goal):
        raise KavletError(
            say("A thermometer needs a goal."), remedy=say("Set goal to a number or a cell, such as =B9.")
        )
    if goal <= 0:
        raise KavletError(say("The goal must be above 0."))


def _row(inputs: Inputs) -> int:
    return 0 if inputs.settings["of"] == "sum" else inputs.row


def chart(inputs: Inputs) -> Chart:
    """One column without a gap on an axis locked from 0 to 1, round by its gradient, its bulb always full."""
    row = _row(inputs)
    level, total = float(inputs.helper("level")[row]), float(inputs.helper("total")[row])
    how = inputs.number_text("value")
    layers: list[AnyLayer] = [
        Bars(
            "level",
            inputs.title("value"),
            inputs.helpers["shown"],
            form="capsule",
            thickness=0.26,
            track=True,
            true=inputs.helpers["level"],
            bulb=1.9 if inputs.settings["bulb"] else 0.0,
            fill=GradientFill(("tone1",), run="round"),
            label=Label(template=written(level, WHOLE_PERCENT, inputs.locale), position="middle", bold=True),
        ),
        Points(
            "total",
            inputs.drawn("total"),
            inputs.helpers["shown"],
            spot="none",
            size=0.0,
            listed=False,
            label=Label(template=written(total, how, inputs.locale), position="beside", bold=True, size=17.0),
        ),
    ]
    goal = float(inputs.helper("goal")[row])
    for i, milestone in enumerate(inputs.listed("milestones")):
        name = written(milestone, how, inputs.locale)
        layers.append(
            Reference(f"milestone {i + 1}", name, at=milestone / goal, dash=(2.0, 2.0), label=Label(), listed=False)
        )
    scale = Scale(
        minimum=0.0,
        maximum=1.0,
        step=0.25,
        number=WHOLE_PERCENT,
        visible=bool(inputs.settings["scale"]),
        grid=False,
        line=False,
    )
    return Chart(
        Cartesian(gap_width=0.0, along=scale, across=Scale(kind="category", visible=False, line=False), aspect=0.62),
        tuple(layers),
        names=inputs.id("name"),
        rows=(row,),
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "Thermometer of {what}: {total} of {goal}, {share} of the goal.",
            what=inputs.title("value"),
            total=text(total, how, inputs),
            goal=text(goal, how, inputs),
            share=written(level, PERCENT, inputs.locale),
        ),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    level = float(inputs.helper("level")[_row(inputs)])
    if level < 0:
        return (Notice("out-of-range", level, say("What is given is below zero; the tube is empty.")),)
    if not level > 1:
        return added_goals(inputs, "goal")
    message = say("The goal is passed: {share}. The tube shows a break.", share=Percent(level))
    return (Notice("out-of-range", level, message, "note"), *added_goals(inputs, "goal"))


def suits(of: Features) -> Suitability:
    return when(
        ((of.goal == "once" or (bool(of.goal) and of.rows == 1)) and not of.negative, 0.96, "adds up to a goal"),
        (bool(of.goal) and not of.negative, 0.8, "adds up to a goal"),
        (of.plain and of.rows <= 8, 0.4, "adds up to a goal"),
        otherwise=(0.2, ""),
    )


def proposes(of: Features) -> dict[str, Setting]:
    """A round goal above what is given, until its author sets one."""
    return {"goal": round_above(of.total)}


THERMOMETER = Recipe(
    name="thermometer",
    title="Thermometer",
    question="goal",
    known_as="fundraising, donations, progress, money raised, collected, goal, target",
    adds=True,
    needs="A number, or a column to add up, and a goal.",
    roles=(
        Role("name", "text", "Names what is given.", required=False),
        Role("value", "number", "What is given; the column is added up."),
        Role("goal", "number", "The goal of each row.", required=False),
    ),
    parameters=(
        optional("goal", "What is to be reached.", 0.0),
        OF,
        ROW,
        Parameter("milestones", "numbers", "", "Figures on the way that are marked."),
        flag("scale", True, "Graduations at the side.").at("frame.along.visible"),
        flag("bulb", True, "A round bulb at the foot."),
    ),
    helpers=(
        HelperColumn("total", "All that is given."),
        HelperColumn("goal", "What is to be reached."),
        HelperColumn("level", "The share of the goal.", PERCENT),
        HelperColumn("shown", "The share that the tube can show.", PERCENT),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    repeats=Repeats("row", "of"),
    size=(360.0, 420.0),
    suits=suits,
    proposes=proposes,
)
