"""Labels of solid bodies: upright, in the middle of the face that is seen, at the tip, or around the rim."""

import math
from collections.abc import Callable

import msgspec
import numpy as np

from kavlet.core.layout.figure import Mark, PlacedText
from kavlet.core.layout.marks.wedges import holds
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelRequest
from kavlet.core.layout.words.radial_labels import RadialLabel
from kavlet.core.shapes.arc import Sector, at
from kavlet.core.solid.camera import Camera, SeenPlane
from kavlet.core.solid.cover import Cover
from kavlet.core.solid.light import lit
from kavlet.core.styling.style import Style
from kavlet.core.values.geometry import Rect

MAX_STEPS = 14  # by which a label moves on to be clear of bodies, each a third of its size
WRAPPED = (0.8, 0.5)  # widths that a label in a slice may be wrapped to, as shares of how far it reaches
NEAR = 0.6  # of a label's box that must lie on its own mark, for a label inside


class Placement:
    """Where labels stand in one view: what is seen where, and how the plane of each mark's front lies."""

    def __init__(self, camera: Camera, cover: Cover, marks: list[Mark], style: Style) -> None:
        self.camera, self.cover, self.style = camera, cover, style
        self.numbers = {(mark.key, mark.row): i for i, mark in enumerate(marks) if mark.visible}
        self.marks = marks
        self.fronts: dict[int, SeenPlane] = {}
        self.axes: dict[
            int, tuple[SeenPlane, bool]
        ] = {}  # of round bodies: the plane of their axis, and whether it stands
        self.shades: dict[int, float] = {}
        self.outlines: dict[int, Rect] = {}
        self.depths: dict[int, tuple[float, float]] = {}
        self.front = camera.sheet(0.0)

    def wanted(self, label: LabelRequest, placing: Placing) -> LabelRequest:
        """A label with its spots where they are seen."""
        number = self.numbers.get((label.key, label.row))
        if number is None or number not in self.outlines:
            return self._beside(label, self.marks[number] if number is not None else None)
        sheet, mark = self.fronts.get(number, self.front), self.marks[number]
        layer = placing.chart.layer(label.key)
        own = layer is not None and layer.label is not None and bool(layer.label.colour)
        if mark.sector is not None and mark.kind.has_slices:
            return self._in_slice(label, mark.sector, number, WRAPPED)
        if mark.sector is not None:
            moved = self._moved(label, sheet)
            return moved if own else msgspec.structs.replace(moved, spots=tuple(map(self._legible, moved.spots)))
        spots: list[LabelSpot] = []
        for spot in label.spots:
            if _inside(spot, mark.bounds):
                spots.append(self._on_face(spot, number, sheet, own))
            else:
                spots.append(self._at_tip(spot, mark, number))
        # Rather over another body than not at all.
        spots += [msgspec.structs.replace(spot, fits=None) for spot in spots if math.isinf(spot.width)][:1]
        target = sheet.point(*label.target) if label.target is not None else None
        return msgspec.structs.replace(label, spots=tuple(spots), target=target)

    def _moved(self, label: LabelRequest, sheet: SeenPlane) -> LabelRequest:
        """A label on a plane."""
        spots = [self._on(spot, sheet) for spot in label.spots]
        target = sheet.point(*label.target) if label.target is not None else None
        return msgspec.structs.replace(label, spots=tuple(spots), target=target)

    def _on(self, spot: LabelSpot, sheet: SeenPlane) -> LabelSpot:
        x, y = sheet.point(spot.x, spot.y)
        leader = sheet.point(*spot.leader) if spot.leader is not None else None
        return msgspec.structs.replace(spot, x=x, y=y, leader=leader)

    def _legible(self, spot: LabelSpot) -> LabelSpot:
        """A spot in a colour that is read on the body behind it, if there is one."""
        number = self.cover.at(spot.x, spot.y) - 1
        if not 0 <= number < len(self.marks):
            return spot
        behind = self.style.behind(self.marks[number].dressed, self.marks[number].tone)
        return msgspec.structs.replace(spot, colour=self.style.on(behind))

    def _beside(self, label: LabelRequest, mark: Mark | None) -> LabelRequest:
        """A label of what stays flat, moved on the way it stands off until no body and no line is behind."""
        line = self._line(mark) if mark is not None else None
        moved = self._moved(label, self.front)
        spots: list[LabelSpot] = []
        for spot in moved.spots:
            if (spot.sx or spot.sy) and math.isinf(spot.width):
                fits = self._clear(spot.fits, line)
                for step in range(MAX_STEPS):
                    sx, sy = (math.copysign(0.3 * step, way) if way else 0.0 for way in (spot.sx, spot.sy))
                    spots.append(msgspec.structs.replace(spot, sx=spot.sx + sx, sy=spot.sy + sy, fits=fits))
            spots.append(spot)
        return msgspec.structs.replace(moved, spots=tuple(spots))

    def _line(self, mark: Mark) -> tuple[float, float, float, float] | None:
        """From where to where a reference line is seen."""
        if mark.line is None:
            return None
        start, end = mark.line
        return *self.front.point(*start), *self.front.point(*end)

    def _clear(
        self, held: Callable[[PlacedText], bool] | None, line: tuple[float, float, float, float] | None = None
    ) -> Callable[[PlacedText], bool]:  # fmt: skip
        """Whether a text lies on no body and on no line."""

        def fits(text: PlacedText) -> bool:
            if self.cover.within(text.bounds) - {0} or (line is not None and crossed(text.bounds, line)):
                return False
            return held is None or held(text)

        return fits

    def _on_face(self, spot: LabelSpot, number: int, sheet: SeenPlane, own: bool) -> LabelSpot:
        """Inside: upright on the face, as broad as the face is seen."""
        x, y = sheet.point(spot.x, spot.y)
        if number in self.axes:  # in the middle of what is seen of it, not on the line that is nearest
            plane, standing = self.axes[number]
            ax, ay = plane.point(spot.x, spot.y)
            x, y = (ax, y) if standing else (x, ay)
        by = sheet.near(spot.x, spot.y)
        mark = self.marks[number]
        colour = spot.colour
        if not own and mark.fill is not None:
            behind = self.style.behind(mark.dressed, mark.tone)
            colour = self.style.on(lit(behind, self.shades.get(number, 1.0)))
        held = spot.fits

        def fits(text: PlacedText) -> bool:
            return self._own_share(text, number) >= NEAR and (held is None or held(text))

        return msgspec.structs.replace(
            spot, x=x, y=y, width=spot.width * min(1.0, abs(by.a)), height=spot.height * min(1.0, abs(by.d)),
            fits=fits, colour=colour,
        )  # fmt: skip

    def _own_share(self, text: PlacedText, number: int) -> float:
        """Which share of a few places of a text lies on its own mark."""
        box = text.bounds
        xs, ys = (box.x + 1, box.center[0], box.right - 1), (box.y + 1, box.center[1], box.bottom - 1)
        found = [self.cover.at(x, y) == number + 1 for x in xs for y in ys]
        return sum(found) / len(found) if found[4] else 0.0

    def _at_tip(self, spot: LabelSpot, mark: Mark, number: int) -> LabelSpot:
        """Beyond the end: clear of all that is seen of the body, on no other one."""
        outline, end = self.outlines[number], mark.block.end if mark.block is not None else "up"
        rect = mark.bounds
        x, y = self.fronts.get(number, self.front).point(spot.x, spot.y)
        cx, cy = self._tip(mark, number)
        beyond_up, beyond_down = spot.y <= rect.y + 1e-6, spot.y >= rect.bottom - 1e-6
        if spot.x >= rect.right - 1e-6 and not (end in ("up", "down") and (beyond_up or beyond_down)):
            x, y = outline.right, cy
        elif spot.x <= rect.x + 1e-6 and not (end in ("up", "down") and (beyond_up or beyond_down)):
            x, y = outline.x, cy
        elif beyond_up:
            x, y = cx, outline.y
        elif beyond_down:
            x, y = cx, outline.bottom
        return msgspec.structs.replace(spot, x=x, y=y, fits=self._clear(spot.fits))

    def _tip(self, mark: Mark, number: int) -> tuple[float, float]:
        """The middle of a body's end as it is seen."""
        rect = mark.bounds
        end = mark.block.end if mark.block is not None else "up"
        x, y = {
            "up": (rect.center[0], rect.y), "down": (rect.center[0], rect.bottom),
            "right": (rect.right, rect.center[1]), "left": (rect.x, rect.center[1]),
        }[end]  # fmt: skip
        points = np.array([(x, -y, z) for z in self.depths.get(number, (0.0, 0.0))])
        middle = self.camera.project(points).mean(axis=0)
        return float(middle[0]), float(middle[1])

    def fanned(self, label: RadialLabel, depth: float) -> RadialLabel:
        """A wedge's label: inside on the face of its slice, or beside the rim that is seen."""
        sector = label.sector
        number = self.numbers.get((label.wanted.key, label.wanted.row))
        moved = self._in_slice(label.wanted, sector, number)
        rim = SolidRim(sector, self.camera, depth)
        return RadialLabel(moved, sector, label.colour, label.inside_first, rim)

    def _in_slice(
        self, label: LabelRequest, sector: Sector, number: int | None, narrow: tuple[float, ...] = ()
    ) -> LabelRequest:  # fmt: skip
        """A label inside a slice: upright, where its middle is seen; `narrow` tries shorter lines too."""
        moved = self._moved(label, self.front)
        fits = self._slice_fits(sector, number)
        upright = [msgspec.structs.replace(spot, angle=0.0, fits=fits) for spot in moved.spots if not spot.angle]
        thick = sector.outer - sector.inner
        wrapped = [msgspec.structs.replace(spot, width=min(spot.width, share * thick))
                   for share in narrow for spot in upright]  # fmt: skip
        return msgspec.structs.replace(moved, spots=(*upright, *wrapped))

    def _slice_fits(self, sector: Sector, number: int | None) -> Callable[[PlacedText], bool]:
        def fits(text: PlacedText) -> bool:
            if number is not None and self._own_share(text, number) < NEAR:
                return False
            return holds(sector, text, self.front.back)

        return fits


def _inside(spot: LabelSpot, rect: Rect) -> bool:
    """Whether a spot lies within the flat mark rather than beyond its end."""
    return (
        math.isfinite(spot.width)
        and rect.x - 0.01 <= spot.x <= rect.right + 0.01
        and rect.y - 0.01 <= spot.y <= rect.bottom + 0.01
    )


def crossed(box: Rect, line: tuple[float, float, float, float]) -> bool:
    """Whether a line goes through a box."""
    x1, y1, x2, y2 = line
    if abs(x2 - x1) < abs(y2 - y1):  # the same with the axes changed over
        x1, y1, x2, y2 = y1, x1, y2, x2
        box = Rect(box.y, box.x, box.height, box.width)
    low, high = max(min(x1, x2), box.x), min(max(x1, x2), box.right)
    if low > high or x1 == x2:
        return False
    at_low, at_high = (y1 + (x - x1) / (x2 - x1) * (y2 - y1) for x in (low, high))
    return min(at_low, at_high) <= box.bottom and max(at_low, at_high) >= box.y


class SolidRim:
    """The rim of a solid disc at one slice: where it is seen, and where a label beside it is clear of the body."""

    def __init__(self, sector: Sector, camera: Camera, depth: float) -> None:
        self._sector, self._camera, self._depth = sector, camera, depth
        middle = (sector.start + sector.end) / 2
        turn = math.radians(middle)
        normal = np.array([math.sin(turn), math.cos(turn), 0.0])
        x, y = at(sector.center, sector.outer, middle)
        self._side_seen = bool(camera.facing(normal, np.array([x, -y, 0.0])) > 0)
        self.middle = middle
        centre = camera.sheet(0.0).point(*sector.center)
        self.side = 1 if self.point(0.0)[0] - centre[0] >= -1e-6 else -1
        turns = [math.radians(angle) for angle in range(0, 360, 6)]
        ring = np.array([
            (sector.center[0] + sector.outer * math.sin(t), -(sector.center[1] - sector.outer * math.cos(t)), z)
            for t in turns for z in (0.0, -depth)
        ])  # fmt: skip
        self._outline = camera.project(ring)

    def point(self, out: float) -> tuple[float, float]:
        """A point so many points beyond the rim along the slice's middle: at mid-height where its side is seen."""
        z = -self._depth / 2 if self._side_seen else 0.0
        x, y = at(self._sector.center, self._sector.outer, self.middle)
        sx, sy = self._camera.project(np.array([x, -y, z])).tolist()
        if out == 0:
            return float(sx), float(sy)
        fx, fy = at(self._sector.center, 2 * self._sector.outer, self.middle)
        ox, oy = self._camera.project(np.array([fx, -fy, z])).tolist()
        long = math.hypot(ox - sx, oy - sy) or 1.0
        lead = self._depth / 2 * abs(math.sin(math.radians(self._camera.view.tilt))) if self._side_seen else 0.0
        far = out + lead * abs(oy - sy) / long
        return float(sx + (ox - sx) / long * far), float(sy + (oy - sy) / long * far)

    def clear(self, y: float, high: float, reach: float) -> float:
        """The x from which on, at that side, a label between y - high and y + high is clear of the body."""
        held = self._outline
        near = held[(held[:, 1] > y - high - reach) & (held[:, 1] < y + high + reach)]
        if not len(near):
            return self.point(reach)[0]
        edge = float(near[:, 0].max()) if self.side > 0 else float(near[:, 0].min())
        return edge + self.side * reach
