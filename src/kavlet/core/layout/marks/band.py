"""Places bands: strips over part of the value scale, with their name at the far end."""

from kavlet.core.charts.band import Band
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind
from kavlet.core.layout.kind import Kind
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Shape
from kavlet.core.shapes.box import box
from kavlet.core.values.geometry import Rect


def place(layer: Band, on: Plane, placing: Placing) -> None:
    """One mark over the whole plot across."""
    scale = on.axis(layer.second)
    a, b = on.along(scale.inside(layer.low), layer.second), on.along(scale.inside(layer.high), layer.second)
    plot = on.plot
    rect = Rect(min(a, b), plot.y, abs(b - a), plot.height) if on.lying else (
        Rect(plot.x, min(a, b), plot.width, abs(b - a))
    )  # fmt: skip
    style = placing.style
    colour = style.solid(layer.fill, layer.tone) if layer.fill is not None else style.tint(style.tone(layer.tone), 0.86)
    path = recorded(box, rect)
    visible = not layer.helper and rect.width > 0 and rect.height > 0
    items = (Shape(path, colour),) if visible else ()
    drawing = MarkDrawing(path=path, fill=colour, items=items, dressed=layer.fill, tone=layer.tone, visible=visible)
    placing.put(layer, MarkSource(0, layer.name, is_computed=True), layer.high - layer.low, rect, drawing)
    if layer.label is not None and visible and layer.name:
        spot = LabelSpot(
            rect.right, rect.y, "end", "top", ink(layer.label, style, colour), sx=-0.4, sy=0.35,
            width=rect.width, height=rect.height, pad=0.3,
        )  # fmt: skip
        placing.label(layer, 0, layer.name, [spot], LabelStyle(placing.sizes.small))


class BandKind(Kind[Band]):
    spec = Band
    mark = MarkKind("band")
    places = ((Plane, place),)

    def figures(self, layer: Band, context: Context) -> list[float]:
        return [layer.low, layer.high]


KIND = BandKind()
