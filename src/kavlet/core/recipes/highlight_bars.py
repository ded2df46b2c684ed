"""Highlight bars: a rule picks the bars that stand out; the others stay quiet.

The column is split in two helper columns with no value in the other one, so that no empty half is ever labelled.
"""

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import named, say
from kavlet.core.recipes.building_blocks import NAME, VALUE, choice, direction, flag, gap, said
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import (
    CellAddresses,
    HelperColumn,
    Inputs,
    Notice,
    Parameter,
    Recipe,
    Role,
    SettingRemedy,
    finite,
)
from kavlet.core.recipes.table_problems import need_numbers
from kavlet.core.values.errors import KavletError


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The value where the rule picks its row, no value elsewhere; and the other way round."""
    value, picked = cells.role("value"), cells.helper("highlight")
    made: dict[str, list[str]] = {"highlight": [], "others": []}
    for row in cells.span:
        cell = f"{value}{row}"
        made["highlight"].append(f'=IF(AND(ISNUMBER({cell});{_picks(cells, row, cell)});{cell};"")')
        made["others"].append(f'=IF(AND(ISNUMBER({cell});NOT(ISNUMBER({picked}{row})));{cell};"")')
    return made


def _picks(cells: CellAddresses, row: int, cell: str) -> str:
    rule = str(cells.settings["rule"])
    column = cells.whole(cells.role("value"))
    if cells.has("mark") and rule == "marked":
        mark = f"{cells.role('mark')}{row}"
        return f'NOT(OR(ISBLANK({mark});{mark}="";{mark}=0))'
    if rule == "named" and cells.has("name"):
        wanted = str(cells.settings["named"])
        said = cells.number("named") if wanted.startswith("=") else '"' + wanted.replace('"', '""') + '"'
        return f"{cells.role('name')}{row}={said}"
    if rule in ("above", "below"):
        return f"{cell}{'>' if rule == 'above' else '<'}{cells.number('than')}"
    if rule in ("first", "last"):
        return "TRUE()" if row == (cells.first if rule == "first" else cells.last) else "FALSE()"
    return f"{cell}={'MIN' if rule == 'smallest' else 'MAX'}({column})"


def check(inputs: Inputs) -> None:
    """There are numbers, and what the rule needs."""
    need_numbers(inputs, "value")
    rule = inputs.settings["rule"]
    if rule == "named" and not str(inputs.settings["named"]).strip():
        raise KavletError(say("The rule “named” needs a name."), remedy=say("Set named to the name of a row."))
    if rule == "marked" and not inputs.has("mark"):
        raise KavletError(say("The rule “marked” needs a column of marks."), remedy=say("Choose a column for mark."))
    if rule in ("above", "below") and not inputs.is_set("than"):
        raise KavletError(
            say("The rule “{rule}” needs a number.", rule=named(str(rule))),
            remedy=say("Set than to a number or a cell."),
        )


def chart(inputs: Inputs) -> Chart:
    """Two layers at one place: one strong colour, one quiet."""
    settings = inputs.settings
    every = settings["labels"] == "all"
    label = Label(number=inputs.number_text("value"), position="outside", bold=True)
    quiet = Label(number=inputs.number_text("value"), position="outside", bold=False, colour="quiet")
    shown = settings["labels"] != "none"
    layers = (
        Bars(
            "others",
            inputs.drawn("{what}, others", what=inputs.title("value")),
            inputs.helpers["others"],
            fill="quiet +62",
            listed=False,
            label=quiet if every else None,
        ),
        Bars("highlight", inputs.title("value"), inputs.helpers["highlight"], label=label if shown else None),
    )
    lying = settings["direction"] == "lying"
    picked = finite(inputs.helper("highlight"))
    names = [
        name
        for name, number in zip(inputs.names, inputs.helper("highlight"), strict=True)
        if number == number  # noqa: PLR0124
    ]
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            overlap=100.0,
            along=Scale(visible=bool(settings["axis"]) or None, grid=bool(settings["axis"]) or None),
            across=Scale(kind="category", line=not lying),
        ),
        layers,
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=inputs.drawn(
            "Bars of {what}: {figures}. Standing out: {names}." if picked else "Bars of {what}: {figures}.",
            what=inputs.title("value"),
            figures=said(inputs),
            names=names[:6],
        ),
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    if finite(inputs.helper("highlight")):
        return ()
    rule = str(inputs.settings["rule"])
    message = (
        say("No row is called “{name}”, so none stands out.", name=str(inputs.settings["named"]))
        if rule == "named"
        else say("No row stands out: the rule “{rule}” picks none.", rule=named(rule))
    )
    largest = SettingRemedy("largest", say("Let the largest stand out"), {"rule": "largest"}, restates=True)
    return (Notice("missing", 0.0, message, mends=(largest,)),)


def suits(of: Features) -> Suitability:
    return when(
        (of.plain and 3 <= of.rows <= 7 and not of.timed, 0.85, "one row stands out"),
        (of.plain and of.rows <= 20, 0.66, "one row stands out"),
    )


HIGHLIGHT_BARS = Recipe(
    name="highlight-bars",
    title="Highlight bars",
    question="stands out",
    known_as="stand out, best, winner, ranking, emphasis, one bar, largest",
    adds=True,
    needs="Names, and a number for each.",
    roles=(NAME, VALUE, Role("mark", "text", "Marks the rows that stand out.", required=False)),
    parameters=(
        choice(
            "rule", "Which rows stand out.", "largest", "smallest", "first", "last", "named", "above", "below", "marked"
        ),
        Parameter("named", "text", "", "The name of the row that stands out, or a cell."),
        Parameter("than", "number", "", "The number of above and below.", optional=True),
        choice("labels", "Which bars are labelled.", "all", "highlight", "none"),
        direction("standing"),
        flag("axis", False, "Show the scale.").moving("frame.along.visible", "frame.along.grid"),
        gap(50.0),
    ),
    helpers=(
        HelperColumn("highlight", "The value, where the row stands out."),
        HelperColumn("others", "The value of all other rows."),
    ),
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    suits=suits,
)
