"""Needles, areas, bands, joins and arrows: reckoned by hand."""

import math
from typing import Any

import pytest

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Row
from kavlet.core.charts.line import Line
from kavlet.core.charts.needle import Needle
from kavlet.core.charts.points import Points
from kavlet.core.charts.ranges import Ranges
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.wedges import Wedges
from kavlet.core.layout.figure import Figure, Mark
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.marks.needle import HUB, pointer
from kavlet.core.layout.marks.off_scale import LONG
from kavlet.core.scene.paints import Hatch, LinearGradient, RadialGradient
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Shape, Stamp
from kavlet.core.styling.fills import GradientFill, HatchFill
from kavlet.core.values.colour import oklab
from kavlet.core.values.geometry import Rect, Size
from tests.making import free, table

ROWS = table(["n", "v", "low", "high"], ["a", "b", "c", "d"], [10, 40, 20, 30], [5, 35, 12, 30], [15, 60, 22, 30])
FRAME = {"gap_width": 50.0, "along": Scale(minimum=0.0, maximum=50.0, visible=False)}
BOTH = pytest.mark.parametrize("lying", [False, True])


def made(*layers: Any, lying: bool = False, rows: Any = ROWS, **frame: Any) -> Figure:
    return free(Chart(Cartesian(lying=lying, **{**FRAME, **frame}), layers, names="c1"), rows, Size(400, 300)).figure


def of(figure: Figure, key: str) -> list[Mark]:
    return sorted((mark for mark in figure.marks if mark.key == key), key=lambda mark: mark.row)


def shapes(mark: Mark) -> list[Shape]:
    return [item for item in mark.items if isinstance(item, Shape)]


def along(figure: Figure, value: float, lying: bool = False) -> float:
    plot = figure.plot
    return plot.x + value / 50 * plot.width if lying else plot.bottom - value / 50 * plot.height


def points(shape: Shape) -> list[tuple[float, float]]:
    at = shape.path.coordinates
    return list(zip(at[0::2], at[1::2], strict=True))


# Needles


def test_a_pointer_narrows_to_a_blunt_tip_and_is_round_at_the_centre() -> None:
    box = recorded(pointer, (50.0, 70.0), 60.0, 0.0, 10.0).bounds
    assert (box.x, box.right) == pytest.approx((40, 60), abs=0.02)
    assert (box.y, box.bottom) == pytest.approx((70 - 60 - 1.6, 80), abs=0.02)
    path = recorded(pointer, (50.0, 70.0), 60.0, 0.0, 10.0)
    first, second = (path.coordinates[i : i + 2] for i in (0, 2))
    assert first == pytest.approx((40, 70))
    assert second == pytest.approx((48.4, 10))
    thin = recorded(pointer, (0.0, 0.0), 60.0, 90.0, 2.0).bounds
    assert thin.right == pytest.approx(60.6, abs=0.02)
    assert (thin.y, thin.bottom, thin.x) == pytest.approx((-2, 2, -2), abs=0.02)


def test_a_needle_reaches_its_share_of_the_radius_over_its_hub() -> None:
    scale = Scale(minimum=0.0, maximum=50.0, visible=False)
    frame = Polar(start=-90.0, sweep=180.0, shown=180.0, hole=0.5, scale=scale)
    rows = table(["n", "v", "angle"], ["a"], [25], [0])
    layer = Needle("k", "needle", "c3", row=0, figures="c2", length=0.8)
    figure = free(Chart(frame, (layer,), names="c1"), rows, Size(500, 400)).figure
    (mark,) = figure.marks
    assert mark.value == 25
    assert mark.sector is not None
    radius = mark.sector.outer / 0.8
    needle, hub, hole = shapes(mark)
    assert hub.path.bounds.width == pytest.approx(2 * HUB * radius, abs=0.05)
    assert hole.path.bounds.width == pytest.approx(0.4 * hub.path.bounds.width, abs=0.05)
    half = 0.72 * HUB * radius
    assert needle.path.bounds.width == pytest.approx(2 * half, abs=0.05)
    x, y = mark.sector.center
    assert needle.path.bounds.y == pytest.approx(y - 0.8 * radius - max(0.6, 0.16 * half), abs=0.05)
    assert needle.path.bounds.center[0] == pytest.approx(x, abs=0.05)


@pytest.mark.parametrize("how", [{"helper": True}, {"rows": {0: Row(hidden=True)}}, {}])
def test_a_needle_is_seen_unless_it_helps_or_is_hidden(how: dict[str, Any]) -> None:
    frame = Polar(start=-90.0, sweep=180.0, shown=180.0, hole=0.5, scale=Scale(minimum=0.0, maximum=50.0))
    rows = table(["n", "v", "angle"], ["a"], [25], [0])
    layer = Needle("k", "needle", "c3", row=0, figures="c2", **how)
    (mark,) = free(Chart(frame, (layer,), names="c1"), rows, Size(500, 400)).figure.marks
    assert mark.visible == (not how)
    assert bool(mark.items) == (not how)


@pytest.mark.parametrize(("past", "out"), [(0, 0.0), (1, 8.0), (-1, 8.0)])
def test_a_needle_beyond_its_scale_has_room_for_its_arrow(past: int, out: float) -> None:
    nothing: Any = None  # neither chart nor disc matter
    needle = Needle("k", "needle", "c3", past=past)
    assert kind_of(needle).margins(needle, nothing, nothing) == (0.0, out)


# Areas


@BOTH
def test_an_area_lies_between_its_figures_and_zero(lying: bool) -> None:
    figure = made(Area("a", "a", "c2", width=2.0), lying=lying)
    body, line = shapes(of(figure, "a")[0])
    upper, lower = points(body)[:4], points(body)[4:]
    heights = [x if lying else y for x, y in upper]
    assert heights == pytest.approx([along(figure, value, lying) for value in (10, 40, 20, 30)])
    assert [x if lying else y for x, y in lower] == pytest.approx(4 * [along(figure, 0, lying)])
    assert points(line) == upper
    assert (line.fill, line.edge_width) == (None, 2)
    assert body.clip is None
    assert [len(shapes(mark)) for mark in of(figure, "a")] == [2, 0, 0, 0]


def test_an_area_is_cut_at_the_plot_only_where_it_leaves_it() -> None:
    body = shapes(of(made(Area("a", "a", "c4")), "a")[0])[0]
    assert body.clip is not None
    marks = of(made(Area("a", "a", "c4")), "a")
    assert [mark.beyond for mark in marks] == [False, True, False, False]
    assert shapes(of(made(Area("a", "a", "c3")), "a")[0])[0].clip is None


def test_an_area_is_faded_by_its_own_opacity() -> None:
    faded, full = (shapes(of(made(Area("a", "a", "c2", opacity=share)), "a")[0])[0].fill for share in (0.4, 1.0))
    assert faded is not None
    assert full is not None
    assert (faded.alpha, full.alpha) == pytest.approx((0.4, 1.0))  # type: ignore[union-attr]
    assert [*faded.rgb] == [*full.rgb]  # type: ignore[union-attr]


@BOTH
def test_a_figure_without_neighbours_stands_as_a_narrow_column(lying: bool) -> None:
    rows = table(["n", "v"], ["a", "b", "c"], [10, "", 20])
    figure = made(Area("a", "a", "c2"), lying=lying, rows=rows)
    for mark, value in zip(of(figure, "a"), (10, 20), strict=True):
        box = shapes(mark)[0].path.bounds
        assert (box.height if lying else box.width) == pytest.approx(8)
        assert (box.right if lying else box.y) == pytest.approx(along(figure, value, lying))
        assert box.center[1 if lying else 0] == pytest.approx(mark.bounds.center[1 if lying else 0])


# Bands


@BOTH
def test_a_band_lies_over_the_whole_plot(lying: bool) -> None:
    figure = made(Bars("b", "b", "c2"), Band("z", "usual", low=12.5, high=37.5, label=Label()), lying=lying)
    (mark,) = of(figure, "z")
    plot, box = figure.plot, mark.bounds
    assert mark.value == 25
    assert (box.x if lying else box.bottom) == pytest.approx(along(figure, 12.5, lying))
    assert (box.right if lying else box.y) == pytest.approx(along(figure, 37.5, lying))
    whole = (plot.y, plot.height) if lying else (plot.x, plot.width)
    assert ((box.y, box.height) if lying else (box.x, box.width)) == pytest.approx(whole)
    (label,) = [text for text in figure.texts if text.kind == "label" and text.key == "z"]
    assert label.text == "usual"
    assert box.right - 1.2 * label.size < label.bounds.right < box.right
    assert box.y < label.bounds.y < box.y + label.size


@BOTH
def test_a_band_that_is_not_on_the_scale_is_not_drawn(lying: bool) -> None:
    figure = made(Bars("b", "b", "c2"), Band("z", "beyond", low=60.0, high=80.0, label=Label()), lying=lying)
    (mark,) = of(figure, "z")
    assert (mark.visible, mark.items) == (False, ())
    assert not [text for text in figure.texts if text.key == "z" and text.kind == "label"]


# Joins


@BOTH
def test_joins_fill_the_gap_between_two_bars(lying: bool) -> None:
    figure = made(Bars("b", "b", "c2"), Flanks("f", "join", of="b"), lying=lying)
    bars, joins = of(figure, "b"), of(figure, "f")
    assert [mark.row for mark in joins] == [1, 2, 3]
    assert [mark.value for mark in joins] == [40, 20, 30]
    for row, join in enumerate(joins):
        before, after = bars[row].bounds, bars[row + 1].bounds
        box = join.bounds
        if lying:
            assert (box.y, box.bottom) == pytest.approx((before.bottom, after.y))
            assert box.right == pytest.approx(max(before.right, after.right))
        else:
            assert (box.x, box.right) == pytest.approx((before.right, after.x))
            assert box.y == pytest.approx(min(before.y, after.y))


@BOTH
def test_lines_join_one_bar_with_the_next_at_the_column_s_height(lying: bool) -> None:
    lines = Flanks("f", "level", "c3", form="line", edge_width=3.0)
    figure = made(Bars("b", "b", "c2"), lines, lying=lying)
    bars, joins = of(figure, "b"), of(figure, "f")
    assert [mark.value for mark in joins] == [5, 35, 12]
    for row, join in enumerate(joins):
        at = along(figure, (5, 35, 12)[row], lying)
        before, after, box = bars[row].bounds, bars[row + 1].bounds, join.bounds
        wanted = (at - 1.5, before.bottom, at + 1.5, after.y) if lying else (before.right, at - 1.5, after.x, at + 1.5)
        assert (box.x, box.y, box.right, box.bottom) == pytest.approx(wanted)


# Beyond the scale


@BOTH
def test_an_arrow_at_the_edge_stands_for_what_lies_beyond(lying: bool) -> None:
    rows = table(["n", "v"], ["a", "b"], [80, -30])
    figure = made(Points("p", "p", "c2", label=Label()), lying=lying, rows=rows)
    plot, (over, under) = figure.plot, of(figure, "p")
    assert (over.beyond, under.beyond) == (True, True)
    assert (over.value, under.value) == (80, -30)
    for mark in (over, under):
        sides = sorted((mark.bounds.width, mark.bounds.height))
        assert sides == pytest.approx(sorted((LONG, 1.1 * LONG)))
    if lying:
        assert (over.bounds.right, under.bounds.x) == pytest.approx((plot.right, plot.x))
    else:
        assert (over.bounds.y, under.bounds.bottom) == pytest.approx((plot.y, plot.bottom))
    said = {text.row: text for text in figure.texts if text.kind == "label"}
    assert (said[0].text, said[1].text) == ("80", "\u221230")
    for mark, row in ((over, 0), (under, 1)):
        label = said[row].bounds
        if lying:
            assert label.center[1] == pytest.approx(mark.bounds.center[1], abs=0.15 * said[row].size)
            gap = mark.bounds.x - label.right if row == 0 else label.x - mark.bounds.right
            assert gap == pytest.approx(0.4 * said[row].size, abs=0.2 * said[row].size)
        else:
            tip = mark.bounds.y if row == 0 else mark.bounds.bottom
            inward = 1 if row == 0 else -1
            assert label.center[1] - tip == pytest.approx(0.45 * inward * said[row].size, abs=0.15 * said[row].size)
            assert label.x - mark.bounds.center[0] == pytest.approx(0.6 * said[row].size, abs=0.1 * said[row].size)


def test_a_bar_beyond_is_broken_and_a_line_leaves_the_plot() -> None:
    rows = table(["n", "v"], ["a", "b", "c"], [20, 90, 30])
    bar = of(made(Bars("b", "b", "c2"), rows=rows), "b")[1]
    assert bar.block is not None
    assert bar.block.broken
    line = of(made(Line("l", "l", "c2"), rows=rows), "l")
    assert [mark.beyond for mark in line] == [False, True, False]


# Cells


@pytest.mark.parametrize("wrap", [1, 2, 4, 0])
def test_cells_go_on_in_another_line_where_one_is_full(wrap: int) -> None:
    rows = table(["n", "v"], ["a"], [6])
    figure = made(Cells("c", "c", "c2", wrap=wrap), rows=rows, along=Scale(visible=False))
    (mark,) = [one for one in of(figure, "c") if one.row == 0]
    assert mark.path is not None
    boxes = boxes_of(mark.path)
    columns = {round(box.x, 3) for box in boxes}
    lines = {round(box.y, 3) for box in boxes}
    per_line = wrap or 6
    assert len(boxes) == 6
    assert len(lines) == min(6, per_line)
    assert len(columns) == math.ceil(6 / per_line)


@BOTH
@pytest.mark.parametrize("wrap", [0, 1, 2])
def test_cells_are_squares_as_large_as_rows_and_scale_leave(lying: bool, wrap: int) -> None:
    rows = table(["n", "v"], list("abcde"), [6, 1, 2, 3, 4])
    figure = made(Cells("c", "c", "c2", wrap=wrap, gap=0.0), lying=lying, rows=rows, along=Scale(visible=False))
    long, across = figure.plot.width, figure.plot.height
    if not lying:
        long, across = across, long
    per_line = wrap or 6
    side = min(long / per_line, across / 5 / 1.5 / math.ceil(6 / per_line))
    (mark,) = [one for one in of(figure, "c") if one.row == 0]
    assert mark.path is not None
    assert {(round(box.width, 3), round(box.height, 3)) for box in boxes_of(mark.path)} == {(round(side, 3),) * 2}


def boxes_of(path: Path) -> list[Rect]:
    """The boxes of the closed outlines that a path holds."""
    found: list[Rect] = []
    at, places, held = 0, path.coordinates, list[tuple[float, float]]()
    for verb in path.verbs:
        count = {"M": 1, "L": 1, "C": 3}.get(verb, 0)
        held += [(places[2 * i], places[2 * i + 1]) for i in range(at, at + count)]
        at += count
        if verb == "Z":
            found.append(Rect.around(held))
            held = []
    return found


# Ranges


@BOTH
def test_a_whisker_has_caps_only_at_ends_that_are_on_the_scale(lying: bool) -> None:
    figure = made(Ranges("r", "r", low="c3", high="c4", cap=10.0), lying=lying)
    first, second = of(figure, "r")[:2]
    assert (first.bounds.height if lying else first.bounds.width) == pytest.approx(10)
    (shape,) = shapes(first)
    assert shape.path.verbs.count("M") == 3
    assert shapes(second)[0].path.verbs.count("M") == 2  # its upper end lies beyond
    box = shape.path.bounds
    assert (box.x if lying else box.bottom) == pytest.approx(along(figure, 5, lying))
    assert (box.right if lying else box.y) == pytest.approx(along(figure, 15, lying))
    assert (box.height if lying else box.width) == pytest.approx(10)


@BOTH
def test_a_range_as_a_bar_is_as_broad_as_its_cap(lying: bool) -> None:
    figure = made(Ranges("r", "r", low="c3", high="c4", form="bar", cap=12.0), lying=lying)
    box = shapes(of(figure, "r")[0])[0].path.bounds
    middle = of(made(Points("p", "p", "c2"), lying=lying), "p")[0].bounds.center
    assert (box.height if lying else box.width) == pytest.approx(12)
    assert box.center[1 if lying else 0] == pytest.approx(middle[1 if lying else 0])
    thin = shapes(of(made(Ranges("r", "r", low="c3", high="c4", form="bar", cap=0.2), lying=lying), "r")[0])[0]
    assert (thin.path.bounds.height if lying else thin.path.bounds.width) == pytest.approx(1)


# Symbols that ride on bars


@BOTH
@pytest.mark.parametrize(("value", "fits"), [(40, True), (4, False)])
def test_a_symbol_rides_inside_the_end_of_its_bar_or_beyond_a_short_one(lying: bool, value: float, fits: bool) -> None:
    rows = table(["n", "v"], ["a", "b"], [value, 50])
    rider = Points("p", "p", "c2", size=20.0, ride=True, padding=5.0, on="b")
    figure = made(Bars("b", "b", "c2"), rider, lying=lying, rows=rows)
    end, middle = along(figure, value, lying), of(figure, "p")[0].bounds.center[0 if lying else 1]
    inward = -1 if lying else 1
    assert middle - end == pytest.approx(inward * 15 if fits else -inward * 15)
    last = of(figure, "p")[1].bounds
    assert figure.plot.x <= last.x <= last.right <= figure.plot.right + 0.01
    assert figure.plot.y - 0.01 <= last.y <= last.bottom <= figure.plot.bottom


# What rows are filled with


def fills(**fields: Any) -> list[Any]:
    return [shapes(mark)[0].fill for mark in of(made(Bars("b", "b", "c2", **fields)), "b")]


def test_shades_in_order_fade_from_row_to_row() -> None:
    light = [oklab(colour)[0] for colour in fills(shades="in order", fill="tone1")]
    assert light == sorted(light)
    assert len(set(light)) == 4
    by_value = [oklab(colour)[0] for colour in fills(shades="one hue", fill="tone1")]
    assert by_value.index(min(by_value)) == 1  # the largest is the strongest
    assert by_value.index(max(by_value)) == 0


def test_only_plain_colours_are_shaded() -> None:
    assert len(set(fills(fill="tone1"))) == 1
    hatched = fills(fill=HatchFill(colour="tone2"), shades="one hue")
    assert all(isinstance(one, Hatch) for one in hatched)
    assert len({one.colour for one in hatched}) == 1


@BOTH
def test_a_gradient_runs_the_way_values_grow(lying: bool) -> None:
    fill = GradientFill(colours=("tone1", "tone2"))
    for layer in (Area("v", "v", "c2", fill=fill), Bars("v", "v", "c2", fill=fill)):
        paint = shapes(of(made(layer, lying=lying), "v")[0])[0].fill
        assert isinstance(paint, LinearGradient)
        assert (abs(paint.x2 - paint.x1) > abs(paint.y2 - paint.y1)) == lying


# Lines


def test_a_line_has_its_course_once_and_spots_only_where_it_is_told() -> None:
    plain, spotted = (of(made(Line("l", "l", "c2", spot=spot)), "l") for spot in ("none", "disc"))  # type: ignore[arg-type]
    assert [len(mark.items) for mark in plain] == [1, 0, 0, 0]
    assert [len(mark.items) for mark in spotted] == [2, 1, 1, 1]
    assert all(shape.path.verbs for mark in (*plain, *spotted) for shape in shapes(mark))
    for mark in (*plain, *spotted):  # what can be touched is there in either
        assert mark.path is not None
        assert mark.path.bounds.width >= 6
        assert mark.path.bounds.center == pytest.approx(mark.bounds.center)


def test_joins_of_no_bars_and_without_a_gap_are_none() -> None:
    assert of(made(Bars("b", "b", "c2"), Flanks("f", "join", of="nothing")), "f") == []
    assert of(made(Bars("b", "b", "c2"), Flanks("f", "join", of="b"), gap_width=0.0), "f") == []
    assert of(made(Bars("b", "b", "c2"), Flanks("f", "level", "c3", form="line"), gap_width=0.0), "f") == []


# Bars


def test_a_cap_cuts_shares_too() -> None:
    rows = table(["n", "v"], ["a", "b", "c"], [0.2, 0.9, -0.8])
    capped = Scale(cap=0.5, visible=False)
    marks = of(made(Bars("b", "b", "c2"), rows=rows, along=capped), "b")
    assert [mark.block is not None and mark.block.broken for mark in marks] == [False, True, False]


@BOTH
def test_the_label_of_a_tapered_bar_stands_in_its_middle(lying: bool) -> None:
    rows = table(["n", "v"], ["a", "b", "c"], [50, 40, 30])
    label = Label(position="middle")
    figure = made(Bars("b", "b", "c2", form="tapered", label=label), lying=lying, rows=rows)
    said = {text.row: text.bounds for text in figure.texts if text.kind == "label"}
    for mark in of(figure, "b"):
        x, y = mark.bounds.center
        assert said[mark.row].center[1 if lying else 0] == pytest.approx(y if lying else x, abs=2)
        assert mark.bounds.x <= said[mark.row].center[0] <= mark.bounds.right
        assert mark.bounds.y <= said[mark.row].center[1] <= mark.bounds.bottom


def test_cells_of_whole_figures_fill_the_scale() -> None:
    rows = table(["n", "v"], ["a", "b", "c", "d", "e"], [3, 1, 2, 3, 3])
    figure = made(Cells("c", "c", "c2", gap=0.0), rows=rows, along=Scale(visible=False))
    tallest = next(mark for mark in of(figure, "c") if mark.row == 0)
    assert tallest.bounds.height == pytest.approx(min(figure.plot.height, 3 * tallest.bounds.width), abs=0.5)
    assert tallest.bounds.width == pytest.approx(tallest.bounds.height / 3, abs=0.5)


def test_cells_take_the_symbol_that_their_row_names() -> None:
    rows = table(["n", "v", "what"], ["a", "b", "c"], [2, 2, 2], ["tree", "walker", "nothing known"])
    figure = made(Cells("c", "c", "c2", symbol="bird", symbols="c3"), rows=rows)
    named = [{item.name for item in mark.items if isinstance(item, Stamp)} for mark in of(figure, "c")]
    assert named == [{"tree"}, {"walker"}, {"bird"}]


@BOTH
@pytest.mark.parametrize("cap", [6.0, 14.0])
def test_a_range_as_a_bar_lies_in_the_middle_of_its_row(lying: bool, cap: float) -> None:
    figure = made(Ranges("r", "r", "c2", low="c3", high="c4", form="bar", cap=cap), lying=lying)
    whole = figure.plot.height if lying else figure.plot.width
    first = figure.plot.y if lying else figure.plot.x
    for at, mark in enumerate(of(figure, "r")):
        (body,) = shapes(mark)
        bounds = body.path.bounds
        middle, broad = (bounds.center[1], bounds.height) if lying else (bounds.center[0], bounds.width)
        assert broad == pytest.approx(cap)
        assert middle == pytest.approx(first + (at + 0.5) * whole / 4)
        low, high = (along(figure, float(ROWS[at + 1][column]), lying) for column in (2, 3))  # type: ignore[arg-type]
        ends = (bounds.x, bounds.right) if lying else (bounds.bottom, bounds.y)
        limit = along(figure, 50.0, lying)
        assert ends == pytest.approx((low, min(high, limit) if lying else max(high, limit)), abs=0.6)


@BOTH
def test_a_symbol_that_rides_at_nothing_stands_where_values_grow(lying: bool) -> None:
    rows = table(["n", "v"], ["a", "b"], [0, 40])
    figure = made(Points("p", "p", "c2", ride=True, size=12.0, padding=3.0), lying=lying, rows=rows)
    zero, bounds = along(figure, 0.0, lying), of(figure, "p")[0].bounds
    near, far = (bounds.x, bounds.right) if lying else (bounds.bottom, bounds.y)
    assert abs(near - zero) == pytest.approx(3.0)
    assert (far - zero) * (1 if lying else -1) == pytest.approx(15.0)


def test_a_radial_gradient_in_slices_runs_from_the_middle_of_the_disc() -> None:
    fill = GradientFill(("tone1", "tone3"), run="radial")
    layer = Wedges("w", "w", "c2", fill=fill)
    figure = free(Chart(Polar(), (layer,), names="c1"), ROWS, Size(400, 300)).figure
    for mark in figure.marks:
        assert mark.sector is not None
        for shape in shapes(mark):
            assert isinstance(shape.fill, RadialGradient)
            assert (shape.fill.x, shape.fill.y) == pytest.approx(mark.sector.center)
            assert shape.fill.radius == pytest.approx(mark.sector.outer, rel=0.5)


def test_marks_tell_their_layer_and_its_place_from_the_back() -> None:
    figure = made(Bars("v", "Walks", "c2"), Line("l", "Low", "c3", helper=True), Points("p", "High", "c4"))
    found = {mark.key: (mark.layer, mark.series, mark.helper) for mark in figure.marks}
    assert found == {"v": ("Walks", 0, False), "l": ("Low", 1, True), "p": ("High", 2, False)}
    assert all(mark.says == "" for mark in figure.marks if not mark.visible)
    assert [mark.says for mark in of(figure, "v")] == ["a: 10", "b: 40", "c: 20", "d: 30"]
