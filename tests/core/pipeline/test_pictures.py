"""Nothing that is drawn moves, changes its colour or is left out unnoticed: charts of all kinds are as they were.

After a change of looks that was wanted and looked at, `tools/pictures.py` tells them anew.
"""

import re
from collections.abc import Callable

import pytest

from kavlet.core.pipeline.stages import Picture
from tests.picturing import cases, held, told

HELD = held()
NUMBER = re.compile(r"-?\d+\.\d+")
CLOSE = 0.15  # points; what is told is rounded to a tenth
CASES = list(cases())


def same(old: str, new: str) -> bool:
    """Whether two lines tell the same, but for the last digit of their numbers."""
    if old == new:
        return True
    pairs = zip(NUMBER.findall(old), NUMBER.findall(new), strict=False)
    return NUMBER.sub("#", old) == NUMBER.sub("#", new) and all(abs(float(a) - float(b)) < CLOSE for a, b in pairs)


@pytest.mark.parametrize(("file", "name", "make"), CASES, ids=[f"{file}-{name}" for file, name, _ in CASES])
def test_a_chart_looks_as_it_did(file: str, name: str, make: Callable[[], Picture]) -> None:
    new, old = told(make()), HELD[file, name]
    differs = [f"was {one}\n is {other}" for one, other in zip(old, new, strict=False) if not same(one, other)]
    assert not differs, "\n".join(differs[:8])
    assert len(new) == len(old)


def test_every_place_is_a_number() -> None:
    assert [line for lines in HELD.values() for line in lines if re.search(r"\b(nan|inf)\b", line)] == []


def test_a_change_is_seen() -> None:
    line = "ML 44.5 298.5 620.2 298.5 none edge #ddd6cbd9 0.8"
    assert same(line, line.replace("298.5", "298.6"))
    assert not same(line, line.replace("298.5", "299.5"))
    assert not same(line, line.replace("#ddd6cb", "#ddd6cc"))


def test_every_told_chart_is_still_made() -> None:
    assert {(file, name) for file, name, _ in CASES} == set(HELD)
