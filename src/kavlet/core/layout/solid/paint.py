"""From seen bodies to primitives: walls and caps under light, fills foreshortened with the face they lie on."""

import math
from collections.abc import Callable
from itertools import pairwise

import msgspec
from msgspec import Struct

from kavlet.core.layout.figure import Mark
from kavlet.core.layout.painting import Filling, paint, painted
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.solid.bodies import Ball, BodyPart
from kavlet.core.layout.solid.plane_projection import clipped, extent, filling, lit_paint, on_sheet, placed, under_light
from kavlet.core.scene.paints import Hatch, LinearGradient, Paint, RadialGradient, Stops, mean
from kavlet.core.scene.path import Path, joined, recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.box import box
from kavlet.core.solid.assembly import Cap, SeenBody
from kavlet.core.solid.camera import Camera, SeenPlane
from kavlet.core.solid.light import Light, lit
from kavlet.core.solid.loft import Loft
from kavlet.core.solid.sides import Stop, Wall
from kavlet.core.styling.fills import GradientFill, PictureFill
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour

STRAIGHT = 0.005  # of full light by which a stop may be off the line between its neighbours
OPEN = 0.82  # how far toward white
Skin = Callable[[float, float], Colour]


class Surface(Struct, frozen=True, eq=False):
    """What a body wears, whatever it is seen from: its paint, one colour for it, its edge, its flat primitives.

    `outline` is the flat mark's own, which the first of them fill; `drawn` tells that they are more than a colour, so
    that a round body wears them around it.
    """

    paint: Paint
    colour: Colour
    skin: Skin | None
    edge: Colour | None
    edge_width: float
    items: tuple[Primitive, ...]
    outline: Path | None
    drawn: bool


def coat_of(part: BodyPart, mark: Mark, placing: Placing) -> Surface:
    """The coat of a part. A body is solid: what a hatch or a picture leaves open shows a light tint of its colour."""
    style = placing.style
    if part.rest:
        colour = style.named["track"]
        return Surface(colour, colour, None, None, 0.0, (), None, False)
    edge = next((item for item in mark.items if isinstance(item, Shape) and item.edge is not None), None)
    fill, tone = mark.dressed, mark.tone
    whole: Paint
    if isinstance(fill, PictureFill):
        whole = style.colour(fill.ground) if fill.ground else style.tint(style.solid(fill, tone), OPEN)
    elif mark.dressed is None and mark.fill is not None:
        whole = mark.fill
    elif part.round and isinstance(fill, GradientFill) and fill.run == "round" and len(fill.colours) == 1:
        whole = style.colour(fill.colours[0])  # it is round, and so needs no gradient to look it
    else:
        whole = paint(fill, tone, part.box, style, part.end)
    items, outline = mark.items, mark.path
    if part.round:
        outline = recorded(box, part.box)
        items = painted(Filling(fill, tone, value=mark.value), outline, part.box, part.end, placing.context)
    colour = mean(whole)
    if isinstance(whole, Hatch) and whole.ground is None:
        whole = msgspec.structs.replace(whole, ground=style.tint(whole.colour, OPEN))
        items = tuple(_grounded(item, whole) for item in items)
    if isinstance(whole, Hatch) and whole.ground is not None:
        colour = whole.ground
    return Surface(
        whole, colour, _skin(whole), edge.edge if edge is not None else None,
        edge.edge_width if edge is not None else 0.0, items, outline, not isinstance(whole, Colour)
        or isinstance(fill, PictureFill),
    )  # fmt: skip


def _grounded(item: Primitive, hatch: Hatch) -> Primitive:
    """A primitive whose hatch has its ground."""
    if isinstance(item, Shape) and isinstance(item.fill, Hatch):
        return msgspec.structs.replace(item, fill=hatch)
    return item


def _skin(whole: Paint) -> Skin | None:
    """The colour of a gradient at a place of its section: it runs through a body as through a stick of rock."""
    if isinstance(whole, LinearGradient):
        dx, dy = whole.x2 - whole.x1, whole.y2 - whole.y1
        long = dx * dx + dy * dy or 1.0
        return lambda x, y: between(whole.stops, ((x - whole.x1) * dx + (y - whole.y1) * dy) / long)
    if isinstance(whole, RadialGradient):
        return lambda x, y: between(whole.stops, math.hypot(x - whole.x, y - whole.y) / max(whole.radius, 1e-9))
    return None


def between(stops: Stops, share: float) -> Colour:
    """The colour of a gradient at a share of its way, mixed as painters do."""
    if share <= stops[0][0]:
        return stops[0][1]
    for (a, colour), (b, other) in pairwise(stops):
        if share <= b:
            t = (share - a) / (b - a) if b > a else 1.0
            parts = [p + (q - p) * t for p, q in zip(colour.rgb, other.rgb, strict=True)]
            return Colour(parts[0], parts[1], parts[2], colour.alpha + (other.alpha - colour.alpha) * t)
    return stops[-1][1]


def body_items(
    part: BodyPart, body: SeenBody, surface: Surface, mark: Mark, sheet: SeenPlane, strength: float
) -> list[Primitive]:
    """All that is seen of a body that does not reach around another."""
    walls = list(body.walls)
    if walls and body.caps and surface.edge is None and not surface.drawn and surface.colour.alpha == 1:
        # The first wall goes on under all other faces, so that nothing behind shines through where they meet.
        items = wall_items(part, msgspec.structs.replace(walls.pop(0), path=whole(body)), surface, sheet)
    else:
        items = under(body, surface)
    for wall in walls:
        items += wall_items(part, wall, surface, sheet)
    for cap in body.caps:
        items += cap_items(part, cap, surface, mark, sheet, strength)
    return items


def under(body: SeenBody, surface: Surface) -> list[Primitive]:
    """All of a body in one middle colour, painted first, so that nothing behind shines through where faces meet."""
    if surface.colour.alpha < 1 or not body.walls or len(body.walls) + len(body.caps) < 2:
        return []
    stops = body.walls[0].stops
    middle = stops[len(stops) // 2]
    return [Shape(whole(body), lit(surface.colour, middle.shade))]


def whole(body: SeenBody) -> Path:
    """Everything that is seen of a body, as one outline."""
    return joined([*(wall.path for wall in body.walls), *(cap.path for cap in body.caps)])


def wall_items(part: BodyPart, wall: Wall, surface: Surface, sheet: SeenPlane) -> list[Primitive]:
    """A piece of a side: its colour under light; other fills lie on it, with light and shade laid over them."""
    if part.round and surface.drawn:
        if wall.strips or not wall.narrows:
            return [*_around(wall, surface, sheet), *_edged(wall.path, surface)]
        low, high = part.loft.levels[0].w, part.loft.levels[-1].w
        last = sum(wall.reach) > low + high
        surface = msgspec.structs.replace(
            surface, colour=_end_colour(part, surface, last), skin=None
        )  # a rounded edge is plain
    if isinstance(surface.paint, Hatch) and len(wall.stops) == 2 and not wall.narrows:
        return [_hatched(wall, part.loft, surface.paint), *_edged(wall.path, surface)]
    if wall.strips:
        return [*_strips(wall, surface), *_edged(wall.path, surface)]
    return [Shape(wall.path, _lit_paint(wall, surface), surface.edge, surface.edge_width)]


def _edged(path: Path, surface: Surface) -> list[Primitive]:
    return [Shape(path, None, surface.edge, surface.edge_width)] if surface.edge is not None else []


def _colour(stop: Stop, surface: Surface) -> Colour:
    return lit(surface.skin(*stop.section) if surface.skin is not None else surface.colour, stop.shade, stop.gleam)


def _lit_paint(wall: Wall, surface: Surface) -> Paint:
    held = wall.stops if surface.skin is not None else _needed(wall.stops)
    colours = [_colour(stop, surface) for stop in held]
    if all(colour == colours[0] for colour in colours):
        return colours[0]
    # Rounded, so that bodies of one shape share their stops: painters keep what they have made of them.
    stops = tuple((round(stop.offset, 3), colour) for stop, colour in zip(held, colours, strict=True))
    return LinearGradient(*wall.start, *wall.end, stops)


def _needed(stops: tuple[Stop, ...]) -> list[Stop]:
    """Stops without those that lie on a line between their neighbours; of two that follow each other one stays."""
    kept = [stops[0]]
    last = 0
    for i in range(1, len(stops) - 1):
        one, here, other = stops[i - 1], stops[i], stops[i + 1]
        wide = other.offset - one.offset
        t = (here.offset - one.offset) / wide if wide > 0 else 0.0
        bent = max(
            abs(one.shade + (other.shade - one.shade) * t - here.shade),
            abs(one.gleam + (other.gleam - one.gleam) * t - here.gleam),
        )
        if last < i - 1 or bent > STRAIGHT:
            kept.append(here)
            last = i
    return [*kept, stops[-1]]


def _strips(wall: Wall, surface: Surface) -> list[Primitive]:
    """The wall as a whole in one middle colour, then its strips."""
    middle = wall.strips[len(wall.strips) // 2]
    made: list[Primitive] = [Shape(wall.path, _colour(middle.stop, surface))]
    made += [Shape(strip.path, _colour(strip.stop, surface)) for strip in wall.strips]
    return made


def _around(wall: Wall, surface: Surface, sheet: SeenPlane) -> list[Primitive]:
    """The flat mark's primitives on a round side: each strip shows its part of them under its own light."""
    pieces = [(strip.path, strip.stop) for strip in wall.strips] or [(wall.path, wall.stops[len(wall.stops) // 2])]
    made: list[Primitive] = []
    grounded = isinstance(surface.paint, Colour)
    if isinstance(surface.paint, Colour):  # all grounds first, so that none cuts into what lies on the one beside it
        made += [Shape(path, lit(surface.paint, stop.shade, stop.gleam)) for path, stop in pieces]
    items = [(item, own, extent(item)) for item, own in _worn(surface, sheet) if not (grounded and own)]
    for path, stop in pieces:
        near = path.bounds
        for item, own, around in items:
            if around.overlaps(near):
                made += _cut_out(item, own, path, stop.shade, stop.gleam)
    return made


def _hatched(wall: Wall, loft: Loft, hatch: Hatch) -> Primitive:
    """A hatch on a flat side, foreshortened with it."""
    c = wall.path.coordinates  # along the lower edge and back along the upper one
    ox, oy, ax, ay, dx, dy = c[0], c[1], c[2], c[3], c[-2], c[-1]
    (x1, y1), (x2, y2) = wall.stops[0].section, wall.stops[1].section
    long, deep = math.hypot(x2 - x1, y2 - y1), abs(loft.levels[-1].w - loft.levels[0].w)
    fill = lit_paint(hatch, wall.stops[0].shade, wall.stops[0].gleam)
    if long < 1e-6 or deep < 1e-6:
        return Shape(wall.path, fill)
    place = Affine((ax - ox) / long, (ay - oy) / long, (dx - ox) / deep, (dy - oy) / deep, ox, oy)
    back = place.inverse
    return Shape(wall.path.mapped(back), fill, place=place) if back is not None else Shape(wall.path, fill)


def cap_items(
    part: BodyPart, cap: Cap, surface: Surface, mark: Mark, sheet: SeenPlane, strength: float
) -> list[Primitive]:
    """An end: a slab's front wears the flat mark's own primitives; other ends are plain."""
    if part.round or not cap.last:
        colour = _end_colour(part, surface, cap.last) if part.round else surface.colour
        return [Shape(cap.path, lit(colour, cap.shade, cap.gleam), surface.edge, surface.edge_width)]
    items: list[Primitive] = []
    if isinstance(mark.dressed, PictureFill) and not mark.dressed.ground:
        items.append(Shape(cap.path, lit(surface.colour, cap.shade).faded(strength)))
    if cap.level.inset > 0:
        for item, own in _worn(surface, sheet):
            items += _cut_out(item, own, cap.path, cap.shade, cap.gleam)
        return items
    for item in surface.items:
        items += on_sheet(item, sheet, cap.shade, cap.gleam)
    return items


def _worn(surface: Surface, sheet: SeenPlane) -> list[tuple[Primitive, bool]]:
    """The flat mark's primitives on a plane, each with whether it fills the mark's own outline."""
    return [
        (placed(item, sheet), isinstance(item, Shape) and item.path == surface.outline) for item in surface.items
    ]  # fmt: skip


def _cut_out(item: Primitive, own: bool, path: Path, shade: float, gleam: float) -> list[Primitive]:
    """A primitive of the flat mark on another outline, under light: what filled the mark's own fills that."""
    return [
        filling(one, path) if own and isinstance(one, Shape) else clipped(one, path)
        for one in under_light(item, shade, gleam)
    ]


def _end_colour(part: BodyPart, surface: Surface, last: bool) -> Colour:
    """The colour of a round body at its last end, or at its first."""
    if surface.skin is None:
        return surface.colour
    return surface.skin(*_end_point(part, last == (part.end in ("up", "right"))))


def _end_point(part: BodyPart, tip: bool) -> tuple[float, float]:
    """A place of a bar's box at its tip, or at its base."""
    rect = part.box
    x, y = rect.center
    return {
        "up": (x, rect.y if tip else rect.bottom), "down": (x, rect.bottom if tip else rect.y),
        "right": (rect.right if tip else rect.x, y), "left": (rect.x if tip else rect.right, y),
    }[part.end]  # fmt: skip


def ball_items(ball: Ball, colour: Colour, camera: Camera, light: Light) -> list[Primitive]:
    """A sphere: a disc with the light falling off around the place that faces it."""
    x, y, radius = seen_ball(ball, camera)
    lx, ly, _ = light.direction.tolist()
    away = math.hypot(lx, ly) or 1e-9
    ux, uy = lx / away, ly / away
    strength = camera.view.strength
    stops = []
    import numpy as np

    places = np.linspace(min(0.95, away), -1.0, 8)
    normals = np.stack([places * ux, places * uy, np.sqrt(np.maximum(0.0, 1 - places * places))], axis=1)
    shades = 1 + (light.relative(normals) - 1) * strength
    gleams = light.gleam(normals) * strength
    top = float(places[0])
    for place, shade, gleam in zip(places.tolist(), shades.tolist(), gleams.tolist(), strict=True):
        stops.append(((top - place) / (top + 1), lit(colour, shade, gleam)))
    paint_ = RadialGradient(x + top * ux * radius, y - top * uy * radius, radius * (1 + top), tuple(stops))
    return [Shape(recorded(disc, (x, y), radius), paint_)]


def seen_ball(ball: Ball, camera: Camera) -> tuple[float, float, float]:
    """Where a sphere is seen, and its radius there."""
    import numpy as np

    center = np.array(ball.center)
    x, y = camera.project(center).tolist()
    near = 1.0 if camera.parallel else camera.distance / (camera.distance - float(camera.depth(center)))
    return float(x), float(y), ball.radius * camera.scale * near
