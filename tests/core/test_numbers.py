"""Numbers as text, and typed text as cells."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.figures.cells import Cell, Formula
from kavlet.core.figures.typed import shown_for_editing, typed
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import PERCENT, PLAIN, NumberText


@pytest.mark.parametrize(
    ("value", "how", "locale", "text"),
    [
        (18400.0, PLAIN, "en", "18,400"),
        (18400.0, PLAIN, "de", "18.400"),
        (8682.5, PLAIN, "en", "8,682.5"),
        (0.375, PERCENT, "en", "37.5 %"),
        (0.2995, PERCENT, "en", "30 %"),
        (0.016847, PERCENT, "de", "1,7 %"),
        (-1234.5, PLAIN, "en", "−1,234.5"),
        (-0.001, PLAIN, "en", "0"),
        (1.005, PLAIN, "en", "1.01"),
        (2.5, NumberText(most_decimals=0), "en", "3"),
        (5.0, NumberText(least_decimals=2, prefix="€ "), "en", "€ 5.00"),
        (math.nan, PLAIN, "en", ""),
        (math.inf, PLAIN, "en", "∞"),
        (1234.0, PLAIN, "no such locale", "1,234"),
    ],
)
def test_written(value: float, how: NumberText, locale: str, text: str) -> None:
    assert written(value, how, locale) == text


@pytest.mark.parametrize(
    ("text", "cell"),
    [
        ("18400", 18400.0),
        ("18,400", 18400.0),
        ("18 400", 18400.0),
        ("1,5", "1,5"),  # no group of three digits: not a number where the comma groups
        ("12 %", 0.12),
        ("−3", -3.0),
        ("1e3", 1000.0),
        ("=A1", Formula("=A1")),
        ("=", "="),
        ("true", True),
        ("  ", None),
        ("'007", "007"),
        ("Visits", "Visits"),
        ("nan", "nan"),
        ("1_000", "1_000"),
    ],
)
def test_typed(text: str, cell: Cell) -> None:
    assert typed(text) == cell


def test_typed_with_a_decimal_comma() -> None:
    assert typed("1.234,5", ",", ".") == 1234.5
    assert typed("0,5 %", ",", ".") == 0.005


@given(st.one_of(st.none(), st.booleans(), st.floats(allow_nan=False, allow_infinity=False), st.text()))
def test_what_is_shown_for_editing_types_back_as_it_was(cell: Cell) -> None:
    if isinstance(cell, str) and (cell.strip() != cell or not cell or cell.startswith(("=", "'"))):
        return
    assert typed(shown_for_editing(cell)) == cell
