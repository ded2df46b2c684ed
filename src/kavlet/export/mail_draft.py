"""Charts and pages as a mail draft: pictures in the text, a PDF attached."""

from kavlet.core.files import mail
from kavlet.core.files.formats import ExportOptions
from kavlet.core.office_model.figure_table import figures_of
from kavlet.export.outgoing import Export, WrittenFile
from kavlet.export.pictures import pdf_of, png_of

SHOWN = 3  # pictures in the text at most; the PDF holds all


def draft(export: Export, options: ExportOptions) -> WrittenFile:
    """A draft to the addressees that are wished, with pictures shown in it and all of it as PDF."""
    pictures = export.page_pictures or export.chart_pictures
    inline_pictures = tuple(
        (png_of(figure_table.scene, options.scale), figure_table.scene.description) for figure_table in pictures[:SHOWN]
    )
    title = export.title or export.names[0]
    words = options.words or "\n\n".join(figure_table.scene.description for figure_table in pictures[:SHOWN])
    if not options.words and export.chart_pictures and not export.pages:
        words += "\n\n" + "\n\n".join(
            figure_table.text for picture_ in export.chart_pictures for figure_table in figures_of(picture_)
        )
    stem = "-".join("".join(sign if sign.isalnum() else " " for sign in title).lower().split()) or "chart"
    attached = (mail.Attachment(f"{stem}.pdf", pdf_of(export.scenes, title)),)
    return WrittenFile(
        mail.dumps(mail.MailDraft(options.to, options.subject or title, words, inline_pictures, attached))
    )
