"""Keeps helper columns true to their recipes: the last step of every edit.

Helper tables come first (`helper_tables.py`). A recipe's helper columns stand after the table's own. Cells the recipe
made are renewed; what an author typed into a helper column stays; an emptied helper cell goes back to the recipe.

Where figures may say that there is no value (#N/A), one more helper column holds those that are numbers, and the
recipe's formulas read that one: a single gap must not undo a largest value.
"""

import msgspec

from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import ChartEntry, Document, fresh_id, with_table
from kavlet.core.document.tables.helper_tables import with_helper_tables
from kavlet.core.document.tables.total_rows import counted_rows
from kavlet.core.recipes.recipe import GUARD, CellAddresses, HelperColumn, Recipe, helper_title
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import RangeReference, column_letters, rewritten
from kavlet.core.spreadsheet.table import HEADER, Column, Helper, Table


def fitted(document: Document, before: Document | None = None) -> Document:
    """The document with all helper columns in place; the same object when nothing had to change.

    `before` is the fitted document an edit started from: tables whose parts are still the same objects are left alone.
    """
    document = with_helper_tables(document)
    kept = _parts(before) if before is not None and before.recipes is document.recipes else {}
    now = _parts(document) if kept else {}
    for table in document.tables:
        old, new = kept.get(table.id, ()), now.get(table.id, ())
        if not old or len(old) != len(new) or any(a is not b for a, b in zip(old, new, strict=True)):
            document = _fitted_table(document, table)
    return document


def _parts(document: Document) -> dict[str, list[Table | ChartEntry]]:
    """Each table with its charts: all that its helper columns follow from."""
    parts: dict[str, list[Table | ChartEntry]] = {table.id: [table] for table in document.tables}
    for chart in document.charts:
        parts[chart.table].append(chart)
    return parts


def _fitted_table(document: Document, table: Table) -> Document:
    recipes = recipes_of(document)
    charts = {chart.id: chart for chart in document.charts if chart.table == table.id and chart.recipe in recipes}
    own_columns = [column for column in table.columns if column.helper is None]
    helpers: list[Column] = []
    ids = [column.id for column in table.columns]
    existing = {(c.helper.chart, c.helper.name): c for c in table.columns if c.helper is not None}
    for chart in charts.values():
        recipe = recipes[chart.recipe]
        helper_columns = recipe.helper_columns(
            _places(chart, recipe, own_columns, {}, counted_rows(table, chart, recipe))
        )
        for helper in (
            *helper_columns,
            *(HelperColumn(name, GUARD.meaning) for name in _guarded(chart, recipe, own_columns)),
        ):
            column = existing.get((chart.id, helper.name))
            if column is None:
                title = helper_title(helper.name).said_in(document.locale)
                cells = (title, *(None,) * (table.height - HEADER))
                column = _new_column(chart.id, helper, cells, fresh_id("c", ids))
                ids.append(column.id)
            helpers.append(column)
    for chart in charts.values():
        counted = counted_rows(table, chart, recipes[chart.recipe])
        helpers = _filled(chart, recipes[chart.recipe], own_columns, helpers, counted)
    columns = (*own_columns, *helpers)
    unchanged = len(columns) == len(table.columns) and all(
        old is other for old, other in zip(columns, table.columns, strict=True)
    )
    return document if unchanged else with_table(document, msgspec.structs.replace(table, columns=columns))


def _places(
    chart: ChartEntry, recipe: Recipe, columns: list[Column], helper_places: dict[str, int], rows: int
) -> CellAddresses:
    places = {column.id: i for i, column in enumerate(columns)}
    roles = {
        role: tuple(places[column] for column in role_columns if column in places)
        for role, role_columns in chart.roles.items()
    }
    return CellAddresses(
        {role: roles.get(role, ()) for role in {declared.name for declared in recipe.roles} | set(roles)},
        helper_places,
        rows,
        recipe.defaults | chart.settings,
        frozenset(role for role, role_columns in roles.items() for i in role_columns if _percent(columns[i])),
    )


def _guarded(chart: ChartEntry, recipe: Recipe, own: list[Column]) -> dict[str, str]:
    """The columns of a chart's numbers in which a cell may be #N/A, by the name of the helper that stands for each."""
    held = [column for role in recipe.roles if role.kind == "number" for column in chart.roles.get(role.name, ())]
    missing = _may_miss(own)
    return {f"{GUARD.name} {i}": column for i, column in enumerate(dict.fromkeys(held), 1) if column in missing}


def _may_miss(columns: list[Column]) -> set[str]:
    """The columns in which a formula says #N/A, or reads a column in which one may."""
    formulas = {
        (i, column.id): [cell.text for cell in column.cells[HEADER:] if isinstance(cell, Formula)]
        for i, column in enumerate(columns)
    }
    helpers = {place: key for (place, key), texts in formulas.items() if any("NA(" in text.upper() for text in texts)}
    grown = bool(helpers)
    while grown:
        more = {
            place: key
            for (place, key), texts in formulas.items()
            if place not in helpers and any(not helpers.keys().isdisjoint(_columns_of(text)) for text in texts)
        }
        helpers |= more
        grown = bool(more)
    return set(helpers.values())


def _columns_of(formula: str) -> set[int]:
    """The columns of its own table that a formula reads."""
    read: set[int] = set()

    def note(one: RangeReference) -> RangeReference:
        if not one.table:
            last = one.other or one.one
            read.update(range(min(one.one.column, last.column), max(one.one.column, last.column) + 1))
        return one

    rewritten(formula, note)
    return read


def _percent(column: Column) -> bool:
    return column.writes is not None and column.writes.style == "percent"


def _new_column(chart: str, wanted: HelperColumn, cells: tuple[Cell, ...], column: str) -> Column:
    return Column(column, cells, Helper(chart, wanted.name), wanted.number)


def _filled(
    chart: ChartEntry, recipe: Recipe, own_columns: list[Column], helpers: list[Column], rows: int
) -> list[Column]:
    """The chart's helper columns with the recipe's formulas in every cell the author has not changed."""
    columns = [*own_columns, *helpers]
    places = {column.id: i for i, column in enumerate(columns)}
    helper_places = {
        c.helper.name: places[c.id] for c in helpers if c.helper is not None and c.helper.chart == chart.id
    }
    guarded = _guarded(chart, recipe, own_columns)
    stand = _places(chart, recipe, columns, helper_places, rows)
    if any(role.required and not stand.roles[role.name] for role in recipe.roles):
        return helpers
    guards = {places[column]: helper_places[name] for name, column in guarded.items() if name in helper_places}
    numbers = {role.name for role in recipe.roles if role.kind == "number"}
    roles = {
        role: tuple(guards.get(i, i) if role in numbers else i for i in role_places)
        for role, role_places in stand.roles.items()
    }
    formulas = recipe.formulas(msgspec.structs.replace(stand, roles=roles)) if rows else {}
    for place, guard in guards.items():
        name = next(name for name, i in helper_places.items() if i == guard)
        cells = [f"{column_letters(place)}{row}" for row in stand.span]
        formulas |= {name: [f'=IF(ISNUMBER({cell});{cell};"")' for cell in cells]}
    return [
        _renewed(column, formulas.get(column.helper.name, []))
        if column.helper is not None and column.helper.chart == chart.id
        else column
        for column in helpers
    ]


def _renewed(column: Column, formulas: list[str]) -> Column:
    held = column.cells[HEADER:]
    wanted = [*formulas, *("" for _ in held[len(formulas) :])]  # a total row has none
    cells: tuple[Cell, ...] = (*column.cells[:HEADER], *map(_cell, held, wanted))
    return column if cells == column.cells else msgspec.structs.replace(column, cells=cells)


def _cell(held: Cell, formula: str) -> Cell:
    if held is not None and not (isinstance(held, Formula) and held.made):
        return held
    return Formula(formula, made=True) if formula else None
