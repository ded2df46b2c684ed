"""Cards of the Start place: a drawn example to a question with its sample tables; a document opened last."""

from pathlib import Path

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QFont, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from kavlet.core.document.tables.samples import Sample
from kavlet.core.messages import words
from kavlet.core.recipes.recipe import QUESTIONS
from kavlet.core.scene.primitives import Scene
from kavlet.desktop.elided_label import ElidedLabel
from kavlet.desktop.stylesheet import CORNER, UNIT, colours, qcolor
from kavlet.paint.painter import paint

PICTURE = QSize(200, 118)
THUMBNAIL = QSize(96, 62)


class Drawing(QWidget):
    """A picture that is chosen by a click or a key; empty until its scene is there."""

    chosen = Signal()

    def __init__(self, name: str, size: QSize, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.scene: Scene | None = None
        self.current = False
        self.setFixedSize(size)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(name)
        self.setAttribute(Qt.WidgetAttribute.WA_Hover)

    def show_scene(self, scene: Scene) -> None:
        self.scene = scene
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
        if self.scene is not None:
            inside, size = QRectF(4, 4, self.width() - 8, self.height() - 8), self.scene.size
            factor = min(inside.width() / size.width, inside.height() / size.height)
            painter.translate(
                inside.x() + (inside.width() - size.width * factor) / 2,
                inside.y() + (inside.height() - size.height * factor) / 2,
            )
            painter.scale(factor, factor)
            painter.setClipRect(QRectF(0, 0, size.width, size.height))
            paint(self.scene, painter)
        painter.end()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton and self.rect().contains(event.position().toPoint()):
            self.chosen.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.chosen.emit()
        else:
            super().keyPressEvent(event)


class QuestionCard(QWidget):
    """A question, the first sample's chart, and all its samples by name."""

    chosen = Signal(object)  # the Sample

    def __init__(self, held: list[Sample], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.samples = held
        first = held[0]
        question = words(QUESTIONS[first.question])
        self.drawing = Drawing(f"{question} {first.name}", PICTURE, self)
        self.drawing.setToolTip(words("Put in these sample figures: {name}", name=first.name))
        self.drawing.chosen.connect(lambda: self.chosen.emit(first))
        self.head = ElidedLabel()
        self.head.setText(question)
        font = QFont(self.font())
        font.setBold(True)
        self.head.setFont(font)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 2 * UNIT)
        layout.setSpacing(UNIT)
        layout.addWidget(self.head)
        layout.addWidget(self.drawing)
        self.links: list[QPushButton] = []
        for one in held:
            link = QPushButton()
            link.setObjectName("link")
            link.setText(one.name)
            link.setCursor(Qt.CursorShape.PointingHandCursor)
            link.setToolTip(words("Put in these sample figures: {name}", name=one.name))
            link.clicked.connect(lambda _checked=False, one=one: self.chosen.emit(one))
            self.links.append(link)
            layout.addWidget(link)
        self.setFixedWidth(PICTURE.width())
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)


class RecentCard(QWidget):
    """A document opened last: its first chart, its name and where it lies."""

    chosen = Signal(object)  # the Path

    def __init__(self, path: Path, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.path = path
        self.drawing = Drawing(words("Open {file}", file=path.name), THUMBNAIL, self)
        self.drawing.setToolTip(str(path))
        self.drawing.chosen.connect(lambda: self.chosen.emit(path))
        name, folder = ElidedLabel(), ElidedLabel()
        name.setText(path.stem)
        folder.setText(str(path.parent).replace(str(Path.home()), "~", 1))
        folder.setObjectName("quiet")
        texts = QVBoxLayout()
        texts.setSpacing(0)
        texts.addStretch(1)
        texts.addWidget(name)
        texts.addWidget(folder)
        texts.addStretch(1)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        layout.addWidget(self.drawing)
        layout.addLayout(texts, 1)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.chosen.emit(self.path)
