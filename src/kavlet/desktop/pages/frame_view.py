"""A chart touched where it stands on the page: hovered, chosen, dragged, dressed and typed into as on the Stage."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPen

from kavlet.core.messages import say, words
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pipeline.page_items.page_context import chart_box
from kavlet.core.pipeline.stages import NO_PICTURE, Picture
from kavlet.core.values.errors import KavletError
from kavlet.desktop.pages.page_view import PageView
from kavlet.desktop.stage import sizing
from kavlet.desktop.stage.view import StageView
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours, qcolor

RIM = 5  # pixels between the chart and the line around it, which must not touch its words


class FrameView(StageView):
    """Lies over the chart frame it was opened on, and draws what the page draws there. Escape leaves it.

    `opened` tells whether a frame is open now.
    """

    opened = Signal(bool)

    def __init__(self, store: Store, canvas: PageView) -> None:
        self._canvas, self._item = canvas, ""
        super().__init__(store, canvas)
        self.setAccessibleName(words("Chart on the page"))
        self.hide()

    @property
    def item(self) -> str:
        """The id of the frame that is open; empty where none is."""
        return self._item

    def open(self, item: ChartFrame) -> None:
        """Touch the chart of a frame from now on."""
        if self._item == item.id or self._canvas.picture.made[item.id].picture is None:
            return
        self.close_frame()
        self._item = item.id
        self._store.show_chart(item.chart)
        self.refresh()
        self.show()
        self.raise_()
        self.setFocus(Qt.FocusReason.OtherFocusReason)
        self.opened.emit(True)

    def close_frame(self) -> None:
        """Leave the chart; the page has the keys again."""
        if not self._item:
            return
        self._item = ""
        self._store.select()
        self.hide()
        self._picture = NO_PICTURE
        self.opened.emit(False)

    def refresh(self) -> None:
        if not self._item:
            return
        composed_item = self._canvas.picture.made.get(self._item)
        if composed_item is None or self._canvas.chart_of(self._item) != self._store.chart.id:
            self.close_frame()
            return
        super().refresh()
        self.follow_page()

    def follow_page(self) -> None:
        """Lie where the frame lies now."""
        if self._item:
            self.setGeometry(self._area().adjusted(-RIM, -RIM, RIM, RIM).toAlignedRect())
            self.update()

    def _shown(self) -> Picture:
        composed_item = self._canvas.picture.made[self._item]
        if composed_item.picture is None:
            raise KavletError(say("The chart can’t be drawn here."), remedy=say("See its table."))
        return composed_item.picture

    def _area(self) -> QRectF:
        """Where the chart lies on the canvas."""
        picture = self._canvas.picture
        frame = picture.page.item(self._item)
        caption = isinstance(frame, ChartFrame) and bool(frame.caption)
        return self._canvas.on_screen(chart_box(picture.boxes[self._item], caption, picture.style))

    def sheet(self) -> QRectF:
        if not self._item:
            return QRectF(self.rect())
        area = self._area()
        return QRectF(area.topLeft() - QPointF(self.geometry().topLeft()), area.size())

    def _handle_at(self, at: QPointF) -> sizing.SizeDrag | None:
        del at
        return None  # the frame has the handles

    def _ground(self) -> QColor:
        return QColor(self._canvas.picture.style.ground.hex)

    def _paint_around(self, sheet: QRectF, painter: QPainter) -> None:
        painter.setPen(QPen(qcolor(colours().second), 1, Qt.PenStyle.DashLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(sheet.adjusted(1 - RIM, 1 - RIM, RIM - 1, RIM - 1))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and not self._store.selection and self._press is None:
            self._canvas.setFocus(Qt.FocusReason.OtherFocusReason)
            self.close_frame()
            return
        super().keyPressEvent(event)
