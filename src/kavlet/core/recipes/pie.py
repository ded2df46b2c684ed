"""Pie and donut: parts of their sum, or of a declared whole with what is left over."""

import math

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Polar
from kavlet.core.charts.labels import Label, Leader, Position
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.wedges import Wedges
from kavlet.core.messages import say
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import (
    NAME,
    VALUE,
    choice,
    hole,
    listed,
    number,
    optional,
    parts_above_whole,
    text,
)
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Parameter, Recipe, finite
from kavlet.core.recipes.table_problems import need_above_zero, need_no_negatives, need_numbers, need_something
from kavlet.core.values.apportion import rounded_shares
from kavlet.core.values.number_text import WHOLE_PERCENT
from kavlet.core.values.sums import exact_sum

SAYS = {
    "name and share": "{name}\n{share}",
    "name and value": "{name}\n{value}",
    "share": "{share}",
    "value": "{value}",
    "name": "{name}",
    "none": "",
}


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """Each part's share of the whole; what is drawn; what small parts add up to; what is left over."""
    value, share = cells.role("value"), cells.helper("share")
    column = cells.whole(value)
    stated = cells.number("whole")
    total = cells.total(value)
    whole = f"MAX({stated};{total})" if stated else total
    least = cells.number("gather")
    rows = cells.span
    small = f'SUMIF({cells.whole(share)};"<"&{least}/100;{column})'
    return {
        "share": [f'=IF(ISNUMBER({value}{row});{value}{row}/{whole};"")' for row in rows],
        "shown": [f'=IF(ISNUMBER({value}{row});IF({share}{row}<{least}/100;"";{value}{row});"")' for row in rows],
        "gathered": [f"={small}" if row == cells.first else "" for row in rows],
        "rest": [f"=MAX(0;{stated}-{total})" if stated and row == cells.first else "" for row in rows],
    }


def check(inputs: Inputs) -> None:
    """No part is negative, and not all are zero."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A part"))
    need_something(inputs, "value", say("parts"))
    need_above_zero(inputs, "whole")


def chart(inputs: Inputs) -> Chart:
    """Wedges in the table's order or the largest first; the rest drawn pale."""
    settings = inputs.settings
    order = list(range(inputs.rows))
    figures = inputs.figures("value")
    if settings["order"] == "largest first":
        order.sort(key=lambda row: -float(figures[row]) if not math.isnan(figures[row]) else 0.0)
    says = SAYS[str(settings["labels"])]
    position: Position = "outside" if settings["place"] == "outside" else "auto"
    leader: Leader = settings["leader"]  # type: ignore[assignment]
    label = (
        Label(template=says, number=inputs.number_text("value"), position=position, leader=leader, lines=3)
        if says
        else None
    )
    named = "{name}" in says
    layer = Wedges(
        "value",
        inputs.title("value"),
        inputs.helpers["shown"],
        vary=True,
        order=tuple(order),
        explode=inputs.setting("explode") / 100,
        gap=inputs.setting("gap"),
        corner=inputs.setting("corner"),
        gathered=inputs.helpers["gathered"],
        gathered_name=inputs.drawn("Others"),
        rest=inputs.helpers["rest"],
        rest_name=str(settings["left over"]),
        rest_shown=True,
        label=label,
    )
    rest = exact_sum(finite(inputs.helper("rest")))
    shares = rounded_shares([*inputs.figures("value"), rest], 0)[:-1]  # those that the labels say
    parts = listed(inputs, inputs.names, shares, WHOLE_PERCENT)
    whole = inputs.setting("whole")
    how = inputs.number_text("value")
    what = inputs.title("value")
    if not math.isnan(whole):
        what = inputs.drawn("{what} of {whole}", what=what, whole=text(whole, how, inputs))
    described = inputs.drawn(
        "Donut of {what}: {parts}." if inputs.setting("hole") else "Pie of {what}: {parts}.", what=what, parts=parts
    )
    if rest > 0:
        described += " " + inputs.drawn("Left over: {rest}.", rest=text(rest, how, inputs))
    return Chart(
        Polar(start=inputs.setting("start"), hole=inputs.setting("hole") / 100),
        (layer,),
        names=inputs.id("name"),
        legend=Legend(side="none" if named else "right"),
        alt_text=described,
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    return parts_above_whole(inputs.figures("value"), inputs.setting("whole"))


def suits(of: Features) -> Suitability:
    return when(
        (of.shares and of.rows <= 7 and not of.timed, 0.935, "shares of one whole"),
        (of.plain and of.rows <= 6 and not of.timed, 0.55, "a few parts"),
    )


PIE = Recipe(
    name="pie",
    title="Pie and donut",
    question="parts",
    known_as="share, percent, donut, ring, circle, cake, slices, parts, proportion",
    adds=True,
    needs="Names, and a number above zero for each part.",
    roles=(NAME, VALUE),
    parameters=(
        optional("whole", "What the parts are part of; their sum when left out.", 0.0),
        hole(0.0),
        number("start", 0.0, "Where the first part starts, clockwise from the top.", -360.0, 360.0, "°").at(
            "frame.start"
        ),
        choice("order", "The order of the parts.", "table", "largest first"),
        number("explode", 0.0, "How far all parts are moved outward, of the radius.", 0.0, 60.0, "%").at(
            of_layer("value", "explode"), 100.0
        ),
        number("gather", 0.0, "Parts below this share are drawn as one.", 0.0, 50.0, "%"),
        choice("labels", "What the labels say.", *SAYS).moving("label.template", "legend.side"),
        choice("place", "Where they stand: inside where they fit, or outside.", "inside", "outside").moving(
            "label.position"
        ),
        choice("leader", "The line from a label outside to its part.", "plain", "elbow", "arrow", "none").moving(
            "label.leader"
        ),
        Parameter("left over", "text", "left over", "What is left over is called."),
        number("gap", 1.5, "Free space between parts.", 0.0, 20.0, "pt").at(of_layer("value", "gap")),
        number("corner", 0.0, "Round the corners by so much.", 0.0, 40.0, "pt").at(of_layer("value", "corner")),
    ),
    helpers=(
        HelperColumn("share", "The share of the whole.", WHOLE_PERCENT),
        HelperColumn("shown", "The parts that are drawn by themselves."),
        HelperColumn("gathered", "What the small parts add up to."),
        HelperColumn("rest", "What the whole leaves over."),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    size=(520.0, 360.0),
    suits=suits,
    tells=ChartFacts(message=sentences.parts, kind="Pie"),
    sorted_by=("order", "largest first"),
)
