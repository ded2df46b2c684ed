"""Points: a place per row that carries a label, drawn with no shape of its own."""

from msgspec import Struct

from kavlet.core.charts.labels import Label


class Points(Struct, frozen=True, tag_field="type", tag="points", omit_defaults=True):
    """Points bound to a column of figures.

    They stand at `at` along the value axis (0 its start, 1 its end), in the middle of their row, or in the gap before
    it (`between`); `on` is the key of the bars whose flanks fill that gap. With `beside` they stand in a margin of
    their own after the plot, under a `heading`.
    """

    key: str
    name: str
    values: str
    at: float = 0.5
    between: bool = False
    on: str = ""
    beside: bool = False
    heading: str = ""
    helper: bool = False
    label: Label | None = None
