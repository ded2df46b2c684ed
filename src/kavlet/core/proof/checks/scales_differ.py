"""Charts of the same measure on one page, on scales that differ.

Source: E. R. Tufte, Envisioning Information (1990): small multiples are compared on one scale.
"""

from collections.abc import Iterator

import msgspec

from kavlet.core.charts.frame import Cartesian
from kavlet.core.document.document import Document
from kavlet.core.document.pages.page_edits import change_items
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject

SAME = 0.01  # of the longer scale, that the ends of two scales may differ
ALIKE = 0.15  # by which frames may differ in size and still be compared with each other


def check(subject: PageSubject) -> Iterator[Finding]:
    """Charts by the same recipe, of a column called the same and written alike, in frames of about the same size."""
    groups: dict[tuple[object, ...], list[tuple[ChartSubject, tuple[float, float]]]] = {}
    for chart_subject in subject.charts.values():
        frame = chart_subject.chart.frame
        if not isinstance(frame, Cartesian) or not chart_subject.layers or frame.along.kind == "log":
            continue
        ends, column = chart_subject.ends(chart_subject.layers[0]), chart_subject.inputs.title("value")
        if ends is None or not column:
            continue
        how = chart_subject.inputs.number_text("value")
        key = (column.casefold(), how.style, how.suffix, frame.lying, chart_subject.entry.recipe)
        groups.setdefault(key, []).append((chart_subject, ends))
    for same in groups.values():
        longest = max(high - low for _, (low, high) in same)
        first = same[0][1]
        differ = max(max(abs(low - first[0]), abs(high - first[1])) for _, (low, high) in same)
        if len(same) < 2 or differ <= SAME * longest or not _alike([chart_subject for chart_subject, _ in same]):
            continue
        low, high = min(ends[0] for _, ends in same), max(ends[1] for _, ends in same)
        items = [chart_subject.item for chart_subject, _ in same]
        page = subject.page.id

        def edit(
            document: Document, items: list[str] = items, low: float = low, high: float = high, page: str = page
        ) -> Document:
            return change_items(document, page, lambda item: msgspec.structs.replace(item, low=low, high=high), items)

        message = say(
            "{count} charts show {what} on different scales, so their lengths can’t be compared.",
            count=len(same),
            what=same[0][0].inputs.title("value"),
        )
        remedy = Remedy("same scale", say("Give them the same scale"), edit)
        yield Finding(CHECK.name, "warning", differ / longest, message, subject.place(items[0]), (remedy,))


def _alike(charts: list[ChartSubject]) -> bool:
    sizes = [(subject.figure.size.width, subject.figure.size.height) for subject in charts]
    return all(
        max(side) - min(side) <= ALIKE * max(side) for side in ([w for w, _ in sizes], [h for _, h in sizes])
    )  # fmt: skip


CHECK = Check("scales-differ", "Charts of one measure on different scales", "Tufte 1990", of_page=check)
