"""Telling the window from another thread, until it ends."""

import threading
from collections.abc import Callable

import shiboken6
from PySide6.QtCore import QObject, Qt


class ThreadSignal:
    """Emits an object's signals from another thread. Qt does not guard an object that ends against that: here its end
    waits for what is being told, and nothing is told after it. What is emitted is queued to the window's thread, and
    takes no time."""

    def __init__(self, of: QObject) -> None:
        self._of = of
        self._lock = threading.Lock()
        self._ended = False
        of.destroyed.connect(self.end, Qt.ConnectionType.DirectConnection)

    def tell(self, emit: Callable[[], object]) -> None:
        """Emit a signal; nothing after the end."""
        with self._lock:
            if not self._ended and shiboken6.isValid(self._of):
                emit()

    def end(self) -> None:
        """Nothing is told from here on; waits for what is being told."""
        with self._lock:
            self._ended = True
