"""Many bodies at once, as they are seen: which walls and caps show, their outlines on the sheet, light on them.

Everything that does not depend on the view is computed once for all bodies together, so that turning is a handful of
array operations and then one short loop over what is seen.
"""

import math
from typing import Any

import numpy as np
from msgspec import Struct
from numpy.typing import NDArray

from kavlet.core.scene.path import Path
from kavlet.core.solid.camera import Camera
from kavlet.core.solid.light import Light
from kavlet.core.solid.loft import AXES, TINY, Level, Loft, bezier, tangents

Array = NDArray[np.float64]
K = 5  # samples along an edge
AT = np.linspace(0.0, 1.0, K)
FACETS = 14  # strips along a quarter of a cone
SEEN = 1e-9  # cosine from which a wall counts as seen
Spot = tuple[float, float]


class Stop(Struct, frozen=True):
    """Light at one place of a wall: how far across it (0 to 1), its shade and gleam, and the place in the section."""

    offset: float
    shade: float
    gleam: float
    section: Spot


class Strip(Struct, frozen=True):
    """What of a wall lies beyond one place across it, and the light on the wall just there."""

    path: Path
    stop: Stop


class Wall(Struct, frozen=True):
    """A seen piece of a body's side: its outline, light across it from `start` to `end`, and its foot in the section.

    `foot` (n, 2) is the piece in the section's plane, for the order of walls; `reach` from where to where it goes along
    the axis. `nested` are outlines that each begin a
    little further across and reach to its far end, where the generators do not run side by side (a cone's side).
    """

    path: Path
    stops: tuple[Stop, ...]
    start: Spot
    end: Spot
    foot: tuple[Spot, ...]
    reach: tuple[float, float]
    nested: tuple[Strip, ...] = ()


class Cap(Struct, frozen=True):
    """A seen end of a body: its outline, light on it, and which end: the first level's or the last one's."""

    path: Path
    shade: float
    gleam: float
    last: bool
    level: Level


class Body(Struct, frozen=True):
    """All that is seen of one body."""

    walls: tuple[Wall, ...]
    caps: tuple[Cap, ...]


class Assembly:
    """Bodies of one chart, ready to be looked at from any side."""

    def __init__(self, lofts: list[Loft]) -> None:
        self.lofts = lofts
        low, high, section, points, normals = [], [], [], [], []
        self._bands: list[list[tuple[int, Level, Level]]] = []  # of each body: where a level's walls begin
        count = 0
        for loft in lofts:
            mine = []
            controls = loft.outline.controls
            for one, other in zip(loft.levels, loft.levels[1:], strict=False):
                foot, top = loft.section(one), loft.section(other)
                along = tangents(foot, AT) + tangents(top, AT)
                normal = np.cross(along, bezier(top, AT) - bezier(foot, AT))
                normal /= np.maximum(TINY**2, np.linalg.norm(normal, axis=-1, keepdims=True))
                a, b = foot @ AXES[loft.axis].T, top @ AXES[loft.axis].T
                low.append(a)
                high.append(b)
                section.append(bezier(controls, AT))
                points.append((bezier(a, AT) + bezier(b, AT)) / 2)
                normals.append(normal @ AXES[loft.axis].T)
                mine.append((count, one, other))
                count += len(controls)
            self._bands.append(mine)
        shape = [(0, 4, 3), (0, 4, 3), (0, K, 2), (0, K, 3), (0, K, 3)]
        held = [
            np.concatenate(parts) if parts else np.zeros(size)
            for parts, size in zip((low, high, section, points, normals), shape, strict=True)
        ]
        self._low, self._high, self._section, self._points, self._normals = held
        ways = [AXES[loft.axis][:, 2] for loft in lofts]
        self._cap_normals = np.array([[-way, way] for way in ways]).reshape(-1, 2, 3)
        ends = [[loft.middle_at(level) for level in (loft.levels[0], loft.levels[-1])] for loft in lofts]
        self._cap_points = np.array(ends).reshape(-1, 2, 3)
        self.boxes: Array = np.array([loft.box for loft in lofts]).reshape(-1, 2, 3)

    def seen(self, camera: Camera, light: Light) -> list[Body]:
        """What is seen of each body."""
        if not self.lofts:
            return []
        strength = camera.view.strength
        facing = camera.facing(self._normals, self._points)
        turned = self._normals @ camera.rotation.T
        shade = 1 + (light.relative(turned) - 1) * strength
        gleam = light.gleam(turned) * strength
        look = _Look(
            facing, facing.tolist(), camera.project(self._low).tolist(), camera.project(self._high).tolist(),
            camera.project(self._points).tolist(), shade.tolist(), gleam.tolist(), self._section.tolist(),
        )  # fmt: skip
        # A cap's middle is seen from the side its normal points to; in perspective that asks for its place.
        caps = camera.facing(self._cap_normals, self._cap_points).tolist()
        cap_turned = self._cap_normals @ camera.rotation.T
        cap_shade = (1 + (light.relative(cap_turned) - 1) * strength).tolist()
        cap_gleam = (light.gleam(cap_turned) * strength).tolist()
        made = []
        for i, loft in enumerate(self.lofts):
            walls: list[Wall] = []
            for first, one, other in self._bands[i]:
                walls += _walls(loft, look, first, one, other)
            ends = []
            for last in (False, True):
                level = loft.levels[-1 if last else 0]
                if caps[i][last] > SEEN and level.a > 0 and level.b > 0:
                    band = self._bands[i][-1 if last else 0][0]
                    path = _ring_path(loft, look.high if last else look.low, band, not last)
                    ends.append(Cap(path, cap_shade[i][last], cap_gleam[i][last], last, level))
            made.append(Body(tuple(walls), tuple(ends)))
        return made


class _Look(Struct, frozen=True):
    """Arrays of one view, as lists: for loops that touch single numbers, lists are faster."""

    signs: Any
    facing: list[list[float]]
    low: list[list[list[float]]]
    high: list[list[list[float]]]
    mid: list[list[list[float]]]
    shade: list[list[float]]
    gleam: list[list[float]]
    section: list[list[list[float]]]


def _ring_path(loft: Loft, controls: list[list[list[float]]], first: int, back: bool) -> Path:
    """The outline at one level; `back` goes the other way round, as the first level is seen from behind."""
    verbs: list[str] = []
    c: list[float] = []
    straight = loft.outline.straight
    for ring in loft.outline.rings:
        edges = list(reversed(ring)) if back else list(ring)
        held = [controls[first + edge][::-1] if back else controls[first + edge] for edge in edges]
        verbs.append("M")
        c += held[0][0]
        for edge, points in zip(edges, held, strict=True):
            _go(verbs, c, points, straight[edge])
        verbs.append("Z")
    return Path("".join(verbs), tuple(c))


Piece = tuple[int, float, float]  # an edge and the part of it that is seen
Strips = tuple[list[list[float]], list[list[float]], bool]  # its upper and lower curve, and whether they are straight


def _walls(loft: Loft, look: _Look, first: int, one: Level, other: Level) -> list[Wall]:
    """The seen walls between two levels: neighbours that go on into each other are one wall, without a seam."""
    outline = loft.outline
    found: list[Wall] = []
    tapered = (one.a, one.b, one.inset) != (other.a, other.b, other.inset)
    for ring in outline.rings:
        runs: list[list[Piece]] = []
        for edge in ring:
            for piece in _pieces(edge, look.facing[first + edge], outline.straight[edge]):
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
            wall = _wall(run, look, first, outline.straight, tapered, (one.w, other.w))
            if wall is not None:
                found.append(wall)
    return found


def _pieces(edge: int, facing: list[float], straight: bool) -> list[Piece]:
    """The parts of an edge whose wall is seen, as ranges of its parameter."""
    if straight:
        return [(edge, 0.0, 1.0)] if facing[K // 2] > SEEN else []
    found: list[Piece] = []
    start = 0.0 if facing[0] > SEEN else None
    for i in range(1, K):
        before, now = facing[i - 1], facing[i]
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
    run: list[Piece], look: _Look, first: int, straight: list[bool], tapered: bool, reach: Spot
) -> Wall | None:  # fmt: skip
    there = [(_cut(look.high[first + edge], a, b), _cut(look.low[first + edge], a, b), straight[edge])
             for edge, a, b in run]  # fmt: skip
    places, shades, gleams, sections = [], [], [], []
    for edge, a, b in run:
        for t in _samples(a, b, straight[edge]):
            places.append(_between(look.mid[first + edge], t))
            shades.append(_at(look.shade[first + edge], t))
            gleams.append(_at(look.gleam[first + edge], t))
            sections.append(_between(look.section[first + edge], t))
    across, way = _across(places, there[len(there) // 2])
    whole = across[-1]
    many = tapered and len(places) > 2
    if abs(whole) < 1e-6 and not many:
        return None  # seen edge-on
    stops = []
    least = 0.0
    for off, shade, gleam, section in zip(across, shades, gleams, sections, strict=True):
        least = max(least, min(1.0, off / whole)) if abs(whole) >= 1e-6 else least
        stops.append(Stop(least, shade, gleam, section))
    x0, y0 = places[0]
    nested = _nested(run, look, first, straight) if many else ()
    end = x0 + whole * way[0], y0 + whole * way[1]
    return Wall(_strip(there), tuple(stops), (x0, y0), end, tuple(sections), reach, nested)


def _across(places: list[Spot], edge: Strips) -> tuple[list[float], Spot]:
    """How far places lie across a wall, at right angles to a line that runs along it, and the direction of that."""
    (top, *_), (foot, *_) = edge[0], edge[1]
    gx, gy = top[0] - foot[0], top[1] - foot[1]
    long = (gx * gx + gy * gy) ** 0.5
    if long < 1e-9:
        return [0.0] * len(places), (1.0, 0.0)
    ux, uy = -gy / long, gx / long
    x0, y0 = places[0]
    return [(x - x0) * ux + (y - y0) * uy for x, y in places], (ux, uy)


def _nested(run: list[Piece], look: _Look, first: int, straight: list[bool]) -> tuple[Strip, ...]:
    """Strips from each of many places on to the wall's far end."""
    made = []
    for i, (edge, a, b) in enumerate(run):
        count = 1 if straight[edge] else max(1, math.ceil((b - a) * FACETS))
        for n in range(count):
            t = a + (b - a) * n / count
            middle = a + (b - a) * (n + 0.5) / count
            rest: list[Piece] = [(edge, t, b), *run[i + 1 :]]
            parts = [
                (_cut(look.high[first + one], s, e), _cut(look.low[first + one], s, e), straight[one])
                for one, s, e in rest
            ]
            light = _at(look.shade[first + edge], middle), _at(look.gleam[first + edge], middle)
            made.append(Strip(_strip(parts), Stop(0.0, *light, _between(look.section[first + edge], middle))))
    return tuple(made)


def _strip(parts: list[Strips]) -> Path:
    """Along the lower edges and back along the upper ones, so that it meets a cap's outline in the other direction."""
    verbs, c = ["M"], list(parts[0][1][0])
    for _, foot, straight in parts:
        _go(verbs, c, foot, straight)
    verbs.append("L")
    c += parts[-1][0][3]
    for top, _, straight in reversed(parts):
        _go(verbs, c, top[::-1], straight)
    verbs.append("Z")
    return Path("".join(verbs), tuple(c))


def _samples(a: float, b: float, straight: bool) -> list[float]:
    if straight:
        return [a, b]
    inside = [i / (K - 1) for i in range(K) if a < i / (K - 1) < b]
    return [a, *inside, b]


def _at(held: list[float], t: float) -> float:
    place = t * (K - 1)
    i = min(K - 2, int(place))
    share = place - i
    return held[i] + (held[i + 1] - held[i]) * share


def _between(held: list[list[float]], t: float) -> Spot:
    place = t * (K - 1)
    i = min(K - 2, int(place))
    share = place - i
    (x1, y1), (x2, y2) = held[i], held[i + 1]
    return x1 + (x2 - x1) * share, y1 + (y2 - y1) * share


def _go(verbs: list[str], c: list[float], points: list[list[float]], straight: bool) -> None:
    """On along an edge whose first point the pen stands at."""
    if straight:
        verbs.append("L")
        c += points[3]
    else:
        verbs.append("C")
        c += points[1]
        c += points[2]
        c += points[3]


def _cut(points: list[list[float]], a: float, b: float) -> list[list[float]]:
    """The part of a cubic between two parameters (de Casteljau)."""
    if a == 0.0 and b == 1.0:
        return points
    if b < 1.0:
        points = _split(points, b)[0]
        a = a / b if b > 0 else 0.0
    return _split(points, a)[1] if a > 0.0 else points


def _split(points: list[list[float]], t: float) -> tuple[list[list[float]], list[list[float]]]:
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = points
    ax, ay = x0 + (x1 - x0) * t, y0 + (y1 - y0) * t
    bx, by = x1 + (x2 - x1) * t, y1 + (y2 - y1) * t
    cx, cy = x2 + (x3 - x2) * t, y2 + (y3 - y2) * t
    dx, dy = ax + (bx - ax) * t, ay + (by - ay) * t
    ex, ey = bx + (cx - bx) * t, by + (cy - by) * t
    fx, fy = dx + (ex - dx) * t, dy + (ey - dy) * t
    first = [[x0, y0], [ax, ay], [dx, dy], [fx, fy]]
    return first, [[fx, fy], [ex, ey], [cx, cy], [x3, y3]]
