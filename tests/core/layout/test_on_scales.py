"""What stands at a value of a scale: reference lines, needles, discs, and the room they ask for, reckoned by hand."""

import math
from typing import Any

import pytest

from kavlet.core.charts.area import Area
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.needle import Needle
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.figure import Figure, Mark, PlacedText
from kavlet.core.layout.marks.bubbles import diameters
from kavlet.core.scene.primitives import Shape
from kavlet.core.values.geometry import Size
from tests.making import document, draw, free, table

ROWS = table(["site", "count", "more"], ["A", "B", "C"], [10, 40, 20], [30, 15, 25])
FIFTY = Scale(minimum=0.0, maximum=50.0, visible=False)
HALF = Polar(-90.0, 180.0, 180.0, hole=0.5, scale=Scale(minimum=0.0, maximum=100.0, visible=False))


def made(*layers: Any, frame: Any = None, rows: Any = ROWS, size: Size | None = None) -> Figure:
    return free(Chart(frame or Cartesian(along=FIFTY), layers, names="c1"), rows, size or Size(400, 300)).figure


def only(figure: Figure, key: str) -> Mark:
    return next(mark for mark in figure.marks if mark.key == key)


def label_of(figure: Figure, key: str) -> PlacedText:
    return next(text for text in figure.texts if text.kind == "label" and text.key == key)


@pytest.mark.parametrize("lying", [False, True])
@pytest.mark.parametrize(("value", "share"), [(0.0, 0.0), (12.5, 0.25), (50.0, 1.0)])
def test_a_line_stands_over_the_whole_plot_at_its_value(lying: bool, value: float, share: float) -> None:
    figure = made(Reference("r", "goal", at=value), frame=Cartesian(lying=lying, along=FIFTY))
    plot, mark = figure.plot, only(figure, "r")
    assert mark.line is not None
    (x1, y1), (x2, y2) = mark.line
    if lying:
        at = plot.x + share * plot.width
        assert (x1, y1, x2, y2) == pytest.approx((at, plot.y, at, plot.bottom))
    else:
        at = plot.bottom - share * plot.height
        assert (x1, y1, x2, y2) == pytest.approx((plot.x, at, plot.right, at))
    assert mark.value == value
    assert [item.edge_width for item in mark.items] == [1.25]  # type: ignore[union-attr]


@pytest.mark.parametrize("value", [-0.5, 50.5, math.nan])
def test_a_line_beyond_its_scale_is_none(value: float) -> None:
    assert not [mark for mark in made(Reference("r", "goal", at=value)).marks if mark.key == "r"]
    assert not [mark for mark in made(Reference("r", "goal", at=2 * value), frame=HALF).marks if mark.key == "r"]


@pytest.mark.parametrize("lying", [False, True])
@pytest.mark.parametrize(("width", "reach"), [(1.0, 3.0), (10.0, 10.0)])
def test_a_line_is_touched_near_it_too(lying: bool, width: float, reach: float) -> None:
    mark = only(made(Reference("r", "goal", at=25.0, width=width), frame=Cartesian(lying=lying, along=FIFTY)), "r")
    assert mark.path is not None
    held = mark.bounds
    wide, tall = (reach, 0) if lying else (0, reach)
    corners = [(held.x - wide, held.y - tall), (held.right + wide, held.y - tall),
               (held.right + wide, held.bottom + tall), (held.x - wide, held.bottom + tall)]  # fmt: skip
    drawn = mark.path.coordinates
    found = sorted(zip(drawn[::2], drawn[1::2], strict=True))
    assert [part for point in found for part in point] == pytest.approx(
        [part for point in sorted(corners) for part in point]
    )


def test_a_line_takes_its_own_value_else_its_column_s_first() -> None:
    held = table(["n", "v"], ["a", "b", "c"], ["", 30, 40])
    assert only(made(Reference("r", "goal", "c2"), rows=held), "r").value == 30
    assert only(made(Reference("r", "goal", "c2", at=7.0), rows=held), "r").value == 7
    assert only(made(Reference("r", "goal"), rows=held), "r").value == 0
    bare = table(["n", "v"], ["a"], [""])
    assert only(made(Reference("r", "goal", "c2"), rows=bare), "r").value == 0


def test_a_scale_of_its_own_holds_its_lines() -> None:
    free_scale = Cartesian(along=Scale(visible=False))
    figure = made(Bars("v", "v", "c2"), Reference("r", "goal", at=170.0), frame=free_scale)
    assert figure.axes[0].maximum >= 170


def test_a_line_is_named_over_its_end_and_under_it_where_that_is_taken() -> None:
    over = label_of(made(Reference("r", "goal", at=25.0, label=Label())), "r")
    line = only(made(Reference("r", "goal", at=25.0, label=Label())), "r").bounds
    assert over.text == "goal"
    assert over.bounds.right == pytest.approx(line.right)
    assert over.bounds.bottom < line.y < over.bounds.bottom + over.size
    both = made(Reference("s", "upper", at=25.5, label=Label()), Reference("r", "goal", at=25.0, label=Label()))
    assert label_of(both, "s").bounds.bottom < only(both, "s").bounds.y
    assert label_of(both, "r").bounds.y > only(both, "r").bounds.y
    lying = made(Reference("r", "goal", at=25.0, label=Label()), frame=Cartesian(lying=True, along=FIFTY))
    text, mark = label_of(lying, "r"), only(lying, "r")
    assert text.bounds.center[0] == pytest.approx(mark.bounds.x, abs=0.5)
    assert mark.bounds.y - text.size < text.bounds.bottom < mark.bounds.y


def test_a_helper_s_line_is_neither_drawn_nor_named() -> None:
    figure = made(Reference("r", "goal", at=25.0, label=Label(), helper=True))
    mark = only(figure, "r")
    assert (mark.visible, mark.items, mark.says) == (False, (), "goal")
    assert not [text for text in figure.texts if text.kind == "label"]
    polar = made(Reference("r", "goal", at=25.0, label=Label(), helper=True), frame=HALF)
    assert (only(polar, "r").visible, only(polar, "r").items) == (False, ())
    assert not [text for text in polar.texts if text.kind == "label"]


def centre_and_radius(figure: Figure) -> tuple[tuple[float, float], float]:
    """Of a half dial: its strokes at both ends lie on the centre's height, 2.08 radii apart."""
    left, right = (only(figure, key).bounds for key in ("low", "high"))
    return ((left.x + right.right) / 2, left.center[1]), (right.right - left.x) / 2.08


def dial(*more: Any, frame: Polar = HALF) -> Figure:
    ends = Reference("low", "low", at=0.0), Reference("high", "high", at=100.0)
    return made(*ends, *more, frame=frame, size=Size(600, 280))  # with room at the sides


@pytest.mark.parametrize(("value", "angle"), [(25.0, -45.0), (50.0, 0.0), (90.0, 72.0)])
def test_a_stroke_crosses_the_ring_at_its_angle(value: float, angle: float) -> None:
    figure = dial(Reference("r", "goal", at=value, width=4.0))
    (x, y), radius = centre_and_radius(figure)
    box, turn = only(figure, "r").bounds, math.radians(angle)
    inner, outer = 0.97 * 0.5 * radius, 1.04 * radius
    assert sorted((abs(box.x - x), abs(box.right - x))) == pytest.approx(
        [inner * abs(math.sin(turn)), outer * abs(math.sin(turn))], abs=1e-6
    )
    assert (y - box.bottom, y - box.y) == pytest.approx((inner * math.cos(turn), outer * math.cos(turn)))
    assert [item.edge_width for item in only(figure, "r").items] == [6.5, 4.0]  # type: ignore[union-attr]


def test_a_stroke_on_a_whole_disc_is_a_part_of_its_radius() -> None:
    figure = dial(frame=Polar(-90.0, 180.0, 180.0, scale=Scale(minimum=0.0, maximum=100.0, visible=False)))
    _, radius = centre_and_radius(figure)
    assert only(figure, "low").bounds.width == pytest.approx((1.04 - 0.72) * radius)


@pytest.mark.parametrize(("value", "anchor"), [(10.0, "end"), (50.0, "middle"), (90.0, "start")])
def test_a_stroke_is_named_outside_the_disc(value: float, anchor: str) -> None:
    figure = dial(Reference("r", "goal", at=value, label=Label()))
    (x, y), radius = centre_and_radius(figure)
    text = label_of(figure, "r")
    assert text.anchor == anchor
    box = text.bounds
    nearest = math.hypot(max(box.x - x, x - box.right, 0.0), y - box.bottom)
    assert radius < nearest < 1.12 * radius


@pytest.mark.parametrize("target", [2.0, 10.0, 50.0, 90.0, 98.0])
@pytest.mark.parametrize("size", [Size(400, 300), Size(300, 300), Size(200, 200), Size(240, 160)])
@pytest.mark.parametrize("ticks", [True, False])
def test_a_dial_leaves_room_for_the_name_of_its_target(target: float, size: Size, ticks: bool) -> None:
    held = document("gauge", table(["n", "v"], ["a"], [30]), target=target)
    figure = draw(held, size, {"frame.scale.visible": ticks}).figure
    (text,) = [text for text in figure.texts if text.text == f"target {target:g}"]
    assert text.bounds.x >= 2
    assert text.bounds.right <= size.width - 2
    assert figure.dropped == 0


def test_a_needle_points_from_a_hub_of_its_own_size() -> None:
    rows = table(["n", "angle", "v"], ["a", "b"], [0, 90], [40, 60])
    for row, reach in ((0, (0.0, -1.0)), (1, (1.0, 0.0))):
        figure = made(Needle("n", "needle", "c2", row=row, figures="c3", length=0.8), frame=HALF, rows=rows)
        mark = only(figure, "n")
        assert mark.sector is not None
        radius = mark.sector.outer / 0.8
        x, y = mark.sector.center
        hub = mark.items[-2].path.bounds  # type: ignore[union-attr]
        assert hub.width == pytest.approx(2 * max(2.5, 0.062 * radius))
        assert hub.center == pytest.approx((x, y))
        assert mark.items[-1].path.bounds.width == pytest.approx(0.4 * hub.width)  # type: ignore[union-attr]
        tip = mark.bounds.right - x if reach[0] else y - mark.bounds.y
        blunt = max(0.6, 0.16 * 0.72 * hub.width / 2)
        assert tip == pytest.approx(0.8 * radius + blunt, rel=1e-3)
        assert (mark.value, mark.row) == ((40, 60)[row], row)
        assert len(mark.items) == 3


@pytest.mark.parametrize("past", [1, -1])
def test_a_needle_at_its_stop_has_an_arrow_that_goes_on(past: int) -> None:
    rows = table(["n", "angle"], ["a"], [90 * past])
    plain, beyond = (
        made(Needle("n", "needle", "c2", past=held, length=0.8), frame=HALF, rows=rows) for held in (0, past)
    )
    mark = only(beyond, "n")
    assert mark.sector is not None
    assert len(mark.items) == len(only(plain, "n").items) + 1
    radius, (x, y) = mark.sector.outer / 0.8, mark.sector.center
    box, size = mark.items[1].path.bounds, max(4.0, 0.05 * radius)  # type: ignore[union-attr]
    turn = 2 * size / (1.05 * radius)
    assert box.width == pytest.approx(2 * size, rel=1e-3)
    assert box.center[0] == pytest.approx(x + past * 1.05 * radius, rel=1e-3)
    assert box.y == pytest.approx(y)  # it points down, beyond the end of the half dial
    assert box.height == pytest.approx(1.05 * radius * math.sin(turn), rel=1e-3)


def test_a_needle_without_a_value_is_a_hub() -> None:
    rows = table(["n", "angle"], ["a"], [""])
    mark = only(made(Needle("n", "needle", "c2"), frame=HALF, rows=rows), "n")
    assert len(mark.items) == 2
    assert mark.bounds.width == pytest.approx(mark.items[0].path.bounds.width)  # type: ignore[union-attr]


def test_a_figure_twice_as_large_takes_twice_the_area_or_the_diameter() -> None:
    layer = Bubbles("b", "b", "c2", sizes="c3")
    assert diameters(layer, [4.0, 1.0, 0.0, -4.0, math.nan], 10.0) == [10, 5, 0, 0, 0]
    by_diameter = Bubbles("b", "b", "c2", sizes="c3", by="diameter")
    assert diameters(by_diameter, [4.0, 1.0], 10.0) == [10, 2.5]
    hollow = Bubbles("b", "b", "c2", sizes="c3", hollow=True)
    assert diameters(hollow, [1.0, -4.0], 10.0) == [5, 10]
    assert diameters(layer, [0.0, -1.0], 10.0) == [0, 0]


PLACES = table(["n", "x", "y", "size"], ["a", "b", "c"], [10, 30, 50], [10, 40, 20], [1, 16, 4])
ACROSS = Cartesian(across=Scale(minimum=0.0, maximum=60.0, visible=False), along=FIFTY)


def test_bubbles_stand_at_their_places_the_largest_at_the_back() -> None:
    figure = made(Bubbles("b", "b", "c3", x="c2", sizes="c4", largest=0.25), frame=ACROSS, rows=PLACES)
    plot, most = figure.plot, 0.25 * min(figure.plot.width, figure.plot.height)
    assert [mark.row for mark in figure.marks] == [1, 2, 0]
    for mark, x, y, size in zip(figure.marks, (30, 50, 10), (40, 20, 10), (16, 4, 1), strict=True):
        assert mark.bounds.center == pytest.approx((plot.x + x / 60 * plot.width, plot.bottom - y / 50 * plot.height))
        assert mark.bounds.width == pytest.approx(most * math.sqrt(size / 16))
        assert mark.value == size


def test_a_bubble_below_zero_is_a_ring_of_its_size() -> None:
    rows = table(["n", "x", "y", "size"], ["a", "b"], [10, 30], [10, 40], [9, -9])
    figure = made(Bubbles("b", "b", "c3", x="c2", sizes="c4", hollow=True), frame=ACROSS, rows=rows)
    full, ring = sorted(figure.marks, key=lambda mark: mark.row)
    assert full.bounds.width == pytest.approx(ring.bounds.width)
    (shape,) = ring.items
    assert shape.edge == ring.fill  # type: ignore[union-attr]
    assert shape.edge_width == 2.0  # type: ignore[union-attr]
    assert shape.path.bounds.width == pytest.approx(ring.bounds.width - 2.0)  # type: ignore[union-attr]


def test_a_bubble_s_name_stands_in_it_only_where_it_fits() -> None:
    look = Label(template="{name}")
    rows = table(["n", "x", "y", "size"], ["Alder carr", "Mere", "Fen"], [10, 30, 50], [10, 40, 20], [1, 16, 4])
    figure = made(Bubbles("b", "b", "c3", x="c2", sizes="c4", largest=0.3, label=look), frame=ACROSS, rows=rows)
    discs = {mark.row: mark.bounds for mark in figure.marks}
    texts = {text.row: text for text in figure.texts if text.kind == "label"}
    assert texts[1].bounds.center == pytest.approx(discs[1].center, abs=1.0)
    away = math.hypot(*(a - b for a, b in zip(texts[0].bounds.center, discs[0].center, strict=True)))
    assert away > discs[0].width / 2


def test_a_free_scale_leaves_room_for_its_bubbles() -> None:
    frame = Cartesian(across=Scale(visible=False), along=Scale(visible=False))
    figure = made(Bubbles("b", "b", "c3", x="c2", sizes="c4", largest=0.4), frame=frame, rows=PLACES)
    for mark in figure.marks:
        assert mark.bounds.x >= figure.plot.x - 0.5
        assert mark.bounds.right <= figure.plot.right + 0.5
        assert mark.bounds.y >= figure.plot.y - 0.5
        assert mark.bounds.bottom <= figure.plot.bottom + 0.5
    fixed = Cartesian(across=Scale(minimum=10.0, maximum=50.0, visible=False), along=FIFTY)
    held = made(Bubbles("b", "b", "c3", x="c2", sizes="c4", largest=0.4), frame=fixed, rows=PLACES)
    assert [(axis.minimum, axis.maximum) for axis in held.axes if axis.name == "x"] == [(10, 50)]


@pytest.mark.parametrize("lying", [False, True])
def test_an_area_on_a_log_scale_stands_at_its_end(lying: bool) -> None:
    frame = Cartesian(lying=lying, along=Scale(kind="log", minimum=1.0, maximum=100.0, visible=False))
    rows = table(["n", "v"], ["a", "b", "c"], [10, 50, 2])
    figure = free(Chart(frame, (Area("v", "v", "c2", course="smooth"),), names="c1"), rows, Size(400, 300)).figure
    shapes = [item for mark in figure.marks for item in mark.items if isinstance(item, Shape)]
    places = [one for shape in shapes for one in shape.path.coordinates]
    assert places
    assert all(math.isfinite(one) for one in places)
    box, plot = shapes[0].path.bounds, figure.plot
    assert (box.x if lying else box.bottom) == pytest.approx(plot.x if lying else plot.bottom)
