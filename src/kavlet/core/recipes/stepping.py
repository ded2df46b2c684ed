"""Stepping: one column gives the period; the chart shows one period at a time, on scales locked over all of them.

A step between two whole numbers shows the way from one period to the next, row by row of the same name.
"""

import math

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.texts import Note
from kavlet.core.recipes.building_blocks import direction, gap, listed, number
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Recipe, Role, Steps, finite
from kavlet.core.recipes.table_problems import need_numbers
from kavlet.core.spreadsheet.cells import text_of


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The number of each row's period, in the order of first appearance; and the value while its period is shown."""
    name, value, period = (cells.role(role) for role in ("name", "value", "period"))
    step_column = cells.helper("step")
    first = cells.first
    step = cells.settings["step"]
    step_number = float(step) if isinstance(step, float | int) else 1.0
    whole, part = math.floor(step_number), step_number - math.floor(step_number)
    columns: dict[str, list[str]] = {"step": [], "shown": []}
    for row in cells.span:
        if row == first:
            columns["step"].append("=1")
        else:
            rows_before, before = f"{period}${first}:{period}{row - 1}", f"{step_column}${first}:{step_column}{row - 1}"
            columns["step"].append(
                f"=IF(COUNTIF({rows_before};{period}{row})=0;MAX({before})+1;INDEX({before};MATCH({period}{row};{rows_before};0)))"
            )
        cell = f"{value}{row}"
        if part > 1e-9:
            of_name = f"{cells.whole(name)};{name}{row}"
            following = f"SUMIFS({cells.whole(value)};{of_name};{cells.whole(step_column)};{whole + 1})"
            cell = f"{cell}+({following}-{cell})*{part:.6g}"
        step_shown = cells.number("step") if isinstance(step, str) else str(whole)
        columns["shown"].append(f'=IF({step_column}{row}={step_shown};{cell};"")')
    return columns


def check(inputs: Inputs) -> None:
    """There are numbers."""
    need_numbers(inputs, "value")


def periods(inputs: Inputs) -> list[str]:
    """The periods in the order of first appearance."""
    return list(dict.fromkeys(text_of(value) for value in inputs.entries("period")))


def chart(inputs: Inputs) -> Chart:
    """Bars of the period that is shown, its name large behind them."""
    all_periods = periods(inputs)
    at = max(1, min(len(all_periods), math.floor(inputs.setting("step"))))
    shown = all_periods[at - 1] if all_periods else ""
    rows = tuple(row for row, value in enumerate(inputs.entries("period")) if text_of(value) == shown)
    figures = finite(inputs.figures("value"))
    lying = inputs.settings["direction"] == "lying"
    layer = Bars(
        "shown",
        inputs.title("value"),
        inputs.helpers["shown"],
        label=Label(number=inputs.number_text("value"), position="outside", bold=True),
    )
    names = [inputs.names[row] for row in rows]
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            along=Scale(minimum=min(0.0, *figures), maximum=max(0.0, *figures) or 1.0, visible=False, grid=False),
            across=Scale(kind="category", line=True),
        ),
        (layer,),
        names=inputs.id("name"),
        rows=rows,
        notes=(
            Note(
                "period",
                shown,
                x=0.965,
                y=0.9 if lying else 0.12,
                size=26.0,
                bold=True,
                colour="quiet +15",
                clear=True,
                align="end",
            ),
        ),
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "{what} in {period}, period {at} of {count}: {figures}.",
            what=inputs.title("value"),
            period=shown,
            at=at,
            count=len(all_periods),
            figures=listed(
                inputs, names, [float(inputs.helper("shown")[row]) for row in rows], inputs.number_text("value")
            ),
        ),
    )


def suits(of: Features) -> Suitability:
    return when((of.stepped, 0.96, "the same rows in several periods"), otherwise=(0.1, ""))


STEPPING = Recipe(
    name="stepping",
    title="Stepping",
    question="time",
    known_as="animation, race, over time, play, periods, years",
    needs="Names, numbers, and a column that gives the period of each row.",
    roles=(
        Role("name", "text", "Names the rows, the same in each period."),
        Role("value", "number", "The figure of each row."),
        Role("period", "text", "The period of each row."),
    ),
    parameters=(
        number("step", 1.0, "Which period is shown, counted from 1.", 1.0, 10_000.0),
        direction("standing"),
        gap(45.0),
    ),
    helpers=(
        HelperColumn("step", "The number of the row’s period."),
        HelperColumn("shown", "The value, while its period is shown."),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    steps=Steps("step", "period"),
    suits=suits,
    ordered=True,
)
