"""Ranges: whiskers and bars from a low to a high figure per row, alone and on the bars of another layer."""

import math

import msgspec
import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.ranges import Ranges
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.kinds import addable
from kavlet.core.pipeline.stages import Picture
from kavlet.core.scene.primitives import Shape
from tests.making import free, marks, table

ROWS = table(["plot", "reeds", "less", "more", "low", "high"], ["North", "South", "Far"], [40, 60, 30], [4, 6, 3],
             [8, 2, 5], [36, 54, 27], [48, 62, 35])  # fmt: skip
BARS = Bars("reeds", "reeds", "c2")


def drawn(*layers: AnyLayer, frame: Cartesian | None = None, rows: list[list[object]] | None = None) -> Picture:
    chart = Chart(frame or Cartesian(along=Scale(minimum=0.0, maximum=80.0, visible=True)), layers, names="c1")
    return free(chart, rows or ROWS)  # type: ignore[arg-type]


def at(made: Picture, value: float) -> float:
    """The height of a figure on a scale from 0 to 80."""
    plot = made.figure.plot
    return plot.bottom - value / 80 * plot.height


def test_ends_may_be_figures() -> None:
    made = drawn(BARS, Ranges("spread", "spread", "c2", low="c5", high="c6", on="reeds"))
    found = marks(made, "spread")
    assert [one.value for one in found] == [12.0, 8.0, 8.0]
    for one, (low, high) in zip(found, [(36, 48), (54, 62), (27, 35)], strict=True):
        assert one.bounds.bottom == pytest.approx(at(made, low))
        assert one.bounds.y == pytest.approx(at(made, high))


def test_ends_may_be_distances_from_the_middle() -> None:
    by_ends = drawn(BARS, Ranges("spread", "spread", "c2", low="c5", high="c6", on="reeds"))
    by_distance = drawn(BARS, Ranges("spread", "spread", "c2", low="c3", high="c4", by="distance", on="reeds"))
    one, other = (marks(made, "spread") for made in (by_ends, by_distance))
    assert [mark.bounds for mark in one] == [mark.bounds for mark in other]


def test_they_stand_on_the_middle_of_the_bars_they_belong_to() -> None:
    other = Bars("more", "more", "c4")
    made = drawn(BARS, other, Ranges("spread", "spread", "c2", low="c5", high="c6", on="reeds"))
    for bar, one in zip(marks(made, "reeds"), marks(made, "spread"), strict=True):
        assert one.bounds.center[0] == pytest.approx(bar.bounds.center[0])


def test_without_bars_they_stand_in_the_middle_of_their_row() -> None:
    made = drawn(BARS, Ranges("spread", "spread", "c2", low="c5", high="c6"))
    assert [one.bounds.center[0] for one in marks(made, "spread")] == pytest.approx(
        [one.bounds.center[0] for one in marks(made, "reeds")]
    )


def test_lying_ones_lie() -> None:
    frame = Cartesian(lying=True, along=Scale(minimum=0.0, maximum=80.0))
    made = drawn(BARS, Ranges("spread", "spread", "c2", low="c5", high="c6", on="reeds"), frame=frame)
    plot = made.figure.plot
    one = marks(made, "spread")[0]
    assert one.bounds.x == pytest.approx(plot.x + 36 / 80 * plot.width)
    assert one.bounds.right == pytest.approx(plot.x + 48 / 80 * plot.width)


def test_a_row_of_which_one_end_is_not_known_has_none() -> None:
    rows = [list(row) for row in ROWS]
    rows[2][5] = None
    made = drawn(BARS, Ranges("spread", "spread", "c2", low="c5", high="c6"), rows=rows)
    assert [one.row for one in marks(made, "spread")] == [0, 2]


def test_ends_the_wrong_way_round_are_put_right() -> None:
    made = drawn(BARS, Ranges("spread", "spread", "c2", low="c6", high="c5"))
    assert [one.value for one in marks(made, "spread")] == [12.0, 8.0, 8.0]


def test_the_scale_holds_both_ends() -> None:
    made = drawn(
        BARS, Ranges("spread", "spread", "c2", low="c5", high="c6"), frame=Cartesian(along=Scale(visible=True))
    )
    axis = made.figure.axes[0]
    assert axis.minimum == 0
    assert axis.maximum >= 62


def strokes(made: Picture, row: int = 0) -> int:
    """How many strokes a whisker has: its line, and a cap at each end that lies on the scale."""
    item = marks(made, "spread")[row].items[0]
    assert isinstance(item, Shape)
    return item.path.verbs.count("M")


def test_what_reaches_beyond_the_scale_has_no_cap_there() -> None:
    frame = Cartesian(along=Scale(minimum=0.0, maximum=60.0))
    made = drawn(BARS, Ranges("spread", "spread", "c2", low="c5", high="c6"), frame=frame)
    assert [strokes(made, row) for row in range(3)] == [3, 2, 3]
    assert marks(made, "spread")[1].bounds.y == pytest.approx(made.figure.plot.y)


def test_a_bar_is_as_thick_as_its_caps_would_be() -> None:
    made = drawn(Ranges("spread", "spread", "c2", low="c5", high="c6", form="bar", cap=14.0))
    one = marks(made, "spread")[0].items[0]
    assert isinstance(one, Shape)
    assert one.path.bounds.width == pytest.approx(14.0)
    assert one.fill is not None


def test_the_middle_can_be_shown() -> None:
    without = drawn(Ranges("spread", "spread", "c2", low="c5", high="c6"))
    made = drawn(Ranges("spread", "spread", "c2", low="c5", high="c6", spot="disc"))
    assert len(marks(made, "spread")[0].items) == len(marks(without, "spread")[0].items) + 1
    spot = marks(made, "spread")[0].items[-1]
    assert isinstance(spot, Shape)
    plot, axis = made.figure.plot, made.figure.axes[0]
    assert spot.path.bounds.center[1] == pytest.approx(plot.bottom - 40 / axis.maximum * plot.height, abs=0.5)


def test_its_labels_stand_beyond_its_end() -> None:
    made = drawn(BARS, Ranges("spread", "spread", "c2", low="c5", high="c6", label=Label("{high}")))
    texts = [text for text in made.figure.texts if text.key == "spread" and text.kind == "label"]
    assert [text.text for text in texts] == ["48", "62", "35"]
    assert all(text.bounds.bottom <= one.bounds.y for text, one in zip(texts, marks(made, "spread"), strict=True))


def test_helpers_and_hidden_rows_leave_no_trace() -> None:
    layer = Ranges("spread", "spread", "c2", low="c5", high="c6", helper=True)
    assert marks(drawn(BARS, layer), "spread") == []
    assert all(math.isfinite(one.bounds.height) for one in drawn(BARS, layer).figure.marks)


def test_one_that_an_author_adds_shows_how_far_the_main_layer_may_be_off() -> None:
    chart = Chart(Cartesian(), (BARS, msgspec.structs.replace(BARS, key="second", second=True)))
    made = addable()["ranges"].new("added 1", "more", "c4", chart)
    assert (made.values, made.low, made.high, made.by, made.on) == ("c2", "c4", "c4", "distance", "reeds")
    found = marks(drawn(BARS, made), "added 1")
    assert [one.value for one in found] == [16.0, 4.0, 10.0]
