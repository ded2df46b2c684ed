"""Tables at the edge of what a recipe is for: no size, no share, one row, two hundred, a full ring, an empty tube."""

import itertools
import math
from typing import Any

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.layout.figure import PlacedText
from kavlet.core.layout.marks.bars import break_path
from kavlet.core.pipeline.stages import Picture
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import FormattedNumber, Formula
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.number_text import WHOLE_PERCENT
from tests.making import document, draw, findings, helper, labels, make, marks, table

SPOTS = table(
    ["spot", "weight", "y", "x", "size"], "ABCDE", [9] * 5, [1, 2, 3, 4, 5], [5, 6, 4, 7, 3], [4, 16, -9, 0, None]
)


def said(picture: Picture) -> list[str]:
    return [str(one.message) for one in findings(picture)]


def bars(names: str, *values: Any) -> list[list[Any]]:
    return table(["n", "v"], list(names), list(values))


def clear_of(one: Rect, other: Rect) -> bool:
    return one.right <= other.x or other.right <= one.x or one.bottom <= other.y or other.bottom <= one.y


def test_bubbles_without_a_size_are_counted_and_said() -> None:
    made = make("bubbles", SPOTS)
    assert [mark.row for mark in marks(made, "value")] == [1, 0]
    assert made.figure.long_text.startswith("2 bubbles of y against x, sized by size")
    assert "3 bubbles are not drawn: their sizes are not above 0. Sizes below 0 can be drawn hollow." in said(made)


def test_bubbles_below_zero_are_hollow_by_choice() -> None:
    made = make("bubbles", SPOTS, hollow=True)
    by_row = {mark.row: mark for mark in marks(made, "value")}
    assert sorted(by_row) == [0, 1, 2]
    assert by_row[2].bounds.width == pytest.approx(by_row[1].bounds.width * math.sqrt(9 / 16))
    (hollow,), (full,) = by_row[2].items, by_row[1].items
    assert hollow.edge == by_row[2].fill
    assert hollow.fill != full.fill
    assert "2 bubbles are not drawn: their sizes are 0 or missing." in said(made)


def test_columns_called_x_and_y_keep_their_places() -> None:
    entry = document("bubbles", SPOTS).charts[0]
    assert [entry.roles[role] for role in ("x", "value", "size")] == [("c4",), ("c3",), ("c5",)]


@pytest.mark.parametrize("row", [9.0, 1.5])
def test_a_row_that_is_not_there_is_refused(row: float) -> None:
    with pytest.raises(KavletError, match=r"There is no row .*; the table has 3 rows"):
        make("gauge", bars("abc", 30, 63, 80), row=row)


def test_one_figure_of_several_says_whose_it_is() -> None:
    def subtitle(made: Document, **changes: Any) -> list[str]:
        return [text.text for text in draw(made, **changes).figure.texts if text.kind == "subtitle"]

    made = document("gauge", table(["pond", "level"], ["North", "Mill"], [30, 63]), row=2.0)
    assert subtitle(made) == ["Mill"]
    assert subtitle(made, subtitle="Water level") == ["Water level"]
    assert subtitle(made, subtitle='=""') == []
    assert subtitle(made, repeat=True) == []
    summed = document("thermometer", table(["fund", "given"], ["House", "Pond"], [30, 63]), goal=100.0)
    assert subtitle(summed) == []
    assert subtitle(edits.change_chart(summed, "k1", settings={"goal": 100.0, "of": "row"})) == ["House"]


def test_a_waffle_of_more_than_its_whole_is_found() -> None:
    made = make("waffle", bars("abc", 300, 450, 120), whole=500.0)
    assert "The parts add up to 870, more than the whole of 500; shares are of the parts." in said(made)


def test_parts_without_a_cell_are_said() -> None:
    assert "1 part is too small for a cell of its own." in said(make("waffle", bars("abc", 600, 398, 1)))


def test_nobody_stands_out_is_said() -> None:
    made = make("highlight-bars", bars("abc", 3, 4, 5), rule="named", named="Roof")
    assert "No row is called “Roof”, so none stands out." in said(made)
    assert "No row stands out: the rule “above” picks none." in said(
        make("highlight-bars", bars("abc", 3, 4, 5), rule="above", than=9.0)
    )


def test_a_capsule_of_nothing_is_labelled_beside_its_symbol() -> None:
    made = make("capsule", bars("abc", 0, 3, 100))
    assert labels(made, "share") == ["0%", "3%", "100%"]
    riders = {mark.row: mark.bounds for mark in marks(made, "rider")}
    for text in made.figure.texts:
        if text.key == "share" and text.row is not None:
            assert clear_of(text.bounds, riders[text.row])


def test_figures_that_are_no_shares_become_shares_of_the_largest() -> None:
    made = make("capsule", bars("abc", 620, 310, 1240))
    assert helper(made, "share") == [0.5, 0.25, 1.0]
    assert any("a full capsule stands for the largest, 1,240" in one for one in said(made))
    assert helper(make("capsule", bars("abc", 62, 31, 80)), "share") == [0.62, 0.31, 0.8]
    assert helper(make("capsule", bars("abc", 620, 310, 1240), whole=2480.0), "share") == [0.25, 0.125, 0.5]


def test_percents_are_shares_even_above_a_whole() -> None:
    made = make("capsule", bars("ab", FormattedNumber(1.3, WHOLE_PERCENT), FormattedNumber(0.03, WHOLE_PERCENT)))
    assert helper(made, "share") == [1.3, 0.03]
    assert labels(made, "share") == ["130%", "3%"]


@pytest.mark.parametrize("share", [0.0, 0.03, 0.06])
def test_the_label_of_a_low_thermometer_stands_beside_the_tube(share: float) -> None:
    made = make("thermometer", bars("a", 1000 * share), goal=1000.0)
    (level,) = marks(made, "level")
    (label,) = [text for text in made.figure.texts if text.key == "level"]
    tube, _ = level.block.track
    assert label.bounds.right <= tube.x
    radius, sunk = level.block.bulb
    bulb = Rect(tube.center[0] - radius, tube.bottom + sunk - radius, 2 * radius, 2 * radius)
    for corner in ((label.bounds.right, label.bounds.bottom), (label.bounds.right, label.bounds.y)):
        assert math.dist(corner, bulb.center) >= radius


def test_a_high_thermometer_is_labelled_inside() -> None:
    made = make("thermometer", bars("a", 700), goal=1000.0)
    (level,) = marks(made, "level")
    (label,) = [text for text in made.figure.texts if text.key == "level"]
    assert level.bounds.x <= label.bounds.x
    assert label.bounds.right <= level.bounds.right


def test_what_fills_a_tube_is_as_wide_as_it_at_every_level() -> None:
    """No corner sticks out of the tube's foot, and no gap shows beside the bulb."""
    for value in (20, 500):
        made = make("thermometer", bars("a", value), goal=1000.0)
        (level,) = marks(made, "level")
        (track,) = level.track
        outline, tube = level.path.bounds, track.path.bounds
        assert (outline.x, outline.right, outline.bottom) == pytest.approx((tube.x, tube.right, tube.bottom))


def ring_name(made: Picture, row: int) -> PlacedText:
    return next(text for text in made.figure.texts if text.kind == "name" and text.row == row)


def test_one_ring_stays_a_ring() -> None:
    (mark,) = marks(make("radial-bars", bars("a", 40)), "value")
    assert mark.sector.outer - mark.sector.inner == pytest.approx(0.25 * mark.sector.outer)


def test_names_on_full_rings_read_on_the_ring() -> None:
    rows = table(["n", "v"], ["Hedge", "Pond", "Reed"], [40, 20, 38])
    made = make("radial-bars", rows, sweep=360.0)
    style_ink = ring_name(made, 1).colour
    assert ring_name(made, 0).colour != style_ink  # the ring has come round below it
    assert ring_name(made, 2).colour == style_ink  # only its end has: it stands on a plate of the ground
    by_row = {mark.row: mark for mark in marks(made, "value")}
    assert len(by_row[2].items) == len(by_row[1].items) + 1
    assert sorted(labels(made, "value")) == ["20", "38", "40"]
    for label in (text for text in made.figure.texts if text.key == "value"):
        assert all(clear_of(label.bounds, ring_name(made, row).bounds) for row in range(3))


def test_names_of_rings_keep_to_what_can_be_read_or_are_said_to_be_left_out() -> None:
    names = [f"Name {i}" for i in range(40)]
    small = draw(document("radial-bars", table(["n", "v"], names[:5], [5, 4, 3, 2, 1])), Size(221, 147))
    assert [text.text for text in small.figure.texts if text.kind == "name"] == names[:5]
    assert all(text.size >= 7 for text in small.figure.texts)
    crowded = draw(document("radial-bars", table(["n", "v"], names, list(range(1, 41)))))
    shown = [text for text in crowded.figure.texts if text.kind == "name"]
    assert [text.row for text in shown] == list(range(0, 40, 2))  # every other one, led to its ring
    assert all(text.size >= 7 and text.leader for text in shown)
    assert crowded.figure.dropped >= 20
    round_ = draw(document("radial-bars", table(["n", "v"], names, list(range(1, 41))), sweep=360.0))
    assert not [text for text in round_.figure.texts if text.kind == "name"]
    assert round_.figure.dropped >= 40


def test_the_label_of_a_cut_bar_stands_before_its_cut() -> None:
    rows = table(["n", "v"], ["a", "b", "c"], [10, 12, 90])
    for size in (Size(640, 360), Size(221, 147)):
        made = draw(document("capped-bars", rows), size)
        bar = next(mark for mark in marks(made, "shown") if mark.row == 2)
        label = next(text for text in made.figure.texts if text.kind == "label" and text.row == 2)
        cut = break_path(bar.block.rect, bar.block.end).bounds
        assert clear_of(label.bounds, cut)


def test_labels_of_slices_take_more_lines_where_they_fit_so() -> None:
    rows = table(["n", "v"], ["Reed cutting", "Boardwalk repair", "School visits"], [1200, 1850, 300])
    made = draw(document("pie", rows), Size(221, 147))
    label = next(text for text in made.figure.texts if text.kind == "label" and text.row == 1)
    assert [line.text for line in label.lines] == ["Boardwalk", "repair", "55%"]


def test_rings_above_the_maximum_are_labelled() -> None:
    assert sorted(labels(make("radial-bars", bars("abc", 40, 30, 55), maximum=35.0), "value")) == ["30", "40", "55"]


def test_an_area_of_one_row_is_seen() -> None:
    made = make("areas", table(["when", "a"], ["spring"], [4]))
    (mark,) = marks(made, "series 1")
    drawn = mark.items[0].path.bounds
    assert drawn.width > 2
    assert drawn.bottom == pytest.approx(made.figure.plot.bottom)
    assert drawn.height > 0.4 * made.figure.plot.height


def test_two_hundred_parts_leave_a_legend_that_can_be_read() -> None:
    rows = table(["part", "n"], [f"Parcel {i}" for i in range(200)], [i * 37 % 91 + 3 for i in range(200)])
    made = make("waffle", rows)
    entries = [text for text in made.figure.texts if text.kind == "legend"]
    assert all(text.size >= 6 for text in entries)
    for one, other in itertools.pairwise(entries):
        assert one.bounds.bottom <= other.bounds.y + 1
    left = made.figure.unlisted
    assert entries[-1].text == f"and {left} more"
    assert left > 20
    assert f"{left} entries of the legend are left out, because there is no room for them." in said(made)
    assert "200 parts are more than a reader can tell apart." in said(make("pie", rows))


def test_a_legend_of_many_series_leaves_the_plot_its_room() -> None:
    names = [f"Parcel {i}" for i in range(90)]
    made = make("columns", table(["season", *names], ["spring", "autumn"], *([i + 1, i + 2] for i in range(90))))
    assert made.figure.plot.height > 0.4 * made.figure.size.height
    assert made.figure.unlisted > 0


@pytest.mark.parametrize("recipe", list(RECIPES))
@pytest.mark.parametrize("size", [Size(36, 36), Size(36, 600), Size(600, 36), Size(3000, 36)])
def test_every_recipe_draws_however_little_room_there_is(recipe: str, size: Size) -> None:
    names = [f"a rather long name {i}" for i in range(40)]
    rows = table(["name", "group", "n0", "n1", "n2"], names, list("xxyy") * 10, *([[8, 6, 4, 2] * 10] * 3))
    stated = {"thermometer": {"goal": 900.0}, "battery": {"budget": 900.0}, "target-columns": {"target": 5.0}}
    figure = draw(document(recipe, rows, **stated.get(recipe, {})), size, title="A title", source="A source").figure
    assert (figure.size.width, figure.size.height) == (size.width, size.height)
    assert all(math.isfinite(number) for mark in figure.marks for number in (mark.bounds.x, mark.bounds.width))


def missing(recipe: str, **settings: Any) -> Document:
    """A table whose author's own column says by NA() that a row has no value."""
    made = document(recipe, bars("abcd", 40, 30, 20, 10), **settings)
    return edits.set_cells(made, "t1", {(1, 3): Formula("=IF(1=1;NA();20)")})


@pytest.mark.parametrize(
    "recipe", ["capsule", "radial-bars", "funnel", "pictogram", "capped-bars", "gauge", "waffle", "pie"]
)
def test_a_formula_that_gives_no_value_leaves_a_gap_and_not_an_empty_chart(recipe: str) -> None:
    made = draw(missing(recipe))
    plain = draw(document(recipe, bars("abcd", 40, 30, None, 10)))
    shown = [(mark.key, mark.row, mark.bounds) for mark in made.figure.marks if mark.visible and mark.items]
    assert shown == [(mark.key, mark.row, mark.bounds) for mark in plain.figure.marks if mark.visible and mark.items]
    assert "1 row has no value and no mark." in said(made)


def test_the_column_that_fills_the_gap_goes_with_it() -> None:
    made = missing("capsule")
    names = [column.helper.name for column in made.tables[0].columns if column.helper is not None]
    assert names[-1] == "figures 1"
    after = edits.set_cells(made, "t1", {(1, 3): 20.0})
    assert "figures 1" not in [column.helper.name for column in after.tables[0].columns if column.helper is not None]


def test_a_gap_goes_on_through_columns_that_are_reckoned_from_it() -> None:
    rows = table(["n", "a", "b", "c"], list("abcd"), [40, 30, 20, 10], [0, 0, 0, 0], [0, 0, 0, 0])
    made = document("capsule", rows, {"name": "n", "value": "c"})
    cells = {(2, row): Formula(f"=B{row + 1}*2") for row in range(1, 5)}
    cells |= {(3, row): Formula(f"=C{row + 1}/2") for row in range(1, 5)}
    made = edits.set_cells(made, "t1", {**cells, (1, 3): Formula("=NA()")})
    assert [mark.row for mark in marks(draw(made), "share")] == [0, 1, 3]


def test_labels_of_rings_may_be_as_small_as_their_author_wants() -> None:
    look = {"layers.value.label.size": 5.0}
    figure = draw(document("radial-bars", bars("abc", 40, 30, 20)), look=look).figure
    assert [text.size for text in figure.texts if text.kind == "label"] == [5.0] * 3
