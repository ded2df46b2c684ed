"""Draws the cells: names in bold, helper columns on a hatched tint with a stitched edge, hand-made cells with a dot."""

from PySide6.QtCore import QModelIndex, QPersistentModelIndex, QPointF, QRect, Qt
from PySide6.QtGui import QBrush, QPainter, QPalette, QPen
from PySide6.QtWidgets import QStyledItemDelegate, QStyleOptionViewItem

from kavlet.core.figures.cells import ErrorValue
from kavlet.core.figures.table import HEADER
from kavlet.desktop.figures.model import TableModel
from kavlet.desktop.look import colours, qcolor

Index = QModelIndex | QPersistentModelIndex
HATCH_STEP = 8


class CellDelegate(QStyledItemDelegate):
    """Paints one cell at a time; what it shows comes from the model."""

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        model = index.model()
        if isinstance(model, TableModel):
            column = model.column(index)
            if column is not None and column.helper is not None and index.row() < len(column.cells):
                self._paint_helper(painter, option.rect, index, model)
        super().paint(painter, option, index)
        if isinstance(model, TableModel) and model.is_hand_made(index):
            painter.save()
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(qcolor(colours().accent))
            painter.drawEllipse(QPointF(option.rect.left() + 7, option.rect.top() + 7), 3, 3)
            painter.restore()

    def initStyleOption(self, option: QStyleOptionViewItem, index: Index) -> None:
        super().initStyleOption(option, index)
        model = index.model()
        if not isinstance(model, TableModel):
            return
        if index.row() < HEADER:
            option.font.setBold(True)
        if isinstance(model.value(index), ErrorValue):
            option.palette.setColor(QPalette.ColorRole.Text, qcolor(colours().alarm))
            option.palette.setColor(QPalette.ColorRole.HighlightedText, qcolor(colours().alarm))

    def _paint_helper(self, painter: QPainter, rect: QRect, index: Index, model: TableModel) -> None:
        c = colours()
        painter.save()
        painter.setClipRect(rect)
        painter.fillRect(rect, qcolor(c.helper))
        hatch = qcolor(c.helper_line)
        hatch.setAlphaF(0.16)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QBrush(hatch), 1))
        # The lines run through from cell to cell: each starts where x + y is a multiple of the step.
        first = (rect.left() + rect.top()) // HATCH_STEP * HATCH_STEP
        for at in range(first, rect.right() + rect.bottom() + HATCH_STEP, HATCH_STEP):
            painter.drawLine(at - rect.top(), rect.top(), at - rect.bottom(), rect.bottom())
        before = model.column(index.sibling(index.row(), index.column() - 1)) if index.column() else None
        if before is None or before.helper is None:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
            painter.setPen(QPen(qcolor(c.helper_line), 2, Qt.PenStyle.DashLine))
            painter.drawLine(rect.topLeft(), rect.bottomLeft())
        painter.restore()
