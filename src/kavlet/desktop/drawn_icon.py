"""Icons that are drawn in the window's colours, and drawn again when these change."""

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QIcon, QPainter, QPixmap
from PySide6.QtWidgets import QWidget


def drawn_icon(side: int, draw: Callable[[QPainter], object]) -> QIcon:
    """What `draw` draws in a square of `side` points."""
    pixmap = QPixmap(2 * side, 2 * side)
    pixmap.setDevicePixelRatio(2.0)
    pixmap.fill(Qt.GlobalColor.transparent)
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    draw(painter)
    painter.end()
    made = QIcon(pixmap)
    made.addPixmap(pixmap, QIcon.Mode.Selected)  # not tinted
    return made


class RedrawOnNewLook(QObject):
    """Calls `draw` whenever its widget has got another look."""

    def __init__(self, widget: QWidget, draw: Callable[[], object]) -> None:
        super().__init__(widget)
        self._draw = draw
        widget.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.StyleChange:
            self._draw()
        return super().eventFilter(watched, event)
