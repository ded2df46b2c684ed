"""What is wrong with a chart's type: a reader's rules, over what was placed and over the picture.

Off the sheet; on another text; on the mark of another row; on a ground it can't be read on; too small; of several sizes
in one layer; names smaller than ticks; names that can't be told apart, or are left out without a word.
"""

import io
import re
from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence

import msgspec
import numpy as np
import resvg_py
from numpy.typing import NDArray
from PIL import Image

from kavlet.core.files import svg
from kavlet.core.layout.draw import draw
from kavlet.core.layout.figure import Figure, Mark, PlacedText
from kavlet.core.pipeline.stages import Picture
from kavlet.core.solid.cover import polygons
from kavlet.core.values.affine import turned
from kavlet.core.values.colour import Colour

Floats = NDArray[np.float64]
Points = list[tuple[float, float]]
_FIGURE = re.compile(r"(?<=\S)\s+[-−+]?[\d.,\s]+%?$")  # a label's value, after its name
SMALLEST = 7.0  # points
SLACK = 0.75  # points that two texts, or a text and the sheet's edge, may share
ON_MARK = 1.5  # square points of a mark that a text may cover
CONTRAST = 4.5  # WCAG 2.2, 1.4.3
LARGE = 3.0  # the same, for text of 18 points, or 14 and bold
SCALE = 2.0  # pixels to a point
WITH_BODIES = {"bar", "wedge", "cells", "bubble", "point", "ring"}


def faults(picture: Picture, names: Sequence[str] = (), look: bool = True) -> Counter[str]:
    """How often each rule is broken; `names` are those of the table's rows, with `look` the ground is looked at."""
    figure = picture.figure
    found: Counter[str] = Counter()
    inks = [(text, list(ink(text))) for text in figure.texts]
    found["off the sheet"] = sum(_leaves(figure, boxes) for _, boxes in inks)
    found["on another text"] = sum(1 for _ in _overlaps(inks))
    found["on another mark"] = sum(1 for _ in on_marks(figure))
    found["too small"] = sum(text.size < SMALLEST - 1e-6 for text in figure.texts)
    found["several sizes"] = sum(1 for _ in _sizes(figure))
    found["names under ticks"] = _below_ticks(figure)
    found["names alike"], found["names left out"] = _names(picture, names)
    if look:
        found["no contrast"] = len(unreadable(figure))
    return Counter({rule: count for rule, count in found.items() if count})


def ink(text: PlacedText) -> Iterator[Points]:
    """The corners of what is inked, line by line: from the baseline's descent to the height of capitals."""
    for line in text.lines:
        if not line.text.strip():
            continue
        by = turned(text.angle, line.x, line.y) if text.angle else None
        top, bottom = line.y - 0.68 * text.size, line.y + 0.05 * text.size
        corners = [(line.x, top), (line.x + line.width, top), (line.x + line.width, bottom), (line.x, bottom)]
        yield corners if by is None else [by.apply(x, y) for x, y in corners]


def _leaves(figure: Figure, boxes: list[Points]) -> bool:
    return any(
        not (-SLACK <= x <= figure.size.width + SLACK and -SLACK <= y <= figure.size.height + SLACK)
        for box in boxes
        for x, y in box
    )


def _overlaps(inks: list[tuple[PlacedText, list[Points]]]) -> Iterator[tuple[str, str]]:
    for i, (one, boxes) in enumerate(inks):
        for other, others in inks[i + 1 :]:
            if any(area(clipped(box, held)) > SLACK for box in boxes for held in others):
                yield one.text, other.text


def on_marks(figure: Figure) -> Iterator[tuple[PlacedText, Mark]]:
    """Texts on a body that is another row's, or another series' in the same row."""
    bodies = [
        (mark, polygons(mark.path))
        for mark in figure.marks
        if mark.visible and not mark.helper and mark.kind.name in WITH_BODIES and mark.path is not None
    ]
    for text in figure.texts:
        if text.kind in ("title", "subtitle", "source", "note"):
            continue
        for box in ink(text):
            hit = next((mark for mark, shapes in bodies if _foreign(text, mark) and _covers(shapes, box)), None)
            if hit is not None:
                yield text, hit
                break


def _foreign(text: PlacedText, mark: Mark) -> bool:
    if text.row is None or mark.row != text.row:
        return True
    return text.key.startswith("series ") and mark.key.startswith("series ") and text.key != mark.key


def _covers(shapes: list[Points], box: Points) -> bool:
    x0, x1 = min(x for x, _ in box), max(x for x, _ in box)
    y0, y1 = min(y for _, y in box), max(y for _, y in box)
    covered = 0.0
    for shape in shapes:
        if max(x for x, _ in shape) <= x0 or min(x for x, _ in shape) >= x1:
            continue
        if max(y for _, y in shape) <= y0 or min(y for _, y in shape) >= y1:
            continue
        covered += _signed(clipped(shape, box))  # a hole goes round the other way
    return abs(covered) > ON_MARK


def clipped(shape: Points, box: Points) -> Points:
    """What of a polygon lies in a convex one (Sutherland and Hodgman 1974)."""
    way = 1.0 if _signed(box) > 0 else -1.0
    for (ax, ay), (bx, by) in zip(box, [*box[1:], box[0]], strict=True):
        sides = [way * ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) for x, y in shape]
        kept: Points = []
        for i, (point, side) in enumerate(zip(shape, sides, strict=True)):
            last, before = shape[i - 1], sides[i - 1]
            if (side >= 0) != (before >= 0):
                t = before / (before - side)
                kept.append((last[0] + t * (point[0] - last[0]), last[1] + t * (point[1] - last[1])))
            if side >= 0:
                kept.append(point)
        shape = kept
        if not shape:
            return []
    return shape


def area(shape: Points) -> float:
    """The area of a polygon."""
    return abs(_signed(shape))


def _signed(shape: Points) -> float:
    return sum(ax * by - bx * ay for (ax, ay), (bx, by) in zip(shape, [*shape[1:], *shape[:1]], strict=True)) / 2


def _sizes(figure: Figure) -> Iterator[str]:
    """Layers whose labels have several sizes, and kinds of text of the chart's that have."""
    held: dict[tuple[str, str, int], set[float]] = defaultdict(set)
    for text in figure.texts:
        if text.kind in ("label", "name", "tick", "legend", "heading"):
            held[text.kind, text.key if text.kind == "label" else "", text.panel].add(round(text.size, 3))
    yield from (f"{kind} {key}" for (kind, key, _), sizes in held.items() if len(sizes) > 1)


def _below_ticks(figure: Figure) -> int:
    sizes = {kind: [text.size for text in figure.texts if text.kind == kind] for kind in ("name", "tick")}
    return int(bool(sizes["name"] and sizes["tick"]) and min(sizes["name"]) < max(sizes["tick"]) - 1e-6)


def _names(picture: Picture, names: Sequence[str]) -> tuple[int, int]:
    """How many names can't be told from another, and how many are left out though Proof says nothing of it."""
    said = [text.text for text in picture.figure.texts if text.kind in ("name", "label", "legend", "panel", "subtitle")]
    shows_one = picture.recipe is not None and picture.recipe.repeats is not None and not picture.build.entry.repeat
    if (
        shows_one
        or (picture.recipe is not None and picture.recipe.steps is not None)
        or not any(_means(text, name) for text in said for name in names)
    ):
        return 0, 0  # a chart that names one row, or none
    by_row = {text.row: text.text for text in picture.figure.texts if text.kind == "name" and text.row is not None}
    texts = Counter(by_row[row] for row in by_row if row < len(names) and names.count(names[row]) == 1)
    alike = sum(count - 1 for count in texts.values() if count > 1)
    left_out = [name for name in names if name and not any(_means(text, name) for text in said)]
    told = bool(picture.figure.dropped or picture.figure.unnamed or picture.figure.unlisted)
    return alike, 0 if told else len(left_out)


def _means(text: str, name: str) -> bool:
    """Whether a text is a name, or what is left of it."""
    bare, whole = "".join(_FIGURE.sub("", text).split()), "".join(name.split())
    if whole in bare:
        return True
    parts, at = bare.split("…"), 0
    for part in parts:
        found = whole.find(part, at)
        if found < 0 or (at == 0 and part is parts[0] and found > 0):
            return False
        at = found + len(part)
    return len(bare) > 1 and len(parts) > 1


def unreadable(figure: Figure) -> list[PlacedText]:
    """Texts whose ground leaves them too little contrast, where a tenth of what they stand on does."""
    bare = draw(msgspec.structs.replace(figure, texts=()))
    width, height = round(figure.size.width * SCALE), round(figure.size.height * SCALE)
    png = resvg_py.svg_to_bytes(svg_string=svg.dumps(bare), width=width, height=height, dpi=96, skip_system_fonts=True)
    seen = np.asarray(Image.open(io.BytesIO(bytes(png))).convert("RGB"), np.float64) / 255.0
    found = []
    for text in figure.texts:
        needed = LARGE if text.size >= 18 or (text.size >= 14 and "bold" in text.face.lower()) else CONTRAST
        grounds = [_grounds(box, seen) for box in ink(text)]
        if not sum(map(len, grounds)):
            continue
        contrasts = _contrast(text.colour, np.concatenate(grounds))
        if np.quantile(contrasts, 0.1) < needed - 0.05:
            found.append(text)
    return found


def _grounds(box: Points, seen: Floats) -> Floats:
    """The colours (n, 3) of a picture at places spread over a quadrangle, of those that lie on it."""
    corner, across, _, down = np.array(box)
    count = max(2, int(np.hypot(*(across - corner)) * SCALE / 2))
    u, v = np.meshgrid(np.linspace(0.02, 0.98, count), np.linspace(0.05, 0.95, 6), indexing="ij")
    places = SCALE * (corner + u.reshape(-1, 1) * (across - corner) + v.reshape(-1, 1) * (down - corner))
    on = np.all((places >= 0) & (places < (seen.shape[1], seen.shape[0])), axis=1)
    x, y = places[on].astype(int).T
    return np.asarray(seen[y, x])


def _contrast(colour: Colour, grounds: Floats) -> Floats:
    """WCAG 2.2's contrast ratio of a colour with each ground."""

    def luminance(rgb: Floats) -> Floats:
        linear = np.where(rgb <= 0.04045, rgb / 12.92, ((rgb + 0.055) / 1.055) ** 2.4)
        return np.asarray(linear @ np.array([0.2126, 0.7152, 0.0722]))

    mine = luminance(np.array([colour.red, colour.green, colour.blue]))
    other = luminance(grounds)
    return np.asarray((np.maximum(mine, other) + 0.05) / (np.minimum(mine, other) + 0.05))
