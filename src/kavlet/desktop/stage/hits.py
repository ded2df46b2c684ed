"""Which part of a drawn chart lies at a point, and what outlines it."""

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainterPath

from kavlet.core.compose.figure import Figure, Mark, PlacedText
from kavlet.core.values.geometry import Rect
from kavlet.desktop.parts import Part
from kavlet.paint.painter import qpath

TEXTS = ("title", "subtitle", "source")


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


def text_part(text: PlacedText) -> Part | None:
    """The part a text belongs to."""
    if text.kind == "label":
        return Part("label", text.key, text.row if text.row is not None else -1)
    if text.kind in TEXTS:
        return Part("text", text.kind)
    if text.kind == "legend":
        return Part("legend", "")
    if text.kind in ("tick", "axis title"):
        return Part("axis", "along")
    return Part("axis", "across") if text.kind == "name" else None


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


def outline(figure: Figure, part: Part) -> QPainterPath:
    """What is outlined for a part; empty when it is not drawn."""
    made = QPainterPath()
    if part.kind in ("layer", "mark"):
        for mark in figure.marks:
            if mark.key == part.key and mark.visible and mark.path is not None and part.row in (-1, mark.row):
                made.addPath(qpath(mark.path))
        return made
    for box in boxes(figure, part):
        made.addRect(_grown(box, 2.0))
    return made


def boxes(figure: Figure, part: Part) -> list[Rect]:
    """The boxes of a part that is made of texts."""
    if part.kind == "plot":
        return [figure.plot]
    found = [text.bounds for text in figure.texts if _same(text_part(text), part)]
    if part.kind == "legend":
        found += [key.bounds for key in figure.keys]
        return (
            [Rect.around([point for box in found for point in ((box.x, box.y), (box.right, box.bottom))])]
            if found
            else []
        )
    return found


def _same(one: Part | None, other: Part) -> bool:
    return one is not None and one.kind == other.kind and one.key == other.key and other.row in (-1, one.row)


def walk(figure: Figure) -> list[Part]:
    """All parts in the order Tab goes through them: title, layers with their marks, legend, axes, source."""
    found: list[Part] = [Part("text", text.kind) for text in figure.texts if text.kind in ("title", "subtitle")]
    keys = list(dict.fromkeys(mark.key for mark in figure.marks if mark.visible))
    found += [Part("layer", key) for key in keys]
    if figure.keys:
        found.append(Part("legend", ""))
    found += [Part("axis", key) for key in ("along", "across") if boxes(figure, Part("axis", key))]
    found += [Part("text", "source") for text in figure.texts if text.kind == "source"]
    return found


def marks_of(figure: Figure, key: str) -> list[Part]:
    """The marks of a layer, in the order of their rows."""
    rows = sorted({mark.row for mark in figure.marks if mark.key == key and mark.visible})
    return [Part("mark", key, row) for row in rows]


def says(figure: Figure, part: Part) -> str:
    """What a part is, in words: for hovering and for screen readers."""
    if part.kind == "mark":
        mark = next((one for one in figure.marks if one.key == part.key and one.row == part.row and one.visible), None)
        return f"{mark.says}  ({mark.layer})" if mark is not None and mark.says else (mark.layer if mark else "")
    if part.kind == "layer":
        return next((mark.layer for mark in figure.marks if mark.key == part.key), part.key)
    names = {"label": "label", "legend": "legend", "plot": "plot", "axis": "scale" if part.key == "along" else "names"}
    return part.key if part.kind == "text" else names[part.kind]


def _grown(box: Rect, by: float) -> QRectF:
    return QRectF(box.x - by, box.y - by, box.width + 2 * by, box.height + 2 * by)
