"""The chart on its sheet: where it lies, and what of it is under a place."""

from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtWidgets import QWidget

from kavlet.core.interaction.parts import Part
from kavlet.core.layout.figure import Mark
from kavlet.core.pipeline.stages import NO_PICTURE, Picture
from kavlet.core.values.errors import refusal
from kavlet.core.values.geometry import Size
from kavlet.desktop.stage import hit_testing, sizing
from kavlet.desktop.store import Store

AIR = 20  # pixels around the sheet
LARGEST = 1.75  # pixels per point; a chart is not blown up further to fill the window


class ChartCanvas(QWidget):
    """Knows the chart in view, as large as it fits; keeps the last good one while there is none."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._picture = NO_PICTURE
        self.problem = ""
        self.zoom: float | None = None  # pixels per point; None fits the sheet into the view
        self._sizing: sizing.SizeDrag | None = None

    @property
    def picture(self) -> Picture:
        """The last chart that could be drawn; `NO_PICTURE` where there is none."""
        return self._picture

    def sizeHint(self) -> QSize:
        return QSize(640, 400)

    def refresh(self) -> None:
        """Run the chart through its stages, and repaint."""
        if not self._store.has_chart:
            self._picture, self.problem = NO_PICTURE, ""
        else:
            self.problem = refusal(self._show)
        self.setAccessibleDescription(self.problem or self._picture.figure.alt_text)
        self.update()

    def _show(self) -> None:
        self._picture = self._shown()

    def _shown(self) -> Picture:
        """The chart that is drawn. Raises KavletError where there is none, or its table does not fit."""
        return self._store.drawn

    # Places

    def sheet(self) -> QRectF:
        """Where the chart's sheet lies in the widget, in pixels."""
        size = self._picture.scene.size
        scale = self._sizing.scale if self._sizing is not None else self.zoom or self._fitting(size)
        width, height = size.width * scale, size.height * scale
        return QRectF((self.width() - width) / 2, (self.height() - height) / 2, width, height)

    def _fitting(self, size: Size) -> float:
        room_width, room_height = max(1.0, self.width() - 2 * AIR), max(1.0, self.height() - 2 * AIR)
        return min(room_width / size.width, room_height / size.height, LARGEST)

    def to_chart(self, at: QPointF) -> QPointF:
        """A place of the widget in the chart's points."""
        sheet = self.sheet()
        factor = sheet.width() / self._picture.scene.size.width
        return QPointF((at.x() - sheet.x()) / factor, (at.y() - sheet.y()) / factor)

    def from_chart(self, x: float, y: float) -> QPointF:
        """A place of the chart in the widget's pixels."""
        sheet = self.sheet()
        factor = sheet.width() / self._picture.scene.size.width
        return QPointF(sheet.x() + x * factor, sheet.y() + y * factor)

    def part_at(self, at: QPointF) -> Part | None:
        """The frontmost part at a place of the widget."""
        if self.problem or not self.sheet().contains(at):
            return None
        return hit_testing.part_at(self._picture.figure, self.to_chart(at))

    def mark_at(self, at: QPointF) -> Mark | None:
        """The frontmost visible mark at a place of the widget."""
        if self.problem or not self.sheet().contains(at):
            return None
        return hit_testing.mark_at(self._picture.figure, self.to_chart(at))
