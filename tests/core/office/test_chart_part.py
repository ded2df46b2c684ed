"""What a chart model says, read back from its DrawingML part (ISO/IEC 29500-1, 21.2), statement by statement."""

from typing import Any

import pytest
from lxml import etree

from kavlet.core.office.chart_part import chart_part
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office_model.chart_model import (
    Axes,
    AxisModel,
    ChartModel,
    DataPoint,
    ErrorBars,
    LabelPlace,
    Labels,
    SeriesGroup,
    Stroke,
    TextProperties,
    View3D,
)
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import PLAIN
from tests.core.office.models import BLACK, RED, TABLE, bars, cells, model, series

C = "{http://schemas.openxmlformats.org/drawingml/2006/chart}"
A = "{http://schemas.openxmlformats.org/drawingml/2006/main}"


def part(chart: ChartModel) -> Any:
    written = chart_part(chart, sheets_for([TABLE], [chart], all_tables=True), "en-US", True)
    return etree.fromstring(written.xml)


def value(tree: Any, path: str) -> str | None:
    found = tree.find(".//" + "/".join(C + step for step in path.split("/")))
    return None if found is None else found.get("val")


@pytest.mark.parametrize(("turn", "written"), [(20.0, "340"), (-30.0, "30"), (0.0, "0"), (170.0, "190")])
def test_a_solid_is_turned_as_on_the_stage(turn: float, written: str) -> None:
    """Right is positive here; rotY turns the other way, from 0 to 360 (21.2.2.157)."""
    tree = part(model(bars(), view=View3D(turn, 15.0, 0.3, 100.0)))
    assert value(tree, "view3D/rotY") == written
    assert value(tree, "view3D/rotX") == "15"


@pytest.mark.parametrize("caps", [True, False])
def test_error_bars_have_the_caps_they_should(caps: bool) -> None:
    errors = ErrorBars(cells(2), None, Stroke(BLACK, 1.0), caps=caps)
    tree = part(model(bars(series(errors=errors))))
    assert value(tree, "errBars/noEndCap") == ("0" if caps else "1")
    assert value(tree, "errBars/errBarType") == "plus"
    assert value(tree, "errBars/errDir") in (None, "y")
    assert tree.findtext(f".//{C}errBars/{C}plus//{C}f") == "'Gates'!$C$2:$C$4"


def test_the_legend_names_what_is_listed_and_no_helper() -> None:
    tree = part(model(bars(series(2, listed=False, fill=None), series(1)), legend=Rect(0.0, 0.9, 1.0, 0.1),
                      legend_look=TextProperties(9.0, BLACK)))  # fmt: skip
    entries = tree.findall(f".//{C}legend/{C}legendEntry")
    assert [(value(one, "idx"), value(one, "delete")) for one in entries] == [("0", "1")]


def test_slices_that_are_not_seen_are_not_in_the_legend() -> None:
    ring = series(points=(DataPoint(0, RED), DataPoint(1, None), DataPoint(2, RED)))
    group = SeriesGroup(kind="rings", series=(ring,), hole=60.0, first_angle=90.0)
    tree = part(model(group, first=None, legend=Rect(0.0, 0.9, 1.0, 0.1), legend_look=TextProperties(9.0, BLACK)))
    assert [value(one, "idx") for one in tree.findall(f".//{C}legendEntry")] == ["1"]
    assert value(tree, "doughnutChart/holeSize") == "60"
    assert value(tree, "doughnutChart/firstSliceAng") == "90"


@pytest.mark.parametrize("place", ["outside", "inside end", "centre"])
@pytest.mark.parametrize("grouping", ["clustered", "stacked", "share"])
def test_labels_stand_where_bars_of_that_grouping_may_have_them(grouping: Any, place: LabelPlace) -> None:
    """`outEnd` is for clustered bars alone (21.2.2.48); a program repairs a file that has it elsewhere."""
    labels = Labels(shown=(0, 1), number=PLAIN, look=TextProperties(9.0, BLACK), place=place)
    tree = part(model(bars(series(labels=labels), grouping=grouping, overlap=100.0 if grouping != "clustered" else 0)))
    found = {one.get("val") for one in tree.iter(f"{C}dLblPos")}
    assert ("outEnd" in found) == (grouping == "clustered" and place == "outside")
    assert value(tree, "barChart/grouping") == {"share": "percentStacked"}.get(grouping, grouping)


@pytest.mark.parametrize(("overlap", "written"), [(-20.0, "-20"), (100.0, "100"), (-150.0, "-100"), (35.4, "35")])
def test_bars_keep_apart_or_overlap_as_they_do_here(overlap: float, written: str) -> None:
    tree = part(model(bars(overlap=overlap, gap=80.0)))
    assert value(tree, "barChart/overlap") == written
    assert value(tree, "barChart/gapWidth") == "80"


def test_caches_hold_numbers_alone() -> None:
    """A cell without a value is a gap: it has no point, as there is no number for it."""
    tree = part(model(bars()))
    cache = tree.find(f".//{C}val//{C}numCache")
    assert [(one.get("idx"), one.findtext(f"{C}v")) for one in cache.findall(f"{C}pt")] == [("0", "40"), ("1", "25")]
    assert value(cache, "ptCount") is None or cache.find(f"{C}ptCount").get("val") == "3"


@pytest.mark.parametrize(("dash", "written"), [("dash", "dash"), ("dot", "sysDot"), ("solid", None)])
def test_lines_are_dashed_as_here(dash: Any, written: str | None) -> None:
    group = SeriesGroup(kind="lines", series=(series(fill=None, line=Stroke(RED, 2.0, dash)),))
    tree = part(model(group))
    line = tree.find(f".//{C}ser/{C}spPr/{A}ln")
    found = line.find(f"{A}prstDash")
    assert line.get("w") == "25400"
    assert (found.get("val") if found is not None and found.get("val") != "solid" else None) == written


def test_bubbles_are_as_large_as_here() -> None:
    group = SeriesGroup(kind="bubbles", series=(series(x=cells(1), sizes=cells(2)),), bubble_scale=140.0, by_area=True)
    numeric = Axes(AxisModel(), AxisModel())
    tree = part(model(group, first=numeric))
    assert value(tree, "bubbleChart/bubbleScale") == "140"
    assert value(tree, "bubbleChart/sizeRepresents") in (None, "area")


def test_axes_end_and_step_where_they_do_here() -> None:
    tree = part(model(bars()))
    assert [value(tree, f"valAx/scaling/{end}") for end in ("min", "max")] == ["0", "50"]
    assert value(tree, "valAx/majorUnit") == "10"


def children(tree: Any, path: str) -> list[str]:
    """The names of what an element holds, in their order, which the schema fixes."""
    found = tree.find(".//" + "/".join(C + step for step in path.split("/")))
    return [one.tag.rpartition("}")[2] for one in found]


def test_series_refer_to_names_values_and_categories_in_their_order() -> None:
    tree = part(model(bars(series(1), series(2))))
    assert [one.get("val") for one in tree.iter(f"{C}idx")] == ["0", "1"]
    assert [one.findtext(f".//{C}f") for one in tree.iter(f"{C}tx") if one.find(f".//{C}f") is not None] == [
        "'Gates'!$B$1", "'Gates'!$C$1",
    ]  # fmt: skip
    assert {one.findtext(f".//{C}f") for one in tree.iter(f"{C}cat")} == {"'Gates'!$A$2:$A$4"}
    assert [one.findtext(f".//{C}f") for one in tree.iter(f"{C}val")] == ["'Gates'!$B$2:$B$4", "'Gates'!$C$2:$C$4"]
    assert value(tree, "barChart/ser/invertIfNegative") == "0"


@pytest.mark.parametrize("kind", ["lines", "area", "bars", "pie"])
def test_series_of_names_have_categories_and_no_places(kind: Any) -> None:
    tree = part(model(SeriesGroup(kind=kind, series=(series(),)), first=None if kind == "pie" else model(bars()).first))
    assert tree.find(f".//{C}cat") is not None
    assert tree.find(f".//{C}xVal") is None
    assert (tree.find(f".//{C}invertIfNegative") is not None) == (kind == "bars")
    assert (tree.find(f".//{C}smooth") is not None) == (kind == "lines")
    assert value(tree, f"{ {'pie': 'pie', 'lines': 'line', 'area': 'area', 'bars': 'bar'}[kind] }Chart/varyColors") == (
        "1" if kind == "pie" else "0"
    )
    assert bool(list(tree.iter(f"{C}axId"))) == (kind != "pie")


@pytest.mark.parametrize("kind", ["scatter", "bubbles"])
def test_series_of_places_have_these_and_no_categories(kind: Any) -> None:
    group = SeriesGroup(kind=kind, series=(series(2, x=cells(1), sizes=cells(2), smooth=True),))
    tree = part(model(group, first=Axes(AxisModel(), AxisModel())))
    assert tree.find(f".//{C}cat") is None
    assert tree.findtext(f".//{C}xVal//{C}f") == "'Gates'!$B$2:$B$4"
    assert tree.findtext(f".//{C}yVal//{C}f") == "'Gates'!$C$2:$C$4"
    assert (tree.find(f".//{C}bubbleSize") is not None) == (kind == "bubbles")
    assert value(tree, "ser/smooth") == ("1" if kind == "scatter" else None)


@pytest.mark.parametrize(("size", "written"), [(9.4, "9"), (1.0, "2"), (99.0, "72")])
def test_markers_are_as_large_as_here_within_what_the_standard_has(size: float, written: str) -> None:
    """2 to 72 points (21.2.3.24)."""
    group = SeriesGroup(kind="lines", series=(series(line=Stroke(RED, 1.0), marker="disc", marker_size=size),))
    tree = part(model(group))
    assert value(tree, "ser/marker/size") == written
    assert value(tree, "ser/marker/symbol") == "circle"
    bare = part(model(SeriesGroup(kind="lines", series=(series(line=Stroke(RED, 1.0)),))))
    assert children(bare, "ser/marker") == ["symbol"]


def test_points_have_looks_of_their_own() -> None:
    points = (DataPoint(1, None, explode=12.4),)
    tree = part(model(SeriesGroup(kind="pie", series=(series(points=points),)), first=None))
    (point,) = tree.iter(f"{C}dPt")
    assert (value(point, "idx"), value(point, "explosion")) == ("1", "12")
    assert point.find(f"{C}spPr/{A}noFill") is not None
    tree = part(model(bars(series(points=(DataPoint(2, RED, explode=50.0),)))))
    (point,) = tree.iter(f"{C}dPt")
    assert value(point, "explosion") is None
    assert value(point, "invertIfNegative") == "0"
    assert point.find(f"{C}spPr/{A}solidFill/{A}srgbClr").get("val") == "FF0000"
    group = SeriesGroup(kind="lines", series=(series(line=Stroke(RED, 1.0), marker="square", points=points),))
    (point,) = part(model(group)).iter(f"{C}dPt")
    assert value(point, "marker/symbol") == "square"
    assert point.find(f"{C}spPr") is None


@pytest.mark.parametrize("lying", [True, False])
def test_bars_lie_or_stand(lying: bool) -> None:
    assert value(part(model(bars(), lying=lying)), "barChart/barDir") == ("bar" if lying else "col")


def test_solid_bars_are_of_their_body_and_share_a_place_only_where_they_do_here() -> None:
    view = View3D(0.0, 0.0, 0.0, 100.0)
    tree = part(model(bars(series(shape="cone"), overlap=0.0, gap=70.0), view=view))
    assert value(tree, "bar3DChart/grouping") == "clustered"
    assert value(tree, "bar3DChart/ser/shape") == value(tree, "bar3DChart/shape") == "cone"
    assert value(tree, "bar3DChart/gapDepth") == "70"
    assert tree.find(f".//{C}overlap") is None
    assert value(part(model(bars(overlap=100.0), view=view)), "bar3DChart/grouping") == "stacked"
    assert value(part(model(bars(overlap=100.0))), "barChart/grouping") == "clustered"
    flat = part(model(bars()))
    assert (flat.find(f".//{C}view3D"), flat.find(f".//{C}shape")) == (None, None)


def test_areas_beside_each_other_are_said_to_be_so() -> None:
    """An area chart has no clusters (21.2.2.76)."""
    tree = part(model(SeriesGroup(kind="area", series=(series(),))))
    assert value(tree, "areaChart/grouping") == "standard"
    assert value(part(model(SeriesGroup(kind="area", series=(series(),), grouping="share"))), "areaChart/grouping") == (
        "percentStacked"
    )


@pytest.mark.parametrize(("hole", "written"), [(55.0, "55"), (0.0, "1"), (99.0, "90")])
def test_holes_are_as_wide_as_the_standard_has_them(hole: float, written: str) -> None:
    """1 to 90 percent (21.2.3.13)."""
    tree = part(model(SeriesGroup(kind="rings", series=(series(),), hole=hole), first=None))
    assert value(tree, "doughnutChart/holeSize") == written


def test_plots_stand_where_they_do_here() -> None:
    tree = part(model(bars(), plot=Rect(0.1, 0.2, 0.7, 0.6)))
    layout = tree.find(f".//{C}plotArea/{C}layout/{C}manualLayout")
    assert {key: value(layout, key) for key in "xywh"} == {"x": "0.1", "y": "0.2", "w": "0.7", "h": "0.6"}
    assert value(layout, "layoutTarget") == "inner"
