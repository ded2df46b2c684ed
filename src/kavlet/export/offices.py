"""Charts and pages as office files."""

from collections.abc import Iterable

import msgspec

from kavlet.core.files.formats import As, ExportOptions
from kavlet.core.messages import Message, say
from kavlet.core.office import docx, odp, ods, odt, pptx, xlsx
from kavlet.core.office.odf_chart import Differs
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office.writing_options import WritingOptions
from kavlet.core.office_model.chart_model import ChartModel
from kavlet.core.office_model.convert import plain_charts
from kavlet.core.office_model.page_model import AnyPart, ChartPart, PageModel
from kavlet.core.text.numbers import locale_of
from kavlet.core.values.colour import Colour
from kavlet.export.outgoing import Export, ExportNote, WrittenFile
from kavlet.export.pictures import png_of

NONE = Colour(1.0, 1.0, 1.0, 0.0)


def _language(export: Export) -> str:
    """The language of the texts as BCP 47 writes it, with a region, which some programs ask for."""
    locale = locale_of(export.document.locale)
    usual = {"en": "US", "de": "DE", "fr": "FR", "es": "ES", "it": "IT", "nl": "NL", "pt": "PT", "pl": "PL"}
    region = locale.territory or usual.get(locale.language)
    return f"{locale.language}-{region}" if region else str(locale.language)


def _manner(export: Export) -> WritingOptions:
    return WritingOptions(png_of, _language(export), export.title)


def _pages(export: Export, options: ExportOptions) -> tuple[PageModel, ...]:
    """All pages, each chart as it is wished."""

    def wished(part: AnyPart) -> AnyPart:
        if not isinstance(part, ChartPart):
            return part
        held = msgspec.structs.replace(part, as_=options.as_of.get(part.chart, options.as_))
        return held if options.ground else _bare(held)

    return tuple(msgspec.structs.replace(page, parts=tuple(map(wished, page.parts))) for page in export.plain_pages)


def _bare(part: ChartPart) -> ChartPart:
    """A chart without its ground."""
    charts = tuple(msgspec.structs.replace(chart, ground=NONE) for chart in part.charts)
    return msgspec.structs.replace(part, charts=charts, scene=msgspec.structs.replace(part.scene, ground=None))


def _once(messages: Iterable[Message]) -> tuple[Message, ...]:
    """Sentences in their order, each once."""
    unique: list[Message] = []
    for message in messages:
        if message not in unique:
            unique.append(message)
    return tuple(unique)


def _differs(charts: Iterable[ChartModel], as_: As, more: Differs | None) -> tuple[Message, ...]:
    """What looks different of the panels of a chart: as they are told, and as a format writes them."""
    if as_ == "picture":
        return ()
    if not all(chart.groups for chart in charts):
        return (say("it is a picture there, as it has more parts than a real chart may have"),)
    return _once(message for chart in charts for message in (*chart.differs, *(more or {}).get(chart.workings.id, ())))


def _told(pages: tuple[PageModel, ...], more: Differs | None = None) -> tuple[ExportNote, ...]:
    found = []
    for page in pages:
        for part in page.parts:
            if isinstance(part, ChartPart):
                found.append(ExportNote(part.name, part.as_, _differs(part.charts, part.as_, more), part.chart))
    return tuple(found)


def slides(export: Export, options: ExportOptions) -> WrittenFile:
    """PPTX: a slide for each page, or for each chart."""
    pages = _pages(export, options)
    return WrittenFile(pptx.presentation(pages, export.document.tables, _manner(export)), _told(pages))


def report(export: Export, options: ExportOptions) -> WrittenFile:
    """DOCX: page after page, or chart after chart."""
    pages = _pages(export, options)
    return WrittenFile(docx.report(pages, export.document.tables, _manner(export)), _told(pages))


def open_slides(export: Export, options: ExportOptions) -> WrittenFile:
    """ODP: a slide for each page, or for each chart."""
    pages = _pages(export, options)
    content, more = odp.presentation(pages, export.document.tables, _manner(export))
    return WrittenFile(content, _told(pages, more))


def open_report(export: Export, options: ExportOptions) -> WrittenFile:
    """ODT: page after page, or chart after chart."""
    pages = _pages(export, options)
    content, more = odt.report(pages, export.document.tables, _manner(export))
    return WrittenFile(content, _told(pages, more))


def _beside(export: Export, options: ExportOptions) -> list[xlsx.AnchoredChart]:
    made = []
    for picture in export.chart_pictures:
        entry = picture.build.entry
        charts = plain_charts(export.document, export.values, picture)
        scene = picture.scene
        if not options.ground:
            charts = tuple(msgspec.structs.replace(chart, ground=NONE) for chart in charts)
            scene = msgspec.structs.replace(scene, ground=None)
        as_ = options.as_of.get(entry.id, options.as_)
        made.append(xlsx.AnchoredChart(entry.table, entry.name, picture.figure.alt_text, charts, scene, as_))
    return made


def _beside_told(
    export: Export, beside: list[xlsx.AnchoredChart], more: Differs | None = None
) -> tuple[ExportNote, ...]:
    return tuple(
        ExportNote(one.name, one.as_, _differs(one.charts, one.as_, more), chart)
        for one, chart in zip(beside, export.charts, strict=True)
    )


def workbook(export: Export, options: ExportOptions) -> WrittenFile:
    """XLSX: a sheet for each table that the charts need (or for all), the charts beside theirs."""
    beside = _beside(export, options)
    charts = [chart for one in beside if one.as_ != "picture" for chart in one.charts]
    worksheets = sheets_for(export.document.tables, charts, export.whole, [one.table for one in beside])
    return WrittenFile(xlsx.workbook(worksheets, beside, _language(export), png_of), _beside_told(export, beside))


def open_workbook(export: Export, options: ExportOptions) -> WrittenFile:
    """ODS: a sheet for each table that the charts need (or for all), the charts beside theirs."""
    beside = _beside(export, options)
    charts = [chart for one in beside if one.as_ != "picture" for chart in one.charts]
    worksheets = sheets_for(export.document.tables, charts, export.whole, [one.table for one in beside])
    content, more = ods.workbook(worksheets, beside, _language(export), png_of)
    return WrittenFile(content, _beside_told(export, beside, more))
