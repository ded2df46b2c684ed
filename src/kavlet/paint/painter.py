"""Draws a scene with QPainter, in points from the scene's top left corner."""

from functools import lru_cache

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QFont, QGlyphRun, QPainter, QPainterPath, QPen, QRawFont

from kavlet.core.scene.path import Path
from kavlet.core.scene.primitives import Scene, Shape, Writing
from kavlet.core.text.faces import FACES
from kavlet.core.text.shaping import shape
from kavlet.core.values.colour import Colour


class QtPen:
    """Draws outlines into a QPainterPath."""

    def __init__(self) -> None:
        self.path = QPainterPath()
        self.path.setFillRule(Qt.FillRule.WindingFill)

    def move_to(self, x: float, y: float) -> None:
        self.path.moveTo(x, y)

    def line_to(self, x: float, y: float) -> None:
        self.path.lineTo(x, y)

    def curve_to(self, x1: float, y1: float, x2: float, y2: float, x: float, y: float) -> None:
        self.path.cubicTo(x1, y1, x2, y2, x, y)

    def close(self) -> None:
        self.path.closeSubpath()


def paint(scene: Scene, painter: QPainter) -> None:
    """Paint a scene; the painter's own transform decides place and scale."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    if scene.ground is not None:
        painter.fillRect(QRectF(0, 0, scene.size.width, scene.size.height), qcolor(scene.ground))
    for item in scene.items:
        if isinstance(item, Shape):
            _paint_shape(item, painter)
        else:
            _paint_writing(item, painter)


def qcolor(colour: Colour) -> QColor:
    return QColor.fromRgbF(*colour.rgb, colour.alpha)


@lru_cache(maxsize=4096)
def qpath(path: Path) -> QPainterPath:
    """The painter's path of an outline; kept, since most outlines outlive many repaints."""
    pen = QtPen()
    path.draw(pen)
    return pen.path


def _paint_shape(item: Shape, painter: QPainter) -> None:
    brush = QBrush(qcolor(item.fill)) if item.fill is not None else QBrush(Qt.BrushStyle.NoBrush)
    edge = QPen(qcolor(item.edge), item.edge_width) if item.edge is not None else QPen(Qt.PenStyle.NoPen)
    painter.setBrush(brush)
    painter.setPen(edge)
    painter.drawPath(qpath(item.path))


@lru_cache(maxsize=256)
def raw_font(face: str, size: float) -> QRawFont:
    """The shipped face at a size, without hinting, so that glyphs stand where they were measured.

    It is found by its family, not loaded from its bytes: Qt embeds only fonts with a file name in a PDF.
    """
    of = FACES[face]
    font = QFont([of.css_family])
    font.setPixelSize(64)
    font.setWeight(QFont.Weight(of.weight))
    font.setItalic(of.italic)
    font.setHintingPreference(QFont.HintingPreference.PreferNoHinting)
    raw = QRawFont.fromFont(font)
    raw.setPixelSize(size)
    return raw


@lru_cache(maxsize=2048)
def _glyphs(text: str, face: str, size: float) -> QGlyphRun:
    run = shape(text, face)
    glyphs = QGlyphRun()
    glyphs.setRawFont(raw_font(face, size))
    glyphs.setGlyphIndexes(list(run.glyphs))
    glyphs.setPositions([QPointF(x * size, y * size) for x, y in zip(run.xs, run.ys, strict=True)])
    return glyphs


def _paint_writing(item: Writing, painter: QPainter) -> None:
    painter.setPen(qcolor(item.colour))
    if shape(item.text, item.face).complete:
        painter.drawGlyphRun(QPointF(item.x, item.y), _glyphs(item.text, item.face, item.size))
        return
    # The face lacks a character: the system's fonts stand in, fitted into the measured width.
    face = FACES[item.face]
    font = QFont([face.css_family])
    font.setPixelSize(max(1, round(item.size)))
    font.setBold(face.weight == 700)
    painter.setFont(font)
    advance = painter.fontMetrics().horizontalAdvance(item.text)
    painter.save()
    painter.translate(item.x, item.y)
    if advance:
        painter.scale(item.width / advance, 1.0)
    painter.drawText(QPointF(0, 0), item.text)
    painter.restore()
