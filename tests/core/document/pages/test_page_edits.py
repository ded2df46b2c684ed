"""Edits of pages and of what stands on them."""

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.document.tables import table_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pages.arrangements import bays, places
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect


def made() -> Document:
    """A table of three gates and two charts of it."""
    rows = [["Gate", "Guests"], ["North", 40.0], ["South", 25.0], ["East", 10.0]]
    document, table = edits.add_table(Document(), "Gates", rows)  # type: ignore[arg-type]
    for recipe in ("funnel", "columns"):
        document, _ = edits.add_chart(document, table, recipe, {"name": ("c1",), "value": ("c2",)})
    return document


def with_shapes(count: int) -> tuple[Document, str, list[str]]:
    document, page = page_edits.add_page(made())
    found: list[str] = []
    for i in range(count):
        document, item = page_edits.put(document, page, DrawnShape(""), Rect(10.0 * i, 0, 8, 8))
        found.append(item)
    return document, page, found


def order(document: Document, page: str) -> list[str]:
    return [item.id for item in document.page(page).items]


def test_pages_are_named_apart_and_numbered() -> None:
    document, first = page_edits.add_page(made())
    document, second = page_edits.add_page(document, name="Page 1")
    assert [document.page(one).name for one in (first, second)] == ["Page 1", "Page 1 2"]


def test_a_copy_stands_after_its_page_and_shares_nothing() -> None:
    document, page, _ = with_shapes(1)
    document, last = page_edits.add_page(document)
    document, copy = page_edits.copy_page(document, page)
    assert [one.id for one in document.pages] == [page, copy, last]
    document = page_edits.delete_items(document, copy, order(document, copy))
    assert len(document.page(page).items) == 1


def test_a_new_page_is_like_the_one_before() -> None:
    document, page = page_edits.add_page(made(), "A5", margins=(1.0, 2.0, 3.0, 4.0), footer="{page}", dark=True)
    document, new = page_edits.add_page_like(document, document.page(page), 1)
    held = document.page(new)
    assert (held.size, held.margins, held.footer, held.dark) == (
        document.page(page).size, (1.0, 2.0, 3.0, 4.0), "{page}", True,
    )  # fmt: skip
    assert held.items == ()


def test_pages_are_moved_among_the_others() -> None:
    document = made()
    for _ in range(4):
        document, _ = page_edits.add_page(document)
    moved = page_edits.move_page(document, "p1", 2)
    assert [one.id for one in moved.pages] == ["p2", "p3", "p1", "p4"]
    assert [one.id for one in page_edits.move_page(document, "p4", -9).pages] == ["p4", "p1", "p2", "p3"]


def test_pages_are_put_in_order() -> None:
    document = made()
    for _ in range(4):
        document, _ = page_edits.add_page(document)
    assert [one.id for one in page_edits.in_order(document, ["p3", "p1", "p4", "p2"]).pages] == ["p3", "p1", "p4", "p2"]


@pytest.mark.parametrize("name", ["", "  ", "Page 2"])
def test_a_page_needs_a_name_of_its_own(name: str) -> None:
    document, page = page_edits.add_page(made())
    document, _ = page_edits.add_page(document)
    with pytest.raises(KavletError):
        page_edits.change_page(document, page, name=name)


def test_items_fill_free_bays_first_and_then_the_middle() -> None:
    document, page = page_edits.add_page(made(), arrangement="two beside")
    for chart in ("k1", "k2", "k1"):
        document, _, _ = page_edits.send_to_page(document, chart, page)
    held = document.page(page)
    assert [item.bay for item in held.items] == [0, 1, None]
    third = places(held)[held.items[2].id]
    assert third.center == pytest.approx(held.inner.center)


def test_a_locked_item_stays_where_it_is() -> None:
    document, page, (one, two) = with_shapes(2)
    document = page_edits.change_item(document, page, one, locked=True)
    boxes = {item: Rect(99, 99, 20, 20) for item in (one, two)}
    held = page_edits.placed(document, page, boxes).page(page)
    assert held.item(one).x == 0.0
    assert held.item(two).x == 99.0


def test_items_swap_their_bays() -> None:
    document, page = page_edits.add_page(made(), arrangement="two beside")
    for chart in ("k1", "k2"):
        document, _, _ = page_edits.send_to_page(document, chart, page)
    held = page_edits.into_bay(document, page, "i1", 1).page(page)
    assert (held.item("i1").bay, held.item("i2").bay) == (1, 0)


def test_another_arrangement_keeps_ranks_and_loses_nothing() -> None:
    document, page = page_edits.add_page(made(), arrangement="three beside")
    for chart in ("k1", "k2", "k1"):
        document, _, _ = page_edits.send_to_page(document, chart, page)
    before = places(document.page(page))
    held = page_edits.arranged(document, page, "two above").page(page)
    assert [places(held)[item] for item in ("i1", "i2")] == list(bays(held))
    assert places(held)["i3"] == before["i3"]
    back = page_edits.arranged(page_edits.arranged(document, page, "free"), page, "three beside").page(page)
    assert sorted(item.bay for item in back.items if item.bay is not None) == [0, 1, 2]


@pytest.mark.parametrize(
    ("to", "expected"),
    [("front", [0, 2, 3, 1]), ("back", [1, 0, 2, 3]), ("forward", [0, 2, 1, 3]), ("backward", [1, 0, 2, 3])],
)
def test_order(to: str, expected: list[int]) -> None:
    document, page, items = with_shapes(4)
    assert order(page_edits.ordered(document, page, [items[1]], to), page) == [items[i] for i in expected]


def test_two_go_forward_together() -> None:
    document, page, (a, b, c, d) = with_shapes(4)
    assert order(page_edits.ordered(document, page, [a, b], "forward"), page) == [c, a, b, d]
    assert order(page_edits.ordered(document, page, [c, d], "forward"), page) == [a, b, c, d]


def test_groups_are_named_apart_and_copied_as_groups() -> None:
    document, page, (a, b, c, _) = with_shapes(4)
    document = page_edits.grouped(document, page, [a, b], together=True)
    document = page_edits.grouped(document, page, [c], together=True)
    held = document.page(page)
    assert held.item(a).group == held.item(b).group != held.item(c).group
    document, copies = page_edits.pasted(document, page, [held.item(a), held.item(b)])
    groups = {document.page(page).item(one).group for one in copies}
    assert len(groups) == 1
    assert groups.isdisjoint({held.item(a).group, held.item(c).group})


def test_300_items_and_no_more() -> None:
    document, page, items = with_shapes(page_edits.MAX_ITEMS)
    with pytest.raises(KavletError, match="300"):
        page_edits.put(document, page, DrawnShape(""))
    with pytest.raises(KavletError, match="300"):
        page_edits.pasted(document, page, [document.page(page).item(items[0])])


def test_a_deleted_chart_takes_its_frames_along_and_one_undo_brings_them_back() -> None:
    document, page = page_edits.add_page(made())
    document, _, _ = page_edits.send_to_page(document, "k1", page)
    document, _ = page_edits.put(document, page, SharedLegend("", charts=("k1", "k2")))
    gone = chart_edits.delete_chart(document, "k1")
    (legend,) = gone.page(page).items
    assert isinstance(legend, SharedLegend)
    assert legend.charts == ("k2",)
    assert len(document.page(page).items) == 2


def test_a_deleted_table_takes_charts_and_excerpts_along() -> None:
    document, page = page_edits.add_page(made())
    document, _, _ = page_edits.send_to_page(document, "k1", page)
    document, _ = page_edits.put(document, page, Excerpt("", table="t1"))
    document, _ = page_edits.put(document, page, Words("", paragraphs=plain("stays")))
    left = table_edits.delete(document, "t1").page(page).items
    assert [item.kind for item in left] == ["words"]


def test_frames_of_a_chart_are_found() -> None:
    document, page = page_edits.add_page(made(), name="Gates")
    document, _, item = page_edits.send_to_page(document, "k2", page)
    assert [(where.name, frame.id) for where, frame in page_edits.frames_of(document, ["k2"])] == [("Gates", item)]


def test_figures_on_pages_follow_rows_that_move() -> None:
    document, page = page_edits.add_page(made())
    document, figure = page_edits.put(document, page, KeyFigure("", value="=Gates!B3"))
    document, said = page_edits.put(document, page, Words("", paragraphs=plain("{=Gates!B3 | 0} guests")))
    document = edits.insert_rows(document, "t1", 1)
    held = document.page(page)
    assert held.item(figure).value == "=Gates!B4"  # type: ignore[union-attr]
    assert held.item(said).text == "{=Gates!B4 | 0} guests"  # type: ignore[union-attr]


def test_a_page_of_all_rows_has_one_scale() -> None:
    document, page = page_edits.page_of_all_rows(
        made(), "k2", page_edits.Repetition({1: "North", 2: "South", 3: "East"}, (0.0, 50.0))
    )
    frames = [item for item in document.page(page).items if isinstance(item, ChartFrame)]
    assert [(one.row, one.caption, one.low, one.high) for one in frames] == [
        (1, "North", 0.0, 50.0), (2, "South", 0.0, 50.0), (3, "East", 0.0, 50.0),
    ]  # fmt: skip
    assert sorted(one.bay for one in frames if one.bay is not None) == [0, 1, 2]
    heading = next(item for item in document.page(page).items if isinstance(item, Words))
    assert not any(heading.box.overlaps(places(document.page(page))[one.id]) for one in frames)


def test_one_page_per_row() -> None:
    document, first = page_edits.page_per_row(
        made(), "k2", page_edits.Repetition({1: "North", 2: "South"}, (0.0, 50.0))
    )
    assert [page.name.split(", ")[1] for page in document.pages] == ["North", "South"]
    assert document.pages[0].id == first
    assert document.pages[1].footer == "{name}\t{page} / {pages}"
    frames = [item for page in document.pages for item in page.items if isinstance(item, ChartFrame)]
    assert [(frame.row, frame.low, frame.high) for frame in frames] == [(1, 0.0, 50.0), (2, 0.0, 50.0)]


def test_the_first_figure_of_a_table() -> None:
    from kavlet.core.spreadsheet.recalculate import recalculate

    document = made()
    assert page_edits.first_figure(document, recalculate(document.tables), "t1") == "=Gates!B2"


def test_pages_are_kept_in_the_file() -> None:
    document, page = page_edits.add_page(made(), "A5 lying", arrangement="two beside", speaker="Welcome")
    document, _, _ = page_edits.send_to_page(document, "k1", page)
    document = page_edits.change_page(document, page, shares={"": (0.3, 0.7)})
    assert kavlet_file.loads(kavlet_file.dumps(document), "a.kavlet").pages == document.pages


def test_a_file_without_pages_opens_as_before() -> None:
    document = made()
    assert kavlet_file.loads(kavlet_file.dumps(document), "a.kavlet").pages == ()


def test_edits_leave_the_old_document_alone() -> None:
    document, page, items = with_shapes(2)
    before = msgspec.json.encode(document)
    page_edits.placed(document, page, {items[0]: Rect(1, 2, 3, 4)})
    page_edits.arranged(document, page, "four")
    page_edits.delete_page(document, page)
    assert msgspec.json.encode(document) == before


@pytest.mark.parametrize(("rows", "pages"), [(1, [1]), (12, [12]), (13, [7, 6]), (41, [11, 11, 11, 8])])
def test_many_rows_go_on_several_pages_of_alike_frames(rows: int, pages: list[int]) -> None:
    over = page_edits.Repetition({i: f"Row {i}" for i in range(1, rows + 1)})
    document, first = page_edits.page_of_all_rows(made(), "k2", over)
    held = [[item for item in page.items if isinstance(item, ChartFrame)] for page in document.pages]
    assert [len(frames) for frames in held] == pages
    assert [frame.row for frames in held for frame in frames] == list(range(1, rows + 1))
    assert document.pages[0].id == first
    sizes = {(round(box.width, 3), round(box.height, 3)) for page in document.pages for box in bays(page)}
    assert len(sizes) == 1


def test_a_legend_is_set_once_below_the_heading() -> None:
    document, page = page_edits.page_of_all_rows(
        made(), "k2", page_edits.Repetition({1: "North", 2: "South"}, None, legend=True)
    )
    legends = [item for item in document.page(page).items if isinstance(item, SharedLegend)]
    assert [one.charts for one in legends] == [("k2",)]
    assert not any(legends[0].box.overlaps(box) for box in bays(document.page(page)))
