"""Bubbles: two figures against each other, a third as size."""

import math

from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.looks import of_layer
from kavlet.core.messages import counted, say
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import NAME, choice, flag, number
from kavlet.core.recipes.columns import formulas
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.points import X, Y, axes
from kavlet.core.recipes.recipe import Inputs, Notice, Recipe, Role, SettingRemedy
from kavlet.core.recipes.table_problems import needing


def chart(inputs: Inputs) -> Chart:
    """One layer of bubbles."""
    label = Label(template="{name}") if inputs.settings["labels"] and inputs.has("name") else None
    layer = Bubbles(
        "value",
        inputs.title("value"),
        inputs.id("value"),
        x=inputs.id("x"),
        sizes=inputs.id("size"),
        by="diameter" if inputs.settings["by"] == "diameter" else "area",
        largest=inputs.setting("largest") / 100,
        hollow=bool(inputs.settings["hollow"]),
        vary=bool(inputs.settings["vary"]),
        label=label,
    )
    return Chart(
        axes(inputs),
        (layer,),
        names=inputs.id("name"),
        ink=1,
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "{rows} bubbles of {what} against {x}, sized by {size}.",
            rows=inputs.rows - len(_undrawn(inputs)),
            what=inputs.title("value"),
            x=inputs.title("x"),
            size=inputs.title("size"),
        ),
    )


def _undrawn(inputs: Inputs) -> list[float]:
    """The sizes of rows that have a place but no size to show."""
    rows = zip(inputs.figures("x"), inputs.figures("value"), inputs.figures("size"), strict=True)
    held = [float(size) for x, y, size in rows if not (math.isnan(x) or math.isnan(y))]
    return [size for size in held if not (abs(size) if inputs.settings["hollow"] else size) > 0]


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    lost = _undrawn(inputs)
    if not lost:
        return ()
    negative = sum(size < 0 for size in lost)
    if negative:
        message = counted(
            "{count} bubble is not drawn: its size is not above 0. Sizes below 0 can be drawn hollow.",
            "{count} bubbles are not drawn: their sizes are not above 0. Sizes below 0 can be drawn hollow.",
            len(lost),
        )
    else:
        message = counted(
            "{count} bubble is not drawn: its size is 0 or missing.",
            "{count} bubbles are not drawn: their sizes are 0 or missing.",
            len(lost),
        )
    hollow = SettingRemedy("hollow", say("Draw those below zero hollow"), {"hollow": True})
    helps = negative and all(size < 0 for size in map(float, inputs.figures("size")) if not size > 0)
    return (Notice("missing", float(len(lost)), message, mends=(hollow,) if helps else ()),)


def suits(of: Features) -> Suitability:
    return when(
        (of.numbers == 3 and not of.timed and (of.units > 1 or of.across) and of.rows >= 4 and not of.row_shares, 0.92,
         "three figures of each row"),
        (of.numbers >= 3, 0.55, "three figures of each row"),
        otherwise=(0.1, ""),
    )  # fmt: skip


BUBBLES = Recipe(
    name="bubbles",
    title="Bubbles",
    question="time",
    known_as="scatter, three figures, circles, size, x and y",
    needs="Three columns of numbers.",
    roles=(NAME, X, Y, Role("size", "number", "The figure shown as size.")),
    parameters=(
        choice("by", "What grows with the figure.", "area", "diameter").at(of_layer("value", "by")),
        number("largest", 22.0, "The largest bubble, of the plot’s shorter side.", 2.0, 80.0, "%").at(
            of_layer("value", "largest"), 100.0
        ),
        flag("hollow", False, "Draw sizes below zero, as hollow bubbles.").at(of_layer("value", "hollow")),
        flag("labels", True, "Write the names in or beside the bubbles."),
        flag("vary", False, "A colour of its own for each bubble."),
        flag("zero", False, "Keep zero in sight."),
        flag("log", False, "Logarithmic scales.").moving("frame.along.kind"),
    ),
    helpers=(),
    formulas=formulas,
    check=needing("x", "value", "size"),
    chart=chart,
    notices=notices,
    suits=suits,
    tells=ChartFacts(("x", "value"), sentences.relation, sentences.who_has_most),
)
