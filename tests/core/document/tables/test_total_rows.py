"""Total rows are no parts of what a chart adds up; goals are measured sum against sum, or each row its own."""

from typing import Any

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables.total_rows import total_rows
from kavlet.core.recipes.registry import recipe
from kavlet.core.spreadsheet.cells import Formula
from tests.making import document, draw, findings, helper, labels, make, table


def made(last: str, value: Any, recipe: str = "pie", **settings: Any) -> Document:
    return document(recipe, table(["what", "sum"], ["House", "Garden", "Pond", last], [30, 50, 20, value]), **settings)


def parts(held: Document) -> list[float]:
    return [mark.value for mark in draw(held).figure.marks if mark.visible]


@pytest.mark.parametrize(
    ("name", "value"),
    [("Total", 100), ("Summe:", 100), ("Everything", Formula("=SUM(B2:B4)")), ("x", Formula("=sum( $B$2:B$4 )"))],
)
def test_a_total_row_is_left_out_of_the_parts_and_said(name: str, value: Any) -> None:
    picture = draw(made(name, value))
    assert parts(made(name, value)) == [30, 50, 20]
    assert sorted(one.split()[-1] for one in labels(picture)) == ["20%", "30%", "50%"]
    (finding,) = [one for one in findings(picture) if one.check == "stated-total"]
    assert str(finding.message) == f"1 row sums up the others and is left out: {name}."


@pytest.mark.parametrize(("name", "value"), [("Rest", 100), ("Rest", Formula("=SUM(B2:B3)")), ("Totalled", 5)])
def test_other_rows_stay(name: str, value: Any) -> None:
    assert len(parts(made(name, value))) == 4
    assert not [one for one in findings(draw(made(name, value))) if one.check == "stated-total"]


def test_an_author_may_count_it() -> None:
    held = made("Total", 100)
    counted = edits.change_chart(held, held.charts[0].id, totals=True)
    assert len(parts(counted)) == 4
    assert total_rows(held.tables[0], held.charts[0], recipe("pie")) == 1


def test_where_nothing_is_added_up_a_total_is_a_row_like_others() -> None:
    columns = made("Total", 100, "columns")
    assert len(draw(columns).figure.marks) == 4
    assert [str(one.message) for one in findings(draw(columns))] == [
        "1 row sums up the others and stands beside them: Total."
    ]
    without = edits.change_chart(columns, columns.charts[0].id, totals=False)
    assert len(draw(without).figure.marks) == 3
    assert not [one for one in findings(draw(made("Total", 100, "bridge"))) if "beside" in str(one.message)]
    assert helper(draw(made("Total", 100, "highlight-bars")), "highlight")[1] == 50


def test_a_total_typed_below_a_thermometer_does_not_double_it() -> None:
    held = made("Total", Formula("=SUM(B2:B4)"), "thermometer", goal=200.0)
    assert "50%" in labels(draw(held))


def test_at_least_one_row_is_left() -> None:
    assert len(make("pie", table(["a", "b"], ["Total"], [5])).figure.marks) == 1


FUNDS = table(["fund", "given", "goal"], ["House", "Garden"], [300, 450], [1000, 500])
ROLES = {"name": "fund", "value": "given", "goal": "goal"}


def test_a_sum_is_measured_against_the_sum_of_the_goals() -> None:
    assert "50%" in labels(make("thermometer", FUNDS, ROLES))
    assert "30%" in labels(make("thermometer", FUNDS, ROLES, of="row"))
    assert "90%" in labels(make("thermometer", FUNDS, ROLES, of="row", row=2.0))


def test_a_budget_column_is_summed_too() -> None:
    roles = {"name": "fund", "value": "given", "budget": "goal"}
    assert helper(make("battery", FUNDS, roles), "left")[0] == 0.5


def test_a_goal_typed_by_hand_wins_over_the_column() -> None:
    assert "75%" in labels(make("thermometer", FUNDS, ROLES, goal=1000.0))
    rows = {"name": "fund", "value": "given", "target": "goal"}
    assert helper(make("target-columns", FUNDS, rows, target=400.0), "target") == [400, 400]


def test_the_same_goal_beside_each_row_is_said() -> None:
    same = table(["day", "given", "goal"], ["Mon", "Tue"], [30, 40], [100, 100])
    roles = {"name": "day", "value": "given", "goal": "goal"}
    said = [str(one.message) for one in findings(make("thermometer", same, roles)) if one.check == "share-sum"]
    assert said == ["Each row has the same goal; together they are 200. Set it once if it is for all."]
    assert not [one for one in findings(make("thermometer", FUNDS, ROLES)) if one.check == "share-sum"]
