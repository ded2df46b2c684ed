"""Errors that a chart or a text reads, and helper cells edited by hand.

Source: OASIS ODF 1.3 part 4, 5.12 (the errors a formula gives).
"""

from collections.abc import Iterator

import msgspec

from kavlet.core.document.document import Document, with_table
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.messages import counted, say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject
from kavlet.core.spreadsheet.cells import ErrorValue, Formula
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER, Column

GO = Remedy("go", say("Go to the cell"))


def check(subject: ChartSubject) -> Iterator[Finding]:
    """What they would say is left empty: no code of an error stands in a picture."""
    for text, error in subject.picture.build.failed:
        message = say(
            "{text} gives {found}, so nothing stands there. {meaning}",
            text=text, found=error.value, meaning=say(error.meaning),
        )  # fmt: skip
        yield Finding(CHECK.name, "warning", 1.0, message, subject.place(text="title"))
    yield from _cells(subject)
    yield from _by_hand(subject)


def _cells(subject: ChartSubject) -> Iterator[Finding]:
    """The first cell with an error among those the chart reads; one that says there is no value means it."""
    inputs = subject.inputs
    columns_read = [column for role_columns in inputs.roles.values() for column in role_columns]
    errors = [
        (row, inputs.places[column], value)
        for column in dict.fromkeys(columns_read)
        for row, value in enumerate(inputs.values.get(column, ()))
        if isinstance(value, ErrorValue) and value is not ErrorValue.MISSING
    ]
    if not errors:
        return
    row, place, error = min(errors, key=lambda entry: entry[:2])
    cell = f"{column_letters(place)}{row + HEADER + 1}"
    message = counted(
        "{count} cell that the chart reads gives an error, {cell}: {meaning}",
        "{count} cells that the chart reads give an error, the first in {cell}: {meaning}",
        len(errors), cell=cell, meaning=say(error.meaning),
    )  # fmt: skip
    where = subject.place(table=subject.entry.table, cell=(place, row + HEADER), row=row)
    yield Finding(CHECK.name, "error", float(len(errors)), message, where, (GO,))


def by_hand(column: Column) -> list[int]:
    """The cells of a helper column that its recipe has not made, by their row in the table."""
    return [
        row
        for row, cell in enumerate(column.cells)
        if row >= HEADER and cell is not None and not (isinstance(cell, Formula) and cell.made)
    ]


def _by_hand(subject: ChartSubject) -> Iterator[Finding]:
    chart, table = subject.entry.id, subject.entry.table
    for place, column in enumerate(subject.table.columns):
        if column.helper is None or column.helper.chart != chart:
            continue
        rows = by_hand(column)
        if not rows:
            continue
        message = counted(
            "{count} cell of the helper column “{name}” is edited by hand and does not follow the figures.",
            "{count} cells of the helper column “{name}” are edited by hand and do not follow the figures.",
            len(rows), name=column.helper.name,
        )  # fmt: skip
        where = subject.place(table=table, cell=(place, rows[0]))
        yield Finding(CHECK.name, "note", float(len(rows)), message, where, (_give_back(table, column.id), GO))
        return


def _give_back(table: str, column: str) -> Remedy:
    def edit(document: Document) -> Document:
        held = document.table(table)
        columns = tuple(
            msgspec.structs.replace(
                one, cells=tuple(None if row in by_hand(one) else cell for row, cell in enumerate(one.cells))
            )
            if one.id == column
            else one
            for one in held.columns
        )
        return fitted(with_table(document, msgspec.structs.replace(held, columns=columns)))

    return Remedy("give back", say("Give it back to the recipe"), edit)


def page(subject: PageSubject) -> Iterator[Finding]:
    """Formulas in words, key figures and captions of a page."""
    for item, composed_item in subject.picture.made.items():
        if composed_item.refused:
            yield Finding(CHECK.name, "error", 1.0, say("{text}", text=composed_item.refused), subject.place(item))
        for text, error in composed_item.failed:
            message = say(
                "{text} gives {found}, so nothing stands there. {meaning}",
                text=text, found=error.value, meaning=say(error.meaning),
            )  # fmt: skip
            yield Finding(CHECK.name, "warning", 1.0, message, subject.place(item))


CHECK = Check(
    "formula-error", "Errors that are read, helpers by hand", "ODF 1.3 part 4, 5.12", of_chart=check, of_page=page
)
