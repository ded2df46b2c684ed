"""Themes to choose from, each shown as the chart in view would look in it."""

from collections.abc import Sequence

import msgspec
from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QIcon, QPainter, QPixmap
from PySide6.QtWidgets import QWidget

from kavlet.core.document import edits
from kavlet.core.pipeline.stages import NO_PICTURE, picture_if_any
from kavlet.core.scene.primitives import Scene
from kavlet.desktop.dress.fields import PickField
from kavlet.desktop.store import Store
from kavlet.paint.painter import paint

PREVIEW = QSize(132, 78)
NONE = QSize(0, 0)


class ThemeField(PickField):
    """The pictures are drawn when the list opens, and are gone when it is closed."""

    def __init__(
        self, store: Store, name: str, choices: Sequence[tuple[str, str]], parent: QWidget | None = None
    ) -> None:
        super().__init__(name, choices, parent)
        self._store = store
        self.setIconSize(NONE)

    def preview(self, theme: str) -> QPixmap | None:
        """The chart in view, small, in a theme; None where there is no chart to draw."""
        chart = self._store.chart
        if not self._store.has_chart:
            return None
        dress = msgspec.structs.replace(chart.dress, theme=theme)
        document = edits.change_chart(self._store.document, chart.id, dress=dress)
        picture = picture_if_any(document, self._store.values, chart.id)
        return _small(picture.scene, self.devicePixelRatioF()) if picture is not NO_PICTURE else None

    def showPopup(self) -> None:
        self.setIconSize(PREVIEW)
        for index in range(self.count()):
            shown = self.preview(str(self.itemData(index)))
            if shown is not None:
                self.setItemIcon(index, QIcon(shown))
        view = self.view()
        view.setMinimumWidth(PREVIEW.width() + 150)
        super().showPopup()

    def hidePopup(self) -> None:
        super().hidePopup()
        for index in range(self.count()):
            self.setItemIcon(index, QIcon())
        self.setIconSize(NONE)


def _small(scene: Scene, factor: float) -> QPixmap:
    made = QPixmap(PREVIEW * factor)
    made.setDevicePixelRatio(factor)
    made.fill(Qt.GlobalColor.transparent)
    painter = QPainter(made)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    by = min(PREVIEW.width() / scene.size.width, PREVIEW.height() / scene.size.height)
    painter.translate((PREVIEW.width() - scene.size.width * by) / 2, (PREVIEW.height() - scene.size.height * by) / 2)
    painter.scale(by, by)
    paint(scene, painter)
    painter.end()
    return made
