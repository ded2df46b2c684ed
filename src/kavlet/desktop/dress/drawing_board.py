"""A shape of the author's own: drawn with mouse or pen, smoothed to few curves, mirrored, edited by its points."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QCheckBox,
    QDialog,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QSlider,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.messages import counted, words
from kavlet.core.shapes.freehand import Outline, mirrored, moved, outline, path_data, turning, without
from kavlet.core.values.geometry import Point
from kavlet.desktop.dress.fields import ChoiceField
from kavlet.desktop.stylesheet import CORNER, UNIT, colours, qcolor

SIDE = 380  # pixels, of the board
GRAB = 9  # pixels from a point by which it is taken
FINEST, COARSEST = 10, 120  # tenths of a pixel that curves may miss the stroke by
DRAW, POINTS = "draw", "points"


class Board(QWidget):
    """The sheet that is drawn on. Strokes are closed; one inside another is a hole."""

    changed = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setFixedSize(QSize(SIDE, SIDE))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(words("Sheet to draw on"))
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.outlines: list[Outline] = []
        self._strokes: list[list[Point] | None] = []  # what each outline was made of; None once it was edited
        self._stroke: list[Point] = []
        self._held: tuple[int, int] | None = None
        self.mode, self.mirrors, self.tolerance = DRAW, False, 3.0

    # What is drawn

    @property
    def shown(self) -> list[Outline]:
        """All outlines, with their mirror images where the sheet mirrors."""
        if not self.mirrors:
            return self.outlines
        return [*self.outlines, *(mirrored(one, SIDE / 2) for one in self.outlines)]

    @property
    def data(self) -> str:
        """What was drawn, as SVG path data; empty where nothing was."""
        return path_data(turning([one for one in self.shown if one]))

    def add_stroke(self, points: list[Point]) -> None:
        """Take a stroke, smoothed; one that encloses nothing is forgotten."""
        made = outline(points, self.tolerance)
        if made:
            self.outlines.append(made)
            self._strokes.append(points)
            self._held = None
            self._tell()

    def take_back(self) -> None:
        """Forget the last stroke."""
        if self.outlines:
            self.outlines.pop()
            self._strokes.pop()
            self._held = None
            self._tell()

    def clear(self) -> None:
        self.outlines, self._strokes, self._held = [], [], None
        self._tell()

    def smooth(self, tolerance: float) -> None:
        """Fit all strokes anew that were not edited by their points."""
        self.tolerance = tolerance
        for i, stroke in enumerate(self._strokes):
            if stroke is not None:
                self.outlines[i] = outline(stroke, tolerance) or self.outlines[i]
        self._tell()

    def _tell(self) -> None:
        self.update()
        self.changed.emit()

    # Points

    def points(self) -> list[tuple[int, int, Point]]:
        """The points that can be moved: which outline, which of its curves starts there, where."""
        return [(i, k, curve.start) for i, drawn in enumerate(self.outlines) for k, curve in enumerate(drawn)]

    def choose(self, place: tuple[int, int] | None) -> None:
        """Choose a point, to be moved or taken out."""
        self._held = place
        self.update()

    def move_chosen(self, to: Point) -> None:
        """Put the chosen point elsewhere, on the sheet."""
        if self._held is None:
            return
        i, k = self._held
        inside = min(max(to[0], 0.0), float(SIDE)), min(max(to[1], 0.0), float(SIDE))
        self.outlines[i] = moved(self.outlines[i], k, inside)
        self._strokes[i] = None
        self._tell()

    def remove_chosen(self) -> None:
        """Take the chosen point out."""
        if self._held is None:
            return
        i, k = self._held
        self.outlines[i] = without(self.outlines[i], k)
        self._strokes[i] = None
        self._held = (i, min(k, len(self.outlines[i]) - 1))
        self._tell()

    def _near(self, at: QPointF) -> tuple[int, int] | None:
        near = [(abs(x - at.x()) + abs(y - at.y()), i, k) for i, k, (x, y) in self.points()]
        far, i, k = min(near, default=(1e9, 0, 0))
        return (i, k) if far <= GRAB else None

    # Hands

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() != Qt.MouseButton.LeftButton:
            return
        if self.mode == POINTS:
            self.choose(self._near(event.position()))
        else:
            self._stroke = [(event.position().x(), event.position().y())]

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if not event.buttons() & Qt.MouseButton.LeftButton:
            return
        at = (event.position().x(), event.position().y())
        if self.mode == POINTS:
            self.move_chosen(at)
        else:
            self._stroke.append((min(max(at[0], 0.0), float(SIDE)), min(max(at[1], 0.0), float(SIDE))))
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        del event
        stroke, self._stroke = self._stroke, []
        if stroke and self.mode == DRAW:
            self.add_stroke(stroke)
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = 10.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0
        ways = {
            Qt.Key.Key_Left: (-step, 0.0), Qt.Key.Key_Right: (step, 0.0),
            Qt.Key.Key_Up: (0.0, -step), Qt.Key.Key_Down: (0.0, step),
        }  # fmt: skip
        key = Qt.Key(event.key())
        if self.mode == POINTS and key in ways and self._held is not None:
            x, y = self.outlines[self._held[0]][self._held[1]].start
            self.move_chosen((x + ways[key][0], y + ways[key][1]))
        elif self.mode == POINTS and key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.remove_chosen()
        elif self.mode == POINTS and key == Qt.Key.Key_Space and self.outlines:
            held = [(i, k) for i, k, _ in self.points()]
            at = held.index(self._held) if self._held in held else -1
            self.choose(held[(at + 1) % len(held)])
        else:
            super().keyPressEvent(event)

    # Picture

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        c = colours()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(qcolor(c.accent if self.hasFocus() else c.line), 1))
        painter.setBrush(qcolor(c.panel))
        painter.drawRoundedRect(QRectF(0.5, 0.5, SIDE - 1, SIDE - 1), CORNER, CORNER)
        if self.mirrors:
            painter.setPen(QPen(qcolor(c.line), 1, Qt.PenStyle.DashLine))
            painter.drawLine(QPointF(SIDE / 2, 6), QPointF(SIDE / 2, SIDE - 6))
        fill = QColor(qcolor(c.accent))
        fill.setAlphaF(0.75 if self.mode == DRAW else 0.35)
        painter.setPen(QPen(qcolor(c.accent), 1))
        painter.setBrush(fill)
        painter.drawPath(_drawn(turning([one for one in self.shown if one])))
        if len(self._stroke) > 1:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(qcolor(c.second), 2))
            painter.drawPolyline([QPointF(x, y) for x, y in self._stroke])
        if self.mode == POINTS:
            for i, k, (x, y) in self.points():
                painter.setPen(QPen(qcolor(c.ink), 1))
                painter.setBrush(qcolor(c.second if (i, k) == self._held else c.panel))
                painter.drawRect(QRectF(x - 3.5, y - 3.5, 7, 7))
        if not self.outlines and not self._stroke:
            painter.setPen(qcolor(c.quiet))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, words("Draw an outline; it closes itself"))
        painter.end()


def _drawn(outlines: list[Outline]) -> QPainterPath:
    path = QPainterPath()
    path.setFillRule(Qt.FillRule.WindingFill)
    for drawn in outlines:
        path.moveTo(*drawn[0].start)
        for curve in drawn:
            path.cubicTo(*curve.one, *curve.two, *curve.end)
        path.closeSubpath()
    return path


class DrawingBoard(QDialog):
    """`kept` hands on a name and SVG path data, to be a symbol of the document's own."""

    kept = Signal(str, str)

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(words("Draw a symbol"))
        self.board = Board()
        self.board.changed.connect(self._refresh)
        self.mode = ChoiceField(words("What the mouse does"), [(DRAW, words("draw")), (POINTS, words("move points"))])
        self.mode.show_choice(DRAW)
        self.mode.chosen.connect(self._choose_mode)
        self.mirror = QCheckBox(words("Mirror left and right"))
        self.mirror.clicked.connect(self._mirror)
        self.smooth = QSlider(Qt.Orientation.Horizontal)
        self.smooth.setRange(FINEST, COARSEST)
        self.smooth.setValue(round(self.board.tolerance * 10))
        self.smooth.setAccessibleName(words("How smooth"))
        self.smooth.setToolTip(words("Fewer curves, or nearer to the stroke"))
        self.smooth.valueChanged.connect(lambda value: self.board.smooth(value / 10))
        self.back = QPushButton(words("Forget the last stroke"))
        self.back.clicked.connect(self.board.take_back)
        self.wipe = QPushButton(words("Clear"))
        self.wipe.clicked.connect(self.board.clear)
        self.says = QLabel()
        self.says.setObjectName("quiet")
        self.says.setWordWrap(True)
        self.name = QLineEdit(name)
        self.name.setAccessibleName(words("Name"))
        self.keep = QPushButton(words("Keep in the document"))
        self.keep.setObjectName("main")
        self.keep.clicked.connect(self._keep)
        self._lay_out()
        self._refresh()

    def _lay_out(self) -> None:
        side = QVBoxLayout()
        side.setSpacing(2 * UNIT)
        smooth = QLabel(words("How smooth"))
        named = QLabel(words("Name"))
        for label in (smooth, named):
            label.setObjectName("quiet")
        for widget in (self.mode, self.mirror, smooth, self.smooth, self.back, self.wipe, self.says):
            side.addWidget(widget)
        side.addStretch(1)
        for held in (named, self.name, self.keep):
            side.addWidget(held)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(5 * UNIT)
        layout.addWidget(self.board)
        layout.addLayout(side)

    def _choose_mode(self, mode: str) -> None:
        self.board.mode = mode
        self.board.choose(None)
        self.board.setFocus()
        self._refresh()

    def _mirror(self, on: bool) -> None:
        self.board.mirrors = on
        self.board.update()
        self._refresh()

    def _refresh(self) -> None:
        curves = sum(map(len, self.board.outlines))
        if self.board.mode == POINTS:
            said = words("Drag a point; or choose one by the space bar, move it by arrow keys, take it out by Delete.")
        else:
            said = words("An outline inside another is a hole.")
        count = counted("{count} point.", "{count} points.", curves)
        self.says.setText(f"{count} {said}" if curves else said)
        for button in (self.back, self.wipe, self.keep):
            button.setEnabled(bool(self.board.outlines))

    def _keep(self) -> None:
        self.kept.emit(self.name.text().strip() or words("drawing"), self.board.data)
        self.accept()
