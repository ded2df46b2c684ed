"""What must hold of boxes on a page, whichever they are."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.pages.page import Page
from kavlet.core.pages.placing import Align, aligned, cut_off, distributed, resized, same_size, snapped
from kavlet.core.values.geometry import Rect

PAGE = Page("p", "Page", 600.0, 800.0, margins=(50.0, 60.0, 50.0, 60.0), columns=1, gutter=20.0)
PLACES = st.integers(-50, 600).map(float)
SIDES = st.integers(5, 300).map(float)
BOX = st.builds(Rect, PLACES, PLACES, SIDES, SIDES)
BOXES = st.lists(BOX, min_size=1, max_size=6)
HANDLES = st.sampled_from(["n", "e", "s", "w", "ne", "nw", "se", "sw"])


@given(BOXES, st.sampled_from(["left", "centre", "right", "top", "middle", "bottom"]))
def test_aligned_boxes_share_what_they_are_aligned_by_and_keep_their_size(boxes: list[Rect], how: Align) -> None:
    moved = aligned(boxes, how)
    sides = {
        "left": [box.x for box in moved], "right": [box.right for box in moved], "top": [box.y for box in moved],
        "bottom": [box.bottom for box in moved], "centre": [box.center[0] for box in moved],
        "middle": [box.center[1] for box in moved],
    }[how]  # fmt: skip
    assert max(sides) - min(sides) < 1e-6
    assert [(box.width, box.height) for box in moved] == [(box.width, box.height) for box in boxes]
    upright = how in ("top", "middle", "bottom")
    assert all((old.x == new.x) if upright else (old.y == new.y) for old, new in zip(boxes, moved, strict=True))
    assert aligned(moved, how) == pytest.approx(moved)  # once more changes nothing


@given(st.lists(BOX, min_size=3, max_size=6), st.booleans())
def test_distributed_boxes_have_equal_gaps_between_the_ends_they_had(boxes: list[Rect], upright: bool) -> None:
    """Also where the first box is the longest, and reaches beyond others."""

    def span(box: Rect) -> tuple[float, float]:
        return (box.y, box.bottom) if upright else (box.x, box.right)

    moved = distributed(boxes, upright)
    order = sorted(range(len(boxes)), key=lambda i: span(boxes[i])[0])
    spans = [span(moved[i]) for i in order]
    gaps = [after[0] - before[1] for before, after in itertools.pairwise(spans)]
    assert max(gaps) - min(gaps) < 1e-6
    assert spans[0][0] == pytest.approx(min(span(box)[0] for box in boxes))
    assert spans[-1][1] == pytest.approx(max(span(box)[1] for box in boxes))
    assert [(box.width, box.height) for box in moved] == [(box.width, box.height) for box in boxes]


@given(BOX, HANDLES, st.integers(-400, 400), st.integers(-400, 400))
def test_a_dragged_side_moves_alone_and_never_beyond_the_least_size(box: Rect, handle: str, dx: int, dy: int) -> None:
    least = 4.0
    made = resized(box, handle, float(dx), float(dy), least)
    assert made.width >= min(least, box.width) - 1e-9
    assert made.height >= min(least, box.height) - 1e-9
    assert made.x == box.x or "w" in handle
    assert made.right == pytest.approx(box.right) or "e" in handle
    assert made.y == box.y or "n" in handle
    assert made.bottom == pytest.approx(box.bottom) or "s" in handle


@given(BOX, st.sampled_from(["ne", "nw", "se", "sw"]), st.integers(-400, 400), st.integers(-400, 400))
def test_a_corner_keeps_the_proportion_and_follows_the_side_that_is_dragged_farther(
    box: Rect, handle: str, dx: int, dy: int
) -> None:
    made = resized(box, handle, float(dx), float(dy), 1.0, proportion=True)
    assert made.width / made.height == pytest.approx(box.width / box.height, rel=1e-6)
    free = resized(box, handle, float(dx), float(dy), 1.0)
    scale = max(free.width / box.width, free.height / box.height)
    assert made.width == pytest.approx(scale * box.width)


@given(BOX, BOXES, st.floats(0.5, 8.0))
def test_a_box_snaps_no_farther_than_it_may(box: Rect, others: list[Rect], near: float) -> None:
    snap = snapped(box, PAGE, others, near)
    assert abs(snap.dx) <= near + 1e-9
    assert abs(snap.dy) <= near + 1e-9
    again = snapped(Rect(box.x + snap.dx, box.y + snap.dy, box.width, box.height), PAGE, others, near)
    assert math.isclose(again.dx, 0.0, abs_tol=near)


def test_boxes_that_overlap_make_no_gap_to_snap_to() -> None:
    """A gap below zero is none: two boxes over each other say nothing of how far a third should be."""
    row = [Rect(100.0, 200.0, 100.0, 40.0), Rect(170.0, 200.0, 100.0, 40.0)]
    snap = snapped(Rect(241.5, 203.0, 77.0, 33.0), PAGE, row, 2.0)
    assert snap.dx == 0.0


def test_a_gap_is_snapped_to_up_to_the_edge_of_what_is_near() -> None:
    row = [Rect(100.0, 200.0, 50.0, 40.0), Rect(180.0, 200.0, 50.0, 40.0)]
    inside, outside = Rect(263.0, 205.0, 31.0, 33.0), Rect(263.2, 205.0, 31.0, 33.0)
    assert snapped(inside, PAGE, row, 3.0).dx == pytest.approx(-3.0)
    assert snapped(outside, PAGE, row, 3.0).dx == 0.0


@given(BOXES)
def test_boxes_of_one_size_stay_where_they_begin(boxes: list[Rect]) -> None:
    moved = same_size(boxes)
    assert {(box.width, box.height) for box in moved} == {(boxes[0].width, boxes[0].height)}
    assert [(box.x, box.y) for box in moved] == [(box.x, box.y) for box in boxes]


@given(BOX, BOX)
def test_a_crop_leaves_something_of_the_picture(whole: Rect, frame: Rect) -> None:
    left, top, right, bottom = cut_off(whole, frame)
    assert all(0.0 <= share <= 1.0 for share in (left, top, right, bottom))
    assert left + right < 1.0
    assert top + bottom < 1.0
