"""Waiting until nothing moves: what is only tried out may change with every move of the mouse."""

from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer

from kavlet.desktop.store import Store

MOMENT = 150  # milliseconds without a change after which a trial counts as at rest


class Rest(QTimer):
    """Calls something at once when the document was edited, and a moment after the last change of a trial."""

    def __init__(self, store: Store, call: Callable[[], None], parent: QObject) -> None:
        super().__init__(parent)
        self._store, self._call = store, call
        self.setSingleShot(True)
        self.setInterval(MOMENT)
        self.timeout.connect(call)

    def wait(self) -> None:
        """The document has changed, or what is tried out."""
        if self._store.trying:
            self.start()
        else:
            self.stop()
            self._call()
