"""Lays out a Cartesian frame: texts are measured, margins set, scales fixed, and the plot is what is left."""

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.context import Context
from kavlet.core.layout.frames import names as row_names
from kavlet.core.layout.frames import reach
from kavlet.core.layout.frames.axes import AxisParts, DrawnAxes, furniture, shown
from kavlet.core.layout.frames.names import Names
from kavlet.core.layout.furniture import Furniture, small_ink
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.planes.plane import Plane, SideStrip, sized_rows
from kavlet.core.layout.planes.scales import FixedScale, fixed_scale
from kavlet.core.layout.stacks import slots
from kavlet.core.layout.texts.text_lines import LEADING, lettered, widest
from kavlet.core.text.faces import tabular
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.geometry import Rect


def lay_out(context: Context, frame: Cartesian, room: Rect) -> tuple[Plane, Furniture]:
    """The plane and what surrounds it, within `room`."""
    chart = context.chart
    strips, room = _strips(context, frame, room)
    has_second = frame.second is not None and any(layer.second and not layer.hidden for layer in chart.layers)
    numeric = frame.across.kind in ("linear", "log", "date") and any(one.across_column for one in chart.layers)
    ruled = DrawnAxes(
        shown(frame.along, chart.ink), shown(frame.second, max(1, chart.ink)) if has_second and frame.second else None,
        shown(frame.across, chart.ink, across=True), numeric,
    )  # fmt: skip
    scales = _scales(context, frame, room, ruled)
    # Along: tick labels and titles of the value axes, then the rows' names or the numeric axis.
    room = _along_margins(room, context, _Margin(frame.along, scales.first, ruled.first, frame.lying, False))
    if scales.second is not None and ruled.second is not None and frame.second is not None:
        room = _along_margins(room, context, _Margin(frame.second, scales.second, ruled.second, frame.lying, True))
    names = Names(size=context.sizes.text)
    if scales.across is not None:
        if ruled.across.labels:
            room = _across_margins(room, context, frame, scales.across)
    elif ruled.across.labels and chart.names:
        names, room = row_names.lay_out(context, frame, room)
    if frame.across.title and (ruled.across.labels or numeric):
        room = room.inset(left=1.5 * context.sizes.small) if frame.lying else room.inset(
            bottom=1.5 * context.sizes.small
        )  # fmt: skip
    axis = reach.AxisRequest(scales.first, room.width if frame.lying else room.height, frame.lying)
    low, high = reach.label_room(context, axis)
    room = room.inset(left=low, right=high) if frame.lying else room.inset(top=high, bottom=low)
    room = context.plot_by_hand or _body_room(context, frame, _narrowed(frame, room))
    if scales.across is not None:
        scales = _holding(context, frame, room, scales)
    plane = _plane(context, frame, room, scales, strips, names)
    return plane, furniture(context, frame, plane, names, ruled)


class _Scales(Struct, frozen=True):
    """The scales of a plane, their ends fixed."""

    first: FixedScale
    second: FixedScale | None
    across: FixedScale | None


def _scales(context: Context, frame: Cartesian, room: Rect, ruled: DrawnAxes) -> _Scales:
    length = room.width if frame.lying else room.height
    wished = (0.55 if frame.lying else 0.86) * length  # labels beside each other need more room than below
    first = fixed_scale(
        _counted(frame.along, context.chart), reach.along(context, False), wished, reach.number_text(context, "along")
    )
    second = across = None
    if ruled.second is not None and frame.second is not None:
        second = fixed_scale(frame.second, reach.along(context, True), wished, reach.number_text(context, "second"))
    if ruled.numeric:
        breadth = 0.86 * room.height if frame.lying else 0.55 * room.width
        across = fixed_scale(frame.across, reach.across(context), breadth, reach.number_text(context, "across"))
    return _Scales(first, second, across)


def _holding(context: Context, frame: Cartesian, room: Rect, scales: _Scales) -> _Scales:
    """The scales with room for the discs at their ends."""
    second, across = scales.second, scales.across
    return _Scales(
        reach.holding(scales.first, "along", frame.along, context, room),
        reach.holding(second, "second", frame.second, context, room) if second and frame.second else second,
        reach.holding(across, "across", frame.across, context, room) if across else across,
    )


def _narrowed(frame: Cartesian, room: Rect) -> Rect:
    """The room, limited across by the frame's aspect."""
    if frame.aspect is None:
        return room
    if frame.lying:
        spare = max(0.0, room.height - frame.aspect * room.width) / 2
        return room.inset(top=spare, bottom=spare)
    spare = max(0.0, room.width - frame.aspect * room.height) / 2
    return room.inset(left=spare, right=spare)


def _body_room(context: Context, frame: Cartesian, room: Rect) -> Rect:
    """Room beyond the scale's ends for what reaches past it: bulbs at the base, the round ends of cylinders."""
    across = room.height if frame.lying else room.width
    rows = context.data.rows
    *_, bar = sized_rows(frame, across, rows, max(1, len(slots(context.chart, False))))
    layers = [layer for layer in context.chart.layers if not layer.hidden and rows]
    overhangs = [kind_of(layer).overhang(layer, bar) for layer in layers]
    most = 0.3 * (room.width if frame.lying else room.height)
    base, end = (min(max((overhang[i] for overhang in overhangs), default=0.0), most) for i in (0, 1))
    return room.inset(left=base, right=end) if frame.lying else room.inset(bottom=base, top=end)


def _counted(scale: Scale, chart: Chart) -> Scale:
    """Cells wrapped after n have a scale of their own: it ends at n."""
    ends = [end for end in (kind_of(layer).fixed_end(layer) for layer in chart.layers) if end is not None]
    return msgspec.structs.replace(scale, maximum=max(ends)) if ends and scale.maximum is None else scale


def _plane(
    context: Context, frame: Cartesian, room: Rect, scales: _Scales, strips: dict[str, SideStrip], names: Names
) -> Plane:
    chart, rows = context.chart, context.data.rows
    length = room.height if frame.lying else room.width
    clusters = {second: slots(chart, second) for second in (False, True)}
    count = max(1, *(len(beside) for beside in clusters.values()))
    thickness, gap, lead, bar = sized_rows(frame, length, rows, count)
    places: dict[str, tuple[float, float]] = {}
    overlap = max(-100.0, min(100.0, frame.overlap)) / 100
    for beside in clusters.values():
        # A cluster with fewer bars than the other axis's takes the same room in broader bars.
        own = len(beside) - (len(beside) - 1) * overlap if beside else 1.0
        slot = thickness / max(0.05, own) if beside and len(beside) < count else bar
        for i, keys in enumerate(beside):
            for key in keys:
                places[key] = (i * slot * (1 - overlap), slot)
    return Plane(
        room, frame.lying, scales.first, scales.second, scales.across, rows, thickness, gap, lead,
        frame.across.reversed, places, strips, 1 if frame.across.every else names.every, names.size,
    )  # fmt: skip


def _strips(context: Context, frame: Cartesian, room: Rect) -> tuple[dict[str, SideStrip], Rect]:
    """Strips after the plot, at the right of lying bars and below standing ones, for labels that stand beside it."""
    style, sizes, wording = context.style, context.sizes, context.wording
    strips: dict[str, SideStrip] = {}
    headed = 0.0
    for layer in reversed(context.chart.layers):
        told = kind_of(layer).strip_heading(layer)
        if told is None or layer.hidden:
            continue
        texts = [wording.text(layer, row) for row in range(context.data.rows)]
        heading = wrapped(told, style.face, sizes.small, 5.2 * sizes.text, 3)
        head = widest(heading, style.face, sizes.small)
        most = max((width(text, tabular(style.face), sizes.text) for text in texts), default=0.0)
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


class _Margin(Struct, frozen=True):
    """A value axis that needs room beside the plot."""

    scale: Scale
    at: FixedScale
    what: AxisParts
    lying: bool
    second: bool


def _along_margins(room: Rect, context: Context, axis: _Margin) -> Rect:
    if not axis.what.labels:
        return room
    text_style = lettered(axis.scale.text, small_ink(context.style, context.sizes), context.style)
    face, small = text_style.face, text_style.size
    texts = [axis.at.text(tick, context.data.locale) for tick in axis.at.ticks]
    if axis.lying:
        taken = small * 1.45 + (small * 1.5 if axis.scale.title else 0.0)
        end = max(width(texts[-1], face, small) / 2 if texts else 0.0, 0.0)
        room = room.inset(top=taken) if axis.second else room.inset(bottom=taken)
        return room.inset(right=end)
    most = max((width(text, tabular(face), small) for text in texts), default=0.0)
    taken = most + 0.7 * small + (small * 1.6 if axis.scale.title else 0.0)
    room = room.inset(right=taken) if axis.second else room.inset(left=taken)
    return room.inset(top=0.4 * small)


def _across_margins(room: Rect, context: Context, frame: Cartesian, across: FixedScale) -> Rect:
    text_style = lettered(frame.across.text, small_ink(context.style, context.sizes), context.style)
    face, small = text_style.face, text_style.size
    texts = [across.text(tick, context.data.locale) for tick in across.ticks]
    if frame.lying:
        return room.inset(left=max((width(text, tabular(face), small) for text in texts), default=0.0) + small)
    half = width(texts[-1], face, small) / 2 if texts else 0.0
    return room.inset(bottom=1.6 * small, right=half)
