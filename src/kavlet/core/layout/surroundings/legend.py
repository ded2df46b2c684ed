"""Sets the legend: which colour is what. Helpers are never listed."""

from msgspec import Struct

from kavlet.core.charts.legend import Entry, LegendSide
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import Key, PlacedText
from kavlet.core.layout.kind import BEFORE_FIGURE, PLAIN, LegendEntry
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.painting import fill_of, picture
from kavlet.core.layout.texts.text_lines import FLOOR, NOBODY, Anchor, TextOwner, TextStyle, block, lettered
from kavlet.core.messages import words_in
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.box import box
from kavlet.core.styling.fills import Fill
from kavlet.core.text.disambiguate import disambiguated
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import shortened
from kavlet.core.values.geometry import Point, Rect

CHIP = 0.95  # side of the box beside an entry, in font sizes
MAX_TALL = 0.4  # of the room, for a legend above or below the plot
CLOSEST = 1.25  # from entry to entry at least, in font sizes


def items(context: Context) -> list[LegendEntry]:
    """The entries in the order of the layers; a layer whose rows or parts differ in colour lists those."""
    chart = context.chart
    if chart.legend.entries:
        return [
            LegendEntry(entry.name, *_fill(entry, context), None, entry.row, entry.figure)
            for entry in chart.legend.entries
        ]
    shown = [layer for layer in chart.layers if layer.listed and not (layer.helper or layer.hidden)]
    return [item for layer in shown for item in kind_of(layer).entries(layer, context)]


def _fill(entry: Entry, context: Context) -> tuple[Fill | None, int]:
    """What an entry of its own shows: its fill, else that of the row it stands for where rows differ."""
    varied = next((layer for layer in context.chart.layers if layer.vary and not layer.helper), None)
    if entry.fill is not None or entry.row is None or varied is None or entry.row not in context.data.ids:
        return entry.fill, entry.tone
    return fill_of(varied, entry.row, context.data.ids.index(entry.row), context.data)


def names(context: Context) -> tuple[str, ...]:
    """What a legend lists, for the record."""
    return tuple(item.text for item in items(context))


class LegendLayout(Struct):
    """The legend as it is set: its entries and texts, the room it leaves, and how many entries found no room."""

    keys: list[Key]
    texts: list[PlacedText]
    room: Rect
    left_out: int = 0

    def key(self, item: LegendEntry, at: Point, size: float, context: Context) -> None:
        """An entry's chip at a point, for texts of a size."""
        side = CHIP * size
        chip = Rect(at[0], at[1] - side / 2, side, side)
        kind = kind_of(item.layer) if item.layer is not None else PLAIN
        self.keys.append(Key(item.name, kind.key(item, item.layer, chip, context), chip))

    def text(self, text: str, at: Point, text_style: TextStyle, item: LegendEntry | None = None) -> None:
        """One line of the legend, its left end at a point; an entry's where one is given."""
        layer = item.layer if item is not None else None
        owner = TextOwner(item.row, "", layer.key if layer is not None else "") if item is not None else NOBODY
        self.texts.append(block((text,), "legend", Anchor(at, "start", "middle"), text_style, owner))


def _fitted(entries: list[LegendEntry], text_style: TextStyle, most: float) -> list[str]:
    """The entries' texts in one line each: names shortened so that they can be told apart, figures whole."""
    after = [f"{BEFORE_FIGURE}{item.figure}" if item.figure else "" for item in entries]
    room = max(
        text_style.size, most - max((width(text, text_style.face, text_style.size) for text in after), default=0.0)
    )
    lines = disambiguated([item.name for item in entries], text_style.face, text_style.size, room)
    return [" ".join(held) + text for held, text in zip(lines, after, strict=True)]


def lay_out(context: Context, room: Rect, dock: LegendSide = "top", hug: float | None = None) -> LegendLayout:
    """The legend's entries in their place, their texts, and the room it leaves.

    "auto" is above the plot where there are two entries or more; a pie's, waffle's or ring's stands at its right, and
    close to a plot that is only `hug` points wide.
    """
    spec = context.chart.legend
    entries = items(context) if spec.side != "none" else []
    entries = entries[::-1] if spec.reversed else entries
    side = spec.side
    if side == "auto":
        side = dock if len(entries) > 1 else "none"
    made = LegendLayout([], [], room)
    if side != "none" and entries:
        if side in ("top", "bottom"):
            _row(entries, context, made, side == "top")
        else:
            _column(entries, context, made, side, hug)
    if spec.ground and made.texts:
        made.keys.insert(0, _ground(made, context))
    if spec.key:
        _unit_key(context, made)
    return made


def _ground(made: LegendLayout, context: Context) -> Key:
    """A colour behind the legend, a little wider than its entries."""
    around = Rect.around_all([*(text.bounds for text in made.texts), *(key.bounds for key in made.keys)])
    air = 0.5 * made.texts[0].size
    area = around.inset(-air, -air, -air, -air)
    colour = context.style.colour(context.chart.legend.ground)
    return Key("", (Shape(recorded(box, area, min(context.style.corner, air)), colour),), area)


def _row(entries: list[LegendEntry], context: Context, made: LegendLayout, top: bool) -> None:
    """Entries after each other, wrapped to as many lines as they need."""
    spec, style, room = context.chart.legend, context.style, made.room
    text_style = lettered(spec.text, TextStyle(style.face, context.sizes.small * 1.06, style.ink), style)
    chip, gap, air = CHIP * text_style.size, style.spaces.entry * text_style.size, 0.5 * text_style.size
    pitch = style.spaces.line * text_style.size
    most_wide = min(room.width, spec.width) if spec.width is not None else room.width
    lines: list[list[tuple[LegendEntry | None, str, float]]] = [[]]
    used = 0.0
    most = max(text_style.size, most_wide - 3 * text_style.size)
    heads: list[tuple[LegendEntry | None, str]] = []
    if spec.title:
        heads.append((None, shortened(spec.title, text_style.face, text_style.size, most)))
    for item, text in [*heads, *zip(entries, _fitted(entries, text_style, most), strict=True)]:
        wide = width(text, text_style.face, text_style.size) + (chip + air if item is not None else 0.0)
        if lines[-1] and used + wide > most_wide:
            lines.append([])
            used = 0.0
        lines[-1].append((item, text, wide))
        used += wide + gap
    most = max(1, int(MAX_TALL * room.height / pitch))
    if len(lines) > most:
        lines = lines[:most]
        lines[-1] = lines[-1][: len(lines[-1]) // 2]  # room for the words that more is left out
        made.left_out = len(entries) - sum(item is not None for line in lines for item, _, _ in line)
        lines[-1].append((None, _more(context, made.left_out), 0.0))
    tall = len(lines) * pitch
    y = room.y if top else room.bottom - tall
    for number, line in enumerate(lines):
        x, middle = room.x, y + (number + 0.5) * pitch
        for item, text, wide in line:
            if item is None:
                made.text(text, (x, middle), TextStyle(text_style.face, text_style.size, style.quiet))
            else:
                made.key(item, (x, middle), text_style.size, context)
                made.text(text, (x + chip + air, middle), text_style, item)
            x += wide + gap
    tall += 0.7 * text_style.size
    made.room = room.inset(top=tall) if top else room.inset(bottom=tall)


def _more(context: Context, count: int) -> str:
    return words_in(context.data.locale, "and {count} more", count=count)


def _column(entries: list[LegendEntry], context: Context, layout: LegendLayout, side: str, hug: float | None) -> None:
    """Entries below each other: at the left or right in a strip of their own, or inside the plot."""
    spec, style, room = context.chart.legend, context.style, layout.room
    shrink = min(1.0, room.height / (style.spaces.line * context.sizes.text * (len(entries) + bool(spec.title))))
    text_style = lettered(
        spec.text, TextStyle(style.face, max(FLOOR, context.sizes.text * 0.96 * shrink), style.ink), style
    )
    size = text_style.size
    chip = CHIP * size
    pitch = min(
        (style.spaces.line + 0.1) * size, max(CLOSEST * size, room.height / max(1, len(entries) + bool(spec.title)))
    )
    fits = max(1, int(room.height / pitch + 1e-6) - bool(spec.title))
    count_shown = len(entries) if len(entries) <= fits else max(0, fits - 1)
    layout.left_out = len(entries) - count_shown
    entries = entries[:count_shown]
    most = (min(spec.width, room.width) if spec.width is not None else 0.42 * room.width) - chip
    texts_in = _fitted(entries, text_style, most)
    if layout.left_out:
        texts_in.append(shortened(_more(context, layout.left_out), text_style.face, size, most))
    wide = max((width(text, text_style.face, size) for text in texts_in), default=0.0) + chip + 0.6 * size
    if spec.title:
        wide = max(wide, min(width(spec.title, text_style.face, size), most))
    tall = pitch * (len(texts_in) + bool(spec.title))
    if side == "inside":
        x = room.x + spec.x * (room.width - wide)
        y = room.y + spec.y * (room.height - tall)
    else:
        x = room.right - wide if side == "right" else room.x
        if side == "right" and hug is not None:
            x = min(x, room.x + hug + 2.2 * size)
        y = room.center[1] - tall / 2
    if spec.title:
        layout.text(
            shortened(spec.title, text_style.face, size, most),
            (x, y + pitch / 2),
            TextStyle(text_style.face, size, style.quiet),
        )
        y += pitch
    for number, text in enumerate(texts_in):
        middle = y + (number + 0.5) * pitch
        if number < len(entries):
            layout.key(entries[number], (x, middle), size, context)
        layout.text(
            text, (x + chip + 0.6 * size, middle), text_style, entries[number] if number < len(entries) else None
        )
    width_used = wide + 2 * size
    if side == "right":
        layout.room = room.inset(right=max(width_used, room.right - x + 2 * size))
    elif side == "left":
        layout.room = room.inset(left=width_used)


def _unit_key(context: Context, layout: LegendLayout) -> None:
    """The line that says what one symbol stands for, at the foot."""
    spec, style, size, room = context.chart.legend, context.style, context.sizes.small, layout.room
    chip = 1.15 * size
    middle = room.bottom - 0.5 * chip
    motif = context.data.picture(spec.key_symbol) if spec.key_symbol else None
    area = Rect(room.x, middle - chip / 2, chip, chip)
    sample: Primitive = (
        picture(motif, area, style.quiet)
        if motif is not None
        else Shape(recorded(box, area.inset(1, 1, 1, 1), 1.5), style.quiet)
    )
    layout.keys.append(Key(spec.key, (sample,), area))
    layout.text(spec.key, (room.x + chip + 0.45 * size, middle), TextStyle(style.face, size, style.quiet))
    layout.room = room.inset(bottom=1.9 * size)
