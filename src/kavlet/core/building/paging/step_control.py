"""A slider for the period that a page's charts show, drawn as it stands."""

from kavlet.core.building.paging.sheet import Composed, Sheet
from kavlet.core.document.stepping import stepping
from kavlet.core.messages import words_in
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.scene.path import recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape, Writing
from kavlet.core.shapes.arc import disc
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.values.geometry import Rect

KNOB = 6.0  # points


def compose(item: StepControl, box: Rect, sheet: Sheet) -> Composed:
    """The period's name, and a line with a knob where it stands among the others."""
    style = sheet.style
    found = stepping(sheet.document, sheet.values, sheet.page, item.charts)
    if found is None:
        return Composed(refused=words_in(sheet.document.locale, "No chart on this page goes through periods."))
    text = found.name
    size = style.text_size
    base = box.y + metrics(style.bold).cap_height * size
    made: list[Primitive] = [Writing(text, box.x, base, width(text, style.bold, size), style.bold, size, style.ink)]
    y = min(box.bottom - KNOB, base + 1.2 * size)
    start, end = box.x + KNOB, box.right - KNOB
    share = (found.at - 1) / max(1, len(found.periods) - 1)

    def line(pen: Pen) -> None:
        pen.move_to(start, y)
        pen.line_to(end, y)

    if item.slider:
        made.append(Shape(recorded(line), None, style.line, 3.0))
        made.append(Shape(recorded(disc, (start + share * (end - start), y), KNOB), style.tone(0), style.ground, 1.5))
    return Composed(tuple(made), says=text)
