"""The page under the hand: its items chosen, moved, sized, typed in place and put anew, by mouse and keys."""

import math
from collections.abc import Iterable

from PySide6.QtCore import QEvent, QMimeData, QPointF, Qt, Signal
from PySide6.QtGui import (
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QWidget

from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.document.pages.item_fields import headed
from kavlet.core.messages import say, words
from kavlet.core.pages.arrangements import seam_beside, with_seam_moved
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.item import MIN_SIDE
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Words
from kavlet.core.pages.page import AnyItem
from kavlet.core.pages.placing import bay_at
from kavlet.core.values.geometry import Rect
from kavlet.desktop.command import Command
from kavlet.desktop.pages.frame_view import FrameView
from kavlet.desktop.pages.mouse_drags import ItemDrag, ItemResize, MouseDrag, PictureDrag, RubberBand, SeamDrag
from kavlet.desktop.pages.page_view import PageView
from kavlet.desktop.pages.words_editor import WordsEditor
from kavlet.desktop.stage.view import MIN_DRAG, dropped_of
from kavlet.desktop.store import Store

MIME = "application/x-kavlet-chart"
NUDGE, LEAP = 1.0, 10.0  # points
CURSORS = {"nw": Qt.CursorShape.SizeFDiagCursor, "se": Qt.CursorShape.SizeFDiagCursor,
           "ne": Qt.CursorShape.SizeBDiagCursor, "sw": Qt.CursorShape.SizeBDiagCursor,
           "n": Qt.CursorShape.SizeVerCursor, "s": Qt.CursorShape.SizeVerCursor,
           "e": Qt.CursorShape.SizeHorCursor, "w": Qt.CursorShape.SizeHorCursor}  # fmt: skip


class PageCanvas(PageView):
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
        super().__init__(store, parent)
        self._clicked = ""
        self.keys: dict[str, Command] = {}  # commands that are its own while it has the keys
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAcceptDrops(True)
        self.setAccessibleName(words("Page"))
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.NoContextMenu)
        self.editor = WordsEditor(store, self)
        self.frame = FrameView(store, self)
        store.follow(self.refresh)
        store.viewed.connect(self.update)
        store.selected.connect(self._choice_moved)

    # What is shown

    def refresh(self) -> None:
        """Show the page in view as the document holds it."""
        if not self.isVisible():
            return
        held = {item.id for item in self.picture.page.items}
        if any(one not in held for one in self._store.chosen.items):
            self._store.choose_items(*(one for one in self._store.chosen.items if one in held))
        self.setAccessibleDescription(self.problem or self.picture.scene.description)
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
            held = self.picture.page.items
            number = [item.id for item in held].index(items[0].id) + 1 if held else 0
            self.setAccessibleDescription(
                words("{item}, {number} of {count}", item=headed(self._store.document, items[0]), number=number,
                      count=len(held))
            )  # fmt: skip
        self.update()

    @property
    def touched(self) -> str:
        return self.editor.item or self.frame.item

    # The mouse

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if not self._store.has_page:
            return
        self.leave()
        self._let_go()  # what was held as the mouse was let go somewhere else
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

    def _held_by(self, event: QMouseEvent, point: QPointF, item: AnyItem | None) -> MouseDrag:
        """What the button that went down at a point holds."""
        store, keys = self._store, event.modifiers()
        handle, seam = self._grasped(event.position(), point, item)
        if handle:
            first_item = store.items[0]
            return ItemResize(store, self, point, first_item, self.picture.boxes[first_item.id], handle)
        if seam is not None:
            return SeamDrag(store, self, point, seam)
        if item is None:
            if not keys & Qt.KeyboardModifier.ShiftModifier:
                store.choose_items()
            return RubberBand(store, self, point, store.chosen.items)
        whole = self.picture.made[item.id].whole
        if whole is not None and keys & Qt.KeyboardModifier.AltModifier and not item.locked:
            store.choose_items(item.id)
            return PictureDrag(store, self, point, item.id, self.picture.boxes[item.id], whole)
        mine_too, chosen_items = self._with_group(item), store.chosen.items
        if keys & Qt.KeyboardModifier.ShiftModifier:
            rest = tuple(item_ for item_ in chosen_items if item_ not in mine_too)
            store.choose_items(*(rest if item.id in chosen_items else (*chosen_items, *mine_too)))
        elif item.id not in chosen_items:
            store.choose_items(*mine_too)
        elif len(chosen_items) == 1:
            self._clicked = item.id  # a second click, when the mouse stays where it is
        free = {item_.id for item_ in store.items if not item_.locked}
        boxes = {item_: box for item_, box in self._chosen_boxes().items() if item_ in free}
        return ItemDrag(store, self, point, boxes, bool(keys & Qt.KeyboardModifier.ControlModifier))

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
        self._moved = self._moved or math.hypot(way.x(), way.y()) * self.factor >= MIN_DRAG
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

    def _let_go(self) -> tuple[MouseDrag | None, bool]:
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

        def put(document: Document) -> tuple[Document, str]:
            document, made = page_edits.put(
                document, page.id, ChartFrame("", width=wide, height=tall, chart=chart), box
            )
            return (page_edits.into_bay(document, page.id, made, bay) if bay is not None else document), made

        made = store.make(say("put chart on page"), put)
        if made is not None:
            store.choose_items(made)

    # Keys

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if not self.hasFocus():  # what a chart that is touched, or an editor, has no use for is nothing to the page
            event.ignore()
            return
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
            dx, dy = (side * step for side in arrows[int(key)])
            if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
                self.stretch(dx, dy)
            else:
                self.nudge(dx, dy)
        elif key == Qt.Key.Key_F2 and store.items and isinstance(store.items[0], ChartFrame):
            self.touch(store.items[0].id)
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
            and self.hasFocus()
            and _sequence(event) in self.keys
        ):
            event.accept()
            return True
        return super().event(event)

    def take_keys(self, commands: Iterable[Command]) -> None:
        """Carry out commands by their keys while it has the keys; Backspace deletes as Delete does."""
        plain = QKeySequence.SequenceFormat.PortableText
        self.keys = {
            QKeySequence(command.shortcut).toString(plain): command for command in commands if command.shortcut
        }
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
            self._store.edit_page(say("move item"), lambda document, page: page_edits.placed(document, page.id, boxes))

    def stretch(self, dx: float, dy: float) -> None:
        """Make what is chosen larger by points at its right and lower side; in a bay, move the seam there."""
        store, page = self._store, self._store.page
        free = [item for item in store.items if not item.locked]
        if len(free) == 1 and free[0].bay is not None:
            seam = seam_beside(page, free[0].bay, "beside" if dx else "above")
            if seam is not None:
                moved = with_seam_moved(page, seam, dx or dy)
                shares = moved.shares
                store.edit_page(
                    say("move seam"), lambda document, page: page_edits.change_page(document, page.id, shares=shares)
                )
            return
        boxes = {item.id: self.picture.boxes[item.id] for item in free}
        new = {item: Rect(box.x, box.y, max(4 * MIN_SIDE, box.width + dx), max(4 * MIN_SIDE, box.height + dy))
               for item, box in boxes.items()}  # fmt: skip
        if new:
            store.edit_page(say("size item"), lambda document, page: page_edits.placed(document, page.id, new))


def _sequence(event: QKeyEvent) -> str:
    """The keys of an event, as commands name them."""
    return QKeySequence(event.keyCombination()).toString(QKeySequence.SequenceFormat.PortableText)


def _chart_of(data: QMimeData) -> str:
    """The id of a chart that is dragged; empty where it is something else."""
    return bytes(data.data(MIME).data()).decode() if data.hasFormat(MIME) else ""
