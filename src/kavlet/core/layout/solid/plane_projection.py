"""Flat primitives as they are seen on a plane of a solid, under light: foreshortened, cut, pictures cell by cell."""

import msgspec

from kavlet.core.scene.paints import Hatch, LinearGradient, Paint, RadialGradient, mean
from kavlet.core.scene.path import Path, joined, recorded
from kavlet.core.scene.primitives import Group, Image, Primitive, Shape, Stamp, Writing
from kavlet.core.shapes.box import box, quad
from kavlet.core.solid.camera import SeenPlane
from kavlet.core.solid.cover import cut, polygons
from kavlet.core.solid.light import lit
from kavlet.core.solid.pen import seen
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

BLACK, WHITE = Colour(0, 0, 0), Colour(1, 1, 1)
CELLS, LAP = 6, 1.06  # cells across and down a picture in perspective; how far each goes on under the next
ROUNDED = 12  # straight pieces of a curve that cuts a picture
GAMMA = 2.2  # by which a share of light becomes a share of darkness laid over a picture


def on_sheet(item: Primitive, sheet: SeenPlane, shade: float, gleam: float) -> list[Primitive]:
    """A flat primitive on its plane as it is seen, under light."""
    whole = under_light(placed(item, sheet), shade, gleam)
    if isinstance(item, Image) and sheet.affine is None:
        return [*_in_cells(item, sheet), *whole[1:]]
    return whole


def _in_cells(item: Image, sheet: SeenPlane) -> list[Primitive]:
    """A picture in perspective: cell by cell under the map that is nearest there, each a little way under the next."""
    outline = recorded(box, Rect(0, 0, 1, 1)).mapped(item.place)
    area, rings = outline.bounds, polygons(item.clip if item.clip is not None else outline, ROUNDED)
    wide, tall = area.width / CELLS, area.height / CELLS
    primitives: list[Primitive] = []
    for i in range(CELLS * CELLS):
        x, y = area.x + i % CELLS * wide, area.y + i // CELLS * tall
        cut_rings = rings
        for axis, low, size in ((0, x, wide), (1, y, tall)):
            cut_rings = [cut(cut(ring, axis, low, True), axis, low + size * LAP, False) for ring in cut_rings]
        clip = joined(
            [recorded(quad, *(sheet.point(*corner) for corner in ring)) for ring in cut_rings if len(ring) > 2]
        )
        if clip.verbs:
            place = sheet.near(x + wide / 2, y + tall / 2).after(item.place)
            primitives.append(msgspec.structs.replace(item, place=place, clip=clip))
    return primitives


def placed(item: Primitive, sheet: SeenPlane) -> Primitive:
    """A flat primitive on its plane as it is seen."""
    match item:
        case Shape():
            return _shape_on(item, sheet)
        case Stamp():
            clip = seen(item.clip, sheet) if item.clip is not None else None
            if sheet.affine is not None:
                return msgspec.structs.replace(item, place=sheet.affine.after(item.place), clip=clip)
            outline = seen(item.outline.mapped(item.place), sheet)
            return Shape(outline, item.fill, mark=item.mark, title=item.title, clip=clip)
        case Image():
            outline = recorded(box, Rect(0, 0, 1, 1)).mapped(item.place)
            clip = seen(item.clip if item.clip is not None else outline, sheet)
            return msgspec.structs.replace(item, place=sheet.near(*outline.bounds.center).after(item.place), clip=clip)
        case Writing():
            x, y = sheet.point(item.x, item.y)
            return msgspec.structs.replace(item, x=x, y=y)
        case Group():
            clip = seen(item.clip, sheet) if item.clip is not None else None
            return msgspec.structs.replace(
                item, place=sheet.near(*extent(item).center).after(item.place), clip=clip
            )  # fmt: skip


def _shape_on(item: Shape, sheet: SeenPlane) -> Shape:
    fill, place = item.fill, None
    path = seen(item.path, sheet)
    if isinstance(fill, LinearGradient | RadialGradient | Hatch) and not sheet.same:
        place = sheet.near(*item.path.bounds.center)
        back = place.inverse
        if back is None:
            place, fill = None, mean(fill)
        else:
            path = path.mapped(back)
    clip = seen(item.clip, sheet) if item.clip is not None else None
    return msgspec.structs.replace(item, path=path, fill=fill, clip=clip, place=place)


def under_light(item: Primitive, shade: float, gleam: float) -> list[Primitive]:
    """A primitive under light; a picture with light and shade laid over it."""
    match item:
        case Shape():
            fill = lit_paint(item.fill, shade, gleam) if item.fill is not None else None
            edge = lit(item.edge, shade, gleam) if item.edge is not None else None
            return [msgspec.structs.replace(item, fill=fill, edge=edge)]
        case Stamp():
            return [msgspec.structs.replace(item, fill=lit(item.fill, shade, gleam))]
        case Image():
            if item.clip is not None and (abs(shade - 1) > 0.01 or gleam > 0.01):
                return [item, Shape(item.clip, veil(shade, gleam))]
            return [item]
        case Group():
            lit_items = tuple(lit_item for child in item.items for lit_item in under_light(child, shade, gleam))
            return [msgspec.structs.replace(item, items=lit_items)]
        case Writing():
            return [item]


def lit_paint(fill: Paint, shade: float, gleam: float) -> Paint:
    """A paint under light."""
    if isinstance(fill, Colour):
        return lit(fill, shade, gleam)
    if isinstance(fill, Hatch):
        ground = lit(fill.ground, shade, gleam) if fill.ground is not None else None
        return msgspec.structs.replace(fill, colour=lit(fill.colour, shade, gleam), ground=ground)
    return msgspec.structs.replace(
        fill, stops=tuple((offset, lit(colour, shade, gleam)) for offset, colour in fill.stops)
    )


def veil(shade: float, gleam: float) -> Colour:
    """Black or white, as transparent as makes a fill below it look as light as it is."""
    if shade < 1 and gleam < 0.02:
        return BLACK.faded(1 - max(0.0, shade) ** (1 / GAMMA))
    bright = 0.5 * (shade - 1) if shade > 1 else 0.0
    return WHITE.faded(min(1.0, bright + gleam))


def extent(item: Primitive) -> Rect:
    """The box around a primitive on the sheet."""
    match item:
        case Shape():
            return (item.path.mapped(item.place) if item.place is not None else item.path).bounds
        case Stamp():
            return item.outline.mapped(item.place).bounds
        case Image():
            return recorded(box, Rect(0, 0, 1, 1)).mapped(item.place).bounds
        case Writing():
            return Rect(item.x, item.y, 0.0, 0.0)
        case Group():
            held = [recorded(box, extent(one)).mapped(item.place).bounds for one in item.items]
            return Rect.around_all(held) if held else Rect(0, 0, 0, 0)


def filling(item: Shape, path: Path) -> Primitive:
    """A shape with another outline."""
    if item.place is None:
        return msgspec.structs.replace(item, path=path, clip=None)
    back = item.place.inverse
    return msgspec.structs.replace(item, path=path.mapped(back), clip=None) if back is not None else item


def clipped(item: Primitive, by: Path) -> Primitive:
    """A primitive cut by an outline: its own clip gives way, since that is the flat mark's."""
    return msgspec.structs.replace(item, clip=by) if not isinstance(item, Writing) else item
