"""How grave a finding is, as a small mark: a ring for a note, a triangle for a warning, a square for an error."""

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QIcon, QPainter, QPen, QPolygonF

from kavlet.core.proof.finding import Severity
from kavlet.desktop.drawn_icon import drawn_icon
from kavlet.desktop.stylesheet import colours, qcolor

SIDE = 14


def mark(severity: Severity, silenced: bool = False) -> QIcon:
    """The mark of a severity; pale where the finding is silenced."""
    c = colours()
    tone = qcolor(c.line if silenced else {"note": c.second, "warning": c.alarm, "error": c.alarm}[severity])

    def draw(painter: QPainter) -> None:
        painter.setPen(QPen(tone, 1.6))
        if severity == "note":
            painter.drawEllipse(QRectF(3.5, 3.5, 7, 7))
            return
        painter.setBrush(tone)
        if severity == "warning":
            painter.drawPolygon(QPolygonF([QPointF(7, 2.5), QPointF(12, 11.5), QPointF(2, 11.5)]))
        else:
            painter.drawRect(QRectF(3, 3, 8, 8))

    return drawn_icon(SIDE, draw)
