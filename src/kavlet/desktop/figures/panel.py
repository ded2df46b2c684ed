"""The Figures place: the table's name, the formula line, the grid, and sums of the selection."""

import math

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QLineEdit, QPushButton, QStackedLayout, QVBoxLayout, QWidget

from kavlet.core.figures.cells import Formula
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import PLAIN
from kavlet.desktop.figures.grid import Grid
from kavlet.desktop.look import UNIT
from kavlet.desktop.store import Store


class FiguresPanel(QFrame):
    """Shows the table in view, or how to get one."""

    open_wanted = Signal()
    paste_wanted = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._store = store
        self.grid = Grid(store, self)
        self.name = QLabel()
        self.name.setObjectName("head")
        self.address = QLabel()
        self.address.setObjectName("address")
        self.address.setFixedWidth(44)
        self.address.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.line = QLineEdit()
        self.line.setAccessibleName(self.tr("Formula line"))
        self.line.setPlaceholderText(self.tr("number, text, or =formula"))
        self.line.returnPressed.connect(self._typed_in_line)
        self.sums = QLabel()
        self.sums.setObjectName("quiet")

        formula = QHBoxLayout()
        formula.setSpacing(UNIT)
        formula.addWidget(self.address)
        formula.addWidget(self.line)
        table = QWidget()
        inside = QVBoxLayout(table)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.setSpacing(2 * UNIT)
        inside.addLayout(formula)
        inside.addWidget(self.grid, 1)
        inside.addWidget(self.sums)
        self._pages = QStackedLayout()
        self._pages.addWidget(table)
        self._pages.addWidget(self._invitation())

        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 3 * UNIT, 3 * UNIT, 2 * UNIT)
        layout.setSpacing(2 * UNIT)
        layout.addWidget(self.name)
        layout.addLayout(self._pages, 1)
        store.changed.connect(self.refresh)
        self.grid.selected.connect(self._show_cell)
        self.refresh()

    def _invitation(self) -> QWidget:
        page = QWidget()
        layout = QVBoxLayout(page)
        layout.addStretch(2)
        head = QLabel(self.tr("Start with your figures"))
        head.setObjectName("head")
        text = QLabel(
            self.tr(
                "Two columns are enough: one that names the rows, one of numbers.\n"
                "Drop a CSV file here, open one, or copy cells anywhere and paste them."
            )
        )
        text.setObjectName("quiet")
        text.setWordWrap(True)
        open_button = QPushButton(self.tr("Open a table…"))
        open_button.setObjectName("main")
        open_button.clicked.connect(self.open_wanted)
        paste_button = QPushButton(self.tr("Paste cells"))
        paste_button.clicked.connect(self.paste_wanted)
        buttons = QHBoxLayout()
        buttons.addWidget(open_button)
        buttons.addWidget(paste_button)
        buttons.addStretch(1)
        for part in (head, text):
            layout.addWidget(part)
        layout.addSpacing(2 * UNIT)
        layout.addLayout(buttons)
        layout.addStretch(3)
        return page

    def refresh(self) -> None:
        """Show the table's name and the current cell."""
        table = self._store.table
        self._pages.setCurrentIndex(0 if table is not None else 1)
        self.name.setText(table.name if table is not None else self.tr("Figures"))
        self._show_cell()

    def _show_cell(self) -> None:
        index = self.grid.currentIndex()
        model = self.grid.cells
        self.line.setEnabled(index.isValid())
        if not index.isValid():
            self.address.setText("")
            self.line.clear()
            self.sums.setText("")
            return
        self.address.setText(model.address(index))
        self.line.setText(str(model.data(index, Qt.ItemDataRole.EditRole)))
        cell = model.cell(index)
        explained = model.data(index, Qt.ItemDataRole.ToolTipRole)
        self.line.setToolTip(str(explained) if explained and not isinstance(cell, Formula) else "")
        self._show_sums()

    def _show_sums(self) -> None:
        model, locale = self.grid.cells, self._store.document.locale
        values = [model.value(index) for index in self.grid.selectionModel().selectedIndexes()]
        numbers = [value for value in values if isinstance(value, float)]
        if len(numbers) < 2:
            self.sums.setText(" ")
            return
        total, mean = math.fsum(numbers), math.fsum(numbers) / len(numbers)
        self.sums.setText(
            self.tr("{} numbers   sum {}   mean {}").format(
                len(numbers), written(total, PLAIN, locale), written(mean, PLAIN, locale)
            )
        )

    def _typed_in_line(self) -> None:
        index = self.grid.currentIndex()
        if index.isValid():
            self.grid.cells.setData(index, self.line.text())
            self.grid.setFocus()
            self.grid.move_down()
