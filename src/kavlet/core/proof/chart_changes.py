"""Remedies that turn a chart into another one, which shows the same figures."""

from collections.abc import Callable, Iterator
from itertools import islice

from kavlet.core.charts.layer import Stacking
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.overrides import TYPE
from kavlet.core.document.charts.chart_edits import try_recipe
from kavlet.core.document.charts.recipe_lookup import find_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages.page_edits import change_item
from kavlet.core.document.tables.evaluated_table import values_of
from kavlet.core.document.tables.row_order import sort_rows
from kavlet.core.layout.furniture import shrink
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.pipeline.stages import Picture
from kavlet.core.proof.finding import Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.spreadsheet.cells import Value
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.errors import KavletError

LARGER = (1.25, 1.5, 2.0, 3.0)
MAX_TRIED = 150  # marks of a chart that is tried
PLAIN_SCALE = {f"frame.along.{field}": None for field in ("kind", "minimum", "maximum")}


def to_bars(subject: ChartSubject, stack: str) -> tuple[Remedy, ...]:
    """The chart as bars that stand side by side, or as bars of 100 %."""
    chart, entry = subject.entry.id, subject.entry
    if not entry.recipe:
        return ()

    def edit(document: Document) -> Document:
        recipe_ = find_recipe(document, document.chart(chart).recipe)
        if recipe_.parameter("stack") is None or not recipe_.series:
            document = try_recipe(document, chart, "bars")
        looks = {of_layer(layer.key, "stack"): None for layer in subject.chart.layers}
        document = look_edits.set_looks(document, chart, looks | PLAIN_SCALE)
        return look_edits.set_setting(document, chart, "stack", stack)

    return (Remedy("bars", say("Draw bars instead"), edit, restates=True),)


def tried(subject: ChartSubject, remedy: Remedy) -> Picture | None:
    """The chart's picture after a remedy whose effect depends on the room there is; None for a chart of so many marks
    that it takes long, or one that can't be drawn then."""
    if len(subject.marks) > MAX_TRIED or remedy.edit is None:
        return None
    try:
        document, pictures = remedy.edit(subject.document), Pictures()
        if subject.page is None:
            return pictures.picture(document, subject.entry.id)
        return pictures.page(document, subject.page.id).made[subject.item].picture
    except KavletError:
        return None


def larger_chart(subject: ChartSubject, good: Callable[[Picture], bool]) -> tuple[Remedy, ...]:
    """The chart, or its frame on a page, as large as makes its picture good, with the type it has; nothing where three
    times as large is not enough."""
    entry, page, item = subject.entry, subject.page, subject.item
    type_scale = {"type_scale": subject.chart.type_scale or shrink(subject.figure.size)}

    def sized(document: Document, by: float) -> Document:
        if page is not None:
            box = document.page(page.id).item(item).box
            return change_item(document, page.id, item, bay=None, width=by * box.width, height=by * box.height)
        larger = change_chart(document, entry.id, width=by * entry.width, height=by * entry.height)
        return look_edits.set_looks(larger, entry.id, type_scale)

    def by(factor: float) -> Remedy:
        return Remedy("larger", say("Make it larger"), lambda document: sized(document, factor))

    fitting = (remedy for remedy in map(by, LARGER) if (larger := tried(subject, remedy)) is not None and good(larger))
    return tuple(islice(fitting, 1))


def to_points(subject: ChartSubject) -> Iterator[Remedy]:
    """Bars that stand by themselves as points, whose places are read instead of their lengths."""
    bars = [layer for layer in subject.layers if kind_of(layer).on_zero]
    alone = all(isinstance(layer, Stacking) and layer.stack == "none" for layer in bars)
    if bars and alone and not subject.chart.as_solid and not any(layer.joins for layer in subject.chart.layers):
        looks = {of_layer(layer.key, *TYPE): "points" for layer in bars}
        yield subject.looks("turn to points", say("Draw points instead"), looks, restates=True)


def to_sorted_bars(subject: ChartSubject) -> tuple[Remedy, ...]:
    """The chart as bars, the largest first."""
    chart = subject.entry.id
    if not subject.entry.recipe or not subject.inputs.has("value"):
        return ()

    def edit(document: Document) -> Document:
        document = try_recipe(document, chart, "highlight-bars")
        document = look_edits.set_looks(document, chart, PLAIN_SCALE)
        document = look_edits.set_setting(document, chart, "direction", "lying")
        return sorted_rows(document, chart, subject)

    return (Remedy("sorted bars", say("Draw bars, the largest first"), edit, restates=True),)


def sorted_rows(document: Document, chart: str, subject: ChartSubject) -> Document:
    """The chart's table with its rows of figures by value, the largest first; total rows stay at its end."""
    entry = document.chart(chart)
    table = document.table(entry.table)
    place = table.place(subject.inputs.id("value"))
    if place < 0:
        return document
    held = values_of(document.tables).of(entry.table)[place].values[HEADER:]
    counted = subject.inputs.rows - (len(subject.inputs.totals) if subject.inputs.counts_totals else 0)
    rows: list[Value] = [value if row < counted else None for row, value in enumerate(held)]
    return sort_rows(document, entry.table, rows, descending=True)
