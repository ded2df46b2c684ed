"""Charts as wholes: trying recipes, cutting loose, saving as a recipe, advice."""

import msgspec
import pytest

from kavlet.core.charts.labels import Label
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.texts import Note
from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.charts.recipe_saving import saved_recipe, with_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages import page_edits
from kavlet.core.document.tables.table_advice import features
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pipeline.stages import build_chart, picture
from kavlet.core.recipes.own_recipe import dumps, loads
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect
from tests.making import document, draw, helper, labels, marks, table, values_of

ROWS = table(["stage", "people"], ["a", "b", "c", "d"], [80, 40, 30, 10])


def spec(made: Document) -> object:
    return build_chart(made, values_of(made), made.charts[0].id).chart


def test_settings_another_recipe_can_t_have_are_left_behind() -> None:
    made = document("lines", ROWS, labels="ends", smooth=True)
    tried = chart_edits.try_recipe(made, "k1", "bars")
    assert "labels" not in tried.charts[0].settings  # bars know labels, but none at the ends
    assert tried.charts[0].settings["smooth"] is True  # bars know nothing of it, so it waits for the way back
    assert draw(tried).figure.marks


def test_trying_another_recipe_keeps_texts_roles_and_settings() -> None:
    made = edits.change_chart(document("funnel", ROWS, gap=20.0), "k1", title="Path", subtitle="2025")
    tried = chart_edits.try_recipe(made, "k1", "pictogram")
    assert (tried.charts[0].title, tried.charts[0].subtitle) == ("Path", "2025")
    assert tried.charts[0].roles == {"name": ("c1",), "value": ("c2",)}
    assert [column.name for column in tried.tables[0].columns] == ["stage", "people", "unit", "symbols"]
    assert draw(tried).figure.marks
    back = chart_edits.try_recipe(tried, "k1", "funnel")
    assert back.charts[0].settings == {"gap": 20.0}
    assert [one.name for one in draw(back).build.helpers] == ["offset", "step", "overall"]


def test_colours_by_hand_go_over_to_the_layer_the_new_chart_is_about() -> None:
    moved = chart_edits.carried_over({"layers.value.fill": "#111111", "title.size": 30}, "value", "shown")
    assert moved == {"layers.value.fill": "#111111", "layers.shown.fill": "#111111", "title.size": 30}
    assert spec(document("bridge", ROWS)).main == "above"  # type: ignore[arg-type]


@pytest.mark.parametrize("name", list(RECIPES))
def test_a_chart_cut_loose_looks_the_same_and_is_free(name: str) -> None:
    rows = table(
        ["name", "group", "n0", "n1", "n2"], list("abcd"), list("xxyy"), [8, 6, 4, 2], [1, 2, 3, 4], [5, 5, 6, 6]
    )
    extra = {"thermometer": {"goal": 50.0}, "battery": {"budget": 50.0}, "target-columns": {"target": 5.0}}
    made = document(name, rows, **extra.get(name, {}))
    before = draw(made)
    loose = chart_edits.cut_loose(made, "k1", before.build.chart)
    after = draw(loose)
    assert not any(column.helper for column in loose.tables[0].columns)
    assert [(m.key, m.row, m.bounds) for m in after.figure.marks] == [
        (m.key, m.row, m.bounds) for m in before.figure.marks
    ]
    assert loose.charts[0].recipe == ""


def test_a_loose_chart_still_follows_its_figures() -> None:
    made = document("funnel", ROWS)
    loose = chart_edits.cut_loose(made, "k1", draw(made).build.chart)
    edited = edits.set_cells(loose, "t1", {(1, 2): 60.0})
    widths = [mark.bounds.width for mark in marks(draw(edited), "value")]
    assert widths[1] == pytest.approx(widths[0] * 60 / 80)
    with pytest.raises(KavletError, match="loose already"):
        chart_edits.cut_loose(loose, "k1", draw(made).build.chart)


def test_a_saved_recipe_works_on_another_table() -> None:
    made = document("funnel", ROWS)
    own = saved_recipe(made, "k1", spec(made), "House funnel")  # type: ignore[arg-type]
    assert [role.name for role in own.roles] == ["name", "value"]
    assert own.helpers[0].formula == "=(MAX({value}${first}:{value}${last})-{value}{row})/2"
    again = loads(dumps(own), "x")
    other, table_id = edits.add_table(
        msgspec.structs.replace(Document(), recipes=(again,)),
        "Other",
        table(["k", "note", "n"], list("xyz"), list("abc"), [9, 6, 3]),
    )
    other, chart = edits.add_chart(other, table_id, "house-funnel", {"name": ("c1",), "value": ("c3",)})
    drawn = picture(other, values_of(other), chart)
    assert helper(drawn, "offset") == [0, 1.5, 3]
    assert "9" in labels(drawn, "value")
    grown = edits.insert_rows(other, table_id, 2)
    assert draw(edits.set_cells(grown, table_id, {(0, 2): "w", (2, 2): 8.0})).figure.marks


def test_a_kept_cell_becomes_a_parameter() -> None:
    rows = table(["name", "n"], ["a", "b", "cap"], [3, 9, 5])
    made = document("columns", rows)
    made = edits.insert_columns(made, "t1", 2)
    from kavlet.core.spreadsheet.cells import Formula

    cells = {(2, row): Formula(f"=MIN(B{row + 1};$B$4)") for row in (1, 2, 3)}
    made = edits.set_cells(made, "t1", {(2, 0): "shown", **cells})
    made = edits.change_chart(made, "k1", roles={"name": ("c1",), "value": ("c3",)})
    own = saved_recipe(made, "k1", spec(made), "Capped")  # type: ignore[arg-type]
    assert [(one.name, one.default) for one in own.parameters] == [("cap", 5.0)]
    assert own.helpers[0].formula == "=MIN({value}{row};{set cap})"


def test_rotten_recipes_are_refused() -> None:
    for content in (b"", b"[]", b'{"name": "a", "title": "A", "format": "other"}',
                    b'{"name": "a", "title": "A", "version": 7}',
                    b'{"name": "a", "title": "A", "chart": {"frame": 3}}'):  # fmt: skip
        with pytest.raises(KavletError):
            loads(content, "x.json")
    made = document("funnel", ROWS)
    for title in ("", "  ", "Funnel"):
        with pytest.raises(KavletError):
            saved_recipe(made, "k1", spec(made), title)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("rows", "best"),
    [
        (ROWS, "funnel"),
        (table(["item", "sum"], list("abcd"), [200, 40, -30, -20]), "bridge"),
        (table(["pond", "clarity"], ["Mere"], [63]), "gauge"),
        (table(["habitat", "cover"], list("abcde"), [23.3, 41.6, 19.8, 11.2, 4.1]), "waffle"),
        (table(["child", "group", "n"], list("abcd"), list("xxyy"), [4, 3, 5, 6]), "two-level-ring"),
        (table(["month", "level"], ["Jan", "Feb", "Mar", "Apr", "May"], [61, 64, 66.5, 62, 55]), "lines"),
        (table(["month", "rain"], list("abcdef"), [52, 48, 402, 61, 39, 44]), "capped-bars"),
    ],
)
def test_advice_puts_the_best_first(rows: list[list[object]], best: str) -> None:
    made = document("columns", rows)  # type: ignore[arg-type]
    values = [column.values[1:] for column in values_of(made).of("t1")]
    of = features(made.tables[0], values)
    ranked = sorted(RECIPES.values(), key=lambda recipe: -recipe.suits(of).score)
    assert ranked[0].name == best
    assert ranked[0].suits(of).reason


def test_charts_are_copied_and_deleted_with_their_helpers() -> None:
    made, copy = chart_edits.copy_chart(document("funnel", ROWS), "k1")
    assert sum(column.helper is not None for column in made.tables[0].columns) == 6
    gone = chart_edits.delete_chart(made, copy)
    assert gone == document("funnel", ROWS)


@pytest.mark.parametrize(("recipe", "column", "figures"), [
    ("gauge", "figure", [50.0, 20.0]), ("thermometer", "total", [100.0, 60.0]), ("battery", "spent", [0.5, 0.3]),
])  # fmt: skip
def test_repeated_for_each_group(recipe: str, column: str, figures: list[float]) -> None:
    rows = table(["pond", "value"], ["Mere", "Ditch", "Mere", "Ditch", "Ditch"], [40.0, 10.0, 60.0, 20.0, 30.0])
    settings = {"thermometer": {"goal": 200.0}, "battery": {"budget": 200.0}}.get(recipe, {"maximum": 100.0})
    made = document(recipe, rows, **settings)
    again = draw(chart_edits.repeated(made, made.charts[0].id, True))
    assert [text.text for text in again.figure.texts if text.kind == "panel"] == ["Mere", "Ditch"]
    first, second = helper(again, column)[:2]
    assert [first, second] == [pytest.approx(figure) for figure in figures]


def test_repeated_for_each_row_shows_each_row_s_own_figure() -> None:
    made = document("thermometer", table(["pond", "value"], ["Mere", "Ditch"], [40.0, 10.0]), goal=80.0)
    again = chart_edits.repeated(made, "k1", True)
    assert helper(draw(again), "level") == [0.5, 0.125]
    assert helper(draw(chart_edits.repeated(again, "k1", False)), "level") == [0.625, None]


def test_what_shows_all_rows_is_not_repeated() -> None:
    with pytest.raises(KavletError, match="all rows already"):
        chart_edits.repeated(document("funnel", ROWS), "k1", True)


def test_a_copied_dress_leaves_the_looks_of_single_rows_behind() -> None:
    made = document("pie", table(["n", "v"], ["a", "b"], [3.0, 2.0]))
    looks = {"layers.value.rows.1.fill": "#112233", "layers.value.edge": "#445566", "title.size": 20.0}
    made = look_edits.set_looks(made, "k1", looks)
    assert look_edits.copied(made, "k1") == {"layers.value.edge": "#445566", "title.size": 20.0}
    assert look_edits.copied(made, "k1", layer="value") == {"layers.value.edge": "#445566"}


def test_a_size_set_by_hand_goes_along_to_another_recipe_and_a_recipes_own_does_not() -> None:
    made = document("pie", table(["n", "v"], ["a", "b"], [3.0, 2.0]))
    own = chart_edits.try_recipe(made, "k1", "funnel").chart("k1")
    assert (own.width, own.height) == RECIPES["funnel"].size
    for size in ({"width": 500.0}, {"height": 301.0}, {"width": 500.0, "height": 301.0}):
        by_hand = edits.change_chart(made, "k1", **size)
        before, after = by_hand.chart("k1"), chart_edits.try_recipe(by_hand, "k1", "funnel").chart("k1")
        assert (after.width, after.height) == (before.width, before.height)


YEARS = table(["site", "2024", "2025", "2026"], ["a", "b", "c"], [8, 6, 4], [1, 2, 3], [5, 5, 6])


def test_the_way_back_has_the_series_gap_and_labels_that_were() -> None:
    made = document("columns", YEARS, gap=150.0, labels="values")
    pie = chart_edits.try_recipe(made, "k1", "pie")
    assert len(pie.charts[0].roles["value"]) == 1
    assert "gap" not in pie.charts[0].settings  # between slices it is measured in points
    back = chart_edits.try_recipe(chart_edits.try_recipe(pie, "k1", "waffle"), "k1", "columns").charts[0]
    assert back.roles == made.charts[0].roles
    assert back.settings == made.charts[0].settings


def test_a_role_of_many_columns_leaves_one_to_a_role_that_needs_it() -> None:
    tried = chart_edits.try_recipe(document("columns", YEARS), "k1", "combined")
    assert tried.charts[0].roles == {"name": ("c1",), "value": ("c2", "c3"), "line": ("c4",)}
    assert draw(tried).figure.marks
    alone = chart_edits.try_recipe(document("columns", ROWS), "k1", "combined").charts[0]
    assert alone.roles["value"] == ("c2",)  # there is none to be left


def test_columns_that_are_gone_do_not_come_back() -> None:
    pie = chart_edits.try_recipe(document("columns", YEARS), "k1", "pie")
    fewer = edits.delete_columns(pie, "t1", 2)
    assert chart_edits.try_recipe(fewer, "k1", "columns").charts[0].roles["value"] == ("c2", "c4")


@pytest.mark.parametrize("first", ["pie", "highlight-bars", "waffle", "thermometer", "bridge"])
def test_columns_show_all_value_columns_whatever_was_first(first: str) -> None:
    made = document(first, YEARS, **({"goal": 100.0} if first == "thermometer" else {}))
    tried = chart_edits.try_recipe(made, "k1", "columns")
    assert tried.charts[0].roles["value"] == ("c2", "c3", "c4")
    assert len({mark.key for mark in draw(tried).figure.marks}) == 3


def test_a_series_of_one_colour_becomes_slices_of_many() -> None:
    red = {"layers.series 1.fill": "#aa1111", "layers.series 1.rows.1.fill": "#115511"}
    carried = chart_edits.carried_over(red, "series 1", "value", varies=True)
    assert "layers.value.fill" not in carried
    assert carried["layers.value.rows.1.fill"] == "#115511"
    assert red.items() <= carried.items()  # and the way back has it


def test_references_follow_wherever_they_stand() -> None:
    made = document("columns", YEARS, labels="values")
    looks = {
        "layers.series 1.label.template": "{value} of {=B3}", "layers.series 2.rows.0.text": "up from {=B2}",
        "frame.along.maximum": "=B2*3", "frame.along.title": '=A2&"!"',
    }  # fmt: skip
    layer = Reference("added 1", "line", at=3.0, label=Label(template="{=B4}"))
    made = edits.change_chart(
        made, "k1", dress=msgspec.structs.replace(made.charts[0].dress, overrides=looks), layers=(layer,),
        notes=(Note("n1", "=B2"), Note("n2", "see {=B2}")), settings={"labels": "values", "maximum": "=B2"},
    )  # fmt: skip
    made = chart_edits.try_recipe(edits.change_chart(made, "k1", title="=B2"), "k1", "lines")
    after = edits.insert_rows(made, "t1", 1).charts[0]
    held = after.dress.overrides
    assert held["layers.series 1.label.template"] == "{value} of {=B4}"
    assert "up from {=B3}" in held.values()
    assert held["frame.along.maximum"] == "=B3*3"
    assert held["frame.along.title"] == '=A3&"!"'
    assert after.layers[0].label is not None
    assert after.layers[0].label.template == "{=B5}"
    assert [note.text for note in after.notes] == ["=B3", "see {=B3}"]
    assert after.past["columns"].settings["maximum"] == "=B3"
    assert after.title == "=B3"


def test_cells_in_a_list_follow() -> None:
    made = document("thermometer", ROWS, goal="=B2*10", milestones="20; =B3; 300")
    settings = edits.insert_rows(made, "t1", 1).charts[0].settings
    assert settings == {"goal": "=B3*10", "milestones": "20; =B4; 300"}


def test_an_own_recipe_and_a_loose_chart_show_no_words_of_another() -> None:
    made = edits.change_chart(document("funnel", ROWS), "k1", title="Path", subtitle="From the gate", source="Desk")
    own = saved_recipe(made, "k1", spec(made), "House funnel")  # type: ignore[arg-type]
    other = with_recipe(document("funnel", ROWS), own)
    other = chart_edits.try_recipe(edits.change_chart(other, "k1", title=""), "k1", own.name)
    assert [text.kind for text in draw(other).figure.texts if text.kind in ("title", "subtitle", "source")] == []
    loose = chart_edits.cut_loose(made, "k1", draw(made).build.chart)
    bare = edits.change_chart(loose, "k1", title="", subtitle="", source="")
    assert [text.kind for text in draw(bare).figure.texts if text.kind in ("title", "subtitle", "source")] == []


HEADINGS = ("group,child,value", "kind,what,hours", "department,task,hours", "area,item,amount",
            "category,subcategory,amount", "Team,Task,Hours", "region,shop,sales", "parent,name,n",
            "Abteilung,Aufgabe,Stunden", "Dog,Cat,Bird")  # fmt: skip
BLOCKS = [["Office", "Plan", 12.0], ["Office", "Mail", 22.0], ["Field", "Survey", 46.0], ["Field", "Mail", 20.0]]


@pytest.mark.parametrize("headings", HEADINGS)
@pytest.mark.parametrize("first", ["highlight-bars", "pie", "columns"])
@pytest.mark.parametrize("turned", [False, True])
def test_a_ring_has_groups_inside_whatever_was_guessed_for_the_first_chart(
    headings: str, first: str, turned: bool
) -> None:
    order = [1, 0, 2] if turned else [0, 1, 2]
    rows = [[row[i] for i in order] for row in (headings.split(","), *BLOCKS)]
    made, table_id = edits.add_table(Document(), "Hours", rows)  # type: ignore[arg-type]
    made, chart = edits.add_chart(made, table_id, first)
    group, name = ("c2", "c1") if turned else ("c1", "c2")
    assert chart_edits.try_recipe(made, chart, "two-level-ring").chart(chart).roles == {
        "name": (name,), "group": (group,), "value": ("c3",)
    }  # fmt: skip


def test_what_the_author_chose_goes_over_to_another_recipe() -> None:
    rows = [["group", "child", "value"], *BLOCKS]
    made, table_id = edits.add_table(Document(), "Hours", rows)  # type: ignore[arg-type]
    made, chart = edits.add_chart(made, table_id, "columns")
    made = edits.set_role(made, chart, "name", "c2")
    assert chart_edits.try_recipe(made, chart, "pie").chart(chart).roles["name"] == ("c2",)
    made = edits.set_role(made, chart, "name", "c1")
    assert chart_edits.try_recipe(made, chart, "two-level-ring").chart(chart).roles["group"] == ("c1",)


@pytest.mark.parametrize(
    ("first", "then", "row"), [("stepping", "thermometer", None), ("thermometer", "gauge", 2), ("columns", "bars", 2),
                               ("columns", "pie", None)],
)  # fmt: skip
def test_frames_of_a_row_stand_for_it_only_where_the_other_recipe_has_it(
    first: str, then: str, row: int | None
) -> None:
    """A caption that names a period must not stand over a branch, nor a scale of amounts beside shares."""
    rows = [["Branch", "Loans", "Lent", "Year"], ["Quay", 4.0, 5.0, "2022"], ["Mill", 6.0, 7.0, "2023"]]
    made, table_id = edits.add_table(Document(), "T", rows)  # type: ignore[arg-type]
    made, chart = edits.add_chart(made, table_id, first)
    made, page = page_edits.add_page(made, "A4")
    frame = ChartFrame("", chart=chart, row=2, caption="2023", low=0.0, high=90.0)
    made, item = page_edits.put(made, page, frame, Rect(0.0, 0.0, 200.0, 200.0))
    held = chart_edits.try_recipe(made, chart, then).page(page).item(item)
    assert isinstance(held, ChartFrame)
    assert (held.low, held.high) == (None, None)
    assert (held.row, held.caption) == (row, "2023" if row else "")
