"""Changing references everywhere they can stand: in cells, in charts' texts, in settings."""

from collections.abc import Callable

import msgspec

from kavlet.core.document.document import Document
from kavlet.core.figures.cells import Cell, Formula
from kavlet.core.figures.references import Follow, RangeReference, rewritten


def with_formulas(document: Document, change: Callable[[str, str], str]) -> Document:
    """All formulas of the document changed by `change(text, id of the table they belong to)`."""

    def cell(held: Cell, home: str) -> Cell:
        if not isinstance(held, Formula):
            return held
        text = change(held.text, home)
        return held if text == held.text else Formula(text, held.made, held.number)

    def text(held: str, home: str) -> str:
        return change(held, home) if held.startswith("=") else held

    tables = tuple(
        msgspec.structs.replace(
            table,
            columns=tuple(
                msgspec.structs.replace(column, cells=tuple(cell(held, table.id) for held in column.cells))
                if any(isinstance(held, Formula) for held in column.cells)
                else column
                for column in table.columns
            ),
        )
        for table in document.tables
    )
    charts = tuple(
        msgspec.structs.replace(
            chart,
            title=text(chart.title, chart.table),
            subtitle=text(chart.subtitle, chart.table),
            source=text(chart.source, chart.table),
            settings={
                name: text(value, chart.table) if isinstance(value, str) else value
                for name, value in chart.settings.items()
            },
        )
        for chart in document.charts
    )
    return msgspec.structs.replace(document, tables=tables, charts=charts)


def with_references(document: Document, table_id: str, follow: Follow) -> Document:
    """All references to cells of one table replaced by what `follow` gives; the others stay."""
    name = document.table(table_id).name

    def change(text: str, home: str) -> str:
        def only_there(old: RangeReference) -> RangeReference | None:
            return follow(old) if old.table == name or (home == table_id and not old.table) else old

        return rewritten(text, only_there)

    return with_formulas(document, change)
