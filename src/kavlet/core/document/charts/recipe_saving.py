"""Makes a recipe of the author's own from a chart: formulas become templates, columns roles and helpers."""

import re
from typing import Any

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.document.charts.recipe_lookup import find_recipe, recipes_of
from kavlet.core.document.document import ChartEntry, Document, fresh_name
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.messages import say, words
from kavlet.core.recipes.own_recipe import OwnHelper, OwnRecipe
from kavlet.core.recipes.recipe import Parameter, Role
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.references import CellReference, RangeReference, column_letters, rewritten
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PLAIN


def saved_recipe(document: Document, chart_id: str, spec: Chart, title: str) -> OwnRecipe:
    """A recipe of the author's own from a chart: its helper columns' formulas as templates, its layers by role.

    Columns of one formula that the chart reads, or that other such columns read, become helpers; the rest of what is
    read becomes roles. A single cell that formulas keep ($B$9) becomes a parameter, named by the text at its left.
    Raises KavletError for an empty or taken title.
    """
    title = title.strip()
    name = re.sub(r"[^\w]+", "-", title.casefold()).strip("-")
    if not name:
        raise KavletError(say("A recipe needs a name."))
    if name in recipes_of(document):
        raise KavletError(say("There is a recipe “{title}” already.", title=title))
    entry, table = document.chart(chart_id), document.table(document.chart(chart_id).table)
    roles, helpers = _sorted_columns(entry, table, spec)
    parameters: dict[str, Parameter] = {}
    made = tuple(_own_helper(table, column, roles, helpers, parameters) for column in helpers)
    names = {column: f"role {role.name}" for column, role in roles.items()}
    names |= {column: f"helper {helper}" for column, helper in helpers.items()}
    plain = msgspec.to_builtins(msgspec.structs.replace(spec, alt_text="", long_text="", rows=None))
    return OwnRecipe(
        name=name,
        title=title,
        question=find_recipe(document, entry.recipe).question if entry.recipe else "time",
        needs=words("Columns like {columns}.", columns=[table.called(table.place(column)) for column in roles]),
        roles=tuple(roles.values()),
        parameters=tuple(parameters.values()),
        helpers=made,
        chart=_renamed(plain, names),
    )


def with_recipe(document: Document, own_recipe: OwnRecipe) -> Document:
    """The document with a recipe of the author's own; one of the same name is replaced. Raises KavletError when a
    shipped recipe has that name.
    """
    if own_recipe.name in RECIPES:
        raise KavletError(say("“{title}” is the name of a recipe that Kavlet brings along.", title=own_recipe.title))
    others = tuple(one for one in document.recipes if one.name != own_recipe.name)
    return fitted(msgspec.structs.replace(document, recipes=(*others, own_recipe)))


def _sorted_columns(entry: ChartEntry, table: Table, spec: Chart) -> tuple[dict[str, Role], dict[str, str]]:
    """The columns a chart reads, directly or by formulas: roles and helpers by column id, in the table's order."""
    used = set(_strings(msgspec.to_builtins(spec))) & {column.id for column in table.columns}
    for role_columns in entry.roles.values():
        used.update(role_columns)
    grown = True
    while grown:
        grown = False
        for i in _read_by([column for column in table.columns if column.id in used], table):
            if table.columns[i].id not in used:
                used.add(table.columns[i].id)
                grown = True
    role_of = {column: role for role, role_columns in entry.roles.items() for column in role_columns}
    roles: dict[str, Role] = {}
    helpers: dict[str, str] = {}
    names: list[str] = []
    for column in (candidate for candidate in table.columns if candidate.id in used):
        if _is_formula_column(column):
            helpers[column.id] = fresh_name(column.name or "helper", helpers.values())
            continue
        is_text = not any(isinstance(cell, float) or hasattr(cell, "value") for cell in column.cells[HEADER:])
        kind = role_of.get(column.id) or ("name" if is_text else "value")
        role = fresh_name(kind, names)
        names.append(role)
        meaning = words("Like {column}.", column=column.name or role)
        roles[column.id] = Role(role, "text" if is_text else "number", meaning)
    return roles, helpers


def _is_formula_column(column: Column) -> bool:
    filled = [cell for cell in column.cells[HEADER:] if cell is not None]
    return bool(filled) and all(isinstance(cell, Formula) for cell in filled)


def _read_by(columns: list[Column], table: Table) -> set[int]:
    """The columns of the table that formulas in these columns read."""
    found: set[int] = set()

    def note(old: RangeReference) -> RangeReference:
        if not old.table and old.one.row < table.height:
            last = old.other.column if old.other is not None else old.one.column
            single = old.other is None and old.one.keep_row and old.one.keep_column
            if not single:
                found.update(range(old.one.column, min(last, len(table.columns) - 1) + 1))
        return old

    for column in columns:
        for cell in column.cells[HEADER:]:
            if isinstance(cell, Formula):
                rewritten(cell.text, note)
    return found


def _own_helper(
    table: Table, column: str, roles: dict[str, Role], helpers: dict[str, str], parameters: dict[str, Parameter]
) -> OwnHelper:
    held = table.columns[table.place(column)]
    formulas = [cell.text if isinstance(cell, Formula) else "" for cell in held.cells[HEADER:]]
    templates = [
        _template(text, row + HEADER, table, roles, helpers, parameters) if text else ""
        for row, text in enumerate(formulas)
    ]
    later = next((text for text in templates[1:] if text), templates[0] if templates else "")
    if any(templates[1:]):
        later = templates[1]
    first = templates[0] if templates and templates[0] != later else ""
    only_first = bool(templates) and not any(templates[1:])
    return OwnHelper(
        helpers[column], "" if only_first else later, templates[0] if only_first else first, held.number or PLAIN
    )


def _template(
    text: str, row: int, table: Table, roles: dict[str, Role], helpers: dict[str, str], parameters: dict[str, Parameter]
) -> str:
    """A formula with its references as slots; what is not of this table's columns stays as it is."""
    slots: list[str] = []

    def corner(corner_reference: CellReference) -> str | None:
        column, at = corner_reference.column, corner_reference.row
        if column >= len(table.columns):
            return None
        column_id = table.columns[column].id
        word = (
            f"helper {helpers[column_id]}"
            if column_id in helpers
            else roles[column_id].name
            if column_id in roles
            else None
        )
        if word is None:
            return None
        ends = {HEADER: "first", table.height - 1: "last"}
        near = {row: "row", row - 1: "before"}
        name = (ends | near if not corner_reference.keep_row else near | ends).get(at)
        return f"{{{word}}}{{{name}}}" if name else None

    def slot(old: RangeReference) -> RangeReference | None:
        if old.table:
            return old
        single = old.other is None and old.one.keep_row and old.one.keep_column
        if single:
            slots.append(f"{{set {_parameter(table, old, parameters)}}}")
            return None
        start = corner(old.one)
        other = corner(old.other) if old.other is not None else ""
        if start is None or other is None:
            return old
        if old.other is not None:
            start = start.replace("}{", "}${", 1) if old.one.keep_row else start
            other = other.replace("}{", "}${", 1) if old.other.keep_row else other
        slots.append(f"{start}:{other}" if other else start.replace("}{", "}${", 1) if old.one.keep_row else start)
        return None

    # Replaced references come out as #REF!, in their order.
    template = rewritten(text, slot)
    parts = template.split("#REF!")
    return "".join(part + (slots[i] if i < len(parts) - 1 and i < len(slots) else "") for i, part in enumerate(parts))


def _parameter(table: Table, at: RangeReference, parameters: dict[str, Parameter]) -> str:
    column, row = at.one.column, at.one.row
    cell = table.columns[column].cells[row] if column < len(table.columns) and row < table.height else None
    beside = table.columns[column - 1].cells[row] if 0 < column <= len(table.columns) and row < table.height else None
    key = f"{column_letters(column)}{row + 1}"
    name = (
        beside.casefold()
        if isinstance(beside, str) and re.fullmatch(r"[\w ]{1,20}", beside)
        else words("number {cell}", cell=key.lower())
    )
    value = getattr(cell, "value", cell)
    default = float(value) if isinstance(value, float | int) and not isinstance(value, bool) else 1.0
    parameters.setdefault(name, Parameter(name, "number", default, words("The number that stood in {cell}.", cell=key)))
    return name


def _strings(of: Any) -> list[str]:
    if isinstance(of, dict):
        return [text for value in of.values() for text in _strings(value)]
    if isinstance(of, list | tuple):
        return [text for value in of for text in _strings(value)]
    return [of, *re.findall(r"\{([^{}]+)\}", of)] if isinstance(of, str) else []


def _renamed(of: Any, names: dict[str, str]) -> Any:
    if isinstance(of, dict):
        return {str(key): _renamed(value, names) for key, value in of.items()}
    if isinstance(of, list | tuple):
        return [_renamed(value, names) for value in of]
    if isinstance(of, str):
        return names.get(of) or re.sub(r"\{(c\d+)\}", lambda found: f"{{{names.get(found[1], found[1])}}}", of)
    return of
