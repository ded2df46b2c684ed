"""All formats a chart or pages can leave in. Qt is loaded only by those that need it."""

from collections.abc import Callable, Iterator, Sequence
from pathlib import Path

from kavlet.core.building.paging import page as paging
from kavlet.core.building.paging.page import PagePicture
from kavlet.core.building.stages import Picture
from kavlet.core.files import record, svg
from kavlet.core.files.formats import Format, Wish, by_ending, endings
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

Drawn = Picture | PagePicture


def _svg(made: Drawn, wish: Wish) -> bytes:
    return svg.dumps(made.scene, wish.outlines).encode()


def _json(made: Picture, wish: Wish) -> bytes:
    del wish
    build = made.build
    return record.dumps(record.record(build.entry.recipe, build.helpers, made.figure, made.findings))


def _for_painting() -> None:
    """What paints without a window. Raises KavletError where Qt is not installed."""
    try:
        from kavlet.paint import application
    except ImportError:
        raise KavletError(
            say("Pictures of pixels and PDF need Qt."), remedy=say("Install it: pip install 'kavlet[window]'.")
        ) from None
    application.for_painting()


def _png(made: Drawn, wish: Wish) -> bytes:
    _for_painting()
    from kavlet.paint import picture

    return picture.png(made.scene, wish.scale)


def _jpeg(made: Drawn, wish: Wish) -> bytes:
    _for_painting()
    from kavlet.paint import picture

    return picture.jpeg(made.scene, wish.scale)


def _pdf(made: Drawn, wish: Wish) -> bytes:
    _for_painting()
    from kavlet.paint import pdf

    del wish
    return pdf.pdf(made.scene)


CHARTS: tuple[Format, ...] = (
    Format((".png",), "PNG", draws=_png, raster=True),
    Format((".jpg", ".jpeg"), "JPEG", draws=_jpeg, raster=True),
    Format((".svg",), "SVG", draws=_svg),
    Format((".pdf",), "PDF", draws=_pdf),
    Format((".json",), "JSON record", draws=_json),
)


def content(made: Picture, wish: Wish) -> bytes:
    """The bytes of a chart's file. Raises KavletError for an ending that is not known, or a picture too large."""
    found = by_ending(CHARTS, wish.ending)
    if found is None or found.draws is None:
        raise KavletError(
            say("A chart can’t be written as {ending}.", ending=wish.ending),
            remedy=say("There are {endings}.", endings=" ".join(endings(CHARTS, "chart"))),
        )
    return found.draws(made, wish)


_PAGE: dict[str, Callable[[Drawn, Wish], bytes]] = {".svg": _svg, ".png": _png, ".jpg": _jpeg, ".jpeg": _jpeg}
PAGE_ENDINGS = (*_PAGE, ".pdf", ".json")
ONE_FILE = (".pdf", ".json")  # that hold all pages in one file


def page_content(made: Sequence[PagePicture], title: str, wish: Wish) -> bytes:
    """The bytes of a file of pages: of one page, or of several where the format holds them in one file. Raises
    KavletError for an ending that is not known, or a picture too large."""
    if wish.ending == ".pdf":
        _for_painting()
        from kavlet.paint import pdf

        return pdf.pages([one.scene for one in made], title)
    if wish.ending == ".json":
        records = [paging.record(one) for one in made]
        return record.dumps(records[0] if len(records) == 1 else records)
    if wish.ending not in _PAGE:
        raise KavletError(
            say("Pages can’t be written as {ending}.", ending=wish.ending),
            remedy=say("There are {endings}.", endings=" ".join(PAGE_ENDINGS)),
        )
    return _PAGE[wish.ending](made[0], wish)


def page_files(made: Sequence[PagePicture], title: str, out: Path, wish: Wish) -> Iterator[tuple[Path, bytes]]:
    """The files that pages are written to, one after the other: one where the format holds them all or there is one
    page, else one for each page with its number added. Raises KavletError as `page_content` does."""
    if len(made) == 1 or wish.ending in ONE_FILE:
        yield out, page_content(made, title, wish)
        return
    digits = len(str(max(one.number for one in made)))
    for one in made:
        yield out.with_name(f"{out.stem}-{one.number:0{digits}}{out.suffix}"), page_content([one], title, wish)
