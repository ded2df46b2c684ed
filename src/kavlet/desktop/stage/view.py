"""The chart on its sheet, drawn from its scene, to be touched: hovered, chosen, dragged, typed into."""

from PySide6.QtCore import QEvent, QMimeData, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QWheelEvent,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from kavlet.core.charts.chart import Chart
from kavlet.core.document.looks import look_edits, solid_edits
from kavlet.core.interaction.drags import DEGREES, Drag, begin, dragged, turning
from kavlet.core.interaction.parts import Part, boxes, marks_of, says, typed_part, walk
from kavlet.core.messages import say, words
from kavlet.core.pipeline.stages import NO_PICTURE
from kavlet.core.recipes.recipe import helper_title
from kavlet.core.scene.readers import as_read_by
from kavlet.desktop.stage import hit_testing, sizing
from kavlet.desktop.stage.chart_canvas import ChartCanvas
from kavlet.desktop.stage.in_place_editor import InPlaceEditor
from kavlet.desktop.stage.overlays import paint_chosen, paint_lit, paint_problem
from kavlet.desktop.stage.xray import paint_xray
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours, qcolor
from kavlet.paint.painter import paint

MIN_DRAG = 3.0  # pixels the mouse must go before a press becomes a drag
NUDGE, LEAP = 1.0, 10.0  # points an arrow key moves a label, and with Shift


class StageView(ChartCanvas):
    """Draws the chart in view as large as it fits; keeps the last good one, faded, while there is none.

    `picked` tells the row of a mark that was clicked, counted from the first row of figures; `menu_wanted` the part
    and the place of a context menu; `dropped` what was dropped on which part.
    """

    picked = Signal(int)
    menu_wanted = Signal(object, object)
    dropped = Signal(object, object)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(store, parent)
        self._hovered: Part | None = None
        self._lit: frozenset[int] = frozenset()
        self._press: tuple[QPointF, Part | None] | None = None
        self._drag: Drag | None = None
        self.dragging = False
        self.in_place = InPlaceEditor(store, self)
        self.setMouseTracking(True)
        self.setAcceptDrops(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(words("Stage"))
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)  # it fills its ground itself, and so repaints alone
        store.follow(self.refresh, view=True)
        store.selected.connect(self._selected)
        self.refresh()

    def _selected(self) -> None:
        parts = self._store.selection
        if parts:
            self.setAccessibleDescription(says(self._picture.figure, parts[0]))
        self.update()

    def light(self, rows: frozenset[int]) -> None:
        """Outline the marks of these rows: those whose cells are selected."""
        if rows != self._lit:
            self._lit = rows
            self.update()

    def set_zoom(self, zoom: float | None) -> None:
        """Pixels per point; None fits."""
        self.zoom = None if zoom is None else min(8.0, max(0.2, zoom))
        self.update()

    # Mouse

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._press is not None and self._sizing is not None:
            self.dragging = True
            keep = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            size = self._sizing.size(at - self._press[0], keep)
            self._store.try_out(sizing.sized(self._store.document, self._store.here.id, size))
            return
        if self._press is not None and self._drag is not None:
            way = at - self._press[0]
            self.dragging = self.dragging or way.manhattanLength() >= MIN_DRAG
            if self.dragging:
                self._show_drag(at)
            return
        part = self.part_at(at)
        if part != self._hovered:
            self._hovered = part
            self.setToolTip(self._hint(part))
            self.update()
        can = part is not None and part.kind != "plot"
        handle = self._handle_at(at)
        plain = Qt.CursorShape.PointingHandCursor if can else Qt.CursorShape.ArrowCursor
        self.setCursor(sizing.cursor(handle) if handle is not None else plain)

    def _handle_at(self, at: QPointF) -> sizing.SizeDrag | None:
        """The handle of the sheet at a place; it has some while nothing of the chart is chosen."""
        if self.problem or not self._store.has_chart or self._store.selection or self._picture is NO_PICTURE:
            return None
        return sizing.grasped(self.sheet(), at, self._picture.scene.size)

    def _hint(self, part: Part | None) -> str:
        """What a part is; in X-ray, a hovered helper's formula too."""
        if part is None or part.kind == "plot":
            return ""
        text = says(self._picture.figure, part)
        if self._store.xray and part.kind == "mark":
            layer = self._picture.build.chart.layer(part.key)
            for helper in self._picture.build.helpers:
                if layer is not None and helper.column == layer.values and 0 <= part.row < len(helper.formulas):
                    text += f"\n{helper_title(helper.name)}  {helper.formulas[part.row]}"
        return text

    def mousePressEvent(self, event: QMouseEvent) -> None:
        turns = event.button() == Qt.MouseButton.MiddleButton or (
            event.button() == Qt.MouseButton.LeftButton and bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
        )
        if not self._store.has_chart or not (turns or event.button() == Qt.MouseButton.LeftButton):
            return
        self.setFocus()
        at = event.position()
        part = self.part_at(at)
        self._press = (at, part)
        self.dragging = False
        self._sizing = self._handle_at(at) if not turns else None
        if self._sizing is not None:
            return
        place = self.to_chart(at)
        figure, chart = self._picture.figure, self._picture.build.chart
        if turns and not self.problem:
            self._begin_turn(chart)
            return
        self._drag = (
            begin(figure, chart, part, self._store.selection, place.x(), place.y()) if not self.problem else None
        )

    def _begin_turn(self, chart: Chart) -> None:
        """Turn the chart itself; where nothing of it can be solid, say so."""
        if self._store.guard(lambda: solid_edits.check(chart)):
            self._drag = turning(chart)
        else:
            self._press = None

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._press is None:
            return
        (at, part), drag, dragging, sized = self._press, self._drag, self.dragging, self._sizing
        self._press, self._drag, self.dragging, self._sizing = None, None, False, None
        if sized is not None:
            if dragging:
                self._store.apply(say("set size"), self._store.document)
            self.update()
            return
        if dragging and drag is not None:
            document = self._store.document
            self._store.apply(drag.name, document)
            return
        del at
        if event.button() == Qt.MouseButton.MiddleButton:
            return
        more = bool(event.modifiers() & (Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.ControlModifier))
        self.click(part, more)

    def click(self, part: Part | None, more: bool = False) -> None:
        """Choose a part: a mark's layer first, the mark itself when its layer is chosen already."""
        if part is not None and part.kind == "mark":
            layer = Part("layer", part.key)
            inside = any(one.kind in ("layer", "mark") and one.key == part.key for one in self._store.selection)
            self.picked.emit(part.row)
            part = part if inside else layer
        if part is None or part.kind == "plot":
            self._store.select(*((part,) if part is not None else ()))
        elif more:
            held = self._store.selection
            self._store.select(*(one for one in held if one != part), *(() if part in held else (part,)))
        else:
            self._store.select(part)

    def _show_drag(self, at: QPointF) -> None:
        if self._press is None or self._drag is None:
            return
        start, here = self.to_chart(self._press[0]), self.to_chart(at)
        looks = self._drag.looks(here.x() - start.x(), here.y() - start.y(), here.x(), here.y())
        self._store.try_out(dragged(self._store.document, self._store.here.id, looks))

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Words are typed where they stand: titles, labels, names, what series and axes are called."""
        text = hit_testing.text_at(self._picture.figure, self.to_chart(event.position())) if not self.problem else None
        part = typed_part(text) if text is not None else None
        if text is not None and part is not None:
            self.in_place.open(part, text.bounds)

    def wheelEvent(self, event: QWheelEvent) -> None:
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            now = self.zoom or self._fitting(self._picture.scene.size)
            self.set_zoom(now * (1.1 if event.angleDelta().y() > 0 else 1 / 1.1))
            return
        super().wheelEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        part = self.part_at(QPointF(event.pos()))
        if part is not None and part not in self._store.selection:
            self.click(part)
        self.menu_wanted.emit(part, event.globalPos())

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        data = event.mimeData()
        if dropped_of(data):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        what = dropped_of(event.mimeData())
        if what:
            event.acceptProposedAction()
            self.take_drop(event.position(), what)

    def take_drop(self, at: QPointF, what: str) -> None:
        """A colour, symbol or picture file dropped at a place of the widget."""
        self.dropped.emit(self.part_at(at), what)

    # Keys

    def event(self, event: QEvent) -> bool:
        """Tab walks through the parts before it leaves the Stage."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            keys = {int(Qt.Key.Key_Tab): 1, int(Qt.Key.Key_Backtab): -1}
            if int(event.key()) in keys and self._walk(keys[int(event.key())]):
                return True
        return super().event(event)

    def _walk(self, by: int) -> bool:
        if self.problem:
            return False
        parts = walk(self._picture.figure)
        held = self._store.selection[0] if self._store.selection else None
        if held is not None and held.kind in ("mark", "label"):
            held = Part("layer", held.key)
        at = parts.index(held) + by if held in parts else (0 if by > 0 else len(parts) - 1)
        if not 0 <= at < len(parts):
            self._store.select()
            return False
        self._store.select(parts[at])
        return True

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, held = event.key(), self._store.selection
        arrows = {
            int(Qt.Key.Key_Left): (-1, 0), int(Qt.Key.Key_Right): (1, 0), int(Qt.Key.Key_Up): (0, -1),
            int(Qt.Key.Key_Down): (0, 1),
        }  # fmt: skip
        if key == Qt.Key.Key_Escape and self._press is not None:
            self._press, self._drag, self.dragging, self._sizing = None, None, False, None
            self._store.try_out(None)
        elif key == Qt.Key.Key_Escape:
            out = Part("layer", held[0].key) if held and held[0].kind in ("mark", "label") else None
            self._store.select(*((out,) if out is not None else ()))
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace) and held:
            self._store.tell(words("Parts of a chart come from its figures and its look: hide them in Dress."))
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_F2) and held and held[0].kind in ("text", "label", "axis"):
            self.in_place.open(held[0])
        elif int(key) in arrows and (not held or held[0].kind == "plot"):
            self._turn(arrows[int(key)], 15.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0)
        elif int(key) in arrows and held:
            step = LEAP if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else NUDGE
            self._arrow(held[0], arrows[int(key)], step)
        else:
            super().keyPressEvent(event)

    def _arrow(self, part: Part, way: tuple[int, int], step: float) -> None:
        """Arrows go from mark to mark of a layer; they move labels and texts, and slices outward and back."""
        chart, picture = self._store.chart, self._picture
        if part.kind == "layer":
            marks = marks_of(picture.figure, part.key)
            if marks:
                self._store.select(marks[0])
                self.picked.emit(marks[0].row)
        elif part.kind == "mark":
            marks = marks_of(picture.figure, part.key)
            at = marks.index(part) + way[0] + way[1] if part in marks else 0
            if 0 <= at < len(marks):
                self._store.select(marks[at])
                self.picked.emit(marks[at].row)
        elif part.kind in ("label", "text"):
            box = next(iter(boxes(picture.figure, part)), None)
            drag = begin(picture.figure, picture.build.chart, part, (), box.x if box else 0.0, box.y if box else 0.0)
            if drag is not None:
                looks = drag.looks(way[0] * step, way[1] * step, 0.0, 0.0)
                self._store.edit(drag.name, lambda document: look_edits.set_looks(document, chart.id, looks))

    def _turn(self, way: tuple[int, int], step: float) -> None:
        """With nothing chosen, arrows turn and tilt a solid by degrees."""
        chart, picture = self._store.chart, self._picture
        if picture.build.chart.as_solid is not None and not self.problem:
            drag = turning(picture.build.chart)
            looks = drag.looks(way[0] * step / DEGREES, way[1] * step / DEGREES, 0.0, 0.0)
            self._store.edit(drag.name, lambda document: look_edits.set_looks(document, chart.id, looks))

    # Painting

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._ground())
        if self._picture is not NO_PICTURE:
            sheet = self.sheet()
            painter.save()
            painter.setOpacity(0.25 if self.problem else 1.0)
            painter.translate(sheet.topLeft())
            factor = sheet.width() / self._picture.scene.size.width
            painter.scale(factor, factor)
            reader = self._store.reader
            paint(as_read_by(self._picture.scene, reader), painter, fine=not self._store.trying, crisp=True)
            if not self.problem and reader != "last row":
                if self._store.xray:
                    paint_xray(self._picture, painter)
                paint_lit(self._picture.figure, self._lit, painter)
                hovered = self._hovered if self._press is None else None
                paint_chosen(self._picture.figure, self._store.selection, hovered, painter)
            painter.restore()
            self._paint_around(sheet, painter)
        if self.problem:
            paint_problem(self.problem, QRectF(self.rect()), painter)
        painter.end()

    def _ground(self) -> QColor:
        """What lies around the sheet."""
        return qcolor(colours().panel)

    def _paint_around(self, sheet: QRectF, painter: QPainter) -> None:
        """The sheet's edge, and its handles while nothing of the chart is chosen."""
        painter.setPen(QPen(qcolor(colours().line), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(sheet)
        if not (self.problem or self._store.selection):
            sizing.paint_handles(sheet, painter)


def dropped_of(data: QMimeData) -> str:
    """What is dragged that can fill a part: a colour, a symbol's name, the path of a picture; empty when none."""
    if data.hasColor():
        return QColor(data.colorData()).name()
    if data.hasFormat("application/x-kavlet-symbol"):
        return bytes(data.data("application/x-kavlet-symbol").data()).decode()
    for url in data.urls():
        if url.isLocalFile() and url.toLocalFile().lower().endswith((".svg", ".png", ".jpg", ".jpeg")):
            return str(url.toLocalFile())
    return ""
