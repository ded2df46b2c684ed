"""How office files are written."""

import msgspec
from msgspec import Struct

from kavlet.core.office.package import Paint
from kavlet.core.office_model.page_model import AnyPart, ChartPart, PageModel, PicturePart
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

LONGEST_TITLE = 255  # letters of what a file is called, for programs that hold it as a property


class WritingOptions(Struct, frozen=True):
    """What paints scenes as PNG; the language of the texts (BCP 47); what the document is called."""

    paint: Paint
    language: str = "en-US"
    title: str = ""


LEVELS = {"title": 1, "heading": 2, "caption": 3}  # of headings in a flowing document


class HeadingLevels:
    """The levels of headings one after the other: none is skipped on the way down."""

    def __init__(self) -> None:
        self._last = 0

    def level(self, wished: int) -> int:
        """The level that a heading of a wished one gets."""
        self._last = min(wished, self._last + 1)
        return self._last


INK = Colour(0.12, 0.16, 0.2)
LIGHT = 0.75  # of full luma, from which on a colour was meant for a dark ground


def readable(of: Colour) -> Colour:
    """A colour as it can be read on white: what was light for a dark ground is ink there."""
    return INK if 0.3 * of.red + 0.59 * of.green + 0.11 * of.blue > LIGHT else of


def pictured(part: ChartPart) -> PicturePart:
    """A chart as a picture in its place."""
    return PicturePart(box=part.box, name=part.name, group=part.group, scene=part.scene, alt_text=part.alt_text)


def with_pictures(page: PageModel) -> list[PageModel]:
    """The page as it is written: with real charts or their pictures, as each is wished; followed by a page of pictures
    where one is wished as both. What has no form as a real chart is a picture in any case."""

    def real(part: AnyPart) -> AnyPart:
        bare = isinstance(part, ChartPart) and (part.as_ == "picture" or not part.can_be_told)
        return pictured(part) if bare and isinstance(part, ChartPart) else part

    made = msgspec.structs.replace(page, parts=tuple(map(real, page.parts)))
    charts = [one for one in made.parts if isinstance(one, ChartPart)]
    if all(one.as_ != "both" for one in charts):
        return [made]
    parts = tuple(pictured(one) if isinstance(one, ChartPart) else one for one in page.parts)
    return [made, msgspec.structs.replace(page, parts=parts, speaker="")]


def reading_order(parts: tuple[AnyPart, ...]) -> list[AnyPart]:
    """Parts from the top down, those beside each other from the left; nobody needs to see them to follow."""
    left = sorted(parts, key=lambda one: (one.box.y, one.box.x))
    lines: list[list[AnyPart]] = []
    for part in left:
        if lines and _beside(lines[-1][0].box, part.box):
            lines[-1].append(part)
        else:
            lines.append([part])
    return [part for line in lines for part in sorted(line, key=lambda one: one.box.x)]


def _beside(box: Rect, other: Rect) -> bool:
    """Whether two boxes stand on one line: the second begins above the first's middle."""
    return other.y < box.y + 0.5 * min(box.height, other.height) and (
        other.x >= box.right - 1 or other.right <= box.x + 1
    )
