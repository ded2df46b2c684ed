"""Affine maps of the plane, as in SVG: x' = a·x + c·y + e, y' = b·x + d·y + f."""

import math

from msgspec import Struct


class Affine(Struct, frozen=True, gc=False):
    """The six numbers of a map; the default leaves everything in place."""

    a: float = 1.0
    b: float = 0.0
    c: float = 0.0
    d: float = 1.0
    e: float = 0.0
    f: float = 0.0

    def apply(self, x: float, y: float) -> tuple[float, float]:
        """Where a point goes."""
        return self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f

    def after(self, first: "Affine") -> "Affine":
        """The map that does `first`, then this one."""
        return Affine(
            self.a * first.a + self.c * first.b,
            self.b * first.a + self.d * first.b,
            self.a * first.c + self.c * first.d,
            self.b * first.c + self.d * first.d,
            self.a * first.e + self.c * first.f + self.e,
            self.b * first.e + self.d * first.f + self.f,
        )

    @property
    def inverse(self) -> "Affine | None":
        """The map that undoes this one; None where it flattens the plane onto a line."""
        size = self.a * self.d - self.b * self.c
        if abs(size) < 1e-12:
            return None
        a, b, c, d = self.d / size, -self.b / size, -self.c / size, self.a / size
        return Affine(a, b, c, d, -a * self.e - c * self.f, -b * self.e - d * self.f)


def moved(x: float, y: float) -> Affine:
    """A translation."""
    return Affine(e=x, f=y)


def scaled(x: float, y: float | None = None) -> Affine:
    """A scaling about the origin; one factor for both directions where only one is given."""
    return Affine(a=x, d=x if y is None else y)


def turned(degrees: float, x: float = 0.0, y: float = 0.0) -> Affine:
    """A turn about a point, clockwise on a plane whose y points down."""
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return Affine(cos, sin, -sin, cos, x - cos * x + sin * y, y - sin * x - cos * y)
