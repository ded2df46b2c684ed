"""Looks by their paths: written and read, put into charts, and following what they mean."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.looks import Look, below, of_layer, parse
from kavlet.core.charts.overrides import held, leads, overridden
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables import row_order, source_updates
from kavlet.core.values.number_text import NumberText
from tests.making import document, draw, table

STEPS = st.text(st.characters(min_codepoint=32, max_codepoint=0x2FF), min_size=1, max_size=8)
CHART = Chart(Cartesian(), (Bars("value", "people", "c2", label=Label()), Bars("No. 2", "others", "c3")))


@pytest.mark.parametrize(
    ("text", "look"),
    [
        ("layers.value.fill", Look("value", None, ("fill",))),
        ("layers.series 3.label.size", Look("series 3", None, ("label", "size"))),
        ("layers.value.rows.12.explode", Look("value", 12, ("explode",))),
        ("layers.value.rows", Look("value", None, ("rows",))),
        ("layers.order", Look("", None, ("layers", "order"))),
        ("frame.along.maximum", Look("", None, ("frame", "along", "maximum"))),
        (r"layers.No\. 2.fill", Look("No. 2", None, ("fill",))),
        ("title.size", Look("", None, ("title", "size"))),
    ],
)
def test_a_path_is_read_and_written(text: str, look: Look) -> None:
    assert parse(text) == look
    assert look.text == text


@given(STEPS, st.none() | st.integers(-1, 999), st.lists(STEPS, min_size=1, max_size=3))
def test_any_look_survives_its_text(layer: str, row: int | None, field: list[str]) -> None:
    look = Look(layer, row, tuple(field))
    if row is None and field[0] == "rows":
        return  # a layer has no field of that name below which a number could stand
    assert parse(look.text) == look


def test_looks_lie_within_each_other() -> None:
    label = parse("layers.value.label")
    assert parse("layers.value.label.size").within(label)
    assert label.within(label)
    assert not parse("layers.value.labels").within(label)
    assert not parse("layers.values.label.size").within(label)


def test_paths_are_built_with_their_dots_kept() -> None:
    assert of_layer("No. 2", "fill") == r"layers.No\. 2.fill"
    assert of_layer("value", "fill", row=3) == "layers.value.rows.3.fill"
    assert below(of_layer("No. 2"), "label", "size") == r"layers.No\. 2.label.size"
    assert below("frame", "hole") == "frame.hole"


def test_a_key_that_holds_a_dot_can_be_dressed() -> None:
    made = overridden(CHART, {of_layer("No. 2", "fill"): "tone2"})
    assert made.layers[1].fill == "tone2"
    assert held(made, of_layer("No. 2", "fill")) == "tone2"


def test_number_texts_of_fields_can_be_set_one_by_one() -> None:
    made = overridden(CHART, {"layers.value.label.numbers.share.most_decimals": 2})
    label = made.layers[0].label
    assert label is not None
    assert label.numbers == {"share": NumberText(most_decimals=2)}


@pytest.mark.parametrize(
    ("path", "found"),
    [
        ("layers.value.fill", True),
        ("layers.value.type", True),
        ("layers.value.rows.7.fill", True),
        ("layers.value.label.numbers.share.most_decimals", True),
        ("layers.order", True),
        ("frame.along.maximum", True),
        ("solid.turn", True),
        ("title.size", True),
        ("layers.nothing.fill", False),
        ("layers.nothing.type", False),
        ("layers.value.colour", False),
        ("layers.value.rows.7.colour", False),
        ("layers.value.rows.first.fill", False),
        ("frame.hole", False),
        ("frame.along.maximum.more", False),
        ("solid.twist", False),
        ("nothing", False),
    ],
)
def test_it_is_known_whether_a_path_leads_anywhere(path: str, found: bool) -> None:
    assert leads(CHART, path) is found


SEASONS = table(["season", "2023", "2024", "2025"], ["Spring", "Summer"], [24, 41], [31, 44], [36, 52])


def columns(*, look: dict[str, object]) -> Document:
    made = document("columns", SEASONS)
    return look_edits.set_looks(made, "k1", look)


def looks(made: Document) -> dict[str, object]:
    return made.charts[0].dress.overrides


def test_the_looks_of_a_series_go_with_its_column() -> None:
    made = columns(look={"layers.series 3.fill": "tone5", "layers.series 2.rows.1.fill": "tone6", "ink": 2})
    assert looks(edits.delete_columns(made, "t1", 1)) == {
        "layers.series 2.fill": "tone5", "layers.series 1.rows.1.fill": "tone6", "ink": 2,
    }  # fmt: skip
    assert looks(edits.delete_columns(made, "t1", 3)) == {"layers.series 2.rows.1.fill": "tone6", "ink": 2}


def test_they_go_with_it_when_columns_change_their_roles() -> None:
    made = columns(look={"layers.series 3.fill": "tone5"})
    first, _, third = made.charts[0].roles["value"]
    changed = edits.change_chart(made, "k1", roles={"name": ("c1",), "value": (third, first)})
    assert looks(changed) == {"layers.series 1.fill": "tone5"}


def test_a_turned_table_turns_the_looks_of_its_marks() -> None:
    made = columns(look={"layers.series 3.rows.1.fill": "tone5"})
    turned = row_order.transpose(made, "t1")
    assert looks(turned) == {"layers.series 2.rows.2.fill": "tone5"}
    assert looks(row_order.transpose(turned, "t1")) == looks(made)


def test_what_a_series_has_its_row_has_on_all_series_of_the_turned_table_and_back() -> None:
    made = columns(look={"layers.series 3.fill": "tone5"})
    turned = row_order.transpose(made, "t1")
    assert looks(turned) == {"layers.series 1.rows.2.fill": "tone5", "layers.series 2.rows.2.fill": "tone5"}
    back = row_order.transpose(turned, "t1")
    assert looks(back) == {"layers.series 3.fill": "tone5"}
    fills = [{mark.fill for mark in draw(one).figure.marks if mark.dressed == "tone5"} for one in (made, turned)]
    assert fills[0] == fills[1]


def test_rows_that_a_source_brings_in_another_order_keep_their_looks() -> None:
    made = document("funnel", table(["stage", "people"], ["Visits", "Walks", "Members"], [90, 60, 30]))
    made = look_edits.set_looks(made, "k1", {"layers.value.rows.1.fill": "tone5", "layers.value.rows.2.fill": "tone6"})
    coming = table(["stage", "people"], ["Walks", "Talks", "Visits"], [60, 70, 90])
    assert looks(source_updates.update(made, "t1", coming).document) == {"layers.value.rows.0.fill": "tone5"}


def test_rows_whose_names_repeat_are_known_by_their_place() -> None:
    made = document("columns", table(["season", "walks"], ["Spring", "Spring"], [1, 2]))
    made = look_edits.set_looks(made, "k1", {"layers.series 1.rows.1.fill": "tone5"})
    coming = table(["season", "walks"], ["Autumn", "Spring"], [3, 4])
    assert looks(source_updates.update(made, "t1", coming).document) == {"layers.series 1.rows.1.fill": "tone5"}


def test_what_leads_nowhere_is_kept_and_known() -> None:
    made = columns(look={"layers.value.fill": "tone5", "layers.series 1.fill": "tone2"})
    spec = draw(made).build.chart
    assert look_edits.leftovers(made.charts[0], spec) == ["layers.value.fill"]
    assert looks(look_edits.give_back(made, "k1", ["layers.value.fill"])) == {"layers.series 1.fill": "tone2"}
