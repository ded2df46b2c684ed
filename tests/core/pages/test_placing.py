"""Placing on pages, against plain arithmetic."""

import pytest

from kavlet.core.pages.page import Page
from kavlet.core.pages.placing import aligned, bay_at, cut_off, distributed, resized, same_size, snapped, touched
from kavlet.core.values.geometry import Rect

PAGE = Page("p", "Page", 600.0, 800.0, margins=(50.0, 60.0, 50.0, 60.0), columns=1, gutter=20.0)
BOXES = [Rect(10, 20, 100, 40), Rect(130, 90, 60, 20), Rect(250, 10, 80, 100)]


@pytest.mark.parametrize(
    ("how", "expected"),
    [
        ("left", [10, 10, 10]),
        ("centre", [10 + 160 - 50, 10 + 160 - 30, 10 + 160 - 40]),
        ("right", [330 - 100, 330 - 60, 330 - 80]),
    ],
)
def test_aligned_across(how: str, expected: list[float]) -> None:
    made = aligned(BOXES, how)  # type: ignore[arg-type]
    assert [box.x for box in made] == expected
    assert [(box.y, box.width, box.height) for box in made] == [(box.y, box.width, box.height) for box in BOXES]


@pytest.mark.parametrize(
    ("how", "expected"), [("top", [10, 10, 10]), ("middle", [40, 50, 10]), ("bottom", [70, 90, 10])]
)
def test_aligned_down(how: str, expected: list[float]) -> None:
    made = aligned(BOXES, how)  # type: ignore[arg-type]
    assert [box.y for box in made] == expected
    assert [box.x for box in made] == [box.x for box in BOXES]


def test_aligned_to_the_margins() -> None:
    (made,) = aligned([Rect(0, 0, 100, 100)], "right", PAGE.inner)
    assert made.right == 550


def test_distributed_has_equal_gaps_and_leaves_the_ends() -> None:
    made = sorted(distributed(BOXES, upright=False), key=lambda box: box.x)
    gaps = [made[1].x - made[0].right, made[2].x - made[1].right]
    assert gaps[0] == pytest.approx(gaps[1]) == pytest.approx((320 - 240) / 2)
    assert (made[0].x, made[2].right) == (10, 330)


def test_distributed_keeps_the_order_it_was_given() -> None:
    backwards = list(reversed(BOXES))
    made = distributed(backwards, upright=True)
    assert [box.width for box in made] == [80, 60, 100]


def test_same_size_is_that_of_the_first() -> None:
    assert {(box.width, box.height) for box in same_size(BOXES)} == {(100, 40)}


@pytest.mark.parametrize(
    ("x", "moved_to"), [(52.0, 50.0), (47.0, 50.0), (248.0, 250.0), (453.0, 450.0), (120.0, 120.0)]
)
def test_snapping_to_margins_and_middle(x: float, moved_to: float) -> None:
    box = Rect(x, 300.0, 100.0, 33.0)
    assert x + snapped(box, PAGE, []).dx == pytest.approx(moved_to)


def test_snapping_takes_the_nearest_line() -> None:
    box = Rect(100.0, 203.0, 80.0, 30.0)
    fit = snapped(box, PAGE, [Rect(300.0, 205.0, 60.0, 30.0), Rect(400.0, 199.0, 60.0, 31.0)])
    assert fit.dy == pytest.approx(2.0)
    assert [guide.at for guide in fit.guides if not guide.upright] == [205.0]


def test_snapping_to_a_gap_as_wide_as_another() -> None:
    others = [Rect(60.0, 400.0, 50.0, 50.0), Rect(137.0, 400.0, 50.0, 50.0)]  # a gap of 27
    fit = snapped(Rect(216.0, 407.0, 41.0, 37.0), PAGE, others, 4.0)
    assert fit.dx == pytest.approx(-2.0)
    assert any(guide.gap == pytest.approx(27.0) for guide in fit.guides)


def test_nothing_near_moves_nothing() -> None:
    fit = snapped(Rect(111.0, 222.0, 33.0, 44.0), PAGE, [])
    assert (fit.dx, fit.dy, fit.guides) == (0.0, 0.0, ())


@pytest.mark.parametrize(
    ("handle", "expected"),
    [("e", Rect(0, 0, 130, 50)), ("w", Rect(30, 0, 70, 50)), ("s", Rect(0, 0, 100, 70)), ("n", Rect(0, 20, 100, 30)),
     ("se", Rect(0, 0, 130, 70)), ("nw", Rect(30, 20, 70, 30))],
)  # fmt: skip
def test_resized_by_each_handle(handle: str, expected: Rect) -> None:
    assert resized(Rect(0, 0, 100, 50), handle, 30.0, 20.0, 8.0) == expected


def test_resized_never_below_its_least() -> None:
    made = resized(Rect(0, 0, 100, 50), "se", -300.0, -300.0, 8.0)
    assert (made.width, made.height) == (8.0, 8.0)


@pytest.mark.parametrize("handle", ["nw", "ne", "se", "sw"])
def test_resized_keeps_proportion(handle: str) -> None:
    made = resized(Rect(10, 10, 100, 50), handle, 37.0, -11.0, 8.0, proportion=True)
    assert made.width / made.height == pytest.approx(2.0)
    held = {"nw": (110, 60), "ne": (10, 60), "se": (10, 10), "sw": (110, 10)}[handle]  # the corner across stays
    corner = (made.right if "w" in handle else made.x, made.bottom if "n" in handle else made.y)
    assert corner == pytest.approx(held)


def test_a_rubber_band_touches_what_it_overlaps() -> None:
    boxes = {"a": Rect(0, 0, 10, 10), "b": Rect(20, 0, 10, 10), "c": Rect(0, 40, 10, 10)}
    assert touched(boxes.items(), Rect(5, 5, 20, 3)) == ["a", "b"]


def test_shares_that_a_frame_cuts_off() -> None:
    assert cut_off(Rect(0, 0, 200, 100), Rect(20, 10, 100, 50)) == pytest.approx((0.1, 0.1, 0.4, 0.4))
    assert cut_off(Rect(0, 0, 200, 100), Rect(-5, -5, 300, 300)) == (0.0, 0.0, 0.0, 0.0)


def test_the_bay_at_a_point() -> None:
    page = Page("p", "Page", 600.0, 400.0, margins=(50, 50, 50, 50), gutter=20.0, arrangement="two beside")
    assert [bay_at(page, x, 200.0) for x in (100.0, 300.0, 500.0, 20.0)] == [0, None, 1, None]
