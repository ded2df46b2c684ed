"""The sheet as a whole: its panels, grounds, borders and legend, reckoned by hand."""

from typing import Any

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Grid, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.wedges import Wedges
from kavlet.core.layout.figure import Figure
from kavlet.core.scene.paints import LinearGradient
from kavlet.core.scene.primitives import Shape
from kavlet.core.values.geometry import Rect, Size
from tests.making import document, draw, free, table

ROWS = table(["n", "v"], ["a", "b", "c"], [10, 40, 20])
FRAME = Cartesian(along=Scale(minimum=0.0, maximum=50.0, visible=False))


def made(**chart: Any) -> Figure:
    return free(Chart(FRAME, (Bars("v", "v", "c2"),), names="c1", **chart), ROWS, Size(400, 300)).figure


def repeated(recipe: str, count: int, size: Size) -> Figure:
    rows = table(["n", "v"], [f"row {i}" for i in range(count)], [10 * i + 5 for i in range(count)])
    return draw(document(recipe, rows), size, repeat=True).figure


def around(rect: Rect) -> Rect:
    """A box as an outline around it has it."""
    return Rect.around([(rect.x, rect.y), (rect.right, rect.bottom)])


def columns_of(figure: Figure) -> int:
    """How many panels stand side by side, by their titles."""
    heads = [text for text in figure.texts if text.kind == "panel"]
    return sum(1 for text in heads if text.bounds.y == pytest.approx(heads[0].bounds.y))


@pytest.mark.parametrize(
    ("size", "columns"), [(Size(1200, 200), 6), (Size(600, 400), 3), (Size(420, 500), 2), (Size(160, 900), 1)]
)
def test_panels_stand_in_rows_so_that_each_is_as_large_as_it_can_be(size: Size, columns: int) -> None:
    assert columns_of(repeated("gauge", 6, size)) == columns


def test_panels_are_of_one_size_and_a_gap_apart() -> None:
    figure = repeated("gauge", 6, Size(600, 400))
    heads = [text.bounds.center for text in figure.texts if text.kind == "panel"]
    assert heads[1][0] - heads[0][0] == pytest.approx(heads[2][0] - heads[1][0])
    assert heads[3][0] == pytest.approx(heads[0][0])
    assert heads[4][1] - heads[1][1] == pytest.approx(heads[3][1] - heads[0][1])
    assert heads[3][1] - heads[0][1] > 150  # nearly half of what the sheet has
    radii = {round(mark.sector.outer, 6) for mark in figure.marks if mark.kind.name == "needle" and mark.sector}
    assert len(radii) == 1
    assert {axis.name for axis in figure.axes} == {"angle"}
    assert len(figure.axes) == 1


def test_panels_are_titled_by_their_rows_and_the_text_is_smaller() -> None:
    figure = repeated("gauge", 6, Size(600, 400))
    heads = [text for text in figure.texts if text.kind == "panel"]
    assert [(text.text, text.row) for text in heads] == [(f"row {i}", i) for i in range(6)]
    large = repeated("gauge", 2, Size(1000, 400))
    assert heads[0].size < next(text for text in large.texts if text.kind == "panel").size


def test_a_border_lies_wholly_on_the_sheet() -> None:
    (shape,) = made(border="ink", border_width=6.0).behind
    assert isinstance(shape, Shape)
    assert shape.path.bounds == Rect(3, 3, 394, 294)
    assert (shape.fill, shape.edge_width) == (None, 6.0)
    assert made().behind == ()


def test_a_plot_has_a_ground_and_a_border_of_its_own() -> None:
    figure = made(plot_ground="tone1", plot_border="ink")
    ground, border = figure.behind
    assert isinstance(ground, Shape)
    assert isinstance(border, Shape)
    assert ground.path.bounds == border.path.bounds == around(figure.plot)
    assert ground.edge is None
    assert (border.fill, border.edge_width) == (None, figure.hair)


def test_a_ground_may_run_from_one_colour_to_another() -> None:
    figure = made(ground_to="tone1", plot_ground="tone2", plot_to="tone3")
    sheet, plot = (one for one in figure.behind if isinstance(one, Shape))
    assert sheet.path.bounds == Rect(0, 0, 400, 300)
    assert plot.path.bounds == around(figure.plot)
    for shape, box in ((sheet, Rect(0, 0, 400, 300)), (plot, around(figure.plot))):
        run = shape.fill
        assert isinstance(run, LinearGradient)
        assert {run.y1, run.y2} <= {box.y, box.bottom, box.center[1]}
        assert len(run.stops) == 2
    assert isinstance(sheet.fill, LinearGradient)
    assert sheet.fill.stops[0][1] == figure.ground


def test_panels_have_one_border_and_each_its_plot_s_ground() -> None:
    rows = table(["n", "v"], ["a", "b"], [30, 60])
    look = {"border": "ink", "border_width": 2.0, "plot_ground": "tone1"}
    figure = draw(document("gauge", rows), Size(500, 300), look, repeat=True).figure
    edges = [one for one in figure.behind if isinstance(one, Shape) and one.edge is not None]
    grounds = [one for one in figure.behind if isinstance(one, Shape) and one.edge is None]
    assert len(edges) == 1
    assert len(grounds) == 2


def test_a_field_s_legend_stands_close_to_it() -> None:
    rows = table(["n", "v"], ["a", "b"], [30, 70])
    layer = Cells("v", "v", "c2", vary=True)
    chart = Chart(Grid(10, 10), (layer,), names="c1", legend=Legend(side="right"))
    figure = free(chart, rows, Size(700, 300)).figure
    first = min(key.bounds.x for key in figure.keys)
    assert figure.plot.width == pytest.approx(figure.plot.height)
    assert 0 < first - figure.plot.right < 60


def test_a_legend_lists_the_rows_that_have_a_name_and_a_value_above_zero() -> None:
    rows = table(["n", "v"], ["a", "b", "c", "", "e"], [0.5, 0, "", 3, -2])
    layer = Wedges("v", "v", "c2", vary=True)
    figure = free(Chart(Polar(), (layer,), names="c1", legend=Legend(side="right")), rows, Size(400, 300)).figure
    assert [key.name for key in figure.keys] == ["a"]
    full = table(["n", "v"], ["a", "b"], [0.5, 0.25])
    both = free(Chart(Polar(), (layer,), names="c1", legend=Legend(side="right")), full, Size(400, 300)).figure
    assert [key.name for key in both.keys] == ["a", "b"]


@pytest.mark.parametrize("side", ["right", "inside"])
def test_no_label_lies_on_a_chip_of_the_legend(side: Any) -> None:
    rows = table(["n", "v"], ["Reed", "Mill", "North", "Otter", "Heron"], [31, 7, 44, 2, 16])
    half = Polar(start=-90.0, sweep=180.0, shown=180.0, hole=0.3)
    slices = Wedges("v", "v", "c2", explode=0.1, gap=3.0, label=Label(template="{name} {share}"))
    legend = Legend(side=side, x=0.75, y=0.5, ground="track" if side == "inside" else "")
    figure = free(Chart(half, (slices,), names="c1", legend=legend), rows, Size(460, 320)).figure
    labels = [text.bounds for text in figure.texts if text.kind == "label"]
    assert len(labels) >= 4
    assert figure.keys
    assert not [key.name for key in figure.keys for box in labels if key.bounds.overlaps(box)]


def test_a_plot_put_by_hand_may_fill_the_sheet() -> None:
    assert made(plot=(0.0, 0.0, 0.0, 0.0)).plot == Rect(0, 0, 400, 300)
    assert made(plot=(0.25, 0.5, 0.25, 0.1)).plot == Rect(100, 150, 200, 120)
    small = made(plot=(0.9, 0.9, 0.9, 0.9)).plot
    assert small.width >= 20
    assert small.height >= 20
    assert small.right <= 400
    assert small.bottom <= 300


@pytest.mark.parametrize(("margin", "left"), [(0.0, 0.0), (-20.0, 0.0), (30.0, 30.0), (500.0, 120.0)])
def test_a_margin_set_by_hand_is_free_around_all(margin: float, left: float) -> None:
    chart = Chart(Grid(1, 3), (Cells("v", "v", "c2"),), legend=Legend(side="none"), margin=margin)
    plot = free(chart, table(["n", "v"], ["a"], [3]), Size(400, 300)).figure.plot
    assert plot.x == pytest.approx(left)
    assert plot.right <= 400 - left + 0.01
