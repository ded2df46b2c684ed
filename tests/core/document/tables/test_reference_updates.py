"""What follows when rows, columns and tables move: references by table, and looks that are not touched."""

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables import row_order, table_edits
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.recalculate import recalculate


@pytest.fixture
def two() -> tuple[Document, str, str]:
    """Two tables of like shape, the second with formulas on both."""
    document, path = edits.add_table(Document(), "Path", [["stage", "people"], ["Visits", 5.0], ["Walks", 2.0]])
    rows = [["what", "number"], ["there", Formula("=Path!B2*10")], ["here", Formula("=B2+1")], ["rest", 7.0]]
    document, sums = edits.add_table(document, "Sums", rows)
    return document, path, sums


def _formulas(document: Document, table: str) -> list[str]:
    return [cell.text for column in document.table(table).columns for cell in column.cells if isinstance(cell, Formula)]


def _values(document: Document, table: str) -> list[object]:
    return recalculate(document.tables).of(table)[1].values[1:]


def test_rows_inserted_in_one_table_move_only_references_to_it(two: tuple[Document, str, str]) -> None:
    document, path, sums = two
    moved = edits.insert_rows(document, path, 1, 1)
    assert _formulas(moved, sums) == ["=Path!B3*10", "=B2+1"]
    assert _values(moved, sums) == _values(document, sums) == [50.0, 51.0, 7.0]
    moved = edits.insert_rows(document, sums, 1, 1)
    assert _formulas(moved, sums) == ["=Path!B2*10", "=B3+1"]
    assert _values(moved, sums)[1:] == [50.0, 51.0, 7.0]


def test_rows_moved_in_one_table_move_only_references_to_it(two: tuple[Document, str, str]) -> None:
    document, path, sums = two
    moved = row_order.move_rows(document, path, 1, 1, 3)
    assert _formulas(moved, sums) == ["=Path!B3*10", "=B2+1"]
    assert _values(moved, sums) == [50.0, 51.0, 7.0]


def test_a_renamed_table_is_followed_by_its_new_name(two: tuple[Document, str, str]) -> None:
    document, path, sums = two
    renamed = table_edits.rename(document, path, "Way")
    assert _formulas(renamed, sums) == ["=Way!B2*10", "=B2+1"]
    assert _values(renamed, sums) == [50.0, 51.0, 7.0]


def test_a_look_that_is_set_leaves_the_others(two: tuple[Document, str, str]) -> None:
    document, path, _ = two
    document, chart = edits.add_chart(document, path, "columns")
    first = look_edits.set_looks(document, chart, {"layers.series 1.fill": "#123456", "title.bold": False})
    second = look_edits.set_looks(first, chart, {"title.bold": True})
    assert second.chart(chart).dress.overrides == {"layers.series 1.fill": "#123456", "title.bold": True}
    given_back = look_edits.set_looks(second, chart, {"title.bold": None})
    assert given_back.chart(chart).dress.overrides == {"layers.series 1.fill": "#123456"}
    owned = look_edits.set_looks(second, chart, {"frame.gap_width": 12.0})
    assert owned.chart(chart).settings["gap"] == 12.0
    assert owned.chart(chart).dress.overrides == second.chart(chart).dress.overrides


def test_texts_and_settings_of_charts_follow_their_cells(two: tuple[Document, str, str]) -> None:
    document, path, sums = two
    document, chart = edits.add_chart(document, path, "battery")
    document = edits.change_chart(
        document, chart, title="=B2", subtitle="B2 of all", source='=Sums!B4&" of "&A3',
        settings={"budget": "=B3*2", "row": 2.0, "direction": "lying"},
    )  # fmt: skip
    moved = edits.insert_rows(document, path, 1, 1).chart(chart)
    assert (moved.title, moved.subtitle, moved.source) == ("=B3", "B2 of all", '=Sums!B4&" of "&A4')
    assert moved.settings == {"budget": "=B4*2", "row": 2.0, "direction": "lying"}
    other = edits.insert_rows(document, sums, 1, 1).chart(chart)
    assert (other.title, other.source, other.settings["budget"]) == ("=B2", '=Sums!B5&" of "&A3', "=B3*2")


def test_what_is_copied_of_a_dress() -> None:
    document, table = edits.add_table(Document(), "Path", [["s", "a", "b"], ["x", 1.0, 2.0], ["y", 3.0, 4.0]])
    document, chart = edits.add_chart(document, table, "columns")
    document = look_edits.set_looks(document, chart, {
        "layers.series 1.fill": "#111111", "layers.series 2.fill": "#222222", "layers.series 1.rows.0.fill": "#333333",
        "layers.series 1.label.bold": True, "layers.series 1.label.number.prefix": "€", "title.bold": False,
    })  # fmt: skip
    assert "layers.series 1.rows.0.fill" not in look_edits.copied(document, chart)
    assert len(look_edits.copied(document, chart)) == 5
    one = look_edits.copied(document, chart, layer="series 1")
    assert set(one) == {
        "layers.series 1.fill", "layers.series 1.label.bold", "layers.series 1.label.number.prefix",
    }  # fmt: skip
    assert set(look_edits.copied(document, chart, "numbers")) == {"layers.series 1.label.number.prefix"}
    assert set(look_edits.copied(document, chart, "labels")) == {
        "layers.series 1.label.bold", "layers.series 1.label.number.prefix",
    }  # fmt: skip
    assert set(look_edits.copied(document, chart, "colours")) == {"layers.series 1.fill", "layers.series 2.fill"}


def test_a_range_of_which_half_is_moved_away_keeps_its_place() -> None:
    rows = [["what", "n"], *([f"r{i}", float(i)] for i in range(1, 6)), ["sum", Formula("=SUM(B2:B3)")]]
    document, table = edits.add_table(Document(), "Path", rows)
    apart = row_order.move_rows(document, table, 2, 1, 6)  # the range's second row goes to the end of the figures
    assert _formulas(apart, table) == ["=SUM(B2:B3)"]
    whole = row_order.move_rows(document, table, 1, 2, 6)
    assert _formulas(whole, table) == ["=SUM(B5:B6)"]
    assert recalculate(whole.tables).of(table)[1].values[-1] == 3.0
