"""Small pictures of scenes, for lists: charts and pages, as large as they fit."""

from collections.abc import Callable

from PySide6.QtCore import QObject, QSize, Qt, QTimer
from PySide6.QtGui import QPainter, QPixmap

from kavlet.core.scene.primitives import Scene
from kavlet.desktop.store import Store
from kavlet.paint.painter import paint


def fitting(scene: Scene, room: QSize) -> QSize:
    """How large a scene is in a room of pixels, in its proportion."""
    by = min(room.width() / scene.size.width, room.height() / scene.size.height)
    return QSize(max(1, round(scene.size.width * by)), max(1, round(scene.size.height * by)))


def thumb(scene: Scene, room: QSize, ratio: float = 2.0) -> QPixmap:
    """A scene in the middle of a room of pixels; `ratio` is that of the screen's pixels to them."""
    pixmap = QPixmap(room * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(Qt.GlobalColor.transparent)
    size = fitting(scene, room)
    painter = QPainter(pixmap)
    painter.translate((room.width() - size.width()) / 2, (room.height() - size.height()) / 2)
    painter.scale(size.width() / scene.size.width, size.height() / scene.size.height)
    paint(scene, painter, fine=False)
    painter.end()
    return pixmap


class ThumbnailQueue(QTimer):
    """Draws small pictures one after the other, so that nothing waits for them; none while something is only tried out.

    `draw` draws the next that is missing or out of date, and returns whether there was one.
    """

    def __init__(self, store: Store, draw: Callable[[], bool], parent: QObject) -> None:
        super().__init__(parent)
        self._store, self._draw = store, draw
        self.setInterval(0)
        self.timeout.connect(self._next)

    def begin(self) -> None:
        """Draw what is out of date now."""
        if not self._store.trying:
            self.start()

    def _next(self) -> None:
        if self._store.trying or not self._draw():
            self.stop()
