"""Pictures in bars: repeated from the base to the value, on either side of it, upright or laid down with the bar."""

from itertools import pairwise
from typing import Any

import msgspec
import pytest

from kavlet.core.scene.primitives import Stamp
from kavlet.core.styling.fills import PictureFill
from tests.making import document, draw, marks, table

ROWS = table(["pond", "change"], ["Mere", "Carr"], [30.0, -20.0])


def stamps(mark: Any) -> list[Stamp]:
    return [item for item in mark.items if isinstance(item, Stamp)]


def middle(stamp: Stamp) -> tuple[float, float]:
    return stamp.place.apply(*stamp.outline.bounds.center)


def bars(recipe: str, turned: bool = False) -> list[Any]:
    """The marks of one bar to either side of zero, filled with a picture."""
    fill = msgspec.to_builtins(PictureFill("drop", "repeated", turned=turned))
    return marks(draw(document(recipe, ROWS, gap=400.0), look={"layers.series 1.fill": fill}), "series 1")


@pytest.mark.parametrize("recipe", ["bars", "columns"])
def test_pictures_start_at_the_base_on_both_sides_of_it_and_the_last_one_is_cut(recipe: str) -> None:
    lying = recipe == "bars"
    for mark in bars(recipe):
        rect, grows = mark.block.rect, 1 if mark.value > 0 else -1
        low, high = (rect.x, rect.right) if lying else (rect.bottom, rect.y)
        base, tip = (low, high) if grows > 0 else (high, low)
        away = 1 if tip > base else -1
        at = [away * (middle(one)[0 if lying else 1] - base) for one in stamps(mark)]
        step = at[1] - at[0]
        assert at[0] == pytest.approx(step / 2)  # the first stands on the base
        assert [b - a for a, b in pairwise(at)] == pytest.approx([step] * (len(at) - 1))
        assert at[-1] - step / 2 < abs(tip - base) <= at[-1] + step / 2 + 1e-6
        assert all(one.clip is not None for one in stamps(mark))


def test_turned_pictures_point_to_the_end_of_their_lying_bar() -> None:
    upright = bars("bars")
    turned = bars("bars", turned=True)
    standing = bars("columns", turned=True)

    def top(stamp: Stamp) -> tuple[float, float]:
        """Where the top of a picture points to."""
        (x0, y0), (x1, y1) = stamp.place.apply(0, 0), stamp.place.apply(0, -1)
        size = max(abs(x1 - x0), abs(y1 - y0))
        return round((x1 - x0) / size, 9), round((y1 - y0) / size, 9)

    assert {top(one) for mark in upright for one in stamps(mark)} == {(0.0, -1.0)}
    assert [{top(one) for one in stamps(mark)} for mark in turned] == [{(1.0, 0.0)}, {(-1.0, 0.0)}]
    assert {top(one) for mark in standing for one in stamps(mark)} == {(0.0, -1.0)}
    for mark in turned:
        rect, at = mark.block.rect, [middle(one) for one in stamps(mark)]
        assert {round(y, 6) for _, y in at} == {round(rect.center[1], 6)}
        base, way = (rect.x, 1) if mark.value > 0 else (rect.right, -1)
        assert way * (at[0][0] - base) == pytest.approx(abs(at[1][0] - at[0][0]) / 2)


@pytest.mark.parametrize(("x", "zoom"), [(0.0, 1.0), (0.5, 1.0), (1.0, 2.0)])
def test_a_covering_picture_fills_its_bar_at_its_own_proportions(x: float, zoom: float) -> None:
    fill = msgspec.to_builtins(PictureFill("drop", "covering", x=x, y=0.0, zoom=zoom))
    made = draw(document("columns", ROWS), look={"layers.series 1.fill": fill})
    for mark in marks(made, "series 1"):
        (stamp,) = stamps(mark)
        own = stamp.outline.bounds
        left, top = stamp.place.apply(own.x, own.y)
        right, bottom = stamp.place.apply(own.right, own.bottom)
        rect = mark.block.rect
        assert stamp.clip == mark.path
        assert left <= rect.x + 1e-6
        assert right >= rect.right - 1e-6
        assert (top, bottom >= rect.bottom - 1e-6) == (pytest.approx(rect.y), True)
        assert (right - left) / (bottom - top) == pytest.approx(own.width / own.height)
        spare = (right - left) - rect.width
        assert rect.x - left == pytest.approx(x * spare)
        assert max((right - left) / rect.width, (bottom - top) / rect.height) >= zoom - 1e-6
