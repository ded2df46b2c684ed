"""Where labels stand: inside their mark, beyond it where they do not fit, smaller down to a floor, else left out."""

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.labels import Voice
from kavlet.core.charts.points import Points
from kavlet.core.compose.figure import Text
from kavlet.core.compose.lettering import FLOOR, Ink, centred
from kavlet.core.compose.placing import Corner, Placing
from kavlet.core.dress.style import Style
from kavlet.core.text.shaping import width
from kavlet.core.values.colour import Colour, readable

AIR = 0.45  # free space at each side of a label inside its mark, in font sizes
TALL = 0.95  # height a line needs inside a mark, in font sizes


def voiced(voice: Voice, style: Style) -> tuple[str, Colour]:
    """The face and the colour (on the chart's ground) of a way to speak."""
    return {
        "strong": (style.bold, style.ink),
        "plain": (style.face, style.ink),
        "quiet": (style.face, style.quiet),
    }[voice]


def on_bar(layer: Bars, text: str, row: int, corners: list[Corner], fill: Colour, to: Placing) -> Text | None:
    """A bar's label: inside; else just beyond its end; else inside and smaller; else none."""
    if layer.label is None or not to.shown(row):
        return None
    lay, style = to.layout, to.style
    face, colour = voiced(layer.label.voice, style)
    inside_colour = readable(fill, style.white, style.dark_ink)
    size = lay.sizes.text
    long, tall = _room(corners, lay.lying)
    middle = (sum(x for x, _ in corners) / 4, sum(y for _, y in corners) / 4)

    def inside(at_size: float) -> bool:
        return width(text, face, at_size) + 2 * AIR * at_size <= long and TALL * at_size <= tall

    if inside(size):
        return centred(text, "label", middle, "middle", Ink(face, size, inside_colour), row, layer.name)
    beyond_size = max(FLOOR, min(size, lay.pitch / 1.15)) if lay.lying else size
    beyond = _beyond(text, row, corners, Ink(face, beyond_size, colour), layer.name, to)
    if beyond:
        return beyond
    smaller = min(size, tall / TALL, size * long / (width(text, face, size) + 2 * AIR * size))
    if smaller >= FLOOR:
        return centred(text, "label", middle, "middle", Ink(face, smaller, inside_colour), row, layer.name)
    to.dropped += 1
    return None


def _room(corners: list[Corner], lying: bool) -> tuple[float, float]:
    """Width and height of the box inside a bar that a label may use; a tapered one is taken near its narrow end."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = corners
    if lying:
        lead, trail = abs(bx - ax), abs(cx - dx)
        return min(lead, lead + 0.72 * (trail - lead)), abs(dy - ay)
    lead, trail = abs(by - ay), abs(cy - dy)
    return abs(dx - ax), min(lead, lead + 0.5 * (trail - lead))


def _beyond(text: str, row: int, corners: list[Corner], ink: Ink, layer: str, to: Placing) -> Text | None:
    """The label just after the bar's end (at its right, or above a standing one), when it stays in the plot."""
    lay = to.layout
    if lay.lying:
        end = max(corners[1][0], corners[2][0])
        at = (end + AIR * ink.size, (corners[0][1] + corners[3][1]) / 2)
        found = centred(text, "label", at, "start", ink, row, layer)
        return found if found.bounds.right <= lay.plot.right + 0.01 else None
    top = min(corners[1][1], corners[2][1])
    at = ((corners[0][0] + corners[3][0]) / 2, top - 0.75 * ink.size)
    found = centred(text, "label", at, "middle", ink, row, layer)
    fits = found.bounds.y >= lay.plot.y - 0.01 and found.width <= lay.pitch
    return found if fits else None


def at_point(layer: Points, text: str, row: int, at: tuple[float, float], to: Placing) -> Text | None:
    """A spot's label: in a margin aligned to its end, else centred on the spot and small enough for the gap."""
    if layer.label is None or not to.shown(row):
        return None
    lay = to.layout
    face, colour = voiced(layer.label.voice, to.style)
    if layer.beside:
        size = max(FLOOR, min(lay.sizes.text, lay.name_size))
        anchor, most = ("end" if lay.lying else "middle"), lay.pitch * lay.every if not lay.lying else lay.size.width
    else:
        size, anchor, most = lay.sizes.small, "middle", lay.gap if not lay.lying else lay.size.width
        if lay.lying:
            size = min(size, lay.gap / 1.1)
    size = min(size, size * most / max(1e-9, width(text, face, size)))
    if size < FLOOR:
        to.dropped += 1
        return None
    ink = Ink(face, size, colour)
    beyond = _beyond_flank(layer, text, row, ink, to) if layer.on else None
    if beyond:
        return centred(text, "label", beyond, "start" if lay.lying else "middle", ink, row, layer.name)
    if anchor == "middle":
        half = width(text, ink.face, ink.size) / 2
        at = (max(half, min(lay.size.width - half, at[0])), at[1])
    return centred(text, "label", at, "end" if anchor == "end" else "middle", ink, row, layer.name)


def _beyond_flank(layer: Points, text: str, row: int, ink: Ink, to: Placing) -> tuple[float, float] | None:
    """Where a label goes that is too large for the flank behind it: just past the flank's far side."""
    lay = to.layout
    starts, ends = to.spans[layer.on]
    start, end = (float(side[row - 1] + side[row]) / 2 for side in (starts, ends))
    room = abs(lay.along(end) - lay.along(start))
    across = lay.row_start(row) - lay.gap / 2
    if lay.lying:
        past = lay.along(max(float(ends[row - 1]), float(ends[row]))) + AIR * ink.size
        return (past, across) if width(text, ink.face, ink.size) + AIR * ink.size > room else None
    past = lay.along(end) - 0.75 * ink.size
    return (across, past) if 1.3 * ink.size > room else None
