"""Draws a scene with QPainter, in points from the scene's top left corner."""

import math
import threading
from functools import lru_cache

from msgspec import structs
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFont,
    QGlyphRun,
    QGradient,
    QImage,
    QLinearGradient,
    QPaintEngine,
    QPainter,
    QPainterPath,
    QPen,
    QRadialGradient,
    QRawFont,
    QTransform,
)

from kavlet.core.scene.hatching import expanded
from kavlet.core.scene.paints import Hatch, LinearGradient, RadialGradient
from kavlet.core.scene.path import CLOSE, CURVE, LINE, MOVE, Path, recorded
from kavlet.core.scene.primitives import Group, Image, Primitive, Scene, Shape, Stamp, Writing
from kavlet.core.text.faces import face_of
from kavlet.core.text.shaping import outline, shape
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

FAINT = 0.1  # opacity below which an edge is hardly seen
LARGEST_GLYPHS = 60.0  # pixels; Qt 6.11 draws no glyph runs above 64
MITER = 4.0  # how far a mitred corner may reach, in widths of the edge, as in SVG
_NO_PEN, _NO_BRUSH = QPen(Qt.PenStyle.NoPen), QBrush(Qt.BrushStyle.NoBrush)
_STRAIGHT = MOVE + LINE
_CAPS = {"round": Qt.PenCapStyle.RoundCap, "flat": Qt.PenCapStyle.FlatCap}
_JOINS = {"round": Qt.PenJoinStyle.RoundJoin, "miter": Qt.PenJoinStyle.SvgMiterJoin}


def paint(scene: Scene, painter: QPainter, fine: bool = True, crisp: bool = False) -> None:
    """Paint a scene; the painter's own transform decides place and scale.

    Not `fine`, while a picture changes many times a second: edges of what is hardly seen, such as soft shadows, stay
    rough. `crisp`, on a screen: straight lines along the pixels fill whole ones, moved by half a pixel at most.
    """
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
    if scene.ground is not None:
        painter.fillRect(QRectF(0, 0, scene.size.width, scene.size.height), qcolor(scene.ground))
    for item in scene.items:
        line = _on_pixels(item, painter) if crisp and isinstance(item, Shape) else None
        _paint_item(line or item, painter, fine)


def _on_pixels(item: Shape, painter: QPainter) -> Shape | None:
    """A straight line along the pixels' rows or columns as one that fills whole pixels; None for all else."""
    c, to = item.path.coordinates, painter.deviceTransform()
    if item.edge is None or item.path.verbs != _STRAIGHT or item.place is not None or to.m12() or to.m21():
        return None
    lies = c[1] == c[3]
    if lies == (c[0] == c[2]) or not to.m11() or not to.m22():
        return None
    scale, offset = (to.m22(), to.dy()) if lies else (to.m11(), to.dx())
    thick = max(1, round(item.edge_width * abs(scale)))
    at = c[1 if lies else 0] * scale + offset
    at = (math.floor(at) + 0.5 if thick % 2 else round(at)) - offset
    place = at / scale
    ends = (c[0], place, c[2], place) if lies else (place, c[1], place, c[3])
    return structs.replace(item, path=Path(_STRAIGHT, ends), edge_width=thick / abs(scale))


def _paint_item(item: Primitive, painter: QPainter, fine: bool) -> None:
    clip = item.clip if not isinstance(item, Writing) else None
    if clip is not None:
        painter.save()
        painter.setClipPath(qpath(clip), Qt.ClipOperation.IntersectClip)
    match item:
        case Shape():
            rough = not fine and isinstance(item.fill, Colour) and item.fill.alpha < FAINT
            if rough:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
            _paint_shape(item, painter)
            if rough:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        case Stamp():
            _paint_stamp(item, painter)
        case Image():
            _paint_image(item, painter)
        case Writing():
            _paint_writing(item, painter)
        case Group():
            painter.save()
            painter.setTransform(qtransform(item.place), True)
            for one in item.items:
                _paint_item(one, painter, fine)
            painter.restore()
    if clip is not None:
        painter.restore()


@lru_cache(maxsize=8192)
def qcolor(colour: Colour) -> QColor:
    return QColor.fromRgbF(*colour.rgb, colour.alpha)


@lru_cache(maxsize=8192)
def qpath(path: Path) -> QPainterPath:
    """The painter's path of an outline; kept, since most outlines outlive many repaints."""
    made = QPainterPath()
    made.setFillRule(Qt.FillRule.WindingFill)
    at, c = 0, path.coordinates
    for verb in path.verbs:
        if verb == CURVE:
            made.cubicTo(c[at], c[at + 1], c[at + 2], c[at + 3], c[at + 4], c[at + 5])
            at += 6
        elif verb == CLOSE:
            made.closeSubpath()
        else:
            (made.lineTo if verb == LINE else made.moveTo)(c[at], c[at + 1])
            at += 2
    return made


def _paint_shape(item: Shape, painter: QPainter) -> None:
    if item.place is not None:
        painter.save()
        painter.setTransform(qtransform(item.place), True)
        _paint_outline(item, painter)
        painter.restore()
    else:
        _paint_outline(item, painter)


def _paint_outline(item: Shape, painter: QPainter) -> None:
    if item.edge is None and item.fill is None:
        return
    path = qpath(item.path)
    if isinstance(item.fill, Hatch):
        _paint_hatch(item.fill, path, painter)
        painter.setBrush(_NO_BRUSH)
    else:
        painter.setBrush(_NO_BRUSH if item.fill is None else _brush(item.fill))
    if item.edge is not None:
        pen = QPen(qcolor(item.edge), item.edge_width)
        pen.setJoinStyle(_JOINS[item.join])
        pen.setMiterLimit(MITER)
        pen.setCapStyle(_CAPS[item.cap])
        if item.dash:
            pen.setDashPattern([length / max(item.edge_width, 1e-6) for length in item.dash])
        painter.setPen(pen)
    else:
        painter.setPen(_NO_PEN)
    if not (isinstance(item.fill, Hatch) and item.edge is None):
        painter.drawPath(path)


@lru_cache(maxsize=512)
def _brush(fill: Colour | LinearGradient | RadialGradient) -> QBrush:
    made: QGradient
    match fill:
        case Colour():
            return QBrush(qcolor(fill))
        case LinearGradient():
            made = QLinearGradient(fill.x1, fill.y1, fill.x2, fill.y2)
        case RadialGradient():
            made = QRadialGradient(fill.x, fill.y, fill.radius)
    for offset, colour in fill.stops:
        made.setColorAt(offset, qcolor(colour))
    return QBrush(made)


def _paint_hatch(hatch: Hatch, path: QPainterPath, painter: QPainter) -> None:
    """A hatch as lines or dots cut by the outline, so that it stays vector in a PDF."""
    if hatch.ground is not None:
        painter.fillPath(path, QBrush(qcolor(hatch.ground)))
    box = path.boundingRect()
    if box.isEmpty():
        return
    area = QTransform().rotate(-hatch.angle).mapRect(box)
    lines, dots = expanded(hatch, Rect(area.x(), area.y(), area.width(), area.height()))
    painter.save()
    painter.setClipPath(path, Qt.ClipOperation.IntersectClip)
    painter.rotate(hatch.angle)
    pen = QPen(qcolor(hatch.colour), hatch.width)
    pen.setCapStyle(Qt.PenCapStyle.FlatCap)
    painter.setPen(pen)
    painter.drawLines([QLineF(*line) for line in lines])
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(qcolor(hatch.colour))
    for x, y in dots:
        painter.drawEllipse(QPointF(x, y), hatch.width / 2, hatch.width / 2)
    painter.restore()


def qtransform(place: Affine) -> QTransform:
    return QTransform(place.a, place.b, place.c, place.d, place.e, place.f)


def _paint_stamp(item: Stamp, painter: QPainter) -> None:
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(qcolor(item.fill))
    painter.drawPath(qtransform(item.place).map(qpath(item.outline)))


@lru_cache(maxsize=64)
def _qimage(content: bytes) -> QImage:
    return QImage.fromData(content)


def _paint_image(item: Image, painter: QPainter) -> None:
    painter.save()
    painter.setTransform(qtransform(item.place), True)
    painter.drawImage(QRectF(0, 0, 1, 1), _qimage(item.content))
    painter.restore()


class _Faces(threading.local):
    """The raw fonts and glyph runs of one thread: Qt's belong to the thread they were made in, and die with it."""

    def __init__(self) -> None:
        self.raw_font = lru_cache(maxsize=256)(_raw_font)
        self.glyphs = lru_cache(maxsize=2048)(_glyphs)


def raw_font(face: str, size: float) -> QRawFont:
    """The shipped face at a size, for this thread."""
    return _FACES.raw_font(face, size)


def _raw_font(face: str, size: float) -> QRawFont:
    """The shipped face at a size, without hinting, so that glyphs stand where they were measured.

    It is found by its family, not loaded from its bytes: Qt embeds only fonts with a file name in a PDF.
    """
    of = face_of(face)
    font = QFont([of.css_family])
    font.setPixelSize(64)
    font.setWeight(QFont.Weight(of.weight))
    font.setItalic(of.italic)
    font.setHintingPreference(QFont.HintingPreference.PreferNoHinting)
    raw = QRawFont.fromFont(font)
    raw.setPixelSize(size)
    return raw


def _glyphs(text: str, face: str, size: float) -> QGlyphRun:
    run = shape(text, face)
    glyphs = QGlyphRun()
    glyphs.setRawFont(raw_font(face, size))
    glyphs.setGlyphIndexes(list(run.glyphs))
    glyphs.setPositions([QPointF(x * size, y * size) for x, y in zip(run.xs, run.ys, strict=True)])
    return glyphs


_FACES = _Faces()


@lru_cache(maxsize=256)
def _outlined(text: str, face: str, size: float) -> Path:
    return recorded(lambda pen: outline(text, face, size, 0.0, 0.0, pen))


def _is_large(size: float, painter: QPainter) -> bool:
    """Whether glyphs are larger than Qt keeps as images: from there on, it draws glyph runs on images not at all."""
    engine = painter.paintEngine()
    if engine.type() != QPaintEngine.Type.Raster:
        return False
    by = painter.deviceTransform()
    return size * math.sqrt(abs(by.determinant())) > LARGEST_GLYPHS


def _paint_writing(item: Writing, painter: QPainter) -> None:
    painter.setPen(qcolor(item.colour))
    if item.angle:
        painter.save()
        painter.translate(item.x, item.y)
        painter.rotate(item.angle)
        _paint_line(item, QPointF(0, 0), painter)
        painter.restore()
    else:
        _paint_line(item, QPointF(item.x, item.y), painter)


def _paint_line(item: Writing, at: QPointF, painter: QPainter) -> None:
    if shape(item.text, item.face).complete:
        if _is_large(item.size, painter):
            painter.fillPath(qpath(_outlined(item.text, item.face, item.size)).translated(at), qcolor(item.colour))
        else:
            painter.drawGlyphRun(at, _FACES.glyphs(item.text, item.face, item.size))
        return
    # The face lacks a character: the system's fonts stand in, fitted into the measured width.
    face = face_of(item.face)
    font = QFont([face.css_family])
    font.setPixelSize(max(1, round(item.size)))
    font.setBold(face.weight == 700)
    painter.setFont(font)
    advance = painter.fontMetrics().horizontalAdvance(item.text)
    painter.save()
    painter.translate(at)
    if advance:
        painter.scale(item.width / advance, 1.0)
    painter.drawText(QPointF(0, 0), item.text)
    painter.restore()
