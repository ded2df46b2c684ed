"""From a chart's picture to plain charts: one for each panel, with the workings that they need."""

import importlib
import math
from functools import cache

import msgspec

from kavlet.core.charts.frame import Cartesian, Grid, Polar
from kavlet.core.charts.layer import Layer
from kavlet.core.charts.scale import Scale
from kavlet.core.document.document import Document
from kavlet.core.layout.context import context
from kavlet.core.layout.figure import PlacedAxis, PlacedRule, PlacedText
from kavlet.core.layout.frames.axes import shown
from kavlet.core.layout.furniture import sizes
from kavlet.core.messages import say, words_in
from kavlet.core.office_model.chart_model import (
    Axes,
    AxisModel,
    CellRange,
    ChartModel,
    ChartText,
    Series,
    Stroke,
    TextProperties,
    View3D,
)
from kavlet.core.office_model.converter import ChartConverter, PanelSource, Tell, lettered
from kavlet.core.office_model.workings import Workings
from kavlet.core.pipeline.stages import Picture
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.references import RangeReference, rewritten
from kavlet.core.spreadsheet.table import Table
from kavlet.core.styling.style import resolve
from kavlet.core.text.faces import face_of
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.number_text import NumberText
from kavlet.core.values.xml_text import xml_text


@cache
def _tell(spec: type[Layer]) -> Tell:
    """How a layer type is said by groups of series: it stands in the file of the same name in `layers`."""
    tell: Tell = importlib.import_module(f"kavlet.core.office_model.layers.{spec.__module__.rpartition('.')[2]}").tell
    return tell


def plain_charts(document: Document, values: Values, picture: Picture) -> tuple[ChartModel, ...]:
    """The panels of a chart in plain terms, each with the box it takes of the whole, as shares."""
    build = picture.build
    count = len(build.panels)
    return tuple(_plain(document, values, picture, number, _box(number, count, picture)) for number in range(count))


def _box(number: int, count: int, picture: Picture) -> Rect:
    if count == 1:
        return Rect(0.0, 0.0, 1.0, 1.0)
    size = picture.figure.size
    columns = min(count, max(1, round(math.sqrt(count * size.width / max(1.0, size.height)))))
    rows = math.ceil(count / columns)
    line, place = divmod(number, columns)
    return Rect(place / columns, line / rows, 1 / columns, 1 / rows)


def _plain(document: Document, values: Values, picture: Picture, number: int, box: Rect) -> ChartModel:
    build, figure = picture.build, picture.figure
    panel = build.panels[number]
    chart = panel.chart
    style = resolve(build.entry.dress, document.house)
    look = context(panel, style, sizes(style, figure.size, chart.type_scale), figure.size, number)
    name = words_in(document.locale, "{name}: workings", name=build.entry.name)
    own = name if len(build.panels) == 1 else f"{name} {number + 1}"
    workings = Workings(f"workings {build.entry.id} {number}", own, document.tables)
    table = document.table(build.entry.table)
    converter = ChartConverter(PanelSource(build, panel, number, figure, look, table, values), workings)
    if chart.as_solid is not None:
        converter.differ(say("light and material are those of the program that shows it"))
    for layer in look.chart.layers:
        if not layer.hidden:
            _tell(type(layer))(layer, converter)
    if chart.as_solid is not None:
        _only_bodies(converter)
    _ground_series(converter)
    if chart.ground_picture or chart.plot_picture:
        converter.differ(say("the picture behind is missing"))
    single = len(build.panels) == 1
    first, second = _axes(converter)
    return ChartModel(
        name=build.entry.name if single else f"{build.entry.name}: {panel.title}",
        size=figure.size if single else Size(figure.size.width * box.width, figure.size.height * box.height),
        groups=tuple(draft.made() for draft in converter.drafts if draft.series),
        lying=converter.lying,
        first=first,
        second=second,
        title=_title(converter, document, panel.title if not single else ""),
        texts=_texts(converter) if single else (),
        legend=_legend(converter) if single else None,
        legend_look=next((lettered(text) for text in figure.texts if text.kind == "legend"), None),
        plot=_plot(converter) if single else Rect(0.1, 0.18, 0.8, 0.66),
        ground=style.ground,
        plot_ground=style.colour(chart.plot_ground) if chart.plot_ground else None,
        family=face_of(style.face).css_family,
        view=_view(converter),
        workings=workings.table(),
        blanks=converter.blanks,
        alt_text=xml_text(chart.alt_text),
        differs=tuple(converter.differs),
        box=box,
    )


def _ground_series(converter: ChartConverter) -> None:
    """Where all is drawn over the plot, an unseen series that carries the names and the scale below it."""
    frame = converter.chart.frame
    used = [draft.axes for draft in converter.drafts if draft.series]
    if not isinstance(frame, Cartesian) or frame.across.kind != "category" or not used or "first" in used:
        return
    layer = next((one for one in converter.chart.layers if converter.source.table.place(one.values) >= 0), None)
    if layer is not None:
        draft = converter.group("bars" if converter.lying else "lines")
        unseen = Series(
            name=converter.name(layer), names=converter.names(), values=converter.plotted(layer.values), listed=False
        )
        draft.series.append(unseen)


def _only_bodies(converter: ChartConverter) -> None:
    """A solid plot holds one kind of bodies; what lies over it is said to be missing."""
    bodies = [draft for draft in converter.drafts if draft.kind in ("bars", "pie") and draft.axes == "first"]
    rings = [draft for draft in converter.drafts if draft.kind == "rings"]
    if rings:
        converter.differ(say("rings are flat"))
        return
    others = [draft for draft in converter.drafts if draft not in bodies[:1] and draft.series]
    if others:
        converter.differ(say("lines, points and labels over the bodies are missing"))
    converter.drafts = bodies[:1]
    converter.needs_overlay = False


def _view(converter: ChartConverter) -> View3D | None:
    solid = converter.chart.as_solid
    if solid is None or solid.flat or any(draft.kind == "rings" for draft in converter.drafts):
        return None
    depth = 100.0 if solid.depth is None else max(20.0, min(2000.0, 100.0 * solid.depth))
    return View3D(solid.turn, solid.tilt, solid.perspective, depth)


def _rule(converter: ChartConverter, *kinds: str) -> Stroke | None:
    rule: PlacedRule | None = next(
        (one for one in (*converter.figure.under, *converter.figure.over) if one.kind in kinds), None
    )
    if rule is None:
        return None
    return Stroke(rule.colour, rule.width, "solid" if not rule.dash else "dot" if rule.dash[0] < 1 else "dash")


def _look(converter: ChartConverter, kind: str, axis: str = "") -> TextProperties | None:
    candidates = [text for text in converter.figure.texts if text.kind == kind and axis in text.text]
    return lettered(candidates[0]) if candidates else None


def _axes(converter: ChartConverter) -> tuple[Axes | None, Axes | None]:
    """The first pair of axes, and the second or the overlay's."""
    frame = converter.chart.frame
    if isinstance(frame, Polar):
        around = AxisModel(minimum=-1.0, maximum=1.0, shown=False)
        return None, Axes(around, around) if converter.needs_overlay else None
    if isinstance(frame, Grid):
        return Axes(
            AxisModel(category=True, shown=False, reversed=frame.corner.endswith("right")),
            AxisModel(minimum=0.0, maximum=float(frame.rows), shown=False, reversed=frame.corner.startswith("top")),
        ), None
    along, across = converter.axis("x" if converter.lying else "y"), converter.axis("y" if converter.lying else "x")
    numeric = frame.across.kind != "category"
    fixed = converter.needs_overlay or converter.same_scale
    first_along = _value_axis(converter, frame.along, along, fixed=fixed)
    ink = shown(frame.across, converter.chart.ink, across=True)
    names = AxisModel(
        category=not numeric,
        minimum=frame.across.minimum if numeric else None,
        maximum=frame.across.maximum if numeric else None,
        log=numeric and frame.across.kind == "log",
        reversed=(converter.lying != frame.across.reversed) if not numeric else frame.across.reversed,
        labelled=ink.labels,
        number=_number(converter, frame.across, "x") if numeric else None,
        line=_rule(converter, "axis") if ink.line else None,
        grid=_rule(converter, "grid") if ink.grid else None,
        title=frame.across.title if ink.labels else "",
        title_look=_look(converter, "axis title"),
        look=_look(converter, "name") or _look(converter, "tick"),
        every=frame.across.every,
    )
    if numeric:
        names = msgspec.structs.replace(names, minimum=across.minimum if across else None,
                                        maximum=across.maximum if across else None)  # fmt: skip
    second = None
    if converter.needs_overlay and along is not None:
        count = float(converter.rows)
        over = AxisModel(minimum=0.0, maximum=count, shown=False, reversed=converter.lying)
        second = Axes(over, AxisModel(minimum=along.minimum, maximum=along.maximum, log=first_along.log, shown=False))
        if frame.second is not None:
            converter.differ(say("lines over the plot share the second scale"))
    elif frame.second is not None:
        own = _value_axis(converter, frame.second, converter.axis("x2" if converter.lying else "y2"), fixed=False)
        second = Axes(msgspec.structs.replace(names, shown=False, title="", grid=None), own)
    elif any(draft.axes == "second" for draft in converter.drafts) and along is not None:
        hidden = msgspec.structs.replace(names, shown=False, title="", grid=None)
        second = Axes(hidden, AxisModel(minimum=along.minimum, maximum=along.maximum, shown=False))
    return Axes(names, first_along), second


def _value_axis(converter: ChartConverter, scale: Scale, placed: PlacedAxis | None, fixed: bool) -> AxisModel:
    ink = shown(scale, converter.chart.ink)
    low, high = scale.minimum, scale.maximum
    if fixed and placed is not None:
        low, high = placed.minimum, placed.maximum
    ticks = placed.ticks if placed is not None else ()
    step = scale.step
    if step is None and fixed and len(ticks) > 1:
        step = ticks[1] - ticks[0]
    return AxisModel(
        minimum=low,
        maximum=high,
        step=step if step and step > 0 and scale.kind != "log" else None,
        log=scale.kind == "log",
        reversed=scale.reversed,
        labelled=ink.labels,
        number=_number(converter, scale, ""),
        line=_rule(converter, "axis") if ink.line else None,
        grid=_rule(converter, "grid") if ink.grid else None,
        title=scale.title if ink.labels else "",
        title_look=_look(converter, "axis title"),
        look=_look(converter, "tick"),
    )


def _number(converter: ChartConverter, scale: Scale, of: str) -> NumberText:
    """How an axis writes its numbers: as set, else as the first column on it."""
    if scale.number is not None:
        return scale.number
    layer = next((one for one in converter.chart.layers if one.key == converter.chart.main), None)
    if layer is None:
        return NumberText()
    return converter.data.number_text(layer.across_column if of == "x" else layer.figure_column)


def _title(converter: ChartConverter, document: Document, panel: str) -> ChartText | None:
    """The title, in a cell where it is bound to one."""
    placed = _spoken(converter, "title")
    if panel:
        look = lettered(placed[0]) if placed else TextProperties(12.0, converter.style.ink, bold=True)
        return ChartText(panel, look, Rect(0.02, 0.02, 0.9, 0.1), align="middle")
    if not placed:
        return None
    entry = converter.source.build.entry
    cell = (
        converter.workings.formula(_away(entry.title[1:], document.table(entry.table)))
        if entry.title[:1] == "="
        else None
    )
    return _words(converter, placed[0], cell, converter.chart.title.text)


def _away(formula: str, table: Table) -> str:
    """A formula of a table's own as it reads from another sheet."""

    def follow(old: RangeReference) -> RangeReference:
        return old if old.table else msgspec.structs.replace(old, table=table.name)

    return rewritten(formula, follow)


def _spoken(converter: ChartConverter, kind: str) -> list[PlacedText]:
    return [text for text in converter.figure.texts if text.kind == kind]


def _words(converter: ChartConverter, placed: PlacedText, cell: CellRange | None = None, text: str = "") -> ChartText:
    size, box = converter.figure.size, placed.bounds
    place = Rect(box.x / size.width, box.y / size.height, box.width / size.width, box.height / size.height)
    return ChartText(text or placed.text, lettered(placed), place, cell, placed.anchor)


def _texts(converter: ChartConverter) -> tuple[ChartText, ...]:
    """Subtitle, source and notes, and headings over strips beside the plot."""
    found = [text for kind in ("subtitle", "source", "note", "heading") for text in _spoken(converter, kind)]
    if converter.figure.keys and not _is_listed(converter):
        found += _spoken(converter, "legend")  # what one symbol stands for, and entries that no series stands for
    return tuple(_words(converter, text) for text in found)


def _legend(converter: ChartConverter) -> Rect | None:
    """Where the legend stands; None where there is none."""
    keys, size = converter.figure.keys, converter.figure.size
    if not keys or not _is_listed(converter):
        return None
    boxes = [key.bounds for key in keys] + [one.bounds for one in converter.figure.texts if one.kind == "legend"]
    around = Rect.around([point for one in boxes for point in ((one.x, one.y), (one.right, one.bottom))])
    return Rect(around.x / size.width, around.y / size.height, around.width / size.width, around.height / size.height)


def _is_listed(converter: ChartConverter) -> bool:
    """Whether a plain legend lists anything: a series, or the parts of a pie or ring."""
    return any(series.listed for draft in converter.drafts for series in draft.series)


def _plot(converter: ChartConverter) -> Rect:
    """The plot as shares of the sheet; of a disc, the square around it, as far as the sheet holds it."""
    size, plot = converter.figure.size, converter.figure.plot
    if isinstance(converter.chart.frame, Polar):
        plot = _around(converter) or plot
    made = [plot.x / size.width, plot.y / size.height, plot.width / size.width, plot.height / size.height]
    x, y = (min(0.95, max(0.0, one)) for one in made[:2])
    return Rect(x, y, min(1.0 - x, max(0.05, made[2])), min(1.0 - y, max(0.05, made[3])))


def _around(converter: ChartConverter) -> Rect | None:
    """The square around a disc, between the texts above it and the sheet's foot; a half dial needs a whole one."""
    sectors = [mark.sector for mark in converter.figure.marks if mark.sector is not None]
    if not sectors:
        return None
    x, y = sectors[0].center
    outer, size = max(one.outer for one in sectors), converter.figure.size
    above = max([0.0, *(one.bounds.bottom for kind in ("title", "subtitle") for one in _spoken(converter, kind))])
    above = above if above < y else 0.0
    radius = min(outer, (size.height - above) / 2, x, size.width - x)
    top = max(above, min(y - radius, size.height - 2 * radius))
    return Rect(x - radius, top, 2 * radius, 2 * radius)
