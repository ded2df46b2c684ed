"""A scene as a one-page PDF of its own size: vector, fonts embedded."""

import msgspec
from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter, QPdfWriter

from kavlet.core.scene.paints import LinearGradient, RadialGradient
from kavlet.core.scene.primitives import Primitive, Scene, Shape
from kavlet.core.values.colour import Colour
from kavlet.paint.painter import paint

RESOLUTION = 1200  # units per inch, so that coordinates keep their fractions of a point


def pdf(scene: Scene) -> bytes:
    """The scene as PDF."""
    content = QByteArray()
    buffer = QBuffer(content)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setResolution(RESOLUTION)
    writer.setTitle(scene.title)
    writer.setCreator("Kavlet")
    size = QPageSize(
        QSizeF(scene.size.width, scene.size.height), QPageSize.Unit.Point, "", QPageSize.SizeMatchPolicy.ExactMatch
    )
    writer.setPageLayout(QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF()))
    painter = QPainter(writer)
    painter.scale(RESOLUTION / 72, RESOLUTION / 72)
    paint(_opaque(scene), painter)
    painter.end()
    buffer.close()
    return bytes(content.data())


def _opaque(scene: Scene) -> Scene:
    """The scene with translucent gradients as they look on its ground.

    Qt 6.11 writes a gradient's opacity as a soft mask that readers take for full (its alpha in place of its luminosity,
    ISO 32000-1, 11.6.5.3). Plain translucent colours are right, and stay.
    """
    ground = scene.ground or Colour(1.0, 1.0, 1.0)
    items: list[Primitive] = []
    for item in scene.items:
        if isinstance(item, Shape) and isinstance(item.fill, LinearGradient | RadialGradient):
            stops = tuple((at, one.over(ground)) for at, one in item.fill.stops)
            item = msgspec.structs.replace(item, fill=msgspec.structs.replace(item.fill, stops=stops))  # noqa: PLW2901
        items.append(item)
    return msgspec.structs.replace(scene, items=tuple(items))
