"""Recipes of an author's own: open JSON, made from any chart with its helper columns, for other tables.

Formulas are templates: `{value}` is the letters of the role's column, `{helper offset}` of a helper column, `{row}`,
`{before}`, `{first}` and `{last}` rows as formulas count them, `{set unit}` a parameter. In the chart, columns are
named the same way: `role value`, `helper offset`.
"""

import re
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.messages import say
from kavlet.core.recipes.recipe import (
    CellAddresses,
    HelperColumn,
    Inputs,
    Parameter,
    Question,
    Recipe,
    Role,
)
from kavlet.core.recipes.table_problems import need_numbers
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PLAIN, NumberText

FORMAT = "kavlet-recipe"
_SLOT = re.compile(r"\{([^{}]+)\}")


class OwnHelper(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A helper column: the formula of its first row, and that of all rows after it (the same when empty)."""

    name: str
    formula: str
    first: str = ""
    number: NumberText = PLAIN


class OwnRecipe(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What is saved of a recipe. `chart` is a chart's specification with its columns named by role and helper."""

    name: str
    title: str
    format: str = FORMAT
    version: int = 1
    question: Question = "goal"
    needs: str = ""
    roles: tuple[Role, ...] = ()
    parameters: tuple[Parameter, ...] = ()
    helpers: tuple[OwnHelper, ...] = ()
    chart: dict[str, Any] = {}


def as_recipe(own_recipe: OwnRecipe) -> Recipe:
    """The recipe that works on tables. Raises KavletError when its chart can't be read."""
    try:
        msgspec.convert(own_recipe.chart, Chart, str_keys=True)
    except msgspec.ValidationError as error:
        raise KavletError(
            say("The recipe “{title}” is damaged: its chart can’t be read.", title=own_recipe.title)
        ) from error

    def formulas(cells: CellAddresses) -> dict[str, list[str]]:
        return {
            helper.name: [
                _filled(helper.first if helper.first and row == cells.first else helper.formula, cells, row)
                for row in cells.span
            ]
            for helper in own_recipe.helpers
        }

    def check(inputs: Inputs) -> None:
        for role in own_recipe.roles:
            if role.kind == "number" and (role.required or inputs.has(role.name)):
                need_numbers(inputs, role.name)

    def chart(inputs: Inputs) -> Chart:
        names = {f"role {role}": role_columns[0] for role, role_columns in inputs.roles.items() if role_columns}
        names |= {f"helper {name}": column for name, column in inputs.helpers.items()}
        spec: Chart = msgspec.convert(_named(own_recipe.chart, names), Chart, str_keys=True)
        described = inputs.drawn(
            "{recipe} of {what}, {rows} rows.",
            recipe=own_recipe.title,
            what=inputs.title("value") or inputs.table_name,
            rows=inputs.rows,
        )
        return msgspec.structs.replace(spec, alt_text=described)

    return Recipe(
        name=own_recipe.name,
        title=own_recipe.title,
        question=own_recipe.question,
        needs=own_recipe.needs or "A table like the one it was made from.",
        roles=own_recipe.roles,
        parameters=own_recipe.parameters,
        helpers=tuple(HelperColumn(helper.name, "", helper.number) for helper in own_recipe.helpers),
        formulas=formulas,
        check=check,
        chart=chart,
    )


def _filled(template: str, cells: CellAddresses, row: int) -> str:
    """A formula for a row; a slot that is not known becomes an error in words that the cell shows."""

    def slot(found: re.Match[str]) -> str:
        word = found[1]
        if word == "row":
            return str(row)
        if word == "before":
            return str(row - 1)
        if word in ("first", "last"):
            return str(cells.first if word == "first" else cells.last)
        kind, _, name = word.partition(" ")
        if kind == "helper" and name in cells.helpers:
            return column_letters(cells.helpers[name])
        if kind == "set" and name in cells.settings:
            return cells.number(name)
        return cells.role(word) if cells.has(word) else "#REF!"

    return _SLOT.sub(slot, template)


def _named(of: Any, names: dict[str, str]) -> Any:
    """A specification with role and helper names replaced by the ids of columns."""
    if isinstance(of, dict):
        return {key: _named(value, names) for key, value in of.items()}
    if isinstance(of, list | tuple):
        return [_named(value, names) for value in of]
    if isinstance(of, str):
        if of in names:
            return names[of]
        return _SLOT.sub(lambda found: f"{{{names[found[1]]}}}" if found[1] in names else found[0], of)
    return of


def loads(content: bytes, name: str) -> OwnRecipe:
    """A recipe from JSON. Raises KavletError with one sentence when it is none, damaged or newer."""
    try:
        own_recipe = msgspec.json.decode(content, type=OwnRecipe)
    except (msgspec.DecodeError, RecursionError):
        raise KavletError(say("{name} is no recipe, or it is damaged.", name=name)) from None
    if own_recipe.format != FORMAT:
        raise KavletError(say("{name} is no recipe.", name=name))
    if own_recipe.version > 1:
        raise KavletError(say("{name} was saved by a newer Kavlet.", name=name), remedy=say("Update Kavlet to use it."))
    as_recipe(own_recipe)
    return own_recipe


def dumps(own_recipe: OwnRecipe) -> bytes:
    """A recipe as JSON."""
    return msgspec.json.format(msgspec.json.encode(own_recipe), indent=1) + b"\n"
