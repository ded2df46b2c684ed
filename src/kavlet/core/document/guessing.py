"""Guesses which column of a table is for which role of a recipe."""

from kavlet.core.figures.cells import Formula, Written
from kavlet.core.figures.table import HEADER, Column, Table
from kavlet.core.recipes.recipe import Recipe, Role


def guess_roles(
    table: Table, recipe: Recipe, given: dict[str, tuple[str, ...]] | None = None
) -> dict[str, tuple[str, ...]]:
    """Column ids per role: those given, then a column that is called like the role, then the first of its kind.

    A role that many columns may share takes all numbers that are left; where a later role needs one too, all but that
    many. Optional roles are only given to columns that are called like them. Where no column has the right kind, the
    first free one is taken, so that the recipe can say what is wrong with it.
    """
    roles: dict[str, tuple[str, ...]] = dict(given or {})
    taken = {column for held in roles.values() for column in held}
    free = [column for column in table.columns if column.helper is None and column.id not in taken]
    for role in recipe.roles:
        named = next((column for column in free if _is_called(column, role)), None)
        if role.name not in roles and named is not None:
            roles[role.name] = (named.id,)
            free.remove(named)
    open_roles = [role for role in recipe.roles if role.name not in roles]
    for role in sorted(open_roles, key=lambda role: role.kind != "text"):
        if role.kind == "text":
            wanted = role.required or role.name == "name"
            found = [column for column in free if not is_numeric(column)][:1] if wanted else []
            if not found and role.required and len(free) > 1:
                found = free[:1]
        else:
            later = sum(
                other.kind == "number" and other.required and other.name not in roles
                for other in open_roles[open_roles.index(role) + 1 :]
            )
            numeric = [column for column in free if is_numeric(column)]
            if not role.required:
                found = []
            elif role.many:
                found = numeric[: max(1, len(numeric) - later)]
            else:
                found = numeric[:1] or free[-1:]
            found = found or (free[-1:] if role.required else [])
        if found:
            roles[role.name] = tuple(column.id for column in found)
            free = [column for column in free if column not in found]
    return {role.name: roles[role.name] for role in recipe.roles if role.name in roles}


def _is_called(column: Column, role: Role) -> bool:
    return column.name.strip().casefold() in (role.name, *role.also) and (role.kind == "number") == is_numeric(column)


def is_numeric(column: Column) -> bool:
    """Whether most of a column's filled cells are numbers or formulas."""
    filled = [cell for cell in column.cells[HEADER:] if cell is not None]
    numbers = sum(isinstance(cell, float | Formula | Written) for cell in filled)
    return bool(filled) and numbers / len(filled) > 0.5
