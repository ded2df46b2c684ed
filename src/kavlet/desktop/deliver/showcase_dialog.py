"""The showcase as a sheet: whether it is shown, what is published under which address, and taking it back."""

from collections.abc import Callable

from PySide6.QtCore import QUrl
from PySide6.QtGui import QDesktopServices, QGuiApplication
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.messages import words
from kavlet.desktop.stylesheet import UNIT
from kavlet.sharing import showcase
from kavlet.sharing.server import Server
from kavlet.sharing.showcase import Publication

Guard = Callable[[Callable[[], object]], object]


class ShowcaseDialog(QDialog):
    """Published pages in a table; those that were taken back stay named, without an address to open."""

    def __init__(self, server: Server, guard: Guard, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(words("Showcase"))
        self._server, self._guard = server, guard
        self.pages: list[Publication] = []
        note = QLabel(words("A sharing service to try with: it shows what you publish on this machine alone."))
        note.setObjectName("quiet")
        note.setWordWrap(True)
        self.state = QLabel()
        self.switch = QPushButton()
        self.switch.clicked.connect(lambda _checked=False: self._turn())
        head = QHBoxLayout()
        head.addWidget(self.state, 1)
        head.addWidget(self.switch)
        self.table = QTableWidget(0, 3)
        self.table.setAccessibleName(words("Published pages"))
        self.table.setHorizontalHeaderLabels([words("Page"), words("Versions"), words("Address")])
        self.table.verticalHeader().hide()
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QTableWidget.SelectionBehavior.SelectRows)
        self.table.setSelectionMode(QTableWidget.SelectionMode.SingleSelection)
        self.table.horizontalHeader().setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        self.table.horizontalHeader().setSectionResizeMode(2, QHeaderView.ResizeMode.ResizeToContents)
        self.table.itemSelectionChanged.connect(self._enable)
        self.open_page = QPushButton(words("Open"))
        self.copy = QPushButton(words("Copy address"))
        self.take_back = QPushButton(words("Take back"))
        self.open_page.clicked.connect(lambda _checked=False: self._open())
        self.copy.clicked.connect(lambda _checked=False: self._copy())
        self.take_back.clicked.connect(lambda _checked=False: self._take_back())
        buttons = QDialogButtonBox()
        for button in (self.open_page, self.copy, self.take_back):
            buttons.addButton(button, QDialogButtonBox.ButtonRole.ActionRole)
        buttons.addButton(words("Close"), QDialogButtonBox.ButtonRole.RejectRole)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(3 * UNIT)
        layout.addWidget(note)
        layout.addLayout(head)
        layout.addWidget(self.table, 1)
        layout.addWidget(buttons)
        self.resize(760, 460)
        self.refresh()

    def refresh(self) -> None:
        """Show what is published now, the latest chosen."""
        self.pages = list(showcase.index().pages)
        self.table.setRowCount(len(self.pages))
        for row, page in enumerate(self.pages):
            last = page.versions[-1] if page.versions else None
            said = words("{count}, the last {when}", count=len(page.versions), when=f"{last.when:%Y-%m-%d %H:%M}") if (
                last is not None
            ) else ""  # fmt: skip
            shown = words("taken back") if page.taken_back else showcase.address(page)
            for column, text in enumerate((page.title, said, shown)):
                self.table.setItem(row, column, QTableWidgetItem(text))
        self.table.resizeColumnToContents(1)
        if self.pages:
            self.table.selectRow(0)
        running = self._server.running
        self.state.setText(
            words("Shown at port {port} of this machine", port=str(self._server.port))
            if running
            else words("Not shown")
        )
        self.switch.setText(words("Stop showing") if running else words("Start showing"))
        self._enable()

    @property
    def chosen(self) -> Publication | None:
        """The page that is chosen, where it was not taken back."""
        row = self.table.currentRow()
        page = self.pages[row] if 0 <= row < len(self.pages) else None
        return page if page is not None and not page.taken_back else None

    def _enable(self) -> None:
        there = self.chosen is not None
        self.copy.setEnabled(there)
        self.take_back.setEnabled(there)
        self.open_page.setEnabled(there and self._server.running)

    def _turn(self) -> None:
        if self._server.running:
            self._server.stop()
        else:
            self._guard(self._server.start)
        self.refresh()

    def _open(self) -> None:
        page = self.chosen
        if page is not None:
            QDesktopServices.openUrl(QUrl(showcase.address(page)))

    def _copy(self) -> None:
        page = self.chosen
        if page is not None:
            QGuiApplication.clipboard().setText(showcase.address(page))

    def _take_back(self) -> None:
        page = self.chosen
        if page is not None:
            self._guard(lambda: showcase.take_back(page.token))
            self.refresh()
