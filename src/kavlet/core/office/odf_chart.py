"""A plain chart as a chart document of ODF 1.3 (ISO/IEC 26300-3, 11): its parts, by their names."""

import math
from collections.abc import Callable

import msgspec
from lxml import etree
from msgspec import Struct

from kavlet.core.messages import Message, say
from kavlet.core.office.odf import Element, add, dumps, filled_pictures, name, paragraphs, points, put, root
from kavlet.core.office.odf_fills import Fills
from kavlet.core.office.package import Paint
from kavlet.core.office.worksheets import Worksheets, shown
from kavlet.core.office_model.chart_model import (
    AxisModel,
    CellRange,
    ChartModel,
    ChartText,
    LabelPlace,
    Series,
    SeriesGroup,
    TextProperties,
)
from kavlet.core.spreadsheet.references import column_letters

CLASSES = {
    "bars": "chart:bar", "lines": "chart:line", "area": "chart:area", "scatter": "chart:scatter",
    "bubbles": "chart:bubble", "pie": "chart:circle", "rings": "chart:ring",
}  # fmt: skip
SYMBOLS = {
    "disc": "circle", "square": "square", "diamond": "diamond", "triangle": "arrow-up", "cross": "x", "plus": "plus",
    "dash": "horizontal-bar", "picture": "circle",
}  # fmt: skip
SEATS: dict[LabelPlace, str] = {
    "centre": "center", "inside end": "inside", "inside base": "near-origin", "outside": "outside", "above": "top",
    "below": "bottom", "left": "left", "right": "right",
}  # fmt: skip
SOLIDS = {"box": "cuboid", "cylinder": "cylinder", "cone": "cone", "pyramid": "pyramid"}
BLANKS = {"gap": "leave-gap", "span": "ignore", "zero": "use-zero"}
LOCAL = "local-table"


Differs = dict[str, tuple[Message, ...]]  # what is different of each chart, by the id of its workings


class OdfChart(Struct, frozen=True):
    """The parts of a chart's own document by their names, with their media types, and what is different there."""

    parts: dict[str, tuple[bytes, str]]
    differs: tuple[Message, ...]


class _Writer(Fills):
    """One chart document on its way. `refer` says where cells stand; None keeps them in a table of the chart's own."""

    def __init__(self, chart: ChartModel, worksheets: Worksheets, refer: Callable[[CellRange], str] | None) -> None:
        self.chart, self.sheets = chart, worksheets
        self.local: dict[CellRange, int] = {}
        self.refer = refer or self._local
        self.content = root("office:document-content")
        self.styles = root("office:document-styles")
        self.automatic = add(self.content, "office:automatic-styles")
        super().__init__(add(self.styles, "office:styles"))

    # References

    def _local(self, cells: CellRange) -> str:
        """A column of the chart's own table."""
        column = self.local.setdefault(cells, len(self.local))
        letters = column_letters(column)
        first, last = 2, 1 + cells.count
        return f"{LOCAL}.${letters}${first}:.${letters}${last}"

    # Styles

    def style(
        self, look: Callable[[Element], None] | None, lettered: TextProperties | None = None, **of_chart: object
    ) -> str:
        """A style's name: its chart properties, what `look` adds to its graphic ones, and how its texts are set."""
        made = add(self.automatic, "style:style", style_family="chart")
        held = f"c{len(self.automatic)}"
        put(made, style_name=held)
        properties = add(made, "style:chart-properties")
        put(properties, **{f"chart_{key}": value for key, value in of_chart.items()})
        if look is not None:
            look(add(made, "style:graphic-properties"))
        if lettered is not None:
            text_properties(made, lettered)
        return held

    # The chart

    def made(self) -> None:
        """All of the content part."""
        chart = self.chart
        groups = self._groups()
        body = add(add(self.content, "office:body"), "office:chart")
        size = chart.size
        whole = add(
            body, "chart:chart", chart_class=CLASSES[groups[0].kind] if groups else "chart:bar",
            svg_width=points(size.width), svg_height=points(size.height),
            chart_style__name=self.style(lambda one: self.filled(one, chart.ground, None)),
        )  # fmt: skip
        if chart.title is not None:
            self._words(whole, "chart:title", chart.title)
        others = list(chart.texts)
        if others:
            self._words(whole, "chart:subtitle", others[0])
        if len(others) > 1:
            self._words(whole, "chart:footer", others[-1])
        if len(others) > 2:
            self.differ(say("notes over the chart are missing"))
        if chart.legend is not None:
            self._legend(whole)
        self._plot(whole, groups)
        if self.local:
            self._table(whole)

    def _groups(self) -> list[SeriesGroup]:
        """The groups in the order of painting; what would lie over rings as rings."""
        ranks = "bars area pie rings bubbles lines scatter"
        groups = sorted(self.chart.groups, key=lambda one: ranks.find(one.kind))
        rings = next((one for one in groups if one.kind in ("rings", "pie")), None)
        if rings is None:
            if any(one.axes == "overlay" for one in groups):
                self.differ(say("some programs leave out lines and labels over the bars"))
            return groups
        over = [one.as_ring for group in groups if group.kind == "scatter" for one in group.series if one.as_ring]
        if over:
            self.differ(say("the needle is a thin slice"))
        if rings.kind == "rings" and rings.hole > 10:
            self.differ(say("the hole is as wide as the program makes it"))
        return [msgspec.structs.replace(rings, kind="rings" if over else rings.kind, series=(*over, *rings.series))]

    def _words(self, parent: Element, short: str, words: ChartText) -> None:
        size = self.chart.size
        held = add(
            parent, short, svg_x=points(words.box.x * size.width), svg_y=points(words.box.y * size.height),
            chart_style__name=self.style(None, words.look),
        )  # fmt: skip
        if words.cell is not None and short == "chart:title":
            self.differ(say("the title is a written text that does not follow its cell"))
        add(held, "text:p", " ".join(words.text.split("\n")))

    def _legend(self, parent: Element) -> None:
        box, size = self.chart.legend, self.chart.size
        assert box is not None
        side = "top" if box.y + box.height < self.chart.plot.y + 0.05 else "bottom" if box.y > 0.8 else "end"
        add(
            parent, "chart:legend", chart_legend__position=side, svg_x=points(box.x * size.width),
            svg_y=points(box.y * size.height), chart_style__name=self.style(None, self.chart.legend_look),
        )  # fmt: skip
        if any(not series.listed for group in self.chart.groups for series in group.series):
            self.differ(say("the legend may list helpers by name"))

    def _plot(self, parent: Element, groups: list[SeriesGroup]) -> None:
        chart, size, box = self.chart, self.chart.size, self.chart.plot
        stacking = next((one.grouping for one in groups if one.kind in ("bars", "area")), "clustered")
        round_ = next((one for one in groups if one.kind in ("pie", "rings")), None)
        solid = chart.view is not None
        style = self.style(
            None,
            None,
            vertical=chart.lying,
            stacked=stacking == "stacked",
            percentage=stacking == "share",
            treat__empty__cells=BLANKS[chart.blanks],
            three__dimensional=solid,
            include__hidden__cells=True,
            angle__offset=round(90 - round_.first_angle) % 360 if round_ is not None else None,
            auto__position=False,
            auto__size=False,
        )
        plot = add(
            parent, "chart:plot-area", chart_style__name=style, svg_x=points(box.x * size.width),
            svg_y=points(box.y * size.height), svg_width=points(box.width * size.width),
            svg_height=points(box.height * size.height),
        )  # fmt: skip
        if chart.view is not None:
            put(plot, dr3d_projection="perspective" if chart.view.perspective > 0 else "parallel")
        self._axes(plot, groups)
        for group in groups:
            for one in group.series:
                self._series(plot, group, one)
        wall = self.style(lambda graphic: self.filled(graphic, chart.plot_ground, None))
        add(plot, "chart:wall", chart_style__name=wall)
        if solid:
            add(plot, "chart:floor", chart_style__name=wall)

    def _axes(self, plot: Element, groups: list[SeriesGroup]) -> None:
        chart = self.chart
        bars = next((one for one in groups if one.kind == "bars"), None)
        first = chart.first
        names = next((one.names for group in groups for one in group.series if one.names is not None), None)
        if first is None:
            blank = AxisModel(shown=False, reversed=True)
            self._axis(plot, "x", "primary-x", blank, None, names)
            self._axis(plot, "y", "primary-y", blank, None, None)
            return
        self._axis(plot, "x", "primary-x", first.across, None, names if first.across.category else None)
        self._axis(plot, "y", "primary-y", first.along, bars, None)
        if chart.second is not None and any(group.axes != "first" for group in groups):
            wide = next((one for one in groups if one.kind == "bars" and one.axes == "second"), None)
            if any(group.axes == "overlay" for group in groups):
                self._axis(plot, "x", "secondary-x", chart.second.across, None, None)
            self._axis(plot, "y", "secondary-y", chart.second.along, wide, None)

    def _axis(
        self, plot: Element, dimension: str, held: str, axis: AxisModel, bars: SeriesGroup | None,
        names: CellRange | None,
    ) -> None:  # fmt: skip
        style = self.style(
            lambda graphic: self.filled(graphic, None, axis.line),
            axis.look,
            display__label=axis.labelled and axis.shown,
            visible=axis.shown and axis.line is not None,
            logarithmic=axis.log,
            reverse__direction=axis.reversed,
            minimum=None if axis.category else axis.minimum,
            maximum=None if axis.category else axis.maximum,
            interval__major=axis.step if axis.step else None,
            tick__marks__major__inner=False,
            tick__marks__major__outer=False,
            tick__marks__minor__inner=False,
            tick__marks__minor__outer=False,
            gap__width=round(bars.gap) if bars is not None else None,
            overlap=round(bars.overlap) if bars is not None else None,
            axis__position="end" if held.startswith("secondary") and dimension == "y" else "start",
        )
        made = add(plot, "chart:axis", chart_dimension=dimension, chart_name=held, chart_style__name=style)
        if axis.title and axis.shown:
            title = add(made, "chart:title", chart_style__name=self.style(None, axis.title_look))
            add(title, "text:p", axis.title)
        if names is not None:
            add(made, "chart:categories", table_cell__range__address=self.refer(names))
        if axis.grid is not None and axis.shown:
            grid = self.style(lambda graphic: self.filled(graphic, None, axis.grid))
            add(made, "chart:grid", chart_class="major", chart_style__name=grid)

    def _series(self, plot: Element, group: SeriesGroup, series: Series) -> None:
        style = self._series_style(group, series)
        made = add(
            plot, "chart:series", chart_style__name=style,
            chart_values__cell__range__address=self.refer(series.sizes or series.values),
            chart_label__cell__address=self._label_cell(series.name), chart_class=CLASSES[group.kind],
            chart_attached__axis="primary-y" if group.axes == "first" else "secondary-y",
        )  # fmt: skip
        if group.kind == "bubbles":
            add(made, "chart:domain", table_cell__range__address=self.refer(series.values))
        if series.x is not None:
            add(made, "chart:domain", table_cell__range__address=self.refer(series.x))
        if series.errors is not None:
            errors = series.errors
            look = self.style(
                lambda graphic: self.filled(graphic, None, errors.line),
                None,
                error__category="cell-range",
                error__upper__indicator=errors.plus is not None,
                error__lower__indicator=errors.minus is not None,
                error__upper__range=self.refer(errors.plus) if errors.plus is not None else None,
                error__lower__range=self.refer(errors.minus) if errors.minus is not None else None,
            )
            add(
                made, "chart:error-indicator", chart_style__name=look,
                chart_dimension="x" if errors.across else "y",
            )  # fmt: skip
        self._points(made, group, series)

    def _label_cell(self, cells: CellRange) -> str:
        at = self.refer(cells)
        return at.partition(":")[0] if ":" in at else at

    def _series_style(self, group: SeriesGroup, series: Series) -> str:
        lines = group.kind in ("lines", "scatter")
        symbol = None
        if lines:
            symbol = "none" if series.marker == "none" else "named-symbol"
        side = points(series.marker_size)
        labels = series.labels

        def look(graphic: Element) -> None:
            if lines:
                self.filled(graphic, series.fill if series.marker != "none" else None, series.line)
            else:
                self.filled(graphic, series.fill, series.line)

        return self.style(
            look,
            labels.look,
            symbol__type=symbol,
            symbol__name=SYMBOLS.get(series.marker) if symbol == "named-symbol" else None,
            symbol__width=side if symbol == "named-symbol" else None,
            symbol__height=side if symbol == "named-symbol" else None,
            interpolation="cubic-spline" if series.smooth else None,
            solid__type=SOLIDS[series.shape] if self.chart.view is not None and group.kind == "bars" else None,
            data__label__number="none",
            data__label__text=False,
        )

    def _points(self, parent: Element, group: SeriesGroup, series: Series) -> None:
        """A style for each point that differs or is labelled, runs of plain ones together."""
        labels = {label.index: label for label in series.labels.points}
        own_points = {point.index: point for point in series.points}
        if labels:
            self.differ(say("labels are written texts that do not follow the cells"))
        plain = 0
        for index in range(series.values.count):
            point, label = own_points.get(index), labels.get(index)
            value = index in series.labels.shown
            if point is None and label is None and not value:
                plain += 1
                continue
            if plain:
                add(parent, "chart:data-point", chart_repeated=plain)
                plain = 0
            fill, line = (point.fill, point.edge) if point is not None else (series.fill, series.line)
            place = label.place if label is not None else series.labels.place
            seat = SEATS.get(place) if group.kind not in ("rings", "area") else None
            style = self.style(
                lambda graphic, fill=fill, line=line: self.filled(graphic, fill, line),  # type: ignore[misc]
                label.look if label is not None else series.labels.look if value else None,
                data__label__number="value" if value or label is not None else "none",
                label__position=seat if value or label is not None else None,
                pie__offset=round(point.explode) if point is not None and group.kind in ("pie", "rings") else None,
            )
            point_element = add(parent, "chart:data-point", chart_style__name=style)
            if label is not None:
                text = shown(self.sheets.held(label.text)[0])
                paragraphs(add(point_element, "chart:data-label"), text)
        if plain:
            add(parent, "chart:data-point", chart_repeated=plain)

    def _table(self, parent: Element) -> None:
        """The chart's own table: a column for each run of cells it refers to, with the values they have."""
        table = add(parent, "table:table", table_name=LOCAL)
        columns = list(self.local)
        add(table, "table:table-columns").append(_columns(len(columns)))
        head = add(add(table, "table:table-header-rows"), "table:table-row")
        for number in range(len(columns)):
            cell = add(head, "table:table-cell", office_value__type="string")
            add(cell, "text:p", column_letters(number))
        rows = add(table, "table:table-rows")
        held = [self.sheets.held(cells) for cells in columns]
        for index in range(max((cells.count for cells in columns), default=0)):
            row = add(rows, "table:table-row")
            for values in held:
                value = values[index] if index < len(values) else None
                if isinstance(value, float) and math.isfinite(value):
                    cell = add(row, "table:table-cell", office_value__type="float", office_value=value)
                    add(cell, "text:p", f"{value:.15g}")
                elif value is None or shown(value) == "":
                    add(row, "table:table-cell")
                else:
                    cell = add(row, "table:table-cell", office_value__type="string")
                    add(cell, "text:p", shown(value))


def _columns(count: int) -> Element:
    made = etree.Element(name("table:table-column"))
    put(made, table_number__columns__repeated=max(1, count))
    return made


def text_properties(style: Element, look: TextProperties) -> None:
    """How texts of a style are set."""
    put(
        add(style, "style:text-properties"),
        fo_font__family=look.family or None,
        fo_font__size=points(look.size),
        fo_font__weight="bold" if look.bold else "normal",
        fo_font__style="italic" if look.italic else "normal",
        fo_color=look.colour.hex[:7],
    )


def odf_chart(
    chart: ChartModel, worksheets: Worksheets, paint: Paint, refer: Callable[[CellRange], str] | None = None
) -> OdfChart:
    """The parts of a chart's document. `refer` gives the address of cells in the document around it; without it the
    chart keeps its values in a table of its own."""
    writer = _Writer(chart, worksheets, refer)
    writer.made()
    for number, (part, _) in enumerate(filled_pictures(writer.pictures, paint).items(), 1):
        put(
            add(writer.common, "draw:fill-image"), draw_name=f"fill{number}", xlink_href=part, xlink_type="simple",
            xlink_show="embed", xlink_actuate="onLoad",
        )  # fmt: skip
    parts = {
        "content.xml": (dumps(writer.content), "text/xml"),
        "styles.xml": (dumps(writer.styles), "text/xml"),
        **filled_pictures(writer.pictures, paint),
    }
    return OdfChart(parts, tuple(writer.differs))
