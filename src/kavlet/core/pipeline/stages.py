"""The stages from a document to a scene, as one readable list.

values = recalculate(document.tables)          all formulas
build  = build_chart(document, values, chart)  helper columns and the chart's specification
laid   = lay_out(panels, style, size)         everything in its place, flat
figure = finished(laid, solids)                seen from where the author looks, labels settled
scene  = draw(figure)                          primitives"""

import math
from collections.abc import Iterable, Mapping

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Grid
from kavlet.core.charts.looks import Look, parse
from kavlet.core.charts.overrides import overridden
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.solid import LOOK_FIELDS
from kavlet.core.document import edits
from kavlet.core.document.charts.recipe_lookup import find_recipe
from kavlet.core.document.document import NO_CHART, ChartEntry, Document
from kavlet.core.layout.context import Panel
from kavlet.core.layout.data import Data
from kavlet.core.layout.draw import draw
from kavlet.core.layout.figure import Figure
from kavlet.core.layout.frames.reach import axis_columns
from kavlet.core.layout.panels import FlatLayout, finish, lay_out
from kavlet.core.messages import say
from kavlet.core.pipeline.alt_text import alt_text, long_text
from kavlet.core.pipeline.cell_bindings import bound, bound_entry, bound_note, cell_fields, failing
from kavlet.core.pipeline.chart_inputs import data_of, helpers_of, inputs_of
from kavlet.core.recipes.recipe import HelperBuild, Inputs, Recipe
from kavlet.core.recipes.table_problems import need_row
from kavlet.core.scene.primitives import Scene
from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.colour import Colour
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.number_text import PLAIN, NumberText

MAX_PANELS = 60
LOOKS = frozenset(f"solid.{name}" for name in LOOK_FIELDS)


class Build(Struct, frozen=True):
    """What a recipe yields for one table: helper columns, a chart (one per panel), and what was read for them.

    `read` holds what was read for each panel; `undrawn` counts the panels there was no room for; `failed` holds the
    formulas of texts, looks and labels that give an error.
    """

    entry: ChartEntry
    inputs: Inputs
    helpers: tuple[HelperBuild, ...]
    panels: tuple[Panel, ...]
    read: tuple[Inputs, ...] = ()
    undrawn: int = 0
    failed: tuple[tuple[str, ErrorValue], ...] = ()

    @property
    def chart(self) -> Chart:
        """The chart's specification, of the first panel where there are several."""
        return self.panels[0].chart


class Picture(Struct, frozen=True):
    """A chart at the end of all stages."""

    build: Build
    figure: Figure
    scene: Scene
    recipe: Recipe | None


NO_PICTURE = Picture(
    Build(
        NO_CHART, Inputs("", {}, {}, {}, {}, {}, {}, {}, 0), (), (Panel("", Chart(Grid(1, 1), ()), Data({}, {}, ())),)
    ),
    Figure(Size(1.0, 1.0), Rect(0.0, 0.0, 0.0, 0.0), Colour(1.0, 1.0, 1.0), (), (), ()),
    Scene(Size(1.0, 1.0), None, ()),
    None,
)  # stands where there is no chart, or none that could be drawn


def build_chart(document: Document, values: Values, chart: str) -> Build:
    """Run a chart's recipe. Raises KavletError with one sentence when the table does not fit it."""
    return _build(document, values, bound_entry(document.chart(chart), document, values))


def picture(document: Document, values: Values, chart: str, size: Size | None = None) -> Picture:
    """All stages after recalculation; `size` in points, the chart's own when not given."""
    entry = bound_entry(document.chart(chart), document, values)
    return with_view(
        without_view(document, values, msgspec.structs.replace(entry, dress=dress_without_view(entry)), size), entry
    )


def picture_if_any(document: Document, values: Values, chart: str) -> Picture:
    """All stages after recalculation; `NO_PICTURE` where there is no such chart, or its table does not fit it."""
    try:
        return picture(document, values, chart)
    except KavletError:
        return NO_PICTURE


def bare_scene(document: Document, chart: str, size: Size) -> Scene:
    """A chart as it looks small: without its texts, in a size in points. Raises KavletError where its table does not
    fit it."""
    bare = edits.change_chart(document, chart, title="", subtitle="", source="")
    return picture(bare, recalculate(bare.tables), chart, size).scene


def main_layer(document: Document, values: Values, chart: str) -> AnyLayer | None:
    """The layer that a chart is about; None where its table does not fit it."""
    try:
        spec = build_chart(document, values, chart).chart
    except KavletError:
        return None
    return spec.layer(spec.main)


def _build(document: Document, values: Values, entry: ChartEntry) -> Build:
    table = document.table(entry.table)
    recipe = find_recipe(document, entry.recipe) if entry.recipe else None
    inputs = inputs_of(document, values, entry, table, recipe)
    data = data_of(document, inputs)
    specs, more = ([_Panel("", entry.free or _missing(entry), inputs)], 0) if recipe is None else _recipe_panels(
        recipe, inputs, entry
    )  # fmt: skip
    panels: list[Panel] = []
    fields: set[str] = set()
    for panel_made in specs:
        spec = _with_author_parts(
            numbered(panel_made.chart, entry.dress.overrides, inputs.number_texts), entry, document, values
        )
        whose = panel_made.whose or (inputs.title("value") if entry.reading is not None else "")
        if whose and not entry.subtitle:
            spec = msgspec.structs.replace(spec, subtitle=msgspec.structs.replace(spec.subtitle, text=whose))
        fields |= cell_fields(spec)
        cells = {field: values.evaluate(field, entry.table) for field in cell_fields(spec)}
        alt = alt_text(entry, recipe, inputs, panel_made.chart, data) if not panels else ""
        spec = msgspec.structs.replace(spec, alt_text=alt, long_text=long_text(recipe, panel_made.chart, data))
        panel_data = msgspec.structs.replace(data, cells=cells)
        panels.append(
            Panel(panel_made.title, spec, panel_data.only(spec.rows) if spec.rows is not None else panel_data, entry.id)
        )
    helpers = helpers_of(table, values, entry) if recipe is not None else ()
    return Build(entry, inputs, helpers, tuple(panels), tuple(panel_made.inputs for panel_made in specs), more,
                 failing(document.chart(entry.id), values, sorted(fields)))  # fmt: skip


class UnviewedPicture(Struct, frozen=True):
    """All that stays while an author turns and lights a solid: the build and its layout."""

    entry: ChartEntry
    build: Build
    recipe: Recipe | None
    laid: FlatLayout


def dress_without_view(entry: ChartEntry) -> Dress:
    """A chart's dress without how its solid is looked at."""
    held = {path: value for path, value in entry.dress.overrides.items() if path not in LOOKS}
    return msgspec.structs.replace(entry.dress, overrides=held)


def without_view(document: Document, values: Values, entry: ChartEntry, size: Size | None) -> UnviewedPicture:
    """All stages that do not depend on how a solid is looked at; `size` in points, the chart's own when None."""
    build = _build(document, values, entry)
    style = resolve(entry.dress, document.house)
    flat_layout = lay_out(build.panels, style, size or Size(entry.width, entry.height))
    return UnviewedPicture(entry, build, find_recipe(document, entry.recipe) if entry.recipe else None, flat_layout)


def with_view(unviewed: UnviewedPicture, entry: ChartEntry) -> Picture:
    """The picture of a chart that has been laid out, its solid looked at as set by hand."""
    looks = {path: value for path, value in entry.dress.overrides.items() if path in LOOKS}
    panels = tuple(
        msgspec.structs.replace(panel, chart=overridden(panel.chart, looks)) if looks else panel
        for panel in unviewed.build.panels
    )
    build = msgspec.structs.replace(unviewed.build, entry=entry, panels=panels)
    figure = finish(unviewed.laid, [panel.chart.solid for panel in panels])
    return Picture(build, figure, draw(figure), unviewed.recipe)


def _missing(entry: ChartEntry) -> Chart:
    raise KavletError(say("The chart “{name}” has neither a recipe nor layers of its own.", name=entry.name))


class _Panel(Struct, frozen=True):
    """What a recipe made for a panel: its title, its chart, what was read for it, and whose figure it shows where it is
    one of several."""

    title: str
    chart: Chart
    inputs: Inputs
    whose: str = ""


def _recipe_panels(recipe: Recipe, inputs: Inputs, entry: ChartEntry) -> tuple[list[_Panel], int]:
    """The recipe's chart; or, repeated, one for each row that holds a value, or each group, titled with its name.

    Besides, how many there would be more.
    """
    how = recipe.repeats
    if how is None or not entry.repeat:
        shows_one = how is not None and inputs.settings.get(how.of) != "sum"
        if how is not None and shows_one:
            need_row(inputs, how.row)
        recipe.check(inputs)
        return [_Panel("", recipe.chart(inputs), inputs, inputs.names[inputs.row] if shows_one else "")], 0
    rows = [row for row, number in enumerate(inputs.figures("value")) if not math.isnan(number)]
    if inputs.settings.get(how.of) == "group":
        first: dict[str, int] = {}
        for row in rows:
            first.setdefault(inputs.names[row], row)
        rows = list(first.values())
    specs: list[_Panel] = []
    for row in rows[:MAX_PANELS]:
        settings = {**inputs.settings, how.row: float(row + 1)}
        mine = msgspec.structs.replace(inputs, settings=settings)
        recipe.check(mine)
        specs.append(_Panel(inputs.names[row], recipe.chart(mine), mine))
    if not specs:
        recipe.check(inputs)
    return specs, len(rows) - len(specs)


def _with_author_parts(spec: Chart, entry: ChartEntry, document: Document, values: Values) -> Chart:
    """The recipe's chart with the layers its author added, the bound texts, and all that was set by hand."""
    spec = msgspec.structs.replace(
        spec,
        layers=(*spec.layers, *entry.layers),
        title=bound(entry.title, spec.title, document, values, entry),
        subtitle=bound(entry.subtitle, spec.subtitle, document, values, entry),
        source=bound(entry.source, spec.source, document, values, entry),
        notes=(*spec.notes, *(bound_note(note, document, values, entry) for note in entry.notes)),
    )
    return overridden(spec, entry.dress.overrides)


NUMBER = "number"


def numbered(chart: Chart, looks: Iterable[str], texts: Mapping[str, NumberText]) -> Chart:
    """The chart with a number text of its own wherever a look sets a part of one that followed its column."""
    for path in looks:
        look = parse(path)
        if NUMBER not in look.field[:-1] or look.row is not None:
            continue
        chart = _of_label(chart, look, texts) if look.layer else _of_axis(chart, look, texts)
    return chart


def _of_label(chart: Chart, look: Look, texts: Mapping[str, NumberText]) -> Chart:
    layer = chart.layer(look.layer)
    if layer is None or layer.label is None or layer.label.number is not None:
        return chart
    label = msgspec.structs.replace(layer.label, number=texts.get(layer.figure_column, PLAIN))
    changed = msgspec.structs.replace(layer, label=label)
    return msgspec.structs.replace(chart, layers=tuple(changed if one is layer else one for one in chart.layers))


def _of_axis(chart: Chart, look: Look, texts: Mapping[str, NumberText]) -> Chart:
    axis = look.field[1] if look.field[0] == "frame" else ""
    scale = getattr(chart.frame, axis, None)
    if not isinstance(scale, Scale) or scale.number is not None:
        return chart
    columns = axis_columns(chart, axis)
    found = next((texts[column] for column in columns if column in texts), PLAIN)
    held = msgspec.structs.replace(found, most_decimals=None, least_decimals=0, zero=None, missing="")
    frame = msgspec.structs.replace(chart.frame, **{axis: msgspec.structs.replace(scale, number=held)})
    return msgspec.structs.replace(chart, frame=frame)
