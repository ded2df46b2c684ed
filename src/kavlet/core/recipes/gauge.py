"""Gauge: one figure on a dial.

Bands share `sweep` degrees; a hidden rest makes them and itself one full turn, so that the dial stands upright.
"""

import itertools
import math

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Row
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.needle import Needle
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.rings import Rings
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.texts import Note
from kavlet.core.charts.wedges import Wedges
from kavlet.core.messages import say
from kavlet.core.recipes.building_blocks import ROW, choice, flag, number, optional, text
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import (
    CellAddresses,
    HelperColumn,
    Inputs,
    Notice,
    Parameter,
    Recipe,
    Repeats,
    Role,
    Setting,
    SettingRemedy,
    split_list,
)
from kavlet.core.recipes.table_problems import need_numbers
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PERCENT, PLAIN

THIRDS = 3


def bounds(cells: CellAddresses, row: int) -> list[str]:
    """The bands' upper bounds as parts of a row's formulas; three equal bands when none are given."""
    low, high = cells.number("minimum"), f"{cells.helper('maximum')}{row}"
    given = cells.numbers("bands")
    if not given:
        return [f"({low}+({high}-{low})*{i}/{THIRDS})" for i in range(1, THIRDS)] + [high]
    return [*given[:-1], high] if _ends_at_maximum(cells) else [*given, high]


def _ends_at_maximum(cells: CellAddresses) -> bool:
    stated = cells.number("maximum")
    return bool(stated) and cells.numbers("bands")[-1:] == [stated]


def columns(cells: CellAddresses) -> tuple[HelperColumn, ...]:
    """Maximum, level, needle, sweep, rest, and one column for each band."""
    count = len(split_list(str(cells.settings["bands"]))) or THIRDS - 1
    total = count if _ends_at_maximum(cells) else count + 1
    fixed = tuple(helper for helper in HELPERS if not helper.many)
    fixed = (GROUPED, *fixed) if cells.settings["of"] == "group" else fixed
    return (*fixed, *(HelperColumn(f"band {i + 1}", HELPERS[-1].meaning) for i in range(total)))


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The scale's end, the level within it, the needle's angle, and the lengths of bands and rest."""
    value, low, sweep = cells.role("value"), cells.number("minimum"), cells.number("sweep")
    level, top = cells.helper("level"), cells.helper("maximum")
    round_end = _round_end(";".join([cells.whole(value), *cells.numbers("bands")]))
    grouped = cells.settings["of"] == "group" and cells.has("name")
    columns: dict[str, list[str]] = {name: [] for name in ("maximum", "level", "needle", "sweep", "rest")}
    for row in cells.span:
        cell, high, level_cell = f"{value}{row}", f"{top}{row}", f"{level}{row}"
        if grouped:
            names = cells.role("name")
            columns.setdefault("figure", []).append(
                f"=AVERAGEIF({cells.whole(names)};{names}{row};{cells.whole(value)})"
            )
            cell = f"{cells.helper('figure')}{row}"
        columns["maximum"].append(f"={cells.number('maximum') or round_end}")
        columns["level"].append(f'=IF(ISNUMBER({cell});(MAX({low};MIN({high};{cell}))-{low})/({high}-{low});"")')
        columns["needle"].append(f'=IF(ISNUMBER({cell});{level_cell}*{sweep}-{sweep}/2;"")')
        columns["sweep"].append(f'=IF(ISNUMBER({cell});{level_cell}*{sweep};"")')
        columns["rest"].append(f"=({high}-{low})*(360-{sweep})/{sweep}")
        before = low
        for i, bound in enumerate(bounds(cells, row)):
            columns.setdefault(f"band {i + 1}", []).append(f"={bound}-{before}")
            before = bound
    return columns


def _round_end(held: str) -> str:
    """The scale's end where none is given: 1, 10 or 100; above that the next multiple of a power of ten."""
    above = f"ROUNDUP(MAX({held});-ROUNDDOWN(LOG10(MAX({held}));0))"
    return f"IF(MAX({held})>100;{above};10^ROUNDUP(LOG10(MAX(1;{held}));0))"


def top_of(inputs: Inputs) -> float:
    """Where the scale ends."""
    return float(inputs.helper("maximum")[inputs.row])


def _column(inputs: Inputs) -> str:
    """The id of the column that holds the figures: the table's own, or the groups' means."""
    return inputs.helpers["figure"] if "figure" in inputs.helpers else inputs.id("value")


def _figure(inputs: Inputs) -> float:
    return float(inputs.numbers[_column(inputs)][inputs.row])


def check(inputs: Inputs) -> None:
    """The figure is a number, the scale goes upward, and the bands follow each other within it."""
    need_numbers(inputs, "value")
    low, high = inputs.setting("minimum"), top_of(inputs)
    if not high > low:
        raise KavletError(say("The maximum, {high}, must be above the minimum, {low}.", high=high, low=low))
    bands = [low, *inputs.listed("bands")]
    if any(b <= a for a, b in itertools.pairwise(bands)) or bands[-1] > high:
        raise KavletError(
            say("The bands must rise from the minimum to the maximum."),
            remedy=say("Give their upper bounds, the last {high}.", high=high),
        )
    if math.isnan(_figure(inputs)):
        raise KavletError(
            say("Row {row} holds no value.", row=inputs.row + 1), remedy=say("Type a number, or choose another row.")
        )


def chart(inputs: Inputs) -> Chart:
    """A ring of bands with a needle, or an arc on a track with the figure in its middle."""
    sweep, row = inputs.setting("sweep"), inputs.row
    low, high = inputs.setting("minimum"), top_of(inputs)
    figure = _figure(inputs)
    past = 1 if figure > high else -1 if figure < low else 0
    how = inputs.number_text("value")
    label = Label(number=how)
    bands = tuple(column for name, column in inputs.helpers.items() if name.startswith("band "))
    dial = inputs.settings["style"] != "arc"
    layers: list[AnyLayer] = []
    notes: tuple[Note, ...] = ()
    if dial:
        rows = {i: Row(fill=fill) for i, fill in enumerate(_fills(inputs, len(bands)))}
        layers.append(
            Wedges(
                "bands",
                inputs.drawn("bands"),
                parts=bands,
                row=row,
                rest=inputs.helpers["rest"],
                turn=360.0,
                gap=1.5,
                rows=rows,
                listed=False,
            )
        )
        layers.append(
            Needle(
                "needle",
                inputs.title("value"),
                inputs.helpers["needle"],
                row=row,
                figures=_column(inputs),
                past=past,
                label=label,
            )
        )
    else:
        layers.append(
            Rings("value", inputs.title("value"), inputs.helpers["sweep"], figures=_column(inputs), named=False)
        )
        shown = written(figure, how, inputs.locale) + (" ▸" if past > 0 else "")
        notes = (Note("value", shown, middle=True, bold=True),)
    if inputs.is_set("target"):
        target = inputs.setting("target")
        layers.append(
            Reference(
                "target",
                inputs.drawn("target {number}", number=written(target, PLAIN, inputs.locale)),
                at=target,
                width=2.0,
                dash=(),
                listed=False,
                label=Label(bold=True),
            )
        )
    edges = [low, *inputs.listed("bands"), high] if inputs.settings["bands"] and dial else None
    scale = Scale(
        minimum=low,
        maximum=high,
        number=how,
        visible=bool(inputs.settings["scale"]) and dial,
        ticks=tuple(dict.fromkeys(edges)) if edges else None,
    )
    return Chart(
        Polar(start=-sweep / 2, sweep=sweep, shown=sweep, hole=0.66 if dial else 0.74, scale=scale),
        tuple(layers),
        names=inputs.id("name"),
        rows=(row,),
        notes=notes,
        legend=Legend(side="none"),
        alt_text=_alt_text(inputs, figure, past),
    )


def _fills(inputs: Inputs, count: int) -> list[str]:
    """Tints of one colour that grow stronger, or from the colour of a fall to that of a rise."""
    if inputs.settings["colours"] == "tints" or count < 2:
        return [f"tone1 +{round(82 - 62 * i / max(1, count - 1))}" for i in range(count)]
    ends = ["fall", "rise"] if inputs.settings["colours"] == "low to high" else ["rise", "fall"]
    half = (count - 1) / 2
    return [
        f"{ends[0] if i < half else ends[1]} +{round(62 - 42 * abs(i - half) / half)}" if i != half else "tone3 +35"
        for i in range(count)
    ]


def _alt_text(inputs: Inputs, figure: float, past: int) -> str:
    how = inputs.number_text("value")
    name = inputs.names[inputs.row] or inputs.title("value")
    low, high = text(inputs.setting("minimum"), how, inputs), text(top_of(inputs), how, inputs)
    return inputs.drawn(
        {
            1: "Gauge of {name}: {figure}, above the scale’s end, on a scale from {low} to {high}.",
            -1: "Gauge of {name}: {figure}, below the scale’s start, on a scale from {low} to {high}.",
            0: "Gauge of {name}: {figure}, on a scale from {low} to {high}.",
        }[past],
        name=name,
        figure=text(figure, how, inputs),
        low=low,
        high=high,
    )


def notices(inputs: Inputs) -> tuple[Notice, ...]:
    figure = _figure(inputs)
    low, high = inputs.setting("minimum"), top_of(inputs)
    if low <= figure <= high:
        return ()
    message = (
        say(
            "The value {figure} lies above the scale’s end, {high}; the needle stands at the stop.",
            figure=figure,
            high=high,
        )
        if figure > high
        else say(
            "The value {figure} lies below the scale’s start, {low}; the needle stands at the stop.",
            figure=figure,
            low=low,
        )
    )
    ends: dict[str, Setting | None] = {"maximum": figure} if figure > high else {"minimum": figure}
    return (Notice("out-of-range", figure, message, mends=(SettingRemedy("widen", say("Widen the scale"), ends),)),)


GROUPED = HelperColumn("figure", "The mean of all rows that share the name.")
HELPERS = (
    HelperColumn("maximum", "Where the scale ends."),
    HelperColumn("level", "Where the value lies within the scale.", PERCENT),
    HelperColumn("needle", "The needle’s angle, in degrees from upright."),
    HelperColumn("sweep", "The degrees the value takes of the dial."),
    HelperColumn("rest", "Hidden: what makes the bands one full turn."),
    HelperColumn("band", "The length of one band of the scale.", many=True),
)


def suits(of: Features) -> Suitability:
    return when(
        (of.rows == 1 and of.numbers == 1, 0.95, "one figure"),
        (of.rows <= 6 and of.numbers == 1, 0.45, "one figure of each row"),
        otherwise=(0.2, ""),
    )


GAUGE = Recipe(
    name="gauge",
    title="Gauge",
    question="goal",
    known_as="dial, speedometer, meter, needle, KPI, score, index",
    needs="One number, and a scale from a minimum to a maximum.",
    roles=(
        Role("name", "text", "Names the rows.", required=False),
        Role("value", "number", "The figure the needle points at."),
    ),
    parameters=(
        ROW,
        choice("of", "One row, or the mean of all rows that share its name.", "row", "group"),
        number("minimum", 0.0, "Where the scale starts."),
        optional("maximum", "Where the scale ends; 1, 10, 100 … by the figures when left out."),
        Parameter("bands", "numbers", "", "Upper bounds of the bands, such as 40; 70."),
        optional("target", "A mark on the scale.").at(of_layer("target", "at")),
        number("sweep", 180.0, "How many degrees the dial takes.", 90.0, 360.0, "°"),
        choice("style", "A needle over bands, or an arc on a track.", "needle", "arc"),
        choice("colours", "Tints of one colour, or from bad to good.", "tints", "low to high", "high to low"),
        flag("scale", True, "Write the scale’s figures along the rim."),
    ),
    helpers=HELPERS,
    formulas=formulas,
    check=check,
    chart=chart,
    columns=columns,
    notices=notices,
    repeats=Repeats("row", "of"),
    size=(480.0, 340.0),
    suits=suits,
)
