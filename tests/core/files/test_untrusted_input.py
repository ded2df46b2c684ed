"""What is rotten gives one sentence: files from outside, whatever they hold, soon and without eating memory."""

import contextlib
import io
import json
import os
import random
import time
import zipfile
from pathlib import Path

import msgspec.inspect
import openpyxl
import pytest
import xlsxwriter
from tools.attack import files as attack

from kavlet.core.charts.chart import Chart
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import kit, ods, recipe_file, tables
from kavlet.core.recipes.own_recipe import OwnRecipe
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from kavlet.core.values.sums import exact_sum

DEMO = Path(__file__).parents[3] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"


def refused(do: object, path: Path) -> str:
    start = time.perf_counter()
    with pytest.raises(KavletError) as told:
        do(path)  # type: ignore[operator]
    assert time.perf_counter() - start < 5.0  # two, on a machine that does nothing else
    return str(told.value)


def test_cells_at_the_far_corners_of_a_sheet_are_refused(tmp_path: Path) -> None:
    path = tmp_path / "far.xlsx"
    book = xlsxwriter.Workbook(path)
    sheet = book.add_worksheet()
    sheet.write("A1", 1)
    sheet.write("XFD1048576", 2)
    book.close()
    assert "larger than 100,000 rows or 1,000 columns" in refused(tables.read, path)


def far_ods(tmp_path: Path, rows: str) -> Path:
    path = tmp_path / "far.ods"
    document, table = edits.add_table(Document(), "T", [["a", "b"], [1.0, Formula("=A2*2")]])
    content = ods.dumps([(document.table(table), recalculate(document.tables))])
    with zipfile.ZipFile(io.BytesIO(content)) as held, zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as made:
        for name in held.namelist():
            part = held.read(name)
            if name == "content.xml":
                part = part.replace(b"</table:table>", rows.encode() + b"</table:table>", 1)
            made.writestr(name, part)
    return path


@pytest.mark.parametrize(
    ("row", "said"),
    [(b'<row r="999999999999"/>', "damaged"), (b'<row r="1048576"><c><v>1</v></c></row>', "larger than 100,000 rows")],
)
def test_a_row_beyond_all_that_can_be_held_is_refused_at_once(row: bytes, said: str, tmp_path: Path) -> None:
    path = tmp_path / "x.xlsx"
    book = openpyxl.Workbook()
    book.active["A1"] = "=1+1"
    book.save(path)
    with zipfile.ZipFile(path) as old:
        parts = {name: old.read(name) for name in old.namelist()}
    sheet = "xl/worksheets/sheet1.xml"
    with zipfile.ZipFile(path, "w") as new:
        for name, held in parts.items():
            new.writestr(name, held.replace(b"</sheetData>", row + b"</sheetData>") if name == sheet else held)
    start = time.perf_counter()
    assert said in refused(tables.read, path)
    assert time.perf_counter() - start < 2.0


def test_an_everyday_sheet_with_a_million_empty_rows_is_read_at_once(tmp_path: Path) -> None:
    empty = ('<table:table-row table:number-rows-repeated="1048574">'
             '<table:table-cell table:number-columns-repeated="16384"/></table:table-row>')  # fmt: skip
    start = time.perf_counter()
    found = tables.read(far_ods(tmp_path, empty))
    assert time.perf_counter() - start < 2.0
    assert len(found.cells) == 2
    assert getattr(found.cells[1][1], "text", "") == "=A2*2"


def test_a_value_repeated_a_billion_times_is_refused(tmp_path: Path) -> None:
    cell = '<table:table-cell table:number-columns-repeated="1000" office:value-type="float" office:value="1"/>'
    many = f'<table:table-row table:number-rows-repeated="1000000">{cell}</table:table-row>'
    assert "larger than 100,000 rows or 1,000 columns" in refused(tables.read, far_ods(tmp_path, many))
    spaces = (
        '<table:table-row><table:table-cell office:value-type="string"><text:p><text:s text:c="1000000000"/></text:p>'
    )
    assert refused(tables.read, far_ods(tmp_path, spaces + "</table:table-cell></table:table-row>"))


@pytest.mark.parametrize(("ending", "content"), [
    (".json", b'[{"a": "\xff\xfe"}]'), (".json", b'[{"a": ' + b"9" * 400 + b"}]"), (".json", b"[" * 100_000),
    (".csv", b"\x00\x01\x02" * 50), (".xlsx", b"PK\x03\x04 no"), (".ods", b""),
])  # fmt: skip
def test_tables_that_are_none(tmp_path: Path, ending: str, content: bytes) -> None:
    path = tmp_path / f"x{ending}"
    path.write_bytes(content)
    with contextlib.suppress(KavletError):  # some hold something all the same; nothing else may come of them
        tables.read(path)


@pytest.mark.parametrize(
    "content", [b"\xff\xfe{}", b"{", b"[" * 50_000, b'{"format": "kavlet-kit", "version": 1, "dress": 3}']
)
def test_kits_and_recipes_that_are_none(tmp_path: Path, content: bytes) -> None:
    path = tmp_path / "x.kavlet-kit"
    path.write_bytes(content)
    refused(kit.load, path)
    refused(recipe_file.load, path)


def test_a_newer_kit_is_newer_whatever_its_types_are(tmp_path: Path) -> None:
    path = tmp_path / "x.kavlet-kit"
    path.write_bytes(b'{"format": "kavlet-kit", "version": 9, "dress": ["of", "another", "kind"]}')
    assert "newer Kavlet" in refused(kit.load, path)


def repacked(tmp_path: Path, more: dict[str, bytes], how: int = zipfile.ZIP_DEFLATED, twice: str = "") -> Path:
    path = tmp_path / "x.kavlet"
    with zipfile.ZipFile(DEMO) as held, zipfile.ZipFile(path, "w", how) as made:
        for name in held.namelist():
            made.writestr(name, held.read(name))
        for name, content in more.items():
            made.writestr(name, content)
        if twice:
            with pytest.warns(UserWarning, match="Duplicate name"):
                made.writestr(twice, b"{}")
    return path


def test_documents_with_what_is_not_kavlets(tmp_path: Path) -> None:
    assert "does not know" in refused(kavlet_file.load, repacked(tmp_path, {"notes.txt": b"x"}))
    refused(kavlet_file.load, repacked(tmp_path, {}, zipfile.ZIP_LZMA))
    refused(kavlet_file.load, repacked(tmp_path, {}, twice="document.json"))
    zeros = {f"pictures/{number + 50}": bytes(19_000_000) for number in range(9)}
    assert "larger than any" in refused(kavlet_file.load, repacked(tmp_path, zeros))
    assert "too large" in refused(kavlet_file.load, repacked(tmp_path, {"pictures/77": bytes(21_000_000)}))


def test_a_document_with_bytes_missing(tmp_path: Path) -> None:
    content = DEMO.read_bytes()
    chance = random.Random(5)
    for _ in range(40):
        at = chance.randrange(len(content))
        path = tmp_path / "x.kavlet"
        path.write_bytes(content[:at] + content[at + chance.randrange(1, 4000) :])
        refused(kavlet_file.load, path)


def test_readers_hold_against_rotten_files(tmp_path: Path) -> None:
    chance = random.Random(11)
    sound = attack.seeds(tmp_path)
    for number in range(240):
        ending = list(sound)[number % len(sound)]
        path = tmp_path / f"rotten{ending}"
        path.write_bytes(attack.rotten(sound[ending], chance))
        with contextlib.suppress(KavletError):
            attack.READERS[ending](path)


def evaluated(*column: float | str) -> object:
    cells: list[Cell] = [Formula(one) if isinstance(one, str) and one.startswith("=") else one for one in column]
    document, _ = edits.add_table(Document(), "T", [["x"], *[[one] for one in cells]])
    return recalculate(document.tables).columns[0][0].values[-1]


def test_patterns_take_time_in_proportion_to_the_text() -> None:
    start = time.perf_counter()
    assert evaluated("a" * 3_000, f'=COUNTIF(A2;"{"*a" * 30}*c")') == 0.0
    assert time.perf_counter() - start < 2.0
    for pattern, count in (
        ("*a*b", 1.0),
        ("a*", 2.0),
        ("*", 3.0),
        ("?b*", 1.0),
        ("~*", 0.0),
        ("a?c", 1.0),
        ("*c*", 1.0),
    ):
        assert evaluated("aab", "abc", "x", f'=COUNTIF(A2:A4;"{pattern}")') == count, pattern


def test_texts_that_formulas_make_are_no_longer_than_a_cell_holds() -> None:
    doubled = [f"=A{row}&A{row}" for row in range(2, 40)]
    assert evaluated("xxxx", *doubled) == ErrorValue.VALUE
    assert evaluated("x" * 30_000, "=CONCAT(A2;A2)") == ErrorValue.VALUE


def test_sums_of_huge_numbers_end_in_infinity() -> None:
    assert exact_sum([1e308, 1e308, -1e308]) == 1e308
    assert exact_sum([1e308, 1e308]) == float("inf")
    assert exact_sum([0.1] * 10) == 1.0


def test_what_is_no_regular_file_is_not_read(tmp_path: Path) -> None:
    pipe = tmp_path / "pipe.csv"
    os.mkfifo(pipe)
    refused(tables.read, pipe)
    refused(tables.read, Path("/dev/zero"))


def _kinds(held: msgspec.inspect.Type, met: set[type]) -> set[type]:
    """All types that a type is made of, those that drop what they do not know."""
    if isinstance(held, msgspec.inspect.StructType):
        if held.cls in met:
            return set()
        met.add(held.cls)
        inner = [field.type for field in held.fields]
        dropping = set() if held.forbid_unknown_fields else {held.cls}
    else:
        values = [getattr(held, name) for name in held.__struct_fields__]
        inner = [one for value in values for one in (value if isinstance(value, tuple) else (value,))]
        dropping = set()
    return dropping.union(*(_kinds(one, met) for one in inner if isinstance(one, msgspec.inspect.Type)))


@pytest.mark.parametrize("kind", [kavlet_file.Content, kit.Kit, OwnRecipe, Chart])
def test_nothing_that_a_file_holds_is_dropped_in_silence(kind: type) -> None:
    """What a newer Kavlet put anywhere into a file would be lost when it is saved: such a file is refused."""
    met: set[type] = set()
    assert _kinds(msgspec.inspect.type_info(kind), met) == set()
    assert len(met) > 3


def test_a_field_of_tomorrow_refuses_the_file() -> None:
    plain = json.loads(zipfile.ZipFile(DEMO).read("document.json"))
    plain["document"]["tables"][0]["columns"][0]["tomorrow"] = 1
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as made:
        made.writestr("document.json", json.dumps(plain))
    with pytest.raises(KavletError, match="does not know: “tomorrow”"):
        kavlet_file.loads(buffer.getvalue(), "x")
    held = json.loads(kit.dumps(kit.Kit(name="a"))) | {"tomorrow": 1}
    with pytest.raises(KavletError, match="house"):
        kit.loads(json.dumps(held).encode(), "house")
    held["version"] = 2
    with pytest.raises(KavletError, match="newer"):
        kit.loads(json.dumps(held).encode(), "house")
