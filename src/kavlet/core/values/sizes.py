"""Sizes by name: of charts (S, M, L, page width, half width) and of sheets (ISO 216 and 269, ANSI, slides)."""

from typing import Annotated

from msgspec import Meta

from kavlet.core.values.geometry import Size

TypeSize = Annotated[float, Meta(gt=0, le=2_000)]  # of letters, in points
MM = 72 / 25.4
_FIRST = {"A": (841, 1189), "B": (1000, 1414), "C": (917, 1297)}  # ISO 216 (A, B) and ISO 269 (C), number 0, in mm
_INCHES = {
    "Letter": (8.5, 11.0),
    "Legal": (8.5, 14.0),
    "Tabloid": (11.0, 17.0),
    "ANSI A": (8.5, 11.0),
    "ANSI B": (11.0, 17.0),
    "ANSI C": (17.0, 22.0),
    "ANSI D": (22.0, 34.0),
    "ANSI E": (34.0, 44.0),
    "Slide 16:9": (13.333333333333334, 7.5),
    "Slide 4:3": (10.0, 7.5),
}

CHARTS: dict[str, Size] = {
    "S": Size(78 * MM, 52 * MM),
    "M": Size(120 * MM, 75 * MM),
    "L": Size(170 * MM, 110 * MM),
    "page width": Size(160 * MM, 95 * MM),
    "half width": Size(77 * MM, 62 * MM),
}


def iso(series: str, number: int) -> Size:
    """A sheet of the A, B or C series, upright: each is the one before, halved, fractions of a millimetre dropped."""
    short, long = _FIRST[series]
    for _ in range(number):
        short, long = long // 2, short
    return Size(short * MM, long * MM)


def sheets() -> dict[str, Size]:
    """All sheets by name, upright (slides lying)."""
    named = {f"{series}{number}": iso(series, number) for series in "ABC" for number in range(11)}
    return named | {name: Size(72 * width, 72 * height) for name, (width, height) in _INCHES.items()}
