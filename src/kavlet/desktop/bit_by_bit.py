"""What can be done bit by bit in the window's thread, so that the window is served in between."""

from collections.abc import Callable, Iterator
from time import monotonic

from PySide6.QtCore import QObject, QTimer

A_MOMENT = 0.015  # seconds of work before the window is served


class BitByBit(QTimer):
    """Goes on with an iterator whenever the window has nothing else to do; `then` is called at its end."""

    def __init__(self, then: Callable[[], object], parent: QObject) -> None:
        super().__init__(parent)
        self._then = then
        self._bits: Iterator[object] = iter(())
        self.setSingleShot(True)
        self.timeout.connect(self._on)

    def begin(self, bits: Iterator[object]) -> None:
        """Do the first bits now, and the others when the window has been served."""
        self._bits = bits
        self._on()

    def finish(self) -> None:
        """Do all that is left now; somebody wants it."""
        if self.isActive():
            self.stop()
            for _ in self._bits:
                pass
            self._then()

    def _on(self) -> None:
        until = monotonic() + A_MOMENT
        for _ in self._bits:
            if monotonic() > until:
                self.start()
                return
        self._then()
