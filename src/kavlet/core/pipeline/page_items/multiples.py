"""What a chart can be repeated over on pages, and the scale that all of its frames share."""

import math

from kavlet.core.document.charts import chart_edits
from kavlet.core.document.charts.period_steps import periods
from kavlet.core.document.charts.recipe_lookup import recipes_of, series_role
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.pages.page_edits import Repetition
from kavlet.core.messages import say
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.page import Page
from kavlet.core.pipeline.page_items.chart_frame import framed
from kavlet.core.pipeline.page_items.page_context import Draws
from kavlet.core.spreadsheet.cells import text_of
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect

MAX_MULTIPLES = 60
TRIED = Rect(0.0, 0.0, 320.0, 220.0)


def rows_of(document: Document, values: Values, chart: ChartEntry) -> dict[int, str]:
    """The rows, groups, series or periods that a chart can be repeated over, counted from 1, with their names.

    Raises KavletError for a chart that shows all there is at once.
    """
    recipe = recipes_of(document).get(chart.recipe)
    if recipe is not None and recipe.repeats is not None:
        return _figures(document, values, chart, recipe.repeats.of)
    found = periods(document, values, chart)
    if len(found) > 1:
        return dict(enumerate(found[:MAX_MULTIPLES], 1))
    columns = chart.roles.get(series_role(document, chart), ())
    if len(columns) > 1:
        table = document.table(chart.table)
        return {i: str(table.called(table.place(one))) for i, one in enumerate(columns[:MAX_MULTIPLES], 1)}
    raise KavletError(
        say("This chart has nothing to be repeated over."),
        remedy=say("Charts of one figure, of several series, or of periods have."),
    )


def repeated(document: Document, values: Values, chart: ChartEntry, draws: Draws) -> Repetition:
    """What a chart is repeated over on pages. Raises KavletError for one that shows all there is at once."""
    rows = rows_of(document, values, chart)
    entry = framed(ChartFrame("", chart=chart.id, row=next(iter(rows), None)), TRIED, document, Page("", ""))
    try:
        legend = len(draws(entry, f"{chart.id}/tried").figure.keys) > 1
    except KavletError:
        legend = False
    return Repetition(rows, ends_of(document, chart, rows, draws), legend)


def ends_of(document: Document, chart: ChartEntry, rows: dict[int, str], draws: Draws) -> tuple[float, float] | None:
    """The ends of one value scale that holds what all frames show; None where they share one anyway."""
    low, high = math.inf, -math.inf
    for row in rows:
        entry = framed(ChartFrame("", chart=chart.id, row=row), TRIED, document, Page("", ""))
        try:
            axes = draws(entry, f"{chart.id}/tried").figure.axes
        except KavletError:
            continue
        axis = next((one for one in axes if one.name in ("x", "y")), None)
        if axis is not None:
            low, high = min(low, axis.minimum), max(high, axis.maximum)
    return (low, high) if low < high else None


def _figures(document: Document, values: Values, chart: ChartEntry, over: str) -> dict[int, str]:
    """The rows that hold a figure, the first of each group where they are counted by name."""
    repeated = chart_edits.repeated(document, chart.id, True).chart(chart.id) if not chart.repeat else chart
    table = document.table(chart.table)
    columns = values.of(chart.table)

    def column(role: str) -> int:
        return table.place(next(iter(chart.roles.get(role, ())), ""))

    value, name = column("value"), column("name")
    figures: dict[int, str] = {}
    for row in range(HEADER, table.height):
        text = text_of(columns[name].values[row]) if name >= 0 else str(row)
        number = columns[value].values[row] if value >= 0 else None
        again = repeated.settings.get(over) == "group" and text in figures.values()
        if isinstance(number, float) and not math.isnan(number) and not again and len(figures) < MAX_MULTIPLES:
            figures[row + 1 - HEADER] = text
    return figures
