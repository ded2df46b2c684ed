"""What drags bring about, without a window: slices, sides and caps of bars."""

import math
from typing import Any

import pytest

from kavlet.core.document import edits
from kavlet.core.interaction.drags import Drag, begin, dragged
from kavlet.core.interaction.parts import Part, boxes
from kavlet.core.pipeline.stages import Picture
from kavlet.core.values.geometry import Rect
from tests.making import document, draw, make, marks, table

ROWS = table(["pond", "visits"], ["Mere", "Carr", "Dyke"], [40.0, 25.0, 12.0])


def drag(made: Picture, key: str, row: int, x: float, y: float) -> Drag:
    found = begin(made.figure, made.build.chart, Part("mark", key, row), (), x, y)
    assert found is not None
    return found


def test_a_slice_goes_outward_by_what_is_dragged_and_never_inward() -> None:
    made = make("pie", ROWS)
    sector = marks(made, "value")[0].sector
    turn = math.radians((sector.start + sector.end) / 2)
    one = drag(made, "value", 0, *sector.center)
    out = one.looks(30 * math.sin(turn), -30 * math.cos(turn), 0, 0)
    assert list(out.values()) == [pytest.approx(30 / sector.outer, abs=6e-4)]
    assert list(one.looks(-30 * math.sin(turn), 30 * math.cos(turn), 0, 0).values()) == [0.0]


@pytest.mark.parametrize("side", [-1, 1])
@pytest.mark.parametrize(("rows", "by"), [(8, 5.0), (8, -5.0), (3, -9.0)])
def test_the_side_of_a_bar_stays_below_the_pointer(side: int, rows: int, by: float) -> None:
    figures = table(["pond", "visits"], [f"pond {i}" for i in range(rows)], [10.0] * rows)
    made = make("columns", figures)
    rect = marks(made, "series 1")[0].block.rect
    x = rect.x if side < 0 else rect.right
    gap = drag(made, "series 1", 0, x, rect.center[1]).looks(by * side, 0, 0, 0)["frame.gap_width"]
    again = marks(make("columns", figures, gap=gap), "series 1")[0].block.rect
    assert (again.x if side < 0 else again.right) == pytest.approx(x + by * side, abs=0.15)


def test_bars_side_by_side_get_as_broad_as_they_are_dragged() -> None:
    figures = table(["pond", "a", "b"], [f"pond {i}" for i in range(6)], [10.0] * 6, [8.0] * 6)
    made = make("columns", figures)
    rect = marks(made, "series 2")[0].block.rect
    gap = drag(made, "series 2", 0, rect.right, rect.center[1]).looks(-4.0, 0, 0, 0)["frame.gap_width"]
    assert marks(make("columns", figures, gap=gap), "series 2")[0].block.rect.width == pytest.approx(
        rect.width - 8, abs=0.2
    )


@pytest.mark.parametrize(("rows", "broad"), [(1, 120.0), (3, 120.0), (4, 120.0), (8, None)])
def test_few_rows_make_no_broader_bars_than_the_limit(rows: int, broad: float | None) -> None:
    made = make("columns", table(["n", "v"], [f"n{i}" for i in range(rows)], [10.0] * rows), gap=10.0)
    rects = [mark.block.rect for mark in marks(made, "series 1")]
    if broad is None:
        assert rects[0].width < 120
        assert rects[1].x - rects[0].x == pytest.approx(1.1 * rects[0].width)
    else:
        assert {round(rect.width, 6) for rect in rects} == {broad}
    plot = made.figure.plot
    assert rects[0].x - plot.x == pytest.approx(plot.right - rects[-1].right)  # as much room at either end


def test_a_cap_stays_above_zero() -> None:
    made = make("capped-bars", table(["n", "v"], ["a", "b", "c"], [400.0, 20.0, 10.0]), cap=50.0)
    cut = next(mark for mark in made.figure.marks if mark.block is not None and mark.block.broken)
    rect, plot = cut.block.rect, made.figure.plot
    one = drag(made, cut.key, cut.row, rect.center[0], rect.y)
    at: Any = one.looks(0, 0, rect.center[0], plot.bottom + 40)
    (value,) = at.values()
    assert value > 0
    (half,) = one.looks(0, 0, rect.center[0], (plot.y + plot.bottom) / 2).values()
    axis = next(axis for axis in made.figure.axes if axis.name == "y")
    assert half == pytest.approx((axis.minimum + axis.maximum) / 2, rel=0.02)


def test_bars_touch_at_most() -> None:
    made = make("columns", table(["n", "v"], [f"n{i}" for i in range(8)], [10.0] * 8))
    rect = marks(made, "series 1")[0].block.rect
    one = drag(made, "series 1", 0, rect.right, rect.center[1])
    assert one.looks(200.0, 0, 0, 0) == {"frame.gap_width": 0.0}
    pitch = marks(made, "series 1")[1].block.rect.x - rect.x
    assert one.looks((pitch - rect.width) / 2 - 1.0, 0, 0, 0)["frame.gap_width"] == pytest.approx(
        200 / (pitch - 2), abs=0.1
    )


def test_the_end_of_a_bar_that_is_not_cut_moves_no_cap() -> None:
    made = make("capped-bars", table(["n", "v"], ["a", "b", "c"], [400.0, 20.0, 10.0]), cap=50.0)
    whole = next(
        mark for mark in made.figure.marks if mark.block is not None and not mark.block.broken and mark.visible
    )
    rect = whole.block.rect
    found = begin(made.figure, made.build.chart, Part("mark", whole.key, whole.row), (), rect.center[0], rect.y)
    assert found is None or str(found.name) != "move cap"
    assert str(drag(made, *_cut(made)).name) == "move cap"


def _cut(made: Picture) -> tuple[str, int, float, float]:
    cut = next(mark for mark in made.figure.marks if mark.block is not None and mark.block.broken)
    return cut.key, cut.row, cut.block.rect.center[0], cut.block.rect.y


@pytest.mark.parametrize(("dx", "dy"), [(5000.0, 0.0), (-5000.0, 0.0), (0.0, 5000.0), (0.0, -5000.0)])
@pytest.mark.parametrize(("kind", "key"), [("text", "title"), ("label", "series 1")])
def test_a_text_dragged_off_the_sheet_stays_on_it(kind: Any, key: str, dx: float, dy: float) -> None:
    document_ = edits.change_chart(document("columns", ROWS, labels="values"), "k1", title="Visits to three ponds")
    made = draw(document_)
    part = Part(kind, key, 0 if kind == "label" else -1)
    (box,) = boxes(made.figure, part)
    found = begin(made.figure, made.build.chart, part, (), *box.center)
    assert found is not None
    looks = found.looks(dx, dy, 0, 0)
    sheet = Rect(0, 0, made.figure.size.width, made.figure.size.height)
    moved = Rect(box.x + sum(v for k, v in looks.items() if k.endswith("dx")),
                 box.y + sum(v for k, v in looks.items() if k.endswith("dy")), box.width, box.height)  # fmt: skip
    assert sheet.holds(moved, 0.01)  # what is remembered lies on the sheet, so that the way back starts at once
    (drawn,) = boxes(draw(dragged(document_, "k1", looks)).figure, part)
    assert sheet.holds(drawn, 0.01)


def test_a_text_set_beyond_the_sheet_is_drawn_on_it() -> None:
    made = draw(document("columns", ROWS), look={"title.dx": 4000.0, "title.dy": -900.0})
    (title,) = boxes(made.figure, Part("text", "title"))
    assert Rect(0, 0, made.figure.size.width, made.figure.size.height).holds(title)


@pytest.mark.parametrize("recipe", ["pie", "radial-bars", "gauge", "waffle", "columns"])
def test_a_plot_edge_makes_what_is_in_the_plot_smaller(recipe: str) -> None:
    held = document(recipe, ROWS)
    made = draw(held)
    plot = made.figure.plot
    found = begin(made.figure, made.build.chart, Part("plot", ""), (), plot.right, plot.center[1])
    assert found is not None
    after = draw(dragged(held, "k1", found.looks(0, 0, plot.x + plot.width / 2, 0))).figure
    assert after.plot.right == pytest.approx(plot.x + plot.width / 2, abs=1)
    reach = Rect.around_all([mark.bounds for mark in after.marks if mark.visible])
    before = Rect.around_all([mark.bounds for mark in made.figure.marks if mark.visible])
    assert reach.width < 0.9 * before.width
    least = draw(dragged(held, "k1", found.looks(0, 0, -500, 0))).figure.plot
    assert least.width >= 36 - 0.1 or recipe == "waffle"
    assert least.x >= 0


def test_a_plot_is_never_smaller_than_can_be_read() -> None:
    made = draw(document("columns", ROWS), look={"plot": [0.9, 0.9, 0.9, 0.9]}).figure
    assert made.plot.width >= 36
    assert made.plot.height >= 36
    assert Rect(0, 0, made.size.width, made.size.height).holds(made.plot)


def test_panels_keep_their_places() -> None:
    made = draw(document("gauge", ROWS), look={"plot": [0.1, 0.1, 0.1, 0.1]}, repeat=True)
    centres = {mark.panel: mark.bounds.center for mark in made.figure.marks if mark.key == "needle"}
    assert len(set(centres.values())) == 3
    edge = made.figure.plot
    assert begin(made.figure, made.build.chart, Part("plot", ""), (), edge.right, edge.center[1]) is None
