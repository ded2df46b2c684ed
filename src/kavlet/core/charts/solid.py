"""Solid: the 3D treatment of a chart."""

from typing import Literal

from msgspec import Struct

from kavlet.core.solid.material import Material

MAX_ANGLE = 90.0  # degrees of turn and tilt; beyond, a chart would be seen from behind
# How a solid is looked at, as against what it is: nothing has to be laid out anew when these change.
LOOK_FIELDS = (
    "on", "turn", "tilt", "perspective", "material", "light_turn", "light_tilt", "ambient", "shadow", "walls",
)  # fmt: skip
Form = Literal["drawn", "round", "cone", "pyramid"]


class Solid(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Depth, view and light of a chart's bodies.

    `on` False shows the flat chart and keeps all else. `depth` is a share of a bar's thickness, or of a disc's radius;
    None: as deep as broad for round bodies, 0.6 for other bars, 0.22 for discs, 0.1 for rings of their own. `form`
    "drawn" carries the flat outline back; bars can be round, cones or pyramids instead. Angles are degrees:
    `turn` about y, `tilt` about x; x right, y up, z toward the reader. `perspective` goes from 0 (none) to 1 (strong).
    `light` is where it comes from, as turn (right is positive) and tilt (up); `ambient` the share that comes from all
    sides. `edge` rounds the edges, in points. `shadow` is the soft one on the ground; `walls` paints the room behind.
    """

    on: bool = True
    depth: float | None = None
    form: Form = "drawn"
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

    @property
    def flat(self) -> bool:
        """Whether it is shown as the flat chart: because it is to be, or because it is seen straight from the front."""
        return not self.on or (self.turn == 0 and self.tilt == 0 and not self.perspective > 0)
