"""What is offered to be dressed, and where what is dropped goes."""

from typing import Any

import pytest

from kavlet.core.charts.layer import GATHERED, LEFT_OVER
from kavlet.core.charts.looks import parse
from kavlet.core.document import edits
from kavlet.core.interaction.offers import drop_path, labelled_alike, of_main
from kavlet.core.interaction.parts import Part
from kavlet.core.pipeline.stages import Picture
from tests.making import document, draw, labels, make, marks, table

ROWS = table(["pond", "visits"], ["Mere", "Carr", "Dyke"], [40.0, 25.0, 12.0])
YEARS = table(["pond", "2025", "2026"], ["Mere", "Carr"], [40.0, 25.0], [30.0, 35.0])
RING = table(["part", "group", "n"], ["Reed", "Lily", "Oak"], ["Water", "Water", "Wood"], [30, 20, 25])


def fields(made: Picture) -> list[tuple[str, str]]:
    return [(parse(one.path).layer, parse(one.path).field[0]) for one in of_main(made.build.chart)]


def test_a_fill_for_the_chart_is_offered_only_where_it_is_that_of_one_colour() -> None:
    for recipe, key in (("highlight-bars", "highlight"), ("funnel", "value"), ("lines", "series 1")):
        assert (key, "fill") in fields(make(recipe, ROWS))
    for recipe, rows in (("pie", ROWS), ("two-level-ring", RING), ("columns", YEARS)):
        assert not any(field == "fill" for _, field in fields(make(recipe, rows)))


def test_labels_are_dressed_together_where_nothing_is_chosen() -> None:
    highlight = make("highlight-bars", ROWS).build.chart
    assert labelled_alike(highlight, "highlight") == ["others"]
    some = make("highlight-bars", ROWS, labels="highlight").build.chart
    assert labelled_alike(some, "highlight") == []
    assert labelled_alike(make("columns", YEARS).build.chart, "series 1") == ["series 2"]


@pytest.mark.parametrize(
    ("recipe", "part", "chosen", "path"),
    [
        ("columns", Part("text", "title"), False, "title.colour"),
        ("columns", Part("plot", ""), False, "ground"),
        ("columns", None, False, "ground"),
        ("columns", Part("axis", "along"), False, "ground"),
        ("columns", Part("label", "series 1", 0), False, "layers.series 1.label.colour"),
        ("columns", Part("mark", "series 1", 1), False, "layers.series 1.fill"),
        ("columns", Part("mark", "series 1", 1), True, "layers.series 1.rows.1.fill"),
        ("pie", Part("mark", "value", 1), False, "layers.value.rows.1.fill"),
        ("pie", Part("layer", "value"), False, "layers.value.fill"),
    ],
)
def test_a_colour_goes_to_what_it_is_dropped_on(recipe: str, part: Part | None, chosen: bool, path: str) -> None:
    assert drop_path(make(recipe, ROWS).build.chart, part, True, chosen) == path


def test_a_symbol_dropped_beside_the_marks_fills_the_layer() -> None:
    assert drop_path(make("columns", ROWS).build.chart, Part("text", "title"), False, False) == "layers.series 1.fill"


def fills(made: Picture, key: str) -> dict[int, Any]:
    return {mark.row: mark.fill.hex for mark in marks(made, key)}


def test_parts_follow_the_colour_of_their_group() -> None:
    made = document("two-level-ring", RING)
    plain, blue = fills(draw(made), "value"), fills(draw(made, look={"layers.group.rows.0.fill": "#2255aa"}), "value")
    assert plain[0] != blue[0]
    assert plain[1] != blue[1]
    assert plain[2] == blue[2]  # of another group
    own = draw(made, look={"layers.group.rows.0.fill": "#2255aa", "layers.value.rows.1.fill": "#333333"})
    assert fills(own, "value")[1] == "#333333"


def test_either_level_of_a_ring_may_stand_inside() -> None:
    for inside, inner in (("groups", "group"), ("parts", "value")):
        made = make("two-level-ring", RING, inside=inside)
        outer = {key: max(mark.sector.outer for mark in marks(made, key)) for key in ("group", "value")}
        assert min(outer, key=lambda key: outer[key]) == inner
        assert set(labels(made)) >= {"Water", "Wood", "Reed", "Lily", "Oak"}


def test_what_is_left_over_takes_its_colour_and_keeps_it_when_rows_come() -> None:
    made = document("pie", ROWS, whole=100.0, gather=20.0)
    look = {f"layers.value.rows.{LEFT_OVER}.fill": "#aa2255", f"layers.value.rows.{GATHERED}.fill": "#225533"}
    picture = draw(made, look=look)
    assert fills(picture, "value")[LEFT_OVER] == "#aa2255"
    assert fills(picture, "value")[GATHERED] == "#225533"
    entry = made.charts[0]
    dressed = edits.change_chart(made, "k1", dress=type(entry.dress)(overrides=look))
    more = edits.insert_rows(dressed, "t1", 1, 2)
    assert more.charts[0].dress.overrides == look


def test_the_ground_is_one_that_words_can_be_read_on() -> None:
    for ground, dark in (("#1d2a33", True), ("#eef4e8", False)):
        figure = draw(document("columns", ROWS), look={"ground": ground}).figure
        assert figure.ground.hex == ground
        title = next(text for text in figure.texts if text.kind == "title")
        assert (sum(title.colour.rgb) > sum(figure.ground.rgb)) is dark
