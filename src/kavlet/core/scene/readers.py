"""A scene as some of its readers see it: with a colour-vision deficiency, in grey print, from the last row."""

import io
from collections.abc import Callable
from functools import lru_cache
from typing import Literal

import msgspec

from kavlet.core.scene.paints import Hatch, LinearGradient, Paint, RadialGradient, Stops
from kavlet.core.scene.path import Path
from kavlet.core.scene.primitives import Group, Image, Primitive, Scene, Shape, Stamp, Writing
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour, coded, luminance
from kavlet.core.values.identity_cache import cached_by_identity
from kavlet.core.values.vision import as_seen

Reader = Literal["everyone", "protan", "deutan", "tritan", "grey print", "last row"]
READERS: tuple[Reader, ...] = ("everyone", "protan", "deutan", "tritan", "grey print", "last row")
TITLES: dict[Reader, str] = {
    "everyone": "everyone",
    "protan": "readers without red cones",
    "deutan": "readers without green cones",
    "tritan": "readers without blue cones",
    "grey print": "grey print",
    "last row": "the last row",
}  # as messages name them
VIEWS: dict[Reader, str] = {
    "everyone": "As everyone sees it",
    "protan": "As seen without red cones",
    "deutan": "As seen without green cones",
    "tritan": "As seen without blue cones",
    "grey print": "As grey print",
    "last row": "As from the last row",
}  # as commands name them
FAR = 0.1  # of its size, that a page or chart has from the last row

Change = Callable[[Colour], Colour]


def grey(of: Colour) -> Colour:
    """A colour in grey print: the grey of the same luminance (CIE 1931 Y)."""
    part = coded(luminance(of))
    return Colour(part, part, part, of.alpha)


def change_for(reader: Reader) -> Change | None:
    """What a reader's eyes, or a printer, do to each colour; None where colours stay."""
    match reader:
        case "protan" | "deutan" | "tritan":
            return lambda colour: as_seen(colour, reader)
        case "grey print":
            return grey
        case _:
            return None


@lru_cache(maxsize=8)
def _changes(reader: Reader) -> Change | None:
    change = change_for(reader)
    return lru_cache(maxsize=4096)(change) if change is not None else None


@cached_by_identity(8)
def as_read_by(scene: Scene, reader: Reader) -> Scene:
    """The scene as a reader sees it, of the same size. From the last row, it is a tenth as large, in the middle."""
    if reader == "last row":
        shift = (1 - FAR) / 2
        place = Affine(FAR, 0.0, 0.0, FAR, shift * scene.size.width, shift * scene.size.height)
        far = Group((*_sheet(scene), *scene.items), place)
        return msgspec.structs.replace(scene, items=(far,))
    change = _changes(reader)
    if change is None:
        return scene
    ground = change(scene.ground) if scene.ground is not None else None
    return msgspec.structs.replace(
        scene, ground=ground, items=tuple(_changed(one, change, reader) for one in scene.items)
    )


def _sheet(scene: Scene) -> tuple[Primitive, ...]:
    """A hairline around the sheet, so that its end is seen from far."""
    wide, tall = scene.size.width, scene.size.height
    outline = Path("MLLLZ", (0.0, 0.0, wide, 0.0, wide, tall, 0.0, tall))
    return (Shape(outline, None, Colour(0.5, 0.5, 0.5, 0.6), 1.0 / FAR * 0.5),)


def _changed(item: Primitive, change: Change, reader: Reader) -> Primitive:
    match item:
        case Shape():
            fill = _paint(item.fill, change) if item.fill is not None else None
            edge = change(item.edge) if item.edge is not None else None
            return msgspec.structs.replace(item, fill=fill, edge=edge)
        case Stamp():
            return msgspec.structs.replace(item, fill=change(item.fill))
        case Writing():
            return msgspec.structs.replace(item, colour=change(item.colour))
        case Image():
            content = _pixels(item.content, reader)
            return msgspec.structs.replace(item, name=f"{item.name} {reader}", content=content)
        case Group():
            return msgspec.structs.replace(item, items=tuple(_changed(one, change, reader) for one in item.items))


def _paint(paint: Paint, change: Change) -> Paint:
    match paint:
        case Colour():
            return change(paint)
        case LinearGradient() | RadialGradient():
            return msgspec.structs.replace(paint, stops=_stops(paint.stops, change))
        case Hatch():
            ground = change(paint.ground) if paint.ground is not None else None
            return msgspec.structs.replace(paint, colour=change(paint.colour), ground=ground)


def _stops(stops: Stops, change: Change) -> Stops:
    return tuple((at, change(colour)) for at, colour in stops)


@lru_cache(maxsize=16)
def _pixels(content: bytes, reader: Reader) -> bytes:
    """A PNG or JPEG with each of its pixels changed, as PNG."""
    import numpy
    from PIL import Image as Picture

    change = _changes(reader)
    assert change is not None  # only where colours change
    with Picture.open(io.BytesIO(content)) as opened:
        pixels = numpy.asarray(opened.convert("RGBA"))
    flat, back = numpy.unique(pixels[..., :3].reshape(-1, 3) // 4, axis=0, return_inverse=True)  # 64 steps a channel
    colours_seen = numpy.array(
        [
            [round(255 * part) for part in change(Colour(*((4 * level + 2) / 255 for level in entry))).rgb]
            for entry in flat
        ],
        dtype=numpy.uint8,
    )
    new_pixels = numpy.concatenate(
        [colours_seen[back.reshape(-1)].reshape(*pixels.shape[:2], 3), pixels[..., 3:]], axis=2
    )
    buffer = io.BytesIO()
    Picture.fromarray(numpy.clip(new_pixels, 0, 255).astype(numpy.uint8), "RGBA").save(buffer, "PNG")
    return buffer.getvalue()
