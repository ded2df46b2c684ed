"""Mirrored bars: two figures of each row, left and right of one line."""

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import say
from kavlet.core.recipes.building_blocks import NAME, flag, gap, listed
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Recipe, Role
from kavlet.core.recipes.table_problems import largest, need_no_negatives, need_numbers


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The left figures, turned below zero."""
    left = cells.role("left")
    return {"mirrored": [f'=IF(ISNUMBER({left}{row});-{left}{row};"")' for row in cells.span]}


def check(inputs: Inputs) -> None:
    """Neither side is negative."""
    for side in ("left", "right"):
        need_numbers(inputs, side)
        need_no_negatives(inputs, side, say("A side"))


def chart(inputs: Inputs) -> Chart:
    """Two layers at one place on a scale that is equally long to both sides."""
    most = max(largest(inputs.figures("left")), largest(inputs.figures("right"))) or 1.0
    shown = bool(inputs.settings["labels"])
    labels = {
        side: Label(template=f"{{{inputs.id(side)}}}", position="by sign") if shown else None
        for side in ("left", "right")
    }
    return Chart(
        Cartesian(
            lying=True,
            gap_width=inputs.setting("gap"),
            overlap=100.0,
            along=Scale(minimum=-most, maximum=most, visible=False, grid=False),
            across=Scale(kind="category", line=True),
        ),
        (
            Bars("left", inputs.title("left"), inputs.helpers["mirrored"], tone=0, label=labels["left"]),
            Bars("right", inputs.title("right"), inputs.id("right"), tone=1, label=labels["right"]),
        ),
        names=inputs.id("name"),
        legend=Legend(side="top"),
        alt_text=inputs.drawn(
            "Mirrored bars. {left}: {left_figures}; {right}: {right_figures}.",
            left=inputs.title("left"),
            left_figures=listed(inputs, inputs.names, list(inputs.figures("left")), inputs.number_text("left")),
            right=inputs.title("right"),
            right_figures=listed(inputs, inputs.names, list(inputs.figures("right")), inputs.number_text("right")),
        ),
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.pair == "sides" and not of.negative, 0.95, "two sides of each row"),
        (of.numbers == 2 and not of.negative and not of.timed, 0.55, "two sides of each row"),
        otherwise=(0.1, ""),
    )


MIRRORED_BARS = Recipe(
    name="mirrored-bars",
    title="Mirrored bars",
    question="time",
    known_as="pyramid, population, men and women, two sides, left and right, age",
    needs="Names, and two columns of numbers to compare.",
    roles=(
        NAME,
        Role("left", "number", "The figures at the left."),
        Role("right", "number", "The figures at the right."),
    ),
    parameters=(flag("labels", True, "Write the figures at the ends."), gap(35.0)),
    helpers=(HelperColumn("mirrored", "The left figures, turned below zero."),),
    formulas=formulas,
    check=check,
    chart=chart,
    suits=suits,
    tells=ChartFacts(("left", "right")),
)
