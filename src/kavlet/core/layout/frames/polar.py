"""Lays out a polar frame: room for labels around it, then the largest disc that fits, and the scale along its rim."""

from kavlet.core.charts.frame import Polar
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import PlacedAxis, PlacedRule, PlacedText
from kavlet.core.layout.furniture import Furniture, small_ink
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.planes.disc import Disc, facing
from kavlet.core.layout.planes.scales import fixed_scale
from kavlet.core.layout.texts.text_lines import Anchor, TextOwner, TextStyle, block, lettered
from kavlet.core.shapes.arc import at
from kavlet.core.text.shaping import width
from kavlet.core.values.geometry import Rect

HALF = 0.5  # radii that a disc reaches below its centre, from which on something may stand below it


def lay_out(context: Context, frame: Polar, room: Rect) -> tuple[Disc, Furniture]:
    """The disc and its scale within `room`, or where its author put the plot."""
    room = context.plot_by_hand or room
    style, sizes, data, layers = context.style, context.sizes, context.data, context.chart.layers
    kinds = [(kind_of(layer), layer) for layer in layers]
    shown = [(kind, layer) for kind, layer in kinds if not layer.hidden]
    scale = fixed_scale(frame.scale, (0.0, 1.0), 240.0) if frame.scale is not None else None
    visible = frame.scale is not None and frame.scale.visible is not False and scale is not None
    foot = next((held for held in (kind.foot(layer, context, frame) for kind, layer in kinds) if held), 0.0)
    left, top, right, bottom = _unit_box(frame, any(kind.hub for kind, _ in kinds))
    widest = min(room.width / (right - left), max(8.0, room.height - foot) / (bottom - top))
    side, above = _label_margins(context, Disc(room, room.center, widest, frame, 1, scale), visible)
    side = min(side, 0.3 * room.width)
    below = above if bottom > HALF else 0.0
    wide, tall = max(8.0, room.width - 2 * side), max(8.0, room.height - above - below - foot)
    radius = min(wide / (right - left), tall / (bottom - top))
    radius /= 1 + min(1.0, max((kind.explosion(layer) for kind, layer in shown), default=0.0))
    used_w, used_h = (right - left) * radius, (bottom - top) * radius
    cx = room.center[0] - used_w / 2 - left * radius
    cy = room.y + above + (room.height - above - below - foot - used_h) / 2 - top * radius
    rings = max((kind.rings(layer, data.rows) for kind, layer in shown), default=1)
    disc = Disc(room, (cx, cy), radius, frame, max(1, rings), scale)
    texts: list[PlacedText] = []
    rules: list[PlacedRule] = []
    if visible and scale is not None and frame.scale is not None:
        text_style = lettered(frame.scale.text, small_ink(style, sizes), style)
        for tick in scale.ticks:
            angle = disc.angle(tick)
            a, b = (
                at(disc.center, radius + 0.18 * text_style.size, angle),
                at(disc.center, radius + 0.5 * text_style.size, angle),
            )
            rules.append(PlacedRule("tick", *a, *b, style.quiet, style.strokes.tick))
            text = scale.text(tick, data.locale)
            texts.append(_around(text, disc, angle, radius + 0.78 * text_style.size, text_style))
    axes = (
        (PlacedAxis("angle", scale.minimum, scale.maximum, visible, scale.ticks if visible else ()),) if scale else ()
    )
    return disc, Furniture((), tuple(rules), tuple(texts), axes)


def _around(text: str, disc: Disc, angle: float, radius: float, text_style: TextStyle) -> PlacedText:
    """A text just outside the rim, aligned so that its nearest side faces the centre."""
    return block(
        (text,), "tick", Anchor(at(disc.center, radius, angle), *facing(angle)), text_style, TextOwner(key="scale")
    )


def _unit_box(frame: Polar, hub: bool) -> tuple[float, float, float, float]:
    """The box around what is shown of the unit disc: left, top, right, bottom, the centre being (0, 0)."""
    shown = max(1.0, min(360.0, frame.shown))
    angles = [frame.start + shown * i / 72 for i in range(73)]
    points = [at((0.0, 0.0), radius, angle) for angle in angles for radius in (1.0, frame.hole)]
    if hub:
        points += [(-0.08, -0.08), (0.08, 0.08)]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs), max(ys)


def _label_margins(context: Context, widest: Disc, with_ticks: bool) -> tuple[float, float]:
    """Room at the sides and above for what stands outside the disc; `widest` would fit without any."""
    asked = [kind_of(layer).margins(layer, context, widest) for layer in context.chart.layers]
    side, above = (max((held[i] for held in asked), default=0.0) for i in (0, 1))
    scale, spec = widest.scale, widest.frame.scale
    if with_ticks and scale is not None and spec is not None:
        text_style = lettered(spec.text, small_ink(context.style, context.sizes), context.style)
        face, small = text_style.face, text_style.size
        most = max((width(scale.text(tick, context.data.locale), face, small) for tick in scale.ticks), default=0.0)
        side, above = max(side, most + small), max(above, 1.7 * small)
    return side, above
