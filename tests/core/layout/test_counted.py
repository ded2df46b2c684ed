"""Counted cells and symbols, cuts of long bars, and rounded ends of spans: reckoned by hand."""

from typing import Any

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.figure import Figure
from kavlet.core.layout.kind import rounded
from kavlet.core.layout.marks.bars import before_break, break_path
from kavlet.core.values.geometry import Rect, Size
from tests.making import free, table

BAR = Rect(10, 20, 100, 30)
STANDING = Rect(10, 20, 30, 100)


def made(layer: Any, figures: list[float], lying: bool = True) -> Figure:
    rows = table(["n", "v"], [f"row {i}" for i in range(len(figures))], figures)
    frame = Cartesian(lying=lying, along=Scale(minimum=0.0, maximum=8.0, visible=False))
    return free(Chart(frame, (layer,), names="c1"), rows, Size(400, 300)).figure


@pytest.mark.parametrize("lying", [True, False])
def test_a_count_stands_behind_its_cells_even_behind_less_than_one(lying: bool) -> None:
    figure = made(Cells("v", "v", "c2", gap=0.0, label=Label()), [0.5, 4.0, 8.0], lying)
    texts = {text.row: text.bounds for text in figure.texts if text.kind == "label"}
    size = next(text.size for text in figure.texts if text.kind == "label")
    half, four, eight = (mark.bounds for mark in sorted(figure.marks, key=lambda mark: mark.row))
    step = (four.width if lying else four.height) / 4
    for row, (mark, count) in enumerate(((half, 0.5), (four, 4), (eight, 8))):
        long = mark.width if lying else mark.height
        assert long == pytest.approx(count * step)
        if lying:
            assert texts[row].x == pytest.approx(figure.plot.x + count * step + 0.35 * size, abs=0.1)
            assert texts[row].center[1] == pytest.approx(mark.center[1], abs=1)
        else:
            assert texts[row].center[0] == pytest.approx(mark.center[0], abs=1)
            assert texts[row].bottom < figure.plot.bottom - count * step


def test_rows_wrap_after_so_many_cells_into_lines_below() -> None:
    figure = made(Cells("v", "v", "c2", wrap=3, gap=0.0), [7.0])
    (mark,) = figure.marks
    corners = [(item.place.e, item.place.f) for item in mark.items]  # type: ignore[union-attr]
    side = mark.bounds.width / 3
    assert mark.bounds.height == pytest.approx(3 * side)
    left, top = mark.bounds.x, mark.bounds.y
    wanted = [(left + i % 3 * side, top + i // 3 * side) for i in range(7)]
    assert [x for x, _ in corners] == pytest.approx([x for x, _ in wanted])
    assert [y for _, y in corners] == pytest.approx([y for _, y in wanted])


@pytest.mark.parametrize("lying", [True, False])
def test_the_last_symbol_is_cut_to_a_part_of_its_drawn_width(lying: bool) -> None:
    figure = made(Cells("v", "v", "c2", symbol="person", gap=0.0), [2.25, 8.0], lying)
    mark = next(mark for mark in figure.marks if mark.row == 0)
    whole, cut = mark.items[0], mark.items[-1]
    assert whole.clip is None  # type: ignore[union-attr]
    seen = cut.clip.bounds  # type: ignore[union-attr]
    place = cut.place  # type: ignore[union-attr]
    outline = cut.outline.bounds  # type: ignore[union-attr]
    drawn = Rect(
        place.e + place.a * outline.x, place.f + place.d * outline.y, outline.width * place.a, outline.height * place.d
    )
    if lying:
        assert (seen.x, seen.y, seen.width, seen.height) == pytest.approx(
            (drawn.x, drawn.y, 0.25 * drawn.width, drawn.height)
        )
    else:
        assert (seen.x, seen.bottom, seen.width, seen.height) == pytest.approx(
            (drawn.x, drawn.bottom, drawn.width, 0.25 * drawn.height)
        )


@pytest.mark.parametrize(
    ("rect", "end", "outline", "before"),
    [
        (BAR, "right", [(104, 19), (109, 19), (101, 51), (96, 51)], Rect(10, 20, 86, 30)),
        (BAR, "left", [(32, 19), (37, 19), (29, 51), (24, 51)], Rect(24, 20, 86, 30)),
        (STANDING, "up", [(9, 34), (41, 26), (41, 21), (9, 29)], Rect(10, 34, 30, 86)),
        (STANDING, "down", [(9, 106), (41, 98), (41, 93), (9, 101)], Rect(10, 20, 30, 86)),
    ],
)
def test_a_bar_that_goes_on_is_cut_aslant_near_its_end(rect: Rect, end: Any, outline: Any, before: Rect) -> None:
    assert break_path(rect, end).coordinates == pytest.approx([part for point in outline for part in point])
    held = before_break(rect, end)
    assert (held.x, held.y, held.width, held.height) == pytest.approx((before.x, before.y, before.width, before.height))


def test_a_short_bar_is_cut_in_its_middle() -> None:
    path = break_path(Rect(0, 0, 12, 4), "right")
    assert path.coordinates == pytest.approx((6 + 1.4, -1, 6 + 1.4 + 3, -1, 6 + 3, 5, 6, 5))


@pytest.mark.parametrize(
    ("value", "wide", "exact"),
    [(12.345, 10.0, 12), (12.345, 1.0, 12.3), (12.345, 0.1, 12.35), (1234.5, 1000.0, 1234), (5.125, 0.0, 5.125)],
)
def test_an_end_of_a_span_is_as_exact_as_the_span_asks_for(value: float, wide: float, exact: float) -> None:
    assert rounded(value, wide) == pytest.approx(exact, abs=0.0051 if wide == 0.1 else 1e-9)


@pytest.mark.parametrize("lying", [False, True])
def test_labels_below_bars_below_zero_have_room_at_that_end_alone(lying: bool) -> None:
    def plot(figures: list[float]) -> tuple[float, float]:
        rows = table(["n", "v"], ["a", "b"], figures)
        frame = Cartesian(lying=lying, along=Scale(minimum=-40.0, maximum=40.0, visible=False))
        layer = Bars("v", "v", "c2", label=Label(position="outside"))
        held = free(Chart(frame, (layer,)), rows, Size(400, 300)).figure.plot
        return (held.x, 400 - held.right) if lying else (300 - held.bottom, held.y)

    bare = plot([10.0, -10.0])
    low, high = plot([-40.0, 10.0]), plot([40.0, -10.0])
    assert low[0] > bare[0] + 4
    assert low[1] == pytest.approx(bare[1])
    assert high[1] > bare[1] + 4
    assert high[0] == pytest.approx(bare[0])
    near = plot([-38.0, 10.0])
    assert bare[0] < near[0] < low[0]
