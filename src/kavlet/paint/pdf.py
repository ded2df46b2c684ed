"""A scene as a one-page PDF of its own size: vector, fonts embedded."""

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter, QPdfWriter

from kavlet.core.scene.primitives import Scene
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
    paint(scene, painter)
    painter.end()
    buffer.close()
    return bytes(content.data())
