"""Every way out through the registry and the command line: files, names, what is told, sameness, and refusals."""

import email
import email.policy
import io
import json
from pathlib import Path
from typing import Any

import pikepdf
import pytest
from PIL import Image

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.formats import AnimationOptions, ExportOptions
from kavlet.core.values.errors import KavletError
from kavlet.export.animation import eased, times
from kavlet.export.outgoing import Export, slug
from kavlet.export.pictures import for_painting
from kavlet.export.ways import EXPORT_FORMATS, all_endings, files, format_of, written
from tests.command import run, run_alone

DEMO = Path(__file__).parents[2] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
STEPPING = "k16"


@pytest.fixture(scope="module")
def demo() -> Document:
    for_painting()
    return kavlet_file.load(DEMO)


@pytest.mark.parametrize("way", [way for way in EXPORT_FORMATS if not way.steps], ids=lambda way: way.ending)
def test_every_way_writes_a_chart_and_the_same_twice(demo: Document, way: Any) -> None:
    what = Export(demo, ("k8",), title="Fund")
    made = written(what, ExportOptions(way.ending))
    assert len(made.content) > 100
    assert written(Export(demo, ("k8",), title="Fund"), ExportOptions(way.ending)).content == made.content


@pytest.mark.parametrize(
    "way", [way for way in EXPORT_FORMATS if way.for_pages and not way.steps], ids=lambda way: way.ending
)
def test_every_way_for_pages_writes_them(demo: Document, way: Any) -> None:
    pages = tuple(page.id for page in demo.pages)[:2]
    made = list(files(Export(demo, pages=pages, title="Year"), ExportOptions(way.ending), Path(f"year{way.ending}")))
    assert len(made) == (1 if way.many else 2)


def test_an_ending_that_is_none_is_refused() -> None:
    with pytest.raises(KavletError, match=r"can’t be written as \.bmp"):
        format_of(".bmp")
    with pytest.raises(KavletError, match=r"can’t be written as \.xlsx"):
        format_of(".xlsx", pages=True)
    assert ".xlsx" in all_endings()
    assert ".xlsx" not in all_endings(pages=True)


def test_files_are_named_by_pattern_or_with_their_names(demo: Document) -> None:
    what = Export(demo, ("k1", "k8"), title="Two")
    assert [one.path.name for one in files(what, ExportOptions(".svg"), Path("a.svg"))] == [
        "a-visitor-path.svg", "a-reserve-fund.svg"
    ]  # fmt: skip
    assert [one.path.name for one in files(what, ExportOptions(".svg"), Path("{number}_{name}.svg"))] == [
        "1_visitor-path.svg", "2_reserve-fund.svg"
    ]  # fmt: skip
    same = edits.change_chart(demo, "k8", name="Visitor path")
    names = [one.path.name for one in files(Export(same, ("k1", "k8")), ExportOptions(".svg"), Path("a.svg"))]
    assert len(set(names)) == 2


@pytest.mark.parametrize("name", ["A/B: “c” <d>?", "../../etc", "…", "", "Ünïcode Ñame", "a" * 300])
def test_names_of_files_are_harmless(name: str) -> None:
    made = slug(name)
    assert made
    assert not set(made) & set('/\\:*?"<>|.')


def test_animations_have_the_pictures_and_times_of_their_plan(demo: Document) -> None:
    what = Export(demo, (STEPPING,), title="Counts")
    motion = AnimationOptions(hold=0.5, move=0.3, rate=10)
    plan = times(len(what.periods(0)), motion)
    for ending in (".gif", ".apng", ".webp"):
        made = Image.open(io.BytesIO(written(what, ExportOptions(ending, scale=0.5, motion=motion)).content))
        seen = 0
        durations = []
        for place in range(made.n_frames):
            made.seek(place)
            made.load()
            durations.append(round(made.info["duration"]))
            seen += durations[-1]
        assert seen == sum(each for _, each in plan), ending
        assert durations[0] >= 500
        if ending == ".apng":
            assert made.n_frames == len(plan)
        assert made.size == (320, 180)
        assert made.info.get("loop", 0) == 0


def test_an_animation_that_ends_is_played_once(demo: Document) -> None:
    what = Export(demo, (STEPPING,), title="Counts")
    motion = AnimationOptions(hold=0.1, move=0.0, again=False)
    made = Image.open(io.BytesIO(written(what, ExportOptions(".gif", scale=0.3, motion=motion)).content))
    assert "loop" not in made.info
    made = Image.open(io.BytesIO(written(what, ExportOptions(".webp", scale=0.3, motion=motion)).content))
    assert made.info["loop"] == 1


def test_what_does_not_step_or_is_too_long_is_refused(demo: Document) -> None:
    with pytest.raises(KavletError, match="does not go through periods"):
        written(Export(demo, ("k1",)), ExportOptions(".gif"))
    with pytest.raises(KavletError, match="too long"):
        written(Export(demo, (STEPPING,)), ExportOptions(".gif", motion=AnimationOptions(move=100.0, rate=60)))


def test_easing_begins_and_ends_at_rest() -> None:
    assert [eased(share, True) for share in (0.0, 0.5, 1.0)] == [0.0, 0.5, 1.0]
    assert eased(0.1, True) < 0.1 < eased(0.9, True)
    assert eased(0.25, False) == 0.25


def test_a_picture_too_large_is_refused(demo: Document) -> None:
    with pytest.raises(KavletError, match="too large"):
        written(Export(demo, ("k1",)), ExportOptions(".png", scale=200.0))


def test_a_chart_leaves_in_another_size(demo: Document) -> None:
    made = written(Export(demo, ("k1",)), ExportOptions(".svg", width=300.0, height=200.0)).content.decode()
    assert 'width="300pt" height="200pt"' in made


def test_what_an_office_format_cannot_hold_is_told(demo: Document) -> None:
    (told,) = written(Export(demo, ("k1",)), ExportOptions(".pptx")).told
    assert (told.name, told.as_) == ("Visitor path", "chart")
    assert "the pale bodies between the bars are missing" in map(str, told.differs)
    (told,) = written(Export(demo, ("k1",)), ExportOptions(".pptx", as_="picture")).told
    assert (told.as_, told.differs) == ("picture", ())


def test_all_charts_of_a_pdf_are_pages_with_bookmarks(demo: Document) -> None:
    content = written(Export(demo, ("k1", "k8"), title="Two"), ExportOptions(".pdf")).content
    with pikepdf.open(io.BytesIO(content)) as made, made.open_outline() as outline:
        assert len(made.pages) == len(outline.root) == 2


def test_a_draft_holds_the_picture_its_words_and_the_pdf(demo: Document) -> None:
    content = written(Export(demo, ("k1",), title="Path"), ExportOptions(".eml", to=("bo@mirefen.example",))).content
    made = email.message_from_bytes(content, policy=email.policy.default)
    assert made["subject"] == "Path"
    kinds = [part.get_content_type() for part in made.walk()]
    assert kinds.count("image/png") == 1
    assert "application/pdf" in kinds
    body = made.get_body(("plain",))  # type: ignore[attr-defined]
    assert "18,400" in body.get_content()


# The command line


def test_render_writes_to_standard_output(demo: Document) -> None:
    del demo
    done = run_alone("render", DEMO, "--chart", "Pump hours", "--format", "svg", "-o", "-")
    assert done.returncode == 0
    assert done.content.startswith(b"<svg")
    several = run("render", DEMO, "--all", "--format", "svg", "-o", "-")
    assert several.returncode == 2


def test_render_says_what_was_written_and_what_differs(tmp_path: Path) -> None:
    out = tmp_path / "path.xlsx"
    done = run("render", DEMO, "--chart", "Visitor path", "-o", out, "--as", "both", "--json")
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout) == {
        "out": str(out),
        "charts": [{"name": "Visitor path", "as": "both", "differs": ["the pale bodies between the bars are missing"]}],
    }
    assert out.exists()


def test_render_writes_into_a_folder_and_by_a_pattern(tmp_path: Path) -> None:
    done = run("render", DEMO, "--pages", "--format", "svg", "-o", tmp_path / "sheets")
    assert done.returncode == 0, done.stderr
    assert len(list((tmp_path / "sheets").glob("*.svg"))) == 12
    done = run("render", DEMO, "--all", "-o", tmp_path / "{name}.csv")
    assert done.returncode == 0, done.stderr
    assert (tmp_path / "visitor-path.csv").read_text("utf-8").startswith("stage,people")


def test_render_writes_animations_as_wished(tmp_path: Path) -> None:
    out = tmp_path / "a.webp"
    done = run("render", DEMO, "--chart", "Monthly counts", "-o", out, "--hold", 0.2, "--move", 0, "--once",
               "--scale", 0.4)  # fmt: skip
    assert done.returncode == 0, done.stderr
    with Image.open(out) as made:
        assert made.info["loop"] == 1
        assert made.size == (256, 144)


def test_make_writes_office_files_with_real_charts(tmp_path: Path, visitor_csv: Path) -> None:
    import openpyxl

    out = tmp_path / "funnel.xlsx"
    done = run("make", "funnel", visitor_csv, "-o", out)
    assert done.returncode == 0, done.stderr
    assert openpyxl.load_workbook(out).worksheets[0]._charts


@pytest.mark.parametrize(
    ("given", "code"),
    [
        (("--to", "nobody", "--format", "eml"), 3),
        (("--format", "bmp"), 2),
        (("--as", "nothing", "--format", "pptx"), 2),
        (("--size", "tiny", "--format", "svg"), 3),
        (("--format", "gif"), 3),
    ],
)
def test_wrong_wishes_write_nothing(tmp_path: Path, given: tuple[str, ...], code: int) -> None:
    done = run("render", DEMO, "--chart", "Visitor path", "-o", tmp_path / "out", *given)
    assert done.returncode == code, done.stderr
    assert not [one for one in tmp_path.rglob("*") if one.is_file()]
    assert len([line for line in done.stderr.strip().splitlines() if line.startswith("kavlet:")]) == (code == 3)
