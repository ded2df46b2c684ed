"""Sets a key figure: the number as large as fits, its caption, and how it changed."""

import math

import msgspec
from msgspec import Struct

from kavlet.core.messages import words_in
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext
from kavlet.core.pipeline.page_items.text_fields import evaluated, filled, said
from kavlet.core.scene.path import recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape, Writing
from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.text.faces import metrics
from kavlet.core.text.numbers import written
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import wrapped
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import NumberText

LARGEST, SHARE = 64.0, 0.52  # points; of the box's height that the number may take
MIN_FONT_SIZE = 9.0


def compose(item: KeyFigure, box: Rect, context: PageContext) -> ComposedItem:
    """The figure from the box's top, its caption below it, then its change."""
    style, face = context.style, context.style.bold
    value, wrong = _value(item.value, context)
    text = "–" if wrong else said(value, item.number, context)
    small = min(style.text_size, max(MIN_FONT_SIZE, 0.2 * box.height))
    largest = item.size or min(LARGEST, SHARE * box.height)
    fits = largest * min(1.0, box.width / max(1e-6, width(text, face, largest)))
    size = largest if item.size else max(MIN_FONT_SIZE, fits)
    ink = style.colour(item.colour) if item.colour else style.ink
    y = box.y + metrics(face).cap_height * size
    made: list[Primitive] = [_line(text, y, _Type(face, size, ink), item, box)]
    caption, failed = filled(item.caption, context)
    y += 0.55 * small
    over = size > 1.001 * fits
    for line in wrapped(caption, style.face, small, box.width, 3):
        y += 1.28 * small
        made.append(_line(line, y, _Type(style.face, small, style.quiet), item, box))
    change = _change(item, value, context)
    if change is not None:
        y += 1.5 * small
        made += _changed(
            _line(change[1], y, _Type(style.bold, small, style.ink), item, box), change[0], item, box, context
        )
    over = over or y > box.bottom + 0.3 * small
    wrongs = ((item.value, value),) if isinstance(value, ErrorValue) else ()
    return ComposedItem(tuple(made), over, (*wrongs, *failed), says=f"{caption}: {text}")


def _value(text: str, context: PageContext) -> tuple[Value, bool]:
    value: Value = evaluated(text, context) if text.startswith("=") else text
    return value, isinstance(value, ErrorValue) or value is None


class _Type(Struct, frozen=True):
    """How a line is set."""

    face: str
    size: float
    ink: Colour


def _left(item: KeyFigure, box: Rect, long: float) -> float:
    """Where something of a length begins."""
    return box.x + {"start": 0.0, "middle": (box.width - long) / 2, "end": box.width - long}[item.align]


def _line(text: str, y: float, how: _Type, item: KeyFigure, box: Rect) -> Writing:
    long = width(text, how.face, how.size)
    return Writing(text, _left(item, box, long), y, long, how.face, how.size, how.ink)


def _change(item: KeyFigure, value: Value, context: PageContext) -> tuple[float, str] | None:
    """How far the value is from what it is held against, and the words for it; None where that can't be said."""
    if item.change == "none" or not item.against:
        return None
    base, _ = _value(item.against, context)
    if not isinstance(value, float) or not isinstance(base, float) or (item.change == "percent" and base == 0):
        return None
    locale = context.document.locale
    if item.change == "difference":
        by = value - base
        number = said(abs(by), item.number, context)
        text = f"{'+' if by > 0 else '−' if by < 0 else '±'}{number}"
    else:
        by = (value - base) / abs(base)
        how = (
            NumberText("percent", 0, 1, sign="always") if abs(by) < 0.1 else NumberText("percent", 0, 0, sign="always")
        )
        text = written(by, how, locale)
    if math.isclose(by, 0.0, abs_tol=1e-12):
        text = words_in(locale, "no change") if item.change == "percent" else f"±{said(0.0, item.number, context)}"
    return by, text


def _changed(line: Writing, by: float, item: KeyFigure, box: Rect, context: PageContext) -> list[Primitive]:
    """The words of a change with an arrow before them, in the colour of what is better or worse."""
    style, size, y = context.style, line.size, line.y
    good = {"up": by > 0, "down": by < 0}.get(item.better)
    ink = style.quiet if good is None or by == 0 else style.named["rise" if good else "fall"]
    if by == 0:
        return [msgspec.structs.replace(line, colour=ink)]
    side = 0.62 * size
    x = _left(item, box, line.width + 1.25 * side)

    def arrow(pen: Pen) -> None:
        tip, foot = (y - 0.7 * size, y) if by > 0 else (y, y - 0.7 * size)
        pen.move_to(x, foot)
        pen.line_to(x + side / 2, tip)
        pen.line_to(x + side, foot)
        pen.close()

    return [Shape(recorded(arrow), ink), msgspec.structs.replace(line, x=x + 1.25 * side, colour=ink)]
