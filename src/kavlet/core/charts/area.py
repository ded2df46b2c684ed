"""Area: what lies between a course and zero, or the area it is stacked on."""

from kavlet.core.charts.layer import Layer, Missing, Stack
from kavlet.core.shapes.curve import Course


class Area(Layer, frozen=True, tag_field="type", tag="area", omit_defaults=True):
    """An area bound to a column. `opacity` is that of the fill; `width` that of the line along its upper side."""

    stack: Stack = "none"
    course: Course = "straight"
    opacity: float = 1.0
    width: float = 0.0
    missing: Missing = "break"
