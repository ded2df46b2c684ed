"""Changing references everywhere they can stand: in cells, in charts' texts, settings, looks, labels, on pages."""

import re
from collections.abc import Callable
from typing import Any

import msgspec

from kavlet.core.charts.looks import LITERAL, parse
from kavlet.core.document.document import ChartEntry, Document, EarlierSettings
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.words import Words
from kavlet.core.pages.page import AnyItem, Page
from kavlet.core.recipes.recipe import Setting, split_list
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import Follow, RangeReference, rewritten

Change = Callable[[str], str]
Place = tuple[int, int] | None  # the column and row of a formula's cell; None where it stands in none
_BRACED = re.compile(r"(?<=\{)=[^{}]+(?=\})")  # a cell that a label names


def with_formulas(document: Document, change: Callable[[str, str, Place], str]) -> Document:
    """All formulas of the document changed by `change(text, id of the table they belong to, their cell)`."""

    def cell(held: Cell, home: str, place: Place) -> Cell:
        if not isinstance(held, Formula):
            return held
        text = change(held.text, home, place)
        return held if text == held.text else Formula(text, held.made, held.number)

    tables = tuple(
        msgspec.structs.replace(
            table,
            columns=tuple(
                msgspec.structs.replace(
                    column, cells=tuple(cell(held, table.id, (at, row)) for row, held in enumerate(column.cells))
                )
                if any(isinstance(held, Formula) for held in column.cells)
                else column
                for at, column in enumerate(table.columns)
            ),
        )
        for table in document.tables
    )

    def in_text(home: str) -> Change:
        return lambda text: change(text, home, None)

    charts = tuple(changed_chart(chart, in_text(chart.table)) for chart in document.charts)
    pages = tuple(changed_page(page, in_text(document.tables[0].id if tables else "")) for page in document.pages)
    return msgspec.structs.replace(document, tables=tables, charts=charts, pages=pages)


def changed_page(page: Page, change: Change) -> Page:
    """A page with the formulas of its lines, words and figures changed."""
    if b"=" not in msgspec.json.encode(page):
        return page

    def text(held: str) -> str:
        return change(held) if held.startswith("=") else _fields(held, change)

    def item(held: AnyItem) -> AnyItem:
        match held:
            case Words():
                return msgspec.structs.replace(held, paragraphs=tuple(
                    msgspec.structs.replace(one, runs=tuple(
                        msgspec.structs.replace(run, text=_fields(run.text, change)) for run in one.runs
                    ))
                    for one in held.paragraphs
                ))  # fmt: skip
            case KeyFigure():
                return msgspec.structs.replace(
                    held, value=text(held.value), against=text(held.against), caption=_fields(held.caption, change)
                )
            case ChartFrame():
                return msgspec.structs.replace(held, caption=_fields(held.caption, change))
        return held

    return msgspec.structs.replace(
        page,
        header=_fields(page.header, change),
        footer=_fields(page.footer, change),
        items=tuple(item(one) for one in page.items),
    )


def _fields(text: str, change: Change) -> str:
    """A text with the formulas in its braces changed; what stands after a bar is how they are written."""

    def one(found: re.Match[str]) -> str:
        formula, bar, how = found[0].partition("|")
        return change(formula.rstrip()) + (f" |{how}" if bar else "")

    return _BRACED.sub(one, text)


def changed_chart(chart: ChartEntry, change: Change) -> ChartEntry:
    """A chart with all formulas in its texts, settings, looks and labels changed."""

    def text(held: str) -> str:
        return change(held) if held.startswith("=") else _BRACED.sub(lambda found: change(found[0]), held)

    def setting(held: Setting) -> Setting:
        return _list(held, change) if isinstance(held, str) else held

    def look(path: str, held: Any) -> Any:
        if not isinstance(held, str):
            return held
        return _BRACED.sub(lambda found: change(found[0]), held) if parse(path).last in LITERAL else text(held)

    return msgspec.structs.replace(
        chart,
        title=text(chart.title),
        subtitle=text(chart.subtitle),
        source=text(chart.source),
        notes=tuple(msgspec.structs.replace(note, text=text(note.text)) for note in chart.notes),
        settings={name: setting(value) for name, value in chart.settings.items()},
        past={
            recipe: EarlierSettings(past.roles, {name: setting(value) for name, value in past.settings.items()})
            for recipe, past in chart.past.items()
        },
        layers=tuple(_labelled(layer, change) for layer in chart.layers),
        free=_labelled(chart.free, change),
        dress=msgspec.structs.replace(
            chart.dress, overrides={path: look(path, value) for path, value in chart.dress.overrides.items()}
        ),
    )


def _list(held: str, change: Change) -> str:
    """A setting: a formula, or a list in which some are."""
    if "=" not in held:
        return held
    parts = split_list(held)
    changed = [change(part) if part.startswith("=") else part for part in parts]
    return held if changed == parts else "; ".join(changed)


def _labelled(held: Any, change: Change) -> Any:
    """A layer, or a chart of its own, with the cells that its labels name."""
    if held is None or b"{=" not in msgspec.json.encode(held):
        return held

    def walked(value: Any) -> Any:
        if isinstance(value, str):
            return _BRACED.sub(lambda found: change(found[0]), value)
        if isinstance(value, dict):
            return {key: walked(inner) for key, inner in value.items()}
        return [walked(inner) for inner in value] if isinstance(value, list | tuple) else value

    return msgspec.convert(walked(msgspec.to_builtins(held, str_keys=True)), type(held), strict=False)


def with_references(document: Document, table_id: str, follow: Follow) -> Document:
    """All references to cells of one table replaced by what `follow` gives; the others stay."""
    name = document.table(table_id).name

    def change(text: str, home: str, place: Place) -> str:
        del place

        def only_there(old: RangeReference) -> RangeReference | None:
            return follow(old) if old.table == name or (home == table_id and not old.table) else old

        return rewritten(text, only_there)

    return with_formulas(document, change)
