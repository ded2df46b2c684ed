"""Small tables from larger ones: live references, one period, groups added up."""

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables.small_tables import SmallTableChoice, entries, small_table
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import NumberText

MONEY = NumberText(style="currency", currency="EUR")
ROWS: list[list[Cell]] = [
    ["gate", "month", "visitors", "taken"],
    ["Mill", "Jan", 410.0, FormattedNumber(20.0, MONEY)],
    ["Ferry", "Jan", 120.0, FormattedNumber(10.0, MONEY)],
    ["Mill", "Feb", 380.0, FormattedNumber(25.0, MONEY)],
    ["Dyke", "Feb", None, FormattedNumber(5.0, MONEY)],
]


def counted() -> Document:
    return edits.add_table(Document(), "Gate counts", ROWS)[0]


def values(made: Document, table: str) -> list[list[object]]:
    return [list(column.values) for column in recalculate(made.tables).of(table)]


def test_rows_and_columns_are_picked_as_live_references() -> None:
    made, small = small_table(counted(), "t1", SmallTableChoice(columns=("c1", "c3"), rows=(2, 0)))
    assert values(made, small) == [["gate", "Mill", "Mill"], ["visitors", 380.0, 410.0]]
    assert [table.name for table in made.tables] == ["Gate counts", "Gate counts, small"]
    cell = made.table(small).columns[1].cells[1]
    assert isinstance(cell, Formula)
    assert cell.text == "='Gate counts'!C4"
    changed = edits.set_cells(made, "t1", {(2, 3): 1.0})
    assert values(changed, small)[1] == ["visitors", 1.0, 410.0]


def test_one_period_is_picked_by_its_entry() -> None:
    made, small = small_table(counted(), "t1", SmallTableChoice(columns=("c1", "c3"), where="c2", equals="Feb"))
    assert values(made, small) == [["gate", "Mill", "Dyke"], ["visitors", 380.0, None]]


@pytest.mark.parametrize(
    ("how", "expected"),
    [("sum", [790.0, 120.0, 0.0]), ("mean", [395.0, 120.0, None]), ("count", [2.0, 1.0, 1.0])],
)
def test_groups_are_added_up_averaged_or_counted_by_formulas(how: str, expected: list[float | None]) -> None:
    made, small = small_table(counted(), "t1", SmallTableChoice(columns=("c3",), by="c1", how=how))  # type: ignore[arg-type]
    names, figures = values(made, small)
    assert names == ["gate", "Mill", "Ferry", "Dyke"]
    if how == "mean":
        assert figures[1:] == [*expected[:2], ""]  # there is nothing to average
    else:
        assert figures[1:] == expected
    changed = edits.set_cells(made, "t1", {(2, 1): 500.0})
    assert (values(changed, small)[1][1] == figures[1]) == (how == "count")


def test_groups_of_one_period_or_of_some_rows_alone() -> None:
    rows: list[list[Cell]] = [
        ["gate", "month", "v"],
        ["Mill", "Jan", 4.0],
        ["Ferry", "Jan", 1.0],
        ["Mill", "Feb", 3.0],
        ["Mill", "Feb", 2.0],
    ]
    document, _ = edits.add_table(Document(), "Gates", rows)
    made, small = small_table(document, "t1", SmallTableChoice(columns=("c3",), by="c1", where="c2", equals="Feb"))
    assert values(made, small) == [["gate", "Mill"], ["v", 5.0]]
    made, small = small_table(document, "t1", SmallTableChoice(by="c1", where="c2", equals="Feb", how="count"))
    assert values(made, small)[1][1:] == [2.0]
    made, small = small_table(document, "t1", SmallTableChoice(columns=("c3",), by="c1", rows=(1, 2)))
    assert values(made, small) == [["gate", "Ferry", "Mill"], ["v", 1.0, 3.0]]


def test_figures_are_written_as_where_they_come_from() -> None:
    made, small = small_table(counted(), "t1", SmallTableChoice(columns=("c4", "c3"), by="c1"))
    assert made.table(small).columns[1].writes == MONEY
    assert made.table(small).columns[2].writes is None


def test_an_empty_one_is_refused() -> None:
    for pick in (SmallTableChoice(rows=()), SmallTableChoice(rows=(99,)), SmallTableChoice(where="c2", equals="March")):
        with pytest.raises(KavletError, match="would be empty"):
            small_table(counted(), "t1", pick)


def test_entries_stand_once_in_their_order() -> None:
    assert entries(counted(), "t1", "c1") == ["Mill", "Ferry", "Dyke"]
    assert entries(counted(), "t1", "c4") == ["€20.00", "€10.00", "€25.00", "€5.00"]
