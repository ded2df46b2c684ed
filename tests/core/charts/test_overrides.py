"""Values set by hand, in their places of a specification."""

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.line import Line
from kavlet.core.charts.overrides import checked, expected, leads, overridden
from kavlet.core.values.errors import KavletError

CHART = Chart(Cartesian(), (Bars("value", "visits", "c2", label=Label(size=9.0)), Line("goal", "goal", "c3")))


def test_a_value_stands_at_its_path_and_leaves_the_rest() -> None:
    made = overridden(CHART, {"layers.value.fill": "#123456", "frame.gap_width": 12.0, "ink": 2})
    assert (made.layers[0].fill, made.frame.gap_width, made.ink) == ("#123456", 12.0, 2)  # type: ignore[union-attr]
    assert made.layers[0].label == CHART.layers[0].label
    assert made.layers[1] == CHART.layers[1]


def test_what_is_there_keeps_its_other_values_and_what_is_not_is_made() -> None:
    made = overridden(CHART, {"layers.value.label.bold": True, "layers.goal.label.bold": True})
    assert made.layers[0].label == Label(size=9.0, bold=True)
    assert made.layers[1].label == Label(bold=True)
    second = overridden(CHART, {"frame.second.visible": True})
    assert second.frame.second is not None  # type: ignore[union-attr]
    row = overridden(CHART, {"layers.value.rows.1.fill": "#abcdef"})
    assert {number: one.fill for number, one in row.layers[0].rows.items()} == {1: "#abcdef"}


def test_layers_change_places_and_types() -> None:
    made = overridden(CHART, {"layers.order": ["goal", "value"]})
    assert [layer.key for layer in made.layers] == ["goal", "value"]
    drawn = overridden(CHART, {"layers.value.type": "line", "layers.value.fill": "#123456"})
    assert isinstance(drawn.layers[0], Line)
    assert (drawn.layers[0].values, drawn.layers[0].fill) == ("c2", "#123456")


def test_what_can_t_stand_there_is_left_out_and_said_where_it_is_asked_for() -> None:
    assert overridden(CHART, {"frame.gap_width": "wide", "layers.nothing.fill": "#111111", "frame.none": 1}) == CHART
    with pytest.raises(KavletError, match="“wide” can’t be set here"):
        checked(CHART, "frame.gap_width", "wide")
    checked(CHART, "frame.gap_width", 3.0)
    with pytest.raises(KavletError, match=r"leads nowhere in this chart\. Its layers are layers.value, layers.goal"):
        expected(CHART, "layers.nothing.fill", "#111111")
    expected(CHART, "layers.value.label.bold", True)


@pytest.mark.parametrize(
    ("path", "somewhere"),
    [
        ("layers.value.fill", True), ("layers.value.label.size", True), ("layers.goal.label.size", True),
        ("layers.value.rows.3.fill", True), ("layers.order", True), ("layers.value.type", True), ("ink", True),
        ("layers.none.fill", False), ("layers.value.none", False), ("frame.along.none", False), ("none", False),
        ("layers.value.label.none", False),
    ],
)  # fmt: skip
def test_whether_a_path_leads_somewhere(path: str, somewhere: bool) -> None:
    assert leads(CHART, path) is somewhere
