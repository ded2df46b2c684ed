"""What can be done bit by bit in the window's thread, so that the window is served in between."""

from collections.abc import Callable, Iterator
from time import monotonic

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

A_MOMENT = 0.015  # seconds of work before the window is served


class IncrementalTask(QTimer):
    """Goes on with an iterator whenever the window has nothing else to do; `then` is called at its end.

    What is laid out inside `area` is not seen before all of it is there: what was seen last stays.
    """

    def __init__(self, then: Callable[[], object], area: QWidget) -> None:
        super().__init__(area)
        self._then, self._area = then, area
        self._bits: Iterator[object] = iter(())
        self.setSingleShot(True)
        self.timeout.connect(self._on)

    def begin(self, bits: Iterator[object]) -> None:
        """Do the first bits now, and the others when the window has been served."""
        self._bits = bits
        self._area.setUpdatesEnabled(False)
        self._on()

    def finish(self) -> None:
        """Do all that is left now; somebody wants it."""
        if self.isActive():
            self.stop()
            for _ in self._bits:
                pass
            self._end()

    def _on(self) -> None:
        until = monotonic() + A_MOMENT
        for _ in self._bits:
            if monotonic() > until:
                self.start()
                return
        self._end()

    def _end(self) -> None:
        self._area.setUpdatesEnabled(True)
        self._then()
