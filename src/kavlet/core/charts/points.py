"""Points: a shape or symbol per row, or just a place that carries a label."""

from kavlet.core.charts.layer import Layer
from kavlet.core.shapes.spots import SpotForm


class Points(Layer, frozen=True, tag_field="type", tag="points", omit_defaults=True, forbid_unknown_fields=True):
    """Points at the values of a column; `x` names a column for their places across, where they are not the rows.

    `symbol` names a symbol to draw instead of a `spot`; `size` is its larger side in points (0: what the row's bar
    leaves room for). `figures` names the column its labels speak of, where that is another. With `ride`, a symbol
    stands inside the end of the value at `padding` points from it, or just beyond where the value is shorter than it.

    Points that only carry labels stand at `at` along the value axis (0 its start, 1 its end), in the middle of their
    row or in the gap before it (`between`); `on` is the key of the bars whose flanks fill that gap. `beside` puts them
    in a margin of their own after the plot, under a `heading`.
    """

    x: str = ""
    figures: str = ""
    spot: SpotForm = "disc"
    symbol: str = ""
    size: float = 9.0
    ride: bool = False
    padding: float = 6.0
    at: float | None = None
    between: bool = False
    on: str = ""
    beside: bool = False
    heading: str = ""

    @property
    def figure_column(self) -> str:
        """The column its figures are in."""
        return self.figures or self.values

    @property
    def across_column(self) -> str:
        """The column of the places across."""
        return self.x
