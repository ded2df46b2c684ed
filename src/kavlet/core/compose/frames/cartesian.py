"""Lays out a Cartesian frame: texts are measured, margins set, scales fixed, and the plot is what is left."""

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale
from kavlet.core.compose.data import Data
from kavlet.core.compose.frames import names as row_names
from kavlet.core.compose.frames import reach
from kavlet.core.compose.frames.axes import Shown, furniture, shown, tick_text
from kavlet.core.compose.frames.names import Names
from kavlet.core.compose.frames.plane import Plane, SideStrip, sized_rows
from kavlet.core.compose.frames.scales import Scaled, scaled
from kavlet.core.compose.furniture import Furniture, Sizes
from kavlet.core.compose.marks.bars import bulb_size
from kavlet.core.compose.marks.stacks import Span, slots
from kavlet.core.compose.words.lettering import LEADING, widest
from kavlet.core.compose.words.wording import Wording
from kavlet.core.dress.style import Style
from kavlet.core.shapes.body import cylinder_reach
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.geometry import Rect, Size


def lay_out(
    chart: Chart, frame: Cartesian, data: Data, style: Style, sizes: Sizes, wording: Wording, spans: dict[str, Span],
    room: Rect,
    sheet: Size,
) -> tuple[Plane, Furniture]:  # fmt: skip
    """The plane and what surrounds it, within `room`."""
    strips, room = _strips(chart, frame, wording, style, sizes, room)
    has_second = frame.second is not None and any(layer.second and not layer.hidden for layer in chart.layers)
    numeric = frame.across.kind in ("linear", "log", "date") and any(getattr(one, "x", "") for one in chart.layers)
    first_shown = shown(frame.along, chart.ink)
    second_shown = shown(frame.second, max(1, chart.ink)) if has_second and frame.second else None
    across_shown = shown(frame.across, chart.ink, across=True)
    length = room.width if frame.lying else room.height
    wished = (0.55 if frame.lying else 0.86) * length  # labels beside each other need more room than below
    first = scaled(_counted(frame.along, chart), reach.along(chart, data, spans, False), wished)
    second = (
        scaled(frame.second, reach.along(chart, data, spans, True), wished) if has_second and frame.second else None
    )
    across = None
    if numeric:
        across = scaled(
            frame.across, reach.across(chart, data), 0.86 * room.height if frame.lying else 0.55 * room.width
        )
    # Along: tick labels and titles of the value axes, then the rows' names or the numeric axis.
    room = _along_margins(room, frame, frame.along, first, first_shown, style, sizes, data, False)
    if second is not None and second_shown is not None and frame.second is not None:
        room = _along_margins(room, frame, frame.second, second, second_shown, style, sizes, data, True)
    names = Names(size=sizes.text)
    if numeric and across is not None:
        room = _across_margins(room, frame, across, across_shown, style, sizes, data)
    elif across_shown.labels and chart.names:
        names, room = row_names.lay_out(chart, frame, data, style, sizes, room)
    if frame.across.title and (across_shown.labels or numeric):
        room = _title_margin(room, frame.lying, sizes)
    end = room.width if frame.lying else room.height
    low, high = reach.label_room(chart, spans, first, wording, end, frame.lying, sizes.text, style.bold)
    room = room.inset(left=low, right=high) if frame.lying else room.inset(top=high, bottom=low)
    room = _body_room(chart, frame, data, _narrowed(frame, room))
    if chart.plot is not None:
        left, top, right, bottom = chart.plot
        room = Rect(
            left * sheet.width,
            top * sheet.height,
            max(8.0, (1 - left - right) * sheet.width),
            max(8.0, (1 - top - bottom) * sheet.height),
        )
    plane = _plane(chart, frame, data, room, (first, second, across), strips, names)
    furnished = furniture(
        chart, frame, data, style, sizes, plane, names, (first_shown, second_shown, across_shown), numeric
    )
    return plane, furnished


def _narrowed(frame: Cartesian, room: Rect) -> Rect:
    """The room, limited across by the frame's aspect."""
    if frame.aspect is None:
        return room
    if frame.lying:
        spare = max(0.0, room.height - frame.aspect * room.width) / 2
        return room.inset(top=spare, bottom=spare)
    spare = max(0.0, room.width - frame.aspect * room.height) / 2
    return room.inset(left=spare, right=spare)


def _body_room(chart: Chart, frame: Cartesian, data: Data, room: Rect) -> Rect:
    """Room beyond the scale's ends for what reaches past it: bulbs at the base, the round ends of cylinders."""
    across = room.height if frame.lying else room.width
    *_, bar = sized_rows(frame, across, data.rows, max(1, len(slots(chart, False))))
    base = end = 0.0
    for layer in chart.layers:
        if not isinstance(layer, Bars) or layer.hidden or not data.rows:
            continue
        thick = bar * layer.thickness
        if layer.form == "cylinder":
            base, end = max(base, cylinder_reach(thick)), max(end, cylinder_reach(thick))
        if layer.bulb > 0:
            base = max(base, sum(bulb_size(layer, thick)))
    most = 0.3 * (room.width if frame.lying else room.height)
    base, end = min(base, most), min(end, most)
    return room.inset(left=base, right=end) if frame.lying else room.inset(bottom=base, top=end)


def _counted(scale: Scale, chart: Chart) -> Scale:
    """Cells wrapped after n have a scale of their own: it ends at n."""
    import msgspec

    wraps = [layer.wrap for layer in chart.layers if isinstance(layer, Cells) and layer.wrap > 0]
    return msgspec.structs.replace(scale, maximum=float(max(wraps))) if wraps and scale.maximum is None else scale


def _plane(
    chart: Chart, frame: Cartesian, data: Data, room: Rect, scales: tuple[Scaled, Scaled | None, Scaled | None],
    strips: dict[str, SideStrip], names: Names,
) -> Plane:  # fmt: skip
    length = room.height if frame.lying else room.width
    clusters = {second: slots(chart, second) for second in (False, True)}
    count = max(1, *(len(held) for held in clusters.values()))
    thickness, gap, lead, bar = sized_rows(frame, length, data.rows, count)
    places: dict[str, tuple[float, float]] = {}
    overlap = max(-100.0, min(100.0, frame.overlap)) / 100
    for held in clusters.values():
        # A cluster with fewer bars than the other axis's takes the same room in broader bars.
        own = len(held) - (len(held) - 1) * overlap if held else 1.0
        mine = thickness / max(0.05, own) if held and len(held) < count else bar
        for i, keys in enumerate(held):
            for key in keys:
                places[key] = (i * mine * (1 - overlap), mine)
    return Plane(
        room, frame.lying, scales[0], scales[1], scales[2], data.rows, thickness, gap, lead, frame.across.reversed,
        places, strips, names.every, names.size,
    )  # fmt: skip


def _strips(
    chart: Chart, frame: Cartesian, wording: Wording, style: Style, sizes: Sizes, room: Rect
) -> tuple[dict[str, SideStrip], Rect]:
    """Strips after the plot, at the right of lying bars and below standing ones, for labels that stand beside it."""
    strips: dict[str, SideStrip] = {}
    headed = 0.0
    for layer in reversed(chart.layers):
        if not (isinstance(layer, Points) and layer.beside and layer.label and not layer.hidden):
            continue
        texts = [wording.text(layer, row) for row in range(wording.data.rows)]
        heading = wrapped(layer.heading, style.face, sizes.small, 5.2 * sizes.text, 3)
        head = widest(heading, style.face, sizes.small)
        most = max((width(text, style.face, sizes.text) for text in texts), default=0.0)
        headed = max(headed, head if not frame.lying else len(heading) * sizes.small * LEADING)
        if frame.lying:
            taken = max(head, most)
            strips[layer.key] = SideStrip(room.right - taken, taken, heading)
            room = room.inset(right=taken + 1.3 * sizes.text)
        else:
            taken = max(1, len(heading)) * sizes.text * LEADING
            strips[layer.key] = SideStrip(room.bottom - taken, taken, heading)
            room = room.inset(bottom=taken + 0.3 * sizes.text)
    if headed:
        room = room.inset(top=headed + 0.4 * sizes.small) if frame.lying else room.inset(left=headed + sizes.text)
    return strips, room


def _along_margins(
    room: Rect, frame: Cartesian, scale: Scale, at: Scaled, what: Shown, style: Style, sizes: Sizes, data: Data,
    second: bool,
) -> Rect:  # fmt: skip
    if not what.labels:
        return room
    texts = [tick_text(tick, scale, data) for tick in at.ticks]
    if frame.lying:
        taken = sizes.small * 1.45 + (sizes.small * 1.5 if scale.title else 0.0)
        end = max(width(texts[-1], style.face, sizes.small) / 2 if texts else 0.0, 0.0)
        room = room.inset(top=taken) if second else room.inset(bottom=taken)
        return room.inset(right=end)
    most = max((width(text, style.face, sizes.small) for text in texts), default=0.0)
    taken = most + 0.7 * sizes.small + (sizes.small * 1.6 if scale.title else 0.0)
    room = room.inset(right=taken) if second else room.inset(left=taken)
    return room.inset(top=0.4 * sizes.small)


def _across_margins(
    room: Rect, frame: Cartesian, across: Scaled, what: Shown, style: Style, sizes: Sizes, data: Data
) -> Rect:
    if not what.labels:
        return room
    texts = [tick_text(tick, frame.across, data) for tick in across.ticks]
    if frame.lying:
        return room.inset(left=max((width(text, style.face, sizes.small) for text in texts), default=0.0) + sizes.small)
    half = width(texts[-1], style.face, sizes.small) / 2 if texts else 0.0
    return room.inset(bottom=1.6 * sizes.small, right=half)


def _title_margin(room: Rect, lying: bool, sizes: Sizes) -> Rect:
    return room.inset(left=1.5 * sizes.small) if lying else room.inset(bottom=1.5 * sizes.small)
