"""Many bodies at once, as they are seen: which walls and caps show, their outlines on the sheet, light on them.

Everything that does not depend on the view is computed once for all bodies together, so that turning is a handful of
array operations and then one short loop over what is seen.
"""

import numpy as np
from msgspec import Struct

from kavlet.core.scene.path import Path
from kavlet.core.solid.camera import Camera
from kavlet.core.solid.light import Light
from kavlet.core.solid.loft import AXES, TINY, Level, Loft, bezier, tangents
from kavlet.core.solid.sides import SEEN, K, Place, SeenEdges, Wall, ring, seen_walls
from kavlet.core.values.arrays import Array
from kavlet.core.values.cancellation import check_cancelled
from kavlet.core.values.geometry import Rect

AT = np.linspace(0.0, 1.0, K)
FLAT = 0.3  # how far a flat end may gleam all over, against a curved side that gleams along a line


class Cap(Struct, frozen=True, gc=False):
    """A seen end of a body: its outline, light on it, and which end: the first level's or the last one's."""

    path: Path
    shade: float
    gleam: float
    last: bool
    level: Level


class SeenBody(Struct, frozen=True, gc=False):
    """All that is seen of one body, and the box around it."""

    walls: tuple[Wall, ...]
    caps: tuple[Cap, ...]
    bounds: Rect


class Assembly:
    """Bodies of one chart, ready to be looked at from any side. Those in `striped` have all their sides in strips."""

    def __init__(self, lofts: list[Loft], striped: frozenset[int] = frozenset()) -> None:
        self.lofts, self._striped = lofts, striped
        low, high, section, points, normals = [], [], [], [], []
        self._bands: list[list[tuple[int, Level, Level]]] = []  # of each body: where a level's walls begin
        count = 0
        for loft in lofts:
            body_edges = []
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
                body_edges.append((count, one, other))
                count += len(controls)
            self._bands.append(body_edges)
        shape = [(0, 4, 3), (0, 4, 3), (0, K, 2), (0, K, 3), (0, K, 3)]
        edge_arrays = [
            np.concatenate(parts) if parts else np.zeros(size)
            for parts, size in zip((low, high, section, points, normals), shape, strict=True)
        ]
        self._low, self._high, section_, self._points, self._normals = edge_arrays
        self._section: list[list[Place]] = [[(x, y) for x, y in edge] for edge in section_.tolist()]
        straight = [line for loft in lofts for _ in loft.levels[1:] for line in loft.outline.straight]
        self._curved = np.array([i for i, line in enumerate(straight) if not line], dtype=np.intp)
        self._first = [bands[0][0] for bands in self._bands]  # of each body: its first edge
        ways = [AXES[loft.axis][:, 2] for loft in lofts]
        self._cap_normals = np.array([[-way, way] for way in ways]).reshape(-1, 2, 3)
        ends = [[loft.middle_at(level) for level in (loft.levels[0], loft.levels[-1])] for loft in lofts]
        self._cap_points = np.array(ends).reshape(-1, 2, 3)
        self.boxes: Array = np.array([loft.box for loft in lofts]).reshape(-1, 2, 3)

    def seen(self, camera: Camera, light: Light) -> list[SeenBody]:
        """What is seen of each body."""
        if not self.lofts:
            return []
        strength = camera.view.strength
        facing = camera.facing(self._normals, self._points)
        turned_normals = self._normals @ camera.rotation.T
        shade = 1 + (light.relative(turned_normals) - 1) * strength
        gleam = light.gleam(turned_normals) * strength
        low, high = camera.project(self._low), camera.project(self._high)
        places = camera.project(self._points)
        count = len(low)
        per_edge = [low.reshape(count, 8), high.reshape(count, 8), facing, shade, gleam, places[..., 0], places[..., 1]]
        look = SeenEdges(np.concatenate(per_edge, axis=1).tolist(), self._section)
        around = self._around(low, high)
        # A cap's middle is seen from the side its normal points to; in perspective that asks for its place.
        caps = camera.facing(self._cap_normals, self._cap_points).tolist()
        cap_turned = self._cap_normals @ camera.rotation.T
        cap_shade = (1 + (light.relative(cap_turned) - 1) * strength).tolist()
        cap_gleam = (light.gleam(cap_turned) * strength * FLAT).tolist()
        seen_bodies = []
        for i, loft in enumerate(self.lofts):
            check_cancelled()
            walls: list[Wall] = []
            for first, one, other in self._bands[i]:
                walls += seen_walls(loft, look, first, one, other, i in self._striped)
            ends = []
            for last in (False, True):
                level = loft.levels[-1 if last else 0]
                if caps[i][last] > SEEN and level.a > 0 and level.b > 0:
                    band = self._bands[i][-1 if last else 0][0]
                    ends.append(Cap(ring(loft, look, band, last), cap_shade[i][last], cap_gleam[i][last], last, level))
            left, top, right, bottom = around[i]
            seen_bodies.append(SeenBody(tuple(walls), tuple(ends), Rect(left, top, right - left, bottom - top)))
        return seen_bodies

    def _around(self, low: Array, high: Array) -> list[list[float]]:
        """The boxes (left, top, right, bottom) around bodies by their seen outlines (edges, 4, 2)."""
        edges = np.stack([low, high], axis=1)
        ends = edges[:, :, [0, 3]]
        least, most = ends.min(axis=(1, 2)), ends.max(axis=(1, 2))
        if len(self._curved):
            turns = _turns(edges[self._curved])
            least[self._curved] = np.minimum(least[self._curved], turns.min(axis=(0, 2)))
            most[self._curved] = np.maximum(most[self._curved], turns.max(axis=(0, 2)))
        held = np.concatenate([np.minimum.reduceat(least, self._first), np.maximum.reduceat(most, self._first)], axis=1)
        made: list[list[float]] = held.tolist()
        return made


def _turns(edges: Array) -> Array:
    """Where cubics (…, 4, 2) turn back in x and in y: (3, …, 2) where a derivative vanishes, else at the start."""
    p0, p1, p2, p3 = (edges[..., i, :] for i in range(4))
    a, b, c = p3 - p0 + 3 * (p1 - p2), 2 * (p0 - 2 * p1 + p2), p1 - p0
    with np.errstate(divide="ignore", invalid="ignore"):
        inside = np.sqrt(b * b - 4 * a * c)
        t = np.stack([(-b + inside) / (2 * a), (-b - inside) / (2 * a), -c / b])
    t = np.where(np.isfinite(t), np.clip(t, 0.0, 1.0), 0.0)
    s = 1 - t
    made: Array = s**3 * p0 + 3 * s * s * t * p1 + 3 * s * t * t * p2 + t**3 * p3
    return made
