"""Edits of the grid: filling, moving, sorting, turning, tables and sources."""

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables import cell_edits, row_order, source_updates, table_edits
from kavlet.core.document.tables.filled_runs import runs
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula, Value
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Source
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import DATE, PERCENT, PLAIN


def of(*rows: list[Cell]) -> Document:
    return edits.add_table(Document(), "T", [list(row) for row in rows])[0]


def held(document: Document, column: int, table: str = "t1") -> list[Cell]:
    return list(document.table(table).columns[column].cells)


def texts(document: Document, column: int) -> list[object]:
    return [cell.text if isinstance(cell, Formula) else cell for cell in held(document, column)]


def values(document: Document, column: int) -> list[Value]:
    return recalculate(document.tables).of("t1")[column].values


def test_formulas_are_filled_with_their_references() -> None:
    document = of(["a", "b"], [1.0, Formula("=A2*A$2")], [2.0, None], [3.0, None])
    document = cell_edits.fill(document, "t1", (1, 1, 1, 1), (1, 1, 1, 3))
    assert texts(document, 1)[1:] == ["=A2*A$2", "=A3*A$2", "=A4*A$2"]
    document = cell_edits.fill(document, "t1", (1, 1, 1, 3), (1, 1, 1, 4))
    assert texts(document, 1)[4] == "=A5*A$2"


def test_series_go_on_in_both_directions() -> None:
    document = of(["a"], [None], [None], [10.0], [10.1])
    document = cell_edits.fill(document, "t1", (0, 3, 0, 4), (0, 1, 0, 6))
    assert held(document, 0)[1:] == [9.8, 9.9, 10.0, 10.1, 10.2, 10.3]
    one = cell_edits.fill(of(["a"], [7.0], [None]), "t1", (0, 1, 0, 1), (0, 1, 0, 3))
    assert held(one, 0)[1:] == [7.0, 7.0, 7.0]
    days = cell_edits.fill(of(["a"], [FormattedNumber(46082.0, DATE)]), "t1", (0, 1, 0, 1), (0, 1, 0, 3))
    assert held(days, 0)[3] == FormattedNumber(46084.0, DATE)
    words = cell_edits.fill(of(["a"], ["x"], ["y"]), "t1", (0, 1, 0, 2), (0, 1, 0, 4))
    assert held(words, 0)[3:] == ["x", "y"]


def test_filling_right() -> None:
    document = of(["a", "b", "c"], [Formula("=A$1"), None, None])
    document = cell_edits.fill(document, "t1", (0, 1, 0, 1), (0, 1, 2, 1))
    assert texts(document, 2)[1] == "=C$1"


def test_moved_cells_take_their_references_along() -> None:
    document = of(["a", "b"], [5.0, Formula("=A2+A3")], [6.0, Formula("=SUM(A2:A3)")], [None, None])
    document = cell_edits.move_cells(document, "t1", (0, 1, 0, 2), 0, 2)
    assert held(document, 0)[1:] == [None, 5.0, 6.0]
    assert texts(document, 1)[1:3] == ["=A3+A4", "=SUM(A3:A4)"]


def test_number_text_for_columns_and_cells() -> None:
    document = of(["a", "b"], [0.5, 1.0], [0.25, Formula("=A2")])
    column = cell_edits.set_number_text(document, "t1", (0, 1, 0, 2), PERCENT)
    assert column.table("t1").columns[0].number == PERCENT
    assert held(column, 0)[1] == 0.5
    cell = cell_edits.set_number_text(document, "t1", (1, 2, 1, 2), PERCENT)
    assert held(cell, 1)[2] == Formula("=A2", number=PERCENT)
    assert held(cell_edits.set_number_text(document, "t1", (0, 1, 0, 1), PERCENT), 0)[1] == FormattedNumber(
        0.5, PERCENT
    )


def test_rows_move_with_every_reference() -> None:
    document = of(["a", "b"], [1.0, Formula("=A2")], [2.0, Formula("=A3")], [3.0, Formula("=SUM(A$2:A$4)")])
    document = row_order.move_rows(document, "t1", 1, 1, 4)
    assert held(document, 0)[1:] == [2.0, 3.0, 1.0]
    assert values(document, 1)[1:] == [2.0, 6.0, 1.0]
    assert texts(document, 1)[2] == "=SUM(A$2:A$4)"
    with pytest.raises(KavletError):
        row_order.move_rows(document, "t1", 0, 1, 3)


def test_columns_move_and_keep_their_roles(funnel: Document) -> None:
    document = row_order.move_columns(funnel, "t1", 1, 1, 0)
    assert document.table("t1").columns[0].name == "people"
    assert document.chart("k1").roles == {"name": ("c1",), "value": ("c2",)}
    assert texts(document, 2)[1] == "=(MAX(A$2:A$6)-A2)/2"
    assert row_order.move_columns(document, "t1", 0, 1, 2) == funnel


def test_sorting_keeps_rows_whole() -> None:
    document = of(
        ["n", "v", "w"], ["b", 2.0, Formula("=B2*10")], ["a", None, Formula("=B3*10")], ["c", 1.0, Formula("=B4*10")]
    )
    up = row_order.sort_rows(document, "t1", values(document, 1)[1:])
    assert held(up, 0)[1:] == ["c", "b", "a"]
    assert values(up, 2)[1:] == [10.0, 20.0, 0.0]
    down = row_order.sort_rows(document, "t1", values(document, 1)[1:], descending=True)
    assert held(down, 0)[1:] == ["b", "c", "a"]


def test_rows_become_columns_and_back() -> None:
    document = of(["gate", "north", "south"], ["2024", 1.0, 2.0], ["sum", Formula("=B2*2"), Formula("=SUM(B2:C2)")])
    turned = row_order.transpose(document, "t1")
    assert [column.name for column in turned.table("t1").columns] == ["gate", "2024", "sum"]
    assert texts(turned, 2) == ["sum", "=B2*2", "=SUM(B2:B3)"]
    assert row_order.transpose(turned, "t1") == document


def test_tables_are_named_copied_ordered_and_deleted(funnel: Document) -> None:
    document, new = table_edits.add_empty(funnel, "Gates")
    document = edits.set_cells(document, new, {(1, 1): Formula("='Visitor path'!B2*2")})
    document = table_edits.rename(document, "t1", "Path")
    assert texts_of(document, new) == "=Path!B2*2"
    document = edits.insert_rows(document, "t1", 1)
    assert texts_of(document, new) == "=Path!B3*2"
    with pytest.raises(KavletError, match="already"):
        table_edits.rename(document, "t1", "gates")
    copied, other = table_edits.copy(document, "t1")
    assert [one.name for one in copied.tables] == ["Path", "Path 2", "Gates"]
    assert not any(column.helper for column in copied.table(other).columns)
    assert [one.name for one in table_edits.reorder(copied, other, 2).tables] == ["Path", "Gates", "Path 2"]
    assert [chart.id for chart in table_edits.readers(document, "t1")] == ["k1"]
    gone = table_edits.delete(document, "t1")
    assert gone.charts == ()
    assert recalculate(gone.tables).of(new)[1].values[1].value == "#NAME?"  # type: ignore[union-attr]


def texts_of(document: Document, table: str) -> str:
    cell = document.table(table).columns[1].cells[1]
    assert isinstance(cell, Formula)
    return cell.text


def test_a_helper_cut_loose_is_the_authors_own(funnel: Document) -> None:
    document = table_edits.cut_loose(funnel, "t1", funnel.table("t1").columns[3].id)
    table = document.table("t1")
    assert [column.name for column in table.columns] == ["stage", "people", "step", "offset", "step", "overall"]
    assert held(document, 2)[2] == Formula('=IF(COUNT(B2:B3)=2;B3/B2;"")')
    assert table.columns[2].helper is None
    with pytest.raises(KavletError):
        table_edits.cut_loose(document, "t1", "c1")


def test_a_source_shows_what_would_change_and_is_taken_over(funnel: Document) -> None:
    document = source_updates.link(funnel, "t1", Source("path.csv"))
    coming: list[list[Cell]] = [["stage", "people"], ["Visits", 20000.0], ["Walks", 6900.0], ["Letter", 2760.0]]
    found = source_updates.differences(document.table("t1"), coming)
    assert (found[0].column, found[0].row, found[0].held, found[0].coming) == (1, 1, 18400.0, 20000.0)
    assert len(found) == 13  # rows of other names come and go
    updated = source_updates.update(document, "t1", coming).document
    assert source_updates.differences(updated.table("t1"), coming) == []
    assert updated.table("t1").rows == 3
    assert updated.table("t1").source == Source("path.csv")
    assert texts(updated, 2)[3] == "=(MAX(B$2:B$4)-B4)/2"
    wider = source_updates.update(updated, "t1", [[*row, None] for row in coming] + [["New", 1.0, 5.0]]).document
    assert [column.helper is not None for column in wider.table("t1").columns].count(False) == 3


_place = st.integers(1, 6)


@settings(max_examples=100, deadline=None)
@given(st.integers(1, 5), st.integers(1, 3), st.integers(1, 7), st.lists(_place, min_size=6, max_size=6))
def test_moving_rows_keeps_what_single_references_mean(first: int, count: int, to: int, places: list[int]) -> None:
    rows: list[list[Cell]] = [[float(10 * i), Formula(f"=A{place + 1}")] for i, place in enumerate(places, 1)]
    document = of(["a", "b"], *rows)
    assume(not list(runs(document.table("t1").columns[1])))  # which stay as they stand
    before = dict(zip(values(document, 0), values(document, 1), strict=True))
    count = min(count, 7 - first)
    after = row_order.move_rows(document, "t1", first, count, to)
    assert dict(zip(values(after, 0), values(after, 1), strict=True)) == before


@settings(max_examples=100, deadline=None)
@given(st.integers(1, 7), st.integers(1, 3), st.booleans(), st.lists(st.tuples(_place, _place), min_size=6, max_size=6))
def test_inserting_rows_keeps_what_every_formula_gives(
    at: int, count: int, delete: bool, spans: list[tuple[int, int]]
) -> None:
    rows: list[list[Cell]] = [
        [float(2**i), Formula(f"=SUM(A{min(span) + 1}:A{max(span) + 1})+A{span[0] + 1}")]
        for i, span in enumerate(spans)
    ]
    document = of(["a", "b"], *rows)
    before = values(document, 1)
    after = edits.insert_rows(document, "t1", at, count)
    found = values(after, 1)
    assert [*found[:at], *found[at + count :]] == before
    if delete:
        assert values(edits.delete_rows(after, "t1", at, count), 1) == before


def test_plain_is_what_nobody_has_said() -> None:
    assert of(["a"], [1.0]).table("t1").columns[0].number is None
    assert PLAIN.style == "number"


@pytest.mark.parametrize(
    ("formula", "after"),
    [
        ("=SUM(A2:A4)", "=SUM(A2:A4)"),  # only a part of it moves: it stays
        ("=SUM(A4:A2)", "=SUM(A4:A2)"),
        ("=SUM(A2:A3)", "=SUM(A3:A4)"),
        ("=SUM(A1:A2)", "=SUM(A1:A2)"),
        ("=A3+A4", "=A4+A4"),
    ],
)
def test_a_range_goes_along_only_when_all_of_it_moves(formula: str, after: str) -> None:
    document = of(["a", "b"], [5.0, Formula(formula)], [6.0, None], [7.0, None], [None, None])
    document = cell_edits.move_cells(document, "t1", (0, 1, 0, 2), 0, 2)
    assert texts(document, 1)[1] == after


def test_a_table_grows_to_its_limit_and_no_further() -> None:
    document = of(["a"], [1.0])
    most = edits.MAX_ROWS
    full = edits.insert_rows(document, "t1", 2, most - 2)
    assert full.table("t1").height == most
    with pytest.raises(KavletError, match=f"at most {most:,} rows"):
        edits.insert_rows(full, "t1", 2, 1)
    with pytest.raises(KavletError, match=f"larger than {most:,} rows"):
        edits.add_table(document, "T", [[1.0]] * (most + 1))
    assert edits.add_table(document, "T", [[1.0]] * most)[1] == "t2"
