"""Where marks of each plain type stand, and what is written beside them, on charts small enough to reckon by hand."""

import itertools
import math
from typing import Any

import pytest

from kavlet.core.charts.area import Area
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Entry, Legend
from kavlet.core.charts.line import Line
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.rings import Rings
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.layout.texts.text_lines import LEADING, tall
from kavlet.core.styling.style import Dress
from kavlet.core.text.faces import metrics
from kavlet.core.values.geometry import Size
from tests.making import free, marks, table

ROWS = table(["site", "count", "more"], ["A", "B", "C"], [10, 40, 20], [30, 15, 25])
SCALE = Scale(minimum=0.0, maximum=50.0, visible=False)


def drawn(*layers: AnyLayer, legend: Legend | None = None, look: dict[str, Any] | None = None, **words: str) -> Figure:
    chart = Chart(Cartesian(along=SCALE), layers, names="c1", legend=legend or Legend())
    return free(chart, ROWS, Size(400, 300), dress=Dress(overrides=look or {}), **words).figure


def height_of(figure: Figure, value: float) -> float:
    """Where a value of the scale stands on the sheet."""
    return figure.plot.bottom - value / 50 * figure.plot.height


def texts(figure: Figure, kind: str) -> list[PlacedText]:
    return [text for text in figure.texts if text.kind == kind]


def test_points_of_a_line_stand_at_their_values_and_are_joined() -> None:
    figure = drawn(Line("v", "v", "c2", width=2.0, spot="none"))
    assert [mark.bounds.center[1] for mark in figure.marks] == pytest.approx(
        [height_of(figure, v) for v in (10, 40, 20)]
    )
    assert sum(len(mark.items) for mark in figure.marks) == 1
    xs = [mark.bounds.center[0] for mark in figure.marks]
    assert xs[1] - xs[0] == pytest.approx(xs[2] - xs[1])
    assert not texts(figure, "label")


def test_a_single_value_between_gaps_is_a_dot() -> None:
    rows = table(["a", "b"], ["x", "y", "z"], [None, 5, None])
    chart = Chart(Cartesian(along=SCALE), (Line("v", "v", "c2", spot="none"),), names="c1")
    (mark,) = free(chart, rows).figure.marks
    assert mark.items


def test_labels_of_a_line_stand_above_its_points() -> None:
    figure = drawn(Line("v", "v", "c2", spot="disc", size=6.0, label=Label(position="above")))
    labels = texts(figure, "label")
    assert [text.text for text in labels] == ["10", "40", "20"]
    for text, mark in zip(labels, figure.marks, strict=True):
        assert text.bounds.bottom <= mark.bounds.y + 0.5
        assert text.bounds.center[0] == pytest.approx(mark.bounds.center[0], abs=1.0)


@pytest.mark.parametrize(("value", "there"), [(25.0, True), (0.0, True), (50.0, True), (50.1, False), (-1.0, False)])
def test_a_reference_line_is_drawn_within_the_scale(value: float, there: bool) -> None:
    figure = drawn(Line("v", "v", "c2"), Reference("r", "goal", at=value, label=Label(template="{name}")))
    lines = [mark for mark in figure.marks if mark.key == "r"]
    assert len(lines) == there
    assert len([text for text in texts(figure, "label") if text.key == "r"]) == there
    for line in lines:
        assert line.line is not None
        (x1, y1), (x2, y2) = line.line
        assert (x1, x2) == pytest.approx((figure.plot.x, figure.plot.right))
        assert y1 == y2 == pytest.approx(height_of(figure, value))


def test_the_label_of_a_reference_line_stands_at_its_right_end_above_it() -> None:
    figure = drawn(Reference("r", "goal", at=25.0, label=Label(template="goal")))
    (label,) = texts(figure, "label")
    assert label.text == "goal"
    assert label.bounds.right == pytest.approx(figure.plot.right, abs=1)
    assert height_of(figure, 25.0) - 8 < label.bounds.bottom <= height_of(figure, 25.0)


def test_areas_stand_on_zero_or_on_each_other() -> None:
    figure = drawn(Area("one", "one", "c2", stack="stacked"), Area("two", "two", "c3", stack="stacked"))
    (shape,) = [item for mark in figure.marks for item in mark.items if mark.key == "one"][:1]
    bounds = shape.path.bounds  # type: ignore[union-attr]
    assert (bounds.y, bounds.bottom) == pytest.approx((height_of(figure, 40), height_of(figure, 0)))
    (shape,) = [item for mark in figure.marks for item in mark.items if mark.key == "two"][:1]
    bounds = shape.path.bounds  # type: ignore[union-attr]
    assert (bounds.y, bounds.bottom) == pytest.approx((height_of(figure, 55), height_of(figure, 10)))


@pytest.mark.parametrize(("by", "power"), [("area", 0.5), ("diameter", 1.0)])
def test_bubbles_are_as_large_as_their_figures(by: str, power: float) -> None:
    rows = table(["a", "x", "y", "s"], ["p", "q", "r"], [1, 2, 3], [10, 20, 30], [4, 16, 9])
    layer = Bubbles("b", "b", "c3", x="c2", sizes="c4", by=by)  # type: ignore[arg-type]
    frame = Cartesian(along=SCALE, across=Scale(minimum=0.0, maximum=4.0))
    figure = free(Chart(frame, (layer,), names="c1"), rows, Size(400, 300)).figure
    widths = {mark.row: mark.bounds.width for mark in figure.marks}
    assert widths[0] / widths[1] == pytest.approx((4 / 16) ** power)
    assert widths[2] / widths[1] == pytest.approx((9 / 16) ** power)
    assert [mark.row for mark in figure.marks] == [1, 2, 0]  # the small before the large
    for mark in figure.marks:
        assert mark.bounds.center[0] == pytest.approx(figure.plot.x + figure.plot.width * (mark.row + 1) / 4)
        assert mark.bounds.width == pytest.approx(mark.bounds.height)


def ringed(*sweeps: float) -> Figure:
    rows = table(["a", "v", "sweep"], ["p", "q", "r"][: len(sweeps)], list(sweeps), list(sweeps))
    layer = Rings("r", "r", "c3", figures="c2", label=Label(), named=True)
    return free(Chart(Polar(hole=0.3, sweep=270.0), (layer,), names="c1"), rows, Size(400, 400)).figure


def test_rings_sweep_as_far_as_their_column_says_and_name_their_rows() -> None:
    figure = ringed(90.0, 180.0, 260.0)
    rings = {mark.row: mark for mark in figure.marks}
    for row, sweep in enumerate((90.0, 180.0, 260.0)):
        sector = rings[row].sector
        assert sector is not None
        assert sector.end - sector.start == pytest.approx(sweep)
    outer = [rings[row].sector.outer for row in range(3)]  # type: ignore[union-attr]
    assert outer == sorted(outer, reverse=True) or outer == sorted(outer)
    assert [text.text for text in texts(figure, "name")] == ["p", "q", "r"]


def test_figures_of_rings_stand_just_beyond_their_ends() -> None:
    figure = ringed(90.0, 180.0)
    for text in texts(figure, "label"):
        sector = next(mark.sector for mark in figure.marks if mark.row == text.row)
        assert sector is not None
        x, y = text.bounds.center
        angle = math.degrees(math.atan2(x - sector.center[0], sector.center[1] - y)) % 360
        radius = math.hypot(x - sector.center[0], y - sector.center[1])
        assert 0 < (angle - sector.end) % 360 < 25
        assert radius == pytest.approx((sector.inner + sector.outer) / 2, rel=0.08)


def test_the_legend_lists_layers_in_their_order_or_its_own_entries() -> None:
    layers = Line("one", "Oak", "c2"), Line("two", "Elm", "c3")
    assert drawn(*layers, legend=Legend(side="right")).legend == ("Oak", "Elm")
    own = Legend(side="right", entries=(Entry("Only", None, 0),))
    figure = drawn(*layers, legend=own)
    assert figure.legend == ("Only",)
    (key,) = figure.keys
    assert key.bounds.x >= figure.plot.right
    assert not drawn(*layers, legend=Legend(side="none")).keys


def test_a_legend_below_breaks_into_lines_and_its_chips_stand_before_their_names() -> None:
    names = [f"A rather long name of series {i}" for i in range(6)]
    figure = drawn(*(Line(name, name, "c2") for name in names), legend=Legend(side="below", title="Series"))
    shown = [text for text in texts(figure, "legend") if text.text.startswith("A")]
    assert len({round(text.bounds.y) for text in shown}) > 1
    for key, text in zip(figure.keys, shown, strict=True):
        assert key.items[0].path.bounds.right < text.bounds.x  # type: ignore[union-attr]
    assert all(text.bounds.right <= figure.size.width for text in shown)


def test_lines_of_a_text_stand_below_each_other_by_the_leading() -> None:
    figure = drawn(Line("v", "v", "c2"), title="One\nTwo", look={"title.size": 20.0})
    (title,) = texts(figure, "title")
    ys = [line.y for line in title.lines]
    assert [b - a for a, b in itertools.pairwise(ys)] == pytest.approx([LEADING * 20])
    assert tall(2, title.face, 20) == pytest.approx(metrics(title.face).cap_height * 20 + LEADING * 20)
    assert title.bounds.height >= tall(2, title.face, 20)


@pytest.mark.parametrize(("align", "at"), [("start", 0.0), ("middle", 0.5), ("end", 1.0)])
def test_titles_stand_left_in_the_middle_or_right(align: str, at: float) -> None:
    figure = drawn(Line("v", "v", "c2"), title="Count", look={"title.align": align})
    (title,) = texts(figure, "title")
    left, right = title.bounds.x, figure.size.width - title.bounds.right
    assert {0.0: left < right, 0.5: abs(left - right) < 1, 1.0: right < left}[at]


def test_texts_stand_above_and_below_the_plot_in_their_order() -> None:
    figure = drawn(Line("v", "v", "c2"), title="Title", subtitle="Subtitle", source="Source")
    title, subtitle, source = (texts(figure, kind)[0].bounds for kind in ("title", "subtitle", "source"))
    assert title.bottom <= subtitle.y + 2
    assert subtitle.bottom <= figure.plot.y + 2
    assert source.y >= figure.plot.bottom
    assert len(marks(free(Chart(Cartesian(along=SCALE), (Line("v", "v", "c2"),), names="c1"), ROWS), "v")) == 3
