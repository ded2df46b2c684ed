"""Rows that hold no value and so are not drawn. An empty cell is no value, never zero.

Source: the figures themselves.
"""

import math
from collections.abc import Iterator

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.looks import of_layer
from kavlet.core.document.document import Document
from kavlet.core.document.edits import delete_rows, set_cells
from kavlet.core.messages import counted, say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.recipes.building_blocks import VALUE
from kavlet.core.spreadsheet.table import HEADER


def check(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed; and empty or text cells where a figure should be. A formula that gives "" means it."""
    yield from subject.notices(CHECK.name)
    inputs = subject.inputs
    empty: dict[int, str] = {}
    for column in _needed(subject):
        numbers, values = inputs.numbers[column], inputs.values[column]
        for row, (number, value) in enumerate(zip(numbers, values, strict=True)):
            if math.isnan(number) and value != "":
                empty.setdefault(row, column)
    courses = _courses(subject, set(empty.values()))
    if not empty or (courses and all(_is_wanted(subject, course.key) for course in courses)):
        return  # a gap in a course is seen, and was asked for
    message = counted(
        "{count} row has no value and no mark.", "{count} rows have no value and no mark.", len(empty)
    )  # fmt: skip
    row, column = next(iter(empty.items()))
    at = subject.table.place(column)
    place = subject.place(table=subject.entry.table, cell=(at, row + HEADER), row=row)
    yield Finding(
        CHECK.name, "note", float(len(empty)), message, place, tuple(_remedies(subject, sorted(empty), courses))
    )


def _needed(subject: ChartSubject) -> list[str]:
    """The columns whose figures the chart can't be drawn without, by their ids; `no-base` tells of a base that is
    missing."""
    recipe = subject.picture.recipe
    roles = recipe.roles if recipe is not None else (VALUE,)
    role_names = (one.name for one in roles if one.kind == "number" and one.required and one.name != "before")
    return [column for role in role_names for column in subject.inputs.ids(role)]


def _drawn(subject: ChartSubject) -> set[int]:
    """The rows of which something is drawn."""
    courses = [layer for layer in subject.layers if hasattr(layer, "missing")]
    keys = {layer.key for layer in courses}
    marked = {mark.row for mark in subject.marks if mark.key not in keys}
    return marked | {row for layer in courses for row, _ in subject.figures(layer)}


def _courses(subject: ChartSubject, columns: set[str]) -> list[AnyLayer]:
    """The layers that read some columns, where all of them are courses."""
    readers = [layer for layer in subject.layers if layer.figure_column in columns]
    return readers if all(hasattr(layer, "missing") for layer in readers) else []


def _is_wanted(subject: ChartSubject, layer: str) -> bool:
    """Whether the author has set that a course breaks where there is no value."""
    return subject.entry.dress.overrides.get(of_layer(layer, "missing")) == "break"


def _remedies(subject: ChartSubject, rows: list[int], courses: list[AnyLayer]) -> Iterator[Remedy]:
    table = subject.entry.table
    if courses:
        yield subject.looks(
            "show as gap", say("Show a gap"), {of_layer(layer.key, "missing"): "break" for layer in courses}
        )
    filled = _between(subject, rows) if subject.picture.build.panels[0].data.timed else {}
    if filled:
        name = say("Fill in between its neighbours")
        yield Remedy("fill", name, lambda document: set_cells(document, table, filled), restates=True)
    if not _drawn(subject) & set(rows) and subject.inputs.rows - len(rows) >= 2:

        def edit(document: Document) -> Document:
            for row in reversed(rows):
                document = delete_rows(document, table, row + HEADER)
            return document

        name = counted("Take the row out", "Take the rows out", len(rows))
        yield Remedy("take out", name, edit, restates=True)


def _between(subject: ChartSubject, rows: list[int]) -> dict[tuple[int, int], float]:
    """For each empty cell the figure on the straight line between its neighbours; nothing where one has none."""
    estimates: dict[tuple[int, int], float] = {}
    for column in _needed(subject):
        numbers = subject.inputs.numbers[column]
        known_rows = [row for row in range(subject.inputs.rows) if math.isfinite(numbers[row])]
        for row in rows:
            if math.isfinite(numbers[row]):
                continue
            before = max((known_row for known_row in known_rows if known_row < row), default=None)
            after = min((known_row for known_row in known_rows if known_row > row), default=None)
            if before is None or after is None:
                return {}
            low, high = float(numbers[before]), float(numbers[after])
            estimates[subject.table.place(column), row + HEADER] = low + (high - low) * (row - before) / (
                after - before
            )
    return estimates


CHECK = Check("missing", "Rows without a value", "the figures", of_chart=check)
