"""Planes, discs and fields: where rows, rims and cells stand, reckoned by hand."""

import datetime
import itertools
import math
from typing import Any

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Grid, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.points import Points
from kavlet.core.charts.rings import Rings
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.wedges import Wedges
from kavlet.core.layout.figure import Figure
from kavlet.core.layout.planes import ticks
from kavlet.core.layout.planes.field import GridField
from kavlet.core.layout.planes.plane import BROADEST, Plane, sized_rows
from kavlet.core.layout.planes.scales import fixed_scale
from kavlet.core.scene.primitives import Shape
from kavlet.core.spreadsheet.cells import EPOCH
from kavlet.core.values.geometry import Rect, Size
from tests.making import free, table

ROWS = table(["n", "v", "x"], ["a", "b", "c"], [10, 40, 20], [98, 100, 102])
PLOT = Rect(100.0, 50.0, 300.0, 200.0)
TEN = fixed_scale(Scale(minimum=0.0, maximum=10.0), None, 200.0)


def plane(lying: bool = False, backward: bool = False) -> Plane:
    """Three rows of 40 points with 20 between them, the first 15 after the plot's side."""
    return Plane(PLOT, lying, TEN, None, TEN, 3, 40.0, 20.0, 15.0, backward, {"b": (5.0, 12.0)})


def made(*layers: Any, frame: Any, rows: Any = ROWS, size: Size | None = None) -> Figure:
    return free(Chart(frame, layers, names="c1"), rows, size or Size(400, 300)).figure


def test_rows_follow_each_other_from_either_side() -> None:
    assert [plane().row_start(row) for row in range(3)] == [115, 175, 235]
    assert [plane(backward=True).row_start(row) for row in range(3)] == [235, 175, 115]
    assert [plane(lying=True).row_start(row) for row in range(3)] == [65, 125, 185]
    assert plane().row_middle(1) == 195
    assert plane().pitch == 60


def test_values_grow_upward_or_to_the_right() -> None:
    assert (plane().along(0.0), plane().along(10.0), plane().along(2.5)) == (250, 50, 200)
    assert (plane(lying=True).along(0.0), plane(lying=True).along(2.5)) == (100, 175)
    assert (plane().across_value(2.5), plane(lying=True).across_value(2.5)) == (175, 200)
    assert plane().box(110, 40, 250, 200) == Rect(110, 200, 40, 50)
    assert plane(lying=True).box(110, 40, 175, 100) == Rect(100, 110, 75, 40)


@pytest.mark.parametrize("gap", [10.0, 60.0, 100.0, 300.0])
def test_few_rows_make_no_broader_bars_than_the_broadest(gap: float) -> None:
    group, between, lead, bar = sized_rows(Cartesian(gap_width=gap), 1200.0, 2, 1)
    assert (group, bar) == (BROADEST, BROADEST)
    assert 2 * (group + between) == pytest.approx(1200)
    assert lead == pytest.approx(between / 2)
    flush = sized_rows(Cartesian(gap_width=gap, flush=True), 1200.0, 2, 1)
    assert flush[1] == pytest.approx(gap / 100 * BROADEST)
    assert 2 * flush[2] + 2 * flush[0] + flush[1] == pytest.approx(1200)


def test_bars_without_a_gap_fill_all_of_it() -> None:
    assert sized_rows(Cartesian(gap_width=0.0), 1200.0, 2, 1) == (600, 0, 0, 600)
    assert sized_rows(Cartesian(gap_width=50.0), 300.0, 0, 1)[3] == 300
    group, between, lead, bar = sized_rows(Cartesian(gap_width=50.0, overlap=50.0), 400.0, 5, 3)
    assert bar == pytest.approx(400 / (5 * 2 + 5 * 0.5))
    assert (group, between, lead) == pytest.approx((2 * bar, 0.5 * bar, 0.25 * bar))


# Fields


def test_a_field_has_rows_times_columns_square_cells() -> None:
    field = GridField(Rect(10, 20, 60, 40), Grid(rows=2, columns=3, corner="top left"))
    assert field.count == 6
    assert [field.cell(i) for i in (0, 2, 3)] == [Rect(10, 20, 20, 20), Rect(50, 20, 20, 20), Rect(10, 40, 20, 20)]
    assert GridField(Rect(0, 0, 7, 1), Grid(rows=1, columns=7)).count == 7
    assert GridField(Rect(0, 0, 1, 5), Grid(rows=5, columns=1)).count == 5


@pytest.mark.parametrize(
    ("corner", "by", "second"),
    [
        ("top right", "rows", Rect(30, 20, 20, 20)), ("bottom left", "rows", Rect(30, 40, 20, 20)),
        ("bottom right", "columns", Rect(50, 20, 20, 20)), ("top left", "columns", Rect(10, 40, 20, 20)),
    ],
)  # fmt: skip
def test_cells_are_filled_from_their_corner(corner: Any, by: Any, second: Rect) -> None:
    assert GridField(Rect(10, 20, 60, 40), Grid(rows=2, columns=3, by=by, corner=corner)).cell(1) == second


@pytest.mark.parametrize(("rows", "columns"), [(1, 8), (2, 4), (6, 2)])
def test_a_field_is_as_large_as_it_can_be_and_in_the_middle_of_its_height(rows: int, columns: int) -> None:
    figure = made(Cells("v", "v", "c2"), frame=Grid(rows=rows, columns=columns), rows=table(["n", "v"], ["a"], [3]))
    boxes = [mark.bounds for mark in figure.marks]
    top, bottom = min(box.y for box in boxes), max(box.bottom for box in boxes)
    plot = figure.plot
    assert plot.width / columns == pytest.approx(plot.height / rows)
    assert plot.center[1] == pytest.approx(150)
    assert 0 <= plot.x <= plot.right <= 400
    assert 0 <= plot.y <= plot.bottom <= 300
    assert max(plot.width / 360, plot.height / 260) > 0.95  # one of its sides fills its place
    assert plot.y - 0.1 <= top <= bottom <= plot.bottom + 0.1


# Discs


def disc_of(figure: Figure) -> tuple[float, float, float]:
    """The centre and the radius of the largest sector."""
    sector = max((mark.sector for mark in figure.marks if mark.sector), key=lambda one: one.outer)
    return *sector.center, sector.outer


@pytest.mark.parametrize(
    ("start", "shown", "low", "high", "wide"),
    [
        (0.0, 360.0, (-1, -1), (1, 1), 2.0), (-90.0, 180.0, (-1, -1), (1, 0), 2.0),
        (0.0, 90.0, (0, -1), (1, 0), 1.0), (90.0, 180.0, (-1, 0), (1, 1), 2.0),
    ],
)  # fmt: skip
def test_what_is_shown_of_a_disc_fills_the_room(start: float, shown: float, low: Any, high: Any, wide: float) -> None:
    frame = Polar(start=start, sweep=shown, shown=shown)
    x, y, radius = disc_of(made(Wedges("v", "v", "c2", gap=0.0), frame=frame, size=Size(400, 400)))
    room = Rect.around([(x + radius * low[0], y + radius * low[1]), (x + radius * high[0], y + radius * high[1])])
    assert room.center == pytest.approx((200, 200), abs=22)  # the legend or nothing beside it
    assert wide * radius <= 400


def test_a_slice_drawn_out_makes_room_for_itself() -> None:
    plain = disc_of(made(Wedges("v", "v", "c2"), frame=Polar(), size=Size(400, 400)))[2]
    out = disc_of(made(Wedges("v", "v", "c2", explode=0.25), frame=Polar(), size=Size(400, 400)))[2]
    assert out == pytest.approx(plain / 1.25)
    far = disc_of(made(Wedges("v", "v", "c2", explode=3.0), frame=Polar(), size=Size(400, 400)))[2]
    assert far == pytest.approx(plain / 2)


def test_rings_share_the_radius_and_leave_the_hole() -> None:
    figure = made(Rings("v", "v", "c2", named=False), frame=Polar(hole=0.4, ring_gap=3.0), size=Size(400, 400))
    found = sorted((mark.sector for mark in figure.marks if mark.sector), key=lambda one: one.inner)
    assert len(found) == 3
    radius = found[-1].outer
    assert found[0].inner == pytest.approx(0.4 * radius, rel=0.05)
    assert {round(one.outer - one.inner, 6) for one in found} == {round(found[0].outer - found[0].inner, 6)}
    assert found[1].inner - found[0].outer == pytest.approx(3)


@pytest.mark.parametrize("maximum", [50.0, 100.0])
def test_a_rim_has_its_ticks_outside_and_their_texts_beyond(maximum: float) -> None:
    scale = Scale(minimum=0.0, maximum=maximum, visible=True)
    frame = Polar(start=-90.0, sweep=180.0, shown=180.0, hole=0.5, scale=scale)
    figure = made(Rings("v", "v", "c2"), frame=frame)
    (axis,) = figure.axes
    assert (axis.minimum, axis.maximum) == (0, maximum)
    x, y, radius = disc_of(figure)
    lines = [rule for rule in figure.over if rule.kind == "tick"]
    texts = [text for text in figure.texts if text.kind == "tick"]
    assert len(lines) == len(texts) == len(axis.ticks)
    size = texts[0].size
    for rule, text, value in zip(lines, texts, axis.ticks, strict=True):
        angle = math.radians(-90 + 180 * value / maximum)
        inner, outer = math.hypot(rule.x1 - x, rule.y1 - y), math.hypot(rule.x2 - x, rule.y2 - y)
        assert (inner, outer) == pytest.approx((radius + 0.18 * size, radius + 0.5 * size), abs=0.5 * size)
        assert outer - inner == pytest.approx(0.32 * size)
        assert (rule.x2 - x, rule.y2 - y) == pytest.approx((outer * math.sin(angle), -outer * math.cos(angle)))
        assert math.hypot(*(a - b for a, b in zip(text.bounds.center, (x, y), strict=True))) > outer


@pytest.mark.parametrize("size", [Size(600, 300), Size(300, 500), Size(400, 400)])
def test_labels_around_a_disc_stand_on_the_sheet(size: Size) -> None:
    label = Label(template="{name}\n{value}", position="outside")
    frame = Polar(start=10.0)
    figure = made(Wedges("v", "v", "c2", label=label), frame=frame, size=size)
    found = [text.bounds for text in figure.texts if text.kind == "label"]
    assert len(found) == 3
    for box in found:
        assert box.x >= 0
        assert box.y >= 0
        assert box.right <= size.width
        assert box.bottom <= size.height
    _, y, radius = disc_of(figure)
    height = found[0].height
    assert y - radius > height / 2
    assert y + radius < size.height - height / 2


def test_a_second_scale_needs_a_layer_that_is_seen_on_it() -> None:
    frame = Cartesian(second=Scale(title="more"))
    only = made(Bars("v", "v", "c2"), frame=frame)
    hidden = made(Bars("v", "v", "c2"), Points("p", "p", "c2", second=True, hidden=True), frame=frame)
    both = made(Bars("v", "v", "c2"), Points("p", "p", "c2", second=True), frame=frame)
    assert [axis.name for axis in only.axes] == [axis.name for axis in hidden.axes] == ["y"]
    assert {axis.name for axis in both.axes} == {"y", "y2"}
    assert both.plot.width < only.plot.width == hidden.plot.width


# How far scales reach


def test_figures_on_both_axes_have_a_little_air() -> None:
    frame = Cartesian(across=Scale(zero=False), along=Scale(zero=False))
    figure = made(Points("p", "p", "c2", x="c3"), frame=frame)
    ends = {axis.name: (axis.minimum, axis.maximum) for axis in figure.axes}
    assert 90 <= ends["x"][0] < 98
    assert 102 < ends["x"][1] <= 110
    assert ends["y"][0] < 10
    assert 40 < ends["y"][1] <= 50


def test_figures_above_zero_are_given_no_air_below_it() -> None:
    rows = table(["n", "v", "x"], ["a", "b"], [1, 40], [0.5, 60])
    frame = Cartesian(across=Scale(zero=False), along=Scale(zero=False))
    ends = {axis.name: axis.minimum for axis in made(Points("p", "p", "c2", x="c3"), frame=frame, rows=rows).axes}
    assert ends == {"x": 0, "y": 0}


def test_discs_at_the_ends_of_a_scale_stand_on_the_plot() -> None:
    frame = Cartesian(across=Scale(zero=False), along=Scale(zero=False))
    figure = made(Bubbles("b", "b", "c2", x="c3", sizes="c2", largest=0.4), frame=frame)
    plot = figure.plot
    for mark in figure.marks:
        assert plot.x - 0.01 <= mark.bounds.x <= mark.bounds.right <= plot.right + 0.01
        assert plot.y - 0.01 <= mark.bounds.y <= mark.bounds.bottom <= plot.bottom + 0.01


def test_bars_are_as_thick_as_they_are_asked_to_be() -> None:
    frame = Cartesian(gap_width=50.0, along=Scale(minimum=0.0, maximum=50.0, visible=False))
    whole = made(Bars("v", "v", "c2"), frame=frame).marks[0].bounds
    slim = made(Bars("v", "v", "c2", thickness=0.5), frame=frame).marks[0].bounds
    assert slim.width == pytest.approx(whole.width / 2)
    assert slim.center[0] == pytest.approx(whole.center[0])


# Ticks


def test_a_span_of_nothing_has_no_step() -> None:
    assert ticks.step_125(5.0, 5.0, 4) == 0.0
    assert ticks.step_125(5.0, 4.0, 4) == 0.0
    assert ticks.step_125(0.0, 4.0, 4) == 1.0


def test_weeks_begin_on_mondays_and_days_at_any() -> None:
    """Day 2 is 1 January 1900, a Monday; 45,658 is 1 January 2025, a Wednesday."""
    weeks = ticks.dates(45_658.0, 45_658.0 + 40.0, 6)
    assert len(weeks) >= 4
    assert {day % 7 for day in weeks} == {2.0}
    assert {b - a for a, b in itertools.pairwise(weeks)} <= {7.0, 14.0}
    assert weeks[0] == 45_663.0
    days = ticks.dates(45_657.0, 45_661.0, 5)
    assert days == [45_657.0, 45_658.0, 45_659.0, 45_660.0, 45_661.0]


@pytest.mark.parametrize("figures", [(0.0, 0.0), (-5.0, 0.0), (0.0, 500.0), (2.0, 3.0)])
def test_a_logarithmic_scale_begins_above_zero_and_spans_a_power_of_ten(figures: tuple[float, float]) -> None:
    made_ = fixed_scale(Scale(kind="log"), figures, 200.0)
    assert 0 < made_.minimum < made_.maximum
    assert math.log10(made_.minimum) == pytest.approx(round(math.log10(made_.minimum)))
    assert made_.maximum >= max(figures[1], 10 * made_.minimum - 1e-9)


@pytest.mark.parametrize(("high", "style"), [(4e-9, "exponent"), (4.0, "number"), (4e20, "exponent"), (0.04, "number")])
def test_ticks_of_very_large_and_small_figures_are_powers(high: float, style: str) -> None:
    assert fixed_scale(Scale(), (0.0, high), 200.0).number.style == style


def test_a_rim_that_is_not_seen_has_neither_ticks_nor_texts() -> None:
    scale = Scale(minimum=0.0, maximum=50.0, visible=False)
    figure = made(Rings("v", "v", "c2"), frame=Polar(start=-90.0, sweep=180.0, shown=180.0, hole=0.5, scale=scale))
    assert not [rule for rule in figure.over if rule.kind == "tick"]
    assert not [text for text in figure.texts if text.kind == "tick"]


def test_a_legend_of_shades_shows_the_middle_of_each() -> None:
    rows = table(["n", "v"], list("abcd"), [0, 10, 20, 40])
    layer = Bars("v", "v", "c2", shades="one hue", shade_steps=4)
    chart = Chart(Cartesian(along=Scale(visible=False)), (layer,), names="c1", legend=Legend(side="right"))
    figure = free(chart, rows, Size(400, 300)).figure
    keys = [key.items[0] for key in figure.keys]
    bars = {mark.value: mark.fill for mark in figure.marks}
    assert len(keys) == 4
    tones = [item.fill for item in keys if isinstance(item, Shape)]
    assert tones[0] == bars[0.0]
    assert tones[3] == bars[40.0]
    assert len(set(map(str, tones))) == 4


def test_multiples_need_a_step_and_an_end() -> None:
    assert ticks.multiples(0.0, 10.0, 0.0) == []
    assert ticks.multiples(0.0, 10.0, 5.0) == [0.0, 5.0, 10.0]
    assert len(ticks.multiples(0.0, float(ticks.MAX_TICKS), 1.0)) == ticks.MAX_TICKS + 1
    assert ticks.multiples(0.0, ticks.MAX_TICKS + 1.0, 1.0) == []


def test_months_begin_with_the_year() -> None:
    """45,658 is 1 January 2025; quarters and halves are those of the calendar."""
    for until, starts in ((400.0, {1, 3, 5, 7, 9, 11}), (800.0, {1, 4, 7, 10})):
        found = [EPOCH + datetime.timedelta(days=day) for day in ticks.dates(45_658.0 + 20.0, 45_658.0 + until, 7)]
        assert len(found) >= 4
        assert {day.day for day in found} == {1}
        assert {day.month for day in found} <= starts


def test_a_logarithmic_scale_whose_ends_are_one_ends_at_the_next_power() -> None:
    made_ = fixed_scale(Scale(kind="log", minimum=10.0, maximum=10.0), (20.0, 50.0), 200.0)
    assert (made_.minimum, made_.maximum) == (10.0, 1000.0)
