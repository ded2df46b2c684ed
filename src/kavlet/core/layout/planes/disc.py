"""A polar frame in its place: rings around a centre, and a scale along the rim."""

import math

from msgspec import Struct

from kavlet.core.charts.frame import Polar
from kavlet.core.layout.figure import TextAnchor
from kavlet.core.layout.planes.scales import FixedScale
from kavlet.core.layout.texts.text_lines import Rise
from kavlet.core.values.geometry import Rect


class Disc(Struct, frozen=True):
    """The disc with its rings from the inside out. `angle` gives a scale's value in degrees from 12 o'clock."""

    plot: Rect
    center: tuple[float, float]
    radius: float
    frame: Polar
    rings: int
    scale: FixedScale | None = None

    @property
    def hole(self) -> float:
        """The radius of the free middle, in points."""
        return self.radius * max(0.0, min(0.95, self.frame.hole))

    def ring(self, number: int) -> tuple[float, float]:
        """Inner and outer radius of a ring, counted from the inside; the gaps lie between rings."""
        weights = list(self.frame.rings) if len(self.frame.rings) == self.rings else [1.0] * max(1, self.rings)
        gaps = self.frame.ring_gap * (len(weights) - 1)
        room = max(0.0, self.radius - self.hole - gaps)
        if room == 0.0:
            gap, room = 0.0, self.radius - self.hole
        else:
            gap = self.frame.ring_gap
        total = sum(weights) or 1.0
        before = sum(weights[:number]) / total * room + gap * number
        return self.hole + before, self.hole + before + weights[number] / total * room

    def angle(self, value: float) -> float:
        """The angle of a value on the scale; beyond the ends outside the sweep."""
        share = self.scale.share(value) if self.scale is not None else value
        return self.frame.start + share * self.frame.sweep


def facing(angle: float) -> tuple[TextAnchor, Rise]:
    """How a text outside the rim stands at an angle, so that its nearest side faces the centre."""
    sin, cos = math.sin(math.radians(angle)), math.cos(math.radians(angle))
    return (
        "middle" if abs(sin) < 0.35 else "start" if sin > 0 else "end",
        "middle" if abs(cos) < 0.5 else "bottom" if cos > 0 else "top",
    )
