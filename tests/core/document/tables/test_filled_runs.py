"""Formulas filled down a column, and rows that sum up the others, when rows come, go, move and are sorted."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables import row_order
from kavlet.core.spreadsheet.cells import Cell, Formula, Value
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.references import filled
from kavlet.core.spreadsheet.table import HEADER
from tests.core.document.tables.test_grid_edits import of

RUNNING, CHAIN, SHARE, WINDOW = "=SUM(B$2:B2)", "=C1+B2", "=B2/SUM(B$2:B$99)", "=AVERAGE(B1:B2)"
FIGURES = st.lists(st.integers(-90, 90).map(float), min_size=3, max_size=9)


def filled_down(figures: list[float], top: str, total: bool = False) -> Document:
    """A table of names, figures and one formula filled down; a chain begins with its own figure."""
    last = len(figures) + 1
    rows: list[list[Cell]] = []
    for i, figure in enumerate(figures):
        text = filled(top.replace("$99", f"${last}"), 0, i)
        rows.append([f"r{i}", figure, Formula("=B2" if top == CHAIN and i == 0 else text)])
    if total:
        rows.append(["Total", Formula(f"=SUM(B2:B{last})"), None])
    return of(["name", "figure", "more"], *rows)


def values(document: Document, column: int) -> list[Value]:
    """What the rows of a column evaluate to, without its name."""
    return list(recalculate(document.tables).of("t1")[column].values[HEADER:])


def names_and(document: Document, column: int) -> dict[object, object]:
    return dict(zip(values(document, 0), values(document, column), strict=True))


def running(figures: list[float]) -> list[float]:
    return [sum(figures[: i + 1]) for i in range(len(figures))]


@pytest.mark.parametrize("top", [RUNNING, CHAIN])
@settings(max_examples=60, deadline=None)
@given(FIGURES, st.data())
def test_a_running_sum_is_one_after_every_edit_of_rows(top: str, figures: list[float], data: st.DataObject) -> None:
    document = filled_down(figures, top)
    begins = HEADER + 1 if top == CHAIN else HEADER  # the first of a chain is another formula
    held = list(figures)
    for _ in range(3):
        what = data.draw(st.sampled_from(["insert", "append", "delete"] + ["move", "sort"] * (top == RUNNING)))
        count = len(held)
        if what == "insert":
            at = data.draw(st.integers(begins + 1, count + 1))
            document = edits.insert_rows(document, "t1", at)
            document = edits.set_cells(document, "t1", {(0, at): f"new {count}", (1, at): 7.0})
            held.insert(at - HEADER, 7.0)
        elif what == "append":
            document = edits.set_cells(document, "t1", {(0, count + 1): f"new {count}", (1, count + 1): 5.0})
            held.append(5.0)
        elif what == "delete" and count > 3:
            at = data.draw(st.integers(begins + 1, count))
            document = edits.delete_rows(document, "t1", at)
            del held[at - HEADER]
        elif what == "move":
            first, to = data.draw(st.integers(HEADER, count)), data.draw(st.integers(HEADER, count + 1))
            document = row_order.move_rows(document, "t1", first, 1, to)
            held = [float(one) for one in values(document, 1)]  # type: ignore[arg-type]
        elif what == "sort":
            document = row_order.sort_rows(document, "t1", values(document, 1))
            held.sort()
        assert values(document, 1) == held
        assert values(document, 2) == pytest.approx(running(held))


@settings(max_examples=60, deadline=None)
@given(FIGURES, st.data())
def test_shares_of_a_sum_follow_every_edit_of_rows(figures: list[float], data: st.DataObject) -> None:
    figures = [abs(one) + 1 for one in figures]
    document = filled_down(figures, SHARE)
    at = data.draw(st.integers(HEADER, len(figures) + 1))
    document = edits.insert_rows(document, "t1", at)
    document = edits.set_cells(document, "t1", {(0, at): "new", (1, at): 7.0})
    document = row_order.sort_rows(document, "t1", values(document, 1), descending=True)
    held = [float(one) for one in values(document, 1)]  # type: ignore[arg-type]
    shares = [one for one in values(document, 2) if one is not None]
    assert sum(map(float, shares)) == pytest.approx(1.0 if len(shares) == len(held) else 1 - 7.0 / sum(held))  # type: ignore[arg-type]


def test_a_window_keeps_its_rows_when_one_comes_between() -> None:
    document = filled_down([1.0, 3.0, 5.0, 7.0], WINDOW)
    before = names_and(document, 2)
    after = names_and(edits.insert_rows(document, "t1", 3), 2)
    assert {name: after[name] for name in before} == before


def test_the_last_rows_running_sum_keeps_its_range_when_two_are_pasted_below() -> None:
    """Sales 50, costs −30, tax −15, gifts 20: what was wrong was the last one, 25, which became the sum of all."""
    document = filled_down([50.0, -30.0, -15.0, 20.0], RUNNING)
    document = edits.paste(document, "t1", 0, 5, [["Loan", 40.0], ["Rent", -10.0]])
    assert values(document, 2) == [50.0, 20.0, 5.0, 25.0, 65.0, 55.0]
    assert [getattr(cell, "text", "") for cell in document.table("t1").columns[2].cells[-2:]] == [
        "=SUM(B$2:B6)", "=SUM(B$2:B7)"
    ]  # fmt: skip


@pytest.mark.parametrize("descending", [False, True])
@settings(max_examples=50, deadline=None)
@given(FIGURES)
def test_a_total_row_stays_and_sums_up_what_it_summed_up(descending: bool, figures: list[float]) -> None:
    document = filled_down(figures, RUNNING, total=True)
    for column in (1, 0):
        document = row_order.sort_rows(document, "t1", values(document, column), descending)
        assert values(document, 0)[-1] == "Total"
        assert values(document, 1)[-1] == sum(figures)
        assert document.table("t1").columns[1].cells[-1] == Formula(f"=SUM(B2:B{len(figures) + 1})")
    held = [float(one) for one in values(document, 1)[:-1]]  # type: ignore[arg-type]
    assert values(document, 2)[:-1] == pytest.approx(running(held))


@pytest.mark.parametrize("name", ["Total", "Gesamt", "Mean", ""])
def test_a_row_added_above_the_total_is_summed_up(name: str) -> None:
    document = filled_down([1.0, 2.0, 3.0], RUNNING, total=True)
    document = edits.set_cells(document, "t1", {(0, 4): name})
    document = edits.insert_rows(document, "t1", 4)
    document = edits.set_cells(document, "t1", {(0, 4): "new", (1, 4): 10.0})
    assert values(document, 1)[-1] == 16.0
    assert values(document, 2)[:-1] == [1.0, 3.0, 6.0, 16.0]


def test_a_total_that_is_only_called_so_stays_too() -> None:
    document = of(["shop", "sold"], ["Quay", 3.0], ["Mill", 9.0], ["Total:", 12.0])
    document = row_order.sort_rows(document, "t1", values(document, 1), descending=True)
    assert values(document, 0) == ["Mill", "Quay", "Total:"]


def test_what_names_a_row_elsewhere_follows_it_when_rows_are_sorted() -> None:
    document = of(["shop", "sold"], ["Quay", 3.0], ["Mill", 9.0])
    document, other = edits.add_table(document, "Other", [["best"], [Formula("=B1")]])
    table = document.tables[0].name
    document = edits.set_cells(document, other, {(0, 1): Formula(f"='{table}'!B2")})
    document = row_order.sort_rows(document, "t1", values(document, 1), descending=True)
    assert document.table(other).columns[0].cells[1] in (Formula(f"='{table}'!B3"), Formula(f"={table}!B3"))
