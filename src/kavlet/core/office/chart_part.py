"""A plain chart as a DrawingML chart part (ISO/IEC 29500-1, 21.2), its pictures, and the texts drawn over it."""

import math
from collections.abc import Sequence

from msgspec import Struct

from kavlet.core.office import drawing
from kavlet.core.office.chart_axes import AXES, axes
from kavlet.core.office.drawing import texts_over
from kavlet.core.office.worksheets import Worksheets, shown
from kavlet.core.office.xml import Element, add, dumps, root
from kavlet.core.office_model.chart_model import (
    CellRange,
    ChartModel,
    ChartText,
    DataPoint,
    ErrorBars,
    FillModel,
    LabelPlace,
    PictureModel,
    Series,
    SeriesGroup,
    TextProperties,
)
from kavlet.core.office_model.number_codes import code
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import NumberText

MARKERS = {
    "none": "none", "disc": "circle", "square": "square", "diamond": "diamond", "triangle": "triangle", "cross": "x",
    "plus": "plus", "dash": "dash", "picture": "picture",
}  # fmt: skip
ON_BARS: dict[LabelPlace, str] = {"centre": "ctr", "inside end": "inEnd", "inside base": "inBase", "outside": "outEnd"}
ON_POINTS: dict[LabelPlace, str] = {"centre": "ctr", "above": "t", "below": "b", "left": "l", "right": "r"}
ON_PIE: dict[LabelPlace, str] = {"auto": "bestFit", "centre": "ctr", "inside end": "inEnd", "outside": "outEnd"}
KINDS = {
    "bars": "c:barChart", "lines": "c:lineChart", "area": "c:areaChart", "scatter": "c:scatterChart",
    "bubbles": "c:bubbleChart", "pie": "c:pieChart", "rings": "c:doughnutChart",
}  # fmt: skip
GROUPINGS = {"clustered": "clustered", "stacked": "stacked", "share": "percentStacked"}
SHAPES_ID, BOOK_ID = "rId1", "rId2"


class WrittenChart(Struct, frozen=True):
    """The part's XML, its pictures by relation, and the XML of the texts drawn over it, where there are any."""

    xml: bytes
    pictures: tuple[tuple[str, PictureModel], ...]
    shapes: bytes | None


class _Writer:
    """One chart on its way."""

    def __init__(self, chart: ChartModel, worksheets: Worksheets, language: str) -> None:
        self.chart, self.sheets, self.language = chart, worksheets, language
        self.pictures: list[PictureModel] = []
        self.count = 0
        self.unlisted: list[int] = []
        self.solid = chart.view is not None

    def picture(self, of: FillModel | None) -> str:
        """The relation of a picture."""
        if not isinstance(of, PictureModel):
            return ""
        if of not in self.pictures:
            self.pictures.append(of)
        return f"rId{self.pictures.index(of) + 3}"

    # References

    def strings(self, parent: Element, short: str, cells: CellRange) -> None:
        """A reference to texts, with the texts."""
        made = add(add(parent, short), "c:strRef")
        self._texts(made, cells)

    def _texts(self, made: Element, cells: CellRange) -> None:
        add(made, "c:f", self.sheets.where(cells))
        held = add(made, "c:strCache")
        add(held, "c:ptCount", val=cells.count)
        for index, value in enumerate(self.sheets.held(cells)):
            text = shown(value)
            if text:
                add(add(held, "c:pt", idx=index), "c:v", text)

    def numbers(self, parent: Element, short: str, cells: CellRange) -> None:
        """A reference to numbers, with the numbers."""
        made = add(add(parent, short), "c:numRef")
        add(made, "c:f", self.sheets.where(cells))
        held = add(made, "c:numCache")
        add(held, "c:formatCode", "General")
        add(held, "c:ptCount", val=cells.count)
        for index, number in enumerate(self.sheets.numbers(cells)):
            if math.isfinite(number):
                add(add(held, "c:pt", idx=index), "c:v", f"{number:.15g}")

    # Looks

    def looks(self, parent: Element, fill: FillModel | None, line: object, own_line: bool = True) -> None:
        """Fill and line of a part."""
        from kavlet.core.office_model.chart_model import Stroke

        made = add(parent, "c:spPr")
        drawing.fill(made, fill, self.picture(fill))
        if own_line:
            drawing.line(made, line if isinstance(line, Stroke) else None)

    def picture_options(self, parent: Element, fill: FillModel | None) -> None:
        """How a picture fills a part."""
        if isinstance(fill, PictureModel):
            made = add(parent, "c:pictureOptions")
            add(made, "c:pictureFormat", val={"stretch": "stretch", "stack": "stack", "scale": "stackScale"}[fill.how])
            if fill.how == "scale":
                add(made, "c:pictureStackUnit", val=float(max(1e-9, fill.unit)))

    # Series

    def series(self, parent: Element, group: SeriesGroup, series: Series) -> None:
        """One series."""
        made = add(parent, "c:ser")
        number, self.count = self.count, self.count + 1
        if not series.listed:
            self.unlisted.append(number)
        add(made, "c:idx", val=number)
        add(made, "c:order", val=number)
        self.strings(made, "c:tx", series.name)
        kind = group.kind
        if kind in ("lines", "scatter"):
            self.looks(made, None, series.line)
            self._marker(made, series)
        else:
            self.looks(made, series.fill, series.line)
        if kind in ("bars", "bubbles"):
            add(made, "c:invertIfNegative", val=False)
        if kind in ("bars", "area"):
            self.picture_options(made, series.fill)
        for point in series.points:
            self._point(made, kind, series, point)
        self._labels(made, group, series)
        if series.errors is not None and kind in ("bars", "lines", "scatter", "bubbles", "area"):
            self._errors(made, kind, series.errors)
        if kind in ("scatter", "bubbles"):
            if series.x is not None:
                self.numbers(made, "c:xVal", series.x)
            self.numbers(made, "c:yVal", series.values)
        else:
            if series.names is not None:
                self.strings(made, "c:cat", series.names)
            self.numbers(made, "c:val", series.values)
        if kind == "bubbles" and series.sizes is not None:
            self.numbers(made, "c:bubbleSize", series.sizes)
            add(made, "c:bubble3D", val=False)
        if kind in ("lines", "scatter"):
            add(made, "c:smooth", val=series.smooth)
        if kind == "bars" and self.solid:
            add(made, "c:shape", val=series.shape)

    def _marker(self, parent: Element, series: Series) -> None:
        made = add(parent, "c:marker")
        add(made, "c:symbol", val=MARKERS[series.marker])
        if series.marker == "none":
            return
        add(made, "c:size", val=max(2, min(72, round(series.marker_size))))
        self.looks(made, series.marker_picture or series.fill, series.marker_edge)

    def _point(self, parent: Element, kind: str, series: Series, point: DataPoint) -> None:
        made = add(parent, "c:dPt")
        add(made, "c:idx", val=point.index)
        if kind in ("bars", "bubbles"):
            add(made, "c:invertIfNegative", val=False)
        if kind in ("lines", "scatter"):
            marker = add(made, "c:marker")
            add(marker, "c:symbol", val=MARKERS[series.marker])
            add(marker, "c:size", val=max(2, min(72, round(series.marker_size))))
            self.looks(marker, series.marker_picture or point.fill, point.edge or series.marker_edge)
        add(made, "c:bubble3D", val=False)
        if kind in ("pie", "rings") and point.explode:
            add(made, "c:explosion", val=max(0, min(400, round(point.explode))))
        if kind not in ("lines", "scatter"):
            self.looks(made, point.fill, point.edge)
            if kind == "bars":
                self.picture_options(made, point.fill)

    # Labels

    def _labels(self, parent: Element, group: SeriesGroup, series: Series) -> None:
        labels = series.labels
        if not labels.points and not labels.shown:
            return
        element = add(parent, "c:dLbls")
        places = self._places(group)
        count = series.values.count
        if labels.shown:
            for index in range(count):
                if index not in labels.shown:
                    dropped = add(element, "c:dLbl")
                    add(dropped, "c:idx", val=index)
                    add(dropped, "c:delete", val=True)
            how = labels.number or NumberText()
            shown_numbers = [number for i, number in enumerate(self.sheets.numbers(series.values)) if i in labels.shown]
            add(element, "c:numFmt", formatCode=code(how, shown_numbers), sourceLinked=False)
            self._bare(element)
            if labels.look is not None:
                drawing.text_body(element, "c:txPr", labels.look)
            self._placed(element, labels.place, places)
            self._shows(element, value=True)
            return
        for label in labels.points:
            each = add(element, "c:dLbl")
            add(each, "c:idx", val=label.index)
            self.strings(each, "c:tx", label.text)
            self._bare(each)
            drawing.text_body(each, "c:txPr", label.look)
            self._placed(each, label.place, places)
            self._shows(each, value=True)
        self._shows(element, value=False)

    def _bare(self, parent: Element) -> None:
        made = add(parent, "c:spPr")
        drawing.fill(made, None)
        drawing.line(made, None)

    def _places(self, group: SeriesGroup) -> dict[LabelPlace, str]:
        """The places that a type of chart has for labels."""
        if self.solid or group.kind in ("rings", "area"):
            return ON_PIE if group.kind == "pie" else {}
        if group.kind == "bars":
            clustered = group.grouping == "clustered"
            return ON_BARS if clustered else {key: one for key, one in ON_BARS.items() if key != "outside"}
        return ON_PIE if group.kind == "pie" else ON_POINTS

    def _placed(self, parent: Element, place: LabelPlace, places: dict[LabelPlace, str]) -> None:
        if place in places:
            add(parent, "c:dLblPos", val=places[place])

    def _shows(self, parent: Element, value: bool) -> None:
        for what in ("LegendKey", "Val", "CatName", "SerName", "Percent", "BubbleSize"):
            add(parent, f"c:show{what}", val=value and what == "Val")

    def _errors(self, parent: Element, kind: str, of: ErrorBars) -> None:
        made = add(parent, "c:errBars")
        if kind in ("scatter", "bubbles"):
            add(made, "c:errDir", val="x" if of.across else "y")
        add(made, "c:errBarType", val="both" if of.plus and of.minus else "plus" if of.plus else "minus")
        add(made, "c:errValType", val="cust")
        add(made, "c:noEndCap", val=not of.caps)
        for short, cells in (("c:plus", of.plus), ("c:minus", of.minus)):
            if cells is not None:
                self.numbers(made, short, cells)
        look = add(made, "c:spPr")
        drawing.line(look, of.line)

    # Groups

    def group(self, parent: Element, group: SeriesGroup) -> None:
        """All series of one type."""
        kind = group.kind
        short = KINDS[kind]
        if self.solid and kind in ("bars", "pie"):
            short = short.replace("Chart", "3DChart")
        made = add(parent, short)
        if kind == "bars":
            add(made, "c:barDir", val="bar" if self.chart.lying else "col")
        if kind in ("bars", "area"):
            plain = "standard" if kind == "area" else "clustered"
            shared = (
                self.solid and kind == "bars" and group.overlap >= 100
            )  # bodies at one place, one of them in each row
            how = "stacked" if shared and group.grouping == "clustered" else GROUPINGS[group.grouping]
            add(made, "c:grouping", val=how if how != "clustered" else plain)
        if kind == "lines":
            add(made, "c:grouping", val="standard")
        if kind == "scatter":
            add(made, "c:scatterStyle", val="lineMarker")
        add(made, "c:varyColors", val=kind in ("pie", "rings"))
        for series in group.series:
            self.series(made, group, series)
        if kind == "bars":
            add(made, "c:gapWidth", val=max(0, min(500, round(group.gap))))
            if self.solid:
                add(made, "c:gapDepth", val=max(0, min(500, round(group.gap))))
                add(made, "c:shape", val=group.series[0].shape)
            else:
                add(made, "c:overlap", val=max(-100, min(100, round(group.overlap))))
        if kind == "lines":
            add(made, "c:marker", val=True)
        if kind == "bubbles":
            add(made, "c:bubbleScale", val=max(1, min(300, round(group.bubble_scale))))
            add(made, "c:showNegBubbles", val=False)
            add(made, "c:sizeRepresents", val="area" if group.by_area else "w")
        if kind in ("pie", "rings"):
            if not (self.solid and kind == "pie"):
                add(made, "c:firstSliceAng", val=round(group.first_angle) % 360)
            if kind == "rings":
                add(made, "c:holeSize", val=max(1, min(90, round(group.hole))))
            return
        for axis in AXES[group.axes]:
            add(made, "c:axId", val=axis)
        if kind == "bars" and self.solid:
            add(made, "c:axId", val="0")

    # The chart

    def made(self) -> Element:
        """The whole part."""
        chart = self.chart
        space = root("c:chartSpace", ("c", "a", "r"))
        add(space, "c:date1904", val=False)
        add(space, "c:lang", val=self.language)
        add(space, "c:roundedCorners", val=False)
        inner = add(space, "c:chart")
        if chart.title is not None:
            self._title(inner, chart.title)
        add(inner, "c:autoTitleDeleted", val=chart.title is None)
        if chart.view is not None:
            self._view(inner)
        plot = add(inner, "c:plotArea")
        _layout(plot, chart.plot, "inner")
        # Ranks of painting: areas, bars, lines, then points over all
        for group in sorted(chart.groups, key=lambda one: ("area bars pie rings bubbles lines scatter").find(one.kind)):
            self.group(plot, group)
        if chart.first is not None:
            axes(plot, chart.first, "first", chart)
        if chart.second is not None:
            axes(plot, chart.second, "second", chart)
        self.looks(plot, chart.plot_ground, None)
        self._legend(inner)
        add(inner, "c:plotVisOnly", val=False)
        add(inner, "c:dispBlanksAs", val=chart.blanks)
        self.looks(space, chart.ground, None)
        drawing.text_body(space, "c:txPr", TextProperties(10.0, _ink(chart.ground), family=chart.family))
        return space

    def _title(self, parent: Element, words: ChartText) -> None:
        made = add(parent, "c:title")
        text = add(made, "c:tx")
        if words.cell is not None:
            self._texts(add(text, "c:strRef"), words.cell)
        else:
            rich = add(text, "c:rich")
            add(rich, "a:bodyPr")
            add(rich, "a:lstStyle")
            for part in words.text.split("\n"):
                paragraph = add(rich, "a:p")
                add(paragraph, "a:pPr", algn={"start": "l", "middle": "ctr", "end": "r"}[words.align])
                run = add(paragraph, "a:r")
                drawing.look(run, "a:rPr", words.look)
                add(run, "a:t", part)
        if words.align == "start":
            _layout(made, Rect(words.box.x, words.box.y, 0.0, 0.0), "", sized=False)
        add(made, "c:overlay", val=False)
        if words.cell is not None:
            drawing.text_body(made, "c:txPr", words.look)

    def _view(self, parent: Element) -> None:
        view = self.chart.view
        assert view is not None
        made = add(parent, "c:view3D")
        add(made, "c:rotX", val=max(-90, min(90, round(view.tilt))))
        add(made, "c:rotY", val=round(-view.turn) % 360)
        add(made, "c:depthPercent", val=max(20, min(2000, round(view.depth))))
        add(made, "c:rAngAx", val=False)
        add(made, "c:perspective", val=max(0, min(240, round(120 * view.perspective))))

    def _legend(self, parent: Element) -> None:
        chart = self.chart
        if chart.legend is None:
            return
        made = add(parent, "c:legend")
        box = chart.legend
        side = "t" if box.y + box.height < chart.plot.y + 0.05 else "b" if box.y > 0.8 else "r"
        add(made, "c:legendPos", val=side)
        for index in self._unlisted():
            entry = add(made, "c:legendEntry")
            add(entry, "c:idx", val=index)
            add(entry, "c:delete", val=True)
        _layout(made, box, "")
        add(made, "c:overlay", val=False)
        if chart.legend_look is not None:
            drawing.text_body(made, "c:txPr", chart.legend_look)

    def _unlisted(self) -> list[int]:
        """The entries that are taken out: of a pie or rings its unseen points, else the series that are not listed."""
        round_ = [group for group in self.chart.groups if group.kind in ("pie", "rings")]
        if round_:
            return [point.index for point in round_[0].series[0].points if point.fill is None]
        return self.unlisted


def _ink(ground: Colour) -> Colour:
    dark = 0.3 * ground.red + 0.59 * ground.green + 0.11 * ground.blue < 0.5
    return Colour(0.93, 0.93, 0.93) if dark else Colour(0.15, 0.15, 0.15)


def _layout(parent: Element, box: Rect, target: str, sized: bool = True) -> None:
    made = add(add(parent, "c:layout"), "c:manualLayout")
    if target:
        add(made, "c:layoutTarget", val=target)
    add(made, "c:xMode", val="edge")
    add(made, "c:yMode", val="edge")
    parts: Sequence[tuple[str, float]] = (("x", box.x), ("y", box.y))
    if sized:
        parts = (*parts, ("w", box.width), ("h", box.height))
    for key, value in parts:
        add(made, f"c:{key}", val=round(max(0.0, min(1.0, value)), 6))


def chart_part(chart: ChartModel, worksheets: Worksheets, language: str, linked: bool) -> WrittenChart:
    """The part of a chart whose cells stand in those sheets; `linked` where they are in a workbook of its own."""
    writer = _Writer(chart, worksheets, language)
    space = writer.made()
    if linked:
        add(add(space, "c:externalData", r_id=BOOK_ID), "c:autoUpdate", val=False)
    shapes = texts_over(chart.texts)
    if shapes is not None:
        add(space, "c:userShapes", r_id=SHAPES_ID)
    held = tuple((f"rId{i + 3}", one) for i, one in enumerate(writer.pictures))
    return WrittenChart(dumps(space), held, shapes)
