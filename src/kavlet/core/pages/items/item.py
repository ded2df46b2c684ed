"""What all items of a page have: a name, a place, and whether they can be moved."""

from msgspec import Struct

from kavlet.core.values.geometry import Rect

MIN_SIDE = 4.0  # points; no side of an item is shorter


class Item(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A thing on a page. `x`, `y` is its top left corner from the page's, in points.

    Where `bay` is a number, the item fills the bay of that rank in the page's arrangement, whatever its own place is.
    Items of the same `group` are chosen together. What is `locked` can't be moved, but its figures stay live.
    """

    id: str
    x: float = 0.0
    y: float = 0.0
    width: float = 100.0
    height: float = 100.0
    name: str = ""
    bay: int | None = None
    group: str = ""
    locked: bool = False

    @property
    def kind(self) -> str:
        """Its kind, as files call it."""
        return str(self.__struct_config__.tag)

    @property
    def box(self) -> Rect:
        """Its own place on the page."""
        return Rect(self.x, self.y, self.width, self.height)
