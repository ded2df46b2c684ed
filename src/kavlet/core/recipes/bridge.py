"""Bridge: what moved a total, step by step.

Each step's bar stands on a hidden base; a bar that crosses zero has a part above and a part below it::

           ___     ___
    ___   |   |===|   |
   |   |==|___|   |___|==___
   |   |  :   :   :   : |   |     : hidden base
"""

import math

import msgspec

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label, Position
from kavlet.core.charts.layer import Row
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import say
from kavlet.core.recipes import sentences
from kavlet.core.recipes.building_blocks import NAME, choice, colour, direction, flag, gap, text
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, HelperColumn, Inputs, Notice, Recipe, Role
from kavlet.core.recipes.table_problems import need_numbers
from kavlet.core.spreadsheet.cells import text_of
from kavlet.core.text.numbers import written

# First words of what an end is called, in the languages there are catalogues for.
ENDS = (
    "|end|ending|closing|close|final|total|balance|ende|endstand|endbestand|schluss|schlussbestand|summe|saldo|gesamt|"
)
COLOURS = {"total": "total colour", "rise": "rise colour", "fall": "fall colour"}  # the theme's, and the settings


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """Which rows are totals; where each bar starts and ends; hidden bases; visible parts; the labels' places."""
    value = cells.role("value")
    total, start, end = (cells.helper(name) for name in ("total", "start", "running"))
    made: dict[str, list[str]] = {helper.name: [] for helper in HELPERS}
    for row in cells.span:
        held = f"{value}{row}"
        before = f"{end}{row - 1}"
        made["total"].append("=" + _is_total(cells, row, held, before))
        made["start"].append("=0" if row == cells.first else f"=IF({total}{row};0;{before})")
        if row == cells.first:
            made["running"].append(f"=IF(ISNUMBER({held});{held};0)")
        else:
            made["running"].append(f"=IF({total}{row};{before};{before}+IF(ISNUMBER({held});{held};0))")
        low, high = f"MIN({start}{row};{end}{row})", f"MAX({start}{row};{end}{row})"
        made["base"].append(f"=MAX(0;{low})")
        made["base below"].append(f"=MIN(0;{high})")
        made["above"].append(f"=MAX(0;{high})-MAX(0;{low})")
        made["below"].append(f"=MIN(0;{low})-MIN(0;{high})")
        falls = f"{end}{row}<{start}{row}"
        made["tip"].append(f'=IF({total}{row};"";IF({falls};{low};{high}))')
        made["total tip"].append(f'=IF({total}{row};IF({end}{row}<0;{low};{high});"")')
    return made


def _is_total(cells: CellAddresses, row: int, held: str, before: str) -> str:
    """TRUE for a total: the first row, a marked one, or the last one where it is an end.

    It is one when it is empty, states the running total, or is called an end.
    """
    rule = cells.settings["totals"]
    if cells.has("total"):
        mark = f"{cells.role('total')}{row}"
        return f'NOT(OR(ISBLANK({mark});{mark}="";{mark}=0))' if row > cells.first else "TRUE()"
    if row == cells.first:
        return "FALSE()" if rule == "none" else "TRUE()"
    if row == cells.last and rule == "first and last":
        return "TRUE()"
    if row == cells.last and rule == "found":
        said = ""
        if cells.has("name"):
            name = f"{cells.role('name')}{row}"
            said = f';ISNUMBER(SEARCH("|"&LEFT({name};FIND(" ";{name}&" ")-1)&"|";"{ENDS}"))'
        return f"OR(ISBLANK({held});ROUND({held}-{before};6)=0{said})"
    return "FALSE()"


def check(inputs: Inputs) -> None:
    """There are numbers."""
    need_numbers(inputs, "value")


def chart(inputs: Inputs) -> Chart:
    """Stacked bars on hidden bases, coloured as total, rise and fall; connectors; labels at the tips."""
    settings = inputs.settings
    fills = {row: Row(fill=_kind(inputs, row)) for row in range(inputs.rows)}
    layers: list[AnyLayer] = [
        Bars("base", inputs.drawn("base"), inputs.helpers["base"], helper=True, stack="stacked"),
        Bars("base below", inputs.drawn("base below"), inputs.helpers["base below"], helper=True, stack="stacked"),
    ]
    if settings["connectors"]:
        layers.append(
            Flanks("connectors", inputs.drawn("connectors"), inputs.helpers["running"], form="line", listed=False)
        )
    layers += [
        Bars(
            "above",
            inputs.title("value"),
            inputs.helpers["above"],
            stack="stacked",
            rows=fills,
            radius=0.0,
            listed=False,
        ),
        Bars(
            "below",
            inputs.title("value"),
            inputs.helpers["below"],
            stack="stacked",
            rows=fills,
            radius=0.0,
            listed=False,
        ),
    ]
    where = str(settings["labels"])
    if where != "none":
        layers += _labels(inputs, where)
    lying = settings["direction"] == "lying"
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            along=Scale(visible=False, grid=False),
            across=Scale(kind="category", line=True),
        ),
        tuple(layers),
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=_alt_text(inputs),
    )


def _kind(inputs: Inputs, row: int) -> str:
    falls = float(inputs.figures("value")[row]) < 0
    kind = "total" if _total(inputs, row) else "fall" if falls else "rise"
    return str(inputs.settings[COLOURS[kind]]) or kind


def _total(inputs: Inputs, row: int) -> bool:
    return inputs.values[inputs.helpers["total"]][row] is True


def _labels(inputs: Inputs, where: str) -> list[AnyLayer]:
    """Changes with their sign, totals without; both as points without a shape at the bars' tips."""
    how = inputs.number_text("value")
    signed = msgspec.structs.replace(how, sign="always")
    position: Position = "above" if where == "above" else "by sign"
    changes = Label(number=signed, position=position)
    totals = Label(number=how, position="above" if where == "above" else "by sign", bold=True)
    return [
        Points(
            "changes",
            inputs.drawn("changes"),
            inputs.helpers["tip"],
            figures=inputs.id("value"),
            spot="none",
            label=changes,
            listed=False,
        ),
        Points(
            "totals",
            inputs.drawn("totals"),
            inputs.helpers["total tip"],
            figures=inputs.helpers["running"],
            spot="none",
            label=totals,
            listed=False,
        ),
    ]


def _alt_text(inputs: Inputs) -> str:
    how = inputs.number_text("value")
    running = inputs.helper("running")
    signed = msgspec.structs.replace(how, sign="always")
    steps = [
        f"{inputs.called(row, name)} {written(float(inputs.figures('value')[row]), signed, inputs.locale)}"
        for row, name in enumerate(inputs.names)
        if not _total(inputs, row) and not math.isnan(inputs.figures("value")[row])
    ]
    start, end = text(float(running[0]), how, inputs), text(float(running[-1]), how, inputs)
    return inputs.drawn(
        "Bridge of {what} from {start} to {end}: {steps}.",
        what=inputs.title("value"),
        start=start,
        end=end,
        steps=steps[:14],
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    """A total that is stated differs from what the steps add up to."""
    found = []
    for row in range(1, inputs.rows):
        stated, running = float(inputs.figures("value")[row]), float(inputs.helper("running")[row])
        if _total(inputs, row) and not math.isnan(stated) and abs(stated - running) > 1e-6:
            name = text_of(inputs.entries("name")[row]) or say("Row {row}", row=row + 1)
            message = say(
                "{name} states {stated}, but the steps lead to {running}; the bridge shows {running}.",
                name=name,
                stated=stated,
                running=running,
            )
            found.append(Notice("stated-total", stated - running, message))
    return tuple(found)


HELPERS = (
    HelperColumn("total", "Whether the row is a total."),
    HelperColumn("start", "Where the row’s bar starts."),
    HelperColumn("running", "The running total, where it ends."),
    HelperColumn("base", "Hidden: what the bar stands on above zero."),
    HelperColumn("base below", "Hidden: what it hangs from below zero."),
    HelperColumn("above", "The visible part above zero.", shows="value"),
    HelperColumn("below", "The visible part below zero.", shows="value"),
    HelperColumn("tip", "Where a change’s label stands."),
    HelperColumn("total tip", "Where a total’s label stands."),
)


def suits(of: Features) -> Suitability:
    return when(
        (of.changes, 0.96, "changes with signs"),
        (of.negative and of.numbers == 1 and not of.timed, 0.93, "changes with signs"),
        (of.negative and of.numbers == 1, 0.75, "changes with signs"),
        otherwise=(0.2, ""),
    )


BRIDGE = Recipe(
    name="bridge",
    title="Bridge",
    question="moved",
    known_as="waterfall, changes, profit, money, plus and minus, before and after, balance",
    needs="Names, and signed changes that begin with a total.",
    roles=(
        NAME,
        Role("value", "number", "The opening total, then the changes with their signs."),
        Role("total", "text", "Marks rows that are totals.", required=False),
    ),
    parameters=(
        choice(
            "totals", "Which rows are totals, where no column marks them.", "found", "first", "first and last", "none"
        ),
        flag("connectors", True, "Carry each level on to the next bar by a line."),
        choice("labels", "Where the figures stand.", "by sign", "above", "none").moving("label.position"),
        *(
            colour(COLOURS[kind], meaning).moving("fill")
            for kind, meaning in (
                ("total", "The colour of totals."),
                ("rise", "The colour of what rises."),
                ("fall", "The colour of what falls."),
            )
        ),
        direction("standing"),
        gap(45.0),
    ),
    helpers=HELPERS,
    formulas=formulas,
    check=check,
    chart=chart,
    notices=notices,
    suits=suits,
    tells=ChartFacts(message=sentences.bridge, headline=sentences.what_made_it),
    ordered=True,
)
