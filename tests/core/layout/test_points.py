"""Points, symbols that ride on bars, and labels at fixed places of their rows: reckoned by hand."""

from itertools import pairwise
from typing import Any

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.points import Points
from kavlet.core.charts.ranges import Ranges
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.figure import Figure, Mark, PlacedText
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.geometry import Size
from tests.making import free, table

ROWS = table(["n", "v", "w"], ["a", "b", "c"], [10, 40, 2], [-10, 20, 30])
STYLE = resolve(Dress())


def made(*layers: Any, lying: bool = False, low: float = 0.0) -> Figure:
    frame = Cartesian(lying=lying, along=Scale(minimum=low, maximum=50.0, visible=False))
    return free(Chart(frame, layers, names="c1"), ROWS, Size(400, 300)).figure


def of(figure: Figure, key: str) -> list[Mark]:
    return sorted((mark for mark in figure.marks if mark.key == key), key=lambda mark: mark.row)


def labels(figure: Figure, key: str) -> dict[int | None, PlacedText]:
    return {text.row: text for text in figure.texts if text.kind == "label" and text.key == key}


def along(figure: Figure, value: float, lying: bool, low: float = 0.0) -> float:
    share, plot = (value - low) / (50 - low), figure.plot
    return plot.x + share * plot.width if lying else plot.bottom - share * plot.height


@pytest.mark.parametrize("lying", [False, True])
def test_points_stand_at_their_figures_in_the_middle_of_their_rows(lying: bool) -> None:
    figure = made(Points("p", "p", "c2", size=10.0), lying=lying)
    plot = figure.plot
    for row, (mark, value) in enumerate(zip(of(figure, "p"), (10, 40, 2), strict=True)):
        middle = (row + 0.5) / 3
        place = (along(figure, value, lying), plot.y + middle * plot.height)
        wanted = place if lying else (plot.x + middle * plot.width, along(figure, value, lying))
        assert mark.bounds.center == pytest.approx(wanted)
        assert max(mark.bounds.width, mark.bounds.height) == pytest.approx(10)
        assert mark.value == value


@pytest.mark.parametrize(
    ("spot", "rim"), [("disc", True), ("diamond", True), ("tick", False), ("bar", False), ("cross", False)]
)
def test_filled_spots_have_a_rim_and_strokes_none(spot: Any, rim: bool) -> None:
    mark = of(made(Points("p", "p", "c2", spot=spot)), "p")[0]
    (shape,) = mark.items
    assert (shape.edge is not None) is rim  # type: ignore[union-attr]
    own = of(made(Points("p", "p", "c2", spot=spot, edge="ink", edge_width=3.0)), "p")[0].items[0]
    assert (own.edge, own.edge_width) == (STYLE.colour("ink"), 3.0)  # type: ignore[union-attr]


@pytest.mark.parametrize("lying", [False, True])
def test_a_symbol_rides_inside_the_end_of_its_bar_or_just_beyond_a_short_one(lying: bool) -> None:
    layers = Bars("v", "v", "c2"), Points("p", "p", "c2", symbol="person", size=20.0, ride=True, padding=4.0)
    figure = made(*layers, lying=lying)
    way = 1 if lying else -1
    for mark, value in zip(of(figure, "p"), (10, 40, 2), strict=True):
        long = mark.bounds.width if lying else mark.bounds.height
        at = mark.bounds.center[0 if lying else 1]
        end = along(figure, value, lying)
        fits = abs(end - along(figure, 0, lying)) >= long + 8
        assert fits is (value > 2)
        assert at == pytest.approx(end - way * (long / 2 + 4) if fits else end + way * (long / 2 + 4))
        ink = mark.items[0].fill  # type: ignore[union-attr]
        assert ink == (STYLE.on(STYLE.solid(None, 0)) if fits else STYLE.solid(None, 0))


@pytest.mark.parametrize("lying", [False, True])
def test_a_riding_symbol_stays_on_the_plot(lying: bool) -> None:
    rows = table(["n", "v"], ["a", "b"], [50, -10])
    frame = Cartesian(lying=lying, along=Scale(minimum=0.0, maximum=50.0, visible=False))
    layer = Points("p", "p", "c2", symbol="person", size=30.0, ride=True, padding=200.0)
    figure = free(Chart(frame, (layer,), names="c1"), rows, Size(400, 300)).figure
    for mark in of(figure, "p"):
        box, plot = mark.bounds, figure.plot
        assert plot.x - 1e-6 <= box.x
        assert box.right <= plot.right + 1e-6
        assert plot.y - 1e-6 <= box.y
        assert box.bottom <= plot.bottom + 1e-6


def test_labels_go_by_the_sign_of_their_figures() -> None:
    figure = made(Points("p", "p", "c3", size=8.0, label=Label(position="by sign")), low=-50.0)
    texts = labels(figure, "p")
    for mark in of(figure, "p"):
        above = texts[mark.row].bounds.bottom <= mark.bounds.y + 1e-6
        assert above is (mark.value > 0)


def test_labels_at_a_fixed_place_stand_in_their_rows_or_in_the_gaps_before_them() -> None:
    for place in (0.0, 0.25, 1.0):
        figure = made(Points("p", "p", "c2", at=place, label=Label(), spot="none"), lying=True)
        texts, plot = labels(figure, "p"), figure.plot
        for row in range(3):
            x, y = texts[row].bounds.center
            if place == 0.25:
                assert x == pytest.approx(plot.x + 0.25 * plot.width, abs=0.5)
            assert y == pytest.approx(plot.y + (row + 0.5) / 3 * plot.height, abs=1)
    between = made(Bars("v", "v", "c2"), Points("p", "p", "c2", at=0.5, between=True, label=Label()), lying=True)
    bars = of(between, "v")
    texts = labels(between, "p")
    for before, after in pairwise(bars):
        gap = (before.bounds.bottom + after.bounds.y) / 2
        assert texts[after.row].bounds.center[1] == pytest.approx(gap, abs=1)


@pytest.mark.parametrize("lying", [False, True])
@pytest.mark.parametrize(("form", "items"), [("whisker", 2), ("bar", 2)])
def test_ranges_reach_from_low_to_high_with_their_middle_marked(lying: bool, form: Any, items: int) -> None:
    rows = table(["n", "mid", "low", "high"], ["a"], [20], [10], [40])
    frame = Cartesian(lying=lying, along=Scale(minimum=0.0, maximum=50.0, visible=False))
    layer = Ranges("r", "r", "c2", low="c3", high="c4", form=form, cap=10.0, spot="disc")
    figure = free(Chart(frame, (layer,), names="c1"), rows, Size(400, 300)).figure
    (mark,) = figure.marks
    assert len(mark.items) == items
    body, middle = mark.items[0].path.bounds, mark.items[1].path.bounds  # type: ignore[union-attr]
    low, high = (along(figure, value, lying) for value in (10, 40))
    assert sorted((body.x, body.right) if lying else (body.y, body.bottom)) == pytest.approx(sorted((low, high)))
    assert (body.height if lying else body.width) == pytest.approx(10)
    assert middle.center[0 if lying else 1] == pytest.approx(along(figure, 20, lying))
    assert middle.width == pytest.approx(8)


def test_a_whisker_beyond_the_scale_has_no_cap_there() -> None:
    rows = table(["n", "mid", "low", "high"], ["a"], [20], [10], [90])
    frame = Cartesian(along=Scale(minimum=0.0, maximum=50.0, visible=False))
    layer = Ranges("r", "r", "c2", low="c3", high="c4", cap=10.0, spot="none")
    figure = free(Chart(frame, (layer,), names="c1"), rows, Size(400, 300)).figure
    (line,) = figure.marks[0].items
    assert line.path.verbs == "MLML"  # type: ignore[union-attr]
    assert line.path.bounds.y == pytest.approx(figure.plot.y)  # type: ignore[union-attr]


def test_a_range_s_label_stands_two_points_over_its_end() -> None:
    rows = table(["n", "mid", "low", "high"], ["a"], [20], [10], [30])
    frame = Cartesian(along=Scale(minimum=0.0, maximum=50.0, visible=False))
    layer = Ranges("r", "r", "c2", low="c3", high="c4", label=Label())
    figure = free(Chart(frame, (layer,), names="c1"), rows, Size(400, 300)).figure
    plain = Points("r", "r", "c4", spot="tick", size=4.0, label=Label())
    point = free(Chart(frame, (plain,), names="c1"), rows, Size(400, 300)).figure
    assert labels(figure, "r")[0].bounds.bottom == pytest.approx(labels(point, "r")[0].bounds.bottom)
