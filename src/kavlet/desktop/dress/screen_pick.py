"""A colour picked from anywhere on the screen: the screen is shown as it stands, and the pixel clicked is taken."""

from PySide6.QtCore import QPoint, QRect, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QGuiApplication, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QWidget

from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError

LENS, MAGNIFIED = 11, 9  # pixels seen through the lens, and how large each is shown


class ScreenPick(QWidget):
    """Covers one screen with its own picture; `picked` tells the hex code of the pixel clicked. Esc gives up."""

    picked = Signal(str)

    def __init__(self, shot: QPixmap, place: QRect) -> None:
        super().__init__(None, Qt.WindowType.FramelessWindowHint | Qt.WindowType.WindowStaysOnTopHint)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setAccessibleName(words("Pick a colour from the screen"))
        self._shot, self._image, self._at = shot, shot.toImage(), QPoint(-100, -100)
        self.setGeometry(place)
        self.setMouseTracking(True)
        self.setCursor(Qt.CursorShape.CrossCursor)

    @staticmethod
    def of_screen_under(place: QPoint) -> "ScreenPick":
        """A picker for the screen at a place. Raises KavletError where the desktop does not show its screen."""
        screen = QGuiApplication.screenAt(place) or QGuiApplication.primaryScreen()
        shot = screen.grabWindow(0)
        if shot.isNull():
            raise KavletError(
                say("This desktop does not let programs look at the screen."),
                remedy=say("Type the colour’s hex code instead."),
            )
        return ScreenPick(shot, screen.geometry())

    def colour_at(self, at: QPoint) -> QColor:
        """The colour of the screen's pixel at a place of the widget."""
        factor = self._shot.devicePixelRatio()
        x = max(0, min(self._image.width() - 1, round(at.x() * factor)))
        y = max(0, min(self._image.height() - 1, round(at.y() * factor)))
        return self._image.pixelColor(x, y)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self._at = event.position().toPoint()
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.picked.emit(self.colour_at(event.position().toPoint()).name())
        self.close()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.close()

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        painter.drawPixmap(0, 0, self._shot)
        side, half = LENS * MAGNIFIED, LENS // 2
        left = self._at.x() + 16 if self._at.x() + 16 + side < self.width() else self._at.x() - 16 - side
        top = self._at.y() + 16 if self._at.y() + 16 + side < self.height() else self._at.y() - 16 - side
        for column in range(LENS):
            for row in range(LENS):
                tone = self.colour_at(self._at + QPoint(column - half, row - half))
                painter.fillRect(left + column * MAGNIFIED, top + row * MAGNIFIED, MAGNIFIED, MAGNIFIED, tone)
        painter.setPen(QPen(QColor("white"), 2))
        painter.drawRect(QRectF(left, top, side, side))
        painter.drawRect(QRectF(left + half * MAGNIFIED, top + half * MAGNIFIED, MAGNIFIED, MAGNIFIED))
        painter.end()
