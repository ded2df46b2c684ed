"""Guesses which column of a table is for which role of a recipe."""

from kavlet.core.figures.cells import Formula, Written
from kavlet.core.figures.table import HEADER, Column, Table
from kavlet.core.recipes.recipe import Recipe


def guess_roles(table: Table, recipe: Recipe) -> dict[str, str]:
    """A column id per role: texts for text roles and numbers for number roles, in the table's order.

    Where no column has the right kind, the first free one is taken, so that the recipe can say what is wrong with it.
    """
    free = [column for column in table.columns if column.helper is None]
    texts = [column for column in free if not _is_numeric(column)]
    roles: dict[str, str] = {}
    for role in sorted(recipe.roles, key=lambda role: role.kind != "text"):
        if role.kind == "text":
            candidates = [column for column in texts if column in free] or (free[:1] if len(free) > 1 else [])
        else:
            candidates = [column for column in free if _is_numeric(column)] or free[-1:]
        if candidates:
            roles[role.name] = candidates[0].id
            free.remove(candidates[0])
    return {role.name: roles[role.name] for role in recipe.roles if role.name in roles}


def _is_numeric(column: Column) -> bool:
    filled = [cell for cell in column.cells[HEADER:] if cell is not None]
    numbers = sum(isinstance(cell, float | Formula | Written) for cell in filled)
    return bool(filled) and numbers / len(filled) > 0.5
