"""Texts that can hardly be read on what is behind them, and neighbouring marks that run into each other.

Source: WCAG 2.2, success criteria 1.4.3 (4.5:1; 3:1 from 18 pt, or 14 pt bold) and 1.4.11 (3:1).
"""

from collections.abc import Iterator
from functools import cached_property
from itertools import pairwise

from msgspec import Struct

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.layer import Stacking
from kavlet.core.charts.looks import of_layer
from kavlet.core.layout.figure import Mark, PlacedText
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.words.free_space import Obstacle, obstacle
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.scene.primitives import Image, Shape, Stamp
from kavlet.core.styling.fills import GradientFill
from kavlet.core.values.colour import Colour, contrast
from kavlet.core.values.geometry import Rect

TEXT, LARGE, MARKS = 4.5, 3.0, 3.0
LARGE_SIZE, LARGE_BOLD = 18.0, 14.0
SLACK = 0.005  # ratios are given with two decimals
SEAM = 0.3  # points, by which marks that touch may lie apart


def needed(size: float, bold: bool) -> float:
    """The contrast that a text of a size in points needs."""
    return LARGE if size >= LARGE_SIZE or (bold and size >= LARGE_BOLD) else TEXT


def check(subject: ChartSubject) -> Iterator[Finding]:
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
    yield Finding(CHECK.name, "warning", ratio, message, subject.text_place(text), tuple(_colours(subject, alike)))


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
        yield Finding(CHECK.name, "note", ratio, message, subject.mark_place(mark), (edge,))
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


CHECK = Check("contrast", "Texts and marks that are hard to see", "WCAG 2.2, 1.4.3 and 1.4.11", of_drawing=check)
