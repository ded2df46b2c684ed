"""Files: .kavlet, CSV, SVG, the record; and rotten input."""

import io
import json
import os
import stat
import zipfile
from pathlib import Path

import jsonschema
import pytest
from defusedxml import ElementTree

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import csv, record, svg, tables
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pipeline.stages import picture
from kavlet.core.proof.findings_json import findings_json
from kavlet.core.spreadsheet.cell_input import read_field
from kavlet.core.spreadsheet.cells import FormattedNumber
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.text.faces import FACES
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PERCENT, NumberText
from tests.making import findings, kept

DOCS = Path(__file__).parents[3] / "docs"
SVG = "{http://www.w3.org/2000/svg}"


def archive(**members: bytes) -> bytes:
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as made:
        for name, content in members.items():
            made.writestr(name.replace("_", "."), content)
    return buffer.getvalue()


def test_a_document_reads_back_equal(funnel: Document, tmp_path: Path) -> None:
    settings = {"shape": "tapered", "gap": 12.0, "values": False}
    document = edits.change_chart(funnel, "k1", title="=A1", settings=settings)
    path = tmp_path / "year.kavlet"
    kavlet_file.save(document, path)
    assert kavlet_file.load(path) == document
    assert kavlet_file.dumps(document) == path.read_bytes()


def test_the_file_is_what_the_schema_in_docs_says(funnel: Document) -> None:
    schema = json.loads((DOCS / "kavlet.schema.json").read_text(encoding="utf-8"))
    assert schema == json.loads(json.dumps(kavlet_file.schema()))
    with zipfile.ZipFile(io.BytesIO(kavlet_file.dumps(funnel))) as made:
        jsonschema.validate(json.loads(made.read("document.json")), schema)


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"not a zip",
        b"PK\x03\x04 cut",
        archive(other_json=b"{}"),
        archive(document_json=b"{"),
        archive(document_json=b"[]"),
        archive(document_json=b'{"format": "other", "version": 1}'),
        archive(document_json=b'{"format": "kavlet", "version": 1}'),
        archive(document_json=b'{"format": "kavlet", "version": 1, "document": {"surprise": 1}, "more": 2}'),
        archive(document_json=b'{"format": "kavlet", "version": 1, "document": ' + b"[" * 100_000),
        archive(document_json="{}".encode("utf-16")),
    ],
)
def test_a_broken_document_is_refused_in_one_sentence(content: bytes) -> None:
    with pytest.raises(KavletError) as caught:
        kavlet_file.loads(content, "year.kavlet")
    assert "year.kavlet" in str(caught.value.what)
    assert "\n" not in str(caught.value)


def test_a_document_cut_anywhere_is_refused(funnel: Document) -> None:
    content = kavlet_file.dumps(funnel)
    for end in range(0, len(content), 37):
        with pytest.raises(KavletError):
            kavlet_file.loads(content[:end], "year.kavlet")


def test_a_newer_document_is_refused_kindly(funnel: Document) -> None:
    with zipfile.ZipFile(io.BytesIO(kavlet_file.dumps(funnel))) as made:
        held = json.loads(made.read("document.json"))
    held["version"] = 99
    held["document"]["unheard_of"] = 1
    with pytest.raises(KavletError, match="newer Kavlet"):
        kavlet_file.loads(archive(document_json=json.dumps(held).encode()), "year.kavlet")


def test_columns_of_unequal_length_are_damage(funnel: Document) -> None:
    with zipfile.ZipFile(io.BytesIO(kavlet_file.dumps(funnel))) as made:
        held = json.loads(made.read("document.json"))
    held["document"]["tables"][0]["columns"][0]["cells"].pop()
    with pytest.raises(KavletError, match="differ in length") as caught:
        kavlet_file.loads(archive(document_json=json.dumps(held).encode()), "year.kavlet")
    assert caught.value.where == "tables[0]"


def test_saving_replaces_the_whole_file_or_nothing(funnel: Document, tmp_path: Path) -> None:
    path = tmp_path / "year.kavlet"
    path.write_bytes(b"old")
    path.chmod(0o640)
    kavlet_file.save(funnel, path)
    assert stat.S_IMODE(path.stat().st_mode) == 0o640
    assert os.listdir(tmp_path) == ["year.kavlet"]
    with pytest.raises(KavletError, match="can’t be written"):
        kavlet_file.save(funnel, tmp_path / "no such folder" / "year.kavlet")
    with pytest.raises(KavletError, match="can’t be written"):
        kavlet_file.save(funnel, tmp_path)


@pytest.mark.parametrize(
    ("text", "rows"),
    [
        ("stage,people\r\nVisits,18400\r\n", [["stage", "people"], ["Visits", 18400.0]]),
        ("stage;people\nVisits;1.234,5\nWalks;7,25\n", [["stage", "people"], ["Visits", 1234.5], ["Walks", 7.25]]),
        (
            "stage\tpeople\nVisits\t5%\n",
            [["stage", "people"], ["Visits", FormattedNumber(0.05, NumberText(style="percent", most_decimals=1))]],
        ),
        ('stage,people\n"Visits, all",3\n', [["stage", "people"], ["Visits, all", 3.0]]),
        ('a,b\n"two\nlines",3\n', [["a", "b"], ["two\nlines", 3.0]]),
        ("\ufeffstage,people\nVisits,3\n", [["stage", "people"], ["Visits", 3.0]]),
        ("gate,2024,2025\nNorth,3,4\n", [["gate", "2024", "2025"], ["North", 3.0, 4.0]]),
        ("Visits,18400\nWalks,6900\n", [["Column 1", "Column 2"], ["Visits", 18400.0], ["Walks", 6900.0]]),
        ("a,b\n\n1,2\n,\n", [["a", "b"], [1.0, 2.0]]),
    ],
)
def test_csv_as_people_write_it(text: str, rows: list[list[object]], tmp_path: Path) -> None:
    path = tmp_path / "table.csv"
    path.write_text(text, encoding="utf-8", newline="")
    assert tables.named(tables.read(path)) == rows


@pytest.mark.parametrize("encoding", ["utf-16", "utf-8-sig", "cp1252"])
def test_csv_in_other_encodings(encoding: str, tmp_path: Path) -> None:
    path = tmp_path / "table.csv"
    path.write_bytes("région,Größe\nNord,3\n".encode(encoding))
    assert tables.read(path).cells[0] == ["région", "Größe"]


@pytest.mark.parametrize("content", [b"\x89PNG\r\n\x1a\n\x00\x00", b"", b"  \n", b"\xff\xfe\x00", b"a,b\x01\n"])
def test_a_file_that_is_no_table_is_refused(content: bytes, tmp_path: Path) -> None:
    path = tmp_path / "table.csv"
    path.write_bytes(content)
    with pytest.raises(KavletError):
        tables.read(path)


def made_svg(document: Document, outlines: bool = False) -> str:
    return svg.dumps(picture(document, recalculate(document.tables), "k1").scene, outlines)


def test_svg_bars_are_as_wide_as_the_values(funnel: Document) -> None:
    root = ElementTree.fromstring(made_svg(funnel))
    widths = [float(rect.get("width")) for rect in root.iter(f"{SVG}rect") if rect.get("data-layer") == "people"]
    assert [width / widths[0] for width in widths] == pytest.approx(
        [value / 18400 for value in (18400, 6900, 2760, 1035, 310)], abs=1e-5
    )


def test_svg_is_the_same_bytes_each_time_and_says_what_it_shows(funnel: Document) -> None:
    assert made_svg(funnel) == made_svg(funnel)
    root = ElementTree.fromstring(made_svg(funnel))
    assert root.find(f"{SVG}title").text == "Visitor path"
    assert "310 of 18,400 reach Members, 1.7%" in root.find(f"{SVG}desc").text
    assert "18,400" in [text.text for text in root.iter(f"{SVG}text")]


def test_svg_as_outlines_needs_no_font(funnel: Document) -> None:
    text = made_svg(funnel, outlines=True)
    assert "<text" not in text
    assert "font-face" not in text
    assert 'aria-label="18,400"' in text


def test_svg_embeds_a_face_that_holds_the_characters_in_use() -> None:
    from fontTools.ttLib import TTFont

    font = TTFont(io.BytesIO(svg.subset("FiraSans-Bold", "0123")))
    assert {ord(character) for character in "0123"} <= set(font.getBestCmap())
    assert len(svg.subset("FiraSans-Bold", "0123")) < 20_000
    assert len(FACES) == 10


def test_text_of_a_table_is_only_data(funnel: Document) -> None:
    nasty = '<script>alert("x")</script>&\x00\x0b'
    document = edits.set_cells(funnel, "t1", {(0, 1): nasty, (1, 0): '"><b'})
    document = edits.change_chart(document, "k1", title=nasty)
    for outlines in (False, True):
        root = ElementTree.fromstring(made_svg(document, outlines))
        assert not list(root.iter(f"{SVG}script"))
    assert root.find(f"{SVG}title").text == '<script>alert("x")</script>&'


def test_the_record_is_json_without_nan(funnel: Document) -> None:
    document = edits.set_cells(funnel, "t1", {(1, 2): None})
    made = kept(picture(document, recalculate(document.tables), "k1"), document)
    found = findings_json(findings(made), document)
    held = json.loads(record.dumps(record.record("funnel", made.build.helpers, made.figure, found)))
    assert [mark["row"] for mark in held["marks"] if mark["layer"] == "people"] == [0, 2, 3, 4]
    assert held["helpers"][1]["values"][0] is None
    assert held["axes"] == [{"name": "x", "min": 0.0, "max": 18400.0, "ticks": [], "visible": False}]


def test_rows_written_as_csv_read_back(tmp_path: Path) -> None:
    rows = [["a,b", 'quote "x"'], ["line\nbreak", ""]]
    path = tmp_path / "out.csv"
    path.write_text(csv.dumps(rows), encoding="utf-8", newline="")
    assert csv.rows(path.read_text(encoding="utf-8"), ",", "out.csv")[0] == rows[0]


@pytest.mark.parametrize(
    ("at", "where"),
    [
        ((), "$.document"),
        (("tables", 0), "$.document.tables[0]"),
        (("tables", 0, "columns", 0), "$.document.tables[0].columns[0]"),
        (("charts", 0), "$.document.charts[0]"),
        (("charts", 0, "dress"), "$.document.charts[0].dress"),
    ],
)
def test_a_file_that_holds_what_would_be_lost_is_refused(at: tuple[str | int, ...], where: str) -> None:
    held = json.loads(zipfile.ZipFile(io.BytesIO(kavlet_file.dumps(document_of_columns()))).read("document.json"))
    place = held["document"]
    for step in at:
        place = place.setdefault(step, {}) if isinstance(place, dict) else place[step]
    place["mood"] = "calm"
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as archive:
        archive.writestr("document.json", json.dumps(held))
    with pytest.raises(KavletError, match="does not know: “mood”") as raised:
        kavlet_file.loads(buffer.getvalue(), "later.kavlet")
    assert raised.value.where == where


def test_a_newer_version_is_refused_even_where_all_of_it_could_be_read() -> None:
    content = zipfile.ZipFile(io.BytesIO(kavlet_file.dumps(document_of_columns()))).read("document.json")
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as archive:
        archive.writestr("document.json", content.replace(b'"version": 1', b'"version": 2', 1))
    with pytest.raises(KavletError, match="newer"):
        kavlet_file.loads(buffer.getvalue(), "later.kavlet")


def document_of_columns() -> Document:
    document, table = edits.add_table(Document(), "Ponds", [["pond", "visits"], ["Mere", 4.0], ["Carr", 3.0]])
    return edits.add_chart(document, table, "columns")[0]


def test_blank_lines_stay_where_formulas_count_rows(tmp_path: Path) -> None:
    path = tmp_path / "a.csv"
    path.write_text("a,b\n\n5,6\n7,=A3\n", encoding="utf-8")
    assert csv.with_names(csv.read(path))[1] == []
    path.write_text("\na,b\n\n5,6\n", encoding="utf-8")
    assert csv.with_names(csv.read(path)) == [["a", "b"], [5.0, 6.0]]


@pytest.mark.parametrize(
    ("text", "cell"),
    [
        ("(200)", -200.0), ("200-", -200.0), ("200−", -200.0), ("(1,200.50)", -1200.5),
        ("(12 %)", FormattedNumber(-0.12, PERCENT)),
        ("(see note)", "(see note)"), ("5", 5.0), ("-5", -5.0), ("a-", "a-"), ("", None),
        ("()", "()"), ("3-4-", "3-4-"),
    ],
)  # fmt: skip
def test_negative_numbers_of_accounts(text: str, cell: object) -> None:
    assert read_field(text, ".", ",", accounts=True) == cell
    if text.startswith("("):
        assert read_field(text) == text


@pytest.mark.parametrize(
    ("text", "decimal", "rows"),
    [
        ("a;b\n1;2", ".", [["a", "b"], ["1", "2"]]), ("a;b", ".", [["a", "b"]]),
        ("Mind; the gap", ".", [["Mind; the gap"]]),
        ("a,b\n1,2", ".", [["a", "b"], ["1", "2"]]), ("1,5\n2,5", ",", [["1,5"], ["2,5"]]), ("a,b", ".", [["a,b"]]),
        ("a;b\tc", ".", [["a;b", "c"]]), ("a;b\nc", ".", [["a;b"], ["c"]]),
        ("x|y\n1|2", ".", [["x", "y"], ["1", "2"]]),
    ],
)  # fmt: skip
def test_pasted_texts_are_split_by_what_parts_all_lines(text: str, decimal: str, rows: list[list[str]]) -> None:
    assert csv.pasted(text, decimal) == rows


@pytest.mark.parametrize(
    ("figures", "usual", "sign"),
    [
        (["1.234", "2.500,5"], ".", ","), (["1.234", "5.000"], ".", "."), (["1.234", "5.000"], ",", ","),
        (["1.5", "1.234"], ",", "."), (["1,5", "1.234"], ".", ","), (["1.234.567"], ".", ","),
        (["1,234,567"], ",", "."),
        (["1,234"], ".", ","), (["12345.678"], ",", "."), (["12", "7"], ",", "."), (["12,5 %"], ".", ","),
    ],
)  # fmt: skip
def test_figures_tell_their_decimal_sign_else_it_is_the_usual_one(figures: list[str], usual: str, sign: str) -> None:
    text = "name;n\n" + "".join(f"row;{figure}\n" for figure in figures)
    assert csv.guess(text.encode(), "a.csv", usual).decimal == sign
