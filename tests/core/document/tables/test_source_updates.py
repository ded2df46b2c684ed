"""A table that follows a file: what an author made of it stays, whatever the file brings."""

from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables import source_updates
from kavlet.core.document.tables.row_order import sort_rows
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Source

Rows = list[list[Cell]]
FILE: Rows = [["post", "x"], ["Wages", 60.0], ["Rent", 30.0], ["Power", 10.0]]


def followed(*own: Cell) -> Document:
    """A pie of a file's table, and beside it a column of the author's own."""
    made, table = edits.add_table(Document(), "Costs", FILE)
    made = source_updates.linked_table(made, table, Source("costs.csv"), FILE)
    made, _ = edits.add_chart(made, table, "pie")
    if own:
        made = edits.insert_columns(made, table, 2)
        made = edits.set_cells(made, table, {(2, row): cell for row, cell in enumerate(own)})
    return made


def taken(document: Document, coming: Rows, keep_mine: bool = False) -> Document:
    made = source_updates.update(document, "t1", coming, keep_mine).document
    return source_updates.linked_table(made, "t1", Source("costs.csv"), coming)


def said(document: Document, coming: Rows, keep_mine: bool = False) -> list[str]:
    return [str(note) for note in source_updates.update(document, "t1", coming, keep_mine).notes]


def column(document: Document, place: int) -> list[Any]:
    cells = document.tables[0].columns[place].cells
    return [cell.text if isinstance(cell, Formula) else cell for cell in cells]


def test_a_column_of_the_author_s_own_stays_with_its_rows_and_formulas() -> None:
    made = followed("double", Formula("=B2*2"), Formula("=B3*2"), "by hand")
    top: Rows = [["post", "x"], ["Tax", 5.0], ["Rent", 31.0], ["Wages", 60.0], ["Power", 10.0]]
    after = taken(made, top)
    assert column(after, 0) == ["post", "Tax", "Rent", "Wages", "Power"]
    assert column(after, 1) == ["x", 5.0, 31.0, 60.0, 10.0]
    assert column(after, 2)[2:] == ["=B3*2", "=B4*2", "by hand"]
    assert recalculate(after.tables).of("t1")[2].values[2] == 62


def test_looks_go_with_the_row_of_their_name() -> None:
    made = look_edits.set_looks(followed(), "k1", {"layers.parts.rows.0.explode": 0.2})
    after = taken(made, [FILE[0], ["Tax", 5.0], *FILE[1:]])
    assert after.charts[0].dress.overrides == {"layers.parts.rows.1.explode": 0.2}


def test_a_new_column_never_becomes_a_value_and_roles_go_with_their_header() -> None:
    made = followed()
    after = taken(made, [["post", "y", "x"], ["Wages", 7.0, 60.0], ["Rent", 7.0, 30.0], ["Power", 7.0, 10.0]])
    assert after.charts[0].roles == made.charts[0].roles
    value = after.tables[0].place(after.charts[0].roles["value"][0])
    assert column(after, value) == ["x", 60.0, 30.0, 10.0]
    assert [column(after, i)[0] for i in range(3)] == ["post", "x", "y"]


def test_a_header_that_vanished_is_said_and_its_roles_wait() -> None:
    made = followed()
    gone: Rows = [["post", "z"], ["Wages", 1.0], ["Rent", 2.0], ["Power", 3.0]]
    assert said(made, gone) == ["The file has no column x any more; the figures and what reads them stay."]
    after = taken(made, gone)
    assert after.charts[0].roles == made.charts[0].roles
    assert column(after, 1) == ["x", 60.0, 30.0, 10.0]


def test_edits_that_would_be_lost_are_named_and_kept_by_choice() -> None:
    made = edits.set_cells(followed(), "t1", {(1, 1): 999.0, (1, 2): 31.0})
    coming: Rows = [FILE[0], ["Wages", 61.0], ["Rent", 30.0], ["Power", 11.0]]
    found = source_updates.differences(made.tables[0], coming)
    assert [(one.row, one.held, one.coming, one.mine) for one in found] == [(1, 999, 61, True), (3, 10, 11, False)]
    assert column(taken(made, coming), 1) == ["x", 61.0, 31.0, 11.0]  # the file says nothing new of the rent
    assert column(taken(made, coming, keep_mine=True), 1) == ["x", 999.0, 31.0, 11.0]
    assert said(made, coming, keep_mine=True) == ["1 edit of yours is kept."]
    kept = source_updates.keep(made, "t1", found[0])
    assert [one.row for one in source_updates.differences(kept.tables[0], coming)] == [3]
    assert column(taken(kept, coming), 1) == ["x", 999.0, 31.0, 11.0]


def test_rows_added_deleted_and_renamed_by_the_author_stay_so() -> None:
    made = edits.delete_rows(followed(), "t1", 1)
    made = edits.insert_rows(made, "t1", 3)
    made = edits.set_cells(made, "t1", {(0, 3): "Mine", (1, 3): 1.0, (0, 1): "Rent of the barn"})
    after = taken(made, [FILE[0], ["Wages", 61.0], ["Rent", 32.0], ["Power", 10.0], ["Tax", 5.0]])
    assert column(after, 0) == ["post", "Rent of the barn", "Power", "Tax", "Mine"]
    assert column(after, 1) == ["x", 32.0, 10.0, 5.0, 1.0]


def test_a_sorted_table_stays_sorted_and_a_row_the_file_loses_goes() -> None:
    made = sort_rows(followed(), "t1", [60.0, 30.0, 10.0])
    assert column(made, 0) == ["post", "Power", "Rent", "Wages"]
    after = taken(made, [FILE[0], ["Wages", 60.0], ["Tax", 5.0], ["Power", 12.0]])
    assert column(after, 0) == ["post", "Power", "Wages", "Tax"]
    assert column(after, 1) == ["x", 12.0, 60.0, 5.0]


def test_rows_whose_names_repeat_are_told_by_place_and_that_is_said() -> None:
    made = followed()
    coming: Rows = [FILE[0], ["Wages", 1.0], ["Wages", 2.0]]
    assert said(made, coming) == ["Names repeat, so rows are told by their place."]
    assert column(taken(made, coming), 1) == ["x", 1.0, 2.0]


def test_rows_of_the_author_stay_where_rows_are_told_by_place_too() -> None:
    made, table = edits.add_table(Document(), "Costs", [["post", "x"], ["a", 1.0], ["a", 2.0]])
    made = source_updates.linked_table(made, table, Source("costs.csv"), [["post", "x"], ["a", 1.0], ["a", 2.0]])
    made = edits.insert_rows(made, table, 3)
    made = edits.set_cells(made, table, {(0, 3): "Mine", (1, 3): 9.0})
    after = taken(made, [["post", "x"], ["a", 5.0], ["a", 6.0]])
    assert column(after, 1) == ["x", 5.0, 6.0, 9.0]


names = st.lists(st.sampled_from(["Wages", "Rent", "Power", "Tax", "Seeds", "Fuel"]), min_size=1, unique=True)


@settings(max_examples=150, deadline=None)
@given(names, st.lists(st.sampled_from(["x", "y", "z"]), min_size=1, unique=True), st.data())
def test_what_was_taken_over_differs_in_nothing(rows: list[str], heads: list[str], data: st.DataObject) -> None:
    figure = st.floats(-100, 100).map(lambda number: round(number, 1))
    coming: Rows = [["post", *heads], *([row, *(data.draw(figure) for _ in heads)] for row in rows)]
    after = taken(followed("own", 1.0, 2.0, 3.0), coming)
    assert source_updates.differences(after.tables[0], coming) == []
    for head in ("post", *heads):
        place = next(i for i, one in enumerate(after.tables[0].columns) if one.cells[0] == head)
        assert column(after, place) == [line[coming[0].index(head)] for line in coming]
    again = taken(after, coming)
    assert again.tables[0].columns == after.tables[0].columns
