"""Guesses which column of a table is for which role of a recipe."""

from itertools import pairwise

from kavlet.core.document.tables import vocabulary
from kavlet.core.document.tables.columns import ColumnKind, entries, is_numeric, kinds
from kavlet.core.recipes.recipe import Recipe, Role
from kavlet.core.spreadsheet.table import HEADER, Column, Table

# Which kinds of columns name rows, the likeliest first.
NAMING: tuple[ColumnKind, ...] = ("names", "periods", "identities", "notes")
MEANT = {
    "goal": vocabulary.GOAL, "target": vocabulary.GOAL, "budget": vocabulary.BUDGET, "group": vocabulary.GROUP,
    "period": vocabulary.PERIOD_HEAD,
}  # fmt: skip


def guess_roles(
    table: Table, recipe: Recipe, fixed: dict[str, tuple[str, ...]] | None = None
) -> dict[str, tuple[str, ...]]:
    """Column ids per role: those given, then a column that is called like the role, then the first of its kind. Of two
    columns of names, the one that repeats in blocks holds the groups, whatever they are called.

    A role that many columns may share takes all figures that are left; where a later role needs one too, all but that
    many. Optional roles are only given to columns that are called like them. Numbers that are no figures (years,
    running numbers, postcodes) name rows where nothing else does. Where no column has the right kind, the first free
    one is taken, so that the recipe can say what is wrong with it.
    """
    roles: dict[str, tuple[str, ...]] = dict(fixed or {})
    used = {column for role_columns in roles.values() for column in role_columns}
    free = [column for column in table.columns if column.helper is None and column.id not in used]
    kind = kinds(table)
    for part, column in _in_blocks(
        recipe, [candidate for candidate in free if kind[candidate.id] in NAMING], roles
    ).items():
        roles[part] = (column.id,)
        free.remove(column)
    for role in recipe.roles:
        named_column = next(
            (column for column in free if role.name not in roles and _is_called(column, role, kind)), None
        )
        if named_column is not None:
            roles[role.name] = (named_column.id,)
            free.remove(named_column)
    open_roles = [role for role in recipe.roles if role.name not in roles]
    for role in sorted(open_roles, key=lambda role: role.kind != "text"):
        if role.kind == "text":
            columns = _naming(free, role, kind)
        else:
            later = sum(
                other.kind == "number" and other.required and other.name not in roles
                for other in open_roles[open_roles.index(role) + 1 :]
            )
            figures = [column for column in free if kind[column.id] == "figures"]
            if not role.required:
                columns = []
            elif role.many:
                columns = figures[: max(1, len(figures) - later)]
            else:
                columns = figures[:1] or [column for column in free if is_numeric(column)][:1] or free[-1:]
            columns = columns or (free[-1:] if role.required else [])
        if columns:
            roles[role.name] = tuple(column.id for column in columns)
            free = [column for column in free if column not in columns]
    return {role.name: roles[role.name] for role in recipe.roles if role.name in roles}


def _in_blocks(recipe: Recipe, columns: list[Column], given: dict[str, tuple[str, ...]]) -> dict[str, Column]:
    """Names and their groups, where a table plainly has both: the groups stand in blocks of several rows each, and no
    name stands twice in one of them."""
    asks = [one.name for one in recipe.roles if one.kind == "text" and one.required and one.name not in given]
    if set(asks) != {"name", "group"} or len(columns) != 2:
        return {}
    for group, name in (columns, columns[::-1]):
        groups, names = entries(group), entries(name)
        if len(groups) != len(names):
            continue
        blocks = 1 + sum(one != other for one, other in pairwise(groups))
        told_apart = len(set(zip(groups, names, strict=True))) == len(names)
        if blocks == len(set(groups)) < len(groups) and len(set(names)) > blocks and told_apart:
            return {"group": group, "name": name}
    return {}


def _naming(free: list[Column], role: Role, kind: dict[str, ColumnKind]) -> list[Column]:
    """A column for a role of texts: of names, else of times, else of numbers that are no figures."""
    if not (role.required or role.name == "name"):
        return []
    column_kinds = ("periods", *NAMING) if role.name == "period" else NAMING
    columns = [column for column_kind in column_kinds for column in free if kind[column.id] == column_kind]
    return columns[:1] or (free[:1] if role.required and len(free) > 1 else [])


def _is_called(column: Column, role: Role, kind: dict[str, ColumnKind]) -> bool:
    fits = kind[column.id] == "figures" if role.kind == "number" else kind[column.id] != "figures"
    bare = column.name.strip().casefold()
    if bare == role.name or bare in role.also:
        return fits or (role.kind == "number" and is_numeric(column))
    if role.name == "group" and len(set(entries(column))) == len(column.cells[HEADER:]):
        return False  # each row its own: they are names
    return fits and bool(vocabulary.words_of(column.name) & MEANT.get(role.name, frozenset()))
