"""The shipped faces. All text is measured with them, so that every output has one layout."""

from functools import lru_cache
from importlib.resources import files
from typing import Literal

import uharfbuzz as hb
from msgspec import Struct

Family = Literal["text", "narrow", "serif", "easy"]
FONT_FOLDER = files("kavlet") / "assets" / "fonts"


class Face(Struct, frozen=True):
    """One font file: its key, the family's name in CSS, weight and slope; `tabular` with figures of one width."""

    key: str
    css_family: str
    weight: int = 400
    italic: bool = False
    tabular: bool = False

    @property
    def stem(self) -> str:
        """The name of its font file."""
        return self.key.removesuffix(FIGURES)


FIGURES = " figures"  # after the key of a face whose figures have one width
FACES = {
    face.key: face
    for face in (
        Face("FiraSans-Regular", "Fira Sans"),
        Face("FiraSans-Italic", "Fira Sans", italic=True),
        Face("FiraSans-Bold", "Fira Sans", 700),
        Face("FiraSans-BoldItalic", "Fira Sans", 700, italic=True),
        Face("FiraSansCondensed-Regular", "Fira Sans Condensed"),
        Face("FiraSansCondensed-Bold", "Fira Sans Condensed", 700),
        Face("SourceSerif4-Regular", "Source Serif 4"),
        Face("SourceSerif4-Bold", "Source Serif 4", 700),
        Face("AtkinsonHyperlegible-Regular", "Atkinson Hyperlegible"),
        Face("AtkinsonHyperlegible-Bold", "Atkinson Hyperlegible", 700),
    )
}
_ALL = FACES | {
    f"{key}{FIGURES}": Face(f"{key}{FIGURES}", face.css_family, face.weight, face.italic, True)
    for key, face in FACES.items()
}
_STEMS: dict[Family, str] = {
    "text": "FiraSans",
    "narrow": "FiraSansCondensed",
    "serif": "SourceSerif4",
    "easy": "AtkinsonHyperlegible",
}


def face_of(key: str) -> Face:
    """The face of a key."""
    return _ALL[key]


def tabular(key: str) -> str:
    """The key of the same face with figures of one width, for numbers that stand below each other."""
    return f"{face_of(key).stem}{FIGURES}"


def named_face(key: str) -> tuple[bool, bool]:
    """Whether a face is bold, and whether it slopes."""
    return face_of(key).weight > 400, face_of(key).italic


def face(family: Family, bold: bool = False, italic: bool = False) -> str:
    """The key of the family's face; where it has no italic, the upright one stands in."""
    stem = _STEMS[family]
    style = {(False, False): "Regular", (True, False): "Bold", (False, True): "Italic", (True, True): "BoldItalic"}
    key = f"{stem}-{style[bold, italic]}"
    return key if key in FACES else f"{stem}-{style[bold, False]}"


@lru_cache(maxsize=2 * len(FACES))
def font_bytes(key: str) -> bytes:
    """The font file of a face."""
    return (FONT_FOLDER / f"{face_of(key).stem}.ttf").read_bytes()


@lru_cache(maxsize=2 * len(FACES))
def font(key: str) -> hb.Font:
    """The HarfBuzz font of a face, in its own units."""
    return hb.Font(hb.Face(font_bytes(key)))


class Metrics(Struct, frozen=True):
    """Heights as shares of the font size, upward from the baseline (descent as a positive depth)."""

    descent: float
    cap_height: float


@lru_cache(maxsize=2 * len(FACES))
def metrics(key: str) -> Metrics:
    """Ascent and descent of a face (hhea) and the height of its capitals (OS/2, else that of H)."""
    of = font(key)
    em = of.face.upem
    extents = of.get_font_extents("ltr")
    glyph = of.get_nominal_glyph(ord("H"))
    height = of.get_glyph_extents(glyph).y_bearing if glyph else 0.7 * em
    return Metrics(-extents.descender / em, height / em)
