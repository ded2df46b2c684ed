"""Picks the chart in view from a list; with small pictures where there are many."""

from PySide6.QtCore import QSize
from PySide6.QtGui import QIcon
from PySide6.QtWidgets import QComboBox, QSizePolicy, QWidget

from kavlet.core.messages import words
from kavlet.desktop.store import Store
from kavlet.desktop.thumbnails import ThumbnailQueue, thumb

MANY = 4  # charts, from which on names alone are not enough
PICTURE = QSize(92, 58)


class ChartPicker(QComboBox):
    """Its pictures are drawn one at a time once the list is open, so that opening it never waits."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._drawn: dict[str, object] = {}  # of which entry each chart's picture was made
        self.setAccessibleName(words("Chart"))
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(8)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        self.activated.connect(lambda i: store.show_chart(str(self.itemData(i))))
        self._pictures = ThumbnailQueue(store, self._draw_next, self)

    def refresh(self) -> None:
        """List the charts there are now."""
        charts, chart = self._store.document.charts, self._store.chart
        entries = [(self.itemData(i), self.itemText(i)) for i in range(self.count())]
        if entries != [(entry.id, entry.name) for entry in charts]:
            self.clear()
            self._drawn = {}
            for entry in charts:
                self.addItem(entry.name, entry.id)
        self.setCurrentIndex(self.findData(chart.id))

    def showPopup(self) -> None:
        many = self.count() >= MANY
        self.setIconSize(PICTURE if many else QSize(0, 0))
        super().showPopup()
        if many:
            self._pictures.begin()

    def hidePopup(self) -> None:
        self._pictures.stop()
        super().hidePopup()
        self.setIconSize(QSize(0, 0))  # the closed list shows the name alone

    def _draw_next(self) -> bool:
        document = self._store.document
        for i, chart in enumerate(document.charts):
            made_of = (chart, document.table(chart.table))
            held = self._drawn.get(chart.id)
            if isinstance(held, tuple) and all(a is b for a, b in zip(held, made_of, strict=True)):
                continue
            self._drawn[chart.id] = made_of
            picture = self._store.picture_of(chart.id)
            self.setItemIcon(i, QIcon(thumb(picture.scene, PICTURE, self.devicePixelRatioF())))
            return True
        return False
