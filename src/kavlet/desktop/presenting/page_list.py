"""The list of pages over the one that is presented: choose one by its number, name or picture."""

from PySide6.QtCore import QRect, QSize, Qt, Signal
from PySide6.QtGui import QIcon, QKeyEvent
from PySide6.QtWidgets import QListView, QListWidget, QListWidgetItem, QWidget

from kavlet.core.messages import words
from kavlet.desktop.presenting.show import Show
from kavlet.desktop.thumbnails import thumb

SIDE = QSize(200, 140)
AIR = 60  # pixels around the list


class PageList(QListWidget):
    """`chosen` tells the place of a page, counted from 0; `left` that none was chosen."""

    chosen = Signal(int)
    left = Signal()

    def __init__(self, show: Show, parent: QWidget) -> None:
        super().__init__(parent)
        self._show = show
        self.setAccessibleName(words("Pages"))
        self.setViewMode(QListView.ViewMode.IconMode)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.setMovement(QListView.Movement.Static)
        self.setIconSize(SIDE)
        self.setGridSize(QSize(SIDE.width() + 24, SIDE.height() + 40))
        self.itemClicked.connect(lambda item: self.chosen.emit(self.row(item)))

    def open(self, room: QRect) -> None:
        """Show all pages in a room of pixels, the one that is presented chosen."""
        self.clear()
        for place in range(len(self._show.pages)):
            picture = self._show.picture(place - self._show.at)
            self.addItem(QListWidgetItem(QIcon(thumb(picture.scene, SIDE)), f"{place + 1}  {picture.page.name}"))
        self.setCurrentRow(self._show.at)
        self.setGeometry(room.adjusted(AIR, AIR, -AIR, -AIR))
        self.show()
        self.raise_()
        self.setFocus(Qt.FocusReason.OtherFocusReason)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_Tab):
            self.left.emit()
            return
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.chosen.emit(self.currentRow())
            return
        super().keyPressEvent(event)
