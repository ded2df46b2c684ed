"""How office files are written."""

import msgspec
from msgspec import Struct

from kavlet.core.files.formats import As
from kavlet.core.office.package import Paint
from kavlet.core.plain.page_model import AnyPart, ChartPart, PicturePart, PlainPage
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect


class Manner(Struct, frozen=True):
    """Charts as real charts, pictures or both; the language of the texts (BCP 47); what paints scenes as PNG."""

    paint: Paint
    language: str = "en-US"
    as_: As = "chart"
    title: str = ""


LEVELS = {"title": 1, "heading": 2, "caption": 3}  # of headings in a flowing document


class Outline:
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


def with_pictures(page: PlainPage, as_: As) -> list[PlainPage]:
    """The page as it is written: with charts, with their pictures instead, or followed by a page of pictures. What has
    no form as a real chart is a picture in any case."""
    parts: list[AnyPart] = [pictured(one) if isinstance(one, ChartPart) else one for one in page.parts]
    pictures = msgspec.structs.replace(page, parts=tuple(parts))
    if as_ == "picture":
        return [pictures]
    told = [pictured(one) if isinstance(one, ChartPart) and not one.can_be_told else one for one in page.parts]
    real = msgspec.structs.replace(page, parts=tuple(told))
    return [real] if as_ == "chart" else [real, msgspec.structs.replace(pictures, speaker="")]


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


def _beside(one: Rect, other: Rect) -> bool:
    """Whether two boxes stand on one line: the second begins above the first's middle."""
    return other.y < one.y + 0.5 * min(one.height, other.height) and (
        other.x >= one.right - 1 or other.right <= one.x + 1
    )
