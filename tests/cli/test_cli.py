"""The command line, run as a user runs it."""

import json
import subprocess
import sys
import zipfile
from pathlib import Path
from typing import Any

import msgspec
import pytest
import xlsxwriter
from PIL import Image

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.values.geometry import Rect
from tests.command import run, run_alone


def made(table: Path, *arguments: object) -> dict[str, Any]:
    out = table.parent / "made.json"
    done = run("make", "funnel", table, "-o", out, *arguments)
    assert done.returncode == 0, done.stderr
    return json.loads(out.read_text(encoding="utf-8"))  # type: ignore[no-any-return]


def test_make_writes_every_format_without_a_display(visitor_csv: Path) -> None:
    for ending, start in ((".svg", b"<svg"), (".png", b"\x89PNG"), (".pdf", b"%PDF"), (".kavlet", b"PK")):
        out = visitor_csv.with_suffix(ending)
        done = run_alone("make", "funnel", visitor_csv, "-o", out)
        assert (done.returncode, done.stderr) == (0, "")
        assert out.read_bytes().startswith(start)


def test_the_record_holds_what_was_computed(visitor_csv: Path) -> None:
    held = made(visitor_csv, "--size", "800x450")
    assert held["recipe"] == "funnel"
    assert held["size"] == [800, 450]
    assert held["title"] == "Visitor path"
    assert held["helpers"][0]["values"] == [0, 5750, 7820, 8682.5, 9045]
    people = [mark for mark in held["marks"] if mark["layer"] == "people"]
    assert [mark["value"] for mark in people] == [18400, 6900, 2760, 1035, 310]
    assert all(mark["visible"] and not mark["helper"] for mark in people)
    assert all(not mark["visible"] for mark in held["marks"] if mark["layer"] == "offset")
    assert held["legend"] == ["people"]
    assert [label["text"] for label in held["labels"] if label["layer"] == "step"] == [
        "37.5%",
        "40%",
        "37.5%",
        "30%",
    ]


def test_roles_and_settings(visitor_csv: Path) -> None:
    table = visitor_csv.with_name("wide.csv")
    table.write_text("id,people,Stage,last year\n1,50,Visits,40\n2,20,Walks,30\n", encoding="utf-8")
    held = made(table, "--role", "name=stage", "--role", "value=last year", "--set", "rates=none", "--title", "=D2")
    assert [mark["value"] for mark in held["marks"] if mark["layer"] == "last year"] == [40, 30]
    assert not [label for label in held["labels"] if label["layer"] == "step"]
    assert held["title"] == "40"
    by_letter = made(table, "--role", "name=C", "--role", "value=B", "--set", "overall=no")
    assert by_letter["legend"] == ["people"]


def test_png_has_the_chosen_scale_and_colours(visitor_csv: Path) -> None:
    held = made(visitor_csv)
    out = visitor_csv.with_suffix(".png")
    run("make", "funnel", visitor_csv, "-o", out, "--scale", "2")
    with Image.open(out) as picture:
        assert picture.size == (1280, 720)
        for mark in held["marks"]:
            if mark["layer"] != "people":
                continue
            x, y, width, height = mark["bounds"]
            at = picture.convert("RGB").getpixel((round(2 * (x + width * 0.1)), round(2 * (y + height * 0.2))))
            assert "#{:02x}{:02x}{:02x}".format(*at) == mark["fill"]  # type: ignore[misc]
        assert picture.convert("RGB").getpixel((4, 4)) == (255, 253, 249)


def test_render_draws_the_document_that_make_wrote(visitor_csv: Path) -> None:
    document = visitor_csv.with_suffix(".kavlet")
    run("make", "funnel", visitor_csv, "-o", document, "--set", "shape=tapered")
    first, second = visitor_csv.with_name("a.json"), visitor_csv.with_name("b.json")
    assert run("make", "funnel", visitor_csv, "-o", first, "--set", "shape=tapered").returncode == 0
    assert run("render", document, "-o", second).returncode == 0
    assert json.loads(first.read_text(encoding="utf-8")) == json.loads(second.read_text(encoding="utf-8"))
    assert run("render", document, "--all", "-o", visitor_csv.with_name("year.svg")).returncode == 0
    assert visitor_csv.with_name("year-visitor-path.svg").exists()
    assert run("render", document, "--chart", "Nothing", "-o", second).returncode == 3
    assert zipfile.is_zipfile(document)


def test_recipes_declare_roles_and_parameters() -> None:
    held = json.loads(run("recipes", "--json").stdout)
    funnel = next(one for one in held if one["name"] == "funnel")
    assert [role["name"] for role in funnel["roles"]] == ["name", "value"]
    for parameter in funnel["parameters"]:
        assert {"name", "type", "default", "range", "meaning"} <= set(parameter)
        assert parameter["meaning"].endswith(".")
    assert "funnel" in run("recipes").stdout


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        ("stage,people\nVisits,many\nWalks,3\n", "B2 holds “many”, which is not a number."),
        ("stage,people\nVisits,9\nWalks,-3\n", "B3 is negative."),
        ("stage,people\nVisits,9\n", "at least two stages"),
        ("stage,people\n", "no rows of figures"),
        ("", "is empty"),
        ("\x00\x01", "not a text file"),
    ],
)
def test_input_at_fault_is_one_sentence_and_nothing_is_written(tmp_path: Path, text: str, sentence: str) -> None:
    table, out = tmp_path / "table.csv", tmp_path / "out.svg"
    table.write_text(text, encoding="utf-8")
    done = run("make", "funnel", table, "-o", out)
    assert done.returncode == 3
    assert sentence in done.stderr
    assert done.stderr.count("\n") == 1
    assert "Traceback" not in done.stderr
    assert not out.exists()


def test_other_faults_of_the_input(visitor_csv: Path, tmp_path: Path) -> None:
    out = tmp_path / "out.svg"
    broken = tmp_path / "broken.kavlet"
    broken.write_bytes(b"PK nothing")
    for arguments in (
        ("make", "funnel", tmp_path / "missing.csv", "-o", out),
        ("make", "funnel", visitor_csv, "-o", out, "--role", "value=nobody"),
        ("make", "funnel", visitor_csv, "-o", out, "--set", "gap=wide"),
        ("make", "funnel", visitor_csv, "-o", out, "--set", "shape=round"),
        ("make", "funnel", visitor_csv, "-o", out, "--size", "0x0"),
        ("make", "funnel", visitor_csv, "-o", out, "--theme", "none such"),
        ("make", "funnel", visitor_csv, "-o", tmp_path / "no folder" / "out.svg"),
        ("make", "funnel", visitor_csv, "-o", tmp_path / "huge.png", "--scale", "1000"),
        ("render", broken, "-o", out),
        ("open", tmp_path / "missing.kavlet"),
    ):
        done = run(*arguments)
        assert done.returncode == 3, arguments
        assert done.stderr.count("\n") == 1
        assert not out.exists()


def test_wrong_usage(visitor_csv: Path) -> None:
    for arguments in (
        ("make", "nothing", visitor_csv, "-o", "out.svg"),
        ("make", "funnel", visitor_csv, "-o", "out.bmp"),
        ("make", "funnel", visitor_csv),
        ("make", "funnel", visitor_csv, "-o", "out.svg", "--set", "colour=red"),
        ("make", "funnel", visitor_csv, "-o", "out.svg", "--role", "value"),
        ("nonsense",),
    ):
        assert run(*arguments).returncode == 2, arguments


def test_svg_needs_no_qt(visitor_csv: Path) -> None:
    code = (
        "import sys; sys.modules['PySide6'] = None; sys.argv = ['kavlet', *sys.argv[1:]]\n"
        "from kavlet.cli import main; main()"
    )
    out = visitor_csv.with_suffix(".svg")
    done = subprocess.run(
        [sys.executable, "-c", code, "make", "funnel", str(visitor_csv), "-o", str(out)],
        check=False,
        capture_output=True,
    )
    assert done.returncode == 0, done.stderr
    assert out.exists()


def test_suggest_puts_the_best_recipe_first(visitor_csv: Path, tmp_path: Path) -> None:
    done = run("suggest", "--json", visitor_csv)
    assert (done.returncode, done.stderr) == (0, "")
    first, *others = json.loads(done.stdout)
    assert first["recipe"] == "funnel"
    assert first["reason"]
    assert first["roles"] == {"name": ["stage"], "value": ["people"]}
    assert first["settings"] == {}
    assert len(others) == 25
    thermometer = next(one for one in others if one["recipe"] == "thermometer")
    assert thermometer["settings"]["goal"] > 18400
    other = tmp_path / "moves.csv"
    other.write_text("what,kg\nStock,800\nSold,-540\nFound,90\n")
    several = json.loads(run("suggest", visitor_csv, other, "--json").stdout)
    assert [held[0]["recipe"] for held in several.values()] == ["funnel", "bridge"]
    assert run("suggest", other).stdout.startswith("bridge ")
    missing = run("suggest", tmp_path / "none.csv")
    assert missing.returncode == 3
    assert len(missing.stderr.strip().splitlines()) == 1


def test_figures_are_read_across_a_row(tmp_path: Path) -> None:
    table, out = tmp_path / "walks.csv", tmp_path / "walks.json"
    table.write_text("month,Enquiries,Tours,Signed\nApril,520,180,61\nMay,480,210,70\n")
    assert run("make", "funnel", table, "--across", "May", "-o", out).returncode == 0
    record = json.loads(out.read_text())
    assert [mark["value"] for mark in record["marks"] if mark["layer"] == "May"] == [480, 210, 70]
    refused = run("make", "funnel", table, "--across", "July", "-o", tmp_path / "none.svg")
    assert (refused.returncode, (tmp_path / "none.svg").exists()) == (3, False)
    assert "July" in refused.stderr
    table.write_text("Enquiries,Tours,Signed\n520,180,61\n")
    offered = json.loads(run("suggest", table, "--json").stdout)
    assert (offered[0]["across"], offered[0]["roles"]["value"]) == ("1", ["Enquiries", "Tours", "Signed"])


def test_calc_evaluates_cell_by_cell_in_place(tmp_path: Path) -> None:
    table = tmp_path / "sums.csv"
    table.write_text(
        "stage,people,share\nVisits,0.1,=B2/SUM(B2:B3)\n"
        '"=UPPER(A2)&"" two""",0.2,"=IF(B3>1;1;TRUE)"\n\n=B9,=1/0,=B2+B3\n',
        encoding="utf-8",
    )
    done = run("calc", table)
    assert (done.returncode, done.stderr) == (0, "")
    assert done.stdout.splitlines() == [
        "stage,people,share",
        "Visits,0.1,0.3333333333333333",
        "VISITS two,0.2,TRUE",
        "",
        ",#DIV/0!,0.30000000000000004",
    ]
    out = tmp_path / "out.csv"
    assert run("calc", table, "-o", out).stdout == ""
    assert out.read_bytes().endswith(b"0.30000000000000004\r\n")


def test_texts_leave_harmless_or_raw_as_is_wished(tmp_path: Path) -> None:
    table, out = tmp_path / "signs.csv", tmp_path / "out.csv"
    table.write_text('name,x\n@SUM(1),1\n"=""=""&""1+1""",2\n', encoding="utf-8")
    assert run("calc", table).stdout.splitlines() == ["name,x", "'@SUM(1),1", "'=1+1,2"]
    assert run("calc", table, "--raw").stdout.splitlines() == ["name,x", "@SUM(1),1", "=1+1,2"]
    made = run("make", "columns", table, "-o", out)
    assert made.returncode == 0, made.stderr
    assert out.read_text().splitlines()[1:3] == ["'@SUM(1),1", "'=1+1,2"]
    assert run("make", "columns", table, "-o", out, "--raw").returncode == 0
    assert out.read_text().splitlines()[1:3] == ["@SUM(1),1", "=1+1,2"]


def test_calc_and_make_read_workbooks(tmp_path: Path) -> None:
    table = tmp_path / "year.xlsx"
    book = xlsxwriter.Workbook(str(table))
    book.add_worksheet("Notes").write(0, 0, "nothing here")
    page = book.add_worksheet("Path")
    page.write_row(2, 1, ["stage", "people"])
    page.write_row(3, 1, ["Visits", 400])
    page.write(4, 1, "Walks")
    page.write_formula(4, 2, "=C4/4", None, 0)
    page.write_formula(5, 2, "=GAUSS(1)", None, 0.34)
    book.close()
    done = run("calc", table, "--sheet", "Path", "--range", "B3:C5")
    assert done.stdout.splitlines() == ["stage,people", "Visits,400", "Walks,100"]
    assert "GAUSS" in run("calc", table, "--sheet", "Path").stderr
    out = tmp_path / "out.json"
    assert run("make", "funnel", table, "--sheet", "Path", "--range", "B3:C5", "-o", out).returncode == 0
    held = json.loads(out.read_text(encoding="utf-8"))
    assert [mark["value"] for mark in held["marks"] if mark["layer"] == "people"] == [400, 100]
    assert run("calc", table, "--sheet", "Nowhere").returncode == 3


def test_a_solid_by_its_looks(visitor_csv: Path) -> None:
    """The same chart turned: the record tells seen areas, and the SVG has faces that the flat one has not."""
    turned = ("--look", "solid.turn=-25", "--look", "solid.tilt=15", "--look", "solid.form=round")
    bars = [mark for mark in made(visitor_csv, *turned)["marks"] if "visible_share" in mark]
    values = [mark["value"] for mark in bars if mark["layer"] == "people"]
    assert values == [18400, 6900, 2760, 1035, 310]
    assert sum(mark["visible_share"] for mark in bars) == pytest.approx(1, abs=0.001)
    sizes = {}
    for name, looks in (("flat", ()), ("solid", turned)):
        out = visitor_csv.with_name(f"{name}.svg")
        assert run("make", "funnel", visitor_csv, "-o", out, *looks).returncode == 0
        sizes[name] = out.read_text("utf-8")
    assert "linearGradient" not in sizes["flat"]
    assert "linearGradient" in sizes["solid"] or sizes["solid"].count("<path") > sizes["flat"].count("<path") + 5


def test_a_look_that_leads_nowhere_is_an_error(visitor_csv: Path) -> None:
    out = visitor_csv.parent / "made.svg"
    done = run("make", "funnel", visitor_csv, "-o", out, "--look", "layers.nothing.fill=red")
    assert done.returncode == 3
    assert "layers.nothing.fill leads nowhere" in done.stderr
    assert "layers.value" in done.stderr
    assert not out.exists()


def test_a_look_that_can_not_stand_where_it_leads_is_an_error(visitor_csv: Path) -> None:
    done = run("make", "funnel", visitor_csv, "-o", visitor_csv.parent / "made.svg", "--look", "title.size=large")
    assert done.returncode == 3
    assert "large" in done.stderr


def test_a_palette_may_be_hex_codes_or_a_file(visitor_csv: Path) -> None:
    gpl = visitor_csv.parent / "house.gpl"
    gpl.write_text("GIMP Palette\nName: House\n#\n 18  52  86 deep\n200 100  50 clay\n", encoding="utf-8")
    fills = [
        {mark["fill"] for mark in made(visitor_csv, "--palette", asked)["marks"] if mark["layer"] == "people"}
        for asked in ("#123456 #c86432", gpl)
    ]
    assert fills == [{"#123456"}, {"#123456"}]


def test_a_palette_that_is_none_is_said(visitor_csv: Path) -> None:
    for asked in ("nowhere", "nowhere.gpl"):
        done = run("make", "funnel", visitor_csv, "-o", visitor_csv.parent / "made.svg", "--palette", asked)
        assert done.returncode == 3
        assert "nowhere" in done.stderr


@pytest.mark.parametrize("ending", [".xlsx", ".ods", ".json", ".csv"])
def test_calc_writes_every_format_of_tables(tmp_path: Path, ending: str) -> None:
    table = tmp_path / "gates.csv"
    table.write_text("gate,count\nNorth,3\nSouth,4\nTotal,=B2+B3\n", encoding="utf-8")
    out = tmp_path / f"made{ending}"
    done = run("calc", table, "-o", out)
    assert done.returncode == 0, done.stderr
    again = run("calc", out)
    assert again.stdout.splitlines() == ["gate,count", "North,3", "South,4", "Total,7"]


def test_calc_refuses_an_ending_that_is_no_table(tmp_path: Path) -> None:
    table = tmp_path / "gates.csv"
    table.write_text("gate,count\nNorth,3\n", encoding="utf-8")
    assert run("calc", table, "-o", tmp_path / "made.png").returncode == 2


def test_several_charts_do_not_go_into_one_file(visitor_csv: Path) -> None:
    one = visitor_csv.with_suffix(".kavlet")
    run("make", "funnel", visitor_csv, "-o", one)
    document = kavlet_file.load(one)
    document, _ = edits.add_chart(document, document.tables[0].id, "columns")
    kavlet_file.save(document, one)
    out = visitor_csv.with_name("all.svg")
    refused = run("render", one, "-o", out)
    assert refused.returncode == 2
    assert "several charts" in refused.stderr
    assert not out.exists()
    assert run("render", one, "--all", "-o", out).returncode == 0
    assert not out.exists()
    assert len(list(out.parent.glob("all-*.svg"))) == 2


def test_calc_lets_no_text_become_a_formula(tmp_path: Path) -> None:
    table = tmp_path / "texts.csv"
    table.write_text('name,n\n"=""=1+1""",-5\n@note,=-3\n', encoding="utf-8")
    assert run("calc", table).stdout.splitlines() == ["name,n", "'=1+1,-5", "'@note,-3"]


# Pages


@pytest.fixture
def paged(tmp_path: Path) -> Path:
    """A document with two pages: words and a chart, and an empty one."""
    rows = [["Gate", "Guests"], ["North", 40.0], ["South", 25.0], ["East", 10.0]]
    document, table = edits.add_table(Document(), "Gates", rows)  # type: ignore[arg-type]
    document, chart = edits.add_chart(document, table, "funnel", {"name": ("c1",), "value": ("c2",)})
    document, first = page_edits.add_page(document, "A5", name="Überblick")
    heading = Words("", paragraphs=plain("All gates"), style="title")
    document, _ = page_edits.put(document, first, heading, Rect(57, 57, 300, 40))
    document, _ = page_edits.put(document, first, ChartFrame("", chart=chart), Rect(57, 120, 300, 220))
    document, _ = page_edits.add_page(document, "Slide 16:9", name="End")
    path = tmp_path / "report.kavlet"
    path.write_bytes(kavlet_file.dumps(document))
    return path


@pytest.mark.parametrize("page", ["Überblick", "1"])
@pytest.mark.parametrize(("ending", "start"), [(".svg", b"<svg"), (".png", b"\x89PNG"), (".pdf", b"%PDF")])
def test_a_page_is_drawn_by_name_or_number(paged: Path, page: str, ending: str, start: bytes) -> None:
    out = paged.with_suffix(ending)
    done = run("render", paged, "--page", page, "-o", out)
    assert (done.returncode, done.stderr) == (0, "")
    assert out.read_bytes().startswith(start)


def test_a_page_s_record_holds_its_items_and_their_bounds(paged: Path) -> None:
    out = paged.with_suffix(".json")
    assert run("render", paged, "--page", "1", "-o", out).returncode == 0
    held = json.loads(out.read_text(encoding="utf-8"))
    assert [(item["kind"], item["bounds"]) for item in held["items"]] == [
        ("words", [57, 57, 300, 40]), ("chart", [57, 120, 300, 220]),
    ]  # fmt: skip


def test_all_pages_make_one_pdf_and_a_picture_each(paged: Path) -> None:
    out = paged.with_suffix(".pdf")
    assert run("render", paged, "--pages", "-o", out).returncode == 0
    assert out.read_bytes().count(b"/Type /Page\n") == 2
    done = run("render", paged, "--pages", "-o", paged.with_suffix(".png"))
    assert done.returncode == 0, done.stderr
    assert len(list(paged.parent.glob("*.png"))) == 2


def test_pages_are_listed(paged: Path) -> None:
    done = run("pages", paged, "--json")
    assert done.returncode == 0, done.stderr
    held = json.loads(done.stdout)
    assert [(page["name"], round(page["width"], 2)) for page in held] == [("Überblick", 419.53), ("End", 960.0)]
    assert [set(item) >= {"kind", "name", "bounds"} for item in held[0]["items"]] == [True, True]
    assert "Überblick" in run("pages", paged).stdout


@pytest.mark.parametrize(
    "arguments",
    [("--page", "Nowhere"), ("--page", "7"), ("--page", "0"), ("--page", "1", "--all"), ("--pages", "--page", "1")],
)
def test_a_page_that_is_not_there_is_said(paged: Path, arguments: tuple[str, ...]) -> None:
    out = paged.with_suffix(".svg")
    done = run("render", paged, *arguments, "-o", out)
    assert done.returncode != 0
    assert done.stderr
    assert not out.exists()


def test_a_document_without_pages_says_so(visitor_csv: Path) -> None:
    document = visitor_csv.with_name("none.kavlet")
    assert run("make", "funnel", visitor_csv, "-o", document).returncode == 0
    assert json.loads(run("pages", document, "--json").stdout) == []
    done = run("render", document, "--pages", "-o", document.with_suffix(".pdf"))
    assert done.returncode != 0
    assert "page" in done.stderr


def test_a_page_of_ten_metres_in_a_file_is_refused(paged: Path) -> None:
    """Written by hand, or by a newer version: it is said, and nothing is drawn."""
    content = kavlet_file.loads(paged.read_bytes(), "report.kavlet")
    wide = msgspec.structs.replace(content.pages[0], width=28_346.0)
    paged.write_bytes(kavlet_file.dumps(msgspec.structs.replace(content, pages=(wide,))))
    done = run("render", paged, "--pages", "-o", paged.with_suffix(".png"))
    assert done.returncode != 0
    assert done.stderr
    assert "Traceback" not in done.stderr
