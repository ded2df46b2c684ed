"""The room around solid bodies: walls, floor, gridlines on them, soft shadows, and texts that follow their edges."""

import math
from itertools import pairwise

import msgspec
import numpy as np
from msgspec import Struct

from kavlet.core.charts.solid import Solid
from kavlet.core.layout.figure import Mark, PlacedLine, PlacedRule, PlacedText
from kavlet.core.layout.furniture import Furniture
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.texts.text_lines import FLOOR, Anchor, TextOwner, TextStyle, block
from kavlet.core.scene.path import CURVE, Path, joined, recorded
from kavlet.core.scene.primitives import Primitive, Shape
from kavlet.core.shapes.arc import Sector, wedge
from kavlet.core.shapes.box import box, quad
from kavlet.core.solid.camera import Camera, SeenPlane
from kavlet.core.solid.light import Light
from kavlet.core.solid.loft import outline_of
from kavlet.core.solid.pen import seen
from kavlet.core.values.arrays import Array
from kavlet.core.values.colour import Colour, mix
from kavlet.core.values.geometry import Rect

SOFT, LEAST, MOST = 1.5, 4, 10  # points from one outline that fades a shadow out to the next; how many there are
SHADOW = 0.26  # its darkness in the middle
GROWN = 0.16  # how far it fades, as a share of the bodies' depth
AIR = 0.4  # between neighbouring rows' names, in font sizes
SLACK = 0.5  # points by which a text may reach into the plot and still count as beside it


def walls(solid: Solid, plot: Rect, depth: float, camera: Camera, placing: Placing) -> list[Primitive]:
    """The back wall, the side wall on the far side, and the floor, as far as they are seen from inside."""
    if not solid.walls:
        return []
    ground, ink = placing.style.ground, placing.style.ink
    x = _far_side(plot, camera)
    y = plot.bottom if camera.view.tilt >= 0 else plot.y
    back = [(plot.x, plot.y, -depth), (plot.right, plot.y, -depth), (plot.right, plot.bottom, -depth),
            (plot.x, plot.bottom, -depth)]  # fmt: skip
    side = [(x, plot.y, 0.0), (x, plot.y, -depth), (x, plot.bottom, -depth), (x, plot.bottom, 0.0)]
    floor = [(plot.x, y, 0.0), (plot.right, y, 0.0), (plot.right, y, -depth), (plot.x, y, -depth)]
    strength = camera.view.strength
    return [
        Shape(_outline(corners, camera), mix(ground, ink, share).faded(strength))
        for corners, share in ((floor, 0.075), (side, 0.05), (back, 0.025))
    ]


def _far_side(plot: Rect, camera: Camera) -> float:
    """Where the side wall stands: the one whose inside is seen."""
    return plot.x if camera.view.turn < 0 else plot.right


def _outline(corners: list[tuple[float, float, float]], camera: Camera) -> Path:
    points = camera.project(np.array([(x, -y, z) for x, y, z in corners])).tolist()
    return recorded(quad, *((float(x), float(y)) for x, y in points))


# Shadows


class LitBodies(Struct, frozen=True, eq=False):
    """Bodies under a light from where they are looked at: how deep they are, and whether they are round."""

    depth: float
    camera: Camera
    light: Light
    is_round: bool

    @property
    def toward(self) -> Array:
        """The direction toward the light, in the model's own space."""
        made: Array = self.camera.rotation.T @ self.light.direction
        return made


def shadows(frame: Plane | Disc, marks: list[Mark], bodies: LitBodies) -> list[Primitive]:
    """Soft shadows on the ground: the floor below standing bars, else the plane behind all bodies."""
    if not marks:
        return []
    depth, camera, is_round, toward = bodies.depth, bodies.camera, bodies.is_round, bodies.toward
    strength = SHADOW * camera.view.strength
    fade = GROWN * depth
    if isinstance(frame, Plane) and not frame.lying:
        return _on_floor(frame, marks, bodies) if camera.view.tilt > 0.5 else []
    if is_round and isinstance(frame, Plane):
        return []
    slant = min(0.45, 1 / max(0.35, float(toward[2]))) * 0.35 * depth
    dx, dy = -float(toward[0]) * slant, float(toward[1]) * slant
    sheet = camera.sheet(-depth)
    primitives: list[Primitive] = []
    sectors = _merged([mark.sector for mark in marks if mark.sector is not None])
    others = [_ShadowCaster(mark) for mark in marks if mark.sector is None]
    dark, grows = _faded(fade, strength)
    for grow in grows:
        paths = [*(_grown_sector(s, grow, dx, dy) for s in sectors), *(caster.grown(grow, dx, dy) for caster in others)]
        grown = [path for path in paths if path is not None]
        if grown:
            primitives.append(Shape(seen(joined(grown), sheet), dark))
    return primitives


def _faded(fade: float, strength: float) -> tuple[Colour, list[float]]:
    """The colour of each of a shadow's outlines, and by how much each is grown: from its outer edge inward."""
    count = min(MOST, max(LEAST, math.ceil(2 * fade / SOFT)))
    dark = Colour(0.06, 0.07, 0.1, 1 - (1 - strength) ** (1 / count))
    return dark, [fade * (1 - 2 * i / (count - 1)) for i in range(count)]


def _merged(sectors: list[Sector]) -> list[Sector]:
    """Slices that follow each other without a gap as one."""
    made: list[Sector] = []
    for one in sorted(sectors, key=lambda s: (s.center, s.inner, s.outer, s.start)):
        last = made[-1] if made else None
        if last is not None and (last.center, last.inner, last.outer) == (one.center, one.inner, one.outer) and (
            one.start - last.end < 1e-6
        ):  # fmt: skip
            made[-1] = msgspec.structs.replace(last, end=max(last.end, one.end))
        else:
            made.append(one)
    return made


def _grown_sector(s: Sector, by: float, dx: float, dy: float) -> Path | None:
    """A sector grown (or shrunk) by so many points, and moved."""
    outer, inner = s.outer + by, max(0.0, s.inner - by)
    wide = math.degrees(by / max(1.0, s.outer)) if s.end - s.start < 359.9 else 0.0
    start, end = s.start - wide, s.end + wide
    if outer <= inner or end <= start:
        return None
    return recorded(wedge, Sector((s.center[0] + dx, s.center[1] + dy), inner, outer, start, min(end, start + 360)))


class _ShadowCaster:
    """What casts a shadow: a mark's outline where it is curved, else its box."""

    def __init__(self, mark: Mark) -> None:
        self._box = mark.bounds
        self._outline = outline_of(mark.path) if mark.path is not None and CURVE in mark.path.verbs else None

    def grown(self, by: float, dx: float, dy: float) -> Path | None:
        """The same grown (or shrunk) by so many points, and moved."""
        b = self._box
        grown = Rect(b.x - by + dx, b.y - by + dy, b.width + 2 * by, b.height + 2 * by)
        if grown.width <= 0 or grown.height <= 0:
            return None
        if self._outline is None or self._outline.empty:
            return recorded(box, grown, max(0.0, by))
        return self._outline.path(self._outline.inset(-by) + np.array([dx, dy]))


def _on_floor(frame: Plane, marks: list[Mark], bodies: LitBodies) -> list[Primitive]:
    """Footprints on the floor, drawn out away from the light."""
    depth, camera, toward = bodies.depth, bodies.camera, bodies.toward
    base = frame.along(max(frame.first.minimum, min(0.0, frame.first.maximum)))
    steep = 1 / max(0.5, float(toward[1]))
    held = [mark.bounds for mark in marks]
    boxes = np.array([(b.x, b.right, b.height) for b in held if abs(b.bottom - base) <= 1.0 and b.height >= 1.0])
    if not len(boxes):
        return []  # only what stands on the floor
    long = np.minimum(boxes[:, 2], depth) * 0.4 * steep
    dx, dz = -float(toward[0]) * long, -float(toward[2]) * long
    floor = camera.floor(base)
    made: list[Primitive] = []
    dark, grows = _faded(GROWN * depth, SHADOW * camera.view.strength)
    for grow in grows:
        left, right = boxes[:, 0] - grow + np.minimum(0.0, dx), boxes[:, 1] + grow + np.maximum(0.0, dx)
        front, back = grow + np.maximum(0.0, dz), -depth - grow + np.minimum(0.0, dz)
        feet = np.stack([left, -front, right, -back], axis=1)[(right > left) & (front > back)]
        if len(feet):
            sides = np.minimum(feet[:, 2] - feet[:, 0], feet[:, 3] - feet[:, 1])
            radii = sides / 2 if bodies.is_round else np.minimum(sides / 2, max(0.0, grow))
            made.append(Shape(_rounded_boxes(feet, radii, floor), dark))
    return made


ARC = 0.5522847498  # of the radius from a quarter circle's end to its control point
# A rounded box clockwise from where its upper side begins, as steps of (which side, how many radii inward from it).
CORNERS = (
    ((0, 1.0), (1, 0.0)), ((2, 1.0), (1, 0.0)),
    ((2, 1 - ARC), (1, 0.0)), ((2, 0.0), (1, 1 - ARC)), ((2, 0.0), (1, 1.0)), ((2, 0.0), (3, 1.0)),
    ((2, 0.0), (3, 1 - ARC)), ((2, 1 - ARC), (3, 0.0)), ((2, 1.0), (3, 0.0)), ((0, 1.0), (3, 0.0)),
    ((0, 1 - ARC), (3, 0.0)), ((0, 0.0), (3, 1 - ARC)), ((0, 0.0), (3, 1.0)), ((0, 0.0), (1, 1.0)),
    ((0, 0.0), (1, 1 - ARC)), ((0, 1 - ARC), (1, 0.0)), ((0, 1.0), (1, 0.0)),
)  # fmt: skip
_SIDES = np.array([side for spot in CORNERS for side, _ in spot])
_SHIFTS = np.array([share * (1.0 if side < 2 else -1.0) for spot in CORNERS for side, share in spot])


def _rounded_boxes(boxes: Array, radii: Array, sheet: SeenPlane) -> Path:
    """Boxes (n, 4: left, top, right, bottom) with rounded corners on a plane, as they are seen, as one outline."""
    places = boxes[:, _SIDES] + radii[:, None] * _SHIFTS  # x and y in turn
    flat = sheet.points(places.reshape(len(boxes), -1, 2)).ravel()
    return Path("MLCLCLCLCZ" * len(boxes), tuple(flat.tolist()))


# Rules and texts


def furnished(furniture: Furniture, frame: Plane | Disc, depth: float, camera: Camera) -> Furniture:
    """Rules and texts where the room's edges are seen."""
    front = camera.sheet(0.0)
    if isinstance(frame, Disc):
        over = tuple(_rule_on(rule, front) for rule in furniture.over)
        texts = tuple(_around_disc(text, frame, front) for text in furniture.texts)
        return Furniture((), over, texts, furniture.axes, furniture.unnamed)
    plot = frame.plot
    under = tuple(piece for rule in furniture.under for piece in _on_walls(rule, plot, depth, camera))
    over = tuple(_axis(rule, plot, depth, camera) for rule in furniture.over)
    beside_it = [beside(text, plot, depth, camera) for text in furniture.texts]
    return Furniture(under, over, tuple(_apart(beside_it)), furniture.axes, furniture.unnamed)


def _rule_on(rule: PlacedRule, sheet: SeenPlane) -> PlacedRule:
    (x1, y1), (x2, y2) = sheet.point(rule.x1, rule.y1), sheet.point(rule.x2, rule.y2)
    return msgspec.structs.replace(rule, x1=x1, y1=y1, x2=x2, y2=y2)


def _on_walls(rule: PlacedRule, plot: Rect, depth: float, camera: Camera) -> list[PlacedRule]:
    """A gridline on the back wall, and on over the side wall (or the floor) to the front."""
    back, front = camera.sheet(-depth), camera.sheet(0.0)
    made = [_rule_on(rule, back)]
    if rule.kind not in ("grid", "minor"):
        return made
    if abs(rule.y1 - rule.y2) < 1e-9:  # level: on over the side wall
        x, y = _far_side(plot, camera), rule.y1
    else:
        x, y = rule.x1, plot.bottom if camera.view.tilt >= 0 else plot.y
    (x1, y1), (x2, y2) = back.point(x, y), front.point(x, y)
    if math.hypot(x2 - x1, y2 - y1) > 0.3:
        made.append(msgspec.structs.replace(rule, x1=x1, y1=y1, x2=x2, y2=y2))
    return made


def _axis(rule: PlacedRule, plot: Rect, depth: float, camera: Camera) -> PlacedRule:
    """An axis runs along the edge its texts stand at; the line that bars stand on, along their front."""
    if abs(rule.x1 - rule.x2) < 1e-9 and min(abs(rule.x1 - plot.x), abs(rule.x1 - plot.right)) < 1e-6:
        return _rule_on(rule, camera.sheet(_edge_depth("left" if rule.x1 <= plot.x else "right", depth, camera)))
    return _rule_on(rule, camera.sheet(0.0))


def _edge_depth(side: str, depth: float, camera: Camera) -> float:
    """How deep the edge of the room lies that is seen outermost at a side."""
    turn, tilt = camera.view.turn, camera.view.tilt
    behind = {"left": turn > 0, "right": turn < 0, "below": tilt < 0, "above": tilt > 0}[side]
    return -depth if behind else 0.0


def beside(text: PlacedText, plot: Rect, depth: float, camera: Camera) -> PlacedText:
    """A text beside the plot keeps its distance from the edge of the room that it stands at."""
    box_ = text.bounds
    x, y = _anchor(text)
    if box_.y >= plot.bottom - SLACK:
        side, y0, x0 = "below", plot.bottom, min(max(x, plot.x), plot.right)
    elif box_.right <= plot.x + SLACK:
        side, x0, y0 = "left", plot.x, min(max(y, plot.y), plot.bottom)
    elif box_.x >= plot.right - SLACK:
        side, x0, y0 = "right", plot.right, min(max(y, plot.y), plot.bottom)
    elif box_.bottom <= plot.y + SLACK:
        side, y0, x0 = "above", plot.y, min(max(x, plot.x), plot.right)
    else:
        return moved_to(text, (x, y), camera.sheet(0.0).point(x, y))
    edge = camera.sheet(_edge_depth(side, depth, camera)).point(x0, y0)
    if side in ("left", "right") and text.kind != "tick":
        # What stands beside a row keeps to the height of its bodies' middle.
        edge = (edge[0], camera.sheet(-depth / 2).point(x0, y0)[1])
    return moved_to(text, (x0, y0), edge)


def _anchor(text: PlacedText) -> tuple[float, float]:
    """The point that a text is about: the middle of its box, or of the side it is aligned to."""
    x, y = text.bounds.center
    if text.angle:
        return (text.bounds.right if text.anchor == "end" else text.bounds.x), text.bounds.y
    return {"start": text.bounds.x, "middle": x, "end": text.bounds.right}[text.anchor], y


def _around_disc(text: PlacedText, disc: Disc, sheet: SeenPlane) -> PlacedText:
    """A text outside the rim keeps its distance from the rim's nearest point; others move with their own place."""
    x, y = text.bounds.center
    dx, dy = x - disc.center[0], y - disc.center[1]
    far = math.hypot(dx, dy)
    share = disc.radius / far if far > disc.radius else 1.0
    at = (disc.center[0] + dx * share, disc.center[1] + dy * share)
    return moved_to(text, at, sheet.point(*at))


def moved_to(text: PlacedText, at: tuple[float, float], to: tuple[float, float]) -> PlacedText:
    """A text moved as the point it stands at moved."""
    dx, dy = to[0] - at[0], to[1] - at[1]
    lines = tuple(PlacedLine(one.text, one.x + dx, one.y + dy, one.width) for one in text.lines)
    bounds = Rect(text.bounds.x + dx, text.bounds.y + dy, text.bounds.width, text.bounds.height)
    return msgspec.structs.replace(text, lines=lines, bounds=bounds)


def _apart(texts: list[PlacedText]) -> list[PlacedText]:
    """Rows' names that came to lie over each other: smaller, then every other one."""
    names = [text for text in texts if text.kind == "name"]
    if not _clash(names):
        return texts
    others = [text for text in texts if text.kind != "name"]
    for share in (0.92, 0.84, 0.76, 0.68):
        small = [_resized(text, share) for text in names]
        if any(text.size < FLOOR for text in small):
            break
        if not _clash(small):
            return [*others, *small]
    small = [_resized(text, max(0.76, min(1.0, FLOOR / text.size))) for text in names]
    every = 2
    while every < len(small) and _clash(small[::every]):
        every += 1
    return [*others, *small[::every]]


def _clash(names: list[PlacedText]) -> bool:
    return any(not text.angle and _widened(text).overlaps(other.bounds) for text, other in pairwise(names))


def _widened(text: PlacedText) -> Rect:
    """A text's box with the air that keeps it apart from its neighbours."""
    air, b = AIR * text.size, text.bounds
    return Rect(b.x - air, b.y, b.width + 2 * air, b.height)


def _resized(text: PlacedText, share: float) -> PlacedText:
    if text.angle:
        return text
    x, _ = _anchor(text)
    text_style = TextStyle(text.face, text.size * share, text.colour)
    lines = tuple(line.text for line in text.lines)
    if text.anchor == "middle":
        made = block(
            lines,
            text.kind,
            Anchor((x, text.bounds.y), "middle", "top"),
            text_style,
            TextOwner(row=text.row, layer=text.layer, key=text.key),
        )
    else:
        middle = text.bounds.center[1]
        made = block(
            lines,
            text.kind,
            Anchor((x, middle), text.anchor, "middle"),
            text_style,
            TextOwner(row=text.row, layer=text.layer, key=text.key),
        )
    return msgspec.structs.replace(made, panel=text.panel)
