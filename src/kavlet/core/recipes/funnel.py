"""Funnel: what gets through each stage.

Each bar is centred by a hidden offset, so the bars of a stacked chart stand as a funnel::

    offset |########################| offset      18,400
        offset  |###############|                  6,900   step 37.5 %, overall 37.5 %
             offset |######|                       2,760   step 40 %,   overall 15 %
"""

import math
from itertools import pairwise

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import named, say
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import choice, direction, flag, gap, listed
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Recipe, Role
from kavlet.core.recipes.table_problems import largest, need_no_negatives, need_numbers
from kavlet.core.spreadsheet.cells import text_of
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PERCENT

STANDING = "standing"


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """Half of what is missing to the widest stage; each stage over the one before; each stage over the first.

    An empty stage has no rate, and neither has the stage after it.
    """
    value, first = cells.role("value"), cells.first
    return {
        "offset": [f"=(MAX({cells.whole(value)})-{value}{row})/2" for row in cells.span],
        "step": [
            "" if row == first else f'=IF(COUNT({value}{row - 1}:{value}{row})=2;{value}{row}/{value}{row - 1};"")'
            for row in cells.span
        ],
        "overall": [f'=IF(ISNUMBER({value}{row});{value}{row}/{value}${first};"")' for row in cells.span],
    }


def check(inputs: Inputs) -> None:
    """A funnel needs two stages or more, none negative, and something in one of them."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A stage"))
    if inputs.rows < 2:
        raise KavletError(
            say("A funnel needs at least two stages; this table has one."), remedy=say("Add a row below it.")
        )
    if largest(inputs.figures("value")) == 0:
        raise KavletError(say("All stages are 0, so there is no funnel to draw."))


def chart(inputs: Inputs) -> Chart:
    """The offsets, the stages on them, and the rates as labels of points without a shape."""
    settings = inputs.settings
    tapered = settings["shape"] == "tapered"
    layers: list[AnyLayer] = [
        Bars("offset", inputs.drawn("offset"), inputs.helpers["offset"], helper=True, stack="stacked")
    ]
    joined = bool(settings["flanks"]) and not tapered
    if joined:
        layers.append(Flanks("flanks", inputs.drawn("flanks"), of="value", listed=False))
    label = Label(number=inputs.number_text("value"), bold=True) if settings["values"] else None
    layers.append(
        Bars(
            "value",
            inputs.title("value"),
            inputs.id("value"),
            stack="stacked",
            radius=0.0,
            form="tapered" if tapered else "square",
            label=label,
        )
    )
    if settings["rates"] == "between":
        layers.append(
            Points(
                "step",
                inputs.drawn("step"),
                inputs.helpers["step"],
                at=0.5,
                between=True,
                on="value" if joined else "",
                spot="none",
                label=Label(number=PERCENT),
            )
        )
    elif settings["rates"] == "beside":
        layers.append(_margin(inputs, "step", inputs.drawn("of the stage before"), Label(number=PERCENT)))
    if settings["overall"]:
        layers.append(_margin(inputs, "overall", inputs.drawn("of all"), Label(number=PERCENT, colour="quiet")))
    return Chart(
        Cartesian(
            lying=settings["direction"] != STANDING,
            gap_width=inputs.setting("gap"),
            flush=True,
            along=Scale(minimum=0.0, maximum=largest(inputs.figures("value")), visible=False, grid=False),
            across=Scale(kind="category", line=False),
        ),
        tuple(layers),
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=_alt_text(inputs),
    )


def _margin(inputs: Inputs, helper: str, heading: str, label: Label) -> Points:
    return Points(
        helper,
        named(helper).said_in(inputs.locale),
        inputs.helpers[helper],
        at=1.0,
        beside=True,
        heading=heading,
        spot="none",
        label=label,
    )


def _alt_text(inputs: Inputs) -> str:
    names = [inputs.called(row, name) for row, name in enumerate(inputs.names)]
    parts = listed(inputs, names, list(inputs.figures("value")), inputs.number_text("value"))
    end = written(float(inputs.helper("overall")[-1]), PERCENT, inputs.locale)
    return inputs.drawn(
        "Funnel of {what} in {stages} stages: {figures}. {share} of {first} reach {last}."
        if end
        else "Funnel of {what} in {stages} stages: {figures}.",
        what=inputs.title("value"),
        stages=len(names),
        figures=parts,
        share=end,
        first=names[0],
        last=names[-1],
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    """Funnels are read as losing from stage to stage, so a gain deserves a word."""
    figures, names = inputs.figures("value"), inputs.entries("name")
    return tuple(
        Notice(
            "unsorted",
            now / before if before else math.inf,
            say(
                "“{name}” is larger than the stage before it, which a funnel’s reader does not expect.",
                name=text_of(names[row]),
            ),
            "note",
        )
        for row, (before, now) in enumerate(pairwise(figures), 1)
        if now > before
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.stages and of.falling and of.numbers == 1, 0.95, "each row smaller than the one before"),
        (of.falling and 3 <= of.rows <= 9 and of.numbers == 1, 0.6, "each row smaller than the one before"),
    )


FUNNEL = Recipe(
    name="funnel",
    title="Funnel",
    question="stages",
    known_as="conversion, stages, steps, sales, pipeline, drop-off, path",
    needs="A column that names the stages, and one of numbers, from the first stage to the last.",
    roles=(
        Role("name", "text", "Names the stages, first to last."),
        Role("value", "number", "How many are left at each stage."),
    ),
    parameters=(
        choice("shape", "Square steps, or bodies that narrow to the next.", "stepped", "tapered").moving("form"),
        direction("lying", "Stages below or beside each other."),
        flag("values", True, "Write each stage’s value on its bar."),
        choice("rates", "Where the step rates stand.", "between", "beside", "none"),
        flag("overall", True, "Write the share of the first stage in a margin."),
        flag("flanks", True, "Join square steps by a pale tone."),
        gap(62.0),
    ),
    helpers=(
        HelperColumn("offset", "Hidden, so that each bar is centred: half of what is missing to the widest."),
        HelperColumn("step", "The share of the stage before that got here.", PERCENT),
        HelperColumn("overall", "The share of the first stage that got here.", PERCENT),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    suits=suits,
    tells=ChartFacts(message=sentences.funnel, headline=sentences.where_lost),
    ordered=True,
)
