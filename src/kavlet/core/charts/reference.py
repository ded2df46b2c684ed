"""Reference: a line at a value of the scale, over the whole plot or on a polar scale."""

from kavlet.core.charts.layer import Layer


class Reference(Layer, frozen=True, tag_field="type", tag="reference", omit_defaults=True, forbid_unknown_fields=True):
    """A line at `at`; where that is None, at its column's first value, or at 0. Its name is its label."""

    at: float | None = None
    width: float = 1.25
    dash: tuple[float, ...] = (4.0, 3.0)
