"""Sets the legend: which colour is what. Helpers are never listed."""

from msgspec import Struct

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.legend import Legend, LegendSide
from kavlet.core.charts.line import Line
from kavlet.core.charts.points import Points
from kavlet.core.charts.wedges import Wedges
from kavlet.core.compose.data import Data
from kavlet.core.compose.figure import Key, PlacedText
from kavlet.core.compose.furniture import Sizes
from kavlet.core.compose.marks.painting import fill_of, painted, picture
from kavlet.core.compose.words.lettering import Ink, block
from kavlet.core.compose.words.wording import Wording
from kavlet.core.dress.fills import Fill
from kavlet.core.dress.style import Style
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.box import box
from kavlet.core.shapes.curve import course
from kavlet.core.shapes.spots import spot
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import shortened
from kavlet.core.values.geometry import Rect


class Item(Struct, frozen=True):
    """One entry: its name, fill and tone, and the layer it stands for (None: an entry of its own)."""

    name: str
    fill: Fill | None
    tone: int
    layer: AnyLayer | None = None


def items(chart: Chart, data: Data, wording: Wording) -> list[Item]:
    """The entries in the order of the layers; a layer whose rows or parts differ in colour lists those."""
    if chart.legend.entries:
        return [Item(entry.name, entry.fill, entry.tone) for entry in chart.legend.entries]
    found: list[Item] = []
    for layer in chart.layers:
        if layer.helper or layer.hidden or not layer.listed:
            continue
        if isinstance(layer, Wedges) and layer.parts:
            found += [
                Item(data.titles.get(column, ""), None, layer.tone + i, layer) for i, column in enumerate(layer.parts)
            ]
        elif isinstance(layer, Wedges | Cells) and (layer.vary or isinstance(layer, Wedges)):
            for row in range(data.rows):
                fill, tone = fill_of(layer, data.ids[row], row, data)
                if wording.names[row] and data.column(layer.values)[row] > 0:
                    found.append(Item(wording.names[row], fill, tone, layer))
        elif isinstance(layer, Bars | Line | Area | Bubbles | Band) or (isinstance(layer, Points) and layer.at is None):
            found.append(Item(layer.name, layer.fill, layer.tone, layer))
    return found


def names(chart: Chart, data: Data, wording: Wording) -> tuple[str, ...]:
    """What a legend lists, for the record."""
    return tuple(item.name for item in items(chart, data, wording))


def lay_out(
    chart: Chart,
    data: Data,
    style: Style,
    sizes: Sizes,
    wording: Wording,
    room: Rect,
    dock: LegendSide = "top",
    hug: float | None = None,
) -> tuple[tuple[Key, ...], list[PlacedText], Rect]:
    """The legend's entries in their place, their texts, and the room it leaves.

    "auto" is above the plot where there are two entries or more; a pie's, waffle's or ring's stands at its right, and
    close to a plot that is only `hug` points wide.
    """
    spec = chart.legend
    entries = items(chart, data, wording) if spec.side != "none" else []
    side = spec.side
    if side == "auto":
        side = dock if len(entries) > 1 else "none"
    keys: list[Key] = []
    texts: list[PlacedText] = []
    if side != "none" and entries:
        if side in ("top", "bottom"):
            keys, texts, room = _row(spec, entries, data, style, sizes, room, side == "top")
        else:
            keys, texts, room = _column(spec, entries, data, style, sizes, room, side, hug)
    if spec.key:
        key, text, room = _unit_key(spec, data, style, sizes, room)
        keys.append(key)
        texts.append(text)
    return tuple(keys), texts, room


def _row(
    spec: Legend, entries: list[Item], data: Data, style: Style, sizes: Sizes, room: Rect, top: bool
) -> tuple[list[Key], list[PlacedText], Rect]:
    """Entries after each other, wrapped to as many lines as they need."""
    ink = Ink(style.face, sizes.small * 1.06, style.ink)
    chip, gap = 0.95 * ink.size, 1.5 * ink.size
    pitch = 1.55 * ink.size
    lines: list[list[tuple[Item | None, str, float]]] = [[]]
    used = 0.0
    heads: list[tuple[Item | None, str]] = [(None, spec.title)] if spec.title else []
    for item, name in [*heads, *((entry, entry.name) for entry in entries)]:
        text = shortened(name, ink.face, ink.size, max(ink.size, room.width - 3 * ink.size))
        wide = width(text, ink.face, ink.size) + (chip + 0.5 * ink.size if item is not None else 0.0)
        if lines[-1] and used + wide > room.width:
            lines.append([])
            used = 0.0
        lines[-1].append((item, text, wide))
        used += wide + gap
    tall = len(lines) * pitch
    y = room.y if top else room.bottom - tall
    keys: list[Key] = []
    texts: list[PlacedText] = []
    for number, line in enumerate(lines):
        x = room.x
        middle = y + (number + 0.5) * pitch
        for item, text, wide in line:
            if item is None:
                texts.append(
                    block((text,), "legend", (x, middle), "start", "middle", Ink(style.face, ink.size, style.quiet))
                )
            else:
                keys.append(_key(item, Rect(x, middle - chip / 2, chip, chip), data, style))
                texts.append(block((text,), "legend", (x + chip + 0.5 * ink.size, middle), "start", "middle", ink))
            x += wide + gap
    air = 0.7 * ink.size
    return keys, texts, room.inset(top=tall + air) if top else room.inset(bottom=tall + air)


def _column(
    spec: Legend,
    entries: list[Item],
    data: Data,
    style: Style,
    sizes: Sizes,
    room: Rect,
    side: str,
    hug: float | None,
) -> tuple[list[Key], list[PlacedText], Rect]:
    """Entries below each other: at the left or right in a strip of their own, or inside the plot."""
    shrink = min(1.0, room.height / (1.55 * sizes.text * (len(entries) + bool(spec.title))))
    size = max(6.0, sizes.text * 0.96 * shrink)
    ink = Ink(style.face, size, style.ink)
    chip, pitch = 0.95 * size, min(1.65 * size, room.height / max(1, len(entries) + bool(spec.title)))
    fits = max(1, int(room.height / pitch + 1e-6) - bool(spec.title))
    entries = entries[:fits]
    most = 0.42 * room.width - chip
    texts_in = [shortened(item.name, ink.face, size, most) for item in entries]
    wide = max((width(text, ink.face, size) for text in texts_in), default=0.0) + chip + 0.6 * size
    if spec.title:
        wide = max(wide, min(width(spec.title, ink.face, size), most))
    tall = pitch * (len(entries) + bool(spec.title))
    if side == "inside":
        x = room.x + spec.x * (room.width - wide)
        y = room.y + spec.y * (room.height - tall)
    else:
        x = room.right - wide if side == "right" else room.x
        if side == "right" and hug is not None:
            x = min(x, room.x + hug + 2.2 * size)
        y = room.center[1] - tall / 2
    keys: list[Key] = []
    texts: list[PlacedText] = []
    if spec.title:
        head = shortened(spec.title, ink.face, size, most)
        texts.append(block((head,), "legend", (x, y + pitch / 2), "start", "middle", Ink(ink.face, size, style.quiet)))
        y += pitch
    for number, (item, text) in enumerate(zip(entries, texts_in, strict=True)):
        middle = y + (number + 0.5) * pitch
        keys.append(_key(item, Rect(x, middle - chip / 2, chip, chip), data, style))
        texts.append(block((text,), "legend", (x + chip + 0.6 * size, middle), "start", "middle", ink))
    if side == "inside":
        return keys, texts, room
    taken = wide + 2 * size
    if side == "right":
        return keys, texts, room.inset(right=max(taken, room.right - x + 2 * size))
    return keys, texts, room.inset(left=taken)


def _key(item: Item, chip: Rect, data: Data, style: Style) -> Key:
    layer = item.layer
    colour = style.solid(item.fill, item.tone)
    drawn: tuple[Primitive, ...]
    if isinstance(layer, Line):
        middle = chip.center[1]
        stroke = recorded(course, [(chip.x - 1, middle), (chip.right + 1, middle)], "straight")
        drawn = (Shape(stroke, None, colour, min(layer.width, 3.0), dash=layer.dash),)
        if layer.spot != "none":
            drawn = (*drawn, Shape(recorded(spot, *chip.center, 0.75 * chip.width, layer.spot), colour))
    elif isinstance(layer, Points):
        held = data.picture(layer.symbol) if layer.symbol else None
        form = "bar" if layer.spot == "tick" else layer.spot
        drawn = (
            (picture(held, chip, colour),)
            if held is not None
            else (Shape(recorded(spot, *chip.center, chip.width, form), colour),)
        )
    else:
        round_ = isinstance(layer, Bubbles) or (isinstance(layer, Cells) and layer.cell == "disc")
        path = recorded(spot, *chip.center, chip.width, "disc") if round_ else recorded(box, chip, 0.18 * chip.width)
        drawn = painted(item.fill, item.tone, path, chip, style, data, "up")
    return Key(item.name, drawn, chip)


def _unit_key(spec: Legend, data: Data, style: Style, sizes: Sizes, room: Rect) -> tuple[Key, PlacedText, Rect]:
    """The line that says what one symbol stands for, at the foot."""
    size = sizes.small
    chip = 1.15 * size
    middle = room.bottom - 0.5 * chip
    held = data.picture(spec.key_symbol) if spec.key_symbol else None
    area = Rect(room.x, middle - chip / 2, chip, chip)
    drawn: tuple[Primitive, ...] = (
        (picture(held, area, style.quiet),)
        if held is not None
        else (Shape(recorded(box, area.inset(1, 1, 1, 1), 1.5), style.quiet),)
    )
    text = block(
        (spec.key,),
        "legend",
        (room.x + chip + 0.45 * size, middle),
        "start",
        "middle",
        Ink(style.face, size, style.quiet),
    )
    return Key(spec.key, drawn, area), text, room.inset(bottom=1.9 * size)
