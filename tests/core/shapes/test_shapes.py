"""Outlines: arcs, wedges, bodies, curves, symbols, areas; and paths under maps."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.pens import SvgPen
from kavlet.core.shapes.arc import Sector, arc_to, at, disc, wedge
from kavlet.core.shapes.area import area, left_of, polygons
from kavlet.core.shapes.body import body, cylinder
from kavlet.core.shapes.box import box
from kavlet.core.shapes.curve import course
from kavlet.core.shapes.spots import spot
from kavlet.core.shapes.symbol import extent, fitted, outline, search, shelf
from kavlet.core.values.affine import Affine, moved, scaled, turned
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect

SQUARE = Rect(0, 0, 10, 10)


def points(path: Path) -> list[tuple[float, float]]:
    return list(zip(path.coordinates[::2], path.coordinates[1::2], strict=True))


def test_angles_run_clockwise_from_twelve() -> None:
    assert at((0, 0), 10, 0) == pytest.approx((0, -10))
    assert at((0, 0), 10, 90) == pytest.approx((10, 0))
    assert at((5, 5), 10, 180) == pytest.approx((5, 15))


@given(st.floats(-720, 720), st.floats(1, 360))
def test_arcs_stay_on_their_circle(start: float, sweep: float) -> None:
    def draw(pen: object) -> None:
        pen.move_to(*at((0, 0), 100, start))  # type: ignore[attr-defined]
        arc_to(pen, (0, 0), 100, start, start + sweep)  # type: ignore[arg-type]

    made = recorded(draw)
    ends = [points(made)[0], *points(made)[3::3]]
    assert all(math.hypot(x, y) == pytest.approx(100) for x, y in ends)
    assert ends[-1] == pytest.approx(at((0, 0), 100, start + sweep), abs=1e-6)


def test_wedges_of_a_turn_fill_a_ring() -> None:
    ring = area(recorded(wedge, Sector((0, 0), 30, 90, 0, 360)))
    parts = sum(area(recorded(wedge, Sector((0, 0), 30, 90, a, b))) for a, b in ((0, 70), (70, 200), (200, 360)))
    assert ring == pytest.approx(math.pi * (90**2 - 30**2), rel=0.002)
    assert parts == pytest.approx(ring, rel=0.002)


@pytest.mark.parametrize(("start", "end", "inner"), [(10, 10, 0), (0, -5, 20), (0, 90, 100)])
def test_a_wedge_of_nothing_draws_nothing(start: float, end: float, inner: float) -> None:
    assert recorded(wedge, Sector((0, 0), inner, 100, start, end)).verbs == ""


def test_gaps_between_wedges_have_parallel_sides() -> None:
    made = recorded(wedge, Sector((0, 0), 50, 100, 0, 90), 4.0)
    first, last = points(made)[0], points(made)[-1]
    assert first[0] == pytest.approx(2)
    assert last[0] == pytest.approx(2)


@given(st.floats(0.5, 40), st.floats(2, 359))
def test_rounded_wedges_stay_inside_the_plain_one(corner: float, sweep: float) -> None:
    made = recorded(wedge, Sector((0, 0), 60, 100, 0, sweep), 0.0, corner)
    drawn = [math.hypot(x, y) for polygon in polygons(made) for x, y in polygon]
    assert all(59.9 <= radius <= 100.1 for radius in drawn)
    assert area(made) <= area(recorded(wedge, Sector((0, 0), 60, 100, 0, sweep))) * 1.001


@pytest.mark.parametrize("form", ["square", "rounded", "capsule", "cylinder"])
@pytest.mark.parametrize("end", ["right", "left", "up", "down"])
def test_bodies_end_where_the_value_ends(form: str, end: str) -> None:
    rect = Rect(10, 20, 100, 30) if end in ("right", "left") else Rect(10, 20, 30, 100)
    made = recorded(body, rect, form, end, 6.0).bounds
    slack = 0.0 if form != "cylinder" else 0.13 * 30
    assert made.x == pytest.approx(rect.x, abs=slack + 1e-6)
    assert made.bottom == pytest.approx(rect.bottom, abs=slack + 1e-6)


def test_cylinders_stacked_on_each_other_meet() -> None:
    lower, upper = recorded(cylinder, Rect(0, 50, 40, 50), "up"), recorded(cylinder, Rect(0, 0, 40, 50), "up")
    assert upper.bounds.bottom - 50 == pytest.approx(50 - lower.bounds.y)


@given(st.lists(st.floats(-100, 100), min_size=3, max_size=9))
def test_smooth_lines_never_overshoot(values: list[float]) -> None:
    places = [(10.0 * i, value) for i, value in enumerate(values)]
    made = recorded(course, places, "smooth")
    coordinates = points(made)
    for i, (one, other) in enumerate(itertools.pairwise(values)):
        low, high = sorted((one, other))
        controls = coordinates[3 * i + 1 : 3 * i + 3]
        assert all(low - 1e-6 <= y <= high + 1e-6 for _, y in controls)


def test_stepped_lines_turn_half_way() -> None:
    made = recorded(course, [(0.0, 0.0), (10.0, 5.0)], "stepped")
    assert points(made) == [(0, 0), (5, 0), (5, 5), (10, 5)]


@pytest.mark.parametrize("form", ["disc", "square", "diamond", "triangle"])
def test_spots_weigh_the_same(form: str) -> None:
    assert area(recorded(spot, 0, 0, 10, form)) == pytest.approx(math.pi * 25, rel=0.005)


def test_bounds_are_those_of_the_curve_not_of_its_control_points() -> None:
    made = recorded(disc, (0, 0), 10).bounds
    assert (made.x, made.y, made.width, made.height) == pytest.approx((-10, -10, 20, 20), abs=0.01)


def test_maps_of_the_plane() -> None:
    by = moved(5, 0).after(turned(90).after(scaled(2)))
    assert by.apply(1, 0) == pytest.approx((5, 2))
    assert turned(90, 3, 3).apply(3, 3) == pytest.approx((3, 3))
    assert recorded(box, SQUARE).mapped(Affine()) == recorded(box, SQUARE)


def test_the_shelf_is_full_and_found_by_words() -> None:
    assert len(shelf()) >= 150
    assert {symbol.group for symbol in shelf().values()} == {
        "people", "nature", "buildings", "transport", "trade", "health", "food", "energy", "school", "work",
    }  # fmt: skip
    assert all(len(symbol.words) >= 2 for symbol in shelf().values())
    assert search("bird")[0].name == "bird"
    assert "lorry" in {symbol.name for symbol in search("freight")}
    assert {"water lily"} <= {symbol.name for symbol in search("flow pond")}
    assert search("nothing like this") == []


@pytest.mark.parametrize("name", list(shelf()))
def test_every_symbol_has_an_outline_that_fits_a_box(name: str) -> None:
    data = shelf()[name].outline
    own = extent(data)
    assert max(own.width, own.height) == pytest.approx(1)
    assert area(outline(data)) > 0.02
    place = outline(data).mapped(fitted(data, Rect(10, 10, 40, 20))).bounds
    assert Rect(10, 10, 40, 20).holds(place, 1e-6)
    stretched = outline(data).mapped(fitted(data, Rect(0, 0, 40, 20), stretch=True)).bounds
    assert (stretched.width, stretched.height) == pytest.approx((40, 20))


def test_rotten_outlines_are_refused() -> None:
    for data in ("", "M", "M0 0", "L1 nonsense", "M0 0L0 0Z"):
        with pytest.raises(KavletError):
            outline(data)


def test_a_share_of_the_ink_is_cut_off() -> None:
    path = recorded(disc, (0, 0), 10)
    assert left_of(path, 0.5) == pytest.approx(0, abs=1e-6)
    assert left_of(path, 0.25) == pytest.approx(-4.04, abs=0.02)
    assert left_of(path, 1.0) == pytest.approx(10, abs=0.01)


NUMBERS = st.one_of(
    st.floats(-1e5, 1e5), st.sampled_from([0.0, -0.0, -0.0004, 0.0005, 100.0, -100.5, 10.05, 1200.0, -0.5, 0.2, 1e5])
)


@given(st.text("LCZ", max_size=6), st.data(), st.sampled_from([3, 4]))
def test_path_data_is_what_a_pen_writes(rest: str, data: st.DataObject, decimals: int) -> None:
    verbs = "M" + rest
    count = sum({"M": 2, "L": 2, "C": 6, "Z": 0}[verb] for verb in verbs)
    path = Path(verbs, tuple(data.draw(st.lists(NUMBERS, min_size=count, max_size=count))))
    pen = SvgPen(decimals)
    path.draw(pen)
    assert path.data(decimals) == pen.text


def test_a_quadratic_curve_is_a_cubic_one_of_the_same_course() -> None:
    """The top of Q(0,0; 50,100; 100,0) lies halfway to its control point: (50, 50)."""
    bounds = outline("M0 0Q50 100 100 0Z").bounds
    assert (bounds.width, bounds.height) == (pytest.approx(1.0), pytest.approx(0.5, abs=1e-6))
    aside = outline("M0 0Q80 100 100 0L0 0Z").bounds
    assert (aside.width, aside.height) == (pytest.approx(1.0), pytest.approx(0.5, abs=1e-6))


def test_a_symbol_is_fitted_into_the_middle_of_a_box() -> None:
    data = "M0 0L2 0L2 1L0 1Z"
    wide = outline(data).mapped(fitted(data, Rect(10.0, 20.0, 40.0, 100.0))).bounds
    assert (wide.x, wide.y, wide.width, wide.height) == pytest.approx((10.0, 60.0, 40.0, 20.0))
    tall = outline(data).mapped(fitted(data, Rect(10.0, 20.0, 100.0, 10.0))).bounds
    assert (tall.x, tall.y, tall.width, tall.height) == pytest.approx((50.0, 20.0, 20.0, 10.0))
