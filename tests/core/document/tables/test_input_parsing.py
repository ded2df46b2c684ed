"""What is typed into a field is read as a cell of the document is."""

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.charts.fields import Field
from kavlet.core.document.tables import input_parsing
from kavlet.core.recipes.recipe import Parameter
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from tests.making import document, draw, table

NBSP, NARROW, THIN = "\u00a0", "\u202f", "\u2009"


@pytest.mark.parametrize(
    ("text", "locale", "number"),
    [
        ("100,000", "en", 100_000), ("2,400", "en", 2400), ("10.000", "de", 10_000), ("10.000,5", "de", 10_000.5),
        ("100 000", "en", 100_000), (f"100{NBSP}000", "fr", 100_000), (f"1{NARROW}234,5", "fr", 1234.5),
        (f"1{THIN}234", "en", 1234), ("1’234.5", "de-CH", 1234.5), ("1'234", "de-CH", 1234),
        ("12,34,567", "en-IN", 1_234_567), ("€ 300", "en", 300), ("300 €", "de", 300), ("−4.5", "en", -4.5),
        ("50 %", "en", 0.5), ("12,5%", "de", 0.125), ("1e3", "en", 1000),
    ],
)  # fmt: skip
def test_numbers_are_read_by_the_locale(text: str, locale: str, number: float) -> None:
    assert input_parsing.number_or_formula(text, locale) == number


@pytest.mark.parametrize(
    ("text", "unit", "number"),
    [("50 %", "%", 50), ("50%", "%", 50), ("50", "%", 50), ("3 pt", "pt", 3), ("−90°", "°", -90)],
)
def test_a_unit_may_be_typed_or_left_out(text: str, unit: str, number: float) -> None:
    assert input_parsing.number_or_formula(text, "en", unit) == number


@pytest.mark.parametrize("text", ["100k", "a", "", "1,00", "1 00", "2026-03-01", "nan", "inf", "1_000"])
def test_what_is_no_number_is_refused_in_a_sentence(text: str) -> None:
    with pytest.raises(KavletError, match="is not a number"):
        input_parsing.number_or_formula(text, "en")


@given(st.floats(allow_nan=False, allow_infinity=False), st.sampled_from(["en", "de", "fr", "de-CH", "sv", "en-IN"]))
def test_what_a_field_shows_typed_again_is_the_same_number(number: float, locale: str) -> None:
    shown = input_parsing.shown(number, locale)
    assert input_parsing.number_or_formula(shown, locale) == pytest.approx(number, rel=1e-11, abs=0)


@pytest.mark.parametrize(
    ("text", "locale", "kept"),
    [
        ("40; 70", "en", "40; 70"), ("40, 70", "en", "40; 70"), ("40 70", "en", "40; 70"), ("75,000", "en", "75000"),
        ("75,000; 150,000", "en", "75000; 150000"), ("75,000 150,000", "en", "75000; 150000"),
        ("40,70", "en", "40; 70"),
        ("1,5; 2,5", "de", "1.5; 2.5"), ("1,5 2,5", "de", "1.5; 2.5"), ("=B2; 5", "en", "=B2; 5"),
        ("=SUM(B2;B3); 7", "en", "=SUM(B2;B3); 7"),
    ],
)  # fmt: skip
def test_lists(text: str, locale: str, kept: str) -> None:
    assert input_parsing.numbers_or_formulas(text, locale) == kept


def test_a_list_in_percents_takes_them_typed_or_bare() -> None:
    assert input_parsing.numbers_or_formulas("50 % 75 %", "en", "%") == "50; 75"


def test_a_setting_may_be_a_cell_and_is_refused_where_the_cell_is_no_number() -> None:
    made = document("columns", table(["a", "b"], ["x", "y"], [3, 4]))
    values, goal = recalculate(made.tables), Parameter("goal", "number", 1.0, "A goal.", minimum=0.0)
    take = lambda text: input_parsing.setting(made, values, made.tables[0].id, goal, text)  # noqa: E731
    assert take("=B2") == "=B2"
    assert take("1,000") == 1000
    assert take("") == 1.0
    for text, says in (("=A2", "needs a number"), ("=B9", "There is no cell B9"),
                       ("=1/0", "#DIV/0!"), ("-5", "can’t be"),
                       ("=B2-10", "can’t be"), ("=SUM(", "#VALUE!")):  # fmt: skip
        with pytest.raises(KavletError, match=says):
            take(text)


def test_looks_keep_their_digits() -> None:
    made = document("columns", table(["a", "b"], ["x"], [3]))
    least = Field("Scale", "From", "frame.along.minimum", "number", optional=True)
    hole = Field("Geometry", "Hole", "frame.hole", "number", unit="%", times=100)
    take = lambda offer, text: input_parsing.look(made, recalculate(made.tables), "t1", offer, text)  # noqa: E731
    assert take(least, "1e-9") == 1e-9
    assert take(least, "") is None
    assert take(hole, "33.3") == 0.333


def test_a_scale_may_end_at_a_cell_and_follows_it() -> None:
    rows = table(["a", "b"], ["x", "y"], [30, 40])
    made = draw(document("columns", rows), look={"frame.along.maximum": "=B2*4"})
    assert made.build.chart.frame.along.maximum == 120
    rows[1][1] = 50.0
    assert draw(document("columns", rows), look={"frame.along.maximum": "=B2*4"}).build.chart.frame.along.maximum == 200
    assert draw(document("columns", rows), look={"frame.along.maximum": "=1/0"}).build.chart.frame.along.maximum is None


def test_a_title_of_an_axis_may_be_a_cell() -> None:
    made = draw(document("columns", table(["a", "b"], ["x"], [30])), look={"frame.along.title": '=B1&": "&B2'})
    assert made.build.chart.frame.along.title == "b: 30"


def test_whole_numbers_stand_where_only_such_may() -> None:
    rows = table(["a", "b"], ["x"], [1.256])
    made = draw(document("bars", rows, labels="values"), look={"layers.series 1.label.number.most_decimals": 1.0})
    assert "1.3" in {text.text for text in made.figure.texts}


def test_formulas_of_texts_are_read_by_the_locale_and_lines_may_break() -> None:
    made = msgspec.structs.replace(document("bars", table(["a", "b"], ["x"], [3])), locale="de")
    values = recalculate(made.tables)
    title = Field("Scale", "Title", "frame.along.title", "text")
    assert input_parsing.look(made, values, "t1", title, "=B2*1,5") == "=B2*1.5"
    assert input_parsing.words_or_formula(made, values, "t1", "One\\nTwo") == "One\nTwo"
    assert input_parsing.shown("One\nTwo", "de") == "One\\nTwo"
    assert input_parsing.shown("=B2*1.5", "de") == "=B2*1,5"
