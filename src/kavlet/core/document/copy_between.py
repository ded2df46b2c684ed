"""Charts and items of pages taken into another document, with all they need: tables with their sources, helper columns,
recipes, pictures and palettes. What the other document holds already, unchanged, is used there and not doubled.
"""

from collections.abc import Iterable
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.document.document import ChartEntry, Document, fresh_id, fresh_name, with_chart
from kavlet.core.document.pages import page_edits
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.reference_updates import changed_page, with_formulas
from kavlet.core.document.tables.table_edits import rename
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.page import AnyItem, Page
from kavlet.core.spreadsheet.references import RangeReference, rewritten
from kavlet.core.spreadsheet.table import Column, Helper, Table


class CopiedParts(Struct, frozen=True):
    """A small document of what is taken along, and the items of a page that use it; without items, its charts are
    what was taken."""

    document: Document
    items: tuple[AnyItem, ...] = ()


class PastedDocument(Struct, frozen=True):
    """The document that holds what was brought, and the ids that its items and charts have there."""

    document: Document
    items: tuple[str, ...] = ()
    charts: tuple[str, ...] = ()


def copied_parts(document: Document, charts: Iterable[str], items: Iterable[AnyItem] = ()) -> CopiedParts:
    """Charts (by id) and items of a page with all that they need. Raises KavletError for a chart that there is not."""
    page = _with_tables_named(document, Page("", "", items=tuple(items)))
    chart_ids = {*charts, *_charts_of(page.items)}
    entries = tuple(_of_house(document, document.chart(entry.id)) for entry in document.charts if entry.id in chart_ids)
    names = {document.table(entry).name for chart in entries for entry in _tables_of(chart)}
    names |= {document.table(item.table).name for item in page.items if isinstance(item, Excerpt)}
    while True:
        tables = tuple(table for table in document.tables if table.name in names)
        small = msgspec.structs.replace(document, tables=tables, charts=entries, pages=(page,))
        more = {entry.name for entry in document.tables} & _named_in(small) - names
        if not more:
            break
        names |= more
    key = msgspec.json.encode((entries, page)).decode()
    small = msgspec.structs.replace(
        small,
        pages=(),
        palette=None,
        theme=document.theme if document.theme is not None and f'"{document.theme.name}"' in key else None,
        pictures=tuple(entry for entry in document.pictures if msgspec.json.encode(entry.name).decode() in key),
        recipes=tuple(entry for entry in document.recipes if any(chart.recipe == entry.name for chart in entries)),
        palettes=tuple(
            entry for entry in document.palettes if any(chart.dress.palette == entry.name for chart in entries)
        ),
    )
    return CopiedParts(fitted(small), page.items)


def pasted_document(document: Document, load: CopiedParts, page: str | None = None) -> PastedDocument:
    """What was carried, in another document; its items on a page of it, where one is named. Raises KavletError where
    that page can't hold them."""
    small = _called_apart(document, load)
    charts: dict[str, str] = {}
    tables: dict[str, str] = {}
    for table in small.document.tables:
        tables[table.id] = next((present.id for present in document.tables if _same_table(present, table)), "")
    table_ids = [present.id for present in (*document.tables, *small.document.tables)]
    new_tables: list[Table] = []
    for table in small.document.tables:
        if not tables[table.id]:
            tables[table.id] = fresh_id("t", table_ids)
            table_ids.append(tables[table.id])
            new_tables.append(msgspec.structs.replace(table, id=tables[table.id]))
    table_ids = [present.id for present in (*document.charts, *small.document.charts)]
    new_charts: list[ChartEntry] = []
    for chart in small.document.charts:
        moved_chart = _on_tables(chart, tables)
        if moved_chart in document.charts:
            charts[chart.id] = chart.id
            continue
        charts[chart.id] = fresh_id("k", table_ids)
        table_ids.append(charts[chart.id])
        names = [present.name for present in (*document.charts, *new_charts)]
        new_charts.append(msgspec.structs.replace(moved_chart, id=charts[chart.id], name=fresh_name(chart.name, names)))
    together = msgspec.structs.replace(
        document,
        tables=(*document.tables, *(_of_charts(table, charts) for table in new_tables)),
        charts=(*document.charts, *new_charts),
        pictures=(*document.pictures, *_missing(small.document.pictures, document.pictures)),
        recipes=(*document.recipes, *_missing(small.document.recipes, document.recipes)),
        palettes=(*document.palettes, *_missing(small.document.palettes, document.palettes)),
        theme=document.theme if document.theme is not None else small.document.theme,
    )
    items: list[str] = []
    if page is not None:
        together, items = page_edits.pasted(together, page, [_using(item, charts, tables) for item in small.items])
    return PastedDocument(fitted(together), tuple(items), tuple(charts.values()))


# What is taken along


def _charts_of(items: Iterable[AnyItem]) -> set[str]:
    found: set[str] = set()
    for item in items:
        match item:
            case ChartFrame():
                found.add(item.chart)
            case SharedLegend() | StepControl():
                found.update(item.charts)
    return found


def _tables_of(chart: ChartEntry) -> list[str]:
    return [chart.table, *([chart.reading.table] if chart.reading is not None else [])]


def _of_house(document: Document, chart: ChartEntry) -> ChartEntry:
    """A chart with the colours that its document gives it as its own."""
    if chart.dress.palette is not None or document.palette is None:
        return chart
    return msgspec.structs.replace(chart, dress=msgspec.structs.replace(chart.dress, palette=document.palette))


def _with_tables_named(document: Document, page: Page) -> Page:
    """A page whose formulas name the table they read: one without a name is the first, elsewhere another."""
    if not document.tables:
        return page
    home = document.tables[0].name

    def named(old: RangeReference) -> RangeReference:
        return old if old.table else msgspec.structs.replace(old, table=home)

    return changed_page(page, lambda text: rewritten(text, named))


def _named_in(document: Document) -> set[str]:
    """The tables that formulas of a document name."""
    found: set[str] = set()

    def noted(old: RangeReference) -> RangeReference:
        found.add(old.table)
        return old

    with_formulas(document, lambda text, *_: rewritten(text, noted))
    return found


# Where it is brought to


def _own(table: Table) -> list[tuple[str, tuple[Any, ...]]]:
    return [(column.id, column.cells) for column in table.columns if column.helper is None]


def _same_table(table: Table, other: Table) -> bool:
    return table.name == other.name and table.helper == other.helper and _own(table) == _own(other)


def _missing(new: Iterable[Any], held: Iterable[Any]) -> list[Any]:
    names = {one.name for one in held}
    return [one for one in new if one.name not in names]


def _called_apart(document: Document, load: CopiedParts) -> CopiedParts:
    """What was carried, with names of its own where the other document has given them to something else."""
    small, items = load.document, load.items
    for table in load.document.tables:
        others = [one.name for one in (*document.tables, *small.tables) if one.id != table.id or one in document.tables]
        if table.name in (one.name for one in document.tables) and not any(
            _same_table(one, table) for one in document.tables
        ):
            small = msgspec.structs.replace(small, pages=(Page("", "", items=items),))
            small = rename(small, table.id, fresh_name(table.name, others))
            items = small.pages[0].items
    small = msgspec.structs.replace(small, pages=())
    for kind in ("pictures", "recipes", "palettes"):
        held = {one.name: one for one in getattr(document, kind)}
        for one in getattr(small, kind):
            if one.name in held and held[one.name] != one:
                new = fresh_name(one.name, (*held, *(other.name for other in getattr(small, kind))))
                small, items = _renamed(small, items, kind, one.name, new)
    return CopiedParts(small, items)


def _renamed(
    document: Document, items: tuple[AnyItem, ...], kind: str, old: str, new: str
) -> tuple[Document, tuple[AnyItem, ...]]:
    """A picture, recipe or palette called otherwise, wherever it is used."""
    held = tuple(msgspec.structs.replace(one, name=new) if one.name == old else one for one in getattr(document, kind))
    document = msgspec.structs.replace(document, **{kind: held})
    for chart in document.charts:
        document = with_chart(document, _renamed_in(chart, kind, old, new))
    if kind == "pictures":
        items = tuple(
            msgspec.structs.replace(item, picture=new)
            if isinstance(item, PlacedPicture) and item.picture == old
            else item
            for item in items
        )
    return document, items


def _renamed_in(chart: ChartEntry, kind: str, old: str, new: str) -> ChartEntry:
    match kind:
        case "recipes":
            return msgspec.structs.replace(chart, recipe=new) if chart.recipe == old else chart
        case "palettes":
            dress = msgspec.structs.replace(chart.dress, palette=new)
            return msgspec.structs.replace(chart, dress=dress) if chart.dress.palette == old else chart
        case _:
            return _with_text(chart, old, new)


def _with_text(chart: ChartEntry, old: str, new: str) -> ChartEntry:
    """A chart in whose looks and settings a name is another."""

    def walked(value: Any) -> Any:
        if isinstance(value, dict):
            return {key: walked(inner) for key, inner in value.items()}
        if isinstance(value, list | tuple):
            return [walked(inner) for inner in value]
        return new if value == old else value

    dress = msgspec.structs.replace(chart.dress, overrides=walked(chart.dress.overrides))
    free = msgspec.convert(walked(msgspec.to_builtins(chart.free, str_keys=True)), type(chart.free), strict=False)
    layers = msgspec.convert(
        walked(msgspec.to_builtins(chart.layers, str_keys=True)), ChartEntry.__annotations__["layers"], strict=False
    )
    return msgspec.structs.replace(chart, dress=dress, settings=walked(chart.settings), free=free, layers=layers)


def _on_tables(chart: ChartEntry, tables: dict[str, str]) -> ChartEntry:
    direction = chart.reading
    if direction is not None:
        direction = msgspec.structs.replace(direction, table=tables[direction.table])
    return msgspec.structs.replace(chart, table=tables[chart.table], reading=direction)


def _of_charts(table: Table, charts: dict[str, str]) -> Table:
    """A table whose helpers belong to the charts by the ids they have now."""

    def helper(held: Helper | None) -> Helper | None:
        return msgspec.structs.replace(held, chart=charts.get(held.chart, held.chart)) if held is not None else None

    def column(held: Column) -> Column:
        return held if held.helper is None else msgspec.structs.replace(held, helper=helper(held.helper))

    return msgspec.structs.replace(
        table, helper=helper(table.helper), columns=tuple(column(one) for one in table.columns)
    )


def _using(item: AnyItem, charts: dict[str, str], tables: dict[str, str]) -> AnyItem:
    """An item that shows what it shows by the ids that hold now."""
    match item:
        case ChartFrame():
            return msgspec.structs.replace(item, chart=charts[item.chart])
        case SharedLegend() | StepControl():
            return msgspec.structs.replace(item, charts=tuple(charts[one] for one in item.charts))
        case Excerpt():
            return msgspec.structs.replace(item, table=tables[item.table])
    return item
