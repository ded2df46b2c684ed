"""Charts that go through periods, alone and together on a page."""

import pytest

from kavlet.core.document import edits
from kavlet.core.document.charts import period_steps
from kavlet.core.document.document import Document
from kavlet.core.document.interpolation import between
from kavlet.core.document.pages import page_edits
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.spreadsheet.cells import FormattedNumber
from kavlet.core.values.number_text import NumberText

ROWS = [["Gate", "Guests", "Year"], ["North", 1.0, "2023"], ["North", 3.0, "2024"], ["North", 9.0, "2025"]]
ROLES = {"name": ("c1",), "value": ("c2",), "period": ("c3",)}


def made(charts: int = 1, rows: list[list[object]] | None = None) -> tuple[Document, str]:
    document, table = edits.add_table(Document(), "Gates", rows or ROWS)  # type: ignore[arg-type]
    document, page = page_edits.add_page(document)
    for _ in range(charts):
        document, chart = edits.add_chart(document, table, "stepping", ROLES)
        document, _, _ = page_edits.send_to_page(document, chart, page)
    return document, page


def test_periods_in_the_order_in_which_they_stand() -> None:
    document, _ = made(rows=[["Gate", "Guests", "Year"], ["N", 1.0, "2025"], ["N", 2.0, "2023"], ["S", 3.0, "2025"]])
    assert period_steps.periods(document, Pictures().values(document), document.charts[0]) == ("2025", "2023")


def test_charts_of_a_page_are_driven_together() -> None:
    document, page = made(2)
    values = Pictures().values(document)
    found = period_steps.stepping(document, values, document.page(page))
    assert found is not None
    assert (found.charts, found.periods, found.at, found.name) == (("k1", "k2"), ("2023", "2024", "2025"), 1.0, "2023")
    moved = period_steps.stepped(document, values, found.charts, 3.0)
    assert [period_steps.position(moved, chart) for chart in moved.charts] == [3.0, 3.0]


def test_only_the_charts_named_are_driven() -> None:
    document, page = made(2)
    found = period_steps.stepping(document, Pictures().values(document), document.page(page), ("k2",))
    assert found is not None
    assert found.charts == ("k2",)


def test_a_frame_of_one_period_stays_at_it() -> None:
    document, page = made()
    document = page_edits.change_item(document, page, "i1", row=2)
    assert isinstance(document.page(page).item("i1"), ChartFrame)
    assert period_steps.stepping(document, Pictures().values(document), document.page(page)) is None


@pytest.mark.parametrize(("to", "at"), [(0.0, 1.0), (2.5, 2.5), (99.0, 3.0)])
def test_a_chart_stays_within_its_periods(to: float, at: float) -> None:
    document, _ = made()
    moved = period_steps.stepped(document, Pictures().values(document), ("k1",), to)
    assert period_steps.position(moved, moved.charts[0]) == at


def test_a_page_without_such_charts_does_not_step() -> None:
    document, table = edits.add_table(Document(), "Gates", ROWS)  # type: ignore[arg-type]
    document, chart = edits.add_chart(document, table, "columns", {"name": ("c1",), "value": ("c2",)})
    document, page, _ = page_edits.send_to_page(document, chart)
    assert period_steps.stepping(document, Pictures().values(document), document.page(page)) is None


def test_on_the_way_between_two_periods() -> None:
    document, _ = made()
    moved = period_steps.stepped(document, Pictures().values(document), ("k1",), 3.0)
    path = [between(document, moved, share) for share in (0.0, 0.25, 1.0)]
    assert [period_steps.position(one, one.charts[0]) for one in path] == [1.0, 1.5, 3.0]


def test_numbers_on_their_way_are_written_as_they_end() -> None:
    document, _ = made()
    percent = NumberText("percent", 0, 0)
    old = edits.set_cells(document, "t1", {(1, 1): FormattedNumber(0.2, percent)})
    new = edits.set_cells(document, "t1", {(1, 1): FormattedNumber(0.6, percent)})
    half = between(old, new, 0.5).tables[0].columns[1].cells[1]
    assert isinstance(half, FormattedNumber)
    assert (half.value, half.number) == (pytest.approx(0.4), percent)


def test_what_is_no_number_comes_at_once_and_the_end_is_the_end() -> None:
    old, _ = made()
    new = edits.set_cells(old, "t1", {(0, 1): "West", (1, 2): "none"})
    assert between(old, new, 0.1).tables[0].columns[0].cells[1] == "West"
    assert between(old, new, 1.0) is new
    assert between(old, old, 0.5) is old


def test_tables_that_grow_come_at_once() -> None:
    old, _ = made()
    new = edits.insert_rows(old, "t1", 2)
    assert between(old, new, 0.5).tables[0].height == new.tables[0].height
