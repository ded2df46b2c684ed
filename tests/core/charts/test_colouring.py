"""Colour by value: rules as they are typed, and shades from light to dark."""

import math

import pytest

from kavlet.core.charts.colouring import limits, parsed, shade
from kavlet.core.document.tables import input_parsing
from kavlet.core.messages import speak
from kavlet.core.values.errors import KavletError
from tests.making import document, draw, marks, table

FIGURES = [10.0, 60.0, math.nan, 110.0, -20.0]
ROWS = table(["gate", "visitors"], list("abcd"), [10, 60, 110, 35])


@pytest.mark.parametrize(
    ("text", "picked"),
    [
        ("above 50: #ff0000", [1, 3]), ("below 10: ink", [4]), ("largest: tone2", [3]), ("smallest: tone2", [4]),
        ("first: ink", [0]), ("last: ink", [4]), ("above -20.5: ink", [0, 1, 3, 4]), ("above 1e2: ink", [3]),
    ],
)  # fmt: skip
def test_a_rule_picks_rows_by_their_values(text: str, picked: list[int]) -> None:
    (rule,) = parsed(text)
    assert [row for row in range(5) if rule.picks(row, FIGURES)] == picked


@pytest.mark.parametrize("text", ["above: #ff0000", "over 3: ink", "largest 5: ink", "above 5 ink", "above 5: nothing"])
def test_what_is_no_rule_is_refused(text: str) -> None:
    with pytest.raises(KavletError):
        parsed(text)


def test_the_first_rule_that_picks_a_row_colours_it() -> None:
    look = {"layers.series 1.colour_rules": "above 100: #b3372f; above 30: #0e7c86; smallest: ink"}
    made = draw(document("columns", ROWS), look=look)
    colours = [mark.fill.hex for mark in marks(made, "series 1")]
    assert colours[1:] == ["#0e7c86", "#b3372f", "#0e7c86"]
    assert colours[0] not in colours[1:]
    by_hand = draw(document("columns", ROWS), look=look | {"layers.series 1.rows.2.fill": "#123456"})
    assert marks(by_hand, "series 1")[2].fill.hex == "#123456"  # what is set for one wins


def test_rules_are_typed_and_shown_in_the_reader_s_words() -> None:
    speak("de")
    try:
        held = input_parsing.rules("über 100: #b3372f; Kleinste: tone3")
        assert held == "above 100: #b3372f; smallest: tone3"
        assert input_parsing.rules(input_parsing.shown_rules(held)) == held
    finally:
        speak("en")
    assert input_parsing.shown_rules(held) == held


def test_shades_go_from_pale_to_the_colour() -> None:
    texts = [shade("one hue", 0, value, [0.0, 50.0, 100.0], "tone1") for value in (0.0, 50.0, 100.0)]
    assert texts == ["tone1 +72", "tone1 +36", "tone1"]
    steps = {shade("one hue", 3, float(value), [0.0, 100.0], "#7a2e5d") for value in range(101)}
    assert len(steps) == 3
    assert [shade("both ways", 0, value, [-10.0, 20.0], "ink") for value in (-10.0, 20.0, 0.0)] == [
        "fall +36", "rise", "rise +72",
    ]  # fmt: skip
    assert shade("one hue", 0, math.nan, FIGURES, "ink") == "ink"
    assert shade("one hue", 0, 5.0, [5.0, 5.0], "ink") == "ink"


def test_the_legend_tells_what_shades_mean() -> None:
    made = draw(document("columns", ROWS), look={"layers.series 1.shades": "one hue", "layers.series 1.shade_steps": 2})
    assert made.figure.legend == ("10 – 60", "60 – 110")
    assert len({mark.fill.hex for mark in marks(made, "series 1")}) == 2
    assert limits(0, [1.0, 1.0]) == []
    assert len(limits(0, [0.0, 8.0])) == 4
