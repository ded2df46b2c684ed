"""The grid of cells: where they stand and what mouse and keys do; what that changes is in `work.py`."""

from collections.abc import Callable
from typing import NamedTuple

from PySide6.QtCore import QItemSelection, QItemSelectionModel, QModelIndex, QPoint, QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent, QKeySequence, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractItemDelegate, QAbstractItemView, QTableView, QWidget

from kavlet.core.document import edits
from kavlet.core.document.tables import cell_edits
from kavlet.core.document.tables.cell_edits import Box
from kavlet.core.messages import say, words
from kavlet.core.spreadsheet.cells import Value
from kavlet.core.spreadsheet.table import HEADER, Column
from kavlet.desktop.figures.cell_commands import TableWork
from kavlet.desktop.figures.delegate import CellDelegate
from kavlet.desktop.figures.formula_edit import FormulaEdit, reference_colour, spans
from kavlet.desktop.figures.header import RoleHeader
from kavlet.desktop.figures.table_model import TableModel
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours, qcolor

ROW_HEIGHT = 27
MIN_WIDTH, MAX_WIDTH = 64, 220
HANDLE = 8  # pixels, the side of the square that fills by dragging
MEASURED_ROWS = 200  # rows looked at to fit a column


class ColumnWidths(NamedTuple):
    """How wide the widest text of a column is, in pixels."""

    column: Column
    values: list[Value]
    pixels: int


class FiguresGrid(QTableView):
    """The table in view. All changes go to the store as named edits."""

    selected = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._shape: tuple[object, ...] = ()
        self._widest: dict[str, ColumnWidths] = {}
        self._picking: tuple[int, int] | None = None
        self._filling: Box | None = None
        self._fill_target: Box = (0, 0, 0, 0)
        self.line_edit: FormulaEdit | None = None
        self.work = TableWork(self, store, self)
        self._model = TableModel(store, self)
        self.setHorizontalHeader(RoleHeader(store, self))
        self.setModel(self._model)
        self._delegate = CellDelegate(self)
        self.setItemDelegate(self._delegate)
        self.setAccessibleName(words("Figures"))
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setEditTriggers(
            QAbstractItemView.EditTrigger.AnyKeyPressed
            | QAbstractItemView.EditTrigger.EditKeyPressed
            | QAbstractItemView.EditTrigger.DoubleClicked
        )
        self.setHorizontalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setCornerButtonEnabled(False)
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.verticalHeader().setDefaultSectionSize(ROW_HEIGHT)
        self.verticalHeader().setMinimumWidth(36)
        self.verticalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignCenter)
        self.roles.sectionResized.connect(self._resized)
        self._fitting = False
        self._model.modelReset.connect(self._reshaped)
        self.selectionModel().currentChanged.connect(lambda *_: self.selected.emit())
        self.selectionModel().selectionChanged.connect(lambda *_: self.selected.emit())
        self._reshaped()

    @property
    def cells(self) -> TableModel:
        """The model behind the grid."""
        return self._model

    @property
    def roles(self) -> RoleHeader:
        header = self.horizontalHeader()
        if not isinstance(header, RoleHeader):
            raise TypeError("The grid's header draws roles.")
        return header

    # Shape and place

    def _reshaped(self) -> None:
        """After rows or columns came or went: fit new columns, and hide folded helpers."""
        table = self._model.table
        shape = (table.id, *(column.id for column in table.columns))
        if shape != self._shape:
            self._shape = shape
            self._fit_columns()
        self.fold()
        self.selected.emit()

    def fold(self) -> None:
        """Hide helper columns while they are folded."""
        table = self._model.table
        for index, column in enumerate(table.columns):
            hidden = self._store.folded and column.helper is not None
            if hidden != self.isColumnHidden(index):  # hiding lays out the whole grid
                self.setColumnHidden(index, hidden)

    def _fit_columns(self) -> None:
        self._fitting = True
        table = self._model.table
        self._widest = {column.id: self._measured(section) for section, column in enumerate(table.columns)}
        for section, column in enumerate(table.columns):
            if column.width:
                self.setColumnWidth(section, round(column.width))
                continue
            wanted = max(round(1.06 * self._widest[column.id].pixels) + 18, self.roles.chip_rect(section).width() + 16)
            self.setColumnWidth(section, max(MIN_WIDTH, min(MAX_WIDTH, wanted)))
        self._fitting = False

    def _measured(self, section: int) -> ColumnWidths:
        """The widest text of a column, as it was measured before where the column is the same."""
        column, values = self._model.table.columns[section], self._model.values(section)[:MEASURED_ROWS]
        before = self._widest.get(column.id)
        if before is not None and before.column is column and before.values == values:
            return before
        metrics = self.fontMetrics()
        texts = [self._model.shown(self._model.index(row, section)) for row in range(len(values))]
        return ColumnWidths(column, values, max((metrics.horizontalAdvance(text) for text in texts), default=0))

    def _resized(self, section: int, old: int, new: int) -> None:
        """A width dragged by the author belongs to the document."""
        table = self._model.table
        if self._fitting or not new or not old or section >= len(table.columns):
            return
        if not self.roles.resizing:
            return
        self._store.edit_table(
            say("column width"), lambda document, table: edits.set_width(document, table.id, section, float(new))
        )

    def go_to(self, column: int, row: int) -> None:
        """Make a cell the current one and select it alone."""
        index = self._model.index(
            min(row, self._model.rowCount() - 1), max(0, min(column, self._model.columnCount() - 1))
        )
        self.selectionModel().setCurrentIndex(index, QItemSelectionModel.SelectionFlag.ClearAndSelect)

    def choose(self, box: Box) -> None:
        """Select a box of cells, the current one at its top left."""
        first, top, last, bottom = box
        self.go_to(first, top)
        both = QItemSelection(self._model.index(top, first), self._model.index(bottom, last))
        self.selectionModel().select(both, QItemSelectionModel.SelectionFlag.ClearAndSelect)

    def chosen(self) -> Box | None:
        """The box around the selection."""
        selection = self.selectionModel().selection()
        ranges = [selection.at(i) for i in range(selection.count())]
        if not ranges:
            index = self.currentIndex()
            return (index.column(), index.row(), index.column(), index.row()) if index.isValid() else None
        return (
            min(one.left() for one in ranges),
            min(one.top() for one in ranges),
            max(one.right() for one in ranges),
            max(one.bottom() for one in ranges),
        )

    def inside(self) -> Box | None:
        """The selected box without the empty row below the table."""
        box, table = self.chosen(), self._model.table
        if box is None or box[1] >= table.height:
            return None
        return box[0], box[1], box[2], min(box[3], table.height - 1)

    # Keys

    def keyPressEvent(self, event: QKeyEvent) -> None:
        keys: dict[QKeySequence.StandardKey, Callable[[], object]] = {
            QKeySequence.StandardKey.Copy: self.work.copy,
            QKeySequence.StandardKey.Cut: self.work.cut,
            QKeySequence.StandardKey.Paste: self.work.paste,
        }
        for key, call in keys.items():
            if event.matches(key):
                self._store.guard(call)
                return
        own = {QKeySequence(one.shortcut): one.do for one in self.work.commands if one.own_keys and one.shortcut}
        command = own.get(QKeySequence(event.keyCombination()))
        if command is not None:
            self._store.guard(command)
        elif event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.work.clear()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and not event.modifiers():
            self.move_down()
        elif event.key() in (Qt.Key.Key_Home, Qt.Key.Key_End) and (
            event.modifiers() & Qt.KeyboardModifier.ControlModifier
        ):
            home = event.key() == Qt.Key.Key_Home
            table = self._model.table
            self.go_to(0 if home else len(table.columns) - 1, 0 if home else table.height - 1)
        else:
            super().keyPressEvent(event)

    def closeEditor(self, editor: QWidget, hint: QAbstractItemDelegate.EndEditHint) -> None:
        super().closeEditor(editor, hint)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setFocus()
        self.selected.emit()

    def move_down(self) -> None:
        """Go one cell down, as after Enter."""
        index = self.currentIndex()
        if index.isValid():
            self.go_to(index.column(), index.row() + 1)

    # Picking references, and filling, by mouse

    @property
    def formula(self) -> FormulaEdit | None:
        """Where a formula is being typed: in the cell, or in the line above the grid."""
        if self._delegate.editor is not None:
            return self._delegate.editor
        return self.line_edit if self.line_edit is not None and self.line_edit.hasFocus() else None

    def formula_changed(self) -> None:
        """Show the references of the formula being typed; a click on a cell must not take the focus from it."""
        formula = self.formula
        is_formula = formula is not None and formula.text().startswith("=")
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus if is_formula else Qt.FocusPolicy.StrongFocus)
        if self.line_edit is not None and formula is self._delegate.editor and formula is not None:
            self.line_edit.mirror(formula.text())
        self.viewport().update()

    def _handle(self) -> QRect:
        """The square at the selection's lower right corner, which fills by dragging."""
        box = self.inside()
        if box is None or self.formula is not None:
            return QRect()
        corner = self.visualRect(self._model.index(box[3], box[2])).bottomRight()
        return QRect(corner.x() - HANDLE // 2, corner.y() - HANDLE // 2, HANDLE, HANDLE)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position().toPoint()
        index = self.indexAt(at)
        formula = self.formula
        if formula is not None and index.isValid() and formula.can_pick():
            self._picking = (index.column(), index.row())
            self._pick(index)
            return
        if self._handle().adjusted(-2, -2, 2, 2).contains(at):
            self._filling = self.inside()
            self._fill_target = self._filling or self._fill_target
            return
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position().toPoint()
        if self._picking is not None:
            self._pick(self.indexAt(at))
        elif self._filling is not None:
            self.viewport().update()
            self._fill_target = self._target(self.indexAt(at))
        else:
            over = self._handle().contains(at)
            self.viewport().setCursor(Qt.CursorShape.CrossCursor if over else Qt.CursorShape.ArrowCursor)
            super().mouseMoveEvent(event)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._picking is not None:
            self._picking = None
        elif self._filling is not None:
            source, target = self._filling, self._target(self.indexAt(event.position().toPoint()))
            self._filling = None
            if target != source:
                self.work.fill(source, target)
        else:
            super().mouseReleaseEvent(event)

    def _pick(self, index: QModelIndex) -> None:
        formula = self.formula
        if formula is None or not index.isValid() or self._picking is None:
            return
        columns, rows = sorted((self._picking[0], index.column())), sorted((self._picking[1], index.row()))
        formula.pick(cell_edits.address((columns[0], rows[0], columns[1], rows[1])))

    def _target(self, index: QModelIndex) -> Box:
        """The box a fill drag covers: along the axis in which the mouse has gone further out."""
        source = self._filling or (0, 0, 0, 0)
        if not index.isValid():
            return source
        c1, r1, c2, r2 = source
        down = max(r1 - index.row(), index.row() - r2)
        right = max(c1 - index.column(), index.column() - c2)
        if max(down, right) <= 0:
            return source
        if down >= right:
            return c1, min(r1, max(HEADER, index.row())), c2, max(r2, index.row())
        return min(c1, index.column()), r1, max(c2, index.column()), r2

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self.viewport())
        formula = self.formula
        if formula is not None:
            self._paint_references(painter, formula)
        handle = self._handle()
        if handle.isValid() and self.hasFocus():
            painter.setPen(QPen(qcolor(colours().panel), 1))
            painter.setBrush(qcolor(colours().accent))
            painter.drawRect(handle)
        if self._filling is not None:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(qcolor(colours().second), 2, Qt.PenStyle.DashLine))
            painter.drawRect(self._rect_of(self._fill_target))
        painter.end()

    def _paint_references(self, painter: QPainter, formula: FormulaEdit) -> None:
        """A box in its colour around the cells of each reference."""
        table = self._model.table
        for _, _, held, index in spans(formula.text()):
            if held.table not in ("", table.name):
                continue
            last = held.other or held.one
            columns = sorted((held.one.column, min(last.column, self._model.columnCount() - 1)))
            rows = sorted((held.one.row, min(last.row, self._model.rowCount() - 1)))
            rect = self._rect_of((columns[0], rows[0], columns[1], rows[1]))
            colour = reference_colour(index)
            painter.setPen(QPen(colour, 2))
            tint = reference_colour(index)
            tint.setAlphaF(0.10)
            painter.setBrush(tint)
            painter.drawRect(rect.adjusted(1, 1, -1, -1))

    def _rect_of(self, box: Box) -> QRect:
        first = self.visualRect(self._model.index(box[1], box[0]))
        return first.united(self.visualRect(self._model.index(box[3], box[2])))

    def choose_role(self) -> None:
        """Open the role menu of the current column."""
        section = max(0, self.currentIndex().column())
        corner = self.roles.chip_rect(section).bottomLeft()
        self.roles.role_menu(section).popup(self.roles.viewport().mapToGlobal(corner))

    def corner(self) -> QPoint:
        """The middle of the current cell on the screen, for a menu."""
        return self.viewport().mapToGlobal(self.visualRect(self.currentIndex()).center())

    def find_text(self, text: str, backward: bool = False) -> bool:
        """Go to the next cell that shows the text, whatever its case; returns whether there is one."""
        table = self._model.table
        if not text:
            return False
        width, size = len(table.columns), table.height * len(table.columns)
        index = self.currentIndex()
        start = index.row() * width + index.column() if index.isValid() else -1
        wanted = text.casefold()
        for step in range(1, size + 1):
            at = (start + (-step if backward else step)) % size
            place = self._model.index(at // width, at % width)
            if wanted in self._model.shown(place).casefold() and not self.isColumnHidden(at % width):
                self.go_to(at % width, at // width)
                self.scrollTo(self.currentIndex())
                return True
        return False
