"""What the Stage paints over the chart: outlines of what is lit, chosen and hovered, and why there is no chart."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPen

from kavlet.core.interaction.parts import Part
from kavlet.core.layout.figure import Figure
from kavlet.desktop.stage import hit_testing
from kavlet.desktop.stylesheet import colours, qcolor
from kavlet.paint.painter import qpath

AIR_AROUND = 5.0  # pixels between words and the outline that marks them, which must not touch them
AIR = 20.0  # pixels around the box that says why there is no chart


def paint_lit(figure: Figure, rows: frozenset[int], painter: QPainter) -> None:
    """An outline around the marks that the selected cells drive."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    pen = QPen(qcolor(colours().second), 2)
    pen.setCosmetic(True)
    painter.setPen(pen)
    for mark in figure.marks:
        if mark.row in rows and mark.kind.is_lit and mark.visible and mark.path is not None:
            painter.drawPath(qpath(mark.path))


def paint_chosen(figure: Figure, chosen: tuple[Part, ...], hovered: Part | None, painter: QPainter) -> None:
    """Outlines around what is chosen (solid) and what is hovered (dotted)."""
    c = colours()
    painter.setBrush(Qt.BrushStyle.NoBrush)
    shown = [(part, Qt.PenStyle.SolidLine, c.accent) for part in chosen]
    if hovered is not None and hovered.kind != "plot":
        shown.append((hovered, Qt.PenStyle.DotLine, c.ink))
    for part, style, colour in shown:
        path = hit_testing.outline(figure, part, AIR_AROUND / painter.transform().m11())
        for width, hex_text, line in ((3.5, c.panel, Qt.PenStyle.SolidLine), (1.75, colour, style)):
            pen = QPen(qcolor(hex_text), width, line)
            pen.setCosmetic(True)
            painter.setPen(pen)
            painter.drawPath(path)


def paint_problem(problem: str, area: QRectF, painter: QPainter) -> None:
    """The sentence that says why there is no chart, in a box in the middle."""
    c = colours()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    width = min(460.0, area.width() - 2.0 * AIR)
    flags = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextWordWrap
    text = painter.boundingRect(QRectF(0, 0, width - 48, 400), flags, problem)
    box = QRectF((area.width() - width) / 2, (area.height() - text.height() - 36) / 2, width, text.height() + 36)
    painter.setPen(QPen(qcolor(c.alarm), 1))
    painter.setBrush(qcolor(c.panel))
    painter.drawRoundedRect(box, 6, 6)
    painter.fillRect(QRectF(box.left(), box.top() + 8, 4, box.height() - 16), qcolor(c.alarm))
    painter.setPen(qcolor(c.ink))
    painter.drawText(box.adjusted(24, 0, -24, 0), flags, problem)
