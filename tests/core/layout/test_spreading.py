"""Labels spread along a line as isotonic regression has it, within bounds: against SciPy, and by hand."""

import random
from itertools import pairwise

import pytest
from scipy.optimize import isotonic_regression

from kavlet.core.layout.words.spreading import spread
from kavlet.core.values.geometry import Rect

ROOM = Rect(0, 0, 10, 100)


def test_what_does_not_collide_stays_where_it_wants_to_be() -> None:
    assert spread([10, 40, 80], [10, 10, 10], 2, ROOM) == [10, 40, 80]
    assert spread([], [], 2, ROOM) == []


def test_what_collides_is_put_around_its_mean_wish() -> None:
    assert spread([50, 50], [10, 10], 2, ROOM) == [44, 56]
    assert spread([50, 51, 52], [10, 10, 10], 0, ROOM) == pytest.approx([41, 51, 61])
    assert spread([20, 22, 90], [10, 20, 10], 0, ROOM) == pytest.approx([13.5, 28.5, 90])


def test_all_stay_within_their_bounds() -> None:
    assert spread([-30, 2], [10, 10], 2, ROOM) == [5, 17]
    assert spread([99, 130], [10, 10], 2, ROOM) == [83, 95]


def test_without_room_there_are_no_places() -> None:
    assert spread([1, 2], [49, 49], 2, ROOM) is not None
    assert spread([1, 2], [49, 49], 2.1, ROOM) is None


def test_places_are_those_of_isotonic_regression() -> None:
    chance = random.Random(5)
    for _ in range(200):
        count = chance.randint(2, 8)
        heights = [chance.uniform(4, 10) for _ in range(count)]
        wishes = sorted(chance.uniform(300, 500) for _ in range(count))
        made = spread(wishes, heights, 1.5, Rect(0, 0, 10, 1000))
        assert made is not None
        offsets = [sum(heights[:i]) + 1.5 * i + heights[i] / 2 for i in range(count)]
        starts = isotonic_regression([wish - offset for wish, offset in zip(wishes, offsets, strict=True)]).x
        assert made == pytest.approx([start + offset for start, offset in zip(starts, offsets, strict=True)])
        for (place, high), (after, next_high) in pairwise(zip(made, heights, strict=True)):
            assert after - place >= (high + next_high) / 2 + 1.5 - 1e-6
