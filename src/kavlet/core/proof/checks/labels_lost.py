"""Labels, names, entries of a legend and panels that found no room at a readable size.

Source: the layout; nothing is shrunk below 7 pt or laid over something else in silence.
"""

from collections.abc import Iterator

from kavlet.core.building.stages import Picture
from kavlet.core.charts.looks import of_layer
from kavlet.core.compose.words.lettering import FLOOR
from kavlet.core.messages import counted, say
from kavlet.core.proof.changing import larger_chart, tried
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import DrawnChart


def chart(of: DrawnChart) -> Iterator[Finding]:
    """Panels of a repeated chart that are not drawn."""
    undrawn = of.picture.build.undrawn
    if undrawn:
        message = counted(
            "{count} panel is not drawn: there are too many.",
            "{count} panels are not drawn: there are too many.",
            undrawn,
        )
        yield Finding(CHECK.name, "warning", float(undrawn), message, of.place())


def check(of: DrawnChart) -> Iterator[Finding]:
    """They are left out rather than overlapped or shrunk below the floor."""
    figure = of.figure
    if not (figure.unlisted or figure.unnamed or figure.dropped):
        return
    larger = larger_chart(of, lambda made: not _lost(made))
    if figure.unlisted:
        message = counted(
            "{count} entry of the legend is left out, because there is no room for it.",
            "{count} entries of the legend are left out, because there is no room for them.",
            figure.unlisted,
        )
        yield Finding(CHECK.name, "warning", float(figure.unlisted), message, of.place(text="legend"), larger)
    if figure.unnamed:
        message = counted(
            "{count} row has no name, because there is no room for it. Lying bars or a larger chart name it.",
            "{count} rows have no name, because there is no room for it. Lying bars or a larger chart name them.",
            figure.unnamed,
        )
        standing = any(text.kind == "name" and text.angle for text in figure.texts)
        lay = of.looks("lay down", say("Lay the bars down"), {"frame.lying": True})
        made = tried(of, lay) if standing else None
        found = (lay, *larger) if made is not None and not made.figure.unnamed else larger
        yield Finding(CHECK.name, "warning", float(figure.unnamed), message, of.place(text="name"), found)
    if figure.dropped:
        message = counted(
            "{count} label is left out, because there is no room for it at {floor} points. Make the chart larger.",
            "{count} labels are left out, because there is no room for them at {floor} points. Make the chart larger.",
            figure.dropped,
            floor=FLOOR,
        )
        remedies = (*larger, *_leave_out(of))
        yield Finding(CHECK.name, "warning", float(figure.dropped), message, of.place(text="label"), remedies)


def _lost(made: Picture) -> bool:
    return bool(made.figure.dropped or made.figure.unnamed or made.figure.unlisted)


def _leave_out(of: DrawnChart) -> Iterator[Remedy]:
    """The labels that find no room, left out on purpose."""
    stand = {(text.key, text.row) for text in of.labels}
    looks: dict[str, bool] = {}
    for layer in of.chart.layers:
        if layer.label is None or layer.helper or layer.hidden:
            continue
        rows = {mark.row for mark in of.figure.marks if mark.key == layer.key}
        lost = [row for row in sorted(rows) if (layer.key, row) not in stand]
        looks |= {of_layer(layer.key, "label", row=row): False for row in lost}
    remedy = of.looks("leave out", say("Leave them out"), looks)
    made = tried(of, remedy) if looks and len(of.picture.build.panels) == 1 else None
    if made is not None and not made.figure.dropped:
        yield remedy


CHECK = Check("labels-lost", "Labels that found no room", "the layout", of_chart=chart, of_drawing=check)
