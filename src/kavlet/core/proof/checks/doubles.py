"""The same name twice, where each row should be one thing.

Source: the figures themselves.
"""

import math
from collections import Counter
from collections.abc import Iterator

from kavlet.core.document.document import Document
from kavlet.core.document.edits import delete_rows, set_cells
from kavlet.core.document.tables.evaluated_table import values_of
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.spreadsheet.table import HEADER, Table


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The first name that comes again is named; where rows are added by their names, or each is a part of a group, that
    is meant."""
    inputs = subject.inputs
    groups = inputs.settings.get("of") in ("sum", "group") or subject.entry.repeat
    recipe = subject.picture.recipe
    again_meant = recipe is not None and (recipe.steps is not None or recipe.role("group") is not None)
    if again_meant or groups or not inputs.has("name"):
        return
    names = [name for name in inputs.names if name.strip()]
    again = [name for name, count in Counter(name.strip().casefold() for name in names).items() if count > 1]
    if not again:
        return
    name = next(name_ for name_ in names if name_.strip().casefold() == again[0])
    count = sum(name_.strip().casefold() == again[0] for name_ in names)
    message = say("“{name}” names {count} rows.", name=name, count=count)
    row = [name_.strip().casefold() for name_ in inputs.names].index(again[0])
    yield Finding(CHECK.name, "note", float(count), message, subject.cell("name", row), tuple(_remedies(subject)))


def _remedies(subject: ChartSubject) -> Iterator[Remedy]:
    table, column = subject.entry.table, subject.table.place(subject.inputs.id("name"))
    rows = subject.inputs.rows
    if column < 0 or any(isinstance(cell, Formula) for cell in subject.table.columns[column].cells[HEADER:]):
        return
    own_columns = [one for one in subject.table.columns if one.helper is None]
    if not any(isinstance(cell, Formula) for one in own_columns for cell in one.cells[HEADER:]):
        yield Remedy("join", say("Add them up"), lambda document: joined(document, table, column, rows), restates=True)
    yield Remedy("number", say("Number them"), lambda document: _numbered(document, table, column, rows))


def _same(table: Table, document: Document, column: int, rows: int) -> dict[str, list[int]]:
    """The rows of the table by their name, in small letters."""
    held = values_of(document.tables).of(table.id)[column].values
    found: dict[str, list[int]] = {}
    for row in range(HEADER, min(HEADER + rows, table.height)):
        name = held[row]
        if isinstance(name, str) and name.strip():
            found.setdefault(name.strip().casefold(), []).append(row)
    return found


def joined(document: Document, table_id: str, column: int, rows: int) -> Document:
    """Rows of one name as one, which holds the sums of their figures."""
    table = document.table(table_id)
    cells: dict[tuple[int, int], Cell] = {}
    doubled_rows: list[int] = []
    for same in _same(table, document, column, rows).values():
        if len(same) < 2:
            continue
        doubled_rows += same[1:]
        for place, one in enumerate(table.columns):
            if one.helper is not None or place == column:
                continue
            figures = [_number(one.cells[row]) for row in same]
            known_figures = [figure for figure in figures if figure is not None]
            if known_figures:
                like = next(
                    (one.cells[row] for row in same if isinstance(one.cells[row], FormattedNumber)), None
                )  # fmt: skip
                total = math.fsum(known_figures)
                cells[place, same[0]] = (
                    FormattedNumber(total, like.number) if isinstance(like, FormattedNumber) else total
                )
    document = set_cells(document, table_id, cells)
    for row in sorted(doubled_rows, reverse=True):
        document = delete_rows(document, table_id, row)
    return document


def _number(cell: Cell) -> float | None:
    if isinstance(cell, FormattedNumber):
        return cell.value
    return cell if isinstance(cell, float) else None


def _numbered(document: Document, table_id: str, column: int, rows: int) -> Document:
    table = document.table(table_id)
    found = _same(table, document, column, rows)
    cells: dict[tuple[int, int], Cell] = {}
    taken = set(found)
    for same in found.values():
        number = 1
        for row in same[1:]:
            base = str(table.columns[column].cells[row]).strip()
            while f"{base} {number + 1}".casefold() in taken:
                number += 1
            number += 1
            cells[column, row] = f"{base} {number}"
            taken.add(f"{base} {number}".casefold())
    return set_cells(document, table_id, cells)


CHECK = Check("doubles", "The same name twice", "the figures", of_chart=check)
