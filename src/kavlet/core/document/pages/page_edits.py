"""Edits of pages: pure functions from document to document."""

from collections.abc import Callable, Iterable, Mapping
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document, fresh_id, fresh_name, with_page
from kavlet.core.messages import say, words
from kavlet.core.pages.arrangements import ARRANGEMENTS, FREE, MULTIPLES, bays, next_bay, places
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.item import MIN_SIDE
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.pages.page import AnyItem, Page, named_size, sized, with_items
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.references import CellReference, RangeReference
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.sizes import MM

MAX_ITEMS = 300
MAX_PAGES = 500
MAX_FRAMES = 12  # on one page of small multiples
SLIDE_MARGINS = (16 * MM, 14 * MM, 16 * MM, 13 * MM)


# Pages


def add_page(document: Document, size: str = "A4", rank: int | None = None, **changes: Any) -> tuple[Document, str]:
    """A new page of a named size, at a place among the others or last. Returns the document and the page's id.

    Raises KavletError for a size that there is not, or more pages than a document holds.
    """
    if len(document.pages) >= MAX_PAGES:
        raise KavletError(say("A document holds {count} pages at most.", count=MAX_PAGES))
    new = fresh_id("p", (page.id for page in document.pages))
    title = str(changes.pop("name", "") or words("Page {number}", number=len(document.pages) + 1))
    name = fresh_name(title, (page.name for page in document.pages))
    paper = named_size(size)
    new_page = Page(new, name, paper.width, paper.height)
    if size.startswith("Slide"):
        new_page = msgspec.structs.replace(new_page, margins=SLIDE_MARGINS)
    new_page = msgspec.structs.replace(new_page, **changes)
    place = len(document.pages) if rank is None else max(0, min(rank, len(document.pages)))
    return msgspec.structs.replace(document, pages=(*document.pages[:place], new_page, *document.pages[place:])), new


def add_page_like(document: Document, like: Page, at: int) -> tuple[Document, str]:
    """A new page without items, of the size, margins, ground, theme and lines of another. Returns it as `add_page`."""
    kept = {name: getattr(like, name) for name in (
        "width", "height", "margins", "columns", "gutter", "ground", "theme", "dark", "header", "footer",
    )}  # fmt: skip
    return add_page(document, rank=at, **kept)


def copy_page(document: Document, page: str) -> tuple[Document, str]:
    """A copy of a page after it. Returns the document and the copy's id."""
    old = document.page(page)
    new = fresh_id("p", (other.id for other in document.pages))
    name = fresh_name(old.name, (other.name for other in document.pages))
    rank = document.pages.index(old) + 1
    copied = msgspec.structs.replace(old, id=new, name=name)
    return msgspec.structs.replace(document, pages=(*document.pages[:rank], copied, *document.pages[rank:])), new


def delete_page(document: Document, page: str) -> Document:
    """The document without a page; its charts and tables stay."""
    document.page(page)
    return msgspec.structs.replace(document, pages=tuple(page_ for page_ in document.pages if page_.id != page))


def move_page(document: Document, page: str, to: int) -> Document:
    """The page at another place among the others, counted without it."""
    held = document.page(page)
    others = [page_ for page_ in document.pages if page_.id != page]
    others.insert(max(0, min(to, len(others))), held)
    return msgspec.structs.replace(document, pages=tuple(others))


def in_order(document: Document, pages: Iterable[str]) -> Document:
    """The document with its pages in another order, by their ids; those that are not named stay last."""
    places = {page: place for place, page in enumerate(pages)}
    ordered = sorted(document.pages, key=lambda page: places.get(page.id, len(places)))
    return msgspec.structs.replace(document, pages=tuple(ordered))


def change_page(document: Document, page: str, **changes: Any) -> Document:
    """The page with other fields. Raises KavletError for an empty name, that of another page, or a size that no sheet
    has."""
    old = document.page(page)
    if "name" in changes:
        changes["name"] = str(changes["name"]).strip()
        if not changes["name"]:
            raise KavletError(say("A page needs a name."))
        if any(other.name == changes["name"] and other.id != page for other in document.pages):
            raise KavletError(say("There is a page called “{name}” already.", name=changes["name"]))
    new = msgspec.structs.replace(old, **changes)
    return with_page(document, sized(new, new.width, new.height))


def arranged(document: Document, page: str, arrangement: str, grid: tuple[int, int] | None = None) -> Document:
    """The page in another arrangement: items keep the rank of their bay; those in no bay take the free ones, charts
    first, where they stood freely before. Raises KavletError for an arrangement that there is not."""
    if arrangement not in ARRANGEMENTS:
        raise KavletError(say("There is no arrangement “{name}”.", name=arrangement))
    old = document.page(page)
    now = places(old)
    new = msgspec.structs.replace(old, arrangement=arrangement, shares={}, grid=grid or old.grid)
    count = len(bays(new))
    items = tuple(at_place(item, now[item.id]) for item in old.items)  # who loses its bay stands where it stood
    if arrangement == FREE:
        items = tuple(msgspec.structs.replace(item, bay=None) for item in items)
    new = msgspec.structs.replace(new, items=items)
    for item in sorted(items, key=lambda entry: (not isinstance(entry, ChartFrame), entry.y, entry.x)):
        rank = next_bay(new)
        if arrangement != FREE and old.arrangement == FREE and rank is not None and not item.locked:
            new = with_items(new, [msgspec.structs.replace(item, bay=rank)])
    return with_page(document, new) if count or arrangement == FREE else document


# Items


def put(document: Document, page: str, item: AnyItem, rect: Rect | None = None) -> tuple[Document, str]:
    """An item put onto a page: at a place, else into the next free bay, else into the middle. Returns the document and
    the item's id. Raises KavletError where the page holds as much as it can."""
    old = document.page(page)
    if len(old.items) >= MAX_ITEMS:
        raise KavletError(say("A page holds {count} items at most.", count=MAX_ITEMS))
    new = fresh_id("i", (present.id for present in old.items))
    rank = next_bay(old) if rect is None else None
    if rect is None:
        size = Size(min(item.width, old.inner.width), min(item.height, old.inner.height))
        x, y = old.inner.center
        shift = 12.0 * sum(1 for present in old.items if present.bay is None and rank is None)
        rect = Rect(x - size.width / 2, y - size.height / 2, size.width, size.height)
        room = Rect(0.0, 0.0, old.width, old.height)
        rect = Rect(rect.x + shift % 120, rect.y + shift % 120, rect.width, rect.height)
        dx, dy = rect.way_into(room)
        rect = Rect(rect.x + dx, rect.y + dy, rect.width, rect.height)
    placed_item = at_place(msgspec.structs.replace(item, id=new, bay=rank), rect)
    return with_page(document, msgspec.structs.replace(old, items=(*old.items, placed_item))), new


def change_items(document: Document, page: str, change: Callable[[AnyItem], AnyItem], items: Iterable[str]) -> Document:
    """Items changed by a function."""
    old, ids = document.page(page), set(items)
    return with_page(document, with_items(old, [change(item) for item in old.items if item.id in ids]))


def change_item(document: Document, page: str, item: str, **changes: Any) -> Document:
    """One item with other fields. Raises KavletError where there is none."""
    document.page(page).item(item)
    return change_items(document, page, lambda one: msgspec.structs.replace(one, **changes), (item,))


def placed(document: Document, page: str, boxes: Mapping[str, Rect]) -> Document:
    """Items at other places, out of their bays; those that are locked stay."""

    def moved(item: AnyItem) -> AnyItem:
        return item if item.locked else msgspec.structs.replace(at_place(item, boxes[item.id]), bay=None)

    return change_items(document, page, moved, boxes)


def into_bay(document: Document, page: str, item: str, rank: int) -> Document:
    """An item into a bay; one that fills it already goes where the item came from."""
    old = document.page(page)
    moving = old.item(item)
    other = next((other_item for other_item in old.items if other_item.bay == rank and other_item.id != item), None)
    items: list[AnyItem] = [msgspec.structs.replace(moving, bay=rank)]
    if other is not None:
        now = places(old)[item]
        swapped = msgspec.structs.replace(other, bay=moving.bay)
        items.append(swapped if moving.bay is not None else at_place(swapped, now))
    return with_page(document, with_items(old, items))


def delete_items(document: Document, page: str, items: Iterable[str]) -> Document:
    """The page without some of its items."""
    page_, gone = document.page(page), set(items)
    return with_page(document, msgspec.structs.replace(page_, items=tuple(i for i in page_.items if i.id not in gone)))


def ordered(document: Document, page: str, items: Iterable[str], to: str) -> Document:
    """Items moved among the others: to the `front` or `back`, or one step `forward` or `backward`."""
    old, ids = document.page(page), set(items)
    order = list(old.items)
    if to in ("front", "back"):
        moving, others = [i for i in order if i.id in ids], [i for i in order if i.id not in ids]
        order = [*others, *moving] if to == "front" else [*moving, *others]
    else:
        steps = range(len(order) - 2, -1, -1) if to == "forward" else range(1, len(order))
        way = 1 if to == "forward" else -1
        for i in steps:
            if order[i].id in ids and order[i + way].id not in ids:
                order[i], order[i + way] = order[i + way], order[i]
    return with_page(document, msgspec.structs.replace(old, items=tuple(order)))


def grouped(document: Document, page: str, items: Iterable[str], together: bool) -> Document:
    """Items chosen together from now on, or each alone again."""
    page_ = document.page(page)
    name = fresh_id("g", (item.group for item in page_.items)) if together else ""
    return change_items(document, page, lambda one: msgspec.structs.replace(one, group=name), items)


def pasted(document: Document, page: str, items: Iterable[AnyItem], by: float = 12.0) -> tuple[Document, list[str]]:
    """Copies of items on a page, moved a little where they come from it. Returns the document and the copies' ids."""
    old = document.page(page)
    new_ids: list[str] = []
    groups: dict[str, str] = {}
    for item in items:
        new = fresh_id("i", (present.id for present in old.items))
        if item.group and item.group not in groups:
            groups[item.group] = fresh_id("g", [*(present.group for present in old.items), *groups.values()])
        copy = msgspec.structs.replace(item, id=new, bay=None, group=groups.get(item.group, ""))
        if any(present.box == item.box for present in old.items):
            copy = msgspec.structs.replace(copy, x=copy.x + by, y=copy.y + by)
        old = msgspec.structs.replace(old, items=(*old.items, copy))
        new_ids.append(new)
    if len(old.items) > MAX_ITEMS:
        raise KavletError(say("A page holds {count} items at most.", count=MAX_ITEMS))
    return with_page(document, old), new_ids


def at_place(item: AnyItem, at: Rect) -> AnyItem:
    """An item with another place of its own."""
    made: AnyItem = msgspec.structs.replace(
        item, x=at.x, y=at.y, width=max(MIN_SIDE, at.width), height=max(MIN_SIDE, at.height)
    )
    return made


def first_figure(document: Document, values: Values, table: str) -> str:
    """A formula that names the first cell of a table that holds a number; empty where none does."""
    held = document.table(table)
    for index, column in enumerate(values.of(table)):
        for row, value in enumerate(column.values):
            if row >= HEADER and isinstance(value, float) and held.columns[index].helper is None:
                return f"={RangeReference(CellReference(index, row), table=held.name).text}"
    return ""


# Charts on pages


def send_to_page(document: Document, chart: str, page: str | None = None) -> tuple[Document, str, str]:
    """A chart put onto a page; onto the first, or a new one where there is none. Returns document, page and item."""
    entry = document.chart(chart)
    if page is None:
        document, page = add_page(document, arrangement="whole")
    document, item = put(document, page, ChartFrame("", width=entry.width, height=entry.height, chart=chart))
    return document, page, item


def page_of_chart(document: Document, chart: str, size: str = "A4 lying") -> tuple[Document, str]:
    """A new page with one chart that fills it. Returns the document and the page's id."""
    entry = document.chart(chart)
    document, page = add_page(document, size, name=entry.name, arrangement="whole")
    document, _ = put(document, page, ChartFrame("", chart=chart))
    return document, page


class Repetition(Struct, frozen=True):
    """What a chart is repeated over: rows (counted from 1) with their names, the ends of the scale that all frames
    share (None where they share one anyway), and whether it has a legend to be set once."""

    rows: Mapping[int, str]
    ends: tuple[float, float] | None = None
    legend: bool = False

    def frame(self, chart: str, row: int, **changes: Any) -> ChartFrame:
        """The chart for one of the rows."""
        low, high = self.ends if self.ends is not None else (None, None)
        return ChartFrame("", chart=chart, row=row, low=low, high=high, **changes)


def page_of_all_rows(document: Document, chart: str, over: Repetition, size: str = "A4") -> tuple[Document, str]:
    """The chart once for each row, captioned with its name, on one scale and with one legend below the heading where it
    has one; on several pages where a single one would be too crowded to read. Returns document and first page's id."""
    first, names = "", list(over.rows.items())
    count = -(-len(names) // MAX_FRAMES)
    per_page = -(-len(names) // max(1, count))
    for start in range(0, len(names), per_page):
        rows = dict(names[start : start + per_page])
        document, page = _multiples(document, chart, msgspec.structs.replace(over, rows=rows), per_page, size)
        first = first or page
    return document, first


def _multiples(document: Document, chart: str, over: Repetition, count: int, size: str) -> tuple[Document, str]:
    """A page of frames, for so many of them, under the chart's title."""
    columns, lines = _fitting(count, named_size(size))
    entry = document.chart(chart)
    document, page = add_page(document, size, name=entry.name, arrangement=MULTIPLES, grid=(lines, columns))
    for row, name in over.rows.items():
        frame = over.frame(chart, row, title=False, legend=False, caption=name)
        document, _ = put(document, page, frame)
    left, top, right, bottom = document.page(page).margins
    wide = document.page(page).inner.width
    heading = Words("", paragraphs=plain(entry.title or entry.name), style="heading")
    document, _ = put(document, page, heading, Rect(left, top, wide, 30))
    top += 52
    if over.legend:
        document, _ = put(document, page, SharedLegend("", charts=(chart,)), Rect(left, top, wide, 20))
        top += 32
    return change_page(document, page, margins=(left, top, right, bottom)), page


def page_per_row(document: Document, chart: str, over: Repetition, size: str = "A4 lying") -> tuple[Document, str]:
    """A page for each row, titled with its name, all on one scale. Returns the document and the first page's id."""
    entry, first = document.chart(chart), ""
    for row, name in over.rows.items():
        document, page = add_page(document, size, name=f"{entry.name}, {name}", arrangement="title over a chart")
        document, _ = put(document, page, Words("", paragraphs=plain(name), style="title", upright="middle"))
        document, _ = put(document, page, over.frame(chart, row))
        document = change_page(document, page, footer="{name}\t{page} / {pages}")
        first = first or page
    return document, first


def _fitting(count: int, size: Size) -> tuple[int, int]:
    """Columns and rows for so many frames, each about as wide as one and a half times its height."""
    best = min(
        range(1, max(1, count) + 1),
        key=lambda columns: abs((size.width / columns) / (size.height / -(-count // columns)) - 1.5),
    )
    return best, max(1, -(-count // best))


def frames_of(document: Document, charts: Iterable[str]) -> list[tuple[Page, ChartFrame]]:
    """Where charts stand on pages."""
    wanted = set(charts)
    return [
        (page, item)
        for page in document.pages
        for item in page.items
        if isinstance(item, ChartFrame) and item.chart in wanted
    ]


def pages_of(document: Document, charts: Iterable[str], table: str = "") -> list[str]:
    """The names of the pages that show charts, or parts of a table."""
    framed = {page.id for page, _ in frames_of(document, charts)}
    return [
        page.name
        for page in document.pages
        if page.id in framed or (table and any(isinstance(i, Excerpt) and i.table == table for i in page.items))
    ]


def without_frames(document: Document, charts: set[str]) -> Document:
    """The document without the frames of charts that go, and without their names in legends and step controls."""

    def kept(item: AnyItem) -> AnyItem | None:
        match item:
            case ChartFrame() if item.chart in charts:
                return None
            case SharedLegend() | StepControl():
                return msgspec.structs.replace(item, charts=tuple(one for one in item.charts if one not in charts))
        return item

    return _keeping(document, kept)


def showing_otherwise(document: Document, chart: str, same_rows: bool) -> Document:
    """The document with the frames of a chart that is drawn by another recipe now. The common scale they had means
    nothing there; nor, but for `same_rows`, do the row they showed and the caption that names it: they show all."""

    def kept(item: AnyItem) -> AnyItem | None:
        if not isinstance(item, ChartFrame) or item.chart != chart:
            return item
        named = {} if same_rows or item.row is None else {"row": None, "caption": ""}
        return msgspec.structs.replace(item, low=None, high=None, **named)

    return _keeping(document, kept)


def without_excerpts(document: Document, table: str) -> Document:
    """The document without the excerpts of a table that goes."""
    return _keeping(document, lambda item: None if isinstance(item, Excerpt) and item.table == table else item)


def _keeping(document: Document, keep: Callable[[AnyItem], AnyItem | None]) -> Document:
    """The document with what a function leaves of each item; pages that lose nothing stay the same objects."""

    def page(old: Page) -> Page:
        items = tuple(item for item in map(keep, old.items) if item is not None)
        return old if items == old.items else msgspec.structs.replace(old, items=items)

    return msgspec.structs.replace(document, pages=tuple(page(item) for item in document.pages))


def item_name(document: Document, item: AnyItem) -> str:
    """What to call an item: its own name, else what it shows."""
    if item.name:
        return item.name
    match item:
        case ChartFrame():
            return next((chart.name for chart in document.charts if chart.id == item.chart), item.chart)
        case Words():
            return item.text.partition("\n")[0][:40]
        case KeyFigure():
            return item.caption
        case PlacedPicture():
            return item.picture
        case DrawnShape():
            return item.form
        case Excerpt():
            return next((table.name for table in document.tables if table.id == item.table), item.table)
    return item.kind
