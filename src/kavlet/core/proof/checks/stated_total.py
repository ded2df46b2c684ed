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


def check(of: ChartSubject) -> Iterator[Finding]:
    """Totals of a bridge that the steps do not lead to; total rows among the others, or left out unasked."""
    for finding in of.notices(CHECK.name):
        yield Finding(
            CHECK.name, finding.severity, finding.figure, finding.message, finding.place,
            tuple(_difference(of, finding.figure)),
        )  # fmt: skip
    rows = of.inputs.totals
    if not rows or of.entry.totals is False:
        return
    names = [name for name in rows if name]
    if of.inputs.counts_totals:
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
    chart = of.entry.id
    leave = Remedy(
        "leave out total",
        say("Leave the total out"),
        lambda document: change_chart(document, chart, totals=False),
        restates=of.inputs.counts_totals,
    )
    yield Finding(CHECK.name, "note", float(len(rows)), message, of.place(), (leave,))


def _difference(of: ChartSubject, by: float) -> Iterator[Remedy]:
    """A row before the total that holds what is missing to it."""
    helpers = {one.name: one.values for one in of.picture.build.helpers}
    figures, running, total = of.inputs.figures("value"), helpers.get("running", ()), helpers.get("total", ())
    table, chart = of.entry.table, of.entry.id
    value, name = of.inputs.id("value"), of.inputs.id("name")
    for row in range(1, min(of.inputs.rows, len(running))):
        held = running[row]
        stated = float(figures[row])
        if not total[row] or not isinstance(held, float) or math.isnan(stated) or abs(stated - held - by) > 1e-9:
            continue

        def edit(document: Document, row: int = row) -> Document:
            at = row + HEADER
            document = insert_rows(document, table, at)
            held = document.table(table)
            cells: dict[tuple[int, int], float | str] = {(held.place(value), at): by}
            if name:
                cells[held.place(name), at] = say("Unexplained").said_in(document.locale)
            kind = held.place(next(iter(document.chart(chart).roles.get("total", ())), ""))
            if kind >= 0:
                cells[kind, at] = ""
            return set_cells(document, table, {place: cell for place, cell in cells.items() if cell != ""})

        yield Remedy("difference row", say("Show the difference as a row"), edit, restates=True)
        return


CHECK = Check("stated-total", "A total that differs, or stands among its parts", "the figures", of_chart=check)
