"""Flanks: what joins each bar of a layer to the next (ISO/IEC 29500 names such joins series lines)."""

from typing import ClassVar, Literal

from kavlet.core.charts.layer import Layer


class Flanks(Layer, frozen=True, tag_field="type", tag="flanks", omit_defaults=True, forbid_unknown_fields=True):
    """Fills the gaps between the bars of the layer with the key `of` by pale bodies, or joins their ends by lines.

    A line goes from one bar's end to the next one at the height of the column `values` (a bridge's running total).
    """

    joins: ClassVar[bool] = True

    of: str = ""
    form: Literal["body", "line"] = "body"
