"""From specifications and their values to a figure.

Texts are measured, the frame laid out, layers placed back to front; then what is to be solid is seen from where the
author looks, and all labels find their places. The first part is kept while only the view changes.
"""

import math
from typing import TYPE_CHECKING

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Grid, Polar
from kavlet.core.charts.legend import LegendSide
from kavlet.core.charts.solid import Solid
from kavlet.core.layout.context import Context, Panel
from kavlet.core.layout.context import context as context_of
from kavlet.core.layout.figure import Figure, Key, Mark, PlacedAxis, PlacedRule, PlacedText
from kavlet.core.layout.frames import cartesian, polar
from kavlet.core.layout.furniture import Furniture, Sizes, sizes
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.painting import covering, picture
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.planes import field
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.planes.field import GridField
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.surroundings import legend, titles
from kavlet.core.layout.texts.text_lines import NOBODY, Anchor, TextOwner, TextStyle, block
from kavlet.core.layout.words.free_space import FreeSpace, body_of, faces_of
from kavlet.core.layout.words.labels import settle
from kavlet.core.layout.words.radial_labels import place_radial_labels
from kavlet.core.messages import words_in
from kavlet.core.scene.paints import LinearGradient, Paint
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.box import box
from kavlet.core.styling.style import Style
from kavlet.core.text.wrapping import shortened
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size

if TYPE_CHECKING:
    from kavlet.core.layout.solid.model import PanelModel


MAX_SAID = 8  # panels that an alt text goes through
MIN_TYPE = 7.0  # points of type in panels


class _PlacedPanel:
    """One panel with its layers placed flat, before anything is solid and before its labels are settled."""

    def __init__(self, frame: Plane | Disc | GridField, furniture: Furniture, placing: Placing) -> None:
        self.frame, self.furniture, self.to = frame, furniture, placing
        self._model: tuple[tuple[object, ...], PanelModel | None] | None = None

    def model(self, solid: Solid) -> "PanelModel | None":
        """Its bodies, modelled anew only when their shape changes; None where it has none."""
        from kavlet.core.layout.solid import model  # heavy, and only for charts that are solid

        shape = (solid.depth, solid.form, solid.edge)
        if self._model is None or self._model[0] != shape:
            self._model = shape, model.modelled(solid, self.frame, self.furniture, self.to)
        return self._model[1]


EDGE = 2.0  # points that labels keep from the sheet's sides, where its margin is not smaller


class FlatLayout(Struct):
    """A chart, or several panels, laid out: what surrounds them, and each panel placed flat. Labels keep `edge` points
    from the sheet's sides."""

    size: Size
    style: Style
    sizes: Sizes
    alt_text: str
    long_text: str
    title: str
    legend: tuple[str, ...]
    texts: list[PlacedText]
    keys: list[Key]
    spreads: list[_PlacedPanel]
    name: str = ""
    unlisted: int = 0
    edge: float = EDGE


class _FinishedPanels(Struct):
    """What of the panels has been finished so far."""

    marks: list[Mark]
    texts: list[PlacedText]
    under: list[PlacedRule]
    over: list[PlacedRule]
    axes: list[PlacedAxis]
    plots: list[Rect]
    room: list[Primitive]
    painted: list[Primitive]
    faces: list[tuple[int, Path]]
    fronts: list[tuple[float, ...]]
    behind: list[Primitive]
    dropped: int = 0
    unnamed: int = 0


def lay_out(panels: tuple[Panel, ...], style: Style, size: Size) -> FlatLayout:
    """All that does not depend on how a chart is solid."""
    chart = panels[0].chart
    points_ = sizes(style, size, chart.type_scale)
    pad = chart.margin if chart.margin is not None else style.spaces.around(size.width, size.height)
    pad = min(max(0.0, pad), 0.4 * min(size.width, size.height))
    sheet = Rect(0, 0, size.width, size.height)
    inner = sheet.inset(pad, pad, pad, pad)
    around, room = titles.around(chart, style, points_, inner, sheet)
    context = context_of(panels[0], style, points_, size)
    dock: LegendSide = "top" if isinstance(chart.frame, Cartesian) or len(panels) > 1 else "right"
    hug = _hug(chart, room) if len(panels) == 1 else None
    listed = legend.lay_out(context, room, dock, hug)
    flat_layout = FlatLayout(
        size, style, points_, chart.alt_text, _long_text(panels), chart.title.text, legend.names(context),
        [*around, *listed.texts], listed.keys, [], context.name, listed.left_out, min(EDGE, pad),
    )  # fmt: skip
    if len(panels) == 1:
        flat_layout.spreads.append(_spread(context, listed.room))
    else:
        _panels(panels, listed.room, flat_layout)
    return flat_layout


def _long_text(panels: tuple[Panel, ...]) -> str:
    """What the panels show, each by its title; of many the first ones, and how many more there are."""
    if len(panels) == 1:
        return panels[0].chart.long_text
    said = [f"{panel.title}: {panel.chart.long_text}" for panel in panels[:MAX_SAID]]
    more = len(panels) - len(said)
    rest = [words_in(panels[0].data.locale, "And {count} more.", count=more)] if more else []
    return " ".join([*said, *rest])


def finish(flat_layout: FlatLayout, solids: list[Solid | None]) -> Figure:
    """The figure, each panel solid as it is to be."""
    made = _FinishedPanels([], list(flat_layout.texts), [], [], [], [], [], [], [], [], [])
    free = FreeSpace(
        Rect(0, 0, flat_layout.size.width, flat_layout.size.height).inset(*(4 * (flat_layout.edge,))),
        flat_layout.style.ground,
    )
    for key in flat_layout.keys:
        free.take_rect(key.bounds)
    for spread, solid in zip(flat_layout.spreads, solids, strict=True):
        _finish(spread, solid, free, made)
    return Figure(
        size=flat_layout.size,
        plot=made.plots[0],
        ground=flat_layout.style.ground,
        marks=tuple(made.marks),
        texts=tuple(made.texts),
        axes=tuple(made.axes),
        under=tuple(made.under),
        over=tuple(made.over),
        keys=tuple(flat_layout.keys),
        legend=flat_layout.legend,
        title=flat_layout.title,
        alt_text=flat_layout.alt_text,
        long_text=flat_layout.long_text,
        dropped=made.dropped,
        unnamed=made.unnamed,
        unlisted=flat_layout.unlisted,
        behind=tuple(made.behind),
        room=tuple(made.room),
        painted=tuple(made.painted) if made.painted else None,
        faces=tuple(made.faces),
        fronts=tuple(made.fronts),
        name=flat_layout.name,
        hair=flat_layout.style.strokes.hair,
    )


def _hug(chart: Chart, room: Rect) -> float | None:
    """How wide a grid's field gets in a room, so that its legend can stand close to it."""
    if not isinstance(chart.frame, Grid):
        return None
    rows, columns = max(1, chart.frame.rows), max(1, chart.frame.columns)
    return min(room.height * columns / rows, 0.66 * room.width)


def _panels(panels: tuple[Panel, ...], room: Rect, flat_layout: FlatLayout) -> None:
    """Panels in rows of equal size, as square as the room allows, each under its own title."""
    count, style, points_ = len(panels), flat_layout.style, flat_layout.sizes
    best = max(
        range(1, count + 1), key=lambda columns: _fit(room, columns, math.ceil(count / columns), panels[0].chart)
    )
    rows = math.ceil(count / best)
    gap = style.spaces.panel * points_.text
    wide, tall = (room.width - gap * (best - 1)) / best, (room.height - gap * (rows - 1)) / rows
    contexts: list[tuple[Context, Rect]] = []
    for number, panel in enumerate(panels):
        row, column = divmod(number, best)
        place = Rect(room.x + column * (wide + gap), room.y + row * (tall + gap), wide, tall)
        small = min(1.0, max(0.62, wide / 240))
        panel_sizes = Sizes(
            points_.title, points_.subtitle, max(MIN_TYPE, points_.text * small),
            max(MIN_TYPE, points_.small * small),
        )  # fmt: skip
        if panel.title:
            text_style = TextStyle(style.bold, panel_sizes.text, style.ink)
            head = shortened(panel.title, text_style.face, text_style.size, wide)
            centred = not isinstance(panel.chart.frame, Cartesian)
            x = place.center[0] if centred else place.x
            of = panel.chart.rows or ()
            owner = TextOwner(row=of[0]) if len(of) == 1 else NOBODY
            text = block(
                (head,), "panel", Anchor((x, place.y), "middle" if centred else "start", "top"), text_style, owner
            )
            flat_layout.texts.append(text)
            place = place.inset(top=1.5 * text_style.size)
        bare_panel = msgspec.structs.replace(panel, chart=msgspec.structs.replace(panel.chart, plot=None))
        contexts.append((context_of(bare_panel, style, panel_sizes, flat_layout.size, number), place))
    flat_layout.spreads += _alike(contexts)


def _alike(placed: list[tuple[Context, Rect]]) -> list[_PlacedPanel]:
    """Panels on one scale: plots of one size at one place in each, and the same ends of their value axes."""
    spreads = [_spread(context, place) for context, place in placed]
    planes = [spread.frame for spread in spreads if isinstance(spread.frame, Plane)]
    if len(planes) < len(spreads):
        return spreads
    low, high = min(one.first.minimum for one in planes), max(one.first.maximum for one in planes)
    pairs = list(zip(planes, (place for _, place in placed), strict=True))
    left, top = max(one.plot.x - place.x for one, place in pairs), max(one.plot.y - place.y for one, place in pairs)
    right = max(place.right - one.plot.right for one, place in pairs)
    bottom = max(place.bottom - one.plot.bottom for one, place in pairs)
    return [
        _spread(_pinned(context, place.inset(left=left, top=top, right=right, bottom=bottom), (low, high)), place)
        for context, place in placed
    ]


def _pinned(context: Context, plot: Rect, ends: tuple[float, float]) -> Context:
    """The context with its plot at a place of the sheet and its value axis between two ends."""
    sheet, chart = context.sheet, context.chart
    if chart.plot is not None or not isinstance(chart.frame, Cartesian):
        return context
    shares = (plot.x / sheet.width, plot.y / sheet.height, 1 - plot.right / sheet.width, 1 - plot.bottom / sheet.height)
    along = msgspec.structs.replace(chart.frame.along, minimum=ends[0], maximum=ends[1])
    frame = msgspec.structs.replace(chart.frame, along=along)
    return msgspec.structs.replace(context, chart=msgspec.structs.replace(chart, frame=frame, plot=shares))


def _fit(room: Rect, columns: int, rows: int, chart: Chart) -> float:
    """How large the smaller side of a panel's content gets; half dials are twice as wide as high."""
    frame = chart.frame
    ratio = 1.0
    if isinstance(frame, Polar) and frame.shown <= 200:
        ratio = 1.55
    elif isinstance(frame, Cartesian):
        ratio = 2.6 if frame.lying else 0.5
    return min(room.width / columns / ratio, room.height / rows)


def _spread(context: Context, room: Rect) -> _PlacedPanel:
    """A panel's frame, and all its layers placed in it."""
    frame, furniture = _frame(context, room)
    placing = Placing(context)
    for series, layer in enumerate(context.chart.layers):
        kind = kind_of(layer)
        place = kind.placer(frame)
        if place is not None and (layer.helper or not layer.hidden):
            placing.begin(kind.mark, series)
            place(layer, frame, placing)
    return _PlacedPanel(frame, furniture, placing)


def _finish(spread: _PlacedPanel, solid: Solid | None, free: FreeSpace, panels_done: _FinishedPanels) -> None:
    """Make the panel solid where it is to be, then find all texts their places."""
    placing, frame, furniture = spread.to, spread.frame, spread.furniture
    number = placing.context.panel
    marks, labels, fans, own_texts, obstacles = (
        placing.marks,
        placing.labels,
        placing.fans,
        placing.texts,
        placing.obstacles,
    )
    model = spread.model(solid) if solid is not None and not solid.flat else None
    solid_panel = model.seen(solid) if model is not None and solid is not None else None
    if solid_panel is not None:
        first = len(panels_done.marks)
        panels_done.room += solid_panel.room
        panels_done.painted += solid_panel.painted
        panels_done.faces += [(of + first if of >= 0 else of, path) for of, path in solid_panel.faces]
        marks, labels, fans, own_texts = solid_panel.marks, solid_panel.labels, solid_panel.fans, solid_panel.texts
        obstacles, furniture = solid_panel.obstacles, solid_panel.furniture
        panels_done.fronts.append(solid_panel.front)
    middle, wide = _middle(frame)
    above = [text.bounds for text in panels_done.texts] if number == 0 else []
    notes = [titles.note(note_spec, placing.context, middle, wide, above) for note_spec in placing.chart.notes]
    fixed = [*furniture.texts, *own_texts, *(note for note in notes if note is not None)]
    for text in [*panels_done.texts, *fixed] if number == 0 else fixed:
        free.take(text)
    for rect in obstacles:
        free.take_rect(rect)
    for rule in furniture.over:
        if rule.kind == "axis" and (rule.x1 == rule.x2 or rule.y1 == rule.y2):
            free.take_rect(Rect.around([(rule.x1, rule.y1), (rule.x2, rule.y2)]).inset(*(4 * (-0.5 * rule.width,))))
    bodies = [body_of(mark) for mark in marks] if solid_panel is None else faces_of(marks, solid_panel.faces)
    for body in bodies:
        if body is not None:
            free.take_body(body)
    settled, lost = settle(labels, free)
    fanned, more = place_radial_labels(fans, free)
    panels_done.marks += marks
    panels_done.texts += [msgspec.structs.replace(text, panel=number) for text in (*fixed, *settled, *fanned)]
    panels_done.under += furniture.under
    panels_done.over += furniture.over
    panels_done.axes += furniture.axes if number == 0 else ()
    panels_done.plots.append(frame.plot)
    panels_done.behind += _behind(placing.context, frame.plot)
    panels_done.dropped += lost + more + placing.lost
    panels_done.unnamed += furniture.unnamed


def _behind(context: Context, plot: Rect) -> list[Primitive]:
    """The grounds and borders an author gave the chart and its plot; a chart of several panels has one border."""
    chart, style, sheet = context.chart, context.style, context.sheet
    made: list[Primitive] = []
    whole = Rect(0.0, 0.0, sheet.width, sheet.height)
    if chart.ground_to and context.panel == 0:
        made.append(Shape(recorded(box, whole), _run(whole, style.ground, style.colour(chart.ground_to))))
    if context.panel == 0:
        made += _veiled(context, chart.ground_picture, whole, style.ground, chart.ground_veil)
    if chart.border and context.panel == 0:
        wide = chart.border_width
        area = Rect(wide / 2, wide / 2, max(0.0, sheet.width - wide), max(0.0, sheet.height - wide))
        made.append(Shape(recorded(box, area), None, style.colour(chart.border), wide))
    if chart.plot_ground:
        ground: Paint = style.colour(chart.plot_ground)
        if chart.plot_to:
            ground = _run(plot, style.colour(chart.plot_ground), style.colour(chart.plot_to))
        made.append(Shape(recorded(box, plot), ground))
    behind = style.colour(chart.plot_ground) if chart.plot_ground else style.ground
    made += _veiled(context, chart.plot_picture, plot, behind, chart.plot_veil)
    if chart.plot_border:
        made.append(Shape(recorded(box, plot), None, style.colour(chart.plot_border), style.strokes.hair))
    return made


def _veiled(context: Context, name: str, area: Rect, ground: Colour, veil: float) -> list[Primitive]:
    """A picture that covers an area, and a veil of the ground's colour over it."""
    held = context.data.picture(name) if name else None
    if held is None:
        return []
    outline = recorded(box, area)
    over = Shape(outline, ground.faded(max(0.0, min(1.0, veil))))
    return [picture(held, covering(held, area), context.style.quiet, clip=outline), over]


def _run(area: Rect, top: Colour, bottom: Colour) -> LinearGradient:
    """One colour running down to another."""
    return LinearGradient(area.x, area.y, area.x, area.bottom, ((0.0, top), (1.0, bottom)))


def _frame(context: Context, room: Rect) -> tuple[Plane | Disc | GridField, Furniture]:
    match context.chart.frame:
        case Cartesian() as frame:
            return cartesian.lay_out(context, frame, room)
        case Polar() as frame:
            return polar.lay_out(context, frame, room)
        case Grid() as frame:
            return field.lay_out(context, frame, room)


def _middle(frame: Plane | Disc | GridField) -> tuple[tuple[float, float], float]:
    """The middle of a frame, and how wide a text in it may be."""
    if isinstance(frame, Disc):
        return frame.center, 1.6 * frame.hole
    return frame.plot.center, frame.plot.width
