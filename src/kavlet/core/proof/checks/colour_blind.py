"""Colours that readers with a colour-vision deficiency can't tell apart.

Source: Machado, Oliveira and Fernandes 2009 (IEEE TVCG 15(6)), severity 1.0; CIEDE2000 (ISO/CIE 11664-6) of 10 as the
least difference is common practice.
"""

from collections.abc import Iterator
from typing import get_args

import msgspec

from kavlet.core.charts.looks import of_layer, parse
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.messages import named, say
from kavlet.core.proof.chart_changes import tried
from kavlet.core.proof.check import Check
from kavlet.core.proof.colour_pairs import Meaning, pairs
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.scene.readers import TITLES
from kavlet.core.styling.palettes import palettes
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.colour import Colour
from kavlet.core.values.vision import Deficiency, as_seen, difference

MIN_DIFFERENCE = 10.0


def least(colour: Colour, other: Colour) -> tuple[float, Deficiency]:
    """The least difference of two colours to readers of the three kinds, and of which."""
    kinds: tuple[Deficiency, ...] = get_args(Deficiency)
    return min((difference(as_seen(colour, by), as_seen(other, by)), by) for by in kinds)


def close_pairs(subject: ChartSubject) -> list[tuple[float, Deficiency, Meaning, Meaning]]:
    """The pairs of colours that come closer than `LEAST` to readers of one of the three kinds."""
    distances = [(*least(a.colour, b.colour), a, b) for a, b in pairs(subject)]
    return [distance for distance in distances if distance[0] < MIN_DIFFERENCE]


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The two colours of a legend that come closest."""
    close = close_pairs(subject)
    if not close:
        return
    much, by, meaning, other = min(close, key=lambda distance: distance[0])
    message = say(
        "To {readers}, “{one}” and “{other}” look nearly alike: a difference of {much}, where 10 is needed.",
        readers=named(TITLES[by]), one=meaning.name, other=other.name, much=round(much, 1),
    )  # fmt: skip
    yield Finding(CHECK.name, "warning", much, message, subject.place(text="legend"), tuple(_remedies(subject)))


def _remedies(subject: ChartSubject) -> Iterator[Remedy]:
    palette = safe_palette(
        subject,
        max(len(subject.figure.keys), subject.inputs.rows if any(layer.vary for layer in subject.layers) else 0),
    )
    chart = subject.entry.id
    if palette:

        def edit(document: Document) -> Document:
            old_dress = document.chart(chart).dress
            colours = {
                path: value for path, value in old_dress.overrides.items()
                if not (parse(path).layer and parse(path).last == "fill")
            }  # fmt: skip
            dress = msgspec.structs.replace(old_dress, palette=palette, overrides=colours)
            return change_chart(document, chart, dress=dress)

        remedy = Remedy("safe palette", say("Take a palette that all can tell apart"), edit)
        picture = tried(subject, remedy)
        if picture is None or not close_pairs(msgspec.structs.replace(subject, picture=picture)):
            yield remedy
    series = {
        of_layer(layer.key, "label", "template"): "{series}\n{value}"
        for layer in subject.layers
        if layer.label is not None
    }
    if len(series) == len(subject.layers) == len(subject.figure.keys) and series:
        remedy = subject.looks("labels at marks", say("Name them at the marks"), series)
        picture = tried(subject, remedy)
        if picture is not None and not pairs(msgspec.structs.replace(subject, picture=picture)):
            yield remedy


def safe_palette(subject: ChartSubject, count: int) -> str:
    """The first shipped palette whose first colours all can tell apart on the chart's ground; empty for none."""
    for name, palette in palettes().items():
        if palette.kind != "qualitative" or len(palette.colours) < count:
            continue
        style = resolve(
            Dress(subject.entry.dress.theme, subject.entry.dress.dark, palette=name), subject.document.house
        )
        tones = [style.tone(place) for place in range(count)]
        apart = all(
            least(a, b)[0] >= MIN_DIFFERENCE for at, a in enumerate(tones) for b in tones[at + 1 :]
        )  # fmt: skip
        if apart and all(difference(tone, subject.figure.ground) >= MIN_DIFFERENCE for tone in tones):
            return name
    return ""


CHECK = Check(
    "colour-blind", "Colours that some readers can’t tell apart", "Machado et al. 2009; ΔE00 of 10", of_chart=check
)
