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
from PySide6.QtWidgets import QApplication, QWidget

from kavlet.core.messages import Message, say
from kavlet.core.values.cancellation import CancellableTask, Cancelled, running
from kavlet.core.values.errors import KavletError
from kavlet.desktop.thread_signal import ThreadSignal

Made = TypeVar("Made")
PATIENCE = 0.02  # seconds the window waits itself, so that what is quick is done at once
SHOWN_AFTER = 300  # milliseconds after which it is shown that something takes long
_DRAGGED = frozenset({QEvent.Type.DragEnter, QEvent.Type.DragMove, QEvent.Type.Drop})
_TYPED = frozenset({QEvent.Type.KeyPress, QEvent.Type.KeyRelease, QEvent.Type.InputMethod})
_INPUT = frozenset(
    {
        QEvent.Type.KeyPress, QEvent.Type.KeyRelease, QEvent.Type.ShortcutOverride,
        QEvent.Type.MouseButtonPress, QEvent.Type.MouseButtonRelease, QEvent.Type.MouseButtonDblClick,
        QEvent.Type.MouseMove, QEvent.Type.Wheel, QEvent.Type.ContextMenu, QEvent.Type.Close, QEvent.Type.InputMethod,
        *_DRAGGED,
    }
)  # fmt: skip


class BackgroundEdit(QObject):
    """Does one thing at a time. `busy` tells the name of what takes long, and None when it is done."""

    busy = Signal(object)
    _done = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.patience = PATIENCE
        self._pool: ThreadPoolExecutor | None = None
        self._work: CancellableTask | None = None
        self._teller = ThreadSignal(self)
        self._kept: list[tuple[QObject, QEvent]] = []
        self._handing = False
        self._next = QTimer(self)
        self._next.setSingleShot(True)
        self._next.timeout.connect(self._hand_on)
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
        """Do something beside the window and wait for it. Raises what it raises, Cancelled where it was given up, and
        KavletError where something else is still being done."""
        if self._work is not None:
            raise KavletError(say("Something else is still being worked out."))
        work = self._work = CancellableTask()
        self._handing = False  # what is handed on has led to this; what comes now is kept

        def doing_it() -> Made:
            with running(work):
                return do()

        if self._pool is None:
            self._pool = ThreadPoolExecutor(1, "kavlet-attended")
        try:
            return self._waited(name, self._pool.submit(doing_it))
        finally:
            self._work = None
            self._carry_on()

    def stop(self) -> None:
        """End what is being done, and its thread; what was kept is let go."""
        self.give_up()
        self._kept.clear()
        self._next.stop()
        self._carry_on()
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
            future.add_done_callback(lambda _: self._teller.tell(self._done.emit))
            loop.exec()
        finally:
            self._done.disconnect(loop.quit)
            shown.stop()
            self.busy.emit(None)
        if not future.done():  # the program ends
            self.give_up()
            raise Cancelled
        return future.result()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Keep what is typed and clicked until it is done, and until all that was kept before is handed on."""
        kind = event.type()
        if self._handing or (kind not in _INPUT and kind != QEvent.Type.Shortcut):
            return False
        if kind == QEvent.Type.Shortcut:  # a command's, which is no widget
            self._kept.append((watched, event.clone()))
            return True
        if not isinstance(watched, QWidget) or any(_holds(one, watched) for one in self.free):
            return False
        if self.working and isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape:
            self.give_up()
            return True
        if kind in _DRAGGED:  # its data goes with it
            event.ignore()
            return True
        if kind == QEvent.Type.Close:
            event.ignore()
        last = self._kept[-1] if self._kept else (None, event)
        if kind == QEvent.Type.MouseMove and last[0] is watched and last[1].type() == kind:
            del self._kept[-1]
        if kind != QEvent.Type.ShortcutOverride:
            self._kept.append((watched, event.clone()))
        return True

    def _hand_on(self) -> None:
        """Hand on the first that was kept. It may lead to more that takes long; then the others wait for that too."""
        if self.working or not self._kept:
            return
        watched, event = self._kept.pop(0)
        if event.type() in _TYPED:  # goes to where the focus is by now
            watched = QApplication.focusWidget() or watched
        self._handing = True
        try:
            if shiboken6.isValid(watched):
                if event.type() == QEvent.Type.Close and isinstance(watched, QWidget):
                    watched.close()
                else:
                    QCoreApplication.sendEvent(watched, event)
        finally:
            self._handing = False
            self._carry_on()

    def _carry_on(self) -> None:
        """Hand on what was typed and clicked meanwhile, one after the other; from then on nothing is kept."""
        app = QCoreApplication.instance()
        if self._kept:
            self._next.start()
        elif app is not None and not self.working:
            app.removeEventFilter(self)


def _holds(one: QWidget, watched: QWidget) -> bool:
    """Whether a widget is, or holds, what an event is for."""
    return shiboken6.isValid(one) and (watched is one or one.isAncestorOf(watched))
