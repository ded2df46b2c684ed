"""What is refused is told in one sentence, and nothing else is swallowed."""

import pytest

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError, attempt, refusal


def refused() -> None:
    raise KavletError(say("The file is damaged."), where="a.csv", remedy=say("Choose another."))


def test_a_refusal_is_one_text_with_its_place_and_remedy() -> None:
    assert refusal(refused) == "a.csv: The file is damaged. Choose another."
    assert refusal(lambda: None) == ""


def test_an_attempt_tells_why_and_whether_it_was_done() -> None:
    told: list[str] = []
    assert attempt(lambda: 1, told.append)
    assert told == []
    assert not attempt(refused, told.append)
    assert told == ["a.csv: The file is damaged. Choose another."]


def test_a_defect_is_no_refusal() -> None:
    with pytest.raises(ZeroDivisionError):
        attempt(lambda: 1 / 0, pytest.fail)
