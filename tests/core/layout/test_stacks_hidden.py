"""A hidden layer keeps its place in its stack: what stands on it stands where it stood, here and where it is taken."""

import pytest

from kavlet.core.charts.looks import of_layer
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office_model.convert import plain_charts
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.spreadsheet.cells import Cell

ROWS: list[list[Cell]] = [["what", "base", "up", "down"], ["Sales", 0.0, 50.0, None], ["Costs", 20.0, None, 30.0],
                          ["Tax", 5.0, None, 15.0]]  # fmt: skip


def stacked(recipe: str, stack: str) -> Document:
    document, table = edits.add_table(Document(), "Bridge", ROWS)
    roles = {"name": ("c1",), "value": ("c2", "c3", "c4")}
    document, _ = edits.add_chart(document, table, recipe, roles)
    return edits.change_chart(document, "k1", settings={"stack": stack} if recipe != "stacked-bars" else {})


def seen(document: Document) -> dict[tuple[str, int], object]:
    figure = Pictures().picture(document, "k1").figure
    return {(one.key, one.row): one.bounds for one in figure.marks if one.visible}


def hidden(document: Document, *keys: str) -> Document:
    return look_edits.set_looks(document, "k1", {of_layer(key, "hidden"): True for key in keys})


@pytest.mark.parametrize(
    ("recipe", "stack"), [("columns", "stacked"), ("areas", "stacked"), ("stacked-bars", ""), ("columns", "100 %")]
)
def test_what_stands_on_a_hidden_layer_stays_where_it_stood(recipe: str, stack: str) -> None:
    document = stacked(recipe, stack)
    before, after = seen(document), seen(hidden(document, "series 1"))
    assert {key for key, _ in after} == {"series 2", "series 3"}
    assert after == {place: box for place, box in before.items() if place[0] != "series 1"}


def test_a_hidden_layer_is_not_in_the_legend_and_has_no_label() -> None:
    figure = Pictures().picture(hidden(stacked("columns", "stacked"), "series 1"), "k1").figure
    assert not [one for one in figure.texts if one.kind == "legend" and one.text == "base"]
    assert not [one for one in figure.texts if one.kind == "label" and one.layer == "series 1"]


def test_beside_each_other_a_hidden_layer_leaves_its_room_to_the_others() -> None:
    document = stacked("columns", "side by side")
    before, after = seen(document), seen(hidden(document, "series 1"))
    assert after["series 2", 0].width > before["series 2", 0].width  # type: ignore[attr-defined]


def test_a_real_chart_has_the_hidden_layer_unseen_in_its_stack() -> None:
    document = hidden(stacked("columns", "stacked"), "series 1")
    values = Pictures().values(document)
    (chart,) = plain_charts(document, values, Pictures().picture(document, "k1"))
    sheets = sheets_for(document.tables, [chart])
    (group,) = chart.groups
    assert sheets.numbers(group.series[0].values) == [0.0, 20.0, 5.0]
    assert group.series[0].fill is None
    assert not group.series[0].listed
