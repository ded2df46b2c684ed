"""The helper values of a chart that is shown otherwise than the document shows it: of another row, group or period."""

from kavlet.core.document.document import ChartEntry, Document, with_chart
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.spreadsheet.recalculate import Values, recalculate


def framed_values(document: Document, values: Values, entry: ChartEntry) -> tuple[Document, Values]:
    """The document and its values as they are where a chart is as `entry` says: its helper columns have the same
    formulas, evaluated for it. The document itself where they would be no others."""
    held = document.chart(entry.id)
    if _fits(held) == _fits(entry):
        return document, values
    made = fitted(with_chart(document, entry), document)
    if made.table(entry.table) is document.table(entry.table):
        return document, values
    return made, recalculate(made.tables, values)


def _fits(entry: ChartEntry) -> tuple[object, ...]:
    """All that a chart's helper columns follow from."""
    return entry.recipe, entry.table, entry.roles, entry.settings, entry.totals, entry.reading
