"""A frame of another row, group, series or period equals the chart with that one chosen, its helper values too."""

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.charts.recipe_saving import saved_recipe, with_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.layout.figure import Figure
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office_model.convert_pages import chart_part_of
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.page import Page
from kavlet.core.pipeline.framed_values import framed_values
from kavlet.core.pipeline.page_items.chart_frame import framed
from kavlet.core.pipeline.page_items.multiples import ends_of, rows_of
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect

BOX = Rect(0.0, 0.0, 320.0, 220.0)
NAMES = ("Harbour", "Mill", "Quay", "Weir")
TABLES = st.tuples(
    st.integers(2, 4), st.integers(1, 3), st.lists(st.integers(1, 999), min_size=12, max_size=12)
)  # branches, years, loans


def of(recipe: str, branches: int, years: int, loans: list[int]) -> Document:
    rows: list[list[Cell]] = [["Branch", "Loans", "Goal", "Budget", "Year"]]
    for year in range(years):
        for branch in range(branches):
            number = float(loans[year * branches + branch])
            rows.append([NAMES[branch], number, 500.0, 1200.0, str(2022 + year)])
    document, table = edits.add_table(Document(), "Branches", rows)
    return edits.add_chart(document, table, recipe)[0]


def told(figure: Figure) -> list[object]:
    """All marks that are seen, with what they show and where they stand."""
    marks = [(one.key, one.row, one.value, one.bounds) for one in figure.marks if one.visible and not one.helper]
    return [*marks, *((one.text, one.bounds) for one in figure.texts)]


def chosen(document: Document, row: int) -> Document:
    """The document in which its chart itself shows a row, group, series or period."""
    entry = framed(ChartFrame("", chart="k1", row=row), BOX, document, Page("", ""))
    changes = {name: getattr(entry, name) for name in ("settings", "roles", "dress", "width", "height", "repeat")}
    return edits.change_chart(document, "k1", **changes, title="", subtitle=" ", source="")


@pytest.mark.parametrize("recipe", RECIPES)
@settings(max_examples=6, deadline=None)
@given(TABLES)
def test_each_frame_equals_the_chart_with_that_row_chosen(recipe: str, table: tuple[int, int, list[int]]) -> None:
    document = of(recipe, *table)
    pictures = Pictures()
    try:
        rows = rows_of(document, pictures.values(document), document.chart("k1"))
    except KavletError:
        return  # it shows all rows at once
    for row in rows:
        entry = framed(ChartFrame("", chart="k1", row=row, title=False), BOX, document, Page("", ""))
        alone = chosen(document, row)
        try:
            expected = told(Pictures().picture(alone, "k1").figure)
        except KavletError as why:
            with pytest.raises(KavletError, match=str(why)[:20]):
                pictures.drawn(document, entry, "f")
            continue
        assert told(pictures.drawn(document, entry, "f").figure) == expected
    assert document == of(recipe, *table)  # the document is as it was


def test_all_periods_of_a_stepping_chart_have_their_bars_on_one_scale() -> None:
    document = of("stepping", 3, 3, [40, 25, 10, 44, 20, 18, 90, 60, 30, 0, 0, 0])
    pictures = Pictures()
    rows = rows_of(document, pictures.values(document), document.chart("k1"))
    seen = []
    for row in rows:
        entry = framed(ChartFrame("", chart="k1", row=row), BOX, document, Page("", ""))
        figure = pictures.drawn(document, entry, f"f{row}").figure
        seen.append([mark.value for mark in figure.marks if mark.visible and not mark.helper])
    assert seen == [[40.0, 25.0, 10.0], [44.0, 20.0, 18.0], [90.0, 60.0, 30.0]]
    ends = ends_of(document, document.chart("k1"), rows, lambda entry, key: pictures.drawn(document, entry, key))
    assert ends is not None
    assert ends[1] >= 90.0


def test_a_group_is_summed_up_under_its_own_name() -> None:
    document = of("thermometer", 3, 2, [40, 25, 10, 44, 20, 18, 0, 0, 0, 0, 0, 0])
    pictures = Pictures()
    rows = rows_of(document, pictures.values(document), document.chart("k1"))
    assert list(rows.values()) == ["Harbour", "Mill", "Quay"]
    shares = []
    for row in rows:
        entry = framed(ChartFrame("", chart="k1", row=row), BOX, document, Page("", ""))
        figure = pictures.drawn(document, entry, "f").figure
        shares += [mark.value for mark in figure.marks if mark.visible and not mark.helper]
    assert shares == pytest.approx([84 / 1000, 45 / 1000, 28 / 1000])


def test_a_chart_by_an_author_s_own_recipe_stands_in_its_frame_as_alone() -> None:
    document = of("stepping", 3, 2, [40, 25, 10, 44, 20, 18, *[0] * 6])
    own = saved_recipe(document, "k1", Pictures().picture(document, "k1").build.chart, "My steps")
    document = chart_edits.try_recipe(with_recipe(document, own), "k1", own.name)
    assert document.chart("k1").recipe == own.name
    entry = framed(ChartFrame("", chart="k1", row=2, title=False), BOX, document, Page("", ""))
    expected = told(Pictures().picture(chosen(document, 2), "k1").figure)
    assert told(Pictures().drawn(document, entry, "f").figure) == expected


def test_a_frame_that_shows_what_the_document_shows_reads_the_document_s_values() -> None:
    document = of("columns", 3, 1, [40, 25, 10, *[0] * 9])
    values = Pictures().values(document)
    entry = msgspec.structs.replace(document.chart("k1"), width=100.0)
    assert framed_values(document, values, entry) == (document, values)


def test_a_delivered_frame_takes_its_own_helper_values_along() -> None:
    document = of("stepping", 3, 2, [40, 25, 10, 44, 20, 18, *[0] * 6])
    document, page = page_edits.add_page(document, "A4")
    document, item = page_edits.put(document, page, ChartFrame("", chart="k1", row=2), BOX)
    values = Pictures().values(document)
    held = document.page(page).item(item)
    assert isinstance(held, ChartFrame)
    entry = framed(held, BOX, document, document.page(page))
    picture = Pictures().drawn(document, entry, "f")
    own, own_values = framed_values(document, values, entry)
    part = chart_part_of(own, own_values, picture, BOX, (own.table("t1"),))
    series = next(one for group in part.charts[0].groups for one in group.series)
    sheets = sheets_for(document.tables, part.charts)
    assert 44.0 in sheets.numbers(series.values)
