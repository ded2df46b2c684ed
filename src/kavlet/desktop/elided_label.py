"""A label of one line that gives up its end, not its neighbours, where room is short."""

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QLabel, QSizePolicy, QWidget


class ElidedLabel(QLabel):
    """Shows its text as far as there is room, then an ellipsis; the whole of it stands in its tooltip."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._whole = ""
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)

    def text(self) -> str:
        """The whole text, however much of it is shown."""
        return self._whole

    def setText(self, text: str) -> None:
        self._whole = text
        self.setAccessibleName(text)
        self._fit()

    def minimumSizeHint(self) -> QSize:
        return QSize(0, super().minimumSizeHint().height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        shown = self.fontMetrics().elidedText(self._whole, Qt.TextElideMode.ElideRight, self.width())
        super().setText(shown)
        self.setToolTip(self._whole if shown != self._whole else "")
