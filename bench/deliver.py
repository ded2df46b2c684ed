"""Delivering: a chart and a report of 40 pages in each format, against composing them; memory of the largest."""

import tracemalloc

from bench.pages import document_of
from bench.ratio import Ratio, median, milliseconds
from kavlet.core.document.document import Document
from kavlet.core.files.formats import ExportOptions
from kavlet.export.outgoing import Export
from kavlet.export.pictures import for_painting
from kavlet.export.ways import EXPORT_FORMATS, written

TIMES = 3
SLIDES_MOST = 3_000.0  # milliseconds, for a presentation of 40 slides


def measure() -> list[Ratio]:
    """Each way out against composing the same, in one run."""
    for_painting()
    report = document_of(40, 1)
    return [*_each(report, pages=False), *_each(report, pages=True), _memory(report)]


def _outgoing(document: Document, pages: bool) -> Export:
    if pages:
        return Export(document, pages=tuple(page.id for page in document.pages), title="Report")
    return Export(document, (document.charts[0].id,), title="Chart")


def _each(document: Document, pages: bool) -> list[Ratio]:
    composing = median(milliseconds(lambda: _outgoing(document, pages).scenes, TIMES))
    found = []
    for way in EXPORT_FORMATS:
        if way.steps or (pages and not (way.for_pages and way.many)):
            continue
        wish = ExportOptions(way.ending)
        time = median(milliseconds(lambda wish=wish: written(_outgoing(document, pages), wish), TIMES))
        what = "40 pages" if pages else "a chart"
        bound = f"<= {SLIDES_MOST / composing:.0f} (3 s)" if pages and way.ending == ".pptx" else ""
        found.append(Ratio(f"{what} as {way.title}", time, composing, "ms", bound, f"{time:.0f} ms"))
    return found


def _memory(document: Document) -> Ratio:
    """The most memory that writing 40 slides takes, against the file's length."""
    tracemalloc.start()
    content = written(_outgoing(document, True), ExportOptions(".pptx")).content
    most = tracemalloc.get_traced_memory()[1]
    tracemalloc.stop()
    return Ratio("memory of 40 slides", most / 1e6, len(content) / 1e6, "MB", "", f"{most / 1e6:.0f} MB")
