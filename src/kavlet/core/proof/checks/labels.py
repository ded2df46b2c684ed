"""Checks of labels and legends: how they are written, and whether they found room."""

import re
from collections.abc import Iterator

import msgspec

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.looks import of_layer
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.layout.texts.text_lines import FLOOR
from kavlet.core.messages import counted, say
from kavlet.core.pipeline.stages import Picture
from kavlet.core.proof.chart_changes import larger_chart, tried
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.text.numbers import decimal_sign
from kavlet.core.text.wrapping import ELLIPSIS

# Labels, names, entries of a legend and panels that found no room at a readable size.
#
# Source: the layout; nothing is shrunk below 7 pt or laid over something else in silence.


def chart(subject: ChartSubject) -> Iterator[Finding]:
    """Panels of a repeated chart that are not drawn."""
    undrawn = subject.picture.build.undrawn
    if undrawn:
        message = counted(
            "{count} panel is not drawn: there are too many.",
            "{count} panels are not drawn: there are too many.",
            undrawn,
        )
        yield Finding(LABELS_LOST.name, "warning", float(undrawn), message, subject.place())


def check_labels_lost(subject: ChartSubject) -> Iterator[Finding]:
    """They are left out rather than overlapped or shrunk below the floor."""
    figure = subject.figure
    if figure.unlisted or figure.unnamed or figure.dropped:
        yield from _left_out(subject)
    short = _shortened(subject, figure)
    if short:
        message = counted(
            "{count} text is shortened, because there is no room for it: “{text}”.",
            "{count} texts are shortened, because there is no room for them, such as “{text}”.",
            len(short), text=short[0].text.split("\n")[0],
        )  # fmt: skip
        place = subject.text_place(short[0])
        if short[0].row is not None and subject.inputs.has("name"):
            cell = subject.cell("name", short[0].row)
            place = msgspec.structs.replace(place, table=cell.table, cell=cell.cell)
        larger = larger_chart(subject, lambda picture: not _shortened(subject, picture.figure) and not _lost(picture))
        by_hand = (Remedy("shorter names", say("Shorten the name")),) if place.cell else ()
        yield Finding(LABELS_LOST.name, "note", float(len(short)), message, place, (*larger, *by_hand))


def _shortened(subject: ChartSubject, figure: Figure) -> list[PlacedText]:
    """Names, labels and entries of a legend that end before their words do; not where an author's own words do."""
    own_words = [*subject.inputs.names, *subject.inputs.titles.values(), *(key.name for key in subject.figure.keys)]
    if any(ELLIPSIS in text for text in own_words):
        return []
    kinds = ("label", "name", "legend")
    return [one for one in figure.texts if one.kind in kinds and any(ELLIPSIS in line.text for line in one.lines)]


def _left_out(subject: ChartSubject) -> Iterator[Finding]:
    figure = subject.figure
    larger = larger_chart(subject, lambda larger_picture: not _lost(larger_picture))
    if figure.unlisted:
        message = counted(
            "{count} entry of the legend is left out, because there is no room for it.",
            "{count} entries of the legend are left out, because there is no room for them.",
            figure.unlisted,
        )
        yield Finding(
            LABELS_LOST.name, "warning", float(figure.unlisted), message, subject.place(text="legend"), larger
        )
    if figure.unnamed:
        message = counted(
            "{count} row has no name, because there is no room for it. Lying bars or a larger chart name it.",
            "{count} rows have no name, because there is no room for it. Lying bars or a larger chart name them.",
            figure.unnamed,
        )
        standing = any(text.kind == "name" and text.angle for text in figure.texts)
        lay = subject.looks("lay down", say("Lay the bars down"), {"frame.lying": True})
        larger_picture = tried(subject, lay) if standing else None
        found = (lay, *larger) if larger_picture is not None and not larger_picture.figure.unnamed else larger
        yield Finding(LABELS_LOST.name, "warning", float(figure.unnamed), message, subject.place(text="name"), found)
    if figure.dropped:
        message = counted(
            "{count} label is left out, because there is no room for it at {floor} points. Make the chart larger.",
            "{count} labels are left out, because there is no room for them at {floor} points. Make the chart larger.",
            figure.dropped,
            floor=FLOOR,
        )
        remedies = (*larger, *_leave_out(subject))
        yield Finding(
            LABELS_LOST.name, "warning", float(figure.dropped), message, subject.place(text="label"), remedies
        )


def _lost(picture: Picture) -> bool:
    return bool(picture.figure.dropped or picture.figure.unnamed or picture.figure.unlisted)


def _leave_out(subject: ChartSubject) -> Iterator[Remedy]:
    """The labels that find no room, left out on purpose."""
    stand = {(text.key, text.row) for text in subject.labels}
    looks: dict[str, bool] = {}
    for layer in subject.chart.layers:
        if layer.label is None or layer.helper or layer.hidden:
            continue
        rows = {mark.row for mark in subject.figure.marks if mark.key == layer.key}
        lost = [row for row in sorted(rows) if (layer.key, row) not in stand]
        looks |= {of_layer(layer.key, "label", row=row): False for row in lost}
    remedy = subject.looks("leave out", say("Leave them out"), looks)
    picture = tried(subject, remedy) if looks and len(subject.picture.build.panels) == 1 else None
    if picture is not None and not picture.figure.dropped:
        yield remedy


LABELS_LOST = Check(
    "labels-lost", "Labels that found no room", "the layout", of_chart=chart, of_drawing=check_labels_lost
)


# A legend of one entry, or one that repeats what labels at the marks say.
#
# Source: common practice; E. R. Tufte 1983, chapter 6, on ink that says nothing new.


def check_one_legend(subject: ChartSubject) -> Iterator[Finding]:
    """Entries are compared with labels and names by their texts."""
    names = [key.name for key in subject.figure.keys]
    if not names or len(subject.picture.build.panels) > 1:
        return
    drop = subject.looks("drop legend", say("Leave the legend out"), {"legend.side": "none"})
    if len(names) == 1 and not subject.chart.legend.key:
        message = say("The legend has one entry only.")
        yield Finding(ONE_LEGEND.name, "note", 1.0, message, subject.place(text="legend"), (drop,))
        return
    said = [text.text.casefold() for text in subject.texts("label", "name")]
    if len(names) > 1 and all(any(name.casefold() in text for text in said) for name in names if name):
        message = say("The legend repeats what the labels say.")
        yield Finding(ONE_LEGEND.name, "note", float(len(names)), message, subject.place(text="legend"), (drop,))


ONE_LEGEND = Check("one-legend", "A legend that says nothing new", "Tufte 1983, chapter 6", of_drawing=check_one_legend)


# Labels of more digits than are read, or of mixed decimals.
#
# Source: A. S. C. Ehrenberg 1977 (J. Royal Statistical Society A 140(3)): figures are compared by two or three digits;
# four as the most is common practice.

MAX_DIGITS = 4


def significant(text: str, decimal: str) -> int:
    """The significant digits of a written number: without leading zeros, nor trailing ones of a whole number."""
    before, _, after = text.partition(decimal)
    whole = re.sub(r"\D", "", before).lstrip("0")
    if not after:
        return len(whole.rstrip("0"))
    return len(whole + re.sub(r"\D", "", after)) if whole else len(re.sub(r"\D", "", after).lstrip("0"))


def decimals(text: str, decimal: str) -> int:
    """The decimals of a written number."""
    return len(re.sub(r"\D", "", text.partition(decimal)[2]))


def check_digits(subject: ChartSubject) -> Iterator[Finding]:
    """Of each layer whose labels write values: the one of most digits; else whether their decimals are mixed."""
    sign = decimal_sign(subject.document.locale)
    for layer in subject.layers:
        label = layer.label
        if label is None or "{value}" not in label.template:
            continue
        texts = [
            (text, numbers[0])
            for text in subject.labels
            if text.key == layer.key and (numbers := _numbers(text.text, sign))
        ]
        if not texts:
            continue
        text, number = max(texts, key=lambda entry: significant(entry[1], sign))
        most = significant(number, sign)
        mixed = {decimals(entry, sign) for _, entry in texts}
        if most > MAX_DIGITS:
            message = say(
                "“{text}” has {count} digits that count; readers compare two or three.", text=number, count=most
            )
        elif len(mixed) > 1 and len(texts) > 1:
            message = say("The labels have {low} to {high} decimals.", low=min(mixed), high=max(mixed))
        else:
            continue
        yield Finding(
            DIGITS.name,
            "note",
            float(most if most > MAX_DIGITS else max(mixed)),
            message,
            subject.text_place(text),
            tuple(_round(subject, layer, most)),
        )
        return


def _numbers(text: str, sign: str) -> list[str]:
    """The first number of a text that is one figure alone, with what parts its digits."""
    found = re.findall(r"\d(?:[\d.,'’\u00a0\u202f ]*\d)?", text)
    del sign
    return [one.strip() for one in found] if len(found) == 1 else []


def _round(subject: ChartSubject, layer: AnyLayer, most: int) -> Iterator[Remedy]:
    """Three digits at most, by an abbreviation where the figures are large; or the same decimals for all."""
    figures = [abs(figure) for _, figure in subject.figures(layer) if figure]
    if not figures:
        return
    label = layer.label
    how = (
        label.number
        if label is not None and label.number is not None
        else subject.inputs.number_texts.get(layer.figure_column)
    )
    path = of_layer(layer.key, "label", "number")
    shown = [100 * figure for figure in figures] if how is not None and how.style == "percent" else figures
    largest = max(shown)
    looks: dict[str, object]
    if largest >= 10_000:
        looks = {
            f"{path}.style": "short",
            f"{path}.least_decimals": 0,
            f"{path}.most_decimals": 0 if most > MAX_DIGITS else 1,
        }
        looks[f"{path}.significant"] = 0
        if largest < 100_000 or min(shown) < 10_000:
            looks |= {f"{path}.least_decimals": 1, f"{path}.most_decimals": 1}
    else:
        places = 0 if largest >= 100 else 1
        looks = {f"{path}.least_decimals": places, f"{path}.most_decimals": places, f"{path}.significant": 0}
        if how is not None and how.style != "number":
            looks[f"{path}.style"] = how.style
    if how is not None:
        keep = {"prefix": how.prefix, "suffix": how.suffix, "currency": how.currency, "sign": how.sign}
        looks |= {f"{path}.{name}": value for name, value in keep.items() if value and value != "auto"}
    yield subject.looks("round", say("Round the labels"), looks)


DIGITS = Check(
    "digits", "Labels of too many digits, or mixed decimals", "Ehrenberg 1977; four digits", of_chart=check_digits
)
