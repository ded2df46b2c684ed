"""Colours and numbers against published values. Each data file names its source and how it was verified."""

import json
import re
from decimal import ROUND_HALF_UP, Context, Decimal
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.text.numbers import written
from kavlet.core.text.wrapping import pieces
from kavlet.core.values.colour import Colour, colour, linear, mix
from kavlet.core.values.number_text import NumberText
from kavlet.core.values.vision import as_seen, delta_e, difference

DATA = Path(__file__).parent / "data"


def cases(file: str, name: str = "cases") -> list[Any]:
    return json.loads((DATA / file).read_text(encoding="utf-8"))[name]  # type: ignore[no-any-return]


def channels(of: Colour) -> list[int]:
    return [round(part * 255) for part in of.rgb]


# Sharma, Wu, Dalal 2005, table 1; ISO/CIE 11664-6. Pair 14 lies on a branch where either value is right.
@pytest.mark.parametrize(
    "case", [*cases("ciede2000.json"), *cases("ciede2000.json", "extra_cases")], ids=lambda case: case["id"]
)
def test_ciede2000(case: dict[str, Any]) -> None:
    found = delta_e(tuple(case["lab1"]), tuple(case["lab2"]))
    assert any(
        found == pytest.approx(wanted, abs=1e-4)
        for wanted in (case["dE00"], *([4.8045] if case["dE00"] in (4.7461, 4.8045) else []))
    )


# Machado, Oliveira, Fernandes 2009, severity 1.
@pytest.mark.parametrize(
    "case",
    [one for one in cases("cvd_machado2009.json") if one["severity"] == 1.0],
    ids=lambda case: f"{case['hex']} {case['deficiency']}",
)
def test_colour_vision(case: dict[str, Any]) -> None:
    by = {"P": "protan", "D": "deutan", "T": "tritan"}[case["deficiency"][0]]
    found = as_seen(colour(case["hex"]), by)  # type: ignore[arg-type]
    assert channels(found) == pytest.approx(channels(colour(case["hex_out"])), abs=1)
    wanted = [min(1.0, max(0.0, part)) for part in case["linear_out_unclipped"]]
    assert [linear(part) for part in found.rgb] == pytest.approx(wanted, abs=1e-4)


# Okabe and Ito 2002: differences within their set.
@pytest.mark.parametrize("case", cases("okabe_ito.json"), ids=lambda case: f"{case['a']} {case['b']}")
def test_differences_of_a_known_set(case: dict[str, Any]) -> None:
    assert difference(colour(case["a"]), colour(case["b"])) == pytest.approx(case["dE00"], abs=0.1)


# Ottosson 2020: tints by mixing to white in OKLab.
@pytest.mark.parametrize("case", cases("tints.json"), ids=lambda case: f"{case['hex']} {case['towards_white']}")
def test_tints(case: dict[str, Any]) -> None:
    found = mix(colour(case["hex"]), Colour(1, 1, 1), case["towards_white"])
    assert channels(found) == pytest.approx(channels(colour(case["oklab"])), abs=2)


HOW = {
    "decimal": NumberText(most_decimals=3, minus="-"),
    "integer": NumberText(most_decimals=0),
    "fixed2": NumberText(least_decimals=2),
    "compact_short_0": NumberText(style="short", most_decimals=0),
    "compact_long_0": NumberText(style="long", most_decimals=0),
    "compact_short_1": NumberText(style="short", most_decimals=1),
    "compact_long_1": NumberText(style="long", most_decimals=1),
    "currency_EUR": NumberText(style="currency", currency="EUR"),
    "currency_JPY": NumberText(style="currency", currency="JPY"),
}


# Unicode CLDR through Babel 2.18 and ICU 78. Numbers that are not abbreviated are always grouped here (a choice).
@pytest.mark.parametrize(
    "case",
    [one for one in cases("cldr_numbers.json") if one[1] in HOW],
    ids=lambda case: f"{case[0]} {case[1]} {case[2]}",
)
def test_numbers_by_locale(case: list[Any]) -> None:
    locale, kind, value, babel, icu, _ = case
    found = written(float(value), HOW[kind], locale)

    def bare(text: str | None) -> str | None:
        return None if text is None else re.sub(r"(?<=\d)[.,'’\u00a0\u202f ](?=\d{3}(\D|$))", "", text)

    accepted = {babel, icu} - {None}
    assert found in accepted or bare(found) in {bare(text) for text in accepted}


# ICU 78 (CLDR 48); CLDR 47 through Babel agrees on the patterns. UTS #35 part 3: compact number formats.
@pytest.mark.parametrize(
    ("value", "style", "locale", "text"),
    [
        (12_345_678, "short", "ja", "1235万"), (12_345_678, "short", "zh", "1235万"),
        (12_345_678, "short", "ko", "1235만"),
        (1_000_000_000, "short", "es", "1000\u00a0M"), (1_000_000_000, "short", "ca", "1000\u00a0M"),
        (9_999, "short", "ko", "1만"), (99_999, "short", "hi", "1\u00a0लाख"),
        (1_234, "long", "sw", "elfu 1"), (999_999, "short", "en", "1M"), (1_000, "long", "it", "mille"),
    ],
)  # fmt: skip
def test_abbreviated_numbers(value: float, style: Any, locale: str, text: str) -> None:
    assert written(float(value), NumberText(style=style, most_decimals=0), locale) == text


PERCENT = NumberText(style="percent")
EURO = NumberText(style="currency", currency="EUR", minus="-")
FRANC = NumberText(style="currency", currency="CHF")


# CLDR 47: percent and currency patterns with their negative halves and spaces (UTS #35 part 3, 3.1 and 3.5).
@pytest.mark.parametrize(
    ("value", "how", "locale", "text"),
    [
        (0.33, PERCENT, "en", "33%"), (0.33, PERCENT, "pt-BR", "33%"), (0.33, PERCENT, "zh", "33%"),
        (0.33, PERCENT, "tr", "%33"), (0.33, PERCENT, "sv", "33\u00a0%"), (0.33, PERCENT, "es", "33\u00a0%"),
        (0.33, PERCENT, "cs", "33\u00a0%"), (0.33, PERCENT, "fr", "33\u00a0%"), (0.33, PERCENT, "de", "33\u00a0%"),
        (-1234.5, EURO, "nl", "€\u00a0-1.234,50"), (-1234.5, EURO, "de-CH", "EUR-1’234.50"),
        (-1234.5, EURO, "en", "-€1,234.50"), (-1234.5, EURO, "de", "-1.234,50\u00a0€"),
        (1234.5, FRANC, "en", "CHF\u00a01,234.50"),
    ],
)  # fmt: skip
def test_percents_and_amounts_by_the_pattern(value: float, how: NumberText, locale: str, text: str) -> None:
    assert written(value, how, locale) == text


@given(st.floats(min_value=-1e15, max_value=1e15), st.integers(0, 6))
def test_rounding_is_that_of_decimal_arithmetic(value: float, decimals: int) -> None:
    """Half away from zero of the shortest text (Python's `decimal`, General Decimal Arithmetic 1.70)."""
    how = NumberText(least_decimals=decimals, most_decimals=decimals, grouping=False, minus="-")
    exact = Decimal(repr(value)).quantize(Decimal(1).scaleb(-decimals), ROUND_HALF_UP, Context(prec=60))
    assert Decimal(written(value, how)) == exact


@pytest.mark.parametrize(
    "value", [2_600_000_000_000.0, 27_360_000_000_000.0, 250_000_000_000_001.0, 1e15, 5e14, 1.005e12]
)
def test_no_digit_appears_that_nobody_wrote(value: float) -> None:
    assert float(written(value, NumberText(), "en").replace(",", "")) == value


# Unicode Standard Annex 14, revision 53: the rules by number. The last three are ours: a sign stays with its number.
@pytest.mark.parametrize(
    ("rule", "text", "parts"),
    [
        ("LB7, LB18", "guided walks", "guided |walks"), ("LB12", "18\u00a0400 visits", "18\u00a0400 |visits"),
        ("LB12", "18\u202f400\u202f€", "18\u202f400\u202f€"), ("LB13", "walks, talks", "walks, |talks"),
        ("LB21", "Heu-Ernte", "Heu-|Ernte"), ("LB25", "from -5 to 7", "from |-5 |to |7"),
        ("LB25", "12.5% of", "12.5% |of"), ("LB25", "$7 each", "$7 |each"), ("LB14", "(a) b", "(a) |b"),
        ("LB11", "a\u2060b c", "a\u2060b |c"), ("LB30", "fish(es) too", "fish(es) |too"),
        ("LB26, ID", "訪問者", "訪|問|者"), ("LB8a", "x\u200dy z", "x\u200dy |z"), ("LB22", "and… more", "and… |more"),
        ("ours", "12 % of", "12 % |of"), ("ours", "5 € each", "5 € |each"), ("ours", "7 °C", "7 °C"),
    ],
)  # fmt: skip
def test_lines_break_where_unicode_lets_them(rule: str, text: str, parts: str) -> None:
    assert "|".join(pieces(text)) == parts, rule
