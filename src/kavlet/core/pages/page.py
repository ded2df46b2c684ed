"""A page: its size, margins, arrangement and ground, and what stands on it."""

from collections.abc import Iterable

import msgspec
from msgspec import Struct

from kavlet.core.messages import say
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Words
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.sizes import MM, sheets

AnyItem = ChartFrame | Words | KeyFigure | Excerpt | SharedLegend | PlacedPicture | DrawnShape | StepControl
MARGIN_SOURCE = "{source}"  # the field of a page's lines for the charts' source line
MIN_SIDE, MAX_SIDE = 10 * MM, 5_000 * MM
SIZES = ("A4", "A4 lying", "A3", "A3 lying", "A5", "A5 lying", "A6", "A6 lying", "Letter", "Letter lying",
         "Slide 16:9", "Slide 4:3", "Square")  # fmt: skip


def named_size(name: str) -> Size:
    """A page's size by its name, upright or `lying`. Raises KavletError for a name that there is not."""
    if name == "Square":
        return Size(210 * MM, 210 * MM)
    bare = name.removesuffix(" lying")
    if bare not in sheets():
        raise KavletError(
            say("There is no page size “{name}”.", name=name), remedy=say("There are {names}.", names=list(SIZES))
        )
    size = sheets()[bare]
    return Size(size.height, size.width) if name != bare else size


class Page(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A sheet or slide; sizes in points, items back to front.

    `margins` are left, top, right and bottom. `arrangement` divides what lies between them into bays, `shares` holds
    the seams that were moved, by the division's place (see `arrangements.py`). `grid` is rows and columns of small
    multiples. `theme` and `dark` are the document's charts' own where empty or None. `header` and `footer` are lines
    with fields in the margins. A `skipped` page is not presented; `speaker` is what is said to it. `silenced` holds
    the checks that Proof is to leave at what they found, with the reason.
    """

    id: str
    name: str
    width: float = 595.2755905511812
    height: float = 841.8897637795276
    margins: tuple[float, float, float, float] = (20 * MM, 20 * MM, 20 * MM, 20 * MM)
    columns: int = 12
    gutter: float = 6 * MM
    arrangement: str = "free"
    shares: dict[str, tuple[float, ...]] = {}
    grid: tuple[int, int] = (2, 3)
    ground: str = ""
    theme: str = ""
    dark: bool | None = None
    header: str = ""
    footer: str = ""
    items: tuple[AnyItem, ...] = ()
    speaker: str = ""
    skipped: bool = False
    silenced: dict[str, str] = {}

    @property
    def size(self) -> Size:
        """Its width and height."""
        return Size(self.width, self.height)

    @property
    def is_slide(self) -> bool:
        """Whether it has one of the sizes of slides, and so is read from far."""
        slides = (size for name, size in sheets().items() if name.startswith("Slide"))
        return any(abs(one.width - self.width) < 1 and abs(one.height - self.height) < 1 for one in slides)

    @property
    def inner(self) -> Rect:
        """What lies between the margins."""
        left, top, right, bottom = self.margins
        return Rect(0.0, 0.0, self.width, self.height).inset(left, top, right, bottom)

    def item(self, item: str) -> AnyItem:
        """The item of an id. Raises KavletError when there is none."""
        for one in self.items:
            if one.id == item:
                return one
        raise KavletError(say("The item is not on this page."), where=item)


NO_PAGE = Page("", "")  # stands where there is no page


def sized(page: Page, width: float, height: float) -> Page:
    """The page in another size, in points. Raises KavletError for a side that no sheet has."""
    for side in (width, height):
        if not MIN_SIDE <= side <= MAX_SIDE:
            raise KavletError(
                say("A page’s sides are between 10 mm and 5,000 mm."), remedy=say("Choose a size by its name.")
            )
    return msgspec.structs.replace(page, width=width, height=height)


def with_items(page: Page, items: Iterable[AnyItem]) -> Page:
    """The page with the items of the same ids replaced."""
    new = {item.id: item for item in items}
    return msgspec.structs.replace(page, items=tuple(new.get(one.id, one) for one in page.items))
