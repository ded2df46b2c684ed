"""Work that may be given up: what may take long asks now and then whether to go on."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from time import monotonic

from kavlet.core.messages import Message, say
from kavlet.core.values.errors import KavletError


class Cancelled(KavletError):  # noqa: N818 - not an error of anybody
    """The author did not want to wait any longer; nothing was changed."""

    def __init__(self) -> None:
        super().__init__(say("This was given up; nothing has changed."))


class CancellableTask:
    """One piece of work in one thread. Another thread may give it up; `seconds` limits what it may take."""

    def __init__(
        self, seconds: float = float("inf"), too_long: Message | None = None, within: "CancellableTask | None" = None
    ):
        self.given_up = False
        self._until = monotonic() + seconds
        self._too_long = too_long
        self._within = within

    def give_up(self) -> None:
        """End it at the next time that it asks."""
        self.given_up = True

    def ask(self) -> None:
        """Raises Cancelled where it is given up, and KavletError where it has taken too long."""
        if self.given_up:
            raise Cancelled
        if self._too_long is not None and monotonic() > self._until:
            raise KavletError(self._too_long)
        if self._within is not None:
            self._within.ask()


class _ThreadTask(threading.local):
    work: CancellableTask | None = None


_thread = _ThreadTask()


@contextmanager
def running(work: CancellableTask) -> Iterator[None]:
    """Let what is done inside, in this thread, be a piece of work that may be given up."""
    before, _thread.work = _thread.work, work
    try:
        yield
    finally:
        _thread.work = before


@contextmanager
def time_limit(seconds: float, too_long: Message) -> Iterator[None]:
    """Let what is done inside take no longer than that, and be given up with what it is part of."""
    with running(CancellableTask(seconds, too_long, _thread.work)):
        yield


def check_cancelled() -> None:
    """Said by long loops, once a turn. Raises Cancelled or KavletError where the work is to end."""
    if _thread.work is not None:
        _thread.work.ask()
