"""Finds each label its place: the preferred spot, another, wrapped; smaller, together with its layer's; shortened; else
it is left out.

No two labels overlap, none lies on another row's mark, and none leaves the chart.
"""

import math
from collections import Counter

import msgspec
from msgspec import Struct

from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Layer, Row
from kavlet.core.layout.figure import PlacedText
from kavlet.core.layout.texts.text_lines import FLOOR, Anchor, TextOwner, TextStyle, block, tall, widest
from kavlet.core.layout.words.free_space import FreeSpace
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.styling.style import Style
from kavlet.core.text.faces import face, tabular
from kavlet.core.text.wrapping import shortened, wrapped
from kavlet.core.values.cancellation import check_cancelled
from kavlet.core.values.colour import Colour, readable
from kavlet.core.values.geometry import Point

NARROWER = (0.8, 0.6, 0.45)  # of a line's width, tried where a label does not fit as it is
CROWD, NEAREST = 300, 8  # labels of a layer above which each tries only so many places
STEP = 0.84  # of its size, that a layer's type may step down to
SIZES = (1.0, 0.92, 0.84, 0.76, 0.68, 0.6, 0.5)  # the same, of a single large figure
LARGE = 14.0  # points, from which on a figure is large

WHITE, BLACK = Colour(1.0, 1.0, 1.0), Colour(0.0, 0.0, 0.0)


class LabelRequest(Struct, frozen=True):
    """A label that looks for a place. `row` counts the table's rows; `target` is the point of its mark it speaks of.
    `any_colour`: its author chose its colour, wherever it stands; `own_size`: and its size, which stays."""

    layer: str
    key: str
    row: int
    text: str
    face: str
    size: float
    spots: tuple[LabelSpot, ...]
    lines: int = 2
    shorten: bool = False
    dx: float = 0.0
    dy: float = 0.0
    target: tuple[float, float] | None = None
    leader: str = "plain"
    leader_colour: Colour | None = None
    weight: float = 0.0
    any_colour: bool = False
    own_size: bool = False


class LabelStyle(Struct, frozen=True):
    """How a label is wished for: its font size and weight for want of the author's own, the point of its mark that it
    speaks of, and how much it counts among others (`weight`: the more, the earlier it is placed).
    `in_column` figures stand below each other, and have one width."""

    size: float
    target: Point | None = None
    weight: float = 0.0
    bold: bool = False
    in_column: bool = False


def label_request(
    layer: Layer, row: int, text: str, spots: list[LabelSpot], style: Style, label_style: LabelStyle
) -> LabelRequest:  # fmt: skip
    """A label of a layer with the looks its author chose, or those given for want of them."""
    label = layer.label or Label()
    own = layer.rows.get(row, Row())
    is_bold = label_style.bold if label.bold is None else label.bold
    if label.width is not None:
        most = label.width
        spots = [msgspec.structs.replace(spot, width=min(spot.width, most)) for spot in spots]
    look = own.text_look
    if look.colour:
        spots = [msgspec.structs.replace(spot, colour=style.colour(look.colour)) for spot in spots]
    if label.distance or label.angle:
        spots = [_moved(spot, label.distance, label.angle) for spot in spots]
    family = look.family or label.family or style.family
    is_bold = is_bold if look.bold is None else look.bold
    slopes = label.italic if look.italic is None else look.italic
    key = face(family, is_bold, slopes)
    key = tabular(key) if label_style.in_column else key
    return LabelRequest(
        layer.name, layer.key, row, text, key, look.size or label.size or label_style.size,
        tuple(spots), label.lines, label.shorten, own.dx, own.dy, label_style.target, label.leader, style.quiet,
        label_style.weight, bool(label.colour or look.colour), own_size=look.size is not None,
    )  # fmt: skip


def _moved(spot: LabelSpot, distance: float, angle: float) -> LabelSpot:
    """A spot further out from its mark, and turned."""
    return msgspec.structs.replace(
        spot,
        x=spot.x + (math.copysign(distance, spot.sx) if spot.sx else 0.0),
        y=spot.y + (math.copysign(distance, spot.sy) if spot.sy else 0.0),
        angle=spot.angle + angle,
    )


def ink(label: Label | None, style: Style, behind: Colour | None) -> Colour:
    """A label's colour: the author's, else the one that reads best on what is behind it."""
    if label is not None and label.colour:
        return style.colour(label.colour)
    return style.ink if behind is None else style.on(behind)


class _Try(Struct, frozen=True):
    """Labels that were placed, by their number, and those that found no place."""

    placed: dict[int, PlacedText]
    lost: tuple[int, ...]
    room: FreeSpace


def settle(labels: list[LabelRequest], space: FreeSpace) -> tuple[list[PlacedText], int]:
    """Place all labels: those moved by hand first, then by weight. Returns them and how many found no place.

    The labels of a layer have one size. Where some find no place they all step down together; what has none then is
    shortened, or left out.
    """
    labels = _of_crowds(labels)
    order = sorted(range(len(labels)), key=lambda i: (not (labels[i].dx or labels[i].dy), -labels[i].weight, i))
    count = Counter(label.key for label in labels)
    steps = dict.fromkeys(count, (1.0,)) | {
        label.key: _steps(label, count[label.key]) for label in labels if not label.own_size
    }
    position = dict.fromkeys(steps, 0)
    done = _tried(labels, order, space, {key: steps[key][0] for key in position})
    for key, shares in steps.items():
        for step in range(1, len(shares)):
            lost = sum(labels[i].key == key for i in done.lost)
            if not lost:
                break
            again = _tried(
                labels, order, space, {**{key_: steps[key_][position[key_]] for key_ in position}, key: shares[step]}
            )
            if len(again.lost) < len(done.lost):
                position[key], done = step, again
    placed_texts = dict(done.placed)
    for i in done.lost if any(labels[i].shorten for i in done.lost) else ():
        size = labels[i].size * steps[labels[i].key][position[labels[i].key]]
        short_text = _short(labels[i], done.room, size) if labels[i].shorten else None
        if short_text is not None:
            done.room.take(short_text)
            placed_texts[i] = short_text
    for text in placed_texts.values():
        space.take(text)
    return [placed_texts[i] for i in sorted(placed_texts)], len(labels) - len(placed_texts)


def _of_crowds(labels: list[LabelRequest]) -> list[LabelRequest]:
    """Labels of a layer that has so many that few find a place: each tries the places next to its mark, at its size."""
    count = Counter(label.key for label in labels)

    def modest(label: LabelRequest) -> LabelRequest:
        return msgspec.structs.replace(label, spots=label.spots[:NEAREST], own_size=True)

    return [modest(label) if count[label.key] > CROWD else label for label in labels]


def _steps(label: LabelRequest, count: int) -> tuple[float, ...]:
    """The shares of its size that a layer's labels may have: one step down; more for a single large figure."""
    least = min(1.0, FLOOR / label.size)
    if count == 1 and label.size > LARGE:
        return tuple(dict.fromkeys(max(least, share) for share in SIZES))
    return (1.0,) if label.size <= FLOOR else (1.0, max(least, STEP))


def _tried(labels: list[LabelRequest], order: list[int], space: FreeSpace, shares: dict[str, float]) -> _Try:
    """All labels placed in a branch of the room, each layer's at a share of its size."""
    space, placed, lost = space.branch(), {}, []
    for i in order:
        label = labels[i]
        share = 1.0 if label.own_size else shares[label.key]
        found = at_once(msgspec.structs.replace(label, size=label.size * share), space)
        if found is None:
            lost.append(i)
        else:
            space.take(found)
            placed[i] = found
    return _Try(placed, tuple(lost), space)


def at_once(label: LabelRequest, space: FreeSpace) -> PlacedText | None:
    """One label at its size, where it was moved to by hand or at the first of its spots that is free."""
    check_cancelled()
    if label.dx or label.dy:
        return _by_hand(label, space)
    return _placed(label, space)


def _placed(label: LabelRequest, space: FreeSpace) -> PlacedText | None:
    for spot in label.spots:
        found = _at(label, spot, label.size)
        if found is not None and space.free(found, label.any_colour) and space.is_led_freely(found):
            return found
    return None


def _at(label: LabelRequest, spot: LabelSpot, size: float) -> PlacedText | None:
    """The label at a spot in a size, wrapped where it must be; None where it does not fit."""
    most, high = spot.width - 2 * spot.pad * size, spot.height
    if most <= 0 or tall(1, label.face, size) > high:
        return None
    lines = tuple(label.text.split("\n"))
    if widest(lines, label.face, size) > most:
        if label.lines <= len(lines):
            return None
        wrap = tuple(part for line in lines for part in wrapped(line, label.face, size, most, label.lines))
        if len(wrap) > label.lines or any(part.endswith("…") for part in wrap):
            return None
        lines = wrap
    if tall(len(lines), label.face, size) > high or widest(lines, label.face, size) > most + 0.01:
        return None
    made = _block(label, lines, spot, size)
    return made if spot.fits is None or spot.fits(made) else _narrower(label, lines, spot, size)


def _narrower(label: LabelRequest, lines: tuple[str, ...], spot: LabelSpot, size: float) -> PlacedText | None:
    """The label in more and shorter lines, where it may have them and so fits into a place that is no box."""
    most = widest(lines, label.face, size)
    for share in NARROWER if len(lines) < label.lines else ():
        wrap = tuple(part for line in lines for part in wrapped(line, label.face, size, share * most, label.lines))
        if len(wrap) > label.lines or any(part.endswith("…") for part in wrap):
            continue
        made = _block(label, wrap, spot, size)
        if spot.fits is None or spot.fits(made):
            return made
    return None


def _short(label: LabelRequest, space: FreeSpace, size: float) -> PlacedText | None:
    for spot in label.spots:
        most = spot.width - 2 * spot.pad * size
        if math.isinf(most) or most <= size:
            continue
        line = shortened(label.text.replace("\n", " "), label.face, size, most)
        made = _block(label, (line,), spot, size)
        if tall(1, label.face, size) <= spot.height and space.free(made, label.any_colour):
            return made
    return None


def _block(label: LabelRequest, lines: tuple[str, ...], spot: LabelSpot, size: float) -> PlacedText:
    at = (spot.x + spot.sx * size, spot.y + spot.sy * size)
    anchor, owner = Anchor(at, spot.anchor, spot.level, spot.angle), TextOwner(label.row, label.layer, label.key)
    made = block(lines, "label", anchor, TextStyle(label.face, size, spot.colour), owner)
    return _led(made, label, spot.leader) if spot.leader is not None else made


def _by_hand(label: LabelRequest, space: FreeSpace) -> PlacedText | None:
    """A label moved by its author: where it was put, brought back into the chart, with a leader to its mark."""
    spot = label.spots[0] if label.spots else None
    if spot is None:
        return None
    lines = tuple(label.text.split("\n"))
    natural = _block(label, lines, spot, label.size)
    dx, dy = label.dx, label.dy
    box = natural.bounds
    dx = min(max(dx, space.bounds.x - box.x), space.bounds.right - box.right)
    dy = min(max(dy, space.bounds.y - box.y), space.bounds.bottom - box.bottom)
    moved = msgspec.structs.replace(spot, x=spot.x + dx, y=spot.y + dy, leader=None)
    colour = label.leader_colour
    text = _block(label, lines, moved, label.size)
    behind = space.behind(text.bounds)
    if behind is not None and not label.any_colour:  # where it lies now is not what its colour was chosen for
        ink = readable(behind, *(label_spot.colour for label_spot in label.spots), WHITE, BLACK)
        text = _block(label, lines, msgspec.structs.replace(moved, colour=ink), label.size)
    far = math.hypot(dx, dy) > 1.2 * label.size
    return _led(text, label, label.target) if far and label.target is not None and colour is not None else text


def _led(made: PlacedText, label: LabelRequest, target: tuple[float, float] | None) -> PlacedText:
    """The text with a leader from its nearer side to its mark."""
    if target is None or label.leader == "none":
        return made
    box = made.bounds
    gap = 0.25 * made.size
    x, y = box.center
    if target[0] < box.x or target[0] > box.right:
        start = (box.x - gap, y) if target[0] < box.x else (box.right + gap, y)
    else:
        start = (x, box.bottom + gap) if target[1] > y else (x, box.y - gap)
    points: tuple[tuple[float, float], ...] = (start, target)
    if label.leader == "elbow" and abs(start[1] - target[1]) > 1 and abs(start[0] - target[0]) > 1:
        points = (start, ((start[0] + target[0]) / 2, start[1]), target)
    return msgspec.structs.replace(
        made, leader=points, leader_colour=label.leader_colour, arrow=label.leader == "arrow"
    )
