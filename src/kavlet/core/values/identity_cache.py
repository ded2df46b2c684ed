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
        answers: list[tuple[tuple[Any, ...], Result]] = []

        @wraps(do)
        def ask(*args: Arguments.args, **keywords: Arguments.kwargs) -> Result:
            key = (*args, *keywords.values())
            for known_key, answer in list(answers):
                if len(known_key) == len(key) and all(a is b for a, b in zip(known_key, key, strict=True)):
                    return answer
            result = do(*args, **keywords)
            answers[:] = [(key, result), *answers[: most - 1]]
            return result

        return ask

    return keeping
