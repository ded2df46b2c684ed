"""The Figures place: the tables' names, the formula line, the grid, and sums of the selection."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QPersistentModelIndex, QSize, Qt, Signal
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QTabBar,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.document.tables import table_edits
from kavlet.core.messages import say, words
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import PLAIN
from kavlet.core.values.sums import exact_sum
from kavlet.desktop.figures.formula_edit import FormulaEdit
from kavlet.desktop.figures.grid import FiguresGrid
from kavlet.desktop.figures.source_bar import SourceBar
from kavlet.desktop.figures.table_model import Index
from kavlet.desktop.figures.what_if import WhatIf
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT

if TYPE_CHECKING:
    from kavlet.core.document.tables.source_updates import CellDifference

FEW = 3  # tables, whose tabs are all in sight


class _Tabs(QTabBar):
    """Tabs that take no more room than their names."""

    def __init__(self) -> None:
        super().__init__()
        self.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        hint = super().sizeHint()
        wanted = sum(self.tabRect(i).width() for i in range(self.count()))
        return QSize(max(wanted, 1), hint.height())

    def minimumSizeHint(self) -> QSize:
        return QSize(min(60, self.sizeHint().width()), super().minimumSizeHint().height())

    def tabLayoutChange(self) -> None:
        self.updateGeometry()


class FiguresPanel(QFrame):
    """Shows the table in view."""

    rename_wanted = Signal()
    add_wanted = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        from kavlet.desktop.figures.find_line import Finder

        super().__init__(parent)
        self.setObjectName("panel")
        self._store = store
        self._line_cell: QPersistentModelIndex | None = None  # of what the formula line edits, once it is left
        self.grid = FiguresGrid(store, self)
        head = self._make_tabs()
        self.source = SourceBar(store, self)
        self.source.differing.connect(self.grid.cells.show_coming)
        self.finder = Finder(self.grid, self)
        self.address = QLabel()
        self.address.setObjectName("address")
        self.address.setFixedWidth(44)
        self.address.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.line = self._make_line()
        self.sums = QLabel()
        self.sums.setObjectName("quiet")
        self.what_if = WhatIf(store, self.grid)

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
        inside.addWidget(self.finder)
        inside.addWidget(self.source)
        inside.addWidget(self.sums)
        inside.addWidget(self.what_if)

        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 3 * UNIT, 3 * UNIT, 2 * UNIT)
        layout.setSpacing(2 * UNIT)
        layout.addLayout(head)
        layout.addWidget(table, 1)
        store.follow(self.refresh, view=True)
        self.grid.selected.connect(self._show_cell)
        self.grid.selectionModel().currentChanged.connect(self._leave_cell)
        self.refresh()

    def _make_tabs(self) -> QHBoxLayout:
        """The tables' names as tabs, and a button for a new one."""
        from kavlet.desktop.figures.table_list import TableList

        self.tabs = _Tabs()
        self.tabs.setObjectName("tables")
        self.tabs.setMovable(True)
        self.tabs.setExpanding(False)
        self.tabs.setDrawBase(False)
        self.tabs.setAccessibleName(words("Tables"))
        self.tabs.currentChanged.connect(self._show_table)
        self.tabs.tabMoved.connect(self._reorder)
        self.tabs.tabBarDoubleClicked.connect(lambda _: self.rename_wanted.emit())
        self.add = QToolButton()
        self.add.setObjectName("plain")
        self.add.setText("+")
        self.add.setToolTip(words("New table"))
        self.add.setAccessibleName(words("New table"))
        self.add.clicked.connect(self.add_wanted)
        self.all = QToolButton()
        self.all.setObjectName("plain")
        self.all.setText("▾")
        self.all.setToolTip(words("All tables"))
        self.all.setAccessibleName(words("All tables"))
        self.all.clicked.connect(self._list_tables)
        self.list = TableList(self)
        self.list.chosen.connect(self._store.show_table)
        head = QHBoxLayout()
        head.setSpacing(UNIT)
        head.addWidget(self.all)
        head.addWidget(self.tabs)
        head.addWidget(self.add)
        head.addStretch(1)
        return head

    def _make_line(self) -> FormulaEdit:
        made = FormulaEdit(self)
        made.setAccessibleName(words("Formula line"))
        made.setPlaceholderText(words("number, text, or =formula"))
        made.committed.connect(self._typed_in_line)
        made.closed.connect(self._line_is_done)
        made.finished.connect(self._go_on_from_line)
        made.cancelled.connect(self._cancelled_in_line)
        made.edited.connect(self.grid.formula_changed)
        self.grid.line_edit = made
        return made

    def refresh(self) -> None:
        """Show the tables' names and the current cell."""
        self._show_tabs()
        self.grid.fold()
        self._show_cell()

    def _show_tabs(self) -> None:
        tables = self._store.document.tables
        self.add.setVisible(bool(tables))
        self.all.setVisible(len(tables) > FEW)
        names = [table.name for table in tables]
        ids = [table.id for table in tables]
        self.tabs.blockSignals(True)
        if [self.tabs.tabData(i) for i in range(self.tabs.count())] != ids:
            while self.tabs.count():
                self.tabs.removeTab(0)
            for table in tables:
                self.tabs.setTabData(self.tabs.addTab(table.name), table.id)
        for i, name in enumerate(names):
            text = name.replace("&", "&&")
            if self.tabs.tabText(i) != text:  # setting a text lays out every tab
                self.tabs.setTabText(i, text)
        if ids:
            self.tabs.setCurrentIndex(ids.index(self._store.table.id))
        self.tabs.blockSignals(False)

    def _list_tables(self) -> None:
        place = self.all.mapToGlobal(self.all.rect().bottomLeft())
        self.list.open_for(self._store.document, self._store.table.id, place)

    def _show_table(self, index: int) -> None:
        if 0 <= index < self.tabs.count():
            self._store.show_table(str(self.tabs.tabData(index)))

    def _reorder(self, old: int, new: int) -> None:
        del old
        table = str(self.tabs.tabData(new))
        self._store.edit(say("order tables"), lambda document: table_edits.reorder(document, table, new))

    def cell_of_chart(self) -> str:
        """The current cell's address when it stands in the chart's table; else empty."""
        index = self.grid.currentIndex()
        return self.grid.cells.address(index) if index.isValid() and self._store.chart_is_of_table else ""

    def difference_here(self) -> "CellDifference | None":
        """How the table's file differs at the current cell, where it does."""
        index = self.grid.currentIndex()
        return self.grid.cells.differing.get((index.column(), index.row()))

    def _show_cell(self) -> None:
        index = self.grid.currentIndex()
        model = self.grid.cells
        self.line.setEnabled(index.isValid())
        if not index.isValid():
            self.address.setText("")
            self.line.set_text("")
            self.sums.setText("")
            return
        self.address.setText(model.address(index))
        if not (self.line.is_typed_in() and self.line.is_changed()):
            self.line.set_text(str(model.data(index, Qt.ItemDataRole.EditRole)))
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
        total, mean = exact_sum(numbers), exact_sum(numbers) / len(numbers)
        self.sums.setText(
            words(
                "{count} numbers   sum {sum}   mean {mean}",
                count=len(numbers),
                sum=written(total, PLAIN, locale),
                mean=written(mean, PLAIN, locale),
            )
        )

    def _typed_in_line(self, text: str) -> None:
        """Give the text to the cell in whose line it was typed."""
        place = self._line_cell
        self.grid.cells.setData(place if place is not None else self.grid.currentIndex(), text)

    def _leave_cell(self, now: Index, before: Index) -> None:
        """Another cell is current: what was typed in the line belongs to the one before."""
        del now
        if self.line.is_changed() and self.line.is_typed_in():
            self._line_cell = QPersistentModelIndex(before)
            self.line.commit()
            self._line_cell = None
            self._show_cell()

    def _line_is_done(self) -> None:
        self.grid.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def _go_on_from_line(self, key: int) -> None:
        del key
        self.grid.setFocus()
        self.grid.move_down()

    def _cancelled_in_line(self) -> None:
        self.grid.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.grid.setFocus()
        self._show_cell()
