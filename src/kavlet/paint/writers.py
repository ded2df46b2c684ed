"""What a chart can be written as, by the ending of the file. Qt is loaded only for those endings that need it."""

from collections.abc import Callable

from msgspec import Struct

from kavlet.core.build import Picture
from kavlet.core.files import record as record_file
from kavlet.core.files import svg
from kavlet.core.values.errors import KavletError


class Wish(Struct, frozen=True):
    """How a chart is to leave: the ending of the file, pixels per point for pictures, texts as outlines for SVG."""

    ending: str
    scale: float = 2.0
    outlines: bool = False


def content(made: Picture, wish: Wish) -> bytes:
    """The bytes of the file. Raises KavletError for an ending that is not known or a picture too large."""
    if wish.ending not in WRITERS:
        raise KavletError(f"A chart can’t be written as {wish.ending}.", remedy=f"There are {' '.join(WRITERS)}.")
    return WRITERS[wish.ending](made, wish)


def _svg(made: Picture, wish: Wish) -> bytes:
    return svg.dumps(made.scene, wish.outlines).encode()


def _json(made: Picture, wish: Wish) -> bytes:
    del wish
    build = made.build
    return record_file.dumps(record_file.record(build.entry.recipe, build.helpers, made.figure, made.findings))


def _png(made: Picture, wish: Wish) -> bytes:
    from kavlet.paint import application, picture

    application.for_painting()
    return picture.png(made.scene, wish.scale)


def _jpeg(made: Picture, wish: Wish) -> bytes:
    from kavlet.paint import application, picture

    application.for_painting()
    return picture.jpeg(made.scene, wish.scale)


def _pdf(made: Picture, wish: Wish) -> bytes:
    from kavlet.paint import application, pdf

    del wish
    application.for_painting()
    return pdf.pdf(made.scene)


WRITERS: dict[str, Callable[[Picture, Wish], bytes]] = {
    ".svg": _svg,
    ".png": _png,
    ".jpg": _jpeg,
    ".jpeg": _jpeg,
    ".pdf": _pdf,
    ".json": _json,
}
