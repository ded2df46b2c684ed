"""What names a chart and its figures, where it is missing: a title, a source line on a page, an alt text that is true.

Source: WCAG 2.2, 1.1.1 (alternatives in text) and 2.4.2 (titles); common practice (a source for figures on a page).
"""

from collections.abc import Iterator

import msgspec

from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.document.pages.page_edits import change_item, change_page
from kavlet.core.messages import say
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.words import Words
from kavlet.core.pages.page import MARGIN_SOURCE
from kavlet.core.pipeline.alt_text import headline, in_english
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject

SOURCES = ("source", "quelle", "data:", "daten:", "figures:", "zahlen:")  # what a source line begins with


def check(subject: ChartSubject) -> Iterator[Finding]:
    """No title, or one that is only the table's or the chart's name; an alt text whose figures have moved on."""
    entry = subject.entry
    title = subject.figure.title.strip()
    bare = {entry.name.casefold(), subject.table.name.casefold()}
    if not title or (title.casefold() in bare and not entry.title.startswith("=")):
        message = (
            say("The chart has no title.") if not title else say("The title “{title}” is only a name.", title=title)
        )
        said = _headline(subject)
        write = Remedy(
            "write title", say("Write it from the figures"),
            lambda document: change_chart(document, entry.id, title=said),
        )  # fmt: skip
        yield Finding(CHECK.name, "note", 0.0, message, subject.place(text="title"), (write,) if said else ())
    if entry.alt is not None:
        yield from _alt(subject)


def _alt(subject: ChartSubject) -> Iterator[Finding]:
    entry = subject.entry
    assert entry.alt is not None
    message_text = message_now(subject)
    back = Remedy(
        "write alt text", say("Write it from the figures"), lambda document: change_chart(document, entry.id, alt=None)
    )
    if not entry.alt.text.strip():
        yield Finding(CHECK.name, "warning", 0.0, say("The alt text is empty."), subject.place(text="alt"), (back,))
        return
    if entry.alt.message == message_text:
        return

    def keep(document: Document) -> Document:
        alt_text_ = document.chart(entry.id).alt
        assert alt_text_ is not None
        return change_chart(document, entry.id, alt=msgspec.structs.replace(alt_text_, message=message_text))

    message = say("The alt text was written for other figures: they have moved on since.")
    leave = Remedy("keep alt text", say("It is still true"), keep)
    yield Finding(CHECK.name, "warning", 1.0, message, subject.place(text="alt"), (back, leave))


def message_now(subject: ChartSubject) -> str:
    """The message of the figures as they are, in English."""
    build = subject.picture.build
    data = build.panels[0].data
    return in_english(subject.entry, subject.picture.recipe, build.inputs, data)


def _headline(subject: ChartSubject) -> str:
    """A title from the figures, else what they are figures of; empty where that is the name it has."""
    build = subject.picture.build
    headline_text = headline(subject.entry, subject.picture.recipe, build.inputs, subject.chart, build.panels[0].data)
    names = {subject.entry.name.casefold(), subject.table.name.casefold()}
    return next(
        (
            candidate
            for candidate in (headline_text, subject.inputs.title("value"))
            if candidate and candidate.casefold() not in names
        ),
        "",
    )


def page(subject: PageSubject) -> Iterator[Finding]:
    """A page with charts and no line that tells where the figures come from; pictures without an alt text."""
    framed = [item for item in subject.page.items if isinstance(item, ChartFrame) and item.id in subject.charts]
    shown_texts = [text for chart_subject in subject.charts.values() for text in chart_subject.texts("source")]
    lines = [item.text for item in subject.page.items if isinstance(item, Words)] + [
        subject.page.header,
        subject.page.footer,
    ]
    is_named = any(
        line.strip().casefold().startswith(SOURCES) or MARGIN_SOURCE in line
        for text in lines for line in text.split("\n")
    )  # fmt: skip
    if framed and not shown_texts and not is_named:
        hidden = [item for item in framed if not item.title and subject.document.chart(item.chart).source]
        remedies = (
            tuple(_footer(subject))
            if hidden or any(chart_subject.entry.source for chart_subject in subject.charts.values())
            else ()
        )
        yield Finding(
            CHECK.name,
            "note",
            0.0,
            say("The page says nowhere where its figures come from."),
            subject.place(),
            remedies,
        )
    for item in subject.page.items:
        if isinstance(item, PlacedPicture) and not item.alt.strip():
            message = say("The picture “{name}” has no alt text.", name=item.picture)
            yield Finding(CHECK.name, "note", 0.0, message, subject.place(item.id), (_name(subject.page.id, item),))


def _name(page: str, item: PlacedPicture) -> Remedy:
    """The picture's name, as words, for its alt text."""
    called = item.picture.replace("-", " ").replace("_", " ")
    name = say("Say what it is called")
    return Remedy("name picture", name, lambda document: change_item(document, page, item.id, alt=called))


def _footer(subject: PageSubject) -> Iterator[Remedy]:
    """The charts' source line in the page's lower margin."""
    if not subject.page.footer:
        name = say("Put the source into the lower margin")
        yield Remedy("source line", name, lambda document: change_page(document, subject.page.id, footer=MARGIN_SOURCE))


CHECK = Check(
    "title-missing", "A title, source line or alt text that is missing or not true", "WCAG 2.2, 1.1.1 and 2.4.2",
    of_chart=check, of_page=page,
)  # fmt: skip
