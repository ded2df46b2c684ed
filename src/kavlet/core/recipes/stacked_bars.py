"""100 % bars: one bar per row, its parts as shares that add up as shown."""

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.messages import say
from kavlet.core.recipes.building_blocks import NAME, VALUES, direction
from kavlet.core.recipes.columns import build, parameters
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Recipe
from kavlet.core.recipes.table_problems import needing
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.values.number_text import WHOLE_PERCENT


def columns(cells: CellAddresses) -> tuple[HelperColumn, ...]:
    """A share for each series."""
    return tuple(
        HelperColumn(f"share {i + 1}", HELPERS[0].meaning, WHOLE_PERCENT) for i in range(len(cells.roles["value"]))
    )


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """Each part over its row's sum."""
    letters = [column_letters(place) for place in cells.roles["value"]]
    made: dict[str, list[str]] = {}
    for i, letter in enumerate(letters):
        made[f"share {i + 1}"] = [
            f'=IF(ISNUMBER({letter}{row});{letter}{row}/SUM({";".join(f"{one}{row}" for one in letters)});"")'
            for row in cells.span
        ]
    return made


def chart(inputs: Inputs) -> Chart:
    """The columns' own chart, with what it does not ask for here."""
    settings = {"minimum": "", "maximum": "", "overlap": 0.0, **inputs.settings}
    return build(msgspec.structs.replace(inputs, settings=settings), inputs.settings["direction"] == "lying")


HELPERS = (HelperColumn("share", "The part’s share of its row.", WHOLE_PERCENT, many=True),)


def suits(of: Features) -> Suitability:
    return when(
        (of.row_shares, 0.95, "parts of each row"),
        (of.numbers >= 2 and of.units == 1 and not of.pair, 0.65, "parts of each row"),
        otherwise=(0.1, ""),
    )


STACKED_BARS = Recipe(
    name="stacked-bars",
    title="100 % bars",
    question="parts",
    known_as="share, percent, 100 %, stacked, parts, survey, answers, proportion",
    needs="Names, and a column of numbers for each part.",
    roles=(NAME, VALUES),
    parameters=(
        direction("lying"),
        *(
            one
            for one in parameters("100 %", "shares", axis=False)
            if one.name not in ("overlap", "minimum", "maximum")
        ),
    ),
    helpers=HELPERS,
    formulas=formulas,
    check=needing("value", negatives=say("A part")),
    chart=chart,
    columns=columns,
    suits=suits,
    series="value",
)
