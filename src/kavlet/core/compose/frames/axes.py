"""Draws the axes of a Cartesian frame: gridlines, ticks, titles, the line that bars stand on."""

from msgspec import Struct

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.scale import Scale
from kavlet.core.compose.data import Data
from kavlet.core.compose.figure import PlacedAxis, PlacedRule, PlacedText, RuleKind
from kavlet.core.compose.frames import names as row_names
from kavlet.core.compose.frames.names import Names
from kavlet.core.compose.frames.plane import Plane
from kavlet.core.compose.frames.scales import Scaled
from kavlet.core.compose.furniture import Furniture, Sizes, small_ink
from kavlet.core.compose.words.lettering import Ink, block
from kavlet.core.dress.style import Style
from kavlet.core.text.numbers import written
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import NumberText


class Shown(Struct, frozen=True):
    """What of an axis is drawn, after the chart's ink and what the axis sets itself."""

    labels: bool
    line: bool
    grid: bool
    minor: bool


def shown(scale: Scale, ink: int, across: bool = False) -> Shown:
    """The across axis always names its rows unless it is set invisible; all else follows the ink."""
    visible = scale.visible if scale.visible is not None else (across or ink >= 1)
    line = scale.line if scale.line is not None else visible and ink >= 2
    grid = scale.grid if scale.grid is not None else (ink >= 1 and not across) or ink >= 3
    return Shown(visible, line, grid, scale.minor > 1 and (ink >= 3 or scale.grid is True))


def tick_text(value: float, scale: Scale, data: Data) -> str:
    """A tick as text: a date, or a number without more decimals than its steps need."""
    if scale.number is not None:
        return written(value, scale.number, data.locale)
    how = NumberText(style="date") if scale.kind == "date" else NumberText(most_decimals=6)
    return written(value, how, data.locale)


def furniture(
    chart: Chart, frame: Cartesian, data: Data, style: Style, sizes: Sizes, plane: Plane, names: Names,
    what: tuple[Shown, Shown | None, Shown], numeric: bool,
) -> Furniture:  # fmt: skip
    first, second, across = what
    under: list[PlacedRule] = []
    over: list[PlacedRule] = []
    texts: list[PlacedText] = []
    tick_ink = small_ink(style, sizes)
    _value_axis(frame.along, plane, plane.first, first, style, tick_ink, data, False, under, over, texts)
    if plane.second is not None and second is not None and frame.second is not None:
        bare = Shown(second.labels, second.line, frame.second.grid is True, False)
        _value_axis(frame.second, plane, plane.second, bare, style, tick_ink, data, True, under, over, texts)
    if numeric and plane.across is not None:
        _numeric_across(frame, plane, across, style, tick_ink, data, under, over, texts)
    else:
        texts += row_names.texts(plane, names, Ink(style.face, names.size, style.ink))
        if across.grid:
            under += _row_rules(plane, style)
    if frame.across.title and across.labels:
        texts.append(_across_title(frame, plane, names, tick_ink))
    texts += _headings(plane, tick_ink)
    _zero_line(chart, plane, frame, across, numeric, style, over)
    boxed = frame.boxed if frame.boxed is not None else chart.ink >= 3
    if boxed:
        under += _box(plane.plot, style)
    axes = [_axis("x" if plane.lying else "y", plane.first, first.labels)]
    if plane.second is not None and second is not None:
        axes.append(_axis("x2" if plane.lying else "y2", plane.second, second.labels))
    if numeric and plane.across is not None:
        axes.append(_axis("y" if plane.lying else "x", plane.across, across.labels))
    return Furniture(tuple(under), tuple(over), tuple(texts), tuple(axes))


def _axis(name: str, at: Scaled, visible: bool) -> PlacedAxis:
    return PlacedAxis(name, at.minimum, at.maximum, visible, at.ticks if visible else ())


def _value_axis(
    scale: Scale, plane: Plane, at: Scaled, what: Shown, style: Style, ink: Ink, data: Data, second: bool,
    under: list[PlacedRule], over: list[PlacedRule], texts: list[PlacedText],
) -> None:  # fmt: skip
    """Gridlines, tick labels, axis line and title of a value axis."""
    plot = plane.plot
    grid = style.line.faded(max(0.0, min(1.0, scale.strength + 0.25)))
    if what.grid:
        under += [_line("grid", plane, plane.along(tick, second), grid, 0.75) for tick in at.ticks]
    if what.minor:
        faint = style.line.faded(0.5 * scale.strength)
        under += [_line("minor", plane, plane.along(tick, second), faint, 0.5) for tick in at.minors]
    if what.labels:
        for tick in at.ticks:
            place = plane.along(tick, second)
            text = (tick_text(tick, scale, data),)
            if plane.lying:
                y = plot.y - 0.45 * ink.size if second else plot.bottom + 0.5 * ink.size
                texts.append(block(text, "tick", (place, y), "middle", "bottom" if second else "top", ink))
            else:
                x = plot.right + 0.55 * ink.size if second else plot.x - 0.55 * ink.size
                texts.append(block(text, "tick", (x, place), "start" if second else "end", "middle", ink))
        texts[:] = _unclashed(texts)
    if what.line:
        if plane.lying:
            y = plot.y if second else plot.bottom
            over.append(PlacedRule("axis", plot.x, y, plot.right, y, style.quiet, 0.9))
        else:
            x = plot.right if second else plot.x
            over.append(PlacedRule("axis", x, plot.y, x, plot.bottom, style.quiet, 0.9))
    if scale.title and what.labels:
        texts.append(_value_title(scale.title, plane, second, ink, texts))


def _unclashed(texts: list[PlacedText]) -> list[PlacedText]:
    """Tick labels without those that would overlap the one before."""
    kept: list[PlacedText] = []
    for text in texts:
        if text.kind != "tick" or not any(
            other.kind == "tick" and other.bounds.overlaps(text.bounds) for other in kept[-2:]
        ):
            kept.append(text)
    return kept


def _value_title(title: str, plane: Plane, second: bool, ink: Ink, texts: list[PlacedText]) -> PlacedText:
    plot = plane.plot
    if plane.lying:
        y = plot.y - 2.2 * ink.size if second else plot.bottom + 2.1 * ink.size
        return block((title,), "axis title", (plot.right, y), "end", "top", ink)
    ticks = [text.bounds for text in texts if text.kind == "tick"]
    if second:
        x = max((box.right for box in ticks), default=plot.right) + 0.6 * ink.size
        return block((title,), "axis title", (x, plot.y), "start", "bottom", ink, angle=90)
    x = min((box.x for box in ticks), default=plot.x) - 0.6 * ink.size
    return block((title,), "axis title", (x, plot.y), "end", "bottom", ink, angle=-90)


def _across_title(frame: Cartesian, plane: Plane, names: Names, ink: Ink) -> PlacedText:
    plot = plane.plot
    if plane.lying:
        x = (names.left if names.strip else plot.x - 2.2 * ink.size) - 0.6 * ink.size
        return block((frame.across.title,), "axis title", (x, plot.y), "end", "bottom", ink, angle=-90)
    y = plot.bottom + names.strip + (0.6 * names.size if names.strip else 1.5 * ink.size) + 0.5 * ink.size
    return block((frame.across.title,), "axis title", (plot.right, y), "end", "top", ink)


def _numeric_across(
    frame: Cartesian, plane: Plane, what: Shown, style: Style, ink: Ink, data: Data, under: list[PlacedRule],
    over: list[PlacedRule], texts: list[PlacedText],
) -> None:  # fmt: skip
    plot, at = plane.plot, plane.across
    if at is None:
        return
    for tick in at.ticks:
        place = plane.across_value(tick)
        if what.grid or (frame.across.grid is None and frame.along.grid is not False and plane.second is None):
            grid = style.line.faded(max(0.0, min(1.0, frame.across.strength + 0.1)))
            if what.grid:
                under.append(
                    PlacedRule("grid", plot.x, place, plot.right, place, grid)
                    if plane.lying
                    else PlacedRule("grid", place, plot.y, place, plot.bottom, grid)
                )
        if what.labels:
            text = (tick_text(tick, frame.across, data),)
            if plane.lying:
                texts.append(block(text, "tick", (plot.x - 0.6 * ink.size, place), "end", "middle", ink))
            else:
                texts.append(block(text, "tick", (place, plot.bottom + 0.55 * ink.size), "middle", "top", ink))
    texts[:] = _unclashed(texts)
    if what.line and not plane.lying:
        over.append(PlacedRule("axis", plot.x, plot.bottom, plot.right, plot.bottom, style.quiet, 0.9))


def _headings(plane: Plane, ink: Ink) -> list[PlacedText]:
    """What the strips after the plot hold: above them beside lying bars, at their left below standing ones."""
    texts: list[PlacedText] = []
    for strip in plane.strips.values():
        if not strip.heading:
            continue
        if plane.lying:
            at = (strip.start + strip.width, plane.plot.y - 0.5 * ink.size)
            texts.append(block(strip.heading, "heading", at, "end", "bottom", ink))
        else:
            at = (plane.plot.x - ink.size, strip.start + strip.width / 2)
            texts.append(block(strip.heading, "heading", at, "end", "middle", ink))
    return texts


def _line(kind: RuleKind, plane: Plane, place: float, colour: Colour, thick: float) -> PlacedRule:
    plot = plane.plot
    ends = (place, plot.y, place, plot.bottom) if plane.lying else (plot.x, place, plot.right, place)
    return PlacedRule(kind, *ends, colour, thick)


def _row_rules(plane: Plane, style: Style) -> list[PlacedRule]:
    plot, colour = plane.plot, style.line.faded(0.6)
    made: list[PlacedRule] = []
    for row in range(1, plane.rows):
        place = plane.row_start(row) - plane.gap / 2
        ends = (plot.x, place, plot.right, place) if plane.lying else (place, plot.y, place, plot.bottom)
        made.append(PlacedRule("grid", *ends, colour, 0.5))
    return made


def _zero_line(
    chart: Chart, plane: Plane, frame: Cartesian, across: Shown, numeric: bool, style: Style, over: list[PlacedRule]
) -> None:
    """The line bars stand on: with the axes' ink, where the across axis asks for it, or where bars go both ways."""
    bars = [layer for layer in chart.layers if isinstance(layer, Bars) and not layer.hidden]
    low, high = plane.first.minimum, plane.first.maximum
    both = bool(bars) and low < 0 < high
    wished = frame.across.line if frame.across.line is not None else (chart.ink >= 1 and not numeric) or both
    if not wished or not low <= 0 <= high or plane.first.kind == "log":
        if wished and across.line and not numeric:
            over.append(_line("axis", plane, plane.along_share(0.0), style.quiet, 0.9))
        return
    over.append(_line("axis", plane, plane.along(0.0), style.quiet, 0.9))


def _box(plot: Rect, style: Style) -> list[PlacedRule]:
    colour = style.line
    corners = [(plot.x, plot.y), (plot.right, plot.y), (plot.right, plot.bottom), (plot.x, plot.bottom)]
    return [
        PlacedRule("frame", *one, *other, colour, 0.75)
        for one, other in zip(corners, [*corners[1:], corners[0]], strict=True)
    ]
