"""Light on bodies: Lambert's cosine law, an even light from all sides, and the gleam of a material."""

import math
from functools import lru_cache

import numpy as np
from msgspec import Struct

from kavlet.core.solid.material import Material
from kavlet.core.values.arrays import Array
from kavlet.core.values.colour import Colour, coded, linear

# Strength and sharpness of the gleam (Blinn 1977, "Models of light reflection for computer synthesized pictures").
GLEAM: dict[str, tuple[float, float]] = {"matte": (0.0, 1.0), "satin": (0.16, 9.0), "glossy": (0.5, 30.0)}
MIN_AMBIENT = 0.25  # so that no face falls into dead black
BRIGHTER = 0.5  # how much of what is brighter than its own colour is shown, so that light colours keep their hue
STEPS = 512  # shades are told apart this finely, so that equal ones are computed once


class Light(Struct, frozen=True):
    """A far light: where it comes from in the reader's space as degrees of turn (right is positive) and tilt (up),
    the share of light that comes evenly from all sides, and what it falls on."""

    turn: float = -35.0
    tilt: float = 45.0
    ambient: float = 0.55
    material: Material = "satin"

    @property
    def direction(self) -> Array:
        """The unit vector toward the light; x right, y up, z toward the reader."""
        a, b = math.radians(self.turn), math.radians(self.tilt)
        return np.array([math.sin(a) * math.cos(b), math.sin(b), math.cos(a) * math.cos(b)])

    def intensity(self, normals: Array) -> Array:
        """Light on faces by their unit normals (…, 3) in the reader's space, 0 to 1.

        Lambert (1760), Photometria: what a matte face sends back follows the cosine between normal and light.
        """
        even = min(1.0, max(MIN_AMBIENT, self.ambient))
        made: Array = even + (1 - even) * np.maximum(0.0, normals @ self.direction)
        return made

    def relative(self, normals: Array) -> Array:
        """Intensity as a multiple of that on a face turned to the reader, which so keeps its own colour."""
        return self.intensity(normals) / float(self.intensity(np.array([0.0, 0.0, 1.0])))

    def gleam(self, normals: Array) -> Array:
        """How far faces (…, 3) gleam white, 0 to 1, more than one turned to the reader does."""
        strength, sharpness = GLEAM[self.material]
        if not strength:
            return np.zeros(normals.shape[:-1])
        half = self.direction + np.array([0.0, 0.0, 1.0])
        half = half / max(1e-9, float(np.linalg.norm(half)))
        front = max(0.0, float(half[2])) ** sharpness
        made: Array = strength * np.maximum(0.0, np.maximum(0.0, normals @ half) ** sharpness - front)
        return made


def lit(colour: Colour, share: float, gleam: float = 0.0) -> Colour:
    """A colour under `share` of the light that shows it as it is, with a white gleam (0 to 1) over it."""
    return _lit(colour, round(share * STEPS), round(gleam * STEPS))


@lru_cache(maxsize=65536)
def _lit(colour: Colour, share: int, gleam: int) -> Colour:
    if share == STEPS and gleam == 0:
        return colour
    by, white = share / STEPS, gleam / STEPS
    by = by if by <= 1 else 1 + BRIGHTER * (by - 1)
    parts = []
    for part in colour.rgb:
        held = min(1.0, linear(part) * by)  # light in proportion
        parts.append(coded(held + (1 - held) * white))
    return Colour(parts[0], parts[1], parts[2], colour.alpha)
