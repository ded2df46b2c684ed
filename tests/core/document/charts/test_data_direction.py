"""Figures that run across a row: the helper table in the open, what follows whom, and the way back."""

import pytest

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits, data_direction
from kavlet.core.document.charts.chart_order import ChartRequest, chart_document
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables import row_order, table_edits
from kavlet.core.document.tables.table_advice import suggestions
from kavlet.core.files import kavlet
from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import NumberText

ROWS: list[list[Cell]] = [
    ["month", "Enquiries", "Tours", "Signed"],
    ["April", 520.0, 180.0, 61.0],
    ["May", 480.0, 210.0, None],
    ["June", 610.0, 260.0, 91.0],
]


def months(recipe: str = "funnel", row: int = -1) -> Document:
    made, _ = edits.add_table(Document(), "Guided walks", ROWS)
    made, chart = edits.add_chart(made, "t1", recipe)
    return data_direction.read_across(made, chart, row)


def shown(made: Document, chart: str = "k1") -> Picture:
    return picture(made, recalculate(made.tables), chart)


def figures(made: Document, chart: str = "k1") -> dict[str, float]:
    read = shown(made, chart).build.inputs
    return dict(zip(read.names, read.figures("value"), strict=True))


def test_names_are_the_headers_and_values_the_row() -> None:
    made = months()
    assert figures(made) == {"Enquiries": 610.0, "Tours": 260.0, "Signed": 91.0}
    assert shown(made).build.chart.subtitle.text == "June"
    helpers = {one.name: one.values for one in shown(made).build.helpers}
    assert helpers["offset"] == (0.0, 175.0, 259.5)  # half of what is missing to 610


def test_the_construction_stands_in_a_table_as_formulas() -> None:
    made = months(row=0)
    held = made.tables[1]
    assert held.name == "Guided walks, across"
    names, values = (
        [cell.text if isinstance(cell, Formula) else cell for cell in one.cells] for one in held.columns[:2]
    )
    assert names == [None, "='Guided walks'!B$1", "='Guided walks'!C$1", "='Guided walks'!D$1"]
    assert values[0] == "=INDEX('Guided walks'!A$2:A$4;1)"
    assert values[2] == "=INDEX('Guided walks'!C$2:C$4;1)"


@pytest.mark.parametrize("recipe", ["funnel", "pie", "waffle", "bridge", "capsule", "radial-bars", "highlight-bars"])
def test_recipes_know_nothing_of_it(recipe: str) -> None:
    across = shown(months(recipe))
    typed = [["name", "June"], ["Enquiries", 610.0], ["Tours", 260.0], ["Signed", 91.0]]
    plain, _ = edits.add_chart(edits.add_table(Document(), "Guided walks", typed)[0], "t1", recipe)
    assert [(mark.key, mark.row, mark.value) for mark in across.figure.marks] == [
        (mark.key, mark.row, mark.value) for mark in shown(plain).figure.marks
    ]


def test_another_row_is_read_and_an_empty_cell_is_no_value() -> None:
    made = data_direction.read_row(months(), "k1", 1)
    read = figures(made)
    assert (read["Enquiries"], read["Tours"]) == (480.0, 210.0)
    assert read["Signed"] != read["Signed"]  # not a number: no value, not zero
    assert shown(made).build.chart.subtitle.text == "May"


def test_going_back_gives_the_very_document() -> None:
    made, _ = edits.add_table(Document(), "Guided walks", ROWS)
    made, chart = edits.add_chart(made, "t1", "columns")
    made = edits.change_chart(made, chart, roles={"name": ("c1",), "value": ("c4", "c2")}, settings={"gap": 20.0})
    made = look_edits.set_looks(
        made, chart, {"layers.series 1.rows.2.fill": "#aa0000", "layers.series 1.fill": "#0000aa"}
    )
    across = data_direction.read_across(made, chart, 0)
    assert "layers.series 1.rows.2.fill" not in across.charts[0].dress.overrides  # row 2 was June, not Signed
    assert data_direction.read_down(across, chart) == made


def test_cells_in_settings_and_texts_still_mean_the_table_that_is_read() -> None:
    made, _ = edits.add_table(Document(), "Guided walks", ROWS)
    made, chart = edits.add_chart(made, "t1", "highlight-bars")
    made = edits.change_chart(made, chart, title="=A4", settings={"rule": "above", "than": "=B4"})
    across = data_direction.read_across(made, chart, 0)
    assert shown(across).build.chart.title.text == "June"
    assert across.charts[0].settings["than"] == "='Guided walks'!B4"


def test_what_is_typed_into_the_helper_table_goes_to_the_table_it_reads() -> None:
    made = months(row=0)
    made = edits.set_cells(made, "t2", {(1, 2): 190.0, (0, 3): "Members", (1, 0): "Easter"})
    source = made.tables[0]
    assert (source.columns[2].cells[1], source.columns[3].cells[0], source.columns[0].cells[1]) == (
        190.0, "Members", "Easter",
    )  # fmt: skip
    assert figures(made)["Tours"] == 190.0
    own = edits.set_cells(made, "t2", {(1, 2): Formula("=2*B2")})
    assert (figures(own)["Tours"], own.tables[0]) == (1040.0, source)  # a formula is an exception of the author's
    assert figures(edits.set_cells(own, "t2", {(1, 2): None}))["Tours"] == 190.0


def test_rows_of_the_helper_table_are_columns_and_keep_their_looks() -> None:
    made = look_edits.set_looks(months("pie"), "k1", {"layers.value.rows.2.fill": "#aa0000"})
    turned = row_order.move_rows(made, "t2", 3, 1, 1)
    assert list(figures(turned)) == ["Signed", "Enquiries", "Tours"]
    assert turned.charts[0].dress.overrides == {"layers.value.rows.0.fill": "#aa0000"}
    fewer = edits.delete_rows(turned, "t2", 2)
    assert list(figures(fewer)) == ["Signed", "Tours"]
    again = data_direction.with_column(fewer, "k1", "c2", True)
    assert list(figures(again)) == ["Signed", "Tours", "Enquiries"]  # an order of the author's own is kept
    assert again.charts[0].dress.overrides == {"layers.value.rows.0.fill": "#aa0000"}
    with pytest.raises(KavletError, match="helper table"):
        edits.insert_rows(again, "t2", 2)
    with pytest.raises(KavletError, match="helper table"):
        row_order.transpose(again, "t2")


def test_columns_come_back_where_they_stood() -> None:
    made = look_edits.set_looks(months("pie"), "k1", {"layers.value.rows.2.fill": "#aa0000"})
    fewer = data_direction.with_column(made, "k1", "c3", False)
    assert fewer.charts[0].dress.overrides == {"layers.value.rows.1.fill": "#aa0000"}
    assert data_direction.with_column(fewer, "k1", "c3", True).charts == made.charts
    one = data_direction.with_column(fewer, "k1", "c2", False)
    with pytest.raises(KavletError, match="at least one"):
        data_direction.with_column(one, "k1", "c4", False)


def test_the_row_is_followed_and_so_are_columns() -> None:
    made = months(row=0)
    assert shown(row_order.move_rows(made, "t1", 1, 1, 4)).build.chart.subtitle.text == "April"
    assert shown(edits.insert_rows(made, "t1", 1, 2)).build.chart.subtitle.text == "April"
    assert list(figures(edits.delete_columns(made, "t1", 1))) == ["Tours", "Signed"]
    moved = row_order.move_columns(made, "t1", 3, 1, 1)
    assert figures(moved) == {"Enquiries": 520.0, "Tours": 180.0, "Signed": 61.0}
    renamed = table_edits.rename(made, "t1", "Walks")
    assert figures(renamed)["Tours"] == 180.0
    last = data_direction.read_row(made, "k1", -1)
    assert shown(edits.delete_rows(last, "t1", 3)).build.chart.subtitle.text == "May"


def test_a_helper_table_comes_and_goes_with_its_chart() -> None:
    made = months()
    twice, copy = chart_edits.copy_chart(made, "k1")
    assert [one.name for one in twice.tables] == ["Guided walks", "Guided walks, across", "Guided walks, across 2"]
    twice = data_direction.read_row(twice, copy, 0)
    assert (figures(twice)["Tours"], figures(twice, copy)["Tours"]) == (260.0, 180.0)
    assert [one.id for one in chart_edits.delete_chart(twice, "k1").tables] == ["t1", "t3"]
    assert table_edits.delete(twice, "t1") == Document()
    with pytest.raises(KavletError, match="belongs to its chart"):
        table_edits.delete(made, "t2")


def test_cut_loose_its_table_is_the_author_s_own() -> None:
    made = months()
    loose = chart_edits.cut_loose(made, "k1", shown(made).build.chart)
    assert (loose.charts[0].reading, loose.tables[1].helper) == (None, None)
    assert len(shown(loose).figure.marks) == len(shown(made).figure.marks)
    assert edits.set_cells(loose, "t2", {(1, 1): 5.0}).tables[0] == made.tables[0]


def test_it_is_saved() -> None:
    made = months(row=1)
    assert kavlet.loads(kavlet.dumps(made), "walks.kavlet") == made


def test_what_can_t_be_read_across_is_said() -> None:
    made, _ = edits.add_table(Document(), "t", [["a", "b"], ["x", 1.0]])
    made, chart = edits.add_chart(made, "t1", "bars")
    with pytest.raises(KavletError, match="two columns"):
        data_direction.read_across(made, chart)
    with pytest.raises(KavletError, match="run down"):
        data_direction.read_row(made, chart, 0)
    for wish in ("July", "0", "4"):
        with pytest.raises(KavletError, match="no row"):
            chart_document(ChartRequest(recipe="funnel", rows=ROWS, across=wish))
    with pytest.raises(KavletError, match="names are those"):
        chart_document(ChartRequest(recipe="funnel", rows=ROWS, across="May", roles={"name": ("month",)}))


def test_an_order_names_the_row_and_what_is_read() -> None:
    made, chart = chart_document(
        ChartRequest(recipe="pie", rows=ROWS, across="june", roles={"value": ("Tours", "Signed")})
    )
    assert figures(made, chart) == {"Tours": 260.0, "Signed": 91.0}
    assert figures(*chart_document(ChartRequest(recipe="pie", rows=ROWS, across="2")))["Enquiries"] == 480.0


def test_rows_are_called_as_they_are_written() -> None:
    percent = NumberText(style="percent")
    made, _ = edits.add_table(Document(), "t", [["a", "b"], [FormattedNumber(0.25, percent), 1.0], [None, 2.0]])
    assert data_direction.row_names(made, "t1") == ["row 1", "row 2"]
    made, _ = edits.add_table(Document(), "t", [["year", "b"], ["x", 1.0], [None, 2.0]])
    assert data_direction.row_names(made, "t1") == ["x", "row 2"]


def test_a_table_of_one_row_is_read_across_by_itself() -> None:
    made, table = edits.add_table(Document(), "t", [ROWS[0], ROWS[1]])
    offered = suggestions(made, table)
    assert {one.recipe for one in offered} == set(RECIPES)
    assert all(one.across for one in offered)
    assert offered[0].roles["value"] == ("c2", "c3", "c4")
    mixed, table = edits.add_table(Document(), "t", [["place", "raised", "goal", "since"], ["Mire", 410.0, 900.0, 2.0]])
    assert not suggestions(mixed, table)[0].across


def test_formulas_that_give_names_are_no_figures() -> None:
    rows: list[list[Cell]] = [["who", "pairs"], [Formula('="Reed "&1'), 4.0], [Formula('="Reed "&2'), 7.0]]
    made, table = edits.add_table(Document(), "t", rows)
    made, chart = edits.add_chart(made, table, "bars")
    assert made.chart(chart).roles == {"name": ("c1",), "value": ("c2",)}
