"""Telling the window from another thread, until it ends."""

import threading
from collections.abc import Callable


class Teller:
    """Emits an object's signals from another thread. Qt does not guard an object that ends against that, so `end` comes
    before it does. What is emitted is queued to the window's thread, and takes no time."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._ended = False

    def tell(self, emit: Callable[[], object]) -> None:
        """Emit a signal; nothing after the end."""
        with self._lock:
            if not self._ended:
                emit()

    def end(self) -> None:
        """Nothing is told from here on; waits for what is being told."""
        with self._lock:
            self._ended = True
