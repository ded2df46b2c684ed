"""All tables in a list with a search, for documents whose tabs do not fit side by side."""

from PySide6.QtCore import QEvent, QObject, QPoint, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from kavlet.core.document.document import Document
from kavlet.core.messages import counted, words
from kavlet.desktop.stylesheet import UNIT

WIDTH, HEIGHT = 280, 360


class TableList(QFrame):
    """Opens below its button; typing narrows it, arrows and Enter choose, Escape closes it."""

    chosen = Signal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setObjectName("panel")
        self.setFixedSize(WIDTH, HEIGHT)
        self.search = QLineEdit()
        self.search.setPlaceholderText(words("Search tables"))
        self.search.setAccessibleName(words("Search tables"))
        self.search.textChanged.connect(self._narrow)
        self.search.installEventFilter(self)
        self.list = QListWidget()
        self.list.setAccessibleName(words("Tables"))
        self.list.itemActivated.connect(self._take)
        self.list.itemClicked.connect(self._take)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(2 * UNIT, 2 * UNIT, 2 * UNIT, 2 * UNIT)
        layout.setSpacing(2 * UNIT)
        layout.addWidget(self.search)
        layout.addWidget(self.list)

    def open_for(self, document: Document, current: str, place: QPoint) -> None:
        """Show the document's tables, the current one chosen."""
        self.list.clear()
        for table in document.tables:
            charts = sum(chart.table == table.id for chart in document.charts)
            rows = counted("{count} row", "{count} rows", table.rows)
            more = counted("{count} chart", "{count} charts", charts) if charts else ""
            item = QListWidgetItem(table.name)
            item.setToolTip(f"{rows}, {more}" if more else str(rows))
            item.setData(Qt.ItemDataRole.UserRole, table.id)
            self.list.addItem(item)
            if table.id == current:
                self.list.setCurrentItem(item)
        self.search.clear()
        self.move(place)
        self.show()
        self.search.setFocus()

    def _shown(self) -> list[QListWidgetItem]:
        items = [self.list.item(i) for i in range(self.list.count())]
        return [item for item in items if not item.isHidden()]

    def _narrow(self, text: str) -> None:
        sought = text.casefold().split()
        for i in range(self.list.count()):
            item = self.list.item(i)
            item.setHidden(not all(word in item.text().casefold() for word in sought))
        shown = self._shown()
        if shown and self.list.currentItem() not in shown:
            self.list.setCurrentItem(shown[0])

    def _take(self, item: QListWidgetItem) -> None:
        self.hide()
        self.chosen.emit(str(item.data(Qt.ItemDataRole.UserRole)))

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if watched is self.search and isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            shown = self._shown()
            at = shown.index(self.list.currentItem()) if self.list.currentItem() in shown else -1
            if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up) and shown:
                step = 1 if event.key() == Qt.Key.Key_Down else -1
                self.list.setCurrentItem(shown[max(0, min(len(shown) - 1, at + step))])
                return True
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and at >= 0:
                self._take(shown[at])
                return True
        return super().eventFilter(watched, event)
