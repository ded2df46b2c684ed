"""The page on its desk: shown at its true proportions, its items chosen, moved, sized and typed in place."""

import math
from collections.abc import Iterable

from PySide6.QtCore import QEvent, QMimeData, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPixmap,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QWidget

from kavlet.core.building.paging.page import NO_PAGE_PICTURE, PagePicture
from kavlet.core.document import paging
from kavlet.core.messages import say, words
from kavlet.core.pages.arrangements import Seam, bays, seams
from kavlet.core.pages.fields import called
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Words
from kavlet.core.pages.page import AnyItem
from kavlet.core.pages.placing import bay_at
from kavlet.core.scene.primitives import Scene
from kavlet.core.values.geometry import Rect
from kavlet.core.values.sizes import MM
from kavlet.desktop.command import Command
from kavlet.desktop.look import colours, qcolor
from kavlet.desktop.pages.frame_view import FrameView
from kavlet.desktop.pages.holds import NEAR, Banding, Hold, Moving, Panning, SeamMoving, Sizing
from kavlet.desktop.pages.rulers import in_points, paint_rulers
from kavlet.desktop.pages.words_editor import WordsEditor
from kavlet.desktop.stage.view import LEAST_DRAG, dropped_of
from kavlet.desktop.store import Store
from kavlet.paint.painter import paint

MIME = "application/x-kavlet-chart"
DESK = 34  # pixels around the page
GRIP = 7.0  # pixels, of a handle
NUDGE, LEAP = 1.0, 10.0  # points
HANDLES = {"nw": (0, 0), "n": (0.5, 0), "ne": (1, 0), "e": (1, 0.5), "se": (1, 1), "s": (0.5, 1), "sw": (0, 1),
           "w": (0, 0.5)}  # fmt: skip
CURSORS = {"nw": Qt.CursorShape.SizeFDiagCursor, "se": Qt.CursorShape.SizeFDiagCursor,
           "ne": Qt.CursorShape.SizeBDiagCursor, "sw": Qt.CursorShape.SizeBDiagCursor,
           "n": Qt.CursorShape.SizeVerCursor, "s": Qt.CursorShape.SizeVerCursor,
           "e": Qt.CursorShape.SizeHorCursor, "w": Qt.CursorShape.SizeHorCursor}  # fmt: skip


class PageCanvas(QWidget):
    """`chart_wanted` asks for a chart's own place, `turned` for the page before or after, `menu_wanted` for a menu,
    `steps_wanted` for the periods of a step control; `dropped` tells what was dropped on which item, and where.
    """

    chart_wanted = Signal(str)
    turned = Signal(int)
    menu_wanted = Signal(object)
    fields_wanted = Signal()
    steps_wanted = Signal(str)
    dropped = Signal(str, str, object)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._hold: Hold | None = None
        self._moved = False
        self._clicked = ""
        self.keys: dict[str, Command] = {}  # commands that are its own while it has the keys
        self._behind: tuple[object, QPixmap] | None = None
        self.zoom = 0.0  # 0 fits the page into its place
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAcceptDrops(True)
        self.setAccessibleName(words("Page"))
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.NoContextMenu)
        self.editor = WordsEditor(store, self)
        self.frame = FrameView(store, self)
        store.follow(self.refresh)
        store.selected.connect(self._choice_moved)

    # What is shown

    @property
    def picture(self) -> PagePicture:
        """The page as it is shown."""
        return self._store.page_picture() if self._store.has_page else NO_PAGE_PICTURE

    def refresh(self) -> None:
        """Show the page in view as the document holds it."""
        if not self.isVisible():
            return
        held = {item.id for item in self.picture.page.items}
        if any(one not in held for one in self._store.chosen.items):
            self._store.choose_items(*(one for one in self._store.chosen.items if one in held))
        self.setAccessibleDescription(self.picture.scene.description)
        if self.frame.item and self.frame.item not in held:
            self.frame.close_frame()
        self.updateGeometry()
        self.update()

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self.refresh()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.editor.finish()
        self.frame.follow_page()

    def _choice_moved(self) -> None:
        items = self._store.items
        if items:
            name = self.picture.names.get(items[0].id, "")
            number = [item.id for item in self.picture.page.items].index(items[0].id) + 1 if self.picture.names else 0
            self.setAccessibleDescription(
                words("{kind}: {name}, {number} of {count}", kind=called(items[0]), name=name, number=number,
                      count=len(self.picture.page.items))
            )  # fmt: skip
        self.update()

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

    @property
    def _inside(self) -> bool:
        """Whether words are typed, or a chart's parts touched: the handles are out of the way then."""
        return self.editor.is_open or bool(self.frame.item)

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

    # The mouse

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if not self._store.has_page:
            return
        self.leave()
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        at = self.on_page(event.position())
        item = self.item_at(at)
        self._clicked = ""
        if event.button() == Qt.MouseButton.RightButton:
            if item is not None and item.id not in self._store.chosen.items:
                self._store.choose_items(*self._with_group(item))
            self.menu_wanted.emit(event.globalPosition().toPoint())
        elif event.button() == Qt.MouseButton.LeftButton:
            self._hold = self._held_by(event, at, item)

    def _held_by(self, event: QMouseEvent, at: QPointF, item: AnyItem | None) -> Hold:
        """What the button that went down at a point holds."""
        store, keys = self._store, event.modifiers()
        handle, seam = self._grasped(event.position(), at, item)
        if handle:
            mine = store.items[0]
            return Sizing(store, self, at, mine, self.picture.boxes[mine.id], handle)
        if seam is not None:
            return SeamMoving(store, self, at, seam)
        if item is None:
            if not keys & Qt.KeyboardModifier.ShiftModifier:
                store.choose_items()
            return Banding(store, self, at, store.chosen.items)
        whole = self.picture.made[item.id].whole
        if whole is not None and keys & Qt.KeyboardModifier.AltModifier and not item.locked:
            store.choose_items(item.id)
            return Panning(store, self, at, item.id, self.picture.boxes[item.id], whole)
        mine_too, held = self._with_group(item), store.chosen.items
        if keys & Qt.KeyboardModifier.ShiftModifier:
            rest = tuple(one for one in held if one not in mine_too)
            store.choose_items(*(rest if item.id in held else (*held, *mine_too)))
        elif item.id not in held:
            store.choose_items(*mine_too)
        elif len(held) == 1:
            self._clicked = item.id  # a second click, when the mouse stays where it is
        free = {one.id for one in store.items if not one.locked}
        boxes = {one: box for one, box in self._chosen_boxes().items() if one in free}
        return Moving(store, self, at, boxes, bool(keys & Qt.KeyboardModifier.ControlModifier))

    def _with_group(self, item: AnyItem) -> tuple[str, ...]:
        """An item with all of its group."""
        if not item.group:
            return (item.id,)
        return tuple(one.id for one in self.picture.page.items if one.group == item.group)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at, hold = self.on_page(event.position()), self._hold
        if hold is None:
            self._show_cursor(event.position(), at)
            return
        way = at - hold.at
        self._moved = self._moved or math.hypot(way.x(), way.y()) * self.factor >= LEAST_DRAG
        if self._moved:
            hold.move(at, event.modifiers())
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        hold, moved = self._let_go()
        if hold is None or event.button() != Qt.MouseButton.LeftButton:
            return
        if moved:
            hold.done()
        elif self._clicked:
            self.touch(self._clicked, event.position())
        self.update()

    def _let_go(self) -> tuple[Hold | None, bool]:
        """Hold nothing any more. Returns what was held, and whether the mouse has moved."""
        held = self._hold, self._moved
        self._hold, self._moved, self._behind = None, False, None
        return held

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self._let_go()
        item = self.item_at(self.on_page(event.position()))
        if item is not None:
            self.open(item)

    def touch(self, item: str, at: QPointF | None = None) -> None:
        """Touch the parts of a chart in its frame, as on the Stage; at a place, the part there is chosen."""
        held = self.picture.page.item(item)
        if not isinstance(held, ChartFrame):
            return
        self.frame.open(held)
        if at is not None and self.frame.item:
            self.frame.click(self.frame.part_at(at - QPointF(self.frame.pos())))

    def open(self, item: AnyItem) -> None:
        """What a double click does: type words in place, go to a chart's own place, else to the fields."""
        match item:
            case Words() if not item.locked:
                self.editor.open(item)
            case ChartFrame():
                self.leave()
                self.chart_wanted.emit(item.chart)
            case StepControl():
                self.steps_wanted.emit(item.id)
            case _:
                self._store.choose_items(item.id)
                self.fields_wanted.emit()

    def leave(self) -> None:
        """Be done with words that are typed, and with the chart that is touched."""
        self.editor.finish()
        self.frame.close_frame()

    def _show_cursor(self, place: QPointF, at: QPointF) -> None:
        item = self.item_at(at)
        handle, seam = self._grasped(place, at, item)
        if handle:
            self.setCursor(CURSORS[handle])
        elif seam is not None:
            self.setCursor(Qt.CursorShape.SplitHCursor if seam.way == "beside" else Qt.CursorShape.SplitVCursor)
        else:
            free = item is not None and not item.locked
            self.setCursor(Qt.CursorShape.SizeAllCursor if free else Qt.CursorShape.ArrowCursor)

    def wheelEvent(self, event: QWheelEvent) -> None:
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.set_zoom(self.factor * 1.15 ** (event.angleDelta().y() / 120))
            event.accept()
            return
        super().wheelEvent(event)

    # What is dropped

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if self._store.has_page and (_chart_of(event.mimeData()) or dropped_of(event.mimeData())):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        chart, what, at = _chart_of(event.mimeData()), dropped_of(event.mimeData()), self.on_page(event.position())
        if not (chart or what):
            return
        event.acceptProposedAction()
        if chart:
            self.put_chart(chart, at)
            return
        item = self.item_at(at)
        if isinstance(item, ChartFrame):
            self._store.choose_items(item.id)
            self.frame.open(item)
            self.frame.take_drop(event.position() - QPointF(self.frame.pos()), what)
        else:
            self.dropped.emit(item.id if item is not None else "", what, at)

    def put_chart(self, chart: str, at: QPointF | None = None) -> None:
        """A chart onto the page: into the bay at a point, freely about it, or into the next free bay."""
        store = self._store
        bay = bay_at(store.page, at.x(), at.y()) if at is not None else None
        entry = store.document.chart(chart)
        page = store.page
        wide = min(entry.width, 0.6 * page.width)
        tall = entry.height * wide / entry.width
        box = None if at is None or bay is not None else Rect(at.x() - wide / 2, at.y() - tall / 2, wide, tall)
        made = ""

        def put(document: object) -> object:
            nonlocal made
            frame = ChartFrame("", width=wide, height=tall, chart=chart)
            new, made = paging.put(document, page.id, frame, box)  # type: ignore[arg-type]
            return paging.into_bay(new, page.id, made, bay) if bay is not None else new

        if store.edit(say("put chart on page"), put):  # type: ignore[arg-type]
            store.choose_items(made)

    # Keys

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, store = event.key(), self._store
        arrows = {
            int(Qt.Key.Key_Left): (-1, 0), int(Qt.Key.Key_Right): (1, 0), int(Qt.Key.Key_Up): (0, -1),
            int(Qt.Key.Key_Down): (0, 1),
        }  # fmt: skip
        if key == Qt.Key.Key_Escape and self._hold is not None:
            self._let_go()
            store.try_out(None)
            self.update()
        elif key == Qt.Key.Key_Escape:
            store.choose_items()
        elif int(key) in arrows and store.chosen.items:
            step = LEAP if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else NUDGE
            way = arrows[int(key)]
            self.nudge(way[0] * step, way[1] * step)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_F2) and store.items:
            self.open(store.items[0])
        elif key in (Qt.Key.Key_PageUp, Qt.Key.Key_PageDown):
            self.turned.emit(-1 if key == Qt.Key.Key_PageUp else 1)
        elif key == Qt.Key.Key_Menu:
            self.menu_wanted.emit(self.mapToGlobal(self.rect().center()))
        elif not self._carry_out(event):
            super().keyPressEvent(event)

    def event(self, event: QEvent) -> bool:
        """Keys that are the table's commands elsewhere are the page's own while it has the keys."""
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.ShortcutOverride
            and _sequence(event) in self.keys
        ):
            event.accept()
            return True
        return super().event(event)

    def take_keys(self, commands: Iterable[Command]) -> None:
        """Carry out commands by their keys while it has the keys; Backspace deletes as Delete does."""
        plain = QKeySequence.SequenceFormat.PortableText
        self.keys = {QKeySequence(one.shortcut).toString(plain): one for one in commands if one.shortcut}
        if "Del" in self.keys:
            self.keys["Backspace"] = self.keys["Del"]

    def _carry_out(self, event: QKeyEvent) -> bool:
        """Carry out the command of a key. Returns whether there is one."""
        command = self.keys.get(_sequence(event))
        if command is not None and command.needs(self._store):
            self._store.guard(command.do)
        return command is not None

    def focusNextPrevChild(self, forward: bool) -> bool:
        """Tab goes from item to item, and out after the last."""
        items = [item.id for item in self.picture.page.items]
        held = self._store.chosen.items
        at = items.index(held[0]) if held and held[0] in items else (-1 if forward else len(items))
        to = at + (1 if forward else -1)
        if 0 <= to < len(items):
            self._store.choose_items(items[to])
            return True
        return super().focusNextPrevChild(forward)

    def nudge(self, dx: float, dy: float) -> None:
        """Move what is chosen by points."""
        free = {item.id for item in self._store.items if not item.locked}
        boxes = {item: Rect(box.x + dx, box.y + dy, box.width, box.height)
                 for item, box in self._chosen_boxes().items() if item in free}  # fmt: skip
        if boxes:
            self._store.edit_page(say("move item"), lambda document, page: paging.placed(document, page.id, boxes))

    # Painting

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        c = colours()
        painter.fillRect(self.rect(), qcolor(c.ground))
        if self.picture is NO_PAGE_PICTURE:
            painter.end()
            return
        page = self.picture.page
        sheet = self.on_screen(Rect(0.0, 0.0, page.width, page.height))
        painter.fillRect(sheet.translated(2, 3), QColor(0, 0, 0, 22))
        self._paint_page(painter, sheet)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(qcolor(c.line), 1))
        painter.drawRect(sheet)
        self._paint_lines(painter)
        self._paint_marks(painter)
        boxes = list(self._chosen_boxes().values())
        chosen = Rect.around_all(boxes) if boxes else None
        paint_rulers(painter, self.on_screen, page.size, chosen, QRectF(self.visibleRegion().boundingRect()))
        painter.end()

    def _paint_page(self, painter: QPainter, sheet: QRectF) -> None:
        """The page; while items are moved, all others from a picture made once."""
        picture, moving = self.picture, self._hold.moving if self._hold is not None and self._moved else frozenset()
        if not moving:
            self._paint_scene(picture.scene, painter, sheet)
            return
        key = (self.size(), self.factor, self.devicePixelRatioF())
        if self._behind is None or self._behind[0] != key:
            pixmap = QPixmap(self.size() * self.devicePixelRatioF())
            pixmap.setDevicePixelRatio(self.devicePixelRatioF())
            pixmap.fill(Qt.GlobalColor.transparent)
            inside = QPainter(pixmap)
            self._paint_scene(picture.scene_without(moving), inside, sheet)
            inside.end()
            self._behind = (key, pixmap)
        painter.drawPixmap(0, 0, self._behind[1])
        self._paint_scene(picture.scene_of(moving), painter, sheet)

    def _paint_scene(self, scene: Scene, painter: QPainter, sheet: QRectF) -> None:
        painter.save()
        painter.setClipRect(sheet)
        painter.translate(self.origin())
        painter.scale(self.factor, self.factor)
        paint(scene, painter, fine=not self._store.trying, crisp=True)
        painter.restore()

    def _paint_lines(self, painter: QPainter) -> None:
        """Margins, empty bays, and the bay that what is dragged would fill."""
        c, page = colours(), self.picture.page
        faint = qcolor(c.second)
        faint.setAlpha(90)
        painter.setPen(QPen(faint, 1, Qt.PenStyle.DotLine))
        if self._hold is not None or not page.items:
            painter.drawRect(self.on_screen(page.inner))
        taken = {item.bay for item in page.items}
        for rank, box in enumerate(bays(page)):
            if rank not in taken:
                painter.setPen(QPen(faint, 1, Qt.PenStyle.DashLine))
                painter.drawRect(self.on_screen(box))
            if self._hold is not None and rank == self._hold.bay:
                painter.setPen(QPen(qcolor(c.second), 2))
                painter.drawRect(self.on_screen(box))

    def _paint_marks(self, painter: QPainter) -> None:
        """What is chosen with its handles, the lines it snaps to, the rubber band, and what overflows."""
        c = colours()
        for item in self.picture.overflowing:
            box = self.on_screen(self.picture.boxes[item])
            painter.fillRect(QRectF(box.right() - 9, box.bottom() - 9, 9, 9), qcolor(c.alarm))
        chosen = self._store.chosen.items
        for item in chosen:
            if item in self.picture.boxes:
                held = self.picture.page.item(item)
                style = Qt.PenStyle.DashLine if held.locked else Qt.PenStyle.SolidLine
                painter.setPen(QPen(qcolor(c.accent), 1.5, style))
                painter.drawRect(self.on_screen(self.picture.boxes[item]))
        boxes = self._chosen_boxes()
        if len(boxes) == 1 and not self._store.items[0].locked and not self._inside:
            box = self.on_screen(next(iter(boxes.values())))
            painter.setPen(QPen(qcolor(c.accent), 1.2))
            painter.setBrush(qcolor(c.panel))
            for x, y in HANDLES.values():
                painter.drawRect(QRectF(box.x() + x * box.width() - GRIP / 2, box.y() + y * box.height() - GRIP / 2,
                                        GRIP, GRIP))  # fmt: skip
            painter.setBrush(Qt.BrushStyle.NoBrush)
        if self._hold is not None:
            self._paint_hold(self._hold, painter)

    def _paint_hold(self, hold: Hold, painter: QPainter) -> None:
        """The lines that what is moved snaps to, and the rubber band."""
        c = colours()
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


def _sequence(event: QKeyEvent) -> str:
    """The keys of an event, as commands name them."""
    return QKeySequence(event.keyCombination()).toString(QKeySequence.SequenceFormat.PortableText)


def _chart_of(data: QMimeData) -> str:
    """The id of a chart that is dragged; empty where it is something else."""
    return bytes(data.data(MIME).data()).decode() if data.hasFormat(MIME) else ""
