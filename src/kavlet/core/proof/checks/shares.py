"""Checks of parts of a whole: what they add up to, and whether they can be told apart."""

import math
from collections import Counter
from collections.abc import Iterator, Sequence

from kavlet.core.charts.layer import LEFT_OVER, Stacking
from kavlet.core.charts.looks import of_layer
from kavlet.core.document.charts.chart_edits import try_recipe
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart, insert_rows, set_cells
from kavlet.core.document.pages.page_edits import delete_items
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import counted, say
from kavlet.core.proof.chart_changes import to_bars, to_sorted_bars
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import NumberText
from kavlet.core.values.sums import exact_sum

# Parts of a whole that do not add up to it.
#
# Source: the whole is what the author states, or 100 % where the figures are written as percents; a sum within what
# rounding of each figure explains is no finding (Mosteller, Youtz and Zahn 1967, Demography 4(2)).

CLOSE = 0.08  # of the whole: figures near 100 % are meant to add up to it, others are a part of something else


def within_rounding(claimed: Sequence[float], unit: float, whole: float) -> bool:
    """Whether figures rounded to a unit each could add up to the whole exactly."""
    return abs(exact_sum(claimed) - whole) <= unit / 2 * len(claimed) + 1e-9 * abs(whole)


def check_share_sum(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed of a whole that was stated; and percents near 100 % that miss it by more than rounding."""
    yield from subject.notices(SHARE_SUM.name)
    parts = [layer for layer in subject.layers if kind_of(layer).shares_whole(layer, subject.chart.frame)]
    how = subject.inputs.number_text("value")
    if not parts or how.style != "percent" or subject.inputs.settings.get("whole") not in ("", None):
        return
    figures = [float(layer) for layer in subject.inputs.figures("value") if math.isfinite(layer)]
    total = exact_sum(figures)
    unit = 0.01 / 10**how.decimals
    if len(figures) < 2 or abs(total - 1) > CLOSE or within_rounding(figures, unit, 1.0):
        return
    total_text = written(total, how, subject.document.locale)
    if total < 1:
        message = say("The parts add up to {total}, so something of the whole is not shown.", total=total_text)
        remedy = subject.setting("show the left-over", say("Show what is left over"), {"whole": 1.0}, restates=True)
    else:
        message = say("The parts add up to {total}, more than the whole.", total=total_text)
        remedy = subject.setting("whole is the sum", say("Take the sum as the whole"), {"whole": total}, restates=True)
    if subject.has_setting("whole"):
        yield Finding(SHARE_SUM.name, "warning", total, message, subject.place(layer=parts[0].key), (remedy,))


SHARE_SUM = Check(
    "share-sum", "Parts that do not add up to their whole", "Mosteller, Youtz and Zahn 1967", of_chart=check_share_sum
)


# Rounded shares that do not add up to 100 as they are shown.
#
# Source: Mosteller, Youtz and Zahn 1967 (Demography 4(2)): three shares rounded each add up to 100 three times out of
# four; Diaconis and Freedman 1979 (J. American Statistical Association 74(366)). The remedy is the largest remainder
# (Hamilton 1792).


def rounded(figures: list[float], decimals: int) -> list[float]:
    """Shares of 1 as percents with so many decimals, half away from zero."""
    unit = 10**decimals
    return [math.floor(100 * figure * unit + 0.5 + 1e-9) / unit for figure in figures]


def check_rounding(subject: ChartSubject) -> Iterator[Finding]:
    """Labels that write a column of percents by itself, where the exact figures add up to 100 % and those shown do
    not. Shares that the program works out are rounded so that they add up."""
    for layer in subject.layers:
        label = layer.label
        if label is None or "{value}" not in label.template or label.when != "all":
            continue
        how = label.numbers.get("value") or label.number or _column(subject, layer.figure_column)
        figures = [figure for _, figure in subject.figures(layer)]
        if how.style != "percent" or how.significant or len(figures) < 2 or min(figures) < 0:
            continue
        total = 100 * exact_sum(figures)
        shown = exact_sum(rounded(figures, how.decimals))
        if abs(total - 100) > 1e-6 or abs(shown - 100) < 1e-6:
            continue
        template = label.template.replace("{value}", "{share}")
        remedy = subject.looks(
            "largest remainder",
            say("Round so that they add up"),
            {
                of_layer(layer.key, "label", "template"): template,
                of_layer(layer.key, "label", "numbers", "share", "style"): "percent",
                of_layer(layer.key, "label", "numbers", "share", "most_decimals"): how.decimals,
            },
        )
        message = say("The shares as shown add up to {sum}, not to 100\u00a0%.", sum=f"{round(shown, 6):g}\u00a0%")
        yield Finding(ROUNDING.name, "note", shown, message, subject.place(layer=layer.key), (remedy,))


def _column(subject: ChartSubject, column: str) -> NumberText:
    return subject.inputs.number_texts.get(column, NumberText())


ROUNDING = Check(
    "rounding", "Rounded shares that do not add up to 100 %", "Mosteller, Youtz and Zahn 1967", of_chart=check_rounding
)


# A part below zero, where parts of a whole are drawn.
#
# Source: a share lies between 0 and 1 by definition; ISO/IEC 29500 pie charts draw the amount of a negative figure,
# which says the contrary of it.


def check_negative_share(subject: ChartSubject) -> Iterator[Finding]:
    """The lowest one is named."""
    negatives: list[tuple[float, int, str]] = []
    data = subject.picture.build.panels[0].data
    for layer in subject.chart.layers:
        shares = kind_of(layer).only_shares or (isinstance(layer, Stacking) and layer.stack == "share")
        if layer.hidden or layer.helper or not shares:
            continue
        column = data.column(layer.figure_column)
        rows = zip(data.ids, column, strict=False)
        negatives += [(float(figure), row, layer.key) for row, figure in rows if math.isfinite(figure) and figure < 0]
    if not negatives:
        return
    lowest, row, key = min(negatives)
    message = counted(
        "{count} part is below zero, which no share can be.", "{count} parts are below zero, which no share can be.",
        len(negatives),
    )  # fmt: skip
    yield Finding(
        NEGATIVE_SHARE.name,
        "warning",
        lowest,
        message,
        subject.place(layer=key, row=row),
        to_bars(subject, "side by side"),
    )


NEGATIVE_SHARE = Check(
    "negative-share", "A part below zero in a whole", "a share lies between 0 and 1", of_chart=check_negative_share
)


# More parts of a whole than can be told apart, or parts too small to be seen.
#
# Source: common practice (seven parts, two percent); W. S. Cleveland and R. McGill 1984 (J. American Statistical
# Association 79(387)): angles are judged less exactly than positions.

MAX_SLICES, MIN_SHARE = 7, 0.02  # parts of one ring, and the share of the whole that a part should have
MAX_GATHERED = 50.0  # percent, up to which small parts can be drawn as one


def check_many_slices(subject: ChartSubject) -> Iterator[Finding]:
    """Rings that have too many parts, and the smallest part of those that are too small; symbols too many to count."""
    yield from subject.notices(MANY_SLICES.name)
    for layer in subject.layers:
        if not kind_of(layer).mark.has_slices:
            continue
        marks = [mark for mark in subject.marks if mark.key == layer.key and mark.panel == 0]
        values = [abs(mark.value) for mark in marks if math.isfinite(mark.value)]
        whole = sum(values)
        small = [value for value in values if whole and 0 < value / whole < MIN_SHARE]
        groups = Counter(getattr(layer, "groups", {}).get(mark.row, (-1, 0))[0] for mark in marks)
        together = max(groups.values(), default=0)  # parts of a group are read within it
        if together <= MAX_SLICES and not small:
            continue
        if together > MAX_SLICES:
            message = say("{count} parts are more than a reader can tell apart.", count=together)
            figure = float(together)
        else:
            message = counted(
                "{count} part is under 2\u00a0% of the whole, too small to be seen.",
                "{count} parts are under 2\u00a0% of the whole, too small to be seen.",
                len(small),
            )
            figure = min(small) / whole
        yield Finding(
            MANY_SLICES.name,
            "note",
            figure,
            message,
            subject.place(layer=layer.key),
            (*_gather(subject, values), *to_sorted_bars(subject)),
        )


def _gather(subject: ChartSubject, values: list[float]) -> Iterator[Remedy]:
    """Gather the small ones: the least share from which on few enough stay, and their sum is large enough."""
    if not subject.has_setting("gather") or not (whole := sum(values)):
        return
    shares = sorted(
        float(figure) / whole for figure in subject.inputs.figures("value") if math.isfinite(figure) and figure > 0
    )
    spare = sum(mark.row == LEFT_OVER for mark in subject.marks)  # what is left over of a stated whole
    for place in range(2, len(shares)):
        threshold = math.ceil(1000 * (shares[place - 1] + 1e-12)) / 10
        lump = [share for share in shares if 100 * share < threshold]
        kept_shares = [share for share in shares if 100 * share >= threshold]
        fits = (
            len(kept_shares) + 1 + spare <= MAX_SLICES
            and kept_shares
            and min(kept_shares) >= MIN_SHARE
            and sum(lump) >= MIN_SHARE
        )
        if fits and threshold <= MAX_GATHERED:
            yield subject.setting("gather", say("Gather the small ones"), {"gather": threshold}, restates=True)
            return


MANY_SLICES = Check(
    "many-slices", "Too many parts, or parts too small to be seen", "common practice", of_chart=check_many_slices
)


# Several pies of the same parts on one page, which ask to be compared angle by angle.
#
# Source: W. S. Cleveland and R. McGill 1984 (J. American Statistical Association 79(387)): angles are compared less
# exactly than lengths from one line.


def check_pies_compared(subject: PageSubject) -> Iterator[Finding]:
    """Each set of names that two pies or more share."""
    pies: dict[frozenset[str], list[ChartSubject]] = {}
    for one in subject.charts.values():
        names = frozenset(name for name in one.inputs.names if name)
        if names and one.layers and all(kind_of(layer).mark.has_slices for layer in one.layers):
            pies.setdefault(names, []).append(one)
    for same in pies.values():
        if len(same) < 2 or len({one.entry.id for one in same}) < 2:
            continue
        message = say("{count} pies show the same parts; readers compare lengths better than angles.", count=len(same))
        yield Finding(
            PIES_COMPARED.name,
            "note",
            float(len(same)),
            message,
            subject.place(same[0].item),
            tuple(_remedies(subject, same)),
        )


def _remedies(subject: PageSubject, pies: list[ChartSubject]) -> Iterator[Remedy]:
    first = pies[0]
    columns = [one.inputs.id("value") for one in pies]
    together = len({one.entry.table for one in pies}) == 1 and len(set(columns)) == len(pies)
    page, chart = subject.page.id, first.entry.id
    spare = [one.item for one in pies[1:]]
    if together and len(pies) == 2:

        def growth(document: Document) -> Document:
            document = try_recipe(document, chart, "growth-bars")
            roles = {**document.chart(chart).roles, "before": (columns[0],), "after": (columns[1],)}
            return delete_items(change_chart(document, chart, roles=roles), page, spare)

        yield Remedy("growth bars", say("Draw how they changed"), growth, restates=True)
    if together:

        def beside(document: Document) -> Document:
            document = try_recipe(document, chart, "bars")
            roles = {**document.chart(chart).roles, "value": tuple(columns)}
            return delete_items(change_chart(document, chart, roles=roles), page, spare)

        yield Remedy("bars beside", say("Draw bars side by side"), beside, restates=True)
        return

    def each(document: Document) -> Document:
        for one in dict.fromkeys(pie.entry.id for pie in pies):
            document = try_recipe(document, one, "bars")
        return document

    yield Remedy("bars", say("Draw bars instead"), each, restates=True)


PIES_COMPARED = Check(
    "pies-compared", "Pies of the same parts on one page", "Cleveland and McGill 1984", of_page=check_pies_compared
)


# A total that differs from what its parts add up to, or that stands among them.
#
# Source: the figures themselves; a total counted as a part doubles the whole.


def check_stated_total(subject: ChartSubject) -> Iterator[Finding]:
    """Totals of a bridge that the steps do not lead to; total rows among the others, or left out unasked."""
    for finding in subject.notices(STATED_TOTAL.name):
        yield Finding(
            STATED_TOTAL.name, finding.severity, finding.figure, finding.message, finding.place,
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
    yield Finding(STATED_TOTAL.name, "note", float(len(rows)), message, subject.place(), (leave,))


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


STATED_TOTAL = Check(
    "stated-total", "A total that differs, or stands among its parts", "the figures", of_chart=check_stated_total
)
