"""A cap that hides more than half of a bar, or cuts more than a third of all bars.

Source: common practice; a bar cut once, with a break and its true value, is read as the exception it is.
"""

import math
from collections.abc import Iterator

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.overrides import TYPE
from kavlet.core.document.charts.chart_edits import try_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.document.looks import look_edits
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy, Severity
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.recipes.building_blocks import series_key

MAX_HIDDEN, MAX_CAPPED = 0.5, 1 / 3


def hidden(true: float, shown: float) -> float:
    """The share of a bar that a cap hides."""
    return max(0.0, 1 - abs(shown) / abs(true)) if true else 0.0


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The bar that is cut most is named."""
    data, recipe = subject.picture.build.panels[0].data, subject.picture.recipe
    if recipe is not None and recipe.repeats is not None:
        return  # a tube that is full says so itself
    for layer in subject.layers:
        if not kind_of(layer).on_zero or layer.figure_column == layer.values:
            continue
        true_values = data.column(layer.figure_column)
        rows = [
            (hidden(float(true), float(shown_value)), row)
            for row, true, shown_value in zip(data.ids, true_values, data.column(layer.values), strict=False)
            if math.isfinite(true) and math.isfinite(shown_value)
        ]
        cut_rows = [entry for entry in rows if entry[0] > 1e-9]
        if not cut_rows:
            continue
        most, row = max(cut_rows)
        many = len(cut_rows) / len(rows)
        if most <= MAX_HIDDEN and many <= MAX_CAPPED:
            continue
        if most > MAX_HIDDEN:
            message = say("The cap hides {share}\u00a0% of a bar, more than half of it.", share=round(100 * most))
        else:
            message = say(
                "The cap cuts {count} of {rows} bars, more than a third.", count=len(cut_rows), rows=len(rows)
            )
        figure = most if most > MAX_HIDDEN else many
        place = subject.place(layer=layer.key, row=row)
        severity: Severity = "warning" if many > MAX_CAPPED else "note"  # one that is cut is the exception it looks
        yield Finding(CHECK.name, severity, figure, message, place, tuple(_remedies(subject, layer)))


def _remedies(subject: ChartSubject, layer: AnyLayer) -> Iterator[Remedy]:
    data = subject.picture.build.panels[0].data
    true = sorted(abs(float(one)) for one in data.column(layer.figure_column) if math.isfinite(one))
    if subject.has_setting("cap") and true and true[-1] > 0:
        free = true[max(0, len(true) - 1 - int(len(true) * MAX_CAPPED))]  # at most a third stand above it
        cap = max(true[-1] * (1 - MAX_HIDDEN), free)
        yield subject.setting("raise cap", say("Raise the cap"), {"cap": _above(cap)})
    if not subject.entry.recipe or not true or true[0] <= 0 or not subject.inputs.has("value"):
        return
    chart, column = subject.entry.id, subject.inputs.ids("value")

    def edit(document: Document) -> Document:
        document = try_recipe(document, chart, "bars")
        document = change_chart(document, chart, roles={**document.chart(chart).roles, "value": column})
        looks = {of_layer(series_key(0), *TYPE): "points", "frame.along.kind": "log", "frame.along.minimum": None}
        return look_edits.set_looks(document, chart, looks)

    yield Remedy("log points", say("Draw points on a logarithmic scale"), edit, restates=True)


def _above(number: float) -> float:
    """The number, rounded up to two digits."""
    power = 10.0 ** (math.floor(math.log10(number)) - 1)
    return float(f"{math.ceil(number / power - 1e-9) * power:.12g}")


CHECK = Check("capped", "A cap that hides too much", "common practice: half a bar, a third of all", of_chart=check)
