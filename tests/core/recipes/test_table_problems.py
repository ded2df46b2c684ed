"""What recipes ask of a table, said in one sentence."""

from typing import Any

import pytest

from kavlet.core.recipes.table_problems import cell_name, largest
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.values.errors import KavletError
from tests.making import findings, make, table

NAMES = ["a", "b"]


def _fails(recipe: str, values: list[Any], said: str, **settings: Any) -> None:
    with pytest.raises(KavletError) as caught:
        make(recipe, table(["what", "value"], NAMES, values), {"name": "what", "value": "value"}, **settings)
    assert str(caught.value).startswith(said)


@pytest.mark.parametrize(
    ("recipe", "values", "said"),
    [
        ("pie", [3.0, -1.0], "B3 is negative. A part can’t be below zero."),
        ("waffle", [-3.0, 1.0], "B2 is negative. A part can’t be below zero."),
        ("funnel", [3.0, -1.0], "B3 is negative. A stage can’t be below zero."),
        ("pictogram", [3.0, -1.0], "B3 is negative. A count can’t be below zero."),
        ("capsule", [3.0, -1.0], "B3 is negative. A share can’t be below zero."),
        ("radial-bars", [3.0, -1.0], "B3 is negative. A ring can’t be below zero."),
        ("picture-bars", [3.0, -1.0], "B3 is negative. A picture bar can’t be below zero."),
        ("capped-bars", [3.0, -1.0], "B3 is negative. A capped bar can’t be below zero."),
        ("stacked-bars", [3.0, -1.0], "B3 is negative. A part can’t be below zero."),
        ("pie", [0.0, 0.0], "All parts are 0, so there is nothing to draw."),
        ("radial-bars", [0.0, None], "All values are 0, so there is nothing to draw."),
        ("funnel", [0.0, 0.0], "All stages are 0, so there is no funnel to draw."),
        ("bars", [1.0, "many"], "B3 holds “many”, which is not a number. Type a number, or leave the cell empty."),
        ("bars", [1.0, "m" * 30], "B3 holds “" + "m" * 23 + "…”, which is not a number."),
        ("bars", [None, None], "Column B holds no numbers."),
    ],
)
def test_a_table_that_does_not_fit_is_said_with_its_cell(recipe: str, values: list[Any], said: str) -> None:
    _fails(recipe, values, said)


@pytest.mark.parametrize(
    ("recipe", "name"),
    [("pie", "whole"), ("pictogram", "unit"), ("capsule", "whole"), ("radial-bars", "maximum"), ("capped-bars", "cap")],
)
def test_a_setting_that_divides_is_above_zero(recipe: str, name: str) -> None:
    _fails(recipe, [3.0, 1.0], f"The setting {name} ", **{name: "=0"})


def test_a_stacked_column_may_be_negative_where_no_share_is_asked_for() -> None:
    made = make("columns", table(["what", "value"], NAMES, [3.0, -1.0]), {"name": "what", "value": "value"})
    assert len(made.figure.marks) == 2


def test_cells_are_named_as_the_grid_names_them() -> None:
    assert (cell_name(0, 0), cell_name(27, 8)) == ("A2", "AB10")
    assert largest([float("nan"), 2.0, -1.0]) == 2.0  # type: ignore[arg-type]


def test_a_rule_against_a_value_does_not_hold_for_the_value_itself() -> None:
    """No change is neither a rise nor a fall."""
    rows = table(["what", "then", "now"], ["a", "b", "c"], [5.0, 5.0, 5.0], [5.0, 6.0, 4.0])
    made = make("growth-bars", rows, {"name": "what", "before": "then", "after": "now"})
    same, rise, fall = (mark.fill for mark in made.figure.marks)
    assert len({same, rise, fall}) == 3
    plain = make("growth-bars", rows, {"name": "what", "before": "then", "after": "now"}, colours=False)
    assert plain.figure.marks[0].fill == same


@pytest.mark.parametrize("gap", ['=""', "=NA()"])
@pytest.mark.parametrize("recipe", ["columns", "lines", "bars", "pie"])
def test_a_formula_can_say_that_there_is_no_value(recipe: str, gap: str) -> None:
    rows = table(["a", "b"], ["x", "y", "z"], [3, Formula(gap), 5])
    made = make(recipe, rows)
    assert made.figure.marks
    said = [str(one.message) for one in findings(made) if one.check == "missing"]
    assert said == (["1 row has no value and no mark."] if "NA" in gap else [])
