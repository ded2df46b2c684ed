"""A Cartesian frame in its place: from rows and figures to points."""

import math

from msgspec import Struct

from kavlet.core.charts.frame import Cartesian
from kavlet.core.layout.planes.scales import FixedScale
from kavlet.core.values.geometry import Rect

BROADEST = 120.0  # points; a row's bars get no broader, however few rows there are


class SideStrip(Struct, frozen=True):
    """A strip after the plot for labels that stand beside it: where it starts along the value axis, and its width."""

    start: float
    width: float
    heading: tuple[str, ...]


class Plane(Struct, frozen=True):
    """The plot with its scales. Rows go along one axis ("across"), values along the other ("along").

    `thickness` and `gap` are those of a row's bars together; `places` gives each layer of bars its offset in the row
    and its own thickness; `every` is 1 when all rows can be named, else each so many-th is.
    """

    plot: Rect
    lying: bool
    first: FixedScale
    second: FixedScale | None
    across: FixedScale | None
    rows: int
    thickness: float
    gap: float
    lead: float
    reversed: bool
    places: dict[str, tuple[float, float]]
    strips: dict[str, SideStrip] = {}
    every: int = 1
    name_size: float = 10.0

    @property
    def pitch(self) -> float:
        """From one row to the next, in points."""
        return self.thickness + self.gap

    def row_start(self, row: int) -> float:
        """Where a row's bars begin across."""
        row = self.rows - 1 - row if self.reversed else row
        return (self.plot.y if self.lying else self.plot.x) + self.lead + row * self.pitch

    def row_middle(self, row: int) -> float:
        """Where the middle of a row stands across, in points."""
        return self.row_start(row) + self.thickness / 2

    def place(self, key: str, row: int) -> tuple[float, float]:
        """Where a layer's bar begins across in a row, and how thick it is."""
        offset, thickness = self.places.get(key, (0.0, self.thickness))
        return self.row_start(row) + offset, thickness

    def axis(self, second: bool) -> FixedScale:
        """The scale of the values: the first, or the second."""
        return self.second if second and self.second is not None else self.first

    def along(self, value: float, second: bool = False) -> float:
        """The coordinate of a value on its axis; standing values grow upward. NaN for no value."""
        share = self.axis(second).share(value)
        return self.along_share(share)

    def along_share(self, share: float) -> float:
        """Where a share of the scale stands along, in points."""
        if self.lying:
            return self.plot.x + share * self.plot.width
        return self.plot.bottom - share * self.plot.height

    def across_value(self, value: float) -> float:
        """The coordinate of a figure on a numeric across axis."""
        share = self.across.share(value) if self.across is not None else math.nan
        if self.lying:
            return self.plot.bottom - share * self.plot.height
        return self.plot.x + share * self.plot.width

    def point(self, across: float, along: float) -> tuple[float, float]:
        """x and y of a place given across and along."""
        return (along, across) if self.lying else (across, along)

    def box(self, across: float, thickness: float, start: float, end: float) -> Rect:
        """The rectangle between two coordinates along, from `across` on."""
        low, high = min(start, end), max(start, end)
        if self.lying:
            return Rect(low, across, high - low, thickness)
        return Rect(across, low, thickness, high - low)


def sized_rows(frame: Cartesian, length: float, rows: int, slots: int) -> tuple[float, float, float, float]:
    """Thickness of a row's bars together, gap between rows, the free space before the first, and one bar's thickness.

    With `n` bars side by side, overlap `o` and gap width `g` (percent of one bar, ISO/IEC 29500): a row's bars take
    n - (n-1)·o/100 bars, the gap g/100. Where a few rows would make very broad bars, the gap grows instead.
    """
    side = max(1, slots)
    group = max(0.05, side - (side - 1) * max(-100.0, min(100.0, frame.overlap)) / 100)
    gap = max(0.0, frame.gap_width) / 100
    units = rows * group + (rows - 1 if frame.flush else rows) * gap if rows else 1.0
    bar = length / units if units > 0 else length
    if gap > 0 and rows and group * bar > BROADEST:
        bar = BROADEST / group
        if not frame.flush:
            gap = (length / rows - BROADEST) / bar
    used = (rows * group + (rows - 1 if frame.flush else rows) * gap) * bar
    return group * bar, gap * bar, (length - used) / 2 + (0.0 if frame.flush else gap * bar / 2), bar
