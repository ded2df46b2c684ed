"""Labels, names, entries of a legend and panels that found no room at a readable size.

Source: the layout; nothing is shrunk below 7 pt or laid over something else in silence.
"""

from collections.abc import Iterator

import msgspec

from kavlet.core.charts.looks import of_layer
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.layout.words.text_lines import FLOOR
from kavlet.core.messages import counted, say
from kavlet.core.pipeline.stages import Picture
from kavlet.core.proof.chart_changes import larger_chart, tried
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.text.wrapping import ELLIPSIS


def chart(subject: ChartSubject) -> Iterator[Finding]:
    """Panels of a repeated chart that are not drawn."""
    undrawn = subject.picture.build.undrawn
    if undrawn:
        message = counted(
            "{count} panel is not drawn: there are too many.",
            "{count} panels are not drawn: there are too many.",
            undrawn,
        )
        yield Finding(CHECK.name, "warning", float(undrawn), message, subject.place())


def check(subject: ChartSubject) -> Iterator[Finding]:
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
        yield Finding(CHECK.name, "note", float(len(short)), message, place, (*larger, *by_hand))


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
        yield Finding(CHECK.name, "warning", float(figure.unlisted), message, subject.place(text="legend"), larger)
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
        yield Finding(CHECK.name, "warning", float(figure.unnamed), message, subject.place(text="name"), found)
    if figure.dropped:
        message = counted(
            "{count} label is left out, because there is no room for it at {floor} points. Make the chart larger.",
            "{count} labels are left out, because there is no room for them at {floor} points. Make the chart larger.",
            figure.dropped,
            floor=FLOOR,
        )
        remedies = (*larger, *_leave_out(subject))
        yield Finding(CHECK.name, "warning", float(figure.dropped), message, subject.place(text="label"), remedies)


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


CHECK = Check("labels-lost", "Labels that found no room", "the layout", of_chart=chart, of_drawing=check)
