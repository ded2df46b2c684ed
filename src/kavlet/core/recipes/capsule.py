"""Capsule: shares as rounded bars over a light whole, with a symbol that rides inside the end of each."""

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import Percent, say
from kavlet.core.recipes.building_blocks import NAME, SHARE_SCALE, direction, flag, gap, listed, number, optional
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
from kavlet.core.styling.fills import GradientFill
from kavlet.core.values.number_text import WHOLE_PERCENT


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The light whole behind, always 1; each value's share; and that share as far as the capsule can show it."""
    value, share = cells.role("value"), cells.helper("share")
    stated = cells.number("whole")
    most = f"MAX({cells.whole(value)})"
    found = "1" if "value" in cells.percents else f"IF({most}<=1;1;IF({most}<=100;100;{most}))"
    whole = stated or found
    rows = cells.span
    return {
        "whole": ["=1" for _ in rows],
        "share": [f'=IF(ISNUMBER({value}{row});{value}{row}/{whole};"")' for row in rows],
        "shown": [f'=IF(ISNUMBER({share}{row});MIN(1;{share}{row});"")' for row in rows],
    }


def check(inputs: Inputs) -> None:
    """Shares are not negative."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A share"))
    need_above_zero(inputs, "whole")


def chart(inputs: Inputs) -> Chart:
    """Two bars at one place (overlap 100) without an axis, and the symbol."""
    symbol = str(inputs.settings["symbol"])
    lying = inputs.settings["direction"] == "lying"
    fill = GradientFill(("tone1",), run="round") if inputs.settings["round"] else None
    label = Label(
        template=f"{{{inputs.helpers['share']}}}",
        numbers={inputs.helpers["share"]: WHOLE_PERCENT},
        position="base",
        bold=True,
    )
    size = inputs.setting("size")
    layers: list[AnyLayer] = [
        Bars("whole", inputs.drawn("whole"), inputs.helpers["whole"], fill="track", form="capsule", listed=False),
        Bars(
            "share",
            inputs.title("value"),
            inputs.helpers["shown"],
            form="capsule",
            true=inputs.helpers["share"],
            fill=fill,
            label=label,
        ),
    ]
    if symbol:
        layers.append(
            Points(
                "rider",
                inputs.drawn("symbol"),
                inputs.helpers["shown"],
                symbol=symbol,
                size=size,
                ride=True,
                padding=8.0,
                listed=False,
            )
        )
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            overlap=100.0,
            flush=lying,
            along=SHARE_SCALE,
            across=Scale(kind="category", line=False),
        ),
        tuple(layers),
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "Capsules of {what}: {figures}.",
            what=inputs.title("value"),
            figures=listed(inputs, inputs.names, list(inputs.helper("share")), WHOLE_PERCENT),
        ),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    over = [share for share in finite(inputs.helper("share")) if share > 1 + 1e-9]
    if not over:
        return _of_largest(inputs)
    message = say("A value is larger than the whole: {share}.", share=Percent(max(over)))
    widen = SettingRemedy("widen", say("Widen the scale"), {"whole": max(finite(inputs.figures("value")))})
    return (Notice("out-of-range", max(over), message, mends=(widen,)),)


def _of_largest(inputs: Inputs) -> tuple[Notice, ...]:
    """A note where figures that are no shares are shown as shares of the largest, as no whole was set."""
    most = max(finite(inputs.figures("value")), default=0.0)
    if inputs.is_set("whole") or most <= 100 or inputs.number_text("value").style == "percent":
        return ()
    message = say(
        "The figures are no shares, so a full capsule stands for the largest, {most}. Set whole for another.", most=most
    )
    keep = SettingRemedy("state the whole", say("Keep the largest as the whole"), {"whole": most})
    return (Notice("no-base", most, message, "note", (keep,)),)


def suits(of: Features) -> Suitability:
    return when(
        (
            of.percent and not of.shares and of.numbers <= 2 and of.rows <= 8 and not of.timed,
            0.94,
            "shares of a whole each",
        ),
        (of.percent and of.rows <= 8, 0.6, "shares of a whole each"),
        otherwise=(0.25, ""),
    )


def proposes(of: Features) -> dict[str, Setting]:
    """A symbol that a word of the table names; no rider where none does."""
    return {"symbol": of.symbol}


CAPSULE = Recipe(
    name="capsule",
    title="Capsules",
    question="goal",
    known_as="progress bar, share, percent, pill, completion, rate",
    needs="Names, and a share of a whole for each.",
    roles=(NAME, Role("value", "number", "The share, as a percent, a number up to 1, or a part of the whole.")),
    parameters=(
        optional("whole", "What a full capsule stands for; found from the figures when left out.", 0.0),
        Parameter("symbol", "symbol", "bird", "The symbol that rides in the end of each capsule."),
        number("size", 0.0, "The symbol’s size; 0 for what the capsule holds.", 0.0, 200.0, "pt").moving("size"),
        direction("lying"),
        flag("round", True, "Shade the capsules, so that they look round."),
        gap(55.0),
    ),
    helpers=(
        HelperColumn("whole", "The light bar behind.", WHOLE_PERCENT),
        HelperColumn("share", "The share of the whole.", WHOLE_PERCENT),
        HelperColumn("shown", "The share that the capsule can show.", WHOLE_PERCENT),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    suits=suits,
    proposes=proposes,
)
