"""Charts and pages as a mail draft: pictures in the text, a PDF attached."""

from kavlet.core.files import mail
from kavlet.core.files.formats import ExportOptions
from kavlet.core.office_model.figure_table import figures_of
from kavlet.export.outgoing import Export, WrittenFile
from kavlet.export.pictures import pdf_of, png_of

SHOWN = 3  # pictures in the text at most; the PDF holds all


def draft(what: Export, wish: ExportOptions) -> WrittenFile:
    """A draft to the addressees that are wished, with pictures shown in it and all of it as PDF."""
    pictures = what.page_pictures or what.chart_pictures
    shown = tuple((png_of(one.scene, wish.scale), one.scene.description) for one in pictures[:SHOWN])
    title = what.title or what.names[0]
    words = wish.words or "\n\n".join(one.scene.description for one in pictures[:SHOWN])
    if not wish.words and what.chart_pictures and not what.pages:
        words += "\n\n" + "\n\n".join(one.text for made in what.chart_pictures for one in figures_of(made))
    stem = "-".join("".join(sign if sign.isalnum() else " " for sign in title).lower().split()) or "chart"
    attached = (mail.Attachment(f"{stem}.pdf", pdf_of(what.scenes, title)),)
    return WrittenFile(mail.dumps(mail.MailDraft(wish.to, wish.subject or title, words, shown, attached)))
