"""Frames: the coordinate system of a chart."""

from typing import Literal

from msgspec import Struct

from kavlet.core.charts.scale import Scale

Corner = Literal["top left", "top right", "bottom left", "bottom right"]


class Cartesian(
    Struct, frozen=True, tag_field="frame", tag="cartesian", omit_defaults=True, forbid_unknown_fields=True
):
    """Rows along one axis, values along the other.

    Standing: rows go right, values up. `lying` lays the bars along x, first row at the top. `gap_width` is the gap
    between the bars of neighbouring rows in percent of a bar's thickness, `overlap` that of bars side by side
    (ISO/IEC 29500, c:gapWidth and c:overlap). `flush` leaves no half gap before the first row and after the last.
    `aspect` limits the plot's size across to that share of its size along, centred.
    """

    lying: bool = False
    gap_width: float = 60.0
    overlap: float = 0.0
    flush: bool = False
    aspect: float | None = None
    across: Scale = Scale(kind="category")
    along: Scale = Scale()
    second: Scale | None = None
    boxed: bool | None = None


class Polar(Struct, frozen=True, tag_field="frame", tag="polar", omit_defaults=True, forbid_unknown_fields=True):
    """Angles around a centre: `sweep` degrees clockwise from `start` (0 is 12 o'clock).

    `hole` is the inner radius as a share of the outer one, `ring_gap` the free space between rings in points.
    `rings` weighs the rings from the inside out; empty means equal ones. `scale` is drawn along the rim when visible.
    `shown` degrees from `start` are what is drawn at all, so that a half dial takes half the height.
    """

    start: float = 0.0
    sweep: float = 360.0
    shown: float = 360.0
    hole: float = 0.0
    ring_gap: float = 2.0
    rings: tuple[float, ...] = ()
    scale: Scale | None = None


class Grid(Struct, frozen=True, tag_field="frame", tag="grid", omit_defaults=True, forbid_unknown_fields=True):
    """A field of equal cells, filled by rows or by columns from a corner."""

    rows: int = 10
    columns: int = 10
    by: Literal["rows", "columns"] = "rows"
    corner: Corner = "bottom left"


Frame = Cartesian | Polar | Grid
