"""Rings: each row an arc of its own, one inside the other."""

from typing import ClassVar

from kavlet.core.charts.layer import Layer


class Rings(Layer, frozen=True, tag_field="type", tag="rings", omit_defaults=True, forbid_unknown_fields=True):
    """Arcs whose sweep in degrees is the column `values`; `track` draws the whole sweep behind them.

    `figures` names the column their labels and colours speak of. The first row is outermost, unless `order` says
    otherwise. `named` writes the rows' names at the arcs' start, right-aligned to the start line.
    """

    has_body: ClassVar[bool] = True

    figures: str = ""
    order: tuple[int, ...] = ()
    track: bool = True
    round: bool = True
    named: bool = True

    @property
    def figure_column(self) -> str:
        """The column its figures are in."""
        return self.figures or self.values
