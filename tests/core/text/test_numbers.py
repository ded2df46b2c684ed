"""Numbers as text, and typed text as cells."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.spreadsheet.cell_input import shown_for_editing, typed
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.text.numbers import listed_locale, written
from kavlet.core.values.number_text import DATE, PERCENT, PLAIN, NumberStyle, NumberText


@pytest.mark.parametrize(
    ("value", "how", "locale", "text"),
    [
        (18400.0, PLAIN, "en", "18,400"),
        (18400.0, PLAIN, "de", "18.400"),
        (8682.5, PLAIN, "en", "8,682.5"),
        (0.375, PERCENT, "en", "37.5%"),
        (0.2995, PERCENT, "en", "30%"),
        (0.016847, PERCENT, "de", "1,7\u00a0%"),
        (-1234.5, PLAIN, "en", "−1,234.5"),
        (-0.001, PLAIN, "en", "−0.001"),
        (-0.001, NumberText(most_decimals=2), "en", "0"),
        (1.005, PLAIN, "en", "1.01"),
        (2.5, NumberText(most_decimals=0), "en", "3"),
        (5.0, NumberText(least_decimals=2, prefix="€ "), "en", "€ 5.00"),
        (46082.0, DATE, "en", "Mar 1, 2026"),
        (46082.0, DATE, "de", "01.03.2026"),
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
        ("12 %", FormattedNumber(0.12, NumberText(style="percent", most_decimals=1))),
        ("2026-03-01", FormattedNumber(46082.0, DATE)),
        ("1.3.2026", FormattedNumber(46082.0, DATE)),
        ("2026-02-30", "2026-02-30"),
        ("€ 300", FormattedNumber(300.0, NumberText("number", 0, 2, prefix="€ "))),
        ("1,250.50 €", FormattedNumber(1250.5, NumberText("number", 2, 2, suffix=" €"))),
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
    assert typed("0,5 %", ",", ".") == FormattedNumber(0.005, NumberText(style="percent", most_decimals=1))


_written = st.one_of(
    st.integers(-900, 900).map(lambda n: FormattedNumber(n / 1000, NumberText(style="percent", most_decimals=1))),
    st.integers(-90_000, 90_000).map(lambda n: FormattedNumber(float(n), DATE)),
)


@given(st.one_of(st.none(), st.booleans(), st.floats(allow_nan=False, allow_infinity=False), st.text(), _written))
def test_what_is_shown_for_editing_types_back_as_it_was(cell: Cell) -> None:
    if isinstance(cell, str) and (cell.strip() != cell or not cell or cell.startswith(("=", "'"))):
        return
    assert typed(shown_for_editing(cell)) == cell


@pytest.mark.parametrize(
    ("name", "listed"), [("de_DE", "de"), ("de-CH", "de-CH"), ("en_US", "en"), ("fr_CA", "fr-CA"), ("xx", "en")]
)
def test_the_locale_of_a_desktop_is_found_among_those_to_choose(name: str, listed: str) -> None:
    assert listed_locale(name) == listed


@pytest.mark.parametrize("style", ["number", "percent", "short", "long", "exponent", "currency"])
@pytest.mark.parametrize("decimals", [0, 2, 9])
def test_numbers_of_any_size_are_written(style: NumberStyle, decimals: int) -> None:
    for value in (1e308, -1e308, 9.99e20, 1e21, 1e15, 1e-300, 5e-324):
        for locale in ("en-GB", "de-DE"):
            assert written(value, NumberText(style, decimals), locale)
    assert written(1e308, NumberText("short")) == "1E308"
    assert written(5e20, NumberText("short", grouping=True), "en-GB") == "500,000,000T"
