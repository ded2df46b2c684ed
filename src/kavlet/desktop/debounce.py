"""Waiting until nothing moves: what is only tried out may change with every move of the mouse."""

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject, QTimer
from PySide6.QtWidgets import QWidget

from kavlet.desktop.store import Store

MOMENT = 150  # milliseconds without a change after which a trial counts as at rest
AFTER_EDIT = 1  # milliseconds: the chart is painted first


class Debounce(QTimer):
    """Lets a panel follow the document: after an edit once the chart is painted, a moment after the last change of a
    trial, and not at all while it is hidden, but as soon as it is seen."""

    def __init__(self, store: Store, follow: Callable[[], None], panel: QWidget) -> None:
        super().__init__(panel)
        self._store, self._follow, self._panel = store, follow, panel
        self._due = False
        self.setSingleShot(True)
        self.timeout.connect(self._when_seen)
        panel.installEventFilter(self)

    def wait(self) -> None:
        """The document has changed, or what is tried out."""
        self._due = True
        self.start(MOMENT if self._store.trying else AFTER_EDIT)

    def now(self) -> None:
        """Follow at once, where anything has changed: somebody wants to know."""
        if self._due:
            self._due = False
            self.stop()
            self._follow()

    def _when_seen(self) -> None:
        if self._panel.isVisible():
            self.now()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """The panel comes into view."""
        if event.type() == QEvent.Type.Show and self._due:
            self.start(AFTER_EDIT)
        return super().eventFilter(watched, event)
