"""Growth from zero or from nothing, and percentages of very few cases.

Source: common practice (percentages on a base of at least 30 cases).
"""

from collections.abc import Iterator

from kavlet.core.charts.looks import of_layer
from kavlet.core.document.charts.chart_edits import try_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.values.sums import exact_sum

MIN_CASES = 30


def check(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed; and labels of shares alone where whole numbers add up to few."""
    yield from subject.notices(CHECK.name, *_both(subject))
    for layer in subject.layers:
        label = layer.label
        if label is None or "{share}" not in label.template or "{value}" in label.template:
            continue
        figures = [figure for _, figure in subject.figures(layer)]
        how = subject.inputs.number_texts.get(layer.figure_column)
        base = exact_sum(figures)
        counts = all(figure.is_integer() and figure >= 0 for figure in figures)
        if (how is not None and how.style == "percent") or not counts or not 0 < base < MIN_CASES or len(figures) < 2:
            continue
        both = label.template.replace("{share}", "{share} ({value})")
        remedy = subject.looks(
            "both values", say("Show the figures too"), {of_layer(layer.key, "label", "template"): both}
        )
        message = say("The percentages are of {base} only; the figures themselves say more.", base=round(base))
        yield Finding(CHECK.name, "note", base, message, subject.place(layer=layer.key), (remedy,))
        return


def _both(subject: ChartSubject) -> Iterator[Remedy]:
    """Both figures as bars side by side, instead of their growth."""
    chart, before, after = subject.entry.id, subject.inputs.ids("before"), subject.inputs.ids("after")
    if not before or not after:
        return

    def edit(document: Document) -> Document:
        document = try_recipe(document, chart, "bars")
        roles = {**document.chart(chart).roles, "value": (*before, *after)}
        return change_chart(document, chart, roles=roles)

    yield Remedy("both values", say("Show both figures"), edit, restates=True)


CHECK = Check("no-base", "Growth from nothing, percentages of few", "common practice: 30 cases", of_chart=check)
