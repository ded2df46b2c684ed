"""A document on its way from one to another: numbers and periods go straight from old to new."""

import msgspec

from kavlet.core.document.charts.period_steps import steps_of
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber
from kavlet.core.spreadsheet.table import Table


def number(cell: Cell) -> float | None:
    """The number that stands in a cell; None where there is none, or it is computed."""
    if isinstance(cell, FormattedNumber):
        return float(cell.value)
    return float(cell) if isinstance(cell, float | int) and not isinstance(cell, bool) else None


def with_value(cell: Cell, value: float) -> Cell:
    """A cell with another number, written as the one before."""
    return msgspec.structs.replace(cell, value=value) if isinstance(cell, FormattedNumber) else value


def between(old: Document, new: Document, share: float) -> Document:
    """A document on its way from one to another that differs in numbers and periods: `share` from 0 to 1.

    Every number goes straight from its old to its new value, so none ever leaves the span between the two.
    """
    if share >= 1 or old is new:
        return new

    def cell(before: Cell, after: Cell) -> Cell:
        start, end = number(before), number(after)
        if before is after or start is None or end is None or start == end:
            return after
        return with_value(after, start + (end - start) * share)

    def table(before: Table, after: Table) -> Table:
        if before is after or len(before.columns) != len(after.columns) or before.height != after.height:
            return after
        columns = tuple(
            two
            if one is two
            else msgspec.structs.replace(
                two, cells=tuple(cell(a, b) for a, b in zip(one.cells, two.cells, strict=True))
            )
            for one, two in zip(before.columns, after.columns, strict=True)
        )
        return msgspec.structs.replace(after, columns=columns)

    def chart(before: ChartEntry, after: ChartEntry) -> ChartEntry:
        steps = steps_of(new, after) if before is not after else None
        if steps is None:
            return after
        start, end = (one.settings.get(steps.parameter, 1.0) for one in (before, after))
        if not isinstance(start, int | float) or not isinstance(end, int | float) or start == end:
            return after
        settings = {**after.settings, steps.parameter: start + (end - start) * share}
        return msgspec.structs.replace(after, settings=settings)

    tables = {one.id: one for one in old.tables}
    charts = {one.id: one for one in old.charts}
    return fitted(msgspec.structs.replace(
        new,
        tables=tuple(table(tables.get(one.id, one), one) for one in new.tables),
        charts=tuple(chart(charts.get(one.id, one), one) for one in new.charts),
    ))  # fmt: skip
