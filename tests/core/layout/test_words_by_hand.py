"""Labels around discs, leaders, legends at the side and slots of series: reckoned by hand."""

import itertools
import math
from typing import Any

import pytest

from kavlet.core.charts.area import Area
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Row
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.line import Line
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.texts import Note, Text
from kavlet.core.charts.wedges import Wedges
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.layout.stacks import slots
from kavlet.core.layout.texts.text_lines import upright
from kavlet.core.layout.words.free_space import FreeSpace
from kavlet.core.layout.words.label_spots import scattered_spots
from kavlet.core.layout.words.radial_labels import FlatRim
from kavlet.core.shapes.arc import Sector
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size
from tests.making import free, table

FRAME = Cartesian(along=Scale(minimum=0.0, maximum=50.0, visible=False))


def sector(start: float, end: float) -> Sector:
    return Sector((100.0, 200.0), 0.0, 50.0, start, end)


def labels(figure: Figure) -> dict[int | None, PlacedText]:
    return {text.row: text for text in figure.texts if text.kind == "label"}


# Rims


@pytest.mark.parametrize(
    ("start", "end", "side", "point"),
    [(80, 100, 1, (160, 200)), (260, 280, -1, (40, 200)), (-10, 10, 1, (100, 140)), (170, 190, 1, (100, 260)),
     (45, 45, 1, (100 + 60 * math.sqrt(0.5), 200 - 60 * math.sqrt(0.5)))],
)  # fmt: skip
def test_a_slice_s_label_stands_at_its_middle_beside_the_rim(
    start: float, end: float, side: int, point: tuple[float, float]
) -> None:
    rim = FlatRim(sector(start, end))
    assert rim.side == side
    assert rim.point(10.0) == pytest.approx(point)


def test_a_label_is_clear_of_a_rim_that_bends_towards_it() -> None:
    right, left = FlatRim(sector(80, 100)), FlatRim(sector(260, 280))
    assert right.clear(200.0, 5.0, 10.0) == pytest.approx(160)  # beside the middle the rim is as far out as it can be
    assert left.clear(200.0, 5.0, 10.0) == pytest.approx(40)
    assert right.clear(241.0, 5.0, 10.0) == pytest.approx(100 + math.sqrt(60**2 - 36**2))
    assert left.clear(159.0, 5.0, 10.0) == pytest.approx(100 - math.sqrt(60**2 - 36**2))
    assert right.clear(300.0, 5.0, 10.0) == pytest.approx(100)  # above and below the disc there is nothing to clear


def fanned(rows: int, wide: float = 460, template: str = "{name} {share}", **label: Any) -> Figure:
    held = table(["n", "v"], [f"Pond {i + 1}" for i in range(rows)], [10.0 + 3 * (i % 3) for i in range(rows)])
    layer = Wedges("v", "v", "c2", label=Label(template=template, position="outside", **label))
    return free(Chart(Polar(), (layer,), names="c1", legend=Legend(side="none")), held, Size(wide, 320)).figure


@pytest.mark.parametrize("rows", [3, 6, 12])
def test_labels_around_a_disc_stand_on_their_own_side_clear_of_it_and_of_each_other(rows: int) -> None:
    figure = fanned(rows)
    found = labels(figure)
    assert len(found) == rows
    for mark in figure.marks:
        assert mark.sector is not None
        box, size = found[mark.row].bounds, found[mark.row].size
        x, y = mark.sector.center
        side = FlatRim(mark.sector).side
        nearest = box.x if side > 0 else box.right
        dy = max(0.0, abs(box.center[1] - y) - box.height / 2)
        assert side * (nearest - x) >= math.sqrt(max(0.0, (mark.sector.outer + 0.5 * size) ** 2 - dy**2)) - 0.5
    boxes = [text.bounds for text in found.values()]
    assert not [1 for i, one in enumerate(boxes) for other in boxes[:i] if one.overlaps(other)]


def test_labels_that_stay_at_their_slice_need_no_leader() -> None:
    assert all(not text.leader for text in labels(fanned(3)).values())
    assert all(text.leader for text in labels(fanned(3, leader="elbow")).values())
    assert all(not text.leader for text in labels(fanned(40, wide=640, leader="none")).values())
    crowded = labels(fanned(30, wide=640))
    assert any(text.leader for text in crowded.values())
    for text in crowded.values():
        if text.leader:
            assert text.leader[-1][1] == pytest.approx(text.bounds.center[1], abs=1) or text.leader[0][1] == (
                pytest.approx(text.bounds.center[1], abs=1)
            )


def test_labels_in_a_narrow_chart_are_wrapped_before_they_are_shortened() -> None:
    said = "{name} of the reserve and its banks"
    wide, narrow = fanned(4, 900, said), fanned(4, 260, said)
    assert all(len(text.lines) == 1 for text in labels(wide).values())
    found = labels(narrow)
    assert any(len(text.lines) > 1 for text in found.values())
    for text in found.values():
        assert text.bounds.x >= 0
        assert text.bounds.right <= 260


# Leaders


@pytest.mark.parametrize(
    ("dx", "dy", "kind", "bend"), [(60.0, -60.0, "plain", 2), (60.0, -60.0, "elbow", 3), (-70.0, -50.0, "elbow", 3)]
)
def test_a_label_moved_by_hand_is_led_to_its_mark(dx: float, dy: float, kind: Any, bend: int) -> None:
    rows = table(["n", "v"], ["a", "b", "c"], [10, 20, 30])

    def made(**by_hand: Any) -> Figure:
        layer = Bars("v", "v", "c2", label=Label(leader=kind), rows={1: Row(**by_hand)})
        return free(Chart(FRAME, (layer,), names="c1"), rows, Size(400, 300)).figure

    before, after = labels(made())[1], labels(made(dx=dx, dy=dy))[1]
    assert after.bounds.center == pytest.approx((before.bounds.center[0] + dx, before.bounds.center[1] + dy))
    assert len(after.leader) == bend
    start, end = after.leader[0], after.leader[-1]
    bar = next(mark.bounds for mark in made().marks if mark.row == 1)
    assert bar.x - 1 <= end[0] <= bar.right + 1
    assert bar.y - 1 <= end[1] <= bar.bottom + 1
    gap = 0.25 * after.size
    box = after.bounds
    sides = ((box.x - gap, box.center[1]), (box.right + gap, box.center[1]), (box.center[0], box.bottom + gap))
    assert any(start == pytest.approx(side) for side in sides)
    if bend == 3:
        assert after.leader[1] == pytest.approx(((start[0] + end[0]) / 2, start[1]))


# Legends


def listed(**legend: Any) -> Figure:
    rows = table(["n", "Reed", "Mill", "North"], ["a", "b"], [10, 20], [20, 30], [30, 40])
    layers = tuple(Bars(f"s{i}", name, f"c{i + 2}", tone=i) for i, name in enumerate(("Reed", "Mill", "North")))
    return free(Chart(FRAME, layers, names="c1", legend=Legend(**legend)), rows, Size(400, 300)).figure


def entries(figure: Figure) -> list[PlacedText]:
    return [text for text in figure.texts if text.kind == "legend"]


@pytest.mark.parametrize("side", ["left", "right"])
def test_a_legend_at_the_side_is_a_column_in_the_middle_of_its_height(side: Any) -> None:
    figure = listed(side=side)
    texts = entries(figure)
    assert [text.text for text in texts] == ["Reed", "Mill", "North"]
    middles = [text.bounds.center[1] for text in texts]
    assert middles[1] - middles[0] == pytest.approx(middles[2] - middles[1])
    assert middles[1] == pytest.approx(150, abs=1)
    assert len({round(text.bounds.x, 4) for text in texts}) == 1
    for key, text in zip(figure.keys, texts, strict=True):
        assert key.bounds.right < text.bounds.x < key.bounds.right + text.size
        assert key.bounds.center[1] == pytest.approx(text.bounds.center[1], abs=1)
    if side == "right":
        assert figure.plot.right < figure.keys[0].bounds.x
    else:
        assert max(text.bounds.right for text in texts) < figure.plot.x


def test_a_legend_s_title_is_a_line_of_its_own_above_it() -> None:
    plain, titled = entries(listed(side="right")), entries(listed(side="right", title="Ponds"))
    assert titled[0].text == "Ponds"
    pitch = titled[2].bounds.center[1] - titled[1].bounds.center[1]
    assert titled[1].bounds.center[1] - titled[0].bounds.center[1] == pytest.approx(pitch, abs=1)
    assert titled[1].bounds.center[1] - plain[0].bounds.center[1] == pytest.approx(pitch / 2, abs=1)


@pytest.mark.parametrize(("x", "y"), [(0.0, 0.0), (1.0, 1.0), (0.5, 0.25)])
def test_a_legend_inside_goes_from_side_to_side(x: float, y: float) -> None:
    figure = listed(side="inside", x=x, y=y)
    texts, plain = entries(figure), listed(side="none").plot
    assert figure.plot == plain
    left, right = min(key.bounds.x for key in figure.keys), max(text.bounds.right for text in texts)
    middles = [text.bounds.center[1] for text in texts]
    pitch = middles[1] - middles[0]
    top, bottom = middles[0] - pitch / 2, middles[-1] + pitch / 2
    assert (left - figure.plot.x) / (figure.plot.width - (right - left)) == pytest.approx(x, abs=0.12)
    assert (top - figure.plot.y) / (figure.plot.height - (bottom - top)) == pytest.approx(y, abs=0.12)


# Slots


def test_series_side_by_side_have_a_slot_each_and_stacked_ones_share_one() -> None:
    layers = (
        Bars("a", "a", "c2"), Bars("b", "b", "c3", stack="stacked"), Bars("c", "c", "c4", stack="stacked"),
        Bars("d", "d", "c5"), Bars("e", "e", "c6", second=True), Line("l", "l", "c2"),
        Area("f", "f", "c2", stack="stacked"), Bars("g", "g", "c7", stack="stacked"),
    )  # fmt: skip
    chart = Chart(Cartesian(second=Scale()), layers)
    assert slots(chart, second=False) == [["a"], ["b", "c", "g"], ["d"]]
    assert slots(chart, second=True) == [["e"]]


# What labels and notes say, and where notes stand


def test_a_label_s_fields_are_those_of_its_row() -> None:
    rows = table(["n", "v"], ["a", "b", "c", "d"], [10, 20, 0, 10])
    layer = Bars("v", "counted", "c2", label=Label(template="{name} {series} {value} {share} [{step}]", lines=4))
    figure = free(Chart(FRAME, (layer,), names="c1"), rows, Size(900, 400)).figure
    assert {row: text.text for row, text in labels(figure).items()} == {
        0: "a counted 10 25% []", 1: "b counted 20 50% [200%]", 2: "c counted 0 0% [0%]", 3: "d counted 10 25% []",
    }  # fmt: skip


@pytest.mark.parametrize("clear", [True, False])
def test_a_note_that_keeps_clear_moves_below_the_title(clear: bool) -> None:
    rows = table(["n", "v"], ["a"], [10])
    note = Note("k", "a note", x=0.1, y=0.08, align="start", clear=clear)
    chart = Chart(FRAME, (Bars("v", "v", "c2"),), names="c1", title=Text("What was seen at the ponds"), notes=(note,))
    figure = free(chart, rows, Size(400, 300), title="What was seen at the ponds").figure
    placed, title = (next(text for text in figure.texts if text.kind == kind) for kind in ("note", "title"))
    assert placed.bounds.x == pytest.approx(40)
    assert placed.bounds.overlaps(title.bounds) == (not clear)
    if clear:
        assert title.bounds.bottom < placed.bounds.y < title.bounds.bottom + 0.5 * placed.size


# Spots and room


@pytest.mark.parametrize("reach", [2.0, 7.5])
def test_a_label_led_out_of_a_crowd_has_its_leader_end_at_the_point_s_rim(reach: float) -> None:
    spots = [
        one for one in scattered_spots(Label(), 50.0, 80.0, reach, Colour(0, 0, 0), False) if one.leader is not None
    ]
    assert len(spots) >= 8
    for spot in spots:
        assert spot.leader is not None
        way = (spot.leader[0] - 50.0, spot.leader[1] - 80.0)
        assert math.hypot(*way) == pytest.approx(reach + 0.5, abs=0.02)
        assert math.hypot(spot.x - 50.0, spot.y - 80.0) == pytest.approx(reach, abs=0.02)
        assert way[0] * spot.sx + way[1] * spot.sy == pytest.approx(math.hypot(*way) * math.hypot(spot.sx, spot.sy))
        assert (spot.anchor == "start") == (spot.sx > 0.3 * math.hypot(spot.sx, spot.sy))


def test_what_is_led_takes_the_room_of_its_leader_from_end_to_end() -> None:
    figure = free(
        Chart(FRAME, (Bars("v", "v", "c2", label=Label(), rows={1: Row(dx=90.0, dy=-90.0)}),), names="c1"),
        table(["n", "v"], ["a", "b", "c"], [10, 20, 30]),
        Size(400, 300),
    ).figure
    text = labels(figure)[1]
    room = FreeSpace(Rect(0, 0, 400, 300))
    room.take(text)
    for x, y in text.leader:
        assert not room.free_rect(Rect(x - 0.3, y - 0.3, 0.6, 0.6))
    (ax, ay), (bx, by) = text.leader[0], text.leader[-1]
    assert room.free_rect(Rect(bx - (bx - ax) / 50 * -3 - 0.3, by - (by - ay) / 50 * -3 - 0.3, 0.6, 0.6))


@pytest.mark.parametrize(
    ("angle", "read"), [(0, 0), (90, 90), (-90, -90), (270, -90), (91, -89), (-91, 89), (180, 0), (450, 90)]
)
def test_texts_are_never_upside_down(angle: float, read: float) -> None:
    assert upright(angle) == pytest.approx(read)


@pytest.mark.parametrize(("distance", "angle"), [(0.0, 0.0), (9.0, 0.0), (0.0, 25.0), (9.0, 25.0)])
def test_a_label_is_moved_out_and_turned_each_by_itself(distance: float, angle: float) -> None:
    def made(**look: Any) -> PlacedText:
        layer = Bars("v", "v", "c2", label=Label(position="outside end", **look))
        return labels(
            free(Chart(FRAME, (layer,), names="c1"), table(["n", "v"], ["a", "b"], [10, 20]), Size(400, 300)).figure
        )[0]

    plain, moved = made(), made(distance=distance, angle=angle)
    assert moved.angle == pytest.approx(angle)
    if not angle:
        assert moved.bounds.bottom == pytest.approx(plain.bounds.bottom - distance)
    elif distance:
        assert moved.bounds.center[1] == pytest.approx(made(angle=angle).bounds.center[1] - distance)


def test_a_legend_with_more_than_its_height_holds_has_smaller_type() -> None:
    def made(height: float) -> Figure:
        names = [f"Reed {i}" for i in range(12)]
        layers = tuple(Bars(f"s{i}", name, f"c{i + 2}", tone=i) for i, name in enumerate(names))
        rows = table(["n", *names], ["a", "b"], *([10 + i, 20] for i in range(12)))
        return free(Chart(FRAME, layers, names="c1", legend=Legend(side="right")), rows, Size(400, height)).figure

    tall, low = entries(made(500)), entries(made(190))
    assert len(tall) == len(low) == 12
    assert low[0].size < 0.95 * tall[0].size
    boxes = [text.bounds for text in low]
    assert not [1 for one, other in itertools.pairwise(boxes) if one.overlaps(other)]
    assert boxes[-1].bottom <= 190
