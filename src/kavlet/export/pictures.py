"""Charts and pages as pictures: SVG, PNG, JPEG, PDF, and the record. Qt is loaded only by those that need it."""

from collections.abc import Callable, Iterable

import msgspec

from kavlet.core.files import svg
from kavlet.core.files.formats import ExportOptions
from kavlet.core.messages import say
from kavlet.core.pipeline.page_items.page_picture import PagePicture
from kavlet.core.pipeline.stages import Picture
from kavlet.core.scene.primitives import Scene
from kavlet.core.scene.readers import as_read_by
from kavlet.core.values.errors import KavletError

Drawn = Picture | PagePicture


def _scene(made: Drawn, options: ExportOptions) -> Scene:
    """The scene as a reader sees it, on its ground or on none."""
    return (
        seen(made.scene, options) if options.ground else msgspec.structs.replace(seen(made.scene, options), ground=None)
    )


def seen(scene: Scene, options: ExportOptions) -> Scene:
    """A scene as a reader sees it, where one is wished for."""
    return as_read_by(scene, options.reader)


def _svg(made: Drawn, options: ExportOptions) -> bytes:
    return svg.dumps(_scene(made, options), options.outlines).encode()


def for_painting() -> None:
    """What paints without a window. Raises KavletError where Qt is not installed."""
    try:
        from kavlet.paint import application
    except ImportError:
        raise KavletError(
            say("Pictures of pixels and PDF need Qt."), remedy=say("Install it: pip install 'kavlet[window]'.")
        ) from None
    application.for_painting()


def png_of(scene: Scene, scale: float) -> bytes:
    """A scene as PNG, at so many pixels per point. Raises KavletError where Qt is not installed, or for one too
    large."""
    for_painting()
    from kavlet.paint import picture

    return picture.png(scene, scale)


def _png(made: Drawn, options: ExportOptions) -> bytes:
    return png_of(_scene(made, options), options.scale)


def _jpeg(made: Drawn, options: ExportOptions) -> bytes:
    for_painting()
    from kavlet.paint import picture

    return picture.jpeg(seen(made.scene, options), options.scale)


def _pdf(made: Drawn, options: ExportOptions) -> bytes:
    for_painting()
    from kavlet.paint import pdf

    return pdf.pdf(_scene(made, options))


PICTURES: dict[str, Callable[[Drawn, ExportOptions], bytes]] = {
    ".svg": _svg, ".png": _png, ".jpg": _jpeg, ".jpeg": _jpeg, ".pdf": _pdf
}  # fmt: skip


def pdf_of(scenes: Iterable[Scene], title: str) -> bytes:
    """Scenes as the pages of one PDF."""
    for_painting()
    from kavlet.paint import pdf

    return pdf.pages(scenes, title)
