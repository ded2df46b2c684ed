"""Kavlet from Python: a chart from a recipe and rows, in one call.

    import kavlet

    rows = [["stage", "visits"], ["Gate", 18_400], ["Walks", 6_900], ["Members", 1_240]]
    chart = kavlet.make("funnel", rows, gap=40).titled("Visitor path")
    chart.save("path.svg")

A `Chart` never changes; each method that changes something gives a new one. In a notebook it shows itself.
"""

import datetime
import math
from collections.abc import Iterable, Mapping
from functools import cached_property
from pathlib import Path
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.charts.overrides import expected
from kavlet.core.document.charts.chart_order import ChartRequest, chart_document
from kavlet.core.files import atomic, csv, palette
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.formats import As, ExportOptions
from kavlet.core.messages import say
from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.recipes.recipe import Recipe, Setting
from kavlet.core.recipes.registry import recipe as recipe_of
from kavlet.core.recipes.settings import checked_setting
from kavlet.core.spreadsheet.cell_input import read_field
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from kavlet.core.values.lengths import size as read_size
from kavlet.export.outgoing import Export
from kavlet.export.ways import written

Rows = Iterable[Iterable[Any]] | Iterable[Mapping[str, Any]] | Mapping[str, Iterable[Any]]


def make(
    recipe: str, rows: Rows, roles: Mapping[str, str | Iterable[str]] | None = None, **settings: Setting
) -> "Chart":
    """A chart by a recipe (`kavlet recipes` lists them) from rows.

    `rows` are lists of cells, the first of them the names of the columns; or mappings, one per row; or one mapping of
    columns; or a data frame. Cells are numbers, texts, truth values, dates, None; a text that starts with ``=`` is a
    formula. `roles` says which column (by its name or letter; several in a list) is for what; roles that are left out
    are guessed. `settings` are the recipe's parameters; a text ``=B2`` binds one to a cell.

    Raises KavletError, in one sentence, where the recipe, a role or a setting is not known, or the table does not fit.
    """
    by = recipe_of(recipe)
    wanted = {name: (one,) if isinstance(one, str) else tuple(one) for name, one in (roles or {}).items()}
    for name in wanted:
        if by.role(name) is None:
            raise KavletError(
                say("The recipe {recipe} has no role “{name}”.", recipe=recipe, name=name),
                remedy=say("It has {names}.", names=[one.name for one in by.roles]),
            )
    order = ChartRequest(recipe=recipe, rows=cells_of(rows), roles=wanted, settings=_settings(by, settings))
    chart = Chart(order)
    _ = chart.picture  # whatever does not fit is said here, not when it is shown
    return chart


class Chart(Struct, frozen=True, dict=True):
    """A chart that was made, ready to be dressed and written. Lengths are in points."""

    order: ChartRequest

    def titled(self, title: str, subtitle: str = "", source: str = "") -> "Chart":
        """With its texts; each may be a formula such as ``=B1``."""
        return self._with(title=title, subtitle=subtitle, source=source)

    def sized(self, size: str) -> "Chart":
        """In another size: ``640x360`` in points, ``160mmx90mm``, or a name. Raises KavletError when it is none."""
        return self._with(size=read_size(size))

    def dressed(
        self, theme: str | None = None, dark: bool = False, palette_of: str | tuple[str, ...] | None = None
    ) -> "Chart":
        """In a theme, on its dark ground, with a palette: a shipped one, a .gpl file, or hex codes."""
        colours = palette.asked(palette_of) if isinstance(palette_of, str) else palette_of
        return self._with(theme=theme, dark=dark, palette=colours)

    def looking(self, path: str, value: Any) -> "Chart":
        """With one look set by hand, by its path (docs/looks.md). Raises KavletError when it leads nowhere."""
        expected(self.picture.build.chart, path, value)
        return self._with(looks={**self.order.looks, path: value})

    def repeated(self) -> "Chart":
        """Once for each row or group, where the recipe shows one. Raises KavletError where it shows all rows."""
        return self._with(repeat=True)

    def across(self, row: str | int) -> "Chart":
        """Of figures that run across a row, by its name or its number from 1: names are the columns' headers.

        Raises KavletError where there is no such row.
        """
        return self._with(across=str(row))

    @cached_property
    def picture(self) -> Picture:
        """The chart at the end of all stages: what was built, the figure, the scene."""
        document, chart = chart_document(self.order)
        return picture(document, recalculate(document.tables), chart)

    @property
    def alt_text(self) -> str:
        """What the chart shows, in words."""
        return self.picture.scene.description

    def svg(self, outlines: bool = False) -> str:
        """The chart as SVG 1.1; with `outlines`, its texts as paths."""
        return self._written(ExportOptions(".svg", outlines=outlines)).decode()

    def png(self, scale: float = 2.0) -> bytes:
        """The chart as PNG, `scale` pixels per point. Needs the window's packages (`kavlet[window]`)."""
        return self._written(ExportOptions(".png", scale))

    def record(self) -> dict[str, Any]:
        """All that was computed and placed, as plain values: the recipe, helper columns, marks, texts, findings."""
        held: dict[str, Any] = msgspec.json.decode(self._written(ExportOptions(".json")))
        return held

    def save(self, path: str | Path, scale: float = 2.0, as_: As = "chart") -> None:
        """Write the chart; the ending chooses the format: a picture (.svg .png .jpg .pdf), an office file (.pptx .docx
        .xlsx .odp .odt .ods) with a real chart, its picture or both, .html, .csv, .json, or .kavlet for the document.

        Raises KavletError for an ending that is not known, or a place that can't be written.
        """
        path = Path(path)
        if path.suffix.lower() == kavlet_file.SUFFIX:
            kavlet_file.save(chart_document(self.order)[0], path)
        else:
            atomic.write(path, self._written(ExportOptions(path.suffix.lower(), scale, as_=as_)))

    def _written(self, options: ExportOptions) -> bytes:
        document, chart = chart_document(self.order)
        return written(Export(document, (chart,), title=document.chart(chart).name), options).content

    def _repr_svg_(self) -> str:
        return self.svg()

    def _with(self, **changes: Any) -> "Chart":
        chart = Chart(msgspec.structs.replace(self.order, **changes))
        _ = chart.picture
        return chart


def cells_of(rows: Any) -> list[list[Cell]]:
    """Rows of cells, the first of them names, from rows, records, columns or a data frame."""
    if hasattr(rows, "columns"):
        if hasattr(rows, "reset_index") and not hasattr(rows.index, "step"):  # its rows have names
            rows = rows.reset_index()
        rows = {str(name): rows[name].to_list() for name in rows.columns}
    if isinstance(rows, Mapping):
        columns = [list(column) for column in rows.values()]
        if len({len(column) for column in columns}) > 1:
            raise KavletError(say("The columns differ in length."))
        return [[str(name) for name in rows], *([_cell(one) for one in row] for row in zip(*columns, strict=True))]
    listed = list(rows)
    if listed and all(isinstance(one, Mapping) for one in listed):
        names = list(dict.fromkeys(name for one in listed for name in one))
        return [[str(name) for name in names], *([_cell(one.get(name)) for name in names] for one in listed)]
    return csv.with_names([[_cell(one) for one in row] for row in listed])


def _cell(value: Any) -> Cell:
    """One value as a cell. What is no number, text, truth value or date is an error."""
    if hasattr(value, "item") and not isinstance(value, str):
        value = value.item()  # a number of NumPy's
    if value is None or isinstance(value, bool):
        return value
    if isinstance(value, datetime.date):
        return read_field(value.isoformat()[:10])
    if isinstance(value, str):
        return read_field(value) if value.startswith("=") else value
    try:
        number = float(value)
    except (TypeError, ValueError):
        raise KavletError(say("A cell can’t hold a {name}.", name=type(value).__name__)) from None
    return number if math.isfinite(number) else None


def _settings(by: Recipe, settings: Mapping[str, Setting]) -> dict[str, Setting]:
    parameters = {parameter.name: parameter for parameter in by.parameters}
    for name, value in settings.items():
        if name not in parameters:
            raise KavletError(
                say("The recipe {recipe} has no setting “{name}”.", recipe=by.name, name=name),
                remedy=say("It has {names}.", names=list(parameters)),
            )
        if not (isinstance(value, str) and value.startswith("=")):
            checked_setting(parameters[name], value)
    return {name: float(v) if isinstance(v, int) and not isinstance(v, bool) else v for name, v in settings.items()}
