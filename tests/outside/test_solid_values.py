"""Solids against published values, analytic geometry and scipy. The data file names its source and its checks."""

import json
import math
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from scipy.spatial import ConvexHull
from scipy.spatial.transform import Rotation

from kavlet.core.scene.path import recorded
from kavlet.core.shapes.arc import Sector, wedge
from kavlet.core.shapes.body import ellipse
from kavlet.core.shapes.box import box
from kavlet.core.solid.assembly import Assembly
from kavlet.core.solid.camera import Camera, View, rotation
from kavlet.core.solid.light import Light, lit
from kavlet.core.solid.loft import Level, Loft, outline_of
from kavlet.core.solid.order import box_order
from kavlet.core.values.colour import Colour, linear
from kavlet.core.values.geometry import Rect
from tests.mesh import Mesh, ball, mesh_of

DATA = Path(__file__).parent / "data" / "rotation_projection.json"
HELD: dict[str, Any] = json.loads(DATA.read_text(encoding="utf-8"))
Array = np.ndarray[Any, Any]


def seen_at(distance: float | None, turn: float = 0, tilt: float = 0) -> Camera:
    """A camera about the origin, the eye at that distance from it."""
    camera = Camera(View(turn, tilt, 0.0), (0.0, 0.0, 0.0), 1.0, (0.0, 0.0))
    camera.distance = distance if distance is not None else math.inf
    return camera


# Goldstein, Poole, Safko 2002, ch. 4: rotations about one axis.
TURNS = [case for case in HELD["axis_cases"] if case["axis"] != "z"]  # charts are not rolled


@pytest.mark.parametrize("case", TURNS, ids=lambda case: f"{case['axis']}{case['angle_deg']}")
def test_turn_and_tilt_are_rotations_about_one_axis(case: dict[str, Any]) -> None:
    turn, tilt = (case["angle_deg"], 0) if case["axis"] == "y" else (0, case["angle_deg"])
    assert rotation(turn, tilt) == pytest.approx(np.array(case["matrix"]), abs=1e-9)


def test_turn_then_tilt_is_what_scipy_says() -> None:
    random = np.random.default_rng(8)
    for turn, tilt in random.uniform(-180, 180, (200, 2)).tolist():
        truth = Rotation.from_euler("yx", [turn, tilt], degrees=True).as_matrix()  # lower case: about fixed axes
        assert rotation(turn, tilt) == pytest.approx(truth, abs=1e-12)


# Foley, van Dam, Feiner, Hughes 1990, ch. 6: (x, y)·d/(d - z), the eye at (0, 0, d).
@pytest.mark.parametrize("case", HELD["perspective_cases"], ids=lambda case: str(case["point"]))
def test_perspective(case: dict[str, Any]) -> None:
    x, y = seen_at(case["camera_distance"]).project(np.array(case["point"], dtype=float))
    assert (x, -y) == pytest.approx(case["projected"], abs=1e-9)  # a sheet's y goes down


NORMALS = {"+x": (1, 0, 0), "-x": (-1, 0, 0), "+y": (0, 1, 0), "-y": (0, -1, 0), "+z": (0, 0, 1), "-z": (0, 0, -1)}


# The same, ch. 15: back faces; silhouettes by scipy's ConvexHull.
@pytest.mark.parametrize("case", HELD["box_cases"])
def test_the_faces_of_a_box_that_are_seen(case: dict[str, Any]) -> None:
    camera = seen_at(case["camera_distance"], case["yaw_deg"], case["pitch_deg"])
    half = np.array(case["size"]) / 2
    normals = np.array(list(NORMALS.values()), dtype=float)
    facing = camera.facing(normals, normals * half)
    assert {name for name, way in zip(NORMALS, facing, strict=True) if way > 1e-12} == set(case["visible_faces"])
    assert camera.depth(normals * half) == pytest.approx(list(case["face_centre_z"].values()), abs=1e-9)
    x, y = camera.project(half)
    assert (x, -y) == pytest.approx(case["projected_corner_+++"], abs=1e-9)
    corners = np.array([[i, j, k] for i in (-1, 1) for j in (-1, 1) for k in (-1, 1)]) * half
    if case["silhouette_area"] is not None and case["camera_distance"] is None:
        assert ConvexHull(camera.project(corners)).volume == pytest.approx(case["silhouette_area"], abs=5e-9)


@pytest.mark.parametrize("case", HELD["row_cases"])
def test_a_row_of_columns_is_painted_far_to_near(case: dict[str, Any]) -> None:
    count = case["columns"]
    camera = seen_at(None, case["yaw_deg"], case["pitch_deg"])
    middles = np.array([[i - (count - 1) / 2, 0, 0] for i in range(count)]) * 1.0
    apart = case["centre_z"][1] - case["centre_z"][0]
    gap = apart / camera.rotation[2, 0] if apart else 1.0  # columns stand so far apart
    assert camera.depth(middles * gap) == pytest.approx(case["centre_z"], abs=1e-8)
    held = np.stack([middles - 0.4, middles + 0.4], axis=1)
    eye, weight = camera.eye
    order, wanted = box_order(held, eye, weight), case["draw_order_far_to_near"]
    assert order == wanted if isinstance(wanted, list) else sorted(order) == list(range(count))


@pytest.mark.parametrize("case", HELD["tilted_disc_cases"])
def test_a_tilted_disc_is_seen_as_an_ellipse(case: dict[str, Any]) -> None:
    camera = seen_at(None, 0, -case["tilt_deg"])
    radius = case["radius"]
    for one in case["points"]:
        angle = math.radians(one["angle_deg"])
        point = np.array([radius * math.cos(angle), radius * math.sin(angle), 0.0])
        x, y = camera.project(point)
        assert (x, -y) == pytest.approx((one["x"], one["y"]), abs=1e-9)
        assert camera.depth(point) == pytest.approx(one["depth_z"], abs=1e-9)


# Lambert 1760: light sent back follows the cosine between a face's normal and the light.
@pytest.mark.parametrize("case", HELD["normal_cases"])
def test_normals_and_lamberts_law(case: dict[str, Any]) -> None:
    mesh = Mesh(np.array(case["triangle"], dtype=float), ((0, 1, 2),))
    area = mesh.vector_area((0, 1, 2))
    assert np.linalg.norm(area) == pytest.approx(case["area"], abs=1e-9)
    normal = area / np.linalg.norm(area)
    assert normal == pytest.approx(case["unit_normal"], abs=1e-9)
    ambient = 0.4
    for turn, tilt, name in (
        (0.0, 0.0, "lambert_light_001"),
        (45.0, math.degrees(math.atan(2**-0.5)), "lambert_light_111"),
    ):
        light = Light(turn, tilt, ambient, "matte")
        direct = (light.intensity(normal) - ambient) / (1 - ambient)
        assert direct == pytest.approx(max(0.0, case[name]), abs=1e-9)


def test_a_colour_in_the_shade_sends_back_so_much_less_light() -> None:
    random = np.random.default_rng(5)
    for r, g, b, share in random.uniform(0.05, 1, (50, 4)).tolist():
        dark = lit(Colour(r, g, b), share)
        by = round(share * 512) / 512  # shades are told apart in 512 steps
        assert [linear(part) for part in dark.rgb] == pytest.approx([linear(part) * by for part in (r, g, b)], abs=1e-6)


# Volumes and surfaces of elementary solids (Bronshtein, Semendyayev: Handbook of Mathematics, ch. 3.3).
CIRCLE = outline_of(recorded(ellipse, 0.0, 0.0, 10.0, 10.0))
SQUARE = outline_of(recorded(box, Rect(-10, -10, 20, 20)))
BODIES = {
    "box": (Loft(outline_of(recorded(box, Rect(2, 3, 20, 30))), (Level(-7), Level(3))), 20 * 30 * 10, 2),
    "cylinder": (Loft(CIRCLE, (Level(0), Level(25)), "up"), math.pi * 100 * 25, 2),
    "lying cylinder": (Loft(CIRCLE, (Level(-5), Level(25)), "right"), math.pi * 100 * 30, 2),
    "cone": (Loft(CIRCLE, (Level(0), Level(30, 0, 0)), "up"), math.pi * 100 * 30 / 3, 2),
    "cone, tip down": (Loft(CIRCLE, (Level(0, 0, 0), Level(30)), "up"), math.pi * 100 * 30 / 3, 2),
    "frustum of a cone": (Loft(CIRCLE, (Level(0), Level(30, 0.4, 0.4)), "right"), math.pi * 10 * (100 + 40 + 16), 2),
    "pyramid": (Loft(SQUARE, (Level(0), Level(18, 0, 0)), "up"), 400 * 18 / 3, 2),
    "tapered prism": (Loft(SQUARE, (Level(0), Level(18, 0.5, 0.5)), "right"), 18 / 3 * (400 + 200 + 100), 2),
    "elliptic cylinder": (
        Loft(outline_of(recorded(ellipse, 0.0, 0.0, 12.0, 5.0)), (Level(0), Level(9)), "up"), math.pi * 60 * 9, 2
    ),
    "slice": (
        Loft(outline_of(recorded(wedge, Sector((5, 5), 0.0, 40.0, 20.0, 95.0))), (Level(-8), Level(0))),
        75 / 360 * math.pi * 1600 * 8, 2,
    ),
    "ring sector": (
        Loft(outline_of(recorded(wedge, Sector((0, 0), 25.0, 40.0, 10.0, 310.0))), (Level(-8), Level(0))),
        300 / 360 * math.pi * (1600 - 625) * 8, 2,
    ),
    "whole ring": (
        Loft(outline_of(recorded(wedge, Sector((0, 0), 25.0, 40.0, 0.0, 360.0))), (Level(-8), Level(0))),
        math.pi * (1600 - 625) * 8, 0,
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", BODIES)
def test_meshes_are_closed_outward_and_as_large_as_they_should_be(name: str) -> None:
    loft, volume, euler = BODIES[name]
    mesh = mesh_of(loft, 24)
    assert mesh.closed
    assert mesh.euler == euler
    assert mesh.volume > 0  # normals point outward
    assert mesh.volume == pytest.approx(volume, rel=0.005)
    assert np.linalg.norm(sum(mesh.vector_area(face) for face in mesh.faces)) == pytest.approx(0, abs=1e-6)


def test_a_ball_is_as_large_as_it_should_be() -> None:
    mesh = ball((3, -4, 5), 12.0)
    assert mesh.closed
    assert mesh.euler == 2
    assert mesh.volume == pytest.approx(4 / 3 * math.pi * 12**3, rel=0.005)
    assert mesh.area == pytest.approx(4 * math.pi * 144, rel=0.005)


def test_a_rounded_edge_takes_as_much_away_as_it_should() -> None:
    """A slab of 40 by 30, its front edge rounded by 4: each level between is smaller all round."""
    shape = outline_of(recorded(box, Rect(0, 0, 40, 30)))
    edge, steps = 4.0, 40
    turns = [math.pi / 2 * i / steps for i in range(steps + 1)]
    levels = [Level(-10.0), *(Level(-edge * (1 - math.sin(t)), inset=edge * (1 - math.cos(t))) for t in turns)]
    mesh = mesh_of(Loft(shape, tuple(levels)))
    # ∫(40 - 2x)(30 - 2x) dz over the quarter circle, x = 4 - √(16 - (z+4)²): Σ of analytic parts
    inside, square = 4 - math.pi * 4 / 4, 16 * (1 - math.pi / 2 + 2 / 3)  # means of x and x² along the edge
    volume = 6 * 1200 + 4 * (1200 - 140 * inside + 4 * square)
    assert mesh.closed
    assert mesh.volume == pytest.approx(volume, rel=0.001)


@pytest.mark.parametrize("by", [1.0, 2.5])
def test_an_outline_is_drawn_in_by_as_much_as_asked(by: float) -> None:
    """Sector of a ring: straight sides move by the inset, arcs change their radius by it."""
    shape = outline_of(recorded(wedge, Sector((0, 0), 25.0, 60.0, 30.0, 140.0)))
    inner = mesh_of(Loft(shape, (Level(0.0, inset=by), Level(1.0, inset=by))), 24)
    radii = np.linalg.norm(inner.vertices[:, :2], axis=1)
    assert radii.max() == pytest.approx(60 - by, abs=0.06)
    assert radii.min() == pytest.approx(25 + by, abs=0.06)
    # area = shown angle's area of the smaller ring, less strips along both sides
    r, q = 60 - by, 25 + by

    def part(radius: float) -> float:
        """From the side's parallel at `by` to the arc: half the sector's area."""
        half = math.radians(55)
        return radius**2 / 2 * (half - math.asin(by / radius)) - by * math.sqrt(radius**2 - by**2) / 2

    assert inner.volume == pytest.approx(2 * (part(r) - part(q)), rel=0.005)


@pytest.mark.parametrize("name", BODIES)
@pytest.mark.parametrize(("turn", "tilt"), [(0, 0), (35, 0), (0, -50), (-20, 14), (60, 40), (-75, -80)])
def test_what_is_seen_of_a_body_is_as_large_as_its_projection(name: str, turn: float, tilt: float) -> None:
    """The drawn faces' areas together are those of all faces of the mesh that face the reader."""
    loft, _, _ = BODIES[name]
    camera = seen_at(None, turn, tilt)
    body = Assembly([loft]).seen(camera, Light())[0]
    drawn = sum(abs(area_of(piece.path.coordinates, piece.path.verbs)) for piece in (*body.walls, *body.caps))
    assert drawn == pytest.approx(mesh_of(loft, 48).projected_area(camera.rotation[2]), rel=0.005, abs=0.5)


def test_a_ball_is_seen_as_a_disc_from_all_sides() -> None:
    for turn, tilt in ((0, 0), (30, 20), (-80, 60)):
        area = ball((0, 0, 0), 10.0).projected_area(rotation(turn, tilt)[2])
        assert area == pytest.approx(math.pi * 100, rel=0.005)


def area_of(c: tuple[float, ...], verbs: str) -> float:
    """A path's area by Green's theorem, exactly for its cubic curves (∮ x dy as polynomials)."""
    total, at = 0.0, 0
    here = start = (0.0, 0.0)
    for verb in [*verbs]:
        points = [here]
        if verb == "M":
            here = start = (c[at], c[at + 1])
            at += 2
            continue
        if verb == "Z":
            points.append(start)
        for _ in range({"L": 1, "C": 3}.get(verb, 0)):
            points.append((c[at], c[at + 1]))
            at += 2
        x, y = (np.polynomial.Polynomial(power(np.array(points)[:, i])) for i in (0, 1))
        total += float((x * y.deriv()).integ()(1.0))
        here = points[-1]
    return total


def power(p: Array) -> Array:
    """Bézier control values as coefficients of powers."""
    if len(p) == 2:
        return np.array([p[0], p[1] - p[0]])
    return np.array([p[0], 3 * (p[1] - p[0]), 3 * (p[0] - 2 * p[1] + p[2]), p[3] - p[0] + 3 * (p[1] - p[2])])
