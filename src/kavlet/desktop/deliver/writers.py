"""What can be written from a chart, by the ending of the file."""

from pathlib import Path

from msgspec import Struct

from kavlet.core.build import Picture
from kavlet.core.files import atomic, record, svg
from kavlet.core.values.errors import KavletError
from kavlet.paint import pdf, picture


class Wish(Struct, frozen=True):
    """How a chart is to leave: the ending of the file, pixels per point for PNG, texts as outlines for SVG."""

    ending: str
    scale: float = 2.0
    outlines: bool = False


def content(made: Picture, wish: Wish) -> bytes:
    """The bytes of the file. Raises KavletError for an ending that is not known or a picture too large."""
    if wish.ending == ".svg":
        return svg.dumps(made.scene, wish.outlines).encode()
    if wish.ending == ".png":
        return picture.png(made.scene, wish.scale)
    if wish.ending == ".pdf":
        return pdf.pdf(made.scene)
    if wish.ending == ".json":
        return record.dumps(record.record(made.build.entry.recipe, made.build.helpers, made.figure, made.findings))
    raise KavletError(f"A chart can’t be written as {wish.ending}.")


def write(made: Picture, wish: Wish, path: Path) -> None:
    """Write the chart atomically. Raises KavletError when it can't be written."""
    atomic.write(path, content(made, wish))
