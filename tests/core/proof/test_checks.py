"""Every check: when it speaks, with which figure, when it is silent, and that each of its remedies mends it."""

from collections.abc import Callable
from typing import Any

import msgspec
import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.texts import Text
from kavlet.core.document import edits
from kavlet.core.document.document import AltText, ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.proof.checks.words import message_now
from kavlet.core.proof.proofreading import drawn_chart
from kavlet.core.proof.registry import CHECKS
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.number_text import WHOLE_PERCENT
from tests.core.proof.proofed import after, grave, is_same, of_first_chart, remedy
from tests.making import document, draw, table

PLACES = ("Reed", "Alder", "Mere", "Quay", "Ferry", "Dyke", "Bank", "Carr", "Pond", "Hide")
Make = Callable[[], Document]


def made(recipe: str, rows: list[list[Cell]], roles: dict[str, Any] | None = None, /, **settings: Any) -> Document:
    """A document with a chart that has a title, so that nothing but what is meant is found."""
    return edits.change_chart(document(recipe, rows, roles, **settings), "k1", title="What it says")


def looks(of: Document, **values: Any) -> Document:
    return look_edits.set_looks(
        of, "k1", {path.replace("__", ".").replace("series_", "series "): value for path, value in values.items()}
    )


def named(count: int, *columns: list[Any], heads: tuple[str, ...] = ("value",)) -> list[list[Cell]]:
    return table(["place", *heads], list(PLACES[:count]), *columns)


def percents(*shares: float) -> list[list[Cell]]:
    rows: list[list[Cell]] = [["part", "share"]]
    return [*rows, *([PLACES[i], FormattedNumber(share, WHOLE_PERCENT)] for i, share in enumerate(shares))]


def free(layers: tuple[Any, ...], rows: list[list[Cell]], **chart: Any) -> Document:
    held, name = edits.add_table(Document(), "Figures", rows)
    spec = Chart(Cartesian(**chart.pop("frame", {})), layers, names="c1", title=Text("What it says"), **chart)
    entry = ChartEntry("k1", "Free", name, "", free=spec, title="What it says")
    return msgspec.structs.replace(held, charts=(entry,))


MONTHS = table(["month", "walkers", "boats"], ["Jan", "Feb", "Mar", "Apr"], [210, 340, 300, 420], [3, 9, 14, 11])
THREE = named(10, [9] * 10, [8] * 10, [7] * 10, heads=("a", "b", "c"))
CAPPED = named(4, [50, 60, 500, 480])
SPREAD = table(["name", "x", "y", "size"], ["a", "b", "c"], [1, 2, 3], [2, 3, 4], [10, 40, 90])
STEPS = table(["step", "value"], ["Start", "Fees", "Wages", "Total"], [200, 50, -70, 200])

# check: a chart it objects to, the figure it rests on, and the keys of its remedies
CASES: dict[str, tuple[Make, float, set[str]]] = {
    "cut-axis": (lambda: made("columns", named(4, [60, 80, 70, 90]), minimum=50.0), 50.0,
                 {"begin at zero", "turn to points"}),
    "lie-factor": (lambda: made("bubbles", SPREAD, by="diameter"), 10.0, {"size by area"}),
    "log-bars": (lambda: looks(made("columns", named(3, [10, 100, 1000])), frame__along__kind="log"), 0.0,
                 {"linear scale", "turn to points"}),
    "share-sum": (lambda: made("pie", percents(0.4, 0.3, 0.25)), 0.95, {"show the left-over"}),
    "rounding": (lambda: looks(made("pie", percents(1 / 3, 1 / 3, 1 / 3), labels="name and value"),
                               layers__value__label__number__style="percent",
                               layers__value__label__number__most_decimals=0), 99.0, {"largest remainder"}),
    "negative-share": (lambda: made("columns", named(3, [5, -2, 4], [3, 4, 6], heads=("a", "b")), stack="100 %"), -2.0,
                       {"bars"}),
    "many-slices": (lambda: made("pie", named(9, [30, 25, 20, 10, 5, 4, 3, 2, 1])), 9.0, {"gather", "sorted bars"}),
    "two-axes": (lambda: made("combined", MONTHS, {"value": "walkers", "line": "boats"}, second=True, front="line"),
                 0.0, set()),
    "unsorted": (lambda: made("highlight-bars", named(7, [3, 9, 4, 8, 2, 7, 5])), 7.0, {"sort"}),
    "stated-total": (lambda: made("bridge", STEPS), 20.0, {"difference row"}),
    "no-base": (lambda: made("growth-bars", named(3, [0, 4, 5], [3, 6, 7], heads=("2024", "2025"))), 1.0,
                {"both values"}),
    "out-of-range": (lambda: made("gauge", named(1, [130]), maximum=100.0), 130.0, {"widen"}),
    "capped": (lambda: made("capped-bars", CAPPED, cap=100.0), 0.8, {"raise cap", "log points"}),
    "missing": (lambda: made("columns", named(4, [4, None, 6, 8])), 1.0, {"take out"}),
    "doubles": (lambda: made("columns", table(["a", "v"], ["Reed", "Mere", "Reed"], [3, 4, 5])), 2.0,
                {"join", "number"}),
    "typed-number": (lambda: edits.change_chart(made("columns", named(3, [120, 250, 90])), "k1", title="All 460 came"),
                     460.0, {"bind"}),
    "title-missing": (lambda: edits.change_chart(made("columns", named(3, [12, 25, 9])), "k1", title=""), 0.0,
                      {"write title"}),
    "one-legend": (lambda: looks(made("columns", named(3, [12, 25, 9])), legend__side="right"), 1.0, {"drop legend"}),
    "contrast": (lambda: looks(made("columns", named(3, [12, 25, 9]), labels="values"),
                               layers__series_1__label__colour="#bbbbbb"), 0.0, {"text colour"}),
    "colour-blind": (lambda: looks(made("columns", named(3, [12, 25, 9], [8, 30, 11], heads=("a", "b"))),
                                   layers__series_1__fill="#3a7d44", layers__series_2__fill="#a5672f"), 0.0,
                     {"safe palette"}),
    "grey-print": (lambda: looks(made("columns", named(3, [12, 25, 9], [8, 30, 11], heads=("a", "b"))),
                                 layers__series_1__fill="#777777", layers__series_2__fill="#7a7a7a"), 0.0, {"hatches"}),
    "small-text": (lambda: looks(made("columns", named(3, [12, 25, 9])), frame__across__text__size=5.0), 5.0,
                   {"larger text"}),
    "labels-lost": (lambda: edits.change_chart(made("columns", THREE, labels="values"), "k1", width=120.0,
                                               height=90.0), 0.0, {"larger"}),
    "overlap": (lambda: looks(made("columns", named(4, [40, 50, 45, 30]), labels="values"),
                              layers__series_1__rows__1__dx=150.0, layers__series_1__rows__1__dy=60.0), 1.0,
                {"put back"}),
    "solid-share": (lambda: looks(made("pie", named(4, [20, 30, 25, 25])), solid__on=True, solid__tilt=70.0,
                                  solid__depth=1.0), 0.0, {"front view", "flat"}),
    "digits": (lambda: made("columns", named(3, [123456, 234567, 345678]), labels="values"), 6.0, {"round"}),
    "formula-error": (lambda: made("columns", table(["a", "v"], ["x", "y"], [3, Formula("=1/0")])), 1.0, {"go"}),
}  # fmt: skip


def test_every_check_of_a_chart_has_a_case() -> None:
    apart = {"pies-compared", "scales-differ", "stale-source", "low-resolution"}  # of pages, files and pictures
    assert set(CASES) | apart == set(CHECKS)
    assert len(CHECKS) == 31
    assert all(check.says and check.source for check in CHECKS.values())


@pytest.mark.parametrize("check", [name for name in CASES if name not in ("two-axes",)])
def test_a_check_speaks_with_its_figure(check: str) -> None:
    make, figure, keys = CASES[check]
    held = of_first_chart(make(), check)
    assert held
    first = held[0]
    assert first.place.chart == "k1"
    if figure:
        assert first.figure == pytest.approx(figure, rel=1e-6)
    assert keys <= {one.key for one in first.remedies}


@pytest.mark.parametrize("check", [name for name in CASES if name not in ("two-axes", "formula-error")])
def test_each_remedy_mends_it_and_raises_nothing_grave(check: str) -> None:
    of = CASES[check][0]()
    before = of_first_chart(of)
    for finding in [one for one in before if one.check == check]:
        for wanted in finding.remedies:
            mended = after(of, wanted)
            left = of_first_chart(mended)
            assert not any(is_same(one, finding) for one in left), wanted.key
            assert not grave(left) - grave(before), wanted.key


def test_a_title_from_the_figures_says_what_stands_out() -> None:
    of = edits.change_chart(made("columns", named(3, [12, 25, 9])), "k1", title="")
    (finding,) = of_first_chart(of, "title-missing")
    assert after(of, remedy(finding, "write title")).charts[0].title == "Alder stands out"


def test_the_difference_to_a_stated_total_becomes_a_row() -> None:
    of = made("bridge", STEPS)
    (finding,) = of_first_chart(of, "stated-total")
    mended = after(of, remedy(finding, "difference row"))
    assert [column.cells[4] for column in mended.tables[0].columns[:2]] == ["Unexplained", 20.0]
    assert not of_first_chart(mended, "stated-total")


def test_rows_of_one_name_are_added_up() -> None:
    of = CASES["doubles"][0]()
    (finding,) = of_first_chart(of, "doubles")
    joined = after(of, remedy(finding, "join")).tables[0]
    assert [column.cells[1:] for column in joined.columns[:2]] == [("Reed", "Mere"), (8.0, 4.0)]
    numbered = after(of, remedy(finding, "number")).tables[0]
    assert numbered.columns[0].cells[1:] == ("Reed", "Mere", "Reed 2")


def test_sorting_leaves_a_total_at_the_end() -> None:
    rows = [*named(7, [3, 9, 4, 8, 2, 7, 5]), ["Total", Formula("=SUM(B2:B8)")]]
    of = made("bars", rows)
    (finding,) = of_first_chart(of, "unsorted")
    cells = after(of, remedy(finding, "sort")).tables[0].columns
    assert cells[1].cells[1:8] == (9.0, 8.0, 7.0, 5.0, 4.0, 3.0, 2.0)
    assert cells[0].cells[8] == "Total"
    assert cells[1].cells[8] == Formula("=SUM(B2:B8)")


def test_what_has_an_order_of_its_own_is_not_to_be_sorted() -> None:
    figures = [3, 9, 4, 8, 2, 7, 5]
    for names in (
        ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul"],
        ["under 18", "18 to 24", "25 to 34", "35 to 49", "50 to 64", "65 to 80", "over 80"],
        ["never", "seldom", "sometimes", "often", "always", "none", "all"],
    ):
        assert not of_first_chart(made("highlight-bars", table(["a", "v"], names, figures)), "unsorted")


def test_percents_near_100_are_meant_to_add_up_others_are_not() -> None:
    assert not of_first_chart(made("pie", percents(0.33, 0.33, 0.33)), "share-sum")  # within rounding
    assert of_first_chart(made("pie", percents(0.5, 0.4, 0.14)), "share-sum")[0].figure == pytest.approx(1.04)
    assert not of_first_chart(made("pie", percents(0.1, 0.2, 0.15)), "share-sum")  # a part of something else


def test_two_scales_that_make_a_crossing() -> None:
    crossing = table(["month", "a", "b"], ["Jan", "Feb", "Mar", "Apr"], [10, 20, 30, 40], [400, 300, 200, 100])
    of = looks(made("lines", crossing), layers__series_2__second=True)
    of = looks(of, frame__second__minimum=0.0)
    (finding,) = of_first_chart(of, "two-axes")
    assert "cross" in str(finding.message)
    one = after(of, remedy(finding, "one scale"))
    assert not of_first_chart(one, "two-axes")
    two = after(of, remedy(finding, "two charts"))
    assert len(two.charts) == 2
    assert not of_first_chart(two, "two-axes")
    assert {layer for chart in two.charts for layer, value in chart.dress.overrides.items() if value is True} == {
        "layers.series 1.hidden", "layers.series 2.hidden", "layers.series 2.second",
    }  # fmt: skip
    indexed = after(of, remedy(finding, "index to 100"))
    assert not of_first_chart(indexed, "two-axes")
    drawn = Pictures().picture(indexed, "k1").build
    assert drawn.chart.frame.second is None  # type: ignore[union-attr]
    assert [list(drawn.inputs.numbers[one]) for one in drawn.inputs.ids("value")] == [
        [100, 200, 300, 400], [100, 75, 50, 25],
    ]  # fmt: skip
    assert drawn.inputs.title("value") == "a (Jan = 100)"
    apart = looks(of, frame__second__minimum=-300.0)
    assert "zeros" in str(of_first_chart(apart, "two-axes")[0].message)
    bars = made("combined", MONTHS, {"value": "walkers", "line": "boats"}, second=True)
    assert not of_first_chart(bars, "two-axes")  # both begin at zero, and bars are no course


def test_areas_are_measured_and_diameters_told() -> None:
    (finding,) = of_first_chart(made("bubbles", SPREAD, by="diameter"), "lie-factor")
    assert finding.figure == pytest.approx(((90 / 10) ** 2 - 1) / (90 / 10 - 1))
    assert not of_first_chart(made("bubbles", SPREAD), "lie-factor")


def test_a_symbol_grown_in_two_directions_is_told_and_counted_ones_are_not() -> None:
    grown = made("picture-bars", named(3, [10, 20, 40]), how="fitted")
    (finding,) = of_first_chart(grown, "lie-factor")
    assert finding.figure > 2
    assert not of_first_chart(after(grown, remedy(finding, "repeat by count")), "lie-factor")
    assert not of_first_chart(made("picture-bars", named(3, [10, 20, 40])), "lie-factor")


def test_lines_may_begin_anywhere() -> None:
    assert not of_first_chart(made("lines", MONTHS, minimum=100.0, zero=False), "cut-axis")


def test_bars_below_zero_alone_begin_at_zero_as_well() -> None:
    of = looks(made("columns", named(3, [-40, -20, -30])), frame__along__maximum=-10.0)
    assert of_first_chart(of, "cut-axis")[0].figure == pytest.approx(-10.0)


def test_a_number_that_was_true_is_told_apart_from_one_that_is() -> None:
    for title, severity in (("All 460 came", "note"), ("All 470 came", "warning")):
        of = edits.change_chart(made("columns", named(3, [120, 250, 90])), "k1", title=title)
        (finding,) = of_first_chart(of, "typed-number")
        assert finding.severity == severity
        bound = after(of, remedy(finding, "bind"))
        assert bound.charts[0].title == '="All "&TEXT(SUM(B2:B4);"#,##0")&" came"'
        assert not of_first_chart(bound, "typed-number")


@pytest.mark.parametrize("title", ["In 2025 more came", "3 of 4 hides", "The A4 path", "Route 120", "About 500 came"])
def test_what_is_no_figure_is_left_alone(title: str) -> None:
    names = table(["place", "value"], ["Route 120", "Alder", "Mere"], [120, 250, 90])
    of = edits.change_chart(made("columns", names), "k1", title=title)
    assert not of_first_chart(of, "typed-number")


def test_shares_in_a_text_are_bound_to_their_cells() -> None:
    of = edits.change_chart(made("pie", named(3, [120, 240, 40])), "k1", title="Alder takes 60 % of all")
    (finding,) = of_first_chart(of, "typed-number")
    assert after(of, remedy(finding, "bind")).charts[0].title == '="Alder takes "&TEXT(B3/SUM(B2:B4);"0 %")&" of all"'


def test_an_alt_text_is_asked_about_when_its_figures_move_on() -> None:
    of = made("columns", named(3, [12, 25, 9]))
    said = message_now(drawn_chart(of, recalculate(of.tables), draw(of)))
    assert said == "Columns: value. Alder stands out with 25, 2.1 times the next, Reed. The smallest is Mere with 9."
    of = edits.change_chart(of, "k1", alt=AltText("Alder leads.", said))
    assert draw(of).figure.alt_text == "Alder leads."
    assert not of_first_chart(of, "title-missing")
    moved = edits.set_cells(of, "t1", {(1, 3): 99.0})
    (finding,) = of_first_chart(moved, "title-missing")
    assert "moved on" in str(finding.message)
    assert after(moved, remedy(finding, "write alt text")).charts[0].alt is None
    kept = after(moved, remedy(finding, "keep alt text"))
    assert kept.charts[0].alt is not None
    assert kept.charts[0].alt.text == "Alder leads."
    assert not of_first_chart(kept, "title-missing")


def test_a_helper_edited_by_hand_is_given_back() -> None:
    of = made("funnel", table(["s", "v"], ["a", "b", "c"], [90, 60, 30]))
    place = next(i for i, column in enumerate(of.tables[0].columns) if column.helper and column.helper.name == "step")
    hand = edits.set_cells(of, "t1", {(place, 2): 0.5})
    (finding,) = of_first_chart(hand, "formula-error")
    assert after(hand, remedy(finding, "give back")) == of


def test_a_legend_that_repeats_labels_says_nothing_new() -> None:
    of = looks(made("pie", named(3, [3, 4, 5])), legend__side="right")
    assert "repeats" in str(of_first_chart(of, "one-legend")[0].message)
    assert not of_first_chart(made("pie", named(3, [3, 4, 5]), labels="value"), "one-legend")


def test_free_layers_are_read_as_well() -> None:
    rows = table(["a", "v"], ["x", "y", "z"], [60, 80, 70])
    of = free((Bars("b", "Bars", "c2"),), rows, frame={"along": Scale(minimum=50.0)})
    (finding,) = of_first_chart(of, "cut-axis")
    assert finding.figure == pytest.approx(50.0)
    wide = free(
        (Bubbles("b", "B", "c2", x="c2", sizes="c2", by="diameter"),),
        rows,
        legend=Legend(side="none"),
        frame={"across": Scale()},
    )
    assert of_first_chart(wide, "lie-factor")


@pytest.mark.parametrize(
    ("recipe", "heads", "first", "second", "keys"),
    [
        ("growth-bars", ("2023", "2024"), [12, 25, 9, 5], [14, None, 9, 8], {"take out"}),
        ("mirrored-bars", ("women", "men"), [12, 25, 9, 5], [14, None, 9, 8], set()),
        ("points", ("x", "y"), [12, None, 9, 5], [14, 3, 9, 8], {"take out"}),
        ("combined", ("guests", "rain"), [12, 25, 9, 5], [14, None, 9, 8], {"show as gap"}),
        ("combined", ("guests", "rain"), [12, 25, None, 5], [14, 7, 9, 8], set()),
    ],
)
def test_what_is_missing_is_told_of_every_column_that_is_needed(
    recipe: str, heads: tuple[str, str], first: list[Any], second: list[Any], keys: set[str]
) -> None:
    of = made(recipe, named(4, first, second, heads=heads))
    (one,) = of_first_chart(of, "missing")
    assert one.figure == 1
    assert one.place.cell is not None
    column, row = one.place.cell
    assert of.tables[0].columns[column].cells[row] is None
    assert {held.key for held in one.remedies} == keys
    for key in keys:
        assert not of_first_chart(after(of, remedy(one, key)), "missing")


def test_growth_from_nothing_is_told_once() -> None:
    of = made("growth-bars", named(4, [12, 0, 9, None], [14, 28, 9, 8], heads=("2023", "2024")))
    (one,) = of_first_chart(of, "no-base")
    assert one.figure == 2
    assert not of_first_chart(of, "missing")
    both = after(of, remedy(one, "both values"))
    assert not of_first_chart(both, "no-base")
    assert len(Pictures().picture(both, "k1").figure.marks) == 7
    nothing = made("growth-bars", named(3, [12, 5, None], [14, 28, None], heads=("2023", "2024")))
    assert not of_first_chart(nothing, "no-base")
    assert of_first_chart(nothing, "missing")[0].figure == 1
