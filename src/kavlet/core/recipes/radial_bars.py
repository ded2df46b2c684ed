"""Radial bars: rows as rings one inside the other, each swept in proportion to its value."""

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.rings import Rings
from kavlet.core.messages import say
from kavlet.core.recipes.building_blocks import NAME, VALUE, choice, flag, hole, number, optional, said
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Recipe, SettingRemedy, finite
from kavlet.core.recipes.table_problems import need_above_zero, need_no_negatives, need_numbers, need_something


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The degrees each value takes, and what is left of the sweep."""
    value, sweep_column = cells.role("value"), cells.helper("sweep")
    most = cells.number("maximum") or f"MAX({cells.whole(value)})"
    sweep = cells.number("sweep")
    return {
        "sweep": [f'=IF(ISNUMBER({value}{row});{value}{row}/{most}*{sweep};"")' for row in cells.span],
        "rest": [f'=IF(ISNUMBER({value}{row});MAX(0;{sweep}-{sweep_column}{row});"")' for row in cells.span],
    }


def check(inputs: Inputs) -> None:
    """No value is negative, and not all are zero."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A ring"))
    need_something(inputs, "value", say("values"))
    need_above_zero(inputs, "maximum")


def chart(inputs: Inputs) -> Chart:
    """One ring per row on a track; names right-aligned at the start, values at the ends."""
    order = list(range(inputs.rows))
    if inputs.settings["order"] == "largest outside":
        order.sort(
            key=lambda row: (
                -float(inputs.figures("value")[row])
                if inputs.figures("value")[row] == inputs.figures("value")[row]
                else 0.0
            )
        )
    layer = Rings(
        "value",
        inputs.title("value"),
        inputs.helpers["sweep"],
        figures=inputs.id("value"),
        order=tuple(order),
        track=bool(inputs.settings["track"]),
        round=bool(inputs.settings["round"]),
        vary=bool(inputs.settings["vary"]),
        label=Label(number=inputs.number_text("value")) if inputs.settings["labels"] else None,
    )
    return Chart(
        Polar(
            start=0.0,
            sweep=inputs.setting("sweep"),
            shown=360.0,
            hole=inputs.setting("hole") / 100,
            ring_gap=inputs.setting("gap"),
        ),
        (layer,),
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=inputs.drawn("Radial bars of {what}: {figures}.", what=inputs.title("value"), figures=said(inputs)),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    most = inputs.setting("maximum")
    over = [value for value in finite(inputs.figures("value")) if value > most]
    if not over:
        return ()
    message = say("A value is larger than the maximum, {most}; its ring is full.", most=most)
    widen = SettingRemedy("widen", say("Widen the scale"), {"maximum": max(over)})
    return (Notice("out-of-range", max(over), message, mends=(widen,)),)


def suits(of: Features) -> Suitability:
    return when((of.plain and 3 <= of.rows <= 8 and not of.timed, 0.6, "a few rows to compare"))


RADIAL_BARS = Recipe(
    name="radial-bars",
    title="Radial bars",
    question="goal",
    known_as="ring, rings, circle, round bars, donut, progress ring, activity",
    adds=True,
    needs="Names, and a number above zero for each.",
    roles=(NAME, VALUE),
    parameters=(
        optional("maximum", "What takes the whole sweep; the largest value when left out.", 0.0),
        number("sweep", 270.0, "How many degrees the maximum takes.", 30.0, 360.0, "°"),
        hole(25.0),
        number("gap", 5.0, "Free space between rings.", 0.0, 40.0, "pt").at("frame.ring_gap"),
        choice("order", "The rings’ order, from outside in.", "table", "largest outside"),
        flag("track", True, "Draw the whole sweep pale behind each ring."),
        flag("round", True, "Round ends."),
        flag("vary", False, "A colour of its own for each ring."),
        flag("labels", True, "Write the values at the ends."),
    ),
    helpers=(
        HelperColumn("sweep", "The degrees the value takes."),
        HelperColumn("rest", "Hidden: the degrees that are left."),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    size=(480.0, 420.0),
    suits=suits,
    sorted_by=("order", "largest outside"),
)
