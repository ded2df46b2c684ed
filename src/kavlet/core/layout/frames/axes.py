"""Draws the axes of a Cartesian frame: gridlines, ticks, titles, the line that bars stand on."""

import msgspec
from msgspec import Struct

from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.scale import Dash, Scale
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import PlacedAxis, PlacedRule, PlacedText, RuleKind, TextKind
from kavlet.core.layout.frames import names as row_names
from kavlet.core.layout.frames.names import Names
from kavlet.core.layout.furniture import Furniture, small_ink
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.planes.scales import FixedScale
from kavlet.core.layout.texts.text_lines import Anchor, TextOwner, TextStyle, block, in_figures, lettered
from kavlet.core.styling.style import Style
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

DASHES: dict[Dash, tuple[float, ...]] = {"solid": (), "dashed": (4.0, 3.0), "dotted": (0.1, 2.5)}


class AxisParts(Struct, frozen=True):
    """What of an axis is drawn, after the chart's ink and what the axis sets itself."""

    labels: bool
    line: bool
    grid: bool
    minor: bool


def shown(scale: Scale, ink: int, across: bool = False) -> AxisParts:
    """The across axis always names its rows unless it is set invisible; all else follows the ink."""
    visible = scale.visible if scale.visible is not None else (across or ink >= 1)
    line = scale.line if scale.line is not None else visible and ink >= 2
    grid = scale.grid if scale.grid is not None else (ink >= 1 and not across) or ink >= 3
    return AxisParts(visible, line, grid, scale.minor > 1 and grid)


class DrawnAxes(Struct, frozen=True):
    """What is drawn of the first and the second value axis and of the axis across, and whether that one is numeric."""

    first: AxisParts
    second: AxisParts | None
    across: AxisParts
    numeric: bool


def furniture(context: Context, frame: Cartesian, plane: Plane, names: Names, ruled: DrawnAxes) -> Furniture:
    """All rules, tick labels, names and titles around a plane."""
    made, unnamed = _Axes(context, frame, plane), 0
    made.value_axis(frame.along, plane.first, ruled.first, False)
    axes = [_axis("x" if plane.lying else "y", plane.first, ruled.first.labels)]
    if plane.second is not None and ruled.second is not None and frame.second is not None:
        bare = AxisParts(ruled.second.labels, ruled.second.line, frame.second.grid is True, False)
        made.value_axis(frame.second, plane.second, bare, True)
        axes.append(_axis("x2" if plane.lying else "y2", plane.second, ruled.second.labels))
    if ruled.numeric and plane.across is not None:
        made.numeric_across(plane.across, ruled.across)
        axes.append(_axis("y" if plane.lying else "x", plane.across, ruled.across.labels))
    else:
        text_style = msgspec.structs.replace(row_names.ink_of(context), size=names.size)
        sheet = Rect(0.0, 0.0, context.sheet.width, context.sheet.height)
        placed = row_names.texts(plane, names, text_style, context.data.ids, sheet)
        by_choice = frame.across.crowded == "skip" or frame.across.every > 0 or context.data.timed
        if names.lines and not by_choice:
            unnamed = sum(map(bool, context.data.names(context.chart.names))) - len(placed)
        made.texts += placed
        if ruled.across.grid:
            made.row_rules()
    if frame.across.title and ruled.across.labels:
        made.across_title(names)
    made.headings()
    made.zero_line(ruled)
    if frame.boxed if frame.boxed is not None else context.chart.ink >= 3:
        made.under += _box(plane.plot, context.style)
    return Furniture(tuple(made.under), tuple(made.over), tuple(made.texts), tuple(axes), unnamed)


def _axis(name: str, at: FixedScale, visible: bool) -> PlacedAxis:
    return PlacedAxis(name, at.minimum, at.maximum, visible, at.ticks if visible else ())


class _Axes:
    """Rules under and over the marks and texts around a plane, as they are added."""

    def __init__(self, context: Context, frame: Cartesian, plane: Plane) -> None:
        self._context, self._frame, self._plane = context, frame, plane
        self._style, self._ink = context.style, small_ink(context.style, context.sizes)
        self.under: list[PlacedRule] = []
        self.over: list[PlacedRule] = []
        self.texts: list[PlacedText] = []

    def _text(
        self,
        lines: tuple[str, ...],
        kind: TextKind,
        anchor: Anchor,
        axis: str = "",
        text_style: TextStyle | None = None,
    ) -> None:
        self.texts.append(block(lines, kind, anchor, text_style or self._ink, TextOwner(key=axis)))

    def _tick_ink(self, scale: Scale, upright: bool) -> TextStyle:
        text_style = lettered(scale.text, self._ink, self._style)
        return in_figures(text_style) if upright else text_style

    def _title_ink(self, scale: Scale) -> TextStyle:
        return lettered(scale.title_text, self._ink, self._style)

    def _grid(self, scale: Scale, more: float) -> tuple[Colour, tuple[float, ...]]:
        """The colour and dashes of an axis's gridlines."""
        colour = self._style.colour(scale.grid_colour) if scale.grid_colour else self._style.line
        return colour.faded(max(0.0, min(1.0, scale.strength + more))), DASHES[scale.grid_dash]

    def _marks(self, scale: Scale, at: FixedScale, second: bool) -> None:
        """Short lines at the ticks, outside the plot, inside it or across its edge."""
        if scale.marks == "none":
            return
        plot, text_style = self._plane.plot, self._tick_ink(scale, not self._plane.lying)
        long = 0.4 * text_style.size
        out, within_ = (long if scale.marks != "inside" else 0.0), (long if scale.marks != "outside" else 0.0)
        minors = at.minors if scale.minor > 1 else ()
        for tick, share in [*((tick, 1.0) for tick in at.ticks), *((tick, 0.55) for tick in minors)]:
            place = self._plane.along(tick, second)
            if self._plane.lying:
                edge, way = (plot.y, -1.0) if second else (plot.bottom, 1.0)
                ends = (place, edge + way * share * out, place, edge - way * share * within_)
            else:
                edge, way = (plot.right, 1.0) if second else (plot.x, -1.0)
                ends = (edge + way * share * out, place, edge - way * share * within_, place)
            self.over.append(PlacedRule("tick", *ends, self._style.quiet, self._style.strokes.tick))

    def _line(
        self, kind: RuleKind, place: float, colour: Colour, thick: float, dash: tuple[float, ...] = ()
    ) -> PlacedRule:
        """A rule over the whole plot at a place along the value axis."""
        plot = self._plane.plot
        ends = (place, plot.y, place, plot.bottom) if self._plane.lying else (plot.x, place, plot.right, place)
        return PlacedRule(kind, *ends, colour, thick, dash)

    def value_axis(self, scale: Scale, at: FixedScale, what: AxisParts, second: bool) -> None:
        """Gridlines, tick labels, axis line and title of a value axis."""
        plane, plot, style = self._plane, self._plane.plot, self._style
        text_style = self._tick_ink(scale, not plane.lying)
        name = "second" if second else "along"
        grid, dash = self._grid(scale, 0.25)
        if what.grid:
            self.under += [
                self._line("grid", plane.along(tick, second), grid, style.strokes.hair, dash) for tick in at.ticks
            ]
        if what.minor:
            faint = grid.faded(0.5 * scale.strength)
            self.under += [
                self._line("minor", plane.along(tick, second), faint, style.strokes.fine, dash) for tick in at.minors
            ]
        self._marks(scale, at, second)
        if what.labels:
            gap, below = style.spaces.beside * text_style.size, style.spaces.below * text_style.size
            for tick in at.ticks:
                place, text = plane.along(tick, second), (at.text(tick, self._context.data.locale),)
                if plane.lying:
                    y = plot.y - below if second else plot.bottom + below
                    self._text(
                        text, "tick", Anchor((place, y), "middle", "bottom" if second else "top"), name, text_style
                    )
                else:
                    x = plot.right + gap if second else plot.x - gap
                    self._text(
                        text, "tick", Anchor((x, place), "start" if second else "end", "middle"), name, text_style
                    )
            self.texts = _unclashed(self.texts)
        if what.line:
            if plane.lying:
                y = plot.y if second else plot.bottom
                self.over.append(PlacedRule("axis", plot.x, y, plot.right, y, style.quiet, style.strokes.axis))
            else:
                x = plot.right if second else plot.x
                self.over.append(PlacedRule("axis", x, plot.y, x, plot.bottom, style.quiet, style.strokes.axis))
        if scale.title and what.labels:
            self._text((scale.title,), "axis title", self._value_title(second), name, self._title_ink(scale))

    def _value_title(self, second: bool) -> Anchor:
        """Where the title of a value axis stands: at its end, beyond the tick labels."""
        plot, size = self._plane.plot, self._ink.size
        if self._plane.lying:
            y = plot.y - 2.2 * size if second else plot.bottom + 2.1 * size
            return Anchor((plot.right, y), "end", "top")
        ticks = [text.bounds for text in self.texts if text.kind == "tick"]
        if second:
            x = max((box.right for box in ticks), default=plot.right) + 0.6 * size
            return Anchor((x, plot.y), "start", "bottom", 90)
        x = min((box.x for box in ticks), default=plot.x) - 0.6 * size
        return Anchor((x, plot.y), "end", "bottom", -90)

    def across_title(self, names: Names) -> None:
        plot, size, title = self._plane.plot, self._ink.size, (self._frame.across.title,)
        text_style = self._title_ink(self._frame.across)
        if self._plane.lying:
            x = (names.left if names.strip else plot.x - 2.2 * size) - 0.6 * size
            self._text(title, "axis title", Anchor((x, plot.y), "end", "bottom", -90), "across", text_style)
            return
        y = plot.bottom + names.strip + (0.6 * names.size if names.strip else 1.5 * size) + 0.5 * size
        self._text(title, "axis title", Anchor((plot.right, y), "end", "top"), "across", text_style)

    def numeric_across(self, at: FixedScale, what: AxisParts) -> None:
        """Gridlines, tick labels and the line of a numeric axis across."""
        plane, plot, style, scale = self._plane, self._plane.plot, self._style, self._frame.across
        text_style, (grid, dash) = self._tick_ink(scale, plane.lying), self._grid(scale, 0.1)
        gap = style.spaces.beside * text_style.size
        for tick in at.ticks:
            place = plane.across_value(tick)
            if what.grid:
                ends = (plot.x, place, plot.right, place) if plane.lying else (place, plot.y, place, plot.bottom)
                self.under.append(PlacedRule("grid", *ends, grid, style.strokes.hair, dash))
            if what.labels:
                text = (at.text(tick, self._context.data.locale),)
                if plane.lying:
                    self._text(text, "tick", Anchor((plot.x - gap, place), "end", "middle"), "across", text_style)
                else:
                    self._text(text, "tick", Anchor((place, plot.bottom + gap), "middle", "top"), "across", text_style)
        self.texts = _unclashed(self.texts)
        if what.line and not plane.lying:
            self.over.append(
                PlacedRule("axis", plot.x, plot.bottom, plot.right, plot.bottom, style.quiet, style.strokes.axis)
            )

    def headings(self) -> None:
        """What the strips after the plot hold: above them beside lying bars, at their left below standing ones."""
        plot, size = self._plane.plot, self._ink.size
        for strip in self._plane.strips.values():
            if not strip.heading:
                continue
            if self._plane.lying:
                anchor = Anchor((strip.start + strip.width, plot.y - 0.5 * size), "end", "bottom")
            else:
                anchor = Anchor((plot.x - size, strip.start + strip.width / 2), "end", "middle")
            self._text(strip.heading, "heading", anchor)

    def row_rules(self) -> None:
        """A rule between each two rows."""
        plane, plot, colour = self._plane, self._plane.plot, self._style.line.faded(0.6)
        for row in range(1, plane.rows):
            place = plane.row_start(row) - plane.gap / 2
            ends = (plot.x, place, plot.right, place) if plane.lying else (place, plot.y, place, plot.bottom)
            self.under.append(PlacedRule("grid", *ends, colour, self._style.strokes.fine))

    def zero_line(self, ruled: DrawnAxes) -> None:
        """The line bars stand on: with the axes' ink, where the across axis asks for it, or where they go both ways."""
        plane, chart, wish = self._plane, self._context.chart, self._frame.across.line
        low, high = plane.first.minimum, plane.first.maximum
        both = low < 0 < high and any(kind_of(layer).on_zero for layer in chart.layers if not layer.hidden)
        wished = wish if wish is not None else (chart.ink >= 1 and not ruled.numeric) or both
        if wished and low <= 0 <= high and plane.first.kind != "log":
            self.over.append(self._line("axis", plane.along(0.0), self._style.quiet, self._style.strokes.axis))
        elif wished and ruled.across.line and not ruled.numeric:
            self.over.append(self._line("axis", plane.along_share(0.0), self._style.quiet, self._style.strokes.axis))


def _unclashed(texts: list[PlacedText]) -> list[PlacedText]:
    """Tick labels without those that would overlap the one before."""
    kept: list[PlacedText] = []
    for text in texts:
        if text.kind != "tick" or not any(
            other.kind == "tick" and other.bounds.overlaps(text.bounds) for other in kept[-2:]
        ):
            kept.append(text)
    return kept


def _box(plot: Rect, style: Style) -> list[PlacedRule]:
    colour = style.line
    corners = [(plot.x, plot.y), (plot.right, plot.y), (plot.right, plot.bottom), (plot.x, plot.bottom)]
    return [
        PlacedRule("frame", *one, *other, colour, style.strokes.hair)
        for one, other in zip(corners, [*corners[1:], corners[0]], strict=True)
    ]
