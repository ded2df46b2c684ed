"""Where checks begin to speak, what they name, and what exactly their remedies do."""

import io
from itertools import combinations
from typing import Any

import msgspec
import pytest
from PIL import Image

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.scale import Scale
from kavlet.core.document import edits
from kavlet.core.document.document import AltText, Document, PictureFile
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.proof.checks.arrangement import has_order, overlaps, shared
from kavlet.core.proof.checks.colours import least, needed, safe_palette
from kavlet.core.proof.checks.labels import decimals, significant
from kavlet.core.proof.checks.scales import cuts, hidden, zero_at
from kavlet.core.proof.checks.shares import rounded
from kavlet.core.proof.checks.sizes import effect, lie_factor, resolution
from kavlet.core.proof.checks.words import numbers_in
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.proofreading import drawn_chart
from kavlet.core.spreadsheet.cells import FormattedNumber, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.styling.palettes import palettes
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import DATE
from kavlet.core.values.vision import difference
from tests.core.proof.proofed import after, of_first_chart, remedy
from tests.core.proof.test_checks import free, looks, made, named, percents
from tests.making import draw, table

BROWNS = {"layers__series_1__fill": "#3a7d44", "layers__series_2__fill": "#a5672f"}
PAIRS = ([12, 25, 9], [8, 30, 11])


def keys(finding: Finding) -> list[str]:
    return [one.key for one in finding.remedies]


def only(of: Document, check: str) -> Finding:
    (finding,) = of_first_chart(of, check)
    return finding


def overrides(of: Document) -> dict[str, Any]:
    return dict(of.charts[0].dress.overrides)


# Figures that checks rest on


def test_measures() -> None:
    assert (hidden(200, 100), hidden(-200, -50), hidden(0, 0), hidden(50, 60)) == (0.5, 0.75, 0.0, 0.0)
    assert [cuts(*ends) for ends in ((0, 9), (-9, 0), (-1, 1), (0.5, 9), (-9, -0.5))] == [
        False,
        False,
        False,
        True,
        True,
    ]
    assert [significant(one, ".") for one in ("1,200", "0.0450", "12.30", "0", "907", "0.5")] == [2, 3, 4, 0, 3, 1]
    assert [decimals(one, ".") for one in ("12", "12.5", "1,200.25")] == [0, 1, 2]
    assert decimals("1.200,25", ",") == 2
    assert effect(-20, -30) == 0.5
    assert lie_factor((10, 20), (10, 40)) == 3.0
    assert str(lie_factor((10, 10), (10, 40))) == "nan"
    assert (resolution(300, 72), resolution(300, 144), resolution(300, 0)) == (300, 150, float("inf"))
    assert [zero_at(ends) for ends in ((0, 10), (-5, 5), (5, 15), (2, 2))] == [0, 0.5, -0.5, 0]
    assert rounded([1 / 3, 0.125, 0.005], 0) == [33, 13, 1]
    assert rounded([1 / 3, 0.125], 1) == [33.3, 12.5]
    assert [needed(*text) for text in ((17.9, False), (18, False), (14, True), (13.9, True), (14, False))] == [
        4.5, 3, 3, 4.5, 4.5,
    ]  # fmt: skip


def test_boxes_share_what_lies_in_both() -> None:
    one = Rect(0, 0, 10, 10)
    assert shared(one, Rect(5, 8, 10, 10)) == 10
    assert shared(one, Rect(10, 0, 5, 5)) == 0
    assert shared(one, Rect(20, 0, 5, 5)) == 0
    assert overlaps(one, Rect(5, 8, 10, 10), 0.09)
    assert not overlaps(one, Rect(5, 8, 10, 10), 0.1)
    assert overlaps(one, Rect(8, 8, 4, 4), 0.2)  # of the smaller one
    assert not overlaps(one, Rect(2, 2, 0, 4), 0.0)


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("In 1799 and 1800 of 2100", [(1799.0, 4)]),
        ("9 of 10", [(10.0, 1)]),
        ("1,250 came", [(1250.0, 3)]),
        ("up 7%", [(7.0, 1)]),
        ("12.50 m and 0.4", [(12.5, 4)]),
        ("{value} of 300", [(300.0, 1)]),
        ("−40 below", [(-40.0, 1)]),
    ],
)
def test_numbers_are_read_out_of_texts(text: str, found: list[tuple[float, int]]) -> None:
    assert [(one.value, one.digits) for one in numbers_in(text, "en")] == found


def test_most_names_with_a_number_or_a_rank_have_an_order() -> None:
    assert has_order(["low", "medium", "Reed"])
    assert not has_order(["low", "medium", "Reed", "Mere"])
    assert has_order(["", "", "1st", "Reed", "3rd"])
    assert not has_order([])


# Where they begin to speak


def test_a_cap_may_hide_half_of_a_bar_and_a_third_of_all() -> None:
    assert not of_first_chart(made("capped-bars", named(4, [50, 60, 70, 200]), cap=100.0), "capped")
    one = only(made("capped-bars", named(4, [50, 60, 70, 204]), cap=100.0), "capped")
    assert (one.severity, one.place.row) == ("note", 3)
    assert one.figure == pytest.approx(1 - 100 / 204)
    assert not of_first_chart(made("capped-bars", named(3, [50, 60, 110]), cap=100.0), "capped")
    many = only(made("capped-bars", named(3, [50, 130, 110]), cap=100.0), "capped")
    assert (many.severity, many.place.row) == ("warning", 1)
    assert many.figure == pytest.approx(2 / 3)


@pytest.mark.parametrize(
    ("values", "cap"), [([50, 60, 500, 480], 480), ([50, 60, 70, 500], 250), ([5, 6, 7, 1033], 520)]
)
def test_a_cap_is_raised_as_far_as_is_needed(values: list[int], cap: float) -> None:
    of = made("capped-bars", named(4, values), cap=100.0 if values[0] == 50 else 10.0)
    assert after(of, remedy(only(of, "capped"), "raise cap")).charts[0].settings["cap"] == cap


def test_a_logarithm_needs_figures_above_zero() -> None:
    of = made("capped-bars", named(4, [50, 60, 70, 500]), cap=100.0)
    points = after(of, remedy(only(of, "capped"), "log points"))
    assert points.charts[0].recipe == "bars"
    drawn = Pictures().picture(points, "k1")
    assert drawn.build.chart.frame.along.kind == "log"  # type: ignore[union-attr]
    assert [mark.value for mark in drawn.figure.marks] == [50, 60, 70, 500]
    assert keys(only(made("capped-bars", named(4, [0, 60, 70, 500]), cap=100.0), "capped")) == ["raise cap"]


@pytest.mark.parametrize(("values", "count"), [([20] * 5, 0), ([90, 8, 2], 0), ([90, 8.5, 1.5], 1), ([15] * 7, 0)])
def test_parts_under_a_fiftieth_are_too_small(values: list[float], count: int) -> None:
    found = of_first_chart(made("pie", named(len(values), values)), "many-slices")
    assert len(found) == count
    if found:
        assert found[0].figure == pytest.approx(0.015)


def test_eight_parts_are_too_many_and_gathered_they_are_fewer() -> None:
    of = made("pie", named(8, [30, 20, 15, 10, 9, 8, 5, 3]))
    one = only(of, "many-slices")
    assert one.figure == 8
    gathered = after(of, remedy(one, "gather"))
    assert gathered.charts[0].settings["gather"] == 5.1
    assert len(Pictures().picture(gathered, "k1").figure.marks) == 7


def test_six_rows_are_to_be_sorted_and_five_are_not() -> None:
    assert not of_first_chart(made("highlight-bars", named(5, [3, 9, 4, 8, 2])), "unsorted")
    assert only(made("highlight-bars", named(6, [3, 9, 4, 8, 2, 7])), "unsorted").figure == 6
    for ordered in ([1, 2, 2, 4, 5, 6], [6, 5, 4, 2, 2, 1]):
        assert not of_first_chart(made("highlight-bars", named(6, ordered)), "unsorted")
    assert not of_first_chart(made("lines", named(6, [3, 9, 4, 8, 2, 7])), "unsorted")


def test_percentages_of_less_than_30_cases() -> None:
    few = {"labels": "name and share"}
    one = only(made("pie", named(3, [10, 11, 8]), **few), "no-base")
    assert one.figure == 29
    assert not of_first_chart(made("pie", named(3, [10, 11, 9]), **few), "no-base")
    assert not of_first_chart(made("pie", named(3, [10.5, 10, 8]), **few), "no-base")  # no counts
    of = made("pie", named(3, [10, 11, 8]), **few)
    shown = Pictures().picture(after(of, remedy(one, "both values")), "k1")
    assert any("(11)" in text.text for text in shown.figure.texts)


def test_four_digits_are_the_most_and_decimals_are_the_same() -> None:
    def columns(*values: float) -> Document:
        return made("columns", named(len(values), list(values)), labels="values")

    assert not of_first_chart(columns(1234.0, 2000.0), "digits")
    one = only(columns(12345.0, 2000.0), "digits")
    assert (one.figure, one.place.row) == (5, 0)
    mixed = only(columns(1.5, 2.25), "digits")
    assert mixed.figure == 2
    assert "1 to 2 decimals" in str(mixed.message)
    assert not of_first_chart(columns(1.5, 2.2), "digits")


@pytest.mark.parametrize(
    ("values", "texts"),
    [
        ([123456, 234567, 345678], ["123K", "235K", "346K"]),
        ([12345, 23456, 9000], ["12.3K", "23.5K", "9.0K"]),
        ([123.456, 23.4, 5.0], ["123", "23", "5"]),
        ([1.23456, 2.5, 3.0], ["1.2", "2.5", "3.0"]),
    ],
)
def test_labels_are_rounded_to_what_is_compared(values: list[float], texts: list[str]) -> None:
    of = made("columns", named(3, [float(value) for value in values]), labels="values")
    shown = Pictures().picture(after(of, remedy(only(of, "digits"), "round")), "k1")
    assert [text.text for text in shown.figure.texts if text.kind == "label"] == texts


def test_rounding_keeps_what_stands_beside_the_figure() -> None:
    of = looks(made("columns", named(3, [123456.0, 234567.0, 345678.0]), labels="values"),
               layers__series_1__label__number__suffix=" kg")  # fmt: skip
    shown = Pictures().picture(after(of, remedy(only(of, "digits"), "round")), "k1")
    assert [text.text for text in shown.figure.texts if text.kind == "label"] == ["123K kg", "235K kg", "346K kg"]


def test_percents_miss_100_by_more_than_rounding() -> None:
    one = only(made("pie", percents(0.5, 0.4, 0.14)), "share-sum")
    assert after(made("pie", percents(0.5, 0.4, 0.14)), remedy(one, "whole is the sum")).charts[0].settings[
        "whole"
    ] == pytest.approx(1.04)
    under = made("pie", percents(0.4, 0.3, 0.25))
    assert after(under, remedy(only(under, "share-sum"), "show the left-over")).charts[0].settings["whole"] == 1.0
    assert not of_first_chart(made("pie", percents(0.5, 0.51)), "share-sum")  # two roundings of half a percent
    assert of_first_chart(made("pie", percents(0.5, 0.52)), "share-sum")
    assert not of_first_chart(made("pie", percents(0.5, 0.59)), "share-sum")  # no whole is meant
    assert not of_first_chart(made("pie", named(3, [0.5, 0.4, 0.14])), "share-sum")  # no percents


def test_type_of_seven_points_is_read() -> None:
    for size, count in ((7.0, 0), (6.96, 0), (6.9, 1)):
        of = looks(made("columns", named(3, [12, 25, 9])), frame__across__text__size=size)
        assert len(of_first_chart(of, "small-text")) == count
    of = looks(made("columns", named(3, [12, 25, 9])), frame__across__text__size=5.0, title__size=20.0)
    mended = after(of, remedy(only(of, "small-text"), "larger text"))
    assert overrides(mended) == {"title.size": 20.0}


# What they name


def test_a_scale_that_is_cut_says_where_it_begins() -> None:
    one = only(made("columns", named(4, [60, 80, 70, 90]), minimum=50.0), "cut-axis")
    assert "begins at 50," in str(one.message)
    of = looks(made("columns", named(3, [-40, -20, -30])), frame__along__maximum=-10.0)
    mended = after(of, remedy(only(of, "cut-axis"), "begin at zero"))
    assert not of_first_chart(mended, "cut-axis")
    assert "frame.along.maximum" not in overrides(mended)
    assert not of_first_chart(looks(made("columns", named(3, [10, 20, 30])), frame__along__kind="log"), "cut-axis")
    free = looks(made("columns", named(3, [60, 80, 70])), frame__along__zero=False, frame__along__minimum=55.0)
    assert not overrides(after(free, remedy(only(free, "cut-axis"), "begin at zero")))


def test_the_value_farthest_beyond_is_named() -> None:
    of = looks(made("columns", named(4, [30, 90, -120, 20])), frame__along__minimum=-50.0, frame__along__maximum=50.0)
    one = only(of, "out-of-range")
    assert (one.figure, one.place.row) == (-120, 2)
    assert str(one.message).startswith("2 values lie beyond")
    mended = after(of, remedy(one, "widen"))
    assert not of_first_chart(mended, "out-of-range")
    assert not overrides(mended)
    shares = looks(made("columns", named(3, *PAIRS, heads=("a", "b")), stack="100 %"), frame__along__maximum=0.5)
    assert all(not one.remedies for one in of_first_chart(shares, "out-of-range"))


def test_the_lowest_part_below_zero_is_named() -> None:
    of = made("columns", named(3, [5, -2, 4], [3, -4, 6], heads=("a", "b")), stack="100 %")
    one = only(of, "negative-share")
    assert (one.figure, one.place.row, one.place.layer) == (-4, 1, "series 2")
    assert str(one.message).startswith("2 parts")
    bars = after(of, remedy(one, "bars"))
    assert bars.charts[0].recipe == "columns"
    assert "stack" not in bars.charts[0].settings  # side by side
    assert not of_first_chart(made("columns", named(3, [5, -2, 4], [3, 4, 6], heads=("a", "b"))), "negative-share")


def test_names_are_the_same_whatever_their_capitals() -> None:
    rows = table(["a", "v"], ["Reed ", "Mere", "reed", "REED"], [3, 4, 5, 6])
    of = made("columns", rows)
    one = only(of, "doubles")
    assert (one.figure, one.place.cell) == (3, (0, 1))
    assert [column.cells[1:] for column in after(of, remedy(one, "join")).tables[0].columns[:2]] == [
        ("Reed ", "Mere"), (14.0, 4.0),
    ]  # fmt: skip
    assert after(of, remedy(one, "number")).tables[0].columns[0].cells[1:] == ("Reed ", "Mere", "reed 2", "REED 3")
    taken = made("columns", table(["a", "v"], ["Reed", "Reed 2", "Reed"], [3, 4, 5]))
    numbered = after(taken, remedy(only(taken, "doubles"), "number"))
    assert numbered.tables[0].columns[0].cells[1:] == ("Reed", "Reed 2", "Reed 3")
    assert not of_first_chart(made("columns", table(["a", "v"], ["", "Mere", ""], [3, 4, 5])), "doubles")


def test_joined_rows_keep_how_their_figures_are_written() -> None:
    share = percents(0.2, 0.3, 0.5)
    share[3][0] = share[1][0]
    of = made("columns", share)
    cell = after(of, remedy(only(of, "doubles"), "join")).tables[0].columns[1].cells[1]
    assert isinstance(cell, FormattedNumber)
    assert cell.value == pytest.approx(0.7)
    computed = made("columns", table(["a", "v"], ["x", "y", "x"], [1, Formula("=B2*2"), 5]))
    assert keys(only(computed, "doubles")) == ["number"]
    named_by_formula = made("columns", table(["a", "v"], ["x", "y", Formula("=A2")], [1, 2, 5]))
    assert keys(only(named_by_formula, "doubles")) == []


def test_the_first_cell_with_an_error_is_named() -> None:
    rows = table(["a", "v"], ["x", "y", "z"], [3, Formula("=1/0"), Formula("=SQRT(-1)")])
    one = only(made("columns", rows), "formula-error")
    assert (one.severity, one.place.cell, keys(one)) == ("error", (1, 2), ["go"])
    meant = table(["a", "v"], ["x", "y", "z"], [3, Formula("=NA()"), 4])
    assert not of_first_chart(made("columns", meant), "formula-error")


def test_a_legend_that_says_something_is_left() -> None:
    two = looks(made("columns", named(3, *PAIRS, heads=("a", "b"))), legend__side="right")
    assert not of_first_chart(two, "one-legend")
    of = looks(made("columns", named(3, [12, 25, 9])), legend__side="right")
    assert overrides(after(of, remedy(only(of, "one-legend"), "drop legend")))["legend.side"] == "none"


# Colours


def test_the_closest_pair_is_named_and_a_safe_palette_takes_fills_away_only() -> None:
    of = looks(made("columns", named(3, [12, 25, 9], [8, 30, 11], [5, 6, 7], heads=("a", "b", "c"))), **BROWNS,
               layers__series_3__fill="#2233aa", layers__series_1__edge="ink", title__colour="#112233")  # fmt: skip
    one = only(of, "colour-blind")
    assert "“a” and “b”" in str(one.message)
    assert 0 < one.figure < 10
    mended = after(of, remedy(one, "safe palette"))
    assert overrides(mended) == {"layers.series 1.edge": "ink", "title.colour": "#112233"}
    assert mended.charts[0].dress.palette
    assert not of_first_chart(mended, "colour-blind")
    dark = edits.change_chart(of, "k1", dress=Dress(dark=True, overrides=of.charts[0].dress.overrides))
    assert not of_first_chart(after(dark, remedy(only(dark, "colour-blind"), "safe palette")), "colour-blind")


def test_of_several_close_pairs_the_closest_is_named() -> None:
    of = looks(made("columns", named(3, [12, 25, 9], [8, 30, 11], [5, 6, 7], heads=("a", "b", "c"))), **BROWNS,
               layers__series_3__fill="#a06a32")  # fmt: skip
    assert "“b” and “c”" in str(only(of, "colour-blind").message)
    greys = {f"layers__series_{place}__fill": tone for place, tone in ((1, "#707070"), (2, "#858585"), (3, "#888888"))}
    close = looks(made("columns", named(3, [12, 25, 9], [8, 30, 11], [5, 6, 7], heads=("a", "b", "c"))), **greys)
    assert "“b” and “c”" in str(only(close, "grey-print").message)


@pytest.mark.parametrize("dark", [False, True])
@pytest.mark.parametrize("count", range(2, 7))
def test_a_safe_palette_is_told_apart_by_all(count: int, dark: bool) -> None:
    heads = tuple("abcdef"[:count])
    of = made("columns", named(3, *[[12 + i, 25, 9] for i in range(count)], heads=heads))
    of = edits.change_chart(of, "k1", dress=Dress(dark=dark))
    drawn = drawn_chart(of, recalculate(of.tables), draw(of))
    found = safe_palette(drawn, count)
    assert palettes()[found].kind == "qualitative"
    style = resolve(Dress(dark=dark, palette=found), of.house)
    tones = [style.tone(place) for place in range(count)]
    assert all(least(a, b)[0] >= 10 for a, b in combinations(tones, 2))
    assert all(difference(tone, drawn.figure.ground) >= 10 for tone in tones)


def test_series_can_be_named_at_their_marks_instead() -> None:
    of = looks(made("columns", named(3, *PAIRS, heads=("a", "b")), labels="values"), **BROWNS)
    labelled = after(of, remedy(only(of, "colour-blind"), "labels at marks"))
    assert {path for path in overrides(labelled) if path.endswith("template")} == {
        "layers.series 1.label.template", "layers.series 2.label.template",
    }  # fmt: skip
    assert not of_first_chart(labelled, "colour-blind")
    bare = looks(made("columns", named(3, *PAIRS, heads=("a", "b"))), **BROWNS)
    assert keys(only(bare, "colour-blind")) == ["safe palette"]


def test_hatches_leave_the_first_series_plain() -> None:
    greys = {"layers__series_1__fill": "#777777", "layers__series_2__fill": "#7a7a7a"}
    of = looks(made("columns", named(3, *PAIRS, heads=("a", "b"))), **greys)
    one = only(of, "grey-print")
    assert 0 < one.figure < 2
    hatched = overrides(after(of, remedy(one, "hatches")))
    assert hatched["layers.series 1.fill"] == "#777777"
    fill = hatched["layers.series 2.fill"]
    assert (fill["kind"], fill["colour"]) == ("lines", "#7a7a7a")
    apart = {"layers__series_1__fill": "#555555", "layers__series_2__fill": "#dddddd"}
    assert not of_first_chart(looks(made("columns", named(3, *PAIRS, heads=("a", "b"))), **apart), "grey-print")
    lines = looks(made("lines", named(3, *PAIRS, heads=("a", "b"))), **greys)
    assert all(not keys(found) for found in of_first_chart(lines, "grey-print"))


def test_slices_without_a_gap_need_a_line_between_them() -> None:
    of = looks(made("pie", named(3, [30, 40, 30]), gap=0.0),
               layers__value__rows__0__fill="#444444", layers__value__rows__1__fill="#4a4a4a",
               layers__value__rows__2__fill="#eeeeee")  # fmt: skip
    found = [one for one in of_first_chart(of, "contrast") if "Neighbouring" in str(one.message)]
    assert len(found) == 1
    assert found[0].figure < 3
    assert overrides(after(of, remedy(found[0], "edge")))["layers.value.edge"] == "ground"
    spaced = looks(of, layers__value__gap=2.0)
    assert not [one for one in of_first_chart(spaced, "contrast") if "Neighbouring" in str(one.message)]


def test_parts_of_a_stack_that_touch_need_a_line_between_them() -> None:
    alike = {"layers__series_1__fill": "#444444", "layers__series_2__fill": "#4a4a4a"}
    of = looks(
        made("columns", named(3, *PAIRS, heads=("a", "b")), stack="stacked"),
        **alike,
        **dict.fromkeys(("layers__series_1__edge", "layers__series_2__edge"), ""),
    )
    found = [one for one in of_first_chart(of, "contrast") if "Neighbouring" in str(one.message)]
    assert [one.place.layer for one in found] == ["series 2"]
    edged = after(of, remedy(found[0], "edge"))
    assert [overrides(edged)[f"layers.series {place}.edge"] for place in (1, 2)] == ["ground", "ground"]
    beside = looks(made("columns", named(3, *PAIRS, heads=("a", "b"))), **alike)
    assert not [one for one in of_first_chart(beside, "contrast") if "Neighbouring" in str(one.message)]


def test_the_ground_chooses_the_colour_of_what_is_hard_to_read() -> None:
    of = looks(made("columns", named(3, [12, 25, 9])), title__colour="#eeeeee", frame__across__text__colour="#dddddd")
    one = only(of, "contrast")
    assert one.place.text == "name"
    readable = after(of, remedy(one, "text colour"))
    assert overrides(readable) == {"title.colour": "#eeeeee"}
    assert only(readable, "contrast").place.text == "title"
    moved = looks(made("columns", named(3, [12, 25, 9]), labels="values"),
                  layers__series_1__rows__1__text_look__colour="#fdfdfd")  # fmt: skip
    label = only(moved, "contrast")
    assert (label.place.layer, label.place.row) == ("series 1", 1)
    assert not of_first_chart(after(moved, remedy(label, "text colour")), "contrast")


# Layout


def test_names_that_find_no_room_are_laid_down() -> None:
    rows = [["pond", "depth"], *([f"Pond number {i}", float(i)] for i in range(1, 41))]
    of = edits.change_chart(made("columns", rows), "k1", width=221.0, height=420.0)
    one = next(held for held in of_first_chart(of, "labels-lost") if "name" in str(held.message))
    assert keys(one)[0] == "lay down"
    drawn = Pictures().picture(after(of, remedy(one, "lay down")), "k1")
    assert drawn.build.chart.frame.lying  # type: ignore[union-attr]
    assert not drawn.figure.unnamed


def test_only_labels_without_room_are_left_out() -> None:
    of = edits.change_chart(made("columns", named(10, *[[9] * 10] * 3, heads=("a", "b", "c")), labels="values"), "k1",
                            width=120.0, height=90.0)  # fmt: skip
    one = next(held for held in of_first_chart(of, "labels-lost") if "label" in str(held.message))
    before = Pictures().picture(of, "k1").figure
    assert one.figure == before.dropped > 0
    left = after(of, remedy(one, "leave out"))
    after_it = Pictures().picture(left, "k1").figure
    assert after_it.dropped == 0
    texts = [[text.text for text in figure.texts if text.kind == "label"] for figure in (before, after_it)]
    assert texts[0] == texts[1]
    larger = after(of, remedy(one, "larger")).charts[0]
    assert larger.width / 120 == pytest.approx(larger.height / 90)
    assert larger.width in (150, 180, 240, 360)


def test_a_label_on_another_row_is_put_back_and_nothing_else_is() -> None:
    of = looks(made("columns", named(4, [40, 50, 45, 30]), labels="values"), title__size=20.0,
               layers__series_1__rows__1__dx=150.0, layers__series_1__rows__1__dy=60.0)  # fmt: skip
    one = only(of, "overlap")
    assert (one.figure, one.place.row) == (1, 1)
    assert overrides(after(of, remedy(one, "put back"))) == {"title.size": 20.0}
    aside = looks(made("columns", named(4, [40, 50, 45, 30]), labels="values"), layers__series_1__rows__1__dy=-10.0)
    assert not of_first_chart(aside, "overlap")


# Areas and scales


def test_sizes_that_hardly_differ_have_no_effect_to_speak_of() -> None:
    sizes = table(["name", "x", "y", "size"], ["a", "b"], [1, 2], [2, 3], [100, 100.9])
    assert not of_first_chart(made("bubbles", sizes, by="diameter"), "lie-factor")
    sizes = table(["name", "x", "y", "size"], ["a", "b"], [1, 2], [2, 3], [100, 150])
    of = made("bubbles", sizes, by="diameter")
    one = only(of, "lie-factor")
    assert one.figure == pytest.approx(1.25 / 0.5)
    assert not of_first_chart(after(of, remedy(one, "size by area")), "lie-factor")


def test_a_logarithm_set_by_hand_is_given_back() -> None:
    of = looks(made("columns", named(3, [10, 100, 1000])), frame__along__kind="log", frame__along__minimum=5.0)
    linear = after(of, remedy(only(of, "log-bars"), "linear scale"))
    assert not overrides(linear)
    own = free((Bars("v", "value", values="c2"),), named(3, [10, 100, 1000]), frame={"along": Scale(kind="log")})
    assert overrides(after(own, remedy(only(own, "log-bars"), "linear scale")))["frame.along.kind"] == "linear"
    points = after(of, remedy(only(of, "log-bars"), "turn to points"))
    assert overrides(points)["frame.along.kind"] == "log"
    assert {mark.kind.name for mark in Pictures().picture(points, "k1").figure.marks} == {"point"}
    assert not of_first_chart(made("lines", named(3, [10, 100, 1000])), "log-bars")


def test_zeros_may_stand_a_fiftieth_apart() -> None:
    rows = table(["month", "a", "b"], ["Jan", "Feb", "Mar"], [10, 20, 30], [100, 200, 300])
    of = looks(made("columns", rows), layers__series_2__second=True, frame__second__minimum=-6.0,
               frame__second__maximum=394.0, frame__along__minimum=0.0, frame__along__maximum=40.0)  # fmt: skip
    assert not of_first_chart(of, "two-axes")
    apart = looks(of, frame__second__minimum=-12.0)
    assert only(apart, "two-axes").figure == pytest.approx(12 / 406)
    one = after(apart, remedy(only(apart, "two-axes"), "one scale"))
    assert not [path for path in overrides(one) if path.startswith("frame.second")]
    zero = table(["month", "a", "b"], ["Jan", "Feb", "Mar"], [0, 20, 30], [100, 200, 300])
    begun = looks(made("columns", zero), layers__series_2__second=True, frame__second__minimum=-100.0)
    assert "index to 100" not in keys(only(begun, "two-axes"))


# Figures in texts


@pytest.mark.parametrize(
    ("title", "severity", "bound"),
    [
        ("All 482 came", "warning", '="All "&TEXT(SUM(B2:B4);"#,##0")&" came"'),  # 4.8 % off
        ("All 484 came", "", ""),
        ("All 438 came", "warning", '="All "&TEXT(SUM(B2:B4);"#,##0")&" came"'),
        ("Alder has 54.3% of all", "note", '="Alder has "&TEXT(B3/SUM(B2:B4);"0.0%")&" of all"'),
        ("250", "note", '=TEXT(B3;"#,##0")'),
        ("Says “250”", "note", '="Says “"&TEXT(B3;"#,##0")&"”"'),
        ('The "250"', "note", '="The """&TEXT(B3;"#,##0")&""""'),
    ],
)
def test_a_number_in_a_title_is_bound(title: str, severity: str, bound: str) -> None:
    of = edits.change_chart(made("columns", named(3, [120, 250, 90])), "k1", title=title)
    found = of_first_chart(of, "typed-number")
    assert [one.severity for one in found] == ([severity] if severity else [])
    if found:
        assert after(of, remedy(found[0], "bind")).charts[0].title == bound


def test_a_title_that_is_only_a_name_is_none() -> None:
    for title, count in (("figures", 1), ("  ", 1), ("Figures of ponds", 0), ('="Fig"&"ures"', 0)):
        of = edits.change_chart(made("columns", named(3, [12, 25, 9])), "k1", title=title)
        assert len(of_first_chart(of, "title-missing")) == count
    silent = edits.change_chart(made("columns", named(3, [12, 25, 9])), "k1", alt=AltText(" ", ""))
    one = only(silent, "title-missing")
    assert (one.severity, keys(one)) == ("warning", ["write alt text"])


def test_shares_are_rounded_so_that_they_add_up() -> None:
    of = looks(made("pie", percents(*[1 / 6] * 6), labels="name and value"),
               layers__value__label__number__style="percent",
               layers__value__label__number__most_decimals=1)  # fmt: skip
    one = only(of, "rounding")
    assert one.figure == pytest.approx(100.2)
    shown = Pictures().picture(after(of, remedy(one, "largest remainder")), "k1").figure
    figures = [float(text.text.rstrip("%\u00a0 ").split()[-1]) for text in shown.texts if text.kind == "label"]
    assert sum(figures) == pytest.approx(100)
    assert set(figures) == {16.6, 16.7}
    for shares, count in (((0.125, 0.875), 1), ((0.25, 0.25, 0.5), 0), ((0.3, 0.3, 0.3), 0)):
        parts = looks(made("pie", percents(*shares), labels="name and value"),
                      layers__value__label__number__style="percent",
                      layers__value__label__number__most_decimals=0)  # fmt: skip
        assert len(of_first_chart(parts, "rounding")) == count


# Order and totals


def test_a_recipe_with_an_order_is_set_and_a_table_sorted_otherwise() -> None:
    of = made("highlight-bars", named(6, [3, 9, 4, 8, 2, 7]))
    drawn = Pictures().picture(after(of, remedy(only(of, "unsorted"), "sort")), "k1").figure
    values = [mark.value for mark in sorted(drawn.marks, key=lambda mark: (mark.bounds.y, mark.bounds.x))]
    assert values in ([9, 8, 7, 4, 3, 2], [2, 3, 4, 7, 8, 9])
    bars = made("bars", named(6, [3, 9, 4, 8, 2, 7]))
    cells = after(bars, remedy(only(bars, "unsorted"), "sort")).tables[0].columns[1].cells[1:]
    assert cells == (9.0, 8.0, 7.0, 4.0, 3.0, 2.0)


def test_a_total_among_its_parts_is_left_out() -> None:
    rows = [*named(3, [3, 9, 4]), ["Total", Formula("=SUM(B2:B4)")]]
    of = made("bars", rows)
    one = only(of, "stated-total")
    assert "Total" in str(one.message)
    left = after(of, remedy(one, "leave out total"))
    assert left.charts[0].totals is False
    assert not of_first_chart(left, "stated-total")
    assert [mark.value for mark in Pictures().picture(left, "k1").figure.marks] == [3, 9, 4]


def test_names_that_are_shortened_are_told() -> None:
    long = "Counting of the nesting pairs in the northern and the southern reed beds before sunrise"
    of = made("radial-bars", table(["place", "value"], ["Mere", f"{long}, east", f"{long}, west"], [30, 20, 10]))
    one = only(of, "labels-lost")
    assert (one.severity, one.figure, one.place.cell) == ("note", 2, (0, 2))
    assert "…" in str(one.message)
    assert keys(one)[-1] == "shorter names"
    short = edits.set_cells(of, "t1", {(0, 2): "East", (0, 3): "West"})
    assert not of_first_chart(short, "labels-lost")
    own = edits.set_cells(short, "t1", {(0, 2): "And so on …"})
    assert not of_first_chart(own, "labels-lost")


def test_names_may_come_again_where_rows_belong_together() -> None:
    stages = table(["place", "value", "year"], ["Reed", "Mere", "Reed", "Mere"], [3, 4, 5, 6], [2024, 2024, 2025, 2025])
    assert not of_first_chart(made("stepping", stages, {"period": "year", "value": "value"}), "doubles")
    groups = table(["part", "group", "value"], ["eggs", "young", "eggs"], ["Mere", "Mere", "Reed"], [3, 4, 5])
    assert not of_first_chart(made("two-level-ring", groups), "doubles")
    given = table(["giver", "given"], ["Walkers", "Shop", "Walkers"], [3, 4, 5])
    assert not of_first_chart(made("thermometer", given, goal=20.0), "doubles")


def test_a_cell_that_can_t_be_drawn_is_named() -> None:
    rows = table(["a", "v"], ["x", "y", "z"], [3, 4, Formula("=1/0")])
    assert str(only(made("columns", rows), "formula-error").message).startswith("B4 shows")
    of = edits.change_chart(made("columns", named(3, [12, 25, 9])), "k1", title='="Up "&1/0')
    one = only(of, "formula-error")
    assert (one.severity, one.place.text) == ("warning", "title")


def test_a_symbol_set_by_hand_is_repeated_by_count() -> None:
    fill = {"fill": "picture", "name": "tree", "how": "fitted"}
    of = looks(made("columns", named(3, [10, 20, 40])), layers__series_1__fill=fill)
    one = only(of, "lie-factor")
    mended = after(of, remedy(one, "repeat by count"))
    assert not of_first_chart(mended, "lie-factor")


def test_a_day_between_others_is_filled_in_by_its_neighbours() -> None:
    days = [FormattedNumber(46000.0 + day, DATE) for day in (0, 1, 2, 3, 4, 5)]
    of = made("lines", table(["day", "level"], days, [10, None, None, 40, 41, 43]))
    one = only(of, "missing")
    assert keys(one) == ["show as gap", "fill", "take out"]
    cells = after(of, remedy(one, "fill")).tables[0].columns[1].cells[1:]
    assert cells == (10.0, 20.0, 30.0, 40.0, 41.0, 43.0)
    first = made("lines", table(["day", "level"], days, [None, 10, 20, 40, 41, 43]))
    assert keys(only(first, "missing")) == ["show as gap", "take out"]  # it has no neighbour before it


def test_few_percents_and_single_parts_have_a_base() -> None:
    shares = made("pie", percents(0.5, 0.3, 0.2), labels="name and share")
    assert not of_first_chart(shares, "no-base")
    assert not of_first_chart(made("pie", named(1, [7]), labels="name and share"), "no-base")
    assert of_first_chart(made("pie", named(2, [7, 8]), labels="name and share"), "no-base")


def test_a_coarse_picture_in_a_chart_makes_the_chart_smaller() -> None:
    held = io.BytesIO()
    Image.new("RGB", (100, 100), "teal").save(held, "PNG")
    photo = PictureFile("pond", content=held.getvalue(), width=100, height=100)
    of = msgspec.structs.replace(made("columns", named(2, [30, 40])), pictures=(photo,))
    of = looks(of, layers__series_1__fill={"fill": "picture", "name": "pond", "how": "fitted"})
    one = only(of, "low-resolution")
    assert one.figure < 149.5
    smaller = after(of, remedy(one, "smaller"))
    assert smaller.charts[0].width == pytest.approx(640 * one.figure / 150)
    assert smaller.charts[0].height == pytest.approx(360 * one.figure / 150)


def test_a_view_gives_parts_other_shares_than_they_have() -> None:
    def seen(**view: float | bool) -> Document:
        return looks(made("pie", named(4, [20, 30, 25, 25])), solid__on=True, solid__depth=1.0,
                     **{f"solid__{name}": value for name, value in view.items()})  # fmt: skip

    of = seen(tilt=70.0, turn=15.0, perspective=20.0)
    one = only(of, "solid-share")
    front = after(of, remedy(one, "front view"))
    assert [overrides(front)[f"solid.{name}"] for name in ("turn", "tilt", "perspective")] == [0, 0, 0]
    flat = after(of, remedy(one, "flat"))
    assert overrides(flat)["solid.on"] is False
    assert not of_first_chart(front, "solid-share") + of_first_chart(flat, "solid-share")
    bodies = {mark.row: mark for mark in Pictures().picture(of, "k1").figure.marks}
    assert one.place.row in bodies
    share = bodies[one.place.row].value / 100
    assert abs(one.figure - share) > max(0.03, 0.2 * share)
    assert f"{round(100 * one.figure, 1):g}" in str(one.message)
    assert f"{round(100 * share, 1):g}" in str(one.message)
    assert not of_first_chart(seen(tilt=10.0), "solid-share")


@pytest.mark.parametrize(
    ("title", "message"),
    [
        ("Alder has 52% of all", "“52%” is typed by hand, and the figure near it is 54 %."),
        ("All 470 came", "“470” is typed by hand, and the figure near it is 460."),
        ("All 460 came", "“460” is typed by hand; it stays when the figure moves."),
    ],
)
def test_the_figure_near_a_typed_number_is_said(title: str, message: str) -> None:
    of = edits.change_chart(made("columns", named(3, [120, 250, 90])), "k1", title=title)
    assert str(only(of, "typed-number").message).replace("\u00a0", " ") == message


def test_what_is_small_or_does_not_add_up_is_said_in_its_figures() -> None:
    of = looks(made("columns", named(3, [12, 25, 9])), frame__across__text__size=6.87)
    assert "is 6.9 pt; on paper, 7 pt" in str(only(of, "small-text").message)
    thirds = looks(made("pie", percents(1 / 3, 1 / 3, 1 / 3), labels="name and value"),
                   layers__value__label__number__style="percent",
                   layers__value__label__number__most_decimals=0)  # fmt: skip
    assert "add up to 99 %, not" in str(only(thirds, "rounding").message).replace("\u00a0", " ")
    names = named(3, [-10, 30, -50])
    assert not of_first_chart(made("columns", names), "out-of-range")


def test_columns_and_line_are_put_on_one_scale_by_their_setting() -> None:
    rows = table(["month", "walkers", "boats"], ["Jan", "Feb", "Mar", "Apr"], [210, 340, 300, 420], [3, -9, 14, 11])
    of = made("combined", rows, {"value": "walkers", "line": "boats"}, second=True)
    one = only(of, "two-axes")
    together = after(of, remedy(one, "one scale"))
    assert not together.charts[0].settings.get("second")
    assert not overrides(together)
    assert "index to 100" in keys(one)
