"""Work asks whether to go on: given up by another thread, or over its time."""

import pytest

from kavlet.core.messages import say
from kavlet.core.values.cancellation import CancellableTask, Cancelled, check_cancelled, running, time_limit
from kavlet.core.values.errors import KavletError
from kavlet.core.values.identity_cache import cached_by_identity


def test_nothing_is_asked_outside_work() -> None:
    check_cancelled()


def test_what_is_given_up_ends_where_it_asks_and_so_does_what_is_part_of_it() -> None:
    work = CancellableTask()
    with running(work):
        check_cancelled()
        with time_limit(60.0, say("long")):
            check_cancelled()
            work.give_up()
            with pytest.raises(Cancelled, match="nothing has changed"):
                check_cancelled()
    check_cancelled()


def test_a_limit_says_its_sentence_and_ends_with_its_block() -> None:
    with time_limit(-1.0, say("It takes too long.")):
        with pytest.raises(KavletError, match="It takes too long"):
            check_cancelled()
        with time_limit(60.0, say("inner")), pytest.raises(KavletError, match="It takes too long"):
            check_cancelled()
    check_cancelled()


def test_the_last_answers_are_kept_for_the_same_objects_alone() -> None:
    asked: list[object] = []

    @cached_by_identity(2)
    def first(of: list[int]) -> int:
        asked.append(of)
        return of[0]

    one, other, third = [1], [1], [3]
    assert [first(one), first(other), first(one)] == [1, 1, 1]
    assert len(asked) == 2  # equal is not the same
    assert [first(third), first(other)] == [3, 1]
    assert len(asked) == 3
    assert first(one) == 1
    assert len(asked) == 4  # it had been let go
