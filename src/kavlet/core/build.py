"""The stages from a document to a scene, as one readable list.

values = recalculate(document.tables)          all formulas
build  = build_chart(document, values, chart)  helper columns and the chart's specification
figure = compose(build, size)                  everything in its place
scene  = draw(figure)                          primitives
"""

import math

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart, Texts
from kavlet.core.compose import compose as composing
from kavlet.core.compose.data import Data
from kavlet.core.compose.draw import draw
from kavlet.core.compose.figure import Figure
from kavlet.core.compose.layout import lay_out
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.dress.style import resolve
from kavlet.core.figures.cells import ErrorValue, Formula, Value, text_of
from kavlet.core.figures.recalculate import Values, recalculate
from kavlet.core.figures.table import HEADER, Table
from kavlet.core.proof.checks import findings
from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import HelperBuild, Inputs, Parameter, Recipe, Setting
from kavlet.core.recipes.registry import recipe as recipe_named
from kavlet.core.scene.primitives import Scene
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size
from kavlet.core.values.number_text import PLAIN

MOST_ROWS = 1_000


class Build(Struct, frozen=True):
    """What a recipe yields for one table: helper columns, a chart, and what was read for them."""

    entry: ChartEntry
    inputs: Inputs
    helpers: tuple[HelperBuild, ...]
    chart: Chart
    data: Data


class Picture(Struct, frozen=True):
    """A chart at the end of all stages."""

    build: Build
    figure: Figure
    scene: Scene
    findings: tuple[Finding, ...]


def build_chart(document: Document, values: Values, chart: str) -> Build:
    """Run a chart's recipe. Raises KavletError with one sentence when the table does not fit it."""
    entry = document.chart(chart)
    table = document.table(entry.table)
    made_by = recipe_named(entry.recipe)
    inputs = _inputs(document, values, entry, table, made_by)
    made_by.check(inputs)
    spec = made_by.chart(inputs)
    texts = Texts(*(_bound(text, document, values, entry) for text in (entry.title, entry.subtitle, entry.source)))
    spec = msgspec.structs.replace(spec, texts=texts)
    data = Data(inputs.values, inputs.numbers, table.rows, document.locale)
    return Build(entry, inputs, _helpers(table, values, entry, inputs, made_by), spec, data)


def picture(document: Document, values: Values, chart: str, size: Size | None = None) -> Picture:
    """All stages after recalculation; `size` in points, the chart's own when not given."""
    build = build_chart(document, values, chart)
    style = resolve(build.entry.dress)
    layout = lay_out(build.chart, build.data, style, size or Size(build.entry.width, build.entry.height))
    figure = composing.place(build.chart, build.data, style, layout)
    return Picture(build, figure, draw(figure), findings(build.entry.recipe, build.inputs, figure))


class Pictures:
    """Keeps the last values and pictures, and reuses what did not change: the same object in, the same object out."""

    def __init__(self) -> None:
        self._values: Values | None = None
        self._kept: dict[str, tuple[tuple[object, ...], Picture]] = {}

    def values(self, document: Document) -> Values:
        """The document's values; only what depends on changed cells is evaluated again."""
        if self._values is None or self._values.tables is not document.tables:
            self._values = recalculate(document.tables, self._values)
        return self._values

    def picture(self, document: Document, chart: str) -> Picture:
        """The chart's picture. Raises KavletError when the table does not fit its recipe."""
        values = self.values(document)
        entry = document.chart(chart)
        reads = (entry, document.locale, document.table(entry.table), *values.of(entry.table))
        if entry.title.startswith("=") or entry.subtitle.startswith("=") or entry.source.startswith("="):
            reads = (*reads, values)
        kept = self._kept.get(chart)
        if kept and len(kept[0]) == len(reads) and all(a is b for a, b in zip(kept[0], reads, strict=True)):
            return kept[1]
        made = picture(document, values, chart)
        self._kept[chart] = (reads, made)
        return made


def _inputs(document: Document, values: Values, entry: ChartEntry, table: Table, made_by: Recipe) -> Inputs:
    places = {role: table.place(column) for role, column in entry.roles.items()}
    places = {role: place for role, place in places.items() if place >= 0}
    for role in made_by.roles:
        if role.required and role.name not in places:
            raise KavletError(
                f"No column is chosen as {role.name}.", remedy="Choose one by the chip over the column it should be."
            )
    if not table.rows:
        raise KavletError("The table has no rows of figures.", remedy="Add a row below the names.")
    if table.rows > MOST_ROWS:
        raise KavletError(
            f"The table has {table.rows:,} rows, more than the {MOST_ROWS:,} a chart can show.",
            remedy="Make a smaller table for the chart.",
        )
    columns = values.of(entry.table)
    helper_ids = {c.helper.name: c.id for c in table.columns if c.helper is not None and c.helper.chart == entry.id}
    return Inputs(
        table_name=table.name,
        role_ids={role: table.columns[place].id for role, place in places.items()},
        role_places=places,
        role_names={role: table.called(place) for role, place in places.items()},
        helper_ids=helper_ids,
        values={column.id: columns[i].values[HEADER:] for i, column in enumerate(table.columns)},
        numbers={column.id: columns[i].numbers[HEADER:] for i, column in enumerate(table.columns)},
        settings=_settings(entry, made_by, values),
        number_texts={c.id: c.number for c in table.columns if c.number is not None},
        locale=document.locale,
    )


def _settings(entry: ChartEntry, made_by: Recipe, values: Values) -> dict[str, Setting]:
    """All settings of the recipe: the author's, with formulas evaluated, over the defaults."""
    settings = made_by.defaults
    for name, value in entry.settings.items():
        parameter = made_by.parameter(name)
        if parameter is None:
            raise KavletError(f"The recipe {made_by.name} has no setting “{name}”.")
        found: Value = value
        if parameter.type == "number" and isinstance(value, str) and value.startswith("="):
            found = values.evaluate(value, entry.table)
            if not isinstance(found, float):
                raise KavletError(f"The setting {name} needs a number, but {value} gives “{text_of(found)}”.")
        settings[name] = checked_setting(parameter, found)
    return settings


def checked_setting(parameter: Parameter, value: Value) -> Setting:
    """The value when the parameter may have it. Raises KavletError otherwise."""
    name = parameter.name
    if parameter.type == "flag" and not isinstance(value, bool):
        raise KavletError(f"The setting {name} is yes or no, not “{value}”.")
    if parameter.type == "choice" and value not in parameter.choices:
        raise KavletError(f"The setting {name} can’t be “{value}”.", remedy=f"It is {' or '.join(parameter.choices)}.")
    if parameter.type == "number":
        if isinstance(value, bool) or not isinstance(value, float | int) or not math.isfinite(value):
            raise KavletError(f"The setting {name} needs a number, not “{value}”.")
        low, high = parameter.minimum, parameter.maximum
        if (low is not None and value < low) or (high is not None and value > high):
            raise KavletError(f"The setting {name} can’t be {value:g}.", remedy=f"It goes from {low:g} to {high:g}.")
        return float(value)
    return value if isinstance(value, bool) else str(value)


def _bound(text: str, document: Document, values: Values, entry: ChartEntry) -> str:
    """A text as shown: what its formula gives, else the text itself."""
    if not text.startswith("="):
        return text
    found = values.evaluate(text, entry.table)
    if isinstance(found, float):
        return written(found, PLAIN, document.locale)
    return found.value if isinstance(found, ErrorValue) else text_of(found)


def _helpers(
    table: Table, values: Values, entry: ChartEntry, inputs: Inputs, made_by: Recipe
) -> tuple[HelperBuild, ...]:
    built = []
    for helper in made_by.helpers:
        if helper.name not in inputs.helper_ids:
            continue
        column = inputs.helper_ids[helper.name]
        place = table.place(column)
        cells = table.columns[place].cells[HEADER:]
        formulas = tuple(cell.text if isinstance(cell, Formula) else "" for cell in cells)
        built.append(HelperBuild(helper.name, helper.name, column, formulas, tuple(values.texts(entry.table, place))))
    return tuple(built)
