"""Schemes of colours for an author without an eye for them: from a house colour, a picture, or nothing.

Lightness goes in even steps of OKLCh (Ottosson 2020), hues by the relations a painter knows. A scheme is only proposed
when each of its colours stands out from the ground (3 to 1, WCAG 2.2, 1.4.11) and every two of them are told apart by
readers with and without a colour-vision deficiency (CIEDE2000 of 10 or more in each simulation).
"""

import itertools
import math
from collections.abc import Iterable, Iterator, Sequence

from msgspec import Struct

from kavlet.core.messages import Message, named
from kavlet.core.values.colour import Colour, colour, contrast, from_oklab, oklab
from kavlet.core.values.vision import as_seen, difference

COUNT = 5  # colours of a scheme
APART = 10.0  # CIEDE2000 between each two, as every reader sees them
STANDS_OUT = 3.0  # to one, from the ground
GOLDEN = 137.508  # degrees; hues so far apart never come close to each other
ANOTHER = 9.0  # CIEDE2000 in the mean, from which on a scheme is another
TRIES = 120
SHIFTS = (0.0, 14.0, -14.0, 32.0, -32.0)  # degrees that the others may turn about the colour that leads
CHROMAS = (0.15, 0.12, 0.09)
RELATIONS: dict[str, tuple[float, ...]] = {
    "neighbours": (0.0, 28.0, -28.0, 56.0, -56.0),
    "opposites": (0.0, 180.0, 25.0, 205.0, -25.0),
    "three corners": (0.0, 120.0, 240.0, 30.0, 150.0),
    "four corners": (0.0, 90.0, 180.0, 270.0, 45.0),
    "all round": (0.0, 72.0, 144.0, 216.0, 288.0),
    "one hue": (0.0, 0.0, 0.0, 0.0, 0.0),
}
VISIONS = ("protan", "deutan", "tritan")


class Scheme(Struct, frozen=True):
    """Colours that go together, as hex codes, and by which relation of their hues."""

    relation: str
    colours: tuple[str, ...]

    @property
    def title(self) -> Message:
        """Its relation in words."""
        return named(self.relation)


def schemes(seeds: Sequence[Colour], ground: Colour, number: int = 6, turn: int = 0) -> list[Scheme]:
    """So many schemes on a ground, each led by one of the seeds; `turn` gives another set. Fewer where no more hold."""
    found: list[Scheme] = []
    for relation, hue, chroma, lead in _wishes(seeds, turn):
        colours = _best(relation, hue, chroma, lead, ground)
        if colours and not _like(found, colours):
            found.append(Scheme(relation, tuple(colour.hex for colour in colours)))
        if len(found) == number:
            break
    return found


def _like(held: Iterable[Scheme], colours: tuple[Colour, ...]) -> bool:
    """Whether a scheme is hardly another than one there is."""
    return any(
        sum(difference(colour(a), b) for a, b in zip(scheme.colours, colours, strict=True)) < ANOTHER * COUNT
        for scheme in held
    )


def told_apart(colours: Sequence[Colour]) -> float:
    """The least CIEDE2000 between two of the colours, as readers of all kinds see them."""
    views = [list(colours), *([as_seen(colour, vision) for colour in colours] for vision in VISIONS)]  # type: ignore[arg-type]
    pairs = (difference(a, b) for view in views for a, b in itertools.combinations(view, 2))
    return min(pairs, default=math.inf)


def _wishes(seeds: Sequence[Colour], turn: int) -> Iterator[tuple[str, float, float, Colour | None]]:
    """Relations, hues and chromas to try, in an order that differs from turn to turn."""
    relations = list(RELATIONS)
    for i in range(TRIES):
        lead = seeds[(turn + i) % len(seeds)] if seeds else None
        hue = _hue(lead) + SHIFTS[(i // 2 + turn) % len(SHIFTS)] if lead is not None else GOLDEN * (i + 7 * turn) % 360
        place = (i + turn) % len(relations)
        yield relations[place], hue, CHROMAS[(i // len(relations) + turn) % len(CHROMAS)], lead


def _hue(of: Colour) -> float:
    _, a, b = oklab(of)
    return math.degrees(math.atan2(b, a)) % 360


def _best(relation: str, hue: float, chroma: float, lead: Colour | None, ground: Colour) -> tuple[Colour, ...]:
    """The colours of a relation in that order of lightness that is told apart best; none where no order is enough."""
    steps = _steps(ground)
    best: tuple[float, tuple[Colour, ...]] = (0.0, ())
    for order in _orders():
        hues = [hue + RELATIONS[relation][i] for i in range(COUNT)]
        colours = [_at(steps[place], chroma, one) for place, one in zip(order, hues, strict=True)]
        if lead is not None and contrast(lead, ground) >= STANDS_OUT:
            colours[0] = lead
        if any(contrast(one, ground) < STANDS_OUT for one in colours):
            continue
        least = told_apart(colours)
        if least > best[0]:
            best = (least, tuple(colours))
    return best[1] if best[0] >= APART else ()


def _orders() -> tuple[tuple[int, ...], ...]:
    """Orders of lightness in which neighbours differ."""
    return ((1, 4, 0, 3, 2), (0, 3, 1, 4, 2), (2, 0, 4, 1, 3), (0, 2, 4, 1, 3), (4, 1, 3, 0, 2), (0, 1, 2, 3, 4))


def _steps(ground: Colour) -> list[float]:
    """Even steps of lightness that stand out from a ground."""
    light = oklab(ground)[0] > 0.6
    low, high = (0.31, 0.665) if light else (0.52, 0.90)
    return [low + (high - low) * i / (COUNT - 1) for i in range(COUNT)]


def _at(lightness: float, chroma: float, hue: float) -> Colour:
    """A colour by its OKLCh values, with less chroma where sRGB does not reach so far."""
    turn = math.radians(hue)
    while True:
        made = from_oklab(lightness, chroma * math.cos(turn), chroma * math.sin(turn))
        back = oklab(made)
        if chroma < 0.01 or math.hypot(back[1], back[2]) > 0.96 * chroma:
            return made
        chroma *= 0.9


def leading(pixels: Sequence[Colour], count: int = COUNT) -> list[Colour]:
    """The leading colours of a picture: the means of groups of its pixels (k-means in OKLab, Lloyd 1982), those that
    stand for most pixels first; near greys come last."""
    points = [oklab(pixel) for pixel in pixels]
    if not points:
        return []
    centres = [points[len(points) // 2]]
    while len(centres) < min(count, len(set(points))):  # each next one is the pixel farthest from those there are
        centres.append(max(points, key=lambda point: min(math.dist(point, centre) for centre in centres)))
    held: list[list[tuple[float, float, float]]] = []
    for _ in range(12):
        held = [[] for _ in centres]
        for point in points:
            held[min(range(len(centres)), key=lambda i: math.dist(point, centres[i]))].append(point)
        moved = [_mean(group) if group else centre for group, centre in zip(held, centres, strict=True)]
        if moved == centres:
            break
        centres = moved
    order = sorted(range(len(centres)), key=lambda i: (math.hypot(*centres[i][1:]) < 0.03, -len(held[i])))
    return [from_oklab(*centres[i]) for i in order]


def _mean(group: list[tuple[float, float, float]]) -> tuple[float, float, float]:
    count = len(group)
    return sum(p[0] for p in group) / count, sum(p[1] for p in group) / count, sum(p[2] for p in group) / count
