"""Rulers above and beside the page, in the unit chosen, with what is chosen marked on them."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSettings, Qt
from PySide6.QtGui import QColor, QFont, QPainter, QPen

from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.sizes import MM
from kavlet.desktop.stylesheet import colours, qcolor

POINTS = "lengths in points"
BREADTH = 16.0  # pixels
MIN_GAP = 34.0  # pixels between two numbers
STEPS = (1, 2, 5, 10, 20, 50, 100, 200, 500, 1000)
TICK, HALF = 5.0, 3.0  # pixels


def in_points() -> bool:
    """Whether lengths on pages are given in points instead of millimetres."""
    return str(QSettings().value(POINTS, "")) == "yes"


def choose_points(on: bool) -> None:
    """Give lengths in points, or in millimetres."""
    QSettings().setValue(POINTS, "yes" if on else "")


def paint_rulers(
    painter: QPainter, on_screen: Callable[[Rect], QRectF], size: Size, chosen: Rect | None, room: QRectF
) -> None:
    """Ticks along the upper and left side of the room, numbered from the page's corner."""
    c = colours()
    sheet = on_screen(Rect(0.0, 0.0, size.width, size.height))
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
    for band in (QRectF(room.x(), room.y(), room.width(), BREADTH), QRectF(room.x(), room.y(), BREADTH, room.height())):
        painter.fillRect(band, qcolor(c.panel))
    if chosen is not None:
        marked = QColor(c.accent)
        marked.setAlpha(60)
        box = on_screen(chosen)
        painter.fillRect(QRectF(box.x(), room.y(), box.width(), BREADTH), marked)
        painter.fillRect(QRectF(room.x(), box.y(), BREADTH, box.height()), marked)
    font = QFont(painter.font())
    font.setPixelSize(9)
    painter.setFont(font)
    painter.setPen(QPen(qcolor(c.quiet), 1))
    unit = 1.0 if in_points() else MM
    by = sheet.width() / size.width * unit
    step = next((one for one in STEPS if one * by >= MIN_GAP), STEPS[-1])
    for level, long, start in ((True, size.width, sheet.x()), (False, size.height, sheet.y())):
        count = int(long / unit / step + 1e-6)
        for number in range(2 * count + 2):
            value = number * step / 2
            if value > long / unit + 1e-6:
                break
            _tick(painter, start + value * by, room, level, f"{value:g}" if number % 2 == 0 else "")
    painter.fillRect(QRectF(room.x(), room.y(), BREADTH, BREADTH), qcolor(c.panel))
    painter.setPen(QPen(qcolor(c.line), 1))
    painter.drawLine(QPointF(room.x(), room.y() + BREADTH), QPointF(room.right(), room.y() + BREADTH))
    painter.drawLine(QPointF(room.x() + BREADTH, room.y()), QPointF(room.x() + BREADTH, room.bottom()))
    painter.restore()


def _tick(painter: QPainter, at: float, room: QRectF, level: bool, text: str) -> None:
    """One tick, with its number where it has one."""
    long = TICK if text else HALF
    if level:
        painter.drawLine(QPointF(at, room.y() + BREADTH - long), QPointF(at, room.y() + BREADTH))
        painter.drawText(QPointF(at + 2, room.y() + 10), text)
        return
    painter.drawLine(QPointF(room.x() + BREADTH - long, at), QPointF(room.x() + BREADTH, at))
    if text:
        painter.save()
        painter.translate(room.x() + 10, at - 2)
        painter.rotate(-90)
        painter.drawText(QRectF(0, -9, 40, 12), Qt.AlignmentFlag.AlignLeft, text)
        painter.restore()
