"""Needle: a pointer from the centre of a polar frame."""

from kavlet.core.charts.layer import Layer


class Needle(Layer, frozen=True, tag_field="type", tag="needle", omit_defaults=True, forbid_unknown_fields=True):
    """Points at the angle (degrees clockwise from 12 o'clock) that the column holds, in the row `row`.

    `figures` names the column that its label speaks of. `length` is a share of the outer radius; `past` tells by a
    small arrow that the value lies beyond the scale: 1 above its end, -1 below its start.
    """

    row: int = 0
    figures: str = ""
    length: float = 0.86
    past: int = 0

    @property
    def figure_column(self) -> str:
        """The column its angle is in."""
        return self.figures or self.values
