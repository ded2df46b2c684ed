"""What a chart model says, read back from its chart document (ISO/IEC 26300-3, 11 and 20), statement by statement."""

from typing import Any

import pytest
from lxml import etree

from kavlet.core.office.odf_chart import odf_chart
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office_model.chart_model import (
    Axes,
    AxisModel,
    ChartModel,
    DataPoint,
    ErrorBars,
    SeriesGroup,
    Stroke,
    TextProperties,
    View3D,
)
from kavlet.core.values.geometry import Rect
from tests.core.office.models import BLACK, RED, TABLE, bars, cells, model, series

CHART = "{urn:oasis:names:tc:opendocument:xmlns:chart:1.0}"
STYLE = "{urn:oasis:names:tc:opendocument:xmlns:style:1.0}"


class Read:
    """A chart document read back: elements, and the chart properties of their styles."""

    def __init__(self, chart: ChartModel) -> None:
        made = odf_chart(chart, sheets_for([TABLE], [chart], all_tables=True), lambda scene, scale: b"")  # noqa: ARG005
        self.tree = etree.fromstring(made.parts["content.xml"][0])
        self.styles = {one.get(f"{STYLE}name"): one for one in self.tree.iter(f"{STYLE}style")}

    def all(self, name: str) -> list[Any]:
        return list(self.tree.iter(f"{CHART}{name}"))

    def properties(self, element: Any) -> dict[str, str]:
        """The properties of an element's style, by their local names, of all families."""
        style = self.styles[element.get(f"{CHART}style-name")]
        return {name.rpartition("}")[2]: value for child in style for name, value in child.attrib.items()}

    def plot(self) -> dict[str, str]:
        return self.properties(self.all("plot-area")[0])


@pytest.mark.parametrize(
    ("grouping", "stacked", "percentage"),
    [("clustered", "false", "false"), ("stacked", "true", "false"), ("share", "false", "true")],
)
def test_bars_stand_beside_on_each_other_or_as_shares(grouping: Any, stacked: str, percentage: str) -> None:
    plot = Read(model(bars(series(1), series(2), grouping=grouping))).plot()
    assert (plot["stacked"], plot["percentage"]) == (stacked, percentage)


def test_lying_bars_lie() -> None:
    assert Read(model(bars(), lying=True)).plot()["vertical"] == "true"
    assert Read(model(bars())).plot()["vertical"] == "false"


def test_gaps_and_overlaps_are_those_of_the_group() -> None:
    read = Read(model(bars(gap=80.0, overlap=-20.0)))
    axis = next(one for one in read.all("axis") if one.get(f"{CHART}dimension") == "y")
    held = read.properties(axis)
    assert (held["gap-width"], held["overlap"]) == ("80", "-20")


def test_axes_end_and_step_where_they_do_here() -> None:
    read = Read(model(bars()))
    held = read.properties(next(one for one in read.all("axis") if one.get(f"{CHART}dimension") == "y"))
    assert (held["minimum"], held["maximum"], held["interval-major"]) == ("0", "50", "10")
    assert held["logarithmic"] == "false"


def test_a_turned_round_logarithmic_scale_is_one() -> None:
    axes = Axes(AxisModel(category=True), AxisModel(log=True, reversed=True))
    read = Read(model(bars(), first=axes))
    held = read.properties(next(one for one in read.all("axis") if one.get(f"{CHART}dimension") == "y"))
    assert (held["logarithmic"], held["reverse-direction"]) == ("true", "true")


@pytest.mark.parametrize(("up", "down"), [(True, False), (False, True), (True, True)])
def test_errors_reach_the_way_they_do_here(up: bool, down: bool) -> None:
    errors = ErrorBars(cells(2) if up else None, cells(2) if down else None, Stroke(BLACK, 1.0))
    read = Read(model(bars(series(errors=errors))))
    (indicator,) = read.all("error-indicator")
    held = read.properties(indicator)
    assert held["error-upper-indicator"] == str(up).lower()
    assert held["error-lower-indicator"] == str(down).lower()
    assert ("error-upper-range" in held, "error-lower-range" in held) == (up, down)
    assert indicator.get(f"{CHART}dimension") == "y"


@pytest.mark.parametrize(("first", "written"), [(0.0, "90"), (90.0, "0"), (180.0, "270"), (270.0, "180")])
def test_rings_begin_where_they_do_here(first: float, written: str) -> None:
    """Angles there go against the clock, from the right (ISO/IEC 26300-3, 20.3)."""
    ring = SeriesGroup(kind="rings", series=(series(),), first_angle=first)
    read = Read(model(ring, first=None))
    assert read.plot()["angle-offset"] == written
    assert read.all("chart")[0].get(f"{CHART}class") == "chart:ring"


def test_a_slice_that_is_not_seen_has_no_fill() -> None:
    points = (DataPoint(0, RED), DataPoint(1, None), DataPoint(2, RED))
    read = Read(model(SeriesGroup(kind="pie", series=(series(points=points),)), first=None))
    fills = [read.properties(one)["fill"] for one in read.all("data-point") if one.get(f"{CHART}style-name")]
    assert fills == ["solid", "none", "solid"]


def test_a_solid_is_said_to_be_one_and_how_its_bars_look() -> None:
    read = Read(model(bars(series(shape="cylinder")), view=View3D(20.0, 15.0, 0.3, 100.0)))
    assert read.plot()["three-dimensional"] == "true"
    assert read.properties(read.all("series")[0])["solid-type"] == "cylinder"
    assert Read(model(bars())).plot()["three-dimensional"] == "false"


def test_series_stand_on_their_own_axis() -> None:
    second = bars(series(2), axes="second")
    axes = Axes(AxisModel(category=True), AxisModel(minimum=0.0, maximum=10.0))
    read = Read(model(bars(series(1)), second, second=axes))
    attached = [one.get(f"{CHART}attached-axis") for one in read.all("series")]
    assert attached == ["primary-y", "secondary-y"]


@pytest.mark.parametrize(("blanks", "written"), [("gap", "leave-gap"), ("span", "ignore"), ("zero", "use-zero")])
def test_gaps_in_lines_are_treated_as_here(blanks: Any, written: str) -> None:
    line = SeriesGroup(kind="lines", series=(series(fill=None, line=Stroke(RED, 2.0)),))
    assert Read(model(line, blanks=blanks)).plot()["treat-empty-cells"] == written


def test_there_is_a_legend_where_there_is_one_here() -> None:
    legend = {"legend": Rect(0.0, 0.9, 1.0, 0.1), "legend_look": TextProperties(9.0, BLACK)}
    assert len(Read(model(bars(), **legend)).all("legend")) == 1
    assert Read(model(bars())).all("legend") == []


def test_values_stand_in_a_table_of_the_chart_s_own_below_their_names() -> None:
    read = Read(model(bars(series(1), series(2))))
    addresses = [one.get(f"{CHART}values-cell-range-address") for one in read.all("series")]
    assert len(set(addresses)) == 2
    assert all(one.startswith("local-table.$") and one.endswith("4") for one in addresses)
    assert [one.get(f"{CHART}label-cell-address").partition(":")[2] for one in read.all("series")] == ["", ""]


def test_runs_of_plain_points_are_counted() -> None:
    """Every point has its element, plain ones together (ISO/IEC 26300-3, 11.17)."""
    for index, counts in ((0, [None, "2"]), (1, ["1", None, "1"]), (2, ["2", None])):
        read = Read(model(bars(series(points=(DataPoint(index, BLACK),)))))
        assert [one.get(f"{CHART}repeated") for one in read.all("data-point")] == counts


def test_slices_are_drawn_out_as_here_and_bars_are_not() -> None:
    points = (DataPoint(0, RED, explode=12.4),)
    pie = Read(model(SeriesGroup(kind="pie", series=(series(points=points),)), first=None))
    assert pie.properties(pie.all("data-point")[0])["pie-offset"] == "12"
    upright = Read(model(bars(series(points=points))))
    assert "pie-offset" not in upright.properties(upright.all("data-point")[0])


def test_grids_are_where_they_are_drawn_here() -> None:
    gridded = Axes(AxisModel(category=True), AxisModel(grid=Stroke(BLACK, 0.5), title="guests"))
    read = Read(model(bars(), first=gridded))
    assert [one.get(f"{CHART}class") for one in read.all("grid")] == ["major"]
    hidden = Axes(AxisModel(category=True), AxisModel(grid=Stroke(BLACK, 0.5), title="guests", shown=False))
    assert Read(model(bars(), first=hidden)).all("grid") == []
