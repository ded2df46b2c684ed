"""The chart on its sheet, drawn from its scene; when the table does not fit, the sentence that says why."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from kavlet.core.build import Picture
from kavlet.core.compose.figure import Mark
from kavlet.core.values.errors import KavletError
from kavlet.desktop.look import colours, qcolor
from kavlet.desktop.store import Store
from kavlet.paint.painter import paint, qpath

AIR = 20  # pixels around the sheet
LARGEST = 1.75  # pixels per point; a chart is not blown up further to fill the window


class StageView(QWidget):
    """Draws the chart in view as large as it fits; keeps the last good one, faded, while there is none.

    `picked` tells the row of a mark that was clicked, counted from the first row of figures.
    """

    picked = Signal(int)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._picture: Picture | None = None
        self.problem = ""
        self._lit: frozenset[int] = frozenset()
        self.setMouseTracking(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(self.tr("Stage"))
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)  # it fills its ground itself, and so repaints alone
        store.changed.connect(self.refresh)
        self.refresh()

    @property
    def picture(self) -> Picture | None:
        """The last chart that could be drawn."""
        return self._picture

    def sizeHint(self) -> QSize:
        return QSize(640, 400)

    def refresh(self) -> None:
        """Run the chart through its stages, and repaint."""
        try:
            self._picture = self._store.picture()
            self.problem = ""
        except KavletError as error:
            self.problem = str(error)
        if self._store.chart is None:
            self._picture = None
        self.setAccessibleDescription(self.problem or (self._picture.figure.alt_text if self._picture else ""))
        self.update()

    def sheet(self) -> QRectF:
        """Where the chart's sheet lies in the widget, in pixels."""
        if self._picture is None:
            return QRectF()
        size = self._picture.scene.size
        room_width, room_height = max(1.0, self.width() - 2 * AIR), max(1.0, self.height() - 2 * AIR)
        scale = min(room_width / size.width, room_height / size.height, LARGEST)
        width, height = size.width * scale, size.height * scale
        return QRectF((self.width() - width) / 2, (self.height() - height) / 2, width, height)

    def light(self, rows: frozenset[int]) -> None:
        """Outline the marks of these rows: those whose cells are selected."""
        if rows != self._lit:
            self._lit = rows
            self.update()

    def mark_at(self, at: QPointF) -> Mark | None:
        """The frontmost visible mark at a place of the widget."""
        sheet = self.sheet()
        if self._picture is None or self.problem or not sheet.contains(at):
            return None
        factor = sheet.width() / self._picture.scene.size.width
        point = QPointF((at.x() - sheet.x()) / factor, (at.y() - sheet.y()) / factor)
        marks = [mark for mark in self._picture.figure.marks if mark.visible and mark.path is not None]
        return next((mark for mark in reversed(marks) if mark.path and qpath(mark.path).contains(point)), None)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        mark = self.mark_at(event.position())
        self.setToolTip(mark.says if mark is not None else "")
        self.setCursor(Qt.CursorShape.PointingHandCursor if mark is not None else Qt.CursorShape.ArrowCursor)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        mark = self.mark_at(event.position())
        if mark is not None:
            self.picked.emit(mark.row)

    def _paint_lit(self, painter: QPainter) -> None:
        """An outline around the marks that the selected cells drive."""
        if self._picture is None:
            return
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        pen = QPen(qcolor(colours().second), 2)
        pen.setCosmetic(True)
        painter.setPen(pen)
        for mark in self._picture.figure.marks:
            if mark.row in self._lit and mark.type != "flank" and mark.visible and mark.path is not None:
                painter.drawPath(qpath(mark.path))

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        c = colours()
        painter.fillRect(self.rect(), qcolor(c.panel))
        if self._picture is not None:
            sheet = self.sheet()
            painter.save()
            painter.setOpacity(0.25 if self.problem else 1.0)
            painter.translate(sheet.topLeft())
            factor = sheet.width() / self._picture.scene.size.width
            painter.scale(factor, factor)
            paint(self._picture.scene, painter)
            if not self.problem:
                self._paint_lit(painter)
            painter.restore()
            painter.setPen(QPen(qcolor(c.line), 1))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(sheet)
        if self.problem:
            self._paint_problem(painter)
        painter.end()

    def _paint_problem(self, painter: QPainter) -> None:
        c = colours()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        width = min(460.0, self.width() - 2.0 * AIR)
        flags = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextWordWrap
        text = painter.boundingRect(QRectF(0, 0, width - 48, 400), flags, self.problem)
        box = QRectF((self.width() - width) / 2, (self.height() - text.height() - 36) / 2, width, text.height() + 36)
        painter.setPen(QPen(qcolor(c.alarm), 1))
        painter.setBrush(qcolor(c.panel))
        painter.drawRoundedRect(box, 6, 6)
        painter.fillRect(QRectF(box.left(), box.top() + 8, 4, box.height() - 16), qcolor(c.alarm))
        painter.setPen(qcolor(c.ink))
        painter.drawText(box.adjusted(24, 0, -24, 0), flags, self.problem)
