"""What is drawn of a value that its axis does not reach: an arrow at the plot's edge, and the value beside it."""

from collections.abc import Sequence

from msgspec import Struct

from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Layer
from kavlet.core.layout.placing import MarkDrawing, Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelStyle, ink
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.box import box
from kavlet.core.shapes.spots import arrow
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect

LONG = 6.5  # points, from an arrow's tip to its base


class Edge(Struct, frozen=True):
    """A place at the plot's edge, and the way out of the plot from there."""

    at: Point
    way: Point

    @property
    def path(self) -> Path:
        """The arrow."""
        return recorded(arrow, self.at, self.way, LONG)

    @property
    def bounds(self) -> Rect:
        """The box around the arrow."""
        return self.path.bounds


def edge(on: Plane, across: float, along: float) -> Edge | None:
    """Where a place beyond the plot meets its edge; None for one within."""
    x, y = on.point(across, along)
    plot = on.plot
    slack = 1e-6 * max(plot.width, plot.height)
    wide = 1 if x > plot.right + slack else -1 if x < plot.x - slack else 0
    high = 1 if y > plot.bottom + slack else -1 if y < plot.y - slack else 0
    if not (wide or high):
        return None
    at = min(max(x, plot.x), plot.right), min(max(y, plot.y), plot.bottom)
    return Edge(at, (0.0, float(high)) if high else (float(wide), 0.0))


def plot_clip(on: Plane) -> Path:
    """The plot's outline, for cutting what would leave it."""
    return recorded(box, on.plot)


def place_arrow(
    layer: Layer,
    row: int,
    at: Edge,
    placing: Placing,
    figures: tuple[float, float | None],
    under: Sequence[Primitive] = (),
) -> None:
    """The mark of a row that lies beyond: an arrow in its colour, over what is drawn `under` it, and its value.

    `figures` are the mark's value, and what the label says where that is another.
    """
    value, figure = figures
    filling = placing.filling(layer, row)
    colour = placing.style.solid(filling.fill, filling.tone)
    items = (*under, Shape(at.path, colour))
    drawing = MarkDrawing(path=at.path, fill=colour, items=items, dressed=filling.fill, tone=filling.tone, beyond=True)
    placing.mark(layer, row, value, at.bounds, drawing)
    say_value(layer, row, at, placing, figure)


def say_value(
    layer: Layer, row: int, at: Edge, placing: Placing, figure: float | None = None, behind: Colour | None = None
) -> None:
    """Wish for the value's label inside the plot, beside its arrow; `behind` is the colour of what lies there."""
    x, y = at.at
    dx, dy = at.way
    colour = ink(layer.label, placing.style, behind)
    right = LabelSpot(x, y, "start", "middle", colour, sx=0.6, sy=-0.45 * dy)
    left = LabelSpot(x, y, "end", "middle", colour, sx=-0.6, sy=-0.45 * dy)
    under = LabelSpot(x - dx * LONG, y - dy * LONG, "middle", "top" if dy < 0 else "bottom", colour, sy=-0.4 * dy)
    spots = [right, left, under] if dy else [LabelSpot(x - dx * LONG, y, "end" if dx > 0 else "start", "middle", colour,
                                                        sx=-0.4 * dx), under]  # fmt: skip
    if behind is not None:
        spots = [under]  # beside it, nobody knows what lies behind
    size = (layer.label or Label()).size or placing.sizes.small
    placing.label(
        layer,
        placing.id(row),
        placing.wording.beyond(layer, row, figure),
        spots,
        LabelStyle(size, weight=1e9, bold=True),
    )
