"""Checks of the figures themselves: missing, doubled, without a base, in error, or no longer those of their source."""

import math
from collections import Counter
from collections.abc import Iterator
from pathlib import PurePath

import msgspec

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.looks import of_layer
from kavlet.core.document.charts.chart_edits import try_recipe
from kavlet.core.document.document import Document, with_table
from kavlet.core.document.edits import change_chart, delete_rows, set_cells
from kavlet.core.document.tables.evaluated_table import values_of
from kavlet.core.document.tables.helper_columns import fitted
from kavlet.core.document.tables.source_updates import link
from kavlet.core.messages import counted, say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Edit, Finding, Location, Remedy
from kavlet.core.proof.subjects import ChartSubject, DocumentSubject, PageSubject
from kavlet.core.recipes.building_blocks import VALUE
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, FormattedNumber, Formula
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.sums import exact_sum

# Rows that hold no value and so are not drawn. An empty cell is no value, never zero.
#
# Source: the figures themselves.


def check_missing(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed; and empty or text cells where a figure should be. A formula that gives "" means it."""
    yield from subject.notices(MISSING.name)
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
        MISSING.name,
        "note",
        float(len(empty)),
        message,
        place,
        tuple(_missing_remedies(subject, sorted(empty), courses)),
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


def _missing_remedies(subject: ChartSubject, rows: list[int], courses: list[AnyLayer]) -> Iterator[Remedy]:
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


MISSING = Check("missing", "Rows without a value", "the figures", of_chart=check_missing)


# The same name twice, where each row should be one thing.
#
# Source: the figures themselves.


def check_doubles(subject: ChartSubject) -> Iterator[Finding]:
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
    yield Finding(
        DOUBLES.name, "note", float(count), message, subject.cell("name", row), tuple(_doubles_remedies(subject))
    )


def _doubles_remedies(subject: ChartSubject) -> Iterator[Remedy]:
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


DOUBLES = Check("doubles", "The same name twice", "the figures", of_chart=check_doubles)


# Growth from zero or from nothing, and percentages of very few cases.
#
# Source: common practice (percentages on a base of at least 30 cases).

MIN_CASES = 30


def check_no_base(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed; and labels of shares alone where whole numbers add up to few."""
    yield from subject.notices(NO_BASE.name, *_both(subject))
    for layer in subject.layers:
        label = layer.label
        if label is None or "{share}" not in label.template or "{value}" in label.template:
            continue
        figures = [figure for _, figure in subject.figures(layer)]
        how = subject.inputs.number_texts.get(layer.figure_column)
        base = exact_sum(figures)
        counts = all(figure.is_integer() and figure >= 0 for figure in figures)
        if (how is not None and how.style == "percent") or not counts or not 0 < base < MIN_CASES or len(figures) < 2:
            continue
        both = label.template.replace("{share}", "{share} ({value})")
        remedy = subject.looks(
            "both values", say("Show the figures too"), {of_layer(layer.key, "label", "template"): both}
        )
        message = say("The percentages are of {base} only; the figures themselves say more.", base=round(base))
        yield Finding(NO_BASE.name, "note", base, message, subject.place(layer=layer.key), (remedy,))
        return


def _both(subject: ChartSubject) -> Iterator[Remedy]:
    """Both figures as bars side by side, instead of their growth."""
    chart, before, after = subject.entry.id, subject.inputs.ids("before"), subject.inputs.ids("after")
    if not before or not after:
        return

    def edit(document: Document) -> Document:
        document = try_recipe(document, chart, "bars")
        roles = {**document.chart(chart).roles, "value": (*before, *after)}
        return change_chart(document, chart, roles=roles)

    yield Remedy("both values", say("Show both figures"), edit, restates=True)


NO_BASE = Check(
    "no-base", "Growth from nothing, percentages of few", "common practice: 30 cases", of_chart=check_no_base
)


# A file that a table follows has changed, or is lost.
#
# Source: the file's stamp when it was last taken over.


def check_stale_source(subject: DocumentSubject) -> Iterator[Finding]:
    """Each table whose file is known to have changed or gone."""
    for table in subject.document.tables:
        state = subject.sources.get(table.id)
        if table.source is None or state not in ("changed", "lost"):
            continue
        name = PurePath(table.source.path).name
        message = (
            say(
                "The file {name} has changed since its figures were taken over into “{table}”.",
                name=name,
                table=table.name,
            )
            if state == "changed"
            else say("The file {name}, which “{table}” follows, is not there any more.", name=name, table=table.name)
        )
        update = Remedy("update", say("Compare and update …"))
        stop = Remedy("stop following", say("Stop following"), _stop(table.id))
        remedies = (update, stop) if state == "changed" else (stop,)
        yield Finding(STALE_SOURCE.name, "warning", 1.0, message, Location(table=table.id), remedies)


def _stop(table: str) -> Edit:
    def edit(document: Document) -> Document:
        return link(document, table, None)

    return edit


STALE_SOURCE = Check(
    "stale-source", "A followed file that changed or is lost", "the file’s stamp", of_papers=check_stale_source
)


# Errors that a chart or a text reads, and helper cells edited by hand.
#
# Source: OASIS ODF 1.3 part 4, 5.12 (the errors a formula gives).

GO = Remedy("go", say("Go to the cell"))


def check_formula_error(subject: ChartSubject) -> Iterator[Finding]:
    """What they would say is left empty: no code of an error stands in a picture."""
    for text, error in subject.picture.build.failed:
        message = say(
            "{text} gives {found}, so nothing stands there. {meaning}",
            text=text, found=error.value, meaning=say(error.meaning),
        )  # fmt: skip
        yield Finding(FORMULA_ERROR.name, "warning", 1.0, message, subject.place(text="title"))
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
    yield Finding(FORMULA_ERROR.name, "error", float(len(errors)), message, where, (GO,))


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
        yield Finding(FORMULA_ERROR.name, "note", float(len(rows)), message, where, (_give_back(table, column.id), GO))
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


def check_formula_error_on_page(subject: PageSubject) -> Iterator[Finding]:
    """Formulas in words, key figures and captions of a page."""
    for item, composed_item in subject.picture.made.items():
        if composed_item.refused:
            yield Finding(
                FORMULA_ERROR.name, "error", 1.0, say("{text}", text=composed_item.refused), subject.place(item)
            )
        for text, error in composed_item.failed:
            message = say(
                "{text} gives {found}, so nothing stands there. {meaning}",
                text=text, found=error.value, meaning=say(error.meaning),
            )  # fmt: skip
            yield Finding(FORMULA_ERROR.name, "warning", 1.0, message, subject.place(item))


FORMULA_ERROR = Check(
    "formula-error",
    "Errors that are read, helpers by hand",
    "ODF 1.3 part 4, 5.12",
    of_chart=check_formula_error,
    of_page=check_formula_error_on_page,
)
