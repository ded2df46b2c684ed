"""Workbooks and records: values and formulas in, tables out, and rotten files."""

import datetime
import io
import json
import re
import zipfile
from pathlib import Path
from typing import Any

import odfdo
import openpyxl
import pytest
import xlsxwriter
from python_calamine import CalamineWorkbook

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import ods, tables, xlsx
from kavlet.core.files import workbook as workbook_files
from kavlet.core.files.formats import renamings, table_content
from kavlet.core.files.table_texts import calculated
from kavlet.core.spreadsheet.cells import ErrorValue, FormattedNumber, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.references import quoted
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import DATE, NumberText


@pytest.fixture
def workbook(tmp_path: Path) -> Path:
    """A workbook written by XlsxWriter: a table with formulas, and a second sheet."""
    path = tmp_path / "year.xlsx"
    book = xlsxwriter.Workbook(str(path), {"use_future_functions": True})
    page = book.add_worksheet("Path")
    for row, (name, number) in enumerate([("stage", "people"), ("Visits", 18400), ("Walks", 6900), ("Letter", 2760)]):
        page.write(row, 0, name)
        page.write(row, 1, number)
    page.write(0, 2, "share")
    for row in range(1, 4):
        page.write_formula(row, 2, f"=B{row + 1}/B$2", None, [0, 1, 0.375, 0.15][row])
    page.write_formula(4, 1, "=CONCAT(A2,A3)", None, "VisitsWalks")
    page.write_formula(5, 1, "=BESSELJ(1,1)", None, 0.44)
    page.write_formula(6, 1, "=Other!A1*2", None, 6)
    other = book.add_worksheet("Other")
    other.write(0, 0, 3)
    other.write_datetime(1, 0, datetime.datetime(2026, 3, 1), book.add_format({"num_format": "yyyy-mm-dd"}))
    other.write_boolean(2, 0, True)
    book.close()
    return path


def test_formulas_are_kept_where_all_they_use_is_known(workbook: Path) -> None:
    held = xlsx.read(workbook)
    assert held.cells[2] == ["Walks", 6900.0, Formula("=B3/B$2")]
    assert held.cells[4][1] == Formula("=CONCAT(A2,A3)")
    assert held.cells[5][1] == 0.44
    assert held.cells[6][1] == 6.0
    assert tuple(map(str, held.notes)) == (
        "B6 kept as values: the function BESSELJ is not known here.",
        "B7 kept as values: they refer to another sheet.",
    )


def test_a_sheet_and_a_range_can_be_chosen(workbook: Path) -> None:
    assert xlsx.sheets(workbook) == ["Path", "Other"]
    assert xlsx.read(workbook, "Other").cells == [[3.0], [FormattedNumber(46082.0, DATE)], [True]]
    part = xlsx.read(workbook, "Path", "B2:C4")
    assert part.cells[1] == [6900.0, Formula("=A2/A$1")]
    outside = xlsx.read(workbook, "Path", "B3:C4")
    assert outside.cells == [[6900.0, 0.375], [2760.0, 0.15]]
    assert "outside the range" in str(outside.notes[0])
    with pytest.raises(KavletError, match="no sheet “Nowhere”"):
        xlsx.read(workbook, "Nowhere")
    with pytest.raises(KavletError, match="is not a range"):
        xlsx.read(workbook, None, "everything")


def test_openpyxl_writes_what_is_read(tmp_path: Path) -> None:
    path = tmp_path / "made.xlsx"
    book = openpyxl.Workbook()
    page = book.active
    page.append(["gate", "count"])
    page.append(["North", 12.5])
    page.append(["Total", "=SUM(B2:B2)"])
    book.save(path)
    assert tables.read(path).cells == [["gate", "count"], ["North", 12.5], ["Total", Formula("=SUM(B2:B2)")]]


def table() -> tuple[Document, str]:
    cells = [
        ["stage", "people", "share", "day"],
        ["Visits", 18400.0, Formula("=B2/B$2"), FormattedNumber(46082.0, DATE)],
        ["Walks; tours", 6900.0, Formula('=IF(B3>0;B3/B$2;"a, b")'), FormattedNumber(46083.0, DATE)],
        ["None", None, Formula("=1/0"), True],
    ]
    return edits.add_table(Document(), "My path", cells)


def test_xlsx_keeps_formulas_and_values(tmp_path: Path) -> None:
    document, table_id = table()
    path = tmp_path / "out.xlsx"
    path.write_bytes(xlsx.dumps([(document.table(table_id), recalculate(document.tables))]))
    values = CalamineWorkbook.from_path(str(path)).get_sheet_by_name("My path").to_python()
    assert values[2][:3] == ["Walks; tours", 6900.0, 0.375]
    assert values[1][3] == datetime.date(2026, 3, 1)
    again = xlsx.read(path)
    assert again.cells[1][2] == Formula("=B2/B$2")
    assert again.cells[2][2] == Formula('=IF(B3>0,B3/B$2,"a, b")')


def test_ods_keeps_formulas_and_values(tmp_path: Path) -> None:
    document, table_id = table()
    path = tmp_path / "out.ods"
    path.write_bytes(ods.dumps([(document.table(table_id), recalculate(document.tables))]))
    values = CalamineWorkbook.from_path(str(path)).get_sheet_by_name("My path").to_python()
    assert values[2][:3] == ["Walks; tours", 6900.0, 0.375]
    again = ods.read(path)
    assert again.cells[2][2] == Formula('=IF(B3>0;B3/B$2;"a, b")')
    assert again.cells[1][3] == FormattedNumber(46082.0, DATE)


@pytest.mark.parametrize(
    ("plain", "file_form"),
    [
        ("=SUM(A1:A5)", "of:=SUM([.A1:.A5])"),
        ("=A1+A2*C1", "of:=[.A1]+[.A2]*[.C1]"),
        ("='My gates'!$B$2&\"A1,B2\"", "of:=[$'My gates'.$B$2]&\"A1,B2\""),
    ],
)
def test_the_file_form_of_formulas(plain: str, file_form: str) -> None:
    """The first two pairs stand in the standard (ODF 1.3 part 4); the others follow from 5.8."""
    assert ods.theirs(plain) == file_form
    assert ods.ours(file_form) == plain


def test_records(tmp_path: Path) -> None:
    path = tmp_path / "rows.json"
    path.write_text(json.dumps([{"gate": "North", "count": 3}, {"count": None, "open": True}]), encoding="utf-8")
    assert tables.read(path).cells == [["gate", "count", "open"], ["North", 3.0, None], [None, None, True]]
    path.write_text(json.dumps({"gate": ["North", "South"], "count": [3, 4]}), encoding="utf-8")
    assert tables.read(path).cells == [["gate", "count"], ["North", 3.0], ["South", 4.0]]


def zipped(name: str, content: bytes) -> bytes:
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(name, content)
    return buffer.getvalue()


ENTITIES = b'<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "bbbbbbbbbb">]><a>&b;</a>'


@pytest.mark.parametrize("ending", [".xlsx", ".ods"])
@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"PK\x03\x04",
        b"plain text",
        zipped("content.xml", b"<a>"),
        zipped("xl/workbook.xml", ENTITIES),
        zipped("content.xml", b"0" * 120_000_000),
        zipped("xl/worksheets/sheet1.xml", b"<worksheet>" * 50_000),
    ],
    ids=["empty", "cut", "text", "odd", "entities", "bomb", "nested"],
)
def test_rotten_workbooks_are_refused_in_one_sentence(tmp_path: Path, ending: str, content: bytes) -> None:
    path = tmp_path / f"rotten{ending}"
    path.write_bytes(content)
    with pytest.raises(KavletError) as caught:
        tables.read(path)
    assert "rotten" in str(caught.value)
    assert "\n" not in str(caught.value)


@pytest.mark.parametrize("share", [0.2, 0.5, 0.9])
def test_a_workbook_cut_short_is_refused(workbook: Path, share: float) -> None:
    content = workbook.read_bytes()
    workbook.write_bytes(content[: int(len(content) * share)])
    with pytest.raises(KavletError):
        tables.read(workbook)


@pytest.mark.parametrize("text", ["", "{", "[1, 2]", "[]", '"x"', "[" * 100_000])
def test_rotten_records_are_refused(tmp_path: Path, text: str) -> None:
    path = tmp_path / "rows.json"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(KavletError):
        tables.read(path)


def test_calculated_cells_stand_where_they_stood() -> None:
    rows = calculated([["a", 2.0, Formula("=B1*0.1")], [Formula("=SUM(A1:B1)"), Formula("=1/0")], [True, None]], "T")
    assert rows == [["a", "2", "0.2"], ["2", "#DIV/0!"], ["TRUE", ""]]


def test_odfdo_writes_what_is_read(tmp_path: Path) -> None:
    document = odfdo.Document("spreadsheet")
    document.body.clear()
    page = odfdo.Table("Gates")
    for line in (("gate", "count"), ("North", 3)):
        row = odfdo.Row()
        for value in line:
            row.append_cell(odfdo.Cell(value))
        page.append_row(row)
    document.body.append(page)
    path = tmp_path / "gates.ods"
    document.save(str(path))
    assert tables.read(path).cells == [["gate", "count"], ["North", 3.0]]


@pytest.mark.parametrize(
    ("number", "code"),
    [
        (NumberText(least_decimals=1, most_decimals=3, grouping=False), "0.0##"),
        (NumberText(least_decimals=0, most_decimals=3, grouping=True), "#,##0.###"),
        (NumberText(least_decimals=2, most_decimals=2, grouping=True), "#,##0.00"),
        (NumberText(style="percent", least_decimals=0, most_decimals=1, grouping=False), "0.#%"),
        (NumberText(least_decimals=0, most_decimals=0, grouping=False, suffix=" t"), '0" t"'),
    ],
)
def test_optional_decimals_are_optional_in_a_workbook(number: NumberText, code: str, tmp_path: Path) -> None:
    rows: list[list[Any]] = [["n", "v"], ["a", FormattedNumber(1.25, number)]]
    document, _ = edits.add_table(Document(), "T", rows)
    path = tmp_path / "t.xlsx"
    path.write_bytes(xlsx.dumps([(document.tables[0], recalculate(document.tables))]))
    cell = openpyxl.load_workbook(path).active["B2"]  # type: ignore[index]
    assert cell.number_format == code


def test_texts_in_formulas_keep_their_semicolons(tmp_path: Path) -> None:
    made, table_id = edits.add_table(Document(), "T", [["a", "b"], [1.0, Formula('=IF(A2>0;"x;y";"a,b")')]])
    path = tmp_path / "t.xlsx"
    path.write_bytes(table_content([(made.table(table_id), recalculate(made.tables))], ".xlsx"))
    assert xlsx.read(path).cells[1][1] == Formula('=IF(A2>0,"x;y","a,b")')


def rewritten_sheet(path: Path, *changes: tuple[str, str]) -> Path:
    """A workbook with the text of its first sheet changed."""
    held = {}
    with zipfile.ZipFile(path) as book:
        held = {name: book.read(name) for name in book.namelist()}
    sheet = held["xl/worksheets/sheet1.xml"].decode()
    for old, new in changes:
        sheet = re.sub(old, new, sheet)
    held["xl/worksheets/sheet1.xml"] = sheet.encode()
    with zipfile.ZipFile(path, "w") as book:
        for name, content in held.items():
            book.writestr(name, content)
    return path


@pytest.fixture
def sums(tmp_path: Path) -> Path:
    path = tmp_path / "sums.xlsx"
    book = xlsxwriter.Workbook(str(path))
    page = book.add_worksheet("S")
    for row, cell in enumerate(["n", 1, 2]):
        page.write(row, 0, cell)
    page.write_formula("B3", "=SUM(A2:A3)", None, 3)
    book.close()
    return path


def test_formulas_are_found_whatever_the_file_says_of_its_extent(sums: Path) -> None:
    rewritten_sheet(sums, (r'<dimension ref="[^"]*"/>', '<dimension ref="A1"/>'))
    assert xlsx.read(sums).cells[2][1] == Formula("=SUM(A2:A3)")


def test_formulas_are_found_behind_a_prefix(sums: Path) -> None:
    tags = (r"<(/?)([A-Za-z])", r"<\1x:\2"), (r"<x:(\?xml)", r"<\1"), (r' xmlns="', ' xmlns:x="')
    rewritten_sheet(sums, *tags)
    assert xlsx.read(sums).cells[2][1] == Formula("=SUM(A2:A3)")


def test_error_cells_stay_errors(sums: Path) -> None:
    rewritten_sheet(sums, (r'<c r="A2"[^>]*><v>1</v></c>', '<c r="A2" t="e"><v>#N/A</v></c>'))
    cells = xlsx.read(sums).cells
    assert cells[1][0] == Formula("=#N/A")
    made, table_id = edits.add_table(Document(), "T", cells)
    assert recalculate(made.tables).of(table_id)[1].values[2] is ErrorValue.MISSING


@pytest.mark.parametrize("ending", [".xlsx", ".ods"])
@pytest.mark.parametrize(
    ("name", "sheet"),
    [("Costs 2024/25", "Costs 2024 25"), ("'quoted'", "quoted"), ("[]:*?/\\", "Table"), ("x" * 40, "x" * 31)],
)
def test_names_that_no_sheet_may_have_are_mended_and_said(name: str, sheet: str, ending: str, tmp_path: Path) -> None:
    made, table_id = edits.add_table(Document(), name, [["a"], [1.0]])
    made, other = edits.add_table(made, "Other", [["b"], [Formula(f"={quoted(name)}!A2*2")]])
    values = recalculate(made.tables)
    held = [(made.table(table_id), values), (made.table(other), values)]
    path = tmp_path / f"t{ending}"
    path.write_bytes(table_content(held, ending))
    read = {".xlsx": xlsx, ".ods": ods}[ending]
    assert read.sheets(path) == [sheet, "Other"]
    assert [str(one) for one in renamings(held, ending)] == [f"The table “{name}” is the sheet “{sheet}” there."]
    assert renamings(held, ".csv") == ()


def test_two_names_that_become_one_are_kept_apart() -> None:
    tables = [Table(str(i), name, ()) for i, name in enumerate(["a/b", "a:b", "A b"])]
    assert list(workbook_files.titles(tables).values()) == ["a b", "a b 2", "A b 3"]
