"""X-ray: how the chart is made. Helpers hatched with name and figure, the plot's box, the ends of the scale."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QFont, QPainter, QPen

from kavlet.core.layout.figure import Mark
from kavlet.core.messages import named, shown_number
from kavlet.core.pipeline.stages import Picture
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import NumberText
from kavlet.desktop.stylesheet import colours, qcolor
from kavlet.paint.painter import qpath


def paint_xray(picture: Picture, painter: QPainter) -> None:
    """Painted over the chart, in its points."""
    figure, c = picture.figure, colours()
    helper = QColor(c.helper_line)
    font = QFont("Fira Sans")
    font.setPixelSize(9)
    painter.setFont(font)
    pen = QPen(helper, 1, Qt.PenStyle.DashLine)
    pen.setCosmetic(True)
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    plot = figure.plot
    painter.drawRect(QRectF(plot.x, plot.y, plot.width, plot.height))
    for mark in figure.marks:
        if not mark.visible and mark.kind.shows_helpers:
            _paint_helper(mark, painter, helper)
    painter.setPen(qcolor(c.quiet))
    for axis in figure.axes:
        how = NumberText(most_decimals=2)
        low, high = written(axis.minimum, how), written(axis.maximum, how)
        text = f"{named(axis.name)}: {low} … {high}"
        at = QPointF(plot.x + 2, plot.bottom - 3) if axis.name in ("x", "angle") else QPointF(plot.x + 2, plot.y + 9)
        painter.drawText(at, text)


def _paint_helper(mark: Mark, painter: QPainter, colour: QColor) -> None:
    """A helper's box, or a hidden wedge's sector, hatched, with its name and figure."""
    box = QRectF(mark.bounds.x, mark.bounds.y, mark.bounds.width, mark.bounds.height)
    if box.isEmpty():
        return
    brush = QBrush(colour, Qt.BrushStyle.BDiagPattern)
    painter.setBrush(brush)
    if mark.sector is not None and mark.sector.end > mark.sector.start:
        from kavlet.core.scene.path import recorded
        from kavlet.core.shapes.arc import wedge

        painter.drawPath(qpath(recorded(wedge, mark.sector)))
    else:
        painter.drawRect(box)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    text = f"{mark.layer} {shown_number(mark.value)}"
    if painter.fontMetrics().horizontalAdvance(text) < box.width() - 4:
        painter.save()
        painter.setPen(qcolor(colours().ink))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.restore()
