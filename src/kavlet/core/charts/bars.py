"""Bars: one per row, side by side with other layers of bars, or stacked on the one before."""

from typing import ClassVar

from kavlet.core.charts.layer import Stacking
from kavlet.core.shapes.body import BodyForm


class Bars(Stacking, frozen=True, tag_field="type", tag="bars", omit_defaults=True, forbid_unknown_fields=True):
    """Bars bound to a column.

    A `stacked` bar starts where the stack has come to, above zero and below it apart; "share" scales every stack to 1.
    A `tapered` bar narrows to where the next row's begins. `radius` None is the theme's corner; `thickness` a share of
    the place the frame gives. Where the column `true` holds more than is drawn, a break is drawn near the end. `track`
    draws the whole scale pale behind each bar; `bulb` puts a round bulb at the base that is always full, its diameter
    in thicknesses; `cuts` parts the scale into so many cells by thin gaps.
    """

    has_body: ClassVar[bool] = True
    clusters: ClassVar[bool] = True

    form: BodyForm = "square"
    radius: float | None = None
    thickness: float = 1.0
    true: str = ""
    track: bool = False
    bulb: float = 0.0
    cuts: int = 0

    @property
    def figure_column(self) -> str:
        """The column its figures are in."""
        return self.true or self.values
