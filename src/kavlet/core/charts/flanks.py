"""Flanks: pale bodies that join each bar of a layer to the next (ISO/IEC 29500 names such joins series lines)."""

from msgspec import Struct


class Flanks(Struct, frozen=True, tag_field="type", tag="flanks", omit_defaults=True):
    """Fills the gaps between the bars of the layer with the key `of`."""

    key: str
    name: str
    of: str
    helper: bool = False
