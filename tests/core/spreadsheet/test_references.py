"""A1 references and how formulas follow rows and columns."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kavlet.core.spreadsheet.references import (
    Shift,
    cell_reference,
    column_index,
    column_letters,
    filled,
    reference,
    shifted,
)


@pytest.mark.parametrize(("index", "letters"), [(0, "A"), (25, "Z"), (26, "AA"), (701, "ZZ"), (702, "AAA")])
def test_column_letters(index: int, letters: str) -> None:
    assert column_letters(index) == letters
    assert column_index(letters) == index


@given(st.integers(0, 16_383), st.integers(0, 1_048_575), st.booleans(), st.booleans())
def test_a_corner_reads_back_as_written(column: int, row: int, keep_column: bool, keep_row: bool) -> None:
    text = ("$" if keep_column else "") + column_letters(column) + ("$" if keep_row else "") + str(row + 1)
    assert cell_reference(text).text == text


def test_a_table_with_spaces_is_quoted() -> None:
    assert reference("'Two summers'!B2:B9").text == "'Two summers'!B2:B9"
    assert reference("Gates!B2").table == "Gates"


def test_filling_moves_relative_parts_only() -> None:
    assert filled('=B2/B$2+$C3&"B2"', 1, 2) == '=C4/C$2+$C5&"B2"'


def test_filling_off_the_grid_gives_an_error() -> None:
    assert filled("=A1", 0, -1) == "=#REF!"


@pytest.mark.parametrize(
    ("formula", "shift", "result"),
    [
        ("=SUM(B$2:B$6)-B4", Shift(3, 1, (6,)), "=SUM(B$2:B$7)-B5"),  # inside the range: it grows
        ("=SUM(B$2:B$6)", Shift(1, 1, (6,)), "=SUM(B$3:B$7)"),  # above: it moves
        ("=SUM(B$2:B$6)", Shift(6, 2, (6,)), "=SUM(B$2:B$8)"),  # at the table's end: it grows with the new rows
        ("=SUM(B$2:B$4)", Shift(6, 1, (6,)), "=SUM(B$2:B$4)"),  # a range that ends earlier does not
        ("=SUM(B$2:B$6)-B4", Shift(3, -1, (6,)), "=SUM(B$2:B$5)-#REF!"),  # the row itself is gone
        ("=SUM(B$2:B$6)", Shift(4, -2, (6,)), "=SUM(B$2:B$4)"),
        ("=SUM(B2:B3)", Shift(1, -2, (6,)), "=SUM(#REF!)"),
        ("=Other!B4+B4", Shift(1, 1, (6,)), "=Other!B4+B5"),
        ('="B4"&B4', Shift(1, 1, (6,)), '="B4"&B5'),
    ],
)
def test_formulas_follow_rows(formula: str, shift: Shift, result: str) -> None:
    assert shifted(formula, True, "Here", shift, by_rows=True) == result


def test_formulas_of_other_tables_follow_too() -> None:
    assert shifted("=Here!B4+B4", False, "Here", Shift(1, 1, (6,)), by_rows=True) == "=Here!B5+B4"


def test_columns_are_followed() -> None:
    assert shifted("=B2+$C$2", True, "Here", Shift(2, 1, (3,)), by_rows=False) == "=B2+$D$2"


@given(st.integers(1, 30), st.integers(1, 5), st.integers(1, 30), st.integers(1, 30))
def test_inserting_and_deleting_the_same_rows_changes_nothing(at: int, count: int, one: int, other: int) -> None:
    first, last = sorted((one, other))
    formula = f"=SUM(B{first + 1}:B{last + 1})+C{one + 1}"
    grown = shifted(formula, True, "", Shift(at, count, (40,)), by_rows=True)
    assert shifted(grown, True, "", Shift(at, -count, (40 + count,)), by_rows=True) == formula
