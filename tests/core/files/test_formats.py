"""The registry of formats, which dialogs, the command line and the documentation read."""

from pathlib import Path

import pytest
from python_calamine import CalamineWorkbook

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import tables
from kavlet.core.files.csv import harmless, with_names
from kavlet.core.files.formats import TABLES, Format, by_ending, endings, patterns, table_content
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from tests.making import table

ROWS = table(["gate", "count", "open"], ["North", "=cmd()", "Total"], [3, 4, 7], [True, False, None])


def held() -> bytes:
    made, table_id = edits.add_table(Document(), "Gates", [list(row) for row in ROWS])
    made = edits.set_cells(made, table_id, {(1, 3): Formula("=B2+B3")})
    return made, [(made.table(table_id), recalculate(made.tables))]  # type: ignore[return-value]


def test_each_ending_belongs_to_one_format() -> None:
    known = [ending for one in TABLES for ending in one.endings]
    assert len(known) == len(set(known))
    assert all(ending.startswith(".") and ending == ending.lower() for ending in known)
    assert by_ending(TABLES, ".XLSX") is not None
    assert by_ending(TABLES, ".doc") is None


def test_patterns_for_dialogs_name_all_that_is_read() -> None:
    assert patterns(TABLES).split() == [f"*{ending}" for ending in endings(TABLES)]
    assert "*.ods" in patterns(TABLES, "table")


@pytest.mark.parametrize("ending", [".csv", ".xlsx", ".ods", ".json"])
def test_what_is_written_is_read_again(ending: str, tmp_path: Path) -> None:
    _, wish = held()
    path = tmp_path / f"gates{ending}"
    path.write_bytes(table_content(wish, ending))  # type: ignore[arg-type]
    read = tables.read(path).cells
    assert read[0] == ["gate", "count", "open"]
    assert read[1][:2] == ["North", 3.0]
    total = read[3][1]
    assert total == Formula("=B2+B3") if ending in (".xlsx", ".ods") else total == 7.0


def test_workbooks_hold_values_beside_formulas(tmp_path: Path) -> None:
    _, wish = held()
    path = tmp_path / "gates.xlsx"
    path.write_bytes(table_content(wish, ".xlsx"))  # type: ignore[arg-type]
    sheet = CalamineWorkbook.from_path(path).get_sheet_by_index(0).to_python()
    assert sheet[3][1] == 7.0


def test_a_csv_for_others_starts_no_formula() -> None:
    _, wish = held()
    line = table_content(wish, ".csv").decode().splitlines()[2]  # type: ignore[arg-type]
    assert line.startswith("'=cmd()")


def test_an_ending_tables_can_not_have_is_said() -> None:
    _, wish = held()
    with pytest.raises(KavletError, match=r"can’t be written as \.pdf"):
        table_content(wish, ".pdf")  # type: ignore[arg-type]


def test_endings_are_those_that_are_read_or_written() -> None:
    only_written = Format((".out",), "Out", writes=TABLES[0].writes)
    assert set(endings(TABLES)) >= {".csv", ".xlsx", ".ods", ".json"}
    assert ".out" not in endings((*TABLES, only_written))
    assert ".out" in endings((*TABLES, only_written), "table")


@pytest.mark.parametrize("sign", ["=", "+", "-", "@", "\t", "\r", "\n=", " =", "\uff1d", "\n \uff20"])
def test_a_text_that_would_start_a_formula_elsewhere_is_harmless(sign: str) -> None:
    assert harmless(f"{sign}cmd") == f"'{sign}cmd"
    assert harmless(f"a{sign}cmd") == f"a{sign}cmd"


def test_a_row_of_years_alone_names_nothing() -> None:
    figures: list[list[Cell]] = [[2023.0, 2024.0], [5.0, 6.0]]
    assert with_names(figures)[0] == ["Column 1", "Column 2"]
    named: list[list[Cell]] = [["stage", 2023.0, 2024.0], ["Visits", 5.0, 6.0]]
    assert with_names(named)[0] == ["stage", "2023", "2024"]
