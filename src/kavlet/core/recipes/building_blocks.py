"""What many recipes are made of: roles, parameters, labels, alt texts."""

import math

import msgspec

from kavlet.core.charts.scale import Scale
from kavlet.core.messages import named, say
from kavlet.core.recipes.recipe import CellAddresses, Inputs, Notice, Parameter, Role, SettingRemedy, finite
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import PERCENT, WHOLE_PERCENT, NumberText
from kavlet.core.values.sums import exact_sum

NAME = Role("name", "text", "Names the rows.", required=False)
VALUE = Role("value", "number", "The figure of each row.")
VALUES = Role("value", "number", "The figures of each row, a column for each series.", many=True)
ROW = Parameter("row", "number", 1.0, "Which row is shown, counted from 1.", (), 1.0, 100_000.0)
OF = Parameter(
    "of",
    "choice",
    "sum",
    "The column’s sum, one row, or the sum of all rows that share the row’s name.",
    ("sum", "row", "group"),
)
SHARE_SCALE = Scale(minimum=0.0, maximum=1.0, number=PERCENT, visible=False)
MAX_SAID = 12
GAP = "frame.gap_width"


def gap(default: float) -> Parameter:
    """The gap between bars of neighbouring rows, in percent of a bar's thickness."""
    meaning = "Gap between the bars, of their thickness."
    return Parameter("gap", "number", default, meaning, (), 0.0, 500.0, "%").at(GAP)


def overlap(meaning: str) -> Parameter:
    """How far bars side by side overlap, in percent of their thickness."""
    return number("overlap", 0.0, meaning, -100.0, 100.0, "%").at("frame.overlap")


def direction(first: str, meaning: str = "") -> Parameter:
    """Lying or standing; the first is what it is by itself."""
    ways = ("lying", "standing") if first == "lying" else ("standing", "lying")
    parameter = choice(
        "direction", meaning or ("Lying or standing." if first == "lying" else "Standing or lying."), *ways
    )
    return msgspec.structs.replace(parameter, look="frame.lying", stands_for=tuple(way == "lying" for way in ways))


def scale_ends() -> tuple[Parameter, Parameter]:
    """Where the scale of the values starts and ends."""
    return (
        optional("minimum", "Where the scale starts; found when left out.").at("frame.along.minimum"),
        optional("maximum", "Where the scale ends; found when left out.").at("frame.along.maximum"),
    )


def hole(default: float, most: float = 90.0) -> Parameter:
    """The free middle of a ring."""
    return number("hole", default, "The free middle, of the radius.", 0.0, most, "%").at("frame.hole", 100.0)


def flag(name: str, default: bool, meaning: str) -> Parameter:
    """A parameter that is yes or no."""
    return Parameter(name, "flag", default, meaning)


def choice(name: str, meaning: str, *choices: str) -> Parameter:
    """A choice whose first entry is the default."""
    return Parameter(name, "choice", choices[0], meaning, choices)


def colour(name: str, meaning: str) -> Parameter:
    """A colour, the theme's own where none is set."""
    return Parameter(name, "colour", "", meaning)


def number(
    name: str, default: float, meaning: str, low: float | None = None, high: float | None = None, unit: str = ""
) -> Parameter:
    """A parameter that is a number, within limits where they are given."""
    return Parameter(name, "number", default, meaning, (), low, high, unit)


def optional(name: str, meaning: str, low: float | None = None, high: float | None = None, unit: str = "") -> Parameter:
    """A number that may be left out."""
    return Parameter(name, "number", "", meaning, (), low, high, unit, optional=True)


def said(inputs: Inputs, role: str = "value", shares: bool = False) -> str:
    """The rows with their figures, for alt texts: “Visits 18,400, Walks 6,900, … and 3 more”."""
    how = WHOLE_PERCENT if shares else inputs.number_text(role)
    return listed(inputs, inputs.names, list(inputs.figures(role)), how)


def listed(inputs: Inputs, names: list[str], figures: list[float], how: NumberText) -> str:
    """Names with their figures."""
    parts = [
        f"{inputs.called(row, name)} {text(float(figure), how, inputs)}"
        for row, (name, figure) in enumerate(zip(names, figures, strict=False))
    ]
    if len(parts) <= MAX_SAID:
        return ", ".join(parts)
    return inputs.drawn("{parts}, and {more} more", parts=parts[:MAX_SAID], more=len(parts) - MAX_SAID)


def series_said(inputs: Inputs, columns: tuple[str, ...] = ()) -> str:
    """All series with their rows, for alt texts; those of the columns, or of all that hold values."""
    return "; ".join(
        f"{inputs.titles[column]}: "
        + listed(
            inputs,
            inputs.names,
            list(inputs.numbers[column]),
            inputs.number_texts.get(column, inputs.number_text("value")),
        )
        for column in (columns or inputs.ids("value"))[:6]
    )


def text(value: float, how: NumberText, inputs: Inputs) -> str:
    """A value as labels write it."""
    return written(value, how, inputs.locale) or inputs.drawn("no value")


def total_of(cells: CellAddresses, value: str, row: int) -> str:
    """What a row shows, as part of a formula: the column's sum, its own figure, or the sum of its group."""
    of, names = cells.settings["of"], cells.role("name") if cells.has("name") else ""
    if of == "sum":
        return cells.total(value)
    return (
        f"SUMIF({cells.whole(names)};{names}{row};{cells.whole(value)})" if of == "group" and names else f"{value}{row}"
    )


def goal_of(cells: CellAddresses, name: str, row: int) -> str:
    """What a row is measured against, as part of a formula: what was set, else its column as far as the figures go.

    A sum is measured against the sum of the goals, a row against its own, a group against its group's.
    """
    stated = cells.number(name)
    if stated:
        return stated
    return total_of(cells, cells.role(name), row) if cells.has(name) else '""'


def added_goals(inputs: Inputs, name: str) -> tuple[Notice, ...]:
    """A note where the same goal stands beside each row and so is added up: it may be meant once."""
    goals = [goal for goal in inputs.figures(name) if not math.isnan(goal)]
    if inputs.settings["of"] != "sum" or inputs.is_set(name) or len(goals) < 2 or len(set(goals)) > 1:
        return ()
    total = written(sum(goals), inputs.number_text(name), inputs.locale)
    message = say(
        "Each row has the same {goal}; together they are {total}. Set it once if it is for all.",
        goal=named(name), total=total,
    )  # fmt: skip
    once = SettingRemedy("goal once", say("Set it once, for all"), {name: goals[0]}, restates=True)
    return (Notice("share-sum", sum(goals), message, "note", (once,)),)


def parts_above_whole(figures: Floats, whole: float) -> tuple[Notice, ...]:
    """A warning where parts add up to more than the whole that was stated; NaN where none was."""
    total = exact_sum(finite(figures))
    if math.isnan(whole) or total <= whole:
        return ()
    message = say(
        "The parts add up to {total}, more than the whole of {whole}; shares are of the parts.",
        total=total, whole=whole,
    )  # fmt: skip
    back = SettingRemedy("whole is the sum", say("Take the sum as the whole"), {"whole": None})
    return (Notice("share-sum", whole - total, message, mends=(back,)),)


SERIES = "series "


def series_key(place: int) -> str:
    """The key of the layer of a recipe's series, counted from 0."""
    return f"{SERIES}{place + 1}"


def series_place(key: str) -> int | None:
    """Which series a layer's key names, counted from 0; None where it is none."""
    number = key.removeprefix(SERIES)
    return int(number) - 1 if key.startswith(SERIES) and number.isdigit() and int(number) > 0 else None
