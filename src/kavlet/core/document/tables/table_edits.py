"""Edits of a document's tables as wholes: adding, naming, copying, ordering, deleting, cutting helpers loose."""

import msgspec

from kavlet.core.document.document import ChartEntry, Document, fresh_id, fresh_name, with_table
from kavlet.core.document.edits import add_table, insert_columns
from kavlet.core.document.pages.page_edits import without_excerpts, without_frames
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.helper_tables import loosened
from kavlet.core.document.tables.reference_updates import with_formulas
from kavlet.core.messages import named, say
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import RangeReference, rewritten
from kavlet.core.values.errors import KavletError


def add_empty(document: Document, name: str) -> tuple[Document, str]:
    """A new table of two empty columns to type into."""
    nothing: list[Cell] = [None, None]
    head: list[Cell] = [named(one).said_in(document.locale) for one in ("name", "value")]
    return add_table(document, name, [head, *(list(nothing) for _ in range(5))])


def rename(document: Document, table_id: str, name: str) -> Document:
    """Give a table another name; formulas that name it follow. Raises KavletError for an empty or a taken name."""
    table, name = document.table(table_id), name.strip()
    if not name:
        raise KavletError(say("A table needs a name."))
    if name == table.name:
        return document
    if any(one.name.casefold() == name.casefold() and one.id != table_id for one in document.tables):
        raise KavletError(say("There is a table “{name}” already.", name=name))

    def follow(old: RangeReference) -> RangeReference:
        return msgspec.structs.replace(old, table=name) if old.table == table.name else old

    document = with_formulas(document, lambda text, *_: rewritten(text, follow))
    return with_table(document, msgspec.structs.replace(document.table(table_id), name=name))


def copy(document: Document, table_id: str) -> tuple[Document, str]:
    """A copy of a table with its own columns; charts and their helpers stay with the original."""
    table = document.table(table_id)
    new = fresh_id("t", (one.id for one in document.tables))
    name = fresh_name(table.name, (one.name for one in document.tables))
    columns = tuple(column for column in table.columns if column.helper is None)
    at = document.tables.index(table) + 1
    copied = loosened(msgspec.structs.replace(table, id=new, name=name, columns=columns, source=None))
    return msgspec.structs.replace(document, tables=(*document.tables[:at], copied, *document.tables[at:])), new


def reorder(document: Document, table_id: str, to: int) -> Document:
    """Put a table at another place among the tables."""
    table = document.table(table_id)
    others = [one for one in document.tables if one.id != table_id]
    others.insert(max(0, min(to, len(others))), table)
    return msgspec.structs.replace(document, tables=tuple(others))


def readers(document: Document, table_id: str) -> list[ChartEntry]:
    """The charts that are built on a table."""
    return [chart for chart in document.charts if table_id in (chart.table, chart.reading and chart.reading.table)]


def delete(document: Document, table_id: str) -> Document:
    """Delete a table with the charts built on it and all that pages show of both; formulas elsewhere that name it show
    an error.

    Raises KavletError for a helper table.
    """
    if document.table(table_id).helper is not None:
        raise KavletError(
            say("A helper table belongs to its chart."),
            remedy=say("It goes when the chart’s figures run down the columns again."),
        )
    built = readers(document, table_id)
    tables = tuple(table for table in document.tables if table.id != table_id)
    charts = tuple(chart for chart in document.charts if chart not in built)
    document = without_excerpts(without_frames(document, {chart.id for chart in built}), table_id)
    return fitted(msgspec.structs.replace(document, tables=tables, charts=charts))


def cut_loose(document: Document, table_id: str, column: str) -> Document:
    """Make a helper column the author's own: it keeps its formulas, and the recipe gets a new one of its own.

    Raises KavletError when the column is no helper.
    """
    table = document.table(table_id)
    old = table.columns[table.place(column)]
    if old.helper is None:
        raise KavletError(say("This column is the table’s own already."))
    own_columns = [own for own in table.columns if own.helper is None]
    name = fresh_name(old.name or old.helper.name, [own.name for own in own_columns])
    rank = len(own_columns)
    document = insert_columns(document, table_id, rank)
    # The new column stands where the formulas' references to own columns hold as they are.
    new_table = document.table(table_id)
    source = new_table.columns[new_table.place(column)]
    cells = tuple(
        Formula(cell.text, False, cell.number) if isinstance(cell, Formula) else cell for cell in source.cells[1:]
    )
    columns = list(new_table.columns)
    columns[rank] = msgspec.structs.replace(columns[rank], cells=(name, *cells), number=source.number)
    return fitted(with_table(document, msgspec.structs.replace(new_table, columns=tuple(columns))))
