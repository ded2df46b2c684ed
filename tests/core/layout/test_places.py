"""Where things go, on frames small enough to reckon by hand: cells, rings, planes, scales, sizes, texts that lead."""

import math
from typing import Any

import pytest

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.frame import Cartesian, Grid, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.line import Line
from kavlet.core.charts.points import Points
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.data import Data
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.layout.furniture import FULL_SIZE, sizes
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.planes.field import GridField
from kavlet.core.layout.planes.plane import Plane, sized_rows
from kavlet.core.layout.planes.scales import FixedScale, fixed_scale
from kavlet.core.layout.planes.ticks import decades, extended
from kavlet.core.scene.primitives import Shape
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.number_text import DATE, PERCENT, NumberText
from tests.making import document, draw, free, marks, table

ROWS = table(["site", "count", "more"], ["A", "B", "C"], [10, 40, 20], [30, 15, 25])
SCALE = Scale(minimum=0.0, maximum=50.0, visible=False)


def made(*layers: Any, frame: Any = None, size: Size | None = None, **words: Any) -> Figure:
    chart = Chart(frame or Cartesian(along=SCALE), layers, names="c1", **words)
    return free(chart, ROWS, size or Size(400, 300)).figure


def kinds(figure: Figure, kind: str) -> list[PlacedText]:
    return [text for text in figure.texts if text.kind == kind]


@pytest.mark.parametrize(
    ("by", "corner", "first", "second"),
    [
        ("rows", "top left", (0, 0), (1, 0)), ("rows", "bottom left", (0, 1), (1, 1)),
        ("rows", "top right", (2, 0), (1, 0)), ("rows", "bottom right", (2, 1), (1, 1)),
        ("columns", "top left", (0, 0), (0, 1)), ("columns", "bottom right", (2, 1), (2, 0)),
    ],
)  # fmt: skip
def test_cells_are_filled_from_their_corner(
    by: Any, corner: Any, first: tuple[int, int], second: tuple[int, int]
) -> None:
    field = GridField(Rect(10, 20, 30, 20), Grid(2, 3, by, corner))
    assert field.count == 6
    for number, (column, row) in enumerate((first, second)):
        assert field.cell(number) == Rect(10 + 10 * column, 20 + 10 * row, 10, 10)
    assert len({(field.cell(i).x, field.cell(i).y) for i in range(6)}) == 6


@pytest.mark.parametrize(("rows", "columns", "count"), [(1, 1, 1), (1, 10, 10), (10, 1, 10), (0, 0, 1), (3, 4, 12)])
def test_a_field_has_a_cell_at_least(rows: int, columns: int, count: int) -> None:
    assert GridField(Rect(0, 0, 100, 100), Grid(rows, columns)).count == count


@pytest.mark.parametrize(("rows", "columns"), [(1, 1), (2, 8), (8, 2), (1, 10)])
def test_a_field_is_as_large_as_fits_and_its_cells_are_square(rows: int, columns: int) -> None:
    figure = made(Cells("v", "v", "c2"), frame=Grid(rows, columns))
    plot, room = figure.plot, Rect(0, 0, 400, 300).inset(16.5, 16.5, 16.5, 16.5)
    assert plot.width / columns == pytest.approx(plot.height / rows)
    assert plot.width == pytest.approx(room.width) or plot.height == pytest.approx(room.height)
    assert plot.center[1] == pytest.approx(150)


def test_rings_lie_between_hole_and_rim_by_their_weights() -> None:
    disc = Disc(Rect(0, 0, 200, 200), (100, 100), 100, Polar(hole=0.2, ring_gap=4.0, rings=(1.0, 3.0)), 2)
    inner, outer = disc.ring(0), disc.ring(1)
    assert inner[0] == 20
    assert outer[1] == pytest.approx(100)
    assert outer[0] - inner[1] == pytest.approx(4)
    assert (outer[1] - outer[0]) / (inner[1] - inner[0]) == pytest.approx(3)


def test_rings_without_room_for_gaps_have_none() -> None:
    disc = Disc(Rect(0, 0, 20, 20), (10, 10), 10, Polar(hole=0.5, ring_gap=30.0), 2)
    assert disc.ring(0) == pytest.approx((5, 7.5))
    assert disc.ring(1) == pytest.approx((7.5, 10))
    even = Disc(Rect(0, 0, 20, 20), (10, 10), 10, Polar(rings=(1.0,), ring_gap=0.0), 2)
    assert even.ring(1) == pytest.approx((5, 10))  # weights for another number of rings are none


def plane(lying: bool, turned_round: bool = False) -> Plane:
    first, across = FixedScale("linear", 0.0, 10.0), FixedScale("linear", 0.0, 4.0)
    return Plane(Rect(10, 20, 100, 80), lying, first, None, across, 4, 10.0, 5.0, 2.5, turned_round, {})


def test_places_of_a_plane() -> None:
    standing, lying = plane(False), plane(True)
    assert (standing.along(2.5), lying.along(2.5)) == (80.0, 35.0)
    assert (standing.across_value(1.0), lying.across_value(1.0)) == (35.0, 80.0)
    assert standing.pitch == 15
    assert [standing.row_start(row) for row in range(3)] == [12.5, 27.5, 42.5]
    assert [lying.row_middle(row) for row in range(2)] == [27.5, 42.5]
    assert plane(False, True).row_start(0) == 12.5 + 3 * 15
    assert standing.point(3, 4) == (3, 4)
    assert lying.point(3, 4) == (4, 3)
    assert standing.box(12, 10, 90, 30) == Rect(12, 30, 10, 60)
    assert lying.box(12, 10, 90, 30) == Rect(30, 12, 60, 10)
    bare = Plane(Rect(0, 0, 10, 10), False, FixedScale("linear", 0.0, 1.0), None, None, 1, 1.0, 1.0, 0.0, False, {})
    assert math.isnan(bare.across_value(1.0))


@pytest.mark.parametrize(("overlap", "flush"), [(0.0, False), (50.0, False), (100.0, True), (-20.0, False)])
def test_bars_and_gaps_fill_the_axis(overlap: float, flush: bool) -> None:
    frame = Cartesian(gap_width=50.0, overlap=overlap, flush=flush)
    thickness, gap, lead, bar = sized_rows(frame, 300.0, 4, 2)
    assert thickness == pytest.approx(bar * (2 - overlap / 100))
    assert gap == pytest.approx(bar / 2)
    assert 4 * thickness + (3 if flush else 4) * gap == pytest.approx(300)
    assert lead == pytest.approx(0.0 if flush else gap / 2)


def test_names_are_written_as_their_column_writes_its_numbers() -> None:
    values: list[Any] = [45658.0, "later", None]
    data = Data({"c": values}, {}, (0, 1, 2), number_texts={"c": DATE})
    assert data.names("c") == ["Jan 1, 2025", "later", ""]
    assert Data({"c": [0.5]}, {}, (0,), number_texts={"c": PERCENT}).names("c") == ["50%"]
    assert Data({"c": [0.5]}, {}, (0,)).names("c") == ["0.5"]
    assert data.names("gone") == ["", "", ""]


@pytest.mark.parametrize(
    ("size", "share"), [(Size(520, 290), 1.0), (Size(2000, 2000), 1.0), (Size(416, 290), 0.8), (Size(520, 203), 0.7),
                        (Size(100, 290), 0.5), (Size(36, 36), 0.5)],
)  # fmt: skip
def test_texts_shrink_with_small_charts_and_stay_readable_in_print(size: Size, share: float) -> None:
    style = resolve(Dress())
    found = sizes(style, size)
    wished = [share * one for one in (style.title_size, style.subtitle_size, style.text_size, style.small_size)]
    least = (9.0, 7.5, 7.5, 7.0)
    assert (found.title, found.subtitle, found.text, found.small) == pytest.approx(
        [max(one, other) for one, other in zip(wished, least, strict=True)]
    )
    assert (FULL_SIZE.width, FULL_SIZE.height) == (520, 290)


def axis_number(scale: Scale, column: NumberText, span: tuple[float, float] = (0.0, 1.0)) -> NumberText:
    return fixed_scale(scale, span, 200.0, column).number


def test_an_axis_writes_as_its_column_with_the_decimals_its_steps_need() -> None:
    percent = axis_number(Scale(), PERCENT)
    assert (percent.style, percent.most_decimals) == ("percent", 0)
    assert axis_number(Scale(), NumberText(), (0.0, 1.0)).most_decimals == 1
    assert axis_number(Scale(), NumberText(most_decimals=0), (0.0, 100.0)).most_decimals == 0
    own = NumberText(most_decimals=3)
    assert axis_number(Scale(number=own), PERCENT) == own
    assert axis_number(Scale(), NumberText(significant=2)) == NumberText(significant=2)
    assert axis_number(Scale(), DATE, (45000.0, 45300.0)) == DATE
    assert axis_number(Scale(kind="date"), NumberText(), (45000.0, 45300.0)) == NumberText(style="date")


def test_decades_take_in_twos_and_fives_where_there_are_few() -> None:
    assert decades(1.0, 1000.0) == [1, 10, 100, 1000]
    assert decades(1.0, 20.0) == [1, 2, 5, 10, 20]
    assert decades(3.0, 60.0) == [5, 10, 20, 50]


def test_searched_ticks_lie_around_the_figures() -> None:
    assert extended(0.0, 100.0, 5) == [0, 25, 50, 75, 100]
    assert extended(51.8, 276.0, 3) == [50, 150, 250]
    assert extended(51.8, 276.0, 4) == [0, 100, 200, 300]
    assert extended(3.0, 17.0, 6) == [2.5, 5, 7.5, 10, 12.5, 15, 17.5]
    assert extended(-1.0, 1.0, 5) == [-1, -0.5, 0, 0.5, 1]


def test_the_base_line_stands_at_zero_even_at_the_scale_s_ends() -> None:
    for low, high, at in ((0.0, 50.0, 0.0), (-50.0, 0.0, 1.0), (-50.0, 50.0, 0.5)):
        frame = Cartesian(
            along=Scale(minimum=low, maximum=high, visible=False), across=Scale(kind="category", line=True)
        )
        figure = made(Bars("v", "v", "c2"), frame=frame)
        (line,) = [rule for rule in figure.over if rule.kind == "axis"]
        assert line.y1 == line.y2 == pytest.approx(figure.plot.bottom - at * figure.plot.height)
        assert (line.x1, line.x2) == pytest.approx((figure.plot.x, figure.plot.right))


def test_turned_names_take_the_room_their_length_asks_for() -> None:
    names = [f"a rather long name {i}" for i in range(3)]
    rows = table(["n", "v"], names, [1, 2, 3])
    plots = {}
    for angle in (0.0, 45.0, 90.0):
        frame = Cartesian(across=Scale(kind="category", crowded="turn", angle=angle), along=SCALE)
        figure = free(Chart(frame, (Bars("v", "v", "c2"),), names="c1"), rows, Size(400, 300)).figure
        plots[angle] = figure.plot
        longest = max(text.lines[0].width for text in kinds(figure, "name"))
        if angle == 90.0:
            room = 300 - 16.5 - figure.plot.bottom
            assert room == pytest.approx(longest + 0.5 * kinds(figure, "name")[0].size, abs=1.5)
    assert plots[45.0].bottom > plots[90.0].bottom
    flat = Cartesian(across=Scale(kind="category", crowded="turn", angle=90.0), along=SCALE)
    unnamed = free(Chart(flat, (Bars("v", "v", "c2"),)), rows, Size(400, 300)).figure
    assert unnamed.plot.bottom > plots[45.0].bottom


def test_labels_beyond_bars_are_given_room_by_where_their_bars_end() -> None:
    def top(figures: list[int], position: Any) -> float:
        rows = table(["n", "v"], ["a", "b"], figures)
        frame = Cartesian(along=Scale(minimum=0.0, maximum=40.0, visible=False))
        layer = Bars("v", "v", "c2", label=Label(position=position))
        return free(Chart(frame, (layer,), names="c1"), rows, Size(400, 300)).figure.plot.y

    bare = top([40, 40], "middle")
    assert top([40, 10], "outside") > bare + 5  # one ends at the scale's end
    assert top([10, 10], "outside") == pytest.approx(bare)  # there is room above them
    assert top([40, 10], "below") == pytest.approx(bare)


def test_a_label_moved_away_leads_to_its_mark() -> None:
    held = document("columns", ROWS, labels="values")
    for leader, points in (("plain", 2), ("elbow", 3), ("arrow", 2), ("none", 0)):
        look = {
            "layers.series 1.rows.0.dx": 60.0,
            "layers.series 1.rows.0.dy": -70.0,
            "layers.series 1.label.leader": leader,
        }
        picture = draw(held, look=look)
        label = next(text for text in picture.figure.texts if text.key == "series 1" and text.row == 0)
        assert len(label.leader) == points
        assert label.arrow == (leader == "arrow")
        lines = [
            item
            for item in picture.scene.items
            if getattr(item, "edge_width", 0) == 0.75 and item.edge == label.leader_colour
        ]
        if points:
            drawn = lines[-1].path
            assert len(drawn.coordinates) == 2 * points
            assert drawn.coordinates[-2:] == pytest.approx(label.leader[-1])


def test_an_arrow_ends_in_a_slim_head_at_its_tip() -> None:
    held = document("columns", ROWS, labels="values")
    look = {"layers.series 1.rows.0.dx": 60.0, "layers.series 1.rows.0.dy": -70.0}
    picture = draw(held, look={**look, "layers.series 1.label.leader": "arrow"})
    label = next(text for text in picture.figure.texts if text.key == "series 1" and text.row == 0)
    heads = [
        item.path.coordinates
        for item in picture.scene.items
        if isinstance(item, Shape) and item.fill == label.leader_colour and item.path.verbs == "MLLZ"
    ]
    ((x, y, *corners),) = heads
    assert (x, y) == pytest.approx(label.leader[-1])
    (x1, y1), (x2, y2) = label.leader[-2:]
    long = math.hypot(x2 - x1, y2 - y1)
    middle = ((corners[0] + corners[2]) / 2, (corners[1] + corners[3]) / 2)
    assert middle == pytest.approx((x2 - 5 * (x2 - x1) / long, y2 - 5 * (y2 - y1) / long))  # 5 points long
    across = (corners[0] - corners[2], corners[1] - corners[3])
    assert math.hypot(*across) == pytest.approx(4)
    assert across[0] * (x2 - x1) + across[1] * (y2 - y1) == pytest.approx(0, abs=1e-9)


def test_labels_keep_two_points_from_the_sheet_s_rim() -> None:
    look = {"layers.series 1.rows.0.dx": -900.0, "layers.series 1.rows.0.dy": -900.0}
    figure = draw(document("columns", ROWS, labels="values"), look=look).figure
    label = next(text for text in figure.texts if text.kind == "label" and text.row == 0 and text.key == "series 1")
    assert (label.bounds.x, label.bounds.y) == pytest.approx((2, 2), abs=0.01)


def test_a_smooth_area_is_as_high_as_its_figures_and_meets_the_one_below() -> None:
    figure = made(Area("one", "one", "c2", stack="stacked", course="smooth"),
                  Area("two", "two", "c3", stack="stacked", course="smooth"))  # fmt: skip
    one, two = (next(item for mark in marks_of(figure, key) for item in mark.items) for key in ("one", "two"))
    upper = one.path.coordinates
    assert upper[:2] == pytest.approx((mark_at(figure, "one", 0)[0], figure.plot.bottom - 0.2 * figure.plot.height))
    assert two.path.bounds.bottom == pytest.approx(one.path.bounds.bottom - 0.2 * figure.plot.height)
    curves = [at for at, verb in enumerate(two.path.verbs) if verb == "C"]
    assert len(curves) == 4  # two spans above, the same two backward below


def marks_of(figure: Figure, key: str) -> list[Any]:
    return [mark for mark in figure.marks if mark.key == key and mark.items]


def mark_at(figure: Figure, key: str, row: int) -> tuple[float, float]:
    return next(mark.bounds.center for mark in figure.marks if mark.key == key and mark.row == row)


def test_a_band_of_no_height_is_not_drawn() -> None:
    for low, high, there in ((10.0, 30.0, True), (30.0, 30.0, False), (60.0, 90.0, False)):
        figure = made(Band("b", "usual", low=low, high=high, label=Label()), Bars("v", "v", "c2"))
        assert bool(next(mark for mark in figure.marks if mark.key == "b").visible) is there
        assert bool(kinds(figure, "label")) is there


@pytest.mark.parametrize("lying", [False, True])
@pytest.mark.parametrize("sign", [1, -1])
def test_a_capsule_shorter_than_thick_keeps_its_round_base(lying: bool, sign: int) -> None:
    rows = table(["n", "v"], ["a"], [2 * sign])
    frame = Cartesian(lying=lying, along=Scale(minimum=-50.0, maximum=50.0, visible=False), gap_width=20.0)
    figure = free(Chart(frame, (Bars("v", "v", "c2", form="capsule"),), names="c1"), rows, Size(400, 300)).figure
    (mark,) = figure.marks
    (shape,) = mark.items
    whole, seen = shape.path.bounds, mark.bounds
    assert whole.width == pytest.approx(whole.height)
    assert shape.clip is not None
    assert shape.clip.bounds == pytest.approx(seen) or shape.clip.bounds.width == pytest.approx(seen.width)
    if lying:
        assert (whole.x if sign > 0 else whole.right) == pytest.approx(seen.x if sign > 0 else seen.right)
    else:
        assert (whole.bottom if sign > 0 else whole.y) == pytest.approx(seen.bottom if sign > 0 else seen.y)


def test_only_the_last_cell_is_cut_and_only_to_a_part() -> None:
    rows = table(["n", "v"], ["a", "b"], [2.5, 3.0])
    frame = Cartesian(lying=True, along=Scale(minimum=0.0, maximum=4.0, visible=False))
    figure = free(Chart(frame, (Cells("v", "v", "c2"),), names="c1"), rows, Size(400, 200)).figure
    cut, whole = figure.marks
    assert [item.clip is not None for item in cut.items] == [False, False, True]
    assert [item.clip is not None for item in whole.items] == [False, False, False]
    full = cut.items[0].place.a
    assert cut.items[2].clip.bounds.width == pytest.approx(full / 2, rel=0.02)


def test_joins_stand_at_the_height_of_the_bar_before() -> None:
    frame = Cartesian(along=SCALE)
    layers = Bars("v", "v", "c2"), Flanks("f", "f", "c2", of="v", form="line", edge_width=2.0)
    figure = made(*layers, frame=frame)
    joins = [mark.bounds for mark in figure.marks if mark.key == "f"]
    bars = [mark.bounds for mark in figure.marks if mark.key == "v"]
    assert len(joins) == 2
    for join, before, after in zip(joins, bars, bars[1:], strict=False):
        assert (join.x, join.right) == pytest.approx((before.right, after.x))
        assert join.center[1] == pytest.approx(before.y)
        assert join.height == pytest.approx(2.0)


def test_a_bar_of_a_plain_type_takes_no_room_beyond_its_scale() -> None:
    for layer in (Bars("v", "v", "c2"), Line("v", "v", "c2"), Points("v", "v", "c2")):
        assert made(layer).plot.bottom == pytest.approx(made(Reference("r", "r", at=10.0)).plot.bottom)
    round_ = made(Bars("v", "v", "c2", form="cylinder")).plot
    assert round_.height < made(Bars("v", "v", "c2")).plot.height


def test_marks_know_their_panel_and_texts_too() -> None:
    repeated = draw(document("gauge", table(["n", "v"], ["a", "b"], [30, 60])), repeat=True).figure
    assert {mark.panel for mark in repeated.marks} == {0, 1}
    assert {text.panel for text in repeated.texts if text.kind == "tick"} == {0, 1}
    single = made(Bars("v", "v", "c2", label=Label()))
    assert {mark.panel for mark in single.marks} == {text.panel for text in single.texts} == {0}
    assert [mark.tone for mark in single.marks] == [0, 0, 0]
    assert len(marks(free(Chart(Cartesian(), (Bars("v", "v", "c2", vary=True),), names="c1"), ROWS), "v")) == 3


@pytest.mark.parametrize(
    ("insets", "size", "plot"),
    [
        ((0.45, 0.1, 0.45, 0.1), Size(400, 300), (180, 30, 60, 240)),  # 15 % at least
        ((0.45, 0.1, 0.45, 0.1), Size(160, 300), (72, 30, 36, 240)),  # 36 points at least
        ((0.95, 0.1, 0.0, 0.1), Size(400, 300), (340, 30, 60, 240)),  # kept on the sheet
        ((0.1, 0.9, 0.1, 0.05), Size(400, 300), (40, 255, 320, 45)),
    ],
)
def test_a_plot_placed_by_hand_is_never_too_small_nor_off_the_sheet(
    insets: tuple[float, ...], size: Size, plot: tuple[float, ...]
) -> None:
    rows = table(["name", "n"], ["a", "b"], [3, 7])
    held = draw(document("columns", rows), size, look={"plot": insets}).figure.plot
    assert (held.x, held.y, held.width, held.height) == pytest.approx(plot)


@pytest.mark.parametrize("lying", [False, True])
def test_an_area_s_figures_stand_over_its_course(lying: bool) -> None:
    frame = Cartesian(lying=lying, along=SCALE)
    figure = made(Area("v", "v", "c2", label=Label(position="above")), frame=frame)
    texts = {text.row: text for text in kinds(figure, "label")}
    assert [texts[row].text for row in range(3)] == ["10", "40", "20"]
    for row in range(3):
        x, y = mark_at(figure, "v", row)
        if not lying:
            assert texts[row].bounds.center[0] == pytest.approx(x, abs=0.5)
            assert y - 2 * texts[row].size < texts[row].bounds.bottom < y
