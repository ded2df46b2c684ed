"""Which way a chart's figures run: down the columns of its table, or across one of its rows.

A chart that reads across a row stands on a helper table, whose rows are the columns of the table it reads: names are
their headers, values what the row holds there, both as formulas::

    month     enquiries  tours  signed            name        March
    February        410    160      38            enquiries   =INDEX(months!B$2:B$4;2)
    March           520    180      61    ───▶    tours       =INDEX(months!C$2:C$4;2)
    April           480    210      70            signed      =INDEX(months!D$2:D$4;2)

So recipes know of columns alone, and an author can follow, change and carry away the construction.
"""

import msgspec

from kavlet.core.charts.looks import parse
from kavlet.core.document.charts.recipe_lookup import find_recipe
from kavlet.core.document.document import DataDirection, Document, EarlierSettings, with_chart
from kavlet.core.document.looks.look_updates import following_rows, without_read
from kavlet.core.document.tables.columns import kinds
from kavlet.core.document.tables.evaluated_table import settled
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.helper_tables import names_column
from kavlet.core.document.tables.reference_updates import changed_chart
from kavlet.core.document.tables.role_guessing import guess_roles
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula, text_of
from kavlet.core.spreadsheet.references import RangeReference, rewritten
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError


def figure_columns(table: Table) -> tuple[str, ...]:
    """The columns whose figures can be read across a row."""
    return tuple(column for column, kind in kinds(table).items() if kind == "figures")


def read_across(document: Document, chart_id: str, row: int = -1, columns: tuple[str, ...] = ()) -> Document:
    """The chart with its figures read across a row of its table (from 0; -1 is the last one).

    `columns` are the ones read, all that hold figures when none are named. Raises KavletError where there are not at
    least two, or the chart has no recipe.
    """
    chart = document.chart(chart_id)
    if chart.reading is not None:
        return read_row(document, chart_id, row=row, columns=columns or chart.reading.columns)
    recipe = find_recipe(document, chart.recipe) if chart.recipe else None
    if recipe is None:
        raise KavletError(say("Layers of your own read down the columns."), remedy=say("Choose a recipe first."))
    source = settled(document, chart.table)
    columns = columns or figure_columns(source)
    if len(columns) < 2:
        raise KavletError(
            say("Figures run across a row where a table has two columns of them or more."),
            remedy=say("Add a column of figures."),
        )
    looks = {path: look for path, look in chart.dress.overrides.items() if parse(path).row is not None}
    others = {path: look for path, look in chart.dress.overrides.items() if path not in looks}
    chart = changed_chart(chart, lambda text: _named(text, source.name))
    direction = DataDirection(
        source.id, columns, _row(source, row), EarlierSettings(chart.roles, chart.settings), looks
    )
    dress = msgspec.structs.replace(chart.dress, overrides=others)
    entry = msgspec.structs.replace(chart, reading=direction, roles={}, repeat=False, dress=dress)
    document = fitted(with_chart(document, entry))
    entry = document.chart(chart_id)
    roles = guess_roles(settled(document, entry.table), recipe)
    return fitted(with_chart(document, msgspec.structs.replace(entry, roles=roles)))


def read_down(document: Document, chart_id: str) -> Document:
    """The chart with its figures read down the columns again, those it had before where they are still there."""
    chart = document.chart(chart_id)
    if chart.reading is None:
        return document
    direction, source = chart.reading, settled(document, chart.reading.table)
    recipe = find_recipe(document, chart.recipe)
    before = chart.past.get(chart.recipe, direction.down)
    own_ids = {column.id for column in source.columns}
    role_names = {role.name for role in recipe.roles}
    kept = {
        role: tuple(one for one in role_columns if one in own_ids)
        for role, role_columns in (before.roles | direction.down.roles).items()
        if role in role_names
    }
    roles = guess_roles(source, recipe, {role: role_columns for role, role_columns in kept.items() if role_columns})
    looks = {path: look for path, look in chart.dress.overrides.items() if parse(path).row is None} | direction.looks
    entry = msgspec.structs.replace(
        chart,
        table=source.id,
        reading=None,
        roles=roles,
        dress=msgspec.structs.replace(chart.dress, overrides=looks),
    )
    return fitted(with_chart(document, entry))


def read_row(document: Document, chart_id: str, row: int | None = None, columns: tuple[str, ...] = ()) -> Document:
    """A chart that reads across, reading another row (from 0; -1 is the last), or other columns."""
    chart = document.chart(chart_id)
    if chart.reading is None:
        raise KavletError(say("This chart’s figures run down the columns."))
    before = chart.reading
    new_row = before.row if row is None else _row(document.table(before.table), row)
    columns = columns or before.columns
    place = {old: columns.index(column) for old, column in enumerate(before.columns) if column in columns}
    document = following_rows(document, chart.table, place.get)
    direction = msgspec.structs.replace(before, row=new_row, columns=columns)
    return fitted(with_chart(document, msgspec.structs.replace(document.chart(chart_id), reading=direction)), document)


def with_column(document: Document, chart_id: str, column: str, on: bool) -> Document:
    """A chart that reads across with one column more, or fewer. Raises KavletError where none would be left."""
    chart = document.chart(chart_id)
    if chart.reading is None:
        raise KavletError(say("This chart’s figures run down the columns."))
    if not on:
        if chart.reading.columns == (column,):
            raise KavletError(say("The chart reads at least one column."))
        return fitted(without_read(document, chart.reading.table, {column}, chart_id), document)
    places = figure_columns(settled(document, chart.reading.table))
    wanted = {*chart.reading.columns, column}
    in_order = tuple(one for one in places if one in wanted)
    own_order = chart.reading.columns != tuple(one for one in places if one in chart.reading.columns)
    return read_row(document, chart_id, columns=(*chart.reading.columns, column) if own_order else in_order)


def row_names(document: Document, table_id: str) -> list[str]:
    """What the rows of a table are called: their names, else their numbers."""
    table, locale = settled(document, table_id), document.locale
    at = names_column(table)
    cells = table.columns[at].cells[HEADER:] if at >= 0 else (None,) * table.rows
    return [_said(cell, locale) or say("row {row}", row=i).said_in(locale) for i, cell in enumerate(cells, 1)]


def _said(cell: Cell, locale: str) -> str:
    if isinstance(cell, FormattedNumber):
        return written(cell.value, cell.number, locale)
    return "" if isinstance(cell, Formula) else text_of(cell)


def named_row(document: Document, table_id: str, text: str) -> int:
    """The row (from 0) of that name, whatever its case, or of that number. Raises KavletError where there is none."""
    names = [name.strip().casefold() for name in row_names(document, table_id)]
    if text.strip().casefold() in names:
        return names.index(text.strip().casefold())
    if text.strip().isdigit() and 0 < int(text) <= len(names):
        return int(text) - 1
    raise KavletError(
        say("The table has no row “{text}”.", text=text),
        remedy=say("Name one, or count them from 1 to {rows}.", rows=len(names)),
    )


def _row(source: Table, row: int) -> int:
    if not source.rows:
        raise KavletError(say("The table has no rows of figures."), remedy=say("Add a row below the names."))
    return max(0, min(source.rows - 1, row if row >= 0 else source.rows + row))


def _named(text: str, table: str) -> str:
    """A formula with references to its own table naming it, for use on another."""

    def name(old: RangeReference) -> RangeReference:
        return old if old.table else msgspec.structs.replace(old, table=table)

    return rewritten(text, name)
