"""What a recipe and a chart read of a table: columns by role and helper, their values and how they are written."""

from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.tables import vocabulary
from kavlet.core.document.tables.total_rows import counted_rows, counts_totals, total_rows
from kavlet.core.layout.data import Data, Raster
from kavlet.core.messages import named, say
from kavlet.core.pipeline.cell_bindings import settings_of
from kavlet.core.recipes.recipe import HelperBuild, Inputs, Recipe
from kavlet.core.shapes.symbol import Symbol
from kavlet.core.spreadsheet.cells import Formula, text_of
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import NumberText

MAX_ROWS = 1_000


def inputs_of(document: Document, values: Values, entry: ChartEntry, table: Table, recipe: Recipe | None) -> Inputs:
    """What a recipe reads. Raises KavletError where a role has no column, or the table no rows or too many."""
    places = {column.id: i for i, column in enumerate(table.columns)}
    roles = {role: tuple(one for one in role_columns if one in places) for role, role_columns in entry.roles.items()}
    for role in recipe.roles if recipe is not None else ():
        if role.required and not roles.get(role.name):
            raise KavletError(
                say("No column is chosen as {role}.", role=named(role.name)),
                remedy=say("Choose one by the chip over the column it should be."),
            )
    if not table.rows:
        raise KavletError(say("The table has no rows of figures."), remedy=say("Add a row below the names."))
    if table.rows > MAX_ROWS:
        raise KavletError(
            say("The table has {rows} rows, more than the {most} a chart can show.", rows=table.rows, most=MAX_ROWS),
            remedy=say("Make a smaller table for the chart."),
        )
    columns = values.of(entry.table)
    rows = counted_rows(table, entry, recipe)
    first_total = table.rows - total_rows(table, entry, recipe)
    rows_read = slice(HEADER, HEADER + rows)
    return Inputs(
        table_name=table.name,
        roles=roles,
        places=places,
        titles={
            column.id: text_of(columns[i].values[0])
            if isinstance(column.cells[0], Formula)
            else table.called(i).said_in(document.locale)
            for i, column in enumerate(table.columns)
        },
        helpers={c.helper.name: c.id for c in table.columns if c.helper is not None and c.helper.chart == entry.id},
        values={column.id: columns[i].values[rows_read] for i, column in enumerate(table.columns)},
        numbers={column.id: columns[i].numbers[rows_read] for i, column in enumerate(table.columns)},
        settings=settings_of(entry, recipe, values) if recipe is not None else {},
        rows=rows,
        number_texts=_number_texts(table),
        locale=document.locale,
        totals=tuple(_row_name(entry, table, values, row) for row in range(first_total, table.rows)),
        counts_totals=counts_totals(entry, recipe),
    )


def _row_name(entry: ChartEntry, table: Table, values: Values, row: int) -> str:
    """What a row is called, where it has a name."""
    places = [i for i, column in enumerate(table.columns) if column.id in entry.roles.get("name", ())]
    return text_of(values.of(entry.table)[places[0]].values[HEADER + row]) if places else ""


def _number_texts(table: Table) -> dict[str, NumberText]:
    """How each column writes its numbers, of those where it was set or typed."""
    return {column.id: how for column in table.columns if (how := column.writes) is not None}


def pictures_of(document: Document) -> dict[str, Symbol | Raster]:
    """The document's own symbols and pictures, by their names."""
    pictures: dict[str, Symbol | Raster] = {}
    for picture in document.pictures:
        pictures[picture.name] = (
            Symbol(picture.name, picture.outline, parts=picture.parts if picture.own_colours else ())
            if picture.outline
            else Raster(picture.name, picture.content, picture.width, picture.height)
        )
    return pictures


def data_of(document: Document, inputs: Inputs) -> Data:
    """What a chart's layers read: values, how they are written, and the document's pictures."""
    return Data(
        values=inputs.values,
        numbers=inputs.numbers,
        ids=tuple(range(inputs.rows)),
        titles=inputs.titles,
        number_texts=inputs.number_texts,
        pictures=pictures_of(document),
        locale=document.locale,
        timed=_timed(inputs),
    )


def _timed(inputs: Inputs) -> bool:
    """Whether what names the rows are times: dates, years, or texts that say so."""
    entries = [entry for entry in inputs.entries("name") if entry is not None]
    return bool(entries) and (
        all(isinstance(entry, float) for entry in entries) or vocabulary.are_periods(map(text_of, entries))
    )


def helpers_of(table: Table, values: Values, entry: ChartEntry) -> tuple[HelperBuild, ...]:
    """The chart's helper columns as they stand in the table."""
    built = []
    for place, column in enumerate(table.columns):
        if column.helper is None or column.helper.chart != entry.id:
            continue
        formulas = tuple(cell.text if isinstance(cell, Formula) else "" for cell in column.cells[HEADER:])
        name = column.helper.name
        built.append(HelperBuild(name, name, column.id, formulas, tuple(values.texts(entry.table, place))))
    return tuple(built)
