"""A total that differs from what its parts add up to, or that stands among them.

Source: the figures themselves; a total counted as a part doubles the whole.
"""

import math
from collections.abc import Iterator

from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart, insert_rows, set_cells
from kavlet.core.messages import counted, say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.spreadsheet.table import HEADER


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Totals of a bridge that the steps do not lead to; total rows among the others, or left out unasked."""
    for finding in subject.notices(CHECK.name):
        yield Finding(
            CHECK.name, finding.severity, finding.figure, finding.message, finding.place,
            tuple(_difference(subject, finding.figure)),
        )  # fmt: skip
    rows = subject.inputs.totals
    if not rows or subject.entry.totals is False:
        return
    names = [name for name in rows if name]
    if subject.inputs.counts_totals:
        message = counted(
            "{count} row sums up the others and stands beside them: {names}.",
            "{count} rows sum up the others and stand beside them: {names}.",
            len(rows),
            names=names,
        )
    else:
        message = counted(
            "{count} row sums up the others and is left out: {names}.",
            "{count} rows sum up the others and are left out: {names}.",
            len(rows),
            names=names,
        )
    chart = subject.entry.id
    leave = Remedy(
        "leave out total",
        say("Leave the total out"),
        lambda document: change_chart(document, chart, totals=False),
        restates=subject.inputs.counts_totals,
    )
    yield Finding(CHECK.name, "note", float(len(rows)), message, subject.place(), (leave,))


def _difference(subject: ChartSubject, by: float) -> Iterator[Remedy]:
    """A row before the total that holds what is missing to it."""
    helpers = {build.name: build.values for build in subject.picture.build.helpers}
    figures, running, total = subject.inputs.figures("value"), helpers.get("running", ()), helpers.get("total", ())
    table, chart = subject.entry.table, subject.entry.id
    value, name = subject.inputs.id("value"), subject.inputs.id("name")
    for row in range(1, min(subject.inputs.rows, len(running))):
        running_total = running[row]
        stated = float(figures[row])
        if (
            not total[row]
            or not isinstance(running_total, float)
            or math.isnan(stated)
            or abs(stated - running_total - by) > 1e-9
        ):
            continue

        def edit(document: Document, row: int = row) -> Document:
            cell_row = row + HEADER
            document = insert_rows(document, table, cell_row)
            running_total = document.table(table)
            cells: dict[tuple[int, int], float | str] = {(running_total.place(value), cell_row): by}
            if name:
                cells[running_total.place(name), cell_row] = say("Unexplained").said_in(document.locale)
            kind = running_total.place(next(iter(document.chart(chart).roles.get("total", ())), ""))
            if kind >= 0:
                cells[kind, cell_row] = ""
            return set_cells(document, table, {place: cell for place, cell in cells.items() if cell != ""})

        yield Remedy("difference row", say("Show the difference as a row"), edit, restates=True)
        return


CHECK = Check("stated-total", "A total that differs, or stands among its parts", "the figures", of_chart=check)
