"""Pictogram: counted symbols, the last one cut to the fraction."""

import math

from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import say
from kavlet.core.recipes.building_blocks import GAP, NAME, choice, direction, flag, number, optional, said
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import (
    CellAddresses,
    HelperColumn,
    Inputs,
    Notice,
    Parameter,
    Recipe,
    Role,
    Setting,
    SettingRemedy,
    finite,
)
from kavlet.core.recipes.table_problems import need_above_zero, need_no_negatives, need_numbers
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import PLAIN

MAX_SYMBOLS = 20  # symbols of the longest row, when the unit is found


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The unit: as set, or 1, 2 or 5 times a power of ten so that the longest row has at most 20; symbols per row."""
    value, unit = cells.role("value"), cells.helper("unit")
    stated = cells.number("unit")
    least = f"MAX({cells.whole(value)})/{MAX_SYMBOLS}"
    power = f"10^INT(LOG10(MAX(1E-9;{least})))"
    found = f"IFS({least}<={power};{power};{least}<=2*{power};2*{power};{least}<=5*{power};5*{power};TRUE();10*{power})"
    return {
        "unit": [f"={stated or found}" if row == cells.first else "" for row in cells.span],
        "symbols": [f'=IF(ISNUMBER({value}{row});{value}{row}/{unit}${cells.first};"")' for row in cells.span],
    }


def check(inputs: Inputs) -> None:
    """Counts are not negative."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A count"))
    need_above_zero(inputs, "unit")


def chart(inputs: Inputs) -> Chart:
    """A line of symbols per row, and a key that says what one stands for."""
    settings = inputs.settings
    unit = next(iter(finite(inputs.helper("unit"))), math.nan)
    symbol = str(settings["symbol"])
    longest = math.ceil(max(finite(inputs.helper("symbols")), default=1.0) - 1e-9)
    wrap = int(inputs.setting("wrap"))
    most = float(max(1, min(longest, wrap) if wrap else longest))
    layer = Cells(
        "symbols",
        inputs.title("value"),
        inputs.helpers["symbols"],
        symbol=symbol,
        symbols=inputs.id("symbol"),
        wrap=wrap,
        gap=0.16,
        cut="area" if settings["cut"] == "area" else "width",
        label=Label(template=f"{{{inputs.id('value')}}}", bold=True) if settings["labels"] else None,
        listed=False,
    )
    number_said = written(unit, PLAIN, inputs.locale)
    key = inputs.drawn("one symbol = {number} {what}", number=number_said, what=inputs.title("value"))
    lying = settings["direction"] == "lying"
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            flush=lying,
            along=Scale(minimum=0.0, maximum=most, visible=False, grid=False),
            across=Scale(kind="category", line=False),
        ),
        (layer,),
        names=inputs.id("name"),
        legend=Legend(side="none", key=key if settings["key"] else "", key_symbol=symbol),
        alt_text=inputs.drawn(
            "Pictogram of {what}, {key}: {figures}.", what=inputs.title("value"), key=key, figures=said(inputs)
        ),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    longest = max(finite(inputs.helper("symbols")), default=0.0)
    if longest <= 60:
        return ()
    message = say("A row has {count} symbols, too many to count. Take a larger unit.", count=round(longest))
    larger = SettingRemedy("larger unit", say("Take a larger unit"), {"unit": None})
    return (Notice("many-slices", longest, message, mends=(larger,) if inputs.is_set("unit") else ()),)


def suits(of: Features) -> Suitability:
    return when(
        (of.counts and of.rows <= 8 and not of.timed, 0.9, "counts of things"),
        (of.plain and of.rows <= 8 and max(of.values, default=0) <= 60, 0.64, "counts of things"),
    )


def proposes(of: Features) -> dict[str, Setting]:
    """A symbol that a word of the table names; plain squares where none does."""
    return {"symbol": of.symbol}


PICTOGRAM = Recipe(
    name="pictogram",
    title="Pictogram",
    question="count",
    known_as="people, icons, symbols, count, how many, figures of people",
    adds=True,
    needs="Names, and a count for each.",
    roles=(
        NAME,
        Role("value", "number", "How many there are of each."),
        Role("symbol", "text", "Names a symbol for each row.", required=False),
    ),
    parameters=(
        Parameter("symbol", "symbol", "bird", "The symbol that is counted."),
        optional("unit", "How many one symbol stands for; found when left out.", 0.0),
        number("wrap", 0.0, "A new line after so many symbols; 0 for never.", 0.0, 200.0),
        choice("cut", "Cut the last symbol by its width, or by its ink.", "width", "area"),
        direction("lying"),
        flag("labels", True, "Write the counts at the ends."),
        flag("key", True, "Say what one symbol stands for."),
        number("gap", 22.0, "Gap between the rows, of their thickness.", 0.0, 300.0, "%").at(GAP),
    ),
    helpers=(
        HelperColumn("unit", "How many one symbol stands for."),
        HelperColumn("symbols", "Symbols of each row."),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    suits=suits,
    proposes=proposes,
)
