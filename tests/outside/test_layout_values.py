"""Layout against published values and general-purpose libraries. Each data file names its source and its checks."""

import json
import math
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from kavlet.core.charts.area import Area
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.layer import Stack
from kavlet.core.charts.wedges import Wedges
from kavlet.core.layout.data import Data
from kavlet.core.layout.planes import ticks
from kavlet.core.layout.stacks import spans
from kavlet.core.scene.path import recorded
from kavlet.core.shapes.arc import Sector, arc_to, at, wedge
from kavlet.core.shapes.area import area
from kavlet.core.values.apportion import apportioned
from kavlet.core.values.geometry import Size
from kavlet.core.values.sizes import sheets
from tests.making import free, marks, table

DATA = Path(__file__).parent / "data"


def cases(file: str, name: str = "cases") -> list[Any]:
    return json.loads((DATA / file).read_text(encoding="utf-8"))[name]  # type: ignore[no-any-return]


# SVG 2 arcs and CRC tables: points, middle angles and areas of sectors.
SWEPT = [case for case in cases("pie_arcs.json", "arc_cases") if case["end_deg"] > case["start_deg"]]


@pytest.mark.parametrize("case", SWEPT, ids=lambda case: f"{case['start_deg']}-{case['end_deg']}")
def test_wedges(case: dict[str, Any]) -> None:
    start, end = case["start_deg"], case["end_deg"]
    made = recorded(wedge, Sector((0.0, 0.0), case["inner"], case["outer"], start, end))
    assert area(made) == pytest.approx(case["area"], rel=0.002)
    if "start_point_outer" in case:
        assert at((0, 0), case["outer"], start) == pytest.approx(tuple(case["start_point_outer"]), abs=1e-4)
        assert at((0, 0), case["outer"], end) == pytest.approx(tuple(case["end_point_outer"]), abs=1e-4)
    if "explode_offset_0.1" in case:
        out = at((0, 0), 0.1 * case["outer"], (start + end) / 2)
        assert out == pytest.approx(tuple(case["explode_offset_0.1"]), abs=1e-4)


# The same with rounded corners, as d3-shape draws them; areas as measured there.
@pytest.mark.parametrize(
    "case", [one for one in cases("pie_arcs.json", "padded_cases") if one["corner_radius"] == 10 and not one["pad_deg"]]
)
def test_rounded_wedges(case: dict[str, Any]) -> None:
    made = recorded(
        wedge,
        Sector((0.0, 0.0), case["inner"], case["outer"], case["start_deg"], case["end_deg"]),
        0.0,
        case["corner_radius"],
    )
    assert area(made) == pytest.approx(case["path_area"], rel=0.006)


@pytest.mark.parametrize("case", [one for one in cases("pie_arcs.json", "pie_cases") if not one["pad_rad"]])
def test_pies(case: dict[str, Any]) -> None:
    values = [float(value) for value in case["values"]]
    order = tuple(range(len(values)))
    if case["sort"] == "desc":
        order = tuple(sorted(order, key=lambda row: -values[row]))
    start = case["total_start_deg"]
    frame = Polar(start=start, sweep=case["total_end_deg"] - start)
    made = free(
        Chart(frame, (Wedges("w", "w", "c2", order=order),), names="c1"),
        table(["n", "v"], [str(i) for i in order], values),
    )
    angles = {mark.row: (mark.sector.start, mark.sector.end) for mark in marks(made, "w")}
    for row, wanted in enumerate(case["slices_deg"]):
        if values[row]:
            assert angles[row] == pytest.approx(tuple(wanted), abs=1e-6)


# Riskus 2006: the cubic Bézier of an arc of at most 90° is off by less than 0.03 % of its radius.
def test_arcs_of_beziers() -> None:
    case = next(one for one in cases("bezier_arcs.json") if one["arc_deg"] == 90)

    def draw(pen: Any) -> None:
        pen.move_to(*at((0, 0), 1, 0))
        arc_to(pen, (0, 0), 1, 0, 90)

    c = recorded(draw).coordinates
    assert c[2] == pytest.approx(case["control_length"], abs=1e-9)
    t = np.linspace(0, 1, 1001)[:, None]
    p = np.array(c).reshape(4, 2)
    curve = (1 - t) ** 3 * p[0] + 3 * (1 - t) ** 2 * t * p[1] + 3 * (1 - t) * t**2 * p[2] + t**3 * p[3]
    assert np.abs(np.hypot(*curve.T) - 1).max() == pytest.approx(case["max_radial_error"], rel=0.01)


# Stacks as d3-shape lays them out (none, expand, diverging).
def _keeps_signs_apart(case: dict[str, Any]) -> bool:
    """Bars always keep them apart: a stack that adds them up whatever their sign is none of ours."""
    return case["offset"] != "none" or min(value or 0 for one in case["series"] for value in one) >= 0


STACKS = [case for case in cases("stack.json") if _keeps_signs_apart(case)]


@pytest.mark.parametrize("case", STACKS, ids=lambda case: case["offset"])
@pytest.mark.parametrize("kind", [Bars, Area])
def test_stacks(case: dict[str, Any], kind: type) -> None:
    series = [[math.nan if value is None else float(value) for value in one] for one in case["series"]]
    stack: Stack = "share" if case["offset"] == "expand" else "stacked"
    layers = tuple(kind(f"s{i}", f"s{i}", f"c{i}", stack=stack) for i in range(len(series)))
    rows = len(series[0])
    data = Data({}, {f"c{i}": one for i, one in enumerate(series)}, tuple(range(rows)))
    found = spans(Chart(Cartesian(), layers), data)
    for i, wanted in enumerate(case["layout"]):
        for row, (low, high) in enumerate(wanted):
            if series[i][row] == 0:
                continue
            ends = sorted((found[f"s{i}"].starts[row], found[f"s{i}"].ends[row]))
            assert ends == pytest.approx([low, high], abs=1e-9)


# Ticks: the 1-2-5 rule as of d3-array; Heckbert 1990; Talbot, Lin and Hanrahan 2010.
@pytest.mark.parametrize("case", cases("extended_ticks.json"), ids=lambda case: f"{case[0]} to {case[1]}")
def test_extended_ticks_of_random_ranges(case: list[Any]) -> None:
    low, high, count, wanted = case
    assert ticks.extended(low, high, count) == pytest.approx(wanted, rel=1e-9, abs=1e-12)


@pytest.mark.parametrize("case", cases("nice_ticks.json"), ids=lambda case: f"{case['min']} to {case['max']}")
def test_ticks(case: dict[str, Any]) -> None:
    low, high, count = case["min"], case["max"], case["count"]
    assert ticks.multiples(low, high, ticks.step_125(low, high, count)) == pytest.approx(
        case["d3_ticks"], rel=1e-9, abs=1e-12
    )
    assert ticks.heckbert(low, high, count) == pytest.approx(case["heckbert_loose"]["ticks"], rel=1e-9, abs=1e-12)
    extended = ticks.extended(low, high, count)
    assert extended == pytest.approx(case["talbot"], rel=1e-9, abs=1e-12)


# Largest remainder: Balinski and Young, U.S. Census, worked examples. Ties may go either way.
def _without_minimum(case: dict[str, Any]) -> bool:
    """Seats with at least one for each are left out: shares have no such minimum."""
    values = [float(value) for value in case["values"]]
    small = any(value * case["n"] / sum(values) < 1 and got for value, got in zip(values, case["result"], strict=True))
    return min(case["result"]) < 1 or not small


SEATS = [case for case in cases("largest_remainder.json") if _without_minimum(case)]


@pytest.mark.parametrize("case", SEATS, ids=lambda case: case["id"])
def test_largest_remainder(case: dict[str, Any]) -> None:
    found = apportioned([float(value) for value in case["values"]], case["n"])
    assert sum(found) == case["n"]
    if case["tie_at_cut"]:
        assert sorted(found) == sorted(case["result"])
    else:
        assert found == case["result"]


# ISO 216, ISO 269, ANSI/ASME Y14.1.
@pytest.mark.parametrize("case", cases("page_sizes.json"), ids=lambda case: case["name"])
def test_page_sizes(case: dict[str, Any]) -> None:
    name = case["name"].partition(" (")[0].partition(" / ")[0]
    found = sheets()[name]
    assert (found.width, found.height) == pytest.approx(tuple(case["pt"]), abs=0.5)


# matplotlib, a general-purpose library: the same wedges and stacked bars by other code.
def test_wedges_and_bars_against_matplotlib() -> None:
    import matplotlib as mpl

    mpl.use("Agg")
    from matplotlib import pyplot as plt

    values = [960.0, 540.0, 300.0, 120.0]
    rows = table(["task", "hours"], list("abcd"), values)
    made = free(Chart(Polar(start=90.0), (Wedges("w", "w", "c2", explode=0.1),), names="c1"), rows)
    figure, axes = plt.subplots()
    patches = axes.pie(values, startangle=0, counterclock=False, explode=[0.1] * 4, radius=1.0)[0]
    for mark, patch in zip(marks(made, "w"), patches, strict=True):
        sector = mark.sector
        assert (90 - sector.end, 90 - sector.start) == pytest.approx((patch.theta1, patch.theta2), abs=1e-4)
        shift = (np.array(sector.center) - np.array(made.figure.plot.center)) / sector.outer * (1, -1)
        assert shift == pytest.approx(np.array(patch.center), abs=1e-5)
    layers = (Bars("a", "a", "c2", stack="stacked"), Bars("b", "b", "c3", stack="stacked"))
    rows = table(["n", "a", "b"], list("xyz"), [3, 5, 2], [4, 1, 6])
    made = free(Chart(Cartesian(gap_width=25.0), layers, names="c1"), rows, Size(300, 240))
    axes.clear()
    lower = axes.bar(range(3), [3, 5, 2], width=0.8)
    upper = axes.bar(range(3), [4, 1, 6], width=0.8, bottom=[3, 5, 2])
    plot, axis = made.figure.plot, made.figure.axes[0]
    for mark, bar in zip(made.figure.marks, [*lower, *upper], strict=True):
        scale = plot.height / (axis.maximum - axis.minimum)
        assert mark.bounds.height == pytest.approx(bar.get_height() * scale)
        assert plot.bottom - mark.bounds.bottom == pytest.approx(bar.get_y() * scale)
        assert (mark.bounds.x - plot.x) / plot.width == pytest.approx((bar.get_x() + 0.5) / 3)
        assert mark.bounds.width / plot.width == pytest.approx(bar.get_width() / 3)
    plt.close(figure)
