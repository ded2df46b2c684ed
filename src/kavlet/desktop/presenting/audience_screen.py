"""The screen that the audience sees: a page as large as it fits, its neighbours ready, its figures open to a click."""

from collections.abc import Callable
from typing import ClassVar

from PySide6.QtCore import QEvent, QPoint, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QCloseEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPixmap
from PySide6.QtWidgets import QLineEdit, QWidget

from kavlet.core.document.interpolation import number
from kavlet.core.document.tables import input_parsing
from kavlet.core.messages import say, words
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.page import AnyItem
from kavlet.core.pipeline.editable_cell import EditableCell, cell_of_figure, cell_of_mark
from kavlet.core.pipeline.page_items.page_context import chart_box
from kavlet.core.pipeline.page_items.page_picture import NO_PAGE_PICTURE, PagePicture
from kavlet.core.pipeline.page_items.step_control import parts
from kavlet.core.spreadsheet.cell_input import shown_for_editing
from kavlet.core.text.numbers import decimal_sign
from kavlet.core.values.errors import KavletError, attempt
from kavlet.core.values.geometry import Rect
from kavlet.desktop.presenting.page_list import PageList
from kavlet.desktop.presenting.show import Show
from kavlet.desktop.stage import hit_testing
from kavlet.desktop.stylesheet import colours
from kavlet.paint.painter import paint

HIDES = 2_000  # milliseconds without a move after which the mouse is not seen
NEXT = {Qt.Key.Key_Right, Qt.Key.Key_Space, Qt.Key.Key_PageDown, Qt.Key.Key_MediaNext}
BACK = {Qt.Key.Key_Left, Qt.Key.Key_PageUp, Qt.Key.Key_Backspace, Qt.Key.Key_MediaPrevious}


class _NumberField(QLineEdit):
    """A number typed before the audience; its keys are its own, so that Return does not turn the page."""

    entered = Signal()
    left = Signal()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.entered.emit()
        elif event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)
            event.accept()


class AudienceScreen(QWidget):
    """Full screen. `ended` tells that it is over; `speaker_wanted` and `exchange_wanted` ask for the speaker's view,
    and for the two screens to be exchanged.
    """

    ended = Signal()
    speaker_wanted = Signal()
    exchange_wanted = Signal()
    KEYS: ClassVar[tuple[tuple[str, object], ...]] = (
        ("→ ← ␣", say("next and back")), ("↑ ↓", say("another period")), ("P", say("play the periods")),
        ("B", say("black")), ("Tab", say("list of pages")), ("S", say("speaker’s view")),
        ("X", say("exchange the screens")), ("Esc", say("end")),
    )  # fmt: skip

    def __init__(self, show: Show, parent: QWidget | None = None) -> None:
        super().__init__(parent, Qt.WindowType.Window)
        self.show_of = show
        self._ready: dict[str, tuple[object, QSize, QPixmap]] = {}
        self._typed = ""
        self._place: EditableCell | None = None
        self._said = ""
        self.setWindowTitle(words("Present"))
        self.setAccessibleName(words("Page that is presented"))
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self.field = _NumberField(self)
        self.field.setAccessibleName(words("New value"))
        self.field.setAlignment(Qt.AlignmentFlag.AlignHCenter)
        self.field.entered.connect(self._take)
        self.field.left.connect(self._close_over)
        self.field.hide()
        self.list = PageList(show, self)
        self.list.chosen.connect(self._go_to)
        self.list.left.connect(self._close_over)
        self.list.hide()
        self._idle = QTimer(self)
        self._idle.setSingleShot(True)
        self._idle.setInterval(HIDES)
        self._idle.timeout.connect(lambda: self.setCursor(Qt.CursorShape.BlankCursor))
        self._ahead = QTimer(self)
        self._ahead.setSingleShot(True)
        self._ahead.timeout.connect(self._prepare)
        show.moved.connect(self._moved)
        self._ahead.start(0)

    # What is seen

    def _moved(self) -> None:
        self.setAccessibleDescription(self.show_of.picture().scene.description)
        self.update()
        if not self.show_of.moving:
            self._ahead.start(0)

    def sheet(self, picture: PagePicture) -> QRectF:
        """Where a page lies on the screen: as large as it fits, in the middle."""
        size = picture.scene.size
        by = min(self.width() / size.width, self.height() / size.height)
        wide, tall = size.width * by, size.height * by
        return QRectF((self.width() - wide) / 2, (self.height() - tall) / 2, wide, tall)

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        show = self.show_of
        painter = QPainter(self)
        painter.fillRect(self.rect(), Qt.GlobalColor.black)
        picture = show.picture()
        if picture is not NO_PAGE_PICTURE and not show.black:
            if show.moving:
                self._paint(picture, painter)
            else:
                painter.drawPixmap(0, 0, self._pixmap(picture))
        if self._said:
            painter.setPen(Qt.GlobalColor.white)
            painter.drawText(self.rect().adjusted(0, 0, 0, -16),
                             Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom, self._said)  # fmt: skip
        painter.end()

    def _paint(self, picture: PagePicture, painter: QPainter) -> None:
        sheet = self.sheet(picture)
        painter.save()
        painter.setClipRect(sheet)
        painter.translate(sheet.topLeft())
        painter.scale(sheet.width() / picture.scene.size.width, sheet.height() / picture.scene.size.height)
        paint(picture.scene, painter, fine=not self.show_of.moving, crisp=True)
        painter.restore()

    def _pixmap(self, picture: PagePicture) -> QPixmap:
        """A page drawn once, as it fills the screen."""
        held = self._ready.get(picture.page.id)
        if held is not None and held[0] is picture and held[1] == self.size():
            return held[2]
        ratio = self.devicePixelRatioF()
        pixmap = QPixmap(self.size() * ratio)
        pixmap.setDevicePixelRatio(ratio)
        pixmap.fill(Qt.GlobalColor.black)
        painter = QPainter(pixmap)
        self._paint(picture, painter)
        painter.end()
        self._ready[picture.page.id] = (picture, self.size(), pixmap)
        return pixmap

    def _prepare(self) -> None:
        """Draw the next page and the one before, so that turning does not wait."""
        near = [self.show_of.picture(ahead) for ahead in (1, -1)]
        kept_ids = {picture_.page.id for picture_ in (*near, self.show_of.picture())}
        self._ready = {page: prepared for page, prepared in self._ready.items() if page in kept_ids}
        for picture in near:
            if picture is not NO_PAGE_PICTURE and self.isVisible():
                self._pixmap(picture)

    # Keys

    def _commands(self) -> dict[Qt.Key, Callable[[], object]]:
        """What each key does."""
        show, key = self.show_of, Qt.Key
        return {
            **dict.fromkeys(NEXT, self._forward), **dict.fromkeys(BACK, show.back),
            key.Key_Down: lambda: self._period(1), key.Key_Up: lambda: self._period(-1),
            key.Key_Home: lambda: show.go_to(0), key.Key_End: lambda: show.go_to(len(show.pages) - 1),
            key.Key_P: show.play, key.Key_B: show.darken, key.Key_Period: show.darken,
            key.Key_S: self.speaker_wanted.emit, key.Key_X: self.exchange_wanted.emit,
            key.Key_F1: self._say_keys, key.Key_Question: self._say_keys,
            key.Key_Escape: self._leave, key.Key_Return: self._forward, key.Key_Enter: self._forward,
        }  # fmt: skip

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, text = Qt.Key(event.key()), event.text()
        if text.isdigit():
            self._typed += text
            self._say(words("Page {number}", number=self._typed))
            return
        typed, self._typed = self._typed, ""
        self._say("")
        command = self._commands().get(key)
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and typed:
            self._go_to(int(typed) - 1)
        elif key == Qt.Key.Key_Space and event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.show_of.back()
        elif command is not None:
            command()
        else:
            super().keyPressEvent(event)

    def _forward(self) -> None:
        if not self.show_of.forward():
            self._say(words("This is the last page. Esc ends."))

    def _period(self, by: int) -> None:
        """Another period; another page where the page has none."""
        if self.show_of.steps is None:
            self.show_of.turn(by)
        else:
            self.show_of.step(by)

    def _leave(self) -> None:
        """Close what lies over the page; else it is over."""
        if self.field.isVisible() or self.list.isVisible():
            self._close_over()
        else:
            self.ended.emit()

    def _say_keys(self) -> None:
        self._say("    ".join(f"{keys} {meaning}" for keys, meaning in self.KEYS))

    def event(self, event: QEvent) -> bool:
        """Tab opens the list of pages."""
        is_key = isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress
        if is_key and event.key() == Qt.Key.Key_Tab:  # type: ignore[attr-defined]
            self.list.open(self.rect())
            return True
        return super().event(event)

    def _go_to(self, place: int) -> None:
        self._close_over()
        if not 0 <= place < len(self.show_of.pages):
            self._say(words("There are {count} pages.", count=len(self.show_of.pages)))
        self.show_of.go_to(place)

    def _say(self, sentence: str) -> None:
        if sentence != self._said:
            self._said = sentence
            self.update()

    def _close_over(self) -> None:
        self.setFocus(Qt.FocusReason.OtherFocusReason)
        self.list.hide()
        self.field.hide()
        self._place = None

    # The mouse

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        over = self._over(event.position())
        self.setCursor(Qt.CursorShape.PointingHandCursor if over is not None else Qt.CursorShape.ArrowCursor)
        self._idle.start()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.field.isVisible() or self.list.isVisible():
            self.take_typed()
            self.list.hide()
            return
        if event.button() == Qt.MouseButton.RightButton:
            self.show_of.back()
            return
        if event.button() != Qt.MouseButton.LeftButton:
            return
        over = self._over(event.position())
        if over is None:
            self.show_of.forward()
            return
        item, at = over
        attempt(lambda: self._touch(item, at, event.position()), self._say)

    def _over(self, place: QPointF) -> tuple[AnyItem, QPointF] | None:
        """The item with a figure or a step control under a place of the screen, and where on the page that is."""
        picture = self.show_of.picture()
        if picture is NO_PAGE_PICTURE or self.show_of.black:
            return None
        sheet = self.sheet(picture)
        by = sheet.width() / picture.scene.size.width
        at = QPointF((place.x() - sheet.x()) / by, (place.y() - sheet.y()) / by)
        for item in reversed(picture.page.items):
            box = picture.boxes[item.id]
            if not (box.x <= at.x() <= box.right and box.y <= at.y() <= box.bottom):
                continue
            if isinstance(item, StepControl):
                return item, at
            if isinstance(item, KeyFigure):
                return item, at
            if isinstance(item, ChartFrame) and self._part(item, at) is not None:
                return item, at
        return None

    def _part(self, item: ChartFrame, at: QPointF) -> tuple[str, int] | None:
        """The layer and row of the mark, or of the label, at a point of the page."""
        picture = self.show_of.picture()
        drawn = picture.made[item.id].picture
        if drawn is None:
            return None
        area = chart_box(picture.boxes[item.id], bool(item.caption), picture.style)
        part = hit_testing.part_at(drawn.figure, at - QPointF(area.x, area.y))
        return (part.key, part.row) if part is not None and part.kind in ("mark", "label") and part.row >= 0 else None

    def _touch(self, item: AnyItem, point: QPointF, place: QPointF) -> None:
        """Step where a step control was clicked; open a figure for another. Raises KavletError for one that is
        computed."""
        show = self.show_of
        picture = show.picture()
        if isinstance(item, StepControl):
            steps, where = show.steps, parts(item, picture.boxes[item.id], picture.style)
            if where.back is not None and _holds(where.back, point):
                show.step(-1)
            elif where.forth is not None and _holds(where.forth, point):
                show.step(1)
            elif steps is not None and where.line is not None:
                show.step_to(where.period_at(point.x(), len(steps.periods)))
            return
        if isinstance(item, KeyFigure):
            self._open(cell_of_figure(show.document, item), place)
            return
        if isinstance(item, ChartFrame):
            part, chart_picture = self._part(item, point), picture.made[item.id].picture
            if part is not None and chart_picture is not None:
                key, row = part
                mark = next(mark_ for mark_ in chart_picture.figure.marks if mark_.key == key and mark_.row == row)
                self._open(cell_of_mark(show.document, show.document.chart(item.chart), chart_picture, mark), place)

    def _open(self, cell: EditableCell, place: QPointF) -> None:
        """Type another number for a cell, where it was clicked."""
        document = self.show_of.document
        self._place = cell
        held = document.table(cell.table).columns[cell.column].cells[cell.row]
        value = number(held)
        sign = decimal_sign(document.locale)
        self.field.setText(shown_for_editing(held, sign) if value is not None else "")
        size = max(16, self.height() // 32)
        c = colours()
        self.field.setStyleSheet(
            f"QLineEdit {{ font-size: {size}px; padding: {size // 3}px; background: {c.panel}; color: {c.ink};"
            f" border: 2px solid {c.accent}; border-radius: 6px; }}"
        )
        wide, tall = 8 * size, self.field.sizeHint().height()
        corner = QPoint(int(place.x()) - wide // 2, int(place.y()) - tall - 8)
        self.field.setGeometry(max(0, min(self.width() - wide, corner.x())), max(0, corner.y()), wide, tall)
        self.field.show()
        self.field.selectAll()
        self.field.setFocus()

    def take_typed(self) -> None:
        """Take a number that is typed, as it is left; what is none stays in the field, and is said."""
        if self.field.isVisible():
            if self.field.isModified():
                self._take()
            else:
                self._close_over()

    def _take(self) -> None:
        """Take the number that was typed; what is none stays in the field, and is said."""
        cell = self._place
        if cell is not None and attempt(lambda: self._change(cell), self._say):
            self._say("")
            self._close_over()

    def _change(self, cell: EditableCell) -> None:
        """Put the number that was typed into its cell. Raises KavletError where it is none."""
        value = input_parsing.number_or_formula(self.field.text().strip(), self.show_of.document.locale)
        if isinstance(value, str):
            raise KavletError(say("Type a number."))
        self.show_of.change(cell, value)

    def closeEvent(self, event: QCloseEvent) -> None:
        event.ignore()
        self.ended.emit()


def _holds(box: Rect, at: QPointF) -> bool:
    """Whether a point of the page lies on a box, or so near that it is meant."""
    near = 0.25 * box.width
    return box.x - near <= at.x() <= box.right + near and box.y - near <= at.y() <= box.bottom + near
