"""Strokes drawn by hand: few curves near the points, corners kept, mirrored, edited, holes."""

import math
import random

import pytest

from kavlet.core.shapes.freehand import Outline, mirrored, moved, outline, path_data, turning, without
from kavlet.core.shapes.symbol import raw_path

CIRCLE = [(100 + 80 * math.cos(math.radians(a)), 100 + 80 * math.sin(math.radians(a))) for a in range(0, 360, 3)]


def square(side: float, at: float = 0.0) -> list[tuple[float, float]]:
    edge = [side * i / 20 for i in range(20)]
    far = at + side
    return [
        *((at + one, at) for one in edge), *((far, at + one) for one in edge),
        *((far - one, far) for one in edge), *((at, far - one) for one in edge),
    ]  # fmt: skip


def distance(drawn: Outline, point: tuple[float, float]) -> float:
    return min(math.dist(one.at(i / 60), point) for one in drawn for i in range(61))


@pytest.mark.parametrize("seed", range(5))
def test_a_shaky_circle_becomes_a_few_curves_near_it(seed: int) -> None:
    chance = random.Random(seed)
    shaky = [(x + chance.gauss(0, 0.7), y + chance.gauss(0, 0.7)) for x, y in CIRCLE]
    drawn = outline(shaky, 2.5)
    assert 2 <= len(drawn) <= 8
    assert max(distance(drawn, point) for point in CIRCLE) < 4.0
    for one, other in zip(drawn, (*drawn[1:], drawn[0]), strict=True):
        assert one.end == pytest.approx(other.start)
        turn = math.atan2(one.end[1] - one.two[1], one.end[0] - one.two[0]) - math.atan2(
            other.one[1] - other.start[1], other.one[0] - other.start[0]
        )
        assert abs(math.remainder(turn, math.tau)) < 0.35  # it goes on smoothly


def test_corners_stay_corners() -> None:
    drawn = outline(square(100.0), 2.0)
    assert len(drawn) == 4
    corners = {(round(one.start[0]), round(one.start[1])) for one in drawn}
    assert corners == {(0, 0), (100, 0), (100, 100), (0, 100)}
    assert all(distance(drawn, point) < 1.0 for point in square(100.0))


@pytest.mark.parametrize("points", [[], [(1.0, 1.0)], [(1.0, 1.0), (50.0, 1.0)], [(5.0, 5.0)] * 40])
def test_a_stroke_that_encloses_nothing_is_none(points: list[tuple[float, float]]) -> None:
    assert outline(points, 2.0) == ()


def test_a_larger_tolerance_gives_no_more_curves() -> None:
    turns = [math.radians(a) for a in range(0, 360, 2)]
    far = [60 + 12 * math.sin(5 * turn) for turn in turns]
    wavy = [(100 + r * math.cos(turn), 100 + r * math.sin(turn)) for r, turn in zip(far, turns, strict=True)]
    counts = [len(outline(wavy, tolerance)) for tolerance in (0.5, 2.0, 8.0)]
    assert counts == sorted(counts, reverse=True)
    assert counts[0] > counts[2]


def test_it_is_mirrored_at_a_line_and_twice_is_itself() -> None:
    drawn = outline(square(40.0), 2.0)
    there = mirrored(drawn, 100.0)
    assert {round(one.start[0]) for one in there} == {160, 200}
    back = mirrored(there, 100.0)
    assert [x for one in back for x in one.start] == pytest.approx([x for one in drawn for x in one.start])


def test_a_point_is_moved_with_its_handles_or_taken_out() -> None:
    drawn = outline(square(100.0), 2.0)
    changed = moved(drawn, 1, (150.0, -20.0))
    assert changed[1].start == changed[0].end == (150.0, -20.0)
    assert changed[2:] == drawn[2:]
    dx, dy = 150.0 - drawn[1].start[0], -20.0 - drawn[1].start[1]
    assert changed[1].one == pytest.approx((drawn[1].one[0] + dx, drawn[1].one[1] + dy))
    fewer = without(drawn, 1)
    assert len(fewer) == 3
    assert fewer[0].end == fewer[1].start
    assert without(without(fewer, 0), 0) == without(fewer, 0)  # two curves are the least


def test_one_inside_another_is_a_hole() -> None:
    outer, inner = outline(square(100.0), 2.0), outline(square(30.0, 30.0), 2.0)
    data = path_data(turning([outer, inner]))
    assert data.count("M") == 2
    path = raw_path(data)
    assert (path.bounds.width, path.bounds.height) == (pytest.approx(100, abs=1), pytest.approx(100, abs=1))

    def area(drawn: Outline) -> float:
        points = [one.at(i / 20) for one in drawn for i in range(20)]
        return sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, [*points[1:], points[0]], strict=True)) / 2

    first, second = turning([outer, inner])
    assert area(first) * area(second) < 0
