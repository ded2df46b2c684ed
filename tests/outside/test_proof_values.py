"""Proof against published figures and reference libraries, each with its source beside it."""

import json
import math
import random
from itertools import combinations
from pathlib import Path
from typing import Any, get_args

import pytest
from coloraide import Color

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.proof.checks import arrangement, colours, scales, sizes
from kavlet.core.proof.checks.shares import rounded, within_rounding
from kavlet.core.proof.proofreading import Proofreader
from kavlet.core.scene.readers import grey
from kavlet.core.values.apportion import rounded_shares
from kavlet.core.values.colour import Colour, colour
from kavlet.core.values.colour import contrast as ratio
from kavlet.core.values.geometry import Rect
from kavlet.core.values.vision import Deficiency, as_seen, difference, lab
from tests.making import table

HELD: dict[str, Any] = json.loads((Path(__file__).parent / "data" / "proof_checks.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("case", HELD["lie_cases"], ids=lambda one: one["id"])
def test_lie_factors(case: dict[str, Any]) -> None:
    """Tufte 1983, chapter 2; his example of the fuel economy standards, 14.8, among them (from memory, as marked)."""
    found = sizes.lie_factor(tuple(case["data"]), tuple(case["graphic"]))
    assert found == pytest.approx(case["lie_factor"], rel=1e-8)
    if "published" in case:
        assert round(found, 1) == case["published"]["lie_factor"]
    told = not sizes.LOW <= found <= sizes.HIGH
    assert told == (abs(found - 1) > 0.05)


@pytest.mark.parametrize("case", [one for one in HELD["lie_cases"] if one["id"].startswith("baseline-")],
                         ids=lambda one: one["id"])  # fmt: skip
def test_columns_from_elsewhere_than_zero_lie_by_that_factor(case: dict[str, Any]) -> None:
    """What is drawn: columns of 60 and 80 from 50 on are as long as their lie factor of 6 says."""
    start = case["data"][0] - case["graphic"][0]
    of = _columns(case["data"], minimum=float(start))
    figure = Pictures().picture(of, "k1").figure
    heights = tuple(mark.bounds.height for mark in figure.marks if mark.visible)
    assert sizes.lie_factor(tuple(case["data"]), heights) == pytest.approx(case["lie_factor"], rel=1e-6)
    found = Proofreader().chart(of, Pictures(), "k1")
    assert any(one.check == "cut-axis" for one in found) == (start > 0)


def _columns(values: list[float], **settings: float) -> Document:
    of, name = edits.add_table(Document(), "F", table(["a", "v"], ["x", "y"], [float(one) for one in values]))
    of, chart = edits.add_chart(of, name, "columns")
    return edits.change_chart(of, chart, settings=settings)


@pytest.mark.parametrize("case", HELD["truncated_axis_cases"], ids=lambda one: one["id"])
def test_which_scales_are_told(case: dict[str, Any]) -> None:
    """Huff 1954, on cut-off bars; verdicts are common practice."""
    recipe = "columns" if case["chart"] == "bar" else "lines"
    of = _columns(case["values"])
    of = edits.change_chart(of, "k1", recipe=recipe)
    ends = {"minimum": float(case["axis_min"]), "maximum": float(case["axis_max"])}
    of = edits.change_chart(of, "k1", settings=ends | ({"zero": False} if recipe == "lines" else {}))
    found = {one.check for one in Proofreader().chart(of, Pictures(), "k1") if one.severity != "note"}
    assert bool(found & {"cut-axis", "out-of-range"}) == case["warn"]
    cut = case["chart"] == "bar" and scales.cuts(case["axis_min"], case["axis_max"])
    assert ("cut-axis" in found) == cut


@pytest.mark.parametrize("case", HELD["rounded_share_cases"], ids=lambda one: str(one["values"]))
def test_rounded_shares(case: dict[str, Any]) -> None:
    """Mosteller, Youtz and Zahn 1967; the remedy, largest remainders, always adds up to 100."""
    whole = math.fsum(case["values"])
    shares = [one / whole for one in case["values"]]
    shown = rounded(shares, case["decimals"])
    assert shown == pytest.approx(case["rounded_percent"])
    assert math.isclose(sum(shown), case["rounded_sum"], abs_tol=1e-9)
    assert math.isclose(sum(shown), 100.0, abs_tol=1e-9) == case["exact_100"]
    assert sum(rounded_shares(shares, case["decimals"])) == pytest.approx(1.0)


@pytest.mark.parametrize("case", HELD["rounding_probability_cases"], ids=lambda one: str(one["categories"]))
def test_how_often_rounded_shares_add_up(case: dict[str, Any]) -> None:
    """Three shares add up three times out of four, four two times out of three (Mosteller and others 1967)."""
    chance, count = random.Random(7), 20_000
    hits = 0
    for _ in range(count):
        cuts = sorted(chance.random() for _ in range(case["categories"] - 1))
        shares = [b - a for a, b in zip([0.0, *cuts], [*cuts, 1.0], strict=True)]
        hits += math.isclose(sum(rounded(shares, 0)), 100.0)
    assert hits / count == pytest.approx(case["decimal"], abs=4 * math.sqrt(0.25 / count) + 0.006)


@pytest.mark.parametrize("case", HELD["claimed_share_cases"], ids=lambda one: one["id"])
def test_claimed_shares(case: dict[str, Any]) -> None:
    assert within_rounding(case["claimed_percent"], 1.0, 100.0) == case["sum_within_rounding"]


@pytest.mark.parametrize("case", HELD["overlap_cases"], ids=lambda one: one["id"])
def test_overlaps(case: dict[str, Any]) -> None:
    """Against shapely 2.2.0, as recorded; edges that only touch do not overlap."""
    boxes = [Rect(*map(float, one)) for one in case["rects_xywh"]]
    found = [
        [i, j, arrangement.shared(boxes[i], boxes[j])]
        for i, j in combinations(range(len(boxes)), 2)
        if arrangement.overlaps(boxes[i], boxes[j], 0.0)
    ]
    assert found == case["overlapping_pairs_with_area"]


def _random_colours(count: int, seed: int) -> list[Colour]:
    chance = random.Random(seed)
    return [Colour(*(chance.randrange(256) / 255 for _ in range(3))) for _ in range(count)]


def _theirs(of: Colour) -> Color:
    return Color("srgb", list(of.rgb))


def test_differences_are_those_of_coloraide() -> None:
    """CIEDE2000 (ISO/CIE 11664-6) of 500 random pairs, by coloraide with its own CIELAB (D65)."""
    colours = _random_colours(1000, 3)
    for one, other in zip(colours[::2], colours[1::2], strict=True):
        theirs = (
            _theirs(one).convert("lab-d65").delta_e(_theirs(other).convert("lab-d65"), method="2000", space="lab-d65")
        )
        assert difference(one, other) == pytest.approx(theirs, abs=0.02)


@pytest.mark.parametrize("by", get_args(Deficiency))
def test_simulations_are_those_of_coloraide(by: Deficiency) -> None:
    """Machado and others 2009 at severity 1.0, of 300 random colours, within half a step of 256."""
    for one in _random_colours(300, 5):
        theirs = _theirs(one).filter(by, method="machado").convert("srgb").clip()
        assert as_seen(one, by).rgb == pytest.approx(theirs.coords(), abs=0.5 / 255)


def test_contrasts_are_those_of_coloraide() -> None:
    """WCAG 2.x ratios of 300 random pairs. coloraide takes luminance from matrices of more digits: 2 in a thousand."""
    colours = _random_colours(600, 9)
    for one, other in zip(colours[::2], colours[1::2], strict=True):
        assert ratio(one, other) == pytest.approx(_theirs(one).contrast(_theirs(other), method="wcag21"), rel=2e-3)


def test_grey_print_keeps_lightness() -> None:
    """A grey of the same luminance has the same CIELAB lightness as coloraide gives the colour."""
    for one in _random_colours(200, 11):
        made = grey(one)
        assert made.red == made.green == made.blue
        assert lab(made)[0] == pytest.approx(_theirs(one).convert("lab-d65")["l"], abs=0.05)


def test_large_type_needs_less_contrast() -> None:
    """WCAG 2.2, 1.4.3: 4.5:1; 3:1 from 18 pt, or 14 pt bold."""
    assert [colours.needed(size, bold) for size, bold in ((12, False), (14, True), (17.9, False), (18, False))] == [
        4.5, 3.0, 4.5, 3.0,
    ]  # fmt: skip


def test_red_and_green_of_traffic_lights_are_told() -> None:
    """The pair that deutan readers confuse most often: a plain red and green of like lightness (common practice)."""
    much, by = colours.least(colour("#b8552f"), colour("#5f7d2a"))
    assert much < colours.COLOUR_BLIND_MIN_DIFFERENCE
    assert by in ("protan", "deutan")
    assert difference(colour("#b8552f"), colour("#5f7d2a")) > 30


def test_okabe_and_ito_s_palette_is_told_apart_by_all() -> None:
    """Okabe and Ito 2008 made these colours for all readers; their first seven but black, on white."""
    held = [colour(one) for one in ("#e69f00", "#56b4e9", "#009e73", "#0072b2", "#d55e00", "#cc79a7")]
    assert all(colours.least(a, b)[0] > 8 for a, b in combinations(held, 2))


def test_a_picture_s_resolution() -> None:
    """An inch has 72 points (PostScript): 300 pixels over 2 inches are 150 dots to an inch."""
    assert sizes.resolution(300, 144) == pytest.approx(150.0)


def test_barrels_grown_in_all_directions() -> None:
    """Tufte 1983, chapter 2: oil at 2.41 and 13.34 dollars drawn as barrels whose surfaces grow by 4,280 %, a lie
    factor of 9.4, and whose volumes grow by 27,000 %, one of 59.4 (from memory; arithmetic verified)."""
    prices = (2.41, 13.34)
    assert sizes.effect(*prices) == pytest.approx(4.54, abs=0.005)
    assert sizes.lie_factor(prices, (1.0, 1 + 42.80)) == pytest.approx(9.4, abs=0.05)
    assert sizes.lie_factor(prices, (1.0, 1 + 270.0)) == pytest.approx(59.4, abs=0.2)
