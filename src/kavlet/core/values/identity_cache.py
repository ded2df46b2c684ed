"""What was computed lately, kept for the same objects: for what is asked several times of one immutable document."""

from collections.abc import Callable
from functools import wraps
from typing import Any, ParamSpec, TypeVar

Arguments = ParamSpec("Arguments")
Result = TypeVar("Result")


def cached_by_identity(most: int) -> Callable[[Callable[Arguments, Result]], Callable[Arguments, Result]]:
    """Keep the last answers of a function of immutable objects. They are compared by identity, which takes no time
    however large they are, and held, so that no other object can take their place."""

    def keeping(do: Callable[Arguments, Result]) -> Callable[Arguments, Result]:
        kept: list[tuple[tuple[Any, ...], Result]] = []

        @wraps(do)
        def ask(*args: Arguments.args, **named: Arguments.kwargs) -> Result:
            key = (*args, *named.values())
            for held, answer in list(kept):
                if len(held) == len(key) and all(a is b for a, b in zip(held, key, strict=True)):
                    return answer
            made = do(*args, **named)
            kept[:] = [(key, made), *kept[: most - 1]]
            return made

        return ask

    return keeping
