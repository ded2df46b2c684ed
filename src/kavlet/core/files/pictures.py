"""Symbols and pictures from SVG, PNG and JPEG files, with limits: nothing is fetched or run, sizes are bounded."""

import io
import itertools
import re
from collections.abc import Iterator
from operator import itemgetter
from pathlib import Path

from msgspec import Struct

from kavlet.core.document.document import PictureFile
from kavlet.core.files import atomic
from kavlet.core.messages import say
from kavlet.core.scene.path import Path as Outline
from kavlet.core.scene.pens import SvgPen
from kavlet.core.shapes.symbol import FontPen
from kavlet.core.values.affine import Affine, moved, scaled
from kavlet.core.values.errors import KavletError

MAX_BYTES = 20_000_000
MAX_PIXELS = 40_000_000
MAX_SVG = 2_000_000
MAX_POINTS = 40_000
MAX_NUMBERS = 3 * MAX_POINTS  # in the paths of a file: an arc, of seven, gives three points at least
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)")
KINDS = (".svg", ".png", ".jpg", ".jpeg")


class LoadedPicture(Struct, frozen=True):
    """A picture, and what of its file is left out of it, by the words of SVG."""

    picture: PictureFile
    left_out: tuple[str, ...] = ()


def load(path: Path) -> LoadedPicture:
    """A picture file as a symbol or picture of its name. Raises KavletError with one sentence when it can't be used."""
    return loads(atomic.read(path, MAX_BYTES), path.name)


def loads(content: bytes, name: str) -> LoadedPicture:
    """The same from the bytes of a file. What it is shows in its content, not in its name."""
    title = re.sub(r"[_\-]+", " ", Path(name).stem).strip() or "picture"
    if content.startswith((b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff")):
        return LoadedPicture(_raster(content, name, title))
    if b"<svg" in content[:4096].lower():
        return _symbol(content, name, title)
    raise KavletError(say("{file} is no picture that can be used.", file=name), remedy=say("Use SVG, PNG or JPEG."))


def _raster(content: bytes, name: str, title: str) -> PictureFile:
    from PIL import Image, UnidentifiedImageError

    try:
        with Image.open(io.BytesIO(content), formats=("PNG", "JPEG")) as image:
            width, height = image.size
            if width * height > MAX_PIXELS:
                raise KavletError(
                    say(
                        "{file} claims {width} × {height} pixels, too many to use.",
                        file=name,
                        width=width,
                        height=height,
                    )
                )
            image.verify()
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError):
        raise KavletError(say("{file} is a damaged picture.", file=name)) from None
    return PictureFile(title, content=content, width=width, height=height)


def _symbol(content: bytes, name: str, title: str) -> LoadedPicture:
    """All filled shapes of an SVG file, together as one outline and apart by their colours. Scripts, styles, texts and
    links have no part in it."""
    from lxml import etree

    if len(content) > MAX_SVG:
        raise KavletError(say("{file} is larger than a symbol may be.", file=name))
    if re.search(rb"<!(DOCTYPE|ENTITY)", content, re.IGNORECASE):
        raise KavletError(say("{file} defines its own entities, so it is not used.", file=name))
    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
    try:
        root = etree.fromstring(content, parser)
    except etree.XMLSyntaxError:
        raise KavletError(say("{file} is no SVG that can be read.", file=name)) from None
    numbers = sum(
        len(_NUMBER.findall(element.get("d", "") + element.get("points", ""))) for element in root.iter(etree.Element)
    )
    if numbers > MAX_NUMBERS:
        raise KavletError(say("{file} has more points than a symbol may have.", file=name))
    shapes = _Drawn([], [])
    try:
        _draw(root, _Look(Affine(), BLACK), shapes)
    except (ValueError, IndexError, TypeError, ZeroDivisionError, OverflowError, RecursionError):
        raise KavletError(say("{file} holds shapes that can’t be read.", file=name)) from None
    whole = FontPen()
    for _, part in shapes.parts:
        part.draw(whole.inner)
    path = whole.inner.path
    box = path.bounds
    if len(path.coordinates) > 2 * MAX_POINTS:
        raise KavletError(say("{file} has more points than a symbol may have.", file=name))
    if not max(box.width, box.height) > 0:
        raise KavletError(say("{file} holds no filled shapes.", file=name))
    unit = scaled(256 / max(box.width, box.height)).after(moved(-box.x, -box.y))
    parts = tuple((_written(part.mapped(unit)), colour) for colour, part in _together(shapes.parts))
    coloured = any(colour != BLACK for _, colour in parts)
    picture = PictureFile(
        title, outline=_written(path.mapped(unit)), parts=parts if coloured else (),
        own_colours=len({colour for _, colour in parts}) > 1,
    )  # fmt: skip
    return LoadedPicture(picture, tuple(dict.fromkeys(shapes.left_out)))


def _together(parts: list[tuple[str, Outline]]) -> Iterator[tuple[str, Outline]]:
    """Shapes of one colour that follow each other as one."""
    for colour, held in itertools.groupby(parts, key=itemgetter(0)):
        pen = FontPen()
        for _, part in held:
            part.draw(pen.inner)
        yield colour, pen.inner.path


def _written(path: Outline) -> str:
    pen = SvgPen()
    path.draw(pen)
    return pen.text


BLACK = "#000000"
NONE = "none"
_SILENT = {"defs", "symbol", "style", "script", "metadata", "title", "desc", "linearGradient", "radialGradient"}
_SAID = {"text", "image", "use", "foreignObject", "marker", "mask", "clipPath", "pattern", "filter"}
_HOLDS = {"svg", "g", "a", "switch"}


class _Look(Struct, frozen=True):
    """What an element has from those around it: its map to the file's own units, its fill, and its stroke."""

    by: Affine
    fill: str
    stroke: str = "none"


class _Drawn(Struct):
    """The filled shapes so far with their colours, and what was left out."""

    parts: list[tuple[str, Outline]]
    left_out: list[str]


def _draw(element: object, look: _Look, made: _Drawn, depth: int = 0) -> None:
    """Draw an element and those inside it, in the order of the file."""
    from fontTools.svgLib.path import PathBuilder

    if depth > 60 or not isinstance(getattr(element, "tag", None), str):
        return
    tag = element.tag.rpartition("}")[2]  # type: ignore[attr-defined]
    get = element.get  # type: ignore[attr-defined]
    if tag in _SAID:
        made.left_out.append(tag)
    if tag in _SILENT or tag in _SAID or get("display") == NONE:
        return
    style = dict(re.findall(r"([\w-]+)\s*:\s*([^;]+)", get("style") or ""))
    fill = _fill(style.get("fill", get("fill")), look.fill, made)
    stroke = style.get("stroke", get("stroke") or look.stroke).strip()
    own = _Look(look.by.after(_transform(get("transform") or "")), fill, stroke)
    builder = PathBuilder()
    if fill != NONE and builder.add_path_from_element(element):
        for data in builder.paths:
            raw = FontPen()
            raw.parse(data)
            made.parts.append((fill, raw.inner.path.mapped(own.by)))
    elif fill == NONE and tag not in _HOLDS and stroke != NONE:
        made.left_out.append("stroke")
    for child in element:  # type: ignore[attr-defined]
        _draw(child, own, made, depth + 1)


def _fill(text: str | None, around: str, made: _Drawn) -> str:
    """A fill as a hex code (SVG 2, 13.2); none, that of what is around, or black for what a symbol can't have."""
    from PIL import ImageColor

    bare = (text or "").strip()
    if not bare or bare in ("inherit", "currentColor"):
        return around
    if bare in (NONE, "transparent"):
        return NONE
    if bare.startswith("url("):
        made.left_out.append("gradient")
        return BLACK
    try:
        red, green, blue = ImageColor.getrgb(bare)[:3]
    except ValueError:
        return around
    return f"#{red:02x}{green:02x}{blue:02x}"


def _transform(text: str) -> Affine:
    """An SVG transform list (SVG 2, 8.5). What is no transform is left out."""
    from kavlet.core.values.affine import turned

    made = Affine()
    for kind, numbers in re.findall(r"(matrix|translate|scale|rotate)\s*\(([^)]*)\)", text):
        n = [float(part) for part in re.findall(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?", numbers)]
        if kind == "matrix" and len(n) == 6:
            made = made.after(Affine(*n))
        elif kind == "translate" and n:
            made = made.after(moved(n[0], n[1] if len(n) > 1 else 0.0))
        elif kind == "scale" and n:
            made = made.after(scaled(n[0], n[1] if len(n) > 1 else n[0]))
        elif kind == "rotate" and n:
            made = made.after(turned(n[0], *(n[1:3] if len(n) > 2 else (0.0, 0.0))))
    return made
