"""Draws the cells: names in bold, helper columns on a hatched tint with a stitched edge, hand-made cells with a dot."""

from functools import lru_cache

from PySide6.QtCore import (
    QAbstractItemModel,
    QEvent,
    QObject,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QRectF,
    Qt,
)
from PySide6.QtGui import QBrush, QFont, QPainter, QPen, QPixmap
from PySide6.QtWidgets import QStyle, QStyledItemDelegate, QStyleOptionViewItem, QTableView, QWidget

from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.spreadsheet.table import HEADER
from kavlet.desktop.figures.formula_edit import FormulaEdit
from kavlet.desktop.figures.table_model import Index, TableModel
from kavlet.desktop.stylesheet import Colours, colours, qcolor

HATCH_STEP = 8
_CENTRED = Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextSingleLine
_LEFT, _RIGHT = Qt.AlignmentFlag.AlignLeft | _CENTRED, Qt.AlignmentFlag.AlignRight | _CENTRED
AIR = 6  # pixels between a cell's text and its side


class CellDelegate(QStyledItemDelegate):
    """Paints one cell at a time, by itself: a table is repainted at each typed number, and must not hold it up.

    `editor` is where a cell is being typed in.
    """

    def __init__(self, grid: QTableView) -> None:
        super().__init__(grid)
        self.editor: FormulaEdit | None = None

    def createEditor(self, parent: QWidget, option: QStyleOptionViewItem, index: Index) -> QWidget:
        cell, place, model = QRect(option.rect), QPersistentModelIndex(index), index.model()
        editor = FormulaEdit(parent, in_cell=True)
        editor.edited.connect(lambda: _widen(editor, cell))
        editor.committed.connect(lambda text: model.setData(place, text))
        editor.closed.connect(lambda: self._close(editor, QStyledItemDelegate.EndEditHint.NoHint))
        editor.finished.connect(self._go_on)
        editor.cancelled.connect(lambda: self._close(editor, QStyledItemDelegate.EndEditHint.RevertModelCache))
        grid = self.parent()
        editor.edited.connect(grid.formula_changed)  # type: ignore[union-attr]
        self.editor = editor
        return editor

    def destroyEditor(self, editor: QWidget, index: Index) -> None:
        if editor is self.editor:
            self.editor = None
        super().destroyEditor(editor, index)

    def eventFilter(self, editor: QObject, event: QEvent) -> bool:
        """Keys are the editor's own affair: it completes names with Tab and Enter before it commits."""
        if isinstance(editor, FormulaEdit) and event.type() in (QEvent.Type.KeyPress, QEvent.Type.ShortcutOverride):
            return False
        if isinstance(editor, FormulaEdit) and event.type() == QEvent.Type.FocusOut:
            return False  # it takes what is typed itself
        return super().eventFilter(editor, event)

    def _close(self, editor: FormulaEdit, hint: QStyledItemDelegate.EndEditHint) -> None:
        """Close an editor that is open: nothing is typed in it any more."""
        if editor is self.editor:  # the table's new row may have closed it
            self.editor = None
            self.closeEditor.emit(editor, hint)

    def _go_on(self, key: int) -> None:
        """Go down after Enter, right after Tab, left after Shift+Tab."""
        grid, steps = self.parent(), {int(Qt.Key.Key_Tab): 1, int(Qt.Key.Key_Backtab): -1}
        if key not in steps:
            grid.move_down()  # type: ignore[union-attr]
        elif isinstance(grid, QTableView):
            now = grid.currentIndex()
            grid.go_to(max(0, now.column() + steps[key]), now.row())  # type: ignore[attr-defined]

    def setEditorData(self, editor: QWidget, index: Index) -> None:
        if isinstance(editor, FormulaEdit) and not editor.is_changed():
            editor.set_text(str(index.data(Qt.ItemDataRole.EditRole) or ""))
            editor.selectAll()
            editor.note_typing()

    def setModelData(self, editor: QWidget, model: QAbstractItemModel, index: Index) -> None:
        del model, index
        if isinstance(editor, FormulaEdit):
            editor.commit()

    def updateEditorGeometry(self, editor: QWidget, option: QStyleOptionViewItem, index: Index) -> None:
        del index
        if isinstance(editor, FormulaEdit):
            _widen(editor, option.rect)

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        model = index.model()
        if not isinstance(model, TableModel):
            return
        c, rect = colours(), option.rect
        is_helper = model.is_helper(index)
        if is_helper:
            painter.fillRect(rect, _hatch(c, option.widget.devicePixelRatioF() if option.widget else 1.0))
        if option.state & QStyle.StateFlag.State_Selected:
            chosen = qcolor(c.chosen)
            chosen.setAlphaF(0.75 if is_helper else 1.0)
            painter.fillRect(rect, chosen)
        if (index.column(), index.row()) in model.coming:
            painter.setPen(QPen(qcolor(c.second), 2, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(rect.adjusted(2, 2, -2, -2))
        if option.state & QStyle.StateFlag.State_HasFocus:
            painter.setPen(QPen(qcolor(c.accent), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(rect.adjusted(1, 1, -1, -1))
        if is_helper and not (index.column() and model.is_helper(index.sibling(index.row(), index.column() - 1))):
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


def _widen(editor: FormulaEdit, cell: QRect) -> None:
    """As wide as the cell, and wider as a formula grows: to the grid's right edge, then over the cells at its left."""
    rect = QRect(cell)
    viewport = editor.parentWidget()
    edge = viewport.width() if viewport is not None else cell.right()
    wanted = max(cell.width(), min(editor.fontMetrics().horizontalAdvance(editor.text()) + 40, edge - AIR))
    rect.setWidth(wanted)
    if rect.right() > edge:
        rect.moveRight(max(edge, cell.right()))
    editor.setGeometry(rect)


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
