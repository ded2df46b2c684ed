"""How colours differ to the eye: CIELAB, CIEDE2000, and what readers with a colour-vision deficiency see.

Sources: CIE 15 (CIELAB, D65); ISO/CIE 11664-6 (CIEDE2000); Machado, Oliveira, Fernandes 2009 (simulation).
"""

import math
from typing import Literal

from kavlet.core.values.colour import Colour, coded, linear

Deficiency = Literal["protan", "deutan", "tritan"]
Lab = tuple[float, float, float]

# Machado et al. 2009, severity 1.0; they apply to linear light.
_MATRICES: dict[Deficiency, tuple[tuple[float, float, float], ...]] = {
    "protan": ((0.152286, 1.052583, -0.204868), (0.114503, 0.786281, 0.099216), (-0.003882, -0.048116, 1.051998)),
    "deutan": ((0.367322, 0.860646, -0.227968), (0.280085, 0.672501, 0.047413), (-0.01182, 0.04294, 0.968881)),
    "tritan": ((1.255528, -0.076749, -0.178779), (-0.078411, 0.930809, 0.147602), (0.004733, 0.691367, 0.3039)),
}
_WHITE = (0.95047, 1.0, 1.08883)


def as_seen(of: Colour, by: Deficiency) -> Colour:
    """The colour as a reader sees it who lacks one kind of cone."""
    light = [linear(part) for part in of.rgb]
    parts = (sum(a * b for a, b in zip(row, light, strict=True)) for row in _MATRICES[by])
    red, green, blue = (coded(min(1.0, max(0.0, part))) for part in parts)
    return Colour(red, green, blue, of.alpha)


def lab(of: Colour) -> Lab:
    """CIELAB of an sRGB colour: L* 0 to 100, a*, b*."""
    r, g, b = (linear(part) for part in of.rgb)
    x = 0.4124564 * r + 0.3575761 * g + 0.1804375 * b
    y = 0.2126729 * r + 0.7151522 * g + 0.0721750 * b
    z = 0.0193339 * r + 0.1191920 * g + 0.9503041 * b
    fx, fy, fz = (_root(part / white) for part, white in zip((x, y, z), _WHITE, strict=True))
    return 116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)


def _root(t: float) -> float:
    return float(t ** (1 / 3)) if t > 216 / 24389 else (24389 / 27 * t + 16) / 116


def difference(colour: Colour, other: Colour) -> float:
    """The CIEDE2000 difference of two colours: 1 is just seen, 10 plain at a glance."""
    return delta_e(lab(colour), lab(other))


def delta_e(one: Lab, other: Lab) -> float:
    """CIEDE2000 of two CIELAB values, with all weights 1 (Sharma, Wu, Dalal 2005)."""
    (l1, a1, b1), (l2, a2, b2) = one, other
    mean_c = (math.hypot(a1, b1) + math.hypot(a2, b2)) / 2
    g = 0.5 * (1 - math.sqrt(mean_c**7 / (mean_c**7 + 25**7)))
    a1, a2 = a1 * (1 + g), a2 * (1 + g)
    c1, c2 = math.hypot(a1, b1), math.hypot(a2, b2)
    h1 = math.degrees(math.atan2(b1, a1)) % 360 if c1 else 0.0
    h2 = math.degrees(math.atan2(b2, a2)) % 360 if c2 else 0.0
    turn = 0.0 if not c1 * c2 else (h2 - h1 + 180) % 360 - 180
    if c1 * c2 and h2 - h1 == 180:
        turn = 180.0
    dl, dc, dh = l2 - l1, c2 - c1, 2 * math.sqrt(c1 * c2) * math.sin(math.radians(turn) / 2)
    mean_l, mean_c = (l1 + l2) / 2, (c1 + c2) / 2
    mean_h = h1 + h2 if not c1 * c2 else (h1 + turn / 2) % 360
    t = (
        1
        - 0.17 * math.cos(math.radians(mean_h - 30))
        + 0.24 * math.cos(math.radians(2 * mean_h))
        + 0.32 * math.cos(math.radians(3 * mean_h + 6))
        - 0.20 * math.cos(math.radians(4 * mean_h - 63))
    )
    sl = 1 + 0.015 * (mean_l - 50) ** 2 / math.sqrt(20 + (mean_l - 50) ** 2)
    sc, sh = 1 + 0.045 * mean_c, 1 + 0.015 * mean_c * t
    rc = 2 * math.sqrt(mean_c**7 / (mean_c**7 + 25**7))
    rt = -math.sin(math.radians(60 * math.exp(-(((mean_h - 275) / 25) ** 2)))) * rc
    parts = dl / sl, dc / sc, dh / sh
    return math.sqrt(max(0.0, sum(part * part for part in parts) + rt * parts[1] * parts[2]))
