"""Small decisions of composing that no picture of the shipped recipes would miss."""

import itertools
import math
from typing import Any

import msgspec
import pytest

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.context import least_plot
from kavlet.core.scene.primitives import Shape
from kavlet.core.spreadsheet.cells import FormattedNumber
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.number_text import NumberText
from tests.making import document, draw, free, labels, make, marks, table

NAMES = ["Reed", "Mere", "Carr", "Dyke"]


def columns(*values: Any, **settings: Any) -> Any:
    return document("columns", table(["name", "n"], NAMES[: len(values)], values), {"name": "name", "value": "n"},
                    **settings)  # fmt: skip


def whole(size: Size) -> Rect:
    return Rect(0.0, 0.0, size.width, size.height)


# Room


@pytest.mark.parametrize("count", [2, 3, 5, 7])
def test_repeated_charts_lie_inside_their_sheet_and_beside_each_other(count: int) -> None:
    rows = table(["name", "n"], [f"Pond {i}" for i in range(count)], [10 + 7 * i for i in range(count)])
    made = draw(document("gauge", rows, {"name": "name", "value": "n"}, of="row"), Size(600, 420), repeat=True)
    sheet = whole(made.scene.size)
    drawn = [mark for mark in made.figure.marks if mark.visible]  # the half of a dial that is not is nowhere
    assert all(sheet.holds(mark.bounds, 0.5) for mark in drawn)
    panels = {number: [mark.bounds for mark in found] for number, found in itertools.groupby(
        sorted(drawn, key=lambda mark: mark.panel), key=lambda mark: mark.panel)}  # fmt: skip
    boxes = [Rect.around_all(found) for found in panels.values()]
    assert len(boxes) == count
    assert not any(one.overlaps(other) for i, one in enumerate(boxes) for other in boxes[i + 1 :])


@pytest.mark.parametrize("plot", [(0.95, 0.1, 0.02, 0.1), (0.1, 0.97, 0.1, 0.02), (0.6, 0.6, 0.6, 0.6)])
def test_a_plot_placed_by_hand_stays_on_the_sheet(plot: tuple[float, float, float, float]) -> None:
    made = draw(columns(3, 5, 4), Size(600, 400), look={"plot": plot})
    assert whole(made.scene.size).holds(made.figure.plot, 0.01)
    assert made.figure.plot.width >= 24
    assert made.figure.plot.height >= 24


def test_the_least_plot_is_a_share_of_a_long_side_and_all_of_a_short_one() -> None:
    assert least_plot(5.0) == 5.0
    assert 0 < least_plot(2_000.0) < 2_000.0
    assert least_plot(4_000.0) == pytest.approx(2 * least_plot(2_000.0))


def test_type_is_not_larger_than_the_theme_s_on_a_large_sheet() -> None:
    sizes = [{text.kind: text.size for text in draw(columns(3, 5, 4), size, title="Title").figure.texts}
             for size in (Size(1_000, 700), Size(4_000, 2_800))]  # fmt: skip
    assert sizes[0]["title"] == sizes[1]["title"]
    assert sizes[0]["tick"] == sizes[1]["tick"]


@pytest.mark.parametrize("scale", [0.7, 1.0, 1.6, 3.0])
def test_all_type_follows_the_scale_that_is_set(scale: float) -> None:
    plain, made = (draw(columns(3, 5, 4), Size(1_600, 1_000), look={"type_scale": one}, title="Title").figure.texts
                   for one in (1.0, scale))  # fmt: skip
    for kind in ("title", "tick"):
        before, after = (next(text.size for text in texts if text.kind == kind) for texts in (plain, made))
        assert after == pytest.approx(max(min(before, 6.0), scale * before), rel=0.02)


def test_the_legend_s_chips_are_squares_with_rounded_corners() -> None:
    rows = table(["name", "a", "b"], NAMES, [1, 2, 3, 4], [4, 3, 2, 1])
    made = make("columns", rows, {"name": "name", "value": ["a", "b"]})
    assert len(made.figure.keys) == 2
    for key in made.figure.keys:
        (chip,) = [item for item in key.items if isinstance(item, Shape)]
        box = chip.path.bounds
        assert box.width == pytest.approx(box.height)
        corners = [min(x - box.x, box.right - x) for x in chip.path.coordinates[::2] if box.x < x < box.right]
        assert min(corners) == pytest.approx(0.18 * box.width, rel=0.6)
        assert "C" in chip.path.verbs


def test_a_zero_on_a_logarithmic_scale_leaves_a_gap_and_no_broken_outline() -> None:
    rows = table(["name", "n"], ["a", "b", "c", "d"], [10, 0, 1_000, 100])
    made = draw(document("lines", rows, {"name": "name", "value": "n"}), look={"frame.along.kind": "log"})
    shapes = [item for mark in made.figure.marks for item in (*mark.track, *mark.items) if isinstance(item, Shape)]
    assert shapes
    assert all(math.isfinite(side) for item in shapes for side in msgspec.structs.astuple(item.path.bounds))


def test_bubbles_at_the_ends_of_their_scales_lie_inside_the_plot() -> None:
    rows = table(["name", "x", "y", "size"], NAMES, [0, 10, 0, 10], [0, 0, 10, 10], [50, 40, 60, 55])
    made = make("bubbles", rows, {"name": "name", "x": "x", "value": "y", "size": "size"}, largest=55.0)
    discs = [mark.bounds for mark in made.figure.marks if mark.visible and not mark.helper]
    assert len(discs) == 4
    assert all(made.figure.plot.holds(disc, 0.6) for disc in discs)


# Axes


def test_each_axis_writes_its_numbers_as_its_own_column() -> None:
    percent = NumberText("percent", 0, 0)
    rows: list[list[Any]] = [["name", "share", "count"]]
    rows += [[name, FormattedNumber(0.1 * i, percent), 200.0 * i] for i, name in enumerate(NAMES, 1)]
    made = make("points", rows, {"name": "name", "x": "share", "value": "count"})
    across = [text.text for text in made.figure.texts if text.kind == "tick" and text.key == "across"]
    along = [text.text for text in made.figure.texts if text.kind == "tick" and text.key == "along"]
    assert across
    assert along
    assert all("%" in text for text in across if text.strip("0"))
    assert not any("%" in text for text in along)


# Layers


def test_an_area_of_one_value_stands_as_a_narrow_column_at_its_height() -> None:
    chart = Chart(Cartesian(along=Scale(minimum=0.0, maximum=10.0)), (Area("a", "a", "c2"),), names="c1")
    made = free(chart, table(["name", "n"], ["one", "two", "three"], ["", 5, ""]))
    plot = made.figure.plot
    filled = [item.path.bounds for mark in made.figure.marks for item in (*mark.track, *mark.items)
              if isinstance(item, Shape) and item.fill is not None]  # fmt: skip
    column = max(filled, key=lambda box: box.height)
    assert column.height == pytest.approx(plot.height / 2, rel=0.02)
    assert column.bottom == pytest.approx(plot.bottom, abs=0.5)
    assert column.width == pytest.approx(8.0)
    assert column.center[0] == pytest.approx(plot.center[0], abs=0.5)


@pytest.mark.parametrize(("name", "said"), [("goal", ["goal"]), ("", [])])
def test_a_band_says_its_name_where_it_has_one(name: str, said: list[str]) -> None:
    chart = Chart(Cartesian(along=Scale(minimum=0.0, maximum=10.0)),
                  (Band("b", name, low=2.0, high=4.0, label=Label()), Bars("v", "v", "c2")), names="c1")  # fmt: skip
    assert labels(free(chart, table(["name", "n"], NAMES, [1, 5, 3, 4])), "b") == said


def test_a_band_without_height_is_not_drawn_and_says_nothing() -> None:
    chart = Chart(Cartesian(along=Scale(minimum=0.0, maximum=10.0)),
                  (Band("b", "goal", low=4.0, high=4.0, label=Label()), Bars("v", "v", "c2")), names="c1")  # fmt: skip
    made = free(chart, table(["name", "n"], NAMES, [1, 5, 3, 4]))
    assert not marks(made, "b")
    assert labels(made, "b") == []


@pytest.mark.parametrize("empty", [True, False])
def test_cells_that_hold_nothing_are_drawn_only_where_they_are_wished(empty: bool) -> None:
    rows = table(["name", "n"], ["Reed", "Mere"], [30, 25])
    made = draw(
        document("waffle", rows, {"name": "name", "value": "n"}, whole=100.0), look={"layers.cells.empty": empty}
    )
    rest = [mark for mark in made.figure.marks if mark.says == "empty" or mark.row >= 10_000]
    assert bool(rest) is empty


def test_a_line_is_broken_at_a_row_without_a_value() -> None:
    rows = table(["name", "n"], ["a", "b", "c", "d", "e"], [1, 2, "", 4, 5])
    made = make("lines", rows, {"name": "name", "value": "n"})
    drawn = [mark.row for mark in made.figure.marks if mark.visible and not math.isnan(mark.value)]
    assert drawn == [0, 1, 3, 4]


def test_flanks_take_their_layer_s_colour_and_their_own_where_it_is_set() -> None:
    rows = table(["name", "n"], NAMES, [90, 60, 30, 10])
    roles = {"name": "name", "value": "n"}
    plain = marks(draw(document("funnel", rows, roles)), "flanks")[0].fill
    of_bars = marks(draw(document("funnel", rows, roles), look={"layers.value.fill": "#115522"}), "flanks")[0].fill
    own = marks(draw(document("funnel", rows, roles), look={"layers.flanks.fill": "#aa3300"}), "flanks")[0].fill
    assert len({plain.hex, of_bars.hex, own.hex}) == 3
    assert own.hex == "#aa3300"


@pytest.mark.parametrize("row", [1, 2, 3])
def test_a_needle_points_to_the_row_it_shows(row: int) -> None:
    rows = table(["name", "n"], NAMES[:3], [10, 50, 90])
    made = make("gauge", rows, {"name": "name", "value": "n"}, of="row", row=float(row), maximum=100.0)
    (needle,) = marks(made, "needle")
    assert needle.value == [10, 50, 90][row - 1]
    assert needle.row == row - 1


def test_a_line_s_points_are_touched_where_they_are_drawn() -> None:
    made = make("lines", table(["name", "n"], NAMES, [3, 8, 5, 6]), {"name": "name", "value": "n"})
    for mark in marks(made, "series 1"):
        x, y = mark.bounds.center
        assert abs(mark.bounds.width - mark.bounds.height) < 0.5
        assert mark.bounds.width < 20
        height = made.figure.plot.bottom - y
        axis = next(one for one in made.figure.axes if one.name == "y")
        assert height / made.figure.plot.height == pytest.approx(
            (mark.value - axis.minimum) / (axis.maximum - axis.minimum), abs=0.02
        )
        assert made.figure.plot.x < x < made.figure.plot.right


def test_shades_of_one_hue_are_listed_in_the_layer_s_own_colour() -> None:
    def listed(look: dict[str, Any]) -> list[str]:
        look = {"layers.series 1.shades": "one hue", "layers.series 1.shade_steps": 3, "legend.side": "top", **look}
        keys = draw(columns(3, 50, 40, 90), look=look).figure.keys
        return [item.fill.hex for key in keys for item in key.items if getattr(item, "fill", None) is not None]

    plain, green = listed({}), listed({"layers.series 1.fill": "#116633"})
    assert len(plain) == len(green) == 3
    assert plain != green
    assert all(int(one[3:5], 16) >= int(one[1:3], 16) for one in green)  # green is more than red in each


@pytest.mark.parametrize(("value", "below"), [(400.0, False), (-400.0, True)])
def test_a_value_beyond_the_scale_is_said_inside_the_plot(value: float, below: bool) -> None:
    look = {"frame.along.minimum": -100.0, "frame.along.maximum": 100.0}
    rows = table(["name", "n"], NAMES, [50, value, 60, 40])
    made = draw(document("lines", rows, {"name": "name", "value": "n"}), Size(420, 260), look=look)
    said = [text for text in made.figure.texts if text.kind == "label" and "400" in text.text]
    assert len(said) == 1
    assert made.figure.plot.holds(said[0].bounds, 3.0)
    middle = made.figure.plot.center[1]
    assert (said[0].bounds.center[1] > middle) is below


def test_a_bubble_below_zero_is_a_ring_of_two_points() -> None:
    rows = table(["name", "x", "y", "size"], NAMES, [1, 3, 5, 8], [4, 2, 6, 3], [50, -40, 60, 55])
    made = make("bubbles", rows, {"name": "name", "x": "x", "value": "y", "size": "size"}, hollow=True)
    rims = {mark.value: item.edge_width for mark in made.figure.marks for item in mark.items if isinstance(item, Shape)}
    assert rims[-40.0] == 2.0
    assert rims[60.0] < 2.0
