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


def _drawn(of: ChartSubject) -> set[int]:
    """The rows of which something is drawn."""
    courses = [one for one in of.layers if hasattr(one, "missing")]
    keys = {one.key for one in courses}
    marked = {mark.row for mark in of.marks if mark.key not in keys}
    return marked | {row for one in courses for row, _ in of.figures(one)}


def _courses(of: ChartSubject, columns: set[str]) -> list[AnyLayer]:
    """The layers that read some columns, where all of them are courses."""
    readers = [one for one in of.layers if one.figure_column in columns]
    return readers if all(hasattr(one, "missing") for one in readers) else []


def _is_wanted(of: ChartSubject, layer: str) -> bool:
    """Whether the author has set that a course breaks where there is no value."""
    return of.entry.dress.overrides.get(of_layer(layer, "missing")) == "break"


def _remedies(of: ChartSubject, rows: list[int], courses: list[AnyLayer]) -> Iterator[Remedy]:
    table = of.entry.table
    if courses:
        yield of.looks("show as gap", say("Show a gap"), {of_layer(one.key, "missing"): "break" for one in courses})
    filled = _between(of, rows) if of.picture.build.panels[0].data.timed else {}
    if filled:
        name = say("Fill in between its neighbours")
        yield Remedy("fill", name, lambda document: set_cells(document, table, filled), restates=True)
    if not _drawn(of) & set(rows) and of.inputs.rows - len(rows) >= 2:

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
