"""Recipes against hand-worked series and open data sets. Each data file names its source.

Facts of the trade, marked "common practice" in the design: caps of 5%, a tube without a gap, a hole of 25% for radial
bars, a gap width of 50 for picture bars.
"""

import csv
import json
import math
from pathlib import Path
from typing import Any

import pytest

from kavlet.core.recipes.registry import RECIPES
from tests.making import helper, labels, make, marks, table

DATA = Path(__file__).parent / "data"


def cases(file: str, name: str = "cases") -> list[Any]:
    return json.loads((DATA / file).read_text(encoding="utf-8"))[name]  # type: ignore[no-any-return]


def series(name: str) -> list[Any]:
    return cases("helper_series.json", name)


def numbers(values: list[Any]) -> list[Any]:
    return [None if value == "" else value for value in values]


# Those that begin with a total of nothing are no bridges.
BRIDGES = [case for case in cases("waterfall.json") if case["bars"][0]["delta"] is not None]


@pytest.mark.parametrize("case", BRIDGES, ids=lambda case: case["id"])
def test_bridges(case: dict[str, Any]) -> None:
    bars = case["bars"]
    rows = table(
        ["item", "sum", "total"],
        [bar["label"] for bar in bars],
        [None if bar["delta"] is None else float(bar["delta"]) for bar in bars],
        ["yes" if bar["delta"] is None else None for bar in bars],
    )
    made = make("bridge", rows, {"name": "item", "value": "sum", "total": "total"})
    for i, bar in enumerate(bars):
        assert helper(made, "running")[i] == pytest.approx(bar["end"])
        base = helper(made, "base")[i] + helper(made, "base below")[i]
        assert base == pytest.approx(bar["hidden_base"] if not bar["crosses_zero"] else 0.0)
        assert helper(made, "above")[i] == pytest.approx(bar["visible_above_zero"])
        assert -helper(made, "below")[i] == pytest.approx(bar["visible_below_zero"])


# The bands share the needle's scale.
GAUGES = [case for case in series("gauge_cases") if sum(case["bands"]) == case["scale"][1] - case["scale"][0]]


@pytest.mark.parametrize("case", GAUGES)
def test_gauges(case: dict[str, Any]) -> None:
    low, high = case["scale"]
    ends = [low + sum(case["bands"][: i + 1]) for i in range(len(case["bands"]))]
    made = make(
        "gauge",
        table(["n", "v"], ["x"], [float(case["value"])]),
        minimum=float(low),
        maximum=float(high),
        sweep=float(case["span_deg"]),
        bands="; ".join(map(str, ends)),
    )
    assert helper(made, "needle")[0] == pytest.approx(case["needle_deg_from_12_clockwise"])
    assert helper(made, "rest")[0] == pytest.approx(case["hidden_remainder"])
    edges = case["band_edges_deg_from_12_clockwise"]
    found = [mark.sector.start for mark in marks(made, "bands")] + [marks(made, "bands")[-1].sector.end]
    assert found == pytest.approx(edges)


@pytest.mark.parametrize("case", [one for one in series("thermometer_cases") if one["goal"] > 0])
def test_thermometers(case: dict[str, Any]) -> None:
    made = make("thermometer", table(["n", "v"], ["x"], [float(case["current"])]), goal=float(case["goal"]))
    assert helper(made, "level")[0] == pytest.approx(case["ratio"])
    assert helper(made, "shown")[0] == pytest.approx(case["fill_clamped"])


@pytest.mark.parametrize("case", series("battery_cases"))
def test_batteries(case: dict[str, Any]) -> None:
    made = make("battery", table(["n", "v"], ["x"], [100.0 - case["level_percent"]]), budget=100.0)
    assert 100 * helper(made, "charge")[0] == pytest.approx(case["remaining"])
    assert 100 * helper(made, "empty")[0] == pytest.approx(case["spent"])
    assert helper(made, "cap")[0] == 0.05


@pytest.mark.parametrize("case", series("pictogram_cases"))
def test_pictograms(case: dict[str, Any]) -> None:
    made = make("pictogram", table(["n", "v"], ["x"], [float(case["value"])]), unit=float(case["unit"]))
    assert helper(made, "symbols")[0] == pytest.approx(case["symbols_exact"])
    drawn = marks(made, "symbols")
    assert (len(drawn[0].items) if drawn else 0) == case["symbols_drawn"]


@pytest.mark.parametrize("case", series("radial_bar_cases"))
def test_radial_bars(case: dict[str, Any]) -> None:
    values = [float(value) for value in case["values"]]
    hole = 100 * case["inner_radius"] / case["outer_radius"]
    made = make(
        "radial-bars",
        table(["n", "v"], [str(v) for v in values], values),
        maximum=float(case["maximum"]),
        sweep=float(case["max_sweep_deg"]),
        hole=hole,
        gap=0.0,
    )
    found = {mark.value: mark.sector for mark in marks(made, "value")}
    for ring in case["rings_from_inside"]:
        assert found[ring["value"]].end == pytest.approx(ring["sweep_deg"])
    sectors = list(found.values())
    assert sectors[0].outer - sectors[0].inner == pytest.approx(
        (1 - hole / 100) * sectors[0].outer / len(values), rel=1e-6
    )


@pytest.mark.parametrize("case", series("two_level_ring_cases"))
def test_two_level_rings(case: dict[str, Any]) -> None:
    outer = case["outer"]
    rows = table(
        ["child", "parent", "n"],
        [f"{one['child']} {i}" for i, one in enumerate(outer)],
        [one["parent"] for one in outer],
        [float(one["value"]) for one in outer],
    )
    made = make("two-level-ring", rows, {"name": "child", "group": "parent", "value": "n"})
    for mark in marks(made, "value"):
        assert (mark.sector.start, mark.sector.end - mark.sector.start) == pytest.approx(
            (outer[mark.row]["start_deg"], 360 * outer[mark.row]["share_of_total"]), abs=1e-6
        )
    inner = {round(mark.sector.start, 6): mark.value for mark in marks(made, "group")}
    assert inner == {round(one["start_deg"], 6): one["value"] for one in case["inner"]}


def _shows_the_largest(case: dict[str, Any]) -> bool:
    """Neither another rule, nor rows picked by hand."""
    largest = [i for i, value in enumerate(case["values"]) if value == max(case["values"])]
    return case.get("rule") in (None, "max") and case["highlight"] == largest


HIGHLIGHTS = [case for case in series("highlight_cases") if _shows_the_largest(case)]


@pytest.mark.parametrize("case", HIGHLIGHTS)
def test_highlights(case: dict[str, Any]) -> None:
    values = [float(value) for value in case["values"]]
    made = make("highlight-bars", table(["n", "v"], [str(i) for i in range(len(values))], values))
    assert numbers(helper(made, "highlight")) == case["highlight_series"]
    assert numbers(helper(made, "others")) == case["other_series"]


@pytest.mark.parametrize("case", series("growth_cases"))
def test_growth(case: dict[str, Any]) -> None:
    values = [float(value) for value in case["values"]]
    rows = table(["n", "before", "after"], [str(i) for i in range(len(values) - 1)], values[:-1], values[1:])
    found = numbers(helper(make("growth-bars", rows), "change"))
    for got, wanted, before in zip(found, case["growth"], values, strict=False):
        # Of the size of the earlier figure, so that a rise from below zero is a rise; the reference divides by it.
        assert got == pytest.approx(wanted * math.copysign(1, before)) if isinstance(wanted, float) else got is None


@pytest.mark.parametrize("case", series("clipped_bar_cases"))
def test_capped(case: dict[str, Any]) -> None:
    values = [float(value) for value in case["values"]]
    made = make(
        "capped-bars", table(["n", "v"], [str(i) for i in range(len(values))], values), cap=float(case["limit"])
    )
    assert helper(made, "shown") == case["drawn"]
    assert [len(mark.items) == 2 for mark in marks(made, "shown")] == case["clipped"]


@pytest.mark.parametrize("case", series("target_line_cases"))
def test_targets(case: dict[str, Any]) -> None:
    values = [float(value) for value in case["values"]]
    target = case["target"] if isinstance(case["target"], list) else [case["target"]] * len(values)
    rows = table(["n", "v", "target"], [str(i) for i in range(len(values))], values, [float(one) for one in target])
    made = make("target-columns", rows)
    assert [value != "" for value in helper(made, "met")] == case["met"]


def test_facts_of_the_trade() -> None:
    """Common practice."""
    assert RECIPES["battery"].defaults["caps"] == 5
    assert RECIPES["radial-bars"].defaults["hole"] == 25
    assert RECIPES["picture-bars"].defaults["gap"] == 50


def read(name: str) -> list[list[str]]:
    with (DATA / name).open(encoding="utf-8") as file:
        return list(csv.reader(file))


# Open data sets; source and licence of each in data/checks.json.
def test_iowa_electricity_as_areas() -> None:
    head, *lines = read("iowa_electricity_gwh.csv")
    made = make(
        "areas", [head, *([line[0], *map(float, line[1:])] for line in lines)], {"name": "year", "value": head[1:]}
    )
    top = max(sum(map(float, line[1:])) for line in lines)
    assert made.figure.axes[0].maximum >= top
    for mark, line in zip(marks(made, "series 3"), lines, strict=True):
        share = sum(map(float, line[1:])) / made.figure.axes[0].maximum
        assert (made.figure.plot.bottom - mark.bounds.center[1]) / made.figure.plot.height == pytest.approx(share)


def test_titanic_as_a_two_level_ring_and_shares() -> None:
    head, *lines = read("titanic_class_survival.csv")
    made = make("stacked-bars", [head, *([line[0], *map(float, line[1:])] for line in lines)])
    assert labels(made, "series 1") == ["62%", "41%", "25%", "24%"]  # 203/325, 118/285, 178/706, 212/885


def test_census_seats_as_a_waffle() -> None:
    head, *lines = read("us_census_2020_apportionment.csv")
    most = sorted(lines, key=lambda line: -float(line[1]))[:8]
    rows = table([head[0], head[1]], [line[0] for line in most], [float(line[1]) for line in most])
    assert sum(helper(make("waffle", rows, {"name": head[0], "value": head[1]}), "cells")) == 100


def test_expenditure_grows() -> None:
    _, *lines = read("us_personal_expenditure.csv")
    rows = table(
        ["category", "1940", "1960"],
        [line[0] for line in lines],
        [float(line[1]) for line in lines],
        [float(line[5]) for line in lines],
    )
    made = make("growth-bars", rows, {"name": "category", "before": "1940", "after": "1960"})
    wanted = [float(line[5]) / float(line[1]) - 1 for line in lines]
    assert helper(made, "change") == pytest.approx(wanted)


def test_minard_as_a_funnel() -> None:
    _, *lines = read("minard_army_strength.csv")
    rows = table(["stage", "men"], [line[0] for line in lines], [float(line[1]) for line in lines])
    made = make("funnel", rows)
    assert helper(made, "overall")[-1] == pytest.approx(float(lines[-1][1]) / float(lines[0][1]))
    assert math.isclose(marks(made, "value")[0].bounds.width, made.figure.plot.width)
