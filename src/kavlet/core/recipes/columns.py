"""Columns and bars: figures side by side, stacked, or as parts of 100 %."""

from typing import Literal

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label, Position
from kavlet.core.charts.layer import Stack
from kavlet.core.charts.scale import Scale
from kavlet.core.recipes.building_blocks import (
    NAME,
    VALUES,
    choice,
    flag,
    gap,
    overlap,
    scale_ends,
    series_key,
    series_said,
)
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, Inputs, Parameter, Recipe
from kavlet.core.recipes.table_problems import needing
from kavlet.core.shapes.body import BodyForm
from kavlet.core.values.number_text import WHOLE_PERCENT

STACKS: dict[str, Stack] = {"side by side": "none", "stacked": "stacked", "100 %": "share"}


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The bars read the figures themselves."""
    del cells
    return {}


def build(inputs: Inputs, lying: bool) -> Chart:
    """A layer per series."""
    settings = inputs.settings
    stack = STACKS[str(settings["stack"])]
    labelled = str(settings["labels"])
    form: BodyForm = settings["form"]  # type: ignore[assignment]
    says = "{share}" if labelled == "shares" else "{value}"
    position: Position = "outside" if stack == "none" else "middle"
    layers = []
    for i, column in enumerate(inputs.ids("value")):
        how = inputs.number_texts.get(column, inputs.number_text("value"))
        label = Label(template=says, number=how, position=position) if labelled != "none" else None
        layers.append(
            Bars(
                series_key(i),
                inputs.titles[column],
                column,
                tone=i,
                stack=stack,
                form=form,
                label=label,
                edge="ground" if stack != "none" else "",
                edge_width=0.8,
            )
        )
    axis = bool(settings["axis"])
    low, high = (inputs.setting(name) if inputs.is_set(name) else None for name in ("minimum", "maximum"))
    shares = Scale(minimum=low or 0.0, maximum=high or 1.0, number=WHOLE_PERCENT, visible=axis, grid=axis)
    along = shares if stack == "share" else Scale(minimum=low, maximum=high, number=None, visible=axis, grid=axis)
    return Chart(
        Cartesian(
            lying=lying,
            gap_width=inputs.setting("gap"),
            overlap=inputs.setting("overlap") if stack == "none" else 0.0,
            along=along,
            across=Scale(kind="category", line=True),
        ),
        tuple(layers),
        names=inputs.id("name"),
        ink=1 if axis else 0,
        alt_text=inputs.drawn("Bars: {series}." if lying else "Columns: {series}.", series=series_said(inputs)),
    )


def parameters(
    default: Literal["side by side", "stacked", "100 %"] = "side by side", labels: str = "none", axis: bool = True
) -> tuple[Parameter, ...]:
    """The settings that columns, bars and 100 % bars share."""
    stacks = (default, *(one for one in STACKS if one != default))
    says = (labels, *(one for one in ("none", "values", "shares") if one != labels))
    return (
        choice("stack", "How series stand to each other.", *stacks).moving(
            "stack", "edge", "label.position", "frame.along.minimum", "frame.along.maximum"
        ),
        choice("form", "The bars’ form.", "square", "rounded", "capsule", "cylinder").moving("form"),
        choice("labels", "What is written at the bars.", *says).moving("label.template"),
        flag("axis", axis, "Show the scale and its gridlines.").moving("frame.along.visible", "frame.along.grid"),
        *scale_ends(),
        gap(60.0),
        overlap("How far bars side by side overlap, of their thickness."),
    )


def suits(of: Features) -> Suitability:
    return when(
        (of.timed and of.rows < 5, 0.89, "figures side by side"),
        (of.numbers > 1 and of.rows <= 12, 0.84, "figures side by side"),
        (of.timed, 0.72, "figures side by side"),
        (of.rows <= 7 and not of.long_names, 0.76, "plain and clear"),
        otherwise=(0.6, "plain and clear"),
    )


COLUMNS = Recipe(
    name="columns",
    title="Columns",
    question="time",
    known_as="bar chart, vertical bars, cylinder, 3D, compare, series, years",
    needs="Names, and one column of numbers or more.",
    roles=(NAME, VALUES),
    parameters=parameters(),
    helpers=(),
    formulas=formulas,
    check=needing("value"),
    chart=lambda inputs: build(inputs, lying=False),
    suits=suits,
    series="value",
)
