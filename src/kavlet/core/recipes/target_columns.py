"""Target columns: what was done against what was planned, in one row."""

from typing import Literal

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Entry, Legend
from kavlet.core.charts.line import Line
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import say
from kavlet.core.recipes.building_blocks import NAME, choice, direction, flag, gap, optional, said
from kavlet.core.recipes.features import Features, Suitability, round_above, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Recipe, Role, Setting
from kavlet.core.recipes.table_problems import need_numbers
from kavlet.core.values.errors import KavletError


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The target of each row, and the actual figure in one of two columns: target met, or missed."""
    value, goal = cells.role("value"), cells.helper("target")
    held = f"{cells.role('target')}{{row}}" if cells.has("target") else '""'
    stated = cells.number("target") or held
    rows = cells.span
    return {
        "target": [f"={stated.format(row=row)}" for row in rows],
        "met": [f'=IF(AND(ISNUMBER({value}{row});{value}{row}>={goal}{row});{value}{row};"")' for row in rows],
        "missed": [f'=IF(AND(ISNUMBER({value}{row});{value}{row}<{goal}{row});{value}{row};"")' for row in rows],
    }


def check(inputs: Inputs) -> None:
    """There are figures, and targets for them."""
    need_numbers(inputs, "value")
    if inputs.has("target"):
        need_numbers(inputs, "target")
    elif not inputs.is_set("target"):
        raise KavletError(
            say("Target columns need targets."), remedy=say("Choose a column for target, or set one number.")
        )


def chart(inputs: Inputs) -> Chart:
    """Columns in two tones at one place, and the target in front of them as line, steps or ticks."""
    two = bool(inputs.settings["met"])
    label = Label(number=inputs.number_text("value"), position="base") if inputs.settings["labels"] else None
    quiet = "tone1 +48" if two else None
    lying = inputs.settings["direction"] == "lying"
    name = inputs.title("target") if inputs.has("target") else inputs.drawn("target")
    layers: list[AnyLayer] = [
        Bars("met", inputs.title("value"), inputs.helpers["met"], label=label),
        Bars(
            "missed",
            inputs.drawn("{what}, target missed", what=inputs.title("value")),
            inputs.helpers["missed"],
            fill=quiet,
            label=label,
            listed=two,
        ),
    ]
    front: AnyLayer
    if inputs.settings["shape"] == "tick":
        front = Points("target", name, inputs.helpers["target"], spot="tick", size=0.0, fill="ink")
    else:
        course: Literal["stepped", "straight"] = "stepped" if inputs.settings["shape"] == "steps" else "straight"
        spot: Literal["disc", "none"] = "disc" if course == "straight" else "none"
        front = Line("target", name, inputs.helpers["target"], fill="ink", course=course, spot=spot, width=1.75)
    layers.append(front)
    met = int(sum(1 for number in inputs.helper("met") if number == number))  # noqa: PLR0124
    entries = (
        (Entry(inputs.drawn("target met")), Entry(inputs.drawn("missed"), "tone1 +48"), Entry(name, "ink"))
        if two
        else ()
    )
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            overlap=100.0,
            along=Scale(visible=None),
            across=Scale(kind="category"),
        ),
        tuple(layers),
        names=inputs.id("name"),
        ink=1,
        legend=Legend(entries=entries),
        alt_text=inputs.drawn(
            "Target columns of {what}: {figures}. {met} of {rows} meet their target.",
            what=inputs.title("value"),
            figures=said(inputs),
            met=met,
            rows=inputs.rows,
        ),
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.goal == "each" and of.rows > 1, 0.97, "what was reached, and planned"),
        (bool(of.goal), 0.85, "what was reached, and planned"),
    )


def proposes(of: Features) -> dict[str, Setting]:
    """A round target above what was reached, until its author sets one."""
    return {"target": round_above(of.most)}


TARGET_COLUMNS = Recipe(
    name="target-columns",
    title="Target columns",
    question="goal",
    known_as="plan, actual, bullet, goal, target, budget, planned",
    needs="Names, what was reached, and a target for each row or one for all.",
    roles=(
        NAME,
        Role("value", "number", "What was reached."),
        Role("target", "number", "What was planned.", required=False),
    ),
    parameters=(
        optional("target", "One target for all rows, where no column holds them."),
        choice("shape", "How targets are drawn.", "tick", "line", "steps").moving("spot", "size"),
        flag("met", True, "Show columns that miss their target in a paler tone."),
        flag("labels", True, "Write the figures in the columns."),
        direction("standing"),
        gap(45.0),
    ),
    helpers=(
        HelperColumn("target", "The target of each row."),
        HelperColumn("met", "The figure, where it meets its target."),
        HelperColumn("missed", "The figure, where it misses its target."),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    suits=suits,
    proposes=proposes,
)
