"""What dragging a part of the chart sets: values by their paths, from how far the mouse has gone, in points."""

import math
from collections.abc import Callable
from itertools import pairwise
from typing import Any

from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.overrides import held
from kavlet.core.charts.solid import MAX_ANGLE, Solid
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.interaction.parts import Part, boxes
from kavlet.core.layout.context import least_plot
from kavlet.core.layout.figure import Figure, Mark
from kavlet.core.layout.planes.plane import BROADEST
from kavlet.core.messages import Message, named, say
from kavlet.core.values.geometry import Rect

Looks = dict[str, Any]
SETTING = "settings."
DEGREES = 0.45  # of turn or tilt for a point the mouse goes
NEAR = 4.0  # points from an edge that count as on it


class Drag(Struct, frozen=True):
    """A name for the edit, and the looks for a way (dx, dy) and a place (x, y) of the mouse.

    A look named `settings.…` is a parameter of the recipe.
    """

    name: Message
    looks: Callable[[float, float, float, float], Looks]


def begin(figure: Figure, chart: Chart, part: Part | None, chosen: tuple[Part, ...], x: float, y: float) -> Drag | None:
    """What a drag that starts on a part at (x, y) does; None where dragging has no meaning."""
    if part is not None and part.kind == "label":
        return _offset(say("move label"), of_layer(part.key, row=part.row), chart, figure, part)
    if part is not None and part.kind == "text":
        return _offset(say("move {text}", text=named(part.key)), part.key, chart, figure, part)
    if part is not None and part.kind == "legend":
        return _legend(figure, part)
    if not figure.fronts:
        return _on_plane(figure, chart, part, chosen, x, y)
    # A solid's parts are moved along the chart's own plane, which is seen aslant.
    mark = next((one for one in figure.marks if part is not None and (one.key, one.row) == (part.key, part.row)), None)
    front = figure.fronts[min(mark.panel if mark is not None else 0, len(figure.fronts) - 1)]
    start = _unturned(front, x, y)
    if start is None:
        return None
    drag = _on_plane(figure, chart, part, chosen, *start)
    return _aslant(drag, front, start) if drag is not None else None


def _unturned(front: tuple[float, ...], x: float, y: float) -> tuple[float, float] | None:
    """The place of a chart's own plane that is seen at a point; None where the plane is seen edge-on."""
    a, b, c, d, e, f, g, h, i = front
    size = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
    if abs(size) < 1e-6:
        return None
    u = (e * i - f * h) * x + (c * h - b * i) * y + (b * f - c * e)
    v = (f * g - d * i) * x + (a * i - c * g) * y + (c * d - a * f)
    w = (d * h - e * g) * x + (b * g - a * h) * y + (a * e - b * d)
    return (u / w, v / w) if abs(w) > 1e-12 else None


def _aslant(drag: Drag, front: tuple[float, ...], start: tuple[float, float]) -> Drag:
    """A drag along a plane, told by where the mouse is on the sheet."""

    def looks(_dx: float, _dy: float, x: float, y: float) -> Looks:
        here = _unturned(front, x, y) or start
        return drag.looks(here[0] - start[0], here[1] - start[1], *here)

    return Drag(drag.name, looks)


def turning(chart: Chart) -> Drag:
    """Dragging the chart itself: across turns it, down tilts what is above toward the reader."""
    solid = chart.as_solid or Solid()

    def looks(dx: float, dy: float, _x: float, _y: float) -> Looks:
        turn = min(MAX_ANGLE, max(-MAX_ANGLE, solid.turn + dx * DEGREES))
        tilt = min(MAX_ANGLE, max(-MAX_ANGLE, solid.tilt + dy * DEGREES))
        return {"solid.on": True, "solid.turn": round(turn, 1), "solid.tilt": round(tilt, 1)}

    return Drag(say("turn"), looks)


def _on_plane(
    figure: Figure, chart: Chart, part: Part | None, chosen: tuple[Part, ...], x: float, y: float
) -> Drag | None:
    """What a drag does that starts on the chart's own plane."""
    hole = _hole(figure, chart, chosen, x, y)
    if hole is not None:
        return hole
    if part is None:
        return None
    if part.kind == "plot":
        return _plot(figure, x, y)
    if part.kind != "mark":
        return None
    mark = next((one for one in figure.marks if one.key == part.key and one.row == part.row and one.visible), None)
    if mark is None:
        return None
    if "out" in mark.kind.handles:
        return _explode(mark, chart)
    if "value" in mark.kind.handles:
        return _reference(figure, chart, mark)
    if "breadth" in mark.kind.handles:
        return _cap(figure, chart, mark, x, y) or _gap(figure, chart, mark, x, y)
    return None


def dragged(document: Document, chart_id: str, looks: Looks) -> Document:
    """The document with what a drag has brought about."""
    settings = {path.removeprefix(SETTING): value for path, value in looks.items() if path.startswith(SETTING)}
    for name, value in settings.items():
        document = look_edits.set_setting(document, chart_id, name, value)
    others = {path: value for path, value in looks.items() if not path.startswith(SETTING)}
    others = look_edits.limited(document, chart_id, others)
    return look_edits.set_looks(document, chart_id, others) if others else document


def _offset(name: Message, path: str, chart: Chart, figure: Figure, part: Part) -> Drag:
    """A text goes anywhere on the sheet, and never off it."""
    dx0, dy0 = (float(held(chart, f"{path}.{side}") or 0.0) for side in ("dx", "dy"))
    box = next(iter(boxes(figure, part)), None)
    sheet = Rect(0.0, 0.0, figure.size.width, figure.size.height)

    def looks(dx: float, dy: float, _x: float, _y: float) -> Looks:
        back = Rect(box.x + dx, box.y + dy, box.width, box.height).way_into(sheet) if box is not None else (0.0, 0.0)
        return {f"{path}.dx": round(dx0 + dx + back[0], 2), f"{path}.dy": round(dy0 + dy + back[1], 2)}

    return Drag(name, looks)


def _explode(mark: Mark, chart: Chart) -> Drag | None:
    """A slice goes outward along its own direction, never inward past its place."""
    sector = mark.sector
    if sector is None:
        return None
    path = of_layer(mark.key, "explode", row=mark.row)
    start = held(chart, path)
    layer = chart.layer(mark.key)
    base = float(start if start is not None else getattr(layer, "explode", 0.0))
    turn = math.radians((sector.start + sector.end) / 2)

    def looks(dx: float, dy: float, _x: float, _y: float) -> Looks:
        out = (dx * math.sin(turn) - dy * math.cos(turn)) / sector.outer
        return {path: round(min(1.0, max(0.0, base + out)), 3)}

    return Drag(say("move slice"), looks)


def _legend(figure: Figure, part: Part) -> Drag | None:
    """The legend goes anywhere inside the plot."""
    box = next(iter(boxes(figure, part)), None)
    if box is None:
        return None

    def looks(dx: float, dy: float, _x: float, _y: float) -> Looks:
        free_x, free_y = max(1.0, figure.plot.width - box.width), max(1.0, figure.plot.height - box.height)
        x = (box.x + dx - figure.plot.x) / free_x
        y = (box.y + dy - figure.plot.y) / free_y
        return {
            "legend.side": "inside",
            "legend.x": round(min(1.0, max(0.0, x)), 3),
            "legend.y": round(min(1.0, max(0.0, y)), 3),
        }

    return Drag(say("move legend"), looks)


def _plot(figure: Figure, x: float, y: float) -> Drag | None:
    """An edge of the plot, where the mouse is on one."""
    plot, size = figure.plot, figure.size
    if any(mark.panel for mark in figure.marks):
        return None  # of several panels each has its own
    edges = [abs(x - plot.x), abs(y - plot.y), abs(x - plot.right), abs(y - plot.bottom)]
    edge = min(range(4), key=lambda i: edges[i])
    if edges[edge] > NEAR:
        return None
    insets = [plot.x / size.width, plot.y / size.height, 1 - plot.right / size.width, 1 - plot.bottom / size.height]

    def looks(_dx: float, _dy: float, to_x: float, to_y: float) -> Looks:
        new = list(insets)
        new[edge] = (to_x / size.width, to_y / size.height, 1 - to_x / size.width, 1 - to_y / size.height)[edge]
        side = size.width if edge in (0, 2) else size.height
        new[edge] = min(new[edge], 1 - insets[(edge + 2) % 4] - least_plot(side) / side)
        return {"plot": [round(min(0.9, max(0.0, inset)), 4) for inset in new]}

    return Drag(say("move plot edge"), looks)


def _reference(figure: Figure, chart: Chart, mark: Mark) -> Drag | None:
    """A reference line goes to another value of the scale."""
    axis = next((one for one in figure.axes if one.name in ("x", "y")), None)
    if axis is None or not isinstance(chart.frame, Cartesian):
        return None
    plot, lying = figure.plot, chart.frame.lying

    def looks(_dx: float, _dy: float, x: float, y: float) -> Looks:
        share = (x - plot.x) / plot.width if lying else (plot.bottom - y) / plot.height
        value = axis.minimum + min(1.0, max(0.0, share)) * (axis.maximum - axis.minimum)
        digits = 2 - math.floor(math.log10(max(1e-9, axis.maximum - axis.minimum)))
        return {of_layer(mark.key, "at"): round(value, max(0, digits)), of_layer(mark.key, "values"): ""}

    return Drag(say("move reference line"), looks)


def _cap(figure: Figure, chart: Chart, mark: Mark, x: float, y: float) -> Drag | None:
    """The end of a bar that is cut short moves the cap of all: the recipe's, where that cuts its figures, else the
    scale's."""
    layer, axis = chart.layer(mark.key), next((one for one in figure.axes if one.name in ("x", "y")), None)
    if layer is None or axis is None or mark.block is None or not mark.block.broken:
        return None
    path = f"{SETTING}cap" if layer.figure_column != layer.values else "frame.along.cap"
    plot, rect, lying = figure.plot, mark.block.rect, isinstance(chart.frame, Cartesian) and chart.frame.lying

    def value_at(x: float, y: float) -> float:
        share = (x - plot.x) / plot.width if lying else (plot.bottom - y) / plot.height
        return axis.minimum + share * (axis.maximum - axis.minimum)

    end = value_at(rect.right, rect.y)
    if mark.value <= end * (1 + 1e-6) or abs((x - rect.right) if lying else (y - rect.y)) > NEAR:
        return None
    digits = 2 - math.floor(math.log10(max(1e-9, axis.maximum - axis.minimum)))
    least = (axis.maximum - axis.minimum) / 100

    def looks(_dx: float, _dy: float, x: float, y: float) -> Looks:
        return {path: round(max(least, value_at(x, y)), max(0, digits))}

    return Drag(say("move cap"), looks)


def _gap(figure: Figure, chart: Chart, mark: Mark, x: float, y: float) -> Drag | None:
    """The side of a bar makes all bars broader or slimmer."""
    frame = chart.frame
    if mark.block is None or not isinstance(frame, Cartesian):
        return None
    rect = mark.block.rect
    place, low, high = (y, rect.y, rect.bottom) if frame.lying else (x, rect.x, rect.right)
    thick = high - low
    if min(abs(place - low), abs(place - high)) > min(NEAR, thick / 4):
        return None
    side = -1 if abs(place - low) < abs(place - high) else 1
    rows = sorted(
        one.block.rect.y if frame.lying else one.block.rect.x
        for one in figure.marks
        if one.key == mark.key and one.block is not None
    )
    stated = frame.gap_width / 100
    pitch = min((b - a for a, b in pairwise(rows)), default=thick * (1 + stated))
    # How many bars' breadth a row's bars take together: what the gap leaves, or all they may take where that is less.
    group = min(pitch / thick - stated, BROADEST / thick)

    def looks(dx: float, dy: float, _x: float, _y: float) -> Looks:
        new = min(pitch / group, max(2.0, thick + 2 * side * (dy if frame.lying else dx)))
        return {"frame.gap_width": round(100 * max(0.0, pitch / new - group), 1)}

    return Drag(say("set gap"), looks)


def _hole(figure: Figure, chart: Chart, chosen: tuple[Part, ...], x: float, y: float) -> Drag | None:
    """The inner edge of a ring whose layer is chosen makes the hole larger or smaller."""
    if not isinstance(chart.frame, Polar) or not chosen or chosen[0].kind not in ("layer", "mark"):
        return None
    rings = [mark.sector for mark in figure.marks if mark.key == chosen[0].key and mark.sector is not None]
    if not rings:
        return None
    inner, outer, center = min(one.inner for one in rings), max(one.outer for one in rings), rings[0].center
    if abs(math.hypot(x - center[0], y - center[1]) - inner) > NEAR or inner <= 0:
        return None

    def looks(_dx: float, _dy: float, to_x: float, to_y: float) -> Looks:
        return {"frame.hole": round(min(0.9, math.hypot(to_x - center[0], to_y - center[1]) / outer), 3)}

    return Drag(say("set hole"), looks)
