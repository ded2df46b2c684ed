"""A scene as a picture: an image in memory, and PNG at a chosen scale."""

import struct
import zlib

from PySide6.QtCore import QBuffer, QByteArray, QIODevice
from PySide6.QtGui import QImage, QPainter

from kavlet.core.messages import say
from kavlet.core.scene.primitives import Scene
from kavlet.core.values.errors import KavletError
from kavlet.paint.painter import paint

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


_SIGNATURE = b"\x89PNG\r\n\x1a\n"
_RGB, _RGBA = 2, 6  # colour types
_AS_IT_IS = b"\x00"  # the filter of a row: none
_LEVEL = 4  # of deflate


def written(image: QImage, texts: dict[str, str]) -> bytes:
    """The file of an image, with texts by their keywords. Rows of 8 bits a channel, RGB where nothing is clear."""
    clear = image.hasAlphaChannel()
    held = image.convertToFormat(QImage.Format.Format_RGBA8888 if clear else QImage.Format.Format_RGB888)
    width, height, line = held.width(), held.height(), held.bytesPerLine()
    row = width * (4 if clear else 3)
    pixels = bytes(held.constBits())
    if line != row:  # Qt fills lines up to whole words
        pixels = b"".join(pixels[at : at + row] for at in range(0, height * line, line))
    rows = b"".join(_AS_IT_IS + pixels[at : at + row] for at in range(0, len(pixels), row))
    parts = [_part(b"IHDR", struct.pack(">IIBBBBB", width, height, 8, _RGBA if clear else _RGB, 0, 0, 0))]
    if image.dotsPerMeterX() > 0:
        parts.append(_part(b"pHYs", struct.pack(">IIB", image.dotsPerMeterX(), image.dotsPerMeterY(), 1)))
    parts += [_part(b"iTXt", word.encode("latin-1") + bytes(5) + text.encode()) for word, text in texts.items() if text]
    return b"".join((_SIGNATURE, *parts, _part(b"IDAT", zlib.compress(rows, _LEVEL)), _part(b"IEND", b"")))


def _part(kind: bytes, content: bytes) -> bytes:
    return struct.pack(">I", len(content)) + kind + content + struct.pack(">I", zlib.crc32(kind + content))
