"""Where the plot lies: texts are measured first, then margins, then the scales are fixed."""

from math import ceil

from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.points import Points
from kavlet.core.compose.data import Data
from kavlet.core.compose.lettering import FLOOR, LEADING
from kavlet.core.dress.style import Style
from kavlet.core.text.numbers import written
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.geometry import Rect, Size

FULL_SIZE = Size(520, 290)  # from this size on, texts have the theme's size; smaller charts shrink them


class Sizes(Struct, frozen=True):
    """Font sizes of this chart in points."""

    title: float
    subtitle: float
    text: float
    small: float


class Margin(Struct, frozen=True):
    """A strip after the plot for one layer's labels: where it starts along the value axis and how wide it is."""

    start: float
    width: float
    heading: tuple[str, ...]


class Layout(Struct, frozen=True):
    """Everything that is fixed before marks are placed, in points.

    Rows go along one axis, values along the other; `lying` tells which is which. `thickness` and `gap` are those of
    the bars; `every` is 1 when all rows can be named, else each so many-th is.
    """

    size: Size
    pad: float
    sizes: Sizes
    title: tuple[str, ...]
    subtitle: tuple[str, ...]
    source: tuple[str, ...]
    names: tuple[tuple[str, ...], ...]
    name_size: float
    name_strip: float
    margins: dict[str, Margin]
    plot: Rect
    lying: bool
    minimum: float
    maximum: float
    thickness: float
    gap: float
    every: int

    @property
    def pitch(self) -> float:
        return self.thickness + self.gap

    def row_start(self, row: int) -> float:
        """Where a row's bar begins along the row axis."""
        return (self.plot.y if self.lying else self.plot.x) + row * self.pitch

    def along(self, value: float) -> float:
        """The coordinate of a value on its axis; standing bars grow upward."""
        span = self.maximum - self.minimum
        share = (value - self.minimum) / span if span else 0.0
        if self.lying:
            return self.plot.x + share * self.plot.width
        return self.plot.bottom - share * self.plot.height

    def point(self, across: float, along: float) -> tuple[float, float]:
        """x and y of a place given along the row axis and along the value axis."""
        return (along, across) if self.lying else (across, along)


def lay_out(chart: Chart, data: Data, style: Style, size: Size) -> Layout:
    """Measure all texts, then give the plot what is left."""
    shrink = min(1.0, max(0.5, min(size.width / FULL_SIZE.width, size.height / FULL_SIZE.height)))
    sizes = Sizes(
        *(each * shrink for each in (style.title_size, style.subtitle_size, style.text_size, style.small_size))
    )
    pad = min(24.0, max(6.0, 0.055 * min(size.width, size.height)))
    inner = Rect(0, 0, size.width, size.height).inset(pad, pad, pad, pad)
    title = wrapped(chart.texts.title, style.bold, sizes.title, inner.width, 2)
    subtitle = wrapped(chart.texts.subtitle, style.face, sizes.subtitle, inner.width, 2)
    source = wrapped(chart.texts.source, style.face, sizes.small, inner.width, 2)
    above = len(title) * sizes.title * LEADING + len(subtitle) * sizes.subtitle * LEADING
    below = len(source) * sizes.small * LEADING
    room = inner.inset(0, above + (0.8 * sizes.title if above else 0), 0, below + (0.8 * sizes.small if below else 0))
    margins, room = _margins(chart, data, style, sizes, room)
    names, name_size, strip, every, room = _names(chart, data, style, sizes, room)
    length = room.height if chart.lying else room.width
    share = max(0.0, chart.gap_width) / 100
    thickness = length / (data.rows + (data.rows - 1) * share) if data.rows else length
    return Layout(
        size, pad, sizes, title, subtitle, source, names, name_size, strip, margins, room, chart.lying,
        chart.scale.minimum, chart.scale.maximum, thickness, thickness * share, every,
    )  # fmt: skip


def _margins(chart: Chart, data: Data, style: Style, sizes: Sizes, room: Rect) -> tuple[dict[str, Margin], Rect]:
    """Strips after the plot, at the right of lying bars and below standing ones, for labels that stand beside it."""
    margins: dict[str, Margin] = {}
    headed = 0.0
    for layer in reversed(chart.layers):
        if not (isinstance(layer, Points) and layer.beside and layer.label):
            continue
        texts = [written(float(number), layer.label.number, data.locale) for number in data.numbers[layer.values]]
        heading = wrapped(layer.heading, style.face, sizes.small, 5.2 * sizes.text, 3)
        head = max((width(text, style.face, sizes.small) for text in heading), default=0.0)
        widest = max((width(text, style.face, sizes.text) for text in texts), default=0.0)
        headed = max(headed, head if not chart.lying else len(heading) * sizes.small * LEADING)
        if chart.lying:
            taken = max(head, widest)
            margins[layer.key] = Margin(room.right - taken, taken, heading)
            room = room.inset(right=taken + 1.3 * sizes.text)
        else:
            taken = max(1, len(heading)) * sizes.text * LEADING
            margins[layer.key] = Margin(room.bottom - taken, taken, heading)
            room = room.inset(bottom=taken + 0.3 * sizes.text)
    if headed:
        room = room.inset(top=headed + 0.4 * sizes.small) if chart.lying else room.inset(left=headed + sizes.text)
    return margins, room


def _names(
    chart: Chart, data: Data, style: Style, sizes: Sizes, room: Rect
) -> tuple[tuple[tuple[str, ...], ...], float, float, int, Rect]:
    """The rows' names, wrapped; left of lying bars, below standing ones.

    Returns their size, the strip they take, each how-many-th is shown, and the room that is left.
    """
    texts = data.names(chart.names)
    rows = max(1, data.rows)
    if chart.lying:
        pitch = room.height / rows
        size = max(FLOOR, min(sizes.text, pitch / 1.15))
        every = max(1, ceil(1.15 * size / pitch - 1e-9))
        lines = 2 if pitch >= 2 * LEADING * size else 1
        names = tuple(wrapped(text, style.face, size, 0.3 * room.width, lines) for text in texts)
        strip = max((width(part, style.face, size) for name in names for part in name), default=0.0)
        return names, size, strip, every, room.inset(left=strip + (1.3 * size if strip else 0))
    pitch = room.width / rows
    size = max(FLOOR, min(sizes.text, pitch / 3.2))
    every = max(1, ceil(3.2 * size / pitch - 1e-9))
    names = tuple(wrapped(text, style.face, size, 0.94 * pitch * every, 3) for text in texts)
    strip = max((len(name) for name in names), default=0) * size * LEADING
    return names, size, strip, every, room.inset(bottom=strip + (0.6 * size if strip else 0))
