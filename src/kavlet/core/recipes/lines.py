"""Lines: figures over time, straight, stepped or smooth."""

from typing import Literal

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label, When
from kavlet.core.charts.layer import Missing
from kavlet.core.charts.line import Line
from kavlet.core.charts.scale import Scale
from kavlet.core.recipes.building_blocks import NAME, VALUES, choice, flag, number, scale_ends, series_key, series_said
from kavlet.core.recipes.columns import formulas
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import Inputs, Recipe
from kavlet.core.recipes.table_problems import needing
from kavlet.core.shapes.curve import Course


def chart(inputs: Inputs) -> Chart:
    """A layer per series."""
    settings = inputs.settings
    course: Course = settings["course"]  # type: ignore[assignment]
    missing: Missing = settings["missing"]  # type: ignore[assignment]
    spot: Literal["disc", "none"] = "disc" if settings["points"] else "none"
    says = {"none": None, "ends": "ends", "all": "all"}[str(settings["labels"])]
    layers = []
    for i, column in enumerate(inputs.ids("value")):
        when: When = says or "all"  # type: ignore[assignment]
        how = inputs.number_texts.get(column, inputs.number_text("value"))
        label = Label(number=how, when=when) if says else None
        layers.append(
            Line(
                series_key(i),
                inputs.titles[column],
                column,
                tone=i,
                course=course,
                spot=spot,
                width=inputs.setting("width"),
                missing=missing,
                label=label,
            )
        )
    axis = bool(settings["axis"])
    low, high = (inputs.setting(name) if inputs.is_set(name) else None for name in ("minimum", "maximum"))
    return Chart(
        Cartesian(
            gap_width=0.0,
            along=Scale(minimum=low, maximum=high, zero=bool(settings["zero"]), visible=axis, grid=axis),
            across=Scale(kind="category", line=True),
        ),
        tuple(layers),
        names=inputs.id("name"),
        ink=1 if axis else 0,
        alt_text=inputs.drawn("Lines: {series}.", series=series_said(inputs)),
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.timed and of.rows >= 5, 0.9, "figures over time"), (of.timed and of.rows == 4, 0.8, "figures over time"),
        otherwise=(0.25, ""),
    )  # fmt: skip


LINES = Recipe(
    name="lines",
    title="Lines",
    question="time",
    known_as="trend, course, development, time series, curve",
    needs="Names of points in time, and one column of numbers or more.",
    roles=(NAME, VALUES),
    parameters=(
        choice("course", "How the line goes from value to value.", "straight", "smooth", "stepped").moving("course"),
        flag("points", True, "A point at each value.").moving("spot"),
        choice("labels", "Which values are written.", "none", "ends", "all").moving("label.when"),
        choice("missing", "What a missing value does.", "break", "bridge", "drop").moving("missing"),
        number("width", 2.25, "The line’s width.", 0.25, 20.0, "pt").moving("width"),
        flag("axis", True, "Show the scale and its gridlines.").moving("frame.along.visible", "frame.along.grid"),
        flag("zero", True, "Keep zero in sight."),
        *scale_ends(),
    ),
    helpers=(),
    formulas=formulas,
    check=needing("value"),
    chart=chart,
    suits=suits,
    series="value",
    ordered=True,
)
