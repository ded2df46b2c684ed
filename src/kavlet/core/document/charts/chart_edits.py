"""Edits of charts as wholes: another recipe, cutting loose, copies."""

from typing import Any

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.looks import parse
from kavlet.core.document.charts.recipe_lookup import find_recipe, recipes_of
from kavlet.core.document.document import (
    ChartEntry,
    Document,
    EarlierSettings,
    fresh_id,
    fresh_name,
    with_chart,
    with_table,
)
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages.page_edits import showing_otherwise, without_frames
from kavlet.core.document.tables.columns import kinds
from kavlet.core.document.tables.evaluated_table import settled
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.helper_tables import loosened
from kavlet.core.document.tables.role_guessing import guess_roles
from kavlet.core.messages import say
from kavlet.core.recipes.recipe import Parameter, Recipe, Setting
from kavlet.core.recipes.settings import checked_setting
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.errors import KavletError


def try_recipe(document: Document, chart_id: str, recipe: str) -> Document:
    """The chart by another recipe: its texts, dress and settings stay where they have a meaning there.

    Roles of the same name keep the columns that the author chose; those that were only guessed are guessed anew. One
    that many columns may share takes all there are where only one column could have it before. A recipe the chart has
    been by gets back the columns and settings it had there. Colours and labels set by hand on the layer the old chart
    is about go over to the one the new chart is about (layers are known by key: `value`, `series 1`, …).
    """
    chart = document.chart(chart_id)
    made_by = find_recipe(document, recipe)
    before = recipes_of(document).get(chart.recipe)
    table = settled(document, chart.table)
    own_columns = {column.id for column in table.columns if column.helper is None or column.helper.chart != chart_id}
    back = chart.past.get(recipe, EarlierSettings())
    guessed = guess_roles(table, before) if before is not None else {}
    chosen_roles = {role: columns for role, columns in chart.roles.items() if guessed.get(role) != columns}
    kept: dict[str, tuple[str, ...]] = {}
    for role in made_by.roles:
        earlier = back.roles.get(role.name) if role.many or role.name not in chosen_roles else None
        columns = tuple(column for column in earlier or chosen_roles.get(role.name, ()) if column in own_columns)
        if columns and (not role.many or earlier or _many(before, role.name)):
            kept[role.name] = columns if role.many else columns[:1]
    roles = guess_roles(table, made_by, _sharing(table, made_by, kept))
    size = {}
    if before is not None and (chart.width, chart.height) == before.size:
        size = {"width": made_by.size[0], "height": made_by.size[1]}
    repeat = chart.repeat and made_by.repeats is not None
    settings = _meaningful(chart.settings, before, made_by) | _meaningful(back.settings, None, made_by)
    past = {name: columns for name, columns in chart.past.items() if name != recipe}
    if chart.recipe:
        past[chart.recipe] = EarlierSettings(chart.roles, chart.settings)
    changes: dict[str, Any] = {
        "recipe": recipe,
        "roles": roles,
        "settings": settings,
        "past": past,
        "free": None,
        "repeat": repeat,
        **size,
    }
    document = showing_otherwise(document, chart_id, _repeated_over(before) == _repeated_over(made_by))
    return fitted(with_chart(document, msgspec.structs.replace(chart, **changes)))


def _repeated_over(recipe: Recipe | None) -> str:
    """What a recipe's charts are repeated over on pages."""
    if recipe is None:
        return ""
    return "figures" if recipe.repeats is not None else "periods" if recipe.steps is not None else recipe.series


def repeated(document: Document, chart_id: str, on: bool) -> Document:
    """The chart once for each row, or once for each group where names occur several times; or one chart again.

    Raises KavletError for a chart whose recipe shows all rows at once.
    """
    chart, table = document.chart(chart_id), document.table(document.chart(chart_id).table)
    recipe = recipes_of(document).get(chart.recipe)
    how = recipe.repeats if recipe is not None else None
    if on and how is None:
        able = [one.title for one in recipes_of(document).values() if one.repeats is not None]
        raise KavletError(
            say("This chart shows all rows already."), remedy=say("These can be repeated: {names}.", names=list(able))
        )  # fmt: skip
    settings = dict(chart.settings)
    if how is not None and how.of:
        settings.pop(how.of, None)
        if on:
            settings[how.of] = of_each(chart, table, how.of)
    return fitted(with_chart(document, msgspec.structs.replace(chart, repeat=on, settings=settings)), document)


def of_each(chart: ChartEntry, table: Table, parameter: str) -> Setting:
    """What each of several charts is of, where one is of the sum of all: as the author says, else each group where
    names occur several times, else each row."""
    stated = chart.settings.get(parameter, "sum")
    held = chart.roles.get("name", ())
    names = [cell for cell in table.columns[table.place(held[0])].cells[HEADER:] if cell] if held else []
    return stated if stated != "sum" else "group" if len(set(names)) < len(names) else "row"


def _sharing(table: Table, recipe: Recipe, roles: dict[str, tuple[str, ...]]) -> dict[str, tuple[str, ...]]:
    """The columns kept, where a role that many may have leaves the last ones to roles that would go without."""
    needy = [role for role in recipe.roles if role.kind == "number" and role.required and role.name not in roles]
    used = {column for columns in roles.values() for column in columns}
    free = sum(kind == "figures" and column not in used for column, kind in kinds(table).items())
    short = max(0, len(needy) - free)
    many = next((role.name for role in recipe.roles if role.many and len(roles.get(role.name, ())) > short), "")
    return {**roles, many: roles[many][:-short]} if short and many else roles


def _many(recipe: Recipe | None, role: str) -> bool:
    """Whether many columns could have a role by a recipe."""
    held = recipe.role(role) if recipe is not None else None
    return held is not None and held.many


def _meaningful(settings: dict[str, Setting], before: Recipe | None, recipe: Recipe) -> dict[str, Setting]:
    """Settings without those that a recipe uses the same name for, but with other values or another meaning than the
    recipe `before`."""
    return {
        name: value
        for name, value in settings.items()
        if all(
            _may_have(parameter, value) and _alike(before.parameter(name) if before is not None else None, parameter)
            for parameter in recipe.parameters
            if parameter.name == name
        )
    }


def _alike(parameter: Parameter | None, other: Parameter) -> bool:
    """Whether two parameters of one name are measured alike."""
    return parameter is None or (parameter.type, parameter.unit) == (other.type, other.unit)


def _may_have(parameter: Parameter, value: Setting) -> bool:
    if isinstance(value, str) and value.startswith("="):
        return parameter.type == "number"
    try:
        checked_setting(parameter, value)
    except KavletError:
        return False
    return True


def carried_over(overrides: dict[str, Any], old: str, new: str, varies: bool = False) -> dict[str, Any]:
    """Values set by hand on one layer, set on another as well, where it has none yet; the colour of a whole layer does
    not go to one whose rows vary in colour."""
    if not old or not new or old == new:
        return overrides
    looks = {path: parse(path) for path in overrides}
    mine = {
        path: overrides[path]
        for path, look in looks.items()
        if look.layer == old and not (varies and look.row is None and look.field[:1] == ("fill",))
    }
    return look_edits.moved(mine, old, (new,)) | overrides


def cut_loose(document: Document, chart_id: str, spec: Chart) -> Document:
    """The chart as layers of its own, its helper columns as columns of the table: nothing renews them any more.

    `spec` is what the recipe has made of it.
    """
    chart = document.chart(chart_id)
    if not chart.recipe:
        raise KavletError(say("This chart is loose already."))
    spec = msgspec.structs.replace(spec, alt_text="", long_text="")  # told from the figures, as they are then
    table = loosened(document.table(chart.table))
    taken = [column.name for column in table.columns if column.helper is None]
    columns: list[Column] = []
    for column in table.columns:
        if column.helper is None or column.helper.chart != chart_id:
            columns.append(column)
            continue
        name = fresh_name(column.name or column.helper.name, taken)
        taken.append(name)
        cells = tuple(
            Formula(cell.text, False, cell.number) if isinstance(cell, Formula) else cell
            for cell in column.cells[HEADER:]
        )
        columns.append(msgspec.structs.replace(column, helper=None, cells=(name, *cells)))
    ordered = tuple(sorted(columns, key=lambda column: column.helper is not None))
    if ordered != tuple(columns):
        raise KavletError(
            say("Another chart’s helper columns stand between."),
            remedy=say("Cut the chart loose that was made first, first."),
        )
    document = with_table(document, msgspec.structs.replace(table, columns=ordered))
    subtitle = chart.subtitle or spec.subtitle.text  # whose figure it is, where the recipe said so
    loose = msgspec.structs.replace(
        chart, recipe="", roles={}, settings={}, layers=(), free=spec, subtitle=subtitle, reading=None
    )
    return fitted(with_chart(document, loose))


def copy_chart(document: Document, chart_id: str) -> tuple[Document, str]:
    """A copy of a chart on the same table, with helper columns of its own. Returns the document and the copy's id."""
    chart = document.chart(chart_id)
    new = fresh_id("k", (entry.id for entry in document.charts))
    name = fresh_name(chart.name, (entry.name for entry in document.charts))
    at = document.charts.index(chart) + 1
    charts = (*document.charts[:at], msgspec.structs.replace(chart, id=new, name=name), *document.charts[at:])
    return fitted(msgspec.structs.replace(document, charts=charts)), new


def rename_chart(document: Document, chart_id: str, name: str) -> Document:
    """The chart called something else. Raises KavletError for no name, or that of another chart."""
    bare = name.strip()
    if not bare:
        raise KavletError(say("A chart needs a name."))
    if any(entry.name == bare and entry.id != chart_id for entry in document.charts):
        raise KavletError(say("There is a chart called “{name}” already.", name=bare))
    return with_chart(document, msgspec.structs.replace(document.chart(chart_id), name=bare))


def delete_chart(document: Document, chart_id: str) -> Document:
    """The document without a chart, its helper columns and its frames on pages."""
    document.chart(chart_id)
    document = without_frames(document, {chart_id})
    return fitted(
        msgspec.structs.replace(document, charts=tuple(entry for entry in document.charts if entry.id != chart_id))
    )
