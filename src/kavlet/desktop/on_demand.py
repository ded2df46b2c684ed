"""Parts of the window that are made when they are first asked for, and what waits for them."""

from collections.abc import Callable
from typing import Generic, TypeVar

Part = TypeVar("Part")


class OnDemand(Generic[Part]):
    """A part that is called for: the first call makes it. `made` is the part, None as long as nobody needed it."""

    def __init__(self, make: Callable[[], Part]) -> None:
        self._make = make
        self._waiting: list[Callable[[Part], object]] = []
        self.made: Part | None = None

    def __call__(self) -> Part:
        """The part, made now where it is not there yet."""
        if self.made is None:
            self.made = self._make()
            waiting, self._waiting = self._waiting, []
            for follow in waiting:
                follow(self.made)
        return self.made

    def when_made(self, follow: Callable[[Part], object]) -> None:
        """Call something with the part: now where it is there, else as soon as it is made."""
        if self.made is not None:
            follow(self.made)
        else:
            self._waiting.append(follow)
