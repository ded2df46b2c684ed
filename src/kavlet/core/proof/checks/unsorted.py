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


def check(of: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed; and a single series of bars, symbols or parts in the table's order."""
    yield from of.notices(CHECK.name, *(() if of.inputs.totals else (_sort_table(of, restates=True),)))
    single = [one for one in of.layers if one.figure_column == of.inputs.id("value")] or of.layers
    recipe = of.picture.recipe
    compared = all(kind_of(one).is_compared for one in of.layers)
    if recipe is None or recipe.ordered or not compared or len(of.inputs.ids("value")) != 1:
        return
    names = of.inputs.names
    data = of.picture.build.panels[0].data
    if len(of.picture.build.panels) > 1 or data.timed or has_order(names) or not any(names) or not single:
        return
    if _in_order(of):
        return
    parts = of.inputs.rows - (len(of.inputs.totals) if of.inputs.counts_totals else 0)
    figures = [float(one) for one in of.inputs.figures("value")[:parts] if math.isfinite(one)]
    if len(figures) <= MAX_ROWS:
        return
    rising, falling = (
        all(a <= b for a, b in pairwise(figures)), all(a >= b for a, b in pairwise(figures))
    )  # fmt: skip
    if rising or falling:
        return
    message = say("{count} rows stand in no order; sorted, they would be compared at a glance.", count=len(figures))
    yield Finding(CHECK.name, "note", float(len(figures)), message, of.place(), (_sort(of),))


def _in_order(of: ChartSubject) -> bool:
    held = of.picture.recipe.sorted_by if of.picture.recipe is not None else None
    return held is not None and of.inputs.settings.get(held[0]) == held[1]


def _sort(of: ChartSubject) -> Remedy:
    held = of.picture.recipe.sorted_by if of.picture.recipe is not None else None
    if held is not None:
        return of.setting("sort", say("Sort by value"), {held[0]: held[1]})
    return _sort_table(of)


def _sort_table(of: ChartSubject, restates: bool = False) -> Remedy:
    chart = of.entry.id

    def edit(document: Document) -> Document:
        return sorted_rows(document, chart, of)

    return Remedy("sort", say("Sort the table by value"), edit, restates)


CHECK = Check("unsorted", "Rows in no order that sorted would say more", "common practice", of_chart=check)
