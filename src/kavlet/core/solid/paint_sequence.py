"""What is painted after what: the seen pieces of many bodies, farthest first."""

from kavlet.core.solid import order
from kavlet.core.solid.assembly import Cap, SeenBody
from kavlet.core.solid.camera import Camera
from kavlet.core.solid.sides import Wall
from kavlet.core.values.arrays import Array

Piece = tuple[int, Wall | Cap]  # the number of a body and one of its seen faces


def by_bodies(boxes: Array, camera: Camera) -> list[int]:
    """The order of convex bodies that boxes (n, 2, 3) part, so that each can be painted whole."""
    eye, weight = camera.eye
    return order.boxes(boxes, eye, weight)


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
        ordered = order.walls([wall.foot for _, wall in walls], (float(eye[0]), float(-eye[1])), weight)
        painted += [walls[i] for i in ordered]
    return [*painted, *((n, cap) for n, body in enumerate(looks) for cap in body.caps)]


def _away(reach: tuple[float, float], eye: float, weight: float) -> float:
    """The order of bands by how far from the eye they are, farthest first."""
    low, high = reach
    if not weight:
        return low
    return -max(0.0, low - eye, eye - high)
