"""Looks set by hand go where what they were set for goes: rows, series, and tables that are turned."""

from typing import Any

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.looks.look_updates import following_rows, turned, with_roles
from kavlet.core.document.tables import row_order
from kavlet.core.spreadsheet.recalculate import recalculate

ROWS: list[list[Any]] = [
    ["pond", "spring", "autumn"], ["Long Mere", 5.0, 3.0], ["Otter Pool", 2.0, 8.0], ["Mill Leat", 4.0, 1.0],
]  # fmt: skip
ONE = {"layers.series 1.rows.1.fill": "#111111"}
AT_3, AT_0 = {"layers.series 1.rows.3.fill": "#111111"}, {"layers.series 1.rows.0.fill": "#111111"}
WHOLE = {"layers.series 2.fill": "#222222", "title.bold": True}


def _made(looks: dict[str, Any], recipe: str = "columns") -> tuple[Document, str, str]:
    document, table = edits.add_table(Document(), "Ponds", ROWS)
    document, chart = edits.add_chart(document, table, recipe)
    return look_edits.set_looks(document, chart, looks), table, chart


def _looks(document: Document, chart: str) -> dict[str, Any]:
    return document.chart(chart).dress.overrides


def test_a_row_s_looks_go_with_the_row() -> None:
    document, table, chart = _made(ONE | WHOLE)
    assert _looks(edits.insert_rows(document, table, 1, 2), chart) == {
        "layers.series 1.rows.3.fill": "#111111",
        **WHOLE,
    }
    assert _looks(edits.insert_rows(document, table, 3, 2), chart) == ONE | WHOLE
    assert _looks(edits.delete_rows(document, table, 1, 1), chart) == {
        "layers.series 1.rows.0.fill": "#111111",
        **WHOLE,
    }
    assert _looks(edits.delete_rows(document, table, 2, 1), chart) == WHOLE
    moved = row_order.move_rows(document, table, 2, 1, 1)
    assert _looks(moved, chart) == AT_0 | WHOLE
    values = recalculate(document.tables).of(table)[1].values[1:]
    down = row_order.sort_rows(document, table, values, descending=True)
    assert _looks(down, chart) == {"layers.series 1.rows.2.fill": "#111111", **WHOLE}


def test_rows_of_another_table_leave_looks_alone() -> None:
    document, _, chart = _made(ONE)
    document, other = edits.add_table(document, "Other", ROWS)
    assert _looks(edits.insert_rows(document, other, 1, 2), chart) == ONE
    same = following_rows(document, other, lambda row: row + 1)
    assert same.chart(chart) is document.chart(chart)
    still = following_rows(document, document.chart(chart).table, lambda row: row)
    assert still.chart(chart) is document.chart(chart)


def test_looks_of_a_series_go_with_its_column() -> None:
    document, table, chart = _made({"layers.series 1.fill": "#111111", **WHOLE})
    first, second = document.chart(chart).roles["value"]
    swapped = with_roles(document.chart(chart), {"name": ("c1",), "value": (second, first)}, "value")
    assert swapped.roles["value"] == (second, first)
    assert swapped.dress.overrides == {
        "layers.series 2.fill": "#111111", "layers.series 1.fill": "#222222", "title.bold": True,
    }  # fmt: skip
    alone = with_roles(document.chart(chart), {"value": (second,)}, "value")
    assert alone.dress.overrides == {"layers.series 1.fill": "#222222", "title.bold": True}
    dropped = edits.drop_role(document, chart, first)
    assert _looks(dropped, chart) == {"layers.series 1.fill": "#222222", "title.bold": True}
    del table


def test_without_a_role_of_series_looks_stay() -> None:
    document, _, chart = _made({"layers.series 1.fill": "#111111"})
    entry = document.chart(chart)
    other = with_roles(entry, {"value": (entry.roles["value"][1],)}, "")
    assert other.dress.overrides == entry.dress.overrides
    same = with_roles(entry, dict(entry.roles), "value")
    assert same.dress.overrides == entry.dress.overrides


def test_a_turned_table_turns_rows_and_series() -> None:
    document, _, chart = _made({"layers.series 2.rows.0.fill": "#111111", "layers.series 1.fill": "#222222"})
    made = turned(document.chart(chart), ((1, 2), (1, 2, 3))).dress.overrides
    assert made == {
        "layers.series 1.rows.1.fill": "#111111", "layers.series 1.rows.0.fill": "#222222",
        "layers.series 2.rows.0.fill": "#222222", "layers.series 3.rows.0.fill": "#222222",
    }  # fmt: skip
    back = turned(document.chart(chart), ((1, 2), (1,))).dress.overrides  # of the rows only the first became a series
    assert back == {"layers.series 1.rows.1.fill": "#111111", "layers.series 1.rows.0.fill": "#222222"}


def test_what_all_rows_of_a_series_have_is_the_series_own_after_turning() -> None:
    document, _, chart = _made({f"layers.series {i}.rows.1.fill": "#111111" for i in (1, 2)})
    made = turned(document.chart(chart), ((1, 2), (1, 2, 3))).dress.overrides
    assert made == {"layers.series 2.fill": "#111111"}
    mixed, _, chart = _made({"layers.series 1.rows.1.fill": "#111111", "layers.series 2.rows.1.fill": "#222222"})
    made = turned(mixed.chart(chart), ((1, 2), (1, 2, 3))).dress.overrides
    assert made == {"layers.series 2.rows.0.fill": "#111111", "layers.series 2.rows.1.fill": "#222222"}


def test_what_a_row_can_t_have_stays_with_the_series_when_turned() -> None:
    looks = {"layers.series 1.label.bold": True, "layers.series 1.radius": 3.0, "frame.along.grid": False}
    document, _, chart = _made(looks)
    assert turned(document.chart(chart), ((1, 2), (1, 2, 3))).dress.overrides == looks


def test_turning_rows_into_series_and_back_keeps_a_look() -> None:
    document, table, chart = _made(ONE)
    once = row_order.transpose(document, table)
    assert _looks(once, chart) == {"layers.series 2.rows.0.fill": "#111111"}
    again = row_order.transpose(once, table)
    assert _looks(again, chart) == ONE


@pytest.mark.parametrize("recipe", ["funnel", "pie"])
def test_rows_of_charts_without_series_follow_too(recipe: str) -> None:
    document, table, chart = _made({"layers.value.rows.2.fill": "#111111"}, recipe)
    assert _looks(edits.delete_rows(document, table, 1, 1), chart) == {"layers.value.rows.1.fill": "#111111"}
