"""Areas: figures over time, one behind the other or stacked."""

from kavlet.core.charts.area import Area
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.layer import Missing
from kavlet.core.charts.scale import Scale
from kavlet.core.recipes.building_blocks import NAME, VALUES, choice, flag, number, scale_ends, series_key, series_said
from kavlet.core.recipes.columns import STACKS, formulas
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import Inputs, Recipe
from kavlet.core.recipes.table_problems import needing
from kavlet.core.shapes.curve import Course
from kavlet.core.values.number_text import WHOLE_PERCENT


def chart(inputs: Inputs) -> Chart:
    """A layer per series; those behind each other let the others show through."""
    settings = inputs.settings
    stack = STACKS["side by side" if settings["stack"] == "behind each other" else str(settings["stack"])]
    course: Course = settings["course"]  # type: ignore[assignment]
    missing: Missing = settings["missing"]  # type: ignore[assignment]
    plain = stack == "none"
    layers = tuple(
        Area(
            series_key(i),
            inputs.titles[column],
            column,
            tone=i,
            stack=stack,
            course=course,
            missing=missing,
            opacity=inputs.setting("opacity") / 100 if plain and len(inputs.ids("value")) > 1 else 1.0,
            width=1.75 if plain else 0.0,
        )
        for i, column in enumerate(inputs.ids("value"))
    )
    axis = bool(settings["axis"])
    low, high = (inputs.setting(name) if inputs.is_set(name) else None for name in ("minimum", "maximum"))
    shares = Scale(minimum=low or 0.0, maximum=high or 1.0, number=WHOLE_PERCENT, visible=axis, grid=axis)
    along = shares if stack == "share" else Scale(minimum=low, maximum=high, visible=axis, grid=axis)
    return Chart(
        Cartesian(gap_width=0.0, along=along, across=Scale(kind="category", line=True)),
        layers,
        names=inputs.id("name"),
        ink=1 if axis else 0,
        alt_text=inputs.drawn("Areas: {series}.", series=series_said(inputs)),
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.timed and of.rows >= 5 and of.numbers >= 3 and of.units == 1, 0.91, "amounts over time"),
        (of.timed and of.rows >= 4 and not of.negative, 0.7, "amounts over time"),
        otherwise=(0.2, ""),
    )


AREAS = Recipe(
    name="areas",
    title="Areas",
    question="time",
    known_as="trend, amount over time, stacked area, surface",
    needs="Names of points in time, and one column of numbers or more.",
    roles=(NAME, VALUES),
    parameters=(
        choice("stack", "How series stand to each other.", "stacked", "behind each other", "100 %").moving(
            "stack", "opacity", "frame.along.minimum", "frame.along.maximum"
        ),
        choice("course", "How the edge goes from value to value.", "straight", "smooth", "stepped").moving("course"),
        choice("missing", "What a missing value does.", "break", "bridge", "drop").moving("missing"),
        number("opacity", 55.0, "How dense areas behind each other are.", 5.0, 100.0, "%").moving("opacity"),
        flag("axis", True, "Show the scale and its gridlines.").moving("frame.along.visible", "frame.along.grid"),
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
