"""One recipe on the wall: drawn with the author's own figures, with its reason; or a sentence about what it needs."""

from PySide6.QtCore import QPointF, QRectF, QSize, QSizeF, Qt, Signal
from PySide6.QtGui import QFont, QImage, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from kavlet.core.messages import words
from kavlet.core.scene.primitives import Scene
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.stylesheet import CORNER, colours, qcolor
from kavlet.paint.painter import paint

WIDTH, PICTURE, FOOT = 260, 168, 46
PALE = 0.55  # opacity of a chart that rests on what is only proposed
_ROOM = QSize(WIDTH - 16, PICTURE - 10)  # pixels of the chart


def drawn(scene: Scene, ratio: float) -> QImage:
    """A chart as a tile shows it; `ratio` is that of the screen's pixels to the tile's. Any thread may draw it."""
    image = QImage(_ROOM * ratio, QImage.Format.Format_ARGB32_Premultiplied)
    image.setDevicePixelRatio(ratio)
    image.fill(Qt.GlobalColor.transparent)
    factor = min(_ROOM.width() / scene.size.width, _ROOM.height() / scene.size.height)
    painter = QPainter(image)
    painter.translate((_ROOM.width() - scene.size.width * factor) / 2, 0)
    painter.scale(factor, factor)
    paint(scene, painter)
    painter.end()
    return image


class RecipeTile(QWidget):
    """Chosen by a click or Enter; the arrow keys go to its neighbours."""

    chosen = Signal(str)
    moved = Signal(int)
    proposed = Signal(str, str)  # a setting, and what is typed for it

    def __init__(self, name: str, title: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.name, self.title = name, title
        self.reason = ""
        self.problem = ""
        self.scene: Scene | None = None
        self.image = QImage()
        self.current = self.pale = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setFixedSize(self.sizeHint())
        self.setAccessibleName(title)
        self.setting = ""
        self.figure = TextField(words("what is proposed"), "", self)
        self.figure.setGeometry(WIDTH - 104, PICTURE + 15, 92, 24)
        self.figure.setToolTip(words("Proposed, for want of your own: type another, and the chart follows"))
        self.figure.setCursor(Qt.CursorShape.IBeamCursor)
        self.figure.committed.connect(lambda text: self.proposed.emit(self.setting, text))
        self.figure.hide()
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(WIDTH, PICTURE + FOOT)

    def show_scene(self, scene: Scene, image: QImage, reason: str, pale: bool = False) -> None:
        """Show the recipe's chart, drawn; `pale` where it rests on what is only proposed."""
        self.scene, self.image, self.reason, self.problem, self.pale = scene, image, reason, "", pale
        self.setAccessibleDescription(reason)
        self.setToolTip(scene.description)
        self.update()

    def show_proposal(self, setting: str, said: str, text: str) -> None:
        """Offer a figure that the recipe proposes, to be typed over; none where the setting is empty."""
        self.setting = setting
        self.figure.setVisible(bool(setting))
        if setting:
            self.figure.setAccessibleName(said)
            self.figure.show_text(text)

    def show_problem(self, problem: str) -> None:
        """Say what the recipe needs."""
        self.scene, self.problem = None, problem
        self.show_proposal("", "", "")
        self.setAccessibleDescription(problem)
        self.setToolTip("")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        c = colours()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        strong = self.hasFocus() or self.underMouse()
        edge = c.accent if strong else c.second if self.current else c.line
        painter.setPen(QPen(qcolor(edge), 2 if strong or self.current else 1))
        painter.setBrush(qcolor(c.panel))
        painter.drawRoundedRect(QRectF(1, 1, self.width() - 2, self.height() - 2), CORNER, CORNER)
        inside = QRectF(QPointF(8, 8), QSizeF(_ROOM))
        if self.scene is not None:
            painter.setOpacity(PALE if self.pale else 1.0)
            painter.drawImage(inside.topLeft(), self.image)
            painter.setOpacity(1.0)
        elif self.problem:
            painter.setPen(qcolor(c.quiet))
            flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
            painter.drawText(inside.adjusted(12, 8, -12, -8), int(flags), self.problem)
        self._paint_words(painter)
        painter.end()

    def _paint_words(self, painter: QPainter) -> None:
        c = colours()
        font = QFont(self.font())
        font.setBold(True)
        painter.setFont(font)
        painter.setPen(qcolor(c.ink if not self.problem else c.quiet))
        painter.drawText(QRectF(12, PICTURE, WIDTH - 24, 20), Qt.AlignmentFlag.AlignVCenter, self.title)
        painter.setFont(self.font())
        painter.setPen(qcolor(c.quiet))
        room = WIDTH - 24 - (96 if self.setting else 0)
        reason = painter.fontMetrics().elidedText(self.reason, Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(12, PICTURE + 19, room, 18), Qt.AlignmentFlag.AlignVCenter, reason)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self.rect().contains(event.position().toPoint()):
            self.chosen.emit(self.name)

    def keyPressEvent(self, event) -> None:  # type: ignore[no-untyped-def]
        key = event.key()
        if self.setting and not self.hasFocus():  # a key that its field has let through
            super().keyPressEvent(event)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.chosen.emit(self.name)
        elif key in (Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.moved.emit(int(key))
        else:
            super().keyPressEvent(event)
