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
