"""The camera: turns a chart's space, tilts it, and projects it onto the sheet, in parallel or in perspective."""

import math

import numpy as np
from msgspec import Struct

from kavlet.core.values.affine import Affine
from kavlet.core.values.arrays import Array
from kavlet.core.values.geometry import Rect

NEAREST = 2.0  # of the content's radius; how far the eye stays from its middle in the strongest perspective
FULLY_SOLID = 8.0  # degrees from the front by which all that a flat chart does not have has faded in


class View(Struct, frozen=True):
    """Where a body is looked at from: degrees of turn (about y) and tilt (about x), perspective 0 (none) to 1."""

    turn: float = 0.0
    tilt: float = 0.0
    perspective: float = 0.0

    @property
    def flat(self) -> bool:
        """Whether nothing of a body's depth is seen, so that it looks like the flat chart."""
        return self.turn == 0 and self.tilt == 0 and self.perspective == 0

    @property
    def strength(self) -> float:
        """0 seen from the front, rising to 1 within a few degrees: how much of light and shade is shown."""
        away = math.hypot(self.turn, self.tilt) + 20 * self.perspective
        share = min(1.0, away / FULLY_SOLID)
        return share * share * (3 - 2 * share)


def rotation(turn: float, tilt: float) -> Array:
    """The 3×3 matrix that turns about y, then tilts about x, right-handed, degrees: Rx(tilt)·Ry(turn).

    Goldstein, Poole, Safko (2002), Classical Mechanics, 3rd ed., ch. 4.
    """
    a, b = math.radians(turn), math.radians(tilt)
    about_y = np.array([[math.cos(a), 0, math.sin(a)], [0, 1, 0], [-math.sin(a), 0, math.cos(a)]])
    about_x = np.array([[1, 0, 0], [0, math.cos(b), -math.sin(b)], [0, math.sin(b), math.cos(b)]])
    made: Array = about_x @ about_y
    return made


class Camera:
    """Projects points of the model onto the sheet.

    `pivot` is the point of the model that it turns about; `radius` that of a ball around the content, in points. What
    is projected is scaled by `scale` and put so that the pivot falls on `at`, in chart points, y downward.
    """

    def __init__(
        self, view: View, pivot: tuple[float, float, float], radius: float, at: tuple[float, float] | None = None,
        scale: float = 1.0,
    ) -> None:  # fmt: skip
        self.view = view
        self.pivot = np.array(pivot, dtype=np.float64)
        self.radius = max(1e-6, radius)
        self.rotation = rotation(view.turn, view.tilt)
        share = min(1.0, max(0.0, view.perspective))
        self.distance = self.radius * (NEAREST - 1 + 1 / share) if share > 1e-6 else math.inf
        self.at = at if at is not None else (pivot[0], -pivot[1])
        self.scale = scale
        self._sheets: dict[float, SeenPlane] = {}

    @property
    def parallel(self) -> bool:
        """Whether it looks without perspective."""
        return math.isinf(self.distance)

    def project(self, points: Array) -> Array:
        """Points (…, 3) of the model as (…, 2) on the sheet, in chart points.

        In perspective by (x, y)·d/(d - z) (Foley, van Dam, Feiner, Hughes 1990, ch. 6).
        """
        seen = (points - self.pivot) @ self.rotation.T
        flat = seen[..., :2]
        if not self.parallel:
            flat = flat * (self.distance / (self.distance - seen[..., 2:3]))
        made: Array = np.array(self.at) + flat * np.array([self.scale, -self.scale])
        return made

    def depth(self, points: Array) -> Array:
        """How near points (…, 3) are to the reader, in points; larger is nearer."""
        made: Array = (points - self.pivot) @ self.rotation[2]
        return made

    @property
    def eye(self) -> tuple[Array, float]:
        """The eye in the model as a homogeneous point: its place and 1, or the direction toward it and 0."""
        toward: Array = self.rotation[2]
        if self.parallel:
            return toward, 0.0
        return self.pivot + toward * self.distance, 1.0

    def facing(self, normals: Array, points: Array) -> Array:
        """Positive where a face with that outward normal (…, 3) through that point is seen."""
        place, weight = self.eye
        seen: Array = normals @ place
        if weight:
            seen = seen - np.sum(normals * points, axis=-1)
        return seen

    def fitted(self, corners: Array, into: Rect) -> "Camera":
        """The camera with scale and place such that the points (n, 3) lie within a box, never larger than flat."""
        if self.view.flat:
            return self
        plain = Camera(self.view, self._pivot, self.radius)
        seen = plain.project(corners)
        low, high = seen.min(axis=0), seen.max(axis=0)
        wide, tall = max(1e-9, float(high[0] - low[0])), max(1e-9, float(high[1] - low[1]))
        scale = min(1.0, into.width / wide, into.height / tall)
        middle = (low + high) / 2
        x = into.center[0] - scale * (float(middle[0]) - plain.at[0])
        y = into.center[1] - scale * (float(middle[1]) - plain.at[1])
        return Camera(self.view, self._pivot, self.radius, (x, y), scale)

    @property
    def _pivot(self) -> tuple[float, float, float]:
        return float(self.pivot[0]), float(self.pivot[1]), float(self.pivot[2])

    def sheet(self, z: float) -> "SeenPlane":
        """How the chart's own plane at a depth z falls onto the sheet: chart points (x, y downward)."""
        if z not in self._sheets:
            self._sheets[z] = self._plane(
                np.array([0.0, 0.0, z]), np.array([1.0, 0.0, 0.0]), np.array([0.0, -1.0, 0.0])
            )  # fmt: skip
        return self._sheets[z]

    def facing_plane(
        self, axis: tuple[float, float, float], center: tuple[float, float, float], across: float, deep: float
    ) -> "SeenPlane | None":  # fmt: skip
        """The plane that touches a round body where it is nearest, as broad as the body is seen, for what it wears.

        The body's axis (x or y) goes through `center`, both in the model; it is `across` wide and `deep` at each side
        of it. None where it is seen along its axis.
        """
        middle, along = np.array(center), np.array(axis)
        place, weight = self.eye
        toward = place - middle if weight else place
        side = np.cross(along, toward)
        long = float(np.linalg.norm(side))
        if long < 1e-9:
            return None
        side = side / long
        nearest = np.cross(side, along)
        flat = np.array([0.0, -1.0, 0.0]) if axis[0] else np.array([1.0, 0.0, 0.0])  # across the flat mark
        turn = float(flat @ side)
        broad = math.hypot(across * turn, deep * math.sqrt(max(0.0, 1 - turn * turn))) / across
        reach = math.hypot(deep * turn, across * math.sqrt(max(0.0, 1 - turn * turn)))
        origin = middle + nearest * reach
        side = side * broad
        if axis[0]:
            return self._plane(origin - along * center[0] + side * center[1], along, side)
        return self._plane(origin - side * center[0] - along * center[1], side, -along)

    def floor(self, y: float) -> "SeenPlane":
        """How the level plane at a chart's y falls onto the sheet: points (x, distance toward the back)."""
        return self._plane(np.array([0.0, -y, 0.0]), np.array([1.0, 0.0, 0.0]), np.array([0.0, 0.0, -1.0]))

    def _plane(self, origin: Array, along: Array, across: Array) -> "SeenPlane":
        """A plane by the model's point for (0, 0) and its ways for one point along and across.

        Homogeneous: sheet = at + scale·(X, -Y)·d/(d - Z), where X, Y, Z are linear in the plane's own coordinates.
        """
        columns = np.stack([along, across, origin - self.pivot], axis=1)
        seen = self.rotation @ columns
        s = self.scale
        last = np.array([0.0, 0.0, 1.0]) if self.parallel else np.array([0.0, 0.0, 1.0]) - seen[2] / self.distance
        rows = np.stack([s * seen[0], -s * seen[1], last])
        onto = np.array([[1.0, 0.0, self.at[0]], [0.0, 1.0, self.at[1]], [0.0, 0.0, 1.0]])
        return SeenPlane(onto @ rows, self.view.flat)


class SeenPlane:
    """A plane of the chart as it is seen: a homography from chart points to sheet points, both with y downward."""

    def __init__(self, matrix: Array, same: bool = False) -> None:
        self.matrix = matrix / matrix[2, 2]
        self.same = same  # nothing moves
        self.affine: Affine | None = None
        self._inverse: list[list[float]] | None = None
        m = self.matrix
        if same:
            self.affine = Affine()
        elif abs(m[2, 0]) < 1e-15 and abs(m[2, 1]) < 1e-15:
            self.affine = Affine(
                float(m[0, 0]), float(m[1, 0]), float(m[0, 1]), float(m[1, 1]), float(m[0, 2]), float(m[1, 2])
            )

    def point(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the plane is seen."""
        if self.affine is not None:
            return self.affine.apply(x, y)
        m = self.matrix
        w = m[2, 0] * x + m[2, 1] * y + m[2, 2]
        return float((m[0, 0] * x + m[0, 1] * y + m[0, 2]) / w), float((m[1, 0] * x + m[1, 1] * y + m[1, 2]) / w)

    def points(self, places: Array) -> Array:
        """Where points (…, 2) of the plane are seen."""
        seen = np.concatenate([places, np.ones((*places.shape[:-1], 1))], axis=-1) @ self.matrix.T
        made: Array = seen[..., :2] / seen[..., 2:]
        return made

    def back(self, x: float, y: float) -> tuple[float, float]:
        """The point of the plane that is seen there; NaN where the plane is seen edge-on."""
        if self.same:
            return x, y
        if self._inverse is None:
            try:
                self._inverse = np.linalg.inv(self.matrix).tolist()
            except np.linalg.LinAlgError:
                self._inverse = [[math.nan] * 3] * 3
        u, v, w = (a * x + b * y + c for a, b, c in self._inverse)
        return u / w, v / w

    def near(self, x: float, y: float) -> Affine:
        """The affine map that is nearest at a point: the plane's own in parallel, else its first derivative there."""
        if self.affine is not None:
            return self.affine
        m = self.matrix
        w = float(m[2, 0] * x + m[2, 1] * y + m[2, 2])
        px, py = self.point(x, y)
        a, c = (float(m[0, 0]) - px * float(m[2, 0])) / w, (float(m[0, 1]) - px * float(m[2, 1])) / w
        b, d = (float(m[1, 0]) - py * float(m[2, 0])) / w, (float(m[1, 1]) - py * float(m[2, 1])) / w
        return Affine(a, b, c, d, px - a * x - c * y, py - b * x - d * y)
