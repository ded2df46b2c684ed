"""A scene as a picture: an image in memory, and PNG at a chosen scale."""

from PySide6.QtCore import QBuffer, QByteArray, QIODevice
from PySide6.QtGui import QImage, QPainter

from kavlet.core.messages import say
from kavlet.core.scene.primitives import Scene
from kavlet.core.values.errors import KavletError
from kavlet.paint.painter import paint
from kavlet.paint.png import written

MAX_PIXELS = 100_000_000


def image(scene: Scene, scale: float = 1.0) -> QImage:
    """An image of the scene, `scale` pixels for each point.

    Raises KavletError when the picture would be larger than 100 million pixels.
    """
    width, height = round(scene.size.width * scale), round(scene.size.height * scale)
    if not 0 < width * height <= MAX_PIXELS:
        raise KavletError(
            say("A picture of {width} × {height} pixels is too large.", width=width, height=height),
            remedy=say("Choose a smaller scale."),
        )
    made = QImage(width, height, QImage.Format.Format_ARGB32_Premultiplied)
    made.fill(0)
    made.setDotsPerMeterX(round(scale * 72 / 0.0254))
    made.setDotsPerMeterY(round(scale * 72 / 0.0254))
    painter = QPainter(made)
    painter.scale(width / scene.size.width, height / scene.size.height)
    paint(scene, painter)
    painter.end()
    return made


def png(scene: Scene, scale: float = 1.0) -> bytes:
    """The scene as PNG, with its title and description as text chunks."""
    return written(image(scene, scale), {"Title": scene.title, "Description": scene.description})


def jpeg(scene: Scene, scale: float = 1.0, quality: int = 92) -> bytes:
    """The scene as JPEG on its own ground (white where it has none); `quality` goes from 0 to 100."""
    drawn = image(scene, scale)
    made = QImage(drawn.size(), QImage.Format.Format_RGB32)
    made.fill(0xFFFFFFFF)
    made.setDotsPerMeterX(drawn.dotsPerMeterX())
    made.setDotsPerMeterY(drawn.dotsPerMeterY())
    painter = QPainter(made)
    painter.drawImage(0, 0, drawn)
    painter.end()
    content = QByteArray()
    buffer = QBuffer(content)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    made.save(buffer, "JPEG", quality)  # type: ignore[call-overload]
    return bytes(content.data())
