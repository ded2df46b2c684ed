"""The preview of what leaves: page after page, on a chequered ground where it has none of its own."""

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QFontDatabase, QImage, QKeyEvent, QMovie, QPainter, QPaintEvent, QPalette
from PySide6.QtWidgets import QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from kavlet.core.messages import words
from kavlet.core.scene.primitives import Scene
from kavlet.desktop.stylesheet import UNIT
from kavlet.paint.painter import paint

SQUARE = 8  # pixels of the chequered ground


class PreviewDialog(QWidget):
    """Draws one picture as large as it fits: a scene, an image as it was encoded, or an animation that plays."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.scene: Scene | None = None
        self.image: QImage | None = None
        self.movie: QMovie | None = None
        self.text = ""
        self._held: QBuffer | None = None
        self.setMinimumSize(320, 260)
        self.setAccessibleName(words("Preview"))

    def sizeHint(self) -> QSize:
        return QSize(560, 400)

    def show_scene(self, scene: Scene) -> None:
        self.scene, self.image, self.text = scene, None, ""
        self._stop()
        self.setAccessibleDescription(scene.description)
        self.update()

    def show_bytes(self, content: bytes, moving: bool) -> None:
        """What a picture file holds, as any reader decodes it."""
        self._stop()
        if moving:
            self._held = QBuffer(self)
            self._held.setData(QByteArray(content))
            self._held.open(QIODevice.OpenModeFlag.ReadOnly)
            self.movie = QMovie(self._held, QByteArray(), self)
            if self.movie.isValid():
                self.movie.frameChanged.connect(lambda _: self.update())
                self.movie.start()
                return
            self._stop()
        image = QImage.fromData(content)
        if not image.isNull():
            self.image = image
        self.update()

    def show_text(self, text: str) -> None:
        """What a file of figures holds, its first lines."""
        self._stop()
        self.image, self.scene, self.text = None, None, text
        self.update()

    def _stop(self) -> None:
        if self.movie is not None:
            self.movie.stop()
            self.movie.deleteLater()
            self.movie = None

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        painter.setRenderHints(QPainter.RenderHint.Antialiasing | QPainter.RenderHint.SmoothPixmapTransform)
        image = self.movie.currentImage() if self.movie is not None else self.image
        if image is not None and not image.isNull():
            area = self._fitted(image.width(), image.height())
            if image.hasAlphaChannel():
                self._chequer(painter, area)
            painter.drawImage(area, image)
        elif self.scene is not None:
            area = self._fitted(self.scene.size.width, self.scene.size.height)
            if self.scene.ground is None:
                self._chequer(painter, area)
            painter.translate(area.topLeft())
            scale = area.width() / self.scene.size.width
            painter.scale(scale, scale)
            painter.setClipRect(QRectF(0, 0, self.scene.size.width, self.scene.size.height))
            paint(self.scene, painter)
            painter.resetTransform()
            painter.setClipping(False)
        elif self.text:
            area = QRectF(self.rect()).adjusted(1, 1, -1, -1)
            painter.fillRect(area, self.palette().color(QPalette.ColorRole.Base))
            painter.setPen(self.palette().color(QPalette.ColorRole.Text))
            painter.setFont(QFontDatabase.systemFont(QFontDatabase.SystemFont.FixedFont))
            inner = area.adjusted(12, 12, -12, -12)
            painter.drawText(inner, int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop), self.text)
        else:
            return
        painter.setPen(self.palette().color(QPalette.ColorRole.Mid))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(area.adjusted(-0.5, -0.5, 0.5, 0.5))

    def _fitted(self, width: float, height: float) -> QRectF:
        room = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        scale = min(room.width() / max(1.0, width), room.height() / max(1.0, height))
        area = QRectF(0, 0, width * scale, height * scale)
        area.moveCenter(room.center())
        return area

    def _chequer(self, painter: QPainter, area: QRectF) -> None:
        """Pale squares, so that what is see-through is seen to be so."""
        light, dark = QColor(255, 255, 255), QColor(226, 226, 226)
        painter.save()
        painter.setClipRect(area)
        painter.fillRect(area, light)
        for row in range(int(area.height() // SQUARE) + 1):
            for column in range(row % 2, int(area.width() // SQUARE) + 1, 2):
                painter.fillRect(QRectF(area.x() + column * SQUARE, area.y() + row * SQUARE, SQUARE, SQUARE), dark)
        painter.restore()


class Preview(QWidget):
    """A sheet, and a way through several: buttons, and the arrow keys."""

    turned = Signal(int)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.sheet = PreviewDialog()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(words("Preview"))
        self._place = 0
        self._names: tuple[str, ...] = ("",)
        self.before, self.after = QToolButton(), QToolButton()
        for button, sign, name, step in ((self.before, "‹", words("Back"), -1), (self.after, "›", words("On"), 1)):
            button.setText(sign)
            button.setAccessibleName(name)
            button.setToolTip(name)
            button.clicked.connect(lambda _checked=False, step=step: self.turn(self._place + step))
        self.says = QLabel()
        self.says.setObjectName("quiet")
        self.says.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._row = QWidget()
        row = QHBoxLayout(self._row)
        row.setContentsMargins(0, 0, 0, 0)
        row.addStretch(1)
        for widget in (self.before, self.says, self.after):
            row.addWidget(widget)
        row.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        layout.addWidget(self.sheet, 1)
        layout.addWidget(self._row)

    @property
    def place(self) -> int:
        """Which of several is shown, from 0."""
        return self._place

    def show_names(self, names: tuple[str, ...]) -> None:
        """Offer so many; the place stays where it is, as far as there are as many."""
        self._names = names or ("",)
        self._place = min(self._place, len(self._names) - 1)
        self._say()

    def turn(self, place: int) -> None:
        """Show another of them."""
        place = max(0, min(len(self._names) - 1, place))
        if place != self._place:
            self._place = place
            self._say()
            self.turned.emit(place)

    def _say(self) -> None:
        count = len(self._names)
        self._row.setVisible(count > 1)
        self.before.setEnabled(self._place > 0)
        self.after.setEnabled(self._place < count - 1)
        self.says.setText(words("{name} · {number} of {count}", name=self._names[self._place],
                                number=self._place + 1, count=count))  # fmt: skip

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_PageUp: -1, Qt.Key.Key_PageDown: 1}
        if Qt.Key(event.key()) in steps:
            self.turn(self._place + steps[Qt.Key(event.key())])
            return
        super().keyPressEvent(event)
