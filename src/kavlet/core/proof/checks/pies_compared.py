"""Several pies of the same parts on one page, which ask to be compared angle by angle.

Source: W. S. Cleveland and R. McGill 1984 (J. American Statistical Association 79(387)): angles are compared less
exactly than lengths from one line.
"""

from collections.abc import Iterator

from kavlet.core.document.charts.chart_edits import try_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.document.pages.page_edits import delete_items
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject


def check(subject: PageSubject) -> Iterator[Finding]:
    """Each set of names that two pies or more share."""
    pies: dict[frozenset[str], list[ChartSubject]] = {}
    for one in subject.charts.values():
        names = frozenset(name for name in one.inputs.names if name)
        if names and one.layers and all(kind_of(layer).mark.has_slices for layer in one.layers):
            pies.setdefault(names, []).append(one)
    for same in pies.values():
        if len(same) < 2 or len({one.entry.id for one in same}) < 2:
            continue
        message = say("{count} pies show the same parts; readers compare lengths better than angles.", count=len(same))
        yield Finding(
            CHECK.name, "note", float(len(same)), message, subject.place(same[0].item), tuple(_remedies(subject, same))
        )


def _remedies(subject: PageSubject, pies: list[ChartSubject]) -> Iterator[Remedy]:
    first = pies[0]
    columns = [one.inputs.id("value") for one in pies]
    together = len({one.entry.table for one in pies}) == 1 and len(set(columns)) == len(pies)
    page, chart = subject.page.id, first.entry.id
    spare = [one.item for one in pies[1:]]
    if together and len(pies) == 2:

        def growth(document: Document) -> Document:
            document = try_recipe(document, chart, "growth-bars")
            roles = {**document.chart(chart).roles, "before": (columns[0],), "after": (columns[1],)}
            return delete_items(change_chart(document, chart, roles=roles), page, spare)

        yield Remedy("growth bars", say("Draw how they changed"), growth, restates=True)
    if together:

        def beside(document: Document) -> Document:
            document = try_recipe(document, chart, "bars")
            roles = {**document.chart(chart).roles, "value": tuple(columns)}
            return delete_items(change_chart(document, chart, roles=roles), page, spare)

        yield Remedy("bars beside", say("Draw bars side by side"), beside, restates=True)
        return

    def each(document: Document) -> Document:
        for one in dict.fromkeys(pie.entry.id for pie in pies):
            document = try_recipe(document, one, "bars")
        return document

    yield Remedy("bars", say("Draw bars instead"), each, restates=True)


CHECK = Check("pies-compared", "Pies of the same parts on one page", "Cleveland and McGill 1984", of_page=check)
