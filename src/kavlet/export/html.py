"""Charts and pages as one HTML file."""

from kavlet.core.files.formats import ExportOptions
from kavlet.core.office_model.figure_table import FigureTable, figures_of
from kavlet.core.web.html import WebPage, WebStep, dumps
from kavlet.export.outgoing import Export, WrittenFile

MAX_STEPS = 60


def page(export: Export, options: ExportOptions) -> WrittenFile:
    """All charts or pages below each other, on light and dark ground, with steps and figures."""
    del options
    sheets = []
    for place, name in enumerate(export.names):
        one = export.alone(place)
        periods = one.periods(0)[:MAX_STEPS]
        steps = []
        for number, period in enumerate(periods or ("",), 1):
            here = one.at(float(number)) if periods else one
            steps.append(WebStep(period, here.on(False).scenes[0], here.on(True).scenes[0]))
        sheets.append(WebPage(name, tuple(steps), _figures(one), _described(one)))
    return WrittenFile(dumps(sheets, export.title or export.names[0], export.document.locale, export.is_dark).encode())


def _described(export: Export) -> tuple[str, ...]:
    """All that each chart shows, in words."""
    pictures = [
        entry.picture for page_picture_ in export.page_pictures for entry in page_picture_.made.values()
    ] or export.chart_pictures
    return tuple(entry.figure.long_text for entry in pictures if entry is not None and entry.figure.long_text)


def _figures(export: Export) -> tuple[FigureTable, ...]:
    if not export.pages:
        return figures_of(export.chart_pictures[0])
    composed_items = export.page_pictures[0].made.values()
    return tuple(
        figure_table
        for composed_item in composed_items
        if composed_item.picture is not None
        for figure_table in figures_of(composed_item.picture)
    )
