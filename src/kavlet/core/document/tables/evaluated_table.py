"""A table as its formulas leave it: what guessing looks at, since a formula does not tell whether it gives a name."""

import msgspec

from kavlet.core.document.document import Document
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, FormattedNumber, Formula, Value
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.spreadsheet.table import Column, Table
from kavlet.core.values.identity_cache import cached_by_identity


def settled(document: Document, table_id: str) -> Table:
    """The table with each formula of its own columns replaced by what it gives; the table itself where it has none."""
    table = document.table(table_id)
    if not any(isinstance(cell, Formula) for one in table.columns if one.helper is None for cell in one.cells):
        return table
    held = values_of(document.tables).of(table_id)
    columns = tuple(
        column if column.helper is not None else _settled(column, values.values)
        for column, values in zip(table.columns, held, strict=True)
    )
    return msgspec.structs.replace(table, columns=columns)


def _settled(column: Column, values: list[Value]) -> Column:
    cells = tuple(
        _given(cell, value) if isinstance(cell, Formula) else cell
        for cell, value in zip(column.cells, values, strict=True)
    )
    return msgspec.structs.replace(column, cells=cells)


def _given(formula: Formula, value: Value) -> Cell:
    """What a formula gives, written as it writes it; an error stays a formula, which is taken for a figure."""
    if isinstance(value, ErrorValue):
        return formula
    return FormattedNumber(value, formula.number) if isinstance(value, float) and formula.number is not None else value


@cached_by_identity(2)
def values_of(tables: tuple[Table, ...]) -> Values:
    """The values of tables that are only looked at."""
    return recalculate(tables)
