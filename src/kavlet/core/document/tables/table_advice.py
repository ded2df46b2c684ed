"""What a table is like, for recipes to say how well they suit it; and which of them to offer first."""

import itertools
import math
from collections.abc import Mapping, Sequence
from typing import Literal

import msgspec
from msgspec import Struct

from kavlet.core.document import edits
from kavlet.core.document.charts import data_direction
from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import Document
from kavlet.core.document.tables import vocabulary
from kavlet.core.document.tables.columns import entries, kinds, unit
from kavlet.core.document.tables.evaluated_table import settled, values_of
from kavlet.core.document.tables.helper_tables import VALUES
from kavlet.core.document.tables.role_guessing import guess_roles
from kavlet.core.document.tables.total_rows import WORDS
from kavlet.core.messages import symbol_named
from kavlet.core.recipes.features import Features, Suitability
from kavlet.core.recipes.recipe import Recipe, Setting
from kavlet.core.shapes.symbol import shelf
from kavlet.core.spreadsheet.cells import Value
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.identity_cache import cached_by_identity
from kavlet.core.values.sums import exact_sum

MAGNITUDES = 1.5  # powers of ten between columns of figures that are hardly of one kind
MAX_COUNTED = 100  # things that are still counted one by one
FEW_STAGES, MAX_STAGES = 3, 12
LONG_NAME, VERY_LONG = 15, 18  # letters, of names in the mean and of one among many
MANY = 5  # rows


def features(table: Table, values: list[list[Value]]) -> Features:
    """Look at a table; `values` holds each column's values from the first row of figures on."""
    kind = kinds(table)
    own_columns = [(i, column) for i, column in enumerate(table.columns) if column.helper is None]
    figures = [(i, column) for i, column in own_columns if kind[column.id] == "figures"]
    name_columns = [column for _, column in own_columns if kind[column.id] == "names"]
    times = [column for _, column in own_columns if kind[column.id] == "periods"]
    naming = next(iter([*name_columns, *times]), None)
    names = entries(naming) if naming is not None else [""] * table.rows
    rows = _without_totals(names)
    names = names[:rows]
    goal, budget = (_meant(figures, words) for words in (vocabulary.GOAL, vocabulary.BUDGET))
    stated = {id(column) for column in (goal, budget) if column is not None}
    charted = [(i, column) for i, column in figures if id(column) not in stated] or figures
    series_values = [[v for v in values[i][:rows] if isinstance(v, float)] for i, _ in charted]
    first = series_values[0] if series_values else []
    heads = [column.name for _, column in charted]
    times_as_names = naming is not None and naming in times
    changes = any(vocabulary.words_of(head) & vocabulary.CHANGE for head in heads) or _begins_and_ends(names)
    return Features(
        rows=rows,
        numbers=len(charted),
        values=tuple(first),
        negative=any(value < 0 for value in first),
        falling=len(first) > 2 and all(a >= b for a, b in itertools.pairwise(first)) and first[0] > first[-1],
        timed=times_as_names or vocabulary.are_periods(names),
        shares=_is_whole(first) and min(first, default=-1.0) >= 0 and len(charted) == 1,
        row_shares=len(charted) > 1 and all(map(_is_whole, zip(*series_values, strict=False))),
        percent=bool(charted) and _is_percent(charted[0][1], first),
        outlier=_outlier(first),
        counts=_counted(heads, first),
        repeated=_grouped(name_columns, rows),
        stepped=_stepped(name_columns, times, rows),
        stages=_stages(naming, names),
        changes=changes and any(value < 0 for value in first),
        pair=_pair(heads),
        across=any(vocabulary.words_of(head) & vocabulary.ACROSS for head in heads),
        units=_units([column for _, column in charted], series_values),
        goal=_stated(goal, values, table, rows),
        budget=_stated(budget, values, table, rows),
        symbol=_symbol([table.name, *heads, naming.name if naming is not None else ""]),
        long_names=bool(names)
        and (sum(map(len, names)) > LONG_NAME * len(names) or (rows >= MANY and max(map(len, names)) > VERY_LONG)),
    )


def _symbol(texts: Sequence[str]) -> str:
    """The first symbol of the shelf that a word names, in English or the reader's language: by its name, else by the
    words it is found by."""
    names: dict[str, str] = {}
    words: dict[str, str] = {}
    for symbol in shelf().values():
        for name in (symbol.name, str(symbol_named(symbol.name))):
            names.setdefault(name.casefold(), symbol.name)
        for word in symbol.words:
            words.setdefault(word.casefold(), symbol.name)
    said = [word for text in texts for word in sorted(vocabulary.words_of(text))]
    forms = [form for word in said for form in (word, word.removesuffix("s"))]
    return next((known[form] for known in (names, words) for form in forms if form in known), "")


def _without_totals(names: Sequence[str]) -> int:
    """How many rows there are before those at the end that are called totals."""
    rows = len(names)
    while rows > 1 and names[rows - 1].strip(" :").casefold() in WORDS:
        rows -= 1
    return rows


def _meant(figures: list[tuple[int, Column]], words: frozenset[str]) -> Column | None:
    """The column of figures that is called by one of the words, where another is left to be charted."""
    if len(figures) < 2:
        return None
    return next((column for _, column in figures if vocabulary.words_of(column.name) & words), None)


def _stated(column: Column | None, values: list[list[Value]], table: Table, rows: int) -> Literal["", "once", "each"]:
    if column is None:
        return ""
    held = {value for value in values[table.place(column.id)][:rows] if isinstance(value, float)}
    return "once" if len(held) == 1 else "each" if held else ""


def _is_whole(figures: Sequence[float]) -> bool:
    """Whether two figures or more add up to 100 or to 1, but for rounding."""
    total = exact_sum(figures)
    return len(figures) > 1 and (abs(total - 100) < 1.5 or abs(total - 1) < 0.015)


def _is_percent(column: Column, figures: Sequence[float]) -> bool:
    written = column.writes is not None and column.writes.style == "percent"
    return written or (len(figures) > 1 and min(figures) >= 0 and max(figures) <= 1 and not _is_counting(figures))


def _is_counting(figures: Sequence[float]) -> bool:
    return all(value.is_integer() for value in figures)


def _counted(heads: Sequence[str], figures: Sequence[float]) -> bool:
    """Whole numbers of things that can be told apart one by one, in a column called so."""
    few = bool(figures) and _is_counting(figures) and all(0 <= value <= MAX_COUNTED for value in figures)
    return few and len(heads) == 1 and bool(vocabulary.words_of(heads[0]) & vocabulary.COUNT)


def _grouped(named: list[Column], rows: int) -> bool:
    """Whether a second column of texts puts rows into groups, in each of which a name stands once."""
    if len(named) < 2:
        return False
    names, groups = (entries(column)[:rows] for column in named[:2])
    by = set(groups) - {""}
    apart = len(set(zip(names, groups, strict=True))) == len(names)
    return apart and 1 < len(by) < len(groups) and not _are_flags(by)


def _are_flags(texts: set[str]) -> bool:
    return {text.casefold() for text in texts} <= {"yes", "no", "ja", "nein", "true", "false", "x", "wahr", "falsch"}


def _stepped(named: list[Column], times: list[Column], rows: int) -> bool:
    """Whether the same names come again in each of several times."""
    if not named or not times:
        return False
    names, periods = entries(named[0])[:rows], entries(times[0])[:rows]
    return len(set(periods)) > 1 and len(set(names)) < len(names) and len(set(zip(names, periods, strict=True))) == rows


def _stages(naming: Column | None, names: Sequence[str]) -> bool:
    """Whether rows are stages one gets through, by the header or by their names."""
    if naming is None or not FEW_STAGES <= len(names) <= MAX_STAGES:
        return False
    known = sum(bool(vocabulary.words_of(name) & vocabulary.STAGES) for name in names)
    return bool(vocabulary.words_of(naming.name) & vocabulary.STAGE_HEAD) or known >= 0.6 * len(names)


def _begins_and_ends(names: Sequence[str]) -> bool:
    """Whether the first row is called a beginning, or the last an end."""
    if not names:
        return False
    starts, ends = vocabulary.words_of(names[0]), vocabulary.words_of(names[-1])
    return bool(starts & vocabulary.START or ends & vocabulary.END)


def _pair(heads: Sequence[str]) -> Literal["", "periods", "sides"]:
    if len(heads) != 2:
        return ""
    if vocabulary.two_periods(*heads):
        return "periods"
    return "sides" if vocabulary.two_sides(*heads) else ""


def _units(figures: Sequence[Column], held: Sequence[Sequence[float]]) -> int:
    """How many units there are among columns of figures: as they say, or as their magnitudes tell."""
    said = {unit(column) for column in figures}
    if len(said) > 1:
        return len(said)
    sizes = sorted(math.log10(max(map(abs, column))) for column in held if any(column))
    return 1 + sum(b - a > MAGNITUDES for a, b in itertools.pairwise(sizes))


def _outlier(values: Sequence[float]) -> bool:
    ordered = sorted(values, reverse=True)
    return len(ordered) > 3 and ordered[1] > 0 and ordered[0] > 4 * ordered[1]


class Suggestion(Struct, frozen=True):
    """A recipe for a table: how well it suits and why, the columns in its roles, and settings it proposes.

    `across`: its figures are those of a row; the columns that are read stand in the role of the figures then.
    """

    recipe: str
    suited: Suitability
    roles: dict[str, tuple[str, ...]]
    settings: dict[str, Setting] = {}
    across: bool = False


def with_proposals(document: Document, chart_id: str) -> Document:
    """A chart with the settings its recipe proposes for want of them, where no column holds them either."""
    chart = document.chart(chart_id)
    recipe = recipes_of(document).get(chart.recipe)
    if recipe is None:
        return document
    wanted = _proposals(features_of(document, chart.table), recipe, chart.roles, chart.settings)
    return edits.change_chart(document, chart_id, settings={**chart.settings, **wanted}) if wanted else document


def _proposals(
    of: Features, recipe: Recipe, roles: Mapping[str, object], settings: Mapping[str, object]
) -> dict[str, Setting]:
    found = recipe.proposes(of)
    return {name: value for name, value in found.items() if not roles.get(name) and name not in settings}


@cached_by_identity(4)
def features_of(document: Document, table: str) -> Features:
    """Look at a table of a document."""
    values = [column.values[HEADER:] for column in values_of(document.tables).of(table)]
    return features(settled(document, table), values)


def suggestions(document: Document, table: str) -> list[Suggestion]:
    """All recipes for a table, the best first."""
    table_now, features = settled(document, table), features_of(document, table)
    if (
        table_now.rows == 1
        and features.numbers > 2
        and features.units == 1
        and not features.goal
        and not features.budget
    ):
        return _across(document, table)
    suggested: list[Suggestion] = []
    for recipe in sorted(recipes_of(document).values(), key=lambda candidate: -candidate.suits(features).score):
        roles = guess_roles(table_now, recipe)
        suggested.append(
            Suggestion(recipe.name, recipe.suits(features), roles, _proposals(features, recipe, roles, {}))
        )
    return suggested


def _across(document: Document, table: str) -> list[Suggestion]:
    """All recipes for the one row of a table, whose figures run across it."""
    tried, chart = edits.add_chart(document, table, next(iter(recipes_of(document))))
    tried = data_direction.read_across(tried, chart)
    entry = tried.chart(chart)
    columns = entry.reading.columns if entry.reading is not None else ()
    return [
        msgspec.structs.replace(
            one, roles={role: columns if ids == (VALUES,) else () for role, ids in one.roles.items()}, across=True
        )
        for one in suggestions(tried, entry.table)
    ]
