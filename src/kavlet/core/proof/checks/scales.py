"""Checks of scales: where they begin, where they end, and whether several can be compared."""

import math
from collections.abc import Iterator
from itertools import pairwise

import msgspec

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.layer import Stacking
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.overrides import TYPE
from kavlet.core.document.charts.chart_edits import copy_chart, try_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart, insert_columns, set_cells
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages.page_edits import change_items
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import Message, counted, say
from kavlet.core.proof.chart_changes import PLAIN_SCALE, to_points
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy, Severity
from kavlet.core.proof.subjects import ChartSubject, PageSubject
from kavlet.core.recipes.building_blocks import series_key
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import PLAIN

# Bars and areas whose scale does not begin at zero: their lengths are no longer in proportion.
#
# Source: E. R. Tufte, The Visual Display of Quantitative Information (1983), chapter 2; D. Huff, How to Lie with
# Statistics (1954), on cut-off bars.


def cuts(low: float, high: float) -> bool:
    """Whether a scale from low to high leaves out zero, where lengths begin."""
    return low > 0 or high < 0


def check_cut_axis(subject: ChartSubject) -> Iterator[Finding]:
    """The first layer whose lengths do not begin at zero is named."""
    for layer in subject.layers:
        scale, ends = subject.scale(layer), subject.ends(layer)
        if not kind_of(layer).is_length or scale is None or ends is None or scale.kind == "log":
            continue
        if not cuts(*ends):
            continue
        start = min(ends, key=abs)
        shown = written(start, scale.number or subject.inputs.number_text("value") or PLAIN, subject.document.locale)
        message = say(
            "The scale begins at {start}, not at zero, so lengths are not in proportion to the figures.", start=shown
        )
        yield Finding(
            CUT_AXIS.name,
            "warning",
            start,
            message,
            subject.place(layer=layer.key),
            tuple(_cut_axis_remedies(subject, layer)),
        )
        return


def _cut_axis_remedies(subject: ChartSubject, layer: AnyLayer) -> Iterator[Remedy]:
    path = subject.scale_path(layer)
    back: dict[str, bool | None] = {f"{path}.minimum": None, f"{path}.maximum": None, f"{path}.zero": None}
    spec = subject.scale(layer)
    if spec is not None and not spec.zero and f"{path}.zero" not in subject.entry.dress.overrides:
        back[f"{path}.zero"] = True
    yield Remedy("begin at zero", say("Begin at zero"), subject.without_ends(back))
    yield from to_points(subject)


CUT_AXIS = Check(
    "cut-axis",
    "Bars or areas whose scale does not begin at zero",
    "Tufte 1983, chapter 2; Huff 1954",
    of_drawing=check_cut_axis,
)


# Bars and areas on a logarithmic scale, which has no zero that lengths could begin at.
#
# Source: W. S. Cleveland, The Elements of Graphing Data (1985): logarithmic scales go with position, as dots do, not
# with length.


def check_log_bars(subject: ChartSubject) -> Iterator[Finding]:
    """The first such layer is named."""
    for layer in subject.layers:
        scale = subject.scale(layer)
        if not kind_of(layer).is_length or scale is None or scale.kind != "log":
            continue
        message = say("A logarithmic scale has no zero, so the lengths of these marks mean nothing.")
        path = subject.scale_path(layer)
        by_hand = f"{path}.kind" in subject.entry.dress.overrides
        linear = {f"{path}.kind": None if by_hand else "linear", f"{path}.minimum": None, f"{path}.maximum": None}
        remedies: list[Remedy] = [subject.looks("linear scale", say("Make the scale linear"), linear)]
        remedies += to_points(subject)
        yield Finding(LOG_BARS.name, "warning", 0.0, message, subject.place(layer=layer.key), tuple(remedies))
        return


LOG_BARS = Check("log-bars", "Bars or areas on a logarithmic scale", "Cleveland 1985", of_chart=check_log_bars)


# Charts of the same measure on one page, on scales that differ.
#
# Source: E. R. Tufte, Envisioning Information (1990): small multiples are compared on one scale.

SAME = 0.01  # of the longer scale, that the ends of two scales may differ
ALIKE = 0.15  # by which frames may differ in size and still be compared with each other


def check_scales_differ(subject: PageSubject) -> Iterator[Finding]:
    """Charts by the same recipe, of a column called the same and written alike, in frames of about the same size."""
    groups: dict[tuple[object, ...], list[tuple[ChartSubject, tuple[float, float]]]] = {}
    for chart_subject in subject.charts.values():
        frame = chart_subject.chart.frame
        if not isinstance(frame, Cartesian) or not chart_subject.layers or frame.along.kind == "log":
            continue
        ends, column = chart_subject.ends(chart_subject.layers[0]), chart_subject.inputs.title("value")
        if ends is None or not column:
            continue
        how = chart_subject.inputs.number_text("value")
        key = (column.casefold(), how.style, how.suffix, frame.lying, chart_subject.entry.recipe)
        groups.setdefault(key, []).append((chart_subject, ends))
    for same in groups.values():
        longest = max(high - low for _, (low, high) in same)
        first = same[0][1]
        differ = max(max(abs(low - first[0]), abs(high - first[1])) for _, (low, high) in same)
        if len(same) < 2 or differ <= SAME * longest or not _alike([chart_subject for chart_subject, _ in same]):
            continue
        low, high = min(ends[0] for _, ends in same), max(ends[1] for _, ends in same)
        items = [chart_subject.item for chart_subject, _ in same]
        page = subject.page.id

        def edit(
            document: Document, items: list[str] = items, low: float = low, high: float = high, page: str = page
        ) -> Document:
            return change_items(document, page, lambda item: msgspec.structs.replace(item, low=low, high=high), items)

        message = say(
            "{count} charts show {what} on different scales, so their lengths can’t be compared.",
            count=len(same),
            what=same[0][0].inputs.title("value"),
        )
        remedy = Remedy("same scale", say("Give them the same scale"), edit)
        yield Finding(SCALES_DIFFER.name, "warning", differ / longest, message, subject.place(items[0]), (remedy,))


def _alike(charts: list[ChartSubject]) -> bool:
    sizes = [(subject.figure.size.width, subject.figure.size.height) for subject in charts]
    return all(
        max(side) - min(side) <= ALIKE * max(side) for side in ([w for w, _ in sizes], [h for _, h in sizes])
    )  # fmt: skip


SCALES_DIFFER = Check(
    "scales-differ", "Charts of one measure on different scales", "Tufte 1990", of_page=check_scales_differ
)


# Two layers on two scales, where the scales, not the figures, decide how they stand to each other.
#
# Source: common practice; the crossing of two lines on scales with other zeros or spans can be put anywhere.

ZEROS = 0.02  # of the plot, that the zeros of two scales may stand apart


def zero_at(ends: tuple[float, float]) -> float:
    """Where zero stands on a scale, as a share of its length."""
    low, high = ends
    return -low / (high - low) if high != low else 0.0


def check_two_axes(subject: ChartSubject) -> Iterator[Finding]:
    """Where the zeros stand apart; or where two courses cross as drawn."""
    if not isinstance(subject.chart.frame, Cartesian) or subject.chart.frame.second is None:
        return
    first = [one for one in subject.layers if not one.second]
    second = [one for one in subject.layers if one.second]
    if not first or not second:
        return
    one, other = subject.ends(first[0]), subject.ends(second[0])
    if one is None or other is None or one == other:
        return
    apart = abs(zero_at(one) - zero_at(other))
    if apart > ZEROS:
        message = say("The zeros of the two scales stand apart, so heights can’t be compared.")
        yield _finding(subject, apart, message, second)
    elif any(_cross(subject, a, b) for a in first for b in second):
        message = say("Where the two courses cross is made by their scales, not by the figures.")
        yield _finding(subject, apart, message, second)


def _finding(subject: ChartSubject, figure: float, message: Message, second: list[AnyLayer]) -> Finding:
    remedies = (_one_scale(subject), _two_charts(subject, [layer.key for layer in second]), *_indexed(subject))
    return Finding(TWO_AXES.name, "warning", figure, message, subject.place(layer=second[0].key), remedies)


def _cross(subject: ChartSubject, one: AnyLayer, other: AnyLayer) -> bool:
    """Whether the courses of two layers cross as they are drawn."""
    if not all(kind_of(layer).is_course for layer in (one, other)):
        return False
    ends = subject.ends(one), subject.ends(other)
    first, second = dict(subject.figures(one)), dict(subject.figures(other))
    if ends[0] is None or ends[1] is None:
        return False
    (low, high), (from_, to) = ends[0], ends[1]
    if high == low or to == from_:
        return False
    differs = [
        (first[row] - low) / (high - low) - (second[row] - from_) / (to - from_)
        for row in first if row in second
    ]  # fmt: skip
    return any(a * b < 0 for a, b in pairwise(differs))


def _one_scale(subject: ChartSubject) -> Remedy:
    name = say("Put both on one scale")
    if subject.has_setting("second"):
        return subject.setting("one scale", name, {"second": None}, restates=True)
    looks: dict[str, bool | None] = {
        of_layer(layer.key, "second"): False for layer in subject.chart.layers if layer.second
    }
    return subject.looks("one scale", name, looks | _without_second(subject), restates=True)


def _without_second(subject: ChartSubject) -> dict[str, bool | None]:
    """Looks that give back all that was set on the second scale."""
    return {path: None for path in subject.entry.dress.overrides if path.startswith("frame.second.")}


def _two_charts(subject: ChartSubject, keys: list[str]) -> Remedy:
    """The layers of the second scale in a chart of their own, on the same table."""
    chart = subject.entry.id
    others = [layer.key for layer in subject.layers if layer.key not in keys]

    def edit(document: Document) -> Document:
        document, copy = copy_chart(document, chart)
        document = look_edits.set_looks(document, chart, {of_layer(key, "hidden"): True for key in keys})
        return look_edits.set_looks(document, copy, {of_layer(key, "hidden"): True for key in others})

    return Remedy("two charts", say("Make two charts"), edit, restates=True)


def _indexed(subject: ChartSubject) -> Iterator[Remedy]:
    """Lines of what each figure is of its first, which is 100; in columns of their own, as formulas."""
    entry, inputs = subject.entry, subject.inputs
    columns = list(dict.fromkeys(layer_.figure_column for layer_ in subject.layers))
    firsts = [float(inputs.numbers[layer_][0]) for layer_ in columns if layer_ in inputs.numbers and inputs.rows]
    if (
        not entry.recipe
        or len(firsts) != len(columns)
        or not all(math.isfinite(layer_) and layer_ > 0 for layer_ in firsts)
    ):
        return
    began = inputs.names[0]

    def edit(document: Document) -> Document:
        place = sum(column.helper is None for column in document.table(entry.table).columns)
        document = insert_columns(document, entry.table, place, len(columns))
        table = document.table(entry.table)
        cells: dict[tuple[int, int], Cell] = {}
        for to, column in enumerate(columns, place):
            letters = column_letters(table.place(column))
            cells[to, 0] = f"{inputs.titles[column]} ({began} = 100)" if began else inputs.titles[column]
            for row in range(HEADER, inputs.rows + HEADER):
                here, first = f"{letters}{row + 1}", f"{letters}${HEADER + 1}"
                cells[to, row] = Formula(f'=IF(ISNUMBER({here});ROUND(100*{here}/{first};1);"")')
        document = try_recipe(set_cells(document, entry.table, cells), entry.id, "lines")
        column_ids = tuple(layer_.id for layer_ in table.columns[place : place + len(columns)])
        document = change_chart(document, entry.id, roles={**document.chart(entry.id).roles, "value": column_ids})
        seconds = {of_layer(layer_.key, "second"): None for layer_ in subject.chart.layers}
        return look_edits.set_looks(document, entry.id, seconds | _without_second(subject) | PLAIN_SCALE)

    yield Remedy("index to 100", say("Draw both from 100 on"), edit, restates=True)


TWO_AXES = Check("two-axes", "Two scales that make a crossing", "common practice", of_chart=check_two_axes)


# Values beyond the scale they are shown on: a needle at its stop, a tube that is full, bars with a break.
#
# Source: the figures themselves.

ENDS = ("minimum", "maximum")


def check_out_of_range(subject: ChartSubject) -> Iterator[Finding]:
    """Once for the chart: what its recipe noticed."""
    yield from subject.notices(OUT_OF_RANGE.name)


def drawn(subject: ChartSubject) -> Iterator[Finding]:
    """Wherever it is drawn: how many values lie beyond the ends of the scale, and the largest."""
    marks = [mark for mark in subject.figure.marks if mark.beyond and not mark.helper]
    if not marks:
        return
    worst = max(marks, key=lambda mark: abs(mark.value))
    message = counted(
        "{count} value lies beyond the ends of its scale: {name}.",
        "{count} values lie beyond the ends of their scale, the largest: {name}.",
        len(marks),
        name=worst.says or worst.layer,
    )
    back = {f"frame.{scale}.{end}": None for scale in ("along", "across", "second") for end in ENDS}
    logarithmic = [path for path, value in subject.entry.dress.overrides.items() if value == "log" and ".kind" in path]
    back |= dict.fromkeys(logarithmic)  # which has no place for zero, nor for what is near it
    widen = Remedy("widen", say("Widen the scale"), subject.without_ends(back))
    shares = any(
        isinstance(layer, Stacking) and layer.stack == "share" for layer in subject.layers
    )  # which end at 100 %
    yield Finding(
        OUT_OF_RANGE.name, "warning", worst.value, message, subject.mark_place(worst), () if shares else (widen,)
    )


OUT_OF_RANGE = Check(
    "out-of-range", "Values beyond their scale", "the figures", of_chart=check_out_of_range, of_drawing=drawn
)


# A cap that hides more than half of a bar, or cuts more than a third of all bars.
#
# Source: common practice; a bar cut once, with a break and its true value, is read as the exception it is.

MAX_HIDDEN, MAX_CAPPED = 0.5, 1 / 3


def hidden(true: float, shown: float) -> float:
    """The share of a bar that a cap hides."""
    return max(0.0, 1 - abs(shown) / abs(true)) if true else 0.0


def check_capped(subject: ChartSubject) -> Iterator[Finding]:
    """The bar that is cut most is named."""
    data, recipe = subject.picture.build.panels[0].data, subject.picture.recipe
    if recipe is not None and recipe.repeats is not None:
        return  # a tube that is full says so itself
    for layer in subject.layers:
        if not kind_of(layer).on_zero or layer.figure_column == layer.values:
            continue
        true_values = data.column(layer.figure_column)
        rows = [
            (hidden(float(true), float(shown_value)), row)
            for row, true, shown_value in zip(data.ids, true_values, data.column(layer.values), strict=False)
            if math.isfinite(true) and math.isfinite(shown_value)
        ]
        cut_rows = [entry for entry in rows if entry[0] > 1e-9]
        if not cut_rows:
            continue
        most, row = max(cut_rows)
        many = len(cut_rows) / len(rows)
        if most <= MAX_HIDDEN and many <= MAX_CAPPED:
            continue
        if most > MAX_HIDDEN:
            message = say("The cap hides {share}\u00a0% of a bar, more than half of it.", share=round(100 * most))
        else:
            message = say(
                "The cap cuts {count} of {rows} bars, more than a third.", count=len(cut_rows), rows=len(rows)
            )
        figure = most if most > MAX_HIDDEN else many
        place = subject.place(layer=layer.key, row=row)
        severity: Severity = "warning" if many > MAX_CAPPED else "note"  # one that is cut is the exception it looks
        yield Finding(CAPPED.name, severity, figure, message, place, tuple(_capped_remedies(subject, layer)))


def _capped_remedies(subject: ChartSubject, layer: AnyLayer) -> Iterator[Remedy]:
    data = subject.picture.build.panels[0].data
    true = sorted(abs(float(one)) for one in data.column(layer.figure_column) if math.isfinite(one))
    if subject.has_setting("cap") and true and true[-1] > 0:
        free = true[max(0, len(true) - 1 - int(len(true) * MAX_CAPPED))]  # at most a third stand above it
        cap = max(true[-1] * (1 - MAX_HIDDEN), free)
        yield subject.setting("raise cap", say("Raise the cap"), {"cap": _above(cap)})
    if not subject.entry.recipe or not true or true[0] <= 0 or not subject.inputs.has("value"):
        return
    chart, column = subject.entry.id, subject.inputs.ids("value")

    def edit(document: Document) -> Document:
        document = try_recipe(document, chart, "bars")
        document = change_chart(document, chart, roles={**document.chart(chart).roles, "value": column})
        looks = {of_layer(series_key(0), *TYPE): "points", "frame.along.kind": "log", "frame.along.minimum": None}
        return look_edits.set_looks(document, chart, looks)

    yield Remedy("log points", say("Draw points on a logarithmic scale"), edit, restates=True)


def _above(number: float) -> float:
    """The number, rounded up to two digits."""
    power = 10.0 ** (math.floor(math.log10(number)) - 1)
    return float(f"{math.ceil(number / power - 1e-9) * power:.12g}")


CAPPED = Check(
    "capped", "A cap that hides too much", "common practice: half a bar, a third of all", of_chart=check_capped
)
