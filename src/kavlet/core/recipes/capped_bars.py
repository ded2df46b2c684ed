"""Capped bars: an outlier is cut at a cap by a drawn break, and still labelled with its true value."""

import math

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import counted, say
from kavlet.core.recipes.building_blocks import NAME, VALUE, direction, gap, optional, said
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Recipe
from kavlet.core.recipes.table_problems import need_above_zero, need_no_negatives, need_numbers


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """What is drawn of each value: at most the cap, by itself a quarter above the second largest."""
    value, column = cells.role("value"), cells.whole(cells.role("value"))
    cap = cells.number("cap") or f"IF(COUNT({column})>1;1.25*LARGE({column};2);MAX({column}))"
    return {"shown": [f'=IF(ISNUMBER({value}{row});MIN({value}{row};{cap});"")' for row in cells.span]}


def check(inputs: Inputs) -> None:
    """There are numbers, none negative, and a cap above zero."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A capped bar"))
    need_above_zero(inputs, "cap")


def chart(inputs: Inputs) -> Chart:
    """Bars of what is shown; where the true value is larger, a break."""
    lying = inputs.settings["direction"] == "lying"
    layer = Bars(
        "shown",
        inputs.title("value"),
        inputs.helpers["shown"],
        true=inputs.id("value"),
        label=Label(number=inputs.number_text("value"), position="inside end", bold=True),
    )
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            along=Scale(minimum=0.0, visible=False, grid=False),
            across=Scale(kind="category", line=not lying),
        ),
        (layer,),
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=counted(
            "Capped bars of {what}: {figures}. {count} bar is cut short with a break.",
            "Capped bars of {what}: {figures}. {count} bars are cut short with a break.",
            _cut(inputs),
            what=inputs.title("value"),
            figures=said(inputs),
        ).said_in(inputs.locale),
    )


def _cut(inputs: Inputs) -> int:
    return sum(true > shown for true, shown in zip(inputs.figures("value"), inputs.helper("shown"), strict=True))


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    cut = [
        true / shown
        for true, shown in zip(inputs.figures("value"), inputs.helper("shown"), strict=True)
        if not math.isnan(true) and true > shown > 0
    ]
    if not cut:
        return ()
    message = counted(
        "{count} bar is drawn shorter than in proportion, with a break.",
        "{count} bars are drawn shorter than in proportion, with a break.",
        _cut(inputs),
    )
    return (Notice("capped", max(cut), message, "note"),)


def suits(of: Features) -> Suitability:
    return when((of.outlier and of.plain and not of.timed, 0.94, "one row far above the others"), otherwise=(0.15, ""))


CAPPED_BARS = Recipe(
    name="capped-bars",
    title="Capped bars",
    question="stands out",
    known_as="outlier, broken bar, cut bar, very large, break",
    needs="Names, and a number for each, one of them far larger than the others.",
    roles=(NAME, VALUE),
    parameters=(
        optional("cap", "Where bars are cut; a quarter above the second largest when left out.", 0.0),
        direction("standing"),
        gap(45.0),
    ),
    helpers=(HelperColumn("shown", "The value, at most the cap."),),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    suits=suits,
)
