"""Reuse between edits: the same object in, the same object out."""

from datetime import date

import msgspec
from msgspec import Struct

from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.pipeline.cell_bindings import bound_entry
from kavlet.core.pipeline.framed_values import framed_values
from kavlet.core.pipeline.page_items.page_picture import NO_PAGE_PICTURE, PagePicture, page_picture
from kavlet.core.pipeline.stages import (
    NO_PICTURE,
    Picture,
    UnviewedPicture,
    dress_without_view,
    with_view,
    without_view,
)
from kavlet.core.spreadsheet.recalculate import RecordedValues, Values, recalculate
from kavlet.core.values.errors import KavletError

ASKED_FOR = frozenset(("tables", "charts", "pages", "silenced"))  # of a document; of these a chart reads its own alone


class _Kept(Struct, frozen=True):
    """A chart's picture and all that it was made of; `evaluates`: it reads cells by formulas, and so may read any."""

    reads: tuple[object, ...]
    evaluates: bool
    unviewed: UnviewedPicture
    entry: ChartEntry
    picture: Picture


class Pictures:
    """Keeps the last values and pictures, and reuses what did not change: the same object in, the same object out."""

    def __init__(self) -> None:
        self._values: Values | None = None
        self._kept: dict[str, _Kept] = {}
        self._pages: dict[str, tuple[tuple[object, ...], PagePicture]] = {}

    def copy(self) -> "Pictures":
        """Another that keeps the same, so that one thread may go on with it while another draws from this one."""
        made = Pictures()
        made._values, made._kept, made._pages = self._values, dict(self._kept), dict(self._pages)
        return made

    def joined(self, other: "Pictures") -> None:
        """Take over what another one keeps, which is newer."""
        self._values = other._values or self._values
        self._kept |= other._kept
        self._pages |= other._pages

    def values(self, document: Document) -> Values:
        """The document's values; only what depends on changed cells is evaluated again."""
        if self._values is None or self._values.tables is not document.tables:
            self._values = recalculate(document.tables, self._values)
        return self._values

    def forget(self, document: Document) -> None:
        """Let go what is kept of charts and pages that a document does not hold any more."""
        held = {chart.id for chart in document.charts}
        framed = {f"{page.id}/{item.id}" for page in document.pages for item in page.items}
        self._kept = {
            key: kept for key, kept in self._kept.items() if key in held or "/".join(key.split("/")[:2]) in framed
        }
        self._pages = {key: kept for key, kept in self._pages.items() if any(page.id == key for page in document.pages)}

    def picture(self, document: Document, chart: str) -> Picture:
        """The chart's picture. Raises KavletError when the table does not fit its recipe."""
        return self.drawn(document, document.chart(chart), chart)

    def picture_if_any(self, document: Document, chart: str) -> Picture:
        """The chart's picture; `NO_PICTURE` where there is no such chart, or its table does not fit it."""
        try:
            return self.picture(document, chart)
        except KavletError:
            return NO_PICTURE

    def page(self, document: Document, page: str, today: date | None = None) -> PagePicture:
        """The page's picture; of its charts, only those that an edit touched are composed again. Raises KavletError
        where there is no such page, or its look names what there is not."""
        page_now = document.page(page)
        reads = (page_now, *_house_of(document), document.pages, document.charts, document.tables, today)
        known = self._pages.get(page)
        if known is not None and _same(known[0], reads):
            return known[1]
        new_picture = page_picture(
            document, self.values(document), page, lambda entry, key: self.drawn(document, entry, key), today
        )
        self._pages[page] = (reads, new_picture)
        return new_picture

    def page_if_any(self, document: Document, page: str) -> PagePicture:
        """The page's picture; `NO_PAGE_PICTURE` where there is no such page, or it can't be drawn."""
        try:
            return self.page(document, page)
        except KavletError:
            return NO_PAGE_PICTURE

    def drawn(self, document: Document, entry: ChartEntry, key: str) -> Picture:
        """The picture of a chart as an entry says, kept by a key. Raises KavletError as `picture` does."""
        values = self.values(document)
        reads: tuple[object, ...] = (*_house_of(document), document.table(entry.table), *values.of(entry.table))
        known = self._kept.get(key)
        same = known is not None and _same(known.reads, (*reads, values) if known.evaluates else reads)
        if known is not None and same and known.entry == entry:
            return known.picture
        document, framed = framed_values(document, values, entry)
        recorded = RecordedValues(framed)
        chart = bound_entry(entry, document, recorded)
        bare = msgspec.structs.replace(chart, dress=dress_without_view(chart))
        if known is not None and same and known.unviewed.entry == bare:
            unviewed, evaluates = known.unviewed, known.evaluates or recorded.evaluates
        else:
            unviewed = without_view(document, recorded, bare, None)
            evaluates = recorded.evaluates
        drawing = with_view(unviewed, chart)
        self._kept[key] = _Kept((*reads, values) if evaluates else reads, evaluates, unviewed, entry, drawing)
        return drawing


def _house_of(document: Document) -> tuple[object, ...]:
    """All of a document that any chart may read: every field but those that are asked for one by one."""
    return tuple(getattr(document, field) for field in document.__struct_fields__ if field not in ASKED_FOR)


def _same(before: tuple[object, ...], now: tuple[object, ...]) -> bool:
    """Whether two rows of objects hold the same ones."""
    return len(before) == len(now) and all(a is b for a, b in zip(before, now, strict=True))
