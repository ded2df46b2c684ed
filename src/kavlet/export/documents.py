"""Charts and pages as texts for other programs: one HTML file, a mail draft, the record as JSON."""

from kavlet.core.files import mail, record
from kavlet.core.files.formats import ExportOptions
from kavlet.core.office_model.figure_table import FigureTable, figures_of
from kavlet.core.pipeline.page_items import page_picture as paging
from kavlet.core.proof.findings_json import findings_json
from kavlet.core.proof.proofreading import drawn_chart, drawn_page, of_chart, of_page
from kavlet.core.web.html import WebPage, WebStep, dumps
from kavlet.export.outgoing import Export, WrittenFile, slug
from kavlet.export.pictures import pdf_of, png_of

SHOWN = 3  # pictures in the text at most; the PDF holds all


def mail_draft(export: Export, options: ExportOptions) -> WrittenFile:
    """A draft to the addressees that are wished, with pictures shown in it and all of it as PDF."""
    pictures = export.page_pictures or export.chart_pictures
    inline_pictures = tuple(
        (png_of(picture.scene, options.scale), picture.scene.description) for picture in pictures[:SHOWN]
    )
    title = export.title or export.names[0]
    words = options.words or "\n\n".join(picture.scene.description for picture in pictures[:SHOWN])
    if not options.words and export.chart_pictures and not export.pages:
        words += "\n\n" + "\n\n".join(
            figure_table.text for picture in export.chart_pictures for figure_table in figures_of(picture)
        )
    attached = (mail.Attachment(f"{slug(title)}.pdf", pdf_of(export.scenes, title)),)
    return WrittenFile(
        mail.dumps(mail.MailDraft(options.to, options.subject or title, words, inline_pictures, attached))
    )


def record_of(export: Export) -> bytes:
    """The record of one chart or page, or of several."""
    made = pages_told(export) if export.pages else charts_told(export)
    return record.dumps(made[0] if len(made) == 1 else made)


def charts_told(export: Export) -> list[dict[str, object]]:
    """What is told of each chart."""
    records = []
    for picture in export.chart_pictures:
        findings = findings_json(of_chart(drawn_chart(export.document, export.values, picture)), export.document)
        records.append(record.record(picture.build.entry.recipe, picture.build.helpers, picture.figure, findings))
    return records


def pages_told(export: Export) -> list[dict[str, object]]:
    """What is told of each page."""
    return [
        {
            **paging.record(one),
            "findings": findings_json(of_page(drawn_page(export.document, export.values, one)), export.document),
        }
        for one in export.page_pictures
    ]


MAX_STEPS = 60


def html_page(export: Export, options: ExportOptions) -> WrittenFile:
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
