"""A scale: from figures to places along an axis."""

from typing import Literal

from msgspec import Struct

from kavlet.core.charts.lettering import Lettering
from kavlet.core.values.number_text import NumberText

ScaleKind = Literal["linear", "log", "category", "date"]
Dash = Literal["solid", "dashed", "dotted"]
Marks = Literal["none", "outside", "inside", "across"]
TickRule = Literal["125", "heckbert", "extended"]


class Scale(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Ends that are None are found from the figures: with `zero`, zero stays in sight.

    Ticks follow a named rule: steps of 1, 2 or 5 times a power of ten, Heckbert's loose labels (1990), or the extended
    search of Talbot, Lin and Hanrahan (2010); or a chosen `step`, or the list `ticks`. `minor` divides each step.
    `cap`: bars that go further are cut there, with a drawn break. What is None follows the chart's ink: whether the
    axis has labels, a line, gridlines; `strength` of gridlines goes from 0 to 1. `marks` are short lines at the ticks.
    Crowded names are wrapped, skipped or turned by `angle` degrees; of `every` so many only one is shown (0: as there
    is room). `text` is how its numbers or names are set, `title_text` its title.
    """

    kind: ScaleKind = "linear"
    minimum: float | None = None
    maximum: float | None = None
    zero: bool = True
    rule: TickRule = "125"
    step: float | None = None
    ticks: tuple[float, ...] | None = None
    minor: int = 0
    cap: float | None = None
    reversed: bool = False
    number: NumberText | None = None
    visible: bool | None = None
    line: bool | None = None
    grid: bool | None = None
    strength: float = 0.6
    grid_colour: str = ""
    grid_dash: Dash = "solid"
    marks: Marks = "none"
    title: str = ""
    angle: float = 0.0
    crowded: Literal["wrap", "skip", "turn"] = "wrap"
    every: int = 0
    text: Lettering = Lettering()
    title_text: Lettering = Lettering()
