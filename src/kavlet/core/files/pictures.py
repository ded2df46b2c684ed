"""Symbols and pictures from SVG, PNG and JPEG files, with limits: nothing is fetched or run, sizes are bounded."""

import io
import re
from pathlib import Path

from kavlet.core.document.document import PictureFile
from kavlet.core.files import atomic
from kavlet.core.messages import say
from kavlet.core.scene.path import Path as Outline
from kavlet.core.scene.pens import SvgPen
from kavlet.core.shapes.symbol import FontPen
from kavlet.core.values.affine import Affine, moved, scaled
from kavlet.core.values.errors import KavletError

MOST_BYTES = 20_000_000
MOST_PIXELS = 40_000_000
MOST_SVG = 2_000_000
MOST_POINTS = 40_000
KINDS = (".svg", ".png", ".jpg", ".jpeg")


def load(path: Path) -> PictureFile:
    """A picture file as a symbol or picture of its name. Raises KavletError with one sentence when it can't be used."""
    return loads(atomic.read(path, MOST_BYTES), path.name)


def loads(content: bytes, name: str) -> PictureFile:
    """The same from the bytes of a file. What it is shows in its content, not in its name."""
    title = re.sub(r"[_\-]+", " ", Path(name).stem).strip() or "picture"
    if content.startswith((b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff")):
        return _raster(content, name, title)
    if b"<svg" in content[:4096].lower():
        return PictureFile(title, outline=_outline(content, name))
    raise KavletError(say("{file} is no picture that can be used.", file=name), remedy=say("Use SVG, PNG or JPEG."))


def _raster(content: bytes, name: str, title: str) -> PictureFile:
    from PIL import Image, UnidentifiedImageError

    try:
        with Image.open(io.BytesIO(content), formats=("PNG", "JPEG")) as image:
            width, height = image.size
            if width * height > MOST_PIXELS:
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


def _outline(content: bytes, name: str) -> str:
    """All filled shapes of an SVG file as one outline. Scripts, styles, texts and links have no part in it."""
    from lxml import etree

    if len(content) > MOST_SVG:
        raise KavletError(say("{file} is larger than a symbol may be.", file=name))
    if re.search(rb"<!(DOCTYPE|ENTITY)", content, re.IGNORECASE):
        raise KavletError(say("{file} defines its own entities, so it is not used.", file=name))
    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
    try:
        root = etree.fromstring(content, parser)
    except etree.XMLSyntaxError:
        raise KavletError(say("{file} is no SVG that can be read.", file=name)) from None
    pen = FontPen()
    try:
        _draw(root, Affine(), pen)
    except (ValueError, IndexError, TypeError, ZeroDivisionError, OverflowError, RecursionError):
        raise KavletError(say("{file} holds shapes that can’t be read.", file=name)) from None
    made = pen.inner.path
    box = made.bounds
    if len(made.coordinates) > 2 * MOST_POINTS:
        raise KavletError(say("{file} has more points than a symbol may have.", file=name))
    if not max(box.width, box.height) > 0:
        raise KavletError(say("{file} holds no filled shapes.", file=name))
    factor = 256 / max(box.width, box.height)
    unit = made.mapped(scaled(factor).after(moved(-box.x, -box.y)))
    return _written(unit)


def _written(path: Outline) -> str:
    pen = SvgPen()
    path.draw(pen)
    return pen.text


_LEFT_OUT = {"defs", "clipPath", "mask", "pattern", "symbol", "marker", "linearGradient", "radialGradient", "style",
             "script", "text", "image", "use", "metadata", "title", "desc", "foreignObject", "filter"}  # fmt: skip


def _draw(element: object, by: Affine, pen: FontPen, depth: int = 0) -> None:
    """Draw an element and those inside it, in the order of the file."""
    from fontTools.svgLib.path import PathBuilder

    if depth > 60 or not isinstance(getattr(element, "tag", None), str):
        return
    tag = element.tag.rpartition("}")[2]  # type: ignore[attr-defined]
    get = element.get  # type: ignore[attr-defined]
    if tag in _LEFT_OUT or get("display") == "none" or get("fill") == "none":
        return
    own = by.after(_transform(get("transform") or ""))
    builder = PathBuilder()
    if builder.add_path_from_element(element):
        for data in builder.paths:
            raw = FontPen()
            raw.parse(data)
            raw.inner.path.mapped(own).draw(pen.inner)
    for child in element:  # type: ignore[attr-defined]
        _draw(child, own, pen, depth + 1)


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
