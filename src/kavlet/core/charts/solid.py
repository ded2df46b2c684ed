"""Solid: the 3D treatment of a chart."""

from typing import Literal

from msgspec import Struct

Material = Literal["matte", "satin", "glossy"]


class Solid(Struct, frozen=True, omit_defaults=True):
    """Depth, view and light of a chart's bodies.

    `depth` is a share of a bar's thickness (or of a disc's radius). Angles are degrees: `turn` about y, `tilt` about x;
    x right, y up, z toward the reader. `perspective` goes from 0 (none) to 1 (strong). `light` is where it comes from,
    as turn and tilt.
    """

    depth: float = 0.6
    turn: float = 0.0
    tilt: float = 0.0
    perspective: float = 0.0
    material: Material = "satin"
    light_turn: float = -35.0
    light_tilt: float = 45.0
    ambient: float = 0.55
    edge: float = 0.0
    shadow: bool = True
    walls: bool = False
