"""Work that may be given up: what may take long asks now and then whether to go on."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from time import monotonic

from kavlet.core.messages import Message, say
from kavlet.core.values.errors import KavletError


class GivenUp(KavletError):  # noqa: N818 - not an error of anybody
    """The author did not want to wait any longer; nothing was changed."""

    def __init__(self) -> None:
        super().__init__(say("This was given up; nothing has changed."))


class Work:
    """One piece of work in one thread. Another thread may give it up; `seconds` limits what it may take."""

    def __init__(self, seconds: float = float("inf"), too_long: Message | None = None, within: "Work | None" = None):
        self.given_up = False
        self._until = monotonic() + seconds
        self._too_long = too_long
        self._within = within

    def give_up(self) -> None:
        """End it at the next time that it asks."""
        self.given_up = True

    def ask(self) -> None:
        """Raises GivenUp where it is given up, and KavletError where it has taken too long."""
        if self.given_up:
            raise GivenUp
        if self._too_long is not None and monotonic() > self._until:
            raise KavletError(self._too_long)
        if self._within is not None:
            self._within.ask()


class _Here(threading.local):
    work: Work | None = None


_here = _Here()


@contextmanager
def doing(work: Work) -> Iterator[None]:
    """Let what is done inside, in this thread, be a piece of work that may be given up."""
    before, _here.work = _here.work, work
    try:
        yield
    finally:
        _here.work = before


@contextmanager
def limited(seconds: float, too_long: Message) -> Iterator[None]:
    """Let what is done inside take no longer than that, and be given up with what it is part of."""
    with doing(Work(seconds, too_long, _here.work)):
        yield


def go_on() -> None:
    """Said by long loops, once a turn. Raises GivenUp or KavletError where the work is to end."""
    if _here.work is not None:
        _here.work.ask()
