"""Checks of colours: for readers with a colour-vision deficiency, in grey print, against their ground."""

from collections.abc import Iterator
from functools import cached_property
from itertools import pairwise
from typing import get_args

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.layer import GATHERED, Stacking
from kavlet.core.charts.looks import of_layer, parse
from kavlet.core.document.document import Document
from kavlet.core.document.edits import change_chart
from kavlet.core.layout.figure import Mark, PlacedText
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.words.free_space import Obstacle, obstacle
from kavlet.core.messages import named, say
from kavlet.core.proof.chart_changes import tried
from kavlet.core.proof.check import Check
from kavlet.core.proof.colour_pairs import Meaning, pairs
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.scene.paints import HatchKind
from kavlet.core.scene.primitives import Image, Shape, Stamp
from kavlet.core.scene.readers import TITLES
from kavlet.core.styling.fills import GradientFill
from kavlet.core.styling.palettes import palettes
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.colour import Colour, contrast
from kavlet.core.values.geometry import Rect
from kavlet.core.values.vision import Deficiency, as_seen, difference, lab

# Texts that can hardly be read on what is behind them, and neighbouring marks that run into each other.
#
# Source: WCAG 2.2, success criteria 1.4.3 (4.5:1; 3:1 from 18 pt, or 14 pt bold) and 1.4.11 (3:1).

TEXT, LARGE, MARKS = 4.5, 3.0, 3.0
LARGE_SIZE, LARGE_BOLD = 18.0, 14.0
SLACK = 0.005  # ratios are given with two decimals
SEAM = 0.3  # points, by which marks that touch may lie apart


def needed(size: float, bold: bool) -> float:
    """The contrast that a text of a size in points needs."""
    return LARGE if size >= LARGE_SIZE or (bold and size >= LARGE_BOLD) else TEXT


def check_contrast(subject: ChartSubject) -> Iterator[Finding]:
    """The text with the least contrast for its size; the first layer whose neighbours run into each other."""
    yield from _texts(subject)
    yield from _marks(subject)


def _texts(subject: ChartSubject) -> Iterator[Finding]:
    if subject.chart.ground_picture or subject.chart.plot_picture:
        return  # under a veil that is set for reading
    painted = [] if subject.figure.faces else list(_painted(subject))
    weak_texts: list[tuple[float, PlacedText, Colour]] = []
    for text in subject.figure.texts:
        if not text.text or text.angle:
            continue
        if text.kind == "label" and subject.figure.faces:
            continue  # on lit faces, whose colours are many
        behind = _behind(subject, text, painted)
        if behind is None:
            continue
        ratio = contrast(text.colour.over(behind), behind) / needed(text.size, text.face.endswith("Bold"))
        if ratio < 1 - SLACK:
            weak_texts.append((ratio, text, behind))
    if not weak_texts:
        return
    _, text, behind = min(weak_texts, key=lambda entry: entry[0])
    ratio = contrast(text.colour.over(behind), behind)
    message = say(
        "“{text}” has a contrast of {ratio}:1 to what is behind it; {needed}:1 is needed.",
        text=text.text.split("\n")[0],
        ratio=round(ratio, 1),
        needed=needed(text.size, text.face.endswith("Bold")),
    )
    alike = [(entry, ground) for _, entry, ground in weak_texts if (entry.kind, entry.key) == (text.kind, text.key)]
    yield Finding(CONTRAST.name, "warning", ratio, message, subject.text_place(text), tuple(_colours(subject, alike)))


class _Painted(Struct, dict=True):
    """What covers something in a flat chart: a primitive of a mark, the box it lies in, and its outline."""

    item: Shape | Stamp | Image
    mark: Mark
    box: Rect

    @cached_property
    def outline(self) -> Obstacle:
        """Its outline, taken apart once, and only where a text lies on its box."""
        assert isinstance(self.item, Shape)  # symbols and pictures are boxes
        return obstacle(self.item.path, self.mark.row, self.mark.key)


def _painted(subject: ChartSubject) -> Iterator[_Painted]:
    """All that covers something, back to front."""
    for mark in subject.marks:
        for item in (*mark.track, *mark.items):
            if isinstance(item, Stamp | Image):
                yield _Painted(item, mark, mark.bounds)
            elif isinstance(item, Shape) and item.fill is not None:
                yield _Painted(item, mark, item.path.bounds)


def _behind(subject: ChartSubject, text: PlacedText, painted: list[_Painted]) -> Colour | None:
    """What lies behind a text; None where that is no single colour."""
    ground = subject.figure.ground
    plot = subject.chart.plot_ground
    if plot and subject.figure.plot.holds(text.bounds, 0.5):
        ground = subject.style.colour(plot)
    x, y = text.bounds.center
    middle = Rect(x - 0.5, y - 0.5, 1.0, 1.0)
    for one in reversed(painted):
        item = one.item
        if not one.box.overlaps(middle):
            continue
        if not isinstance(item, Shape):
            return None  # on a symbol or a picture
        if (item.clip is not None and not item.clip.bounds.overlaps(middle)) or not one.outline.at(x, y):
            continue
        if not isinstance(item.fill, Colour) or not one.outline.holds(text.bounds):
            return None  # it lies on several grounds; the composer has chosen for all of them
        return item.fill.over(ground)
    return ground


def _colours(subject: ChartSubject, texts: list[tuple[PlacedText, Colour]]) -> Iterator[Remedy]:
    """The colour that goes by what is behind: given back where it was set by hand, else the one that reads best."""
    name = say("Let the ground choose its colour")
    text, behind = texts[0]
    if text.kind == "label" and text.key:
        layer, overrides, row = (
            subject.chart.layer(text.key),
            subject.entry.dress.overrides,
            of_layer(text.key, "rows", ""),
        )
        back = [
            path for path in overrides if path.startswith(row) and path.endswith((".dx", ".dy", "text_look.colour"))
        ]
        if back or (layer is not None and layer.label is not None and (layer.label.colour or layer.label.colour_rules)):
            label = of_layer(text.key, "label")
            looks: dict[str, object] = {f"{label}.colour": "", f"{label}.colour_rules": ""} | dict.fromkeys(back)
        else:
            looks = {f"{row}{text_.row}.text_look.colour": subject.style.on(ground).hex for text_, ground in texts}
        yield subject.looks("text colour", name, looks)
        return
    paths = {
        "title": "title.colour", "subtitle": "subtitle.colour", "source": "source.colour",
        "legend": "legend.text.colour", "name": "frame.across.text.colour", "tick": "frame.along.text.colour",
    }  # fmt: skip
    if text.kind in paths:
        best = subject.style.on(behind).hex
        set_by_hand = paths[text.kind] in subject.entry.dress.overrides
        default = subject.style.ink if text.kind in ("title", "name") else subject.style.quiet
        gives_back = set_by_hand and contrast(default, behind) >= TEXT
        yield subject.looks("text colour", name, {paths[text.kind]: None if gives_back else best})
    if text.kind == "note":
        chart, key = subject.entry.id, text.key
        yield (
            subject.looks("text colour", name, {f"notes.{key}.colour": subject.style.on(behind).hex})
            if key and chart
            else (subject.looks("text colour", name, {}))
        )


def _marks(subject: ChartSubject) -> Iterator[Finding]:
    for layer in subject.layers:
        if layer.edge or not (kind_of(layer).mark.has_slices or _stacks(layer)):
            continue
        pairs = list(_neighbours(subject, layer))
        close = [(contrast(a, b), mark) for a, b, mark in pairs if contrast(a, b) < MARKS - SLACK]
        if not close:
            continue
        ratio, mark = min(close, key=lambda one: one[0])
        message = say(
            "Neighbouring marks have a contrast of {ratio}:1 and no line between them; {needed}:1 is needed.",
            ratio=round(ratio, 1), needed=MARKS,
        )  # fmt: skip
        keys = [one.key for one in subject.layers if type(one) is type(layer)]
        edge = subject.looks("edge", say("Draw a line between them"), {of_layer(key, "edge"): "ground" for key in keys})
        yield Finding(CONTRAST.name, "note", ratio, message, subject.mark_place(mark), (edge,))
        return


def _stacks(layer: AnyLayer) -> bool:
    """Whether a layer's bars stand on others."""
    return isinstance(layer, Stacking) and layer.clusters and layer.stack != "none"


def _neighbours(subject: ChartSubject, layer: AnyLayer) -> Iterator[tuple[Colour, Colour, Mark]]:
    """The colours of marks that touch: slices without a gap, parts of one stack."""
    if kind_of(layer).mark.has_slices:
        marks = [mark for mark in subject.marks if mark.key == layer.key and mark.fill is not None]
        if getattr(layer, "gap", 0.0) > 0 or getattr(layer, "explode", 0.0) or len(marks) < 2:
            return
        for a, b in [*pairwise(marks), (marks[-1], marks[0])]:
            if a.fill is not None and b.fill is not None and a.panel == b.panel:
                yield a.fill, b.fill, b
        return
    stacked = [one for one in subject.layers if _stacks(one)]
    place = stacked.index(layer)
    if place + 1 >= len(stacked):
        return
    above = {(mark.row, mark.panel): mark for mark in subject.marks if mark.key == stacked[place + 1].key}
    for mark in subject.marks:
        other = above.get((mark.row, mark.panel)) if mark.key == layer.key else None
        if other is None or mark.fill is None or other.fill is None or stacked[place + 1].edge:
            continue
        if _touch(mark.bounds, other.bounds) and not (_is_quiet(mark) or _is_quiet(other)):
            yield mark.fill, other.fill, other


def _touch(box: Rect, other: Rect) -> bool:
    """Whether two boxes that are seen meet along a side."""
    grown = Rect(box.x - SEAM, box.y - SEAM, box.width + 2 * SEAM, box.height + 2 * SEAM)
    seen = min(box.width, box.height, other.width, other.height) > SEAM
    return seen and grown.overlaps(other)


def _is_quiet(mark: Mark) -> bool:
    """Whether a mark is filled to stand back, as a track does."""
    fill = mark.dressed
    name = fill.colours[0] if isinstance(fill, GradientFill) and fill.colours else fill
    return name in ("track", "quiet", "line", "ground")


CONTRAST = Check(
    "contrast", "Texts and marks that are hard to see", "WCAG 2.2, 1.4.3 and 1.4.11", of_drawing=check_contrast
)


# Colours that readers with a colour-vision deficiency can't tell apart.
#
# Source: Machado, Oliveira and Fernandes 2009 (IEEE TVCG 15(6)), severity 1.0; CIEDE2000 (ISO/CIE 11664-6) of 10 as the
# least difference is common practice.

COLOUR_BLIND_MIN_DIFFERENCE = 10.0


def least(colour: Colour, other: Colour) -> tuple[float, Deficiency]:
    """The least difference of two colours to readers of the three kinds, and of which."""
    kinds: tuple[Deficiency, ...] = get_args(Deficiency)
    return min((difference(as_seen(colour, by), as_seen(other, by)), by) for by in kinds)


def close_pairs(subject: ChartSubject) -> list[tuple[float, Deficiency, Meaning, Meaning]]:
    """The pairs of colours that come closer than `LEAST` to readers of one of the three kinds."""
    distances = [(*least(a.colour, b.colour), a, b) for a, b in pairs(subject)]
    return [distance for distance in distances if distance[0] < COLOUR_BLIND_MIN_DIFFERENCE]


def check_colour_blind(subject: ChartSubject) -> Iterator[Finding]:
    """The two colours of a legend that come closest."""
    close = close_pairs(subject)
    if not close:
        return
    much, by, meaning, other = min(close, key=lambda distance: distance[0])
    message = say(
        "To {readers}, “{one}” and “{other}” look nearly alike: a difference of {much}, where 10 is needed.",
        readers=named(TITLES[by]), one=meaning.name, other=other.name, much=round(much, 1),
    )  # fmt: skip
    yield Finding(
        COLOUR_BLIND.name,
        "warning",
        much,
        message,
        subject.place(text="legend"),
        tuple(_colour_blind_remedies(subject)),
    )


def _colour_blind_remedies(subject: ChartSubject) -> Iterator[Remedy]:
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
            least(a, b)[0] >= COLOUR_BLIND_MIN_DIFFERENCE for at, a in enumerate(tones) for b in tones[at + 1 :]
        )  # fmt: skip
        if apart and all(difference(tone, subject.figure.ground) >= COLOUR_BLIND_MIN_DIFFERENCE for tone in tones):
            return name
    return ""


COLOUR_BLIND = Check(
    "colour-blind",
    "Colours that some readers can’t tell apart",
    "Machado et al. 2009; ΔE00 of 10",
    of_chart=check_colour_blind,
)


# Colours that fall together in grey print.
#
# Source: CIE 15 (CIELAB); lightness of 10 apart as the least is common practice.

GREY_PRINT_MIN_DIFFERENCE = 10.0
HATCHES: tuple[tuple[HatchKind, float, float], ...] = (
    ("lines", 45.0, 6.0), ("lines", -45.0, 6.0), ("dots", 0.0, 6.0), ("cross", 45.0, 7.0), ("lines", 0.0, 5.0),
    ("lines", 90.0, 5.0), ("dashes", 45.0, 7.0), ("dots", 45.0, 9.0),
)  # fmt: skip


def check_grey_print(subject: ChartSubject) -> Iterator[Finding]:
    """The two colours of a legend that come closest in lightness."""
    distances = [(abs(lab(a.colour)[0] - lab(b.colour)[0]), a, b) for a, b in pairs(subject)]
    close = [distance for distance in distances if distance[0] < GREY_PRINT_MIN_DIFFERENCE]
    if not close:
        return
    much, meaning, other = min(close, key=lambda distance: distance[0])
    message = say(
        "In grey print “{one}” and “{other}” fall together: their lightness is {much} apart, where 10 is needed.",
        one=meaning.name, other=other.name, much=round(much, 1),
    )  # fmt: skip
    yield Finding(
        GREY_PRINT.name, "note", much, message, subject.place(text="legend"), tuple(_grey_print_remedies(subject))
    )


def _grey_print_remedies(subject: ChartSubject) -> Iterator[Remedy]:
    """A hatch for each but the first, in its own colour."""
    layers = [one for one in subject.layers if one.listed]
    if len(subject.figure.keys) > len(HATCHES) + 1:
        return
    looks = {}
    if len(layers) == 1 and layers[0].vary and kind_of(layers[0]).is_hatched:
        rows = sorted({mark.row for mark in subject.marks if mark.key == layers[0].key and mark.row < GATHERED})
        for place, row in enumerate(rows[1 : len(HATCHES) + 1]):
            kind, angle, step = HATCHES[place]
            looks[of_layer(layers[0].key, "fill", row=row)] = {
                "fill": "hatch", "colour": f"tone{row + 1}", "kind": kind, "angle": angle, "step": step,
            }  # fmt: skip
        yield subject.looks("hatches", say("Hatch them"), looks)
        return
    if len(layers) < 2 or any(one.vary or not kind_of(one).is_hatched for one in layers):
        return
    for place, layer in enumerate(layers[1 : len(HATCHES) + 1]):
        kind, angle, step = HATCHES[place]
        fill = layer.fill if isinstance(layer.fill, str) and layer.fill else f"tone{layer.tone + 1}"
        looks[of_layer(layer.key, "fill")] = {
            "fill": "hatch",
            "colour": fill,
            "kind": kind,
            "angle": angle,
            "step": step,
        }
    yield subject.looks("hatches", say("Hatch them"), looks)


GREY_PRINT = Check(
    "grey-print", "Colours that fall together in grey print", "CIELAB lightness, 10 apart", of_chart=check_grey_print
)
