"""Rows without an order of their own that stand as they came, where sorted they would be compared at a glance.

Source: common practice (more than five rows); W. S. Cleveland, The Elements of Graphing Data (1985), on ordering.
"""

import math
import re
from collections.abc import Iterator
from itertools import pairwise

from kavlet.core.document.document import Document
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.chart_changes import sorted_rows
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject

MAX_ROWS = 5
_RANKS = frozenset(
    (
        *("first", "second", "third", "fourth", "fifth", "low", "lower", "medium", "high", "higher", "small", "large"),
        *("never", "seldom", "sometimes", "often", "always", "none", "some", "most", "all", "disagree", "agree"),
        *("erste", "zweite", "dritte", "niedrig", "mittel", "hoch", "klein", "groß", "nie", "selten", "manchmal"),
        *("oft", "immer"),
    )
)


def has_order(names: list[str]) -> bool:
    """Whether names have an order of their own: most hold a number, or are words of a rank."""
    held = [name for name in names if name]
    ranked = sum(
        bool(re.search(r"\d", name)) or bool(_RANKS & set(re.findall(r"\w+", name.casefold()))) for name in held
    )
    return 2 * ranked > len(held)


def check(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed; and a single series of bars, symbols or parts in the table's order."""
    yield from subject.notices(CHECK.name, *(() if subject.inputs.totals else (_sort_table(subject, restates=True),)))
    single = [one for one in subject.layers if one.figure_column == subject.inputs.id("value")] or subject.layers
    recipe = subject.picture.recipe
    compared = all(kind_of(one).is_compared for one in subject.layers)
    if recipe is None or recipe.ordered or not compared or len(subject.inputs.ids("value")) != 1:
        return
    names = subject.inputs.names
    data = subject.picture.build.panels[0].data
    if len(subject.picture.build.panels) > 1 or data.timed or has_order(names) or not any(names) or not single:
        return
    if _in_order(subject):
        return
    parts = subject.inputs.rows - (len(subject.inputs.totals) if subject.inputs.counts_totals else 0)
    figures = [float(one) for one in subject.inputs.figures("value")[:parts] if math.isfinite(one)]
    if len(figures) <= MAX_ROWS:
        return
    rising, falling = (
        all(a <= b for a, b in pairwise(figures)), all(a >= b for a, b in pairwise(figures))
    )  # fmt: skip
    if rising or falling:
        return
    message = say("{count} rows stand in no order; sorted, they would be compared at a glance.", count=len(figures))
    yield Finding(CHECK.name, "note", float(len(figures)), message, subject.place(), (_sort(subject),))


def _in_order(subject: ChartSubject) -> bool:
    held = subject.picture.recipe.sorted_by if subject.picture.recipe is not None else None
    return held is not None and subject.inputs.settings.get(held[0]) == held[1]


def _sort(subject: ChartSubject) -> Remedy:
    held = subject.picture.recipe.sorted_by if subject.picture.recipe is not None else None
    if held is not None:
        return subject.setting("sort", say("Sort by value"), {held[0]: held[1]})
    return _sort_table(subject)


def _sort_table(subject: ChartSubject, restates: bool = False) -> Remedy:
    chart = subject.entry.id

    def edit(document: Document) -> Document:
        return sorted_rows(document, chart, subject)

    return Remedy("sort", say("Sort the table by value"), edit, restates)


CHECK = Check("unsorted", "Rows in no order that sorted would say more", "common practice", of_chart=check)
