"""A plain shape at its place."""

import math

from kavlet.core.pages.items.drawn_shape import DrawnShape, line_ends
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Join, Primitive, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.box import box as box_outline
from kavlet.core.values.affine import moved, scaled
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

DROP, SOFT, SPREAD = 2.0, 0.045, (3.0, 2.0, 1.0, 0.0)  # points that a shadow lies lower; its ink; points it spreads
BLACK = Colour(0.0, 0.0, 0.0)
HEAD = 4.5  # line widths, that an arrow's head is long; at least 8 points


def compose(item: DrawnShape, box: Rect, context: PageContext) -> ComposedItem:
    """The shape filled and edged; lines and arrows have the colour of their edge, or the text's."""
    style = context.style
    fill = style.colour(item.fill) if item.fill else None
    edge = style.colour(item.edge) if item.edge else None
    if item.form in ("line", "arrow"):
        return ComposedItem(tuple(_line(item, box, edge or style.ink)))
    soft = [Shape(_outline(item, box.inset(-by, -by, -by, -by).moved(0.0, DROP), by), BLACK.faded(SOFT))
            for by in SPREAD] if item.shadow else []  # fmt: skip
    join: Join = "round" if item.form == "ellipse" else "miter"
    shape = Shape(_outline(item, box), fill, edge, item.edge_width if edge else 0.0, join=join)
    return ComposedItem((*soft, shape))


def _outline(item: DrawnShape, box: Rect, wider: float = 0.0) -> Path:
    if item.form == "ellipse":
        around = recorded(disc, (0.0, 0.0), 1.0)
        return around.mapped(moved(*box.center).after(scaled(box.width / 2, box.height / 2)))
    radius = (item.radius if item.form == "rounded" else 0.0) + max(0.0, wider)
    return recorded(box_outline, box, min(radius, box.width / 2, box.height / 2))


def _line(item: DrawnShape, box: Rect, ink: Colour) -> list[Primitive]:
    start, end = line_ends(item, box)
    long = math.hypot(end[0] - start[0], end[1] - start[1]) or 1.0
    ux, uy = (end[0] - start[0]) / long, (end[1] - start[1]) / long
    head = max(8.0, HEAD * item.edge_width) if item.form == "arrow" else 0.0
    stop = (end[0] - 0.8 * head * ux, end[1] - 0.8 * head * uy)

    def line(pen: Pen) -> None:
        pen.move_to(*start)
        pen.line_to(*stop)

    def tip(pen: Pen) -> None:
        base = (end[0] - head * ux, end[1] - head * uy)
        pen.move_to(*end)
        pen.line_to(base[0] - 0.42 * head * uy, base[1] + 0.42 * head * ux)
        pen.line_to(base[0] + 0.42 * head * uy, base[1] - 0.42 * head * ux)
        pen.close()

    made: list[Primitive] = [Shape(recorded(line), None, ink, item.edge_width, cap="flat")]
    return [*made, Shape(recorded(tip), ink)] if head else made
