"""kavlet check."""

import json
from pathlib import Path

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.tables import stamp
from kavlet.core.spreadsheet.table import Source
from tests import command
from tests.making import table


def saved(folder: Path, *, minimum: float | None = None) -> Path:
    document, name = edits.add_table(Document(), "Counts", table(["a", "v"], ["x", "y"], [60, 80]))
    document, chart = edits.add_chart(document, name, "columns")
    document = edits.change_chart(document, chart, title="What it says")
    if minimum is not None:
        document = look_edits.set_setting(document, chart, "minimum", minimum)
    path = folder / "x.kavlet"
    kavlet_file.save(document, path)
    return path


def run(*given: str) -> tuple[int, str]:
    made = command.run("check", *given)
    return made.returncode, made.stdout


def test_nothing_is_said_too(tmp_path: Path) -> None:
    assert run(str(saved(tmp_path))) == (0, "Nothing found in 31 checks.\n")
    assert run(str(saved(tmp_path)), "--strict", "--json") == (0, "[]\n")


def test_findings_stand_below_their_chart(tmp_path: Path) -> None:
    code, said = run(str(saved(tmp_path, minimum=50.0)))
    assert code == 0
    assert said.splitlines() == [
        "Counts",
        "  warning  cut-axis: The scale begins at 50, not at zero, so lengths are not in proportion to the figures.",
        "",
        "1 finding in 31 checks.",
    ]


def test_json_is_a_list_with_all_of_it(tmp_path: Path) -> None:
    _, said = run(str(saved(tmp_path, minimum=50.0)), "--json")
    (first,) = json.loads(said)
    assert first == {
        "check": "cut-axis", "severity": "warning", "figure": 50.0,
        "message": "The scale begins at 50, not at zero, so lengths are not in proportion to the figures.",
        "chart": "Counts", "part": {"layer": "series 1"}, "remedies": ["begin at zero", "turn to points"],
    }  # fmt: skip


@pytest.mark.parametrize(("minimum", "code"), [(50.0, 3), (None, 0)])
def test_strict_ends_with_3_at_a_warning(tmp_path: Path, minimum: float | None, code: int) -> None:
    assert run(str(saved(tmp_path, minimum=minimum)), "--strict")[0] == code


def test_the_record_holds_the_same_findings(tmp_path: Path) -> None:
    path = saved(tmp_path, minimum=50.0)
    out = tmp_path / "x.json"
    made = command.run("render", str(path), "-o", str(out))
    assert made.returncode == 0
    assert json.loads(out.read_text("utf-8"))["findings"] == json.loads(run(str(path), "--json")[1])


def test_pictures_are_written_as_a_reader_sees_them(tmp_path: Path) -> None:
    path = saved(tmp_path)
    for reader in ("everyone", "grey print"):
        out = tmp_path / f"{reader}.svg"
        made = command.run("render", str(path), "-o", str(out), "--as-seen-by", reader)
        assert made.returncode == 0
    plain, grey = ((tmp_path / f"{one}.svg").read_text("utf-8") for one in ("everyone", "grey print"))
    assert "#7a2e5d" in plain
    assert "#7a2e5d" not in grey
    made = command.run("render", str(path), "-o", str(tmp_path / "x.pptx"), "--as-seen-by", "deutan")
    assert made.returncode != 0


def test_files_that_tables_follow_are_looked_at_where_that_is_asked_for(tmp_path: Path) -> None:
    path, figures = saved(tmp_path), tmp_path / "counts.csv"
    figures.write_text("a,v\nx,60\ny,80\n", "utf-8")
    document = kavlet_file.load(path)
    linked = msgspec.structs.replace(document.tables[0], source=Source(str(figures), seen=stamp(figures)))
    kavlet_file.save(msgspec.structs.replace(document, tables=(linked,)), path)
    assert run(str(path), "--sources") == (0, "Nothing found in 31 checks.\n")
    figures.write_text("a,v\nx,61\ny,80\n", "utf-8")
    assert "stale-source" not in run(str(path))[1]
    code, said = run(str(path), "--sources", "--strict")
    assert code == 3
    assert said.count("stale-source") == 1
    figures.unlink()
    assert "stale-source" in run(str(path), "--sources")[1]
    assert run(str(path))[1] == "Nothing found in 31 checks.\n"
