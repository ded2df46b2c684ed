"""Where stacked parts start and end, by arithmetic."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.layout.data import Data
from kavlet.core.layout.stacks import slots, spans

NUMBERS = st.lists(st.integers(-100, 100).map(float), min_size=3, max_size=3)


def data(columns: dict[str, list[float]]) -> Data:
    return Data(values={}, numbers=columns, ids=(0, 1, 2), locale="en")


def chart(*layers: Bars) -> Chart:
    return Chart(Cartesian(), layers)


@given(NUMBERS, NUMBERS)
def test_figures_below_zero_stack_downward_apart_from_those_above(one: list[float], other: list[float]) -> None:
    found = spans(chart(Bars("a", "a", "c1", stack="stacked"), Bars("b", "b", "c2", stack="stacked")),
                  data({"c1": one, "c2": other}))  # fmt: skip
    assert list(found["a"].ends) == one
    for row in range(3):
        start, end = found["b"].starts[row], found["b"].ends[row]
        assert start == (one[row] if one[row] * other[row] > 0 or (one[row] > 0 and other[row] == 0) else 0.0)
        assert end - start == other[row]


@given(NUMBERS, NUMBERS)
def test_shares_are_of_what_the_parts_amount_to_whatever_their_sign(one: list[float], other: list[float]) -> None:
    """A part below zero makes the others no larger: of 30 and -10 they are 75 % and -25 %."""
    found = spans(chart(Bars("a", "a", "c1", stack="share"), Bars("b", "b", "c2", stack="share")),
                  data({"c1": one, "c2": other}))  # fmt: skip
    for row in range(3):
        total = abs(one[row]) + abs(other[row])
        parts = [found[key].ends[row] - found[key].starts[row] for key in "ab"]
        assert parts == pytest.approx([number / total if total else 0.0 for number in (one[row], other[row])])
        assert sum(map(abs, parts)) == pytest.approx(1.0 if total else 0.0)


def test_what_is_measured_on_another_axis_stands_on_a_stack_of_its_own() -> None:
    layers = (Bars("a", "a", "c1", stack="stacked"), Bars("b", "b", "c2", stack="stacked", second=True))
    held = data({"c1": [1.0, 2.0, 3.0], "c2": [10.0, 20.0, 30.0]})
    assert list(spans(chart(*layers), held)["b"].starts) == [0.0, 0.0, 0.0]
    assert (slots(chart(*layers), False), slots(chart(*layers), True)) == ([["a"]], [["b"]])


def test_a_row_without_a_value_ends_nowhere_and_moves_nothing() -> None:
    layers = (Bars("a", "a", "c1", stack="stacked"), Bars("b", "b", "c2", stack="stacked"))
    found = spans(chart(*layers), data({"c1": [math.nan, 2.0, 3.0], "c2": [10.0, 20.0, 30.0]}))
    assert math.isnan(found["a"].ends[0])
    assert found["b"].starts[0] == 0.0
    assert slots(chart(*layers), False) == [["a", "b"]]
