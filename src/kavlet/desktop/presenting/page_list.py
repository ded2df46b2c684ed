"""The list of pages over the one that is presented: choose one by its number, name or picture."""

from PySide6.QtCore import QRect, QSize, Qt, Signal
from PySide6.QtGui import QIcon, QKeyEvent, QPainter, QPixmap
from PySide6.QtWidgets import QListView, QListWidget, QListWidgetItem, QWidget

from kavlet.core.building.paging.page import NO_PAGE_PICTURE, PagePicture
from kavlet.core.messages import words
from kavlet.desktop.presenting.show import Show
from kavlet.paint.painter import paint

SIDE = QSize(200, 140)
AIR = 60  # pixels around the list


def thumb(picture: PagePicture, room: QSize) -> QPixmap:
    """A page in a room of pixels, in its proportion."""
    pixmap = QPixmap(room * 2)
    pixmap.setDevicePixelRatio(2)
    pixmap.fill(Qt.GlobalColor.transparent)
    if picture is NO_PAGE_PICTURE:
        return pixmap
    size = picture.scene.size
    by = min(room.width() / size.width, room.height() / size.height)
    painter = QPainter(pixmap)
    painter.translate((room.width() - size.width * by) / 2, (room.height() - size.height * by) / 2)
    painter.scale(by, by)
    paint(picture.scene, painter, fine=False)
    painter.end()
    return pixmap


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
            self.addItem(QListWidgetItem(QIcon(thumb(picture, SIDE)), f"{place + 1}  {picture.page.name}"))
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
