"""Charts in plain terms: groups, axes, workings, labels, and what is said to differ."""

import math

import pytest

from kavlet.core.charts.line import Line
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.office_model.chart_model import ChartModel
from kavlet.core.office_model.number_codes import code, decimals, told
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.colour import Colour
from kavlet.core.values.number_text import NumberText
from tests.office import Made, made

ROWS = [["stage", "people", "goal"], ["Gate", 400.0, 500.0], ["Hide", 240.0, 200.0], ["Ferry", 60.0, 100.0]]


def plain(recipe: str, rows: list[list[object]] = ROWS, settings: dict[str, object] | None = None,
          looks: dict[str, object] | None = None, locale: str = "en") -> ChartModel:  # fmt: skip
    return whole(recipe, rows, settings, looks, locale).charts[0]


def whole(recipe: str, rows: list[list[object]] = ROWS, settings: dict[str, object] | None = None,
          looks: dict[str, object] | None = None, locale: str = "en") -> Made:  # fmt: skip
    from kavlet.core.document.looks import look_edits

    document, table = edits.add_table(Document(locale=locale), "Counts", rows)  # type: ignore[arg-type]
    document, chart = edits.add_chart(document, table, recipe, {"name": ("c1",), "value": ("c2",)})
    for name, value in (settings or {}).items():
        document = look_edits.set_setting(document, chart, name, value)  # type: ignore[arg-type]
    if looks:
        document = look_edits.set_looks(document, chart, looks)
    return made(document, chart)


def said(chart: ChartModel) -> str:
    return "; ".join(map(str, chart.differs))


def cells_of(one: Made, cells: object) -> list[object]:
    chart = one.charts[0]
    tables = (*one.document.tables, chart.workings)
    values = recalculate(tables).of(cells.table)[cells.column].values  # type: ignore[attr-defined]
    return list(values[cells.first : cells.first + cells.count])  # type: ignore[attr-defined]


def test_bars_refer_to_the_table_and_keep_gap_and_direction() -> None:
    chart = plain("bars", settings={"gap": 80.0})
    (group,) = chart.groups
    assert (group.kind, group.gap, chart.lying) == ("bars", pytest.approx(80.0), True)
    series = group.series[0]
    assert (series.values.table, series.values.column, series.values.first, series.values.count) == ("t1", 1, 1, 3)
    assert chart.first is not None
    assert chart.first.across.reversed  # the first row stands at the top


def test_helpers_are_there_unseen() -> None:
    chart = plain("funnel")
    hidden = chart.groups[0].series[0]
    assert (hidden.fill, hidden.line, hidden.listed, hidden.labels.shown) == (None, None, False, ())
    assert chart.groups[0].grouping == "stacked"


def test_rows_with_a_colour_of_their_own_are_points() -> None:
    chart = plain("bars", looks={"layers.series 1.rows.1.fill": "#aa3311"})
    (point,) = chart.groups[0].series[0].points
    assert point.index == 1
    assert isinstance(point.fill, Colour)
    assert point.fill.hex == "#aa3311"


def test_labels_of_values_are_shown_as_values() -> None:
    others, highlight = (series.labels for series in plain("highlight-bars").groups[0].series)
    assert sorted((*others.shown, *highlight.shown)) == [0, 1, 2]
    assert others.points == highlight.points == ()


def test_other_labels_are_formulas_that_follow_the_cells() -> None:
    one = whole("pie")
    series = one.charts[0].groups[0].series[0]
    first = series.labels.points[0]
    text = one.charts[0].workings.columns[first.text.column].cells[first.text.first]
    assert isinstance(text, Formula)
    assert "Counts!" in text.text
    assert cells_of(one, first.text) == ["Gate\n57%"]


def test_labels_that_no_formula_gives_are_written_and_said() -> None:
    chart = plain("pie", locale="de")  # the reader's program writes its own language's numbers
    assert "written texts" in said(chart) or chart.groups[0].series[0].labels.points


def test_a_ring_has_its_hole_and_a_pie_none() -> None:
    assert plain("pie", settings={"hole": 0.0}).groups[0].kind == "pie"
    ring = plain("pie", settings={"hole": 60.0}).groups[0]
    assert (ring.kind, ring.hole) == ("rings", pytest.approx(60.0))


def test_radial_bars_are_a_ring_each_with_rest_and_free_part() -> None:
    one = whole("radial-bars")
    (group,) = one.charts[0].groups
    assert len(group.series) == 3
    for series in group.series:
        assert sum(float(part) for part in cells_of(one, series.values)) == pytest.approx(360.0)  # type: ignore[arg-type]
        assert series.points[2].fill is None
    outermost = group.series[-1]
    assert cells_of(one, outermost.name) == ["Gate"]


def test_figures_that_are_missing_do_not_pull_lines_to_zero() -> None:
    document, table = edits.add_table(
        Document(), "Levels", [["day", "level", "rise"], ["Mon", 3.0, 1.0], ["Tue", "none", 1.0], ["Wed", 5.0, 1.0]]
    )
    document, chart = edits.add_chart(document, table, "lines", {"name": ("c1",), "value": ("c3",)})
    layer = Line("own", "level", "c2")
    document = edits.change_chart(document, chart, layers=(layer,))
    one = made(document, chart)
    values = one.charts[0].groups[0].series[-1].values
    assert values.table == one.charts[0].workings.id
    held = recalculate((*one.document.tables, one.charts[0].workings)).of(values.table)[values.column]
    assert [math.isnan(number) for number in held.numbers[1:4]] == [False, True, False]


def test_rows_that_are_not_below_each_other_are_copied_by_formulas() -> None:
    one = whole("bars", looks={"rows": [0, 2]})
    values = one.charts[0].groups[0].series[0].values
    assert values.table != "t1"
    assert cells_of(one, values) == [400.0, 60.0]


def test_what_looks_different_is_said_part_by_part() -> None:
    assert "the pale bodies between the bars are missing" in said(plain("funnel"))
    assert "has no bulb" in said(plain("thermometer", [["what", "given"], ["Boards", 40.0]], {"goal": 80.0}))
    assert "straight ends" in said(plain("radial-bars"))
    assert said(plain("columns")) == ""


def test_a_solid_keeps_its_view() -> None:
    chart = plain("columns", looks={"solid.turn": 25.0, "solid.tilt": 15.0})
    assert chart.view is not None
    assert (chart.view.turn, chart.view.tilt) == (25.0, 15.0)
    assert [group.kind for group in chart.groups] == ["bars"]


def test_panels_are_charts_beside_each_other() -> None:
    document, table = edits.add_table(Document(), "Pumps", [["name", "hours"], ["A", 40.0], ["B", 70.0], ["C", 20.0]])
    document, chart = edits.add_chart(document, table, "battery", {"name": ("c1",), "value": ("c2",)})
    document = edits.change_chart(document, chart, repeat=True, settings={"budget": 100.0})
    charts = made(document, chart).charts
    assert len(charts) == 3
    assert len({chart.workings.id for chart in charts}) == 3
    assert sum(chart.box.width * chart.box.height for chart in charts) <= 1.0 + 1e-9


@pytest.mark.parametrize(
    ("how", "values", "wanted"),
    [
        (NumberText(), [1.0, 2.0], "#,##0;\u2212#,##0"),
        (NumberText(), [1.5], "#,##0.0;\u2212#,##0.0"),
        (NumberText(style="percent", most_decimals=0), [0.25], "#,##0%;\u2212#,##0%"),
        (NumberText(suffix=" km", minus="-"), [3.0], '#,##0" km"'),
        (NumberText(minus="()"), [3.0], "#,##0;(#,##0)"),
        (NumberText(style="date"), [1.0], "yyyy-mm-dd"),
    ],
)
def test_number_codes(how: NumberText, values: list[float], wanted: str) -> None:
    assert code(how, values) == wanted


def test_numbers_in_formulas_are_written_as_the_label_is() -> None:
    document, table = edits.add_table(Document(), "T", [["a"], [-1234.5], [0.375]])
    values = recalculate(document.tables)
    minus = told("T!A2", -1234.5, NumberText(suffix=" m"), "en")
    assert values.evaluate(f"={minus}", table) == "\u22121,234.5 m"
    share = told("T!A3", 0.375, NumberText(style="percent"), "en")
    assert values.evaluate(f"={share}", table) == "37.5%"
    assert told("T!A2", 1.0, NumberText(significant=3), "en") is None
    assert decimals(NumberText(), [1.0, 2.25]) == 2


def test_a_stepped_line_has_each_value_twice() -> None:
    rows: list[list[object]] = [["day", "level"], ["Mon", 3.0], ["Tue", 5.0], ["Wed", 4.0]]
    one = whole("lines", rows, {"course": "stepped"})
    (series,) = (series for group in one.charts[0].groups if group.kind == "scatter" for series in group.series)
    assert series.x is not None
    assert cells_of(one, series.x) == [0.5, 1.0, 1.0, 2.0, 2.0, 2.5]
    assert cells_of(one, series.values) == [3.0, 3.0, 5.0, 5.0, 4.0, 4.0]
    below = next(group for group in one.charts[0].groups if group.axes == "first")
    assert (below.series[0].fill, below.series[0].line) == (None, None)  # it carries the names and the scale
    assert below.series[0].names is not None
