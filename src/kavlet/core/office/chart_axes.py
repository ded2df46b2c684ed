"""The axes of a DrawingML chart part (ISO/IEC 29500-1, 21.2.2.25 and 21.2.2.226)."""

from msgspec import Struct

from kavlet.core.office import drawing
from kavlet.core.office.xml import Element, add
from kavlet.core.office_model.chart_model import Axes, AxisModel, ChartModel, TextProperties
from kavlet.core.office_model.number_codes import code
from kavlet.core.values.colour import Colour
from kavlet.core.values.number_text import NumberText

AXES = {"first": ("1001", "1002"), "second": ("2001", "2002"), "overlay": ("2001", "2002")}


class _Stand(Struct, frozen=True):
    """Where an axis stands: its number and that of the one it crosses, its side, whether it crosses that one at its
    end, and whether values lie between the steps or on them."""

    own: str
    other: str
    side: str
    far: bool
    between: str


def axes(parent: Element, pair: Axes, which: str, chart: ChartModel) -> None:
    """A pair of axes: that of names, or of x; then that of values, or of y."""
    one, other = AXES[which]
    groups = [group for group in chart.groups if (group.axes == "first") == (which == "first")]
    numeric = any(group.kind in ("scatter", "bubbles") for group in groups)
    second, lying = which != "first", chart.lying
    flat, upright = (pair.along, pair.across) if numeric and lying else (pair.across, pair.along)
    sides = ("b", "l") if numeric or not lying else ("l", "b")
    areas = any(group.kind == "area" for group in groups) and all(group.kind != "bars" for group in groups)
    between = "midCat" if numeric or areas else "between"
    _axis(parent, flat, _Stand(one, other, sides[0], upright.reversed, between))
    across = {"l": "r", "b": "t"}[sides[1]] if second else sides[1]
    _axis(parent, upright, _Stand(other, one, across, flat.reversed != second, between))


def _axis(parent: Element, axis: AxisModel, stand: _Stand) -> None:
    element = add(parent, "c:catAx" if axis.category else "c:valAx")
    add(element, "c:axId", val=stand.own)
    scale = add(element, "c:scaling")
    if axis.log:
        add(scale, "c:logBase", val=10)
    add(scale, "c:orientation", val="maxMin" if axis.reversed else "minMax")
    if axis.maximum is not None and not axis.category:
        add(scale, "c:max", val=float(axis.maximum))
    if axis.minimum is not None and not axis.category:
        add(scale, "c:min", val=float(axis.minimum))
    add(element, "c:delete", val=not axis.shown)
    add(element, "c:axPos", val=stand.side)
    if axis.grid is not None and axis.shown:
        drawing.line(add(add(element, "c:majorGridlines"), "c:spPr"), axis.grid)
    if axis.title and axis.shown:
        _axis_title(element, axis, stand.side)
    how = axis.number or NumberText()
    ends = [limit for limit in (axis.minimum, axis.maximum, axis.step) if limit is not None]
    add(element, "c:numFmt", formatCode="General" if axis.category else code(how, ends), sourceLinked=False)
    add(element, "c:majorTickMark", val="none")
    add(element, "c:minorTickMark", val="none")
    place = "low" if axis.category else "nextTo"
    add(element, "c:tickLblPos", val=place if axis.labelled and axis.shown else "none")
    drawing.line(add(element, "c:spPr"), axis.line)
    if axis.look is not None:
        drawing.text_body(element, "c:txPr", axis.look)
    add(element, "c:crossAx", val=stand.other)
    add(element, "c:crosses", val="max" if stand.far else "autoZero")
    if axis.category:
        add(element, "c:auto", val=False)
        add(element, "c:lblAlgn", val="ctr")
        add(element, "c:lblOffset", val=60)
        if axis.every > 1:
            add(element, "c:tickLblSkip", val=axis.every)
        add(element, "c:noMultiLvlLbl", val=True)
    else:
        add(element, "c:crossBetween", val=stand.between)
        if axis.step:
            add(element, "c:majorUnit", val=float(axis.step))


def _axis_title(parent: Element, axis: AxisModel, side: str) -> None:
    look = axis.title_look or TextProperties(9.0, Colour(0.3, 0.3, 0.3))
    made = add(parent, "c:title")
    rich = add(add(made, "c:tx"), "c:rich")
    add(rich, "a:bodyPr", rot=-5_400_000 if side == "l" else 0, vert="horz")
    add(rich, "a:lstStyle")
    paragraph = add(rich, "a:p")
    run = add(paragraph, "a:r")
    drawing.look(run, "a:rPr", look)
    add(run, "a:t", axis.title)
    add(made, "c:overlay", val=False)
