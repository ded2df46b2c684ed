"""A plain shape on a page: what sets things apart or points at them."""

from typing import Literal

from kavlet.core.pages.items.item import Item
from kavlet.core.values.geometry import Point, Rect

ShapeForm = Literal["rectangle", "rounded", "ellipse", "line", "arrow"]
LEVEL = 6.0  # points; a line in a box that is no thicker is meant to be level, or upright


class DrawnShape(Item, frozen=True, tag_field="item", tag="shape", omit_defaults=True, forbid_unknown_fields=True):
    """Lines and arrows run from the box's top left to its bottom right corner, or upward where `rising`.

    `fill` and `edge` are colours; `radius` rounds corners, in points; `shadow` lies softly below.
    """

    form: ShapeForm = "rectangle"
    fill: str = "track"
    edge: str = ""
    edge_width: float = 1.0
    radius: float = 8.0
    rising: bool = False
    shadow: bool = False


def line_ends(item: DrawnShape, box: Rect) -> tuple[Point, Point]:
    """Where a line or an arrow in a box begins and ends, in points: from corner to corner, or through its middle."""
    if min(box.width, box.height) > LEVEL:
        return (box.x, box.bottom if item.rising else box.y), (box.right, box.y if item.rising else box.bottom)
    if box.width >= box.height:
        return (box.x, box.center[1]), (box.right, box.center[1])
    return (box.center[0], box.y), (box.center[0], box.bottom)
