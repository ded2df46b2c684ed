"""Lofts: bodies with an outline that is carried along an axis, growing or shrinking from level to level.

One kind of body makes them all: a box is a rectangle carried back, a cylinder a circle carried up, a cone a circle that
shrinks to nothing, a slice of a pie its sector carried back; a last small step inward rounds an edge.

The outline lies in the section's plane (a, b); levels follow each other along w:

    axis "back"    a = x,  b = y downward,  w = z      fronts of flat marks, carried into depth
    axis "up"      a = x,  b = z,           w = y up    standing round bodies
    axis "right"   a = y up,  b = z,        w = x      lying round bodies
"""

from typing import Literal

import numpy as np
from msgspec import Struct

from kavlet.core.scene.path import CLOSE, CURVE, LINE, MOVE, Path
from kavlet.core.values.arrays import Array

Along = Literal["back", "up", "right"]
AXES: dict[str, Array] = {
    "back": np.array([[1.0, 0, 0], [0, -1, 0], [0, 0, 1]]),
    "up": np.array([[1.0, 0, 0], [0, 0, 1], [0, 1, 0]]),
    "right": np.array([[0, 0, 1.0], [1, 0, 0], [0, 1, 0]]),
}
TINY = 1e-7
ENDS = np.array([0.0, 1.0])
MIN_MITRE = 0.2  # how pointed a corner may become when an outline is drawn in
MIN_EDGE = 0.1  # of its length that an edge keeps then


class Level(Struct, frozen=True):
    """A place along the axis, and the outline there: how large about its middle (0: a tip), and how far drawn in."""

    w: float
    a: float = 1.0
    b: float = 1.0
    inset: float = 0.0


class Outline:
    """Closed rings of edges in a section's plane: the outer one counter-clockwise, holes clockwise.

    `controls` (n, 4, 2) holds each edge's cubic control points, `straight` (n) those on a line, `smooth` (n) whether an
    edge goes on into the next without a corner, `next` (n) which edge that is.
    """

    def __init__(self, rings: list[list[list[tuple[float, float]]]]) -> None:
        held = [_cleaned(ring) for ring in rings]
        held = [ring for ring in held if ring]
        sizes = [_area(ring) for ring in held]
        outer = max(range(len(held)), key=lambda i: abs(sizes[i]), default=0)
        turned = [
            ring if (size > 0) == (i == outer) else [edge[::-1] for edge in reversed(ring)]
            for i, (ring, size) in enumerate(zip(held, sizes, strict=True))
        ]
        edges = [edge for ring in turned for edge in ring]
        self.controls: Array = np.array(edges, dtype=np.float64).reshape(-1, 4, 2)
        self.rings: list[range] = []
        following: list[int] = []
        for ring in turned:
            first = len(following)
            following += [first + (i + 1) % len(ring) for i in range(len(ring))]
            self.rings.append(range(first, first + len(ring)))
        self.next = following
        self.straight = [_is_straight(edge) for edge in edges]
        self.smooth = [_joins(edges[i], edges[following[i]]) for i in range(len(edges))]

    @property
    def empty(self) -> bool:
        """Whether it holds nothing."""
        return len(self.controls) == 0

    def inset(self, by: float) -> Array:
        """The controls (n, 4, 2) of the outline drawn in by so many points; corners keep their angle."""
        if by == 0 or self.empty:
            return self.controls
        c, following = self.controls, np.array(self.next)
        speeds = tangents(c, ENDS)
        ways = _unit(speeds)  # where each edge leaves and comes in
        inward_before, leaving = _inward(ways[:, 1]), _inward(ways[following, 0])
        level = np.maximum(MIN_MITRE, 1 + np.sum(inward_before * leaving, axis=1, keepdims=True))
        corner = by * (inward_before + leaving) / level
        # So far along each edge its corners move; what is left of it is moved in along its normals.
        lost = np.empty((len(c), 2))
        lost[following, 0] = np.sum(corner * ways[following, 0], axis=1)
        lost[:, 1] = -np.sum(corner * ways[:, 1], axis=1)
        lost /= np.maximum(TINY, np.linalg.norm(speeds, axis=2))
        kept_parts = _part_of(c, lost[:, 0], 1 - lost[:, 1])
        moved_ends = kept_parts[:, [0, 3]] + by * _inward(_unit(tangents(kept_parts, ENDS)))
        ends = (moved_ends[:, 1] + moved_ends[following, 0]) / 2
        starts = np.empty_like(ends)
        starts[following] = ends
        chord = kept_parts[:, 3] - kept_parts[:, 0]
        grown = (np.sum((ends - starts) * chord, axis=1) / np.maximum(TINY, np.sum(chord * chord, axis=1)))[:, None]
        start_handle, other = (
            starts + (kept_parts[:, 1] - kept_parts[:, 0]) * grown,
            ends - (kept_parts[:, 3] - kept_parts[:, 2]) * grown,
        )
        return np.stack([starts, start_handle, other, ends], axis=1)

    def path(self, controls: Array) -> Path:
        """Its edges with other controls (n, 4, 2), as a path."""
        verbs: list[str] = []
        c: list[float] = []
        for ring in self.rings:
            verbs.append(MOVE)
            c += controls[ring[0], 0].tolist()
            for edge in ring:
                verbs.append(LINE if self.straight[edge] else CURVE)
                c += controls[edge, 3].tolist() if self.straight[edge] else controls[edge, 1:].ravel().tolist()
            verbs.append(CLOSE)
        return Path("".join(verbs), tuple(c))

    def most_inset(self, wanted: float) -> float:
        """As far as it can be drawn in, up to what is wanted, with no edge turning round."""
        for _ in range(8):
            ends = self.inset(wanted)
            chord, held = self.controls[:, 3] - self.controls[:, 0], ends[:, 3] - ends[:, 0]
            if bool(np.all(np.sum(chord * held, axis=1) > MIN_EDGE * np.sum(chord * chord, axis=1))):
                return wanted
            wanted /= 2
        return 0.0

    @property
    def middle(self) -> tuple[float, float]:
        """The middle of the box around it."""
        low, high = self.controls.reshape(-1, 2).min(axis=0), self.controls.reshape(-1, 2).max(axis=0)
        return float(low[0] + high[0]) / 2, float(low[1] + high[1]) / 2


def outline_of(path: Path) -> Outline:
    """The outline of a flat path, in its own coordinates."""
    rings: list[list[list[tuple[float, float]]]] = []
    ring: list[list[tuple[float, float]]] = []
    here = start = (0.0, 0.0)
    at, c = 0, path.coordinates
    for verb in path.verbs:
        if verb == MOVE:
            if ring:
                rings.append(_shut(ring, here, start))
            ring, here = [], (c[at], c[at + 1])
            start, at = here, at + 2
        elif verb == LINE:
            there = (c[at], c[at + 1])
            ring.append(_line(here, there))
            here, at = there, at + 2
        elif verb == CURVE:
            points = [(c[at + i], c[at + i + 1]) for i in (0, 2, 4)]
            ring.append([here, *points])
            here, at = points[-1], at + 6
        elif verb == CLOSE:
            ring = _shut(ring, here, start)
            here = start
    if ring:
        rings.append(_shut(ring, here, start))
    return Outline(rings)


def _line(one: tuple[float, float], other: tuple[float, float]) -> list[tuple[float, float]]:
    (x1, y1), (x2, y2) = one, other
    return [one, (x1 + (x2 - x1) / 3, y1 + (y2 - y1) / 3), (x2 - (x2 - x1) / 3, y2 - (y2 - y1) / 3), other]


def _shut(
    ring: list[list[tuple[float, float]]], here: tuple[float, float], start: tuple[float, float]
) -> list[list[tuple[float, float]]]:
    return [*ring, _line(here, start)] if ring and here != start else ring


def _cleaned(ring: list[list[tuple[float, float]]]) -> list[list[tuple[float, float]]]:
    """Without edges that go nowhere."""
    return [edge for edge in ring if max(abs(x - edge[0][0]) + abs(y - edge[0][1]) for x, y in edge) > TINY]


def _area(ring: list[list[tuple[float, float]]]) -> float:
    points = [point for edge in ring for point in edge[:3]]
    return sum(
        x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(points, [*points[1:], points[0]], strict=True)
    ) / 2  # fmt: skip


def _is_straight(edge: list[tuple[float, float]]) -> bool:
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = edge
    long = abs(x3 - x0) + abs(y3 - y0)
    one = (x1 - x0) * (y3 - y0) - (y1 - y0) * (x3 - x0)
    two = (x2 - x0) * (y3 - y0) - (y2 - y0) * (x3 - x0)
    return long > 0 and max(abs(one), abs(two)) < 1e-9 * long * long


def _joins(edge: list[tuple[float, float]], other: list[tuple[float, float]]) -> bool:
    """Whether two edges meet without a corner (up to about 3 degrees)."""
    ax, ay = _way(edge[::-1])
    bx, by = _way(other)
    long = (ax * ax + ay * ay) ** 0.5 * (bx * bx + by * by) ** 0.5
    return bool(long > 0 and -(ax * bx + ay * by) / long > 0.9986)


def _way(edge: list[tuple[float, float]]) -> tuple[float, float]:
    """The direction in which an edge leaves its first point."""
    x0, y0 = edge[0]
    for x, y in edge[1:]:
        if abs(x - x0) + abs(y - y0) > TINY:
            return x - x0, y - y0
    return 0.0, 0.0


def bezier(controls: Array, at: Array) -> Array:
    """Points (…, k, d) of cubics (…, 4, d) at the parameters (k)."""
    t = at[:, None]
    s = 1 - t
    weights = np.concatenate([s**3, 3 * s * s * t, 3 * s * t * t, t**3], axis=1)
    made: Array = np.einsum("kc,...cd->...kd", weights, controls)
    return made


def tangents(controls: Array, at: Array) -> Array:
    """Derivatives (…, k, d) of cubics (…, 4, d); where one vanishes at an end, the direction it leaves or comes in."""
    t = at[:, None]
    s = 1 - t
    weights = np.concatenate([-3 * s * s, 3 * s * s - 6 * s * t, 6 * s * t - 3 * t * t, 3 * t * t], axis=1)
    made: Array = np.einsum("kc,...cd->...kd", weights, controls)
    lost = np.sum(np.abs(made), axis=-1, keepdims=True) < TINY
    whole = (controls[..., 3, :] - controls[..., 0, :])[..., None, :]
    return np.where(lost, whole, made)


def _inward(ways: Array) -> Array:
    """Left of each direction (…, 2): to the inside of an outline that goes counter-clockwise."""
    return np.stack([-ways[..., 1], ways[..., 0]], axis=-1)


def _part_of(controls: Array, start: Array, end: Array) -> Array:
    """The parts of cubics (n, 4, 2) between two parameters (n), by their polar form (Ramshaw 1987)."""

    def mixed(points: Array, t: Array) -> Array:
        made: Array = points[:, :-1] + (points[:, 1:] - points[:, :-1]) * t[:, None, None]
        return made

    def at(a: Array, b: Array, c: Array) -> Array:
        return mixed(mixed(mixed(controls, a), b), c)[:, 0]

    return np.stack(
        [at(start, start, start), at(start, start, end), at(start, end, end), at(end, end, end)], axis=1
    )  # fmt: skip


def _unit(ways: Array) -> Array:
    made: Array = ways / np.maximum(TINY**2, np.linalg.norm(ways, axis=-1, keepdims=True))
    return made


class Loft:
    """A body: an outline carried through levels along an axis."""

    def __init__(self, outline: Outline, levels: tuple[Level, ...], axis: Along = "back") -> None:
        self.outline = outline
        self.levels = tuple(sorted(levels, key=lambda level: level.w))
        self.axis: Along = axis
        self.middle = outline.middle if not outline.empty else (0.0, 0.0)

    def section(self, level: Level) -> Array:
        """The outline's controls (n, 4, 3) at a level, in the section's own space (a, b, w)."""
        return self._placed(self.outline.inset(level.inset), level)

    def at(self, level: Level) -> Array:
        """The outline's controls (n, 4, 3) at a level, in the model."""
        made: Array = self.section(level) @ AXES[self.axis].T
        return made

    def middle_at(self, level: Level) -> Array:
        """The middle (3) of the outline's box at a level, in the model."""
        made: Array = self._placed(np.array(self.middle), level) @ AXES[self.axis].T
        return made

    def _placed(self, flat: Array, level: Level) -> Array:
        middle = np.array(self.middle)
        held = middle + (flat - middle) * np.array([level.a, level.b])
        made: Array = np.concatenate([held, np.full((*held.shape[:-1], 1), level.w)], axis=-1)
        return made

    @property
    def box(self) -> Array:
        """The corners (2, 3) of the box around it, lowest and highest, in the model."""
        points = np.concatenate([self.at(level).reshape(-1, 3) for level in self.levels])
        return np.array([points.min(axis=0), points.max(axis=0)])
