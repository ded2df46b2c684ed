"""Colours in sRGB (IEC 61966-2-1), with luminance, contrast (WCAG 2.2) and mixing in OKLab (Ottosson 2020)."""

import re

from msgspec import Struct

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

_HEX = re.compile(r"#?([0-9a-fA-F]{3}|[0-9a-fA-F]{6}|[0-9a-fA-F]{8})")


class Colour(Struct, frozen=True, gc=False):
    """Red, green, blue and opacity, each 0 to 1, transfer-coded as in sRGB."""

    red: float
    green: float
    blue: float
    alpha: float = 1.0

    @property
    def hex(self) -> str:
        """``#rrggbb``, with two more digits where it is not opaque."""
        red, green, blue = (round(max(0.0, min(1.0, part)) * 255) for part in (self.red, self.green, self.blue))
        return f"#{red:02x}{green:02x}{blue:02x}" + ("" if self.alpha >= 1 else f"{round(self.alpha * 255):02x}")

    @property
    def rgb(self) -> tuple[float, float, float]:
        """Red, green and blue from 0 to 1."""
        return self.red, self.green, self.blue

    def faded(self, alpha: float) -> "Colour":
        """The same colour with another opacity."""
        return Colour(self.red, self.green, self.blue, alpha)

    def over(self, behind: "Colour") -> "Colour":
        """What is seen where it lies over an opaque colour, mixed as painters do."""
        parts = [b + (a - b) * self.alpha for a, b in zip(self.rgb, behind.rgb, strict=True)]
        return Colour(parts[0], parts[1], parts[2], behind.alpha)


def colour(text: str) -> Colour:
    """A colour from ``#rgb``, ``#rrggbb`` or ``#rrggbbaa``. Raises KavletError otherwise."""
    found = _HEX.fullmatch(text.strip())
    if not found:
        raise KavletError(say("“{text}” is not a colour.", text=text), remedy=say("Write it like #7a2e5d."))
    digits = found[1] if len(found[1]) > 3 else "".join(2 * digit for digit in found[1])
    parts = [int(digits[i : i + 2], 16) / 255 for i in range(0, len(digits), 2)]
    return Colour(*parts)


def linear(part: float) -> float:
    """One sRGB part, decoded to linear light (IEC 61966-2-1)."""
    return part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4


def coded(part: float) -> float:
    """One part of linear light, coded as sRGB (IEC 61966-2-1)."""
    return 12.92 * part if part <= 0.0031308 else 1.055 * part ** (1 / 2.4) - 0.055


def luminance(of: Colour) -> float:
    """Relative luminance, 0 to 1 (WCAG 2.2, "relative luminance")."""
    red, green, blue = (linear(part) for part in of.rgb)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(colour: Colour, other: Colour) -> float:
    """Contrast ratio, 1 to 21 (WCAG 2.2, "contrast ratio")."""
    light, dark = sorted((luminance(colour), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


def readable(behind: Colour, *choices: Colour) -> Colour:
    """The first choice with a contrast of at least 4.5:1 to what is behind it, else the one with the most."""
    for choice in choices:
        if contrast(choice, behind) >= 4.5:
            return choice
    return max(choices, key=lambda choice: contrast(choice, behind))


def oklab(of: Colour) -> tuple[float, float, float]:
    """Lightness 0 to 1 and the two opponent parts a, b (Ottosson 2020)."""
    r, g, b = (linear(part) for part in of.rgb)
    long = (0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b) ** (1 / 3)
    medium = (0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b) ** (1 / 3)
    short = (0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b) ** (1 / 3)
    return (
        0.2104542553 * long + 0.7936177850 * medium - 0.0040720468 * short,
        1.9779984951 * long - 2.4285922050 * medium + 0.4505937099 * short,
        0.0259040371 * long + 0.7827717662 * medium - 0.8086757660 * short,
    )


def from_oklab(lightness: float, a: float, b: float, alpha: float = 1.0) -> Colour:
    """The sRGB colour of an OKLab value; what sRGB can't show is clipped."""
    long = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3
    medium = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3
    short = (lightness - 0.0894841775 * a - 1.2914855480 * b) ** 3
    parts = (
        4.0767416621 * long - 3.3077115913 * medium + 0.2309699292 * short,
        -1.2684380046 * long + 2.6097574011 * medium - 0.3413193965 * short,
        -0.0041960863 * long - 0.7034186147 * medium + 1.7076147010 * short,
    )
    red, green, blue = (min(1.0, max(0.0, coded(max(0.0, part)))) for part in parts)
    return Colour(red, green, blue, alpha)


def mix(colour: Colour, other: Colour, share: float) -> Colour:
    """The colour `share` (0 to 1) of the way from one to the other, in OKLab."""
    parts = (p + (q - p) * share for p, q in zip(oklab(colour), oklab(other), strict=True))
    lightness, a, b = parts
    return from_oklab(lightness, a, b, colour.alpha + (other.alpha - colour.alpha) * share)
