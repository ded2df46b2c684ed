"""Lines of text in their place: from a point and an anchor to a measured Text."""

import math
import re
from typing import Literal

import msgspec
from msgspec import Struct

from kavlet.core.charts.lettering import PLAIN, Lettering
from kavlet.core.layout.figure import PlacedLine, PlacedText, TextAnchor, TextKind
from kavlet.core.styling.style import Style
from kavlet.core.text.faces import face, metrics, named_face, tabular
from kavlet.core.text.shaping import width
from kavlet.core.values.affine import turned
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect

FLOOR = 7.0  # points; smaller text is left out rather than shrunk further
_WITH_UNIT = re.compile(r"([−+(-]?[\d.,\s]*\d)[ \u00a0]([%‰°²³/$€£\w]{1,4}\)?)")
LEADING = 1.22  # from baseline to baseline, in font sizes
Rise = Literal["top", "middle", "bottom"]


class TextStyle(Struct, frozen=True):
    """How a line is written: a face, a size in points and a colour."""

    face: str
    size: float
    colour: Colour


def in_figures(text_style: TextStyle) -> TextStyle:
    """The ink of numbers that stand below each other: their figures have one width."""
    return msgspec.structs.replace(text_style, face=tabular(text_style.face))


def lettered(spec: Lettering, text_style: TextStyle, style: Style) -> TextStyle:
    """How a text is written: as its author set it, else as given."""
    if spec == PLAIN:
        return text_style
    usual = named_face(text_style.face)
    bold = usual[0] if spec.bold is None else spec.bold
    italic = usual[1] if spec.italic is None else spec.italic
    return TextStyle(
        face(spec.family or style.family, bold, italic),
        spec.size or text_style.size,
        style.colour(spec.colour) if spec.colour else text_style.colour,
    )


class Anchor(Struct, frozen=True):
    """Where a block of lines stands: a point, `anchor` aligns the lines along it, `rise` sets the block across.

    `angle` turns the block clockwise about the point, in degrees.
    """

    at: Point
    anchor: TextAnchor
    rise: Rise
    angle: float = 0.0


class TextOwner(Struct, frozen=True):
    """What a text belongs to: a row of the table, a layer by its name and key."""

    row: int | None = None
    layer: str = ""
    key: str = ""


NOBODY = TextOwner()


def _with_thin_space(text: str) -> str:
    """A number with its unit, a thin space between them that does not break (ISO 80000-1, 7.1.4, asks for a space)."""
    return f"{found[1]}\u202f{found[2]}" if (found := _WITH_UNIT.fullmatch(text)) else text


def block(
    lines: tuple[str, ...], kind: TextKind, stand: Anchor, text_style: TextStyle, owner: TextOwner = NOBODY
) -> PlacedText:
    """Lines set one below the other. Heights count from the top of capitals to the baseline, so that capitals look
    centred."""
    heights = metrics(text_style.face)
    says = " ".join(lines)
    if kind in ("label", "tick"):
        lines = tuple(map(_with_thin_space, lines))
    cap, step = heights.cap_height * text_style.size, LEADING * text_style.size
    tall = cap + (len(lines) - 1) * step
    point, anchor, angle = stand.at, stand.anchor, stand.angle
    top = point[1] - {"top": 0.0, "middle": tall / 2, "bottom": tall}[stand.rise]
    set_lines: list[PlacedLine] = []
    widest = 0.0
    for i, text in enumerate(lines):
        advance = width(text, text_style.face, text_style.size)
        x = point[0] - {"start": 0.0, "middle": advance / 2, "end": advance}[anchor]
        set_lines.append(PlacedLine(text, x, top + cap + i * step, advance))
        widest = max(widest, advance)
    left_edge = point[0] - {"start": 0.0, "middle": widest / 2, "end": widest}[anchor]
    bounds = Rect(left_edge, top, widest, tall + heights.descent * 0.6 * text_style.size)
    if angle:
        by = turned(angle, *point)
        set_lines = [PlacedLine(line.text, *by.apply(line.x, line.y), line.width) for line in set_lines]
        bounds = turned_bounds(bounds, angle, point)
    return PlacedText(
        says, kind, tuple(set_lines), bounds, anchor, text_style.face, text_style.size, text_style.colour, owner.row,
        owner.layer, owner.key, angle,
    )  # fmt: skip


def within(text: PlacedText, sheet: Rect) -> PlacedText:
    """A text moved by hand or by its place kept on the sheet, so that it can be caught again."""
    dx, dy = text.bounds.way_into(sheet)
    if not (dx or dy):
        return text
    lines = tuple(msgspec.structs.replace(line, x=line.x + dx, y=line.y + dy) for line in text.lines)
    box = text.bounds
    return msgspec.structs.replace(text, lines=lines, bounds=Rect(box.x + dx, box.y + dy, box.width, box.height))


def turned_bounds(rect: Rect, angle: float, about: tuple[float, float]) -> Rect:
    """The upright box around a turned one."""
    by = turned(angle, *about)
    corners = ((rect.x, rect.y), (rect.right, rect.y), (rect.right, rect.bottom), (rect.x, rect.bottom))
    return Rect.around([by.apply(*corner) for corner in corners])


def tall(lines: int, face: str, size: float) -> float:
    """The height of a block of lines, capitals to last baseline."""
    return metrics(face).cap_height * size + max(0, lines - 1) * LEADING * size


def widest(lines: tuple[str, ...], face: str, size: float) -> float:
    """The width of the widest line, in points."""
    return max((width(line, face, size) for line in lines), default=0.0)


def upright(angle: float) -> float:
    """An angle for reading: the same direction, never upside down (-90 to 90)."""
    angle = math.remainder(angle, 360.0)
    return angle - 180 if angle > 90 else angle + 180 if angle < -90 else angle
