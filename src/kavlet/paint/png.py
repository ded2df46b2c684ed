"""PNG files of images (ISO/IEC 15948), their rows written as they are.

Charts are large even areas, which deflate finds by itself: without filters, which Qt's own writer tries on each row,
files are as small and take a third of the time.
"""

import struct
import zlib

from PySide6.QtGui import QImage

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
