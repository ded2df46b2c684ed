"""The stages from a document to a scene, as one readable list.

values = recalculate(document.tables)          all formulas
build  = build_chart(document, values, chart)  helper columns and the chart's specification
laid   = laid_out(panels, style, size)         everything in its place, flat
figure = finished(laid, solids)                seen from where the author looks, labels settled
scene  = draw(figure)                          primitives
"""

import math
import re
from functools import cached_property

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.overrides import overridden
from kavlet.core.charts.solid import LOOK_FIELDS
from kavlet.core.charts.texts import Note, Text
from kavlet.core.compose.compose import Laid, finished, laid_out
from kavlet.core.compose.context import Panel
from kavlet.core.compose.data import Data, Raster
from kavlet.core.compose.draw import draw
from kavlet.core.compose.figure import Figure
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.lookup import find_recipe
from kavlet.core.dress.style import Dress, resolve
from kavlet.core.figures.cells import ErrorValue, Formula, Value, Written, text_of
from kavlet.core.figures.recalculate import Values, recalculate
from kavlet.core.figures.table import HEADER, Table
from kavlet.core.proof.checks import findings
from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import HelperBuild, Inputs, Parameter, Recipe, Setting, split_list
from kavlet.core.recipes.settings import checked_setting
from kavlet.core.scene.primitives import Scene
from kavlet.core.shapes.symbol import Symbol
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size
from kavlet.core.values.number_text import PLAIN, NumberText

MOST_ROWS = 1_000
MOST_PANELS = 60
LOOKS = frozenset(f"solid.{name}" for name in LOOK_FIELDS)
_CELL_FIELD = re.compile(r"\{(=[^{}]+)\}")


class Build(Struct, frozen=True):
    """What a recipe yields for one table: helper columns, a chart (one per panel), and what was read for them."""

    entry: ChartEntry
    inputs: Inputs
    helpers: tuple[HelperBuild, ...]
    panels: tuple[Panel, ...]

    @property
    def chart(self) -> Chart:
        """The chart's specification, of the first panel where there are several."""
        return self.panels[0].chart


class Picture(Struct, frozen=True, dict=True):
    """A chart at the end of all stages."""

    build: Build
    figure: Figure
    scene: Scene
    recipe: Recipe | None

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What Proof says; asked only when somebody wants to know."""
        return findings(self.recipe, self.build.inputs, self.figure)


def build_chart(document: Document, values: Values, chart: str) -> Build:
    """Run a chart's recipe. Raises KavletError with one sentence when the table does not fit it."""
    return _build(document, values, document.chart(chart))


def _build(document: Document, values: Values, entry: ChartEntry) -> Build:
    table = document.table(entry.table)
    made_by = find_recipe(document, entry.recipe) if entry.recipe else None
    inputs = _inputs(document, values, entry, table, made_by)
    data = _data(document, table, inputs)
    specs = [("", entry.free or _missing(entry))] if made_by is None else _made(made_by, inputs, entry)
    panels = []
    for title, made in specs:
        spec = _finished(made, entry, document, values)
        cells = {field: values.evaluate(field, entry.table) for field in _cell_fields(spec)}
        mine = msgspec.structs.replace(data, cells=cells)
        panels.append(Panel(title, spec, mine.only(spec.rows) if spec.rows is not None else mine, entry.id))
    helpers = _helpers(table, values, entry) if made_by is not None else ()
    return Build(entry, inputs, helpers, tuple(panels))


def picture(document: Document, values: Values, chart: str, size: Size | None = None) -> Picture:
    """All stages after recalculation; `size` in points, the chart's own when not given."""
    entry = document.chart(chart)
    return _turned(_still(document, values, msgspec.structs.replace(entry, dress=_unturned(entry)), size), entry)


class _Still(Struct, frozen=True):
    """All that stays while an author turns and lights a solid: the build and its layout."""

    entry: ChartEntry
    build: Build
    recipe: Recipe | None
    laid: Laid


def _unturned(entry: ChartEntry) -> Dress:
    """A chart's dress without how its solid is looked at."""
    held = {path: value for path, value in entry.dress.overrides.items() if path not in LOOKS}
    return msgspec.structs.replace(entry.dress, overrides=held)


def _still(document: Document, values: Values, entry: ChartEntry, size: Size | None) -> _Still:
    build = _build(document, values, entry)
    style = resolve(entry.dress, document.theme)
    laid = laid_out(build.panels, style, size or Size(entry.width, entry.height))
    return _Still(entry, build, find_recipe(document, entry.recipe) if entry.recipe else None, laid)


def _turned(still: _Still, entry: ChartEntry) -> Picture:
    """The picture of a chart that has been laid out, its solid looked at as set by hand."""
    looks = {path: value for path, value in entry.dress.overrides.items() if path in LOOKS}
    panels = tuple(
        msgspec.structs.replace(panel, chart=overridden(panel.chart, looks)) if looks else panel
        for panel in still.build.panels
    )
    build = msgspec.structs.replace(still.build, entry=entry, panels=panels)
    figure = finished(still.laid, [panel.chart.solid for panel in panels])
    return Picture(build, figure, draw(figure), still.recipe)


class Pictures:
    """Keeps the last values and pictures, and reuses what did not change: the same object in, the same object out."""

    def __init__(self) -> None:
        self._values: Values | None = None
        self._kept: dict[str, tuple[tuple[object, ...], _Still, ChartEntry, Picture]] = {}

    def values(self, document: Document) -> Values:
        """The document's values; only what depends on changed cells is evaluated again."""
        if self._values is None or self._values.tables is not document.tables:
            self._values = recalculate(document.tables, self._values)
        return self._values

    def forget(self, document: Document) -> None:
        """Let go what is kept of charts that a document does not hold any more."""
        held = {chart.id for chart in document.charts}
        self._kept = {chart: kept for chart, kept in self._kept.items() if chart in held}

    def picture(self, document: Document, chart: str) -> Picture:
        """The chart's picture. Raises KavletError when the table does not fit its recipe."""
        values = self.values(document)
        entry = document.chart(chart)
        reads: tuple[object, ...] = (
            document.locale, document.theme, document.pictures, document.recipes, document.table(entry.table),
            *values.of(entry.table),
        )  # fmt: skip
        if any(text.startswith("=") for text in _formulas_of(entry)):
            reads = (*reads, values)
        kept = self._kept.get(chart)
        same = (
            kept is not None and len(kept[0]) == len(reads) and all(a is b for a, b in zip(kept[0], reads, strict=True))
        )
        if kept is not None and same and kept[2] is entry:
            return kept[3]
        bare = msgspec.structs.replace(entry, dress=_unturned(entry))
        still = kept[1] if kept is not None and same and kept[1].entry == bare else _still(document, values, bare, None)
        made = _turned(still, entry)
        self._kept[chart] = (reads, still, entry, made)
        return made


def _formulas_of(entry: ChartEntry) -> list[str]:
    """What of a chart may read any cell."""
    texts = [
        entry.title,
        entry.subtitle,
        entry.source,
        *(note.text for note in entry.notes),
        *(s for s in entry.settings.values() if isinstance(s, str)),
    ]
    return [*texts, *("=" for value in entry.dress.overrides.values() if isinstance(value, str) and "{=" in value)]


def _missing(entry: ChartEntry) -> Chart:
    raise KavletError(f"The chart “{entry.name}” has neither a recipe nor layers of its own.")


def _made(made_by: Recipe, inputs: Inputs, entry: ChartEntry) -> list[tuple[str, Chart]]:
    """The recipe's chart; or, repeated, one for each row that holds a value, or each group, titled with its name."""
    how = made_by.repeats
    if how is None or not entry.repeat:
        made_by.check(inputs)
        return [("", made_by.chart(inputs))]
    rows = [row for row, number in enumerate(inputs.figures("value")) if not math.isnan(number)]
    if inputs.settings.get(how.of) == "group":
        rows = list({inputs.names[row]: row for row in reversed(rows)}.values())[::-1]
    specs: list[tuple[str, Chart]] = []
    for row in rows[:MOST_PANELS]:
        settings = {**inputs.settings, how.row: float(row + 1)}
        mine = msgspec.structs.replace(inputs, settings=settings)
        made_by.check(mine)
        specs.append((inputs.names[row], made_by.chart(mine)))
    if not specs:
        made_by.check(inputs)
    return specs


def _finished(spec: Chart, entry: ChartEntry, document: Document, values: Values) -> Chart:
    """The recipe's chart with the layers its author added, the bound texts, and all that was set by hand."""
    spec = msgspec.structs.replace(
        spec,
        layers=(*spec.layers, *entry.layers),
        title=_bound(entry.title, spec.title, document, values, entry),
        subtitle=_bound(entry.subtitle, spec.subtitle, document, values, entry),
        source=_bound(entry.source, spec.source, document, values, entry),
        notes=(*spec.notes, *(_bound_note(note, document, values, entry) for note in entry.notes)),
    )
    return overridden(spec, entry.dress.overrides)


def _cell_fields(spec: Chart) -> set[str]:
    """The cells that labels name as fields: {=B7}."""
    found: set[str] = set()
    for layer in spec.layers:
        if layer.label is not None:
            found.update(_CELL_FIELD.findall(layer.label.template))
    return found


def _inputs(document: Document, values: Values, entry: ChartEntry, table: Table, made_by: Recipe | None) -> Inputs:
    places = {column.id: i for i, column in enumerate(table.columns)}
    roles = {role: tuple(one for one in held if one in places) for role, held in entry.roles.items()}
    for role in made_by.roles if made_by is not None else ():
        if role.required and not roles.get(role.name):
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
    return Inputs(
        table_name=table.name,
        roles=roles,
        places=places,
        titles={column.id: table.called(i) for i, column in enumerate(table.columns)},
        helpers={c.helper.name: c.id for c in table.columns if c.helper is not None and c.helper.chart == entry.id},
        values={column.id: columns[i].values[HEADER:] for i, column in enumerate(table.columns)},
        numbers={column.id: columns[i].numbers[HEADER:] for i, column in enumerate(table.columns)},
        settings=_settings(entry, made_by, values) if made_by is not None else {},
        rows=table.rows,
        number_texts=_number_texts(table),
        locale=document.locale,
    )


def _number_texts(table: Table) -> dict[str, NumberText]:
    """How each column writes its numbers: as set for the column, else as its first cell was typed."""
    found: dict[str, NumberText] = {}
    for column in table.columns:
        typed = next(
            (cell.number for cell in column.cells[HEADER:] if isinstance(cell, Written | Formula) and cell.number), None
        )
        if column.number is not None or typed is not None:
            found[column.id] = column.number or typed or PLAIN
    return found


def _data(document: Document, table: Table, inputs: Inputs) -> Data:
    pictures: dict[str, Symbol | Raster] = {}
    for one in document.pictures:
        pictures[one.name] = (
            Symbol(one.name, one.outline) if one.outline else Raster(one.name, one.content, one.width, one.height)
        )
    return Data(
        values=inputs.values,
        numbers=inputs.numbers,
        ids=tuple(range(table.rows)),
        titles=inputs.titles,
        number_texts=inputs.number_texts,
        pictures=pictures,
        locale=document.locale,
    )


def _settings(entry: ChartEntry, made_by: Recipe, values: Values) -> dict[str, Setting]:
    """All settings of the recipe: the author's, with formulas evaluated, over the defaults."""
    settings = made_by.defaults
    for name, value in entry.settings.items():
        parameter = made_by.parameter(name)
        if parameter is None:
            continue  # a setting of another recipe, kept for the way back
        settings[name] = checked_setting(parameter, evaluated(parameter, value, values, entry.table))
    return settings


def evaluated(parameter: Parameter, value: Setting, values: Values, table: str) -> Value:
    """A setting with its formulas replaced by what they give. Raises KavletError where that is no number."""

    def number(text: str) -> float:
        found = values.evaluate(text, table)
        if not isinstance(found, float):
            raise KavletError(f"The setting {parameter.name} needs a number, but {text} gives “{text_of(found)}”.")
        return found

    if not isinstance(value, str):
        return value
    if parameter.type == "numbers":
        parts = [number(part) if part.startswith("=") else part for part in split_list(value)]
        return "; ".join(part if isinstance(part, str) else f"{part:.15g}" for part in parts)
    if not value.startswith("="):
        return value
    if parameter.type == "number":
        return number(value)
    return text_of(values.evaluate(value, table)) if parameter.type in ("text", "symbol") else value


def _bound_note(note: Note, document: Document, values: Values, entry: ChartEntry) -> Note:
    return msgspec.structs.replace(note, text=_bound(note.text, Text(), document, values, entry).text)


def _bound(text: str, look: Text, document: Document, values: Values, entry: ChartEntry) -> Text:
    """A text as shown: what its formula gives, else the text itself."""
    if text.startswith("="):
        found = values.evaluate(text, entry.table)
        if isinstance(found, float):
            text = written(found, PLAIN, document.locale)
        else:
            text = found.value if isinstance(found, ErrorValue) else text_of(found)
    return msgspec.structs.replace(look, text=text)


def _helpers(table: Table, values: Values, entry: ChartEntry) -> tuple[HelperBuild, ...]:
    built = []
    for place, column in enumerate(table.columns):
        if column.helper is None or column.helper.chart != entry.id:
            continue
        formulas = tuple(cell.text if isinstance(cell, Formula) else "" for cell in column.cells[HEADER:])
        name = column.helper.name
        built.append(HelperBuild(name, name, column.id, formulas, tuple(values.texts(entry.table, place))))
    return tuple(built)
