"""Edits, history, and helper columns that follow."""

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.history import History
from kavlet.core.document.looks import look_edits
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.pipeline.stages import build_chart
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.errors import KavletError


def column(table: Table, name: str) -> list[object]:
    found = next(one for one in table.columns if one.cells[0] == name)
    return [cell.text if isinstance(cell, Formula) else cell for cell in found.cells[1:]]


def test_a_row_in_the_middle_gets_its_formulas_and_widens_every_range(funnel: Document) -> None:
    edited = edits.insert_rows(funnel, "t1", 3)
    table = edited.table("t1")
    assert table.rows == 6
    assert column(table, "offset")[2] == "=(MAX(B$2:B$7)-B4)/2"
    assert column(table, "step")[3] == '=IF(COUNT(B4:B5)=2;B5/B4;"")'
    edited = edits.set_cells(edited, "t1", {(0, 3): "Quiz", (1, 3): 4000.0})
    values = recalculate(edited.tables)
    assert list(values.numbers("t1", 3))[2:4] == pytest.approx([4000 / 6900, 2760 / 4000])


def test_a_row_typed_below_the_table_belongs_to_it(funnel: Document) -> None:
    edited = edits.set_cells(funnel, "t1", {(0, 6): "Guides", (1, 6): 40.0})
    assert column(edited.table("t1"), "offset")[5] == "=(MAX(B$2:B$7)-B7)/2"
    assert build_chart(edited, recalculate(edited.tables), "k1").panels[0].data.rows == 6


def test_deleting_rows_narrows_every_range(funnel: Document) -> None:
    edited = edits.delete_rows(funnel, "t1", 2, 2)
    assert column(edited.table("t1"), "stage") == ["Visits", "Donations", "Members"]
    assert column(edited.table("t1"), "overall")[2] == '=IF(ISNUMBER(B4);B4/B$2;"")'
    with pytest.raises(KavletError, match="row of names"):
        edits.delete_rows(funnel, "t1", 0)


def test_columns_come_before_the_helpers_and_can_go(funnel: Document) -> None:
    edited = edits.insert_columns(funnel, "t1", 1)
    table = edited.table("t1")
    assert [one.helper is not None for one in table.columns] == [False, False, False, True, True, True]
    assert column(table, "offset")[0] == "=(MAX(C$2:C$6)-C2)/2"
    assert edits.delete_columns(edited, "t1", 1) == funnel
    with pytest.raises(KavletError, match="belongs to its chart"):
        edits.delete_columns(funnel, "t1", 3)


def test_a_helper_changed_by_hand_stays_and_can_be_given_back(funnel: Document) -> None:
    edited = edits.set_cells(funnel, "t1", {(2, 2): 5000.0})
    edited = edits.set_cells(edited, "t1", {(1, 1): 20000.0})
    assert column(edited.table("t1"), "offset")[1] == 5000.0
    back = edits.set_cells(edited, "t1", {(2, 2): None})
    assert column(back.table("t1"), "offset")[1] == "=(MAX(B$2:B$6)-B3)/2"


def test_a_column_of_one_formula_goes_on_in_new_rows(funnel: Document) -> None:
    edited = edits.insert_columns(funnel, "t1", 2)
    cells = {(2, row): Formula(f"=B{row + 1}*2") for row in range(1, 6)}
    edited = edits.insert_rows(edits.set_cells(edited, "t1", cells), "t1", 6)
    assert edited.table("t1").columns[2].cells[6] == Formula("=B7*2")


def test_titles_and_settings_follow_rows(funnel: Document) -> None:
    edited = edits.change_chart(funnel, "k1", title="=A6", settings={"gap": "=B6"})
    edited = edits.insert_rows(edited, "t1", 2)
    assert edited.chart("k1").title == "=A7"
    assert edited.chart("k1").settings == {"gap": "=B7"}


def test_roles_are_guessed_and_can_be_changed() -> None:
    rows = [["id", "people", "stage"], [1.0, 30.0, "Visits"], [2.0, 20.0, "Walks"]]
    document, table = edits.add_table(Document(), "T", [list(row) for row in rows])
    document, chart = edits.add_chart(document, table, "funnel")
    assert document.chart(chart).roles == {"name": ("c3",), "value": ("c2",)}  # running numbers are no figures
    document = edits.set_role(document, chart, "value", "c1")
    assert document.chart(chart).roles["value"] == ("c1",)
    document = edits.set_role(document, chart, "value", "c2")
    assert document.chart(chart).roles["value"] == ("c2",)
    swapped = edits.set_role(document, chart, "name", "c2")
    assert swapped.chart(chart).roles == {"name": ("c2",), "value": ("c3",)}
    without = edits.set_role(document, chart, "value", None)
    values = recalculate(without.tables)
    with pytest.raises(KavletError, match="No column is chosen as value"):
        build_chart(without, values, chart)


def test_a_pasted_block_makes_the_table_grow(funnel: Document) -> None:
    edited = edits.paste(funnel, "t1", 1, 5, [[1.0, 2.0], [3.0, 4.0]])
    table = edited.table("t1")
    assert table.rows == 6
    assert column(table, "people")[4:] == [1.0, 3.0]
    assert [cell for one in table.columns[2:3] for cell in one.cells[5:]] == [2.0, 4.0]


def test_what_did_not_change_is_reused(funnel: Document) -> None:
    pictures = Pictures()
    document, other = edits.add_table(funnel, "Other", [["a"], [1.0]])
    first = pictures.picture(document, "k1")
    assert pictures.picture(edits.set_cells(document, other, {(0, 1): 2.0}), "k1") is first
    assert pictures.picture(edits.set_cells(document, "t1", {(1, 1): 2e4}), "k1") is not first


def test_the_history_is_saved_only_where_it_was_saved(funnel: Document) -> None:
    history = History(funnel)
    assert not history.changed
    assert history.apply("one", edits.insert_rows(funnel, "t1", 2))
    assert not history.apply("nothing", history.current)
    assert history.changed
    assert history.undo_name == "one"
    assert history.undo()
    assert not history.changed
    assert history.redo_name == "one"


_edit = st.one_of(
    st.tuples(st.just("set"), st.integers(0, 4), st.integers(1, 8), st.sampled_from([None, 5.0, "x", Formula("=B2")])),
    st.tuples(st.just("rows"), st.integers(0, 9), st.integers(1, 3)),
    st.tuples(st.just("drop"), st.integers(1, 9), st.integers(1, 3)),
    st.tuples(st.just("columns"), st.integers(0, 9)),
    st.tuples(st.just("remove"), st.integers(0, 5)),
    st.tuples(st.just("shape"), st.sampled_from(["stepped", "tapered"])),
)


def _apply(document: Document, edit: tuple[object, ...]) -> Document:
    kind, *arguments = edit
    if kind == "set":
        place, row, cell = arguments
        place = min(place, len(document.table("t1").columns) - 1)  # type: ignore[call-overload]
        return edits.set_cells(document, "t1", {(place, row): cell})  # type: ignore[dict-item]
    if kind == "shape":
        return look_edits.set_setting(document, "k1", "shape", *arguments)  # type: ignore[arg-type]
    name = {"rows": "insert_rows", "drop": "delete_rows", "columns": "insert_columns", "remove": "delete_columns"}
    return getattr(edits, name[str(kind)])(document, "t1", *arguments)  # type: ignore[no-any-return]


@settings(max_examples=60, deadline=None)
@given(st.lists(_edit, max_size=12))
def test_undo_all_redo_all_gives_the_same_documents(steps: list[tuple[object, ...]]) -> None:
    rows = [["stage", "people"], ["a", 9.0], ["b", 4.0], ["c", 2.0]]
    document, table = edits.add_table(Document(), "T", [list(row) for row in rows])
    document, _ = edits.add_chart(document, table, "funnel")
    history, seen = History(document), [document]
    for edit in steps:
        try:
            if history.apply(str(edit[0]), _apply(history.current, edit)):
                seen.append(history.current)
        except KavletError:
            continue
        now = history.current.table("t1")
        assert len({len(one.cells) for one in now.columns}) == 1
    for expected in reversed(seen[:-1]):
        assert history.undo()
        assert history.current == expected
    for expected in seen[1:]:
        assert history.redo()
        assert history.current == expected
    again = msgspec.json.decode(msgspec.json.encode(history.current), type=Document)
    assert again == history.current


def test_a_cell_beyond_the_columns_is_refused() -> None:
    document, table = edits.add_table(Document(), "T", [["a"], [1.0]])
    for place, named in (((5, 1), "F2"), ((1, 0), "B1")):
        with pytest.raises(KavletError, match=f"There is no cell {named}"):
            edits.set_cells(document, table, {place: 1.0})
