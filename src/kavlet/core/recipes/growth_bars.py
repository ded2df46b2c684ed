"""Growth bars: how much each row changed between two periods."""

import math

import msgspec

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Rule
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import counted
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import NAME, direction, flag, gap, listed, number
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Recipe, Role
from kavlet.core.recipes.table_problems import need_numbers
from kavlet.core.values.number_text import PERCENT


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The change over the size of the earlier figure; no value where that is zero or empty."""
    before, after = cells.role("before"), cells.role("after")
    return {
        "change": [
            f"=IF(AND(ISNUMBER({before}{row});ISNUMBER({after}{row});{before}{row}<>0);"
            f'({after}{row}-{before}{row})/ABS({before}{row});"")'
            for row in cells.span
        ]
    }


def check(inputs: Inputs) -> None:
    """Both periods hold numbers."""
    need_numbers(inputs, "before")
    need_numbers(inputs, "after")


def chart(inputs: Inputs) -> Chart:
    """Bars left and right of zero with their figures at the ends, no axis."""
    how = msgspec.structs.replace(PERCENT, sign="always", most_decimals=int(inputs.setting("decimals")))
    rules = (Rule("below", "fall", 0.0), Rule("above", "rise", 0.0)) if inputs.settings["colours"] else ()
    layer = Bars(
        "change",
        inputs.drawn("change"),
        inputs.helpers["change"],
        rules=rules,
        label=Label(number=how, position="by sign", bold=True),
    )
    return Chart(
        Cartesian(
            lying=inputs.settings["direction"] == "lying",
            gap_width=inputs.setting("gap"),
            along=Scale(visible=False, grid=False),
            across=Scale(kind="category", line=True),
        ),
        (layer,),
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "Growth from {before} to {after}: {figures}.",
            before=inputs.title("before"),
            after=inputs.title("after"),
            figures=listed(inputs, inputs.names, list(inputs.helper("change")), how),
        ),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    baseless = sum(
        (number == 0 or math.isnan(number)) and not math.isnan(other)
        for number, other in zip(inputs.figures("before"), inputs.figures("after"), strict=True)
    )
    if not baseless:
        return ()
    message = counted(
        "{count} row starts from 0 or from no figure, where no growth can be given.",
        "{count} rows start from 0 or from no figure, where no growth can be given.",
        baseless,
    )
    return (Notice("no-base", float(baseless), message),)


def suits(of: Features) -> Suitability:
    return when(
        (of.pair == "periods", 0.95, "two periods to compare"), (of.numbers == 2, 0.5, "two figures to compare"),
        otherwise=(0.15, ""),
    )  # fmt: skip


GROWTH_BARS = Recipe(
    name="growth-bars",
    title="Growth bars",
    question="moved",
    known_as="before and after, growth, change, compare years, increase, difference",
    needs="Names, and a number for each of two periods.",
    roles=(
        NAME,
        Role("before", "number", "The figures of the earlier period."),
        Role("after", "number", "The figures of the later period."),
    ),
    parameters=(
        direction("lying"),
        flag("colours", True, "Rises and falls in their own colours."),
        number("decimals", 0.0, "Decimals of the percentages.", 0.0, 4.0).moving(
            "label.number.most_decimals", "label.number.least_decimals"
        ),
        gap(50.0),
    ),
    helpers=(HelperColumn("change", "The change, of the earlier figure.", PERCENT),),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    suits=suits,
    tells=ChartFacts(("before", "after"), sentences.changes, sentences.who_grows),
)
