"""Solids in their parts: what a view covers, what lies on what plane, reckoned by hand."""

import msgspec
import numpy as np
import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.solid import Solid
from kavlet.core.charts.wedges import Wedges
from kavlet.core.layout.figure import Figure
from kavlet.core.layout.solid.bodies import Ball
from kavlet.core.layout.solid.labels import SolidRim, crossed
from kavlet.core.layout.solid.paint import ball_items
from kavlet.core.layout.solid.plane_projection import GAMMA, extent, on_sheet, placed, under_light, veil
from kavlet.core.layout.solid.visible_areas import seen
from kavlet.core.scene.paints import RadialGradient
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Group, Image, Shape, Stamp, Writing
from kavlet.core.shapes.arc import Sector
from kavlet.core.shapes.box import box
from kavlet.core.solid.camera import Camera, View
from kavlet.core.solid.light import Light
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size
from tests.making import free, table

BLUE = Colour(0.1, 0.2, 0.7)
SQUARE = recorded(box, Rect(10, 20, 40, 30))
ROWS = table(["n", "v"], ["a", "b", "c"], [10, 40, 20])


def camera(turn: float, tilt: float, perspective: float = 0.0) -> Camera:
    return Camera(View(turn, tilt, perspective), (50.0, -50.0, 0.0), 100.0)


@pytest.mark.parametrize(
    ("line", "through"),
    [
        ((-5, 5, 15, 5), True), ((-5, 20, 15, 20), False), ((-5, 10, 15, 10), True), ((-5, 10.1, 15, 10.1), False),
        ((5, -5, 5, 15), True), ((11, -5, 11, 15), False), ((-5, -5, 15, 15), True), ((-5, 8, 4, 18), False),
        ((-9, 5, -1, 5), False), ((12, 5, 20, 5), False), ((5, 12, 5, 20), False), ((2, 3, 4, 3), True),
        ((15, 15, -5, -5), True), ((0, 25, 10, 12), False),
    ],
)  # fmt: skip
def test_a_line_goes_through_a_box_or_past_it(line: tuple[float, float, float, float], through: bool) -> None:
    assert crossed(Rect(0, 0, 10, 10), line) == through
    x1, y1, x2, y2 = line
    assert crossed(Rect(0, 0, 10, 10), (x2, y2, x1, y1)) == through
    assert crossed(Rect(0, 0, 10, 10), (y1, x1, y2, x2)) == through


# What lies on a plane


def test_seen_from_the_front_a_plane_is_the_sheet() -> None:
    sheet = camera(0, 0).sheet(0.0)
    assert placed(Shape(SQUARE, BLUE), sheet).path.bounds == SQUARE.bounds  # type: ignore[union-attr]
    writing = Writing("x", 10.0, 20.0, 5.0, "FiraSans-Regular", 9.0, BLUE)
    assert placed(writing, sheet) == writing


def test_a_turned_plane_is_narrower_by_the_cosine() -> None:
    sheet = camera(60, 0).sheet(0.0)
    turned = placed(Shape(SQUARE, BLUE), sheet)
    assert isinstance(turned, Shape)
    assert turned.path.bounds.width == pytest.approx(20)
    assert turned.path.bounds.height == pytest.approx(30)
    tilted = placed(Shape(SQUARE, BLUE), camera(0, 60).sheet(0.0))
    assert tilted.path.bounds.height == pytest.approx(15)  # type: ignore[union-attr]


def test_what_is_cut_is_cut_on_the_plane_too() -> None:
    sheet = camera(60, 0).sheet(0.0)
    stamp = Stamp("tree", SQUARE, Affine(1, 0, 0, 1, 0, 0), BLUE, clip=recorded(box, Rect(10, 20, 20, 30)))
    made = placed(stamp, sheet)
    assert isinstance(made, Stamp)
    assert made.clip is not None
    assert made.clip.bounds.width == pytest.approx(10)
    assert extent(made).width == pytest.approx(20)


def test_how_large_a_primitive_is() -> None:
    twice = Affine(2, 0, 0, 2, 5, 0)
    assert extent(Shape(SQUARE, BLUE)) == Rect(10, 20, 40, 30)
    assert extent(Shape(SQUARE, BLUE, place=twice)) == Rect(25, 40, 80, 60)
    assert extent(Stamp("tree", SQUARE, twice, BLUE)) == Rect(25, 40, 80, 60)
    assert extent(Writing("x", 3.0, 4.0, 5.0, "FiraSans-Regular", 9.0, BLUE)) == Rect(3, 4, 0, 0)
    group = Group((Shape(SQUARE, BLUE), Shape(recorded(box, Rect(0, 0, 5, 5)), BLUE)), twice)
    assert extent(group) == Rect(5, 0, 100, 100)
    assert extent(Group((), twice)) == Rect(0, 0, 0, 0)


def test_a_picture_in_perspective_is_shown_cell_by_cell() -> None:
    image = Image("pond", b"", Affine(40, 0, 0, 30, 10, 20))
    near = [one for one in on_sheet(image, camera(40, 10, 0.8).sheet(0.0), 1.0, 0.0) if isinstance(one, Image)]
    assert len(near) == 36
    whole = placed(image, camera(40, 10, 0.8).sheet(0.0))
    assert isinstance(whole, Image)
    assert whole.clip is not None
    held = Rect.around_all([one.clip.bounds for one in near if one.clip is not None])
    box_ = whole.clip.bounds
    assert (held.x, held.y, held.right, held.bottom) == pytest.approx(
        (box_.x, box_.y, box_.right, box_.bottom), abs=0.2
    )
    assert len(on_sheet(image, camera(40, 10).sheet(0.0), 1.0, 0.0)) == 1


# The rim of a solid disc


@pytest.mark.parametrize(("middle", "side"), [(90.0, 1), (270.0, -1)])
def test_a_solid_rim_seen_from_the_front_is_the_flat_one(middle: float, side: int) -> None:
    rim = SolidRim(Sector((50.0, 50.0), 0.0, 30.0, middle - 10, middle + 10), camera(0, 0), 12.0)
    assert rim.side == side
    assert rim.point(0.0) == pytest.approx((50 + side * 30, 50))
    assert rim.point(8.0) == pytest.approx((50 + side * 38, 50))
    assert rim.clear(50.0, 4.0, 6.0) == pytest.approx(50 + side * 36, abs=0.05)
    assert rim.clear(300.0, 4.0, 6.0) == pytest.approx(rim.point(6.0)[0])


def test_a_rim_whose_side_is_seen_is_led_to_at_half_its_depth() -> None:
    """From above, the side of the upper half of a disc is seen, and nothing but the face of the lower one."""
    front = SolidRim(Sector((50.0, 50.0), 0.0, 30.0, 170, 190), camera(0, 60), 12.0)
    side = SolidRim(Sector((50.0, 50.0), 0.0, 30.0, -10, 10), camera(0, 60), 12.0)
    assert front.point(0.0)[1] == pytest.approx(50 + 30 * np.cos(np.radians(60)))
    assert side.point(0.0)[1] == pytest.approx(50 - 30 * np.cos(np.radians(60)) - 6 * np.sin(np.radians(60)))


# Shares of what is seen


def drawn(tilt: float, **solid: object) -> Figure:
    layer = Bars("v", "v", "c2")
    frame = Cartesian(gap_width=50.0, along=Scale(minimum=0.0, maximum=50.0, visible=False))
    look = Solid(tilt=tilt, **solid)  # type: ignore[arg-type]
    return free(Chart(frame, (layer,), names="c1", solid=look), ROWS, Size(400, 300)).figure


def test_bars_hardly_tilted_are_seen_by_their_figures() -> None:
    assert seen(drawn(0.0)) == ()
    found = seen(drawn(0.5))
    assert [one.value_share for one in found] == pytest.approx([1 / 7, 4 / 7, 2 / 7])
    assert [one.flat_share for one in found] == pytest.approx([1 / 7, 4 / 7, 2 / 7], abs=0.001)
    assert [one.area_share for one in found] == pytest.approx([1 / 7, 4 / 7, 2 / 7], abs=0.01)
    assert sum(one.area_share for one in found) == pytest.approx(1)
    assert all(one.off == one.area_share - one.value_share for one in found)
    flat = drawn(0.0)
    boxes = [mark.bounds for mark in flat.marks]
    for one, rect in zip(found, boxes, strict=True):
        assert one.area == pytest.approx(rect.width * rect.height, rel=0.03)


def test_lids_seen_from_above_make_small_bars_larger() -> None:
    assert seen(drawn(45.0))[0].off > seen(drawn(20.0))[0].off > 0


@pytest.mark.parametrize(("edge", "depth"), [(0.0, 0.2), (4.0, 0.2), (0.0, 0.6)])
def test_a_disc_is_as_deep_as_its_share_of_the_radius(edge: float, depth: float) -> None:
    layer = Wedges("v", "v", "c2", gap=0.0)
    look = Solid(tilt=80.0, depth=depth, edge=edge)
    figure = free(Chart(Polar(), (layer,), names="c1", solid=look), ROWS, Size(400, 400)).figure
    around = Rect.around_all([path.bounds for _, path in figure.faces])
    share = 2 * np.cos(np.radians(80)) + depth * np.sin(np.radians(80))  # of the radius: the lid, and the rim below it
    assert around.height / around.width == pytest.approx(share / 2, rel=0.03)


# Light


@pytest.mark.parametrize(
    ("shade", "gleam", "colour"),
    [(0.5, 0.0, Colour(0, 0, 0).faded(1 - 0.5 ** (1 / GAMMA))), (1.0, 0.3, Colour(1, 1, 1).faded(0.3)),
     (1.4, 0.1, Colour(1, 1, 1).faded(0.3)), (0.5, 0.3, Colour(1, 1, 1).faded(0.3)),
     (3.0, 0.8, Colour(1, 1, 1).faded(1.0))],
)  # fmt: skip
def test_light_and_shade_over_a_picture(shade: float, gleam: float, colour: Colour) -> None:
    made = veil(shade, gleam)
    assert msgspec.structs.astuple(made) == pytest.approx(msgspec.structs.astuple(colour))


@pytest.mark.parametrize(
    ("shade", "gleam", "items"), [(0.5, 0.0, 2), (1.0, 0.3, 2), (1.3, 0.4, 2), (1.0, 0.0, 1), (1.005, 0.005, 1)]
)
def test_only_a_picture_under_light_has_a_veil(shade: float, gleam: float, items: int) -> None:
    clip = recorded(box, Rect(0, 0, 20, 10))
    bare = Image("sedge", b"", Affine(20, 0, 0, 10, 0, 0))
    picture = msgspec.structs.replace(bare, clip=clip)
    made = under_light(picture, shade, gleam)
    assert len(made) == items
    assert made[0] == picture
    assert under_light(bare, shade, gleam) == [bare]


def test_the_light_on_a_ball_comes_as_the_view_leaves_the_front() -> None:
    """The nearer to the front, the nearer its stops to its own colour."""
    own = Colour(0.3, 0.45, 0.6)

    def farthest(turn: float) -> float:
        (ball,) = ball_items(Ball(0, (0.0, 0.0, 0.0), 10.0, 0.0, False), own, camera(turn, 0.0), Light())
        assert isinstance(ball, Shape)
        assert isinstance(ball.fill, RadialGradient)
        return max(abs(colour.red - own.red) + abs(colour.green - own.green) for _, colour in ball.fill.stops)

    found = [farthest(turn) for turn in (0.0, 2.0, 5.0, 40.0)]
    assert found[0] == pytest.approx(0.0, abs=1e-9)
    assert found == sorted(found)
    assert found[1] < 0.8 * found[3]


@pytest.mark.parametrize("turn", [-62.0, 62.0])
def test_names_that_a_turn_brings_over_each_other_are_set_apart(turn: float) -> None:
    names = [f"Reserve {i} of the north" for i in range(9)]
    rows = table(["n", "v"], names, [10.0 + i for i in range(9)])
    look = Solid(on=True, turn=turn, tilt=20.0)
    chart = Chart(Cartesian(along=Scale(visible=False)), (Bars("v", "v", "c2"),), names="c1", solid=look)
    texts = [text for text in free(chart, rows, Size(420, 300)).figure.texts if text.kind == "name"]
    assert len(texts) >= 3
    boxes = [text.bounds for text in texts]
    assert not [1 for i, one in enumerate(boxes) for other in boxes[:i] if one.inset(1, 1, 1, 1).overlaps(other)]
