"""The command finder: every command by its words, carried out with Enter."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QKeyEvent, QKeySequence
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from kavlet.core.messages import words
from kavlet.desktop.look import UNIT


class CommandFinder(QFrame):
    """Opens over the window; Escape closes it."""

    def __init__(self, actions: dict[str, QAction], parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._actions = actions
        self.search = QLineEdit()
        self.search.setPlaceholderText(words("Find a command by its words"))
        self.search.setAccessibleName(words("Find a command"))
        self.search.textChanged.connect(lambda _: self.refresh())
        self.search.returnPressed.connect(self._take)
        self.list = QListWidget()
        self.list.setAccessibleName(words("Commands"))
        self.list.itemActivated.connect(lambda _: self._take())
        self.list.itemClicked.connect(lambda _: self._take())
        layout = QVBoxLayout(self)
        layout.setContentsMargins(2 * UNIT, 2 * UNIT, 2 * UNIT, 2 * UNIT)
        layout.addWidget(self.search)
        layout.addWidget(self.list)
        self.resize(420, 320)
        self.refresh()
        corner = parent.mapToGlobal(parent.rect().center())
        self.move(corner.x() - 210, parent.mapToGlobal(parent.rect().topLeft()).y() + 80)

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self.search.setFocus()

    def refresh(self) -> None:
        """The commands whose words begin with what is typed, those that can be carried out first."""
        words = self.search.text().casefold().split()
        self.list.clear()
        found = []
        for name, action in self._actions.items():
            text = action.text().replace("&", "")
            own = text.casefold().replace("…", "").split()
            if all(any(part.startswith(word) for part in own) for word in words):
                found.append((not action.isEnabled(), name, text, action))
        for off, name, text, action in sorted(found, key=lambda one: one[0]):
            keys = action.shortcut().toString(QKeySequence.SequenceFormat.NativeText)
            item = QListWidgetItem(f"{text}    {keys}" if keys else text)
            item.setData(Qt.ItemDataRole.UserRole, name)
            if off:
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
        action = self._actions[str(item.data(Qt.ItemDataRole.UserRole))]
        self.close()
        action.trigger()
