"""Text to positioned glyphs, by HarfBuzz, and their outlines."""

from functools import lru_cache

import uharfbuzz as hb
from msgspec import Struct

from kavlet.core.scene.pens import Pen
from kavlet.core.text.faces import face_of, font

THIN = {"\u2009": 0.2, "\u202f": 0.2, "\u200a": 0.1}  # thin spaces by their width in font sizes, where a face has none
SPACE = "\u00a0"


class GlyphRun(Struct, frozen=True):
    """One shaped line: glyph numbers and their positions, as shares of the font size.

    `xs[i]`, `ys[i]` is the origin of glyph i from the start of the baseline (y downward). `texts[i]` is what of the
    text glyph i stands for: several characters for a ligature. `complete` is false where the face lacks a character.
    """

    glyphs: tuple[int, ...]
    xs: tuple[float, ...]
    ys: tuple[float, ...]
    width: float
    complete: bool
    texts: tuple[str, ...] = ()


@lru_cache(maxsize=4096)
def shape(text: str, face: str) -> GlyphRun:
    """Shape one line with the face's default features (kerning, ligatures), figures of one width where it has them."""
    if not text:
        return GlyphRun((), (), (), 0.0, True)
    of = font(face)
    em = of.face.upem
    buffer = hb.Buffer()
    thin = [at for at, character in enumerate(text) if character in THIN and not of.get_nominal_glyph(ord(character))]
    buffer.add_str("".join(SPACE if at in thin else character for at, character in enumerate(text)) if thin else text)
    buffer.guess_segment_properties()
    hb.shape(of, buffer, {"tnum": True} if face_of(face).tabular else {})
    glyphs, xs, ys, at = [], [], [], 0.0
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        glyphs.append(info.codepoint)
        xs.append((at + position.x_offset) / em)
        ys.append(-position.y_offset / em)
        at += THIN[text[info.cluster]] * em if info.cluster in thin else position.x_advance
    clusters = [info.cluster for info in buffer.glyph_infos]
    return GlyphRun(tuple(glyphs), tuple(xs), tuple(ys), at / em, 0 not in glyphs, _texts(text, clusters))


def _texts(text: str, clusters: list[int]) -> tuple[str, ...]:
    """What each glyph stands for: its cluster's characters; the first of several glyphs of one has them."""
    starts = sorted(set(clusters))
    ends = dict(zip(starts, [*starts[1:], len(text)], strict=True))
    seen: set[int] = set()
    found: list[str] = []
    for cluster in clusters:
        found.append("" if cluster in seen else text[cluster : ends[cluster]])
        seen.add(cluster)
    return tuple(found)


def width(text: str, face: str, size: float) -> float:
    """The advance of one line in the unit of `size`."""
    return shape(text, face).width * size


class _ScaledPen:
    """Passes a glyph's outline on, from font units (y upward) to points (y downward)."""

    def __init__(self, pen: Pen, scale: float, x: float, y: float) -> None:
        self._pen, self._scale, self._x, self._y = pen, scale, x, y
        self._at = (0.0, 0.0)

    def _place(self, point: tuple[float, float]) -> tuple[float, float]:
        return self._x + point[0] * self._scale, self._y - point[1] * self._scale

    def moveTo(self, point: tuple[float, float]) -> None:  # noqa: N802 - fontTools' pen protocol
        self._at = point
        self._pen.move_to(*self._place(point))

    def lineTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self._at = point
        self._pen.line_to(*self._place(point))

    def qCurveTo(self, control: tuple[float, float], point: tuple[float, float]) -> None:  # noqa: N802
        first = tuple(a + (c - a) * 2 / 3 for a, c in zip(self._at, control, strict=True))
        second = tuple(p + (c - p) * 2 / 3 for p, c in zip(point, control, strict=True))
        self.curveTo((first[0], first[1]), (second[0], second[1]), point)

    def curveTo(  # noqa: N802
        self, one: tuple[float, float], two: tuple[float, float], point: tuple[float, float]
    ) -> None:
        self._at = point
        self._pen.curve_to(*self._place(one), *self._place(two), *self._place(point))

    def closePath(self) -> None:  # noqa: N802
        self._pen.close()


def outline(text: str, face: str, size: float, x: float, y: float, pen: Pen) -> None:
    """Draw a line's glyphs onto a pen, its baseline starting at (x, y), in points."""
    run = shape(text, face)
    of = font(face)
    for glyph, dx, dy in zip(run.glyphs, run.xs, run.ys, strict=True):
        of.draw_glyph_with_pen(glyph, _ScaledPen(pen, size / of.face.upem, x + dx * size, y + dy * size))
