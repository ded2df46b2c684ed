"""Reading a document as a sceptical reader would: all checks, of what changed only."""

from collections.abc import Iterable, Mapping

import msgspec

from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.messages import say
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pipeline.page_items.page_picture import PagePicture
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.pipeline.stages import Picture
from kavlet.core.proof.checks.values import GO
from kavlet.core.proof.finding import Finding, Location, Remedy
from kavlet.core.proof.registry import CHECKS
from kavlet.core.proof.subjects import ChartSubject, DocumentSubject, PageSubject
from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.cancellation import check_cancelled
from kavlet.core.values.errors import KavletError

Found = tuple[Finding, ...]


def of_chart(subject: ChartSubject) -> Found:
    """All that is to be said of a chart and of its drawing by itself."""
    return _of_figures(subject) + _of_drawing(subject)


def _of_figures(subject: ChartSubject) -> Found:
    return _silenced(
        subject.document,
        (finding for check in CHECKS.values() if check.of_chart for finding in check.of_chart(subject)),
    )


def _of_drawing(subject: ChartSubject) -> Found:
    return _silenced(
        subject.document,
        (finding for check in CHECKS.values() if check.of_drawing for finding in check.of_drawing(subject)),
    )


def of_page(subject: PageSubject) -> Found:
    """All that is to be said of a page and of the drawings in its frames."""
    own_findings = (finding for check in CHECKS.values() if check.of_page for finding in check.of_page(subject))
    return _silenced(subject.document, own_findings) + tuple(
        finding for chart in subject.charts.values() for finding in _of_drawing(chart)
    )


def of_papers(subject: DocumentSubject) -> Found:
    """All that is to be said of the document as a whole."""
    return _silenced(
        subject.document,
        (finding for check in CHECKS.values() if check.of_papers for finding in check.of_papers(subject)),
    )


def _silenced(document: Document, findings: Iterable[Finding]) -> Found:
    """Findings, each with the reason where its check is silenced for its chart, its page, or the document."""
    charts = {chart.id: chart.silenced for chart in document.charts}
    pages = {page.id: page.silenced for page in document.pages}
    with_reasons = []
    for finding in findings:
        check_cancelled()
        held = (charts.get(finding.place.chart, {}), pages.get(finding.place.page, {}), document.silenced)
        reason = next((reasons[finding.check] for reasons in held if finding.check in reasons), None)
        with_reasons.append(msgspec.structs.replace(finding, silenced=reason) if reason is not None else finding)
    return tuple(with_reasons)


def drawn_chart(document: Document, values: Values, picture: Picture) -> ChartSubject:
    """A chart drawn by itself, as what checks look at."""
    return ChartSubject(document, values, picture.build.entry, picture)


def drawn_page(document: Document, values: Values, picture: PagePicture) -> PageSubject:
    """A page with the charts in its frames, as what checks look at."""
    charts: dict[str, ChartSubject] = {}
    for item in picture.page.items:
        composed_item = picture.made.get(item.id)
        if isinstance(item, ChartFrame) and composed_item is not None and composed_item.picture is not None:
            charts[item.id] = ChartSubject(
                document, values, composed_item.picture.build.entry, composed_item.picture, picture.page, item.id
            )
    return PageSubject(document, values, picture, charts)


class Proof(msgspec.Struct, frozen=True):
    """All that was found in a document, in the order of its charts and pages, and how many checks have looked."""

    charts: dict[str, Found] = {}
    pages: dict[str, Found] = {}
    papers: Found = ()
    checks: int = len(CHECKS)

    @property
    def all(self) -> Found:
        """Every finding, those that are silenced too."""
        parts = (*self.charts.values(), *self.pages.values(), self.papers)
        return tuple(finding for found in parts for finding in found)

    @property
    def open(self) -> Found:
        """The findings that nobody has silenced."""
        return tuple(finding for finding in self.all if finding.silenced is None)


class Proofreader:
    """Keeps what it found of each chart and page, and looks only at what changed since."""

    def __init__(self) -> None:
        self._charts: dict[str, tuple[tuple[object, ...], Found]] = {}
        self._pages: dict[str, tuple[tuple[object, ...], Found]] = {}

    def copy(self) -> "Proofreader":
        """Another that keeps the same, so that one thread may go on with it."""
        made = Proofreader()
        made._charts, made._pages = dict(self._charts), dict(self._pages)
        return made

    def chart(self, document: Document, pictures: Pictures, chart: str) -> Found:
        """What is found in a chart. What can't be drawn is one finding."""
        try:
            picture = pictures.picture(document, chart)
        except KavletError as error:
            return (_undrawn(error, *_where(document, pictures.values(document), document.chart(chart))),)
        entry = document.chart(chart)
        reads = (picture, entry.silenced, document.silenced, document.pictures, document.table(entry.table))
        kept = self._charts.get(chart)
        if kept is not None and _same(kept[0], reads):
            return kept[1]
        found = of_chart(drawn_chart(document, pictures.values(document), picture))
        self._charts[chart] = (reads, found)
        return found

    def page(self, document: Document, pictures: Pictures, page: str) -> Found:
        """What is found on a page."""
        try:
            picture = pictures.page(document, page)
        except KavletError as error:
            return (_undrawn(error, Location(page=page)),)
        silenced = tuple(chart.silenced for chart in document.charts)
        reads = (picture, document.silenced, document.pictures, *silenced)
        kept = self._pages.get(page)
        if kept is not None and _same(kept[0], reads):
            return kept[1]
        found = of_page(drawn_page(document, pictures.values(document), picture))
        self._pages[page] = (reads, found)
        return found

    def whole(self, document: Document, pictures: Pictures, sources: Mapping[str, str] = {}) -> Proof:
        """All that is found in a document; `sources` tells of the files that tables follow what has become of them."""
        charts = {chart.id: self.chart(document, pictures, chart.id) for chart in document.charts}
        pages = {page.id: self.page(document, pictures, page.id) for page in document.pages}
        papers = of_papers(DocumentSubject(document, pictures.values(document), sources))
        self._charts = {key: kept for key, kept in self._charts.items() if key in charts}
        self._pages = {key: kept for key, kept in self._pages.items() if key in pages}
        return Proof(charts, pages, papers)


def _same(held: tuple[object, ...], now: tuple[object, ...]) -> bool:
    return len(held) == len(now) and all(a is b for a, b in zip(held, now, strict=True))


def _undrawn(error: KavletError, place: Location, remedies: tuple[Remedy, ...] = ()) -> Finding:
    return Finding("formula-error", "error", 1.0, say("{text}", text=str(error)), place, remedies)


def _where(document: Document, values: Values, chart: ChartEntry) -> tuple[Location, tuple[Remedy, ...]]:
    """Where a chart that can't be drawn is mended: at the first error, or text in a number's place, that it reads."""
    table, recipe = document.table(chart.table), recipes_of(document).get(chart.recipe)
    roles = {role.name for role in recipe.roles if role.kind == "number"} if recipe is not None else set()
    for column in (
        column_id for role, role_columns in chart.roles.items() if role in roles for column_id in role_columns
    ):
        place = table.place(column)
        cells = values.of(table.id)[place].values if place >= 0 else []
        wrong = (row for row, value in enumerate(cells) if row >= HEADER and value and _is_no_number(value))
        row = next(wrong, None)
        if row is not None:
            return Location(chart=chart.id, table=table.id, cell=(place, row)), (GO,)
    return Location(chart=chart.id), ()


def _is_no_number(value: Value) -> bool:
    return isinstance(value, ErrorValue | str)


def proofread(document: Document, pictures: Pictures | None = None, sources: Mapping[str, str] = {}) -> Proof:
    """All that is found in a document."""
    return Proofreader().whole(document, pictures or Pictures(), sources)
