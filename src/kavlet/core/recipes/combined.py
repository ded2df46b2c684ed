"""Combined: columns and lines on one frame, the lines on a second axis if wished."""

from kavlet.core.charts.area import Area
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Stack
from kavlet.core.charts.line import Line
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale
from kavlet.core.recipes.building_blocks import NAME, choice, flag, gap, overlap, series_said
from kavlet.core.recipes.columns import STACKS, formulas
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import Inputs, Recipe, Role
from kavlet.core.recipes.table_problems import needing
from kavlet.core.shapes.curve import Course


def chart(inputs: Inputs) -> Chart:
    """A layer of bars for each column at the back, one of lines, areas or points for each at the front."""
    settings = inputs.settings
    stack: Stack = STACKS[str(settings["stack"])]
    second = bool(settings["second"])
    course: Course = settings["course"]  # type: ignore[assignment]
    label = Label(position="outside" if stack == "none" else "middle") if settings["labels"] else None
    columns, others = inputs.ids("value"), inputs.ids("line")
    layers: list[AnyLayer] = [
        Bars(f"columns {i + 1}", inputs.titles[column], column, tone=i, stack=stack, label=label)
        for i, column in enumerate(columns)
    ]
    for i, column in enumerate(others):
        tone = len(columns) + i
        key, name = f"line {i + 1}", inputs.titles[column]
        if settings["front"] == "points":
            layers.append(Points(key, name, column, tone=tone, second=second, spot="diamond", size=11.0))
        elif settings["front"] == "area":
            layers.insert(0, Area(key, name, column, tone=tone, second=second, course=course, opacity=0.35, width=1.75))
        else:
            layers.append(Line(key, name, column, tone=tone, second=second, course=course, spot="disc"))
    axis = bool(settings["axis"])
    titles = (
        ", ".join(inputs.titles[column] for column in columns),
        ", ".join(inputs.titles[column] for column in others),
    )
    return Chart(
        Cartesian(
            gap_width=inputs.setting("gap"),
            overlap=inputs.setting("overlap"),
            along=Scale(visible=axis, grid=axis, title=titles[0] if second else ""),
            second=Scale(visible=axis, title=titles[1]) if second else None,
            across=Scale(kind="category", line=True),
        ),
        tuple(layers),
        names=inputs.id("name"),
        ink=1 if axis else 0,
        alt_text=inputs.drawn("Combined chart: {series}.", series=series_said(inputs, (*columns, *others))),
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.numbers == 2 and of.timed and of.units > 1, 0.94, "two kinds of figures over time"),
        (of.numbers >= 2 and of.timed, 0.68, "two kinds of figures over time"),
        otherwise=(0.2, ""),
    )


COMBINED = Recipe(
    name="combined",
    title="Combined",
    question="time",
    known_as="two axes, columns and line, second axis, money and percent",
    needs="Names, numbers to stand as columns, and numbers to go as a line.",
    roles=(
        NAME,
        Role("value", "number", "The figures that stand as columns.", many=True),
        Role("line", "number", "The figures that go in front.", many=True),
    ),
    parameters=(
        choice("front", "What goes with the columns.", "line", "points", "area").moving("spot", "width"),
        flag("second", False, "Put it on a second axis.").moving("second", "frame.along.title"),
        choice("course", "How the line goes from value to value.", "straight", "smooth", "stepped").moving("course"),
        choice("stack", "How columns stand to each other.", *STACKS).moving("stack"),
        flag("labels", False, "Write the columns’ figures."),
        flag("axis", True, "Show the scale and its gridlines.").moving("frame.along.visible", "frame.along.grid"),
        gap(60.0),
        overlap("How far columns side by side overlap."),
    ),
    helpers=(),
    formulas=formulas,
    check=needing("value", "line"),
    chart=chart,
    suits=suits,
    tells=ChartFacts(("value", "line")),
)
