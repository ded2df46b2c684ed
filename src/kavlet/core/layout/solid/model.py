"""Makes a placed chart solid: bodies for its marks, seen from where the author looks, in the painter's order.

Nothing here knows a recipe. The flat marks, labels, rules and texts are placed as ever; then what can be a body becomes
one, and all else follows the plane it lies on. Seen straight from the front, the flat chart stays as it is.
"""

import math

import msgspec
import numpy as np
from msgspec import Struct

from kavlet.core.charts.solid import MAX_ANGLE, Solid
from kavlet.core.layout.draw import as_marked, named
from kavlet.core.layout.figure import Mark, PlacedText
from kavlet.core.layout.furniture import Furniture
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.planes.field import GridField
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.layout.solid.bodies import Bodies, bodies, is_body
from kavlet.core.layout.solid.labels import Placement
from kavlet.core.layout.solid.paint import (
    ball_items,
    body_items,
    cap_items,
    coat_of,
    seen_ball,
    under,
    wall_items,
    whole,
)
from kavlet.core.layout.solid.plane_projection import on_sheet
from kavlet.core.layout.solid.scene_box import LitBodies, beside, furnished, moved_to, shadows, walls
from kavlet.core.layout.words.labels import LabelRequest
from kavlet.core.layout.words.radial_labels import RadialLabel
from kavlet.core.scene.path import Path, joined, recorded
from kavlet.core.scene.primitives import Primitive
from kavlet.core.shapes.arc import at, disc
from kavlet.core.solid import order
from kavlet.core.solid.assembly import Assembly, SeenBody
from kavlet.core.solid.camera import Camera, SeenPlane, View
from kavlet.core.solid.cover import Cover, polygons
from kavlet.core.solid.light import Light
from kavlet.core.solid.pen import seen as on_plane
from kavlet.core.solid.sides import Wall
from kavlet.core.values.arrays import Array
from kavlet.core.values.geometry import Rect

FINE_STEPS = 16  # straight pieces of a curve whose area is taken
FINENESS = 0.5  # places to a point of the raster that labels look at
SeenFace = tuple[int, Path]


class SolidPanel(Struct, frozen=True):
    """What a panel becomes: the walls of its room, marks, their primitives and faces in the painter's order, furniture,
    labels and texts."""

    room: list[Primitive]
    marks: list[Mark]
    painted: tuple[Primitive, ...]
    faces: tuple[SeenFace, ...]
    furniture: Furniture
    labels: list[LabelRequest]
    fans: list[RadialLabel]
    texts: list[PlacedText]
    obstacles: list[Rect]
    front: tuple[float, ...]


def view_of(solid: Solid) -> View:
    """Where a chart is looked at from, with all that was set by hand held within bounds."""

    def held(angle: float) -> float:
        return min(MAX_ANGLE, max(-MAX_ANGLE, angle)) if math.isfinite(angle) else 0.0

    return View(held(solid.turn), held(solid.tilt), min(1.0, max(0.0, solid.perspective)))


class PanelModel:
    """The bodies of one placed panel, modelled once; `seen` shows them from any side."""

    def __init__(self, solid: Solid, frame: Plane | Disc, furniture: Furniture, placing: Placing) -> None:
        self._frame, self._furniture, self._to = frame, furniture, placing
        self.bodies: Bodies = bodies(solid, frame, placing)
        self._coats = [coat_of(part, placing.marks[part.mark], placing) for part in self.bodies.parts]
        worn = zip(self.bodies.parts, self._coats, strict=True)
        striped = frozenset(i for i, (part, surface) in enumerate(worn) if part.round and surface.drawn)
        self._assembly = Assembly([part.loft for part in self.bodies.parts], striped)
        self._areas = {part.mark: _area(placing.marks[part.mark].path) for part in self.bodies.parts}
        self._corners = self._content()
        middle = self._corners.mean(axis=0) if isinstance(frame, Plane) else np.array(
            [frame.center[0], -frame.center[1], -self.bodies.depth / 2]
        )  # fmt: skip
        low, high = self._corners.min(axis=0), self._corners.max(axis=0)
        self._pivot = (float(middle[0]), float(middle[1]), float(middle[2]))
        self._radius = float(np.linalg.norm(high - low)) / 2

    def _content(self) -> Array:
        """Points around all that has to stay in view."""
        depth = self.bodies.depth
        if isinstance(self._frame, Plane):
            boxes = self._assembly.boxes
            p = self._frame.plot
            low = np.array([p.x, -p.bottom, -depth])
            high = np.array([p.right, -p.y, 0.0])
            if len(boxes):
                low, high = np.minimum(low, boxes[:, 0].min(axis=0)), np.maximum(high, boxes[:, 1].max(axis=0))
            return np.array([[(low, high)[i][0], (low, high)[j][1], (low, high)[k][2]]
                             for i in (0, 1) for j in (0, 1) for k in (0, 1)])  # fmt: skip
        frame = self._frame
        shown = max(1.0, min(360.0, frame.frame.shown))
        rim = [at(frame.center, radius, frame.frame.start + shown * i / 48)
               for i in range(49) for radius in (frame.radius, frame.hole)]  # fmt: skip
        held = [(x, -y, z) for x, y in rim for z in (0.0, -depth)]
        if len(self._assembly.boxes):
            for body in self._assembly.boxes:
                held += [(float(body[i, 0]), float(body[j, 1]), z) for i in (0, 1) for j in (0, 1) for z in (0, -depth)]
        return np.array(held)

    def camera(self, view: View) -> Camera:
        """The camera of a view, such that all stays within the room of the flat chart."""
        corners = self._corners
        into = Rect.around([(float(x), float(-y)) for x, y, _ in corners])
        return Camera(view, self._pivot, self._radius).fitted(corners, into)

    def seen(self, solid: Solid) -> SolidPanel:
        """The panel from where its author looks."""
        placing, depth = self._to, self.bodies.depth
        camera = self.camera(view_of(solid))
        light = Light(solid.light_turn, solid.light_tilt, solid.ambient, solid.material)
        looks = self._assembly.seen(camera, light)
        if isinstance(self._frame, Disc):
            painted, faces = self._by_walls(looks, camera)
        else:
            painted, faces = self._by_boxes(looks, camera, light)
        marks, before, after = self._flat(camera, faces, looks)
        shown = [placing.marks[i] for i in dict.fromkeys(part.mark for part in self.bodies.parts)]
        ground = walls(solid, self._frame.plot, depth, camera, placing) if isinstance(self._frame, Plane) else []
        is_round = any(part.round for part in self.bodies.parts) and solid.form != "pyramid"
        shade = shadows(self._frame, shown, LitBodies(depth, camera, light, is_round)) if solid.shadow else []
        furniture = furnished(self._furniture, self._frame, depth, camera)
        labels, fans = self._labels(camera, faces, looks, marks)
        return SolidPanel(
            ground,
            marks,
            (*shade, *before, *painted, *after),
            tuple(faces),
            furniture,
            labels,
            fans,
            [self._text(text, camera) for text in placing.texts],
            [_on(rect, camera.sheet(0.0)) for rect in placing.obstacles],
            tuple(float(part) for part in camera.sheet(0.0).matrix.ravel()),
        )

    # Painting

    def _by_boxes(
        self, looks: list[SeenBody], camera: Camera, light: Light
    ) -> tuple[list[Primitive], list[SeenFace]]:  # fmt: skip
        """Bodies one after the other, each with all its faces: none of them reaches around another."""
        placing = self._to
        held = [self._assembly.boxes] if len(self._assembly.boxes) else []
        for ball in self.bodies.balls:
            c, r = np.array(ball.center), ball.radius
            low, high = c - r, c + r
            high[0 if ball.lying else 1] = ball.cut
            held.append(np.array([[low, high]]))
        painted: list[Primitive] = []
        faces: list[SeenFace] = []
        if not held:
            return painted, faces
        said: set[int] = set()
        for number in order.by_bodies(np.concatenate(held), camera):
            if number >= len(looks):
                ball = self.bodies.balls[number - len(looks)]
                fill = placing.marks[ball.mark].fill or placing.style.ink
                x, y, radius = seen_ball(ball, camera)
                faces.append((ball.mark, recorded(disc, (x, y), radius)))
                painted += self._named(ball_items(ball, fill, camera, light), ball.mark, said)
                continue
            part, body, surface = self.bodies.parts[number], looks[number], self._coats[number]
            sheet = camera.sheet(part.front)
            if part.round and surface.drawn:
                sheet = self._around(number, camera) or sheet
            items = body_items(part, body, surface, placing.marks[part.mark], sheet, camera.view.strength)
            faces.append((-1 if part.rest else part.mark, whole(body)))
            painted += self._named(items, part.mark, said)
        return painted, faces

    def _around(self, number: int, camera: Camera) -> SeenPlane | None:
        """The plane that a round body's fill is seen on."""
        low, high = self._assembly.boxes[number]
        x, y, z = ((low + high) / 2).tolist()
        half = (high - low) / 2
        if self.bodies.parts[number].loft.axis == "up":
            return camera.facing_plane((0.0, 1.0, 0.0), (x, y, z), float(half[0]), float(half[2]))
        return camera.facing_plane((1.0, 0.0, 0.0), (x, y, z), float(half[1]), float(half[2]))

    def _by_walls(self, looks: list[SeenBody], camera: Camera) -> tuple[list[Primitive], list[SeenFace]]:
        """All walls first, farthest first; then all fronts, which lie in one plane before them."""
        parts, sheet = self.bodies.parts, camera.sheet(0.0)
        said: set[int] = set()
        painted: list[Primitive] = []
        back = camera.sheet(-self.bodies.depth)
        for mark in self._to.marks:
            if mark.visible and mark.track and is_body(mark):
                for item in mark.track:
                    painted += on_sheet(item, back, 1.0, 0.0)
        faces: list[SeenFace] = []
        begun: set[int] = set()
        for n, piece in order.by_walls(looks, camera):
            part, surface = parts[n], self._coats[n]
            items: list[Primitive]
            if isinstance(piece, Wall):
                items = [] if n in begun else under(looks[n], surface)
                items += wall_items(part, piece, surface, sheet)
            else:
                items = cap_items(part, piece, surface, self._to.marks[part.mark], sheet, camera.view.strength)
            begun.add(n)
            faces.append((part.mark, piece.path))
            painted += self._named(items, part.mark, said)
        return painted, faces

    def _named(self, items: list[Primitive], number: int, said: set[int]) -> list[Primitive]:
        """Primitives with the name of their mark; the first of each mark says what it is."""
        mark = self._to.marks[number]
        made = as_marked(items, mark, "" if number in said else mark.says)
        if items:
            said.add(number)
        return made

    def _flat(
        self, camera: Camera, faces: list[SeenFace], looks: list[SeenBody]
    ) -> tuple[list[Mark], list[Primitive], list[Primitive]]:
        """All marks where they are seen; the primitives of those that stay flat, behind the bodies or before them."""
        placing = self._to
        paths: dict[int, list[Path]] = {}
        for number, path in faces:
            paths.setdefault(number, []).append(path)
        front, back = camera.sheet(0.0), camera.sheet(-self.bodies.depth)
        first = min((part.mark for part in self.bodies.parts), default=len(placing.marks))
        boxes = self._boxes(looks, camera)
        marks: list[Mark] = []
        before: list[Primitive] = []
        after: list[Primitive] = []
        for i, mark in enumerate(placing.marks):
            if i in boxes:
                if isinstance(self._frame, Plane) and mark.track and not any(part.rest for part in self.bodies.parts):
                    for item in mark.track:
                        before += on_sheet(item, back, 1.0, 0.0)
                marks.append(
                    msgspec.structs.replace(mark, path=joined(paths.get(i, [])), bounds=Rect.around_all(boxes[i]),
                                         flat=self._areas[i])
                )  # fmt: skip
                continue
            sheet = back if i < first else front
            items = [made for item in named(mark) for made in on_sheet(item, sheet, 1.0, 0.0)]
            (before if i < first else after).extend(items)
            outline = on_plane(mark.path, sheet) if mark.path is not None else None
            bounds = outline.bounds if outline is not None else _on(mark.bounds, sheet)
            marks.append(msgspec.structs.replace(mark, path=outline, bounds=bounds))
        return marks, before, after

    def _boxes(self, looks: list[SeenBody], camera: Camera) -> dict[int, list[Rect]]:
        """The boxes around all that is seen of each mark with bodies."""
        held: dict[int, list[Rect]] = {}
        for part, body in zip(self.bodies.parts, looks, strict=True):
            if not part.rest:
                held.setdefault(part.mark, []).append(body.bounds)
        for ball in self.bodies.balls:
            x, y, radius = seen_ball(ball, camera)
            held.setdefault(ball.mark, []).append(Rect(x - radius, y - radius, 2 * radius, 2 * radius))
        return held

    # Labels and texts

    def _labels(
        self, camera: Camera, faces: list[SeenFace], looks: list[SeenBody], marks: list[Mark]
    ) -> tuple[list[LabelRequest], list[RadialLabel]]:
        placing = self._to
        if not placing.labels and not placing.fans:
            return [], []
        low = [path.bounds for _, path in faces]
        area = Rect.around([point for box in low for point in ((box.x, box.y), (box.right, box.bottom))])
        cover = Cover(area, FINENESS)
        for number, path in faces:
            cover.paint(path, number + 1 if number >= 0 else len(placing.marks) + 1)
        placement = Placement(camera, cover, placing.marks, placing.style)
        for part, body, around in zip(self.bodies.parts, looks, self._assembly.boxes.tolist(), strict=True):
            if part.rest:
                continue
            placement.fronts[part.mark] = camera.sheet(part.front)
            placement.depths[part.mark] = (around[0][2], around[1][2])
            if part.round:
                axis = camera.sheet((around[0][2] + around[1][2]) / 2)
                placement.axes[part.mark] = axis, part.loft.axis == "up"
            else:
                placement.shades[part.mark] = next((cap.shade for cap in body.caps if cap.last), 1.0)
        for i, mark in enumerate(marks):
            if i in placement.fronts:
                placement.outlines[i] = mark.bounds
        labels = [placement.wanted(label, placing) for label in placing.labels]
        fans = [placement.fanned(one, self.bodies.depth) for one in placing.fans]
        return labels, fans

    def _text(self, text: PlacedText, camera: Camera) -> PlacedText:
        """A text that a layer set itself: beside the plot, or where its place is seen."""
        if isinstance(self._frame, Plane):
            return beside(text, self._frame.plot, self.bodies.depth, camera)
        x, y = text.bounds.center
        return moved_to(text, (x, y), camera.sheet(0.0).point(x, y))


def _area(path: Path | None) -> float:
    """The area of an outline, in square points, holes left out."""
    if path is None:
        return 0.0
    rings = [np.array(ring) for ring in polygons(path, FINE_STEPS)]
    return abs(sum(float(np.sum(r[:, 0] * np.roll(r[:, 1], -1) - np.roll(r[:, 0], -1) * r[:, 1])) for r in rings)) / 2


def _on(rect: Rect, sheet: SeenPlane) -> Rect:
    """The box around a flat box as it is seen."""
    corners = ((rect.x, rect.y), (rect.right, rect.y), (rect.right, rect.bottom), (rect.x, rect.bottom))
    return Rect.around([sheet.point(*corner) for corner in corners])


def modelled(
    solid: Solid, frame: Plane | Disc | GridField, furniture: Furniture, placing: Placing
) -> PanelModel | None:  # fmt: skip
    """The bodies of a panel; None where it has none, so that it stays flat."""
    if isinstance(frame, GridField) or not any(is_body(mark) for mark in placing.marks):
        return None
    return PanelModel(solid, frame, furniture, placing)
