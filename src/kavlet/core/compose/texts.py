"""Places what stands around the plot: title, subtitle, source line, the rows' names and the margins' headings."""

from kavlet.core.compose.figure import Text, TextKind
from kavlet.core.compose.layout import Layout
from kavlet.core.compose.lettering import LEADING, Ink, centred, line
from kavlet.core.dress.style import Style
from kavlet.core.text.faces import metrics


def around(layout: Layout, style: Style) -> list[Text]:
    """Title and subtitle at the top left, the source at the bottom left."""
    texts: list[Text] = []
    y = layout.pad

    def block(lines: tuple[str, ...], kind: TextKind, ink: Ink) -> None:
        nonlocal y
        for text in lines:
            baseline = y + metrics(ink.face).cap_height * ink.size + 0.12 * ink.size
            texts.append(line(text, kind, (layout.pad, baseline), "start", ink))
            y += ink.size * LEADING

    block(layout.title, "title", Ink(style.bold, layout.sizes.title, style.ink))
    block(layout.subtitle, "subtitle", Ink(style.face, layout.sizes.subtitle, style.quiet))
    y = layout.size.height - layout.pad - len(layout.source) * layout.sizes.small * LEADING
    block(layout.source, "source", Ink(style.face, layout.sizes.small, style.quiet))
    return texts


def names(layout: Layout, style: Style) -> list[Text]:
    """The rows' names: left of lying bars and centred on them, below standing ones."""
    ink = Ink(style.face, layout.name_size, style.ink)
    step = ink.size * LEADING
    texts: list[Text] = []
    for row, lines in enumerate(layout.names):
        if row % layout.every:
            continue
        middle = layout.row_start(row) + layout.thickness / 2
        for i, text in enumerate(lines):
            if layout.lying:
                at = (layout.plot.x - layout.name_strip - 1.3 * ink.size, middle + (i - (len(lines) - 1) / 2) * step)
                texts.append(centred(text, "name", at, "start", ink, row))
            else:
                at = (middle, layout.plot.bottom + 0.6 * ink.size + (i + 0.5) * step)
                texts.append(centred(text, "name", at, "middle", ink, row))
    return texts


def headings(layout: Layout, style: Style) -> list[Text]:
    """What the margins after the plot hold: above them beside lying bars, at their left below standing ones."""
    ink = Ink(style.face, layout.sizes.small, style.quiet)
    step = ink.size * LEADING
    texts: list[Text] = []
    for margin in layout.margins.values():
        for i, text in enumerate(margin.heading):
            if layout.lying:
                at = (margin.start + margin.width, layout.plot.y - (len(margin.heading) - i - 0.5) * step - 0.2 * step)
                texts.append(centred(text, "heading", at, "end", ink))
            else:
                middle = margin.start + margin.width / 2 + (i - (len(margin.heading) - 1) / 2) * step
                texts.append(centred(text, "heading", (layout.pad, middle), "start", ink))
    return texts
