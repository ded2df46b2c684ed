"""Fills as paints and pictures over a box, reckoned by hand."""

import math
from typing import Any

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.layer import Rule
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.data import Raster
from kavlet.core.layout.figure import Mark
from kavlet.core.layout.painting import covering, paint, picture, proportions, tube
from kavlet.core.scene.paints import Hatch, LinearGradient, RadialGradient
from kavlet.core.scene.primitives import Image, Shape, Stamp
from kavlet.core.styling.fills import GradientFill, HatchFill, PictureFill
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size
from tests.making import free, table

BOX = Rect(10, 20, 100, 40)  # its middle is (60, 40)
STYLE = resolve(Dress())
WIDE = Raster("wide", b"", 200, 100)
TWO = ("tone1", "tone2")


@pytest.mark.parametrize(
    ("end", "along", "across"),
    [
        ("right", (10, 40, 110, 40), (60, 20, 60, 60)),
        ("left", (110, 40, 10, 40), (60, 20, 60, 60)),
        ("up", (60, 60, 60, 20), (10, 40, 110, 40)),
        ("down", (60, 20, 60, 60), (10, 40, 110, 40)),
    ],
)
def test_colours_run_along_the_value_or_across_it(end: Any, along: Any, across: Any) -> None:
    for run, ends in (("along", along), ("across", across)):
        made = paint(GradientFill(TWO, run), 0, BOX, STYLE, end)  # type: ignore[arg-type]
        assert isinstance(made, LinearGradient)
        assert (made.x1, made.y1, made.x2, made.y2) == ends
        assert [at for at, _ in made.stops] == [0, 1]
        assert [colour for _, colour in made.stops] == [STYLE.colour(one) for one in TWO]


@pytest.mark.parametrize(
    ("angle", "ends"),
    [(0.0, (10, 40, 110, 40)), (90.0, (60, 20, 60, 60)), (180.0, (110, 40, 10, 40)), (45.0, (25, 5, 95, 75))],
)
def test_colours_run_at_an_angle_from_corner_to_corner(angle: float, ends: Any) -> None:
    made = paint(GradientFill(TWO, angle=angle), 0, BOX, STYLE)
    assert isinstance(made, LinearGradient)
    assert (made.x1, made.y1, made.x2, made.y2) == pytest.approx(ends)


def test_colours_stand_in_even_steps() -> None:
    made = paint(GradientFill(("tone1", "tone2", "tone3", "ink", "quiet")), 0, BOX, STYLE)
    assert isinstance(made, LinearGradient)
    assert [at for at, _ in made.stops] == [0, 0.25, 0.5, 0.75, 1]
    single = paint(GradientFill(("tone1",)), 0, BOX, STYLE)
    assert isinstance(single, LinearGradient)
    assert single.stops == ((0.0, STYLE.colour("tone1")),)


def test_colours_run_outward_to_the_farther_side() -> None:
    made = paint(GradientFill(TWO, "radial"), 0, BOX, STYLE)
    assert isinstance(made, RadialGradient)
    assert (made.x, made.y, made.radius) == (60, 40, 50)
    point = paint(GradientFill(TWO, "radial"), 0, Rect(5, 5, 0, 0), STYLE)
    assert isinstance(point, RadialGradient)
    assert point.radius == 1


def test_one_colour_makes_a_tube_lit_from_one_side() -> None:
    made = paint(GradientFill(("tone1",), "round"), 0, BOX, STYLE, "up")
    assert isinstance(made, LinearGradient)
    assert made.stops == tube(STYLE.colour("tone1"))
    bright = [sum(colour[:3]) for _, colour in ((at, (c.red, c.green, c.blue)) for at, c in made.stops)]
    assert max(bright) == bright[2]
    assert bright[0] < bright[3]
    assert bright[4] < bright[3]
    both = paint(GradientFill(TWO, "round"), 0, BOX, STYLE, "up")
    assert isinstance(both, LinearGradient)
    assert len(both.stops) == 2


def test_hatches_and_pictures_have_the_ground_that_was_chosen_or_none() -> None:
    bare, grounded = (paint(HatchFill("ink", ground=ground, step=4.0), 0, BOX, STYLE) for ground in ("", "track"))
    assert isinstance(bare, Hatch)
    assert isinstance(grounded, Hatch)
    assert bare.ground is None
    assert grounded.ground == STYLE.colour("track")
    open_, closed = (paint(PictureFill("wide", ground=ground), 0, BOX, STYLE) for ground in ("", "track"))
    assert isinstance(open_, Colour)
    assert open_.alpha == 0
    assert closed == STYLE.colour("track")


@pytest.mark.parametrize(
    ("rect", "zoom", "at", "seen"),
    [
        (Rect(0, 0, 100, 100), 1.0, (0.5, 0.5), Rect(-50, 0, 200, 100)),
        (Rect(0, 0, 100, 100), 1.0, (0.0, 0.5), Rect(0, 0, 200, 100)),
        (Rect(0, 0, 100, 100), 1.0, (1.0, 0.5), Rect(-100, 0, 200, 100)),
        (Rect(10, 20, 400, 100), 1.0, (0.5, 0.25), Rect(10, -5, 400, 200)),
        (Rect(0, 0, 100, 100), 2.0, (0.5, 0.0), Rect(-150, 0, 400, 200)),
        (Rect(0, 0, 100, 100), 0.5, (0.5, 0.5), Rect(-50, 0, 200, 100)),  # never less than all of it
    ],
)
def test_a_picture_covers_a_box_at_its_own_proportions(rect: Rect, zoom: float, at: Any, seen: Rect) -> None:
    assert covering(WIDE, rect, zoom, at) == seen
    assert proportions(WIDE) == (200, 100)


def test_a_picture_is_fitted_in_the_middle_or_stretched() -> None:
    fitted = picture(WIDE, Rect(0, 0, 100, 100), STYLE.ink)
    assert isinstance(fitted, Image)
    assert (fitted.place.a, fitted.place.d, fitted.place.e, fitted.place.f) == (100, 50, 0, 25)
    stretched = picture(WIDE, Rect(10, 20, 30, 40), STYLE.ink, stretch=True)
    assert isinstance(stretched, Image)
    assert (stretched.place.a, stretched.place.d, stretched.place.e, stretched.place.f) == (30, 40, 10, 20)


def bar(fill: Any, figure: float, lying: bool = False, **more: Any) -> Mark:
    frame = Cartesian(lying=lying, along=Scale(minimum=-10.0, maximum=10.0, visible=False))
    chart = Chart(frame, (Bars("v", "v", "c2", fill=fill, **more),), names="c1")
    return free(chart, table(["n", "v"], ["a"], [figure]), Size(300, 300)).figure.marks[0]


@pytest.mark.parametrize("lying", [False, True])
@pytest.mark.parametrize("figure", [6.0, -6.0])
def test_one_symbol_stands_for_each_unit_from_the_base_on(lying: bool, figure: float) -> None:
    mark = bar(PictureFill("person", "per unit", unit=1.5), figure, lying)
    stamps = [item for item in mark.items if isinstance(item, Stamp)]
    assert len(stamps) == 4
    box = mark.bounds
    long = (box.width if lying else box.height) / 4
    middles = [(one.place.apply(*one.outline.bounds.center)[0 if lying else 1]) for one in stamps]
    start = (box.x if figure > 0 else box.right) if lying else (box.bottom if figure > 0 else box.y)
    way = (1 if figure > 0 else -1) * (1 if lying else -1)
    assert middles == pytest.approx([start + way * (i + 0.5) * long for i in range(4)])
    assert all(one.clip is not None for one in stamps)


@pytest.mark.parametrize("lying", [False, True])
@pytest.mark.parametrize("how", ["stretched", "fitted", "repeated", "per unit", "covering"])
def test_a_bar_of_nothing_has_no_symbols(how: Any, lying: bool) -> None:
    mark = bar(PictureFill("person", how), 0.0, lying)
    assert (mark.bounds.width if lying else mark.bounds.height) == 0
    assert not [item for item in mark.items if isinstance(item, Stamp | Image)]
    assert [item.fill for item in mark.items if isinstance(item, Shape)] == [None, STYLE.solid(None, 0)]


def test_part_of_a_unit_is_a_part_of_a_symbol() -> None:
    mark = bar(PictureFill("person", "per unit", unit=4.0), 6.0)
    assert len([item for item in mark.items if isinstance(item, Stamp)]) == 2
    none = bar(PictureFill("person", "per unit", unit=0.0), 6.0)
    assert len([item for item in none.items if isinstance(item, Stamp)]) == 1


def test_symbols_repeat_at_their_own_proportions() -> None:
    mark = bar(PictureFill("person", "repeated"), 6.0)
    stamps = [item for item in mark.items if isinstance(item, Stamp)]
    own = stamps[0].outline.bounds
    tile = mark.bounds.width * own.height / own.width
    assert len(stamps) == math.ceil(mark.bounds.height / tile - 1e-9)
    first = stamps[0]
    drawn = first.place.apply(*own.center)
    assert drawn == pytest.approx((mark.bounds.center[0], mark.bounds.bottom - tile / 2))


def test_a_picture_that_is_gone_leaves_the_layer_s_colour_and_its_edge_lies_on_top() -> None:
    mark = bar(PictureFill("nowhere", ground="track"), 6.0, edge="ink", edge_width=2.0)
    shapes = [item for item in mark.items if isinstance(item, Shape)]
    assert [shape.fill for shape in shapes] == [STYLE.colour("track"), STYLE.solid(None, 0), None]
    assert (shapes[-1].edge, shapes[-1].edge_width) == (STYLE.colour("ink"), 2.0)


@pytest.mark.parametrize(
    ("when", "than", "picked"),
    [
        ("largest", 0.0, [1, 3]), ("smallest", 0.0, [0]), ("first", 0.0, [0]), ("last", 0.0, [3]),
        ("above", 5.0, [1, 3]), ("below", 5.0, [0]), ("above", 9.0, []), ("below", 1.0, []),
    ],
)  # fmt: skip
def test_rules_pick_rows_by_their_figures(when: Any, than: float, picked: list[int]) -> None:
    rows = table(["n", "v"], ["a", "b", "c", "d"], [1, 9, 5, 9])
    layer = Bars("v", "v", "c2", rules=(Rule(when, "alarm", than),))
    figure = free(Chart(Cartesian(), (layer,), names="c1"), rows, Size(300, 300)).figure
    assert [mark.row for mark in figure.marks if mark.fill == STYLE.colour("alarm")] == picked
