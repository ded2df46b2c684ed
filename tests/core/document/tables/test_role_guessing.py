"""Which columns are taken for which roles, and which rows for names."""

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables.columns import is_numeric
from kavlet.core.document.tables.role_guessing import guess_roles
from kavlet.core.files import csv
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.table import Column


@pytest.mark.parametrize(
    ("cells", "numeric"),
    [
        ((1.0, "x"), False),  # half of them: not most
        ((1.0, 2.0, "x"), True),
        ((1.0, "x", "y"), False),
        ((1.0, None, None), True),  # empty ones say nothing
        ((None, None), False),
    ],
)
def test_a_column_is_numeric_when_most_of_its_filled_cells_are(cells: tuple[Cell, ...], numeric: bool) -> None:
    assert is_numeric(Column("c1", ("head", *cells))) is numeric


def test_a_half_numeric_column_names_the_rows() -> None:
    rows: list[list[Cell]] = [["plot", "trees"], [1.0, 12.0], ["2a", 9.0]]
    document, table = edits.add_table(Document(), "T", rows)
    assert guess_roles(document.table(table), RECIPES["columns"]) == {"name": ("c1",), "value": ("c2",)}


@pytest.mark.parametrize(
    ("first", "names"),
    [
        (["season", 2023.0, 2024.0], ["season", "2023", "2024"]),  # years name their columns
        (["season", 1900.0, 2100.0], ["season", "1900", "2100"]),
        (["season", 1899.0, 2024.0], ["Column 1", "Column 2", "Column 3"]),
        (["season", 2023.5, 2024.0], ["Column 1", "Column 2", "Column 3"]),
        ([2022.0, 2023.0, 2024.0], ["Column 1", "Column 2", "Column 3"]),  # figures in every column are no names
    ],
)
def test_a_first_row_of_years_names_the_columns(first: list[Cell], names: list[str]) -> None:
    assert csv.with_names([first, ["Spring", 24.0, 31.0]])[0] == names


@pytest.mark.parametrize("sign", ["=", "+", "-", "@", "\t", "\r"])
def test_texts_that_another_program_would_run_are_made_harmless(sign: str) -> None:
    assert csv.harmless(f"{sign}1") == f"'{sign}1"
    assert csv.harmless(f"1{sign}") == f"1{sign}"
