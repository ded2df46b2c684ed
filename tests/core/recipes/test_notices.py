# ruff: noqa: E501 - a table of sentences
"""What recipes notice of their figures: when, with which figure, in which words."""

from typing import Any

import pytest

from kavlet.core.pipeline.stages import build_chart
from kavlet.core.recipes.recipe import Notice
from kavlet.core.recipes.registry import recipe
from tests.making import document, table, values_of

NAMES = ["a", "b", "c"]


def _notices(name: str, values: list[Any], other: list[Any] | None = None, **settings: Any) -> tuple[Notice, ...]:
    names: list[Any] = NAMES[: len(values)]
    if name == "growth-bars":
        assert other is not None
        rows = table(["what", "then", "now"], names, values, other)
        made = document(name, rows, {"name": "what", "before": "then", "after": "now"}, **settings)
    else:
        made = document(name, table(["what", "value"], names, values), {"name": "what", "value": "value"}, **settings)
    build = build_chart(made, values_of(made), made.charts[0].id)
    return recipe(name).notices(build.inputs)


CASES: list[tuple[str, list[Any], dict[str, Any], str, float]] = [
    ("gauge", [120.0], {"maximum": 100.0}, "The value 120 lies above the scale’s end, 100; the needle stands at the stop.", 120.0),
    ("gauge", [-5.0], {"maximum": 100.0}, "The value −5 lies below the scale’s start, 0; the needle stands at the stop.", -5.0),
    ("battery", [60.0, 50.0], {"budget": 100.0}, "More is spent than the budget holds: 10% over.", -0.1),
    ("capsule", [0.5, 1.2], {"whole": 1.0}, "A value is larger than the whole: 120%.", 1.2),
    ("thermometer", [-1.0], {"goal": 10.0}, "What is given is below zero; the tube is empty.", -0.1),
    ("thermometer", [15.0], {"goal": 10.0}, "The goal is passed: 150%. The tube shows a break.", 1.5),
    ("pictogram", [61.0, 2.0], {"unit": 1.0}, "A row has 61 symbols, too many to count. Take a larger unit.", 61.0),
    ("radial-bars", [12.0, 8.0], {"maximum": 10.0}, "A value is larger than the maximum, 10; its ring is full.", 12.0),
    ("capped-bars", [10.0, 100.0], {"cap": 20.0}, "1 bar is drawn shorter than in proportion, with a break.", 5.0),
    ("capped-bars", [40.0, 100.0, 3.0], {"cap": 20.0}, "2 bars are drawn shorter than in proportion, with a break.", 5.0),
    ("funnel", [10.0, 5.0, 6.0], {}, "“c” is larger than the stage before it, which a funnel’s reader does not expect.", 1.2),
    ("pie", [60.0, 50.0], {"whole": 100.0}, "The parts add up to 110, more than the whole of 100; shares are of the parts.", -10.0),
    ("bridge", [100.0, -20.0, 90.0], {"totals": "first and last"}, "c states 90, but the steps lead to 80; the bridge shows 80.", 10.0),
]  # fmt: skip


@pytest.mark.parametrize(("name", "values", "settings", "said", "figure"), CASES)
def test_what_misleads_is_noticed(
    name: str, values: list[Any], settings: dict[str, Any], said: str, figure: float
) -> None:
    (notice,) = _notices(name, values, **settings)
    assert str(notice.message) == said
    assert notice.figure == pytest.approx(figure)


QUIET: list[tuple[str, list[Any], dict[str, Any]]] = [
    ("gauge", [100.0], {"maximum": 100.0}),
    ("gauge", [0.0], {"maximum": 100.0}),
    ("battery", [60.0, 40.0], {"budget": 100.0}),
    ("capsule", [0.5, 1.0], {"whole": 1.0}),
    ("thermometer", [10.0], {"goal": 10.0}),
    ("thermometer", [0.0], {"goal": 10.0}),
    ("pictogram", [60.0, 2.0], {"unit": 1.0}),
    ("radial-bars", [10.0, 8.0], {"maximum": 10.0}),
    ("capped-bars", [10.0, 20.0], {"cap": 20.0}),
    ("funnel", [10.0, 5.0, 5.0], {}),
    ("pie", [60.0, 40.0], {"whole": 100.0}),
    ("pie", [60.0, 50.0], {}),
    ("bridge", [100.0, -20.0, 80.0], {"totals": "first and last"}),
    ("bridge", [100.0, -20.0, None], {"totals": "found"}),
]


@pytest.mark.parametrize(("name", "values", "settings"), QUIET)
def test_what_is_in_order_is_not(name: str, values: list[Any], settings: dict[str, Any]) -> None:
    assert not _notices(name, values, **settings)


def test_growth_from_nothing_is_noticed() -> None:
    (notice,) = _notices("growth-bars", [0.0, 5.0], [3.0, 6.0])
    assert str(notice.message) == "1 row starts from 0 or from no figure, where no growth can be given."
    (notice,) = _notices("growth-bars", [0.0, 0.0], [3.0, 6.0])
    assert str(notice.message) == "2 rows start from 0 or from no figure, where no growth can be given."
    assert not _notices("growth-bars", [0.0, 5.0], [None, 6.0])


@pytest.mark.parametrize(
    ("rule", "values", "totals"),
    [
        ("first and last", [100.0, -20.0, 90.0], [True, False, True]),
        ("first", [100.0, -20.0, 80.0], [True, False, False]),
        ("none", [100.0, -20.0, 80.0], [False, False, False]),
        ("found", [100.0, -20.0, 80.0], [True, False, True]),
        ("found", [100.0, -20.0, 79.0], [True, False, False]),
        ("found", [100.0, -20.0, None], [True, False, True]),
    ],
)
def test_the_totals_of_a_bridge(rule: str, values: list[Any], totals: list[bool]) -> None:
    made = document("bridge", table(["what", "value"], NAMES, values), {"name": "what", "value": "value"}, totals=rule)
    build = build_chart(made, values_of(made), made.charts[0].id)
    assert build.inputs.values[build.inputs.helpers["total"]] == totals
