"""Rings: their arcs, tracks and dots for small values, reckoned by hand."""

import math
from typing import Any

import pytest

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Polar
from kavlet.core.charts.rings import Rings
from kavlet.core.layout.figure import Mark
from kavlet.core.values.geometry import Size
from tests.making import document, draw, free, table

ROWS = table(["n", "sweep"], ["a", "b", "c", "d"], [180, 0.1, 0, 500])
FRAME = Polar(hole=0.2, ring_gap=0.0, sweep=270.0)


def made(**fields: Any) -> list[Mark]:
    layer = Rings("r", "r", "c2", named=False, **fields)
    figure = free(Chart(FRAME, (layer,), names="c1"), ROWS, Size(300, 300)).figure
    return sorted(figure.marks, key=lambda mark: mark.row)


def test_the_first_row_is_outermost_unless_their_order_says_otherwise() -> None:
    radii = [mark.sector.outer for mark in made() if mark.sector is not None]
    assert radii == sorted(radii, reverse=True)
    thick = [mark.sector.outer - mark.sector.inner for mark in made() if mark.sector is not None]
    assert thick == pytest.approx([thick[0]] * 4)
    turned = [mark.sector.outer for mark in made(order=(3, 2, 1, 0)) if mark.sector is not None]
    assert turned == pytest.approx(radii[::-1])


def test_arcs_end_at_their_figures_and_never_beyond_the_sweep() -> None:
    ends = [mark.sector.end for mark in made() if mark.sector is not None]
    assert ends == pytest.approx([180, 0.1, 0, 270])
    assert [mark.sector.start for mark in made() if mark.sector is not None] == [0, 0, 0, 0]


@pytest.mark.parametrize("rounded", [True, False])
def test_the_smallest_value_is_a_dot_where_ends_are_round(rounded: bool) -> None:
    mark = made(round=rounded)[1]
    assert mark.sector is not None
    assert mark.path is not None
    inner, outer = mark.sector.inner, mark.sector.outer
    turn = (outer - inner) / ((inner + outer) / 2) if rounded else math.radians(0.1)
    x, _ = mark.sector.center
    assert mark.path.bounds.right - x <= outer * math.sin(turn) + 1e-6
    seen = mark.path.bounds.width
    if rounded:  # as wide as it is thick, but for the bend of the ring
        assert seen == pytest.approx(outer - inner, rel=0.1)
    else:
        assert seen == pytest.approx(outer * math.sin(turn), rel=0.05)


def test_no_value_leaves_only_the_track() -> None:
    marks = made()
    assert [len(mark.items) for mark in marks] == [1, 1, 0, 1]
    assert [len(mark.track) for mark in marks] == [1, 1, 1, 1]
    assert [mark.visible for mark in marks] == [True] * 4
    bare = made(track=False)
    assert [len(mark.track) for mark in bare] == [0, 0, 0, 0]
    assert [mark.visible for mark in bare] == [True, True, False, True]


@pytest.mark.parametrize("start", [0.0, 45.0, 90.0, 135.0, 180.0, 225.0, 270.0, 315.0, -30.0, 400.0])
@pytest.mark.parametrize("rows", [3, 12])
def test_names_stand_before_the_start_wherever_that_is(start: float, rows: int) -> None:
    names = [f"Pond {i}" for i in range(rows)]
    held = table(["name", "v"], names, [10 + i for i in range(rows)])
    figure = draw(document("radial-bars", held), Size(420, 420), {"frame.start": start}).figure
    found = {text.row: text for text in figure.texts if text.kind == "name"}
    assert len(found) >= min(rows, 4)
    boxes = [text.bounds for text in found.values()]
    assert not [1 for i, one in enumerate(boxes) for other in boxes[:i] if one.overlaps(other)]
    sector = next(mark.sector for mark in figure.marks if mark.sector is not None)
    inner = min(mark.sector.inner for mark in figure.marks if mark.sector is not None)
    for text in found.values():
        box = text.bounds
        for x, y in ((box.x, box.y), (box.right, box.y), (box.x, box.bottom), (box.right, box.bottom), box.center):
            dx, dy = x - sector.center[0], y - sector.center[1]
            swept = (math.degrees(math.atan2(dx, -dy)) - start) % 360
            assert swept > 269.9 or swept < 0.1 or math.hypot(dx, dy) < inner, text.text
        assert bool(text.angle) == (abs(math.cos(math.radians(start))) < math.cos(math.radians(50)))
        assert box.x >= 0
        assert box.right <= 420
