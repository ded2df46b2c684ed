"""What of a document is in view, by what is chosen, and the pictures that it takes to be seen."""

from kavlet.core.document.document import NO_CHART, ChartEntry, Document
from kavlet.core.interaction.parts import Chosen
from kavlet.core.pages.page import NO_PAGE, Page
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.values.cancellation import Cancelled
from kavlet.core.values.errors import KavletError


def chart_in(document: Document, chosen: Chosen) -> ChartEntry:
    """The chart in view: the one chosen, else the first; `NO_CHART` where there is none."""
    charts = document.charts
    return next((chart for chart in charts if chart.id == chosen.chart), charts[0] if charts else NO_CHART)


def page_in(document: Document, chosen: Chosen) -> Page:
    """The page in view: the one chosen, else the first; `NO_PAGE` where there is none."""
    pages = document.pages
    return next((page for page in pages if page.id == chosen.page), pages[0] if pages else NO_PAGE)


def make_ready(pictures: Pictures, document: Document, chosen: Chosen, looks_at_pages: bool) -> None:
    """Compute the values, and draw the page in view, or else the chart. What can't be drawn is told where it would be
    seen. Raises Cancelled where nobody waits for it any more, and KavletError where the formulas take too long."""
    pictures.values(document)
    chart, page = chart_in(document, chosen), page_in(document, chosen)
    try:
        if looks_at_pages and page is not NO_PAGE:
            pictures.page(document, page.id)
        elif chart is not NO_CHART:
            pictures.picture(document, chart.id)
    except Cancelled:
        raise
    except KavletError:
        return
