"""Line: a course through the rows' values, with or without a shape at each."""

from kavlet.core.charts.layer import Layer, Missing
from kavlet.core.shapes.curve import Course
from kavlet.core.shapes.spots import SpotForm


class Line(Layer, frozen=True, tag_field="type", tag="line", omit_defaults=True, forbid_unknown_fields=True):
    """A line bound to a column; `x` names a column for its places where they are not the rows. Widths are points.

    A missing value breaks the line, is bridged, or drops it to zero.
    """

    x: str = ""
    course: Course = "straight"
    width: float = 2.25
    dash: tuple[float, ...] = ()
    spot: SpotForm = "none"
    size: float = 7.0
    missing: Missing = "break"

    @property
    def across_column(self) -> str:
        """The column of the places across; empty where rows stand at equal steps."""
        return self.x
