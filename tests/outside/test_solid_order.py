"""The painter's order by casting rays: the first body a ray meets is the one painted last at that place.

10,000 random scenes, each a model and a view; rays meet the bodies' triangles (Möller, Trumbore 1997, "Fast, minimum
storage ray/triangle intersection"); turned by scipy's Rotation. Places on an edge, where bodies may meet, are left out.
"""

import math
from collections.abc import Callable
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from matplotlib.path import Path as Outline
from scipy.spatial.transform import Rotation

from kavlet.core.scene.path import Path, recorded
from kavlet.core.shapes.arc import Sector, wedge
from kavlet.core.shapes.body import ellipse
from kavlet.core.shapes.box import box
from kavlet.core.solid import order
from kavlet.core.solid.assembly import Assembly
from kavlet.core.solid.camera import Camera, View
from kavlet.core.solid.cover import polygons
from kavlet.core.solid.light import Light
from kavlet.core.solid.loft import Level, Loft, outline_of
from kavlet.core.values.geometry import Rect
from tests.mesh import mesh_of

MODELS, VIEWS, RAYS = 209, 8, 6  # in each of six runs: 10,032 scenes
MARGIN = 0.3  # points from any edge that a place keeps away
Random = np.random.Generator
Array = np.ndarray[Any, Any]


def rows_of_columns(random: Random) -> list[Loft]:
    """Stacked, rounded, turned or negative columns and bars, in several rows of depth; touching or apart."""
    made: list[Loft] = []
    lying = random.random() < 0.3
    gap = random.choice([0.0, 3.0, 12.0])
    thick, deep = random.uniform(6, 20), random.uniform(3, 20)
    for depth_row in range(random.integers(1, 4)):
        back = -depth_row * (deep + gap) - deep
        for column in range(random.integers(1, 4)):
            start = column * (thick + gap)
            foot = random.choice([0.0, 0.0, random.uniform(-20, 20)])
            form = random.choice(["slab", "round", "cone", "pyramid"], p=[0.4, 0.3, 0.1, 0.2])
            for _ in range(random.integers(1, 3)):
                long = random.uniform(4, 40)
                made.append(column_of(form, lying, (start, thick), (foot, long), (back, deep), random))
                foot += long
    return made


Span = tuple[float, float]  # from where on, and how far


def column_of(form: str, lying: bool, across: Span, along: Span, depth: Span, random: Random) -> Loft:
    (start, thick), (foot, long), (back, deep) = across, along, depth
    if form == "slab":
        flat = Rect(foot, start, long, thick) if lying else Rect(start, -foot - long, thick, long)
        front = back + deep
        edge = random.choice([0.0, min(2.0, long / 4, deep / 3)])
        levels = [Level(back), Level(front)]
        if edge:
            levels = [Level(back), Level(front - edge), Level(front, inset=edge)]
        return Loft(outline_of(recorded(box, flat)), tuple(levels))
    middle = start + thick / 2
    center = (middle, back + deep / 2)
    if form == "pyramid":
        section = recorded(box, Rect(center[0] - thick / 2, back, thick, deep))
    else:
        section = recorded(ellipse, center[0], center[1], thick / 2, deep / 2)
    top = {"round": 1.0, "cone": 0.0, "pyramid": float(random.uniform(0.2, 0.8))}[form]
    levels = [Level(foot), Level(foot + long, top, top)]
    return Loft(outline_of(section), tuple(levels), "right" if lying else "up")


def slices(random: Random) -> list[Loft]:
    """A pie or a ring in slices, some moved out; maybe rings within rings; a half disc; rounded fronts."""
    made: list[Loft] = []
    shown = random.choice([360.0, 360.0, 180.0, 270.0])
    rings = int(random.integers(1, 3))
    hole = random.choice([0.0, 12.0]) if rings == 1 else 12.0
    width = (60 - hole) / rings
    back, edge = -random.uniform(4, 30), random.choice([0.0, 1.5], p=[0.85, 0.15])
    begin = random.uniform(0, 360)
    for ring in range(rings):
        inner, outer = hole + ring * width, hole + (ring + 1) * width - random.choice([0.0, 2.0])
        cuts = np.cumsum(random.uniform(0.3, 3, random.integers(2, 6)))
        cuts = begin + shown * np.concatenate([[0.0], cuts / cuts[-1]])
        for start, end in pairwise(cuts):
            middle = math.radians((start + end) / 2)
            out = float(random.choice([0.0, 0.0, 0.0, 9.0]))
            if ring < rings - 1 or (rings > 1 and end - start > 150):
                out = 0.0  # moved out, it would run into another ring
            center = (out * math.sin(middle), -out * math.cos(middle))
            path = recorded(wedge, Sector(center, inner, outer, float(start), float(end)))
            shape = outline_of(path)
            levels = [Level(back), Level(0.0)]
            if edge:
                inset = shape.most_inset(edge)
                levels = [Level(back), Level(-edge), Level(-edge / 3, inset=inset / 3), Level(0.0, inset=inset)]
            made.append(Loft(shape, tuple(levels)))
    return made


Painted = list[tuple[int, Path]]


def whole_bodies(assembly: Assembly, camera: Camera) -> Painted:
    looks = assembly.seen(camera, Light())
    made: Painted = []
    for number in order.by_bodies(assembly.boxes, camera):
        made += [(number, piece.path) for piece in (*looks[number].walls, *looks[number].caps)]
    return made


def single_walls(assembly: Assembly, camera: Camera) -> Painted:
    return [(number, piece.path) for number, piece in order.by_walls(assembly.seen(camera, Light()), camera)]


class Pieces:
    """All that was painted, as edges: curves in fine steps, each piece with all of its rings."""

    def __init__(self, painted: Painted) -> None:
        rings = [[np.asarray(ring) for ring in polygons(path, 16)] for _, path in painted]
        self.numbers = np.array([number for number, _ in painted])
        self._one = np.concatenate([ring for held in rings for ring in held])
        self._other = np.concatenate([turned for held in rings for ring in held for turned in (ring[1:], ring[:1])])
        counts = [sum(map(len, held)) for held in rings]
        self._first = np.concatenate([[0], np.cumsum(counts)[:-1]])

    def around(self) -> tuple[Array, Array]:
        """The least and the greatest of all corners."""
        return self._one.min(axis=0), self._one.max(axis=0)

    def away(self, places: Array) -> Array:
        """How far places (n, 2) are from the nearest edge of all pieces."""
        one, way = self._one, self._other - self._one
        long = np.maximum(1e-12, np.sum(way * way, axis=1))
        to = places[:, None] - one
        t = np.clip(np.sum(to * way, axis=2) / long, 0, 1)
        return np.sqrt(np.min(np.sum((to - t[..., None] * way) ** 2, axis=2), axis=1))

    def last(self, places: Array) -> Array:
        """The body that is painted last at places (n, 2), -1 where none is: a ray to the right crosses an odd number of
        a piece's edges (Shimrat 1962, "Algorithm 112: position of point relative to polygon")."""
        (x0, y0), (x1, y1), (x, y) = self._one.T, self._other.T, places.T[..., None]
        with np.errstate(divide="ignore", invalid="ignore"):
            crossed = ((y0 > y) != (y1 > y)) & (x < (x1 - x0) * (y - y0) / (y1 - y0) + x0)
        inside = np.logical_xor.reduceat(crossed, self._first, axis=1)
        latest = inside.shape[1] - 1 - np.argmax(inside[:, ::-1], axis=1)
        return np.where(inside.any(axis=1), self.numbers[latest], -1)


class Model:
    """Bodies for rays: walls as triangles; the ends of bodies carried back as polygons, which need not be convex."""

    def __init__(self, lofts: list[Loft]) -> None:
        held, owner = [], []
        self.ends: list[tuple[int, float, Outline]] = []
        for number, loft in enumerate(lofts):
            mesh = mesh_of(loft, 24)
            for face in mesh.faces:
                points = mesh.vertices[list(face)]
                if loft.axis == "back" and np.ptp(points[:, 2]) < 1e-9 and len(face) > 4:
                    self.ends.append((number, float(points[0, 2]), Outline(points[:, :2])))
                    continue
                held += [(points[0], points[i], points[i + 1]) for i in range(1, len(face) - 1)]
                owner += [number] * (len(face) - 2)
        self.triangles, self.owner = np.array(held), np.array(owner)

    def first_met(self, start: Array, way: Array) -> Array:
        """The body that each ray meets first, -1 where it meets none."""
        a, e1 = self.triangles[:, 0], self.triangles[:, 1] - self.triangles[:, 0]
        e2 = self.triangles[:, 2] - self.triangles[:, 0]
        p = np.cross(way[:, None], e2[None])
        det = np.sum(e1 * p, axis=2)
        det = np.where(np.abs(det) < 1e-12, np.nan, det)
        to = start[:, None] - a
        u = np.sum(to * p, axis=2) / det
        q = np.cross(to, e1[None])
        v = np.sum(way[:, None] * q, axis=2) / det
        far = np.sum(e2 * q, axis=2) / det
        with np.errstate(invalid="ignore"):
            hit = (u >= -1e-9) & (v >= -1e-9) & (u + v <= 1 + 1e-9) & (far > 1e-6)
        far = np.where(hit, far, np.inf)
        rows = np.arange(len(start))
        nearest = np.argmin(far, axis=1)
        best, found = far[rows, nearest], self.owner[nearest]
        for number, z, shape in self.ends:
            along = (z - start[:, 2]) / way[:, 2]
            spots = start[:, :2] + along[:, None] * way[:, :2]
            nearer = shape.contains_points(spots) & (along > 1e-6) & (along < best)
            best, found = np.where(nearer, along, best), np.where(nearer, number, found)
        return np.where(np.isfinite(best), found, -1)


def rays(view: View, camera: Camera, places: Array) -> tuple[Array, Array]:
    """Rays (starts, ways) through places on the sheet, away from the reader; turned by scipy."""
    turned = Rotation.from_euler("x", view.tilt, degrees=True) * Rotation.from_euler("y", view.turn, degrees=True)
    flat = (places - np.array(camera.at)) / camera.scale * np.array([1.0, -1.0])
    ends = np.concatenate([flat, np.zeros((len(flat), 1))], axis=1)
    if math.isinf(camera.distance):
        starts, ways = ends + np.array([0, 0, 5000.0]), np.tile([0.0, 0.0, -1.0], (len(flat), 1))
    else:
        starts = np.tile([0.0, 0.0, camera.distance], (len(flat), 1))
        ways = ends - starts
    return turned.inv().apply(starts) + camera.pivot, turned.inv().apply(ways)


@pytest.mark.parametrize("seed", [1, 2, 3])
@pytest.mark.parametrize(("models", "painter"), [(rows_of_columns, whole_bodies), (slices, single_walls)])
def test_the_first_body_a_ray_meets_is_painted_last(
    models: Callable[[Random], list[Loft]], painter: Callable[[Assembly, Camera], Painted], seed: int
) -> None:
    random = np.random.default_rng(seed)
    asked = met = 0
    for _ in range(MODELS):
        lofts = models(random)
        assembly = Assembly(lofts)
        low, high = assembly.boxes[:, 0].min(axis=0), assembly.boxes[:, 1].max(axis=0)
        middle, radius = (low + high) / 2, float(np.linalg.norm(high - low)) / 2
        seen, cast = [], []
        for _ in range(VIEWS):
            view = View(*random.uniform(-90, 90, 2).tolist(), float(random.choice([0, random.uniform(0, 1)])))
            camera = Camera(view, tuple(middle.tolist()), radius, scale=float(random.uniform(0.6, 1.4)))
            pieces = Pieces(painter(assembly, camera))
            places = random.uniform(*pieces.around(), (RAYS, 2))
            places = places[pieces.away(places) > MARGIN]
            seen += [(view, place, number) for place, number in zip(places, pieces.last(places), strict=True)]
            cast.append(rays(view, camera, places))
        starts, ways = (np.concatenate(held) for held in zip(*cast, strict=True))
        truth = Model(lofts).first_met(starts, ways)
        for (view, place, number), met_first in zip(seen, truth, strict=True):
            assert number == met_first, (view, place)
        asked += len(truth)
        met += int(np.sum(truth >= 0))
    assert asked > MODELS * VIEWS * 3
    assert met > asked / 4
