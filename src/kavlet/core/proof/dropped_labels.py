"""Labels, and entries of the legend, that found no room at a readable size."""

from kavlet.core.compose.figure import Figure
from kavlet.core.compose.words.lettering import FLOOR
from kavlet.core.messages import counted, say
from kavlet.core.proof.finding import Finding, Remedy


def check(figure: Figure) -> list[Finding]:
    """They are left out rather than overlapped or shrunk below the floor."""
    found: list[Finding] = []
    if figure.unlisted:
        message = counted(
            "{count} entry of the legend is left out, because there is no room for it.",
            "{count} entries of the legend are left out, because there is no room for them.",
            figure.unlisted,
        )
        found.append(Finding("dropped-entry", "warning", float(figure.unlisted), message))
    if figure.unnamed:
        message = counted(
            "{count} row has no name, because there is no room for it. Lying bars or a larger chart name it.",
            "{count} rows have no name, because there is no room for it. Lying bars or a larger chart name them.",
            figure.unnamed,
        )
        standing = any(text.kind == "name" and text.angle for text in figure.texts)
        lay = Remedy(say("Lay the bars down"), {"frame.lying": True})
        found.append(Finding("dropped-name", "warning", float(figure.unnamed), message, (lay,) if standing else ()))
    if not figure.dropped:
        return found
    message = counted(
        "{count} label is left out, because there is no room for it at {floor} points. Make the chart larger.",
        "{count} labels are left out, because there is no room for them at {floor} points. Make the chart larger.",
        figure.dropped,
        floor=FLOOR,
    )
    return [*found, Finding("dropped-label", "warning", float(figure.dropped), message)]
