"""Draws every chart of the demo document on one sheet: docs/screenshots/gallery.png, or PNGs and sheets elsewhere.

Usage: tools/gallery.py [OUT.png [COLUMNS [CHART …]]]
"""

import os
import sys
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPen

from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pipeline.stages import picture
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size
from kavlet.paint.application import for_painting
from kavlet.paint.painter import paint

TARGET = Path(__file__).parent.parent / "docs" / "screenshots" / "gallery.png"
DEMO = Path(__file__).parent.parent / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
CELL = Size(480, 320)
GAP = 16


def sheet(document: Document, names: list[str], columns: int, cell: Size = CELL, scale: float = 1.0) -> QImage:
    """All charts (or those named) in rows, each at one size."""
    for_painting()
    values = recalculate(document.tables)
    charts = [chart for chart in document.charts if not names or chart.recipe in names or chart.name in names]
    rows = -(-len(charts) // columns)
    made = QImage(
        round((columns * (cell.width + GAP) + GAP) * scale), round((rows * (cell.height + GAP) + GAP) * scale),
        QImage.Format.Format_RGB32,
    )  # fmt: skip
    made.fill(QColor("#e9e4da"))
    painter = QPainter(made)
    painter.scale(scale, scale)
    for number, chart in enumerate(charts):
        row, column = divmod(number, columns)
        painter.save()
        painter.translate(GAP + column * (cell.width + GAP), GAP + row * (cell.height + GAP))
        painter.setClipRect(QRectF(0, 0, cell.width, cell.height))
        try:
            paint(picture(document, values, chart.id, cell).scene, painter)
        except KavletError as error:
            painter.setPen(QPen(QColor("#b3372f")))
            painter.drawText(
                QRectF(20, 20, cell.width - 40, 200), int(Qt.TextFlag.TextWordWrap), f"{chart.recipe}: {error}"
            )
        painter.restore()
    painter.end()
    return made


if __name__ == "__main__":
    out = Path(sys.argv[1]) if len(sys.argv) > 1 else TARGET
    wide = int(sys.argv[2]) if len(sys.argv) > 2 else 4
    sheet(kavlet_file.load(DEMO), sys.argv[3:], wide, scale=0.75 if len(sys.argv) < 2 else 1.0).save(str(out))
