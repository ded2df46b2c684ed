"""Waffle: a field of equal cells shared out by largest remainder, so that they always add up."""

from kavlet.core.charts.cells import CellForm, Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Corner, Grid
from kavlet.core.charts.legend import Entry, Legend
from kavlet.core.charts.looks import of_layer
from kavlet.core.messages import counted, say
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import NAME, VALUE, choice, listed, number, optional, parts_above_whole
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Parameter, Recipe
from kavlet.core.recipes.table_problems import need_above_zero, need_no_negatives, need_numbers, need_something
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import WHOLE_PERCENT, NumberText


def formulas(places: CellAddresses) -> dict[str, list[str]]:
    """The exact number of cells each row is due, what rounding down leaves of it, and the cells it gets.

    The cells that are left go to the largest remainders, ties to the earlier row.
    """
    value, due, left = places.role("value"), places.helper("due"), places.helper("left")
    cells = f"{places.number('rows')}*{places.number('columns')}"
    stated = places.number("whole")
    total = places.total(value)
    whole = f"MAX({stated};{total})" if stated else total
    rests, dues = places.whole(left), places.whole(due)
    rows = places.span
    earlier = {
        row: "0" if row == places.first else f"COUNTIF({left}${places.first}:{left}{row - 1};{left}{row})"
        for row in rows
    }
    return {
        "due": [f"=IF(ISNUMBER({value}{row});ROUND({value}{row}/{whole}*{cells};9);0)" for row in rows],
        "left": [f"=ROUND({due}{row}-INT({due}{row});9)" for row in rows],
        "cells": [
            f"=INT({due}{row})+IF(RANK({left}{row};{rests})+{earlier[row]}"
            f"<=ROUND(SUM({dues});0)-SUMPRODUCT(INT({dues}));1;0)"
            for row in rows
        ],
    }


def check(inputs: Inputs) -> None:
    """No part is negative, and not all are zero."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A part"))
    need_something(inputs, "value", say("parts"))
    need_above_zero(inputs, "whole", "rows", "columns")


def chart(inputs: Inputs) -> Chart:
    """One layer of cells on a grid; the legend at its side says how many each row has."""
    settings = inputs.settings
    rows, columns = int(inputs.setting("rows")), int(inputs.setting("columns"))
    counts = [int(count) if count == count else 0 for count in inputs.helper("cells")]  # noqa: PLR0124
    percent = rows * columns == 100
    how = WHOLE_PERCENT if percent else NumberText(most_decimals=0)
    figures = [count / 100 if percent else float(count) for count in counts]
    entries = tuple(
        Entry(name, None, i, i, written(figures[i], how, inputs.locale))
        for i, (name, count) in enumerate(zip(inputs.names, counts, strict=True))
        if count
    )
    cell: CellForm = "disc" if settings["cell"] == "disc" else "square"
    by_column = settings["by"] == "columns"
    corner: Corner = settings["corner"]  # type: ignore[assignment]
    layer = Cells(
        "cells",
        inputs.title("value"),
        inputs.helpers["cells"],
        vary=True,
        cell=cell,
        symbol=str(settings["symbol"]),
        gap=inputs.setting("gap") / 100,
    )
    return Chart(
        Grid(rows, columns, "columns" if by_column else "rows", corner),
        (layer,),
        names=inputs.id("name"),
        legend=Legend(side="right", entries=entries),
        alt_text=inputs.drawn(
            "Waffle of {what}, {cells} cells: {figures}.",
            what=inputs.title("value"),
            cells=rows * columns,
            figures=listed(inputs, inputs.names, figures, how),
        ),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    figures = inputs.figures("value")
    found = parts_above_whole(figures, inputs.setting("whole"))
    cells = inputs.helper("cells")
    small = sum(value > 0 and not cells[row] > 0 for row, value in enumerate(figures))
    if small:
        message = counted(
            "{count} part is too small for a cell of its own.", "{count} parts are too small for a cell of their own.",
            small,
        )  # fmt: skip
        found = (*found, Notice("many-slices", float(small), message))
    return found


def suits(of: Features) -> Suitability:
    return when(
        (of.shares and of.rows <= 7 and not of.timed, 0.945, "shares that add up to 100"),
        (of.plain and of.rows <= 6 and not of.timed, 0.5, "parts to count"),
    )


WAFFLE = Recipe(
    name="waffle",
    title="Waffle",
    question="parts",
    known_as="share, percent, squares, grid, hundred, parts, proportion",
    adds=True,
    needs="Names, and a number above zero for each part.",
    roles=(NAME, VALUE),
    parameters=(
        number("rows", 10.0, "Rows of cells.", 1.0, 60.0),
        number("columns", 10.0, "Columns of cells.", 1.0, 60.0),
        optional("whole", "What the field stands for; the parts’ sum when left out.", 0.0),
        choice("by", "Fill by rows or by columns.", "rows", "columns"),
        choice("corner", "Where filling starts.", "bottom left", "top left", "bottom right", "top right"),
        choice("cell", "The cells’ form.", "square", "disc").at(of_layer("cells", "cell")),
        Parameter("symbol", "symbol", "", "A symbol instead of squares or discs."),
        number("gap", 14.0, "Free space between cells, of a cell.", 0.0, 60.0, "%").at(of_layer("cells", "gap"), 100.0),
    ),
    helpers=(
        HelperColumn("due", "The exact number of cells a row is due."),
        HelperColumn("left", "What rounding down leaves of it."),
        HelperColumn("cells", "The cells it gets; they add up.", NumberText(most_decimals=0)),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    size=(520.0, 360.0),
    suits=suits,
    tells=ChartFacts(message=sentences.parts),
)
