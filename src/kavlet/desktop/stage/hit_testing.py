"""Which part of a drawn chart lies at a point, and what outlines it."""

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainterPath

from kavlet.core.interaction.parts import Part, boxes, text_part
from kavlet.core.layout.figure import Figure, Mark, PlacedText
from kavlet.core.values.geometry import Rect
from kavlet.paint.painter import qpath


def part_at(figure: Figure, at: QPointF) -> Part | None:
    """The frontmost part at a point of the chart, in points: texts lie over marks, marks over the plot."""
    for text in reversed(figure.texts):
        if not _grown(text.bounds, 2.0).contains(at):
            continue
        part = text_part(text)
        if part is not None:
            return part
    if any(_grown(key.bounds, 3.0).contains(at) for key in figure.keys):
        return Part("legend", "")
    mark = mark_at(figure, at)
    if mark is not None:
        return Part("mark", mark.key, mark.row)
    return Part("plot", "") if _grown(figure.plot, 4.0).contains(at) else None


def text_at(figure: Figure, at: QPointF) -> PlacedText | None:
    """The frontmost text at a point of the chart."""
    return next((text for text in reversed(figure.texts) if _grown(text.bounds, 2.0).contains(at)), None)


def mark_at(figure: Figure, at: QPointF) -> Mark | None:
    """The frontmost visible mark at a point. What stays flat in a solid chart stands before or behind its bodies."""
    if not figure.faces:
        return _frontmost(list(figure.marks), at)
    bodies = {number for number, _ in figure.faces}
    first = min((number for number in bodies if number >= 0), default=0)
    flat = [(number, mark) for number, mark in enumerate(figure.marks) if number not in bodies]
    found = _frontmost([mark for number, mark in flat if number > first], at)
    if found is not None:
        return found
    for number, path in reversed(figure.faces):
        if qpath(path).contains(at):
            return figure.marks[number] if number >= 0 else None
    return _frontmost([mark for number, mark in flat if number < first], at)


def _frontmost(marks: list[Mark], at: QPointF) -> Mark | None:
    return next(
        (mark for mark in reversed(marks) if mark.visible and mark.path is not None and qpath(mark.path).contains(at)),
        None,
    )


def outline(figure: Figure, part: Part, air: float = 2.0) -> QPainterPath:
    """What is outlined for a part, with `air` points around words; empty when it is not drawn."""
    made = QPainterPath()
    if part.kind in ("layer", "mark"):
        for mark in figure.marks:
            if mark.key == part.key and mark.visible and mark.path is not None and part.row in (-1, mark.row):
                made.addPath(qpath(mark.path))
        return made
    held = boxes(figure, part)
    # A scale's figures and its title are one thing: boxes around each would lie over their neighbours.
    for box in [Rect.around_all(held)] if part.kind == "axis" and held else held:
        made.addRect(_grown(box, air))
    return made


def _grown(box: Rect, by: float) -> QRectF:
    return QRectF(box.x - by, box.y - by, box.width + 2 * by, box.height + 2 * by)
