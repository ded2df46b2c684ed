"""What leaves by the clipboard, or by being dragged out of the window: SVG, PNG, HTML and text of it, all at once."""

import base64
import shutil
import tempfile
import weakref
from html import escape
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec
from PySide6.QtCore import QByteArray, QMimeData, QUrl

from kavlet.core.files import svg
from kavlet.core.pages.items.words import Words
from kavlet.core.pipeline.page_items.page_picture import PagePicture
from kavlet.core.scene.primitives import Scene
from kavlet.core.values.geometry import Rect
from kavlet.export.outgoing import Export
from kavlet.paint import picture

if TYPE_CHECKING:
    from kavlet.core.office_model.figure_table import FigureTable

SCALE = 2.0  # pixels per point
SVG_TYPE = "image/svg+xml"


def mime_of(scene: Scene, figures: "tuple[FigureTable, ...]") -> QMimeData:
    """A picture for the clipboard: for each program the kind it knows best, with the words for what it shows."""
    mime_data = QMimeData()
    image = picture.image(scene, SCALE)
    mime_data.setImageData(image)
    png = picture.png(scene, SCALE)
    mime_data.setData("image/png", QByteArray(png))
    mime_data.setData(SVG_TYPE, QByteArray(svg.dumps(scene).encode()))
    mime_data.setHtml(html_of(scene, png, figures))
    text = "\n\n".join(figure_table.text for figure_table in figures)
    mime_data.setText(text or scene.description or scene.title)
    return mime_data


def html_of(scene: Scene, png: bytes, figures: "tuple[FigureTable, ...]") -> str:
    """The picture with its alternative text, and its figures as a table."""
    data = base64.b64encode(png).decode()
    alt = escape(scene.description or scene.title)
    wide, tall = round(scene.size.width / 0.75), round(scene.size.height / 0.75)
    tables = "".join(_table(table) for table in figures)
    return f'<img src="data:image/png;base64,{data}" width="{wide}" height="{tall}" alt="{alt}">{tables}'


def _table(figures: "FigureTable") -> str:
    def row(cells: tuple[str, ...], tag: str) -> str:
        return "<tr>" + "".join(f"<{tag}>{escape(cell)}</{tag}>" for cell in cells) + "</tr>"

    head, rows = row(figures.head, "th"), "".join(row(one, "td") for one in figures.rows)
    return f"<table><caption>{escape(figures.heading)}</caption>{head}{rows}</table>"


def of_outgoing(export: Export) -> QMimeData:
    """What leaves for the clipboard: the first chart or page of it."""
    from kavlet.core.office_model.figure_table import figures_of

    if export.pages:
        pictures = export.page_pictures[0].made.values()
        return mime_of(
            export.scenes[0],
            tuple(
                figure_table
                for composed_item in pictures
                if composed_item.picture is not None
                for figure_table in figures_of(composed_item.picture)
            ),
        )
    return mime_of(export.scenes[0], figures_of(export.chart_pictures[0]))


def cut_to(page: PagePicture, items: set[str]) -> Scene:
    """Some items of a page alone, no larger than they are."""
    from kavlet.core.office_model.convert_pages import cut_out

    boxes = [page.boxes[item_id] for item_id in items]
    around = Rect.around([point for box in boxes for point in ((box.x, box.y), (box.right, box.bottom))])
    scene = page.scene_of(items)
    cut_scene = cut_out(scene.items, around)
    says = " ".join(page.made[item_id].says for item_id in page.boxes if item_id in items)
    return msgspec.structs.replace(cut_scene, title=page.page.name, description=says)


def of_items(page: PagePicture, items: set[str]) -> QMimeData:
    """Some items of a page for the clipboard, with their words and the figures of the charts among them."""
    from kavlet.core.office_model.figure_table import figures_of

    pictures = [page.made[item_id].picture for item_id in page.boxes if item_id in items]
    figures = tuple(figure_table for picture in pictures if picture is not None for figure_table in figures_of(picture))
    mime = mime_of(cut_to(page, items), figures)
    texts = [item.text for item in page.page.items if item.id in items and isinstance(item, Words)]
    if texts:
        mime.setText("\n\n".join([*texts, *(figure_table.text for figure_table in figures)]))
    return mime


class DragOut:
    """A picture on its way to another program, with files for those that take files; they last as long as this."""

    def __init__(self, export: Export) -> None:
        from kavlet.export.outgoing import slug

        folder = Path(tempfile.mkdtemp(prefix="kavlet-"))
        self._cleared = weakref.finalize(self, shutil.rmtree, folder, ignore_errors=True)
        self.mime = of_outgoing(export)
        stem = slug(export.title or export.names[0])
        scene = export.scenes[0]
        path = folder / f"{stem}.png"
        path.write_bytes(picture.png(scene, SCALE))
        self.mime.setUrls([QUrl.fromLocalFile(str(path))])
