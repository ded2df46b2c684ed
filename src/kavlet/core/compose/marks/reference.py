"""Places reference lines: a line at a value over the whole plot, its name at the end."""

import math

from kavlet.core.charts.reference import Reference
from kavlet.core.compose.figure import Mark
from kavlet.core.compose.frames.plane import Plane
from kavlet.core.compose.frames.reach import reference_at
from kavlet.core.compose.marks.placing import Placing
from kavlet.core.compose.words.labels import LabelSpot, ink, wanted
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Shape
from kavlet.core.shapes.box import quad
from kavlet.core.shapes.curve import course
from kavlet.core.values.geometry import Rect


def place(layer: Reference, series: int, on: Plane, to: Placing) -> None:
    """One line; none for a value outside the scale."""
    value = reference_at(layer, to.data)
    share = on.axis(layer.second).share(value)
    if math.isnan(share) or not -1e-9 <= share <= 1 + 1e-9:
        return
    along = on.along(value, layer.second)
    plot, style = on.plot, to.style
    ends = [(along, plot.y), (along, plot.bottom)] if on.lying else [(plot.x, along), (plot.right, along)]
    colour = style.solid(layer.fill if layer.fill is not None else "ink", layer.tone)
    line = Shape(recorded(course, ends, "straight"), None, colour, layer.width, dash=layer.dash)
    reach = max(3.0, layer.width)
    (x1, y1), (x2, y2) = ends
    touch = (
        recorded(quad, (x1 - reach, y1), (x1 + reach, y1), (x2 + reach, y2), (x2 - reach, y2))
        if on.lying
        else recorded(quad, (x1, y1 - reach), (x2, y2 - reach), (x2, y2 + reach), (x1, y1 + reach))
    )
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
            Rect.around(ends),
            touch,
            colour,
            layer.name,
            () if layer.helper else (line,),
            dressed=layer.fill,
            tone=layer.tone,
            panel=to.panel,
        )
    )
    if layer.label is not None and not layer.helper:
        text = to.wording.filled(layer, layer.label, 0) if to.data.rows else layer.name
        text = text or layer.name
        shade = ink(layer.label, style, None)
        if on.lying:
            spots = [
                LabelSpot(along, plot.y, "middle", "bottom", shade, sy=-0.3),
                LabelSpot(along, plot.y, "start", "top", shade, sx=0.35, sy=0.2),
            ]
        else:
            spots = [
                LabelSpot(plot.right, along, "end", "bottom", shade, sy=-0.35),
                LabelSpot(plot.right, along, "end", "top", shade, sy=0.35),
                LabelSpot(plot.x, along, "start", "bottom", shade, sy=-0.35),
            ]
        to.labels.append(wanted(layer, 0, text, spots, style, to.sizes.small, weight=math.inf))
