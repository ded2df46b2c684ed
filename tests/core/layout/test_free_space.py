"""Room for labels: inside the chart, on nothing else; and where a solid is looked at from."""

import math

import pytest

from kavlet.core.charts.solid import Solid
from kavlet.core.layout.solid.model import view_of
from kavlet.core.layout.words.free_space import FreeSpace
from kavlet.core.values.geometry import Rect
from tests.making import make, table


def test_a_text_is_free_only_inside_the_chart_and_on_nothing_taken() -> None:
    made = make("columns", table(["s", "v"], ["a", "b"], [1, 2]))
    text = next(one for one in made.figure.texts if one.kind == "name")
    box = text.bounds
    assert FreeSpace(Rect(0.0, 0.0, 640.0, 360.0)).free(text)
    assert not FreeSpace(Rect(box.x + 1.0, 0.0, 640.0, 360.0)).free(text)
    assert not FreeSpace(Rect(0.0, 0.0, 640.0, box.bottom - 1.0)).free(text)
    taken = FreeSpace(Rect(0.0, 0.0, 640.0, 360.0))
    taken.take_rect(Rect(box.right - 1.0, box.y, 50.0, 5.0))
    assert not taken.free(text)
    beside = FreeSpace(Rect(0.0, 0.0, 640.0, 360.0))
    beside.take_rect(Rect(box.right + 0.5, box.y, 50.0, 5.0))
    assert beside.free(text)


@pytest.mark.parametrize(
    ("given", "held"), [(500.0, 90.0), (-91.0, -90.0), (45.0, 45.0), (math.nan, 0.0), (math.inf, 0.0)]
)
def test_a_solid_is_never_looked_at_from_behind(given: float, held: float) -> None:
    view = view_of(Solid(turn=given, tilt=given))
    assert (view.turn, view.tilt) == (held, held)


@pytest.mark.parametrize(("given", "held"), [(-1.0, 0.0), (0.4, 0.4), (7.0, 1.0)])
def test_perspective_goes_from_none_to_strong(given: float, held: float) -> None:
    assert view_of(Solid(perspective=given)).perspective == held
