"""Lays out a polar frame: room for labels around it, then the largest disc that fits, and the scale along its rim."""

import math

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Polar
from kavlet.core.charts.needle import Needle
from kavlet.core.charts.rings import Rings
from kavlet.core.charts.wedges import Wedges
from kavlet.core.compose.data import Data
from kavlet.core.compose.figure import PlacedAxis, PlacedRule, PlacedText
from kavlet.core.compose.frames.axes import tick_text
from kavlet.core.compose.frames.disc import Disc
from kavlet.core.compose.frames.scales import Scaled, scaled
from kavlet.core.compose.furniture import Furniture, Sizes, small_ink
from kavlet.core.compose.words.lettering import block
from kavlet.core.compose.words.wording import Wording
from kavlet.core.dress.style import Style
from kavlet.core.shapes.arc import at
from kavlet.core.text.shaping import width
from kavlet.core.values.geometry import Rect


def lay_out(
    chart: Chart, frame: Polar, data: Data, style: Style, sizes: Sizes, wording: Wording, room: Rect
) -> tuple[Disc, Furniture]:
    """The disc and its scale within `room`."""
    scale = scaled(frame.scale, (0.0, 1.0), 240.0) if frame.scale is not None else None
    visible = frame.scale is not None and frame.scale.visible is not False and scale is not None
    side, above = _label_margins(chart, frame, scale if visible else None, data, style, sizes, wording)
    foot = _foot(chart, sizes, frame)
    left, top, right, bottom = _unit_box(frame, any(isinstance(layer, Needle) for layer in chart.layers))
    side = min(side, 0.3 * room.width)
    wide, tall = max(8.0, room.width - 2 * side), max(8.0, room.height - 2 * above - foot)
    radius = min(wide / (right - left), tall / (bottom - top))
    slip = _explode(chart)
    radius /= 1 + slip
    used_w, used_h = (right - left) * radius, (bottom - top) * radius
    cx = room.center[0] - used_w / 2 - left * radius
    cy = room.y + above + (room.height - 2 * above - foot - used_h) / 2 - top * radius
    disc = Disc(room, (cx, cy), radius, frame, _rings(chart, data), scale)
    texts: list[PlacedText] = []
    rules: list[PlacedRule] = []
    if visible and scale is not None and frame.scale is not None:
        ink = small_ink(style, sizes)
        for tick in scale.ticks:
            angle = disc.angle(tick)
            a, b = at(disc.center, radius + 0.18 * ink.size, angle), at(disc.center, radius + 0.5 * ink.size, angle)
            rules.append(PlacedRule("tick", *a, *b, style.quiet, 0.8))
            text = tick_text(tick, frame.scale, data)
            texts.append(_around(text, disc, angle, radius + 0.78 * ink.size, ink))
    axes = (
        (PlacedAxis("angle", scale.minimum, scale.maximum, visible, scale.ticks if visible else ()),) if scale else ()
    )
    return disc, Furniture((), tuple(rules), tuple(texts), axes)


def _around(text: str, disc: Disc, angle: float, radius: float, ink) -> PlacedText:  # type: ignore[no-untyped-def]
    """A text just outside the rim, aligned so that its nearest side faces the centre."""
    x, y = at(disc.center, radius, angle)
    sin, cos = math.sin(math.radians(angle)), math.cos(math.radians(angle))
    anchor = "middle" if abs(sin) < 0.35 else "start" if sin > 0 else "end"
    level = "middle" if abs(cos) < 0.5 else "bottom" if cos > 0 else "top"
    return block((text,), "tick", (x, y), anchor, level, ink)  # type: ignore[arg-type]


def _unit_box(frame: Polar, hub: bool) -> tuple[float, float, float, float]:
    """The box around what is shown of the unit disc: left, top, right, bottom, the centre being (0, 0)."""
    shown = max(1.0, min(360.0, frame.shown))
    angles = [frame.start + shown * i / 72 for i in range(73)]
    points = [at((0.0, 0.0), radius, angle) for angle in angles for radius in (1.0, frame.hole)]
    if hub:
        points += [(-0.08, -0.08), (0.08, 0.08)]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs), max(ys)


def _foot(chart: Chart, sizes: Sizes, frame: Polar) -> float:
    """Room under the hub of a half dial for the needle's label."""
    for layer in chart.layers:
        if isinstance(layer, Needle) and layer.label is not None and frame.shown <= 200:
            return 1.5 * (layer.label.size or 1.9 * sizes.text)
    return 0.0


def _label_margins(
    chart: Chart, frame: Polar, scale: Scaled | None, data: Data, style: Style, sizes: Sizes, wording: Wording
) -> tuple[float, float]:
    """Room at the sides and above for labels outside the disc."""
    side = above = 0.0
    for layer in chart.layers:
        if isinstance(layer, Wedges) and layer.label is not None and not layer.helper and not layer.hidden:
            outside = layer.label.position in ("outside", "by sign", "beside")
            texts = [wording.text(layer, row) for row in range(data.rows)]
            lines = [line for text in texts for line in text.split("\n")]
            most = max((width(line, style.face, sizes.text) for line in lines), default=0.0)
            if outside and most:
                side = max(side, min(most, 11 * sizes.text) + 1.4 * sizes.text)
                above = max(above, 1.1 * sizes.text * (1 + max((text.count("\n") for text in texts), default=0)))
    if scale is not None and frame.scale is not None:
        most = max((width(tick_text(t, frame.scale, data), style.face, sizes.small) for t in scale.ticks), default=0.0)
        side, above = max(side, most + sizes.small), max(above, 1.7 * sizes.small)
    if any(isinstance(layer, Needle) and layer.past for layer in chart.layers):
        above = max(above, 8.0)
    return side, above


def _explode(chart: Chart) -> float:
    out = 0.0
    for layer in chart.layers:
        if isinstance(layer, Wedges) and not layer.hidden:
            out = max(out, layer.explode, *(row.explode or 0.0 for row in layer.rows.values()), 0.0)
    return min(1.0, out)


def _rings(chart: Chart, data: Data) -> int:
    """How many rings the layers ask for: a ring number each, or one per row."""
    count = 1
    for layer in chart.layers:
        if isinstance(layer, Wedges) and not layer.hidden:
            count = max(count, layer.ring + 1)
        if isinstance(layer, Rings) and not layer.hidden:
            count = max(count, len(layer.order) or data.rows)
    return count
