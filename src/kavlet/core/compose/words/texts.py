"""Sets what stands around the plot: title, subtitle and source line; and free texts."""

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.texts import Note
from kavlet.core.charts.texts import Text as TextSpec
from kavlet.core.compose.figure import Anchor, PlacedText, TextKind
from kavlet.core.compose.furniture import Sizes
from kavlet.core.compose.words.lettering import LEADING, Ink, block, tall
from kavlet.core.dress.style import Style
from kavlet.core.text.faces import face
from kavlet.core.text.faces import metrics as metrics_of
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.geometry import Rect, Size


def around(chart: Chart, style: Style, sizes: Sizes, inner: Rect) -> tuple[list[PlacedText], Rect]:
    """Title and subtitle at the top, the source at the bottom; and the room between them."""
    texts: list[PlacedText] = []
    top = inner.y
    for kind, spec, size, bold, colour in (
        ("title", chart.title, sizes.title, True, style.ink),
        ("subtitle", chart.subtitle, sizes.subtitle, False, style.quiet),
    ):
        made = _set(kind, spec, size, bold, colour, style, inner, top)  # type: ignore[arg-type]
        if made is not None:
            texts.append(made)
            top += _height(made)
    room = inner.inset(top=top - inner.y + (0.8 * sizes.title if texts else 0.0))
    foot = _set("source", chart.source, sizes.small, False, style.quiet, style, inner, 0.0)
    if foot is not None:
        height = _height(foot)
        foot = _set("source", chart.source, sizes.small, False, style.quiet, style, inner, inner.bottom - height)
        room = room.inset(bottom=height + 0.8 * sizes.small)
        texts += [foot] if foot is not None else []
    return texts, room


def _height(text: PlacedText) -> float:
    return len(text.lines) * text.size * LEADING


def _set(
    kind: TextKind, spec: TextSpec, size: float, bold: bool, colour: object, style: Style, inner: Rect, top: float
) -> PlacedText | None:
    if not spec.text.strip():
        return None
    size = spec.size or size
    key = face(style.family, bold if spec.bold is None else spec.bold, spec.italic)
    lines = wrapped(spec.text, key, size, inner.width, 2)
    if not lines:
        return None
    ink = Ink(key, size, style.colour(spec.colour) if spec.colour else colour)  # type: ignore[arg-type]
    x = {"start": inner.x, "middle": inner.center[0], "end": inner.right}[spec.align]
    anchor: Anchor = spec.align
    return block(lines, kind, (x + spec.dx, top + 0.12 * size + spec.dy), anchor, "top", ink)


def note(
    spec: Note, style: Style, sizes: Sizes, size: Size, middle: tuple[float, float], room: float
) -> PlacedText | None:
    """A free text, about its place or the frame's middle; smaller where the middle leaves it less `room`."""
    if not spec.text.strip():
        return None
    key = face(style.family, spec.bold, spec.italic)
    points = spec.size or (1.9 * sizes.text if spec.middle else sizes.text)
    lines = tuple(spec.text.split("\n"))
    if spec.middle and room > 0:
        from kavlet.core.compose.words.lettering import widest

        points = min(points, points * room / max(1e-6, widest(lines, key, points)))
    colour = style.colour(spec.colour) if spec.colour else style.ink
    x, y = middle if spec.middle else (spec.x * size.width, spec.y * size.height)
    return block(lines, "note", (x, y), spec.align, "middle", Ink(key, points, colour), key=spec.key)


def tall_of(lines: int, key: str, size: float) -> float:
    """The height of a block of lines with room below its last baseline."""
    return tall(lines, key, size) + metrics_of(key).descent * size
