"""The layer strip: the chart's layers as cards, back to front, each drawing only its own layer."""

import msgspec
from PySide6.QtCore import QMimeData, QPoint, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QDrag, QDragEnterEvent, QDropEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QScrollArea, QToolButton, QVBoxLayout, QWidget

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.interaction.parts import Part
from kavlet.core.layout.draw import draw
from kavlet.core.layout.kinds import kind_of, type_name
from kavlet.core.messages import named, words
from kavlet.core.pipeline.stages import Picture
from kavlet.core.scene.primitives import Scene
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import CORNER, UNIT, colours, qcolor
from kavlet.paint.painter import paint

WIDE, TALL = 104, 78
MIME = "application/x-kavlet-layer"


class LayerCard(QWidget):
    """One layer: its own drawing, its name, whether it is hidden or on the second axis."""

    clicked = Signal(str)
    hide_wanted = Signal(str)
    menu_wanted = Signal(str, object)
    moved = Signal(str, int)

    def __init__(self, layer: AnyLayer, scene: Scene, chosen: bool, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._pressed: QPoint | None = None
        self.setFixedSize(QSize(WIDE, TALL))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.show_layer(layer, scene, chosen)

    def show_layer(self, layer: AnyLayer, scene: Scene, chosen: bool) -> None:
        """Stand for a layer, drawn as the scene holds it."""
        self.layer, self.scene, self.chosen = layer, scene, chosen
        state = (
            words("helper")
            if layer.helper
            else words("hidden")
            if layer.hidden
            else str(named(type_name(kind_of(layer))))
        )
        self.setAccessibleName(f"{layer.name}, {state}")
        self.setToolTip(f"{layer.name} – {state}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        c = colours()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        style = Qt.PenStyle.DashLine if self.layer.helper else Qt.PenStyle.SolidLine
        strong = self.chosen or self.hasFocus()
        painter.setPen(
            QPen(
                qcolor(c.accent if strong else c.helper_line if self.layer.helper else c.line),
                2 if strong else 1,
                style,
            )
        )
        painter.setBrush(qcolor(c.helper if self.layer.helper else c.panel))
        painter.drawRoundedRect(QRectF(1, 1, WIDE - 2, TALL - 2), CORNER, CORNER)
        inside = QRectF(6, 5, WIDE - 12, TALL - 27)
        size = self.scene.size
        factor = min(inside.width() / size.width, inside.height() / size.height)
        painter.save()
        painter.setOpacity(0.3 if self.layer.hidden else 1.0)
        painter.translate(inside.center().x() - size.width * factor / 2, inside.center().y() - size.height * factor / 2)
        painter.scale(factor, factor)
        paint(self.scene, painter)
        painter.restore()
        painter.setPen(qcolor(c.quiet if self.layer.hidden or self.layer.helper else c.ink))
        name = painter.fontMetrics().elidedText(
            self.layer.name or self.layer.key, Qt.TextElideMode.ElideRight, WIDE - 30
        )
        painter.drawText(QRectF(8, TALL - 22, WIDE - 30, 18), Qt.AlignmentFlag.AlignVCenter, name)
        eye = "○" if self.layer.hidden else "●" if not self.layer.helper else ""
        mark = "2" if self.layer.second else ""
        painter.drawText(QRectF(WIDE - 26, TALL - 22, 20, 18), Qt.AlignmentFlag.AlignCenter, mark + eye)
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._pressed = event.position().toPoint()
        if event.button() == Qt.MouseButton.RightButton:
            self.menu_wanted.emit(self.layer.key, event.globalPosition().toPoint())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._pressed is None or (event.position().toPoint() - self._pressed).manhattanLength() < 8:
            return
        self._pressed = None
        drag = QDrag(self)
        data = QMimeData()
        data.setData(MIME, self.layer.key.encode())
        drag.setMimeData(data)
        drag.exec(Qt.DropAction.MoveAction)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._pressed is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self._pressed = None
        at = event.position()
        on_eye = at.x() > WIDE - 26 and at.y() > TALL - 24 and not self.layer.helper
        (self.hide_wanted if on_eye else self.clicked).emit(self.layer.key)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right) and event.modifiers() & Qt.KeyboardModifier.AltModifier:
            self.moved.emit(self.layer.key, -1 if key == Qt.Key.Key_Left else 1)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.clicked.emit(self.layer.key)
        elif key == Qt.Key.Key_Space and not self.layer.helper:
            self.hide_wanted.emit(self.layer.key)
        elif key == Qt.Key.Key_Menu:
            self.menu_wanted.emit(self.layer.key, self.mapToGlobal(self.rect().center()))
        else:
            super().keyPressEvent(event)


class LayerStrip(QFrame):
    """All layers of the chart in view. Drag a card to another place; click to choose; the dot hides."""

    hide_wanted = Signal(str)
    order_wanted = Signal(object)
    add_wanted = Signal(object)
    menu_wanted = Signal(str, object)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.cards: list[LayerCard] = []
        self._shown: tuple[object, ...] = ()
        self.setAcceptDrops(True)
        self.setAccessibleName(words("Layer strip"))
        self._inside = QWidget()
        self._row = QHBoxLayout(self._inside)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(2 * UNIT)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setFrameShape(QFrame.Shape.NoFrame)
        self._scroll.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroll.setFixedHeight(TALL + 12)
        self._scroll.setWidget(self._inside)
        self.add = QToolButton()
        self.add.setText("+")
        self.add.setToolTip(words("Add a layer"))
        self.add.setAccessibleName(words("Add a layer"))
        self.add.clicked.connect(lambda: self.add_wanted.emit(self.add.mapToGlobal(self.add.rect().topLeft())))
        self.head = QLabel(words("Layers, back to front"))
        self.head.setObjectName("quiet")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addWidget(self.head)
        layout.addWidget(self._scroll)
        store.selected.connect(self._mark_chosen)

    def show_picture(self, picture: Picture) -> None:
        """Draw the cards of a chart; the same chart is not drawn twice."""
        layers = picture.build.chart.layers
        now = (picture.figure,)
        if self._shown and self._shown[0] is now[0]:
            return
        self._shown = now
        if [card.layer.key for card in self.cards] == [layer.key for layer in layers]:
            for card, layer in zip(self.cards, layers, strict=True):
                card.show_layer(layer, _only(picture, layer.key), self._is_chosen(layer.key))
            return
        while self._row.count():
            item = self._row.takeAt(0)
            widget = item.widget() if item is not None else None
            if widget is not None and widget is not self.add:
                widget.hide()
                widget.deleteLater()
        self.cards = []
        for layer in layers:
            card = LayerCard(layer, _only(picture, layer.key), self._is_chosen(layer.key), self._inside)
            card.clicked.connect(lambda key: self._store.select(Part("layer", key)))
            card.hide_wanted.connect(self.hide_wanted)
            card.menu_wanted.connect(self.menu_wanted)
            card.moved.connect(self._step)
            self.cards.append(card)
            self._row.addWidget(card)
        self._row.addWidget(self.add)
        self._row.addStretch(1)

    def _is_chosen(self, key: str) -> bool:
        return any(part.kind in ("layer", "mark", "label") and part.key == key for part in self._store.selection)

    def _mark_chosen(self) -> None:
        for card in self.cards:
            if card.chosen != self._is_chosen(card.layer.key):
                card.chosen = not card.chosen
                card.update()

    def card(self, key: str) -> LayerCard:
        return next(card for card in self.cards if card.layer.key == key)

    def _step(self, key: str, by: int) -> None:
        keys = [card.layer.key for card in self.cards]
        self.put(key, max(0, min(len(keys) - 1, keys.index(key) + by)))

    def put(self, key: str, place: int) -> None:
        """Put a layer at another place of the order."""
        keys = [card.layer.key for card in self.cards]
        if key in keys and keys.index(key) != place:
            keys.remove(key)
            keys.insert(place, key)
            self.order_wanted.emit(keys)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasFormat(MIME):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        key = bytes(event.mimeData().data(MIME).data()).decode()
        x = self._inside.mapFrom(self, event.position().toPoint()).x()
        others = [card for card in self.cards if card.layer.key != key]
        place = sum(card.geometry().center().x() < x for card in others)
        event.acceptProposedAction()
        self.put(key, place)


def _only(picture: Picture, key: str) -> Scene:
    """The chart with nothing but one layer; a helper's marks as they would be drawn."""
    figure = picture.figure
    marks = tuple(mark for mark in figure.marks if mark.key == key)
    texts = tuple(text for text in figure.texts if text.key == key and text.kind == "label")
    only_texts = not any(mark.visible for mark in marks)
    own = None if figure.painted is None else tuple(
        item for item in figure.painted if item.mark is not None and item.mark.key == key
    )  # fmt: skip
    bare = msgspec.structs.replace(
        figure,
        painted=own,
        marks=marks,
        texts=texts if only_texts else (),
        under=(),
        over=(),
        keys=(),
        title="",
        alt_text="",
    )
    scene = draw(bare)
    if only_texts and not texts:
        from kavlet.core.scene.path import recorded
        from kavlet.core.scene.primitives import Shape
        from kavlet.core.shapes.box import box

        colour = figure.ground.faded(0.0)
        line = figure.texts[0].colour.faded(0.45) if figure.texts else colour
        items = tuple(Shape(recorded(box, mark.bounds), None, line, 3.0, dash=(6.0, 4.0)) for mark in marks)
        scene = msgspec.structs.replace(scene, items=items)
    return msgspec.structs.replace(scene, ground=None)
