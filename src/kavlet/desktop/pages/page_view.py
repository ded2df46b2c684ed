"""A page on its desk: where it lies, what is under a place of it, and how it is painted."""

import math

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QWidget

from kavlet.core.pages.arrangements import Seam, bays, seams
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.page import AnyItem
from kavlet.core.pipeline.page_items.page_picture import NO_PAGE_PICTURE, PagePicture
from kavlet.core.scene.primitives import Scene
from kavlet.core.scene.readers import as_read_by
from kavlet.core.values.errors import refusal
from kavlet.core.values.geometry import Rect
from kavlet.core.values.sizes import MM
from kavlet.desktop.pages.mouse_drags import NEAR, MouseDrag
from kavlet.desktop.pages.rulers import BREADTH, in_points, paint_rulers
from kavlet.desktop.stage.overlays import paint_problem
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours, qcolor
from kavlet.paint.painter import paint

DESK = 34  # pixels around the page
GRIP = 7.0  # pixels, of a handle
HANDLES = {"nw": (0, 0), "n": (0.5, 0), "ne": (1, 0), "e": (1, 0.5), "se": (1, 1), "s": (0.5, 1), "sw": (0, 1),
           "w": (0, 0.5)}  # fmt: skip


class PageView(QWidget):
    """The page in view at its true proportions, with its margins, what is chosen, and rulers around it."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._hold: MouseDrag | None = None
        self._moved = False
        self._behind: tuple[object, QPixmap] | None = None
        self.zoom = 0.0  # 0 fits the page into its place
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)  # it fills its ground itself

    @property
    def touched(self) -> str:
        """The item whose parts are touched, or whose words are typed; empty where none is."""
        return ""

    # What is shown

    @property
    def picture(self) -> PagePicture:
        """The page as it is shown."""
        return self._store.page_picture() if self._store.has_page else NO_PAGE_PICTURE

    @property
    def problem(self) -> str:
        """Why the page in view can't be drawn; empty where it can, or there is none."""
        return refusal(lambda: self._store.drawn_page) if self._store.has_page else ""

    @property
    def factor(self) -> float:
        """Pixels for a point."""
        page = self.picture.page
        if self.zoom:
            return self.zoom
        wide, tall = max(40, self.width() - 2 * DESK), max(40, self.height() - 2 * DESK)
        return min(wide / max(1.0, page.width), tall / max(1.0, page.height))

    def set_zoom(self, zoom: float) -> None:
        """Show so many pixels for a point; 0 fits the page into its place."""
        self.zoom = 0.0 if not zoom else min(8.0, max(0.1, zoom))
        page = self.picture.page
        self.setMinimumSize(
            QSize(0, 0)
            if not self.zoom
            else QSize(int(page.width * self.zoom) + 2 * DESK, int(page.height * self.zoom) + 2 * DESK)
        )
        self.update()

    def origin(self) -> QPointF:
        """Where the page's top left corner lies, in whole pixels."""
        page, factor = self.picture.page, self.factor
        return QPointF(
            math.floor(max(DESK, (self.width() - page.width * factor) / 2)),
            math.floor(max(DESK, (self.height() - page.height * factor) / 2)),
        )

    def on_screen(self, box: Rect) -> QRectF:
        """A box of the page in the widget's pixels."""
        at, factor = self.origin(), self.factor
        return QRectF(at.x() + box.x * factor, at.y() + box.y * factor, box.width * factor, box.height * factor)

    def on_page(self, at: QPointF) -> QPointF:
        """A place of the widget in the page's points."""
        origin = self.origin()
        return QPointF((at.x() - origin.x()) / self.factor, (at.y() - origin.y()) / self.factor)

    def item_at(self, at: QPointF) -> AnyItem | None:
        """The foremost item under a point of the page."""
        slack = NEAR / 2 / self.factor
        for item in reversed(self.picture.page.items):
            box = self.picture.boxes[item.id].inset(-slack, -slack, -slack, -slack)
            if box.x <= at.x() <= box.right and box.y <= at.y() <= box.bottom:
                return item
        return None

    def chart_of(self, item: str) -> str:
        """The id of the chart that an item shows; empty where it shows none, or is not there."""
        held = next((one for one in self.picture.page.items if one.id == item), None)
        return held.chart if isinstance(held, ChartFrame) else ""

    def _chosen_boxes(self) -> dict[str, Rect]:
        return {item: self.picture.boxes[item] for item in self._store.chosen.items if item in self.picture.boxes}

    def _handle_at(self, at: QPointF) -> str:
        """The handle of the only chosen item under a place of the widget."""
        boxes = self._chosen_boxes()
        if len(boxes) != 1 or self._store.items[0].locked:
            return ""
        box = self.on_screen(next(iter(boxes.values())))
        for name, (x, y) in HANDLES.items():
            place = QPointF(box.x() + x * box.width(), box.y() + y * box.height())
            if abs(place.x() - at.x()) <= NEAR and abs(place.y() - at.y()) <= NEAR:
                return name
        return ""

    def _grasped(self, place: QPointF, at: QPointF, item: AnyItem | None) -> tuple[str, Seam | None]:
        """The handle or the seam under the mouse: between two bays it is the seam, at an item's own sides the
        handle."""
        seam = self._seam_at(at)
        if item is not None and item.bay is None:
            seam = None
        handle = self._handle_at(place)
        if handle and seam is not None and item is None and self._store.items[0].bay is not None:
            handle = ""
        return handle, None if handle else seam

    def _seam_at(self, at: QPointF) -> Seam | None:
        page = self.picture.page
        for seam in seams(page):
            box = seam.box
            slack = max(0.0, NEAR / self.factor - min(box.width, box.height) / 2)
            held = box.inset(-slack, 0, -slack, 0) if seam.way == "beside" else box.inset(0, -slack, 0, -slack)
            if held.x <= at.x() <= held.right and held.y <= at.y() <= held.bottom:
                return seam
        return None

    # Painting

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        c = colours()
        painter.fillRect(self.rect(), qcolor(c.ground))
        if self.picture is NO_PAGE_PICTURE:
            if self.problem:
                paint_problem(self.problem, QRectF(self.rect()), painter)
            painter.end()
            return
        moving = self._hold.moving if self._hold is not None and self._moved else frozenset()
        if moving:
            painter.drawPixmap(0, 0, self._still(moving))
            self._paint_scene(self.picture.scene_of(moving), painter)
        else:
            boxes = list(self._chosen_boxes().values())
            self._paint_desk(self.picture.scene, painter, Rect.around_all(boxes) if boxes else None)
        painter.setClipRect(self._seen().adjusted(BREADTH, BREADTH, 0, 0))
        self._paint_marks(painter)
        painter.end()

    def _seen(self) -> QRectF:
        """What of the widget is seen, in pixels."""
        return QRectF(self.visibleRegion().boundingRect())

    def _still(self, moving: frozenset[str]) -> QPixmap:
        """All that stands still while items are moved, drawn once."""
        key = (self.size(), self.factor, self.devicePixelRatioF(), self._seen())
        if self._behind is None or self._behind[0] != key:
            pixmap = QPixmap(self.size() * self.devicePixelRatioF())
            pixmap.setDevicePixelRatio(self.devicePixelRatioF())
            inside = QPainter(pixmap)
            inside.fillRect(self.rect(), qcolor(colours().ground))
            self._paint_desk(self.picture.scene_without(moving), inside, None)
            inside.end()
            self._behind = (key, pixmap)
        return self._behind[1]

    def _paint_desk(self, scene: Scene, painter: QPainter, chosen: Rect | None) -> None:
        """The page with its shadow, edge and lines, and the rulers, with what is chosen marked on them."""
        page, c = self.picture.page, colours()
        sheet = self.on_screen(Rect(0.0, 0.0, page.width, page.height))
        painter.fillRect(sheet.translated(2, 3), QColor(0, 0, 0, 22))
        self._paint_scene(scene, painter)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(qcolor(c.line), 1))
        painter.drawRect(sheet)
        self._paint_lines(painter)
        paint_rulers(painter, self.on_screen, page.size, chosen, self._seen())

    def _paint_scene(self, scene: Scene, painter: QPainter) -> None:
        page = self.picture.page
        painter.save()
        painter.setClipRect(self.on_screen(Rect(0.0, 0.0, page.width, page.height)))
        painter.translate(self.origin())
        painter.scale(self.factor, self.factor)
        paint(as_read_by(scene, self._store.reader), painter, fine=not self._store.trying, crisp=True)
        painter.restore()

    def _paint_lines(self, painter: QPainter) -> None:
        """Margins, and bays that nothing fills."""
        page = self.picture.page
        faint = qcolor(colours().second)
        faint.setAlpha(90)
        painter.setPen(QPen(faint, 1, Qt.PenStyle.DotLine))
        if self._hold is not None or not page.items:
            painter.drawRect(self.on_screen(page.inner))
        taken = {item.bay for item in page.items}
        for rank, box in enumerate(bays(page)):
            if rank not in taken:
                painter.setPen(QPen(faint, 1, Qt.PenStyle.DashLine))
                painter.drawRect(self.on_screen(box))

    def _paint_marks(self, painter: QPainter) -> None:
        """What is chosen with its handles, the lines it snaps to, the rubber band, and what overflows."""
        c = colours()
        for item in self.picture.overflowing:
            box = self.on_screen(self.picture.boxes[item])
            painter.fillRect(QRectF(box.right() - 9, box.bottom() - 9, 9, 9), qcolor(c.alarm))
        chosen = self._store.chosen.items
        for item in chosen:
            if item in self.picture.boxes and item != self.touched:
                held = self.picture.page.item(item)
                style = Qt.PenStyle.DashLine if held.locked else Qt.PenStyle.SolidLine
                painter.setPen(QPen(qcolor(c.accent), 1.5, style))
                painter.drawRect(self.on_screen(self.picture.boxes[item]))
        boxes = self._chosen_boxes()
        if len(boxes) == 1 and not self._store.items[0].locked and not self.touched:
            box = self.on_screen(next(iter(boxes.values())))
            painter.setPen(QPen(qcolor(c.accent), 1.2))
            painter.setBrush(qcolor(c.panel))
            for x, y in HANDLES.values():
                painter.drawRect(QRectF(box.x() + x * box.width() - GRIP / 2, box.y() + y * box.height() - GRIP / 2,
                                        GRIP, GRIP))  # fmt: skip
            painter.setBrush(Qt.BrushStyle.NoBrush)
        if self._hold is not None:
            self._paint_hold(self._hold, painter)

    def _paint_hold(self, hold: MouseDrag, painter: QPainter) -> None:
        """The bay that what is moved would fill, the lines that it snaps to, and the rubber band."""
        c = colours()
        if hold.bay is not None:
            painter.setPen(QPen(qcolor(c.second), 2))
            painter.drawRect(self.on_screen(bays(self.picture.page)[hold.bay]))
        painter.setPen(QPen(qcolor(c.second), 1))
        for guide in hold.guides:
            low, high = guide.span
            area = self.on_screen(
                Rect(guide.at, low, 0, high - low) if guide.upright else Rect(low, guide.at, high - low, 0)
            )
            painter.drawLine(area.topLeft(), area.bottomRight())
            if guide.gap is not None:
                painter.drawText(area.center() + QPointF(4, -4), _length(guide.gap))
        if hold.band is not None:
            band = qcolor(c.accent)
            painter.setPen(QPen(band, 1))
            band.setAlpha(28)
            painter.fillRect(self.on_screen(hold.band), band)
            painter.drawRect(self.on_screen(hold.band))


def _length(points: float) -> str:
    """A length in the unit chosen."""
    return f"{points:.1f} pt" if in_points() else f"{points / MM:.1f} mm"
