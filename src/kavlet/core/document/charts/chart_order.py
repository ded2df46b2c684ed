"""A chart ordered in one go: from rows of cells and wishes to a document with one table and one chart."""

import re
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits, data_direction
from kavlet.core.document.charts.recipe_lookup import find_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables.table_advice import features_of
from kavlet.core.messages import named, say
from kavlet.core.recipes.recipe import Setting
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.references import column_index
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size


class ChartRequest(Struct, frozen=True, kw_only=True):
    """What is wished for: a recipe on rows of cells, the first of them the header.

    `roles` names the columns of each role, by name or by letters; roles that are not named are guessed. `looks` are
    values set by hand, by their paths. `across` names a row, by its name or number, whose figures are read across.
    What is None or empty is the recipe's own.
    """

    recipe: str
    rows: list[list[Cell]]
    name: str = "Table"
    roles: dict[str, tuple[str, ...]] = {}
    settings: dict[str, Setting] = {}
    size: Size | None = None
    theme: str | None = None
    dark: bool = False
    palette: str | tuple[str, ...] | None = None
    looks: dict[str, Any] = {}
    repeat: bool = False
    across: str = ""
    title: str | None = None
    subtitle: str = ""
    source: str = ""


def chart_document(order: ChartRequest) -> tuple[Document, str]:
    """A document with the chart, and the chart's id. Raises KavletError where the order can't be carried out."""
    document, table_id = edits.add_table(Document(), order.name, order.rows)
    table = document.table(table_id)
    columns = {
        name: tuple(one for text in held for one in columns_of(table, text)) for name, held in order.roles.items()
    }
    document, chart_id = (_across if order.across else _down)(document, table_id, order, columns)
    entry = document.chart(chart_id)
    dress = msgspec.structs.replace(
        entry.dress, theme=order.theme or entry.dress.theme, dark=order.dark, palette=order.palette
    )  # fmt: skip
    settings = {**_symbols(document, chart_id, order), **order.settings}
    changes: dict[str, Any] = {
        "settings": settings, "subtitle": order.subtitle, "source": order.source, "dress": dress,
    }  # fmt: skip
    if order.size is not None:
        changes |= {"width": order.size.width, "height": order.size.height}
    if order.title is not None:
        changes["title"] = order.title
    document = look_edits.set_looks(edits.change_chart(document, chart_id, **changes), chart_id, order.looks)
    return chart_edits.repeated(document, chart_id, True) if order.repeat else document, chart_id


def _symbols(document: Document, chart_id: str, order: ChartRequest) -> dict[str, Setting]:
    """The symbols that words of the table name, or none, where the order names none: a recipe's own is an example."""
    entry, recipe = document.chart(chart_id), find_recipe(document, order.recipe)
    symbols = {parameter.name for parameter in recipe.parameters if parameter.type == "symbol"}
    found = recipe.proposes(features_of(document, entry.table)) if symbols else {}
    return {name: value for name, value in found.items() if name in symbols and not entry.roles.get(name)}


def _down(
    document: Document, table: str, order: ChartRequest, columns: dict[str, tuple[str, ...]]
) -> tuple[Document, str]:
    for role in find_recipe(document, order.recipe).roles:
        if len(columns.get(role.name, ())) > 1 and not role.many:
            raise KavletError(say("The role {role} takes one column.", role=named(role.name)))
    return edits.add_chart(document, table, order.recipe, columns)


def _across(
    document: Document, table: str, order: ChartRequest, columns: dict[str, tuple[str, ...]]
) -> tuple[Document, str]:
    """The columns named for roles of numbers are those that are read."""
    naming = [role.name for role in find_recipe(document, order.recipe).roles if role.kind != "number"]
    for name in naming:
        if name in columns:
            raise KavletError(
                say("Across a row, the names are those of the columns."),
                remedy=say("Leave the role {role} out.", role=named(name)),
            )
    columns_read = tuple(one for names in columns.values() for one in names)
    document, chart_id = edits.add_chart(document, table, order.recipe)
    return data_direction.read_across(
        document, chart_id, data_direction.named_row(document, table, order.across), columns_read
    ), chart_id


def columns_of(table: Table, text: str) -> tuple[str, ...]:
    """The ids of columns given by name or letters; several are separated by commas where no name holds one."""
    names = {column.name.strip().casefold() for column in table.columns}
    if "," in text and text.strip().casefold() not in names:
        return tuple(_column(table, part.strip()) for part in text.split(","))
    return (_column(table, text.strip()),)


def _column(table: Table, text: str) -> str:
    """The id of a column given by its name, whatever its case, or by its letters."""
    for fold in (str, str.casefold):
        for column in table.columns:
            if fold(column.name.strip()) == fold(text):
                return column.id
    if re.fullmatch(r"[A-Z]{1,2}", text) and column_index(text) < len(table.columns):
        return table.columns[column_index(text)].id
    names = [say("“{name}”", name=table.called(i)) for i in range(len(table.columns))]
    raise KavletError(say("The table has no column “{text}”.", text=text), remedy=say("It has {names}.", names=names))
