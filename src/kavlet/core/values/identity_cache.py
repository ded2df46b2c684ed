"""What was computed lately, kept for the same objects: for what is asked several times of one immutable document."""

from collections.abc import Callable
from functools import wraps
from typing import Any, ParamSpec, TypeVar

Asked = ParamSpec("Asked")
Made = TypeVar("Made")


def lately(most: int) -> Callable[[Callable[Asked, Made]], Callable[Asked, Made]]:
    """Keep the last answers of a function of immutable objects. They are compared by identity, which takes no time
    however large they are, and held, so that no other object can take their place."""

    def keeping(do: Callable[Asked, Made]) -> Callable[Asked, Made]:
        kept: list[tuple[tuple[Any, ...], Made]] = []

        @wraps(do)
        def ask(*args: Asked.args, **named: Asked.kwargs) -> Made:
            key = (*args, *named.values())
            for held, answer in list(kept):
                if len(held) == len(key) and all(a is b for a, b in zip(held, key, strict=True)):
                    return answer
            made = do(*args, **named)
            kept[:] = [(key, made), *kept[: most - 1]]
            return made

        return ask

    return keeping
