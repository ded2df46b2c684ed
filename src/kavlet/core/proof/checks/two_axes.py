"""Two layers on two scales, where the scales, not the figures, decide how they stand to each other.

Source: common practice; the crossing of two lines on scales with other zeros or spans can be put anywhere.
"""

import math
from collections.abc import Iterator
from itertools import pairwise

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.looks import of_layer
from kavlet.core.document.charts.chart_edits import copy_chart, try_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart, insert_columns, set_cells
from kavlet.core.document.looks import look_edits
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import Message, say
from kavlet.core.proof.chart_changes import PLAIN_SCALE
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER

ZEROS = 0.02  # of the plot, that the zeros of two scales may stand apart


def zero_at(ends: tuple[float, float]) -> float:
    """Where zero stands on a scale, as a share of its length."""
    low, high = ends
    return -low / (high - low) if high != low else 0.0


def check(subject: ChartSubject) -> Iterator[Finding]:
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
    return Finding(CHECK.name, "warning", figure, message, subject.place(layer=second[0].key), remedies)


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


CHECK = Check("two-axes", "Two scales that make a crossing", "common practice", of_chart=check)
