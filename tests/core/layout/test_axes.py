"""Axes: where their figures and titles stand, and the room they take, reckoned by hand."""

from typing import Any

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.line import Line
from kavlet.core.charts.points import Points
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.values.geometry import Size
from tests.making import free, table

EDGE = 16.5  # points that a sheet of 400 × 300 keeps free around
ROWS = table(["site", "count", "more", "at"], ["A", "B", "C"], [10, 40, 20], [300, 150, 250], [2, 5, 9])
TITLED = Scale(minimum=0.0, maximum=50.0, title="visits", visible=True)


def made(frame: Cartesian, *layers: Any, size: Size | None = None) -> Figure:
    drawn = layers or (Bars("v", "v", "c2"),)
    return free(Chart(frame, drawn, names="c1"), ROWS, size or Size(400, 300)).figure


def texts(figure: Figure, kind: str, key: str = "") -> list[PlacedText]:
    return [text for text in figure.texts if text.kind == kind and (not key or text.key == key)]


@pytest.mark.parametrize("lying", [False, True])
def test_titles_stand_beyond_their_axis_and_on_the_sheet(lying: bool) -> None:
    across = Scale(kind="category", title="place")
    frame = Cartesian(lying=lying, along=TITLED, across=across, second=Scale(title="more", visible=True))
    figure = made(frame, Bars("v", "v", "c2"), Line("w", "w", "c3", second=True))
    titles = {text.text: text for text in texts(figure, "axis title")}
    assert set(titles) == {"visits", "place", "more"}
    others = [text.bounds for text in figure.texts if text.kind in ("tick", "name")]
    for text in titles.values():
        box = text.bounds
        assert box.x >= 0
        assert box.right <= 400
        assert box.y >= 0
        assert box.bottom <= 300
        for other in others:
            apart = box.right <= other.x or other.right <= box.x or box.bottom <= other.y or other.bottom <= box.y
            assert apart, (text.text, box, other)
    plot = figure.plot
    if lying:
        assert titles["place"].bounds.right < plot.x
        assert titles["visits"].bounds.y > plot.bottom
        assert titles["more"].bounds.bottom < plot.y
        assert titles["visits"].bounds.right == pytest.approx(plot.right)
        assert titles["place"].bounds.y == pytest.approx(plot.y, abs=1)
    else:
        assert titles["visits"].bounds.right < plot.x
        assert titles["more"].bounds.x > plot.right
        assert titles["place"].bounds.y > plot.bottom
        assert titles["place"].bounds.right == pytest.approx(plot.right)
        assert titles["visits"].bounds.y == pytest.approx(plot.y, abs=1)
        assert titles["more"].bounds.y == pytest.approx(plot.y, abs=1)
    assert {text.text: text.angle for text in titles.values()} == (
        {"place": -90, "visits": 0, "more": 0} if lying else {"place": 0, "visits": -90, "more": 90}
    )


def test_a_title_across_stands_by_the_plot_where_there_are_no_names() -> None:
    for lying in (False, True):
        frame = Cartesian(lying=lying, along=TITLED, across=Scale(kind="category", title="place"))
        figure = free(Chart(frame, (Bars("v", "v", "c2"),)), ROWS, Size(400, 300)).figure
        (title,) = (text for text in texts(figure, "axis title") if text.text == "place")
        assert not texts(figure, "name")
        if lying:
            assert 0 <= title.bounds.x < title.bounds.right < figure.plot.x
        else:
            assert figure.plot.bottom < title.bounds.y < title.bounds.bottom <= 300


def test_figures_of_an_axis_take_the_room_of_the_longest_of_them() -> None:
    plots = {}
    for most in (50.0, 5_000_000.0):
        scale = Scale(minimum=0.0, maximum=most, visible=True)
        figure = made(Cartesian(along=scale))
        ticks = texts(figure, "tick")
        longest = max(text.bounds.width for text in ticks)
        assert figure.plot.x == pytest.approx(EDGE + longest + 0.7 * ticks[0].size, abs=0.01)
        assert all(text.bounds.right < figure.plot.x for text in ticks)
        plots[most] = figure.plot
    assert plots[5_000_000.0].x > plots[50.0].x + 20


def test_figures_of_a_lying_axis_stand_below_and_the_last_is_not_cut() -> None:
    figure = made(Cartesian(lying=True, along=Scale(minimum=0.0, maximum=50.0, visible=True)))
    ticks = texts(figure, "tick")
    assert all(text.bounds.y > figure.plot.bottom for text in ticks)
    last = max(ticks, key=lambda text: text.bounds.right)
    assert last.bounds.center[0] == pytest.approx(figure.plot.right, abs=0.5)
    assert last.bounds.right <= 400 - EDGE + 0.5
    assert figure.plot.right == pytest.approx(400 - EDGE - last.bounds.width / 2, abs=0.5)
    assert figure.plot.bottom == pytest.approx(300 - EDGE - 1.45 * last.size, abs=0.01)


@pytest.mark.parametrize("lying", [False, True])
def test_numeric_places_across_take_room_beside_the_plot(lying: bool) -> None:
    across = Scale(minimum=0.0, maximum=10.0, visible=True)
    figure = made(
        Cartesian(lying=lying, along=Scale(minimum=0.0, maximum=50.0, visible=False), across=across),
        Points("p", "p", "c2", x="c4"),
    )
    ticks, plot = texts(figure, "tick"), figure.plot
    assert [text.text for text in ticks][:2] == ["0", "2"]
    longest = max(text.bounds.width for text in ticks)
    if lying:
        assert plot.x == pytest.approx(EDGE + longest + ticks[0].size, abs=0.01)
        assert all(text.bounds.right < plot.x for text in ticks)
    else:
        assert plot.bottom == pytest.approx(300 - EDGE - 1.6 * ticks[0].size, abs=0.01)
        assert plot.right == pytest.approx(400 - EDGE - longest / 2, abs=0.5)
        assert all(text.bounds.y > plot.bottom for text in ticks)
    for mark, x, y in zip((mark for mark in figure.marks if mark.key == "p"), (2, 5, 9), (10, 40, 20), strict=True):
        far, high = x / 10, y / 50
        place = (plot.x + high * plot.width, plot.bottom - far * plot.height) if lying else None
        assert mark.bounds.center == pytest.approx(
            place or (plot.x + far * plot.width, plot.bottom - high * plot.height), abs=0.01
        )


def test_an_axis_that_lies_has_fewer_figures_as_they_stand_beside_each_other() -> None:
    counts = {}
    for lying in (False, True):
        scale = Scale(minimum=0.0, maximum=1_000_000.0, visible=True)
        figure = made(Cartesian(lying=lying, along=scale), size=Size(260, 260))
        counts[lying] = len(texts(figure, "tick"))
        assert figure.axes[0].ticks[0] == 0
    assert counts[True] < counts[False]
    small, large = (
        len(texts(made(Cartesian(along=Scale(visible=True)), size=Size(400, tall)), "tick")) for tall in (140, 600)
    )
    assert small < large
