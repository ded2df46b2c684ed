"""A scale: from figures to places along an axis."""

from typing import Literal

from msgspec import Struct

from kavlet.core.values.number_text import NumberText

ScaleKind = Literal["linear", "log", "category", "date"]
TickRule = Literal["125", "heckbert", "extended"]


class Scale(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Ends that are None are found from the figures: with `zero`, zero stays in sight.

    Ticks follow a named rule: steps of 1, 2 or 5 times a power of ten, Heckbert's loose labels (1990), or the extended
    search of Talbot, Lin and Hanrahan (2010); or a chosen `step`, or the list `ticks`. `minor` divides each step.
    `cap`: bars that go further are cut there, with a drawn break. What is None follows the chart's ink: whether the
    axis has labels, a line, gridlines; `strength` of gridlines goes from 0 to 1. Crowded labels are skipped, wrapped
    or turned by `angle` degrees.
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
    title: str = ""
    angle: float = 0.0
    crowded: Literal["wrap", "skip", "turn"] = "wrap"
