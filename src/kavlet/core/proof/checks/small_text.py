"""Type too small to be read: on paper, or from the last row.

Source: common practice (7 pt on paper, 14 pt on a slide, at the final size).
"""

from collections.abc import Iterator

import msgspec

from kavlet.core.document.document import Document
from kavlet.core.document.pages.page_edits import change_item
from kavlet.core.messages import Message, say
from kavlet.core.pages.items.words import Words
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject

PAPER, SLIDE = 7.0, 14.0
SLACK = 0.05
"""Points; sizes are shares of others, and so are not round."""


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The smallest text of a chart by itself, which is for paper."""
    yield from _chart(subject, PAPER)


def page(subject: PageSubject) -> Iterator[Finding]:
    """The smallest text of each chart and of each item of words on a page."""
    least = SLIDE if subject.page.is_slide else PAPER
    for chart_subject in subject.charts.values():
        yield from _chart(chart_subject, least)
    for item in subject.page.items:
        if isinstance(item, Words):
            sizes = [run.size for paragraph in item.paragraphs for run in paragraph.runs if run.size is not None]
            own_sizes = [*sizes, *([item.size] if item.size is not None else [])]
            if own_sizes and min(own_sizes) < least - SLACK:
                yield Finding(
                    CHECK.name,
                    "note",
                    min(own_sizes),
                    _said(min(own_sizes), least),
                    subject.place(item.id),
                    (_words(subject, item, least),),
                )


def _chart(subject: ChartSubject, least: float) -> Iterator[Finding]:
    texts = [text for text in subject.figure.texts if text.text]
    if not texts:
        return
    smallest = min(texts, key=lambda text: text.size)
    if smallest.size >= least - SLACK:
        return
    yield Finding(
        CHECK.name, "note", smallest.size, _said(smallest.size, least), subject.text_place(smallest),
        tuple(_larger(subject, smallest.size, least)),
    )  # fmt: skip


def _said(size: float, least: float) -> Message:
    return (
        say("The smallest type is {size} pt; on paper, {least} pt is the least.", size=round(size, 1), least=least)
        if least == PAPER
        else say(
            "The smallest type is {size} pt; on a slide, {least} pt is the least.", size=round(size, 1), least=least
        )
    )


def _larger(subject: ChartSubject, size: float, least: float) -> Iterator[Remedy]:
    """All type of the chart larger in proportion; sizes set by hand that are too small are given back."""
    overrides = subject.entry.dress.overrides
    sizes = [
        path
        for path, value in overrides.items()
        if path.endswith("size") and isinstance(value, float | int) and value < least and "title" not in path
    ]
    old_scale = float(subject.chart.type_scale or 1.0)
    looks: dict[str, float | None] = dict.fromkeys(sizes)
    if not sizes:
        looks["type_scale"] = round(old_scale * least / size + 0.005, 2)
    yield subject.looks("larger text", say("Larger type"), looks)


def _words(subject: PageSubject, item: Words, least: float) -> Remedy:
    def edit(document: Document) -> Document:
        paragraphs = tuple(
            msgspec.structs.replace(
                paragraph,
                runs=tuple(
                    msgspec.structs.replace(run, size=max(run.size, least) if run.size is not None else None)
                    for run in paragraph.runs
                ),
            )
            for paragraph in item.paragraphs
        )
        size = max(item.size, least) if item.size is not None else None
        return change_item(document, subject.page.id, item.id, paragraphs=paragraphs, size=size)

    return Remedy("larger text", say("Larger type"), edit)


CHECK = Check(
    "small-text", "Type too small to be read", "common practice: 7 pt on paper, 14 pt on slides",
    of_chart=check, of_page=page,
)  # fmt: skip
