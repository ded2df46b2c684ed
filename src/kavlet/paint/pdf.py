"""Scenes as the pages of a PDF, of their own sizes: vector, fonts embedded, bookmarks where there are several."""

from collections.abc import Iterable
from io import BytesIO

import msgspec
from pypdf import PdfReader, PdfWriter
from pypdf.constants import PageLabelStyle
from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter, QPdfWriter

from kavlet.core.scene.paints import LinearGradient, RadialGradient
from kavlet.core.scene.primitives import Group, Image, Primitive, Scene, Shape, Stamp, Writing
from kavlet.core.values.colour import Colour
from kavlet.paint.painter import paint
from kavlet.paint.pdf_words import with_words

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
    return with_words(bytes(content.data()), scene)


def pages(scenes: Iterable[Scene], title: str) -> bytes:
    """Scenes as the pages of one PDF, each with a bookmark and a page label (ISO 32000-1, 12.3.3 and 12.4.2)."""
    writer, number = PdfWriter(), 0
    for number, scene in enumerate(scenes):
        writer.append(PdfReader(BytesIO(pdf(scene))), import_outline=False)
        writer.add_outline_item(title=scene.title or str(number + 1), page_number=number)
    writer.set_page_label(0, number, style=PageLabelStyle.DECIMAL)
    writer.add_metadata({"/Title": title, "/Creator": "Kavlet", "/Producer": "Kavlet"})
    out = BytesIO()
    writer.write(out)
    return out.getvalue()


def _opaque(scene: Scene) -> Scene:
    """The scene with translucent gradients as they look on its ground.

    Qt 6.11 writes a gradient's opacity as a soft mask that readers take for full (its alpha in place of its luminosity,
    ISO 32000-1, 11.6.5.3). Plain translucent colours are right, and stay.
    """
    ground = scene.ground or Colour(1.0, 1.0, 1.0)
    return msgspec.structs.replace(scene, items=tuple(_without_alpha(item, ground) for item in scene.items))


def _without_alpha(item: Primitive, ground: Colour) -> Primitive:
    match item:
        case Shape(fill=LinearGradient() | RadialGradient() as fill):
            stops = tuple((at, one.over(ground)) for at, one in fill.stops)
            return msgspec.structs.replace(item, fill=msgspec.structs.replace(fill, stops=stops))
        case Group():
            return msgspec.structs.replace(item, items=tuple(_without_alpha(one, ground) for one in item.items))
        case Shape() | Stamp() | Image() | Writing():
            return item
