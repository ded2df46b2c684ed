"""Bubbles: discs whose size is a third figure."""

from typing import Literal

from kavlet.core.charts.layer import Layer


class Bubbles(Layer, frozen=True, tag_field="type", tag="bubbles", omit_defaults=True, forbid_unknown_fields=True):
    """Discs at (column `x`, the layer's column), sized by the column `sizes`.

    By area: a figure twice as large takes twice the area (ISO/IEC 29500 c:sizeRepresents). `largest` is the diameter of
    the largest disc as a share of the plot's shorter side. `hollow` shows sizes below zero as rings of their amount.
    """

    x: str = ""
    sizes: str = ""
    by: Literal["area", "diameter"] = "area"
    largest: float = 0.2
    opacity: float = 0.82
    hollow: bool = False

    @property
    def across_column(self) -> str:
        """The column of the places across."""
        return self.x
