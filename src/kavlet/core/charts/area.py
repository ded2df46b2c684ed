"""Area: what lies between a course and zero, or the area it is stacked on."""

from typing import Any

from kavlet.core.charts.layer import Missing, Stacking
from kavlet.core.shapes.curve import Course


class Area(Stacking, frozen=True, tag_field="type", tag="area", omit_defaults=True, forbid_unknown_fields=True):
    """An area bound to a column. `opacity` is that of the fill; `width` that of the line along its upper side."""

    course: Course = "straight"
    opacity: float = 1.0
    width: float = 0.0
    missing: Missing = "break"

    @classmethod
    def adopted(cls, held: dict[str, Any]) -> dict[str, Any]:
        """What an area takes over from a layer of another type."""
        return {name: value for name, value in super().adopted(held).items() if name != "stack"}
