"""What may take long between an edit and its picture: done beside the window's thread while the window is served.

It is done wholly or not at all. Until then the window shows what it showed before; what is typed and clicked meanwhile
is kept and carried out after it, in its order. Escape, or *Cancel* at the window's foot, gives it up.
"""

from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from concurrent.futures import TimeoutError as NotYet
from typing import TypeVar

import shiboken6
from PySide6.QtCore import QCoreApplication, QEvent, QEventLoop, QObject, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QWidget

from kavlet.core.messages import Message, say
from kavlet.core.values.errors import KavletError
from kavlet.core.values.work import GivenUp, Work, doing

Made = TypeVar("Made")
PATIENCE = 0.02  # seconds the window waits itself, so that what is quick is done at once
SHOWN_AFTER = 300  # milliseconds after which it is shown that something takes long
_INPUT = frozenset(
    {
        QEvent.Type.KeyPress, QEvent.Type.KeyRelease, QEvent.Type.ShortcutOverride,
        QEvent.Type.MouseButtonPress, QEvent.Type.MouseButtonRelease, QEvent.Type.MouseButtonDblClick,
        QEvent.Type.MouseMove, QEvent.Type.Wheel, QEvent.Type.ContextMenu, QEvent.Type.Close, QEvent.Type.InputMethod,
        QEvent.Type.DragEnter, QEvent.Type.DragMove, QEvent.Type.Drop,
    }
)  # fmt: skip


class Attended(QObject):
    """Does one thing at a time. `busy` tells the name of what takes long, and None when it is done."""

    busy = Signal(object)
    _done = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.patience = PATIENCE
        self._pool: ThreadPoolExecutor | None = None
        self._work: Work | None = None
        self._kept: list[tuple[QObject, QEvent]] = []
        self.free: list[QWidget] = []  # what can be clicked while something is done

    @property
    def working(self) -> bool:
        """Whether something is being done."""
        return self._work is not None

    def give_up(self) -> None:
        """End what is being done at the next time that it asks."""
        if self._work is not None:
            self._work.give_up()

    def __call__(self, name: Message, do: Callable[[], Made]) -> Made:
        """Do something beside the window and wait for it. Raises what it raises, GivenUp where it was given up, and
        KavletError where something else is still being done."""
        if self._work is not None:
            raise KavletError(say("Something else is still being worked out."))
        work = self._work = Work()

        def doing_it() -> Made:
            with doing(work):
                return do()

        if self._pool is None:
            self._pool = ThreadPoolExecutor(1, "kavlet-attended")
        try:
            return self._waited(name, self._pool.submit(doing_it))
        finally:
            self._work = None
            self._carry_on()

    def stop(self) -> None:
        """End what is being done, and its thread."""
        self.give_up()
        if self._pool is not None:
            self._pool.shutdown(wait=False)
            self._pool = None

    def _waited(self, name: Message, future: Future[Made]) -> Made:
        try:
            return future.result(self.patience)
        except NotYet:
            if future.done():  # just now, or the error is the work's own
                return future.result()
        app = QCoreApplication.instance()
        if app is None:
            return future.result()
        loop, shown = QEventLoop(), QTimer()
        shown.setSingleShot(True)
        shown.timeout.connect(lambda: self.busy.emit(name))
        shown.start(SHOWN_AFTER)
        self._done.connect(loop.quit, Qt.ConnectionType.QueuedConnection)
        app.installEventFilter(self)
        try:
            future.add_done_callback(lambda _: self._done.emit())
            loop.exec()
        finally:
            app.removeEventFilter(self)
            self._done.disconnect(loop.quit)
            shown.stop()
            self.busy.emit(None)
        if not future.done():  # the program ends
            self.give_up()
            raise GivenUp
        return future.result()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Keep what is typed and clicked until it is done."""
        if event.type() == QEvent.Type.Shortcut:  # a command's, which is no widget
            self._kept.append((watched, event.clone()))
            return True
        if event.type() not in _INPUT or not isinstance(watched, QWidget):
            return False
        if any(watched is one or one.isAncestorOf(watched) for one in self.free):
            return False
        if isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape:
            self.give_up()
            return True
        if event.type() == QEvent.Type.Close:
            event.ignore()
        moves = event.type() == QEvent.Type.MouseMove
        if moves and self._kept and self._kept[-1][0] is watched and self._kept[-1][1].type() == event.type():
            del self._kept[-1]
        if event.type() != QEvent.Type.ShortcutOverride:
            self._kept.append((watched, event.clone()))
        return True

    def _carry_on(self) -> None:
        """Hand on what was typed and clicked meanwhile."""
        kept, self._kept = self._kept, []
        for watched, event in kept:
            if not shiboken6.isValid(watched):
                continue
            if event.type() == QEvent.Type.Close and isinstance(watched, QWidget):
                QTimer.singleShot(0, watched, watched.close)
            else:
                QCoreApplication.postEvent(watched, event)
