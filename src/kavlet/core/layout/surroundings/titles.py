"""Sets what stands around the plot: title, subtitle and source line; and free texts."""

from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.texts import Note
from kavlet.core.charts.texts import Text as TextSpec
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import PlacedText, TextKind
from kavlet.core.layout.furniture import Sizes
from kavlet.core.layout.texts.text_lines import LEADING, Anchor, TextOwner, TextStyle, block, widest, within
from kavlet.core.styling.style import Style
from kavlet.core.text.faces import face
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect


class _Line(Struct, frozen=True):
    """One of the lines around a chart: what it is and says, and its look where its author set none."""

    kind: TextKind
    spec: TextSpec
    size: float
    bold: bool
    colour: Colour


def around(chart: Chart, style: Style, sizes: Sizes, inner: Rect, sheet: Rect) -> tuple[list[PlacedText], Rect]:
    """Title and subtitle at the top, the source at the bottom, all on the `sheet`; and the room between them."""
    texts: list[PlacedText] = []
    top = inner.y
    for line in (
        _Line("title", chart.title, sizes.title, True, style.ink),
        _Line("subtitle", chart.subtitle, sizes.subtitle, False, style.quiet),
    ):
        made = _set(line, style, inner, top)
        if made is not None:
            texts.append(made)
            top += _height(made)
    room = inner.inset(top=top - inner.y + (style.spaces.head * sizes.title if texts else 0.0))
    source = _Line("source", chart.source, sizes.small, False, style.quiet)
    foot = _set(source, style, inner, 0.0)
    if foot is not None:
        height = _height(foot)
        foot = _set(source, style, inner, inner.bottom - height)
        room = room.inset(bottom=height + style.spaces.foot * sizes.small)
        texts += [foot] if foot is not None else []
    return [within(text, sheet) for text in texts], room


def _height(text: PlacedText) -> float:
    return len(text.lines) * text.size * LEADING


def _set(line: _Line, style: Style, inner: Rect, top: float) -> PlacedText | None:
    spec = line.spec
    if not spec.text.strip():
        return None
    size = spec.size or line.size
    key = face(spec.family or style.family, line.bold if spec.bold is None else spec.bold, spec.italic)
    lines = wrapped(spec.text, key, size, inner.width, 2)
    if not lines:
        return None
    text_style = TextStyle(key, size, style.colour(spec.colour) if spec.colour else line.colour)
    x = {"start": inner.x, "middle": inner.center[0], "end": inner.right}[spec.align]
    at = (x + spec.dx, top + 0.12 * size + spec.dy)
    return block(lines, line.kind, Anchor(at, spec.align, "top"), text_style)


def note(spec: Note, context: Context, middle: Point, room: float, above: list[Rect]) -> PlacedText | None:
    """A free text, about its place or the frame's middle; smaller where the middle leaves it less `room`, moved below
    the texts `above` where it keeps clear of them."""
    if not spec.text.strip():
        return None
    style, sizes, sheet = context.style, context.sizes, context.sheet
    key = face(spec.family or style.family, spec.bold, spec.italic)
    points = spec.size or (1.9 * sizes.text if spec.middle else sizes.text)
    lines = tuple(spec.text.split("\n"))
    if spec.middle and room > 0:
        points = min(points, points * room / max(1e-6, widest(lines, key, points)))
    colour = style.colour(spec.colour) if spec.colour else style.ink
    point = middle if spec.middle else (spec.x * sheet.width, spec.y * sheet.height)
    text = block(
        lines, "note", Anchor(point, spec.align, "middle"), TextStyle(key, points, colour), TextOwner(key=spec.key)
    )
    hit = [bounds.bottom for bounds in above if spec.clear and bounds.overlaps(text.bounds)]
    if hit:
        lower = (point[0], max(hit) + 0.25 * points + text.bounds.height / 2)
        text = block(
            lines, "note", Anchor(lower, spec.align, "middle"), TextStyle(key, points, colour), TextOwner(key=spec.key)
        )
    return within(text, Rect(0.0, 0.0, sheet.width, sheet.height))
