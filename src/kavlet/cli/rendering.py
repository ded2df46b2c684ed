"""kavlet render: charts and pages of a document, every way out."""

from pathlib import Path
from typing import Any

import click
import msgspec

from kavlet.cli.group import cli
from kavlet.cli.options import AS, RAW, STDOUT, addressees, deliver, ending_of, is_folder
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.formats import AnimationOptions, As, ExportOptions
from kavlet.core.messages import say, words
from kavlet.core.scene.readers import READERS, Reader
from kavlet.core.values.errors import KavletError
from kavlet.core.values.lengths import size as read_size
from kavlet.export.outgoing import Export, slug
from kavlet.export.ways import all_endings, format_of


@cli.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "-o", "--output", "out", required=True, type=click.Path(path_type=Path),
    help="A file, whose ending chooses; a folder; a pattern with {name} or {number}; - for standard output.",
)  # fmt: skip
@click.option("--chart", "name", default=None, help="Which chart, by name.")
@click.option("--all", "every", is_flag=True, help="Every chart, in one file where it holds several.")
@click.option("--page", "page", default=None, help="Which page, by name or number.")
@click.option("--pages", "all_pages", is_flag=True, help="All pages, in one file where it holds several.")
@click.option("--scale", default=1.0, show_default=True, help="Pixels per point, for pictures of pixels.")
@click.option("--size", "size_text", default=None, help="A chart’s width and height, in points or units.")
@click.option("--outlines", is_flag=True, help="Write texts as outlines, for SVG.")
@click.option("--raw", is_flag=True, help=RAW)
@click.option("--format", "format_", default="", metavar="ENDING", help="The format, where the name does not say it.")
@click.option("--as", "as_", default="chart", type=click.Choice(AS), help="In office files: real charts or pictures.")
@click.option("--bare", is_flag=True, help="Without a ground.")
@click.option("--as-seen-by", "reader", default="everyone", type=click.Choice(READERS),
              help="Pictures as some readers see them.")  # fmt: skip
@click.option("--hold", default=1.2, show_default=True, help="Seconds that each step stays, for animations.")
@click.option("--move", default=0.8, show_default=True, help="Seconds from step to step, for animations.")
@click.option("--rate", default=20, show_default=True, help="Pictures a second, for animations.")
@click.option("--even", is_flag=True, help="Go evenly from step to step, for animations.")
@click.option("--once", is_flag=True, help="Play an animation once.")
@click.option("--to", "to", default="", help="Addressees, for a mail draft.")
@click.option("--subject", default="", help="The subject, for a mail draft.")
@click.option("--json", "as_json", is_flag=True, help="Print what was written and what a format could not hold.")
def render(file: Path, out: Path, **wish: Any) -> None:
    """Write the charts or pages of a document; the ending of the output chooses the format."""
    what = msgspec.convert(wish, _What)
    if sum((what.name is not None, what.every, what.page is not None, what.all_pages)) > 1:
        raise click.UsageError(words("--chart, --all, --page and --pages exclude each other."))
    paged = what.page is not None or what.all_pages
    ending = ending_of(out, what.format_, all_endings(paged))
    document = kavlet_file.load(file)
    pages = _chosen_pages(document, file, what) if paged else ()
    charts = () if paged else _chosen_charts(document, file, what)
    title = file.stem if len(charts) + len(pages) != 1 else (document.chart(charts[0]).name if charts else file.stem)
    size = read_size(what.size_text) if what.size_text is not None else None
    how = ExportOptions(
        ending, what.scale, what.outlines, what.as_, not what.bare,
        width=size.width if size else None, height=size.height if size else None,
        motion=AnimationOptions(what.hold, what.move, what.rate, not what.even, not what.once),
        to=addressees(what.to), subject=what.subject, raw=what.raw, reader=what.reader,
    )  # fmt: skip
    if what.reader != "everyone" and format_of(ending, paged).group != "picture":
        raise KavletError(
            say("Only pictures are written as a reader sees them."), remedy=say("Take PNG, JPEG, SVG or PDF.")
        )
    leaving = Export(document, charts, pages, title, whole=what.every)
    if is_folder(out):
        out = out / (f"{slug(title)}{ending}" if format_of(ending, paged).many or len(charts) + len(pages) == 1
                     else f"{'{number}-' if paged else ''}{{name}}{ending}")  # fmt: skip
    if (what.every or what.all_pages) and not format_of(ending, paged).many:
        separate = "{number}" in out.name or "{name}" in out.name or str(out) == STDOUT
        if str(out) == STDOUT and len(charts) + len(pages) > 1:
            raise click.UsageError(words("Several files can’t go to standard output."))
        out = out if separate else out.with_name(f"{out.stem}-{{{'number' if paged else 'name'}}}{out.suffix}")
    deliver(leaving, how, out, what.as_json)


class _What(msgspec.Struct, frozen=True):
    """What of a document is drawn, and how."""

    name: str | None
    every: bool
    page: str | None
    all_pages: bool
    scale: float
    size_text: str | None
    outlines: bool
    raw: bool
    format_: str
    as_: As
    bare: bool
    reader: Reader
    hold: float
    move: float
    rate: int
    even: bool
    once: bool
    to: str
    subject: str
    as_json: bool


def _chosen_charts(document: Document, file: Path, what: _What) -> tuple[str, ...]:
    """The ids of the charts that are meant."""
    charts = [chart for chart in document.charts if what.name is None or chart.name == what.name]
    if not charts:
        raise KavletError(
            say("{file} has no chart “{name}”.", file=file.name, name=what.name)
            if what.name
            else say("{file} has no chart.", file=file.name)
        )
    if len(charts) > 1 and not what.every:
        names = [f"“{chart.name}”" for chart in document.charts]
        raise click.UsageError(
            words("{file} has several charts: {names}. Choose with --chart, or say --all.", file=file.name, names=names)
        )
    return tuple(chart.id for chart in charts)


def _chosen_pages(document: Document, file: Path, what: _What) -> tuple[str, ...]:
    """The ids of the pages that are meant."""
    if not document.pages:
        raise KavletError(say("{file} has no page.", file=file.name))
    chosen = list(document.pages)
    if what.page is not None:
        by_number = {str(number): page for number, page in enumerate(document.pages, 1)}
        chosen = [page for page in document.pages if page.name == what.page] or (
            [by_number[what.page]] if what.page in by_number else []
        )
    if not chosen:
        raise KavletError(
            say("{file} has no page “{name}”.", file=file.name, name=what.page),
            remedy=say("There are {names}.", names=[page.name for page in document.pages]),
        )
    return tuple(page.id for page in chosen)
