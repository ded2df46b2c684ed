"""One thread beside the window's, for work that may take over 50 ms: reading files, the wall, encoding pictures.

A request is frozen, and its answer is taken only while nothing newer was asked for the same purpose. What lasts is
shown with its name and can be given up. Requests read immutable documents alone, so that nothing has to be locked.
"""

import threading
from collections.abc import Callable
from queue import Empty, SimpleQueue
from time import monotonic
from typing import Any

import shiboken6
from msgspec import Struct
from PySide6.QtCore import QObject, Qt, QTimer, Signal

from kavlet.core.messages import Message
from kavlet.core.values.cancellation import CancellableTask, running
from kavlet.core.values.errors import KavletError
from kavlet.desktop.thread_signal import ThreadSignal

PATIENCE = 0.03  # seconds the window waits itself, so that what is quick is done at once
SHOWN_AFTER = 300  # milliseconds after which work is shown


class Request(Struct, frozen=True, eq=False):
    """What is to be done, what for, and what then: with the answer, or with the error that says why there is none."""

    number: int
    purpose: str
    name: Message
    do: Callable[[], Any]
    then: Callable[[Any], object]
    failed: Callable[[str], object]
    work: CancellableTask
    asked: float = 0.0
    asker: QObject | None = None


class _Answer(Struct, frozen=True, eq=False):
    request: Request
    held: Any = None
    error: BaseException | None = None


class Worker(QObject):
    """Does requests one after the other. `busy` tells the name of what takes long, and None when nothing does;
    `went_on` how many parts of how many are done."""

    busy = Signal(object)
    went_on = Signal(int, int)
    _answered = Signal(object)

    def __init__(self, failed: Callable[[str], object], parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.patience = PATIENCE
        self._failed = failed
        self._queue: SimpleQueue[Request | None] = SimpleQueue()
        self._teller = ThreadSignal(self)
        self._stopped = False
        self._thread: threading.Thread | None = None
        self._latest: dict[str, int] = {}
        self._open: dict[int, Request] = {}
        self._answers: SimpleQueue[_Answer] = SimpleQueue()
        self._slow: set[str] = set()
        self._count = 0
        self._shown = QTimer(self)
        self._shown.setSingleShot(True)
        self._shown.setInterval(SHOWN_AFTER)
        self._shown.timeout.connect(self._show)
        self._answered.connect(self._take_all, Qt.ConnectionType.QueuedConnection)

    def ask(
        self, purpose: str, name: Message, do: Callable[[], Any], then: Callable[[Any], object],
        failed: Callable[[str], object] | None = None, asker: QObject | None = None,
    ) -> None:  # fmt: skip
        """Do something beside the window, then something with its answer, here; earlier requests for the same purpose
        are given up. What is done within a moment is answered before this returns; what took longer last time is not
        waited for. Once it has been stopped, nothing is done any more, nor where the `asker`, such as a sheet, has
        ended meanwhile."""
        if self._stopped:
            return
        self._count += 1
        request = Request(self._count, purpose, name, do, then, failed or self._failed, CancellableTask(), monotonic(),
                          asker)  # fmt: skip
        self._drop(purpose)
        self._latest[purpose] = request.number
        self._open[request.number] = request
        if self._thread is None:
            self._thread = threading.Thread(target=self._run, name="kavlet-worker", daemon=True)
            self._thread.start()
        self._queue.put(request)
        if purpose not in self._slow:
            self._wait(request)
        if self._open and not self._shown.isActive():
            self._shown.start()

    @property
    def working(self) -> bool:
        """Whether an answer is still expected."""
        return bool(self._open)

    def expects(self, purpose: str) -> bool:
        """Whether an answer is still expected for a purpose; what takes long may ask, from its own thread."""
        return any(request.purpose == purpose for request in list(self._open.values()))

    def goes_on(self, done: int, parts: int) -> None:
        """Tell, from the worker's own thread, how far something is."""
        self._teller.tell(lambda: self.went_on.emit(done, parts))

    def give_up(self, purpose: str | None = None) -> None:
        """Expect no answer any more: for one purpose, or for all."""
        self._drop(purpose)
        self._rest()

    def _drop(self, purpose: str | None) -> None:
        """Expect no answers, and end what is done for them."""
        for request in [request for request in self._open.values() if purpose in (None, request.purpose)]:
            request.work.give_up()
            del self._open[request.number]

    def stop(self) -> None:
        """Give all up, take nothing up any more, and end the thread as soon as what it does is done."""
        self._stopped = True
        self.give_up()
        self._queue.put(None)

    def _run(self) -> None:
        while True:
            request = self._queue.get()
            if request is None:
                return
            if request.number not in self._open:
                continue
            try:
                with running(request.work):
                    answer = _Answer(request, request.do())
            except BaseException as error:
                answer = _Answer(request, error=error)
            self._answers.put(answer)
            self._teller.tell(lambda: self._answered.emit(None))

    def _wait(self, request: Request) -> None:
        """Wait a moment for the answer, and take those that come meanwhile."""
        until = monotonic() + self.patience
        while request.number in self._open and (left := until - monotonic()) > 0:
            try:
                answer = self._answers.get(timeout=left)
            except Empty:
                return
            self._take(answer)

    def _take_all(self) -> None:
        while not self._answers.empty():
            self._take(self._answers.get())

    def _take(self, answer: _Answer) -> None:
        """Hand an answer on, unless nobody waits for it any more."""
        request = answer.request
        if self._open.pop(request.number, None) is None:
            return
        (self._slow.add if monotonic() - request.asked > self.patience else self._slow.discard)(request.purpose)
        self._rest()
        if request.asker is not None and not shiboken6.isValid(request.asker):
            return
        if isinstance(answer.error, KavletError):
            request.failed(str(answer.error))
        elif answer.error is not None:
            raise answer.error
        else:
            request.then(answer.held)

    def _rest(self) -> None:
        if not self._open:
            self._shown.stop()
            self.busy.emit(None)

    def _show(self) -> None:
        if self._open:
            self.busy.emit(next(iter(self._open.values())).name)
