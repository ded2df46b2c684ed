"""Two-level ring: groups inside, their parts around them in tints of the group's colour."""

import math

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Row
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.wedges import Wedges
from kavlet.core.messages import say
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import choice, hole, number, text
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Recipe, Role
from kavlet.core.recipes.table_problems import need_no_negatives, need_numbers, need_something
from kavlet.core.spreadsheet.cells import text_of
from kavlet.core.text.numbers import written
from kavlet.core.values.apportion import rounded_shares
from kavlet.core.values.number_text import WHOLE_PERCENT
from kavlet.core.values.sums import exact_sum


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """Each group's sum beside the first of its rows, and each row's share of all."""
    value, group = cells.role("value"), cells.role("group")
    first = cells.first
    return {
        "group sum": [
            f"=IF(COUNTIF({group}${first}:{group}{row};{group}{row})=1;"
            f'SUMIF({cells.whole(group)};{group}{row};{cells.whole(value)});"")'
            for row in cells.span
        ],
        "share": [f'=IF(ISNUMBER({value}{row});{value}{row}/{cells.total(value)};"")' for row in cells.span],
    }


def check(inputs: Inputs) -> None:
    """No part is negative, and not all are zero."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A part"))
    need_something(inputs, "value", say("parts"))


def groups(inputs: Inputs) -> dict[str, list[int]]:
    """The rows of each group, groups in the order of their first row."""
    found: dict[str, list[int]] = {}
    for row, value in enumerate(inputs.entries("group")):
        found.setdefault(text_of(value).casefold(), []).append(row)
    return found


def chart(inputs: Inputs) -> Chart:
    """Two rings of wedges; the parts are kept together by group, an index array."""
    held = groups(inputs)
    order = tuple(row for rows in held.values() for row in rows)
    firsts = tuple(rows[0] for rows in held.values())
    inner = {rows[0]: Row(fill=f"tone{i + 1}") for i, rows in enumerate(held.values())}
    parts_of = {row: (rows[0], tint(j, len(rows))) for rows in held.values() for j, row in enumerate(rows)}
    groups_inside = inputs.settings["inside"] == "groups"
    outside = inputs.settings["place"] == "outside" and groups_inside
    group = inputs.title("group")
    names = {"name": "{name}", "name and share": "{name}\n{share}", "share": "{share}"}[str(inputs.settings["labels"])]
    layers = (
        Wedges(
            "group",
            group,
            inputs.helpers["group sum"],
            order=firsts,
            ring=0 if groups_inside else 1,
            rows=inner,
            label=Label(template=f"{{{inputs.id('group')}}}", bold=True, turn=True),
            listed=False,
        ),
        Wedges(
            "value",
            inputs.title("value"),
            inputs.id("value"),
            order=order,
            ring=1 if groups_inside else 0,
            within="group",
            groups=parts_of,
            listed=False,
            label=Label(
                template=names,
                number=inputs.number_text("value"),
                turn=not outside,
                position="outside" if outside else "auto",
            ),
        ),
    )
    return Chart(
        Polar(
            start=inputs.setting("start"),
            hole=inputs.setting("hole") / 100,
            rings=(1.4, 1.0) if groups_inside else (1.2, 0.8),
            ring_gap=1.5,
        ),
        layers,
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=_alt_text(inputs, held),
    )


def tint(place: int, count: int) -> int:
    """How far (percent) a part's colour goes to the ground: equal steps of OKLab lightness, the first close to full."""
    return round(14 + 52 * place / max(1, count - 1)) if count > 1 else 30


def _alt_text(inputs: Inputs, held: dict[str, list[int]]) -> str:
    figures, how = inputs.figures("value"), inputs.number_text("value")
    sums = [exact_sum(float(figures[row]) for row in rows if not math.isnan(figures[row])) for rows in held.values()]
    parts = []
    for rows, summed, rounded in list(zip(held.values(), sums, rounded_shares(sums, 0), strict=True))[:8]:
        share = written(rounded, WHOLE_PERCENT, inputs.locale)
        parts.append(f"{text_of(inputs.entries('group')[rows[0]])} {text(summed, how, inputs)} ({share})")
    return inputs.drawn(
        "Two-level ring of {what} by {group}: {parts}.",
        what=inputs.title("value"),
        group=inputs.title("group"),
        parts=parts,
    )


def suits(of: Features) -> Suitability:
    return when((of.repeated and not of.stepped, 0.95, "parts within groups"), otherwise=(0.1, ""))


TWO_LEVEL_RING = Recipe(
    name="two-level-ring",
    title="Two-level ring",
    question="parts",
    known_as="nested, hierarchy, groups, share, ring, donut, levels, parts",
    adds=True,
    needs="Names, the group each belongs to, and a number above zero.",
    roles=(
        Role("name", "text", "Names the parts."),
        Role("group", "text", "The group each part belongs to."),
        Role("value", "number", "The figure of each part."),
    ),
    parameters=(
        choice("inside", "Which level stands inside.", "groups", "parts"),
        hole(0.0, 80.0),
        number("start", 0.0, "Where the first group starts, clockwise from the top.", -360.0, 360.0, "°").at(
            "frame.start"
        ),
        choice("labels", "What the outer labels say.", "name", "name and share", "share").moving("label.template"),
        choice("place", "Where they stand: around the ring, or inside where they fit.", "outside", "inside").moving(
            "label.position"
        ),
    ),
    helpers=(
        HelperColumn("group sum", "The sum of a group, beside the first of its rows."),
        HelperColumn("share", "The share of all.", WHOLE_PERCENT),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    size=(520.0, 420.0),
    suits=suits,
    tells=ChartFacts(message=sentences.parts),
    ordered=True,
)
