"""Values beyond the ends of an axis: nothing leaves the plot, a break or an arrow shows them, Proof tells."""

from typing import Any

import pytest

from kavlet.core.pipeline.stages import Picture
from kavlet.core.values.geometry import Rect
from tests.making import document, draw, findings, labels, make, marks, table

SEASONS = table(
    ["season", "visits", "walks"], ["spring", "summer", "autumn", "winter"], [20, 80, 45, -20], [10, 30, 5, 4]
)
SPOTS = table(["spot", "x", "y", "size"], "ABCD", [1, 20, 3, 4], [5, 6, 40, 7], [4, 16, 9, 5])
TO_TEN = {"frame.along.maximum": 10.0, "frame.across.maximum": 10.0}


def said(picture: Picture) -> list[str]:
    return [str(one.message) for one in findings(picture)]


def within(inner: Rect, outer: Rect, slack: float = 0.01) -> bool:
    return (
        inner.x >= outer.x - slack
        and inner.right <= outer.right + slack
        and inner.y >= outer.y - slack
        and inner.bottom <= outer.bottom + slack
    )


def drawn(picture: Picture) -> list[Any]:
    """What is seen of all marks: outlines, cut where they are clipped."""
    return [
        shape.clip.bounds if shape.clip is not None else shape.path.bounds
        for mark in picture.figure.marks
        if mark.visible
        for shape in mark.items
    ]


@pytest.mark.parametrize("recipe", ["columns", "bars", "lines", "areas"])
def test_no_value_leaves_the_plot(recipe: str) -> None:
    made = make(recipe, SEASONS, minimum=0.0, maximum=50.0)
    room = made.figure.plot.inset(-6, -6, -6, -6)  # a spot on the edge, and a break's slant, may reach a little further
    assert all(within(bounds, room) for bounds in drawn(made))
    beyond = [(mark.row, mark.key) for mark in made.figure.marks if mark.beyond and mark.key == "series 1"]
    assert beyond == [(1, "series 1"), (3, "series 1")]
    assert any(one.endswith("lie beyond the ends of their scale, the largest: summer: 80.") for one in said(made))


def test_a_bar_that_goes_on_is_broken_and_says_its_value() -> None:
    made = make("columns", SEASONS, minimum=0.0, maximum=50.0)
    bar = next(mark for mark in marks(made, "series 1") if mark.row == 1)
    assert bar.block.broken
    assert bar.value == 80
    assert labels(made) == ["80", "−20"]


def test_a_bar_of_which_nothing_is_seen_leaves_an_arrow() -> None:
    made = make("bars", SEASONS, minimum=30.0)
    arrow = next(mark for mark in marks(made, "series 1") if mark.row == 0)
    (shape,) = arrow.items
    tip = min(shape.path.coordinates[0::2])
    assert tip == pytest.approx(made.figure.plot.x)
    assert shape.path.bounds.width == pytest.approx(6.5)


@pytest.mark.parametrize("recipe", ["points", "bubbles"])
def test_points_beyond_either_axis_are_arrows_at_the_edge(recipe: str) -> None:
    made = draw(document(recipe, SPOTS), look=TO_TEN)
    by_row = {mark.row: mark for mark in marks(made, "value")}
    plot = made.figure.plot
    assert sorted(row for row, mark in by_row.items() if mark.beyond) == [1, 2]
    assert by_row[1].bounds.right == pytest.approx(plot.right)
    assert by_row[2].bounds.y == pytest.approx(plot.y)
    assert {"B 20", "C 40"} <= set(labels(made))
    assert any(one.startswith("2 values lie beyond") for one in said(made))


def test_a_target_beyond_the_scale_is_shown() -> None:
    rows = table(["n", "value", "target"], ["a", "b"], [30, 40], [40, 90])
    made = draw(document("target-columns", rows), look={"frame.along.maximum": 50.0})
    assert "90" in labels(made)
    assert "1 value lies beyond the ends of its scale: b: 90." in said(made)


def test_joins_of_a_bridge_do_not_leave_the_plot() -> None:
    rows = table(["n", "v"], ["start", "up", "down"], [100, 50, -20])
    made = draw(document("bridge", rows), look={"frame.along.maximum": 120.0})
    room = made.figure.plot.inset(-9, -9, -9, -9)
    assert all(within(bounds, room) for bounds in drawn(made))


def test_nothing_is_said_of_a_scale_that_reaches_all() -> None:
    for recipe in ("columns", "lines", "areas", "capped-bars"):
        made = make(recipe, SEASONS[:3])
        assert not any(mark.beyond for mark in made.figure.marks)
        assert not any("beyond" in one for one in said(made))
