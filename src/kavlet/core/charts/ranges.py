"""Ranges: from a low to a high figure per row, for a spread, an error or a forecast (ISO/IEC 29500: error bars)."""

from typing import ClassVar, Literal

from kavlet.core.charts.layer import Layer
from kavlet.core.shapes.spots import SpotForm

RangeForm = Literal["whisker", "bar"]


class Ranges(Layer, frozen=True, tag_field="type", tag="ranges", omit_defaults=True, forbid_unknown_fields=True):
    """One range per row, from the column `low` to the column `high`, about the column `values` where it has one.

    The two hold figures of the scale, or, by "distance", how far the ends lie from the middle below and above it (an
    error of ± 3 has 3 in both). A "whisker" is a line `width` points thick with caps of `cap` points at its ends; a
    "bar" is a rounded bar `cap` points thick. `spot` marks the middle. With `on`, ranges stand on the bars of the layer
    of that key; `x` names a column of places where they are not the rows.
    """

    joins: ClassVar[bool] = True

    low: str = ""
    high: str = ""
    by: Literal["ends", "distance"] = "ends"
    form: RangeForm = "whisker"
    width: float = 1.5
    cap: float = 8.0
    spot: SpotForm = "none"
    on: str = ""
    x: str = ""

    @property
    def figure_column(self) -> str:
        """The column its figures are in."""
        return self.values or self.high

    @property
    def across_column(self) -> str:
        """The column of the places across; empty where rows stand at equal steps."""
        return self.x
