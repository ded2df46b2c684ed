"""Checks of titles and texts: what is missing, and numbers that will not follow their figures."""

import math
import re
from collections.abc import Iterator

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.document.pages.page_edits import change_item, change_page
from kavlet.core.document.tables.cell_edits import address
from kavlet.core.messages import say
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.words import Words
from kavlet.core.pages.page import MARGIN_SOURCE
from kavlet.core.pipeline.alt_text import headline, in_english
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Location, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject
from kavlet.core.spreadsheet.cell_input import typed_number
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.text.numbers import decimal_sign, group_sign
from kavlet.core.values.sums import exact_sum

# A number typed into a text that is, or was, a figure of the chart, and will not follow when the figure moves.
#
# Source: common practice (within 5 %). A year, a small number and a number in a name are no figures.

NEAR = 0.05
FIRST_YEAR, LAST_YEAR, LEAST = 1800, 2100, 10
_NUMBER = re.compile(r"(?<![\w{=])([-−]?\d[\d.,'’\u00a0\u202f]*\d|\d)(\s?%)?(?!\w)")
_FIELD = re.compile(r"\{[^{}]*\}")


class Known(Struct, frozen=True):
    """A figure of a chart, the cells it stands in or is summed from, and the cells of the whole it is a share of."""

    value: float
    formula: str
    is_share: bool = False


class Said(Struct, frozen=True):
    """A number in a text: where, its value, its decimals, and how many of its digits count."""

    start: int
    end: int
    text: str
    value: float
    decimals: int
    digits: int
    percent: bool


def numbers_in(text: str, locale: str) -> list[Said]:
    """The numbers that a text says, but for years, small ones, and what stands in fields."""
    bare = _FIELD.sub(lambda found: " " * len(found[0]), text)
    decimal, group = decimal_sign(locale), group_sign(locale)
    found = []
    for match in _NUMBER.finditer(bare):
        value = typed_number(match[1], decimal, group)
        percent = match[2] is not None
        if value is None or (not percent and abs(value) < LEAST):
            continue
        body, _, after = match[1].partition(decimal)
        plain = re.sub(r"\D", "", body)
        if not after and not percent and len(body) == len(plain) and FIRST_YEAR <= value <= LAST_YEAR:
            continue
        digits = len((plain + after).lstrip("0")) if after else len(plain.rstrip("0"))
        found.append(Said(match.start(), match.end(), match[0], value, len(after), max(1, digits), percent))
    return found


def matching(number: Said, known_figures: list[Known]) -> tuple[Known, bool] | None:
    """The figure a number says, and whether it says it exactly as rounded; else one it is near to; None for none."""
    near: Known | None = None
    for candidate in known_figures:
        if number.percent != candidate.is_share:
            continue
        value = 100 * candidate.value if number.percent else candidate.value
        if not value or not math.isfinite(value):
            continue
        if abs(round(value, number.decimals) - number.value) < 1e-9 or _rounds_to(value, number):
            return candidate, True
        if number.digits >= 2 and abs(value - number.value) <= NEAR * abs(value) and near is None:
            near = candidate
    return (near, False) if near is not None else None


def _rounds_to(value: float, said: Said) -> bool:
    """Whether a figure, rounded to as many digits as the number has, is that number."""
    if said.digits < 2:
        return False
    power = math.floor(math.log10(abs(value))) - said.digits + 1
    return abs(round(value, -power) - said.value) < 1e-9 * abs(said.value)


def figures_of(subject: ChartSubject, table_name: str = "") -> list[Known]:
    """The figures of a chart's columns, their sums, and their shares, with formulas for them."""
    known_figures: list[Known] = []
    inputs, prefix = subject.inputs, f"{address((0, 0, 0, 0), table_name)[:-2]}" if table_name else ""
    for role in subject.entry.roles:
        for column in inputs.ids(role):
            if column not in inputs.numbers:
                continue
            numbers = [float(number) for number in inputs.numbers[column]]
            finite = [number for number in numbers if math.isfinite(number)]
            if not finite or role in ("x", "period"):
                continue
            letters, last = column_letters(inputs.places[column]), inputs.rows + HEADER
            whole = f"SUM({prefix}{letters}{HEADER + 1}:{letters}{last})"
            style = inputs.number_texts.get(column)
            is_share = style is not None and style.style == "percent"
            total = exact_sum(finite)
            for row, number in enumerate(numbers):
                if math.isfinite(number):
                    cell = f"{prefix}{letters}{row + HEADER + 1}"
                    known_figures.append(Known(number, cell, is_share))
                    if total and not is_share and min(finite) >= 0:
                        known_figures.append(Known(number / total, f"{cell}/{whole}", True))
            if not is_share and len(finite) > 1:
                known_figures.append(Known(total, whole))
    return known_figures


def _names(subject: ChartSubject) -> str:
    return "\n".join([*subject.inputs.names, *subject.inputs.titles.values(), subject.inputs.table_name])


def check_typed_number(subject: ChartSubject) -> Iterator[Finding]:
    """Title, subtitle, source line and free texts of a chart."""
    entry, locale = subject.entry, subject.document.locale
    texts = [("title", entry.title), ("subtitle", entry.subtitle), ("source", entry.source)]
    known_figures = figures_of(subject)
    names = _names(subject)
    for kind, text in texts:
        if text.startswith("="):
            continue
        for number in numbers_in(text, locale):
            match = matching(number, known_figures) if number.text not in names else None
            if match is not None:
                formula = _formula(text, number, match[0])
                yield _finding(number, match, subject.place(text=kind), _bind_text(entry.id, kind, formula))
                break
    for note in entry.notes:
        for number in [] if note.text.startswith("=") else numbers_in(note.text, locale):
            match = matching(number, known_figures) if number.text not in names else None
            if match is not None:
                formula, key = _formula(note.text, number, match[0]), note.key
                yield _finding(number, match, subject.place(text="note", layer=key), _bind_note(entry.id, key, formula))
                break


def _bind_text(chart: str, field: str, formula: str) -> Remedy:
    return Remedy(
        "bind", say("Bind it to its cell"), lambda document: change_chart(document, chart, **{field: formula})
    )


def _bind_note(chart: str, key: str, formula: str) -> Remedy:
    def edit(document: Document) -> Document:
        notes = tuple(
            msgspec.structs.replace(one, text=formula) if one.key == key else one for one in document.chart(chart).notes
        )
        return change_chart(document, chart, notes=notes)

    return Remedy("bind", say("Bind it to its cell"), edit)


def check_typed_number_on_page(subject: PageSubject) -> Iterator[Finding]:
    """Words on a page, read against the charts on it."""
    known_figures: list[Known] = []
    names = []
    for chart_subject in subject.charts.values():
        known_figures += figures_of(chart_subject, chart_subject.table.name)
        names.append(_names(chart_subject))
    all_names = "\n".join(names)
    for item in subject.page.items:
        if not isinstance(item, Words):
            continue
        for paragraph_number, paragraph in enumerate(item.paragraphs):
            for place, run in enumerate(paragraph.runs):
                for number in numbers_in(run.text, subject.document.locale):
                    match = matching(number, known_figures) if number.text not in all_names else None
                    if match is not None:
                        field = f"{{={match[0].formula} | {_pattern(number)}}}"
                        text = run.text[: number.start] + field + run.text[number.end :]
                        yield _finding(
                            number,
                            match,
                            subject.place(item.id),
                            _bind_run(subject, item, (paragraph_number, place), text),
                        )
                        break


def _bind_run(subject: PageSubject, item: Words, at: tuple[int, int], text: str) -> Remedy:
    paragraphs = list(item.paragraphs)
    runs = list(paragraphs[at[0]].runs)
    runs[at[1]] = msgspec.structs.replace(runs[at[1]], text=text)
    paragraphs[at[0]] = msgspec.structs.replace(paragraphs[at[0]], runs=tuple(runs))
    page = subject.page.id
    return Remedy(
        "bind", say("Bind it to its cell"),
        lambda document: change_item(document, page, item.id, paragraphs=tuple(paragraphs)),
    )  # fmt: skip


def _finding(number: Said, match: tuple[Known, bool], place: Location, bind: Remedy) -> Finding:
    known_figure, exact = match
    if exact:
        message = say("“{text}” is typed by hand; it stays when the figure moves.", text=number.text.strip())
    else:
        figure = round(100 * known_figure.value, number.decimals) if number.percent else known_figure.value
        message = say(
            "“{text}” is typed by hand, and the figure near it is {figure}.",
            text=number.text.strip(), figure=f"{figure:.6g}\u00a0%" if number.percent else figure,
        )  # fmt: skip
    return Finding(TYPED_NUMBER.name, "note" if exact else "warning", number.value, message, place, (bind,))


def _pattern(said: Said) -> str:
    """The pattern (UTS 35) that writes a figure as the number was typed."""
    decimals = "." + "0" * said.decimals if said.decimals else ""
    return (
        f"0{decimals} %"
        if said.percent and said.text.rstrip("%").endswith((" ", "\u00a0"))
        else (f"0{decimals}%" if said.percent else f"#,##0{decimals}")
    )


def _formula(text: str, said: Said, known: Known) -> str:
    """A formula that says the text, with the figure in the number's place."""
    before, after = text[: said.start].replace('"', '""'), text[said.end :].replace('"', '""')
    parts = [
        f'"{before}"' if before else "",
        f'TEXT({known.formula};"{_pattern(said)}")',
        f'"{after}"' if after else "",
    ]
    return "=" + "&".join(part for part in parts if part)


TYPED_NUMBER = Check(
    "typed-number",
    "A typed number that is a figure of the chart",
    "common practice: 5 %",
    of_chart=check_typed_number,
    of_page=check_typed_number_on_page,
)


# What names a chart and its figures, where it is missing: a title, a source line on a page, an alt text that is true.
#
# Source: WCAG 2.2, 1.1.1 (alternatives in text) and 2.4.2 (titles); common practice (a source for figures on a page).

SOURCES = ("source", "quelle", "data:", "daten:", "figures:", "zahlen:")  # what a source line begins with


def check_title_missing(subject: ChartSubject) -> Iterator[Finding]:
    """No title, or one that is only the table's or the chart's name; an alt text whose figures have moved on."""
    entry = subject.entry
    title = subject.figure.title.strip()
    bare = {entry.name.casefold(), subject.table.name.casefold()}
    if not title or (title.casefold() in bare and not entry.title.startswith("=")):
        message = (
            say("The chart has no title.") if not title else say("The title “{title}” is only a name.", title=title)
        )
        said = _headline(subject)
        write = Remedy(
            "write title", say("Write it from the figures"),
            lambda document: change_chart(document, entry.id, title=said),
        )  # fmt: skip
        yield Finding(TITLE_MISSING.name, "note", 0.0, message, subject.place(text="title"), (write,) if said else ())
    if entry.alt is not None:
        yield from _alt(subject)


def _alt(subject: ChartSubject) -> Iterator[Finding]:
    entry = subject.entry
    assert entry.alt is not None
    message_text = message_now(subject)
    back = Remedy(
        "write alt text", say("Write it from the figures"), lambda document: change_chart(document, entry.id, alt=None)
    )
    if not entry.alt.text.strip():
        yield Finding(
            TITLE_MISSING.name, "warning", 0.0, say("The alt text is empty."), subject.place(text="alt"), (back,)
        )
        return
    if entry.alt.message == message_text:
        return

    def keep(document: Document) -> Document:
        alt_text_ = document.chart(entry.id).alt
        assert alt_text_ is not None
        return change_chart(document, entry.id, alt=msgspec.structs.replace(alt_text_, message=message_text))

    message = say("The alt text was written for other figures: they have moved on since.")
    leave = Remedy("keep alt text", say("It is still true"), keep)
    yield Finding(TITLE_MISSING.name, "warning", 1.0, message, subject.place(text="alt"), (back, leave))


def message_now(subject: ChartSubject) -> str:
    """The message of the figures as they are, in English."""
    build = subject.picture.build
    data = build.panels[0].data
    return in_english(subject.entry, subject.picture.recipe, build.inputs, data)


def _headline(subject: ChartSubject) -> str:
    """A title from the figures, else what they are figures of; empty where that is the name it has."""
    build = subject.picture.build
    headline_text = headline(subject.entry, subject.picture.recipe, build.inputs, subject.chart, build.panels[0].data)
    names = {subject.entry.name.casefold(), subject.table.name.casefold()}
    return next(
        (
            candidate
            for candidate in (headline_text, subject.inputs.title("value"))
            if candidate and candidate.casefold() not in names
        ),
        "",
    )


def check_title_missing_on_page(subject: PageSubject) -> Iterator[Finding]:
    """A page with charts and no line that tells where the figures come from; pictures without an alt text."""
    framed = [item for item in subject.page.items if isinstance(item, ChartFrame) and item.id in subject.charts]
    shown_texts = [text for chart_subject in subject.charts.values() for text in chart_subject.texts("source")]
    lines = [item.text for item in subject.page.items if isinstance(item, Words)] + [
        subject.page.header,
        subject.page.footer,
    ]
    is_named = any(
        line.strip().casefold().startswith(SOURCES) or MARGIN_SOURCE in line
        for text in lines for line in text.split("\n")
    )  # fmt: skip
    if framed and not shown_texts and not is_named:
        hidden = [item for item in framed if not item.title and subject.document.chart(item.chart).source]
        remedies = (
            tuple(_footer(subject))
            if hidden or any(chart_subject.entry.source for chart_subject in subject.charts.values())
            else ()
        )
        yield Finding(
            TITLE_MISSING.name,
            "note",
            0.0,
            say("The page says nowhere where its figures come from."),
            subject.place(),
            remedies,
        )
    for item in subject.page.items:
        if isinstance(item, PlacedPicture) and not item.alt.strip():
            message = say("The picture “{name}” has no alt text.", name=item.picture)
            yield Finding(
                TITLE_MISSING.name, "note", 0.0, message, subject.place(item.id), (_name(subject.page.id, item),)
            )


def _name(page: str, item: PlacedPicture) -> Remedy:
    """The picture's name, as words, for its alt text."""
    called = item.picture.replace("-", " ").replace("_", " ")
    name = say("Say what it is called")
    return Remedy("name picture", name, lambda document: change_item(document, page, item.id, alt=called))


def _footer(subject: PageSubject) -> Iterator[Remedy]:
    """The charts' source line in the page's lower margin."""
    if not subject.page.footer:
        name = say("Put the source into the lower margin")
        yield Remedy("source line", name, lambda document: change_page(document, subject.page.id, footer=MARGIN_SOURCE))


TITLE_MISSING = Check(
    "title-missing", "A title, source line or alt text that is missing or not true", "WCAG 2.2, 1.1.1 and 2.4.2",
    of_chart=check_title_missing, of_page=check_title_missing_on_page,
)  # fmt: skip
