"""The finder: a command, a recipe, a field or a chart by its words, gone to with Enter."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from kavlet.core.messages import words
from kavlet.desktop.command_search import PROMPT, Findable
from kavlet.desktop.stylesheet import UNIT


class CommandFinder(QFrame):
    """Opens over the window; Escape closes it."""

    def __init__(self, findable: Sequence[Findable], parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._findable = list(findable)
        self.search = QLineEdit()
        self.search.setPlaceholderText(str(PROMPT))
        self.search.setAccessibleName(words("Find"))
        self.search.textChanged.connect(lambda _: self.refresh())
        self.search.returnPressed.connect(self._take)
        self.list = QListWidget()
        self.list.setAccessibleName(words("Found"))
        self.list.itemActivated.connect(lambda _: self._take())
        self.list.itemClicked.connect(lambda _: self._take())
        layout = QVBoxLayout(self)
        layout.setContentsMargins(2 * UNIT, 2 * UNIT, 2 * UNIT, 2 * UNIT)
        layout.addWidget(self.search)
        layout.addWidget(self.list)
        self.resize(460, 340)
        self.refresh()
        corner = parent.mapToGlobal(parent.rect().center())
        self.move(corner.x() - 230, parent.mapToGlobal(parent.rect().topLeft()).y() + 80)

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self.search.setFocus()

    def refresh(self) -> None:
        """What has words that begin with what is typed: what can be done first, then what is called so itself."""
        typed = self.search.text().casefold().split()
        self.list.clear()
        found = [(number, one) for number, one in enumerate(self._findable) if one.fits(typed)]
        for number, one in sorted(found, key=lambda pair: (not pair[1].enabled, not _by_name(pair[1], typed))):
            item = QListWidgetItem(f"{one.text}    {one.keys or one.kind}")
            item.setData(Qt.ItemDataRole.UserRole, number)
            if not one.enabled:
                item.setFlags(Qt.ItemFlag.NoItemFlags)
            self.list.addItem(item)
        if self.list.count():
            self.list.setCurrentRow(0)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            by = 1 if event.key() == Qt.Key.Key_Down else -1
            self.list.setCurrentRow(max(0, min(self.list.count() - 1, self.list.currentRow() + by)))
            return
        super().keyPressEvent(event)

    def _take(self) -> None:
        item = self.list.currentItem()
        if item is None or not item.flags() & Qt.ItemFlag.ItemIsEnabled:
            return
        one = self._findable[int(item.data(Qt.ItemDataRole.UserRole))]
        self.close()
        one.do()


def _by_name(one: Findable, typed: Sequence[str]) -> bool:
    return all(any(part.startswith(word) for part in one.text.casefold().split()) for word in typed)
