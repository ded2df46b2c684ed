"""What leaves: charts or pages of a document, composed when they are asked for, each once."""

from collections.abc import Callable, Iterator, Sequence
from datetime import date
from functools import cached_property
from typing import TYPE_CHECKING, TypeVar

import msgspec
from msgspec import Struct

from kavlet.core.document.charts.period_steps import periods, stepped, stepping
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.files.formats import ExportOptions
from kavlet.core.messages import Message, say
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.pipeline.stages import Picture
from kavlet.core.scene.primitives import Scene
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.values.errors import KavletError
from kavlet.core.values.xml_text import with_xml_texts, xml_text

if TYPE_CHECKING:
    from kavlet.core.office_model.page_model import PageModel
    from kavlet.core.pipeline.page_items.page_picture import PagePicture


Part = TypeVar("Part")


class ExportNote(Struct, frozen=True):
    """What a file holds of one chart: as a real chart or a picture, and what looks different there; the chart's id."""

    name: str
    as_: str
    differs: tuple[Message, ...] = ()
    chart: str = ""


class WrittenFile(Struct, frozen=True):
    """The bytes of a file, and what is to be told of its charts."""

    content: bytes
    told: tuple[ExportNote, ...] = ()


class Export(Struct, frozen=True, dict=True):
    """Charts (by their ids) or pages of a document, on their way; `title` is what they are called together.

    `whole` tells that all of the document is meant, with every table. `given_up` is asked now and then by what takes
    long, `goes_on` told how many parts of how many are done. Raises KavletError for a chart whose table does not fit
    its recipe, when its picture is asked for.
    """

    document: Document
    charts: tuple[str, ...] = ()
    pages: tuple[str, ...] = ()
    title: str = ""
    whole: bool = False
    width: float | None = None
    height: float | None = None
    given_up: Callable[[], bool] = lambda: False
    goes_on: Callable[[int, int], object] = lambda *_: None

    @cached_property
    def _pictures(self) -> Pictures:
        return Pictures()

    def each(self, parts: Sequence[Part]) -> Iterator[Part]:
        """Parts one after the other, told how far they are. Raises KavletError once the work is given up."""
        for place, part in enumerate(parts):
            if self.given_up():
                raise KavletError(say("It was given up."))
            if len(parts) > 1:
                self.goes_on(place, len(parts))
            yield part

    @cached_property
    def values(self) -> Values:
        """All values of the document."""
        return self._pictures.values(self.document)

    @cached_property
    def entries(self) -> tuple[ChartEntry, ...]:
        """The charts, at the size that is wished."""
        return tuple(self._sized(self.document.chart(one)) for one in self.charts)

    def _sized(self, entry: ChartEntry) -> ChartEntry:
        return msgspec.structs.replace(entry, width=self.width or entry.width, height=self.height or entry.height)

    @cached_property
    def chart_pictures(self) -> tuple[Picture, ...]:
        """The pictures of all charts."""
        return tuple(self._pictures.drawn(self.document, entry, entry.id) for entry in self.each(self.entries))

    @cached_property
    def page_pictures(self) -> "tuple[PagePicture, ...]":
        """The pictures of all pages."""
        return tuple(self._pictures.page(self.document, one) for one in self.each(self.pages))

    @property
    def scenes(self) -> tuple[Scene, ...]:
        """The scenes of all charts, or of all pages."""
        return tuple(one.scene for one in self.page_pictures or self.chart_pictures)

    @cached_property
    def plain_pages(self) -> "tuple[PageModel, ...]":
        """All pages in plain terms; of charts, a page for each."""
        from kavlet.core.office_model.convert_pages import chart_page, plain_page

        if self.pages:

            def draws(entry: ChartEntry, key: str) -> Picture:
                return self._pictures.drawn(self.document, entry, key)

            today = date.today()
            return tuple(plain_page(self.document, self.values, one, draws, today) for one in self.each(self.pages))
        return tuple(chart_page(self.document, self.values, one) for one in self.chart_pictures)

    @property
    def names(self) -> tuple[str, ...]:
        """What each chart or page is called."""
        if self.pages:
            return tuple(self.document.page(one).name for one in self.pages)
        return tuple(self.document.chart(one).name for one in self.charts)

    def alone(self, place: int) -> "Export":
        """One of its charts or pages."""
        if self.pages:
            return msgspec.structs.replace(self, pages=(self.pages[place],), whole=False, title=self.names[place])
        return msgspec.structs.replace(self, charts=(self.charts[place],), whole=False, title=self.names[place])

    def on(self, dark: bool) -> "Export":
        """The same on light or dark ground."""
        document = self.document
        charts = tuple(
            msgspec.structs.replace(one, dress=msgspec.structs.replace(one.dress, dark=dark)) for one in document.charts
        )
        pages = tuple(msgspec.structs.replace(one, dark=dark) for one in document.pages)
        return msgspec.structs.replace(self, document=msgspec.structs.replace(document, charts=charts, pages=pages))

    @property
    def is_dark(self) -> bool:
        """Whether the first of them stands on dark ground."""
        if self.pages:
            page = self.document.page(self.pages[0])
            if page.dark is not None:
                return page.dark
            return self.page_pictures[0].style.dark
        return self.document.chart(self.charts[0]).dress.dark

    def periods(self, place: int) -> tuple[str, ...]:
        """The periods that a chart or page goes through; none where it does not."""
        if self.pages:
            found = stepping(self.document, self.values, self.document.page(self.pages[place]))
            return found.periods if found is not None else ()
        made = periods(self.document, self.values, self.document.chart(self.charts[place]))
        return made if len(made) > 1 else ()

    def at(self, period: float) -> "Export":
        """All that goes through periods at one of them, counted from 1; on the way between whole numbers."""
        chart_ids = [chart.id for chart in self.document.charts]
        if not self.pages:
            chart_ids = list(self.charts)
        document = stepped(self.document, self.values, chart_ids, period)
        return msgspec.structs.replace(self, document=document)


def as_wished(export: Export, options: ExportOptions) -> Export:
    """The same in the size that is wished, and with texts that every format can hold: XML, and so most of them, has no
    control characters and no halves of characters."""
    document, title = with_xml_texts(export.document), xml_text(export.title)
    return msgspec.structs.replace(export, document=document, title=title, width=options.width, height=options.height)


def slug(name: str) -> str:
    """A name as part of a file's name: small letters and figures, hyphens between them."""
    return "-".join("".join(sign if sign.isalnum() or sign == "_" else " " for sign in name.lower()).split()) or "chart"
