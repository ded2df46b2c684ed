"""The sides of one body as they are seen: which parts of its edges face the reader, their outlines, light across them.

These are the loops that run for every body of every frame; they work on flat lists, one for each edge of an outline.
"""

import math

from msgspec import Struct

from kavlet.core.scene.path import Path
from kavlet.core.solid.loft import Level, Loft

K = 9  # samples along an edge
FACETS, EDGE_FACETS = 14, 7  # strips along a quarter of a cone, and of a rounded edge
NEARLY = 0.75  # of its size that a side keeps over its length, from which one gradient does for it
ROUND = 0.7  # of a ring, seen at once, from which one gradient does not do
SEEN = 1e-9  # cosine from which a wall counts as seen
Place = tuple[float, float]
Cubic = list[float]  # the four control points, x and y in turn
EdgePiece = tuple[int, float, float]  # an edge and the part of it that is seen
Curves = tuple[Cubic, Cubic, bool]  # the upper and lower curve of a piece, and whether they are straight

# Where an edge's row holds its lower and upper curve, and at its samples: facing, shade, gleam, and the place seen.
LOW, HIGH, FACING, SHADE, GLEAM, X, Y = 0, 8, 16, 16 + K, 16 + 2 * K, 16 + 3 * K, 16 + 4 * K


class Stop(Struct, frozen=True, gc=False):
    """Light at one place of a wall: how far across it (0 to 1), its shade and gleam, and the place in the section."""

    offset: float
    shade: float
    gleam: float
    section: Place


class WallStrip(Struct, frozen=True, gc=False):
    """A narrow part of a wall from end to end, and the light on it."""

    path: Path
    stop: Stop


class Wall(Struct, frozen=True, gc=False):
    """A seen piece of a body's side: its outline, light across it from `start` to `end`, and its foot in the section.

    `foot` (n, 2) is the piece in the section's plane, for the order of walls; `reach` from where to where it goes along
    the axis; `narrows` whether the body has another size there than here. `strips` make it up where its lines do not
    run side by side, so that no gradient would do (a cone's side), or where they were asked for.
    """

    path: Path
    stops: tuple[Stop, ...]
    start: Place
    end: Place
    foot: tuple[Place, ...]
    reach: tuple[float, float]
    narrows: bool
    strips: tuple[WallStrip, ...] = ()


class SeenEdges(Struct, frozen=True, gc=False):
    """All edges from one view, a row of numbers each; and their samples in the section."""

    rows: list[list[float]]
    section: list[list[Place]]


def ring(loft: Loft, look: SeenEdges, first: int, last: bool) -> Path:
    """The outline at a band's upper end (`last`) or lower one; the latter the other way round, as it is seen."""
    verbs: list[str] = []
    c: list[float] = []
    straight = loft.outline.straight
    at = HIGH if last else LOW
    for edges in loft.outline.rings:
        held = [look.rows[first + edge][at : at + 8] for edge in edges]
        lines = [straight[edge] for edge in edges]
        if not last:
            held, lines = [_back(cubic) for cubic in reversed(held)], lines[::-1]
        verbs.append("M")
        c += held[0][:2]
        for cubic, line in zip(held, lines, strict=True):
            verbs.append("L" if line else "C")
            c += cubic[6:] if line else cubic[2:]
        verbs.append("Z")
    return Path("".join(verbs), tuple(c))


def seen_walls(loft: Loft, look: SeenEdges, first: int, level: Level, other: Level, striped: bool) -> list[Wall]:
    """The seen walls between two levels: neighbours that go on into each other are one wall, without a seam.

    A wall that narrows much, or narrows and goes nearly all round, is made of strips; `striped` asks for them where
    it does not narrow.
    """
    outline = loft.outline
    found: list[Wall] = []
    narrows = (level.a, level.b, level.inset) != (other.a, other.b, other.inset)
    cone = min(level.a, other.a) < NEARLY * max(level.a, other.a)
    for edges in outline.rings:
        runs: list[list[EdgePiece]] = []
        for edge in edges:
            for piece in _pieces(edge, look.rows[first + edge], outline.straight[edge]):
                before = runs[-1][-1] if runs else None
                if before is not None and outline.next[before[0]] == edge and (
                    before[2] == 1.0 and piece[1] == 0.0 and outline.smooth[before[0]]
                ):  # fmt: skip
                    runs[-1].append(piece)
                else:
                    runs.append([piece])
        if len(runs) > 1:
            head, tail = runs[0][0], runs[-1][-1]
            if outline.next[tail[0]] == head[0] and tail[2] == 1.0 and head[1] == 0.0 and outline.smooth[tail[0]]:
                runs[0] = runs.pop() + runs[0]
        for run in runs:
            edge = level.inset != other.inset or (narrows and sum(b - a for _, a, b in run) > ROUND * len(edges))
            facets = FACETS if cone or (striped and not narrows) else EDGE_FACETS if edge else 0
            wall = _wall(run, look, first, outline.straight, (narrows, facets), (level.w, other.w))
            if wall is not None:
                found.append(wall)
    return found


def _pieces(edge: int, row: list[float], straight: bool) -> list[EdgePiece]:
    """The parts of an edge whose wall is seen, as ranges of its parameter."""
    if straight:
        return [(edge, 0.0, 1.0)] if row[FACING + K // 2] > SEEN else []
    found: list[EdgePiece] = []
    start = 0.0 if row[FACING] > SEEN else None
    for i in range(1, K):
        before, now = row[FACING + i - 1], row[FACING + i]
        if (before > SEEN) == (now > SEEN):
            continue
        at = (i - 1 + before / (before - now)) / (K - 1) if before != now else i / (K - 1)
        if now > SEEN:
            start = at
        else:
            if start is not None and at - start > 1e-6:
                found.append((edge, start, at))
            start = None
    if start is not None and 1 - start > 1e-6:
        found.append((edge, start, 1.0))
    return found


def _wall(
    run: list[EdgePiece], look: SeenEdges, first: int, straight: list[bool], how: tuple[bool, int], reach: Place
) -> Wall | None:  # fmt: skip
    if len(run) == 1 and straight[run[0][0]]:
        return _flat_wall(look.rows[first + run[0][0]], look.section[first + run[0][0]], how[0], reach)
    bands = [_band(look.rows[first + edge], a, b, straight[edge]) for edge, a, b in run]
    sampled: list[tuple[float, float, float, float]] = []  # x and y on the sheet, shade, gleam
    sections: list[Place] = []
    for edge, a, b in run:
        row, section = look.rows[first + edge], look.section[first + edge]
        whole = b == 1.0 and a == 0.0 and not straight[edge]
        if not whole:
            sampled.append(_sample(row, a))
            sections.append(_on(section, a))
        if not straight[edge]:
            i = math.floor(a * (K - 1)) + 1 if a > 0.0 else 0 if whole else 1
            j = math.ceil(b * (K - 1)) if b < 1.0 else K if whole else K - 1
            sampled += [(row[X + n], row[Y + n], row[SHADE + n], row[GLEAM + n]) for n in range(i, j)]
            sections += section[i:j]
        if not whole:
            sampled.append(_sample(row, b))
            sections.append(_on(section, b))
    x0, y0 = sampled[0][:2]
    ux, uy = _way_across(bands[len(bands) // 2])
    across = [(x - x0) * ux + (y - y0) * uy for x, y, _, _ in sampled]
    wide = across[-1]
    narrows, facets = how
    many = facets > 0 and len(sampled) > 2
    if abs(wide) < 1e-6 and not many:
        return None  # seen edge-on
    stops = []
    least = 0.0
    for off, (_, _, shade, gleam), section_at in zip(across, sampled, sections, strict=True):
        least = max(least, min(1.0, off / wide)) if abs(wide) >= 1e-6 else least
        stops.append(Stop(least, shade, gleam, section_at))
    strips = _strips_of(run, look, first, straight, facets) if many else ()
    end = x0 + wide * ux, y0 + wide * uy
    return Wall(_strip(bands), tuple(stops), (x0, y0), end, tuple(sections), reach, narrows, strips)


def _flat_wall(row: list[float], section: list[Place], narrows: bool, reach: Place) -> Wall | None:
    """A whole straight edge's wall: four corners, light that hardly changes."""
    low, high = row[LOW : LOW + 8], row[HIGH : HIGH + 8]
    ux, uy = _way_across((high, low, True))
    x, y = row[X], row[Y]
    wide = (row[X + K - 1] - x) * ux + (row[Y + K - 1] - y) * uy
    if abs(wide) < 1e-6:
        return None  # seen edge-on
    path = Path("MLLLZ", (*low[:2], *low[6:], *high[6:], *high[:2]))
    start = Stop(0.0, row[SHADE], row[GLEAM], section[0])
    end = Stop(1.0, row[SHADE + K - 1], row[GLEAM + K - 1], section[-1])
    return Wall(path, (start, end), (x, y), (x + wide * ux, y + wide * uy), (section[0], section[-1]), reach, narrows)


def _way_across(band: Curves) -> Place:
    """The direction at right angles to a line that runs along a wall; none where it is seen end-on."""
    high, low, _ = band
    gx, gy = high[0] - low[0], high[1] - low[1]
    long = math.sqrt(gx * gx + gy * gy)
    return (-gy / long, gx / long) if long >= 1e-9 else (0.0, 0.0)


def _strips_of(
    run: list[EdgePiece], look: SeenEdges, first: int, straight: list[bool], facets: int
) -> tuple[WallStrip, ...]:  # fmt: skip
    """Narrow strips side by side; each goes on under half of the next, so that no seam shows between them."""
    parts: list[EdgePiece] = []
    for edge, a, b in run:
        count = 1 if straight[edge] else max(1, math.ceil((b - a) * facets))
        parts += [(edge, a + (b - a) * n / count, a + (b - a) * (n + 1) / count) for n in range(count)]
    made = []
    for i, (edge, a, b) in enumerate(parts):
        row, middle = look.rows[first + edge], (a + b) / 2
        bands = [_band(row, a, b, straight[edge])]
        if i + 1 < len(parts):
            following, start, end = parts[i + 1]
            bands.append(_band(look.rows[first + following], start, (start + end) / 2, straight[following]))
        _, _, shade, gleam = _sample(row, middle)
        made.append(WallStrip(_strip(bands), Stop(0.0, shade, gleam, _on(look.section[first + edge], middle))))
    return tuple(made)


def _strip(bands: list[Curves]) -> Path:
    """Along the lower edges and back along the upper ones, so that it meets a cap's outline in the other direction."""
    verbs = ["M"]
    c = bands[0][1][:2]
    for _, low, line in bands:
        verbs.append("L" if line else "C")
        c += low[6:] if line else low[2:]
    verbs.append("L")
    c += bands[-1][0][6:]
    for high, _, line in reversed(bands):
        verbs.append("L" if line else "C")
        c += high[:2] if line else [high[4], high[5], high[2], high[3], high[0], high[1]]
    verbs.append("Z")
    return Path("".join(verbs), tuple(c))


def _band(row: list[float], a: float, b: float, straight: bool) -> Curves:
    """The part of an edge's wall between two parameters: its upper and its lower curve."""
    return _cut(row[HIGH : HIGH + 8], a, b), _cut(row[LOW : LOW + 8], a, b), straight


def _sample(row: list[float], t: float) -> tuple[float, float, float, float]:
    """Of the middle of an edge's wall at a parameter: x and y on the sheet, shade and gleam."""
    place = t * (K - 1)
    i = min(K - 2, int(place))
    share = place - i
    x, y, shade, gleam = (row[at + i] + (row[at + i + 1] - row[at + i]) * share for at in (X, Y, SHADE, GLEAM))
    return x, y, shade, gleam


def _on(section: list[Place], t: float) -> Place:
    place = t * (K - 1)
    i = min(K - 2, int(place))
    share = place - i
    (x1, y1), (x2, y2) = section[i], section[i + 1]
    return x1 + (x2 - x1) * share, y1 + (y2 - y1) * share


def _back(c: Cubic) -> Cubic:
    return [c[6], c[7], c[4], c[5], c[2], c[3], c[0], c[1]]


def _cut(c: Cubic, a: float, b: float) -> Cubic:
    """The part of a cubic between two parameters (de Casteljau)."""
    if b < 1.0:
        c = _split(c, b)[0]
        a = a / b if b > 0 else 0.0
    return _split(c, a)[1] if a > 0.0 else c


def _split(c: Cubic, t: float) -> tuple[Cubic, Cubic]:
    x0, y0, x1, y1, x2, y2, x3, y3 = c
    ax, ay = x0 + (x1 - x0) * t, y0 + (y1 - y0) * t
    bx, by = x1 + (x2 - x1) * t, y1 + (y2 - y1) * t
    cx, cy = x2 + (x3 - x2) * t, y2 + (y3 - y2) * t
    dx, dy = ax + (bx - ax) * t, ay + (by - ay) * t
    ex, ey = bx + (cx - bx) * t, by + (cy - by) * t
    fx, fy = dx + (ex - dx) * t, dy + (ey - dy) * t
    return [x0, y0, ax, ay, dx, dy, fx, fy], [fx, fy, ex, ey, cx, cy, x3, y3]
