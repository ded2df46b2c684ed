"""Draws the cells: names in bold, helper columns on a hatched tint with a stitched edge, hand-made cells with a dot."""

from functools import lru_cache

from PySide6.QtCore import QModelIndex, QPersistentModelIndex, QPointF, QRect, QRectF, Qt
from PySide6.QtGui import QBrush, QFont, QPainter, QPen, QPixmap
from PySide6.QtWidgets import QStyle, QStyledItemDelegate, QStyleOptionViewItem

from kavlet.core.figures.cells import ErrorValue
from kavlet.core.figures.table import HEADER
from kavlet.desktop.figures.model import TableModel
from kavlet.desktop.look import Colours, colours, qcolor

Index = QModelIndex | QPersistentModelIndex
HATCH_STEP = 8
_CENTRED = Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextSingleLine
_LEFT, _RIGHT = Qt.AlignmentFlag.AlignLeft | _CENTRED, Qt.AlignmentFlag.AlignRight | _CENTRED
AIR = 6  # pixels between a cell's text and its side


class CellDelegate(QStyledItemDelegate):
    """Paints one cell at a time, by itself: a table is repainted at each typed number, and must not hold it up."""

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        model = index.model()
        if not isinstance(model, TableModel):
            return
        c, rect = colours(), option.rect
        column = model.column(index)
        is_helper = column is not None and column.helper is not None and index.row() < len(column.cells)
        if is_helper:
            painter.fillRect(rect, _hatch(c, option.widget.devicePixelRatioF() if option.widget else 1.0))
        if option.state & QStyle.StateFlag.State_Selected:
            chosen = qcolor(c.chosen)
            chosen.setAlphaF(0.75 if is_helper else 1.0)
            painter.fillRect(rect, chosen)
        if option.state & QStyle.StateFlag.State_HasFocus:
            painter.setPen(QPen(qcolor(c.accent), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(rect.adjusted(1, 1, -1, -1))
        if is_helper and not self._follows_helper(model, index):
            painter.setPen(QPen(qcolor(c.helper_line), 2, Qt.PenStyle.DashLine))
            painter.drawLine(rect.topLeft(), rect.bottomLeft())
        self._paint_text(painter, option, index, model)
        if is_helper and model.is_hand_made(index):
            _paint_dot(painter, rect, c)

    def _paint_text(self, painter: QPainter, option: QStyleOptionViewItem, index: Index, model: TableModel) -> None:
        text = model.shown(index)
        if not text:
            return
        if index.row() < HEADER:
            font = QFont(option.font)
            font.setBold(True)
            painter.setFont(font)
        else:
            painter.setFont(option.font)
        is_error = isinstance(model.value(index), ErrorValue)
        painter.setPen(qcolor(colours().alarm if is_error else colours().ink))
        box = option.rect.adjusted(AIR, 0, -AIR, 0)
        fitted = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, box.width())
        painter.drawText(box, _RIGHT if model.is_right(index) else _LEFT, fitted)

    @staticmethod
    def _follows_helper(model: TableModel, index: Index) -> bool:
        before = model.column(index.sibling(index.row(), index.column() - 1)) if index.column() else None
        return before is not None and before.helper is not None


@lru_cache(maxsize=8)
def _hatch(c: Colours, ratio: float) -> QBrush:
    """The helper tint with a fine diagonal line, as a tile that runs on from cell to cell."""
    tile = QPixmap(round(HATCH_STEP * ratio), round(HATCH_STEP * ratio))
    tile.setDevicePixelRatio(ratio)
    tile.fill(qcolor(c.helper))
    painter = QPainter(tile)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    line = qcolor(c.helper_line)
    line.setAlphaF(0.2)
    painter.setPen(QPen(QBrush(line), 1))
    for shift in (-HATCH_STEP, 0, HATCH_STEP):
        painter.drawLine(QPointF(shift, HATCH_STEP), QPointF(shift + HATCH_STEP, 0))
    painter.end()
    return QBrush(tile)


def _paint_dot(painter: QPainter, rect: QRect, c: Colours) -> None:
    """The dot of what is set by hand, in the cell's corner."""
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(qcolor(c.accent))
    painter.drawEllipse(QRectF(rect.left() + 4, rect.top() + 4, 6, 6))
    painter.restore()
