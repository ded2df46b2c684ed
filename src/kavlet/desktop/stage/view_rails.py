"""Two rails at the Stage's edge that turn and tilt a solid chart, one axis each."""

from typing import Literal

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QHBoxLayout, QSlider, QVBoxLayout, QWidget

from kavlet.core.charts.solid import MAX_ANGLE
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables import input_parsing
from kavlet.core.interaction.offers import ANGLE
from kavlet.core.messages import Message, say, words
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT, colours, qcolor

Turned = Literal["turn", "tilt"]
FINE = 10  # steps to a degree
STEP, LEAP = 1, 15  # degrees of an arrow key and of a page key
TICK = 15  # degrees from tick to tick
ROOM = 9  # pixels at the ends of a rail, so that its grip has room


class RailTrack(QSlider):
    """The rail itself: a line with a tick each 15 degrees and a grip. Clicking it puts the grip there."""

    reset = Signal()
    given_up = Signal()

    def __init__(self, orientation: Qt.Orientation, parent: QWidget | None = None) -> None:
        super().__init__(orientation, parent)
        most = round(MAX_ANGLE * FINE)
        self.setRange(-most, most)
        self.setSingleStep(STEP * FINE)
        self.setPageStep(LEAP * FINE)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        if orientation == Qt.Orientation.Horizontal:
            self.setFixedHeight(22)
        else:
            self.setFixedWidth(22)
            self.setInvertedAppearance(True)  # further down tilts what is above toward the reader
            self.setInvertedControls(True)

    @property
    def _level(self) -> bool:
        return self.orientation() == Qt.Orientation.Horizontal

    def place(self, value: float) -> float:
        """Where along the rail a value lies, in pixels."""
        long = (self.width() if self._level else self.height()) - 2 * ROOM
        return ROOM + (value - self.minimum()) / (self.maximum() - self.minimum()) * long

    def _value_at(self, at: QPointF) -> int:
        along = at.x() if self._level else at.y()
        long = (self.width() if self._level else self.height()) - 2 * ROOM
        share = min(1.0, max(0.0, (along - ROOM) / max(1.0, long)))
        value = self.minimum() + share * (self.maximum() - self.minimum())
        return 0 if abs(value) < 1.5 * FINE else round(value / FINE) * FINE  # catches at the front; whole degrees

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.setFocus()
            self.setSliderDown(True)
            self.setSliderPosition(self._value_at(event.position()))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.isSliderDown():
            self.setSliderPosition(self._value_at(event.position()))

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        del event
        if self.isSliderDown():
            self.setSliderDown(False)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        del event
        self.reset.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self.isSliderDown():
            self.blockSignals(True)
            self.setSliderDown(False)
            self.blockSignals(False)
            self.given_up.emit()
        elif event.key() in (Qt.Key.Key_Home, Qt.Key.Key_0):
            self.reset.emit()
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        c = colours()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if not self._level:  # painted as a level one, then turned
            painter.rotate(90)
            painter.scale(1, -1)
        across = self.height() if self._level else self.width()
        middle = across / 2
        painter.setPen(QPen(qcolor(c.line), 1.5))
        painter.drawLine(QPointF(ROOM, middle), QPointF(self.place(self.maximum()), middle))
        painter.setPen(QPen(qcolor(c.quiet), 1))
        for angle in range(-round(MAX_ANGLE), round(MAX_ANGLE) + 1, TICK):
            reach = 5.0 if angle == 0 else 3.0 if angle % 45 == 0 else 1.5
            at = self.place(angle * FINE)
            painter.drawLine(QPointF(at, middle - reach), QPointF(at, middle + reach))
        zero, here = self.place(0), self.place(self.sliderPosition())
        painter.setPen(QPen(qcolor(c.accent), 2))
        painter.drawLine(QPointF(zero, middle), QPointF(here, middle))
        grip = QPolygonF([QPointF(here, middle - 7), QPointF(here + 6, middle), QPointF(here, middle + 7),
                          QPointF(here - 6, middle)])  # fmt: skip
        painter.setPen(QPen(qcolor(c.ink if self.hasFocus() else c.accent), 2 if self.hasFocus() else 1))
        painter.setBrush(qcolor(c.accent if self.isSliderDown() else c.panel))
        painter.drawPolygon(grip)
        painter.setBrush(qcolor(c.accent))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawEllipse(QRectF(here - 1.5, middle - 1.5, 3, 3))
        painter.end()


class Rail(QWidget):
    """One rail with its angle, which can be typed. Moving only tries out; letting go takes it, as one edit."""

    def __init__(self, store: Store, axis: Turned, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store, self._axis = store, axis
        level = axis == "turn"
        self.groove = RailTrack(Qt.Orientation.Horizontal if level else Qt.Orientation.Vertical)
        name = words("Turn") if level else words("Tilt")
        self.groove.setAccessibleName(name)
        hint = words("{angle}: drag, arrow keys or type; double-click goes back to the front", angle=name)
        self.groove.setToolTip(hint)
        self.field = TextField(name)
        self.field.setToolTip(hint)
        self.field.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.field.setFixedWidth(46)
        layout = QHBoxLayout(self) if level else QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addWidget(self.groove, 1, Qt.AlignmentFlag.AlignVCenter if level else Qt.AlignmentFlag.AlignHCenter)
        layout.addWidget(self.field)
        self.groove.valueChanged.connect(self._moved)
        self.groove.sliderMoved.connect(self._moved)
        self.groove.sliderReleased.connect(lambda: self.take(self.groove.value() / FINE))
        self.groove.reset.connect(lambda: self.take(0.0))
        self.groove.given_up.connect(lambda: store.try_out(None))
        self.field.committed.connect(self._typed)
        store.follow(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show how far the chart is turned; hidden where it is flat."""
        solid = self._store.picture.build.chart.as_solid
        self.setVisible(solid is not None)
        if solid is None:
            return
        angle = float(getattr(solid, self._axis))
        if not self.groove.isSliderDown():
            self.groove.blockSignals(True)
            self.groove.setValue(round(angle * FINE))
            self.groove.blockSignals(False)
        self.groove.update()
        self.field.show_text(input_parsing.shown(angle, self._store.document.locale).replace("-", "−") + "°")

    def _moved(self, value: int) -> None:
        """Try an angle out while the grip is held; a key's step is taken at once."""
        if self.groove.isSliderDown():
            looks = {f"solid.{self._axis}": value / FINE}
            self._store.try_out(look_edits.set_looks(self._store.document, self._store.here.id, looks))
        else:
            self.take(value / FINE)

    def take(self, angle: float) -> None:
        """Turn the chart, as one edit."""
        looks = {f"solid.{self._axis}": round(min(MAX_ANGLE, max(-MAX_ANGLE, angle)), 1)}
        self._store.edit_chart(self._name, lambda document, chart: look_edits.set_looks(document, chart.id, looks))

    @property
    def _name(self) -> Message:
        return say("turn") if self._axis == "turn" else say("tilt")

    def _typed(self, text: str) -> None:
        def edit(document: Document, chart: ChartEntry) -> Document:
            angle = input_parsing.look(document, self._store.values, chart.table, ANGLE[self._axis], text)
            return look_edits.set_looks(document, chart.id, {ANGLE[self._axis].path: angle})

        self._store.edit_chart(self._name, edit)
