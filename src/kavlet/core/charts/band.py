"""Band: a strip over part of the value scale."""

from kavlet.core.charts.layer import Layer


class Band(Layer, frozen=True, tag_field="type", tag="band", omit_defaults=True, forbid_unknown_fields=True):
    """From `low` to `high` on the value axis, over the whole plot; its name is its label."""

    low: float = 0.0
    high: float = 0.0
