"""The cell whose number a mark or a key figure shows, and another number in it."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.document import edits
from kavlet.core.document.charts import data_direction
from kavlet.core.document.document import Document
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pipeline.editable_cell import EditableCell, cell_of_figure, cell_of_mark, same_cell, with_number
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import FormattedNumber, Formula
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import NumberText

ROWS = [["Gate", "Guests", "Share"], ["North", 40.0, 0.5], ["South", 25.0, 0.3], ["East", 10.0, 0.2]]


def made(
    recipe: str, roles: dict[str, tuple[str, ...]] | None = None, rows: list[list[object]] | None = None
) -> Document:
    document, table = edits.add_table(Document(), "Gates", rows or ROWS)  # type: ignore[arg-type]
    document, _ = edits.add_chart(document, table, recipe, roles or {"name": ("c1",), "value": ("c2",)})
    return document


def places(document: Document) -> dict[int, EditableCell]:
    """The cells of all marks that show one, by row."""
    pictures = Pictures()
    picture = pictures.picture(document, "k1")
    found: dict[int, EditableCell] = {}
    for mark in picture.figure.marks:
        if mark.visible and not mark.helper and mark.row >= 0:
            try:
                found[mark.row] = cell_of_mark(document, document.chart("k1"), picture, mark)
            except KavletError:
                continue
    return found


@pytest.mark.parametrize(
    "recipe",
    ["columns", "bars", "lines", "funnel", "highlight-bars", "radial-bars", "pie", "bridge", "capsule", "pictogram",
     "waffle", "capped-bars"],
)  # fmt: skip
def test_marks_lead_to_their_own_cells(recipe: str) -> None:
    """Also where a mark draws a share of the figure, or stands for it by symbols."""
    assert places(made(recipe)) == {row: EditableCell("t1", 1, row + 1) for row in range(3)}


def test_a_mark_of_a_second_series_leads_to_its_column() -> None:
    document = made("columns", {"name": ("c1",), "value": ("c2", "c3")})
    pictures = Pictures()
    picture = pictures.picture(document, "k1")
    second = [mark for mark in picture.figure.marks if mark.key == "series 2"]
    cells = [cell_of_mark(document, document.chart("k1"), picture, mark) for mark in second]
    assert cells == [EditableCell("t1", 2, row) for row in (1, 2, 3)]


def test_a_figure_that_is_computed_is_refused() -> None:
    document = made("columns")
    document = edits.set_cells(document, "t1", {(1, row): Formula(f"={row}*10") for row in (1, 2, 3)})
    assert places(document) == {}


def test_stepping_marks_lead_to_the_row_of_their_period() -> None:
    rows: list[list[object]] = [["Gate", "Guests", "Year"], ["North", 1.0, "2023"], ["South", 2.0, "2023"],
                                ["North", 3.0, "2024"], ["South", 4.0, "2024"]]  # fmt: skip
    document = made("stepping", {"name": ("c1",), "value": ("c2",), "period": ("c3",)}, rows)
    assert sorted(place.row for place in places(document).values()) == [1, 2]


def test_a_figure_read_across_is_changed_where_it_is_typed() -> None:
    document = data_direction.read_across(
        made("columns", {"name": ("c1",), "value": ("c2", "c3")}), "k1", 1, ("c2", "c3")
    )
    found = places(document)
    changed = with_number(document, found[0], 77.0)
    assert changed.table("t1").columns[1].cells[2] == 77.0


@pytest.mark.parametrize(
    ("formula", "place"),
    [
        ("=Gates!B2", EditableCell("t1", 1, 1)),
        ("=B3", EditableCell("t1", 1, 2)),
        ("='Gates'!$C$4", EditableCell("t1", 2, 3)),
    ],
)
def test_key_figures_lead_to_their_cells(formula: str, place: EditableCell) -> None:
    assert cell_of_figure(made("columns"), KeyFigure("", value=formula)) == place


@pytest.mark.parametrize("formula", ["=SUM(B2:B4)", "=B2:B4", "=B2+1", "by hand", "=A2", "=B99"])
def test_key_figures_that_are_computed_are_refused(formula: str) -> None:
    with pytest.raises(KavletError, match="computed"):
        cell_of_figure(made("columns"), KeyFigure("", value=formula))


def test_another_number_is_written_as_the_one_before() -> None:
    percent = NumberText("percent", 0, 0)
    document = edits.set_cells(made("columns"), "t1", {(2, 1): FormattedNumber(0.5, percent)})
    changed = with_number(document, EditableCell("t1", 2, 1), 0.75)
    assert changed.table("t1").columns[2].cells[1] == FormattedNumber(0.75, percent)


NUMBERS = st.lists(st.sampled_from([10.0, 20.0, 30.0, 40.0]), min_size=6, max_size=6)  # which are often equal


@pytest.mark.parametrize("recipe", RECIPES)
@settings(max_examples=8, deadline=None)
@given(NUMBERS, st.booleans())
def test_no_mark_leads_to_another_row_s_figure(recipe: str, numbers: list[float], two: bool) -> None:
    """However many cells hold the same number as a mark shows."""
    rows: list[list[object]] = [["Gate", "Before", "After", "Kind"], *(
        [f"Gate {i}", numbers[i], numbers[i + 3], "abc"[i // 2]] for i in range(3)
    )]  # fmt: skip
    document, table = edits.add_table(Document(), "Gates", rows)  # type: ignore[arg-type]
    try:
        document, _ = edits.add_chart(document, table, recipe)
    except KavletError:
        return
    chart = document.chart("k1")
    values = chart.roles.get("value", ())
    if two and len(values) > 1:
        document = edits.change_chart(document, "k1", roles={**chart.roles, "value": values[:1]})
        chart, values = document.chart("k1"), values[:1]
    try:
        picture = Pictures().picture(document, "k1")
    except KavletError:
        return
    held = document.table(table)
    for mark in picture.figure.marks:
        try:
            place = cell_of_mark(document, chart, picture, mark)
        except KavletError:
            continue
        layer = picture.build.chart.layer(mark.key)
        column = held.columns[place.column]
        assert place.row == mark.row + 1
        assert column.helper is None
        assert column.id == getattr(layer, "values", "") or values == (column.id,)


@pytest.mark.parametrize(
    ("recipe", "settings_", "key"),
    [("pie", {"whole": 100.0}, "rest"), ("bridge", {}, "connectors"), ("thermometer", {"goal": 100.0}, "")],
)
def test_what_is_computed_of_several_is_said_to_be(recipe: str, settings_: dict[str, float], key: str) -> None:
    """The rest of a whole, though a row has the same figure; what joins two bars; the sum of all."""
    rows: list[list[object]] = [["Gate", "Guests"], ["North", 40.0], ["South", 30.0]]
    document = edits.change_chart(made(recipe, rows=rows), "k1", settings=settings_)
    picture = Pictures().picture(document, "k1")
    marks = [one for one in picture.figure.marks if one.visible and (not key or one.key == key or one.row >= 2)]
    assert marks
    for mark in marks:
        with pytest.raises(KavletError, match="computed"):
            cell_of_mark(document, document.chart("k1"), picture, mark)


def test_growth_leads_to_no_cell() -> None:
    rows: list[list[object]] = [["Gate", "Before", "After"], ["North", 1.0, 2.0], ["South", 5.0, 6.0]]
    document, table = edits.add_table(Document(), "Gates", rows)  # type: ignore[arg-type]
    document, _ = edits.add_chart(document, table, "growth-bars")
    assert places(document) == {}


def test_a_figure_that_was_changed_or_moved_meanwhile_is_not_overwritten() -> None:
    before = made("columns")
    place = EditableCell("t1", 1, 2)
    assert same_cell(before, edits.set_cells(before, "t1", {(1, 1): 7.0}), place)
    assert not same_cell(before, edits.set_cells(before, "t1", {(1, 2): 7.0}), place)
    assert not same_cell(before, edits.insert_rows(before, "t1", 1), place)
    assert not same_cell(before, edits.insert_columns(before, "t1", 0), place)
