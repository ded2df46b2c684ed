"""Axes: ticks of dates and powers, cut and turned scales, bands, crowded names."""

import itertools
import math
from datetime import date

import pytest

from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.planes import ticks
from kavlet.core.layout.planes.scales import fixed_scale
from kavlet.core.spreadsheet.cells import EPOCH
from kavlet.core.values.number_text import PLAIN, NumberText
from tests.making import document, draw, free, marks, table
from tests.typesetting import faults

ROWS = table(["site", "count"], ["A", "B", "C"], [2, 30, 400])


def day(year: int, month: int, of_month: int) -> float:
    return float((date(year, month, of_month) - EPOCH).days)


def named(found: list[float]) -> list[date]:
    return [date.fromordinal(EPOCH.toordinal() + int(tick)) for tick in found]


def test_a_few_weeks_are_ticked_by_mondays() -> None:
    found = named(ticks.dates(day(2026, 1, 8), day(2026, 2, 20), 7))
    assert found[0] == date(2026, 1, 12)
    assert {one.weekday() for one in found} == {0}
    assert {(b - a).days for a, b in itertools.pairwise(found)} == {7}


def test_a_few_days_are_ticked_one_by_one() -> None:
    found = named(ticks.dates(day(2026, 2, 26), day(2026, 3, 3), 7))
    assert [one.day for one in found] == [26, 27, 28, 1, 2, 3]


@pytest.mark.parametrize(
    ("start", "end", "months"),
    [((2026, 1, 5), (2026, 5, 20), 1), ((2025, 2, 5), (2026, 6, 1), 3), ((2010, 3, 1), (2026, 1, 1), 60)],
)
def test_longer_spans_are_ticked_by_firsts_of_months(
    start: tuple[int, int, int], end: tuple[int, int, int], months: int
) -> None:
    found = named(ticks.dates(day(*start), day(*end), 6))
    assert len(found) >= 2
    assert all(one.day == 1 for one in found)
    steps = {(b.year - a.year) * 12 + b.month - a.month for a, b in itertools.pairwise(found)}
    assert steps == {months}
    assert all(date(*start) <= one <= date(*end) for one in found)


def test_powers_of_ten_with_their_two_and_fivefold_where_there_are_few() -> None:
    assert ticks.decades(1, 1e4) == [1, 10, 100, 1000, 10000]
    assert ticks.decades(3, 40) == [5, 10, 20]
    assert len(ticks.decades(1e-6, 1e12)) <= 20


def test_a_log_axis_gives_equal_ways_to_equal_factors() -> None:
    chart = Chart(Cartesian(along=Scale(kind="log", minimum=1.0, maximum=1000.0)), (Bars("v", "v", "c2"),), names="c1")
    tops = [mark.bounds.y for mark in marks(free(chart, ROWS), "v")]
    plot = free(chart, ROWS).figure.plot
    for top, value in zip(tops, (2, 30, 400), strict=True):
        assert (plot.bottom - top) / plot.height == pytest.approx(math.log10(value) / 3, abs=1e-6)


def test_a_log_axis_can_t_show_zero_or_less() -> None:
    rows = table(["site", "count"], ["A", "B", "C", "D"], [0, -5, 10, 100])
    chart = Chart(Cartesian(along=Scale(kind="log")), (Bars("v", "v", "c2"),), names="c1")
    shown = [mark.row for mark in marks(free(chart, rows), "v") if mark.bounds.height > 0]
    assert 2 in shown
    assert 3 in shown
    assert 0 not in shown
    assert math.isnan(fixed_scale(Scale(kind="log"), (1.0, 100.0), 200.0).share(-5.0))


def test_a_reversed_axis_grows_downward() -> None:
    chart = Chart(Cartesian(along=Scale(reversed=True)), (Bars("v", "v", "c2"),), names="c1")
    made = free(chart, ROWS)
    assert all(mark.bounds.y == pytest.approx(made.figure.plot.y) for mark in marks(made, "v"))


def test_minor_gridlines_divide_each_step() -> None:
    axis = fixed_scale(Scale(minor=4, minimum=0.0, maximum=40.0, step=20.0), (0.0, 40.0), 200.0)
    assert axis.ticks == (0, 20, 40)
    assert axis.minors == (5, 10, 15, 25, 30, 35)


@pytest.mark.parametrize("rule", ["125", "heckbert", "extended"])
def test_every_rule_keeps_the_figures_within_the_ends(rule: str) -> None:
    for low, high in ((3.0, 97.0), (-17.0, 4.0), (0.00012, 0.00097), (1e9, 1.0001e9), (5.0, 5.0)):
        axis = fixed_scale(Scale(rule=rule, zero=False), (low, high), 260.0)  # type: ignore[arg-type]
        assert axis.minimum <= low <= high <= axis.maximum
        assert all(axis.minimum - 1e-9 <= tick <= axis.maximum + 1e-9 * abs(axis.maximum) for tick in axis.ticks)


@pytest.mark.parametrize("lying", [False, True])
def test_a_band_lies_over_its_part_of_the_scale(lying: bool) -> None:
    band = Band("b", "usual", low=100.0, high=250.0, label=Label())
    frame = Cartesian(lying=lying, along=Scale(minimum=0.0, maximum=500.0))
    made = free(Chart(frame, (band, Bars("v", "v", "c2")), names="c1"), ROWS)
    box, plot = marks(made, "b")[0].bounds, made.figure.plot
    if lying:
        assert (box.x - plot.x, box.width) == pytest.approx((0.2 * plot.width, 0.3 * plot.width))
        assert box.height == pytest.approx(plot.height)
    else:
        assert (plot.bottom - box.bottom, box.height) == pytest.approx((0.2 * plot.height, 0.3 * plot.height))
        assert box.width == pytest.approx(plot.width)
    assert [text.text for text in made.figure.texts if text.kind == "label"] == ["usual"]


def test_a_band_ends_where_the_scale_ends() -> None:
    band = Band("b", "high", low=300.0, high=9000.0)
    made = free(
        Chart(Cartesian(along=Scale(minimum=0.0, maximum=500.0)), (band, Bars("v", "v", "c2")), names="c1"), ROWS
    )
    assert marks(made, "b")[0].bounds.y == pytest.approx(made.figure.plot.y)


MANY = [f"Station number {i}" for i in range(1, 31)]


@pytest.mark.parametrize("crowded", ["wrap", "skip", "turn"])
def test_crowded_names_never_lie_on_each_other(crowded: str) -> None:
    rows = table(["station", "count"], MANY, list(range(1, 31)))
    made = draw(document("columns", rows), look={"frame.across.crowded": crowded})
    names = [text for text in made.figure.texts if text.kind == "name"]
    assert names
    assert not faults(made, MANY, look=False).keys() & {"on another text", "off the sheet", "names alike"}
    if crowded != "skip":
        assert {text.angle for text in names} == {-45.0}
        assert len(names) == 30
    if crowded == "skip":
        assert len(names) < 30
        assert all(len(text.lines) == 1 for text in names)
        steps = {b.row - a.row for a, b in itertools.pairwise(names)}  # type: ignore[operator]
        assert len(steps) == 1


def test_the_free_end_of_a_scale_with_a_fixed_start_uses_the_step_of_what_is_shown() -> None:
    axis = fixed_scale(Scale(minimum=980.0), (990.0, 1010.0), 260.0)
    assert (axis.minimum, axis.maximum) == (980, 1010)
    assert axis.ticks == (980, 985, 990, 995, 1000, 1005, 1010)


@pytest.mark.parametrize(("low", "high"), [(0.0, 1.7e15), (0.0, 3e-9), (0.0, 2.4e-14), (-4e-7, 9e-7)])
def test_ticks_are_exact_and_written_apart(low: float, high: float) -> None:
    axis = fixed_scale(Scale(), (low, high), 260.0)
    texts = [axis.text(tick, "en") for tick in axis.ticks]
    assert len(set(texts)) == len(axis.ticks) > 3
    assert [float(text.replace(",", "").replace("−", "-")) for text in texts] == list(axis.ticks)


@pytest.mark.parametrize(
    ("column", "top", "text"),
    [
        (NumberText(style="percent"), 0.05, "5%"), (NumberText(prefix="€ "), 3000.0, "€ 3,000"), (PLAIN, 0.5, "0.5"),
        (NumberText(style="currency", currency="EUR"), 400.0, "€400"), (NumberText(suffix=" kg"), 40.0, "40 kg"),
        (NumberText(style="short"), 2e6, "2M"), (NumberText(least_decimals=2), 40.0, "40"),
    ],
)  # fmt: skip
def test_an_axis_writes_as_its_column_with_the_decimals_its_steps_need(
    column: NumberText, top: float, text: str
) -> None:
    axis = fixed_scale(Scale(minimum=0.0, maximum=top), (0.0, top), 260.0, column)
    assert axis.text(axis.ticks[-1], "en") == text


def test_all_ticks_of_the_extended_rule_stay() -> None:
    axis = fixed_scale(Scale(rule="extended", zero=False), (51.781, 275.95), 130.0)
    assert axis.ticks == (50, 150, 250)
    assert axis.minimum == 50
