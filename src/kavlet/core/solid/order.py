"""The painter's order: what is further away is painted first.

Both orders below are right for touching bodies, and change only where two bodies truly change places: bodies that stand
apart are parted by planes, whichever side of a plane the eye is on comes last; walls that rise from one ground are told
apart along the lines of sight (Newell, Newell, Sancha 1972; de Berg et al. 2008, Computational Geometry, ch. 12)."""

from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from kavlet.core.solid.assembly import Cap, SeenBody
from kavlet.core.solid.camera import Camera
from kavlet.core.solid.sides import Wall
from kavlet.core.values.arrays import Array

Numbers = NDArray[np.intp]
TOUCH = 1e-6  # points that two bodies may share and still count as apart
Place = tuple[float, float]


def box_order(held: Array, eye: Array, weight: float) -> list[int]:
    """The order of bodies by the boxes (n, 2, 3) around them, no two of which share room: farthest first.

    `eye` is the eye's place with weight 1, or the direction toward it with weight 0. Bodies are parted by planes
    across x, y or z as long as one parts them; else told apart two by two.
    """
    order: list[int] = []
    _part(held, list(range(len(held))), eye, weight, order)
    return order


def _part(held: Array, mine: list[int], eye: Array, weight: float, order: list[int]) -> None:
    if len(mine) < 2:
        order += mine
        return
    for axis in (2, 0, 1):
        groups = _apart(held, mine, axis)
        if len(groups) > 1:
            for group in _by_eye(held, groups, axis, float(eye[axis]), weight):
                _part(held, group, eye, weight, order)
            return
    order += _by_pairs(held, mine, eye, weight)


def _apart(held: Array, mine: list[int], axis: int) -> list[list[int]]:
    """Groups that planes across an axis part, along it."""
    by_start = sorted(mine, key=lambda i: (held[i, 0, axis], held[i, 1, axis], i))
    groups: list[list[int]] = [[by_start[0]]]
    end = float(held[by_start[0], 1, axis])
    for i in by_start[1:]:
        if held[i, 0, axis] >= end - TOUCH:
            groups.append([i])
        else:
            groups[-1].append(i)
        end = max(end, float(held[i, 1, axis]))
    return groups


def _by_eye(held: Array, groups: list[list[int]], axis: int, eye: float, weight: float) -> list[list[int]]:
    """Groups along an axis from the one farthest from the eye to the nearest."""
    if not weight:
        return groups if eye >= 0 else groups[::-1]
    # From either end toward the group the eye is in, or between: each is painted before those nearer to the eye.
    before = [group for group in groups if max(held[i, 1, axis] for i in group) <= eye + TOUCH]
    after = groups[len(before) :]
    around = [group for group in after if min(held[i, 0, axis] for i in group) < eye - TOUCH]
    return [*before, *after[len(around) :][::-1], *around]


def _by_pairs(corners: Array, indices: list[int], eye: Array, weight: float) -> list[int]:
    """An order in which each comes after all it may hide; where there is none, the farthest middle goes first."""
    middle = corners[indices].mean(axis=(0, 1))
    toward = eye - middle if weight else eye
    remaining = sorted(indices, key=lambda i: float(corners[i].mean(axis=0) @ toward))
    order: list[int] = []
    while remaining:
        free = next(
            (i for i in remaining if not any(_hides(corners[i], corners[j], eye, weight) for j in remaining if j != i)),
            remaining[0],
        )
        remaining.remove(free)
        order.append(free)
    return order


def _hides(one: Array, other: Array, eye: Array, weight: float) -> bool:
    """Whether `one` may hide a part of `other`: on no plane between them is the eye on the other's side."""
    for axis in range(3):
        for a, b, way in ((one, other, 1.0), (other, one, -1.0)):
            if a[1, axis] <= b[0, axis] + TOUCH:  # a lies below b along the axis
                side = float(eye[axis]) - float(a[1, axis]) if weight else float(eye[axis])
                if side * way >= 0:
                    return False
    return True


def wall_order(feet: list[tuple[Place, ...]], eye: tuple[float, float], weight: float) -> list[int]:
    """The order of walls that rise from one ground to one height, by their feet (polylines, each seen from its front).

    `eye` is where the eye stands over the ground with weight 1, or the direction toward it with weight 0. Farthest
    first; feet may touch, but not cross.
    """
    if len(feet) < 2:
        return list(range(len(feet)))
    owner = np.array([i for i, foot in enumerate(feet) for _ in foot[1:]])
    ends = np.array([pair for foot in feet for pair in pairwise(foot)])
    place = np.array(eye, dtype=np.float64)
    u = _angles(ends - place) if weight else _across(ends, place)
    near = (u[:, 1] < u[:, 0])[:, None]
    ends, u = np.where(near[..., None], ends[:, ::-1], ends), np.where(near, u[:, ::-1], u)
    apart = owner[:, None] < owner[None, :]
    pairs: list[tuple[Numbers, Numbers, Array]] = []
    for shift in (0.0, 2 * np.pi, -2 * np.pi) if weight else (0.0,):
        low = np.maximum(u[:, None, 0], u[None, :, 0] + shift)
        high = np.minimum(u[:, None, 1], u[None, :, 1] + shift)
        low_index, other = np.nonzero((high - low > 1e-9 * max(1e-12, float(np.ptp(u)))) & apart)
        pairs.append((low_index, other, (low[low_index, other] + high[low_index, other]) / 2))
    low_index = np.concatenate([part[0] for part in pairs])
    other = np.concatenate([part[1] for part in pairs])
    points = np.concatenate([part[2] for part in pairs])

    def nearness(indices: Numbers) -> Array:
        """How near a foot is along the line of sight `at`; of two, the larger hides the other."""
        a, b = ends[indices, 0], ends[indices, 1]
        if weight:
            a, b = a - place, b - place
            ray = np.stack([np.cos(points), np.sin(points)], axis=1)
            normal = np.stack([b[:, 1] - a[:, 1], a[:, 0] - b[:, 0]], axis=1)
            level = np.sum(normal * a, axis=1)
            distances: Array = np.sum(normal * ray, axis=1) / np.where(
                np.abs(level) < 1e-12, 1e-12, level
            )  # 1 / distance
            return distances
        way = place / max(1e-12, float(np.linalg.norm(place)))
        share = (points - u[indices, 0]) / np.maximum(1e-300, u[indices, 1] - u[indices, 0])
        along: Array = (a + (b - a) * share[:, None]) @ way
        return along

    gap = nearness(low_index) - nearness(other)
    # Of all places where two walls share lines of sight, the one where they are farthest apart tells them apart.
    strongest: dict[tuple[int, int], float] = {}
    for a, b, far in zip(owner[low_index].tolist(), owner[other].tolist(), gap.tolist(), strict=True):
        if abs(far) > abs(strongest.get((a, b), 0.0)):
            strongest[a, b] = far
    behind: list[set[int]] = [set() for _ in feet]
    for (a, b), far in strongest.items():
        (behind[a] if far > 0 else behind[b]).add(b if far > 0 else a)
    return _sorted(behind)


def _across(ends: Array, toward: Array) -> Array:
    """Places (n, 2) of segments (n, 2, 2) across the direction toward a far eye."""
    way = toward / max(1e-12, float(np.linalg.norm(toward)))
    made: Array = ends @ np.array([-way[1], way[0]])
    return made


def _angles(ends: Array) -> Array:
    """Angles (n, 2) under which segments (n, 2, 2) are seen from the origin, each less than half a turn wide."""
    turn = np.arctan2(ends[..., 1], ends[..., 0])
    turn[:, 1] += np.where(turn[:, 1] - turn[:, 0] > np.pi, -2 * np.pi, 0.0)
    turn[:, 1] += np.where(turn[:, 0] - turn[:, 1] > np.pi, 2 * np.pi, 0.0)
    made: Array = turn
    return made


def _sorted(behind: list[set[int]]) -> list[int]:
    """Numbers such that all those behind one come before it; the earlier number first where nothing decides."""
    order: list[int] = []
    done: set[int] = set()
    left = list(range(len(behind)))
    while left:
        free = [i for i in left if behind[i] <= done] or [left[0]]
        order += free
        done.update(free)
        left = [i for i in left if i not in done]
    return order


Piece = tuple[int, Wall | Cap]  # the number of a body and one of its seen faces


def by_bodies(boxes: Array, camera: Camera) -> list[int]:
    """The order of convex bodies that boxes (n, 2, 3) part, so that each can be painted whole."""
    eye, weight = camera.eye
    return box_order(boxes, eye, weight)


def by_walls(looks: list[SeenBody], camera: Camera) -> list[Piece]:
    """All faces of bodies carried back from one plane to one depth, which may reach around each other.

    Their walls come first, told apart by their feet; then all fronts, which lie in one plane before them.
    """
    eye, weight = camera.eye
    bands: dict[tuple[float, float], list[tuple[int, Wall]]] = {}
    for n, body in enumerate(looks):
        for wall in body.walls:
            bands.setdefault(wall.reach, []).append((n, wall))
    painted: list[Piece] = []
    # A band higher up, such as a rounded edge, lies before all below it; were the eye below it, behind them.
    for _, walls in sorted(bands.items(), key=lambda band: _away(band[0], float(eye[2]), weight)):
        ordered = wall_order([wall.foot for _, wall in walls], (float(eye[0]), float(-eye[1])), weight)
        painted += [walls[i] for i in ordered]
    return [*painted, *((n, cap) for n, body in enumerate(looks) for cap in body.caps)]


def _away(reach: tuple[float, float], eye: float, weight: float) -> float:
    """The order of bands by how far from the eye they are, farthest first."""
    low, high = reach
    if not weight:
        return low
    return -max(0.0, low - eye, eye - high)
