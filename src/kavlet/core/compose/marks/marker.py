"""Places reference lines on a polar scale: a short stroke across the ring, its name outside."""

import math

from kavlet.core.charts.reference import Reference
from kavlet.core.compose.figure import Anchor, Mark
from kavlet.core.compose.frames.disc import Disc
from kavlet.core.compose.frames.reach import reference_at
from kavlet.core.compose.marks.placing import Placing
from kavlet.core.compose.words.labels import LabelSpot, ink, wanted
from kavlet.core.compose.words.lettering import Rise
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Shape
from kavlet.core.shapes.arc import at
from kavlet.core.shapes.curve import course


def place(layer: Reference, series: int, on: Disc, to: Placing) -> None:
    """One stroke; none for a value outside the scale."""
    value = reference_at(layer, to.data)
    if on.scale is None or not -1e-9 <= on.scale.share(value) <= 1 + 1e-9:
        return
    angle, style = on.angle(value), to.style
    inner = on.hole * 0.97 if on.hole else 0.72 * on.radius
    ends = [at(on.center, inner, angle), at(on.center, 1.04 * on.radius, angle)]
    path = recorded(course, ends, "straight")
    colour = style.solid(layer.fill if layer.fill is not None else "ink", layer.tone)
    items = (Shape(path, None, style.ground, layer.width + 2.5), Shape(path, None, colour, layer.width))
    to.marks.append(
        Mark(
            layer.name,
            layer.key,
            "reference",
            0,
            series,
            layer.helper,
            not layer.helper,
            value,
            path.bounds,
            path,
            colour,
            layer.name,
            () if layer.helper else items,
            dressed=layer.fill,
            tone=layer.tone,
            panel=to.panel,
        )
    )
    if layer.label is None or layer.helper:
        return
    text = to.wording.filled(layer, layer.label, 0) or layer.name
    sin, cos = math.sin(math.radians(angle)), math.cos(math.radians(angle))
    anchor: Anchor = "middle" if abs(sin) < 0.35 else "start" if sin > 0 else "end"
    level: Rise = "middle" if abs(cos) < 0.5 else "bottom" if cos > 0 else "top"
    spots = [
        LabelSpot(*at(on.center, on.radius * 1.06 + far, angle), anchor, level, ink(layer.label, style, None))
        for far in (0.0, 1.5 * to.sizes.small)
    ]
    to.labels.append(wanted(layer, 0, text, spots, style, to.sizes.small, ends[1]))
