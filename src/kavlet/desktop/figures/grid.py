"""The grid of cells: typing, moving, copying and pasting, rows and columns."""

from PySide6.QtCore import QItemSelectionModel, QMimeData, Qt, Signal
from PySide6.QtGui import QGuiApplication, QKeyEvent, QKeySequence
from PySide6.QtWidgets import QAbstractItemView, QTableView, QWidget

from kavlet.core.document import edits
from kavlet.core.figures.cells import Cell
from kavlet.core.figures.table import HEADER
from kavlet.core.figures.typed import shown_for_editing
from kavlet.core.files import csv
from kavlet.core.values.errors import KavletError
from kavlet.desktop.figures.delegate import CellDelegate
from kavlet.desktop.figures.header import RoleHeader
from kavlet.desktop.figures.model import TableModel
from kavlet.desktop.store import Store

ROW_HEIGHT = 27
LEAST_WIDTH, MOST_WIDTH = 64, 220


class Grid(QTableView):
    """The table in view. All changes go to the store as named edits."""

    selected = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._shape: tuple[object, ...] = ()
        self._model = TableModel(store, self)
        self.setHorizontalHeader(RoleHeader(store, self))
        self.setModel(self._model)
        self.setItemDelegate(CellDelegate(self))
        self.setAccessibleName(self.tr("Figures"))
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setEditTriggers(
            QAbstractItemView.EditTrigger.AnyKeyPressed
            | QAbstractItemView.EditTrigger.EditKeyPressed
            | QAbstractItemView.EditTrigger.DoubleClicked
        )
        self.setHorizontalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setCornerButtonEnabled(False)
        self.setTabKeyNavigation(True)
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.verticalHeader().setDefaultSectionSize(ROW_HEIGHT)
        self.verticalHeader().setMinimumWidth(36)
        self.verticalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignCenter)
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

    def _reshaped(self) -> None:
        """After rows or columns came or went: keep the current cell where it was, and fit new columns."""
        table = self._model.table
        shape = (table.id, *(column.id for column in table.columns)) if table is not None else ()
        if shape != self._shape:
            self._shape = shape
            self._fit_columns()
        self.selectionModel().currentChanged.connect(
            lambda *_: self.selected.emit(), Qt.ConnectionType.SingleShotConnection
        )
        self.selected.emit()

    def _fit_columns(self) -> None:
        for section in range(self._model.columnCount()):
            wanted = max(self.sizeHintForColumn(section) + 16, self.roles.chip_rect(section).width() + 16)
            self.setColumnWidth(section, max(LEAST_WIDTH, min(MOST_WIDTH, wanted)))

    def go_to(self, column: int, row: int) -> None:
        """Make a cell the current one and select it alone."""
        index = self._model.index(
            min(row, self._model.rowCount() - 1), max(0, min(column, self._model.columnCount() - 1))
        )
        self.selectionModel().setCurrentIndex(index, QItemSelectionModel.SelectionFlag.ClearAndSelect)

    def chosen(self) -> tuple[int, int, int, int] | None:
        """The box around the selection: first column, first row, last column, last row."""
        indexes = self.selectionModel().selectedIndexes() or (
            [self.currentIndex()] if self.currentIndex().isValid() else []
        )
        if not indexes:
            return None
        columns = [index.column() for index in indexes]
        rows = [index.row() for index in indexes]
        return min(columns), min(rows), max(columns), max(rows)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy):
            self.copy()
        elif event.matches(QKeySequence.StandardKey.Cut):
            self.cut()
        elif event.matches(QKeySequence.StandardKey.Paste):
            self.paste()
        elif event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.clear()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.state() != self.State.EditingState:
            self.move_down()
        else:
            super().keyPressEvent(event)

    def closeEditor(self, editor: QWidget, hint: object) -> None:
        super().closeEditor(editor, hint)  # type: ignore[arg-type]
        if getattr(hint, "name", "") == "SubmitModelCache":
            self.move_down()

    def move_down(self) -> None:
        """Go one cell down, as after Enter."""
        index = self.currentIndex()
        if index.isValid():
            self.go_to(index.column(), index.row() + 1)

    def copy(self) -> None:
        """The selection to the clipboard, as shown, as tab-separated text and as an HTML table."""
        box = self.chosen()
        if box is None:
            return
        first, top, last, bottom = box
        shown = [
            [str(self._model.data(self._model.index(row, column)) or "") for column in range(first, last + 1)]
            for row in range(top, bottom + 1)
        ]
        mime = QMimeData()
        mime.setText("\n".join("\t".join(_one_line(text) for text in row) for row in shown))
        mime.setHtml(_html(shown))
        QGuiApplication.clipboard().setMimeData(mime)

    def cut(self) -> None:
        self.copy()
        self.clear()

    def clear(self) -> None:
        """Empty the selected cells."""
        cells: dict[tuple[int, int], Cell] = {
            (index.column(), index.row()): None
            for index in self.selectionModel().selectedIndexes()
            if self._model.cell(index) is not None
        }
        if cells:
            self._model.put(cells, self.tr("clear cells"))

    def paste(self) -> None:
        """Cells from the clipboard, from this program or another, at the current cell."""
        block = self.clipboard_cells()
        table = self._model.table
        box = self.chosen()
        if not block or table is None or box is None:
            return
        column, row, *_ = box
        if row < HEADER:
            block = [
                [None if cell is None else shown_for_editing(cell) for cell in line] if i + row < HEADER else line
                for i, line in enumerate(block)
            ]
        try:
            document = edits.paste(self._store.document, table.id, column, row, block)
            self._store.apply(self.tr("paste cells"), document)
        except KavletError as error:
            self._store.refuse(error)

    def clipboard_cells(self) -> list[list[Cell]]:
        """The clipboard's text as rows of cells, understood by the document's locale."""
        text = QGuiApplication.clipboard().text()
        if not text.strip():
            return []
        try:
            rows = csv.rows(text, "\t", self.tr("The clipboard"))
        except KavletError as error:
            self._store.refuse(error)
            return []
        return [[self._model.understood(field) for field in row] for row in rows]

    def insert_rows(self, below: bool = False) -> None:
        """As many empty rows as are selected, above or below them."""
        table, box = self._model.table, self.chosen()
        if table is None or box is None:
            return
        column, first, _, last = box
        last = min(last, table.height - 1)
        count = max(1, last - first + 1)
        at = max(HEADER, last + 1 if below else first)
        self._try(self.tr("insert rows"), lambda: edits.insert_rows(self._store.document, table.id, at, count))
        self.go_to(column, at)

    def delete_rows(self) -> None:
        table, box = self._model.table, self.chosen()
        if table is None or box is None:
            return
        column, first, _, last = box
        if first >= table.height:
            return
        count = last - first + 1
        self._try(self.tr("delete rows"), lambda: edits.delete_rows(self._store.document, table.id, first, count))
        self.go_to(column, min(first, self._model.rowCount() - 1))

    def insert_column(self) -> None:
        """An empty column after the current one."""
        table, index = self._model.table, self.currentIndex()
        if table is None or not index.isValid():
            return
        at = index.column() + 1
        self._try(self.tr("insert column"), lambda: edits.insert_columns(self._store.document, table.id, at))

    def delete_columns(self) -> None:
        table, box = self._model.table, self.chosen()
        if table is None or box is None:
            return
        first, row, last, _ = box
        count = last - first + 1
        self._try(self.tr("delete columns"), lambda: edits.delete_columns(self._store.document, table.id, first, count))
        self.go_to(first, row)

    def _try(self, name: str, edit: object) -> None:
        try:
            self._store.apply(name, edit())  # type: ignore[operator]
        except KavletError as error:
            self._store.refuse(error)


def _one_line(text: str) -> str:
    """A field for tab-separated text; tabs and line breaks are kept inside quotes."""
    return '"' + text.replace('"', '""') + '"' if any(c in text for c in '\t\n\r"') else text


def _html(rows: list[list[str]]) -> str:
    from html import escape

    body = "".join("<tr>" + "".join(f"<td>{escape(text)}</td>" for text in row) + "</tr>" for row in rows)
    return f"<table>{body}</table>"
