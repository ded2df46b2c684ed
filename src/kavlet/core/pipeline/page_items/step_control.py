"""A control for the period that a page's charts show, drawn as it stands: the period's name, arrows, a slider."""

from msgspec import Struct

from kavlet.core.document.charts.period_steps import stepping
from kavlet.core.messages import words_in
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape, Writing
from kavlet.core.shapes.arc import disc
from kavlet.core.styling.style import Style
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.values.geometry import Rect

KNOB = 6.0  # points
ARROW = 1.2  # sizes of type, that the arrows' places are wide and high


class ControlParts(Struct, frozen=True):
    """Where the parts of a control stand: the name's baseline, the arrows (None without), the slider's line."""

    base: float
    back: Rect | None
    forth: Rect | None
    line: tuple[float, float] | None
    y: float

    def period_at(self, x: float, count: int) -> int:
        """The period of a place on the slider, counted from 1."""
        if self.line is None:
            return 1
        start, end = self.line
        return 1 + round(min(1.0, max(0.0, (x - start) / max(1e-9, end - start))) * (count - 1))


def parts(item: StepControl, box: Rect, style: Style) -> ControlParts:
    """The parts of a control in its box."""
    size = style.text_size
    base = box.y + metrics(style.bold).cap_height * size
    side = ARROW * size
    top = base - 0.5 * metrics(style.bold).cap_height * size - side / 2
    forth = Rect(box.right - side, top, side, side) if item.buttons else None
    back = Rect(box.right - 2.2 * side, top, side, side) if item.buttons else None
    y = min(box.bottom - KNOB, base + 1.2 * size)
    return ControlParts(base, back, forth, (box.x + KNOB, box.right - KNOB) if item.slider else None, y)


def compose(item: StepControl, box: Rect, context: PageContext) -> ComposedItem:
    """The period's name, an arrow to each side, and a line with a knob where it stands among the others."""
    style = context.style
    found = stepping(context.document, context.values, context.page, item.charts)
    if found is None:
        return ComposedItem(refused=words_in(context.document.locale, "No chart on this page goes through periods."))
    text, size, where = found.name, style.text_size, parts(item, box, style)
    made: list[Primitive] = [
        Writing(text, box.x, where.base, width(text, style.bold, size), style.bold, size, style.ink)
    ]
    for place, way, ends in ((where.back, -1, found.at <= 1), (where.forth, 1, found.at >= len(found.periods))):
        if place is not None:
            made.append(Shape(_arrow(place, way), style.line if ends else style.ink))
    if where.line is not None:
        start, end = where.line
        share = (found.at - 1) / max(1, len(found.periods) - 1)

        def line(pen: Pen) -> None:
            pen.move_to(start, where.y)
            pen.line_to(end, where.y)

        made.append(Shape(recorded(line), None, style.line, 3.0))
        knob = recorded(disc, (start + share * (end - start), where.y), KNOB)
        made.append(Shape(knob, style.tone(0), style.ground, 1.5))
    return ComposedItem(tuple(made), says=text)


def _arrow(place: Rect, way: int) -> Path:
    """A triangle that points back (-1) or on (1)."""
    x, y = place.center
    half = 0.3 * place.width

    def outline(pen: Pen) -> None:
        pen.move_to(x + way * half, y)
        pen.line_to(x - way * half, y - 1.2 * half)
        pen.line_to(x - way * half, y + 1.2 * half)
        pen.close()

    return recorded(outline)
