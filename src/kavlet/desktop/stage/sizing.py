"""The handles at the sheet's edges: dragging one makes the chart wider, higher or both."""

from msgspec import Struct
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.values.geometry import Size
from kavlet.core.values.lengths import LARGEST, SMALLEST
from kavlet.desktop.stylesheet import colours, qcolor

SIDE, REACH = 7.0, 8.0  # pixels: a handle's side, and how near the mouse must come


class SizeDrag(Struct):
    """A drag of a handle: which sides it moves, the size it began with, and the pixels of a point then.

    The sheet stays in the middle of the Stage, so that a side follows the mouse when the size grows by twice the way.
    """

    wide: bool
    high: bool
    start: Size
    scale: float

    def size(self, way: QPointF, keep: bool) -> Size:
        """The size for a way of the mouse in pixels; `keep` keeps the proportion."""
        width = self.start.width + (2 * way.x() / self.scale if self.wide else 0.0)
        height = self.start.height + (2 * way.y() / self.scale if self.high else 0.0)
        if keep and self.wide and self.high:
            factor = max(width / self.start.width, height / self.start.height)
            low = max(SMALLEST / self.start.width, SMALLEST / self.start.height)
            high = min(LARGEST / self.start.width, LARGEST / self.start.height)
            factor = min(high, max(low, factor))
            return Size(round(self.start.width * factor, 1), round(self.start.height * factor, 1))
        return Size(round(min(LARGEST, max(SMALLEST, width)), 1), round(min(LARGEST, max(SMALLEST, height)), 1))


def handles(sheet: QRectF) -> list[tuple[bool, bool, QPointF]]:
    """Each handle of a sheet: whether it moves the right side, the lower one, and where it stands."""
    middle = sheet.center()
    return [
        (True, False, QPointF(sheet.right(), middle.y())),
        (False, True, QPointF(middle.x(), sheet.bottom())),
        (True, True, sheet.bottomRight()),
    ]


def grasped(sheet: QRectF, at: QPointF, start: Size) -> SizeDrag | None:
    """What a press at a place begins; None beside the handles."""
    for wide, high, place in handles(sheet):
        if (at - place).manhattanLength() <= REACH:
            return SizeDrag(wide, high, start, sheet.width() / start.width)
    return None


def cursor(sizing: SizeDrag) -> Qt.CursorShape:
    """The mouse over a handle."""
    if sizing.wide and sizing.high:
        return Qt.CursorShape.SizeFDiagCursor
    return Qt.CursorShape.SizeHorCursor if sizing.wide else Qt.CursorShape.SizeVerCursor


def sized(document: Document, chart: str, size: Size) -> Document:
    """The document with the chart in that size."""
    return edits.change_chart(document, chart, width=size.width, height=size.height)


def paint_handles(sheet: QRectF, painter: QPainter) -> None:
    """Small squares on the sheet's edges."""
    c = colours()
    painter.setPen(QPen(qcolor(c.quiet), 1))
    painter.setBrush(qcolor(c.panel))
    for _, _, place in handles(sheet):
        painter.drawRect(QRectF(place.x() - SIDE / 2, place.y() - SIDE / 2, SIDE, SIDE))
