"""Meshes: closed bodies of flat faces, their volume, area and Euler characteristic."""

from collections import Counter
from itertools import pairwise

import numpy as np
from msgspec import Struct

from kavlet.core.solid.loft import AXES, Loft, bezier
from kavlet.core.values.arrays import Array

Ring = tuple[int, ...]


class Mesh(Struct, frozen=True, eq=False):
    """Vertices (n, 3) in points, and faces as rings of vertex numbers, counter-clockwise seen from outside."""

    vertices: Array
    faces: tuple[Ring, ...]

    @property
    def volume(self) -> float:
        """Cubic points, by the divergence theorem; positive when normals point outward."""
        total = 0.0
        for face in self.faces:
            a = self.vertices[face[0]]
            for i in range(1, len(face) - 1):
                total += float(np.dot(a, np.cross(self.vertices[face[i]], self.vertices[face[i + 1]])))
        return total / 6

    @property
    def area(self) -> float:
        """The surface, in square points."""
        return sum(float(np.linalg.norm(self.vector_area(face))) for face in self.faces)

    def vector_area(self, face: Ring) -> Array:
        """A face's normal, as long as its area."""
        points = self.vertices[list(face)]
        made: Array = np.sum(np.cross(points, np.roll(points, -1, axis=0)), axis=0) / 2
        return made

    @property
    def closed(self) -> bool:
        """Whether every edge is shared by two faces that go along it in opposite directions."""
        ways = Counter((one, other) for face in self.faces for one, other in _edges(face))
        return all(count == 1 and ways.get((b, a)) == 1 for (a, b), count in ways.items())

    @property
    def euler(self) -> int:
        """Vertices - edges + faces: 2 for a body without a hole, 0 for one with a hole through it."""
        used = {vertex for face in self.faces for vertex in face}
        edges = {frozenset(edge) for face in self.faces for edge in _edges(face)}
        return len(used) - len(edges) + len(self.faces)

    def projected_area(self, toward: Array) -> float:
        """The area of all faces seen from a far eye in that direction (a unit vector), each by itself."""
        return sum(max(0.0, float(self.vector_area(face) @ toward)) for face in self.faces)


def _edges(face: Ring) -> list[tuple[int, int]]:
    return [(face[i], face[(i + 1) % len(face)]) for i in range(len(face))]


def ball(center: tuple[float, float, float], radius: float, rings: int = 48) -> Mesh:
    """A sphere of quadrilaterals between parallels, triangles at its poles."""
    around = 2 * rings
    vertices = [(0.0, radius, 0.0)]
    for i in range(1, rings):
        down = np.pi * i / rings
        for j in range(around):
            turn = 2 * np.pi * j / around
            vertices.append(
                (
                    radius * np.sin(down) * np.sin(turn), radius * np.cos(down), radius * np.sin(down) * np.cos(turn),
                )
            )  # fmt: skip
    vertices.append((0.0, -radius, 0.0))
    last = len(vertices) - 1

    def number(ring: int, place: int) -> int:
        return 1 + (ring - 1) * around + place % around

    faces: list[Ring] = [(0, number(1, j), number(1, j + 1)) for j in range(around)]
    for i in range(1, rings - 1):
        faces += [(number(i, j), number(i + 1, j), number(i + 1, j + 1), number(i, j + 1)) for j in range(around)]
    faces += [(last, number(rings - 1, j + 1), number(rings - 1, j)) for j in range(around)]
    return Mesh(np.array(vertices) + np.array(center), tuple(faces))


def mesh_of(loft: Loft, steps: int = 16) -> Mesh:
    """The body as flat faces; each curved edge in so many steps."""
    vertices: list[Array] = []
    numbers: list[list[list[int]]] = []  # of each level, of each ring
    count = 0
    for level in loft.levels:
        mine = []
        for ring in loft.outline.rings:
            points = _sampled(loft, loft.at(level), ring, steps)
            tip = level.a == 0 and level.b == 0
            mine.append([count] * len(points) if tip else list(range(count, count + len(points))))
            vertices.append(points[:1] if tip else points)
            count += len(vertices[-1])
        numbers.append(mine)
    faces: list[Ring] = []
    for low, high in pairwise(numbers):
        for ring_low, ring_high in zip(low, high, strict=True):
            for i in range(len(ring_low)):
                j = (i + 1) % len(ring_low)
                face = dict.fromkeys((ring_low[i], ring_low[j], ring_high[j], ring_high[i]))
                if len(face) > 2:
                    faces.append(tuple(face))
    faces += [tuple(reversed(face)) for face in _caps(numbers[0])]
    faces += _caps(numbers[-1])
    if np.linalg.det(AXES[loft.axis]) < 0:
        faces = [tuple(reversed(face)) for face in faces]
    return Mesh(np.concatenate(vertices), tuple(faces))


def _sampled(loft: Loft, controls: Array, ring: range, steps: int) -> Array:
    parts = []
    for edge in ring:
        count = 1 if loft.outline.straight[edge] else steps
        parts.append(bezier(controls[edge], np.arange(count) / count))
    return np.concatenate(parts)


def _caps(rings: list[list[int]]) -> list[Ring]:
    """The faces that close a level: its ring, or what lies between an outer and an inner one of as many points."""
    if any(len(set(ring)) < 3 for ring in rings):
        return []
    if len(rings) == 1:
        return [tuple(rings[0])]
    outer, inner = rings[0], list(reversed(rings[1]))
    inner = inner[-1:] + inner[:-1]
    count = len(outer)
    return [(outer[i], outer[(i + 1) % count], inner[(i + 1) % count], inner[i]) for i in range(count)]
