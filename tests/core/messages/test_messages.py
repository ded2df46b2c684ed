"""Messages: written late, in the reader's language; what is drawn in the document's; catalogues complete."""

import ast
import json
import re
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import msgspec
import pytest
from babel.messages.catalog import Catalog
from babel.messages.pofile import read_po

from kavlet.core.charts.chart import Chart
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.messages import (
    FOLDER,
    LANGUAGES,
    PSEUDO,
    Percent,
    counted,
    desktop_language,
    language,
    named,
    say,
    shown_number,
    speak,
    words,
    words_in,
)
from kavlet.core.pipeline.stages import picture
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.functions import FUNCTIONS
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from tests.making import findings, kept

ROOT = Path(__file__).parents[3]
SOURCE = ROOT / "src" / "kavlet"
FIELD = re.compile(r"\{\w+\}")


@pytest.fixture(autouse=True)
def english_again() -> Iterator[None]:
    yield
    speak("en")


def _catalogue(code: str) -> Catalog:
    with (FOLDER / code / "LC_MESSAGES" / "kavlet.po").open("rb") as file:
        return read_po(file, locale=code)


def test_a_message_is_written_when_it_is_read() -> None:
    error = KavletError(say("{file} is empty.", file="a.csv"), remedy=say("Choose another place."))
    assert str(error) == "a.csv is empty. Choose another place."
    speak("de_AT.UTF-8")
    assert str(error) == "a.csv ist leer. Einen anderen Ort wählen."


def test_fields_are_written_in_the_same_language() -> None:
    message = say("The setting {name} can’t be {number}.", name=named("gap"), number=-1234.5)
    assert str(message) == "The setting gap can’t be −1,234.5."
    assert message.said_in("de") == "Die Einstellung Abstand kann nicht −1.234,5 sein."
    listed = say("There are {names}.", names=["a", named("gap"), 2])
    assert listed.said_in("de") == "Es gibt a, Abstand, 2."


def test_one_word_may_name_two_things() -> None:
    assert words_in("de", "left") == "übrig"
    assert named("left").said_in("de") == "links"


@pytest.mark.parametrize(("count", "said"), [(1, "1 Zeile hat"), (0, "0 Zeilen haben"), (1200, "1.200 Zeilen haben")])
def test_a_count_chooses_the_form(count: int, said: str) -> None:
    one, many = "{count} row has no value and no mark.", "{count} rows have no value and no mark."
    assert counted(one, many, count).said_in("de").startswith(said)
    assert str(counted(one, many, count)).startswith(f"{count:,} row{'' if count == 1 else 's'} ha")


def test_braces_in_a_text_without_fields_stay() -> None:
    assert words("{value} of all") == "{value} of all"
    assert str(say("{name}", name="{x}")) == "{x}"
    assert not say("")
    assert str(say("")) == ""


def test_numbers_of_fields_have_no_signs_between_groups() -> None:
    assert shown_number(12345.25) == "12345.25"
    speak("de")
    assert shown_number(12345.25) == "12345,25"
    assert shown_number(-0.5) == "-0,5"
    assert shown_number(3.0) == "3"
    assert shown_number(0.0000125) == "0,0000125"


@pytest.mark.parametrize(
    ("set_", "asked"),
    [
        ({"LANGUAGE": "de:en", "LANG": "en_GB"}, "de"),
        ({"LANGUAGE": "fr:de", "LANG": "en_GB"}, "de"),
        ({"LANGUAGE": "fr", "LANG": "de_AT"}, "de"),
        ({"LC_ALL": "de_DE.UTF-8", "LANG": "en_GB"}, "de"),
        ({"LC_MESSAGES": "de_CH", "LANG": "en_GB"}, "de"),
        ({"LANG": "en_GB"}, "en"),
        ({"LANG": "C.UTF-8"}, "en"),
        ({}, "en"),
    ],
)
def test_the_desktop_s_language_is_read_as_posix_has_it(
    monkeypatch: pytest.MonkeyPatch, set_: dict[str, str], asked: str
) -> None:
    for name in ("LANGUAGE", "LC_ALL", "LC_MESSAGES", "LANG"):
        monkeypatch.delenv(name, raising=False)
    for name, value in set_.items():
        monkeypatch.setenv(name, value)
    assert desktop_language() == asked


def test_what_has_no_catalogue_is_english() -> None:
    speak("pt_BR")
    assert language() == "en"
    assert words("Save") == "Save"


def test_the_language_of_tests_marks_only_what_the_catalogues_hold() -> None:
    speak(PSEUDO)
    assert words("Save") == "⟦Save⟧"
    assert words("Nobody says this.") == "Nobody says this."
    assert str(named("gap")) == "⟦gap⟧"
    assert str(named("Save")) == "Save"
    assert str(counted("{count} cell", "{count} cells", 2)) == "2 cells"


def test_catalogues_are_complete_and_compiled() -> None:
    done = subprocess.run(
        [sys.executable, "tools/words.py", "--check"], cwd=ROOT, capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stdout + done.stderr


@pytest.mark.parametrize("code", [code for code in LANGUAGES if code != "en"])
def test_translations_keep_fields_and_endings(code: str) -> None:
    for message in _catalogue(code):
        if not message.id:
            continue
        sources = message.id if isinstance(message.id, tuple | list) else (message.id,)
        texts = message.string if isinstance(message.string, tuple | list) else (message.string,)
        assert all(texts), message.id
        for text in texts:
            assert set(FIELD.findall(text)) == set(FIELD.findall(sources[-1])), message.id
            assert text.strip() == text, message.id
            assert sources[0][-1] not in ".?…" or text[-1] in ".?…", message.id


def test_errors_and_names_of_edits_are_messages() -> None:
    """No bare text is raised or noted: the catalogue would not know it."""
    found = []
    for file in sorted(SOURCE.rglob("*.py")):
        for node in ast.walk(ast.parse(file.read_text())):
            if not isinstance(node, ast.Call):
                continue
            called = node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
            if called in ("KavletError", "FormulaError", "Notice", "Finding", "edit", "apply", "edit_chart", "Drag"):
                held = [*node.args, *(word.value for word in node.keywords if word.arg != "where")]
                bare = [one for one in held if isinstance(one, ast.JoinedStr) or _is_sentence(one)]
                found += [f"{file.name}:{one.lineno}" for one in bare]
    assert not found


def _is_sentence(node: ast.expr) -> bool:
    return isinstance(node, ast.Constant) and isinstance(node.value, str) and " " in node.value


SETTERS = {
    "setText", "setToolTip", "setPlaceholderText", "setWindowTitle", "setAccessibleName", "addAction", "addMenu",
    "addItem", "addTab", "addRow", "showMessage", "QLabel", "QPushButton", "QCheckBox", "QAction", "TextField",
    "ChoiceField", "PickField", "getText", "about",
}  # fmt: skip


def test_the_window_shows_no_text_past_the_catalogue() -> None:
    found = []
    for file in sorted((SOURCE / "desktop").rglob("*.py")):
        for node in ast.walk(ast.parse(file.read_text())):
            if not isinstance(node, ast.Call):
                continue
            called = node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
            for one in node.args if called in SETTERS else ():
                text = (
                    "".join(str(part.value) for part in one.values if isinstance(part, ast.Constant))
                    if isinstance(one, ast.JoinedStr)
                    else one.value
                    if isinstance(one, ast.Constant)
                    else ""
                )
                if re.search(r"[A-Za-z]{3,}", str(text).replace("Kavlet", "")) and not str(text).startswith("<"):
                    found.append(f"{file.name}:{node.lineno} {text}")
    assert not found


def _in_german(demo: Document, recipe: str) -> tuple[Chart, str]:
    """The demo's chart of a recipe as a document of German numbers and words has it, with its findings."""
    document = msgspec.structs.replace(demo, locale="de_DE")
    chart = next(one for one in document.charts if one.recipe == recipe)
    made = kept(picture(document, recalculate(document.tables), chart.id), document)
    return made.build.chart, " ".join(str(finding.message) for finding in findings(made))


@pytest.fixture(scope="module")
def demo() -> Document:
    return kavlet_file.load(SOURCE / "assets" / "demo" / "mirefen.kavlet")


@pytest.mark.parametrize("recipe", list(RECIPES))
def test_pictures_are_described_in_the_document_s_language(demo: Document, recipe: str) -> None:
    """Whatever the reader speaks: a picture does not change with who opens it."""
    chart, _ = _in_german(demo, recipe)
    here = next(one for one in demo.charts if one.recipe == recipe)
    english = picture(demo, recalculate(demo.tables), here.id).build.chart
    assert chart.alt_text != english.alt_text
    assert not re.search(r"\b(of|from|with|row|left|and)\b", re.sub(r"“[^”]*”", "", chart.alt_text).split(":")[0])
    speak("de")
    assert picture(demo, recalculate(demo.tables), here.id).build.chart == english


def test_drawn_words_are_in_the_document_s_language(demo: Document) -> None:
    chart, _ = _in_german(demo, "battery")
    assert [layer.name for layer in chart.layers] == ["Kappe", "übrig", "ausgegeben", "Kappe"]
    assert _in_german(demo, "funnel")[0].layers[-1].name == "insgesamt"
    assert "ein Symbol = " in _in_german(demo, "pictogram")[0].long_text


def test_findings_are_in_the_readers_language(demo: Document) -> None:
    chart = next(one for one in demo.charts if one.recipe == "funnel")
    emptied = edits.set_cells(demo, chart.table, {(1, 2): None})
    made = kept(picture(emptied, recalculate(emptied.tables), chart.id), emptied)
    assert "1 row has no value and no mark." in [str(one.message) for one in findings(made)]
    speak("de")
    assert "1 Zeile hat keinen Wert und nichts Gezeichnetes." in [str(one.message) for one in findings(made)]


def test_helper_columns_are_headed_in_the_document_s_language() -> None:
    document = Document(locale="de_DE")
    rows = [["Stufe", "Leute"], ["Besuche", 100.0], ["Führungen", 40.0]]
    document, table = edits.add_table(document, "Weg", rows)
    document, _ = edits.add_chart(document, table, "gauge")
    headed = [column.name for column in document.tables[0].columns if column.helper is not None]
    assert headed[:2] == ["Maximum", "Stand"]
    assert "Zone 1" in headed


def test_the_command_line_speaks_the_desktop_s_language(tmp_path: Path) -> None:
    table = tmp_path / "path.csv"
    table.write_text("stage,people\nVisits,18400\nWalks,6900\n")
    env = {"LANGUAGE": "de", "PATH": "/usr/bin", "KAVLET_NO_QT": "1"}
    command = [sys.executable, "-m", "kavlet.cli"]
    wrong = subprocess.run(
        [*command, "make", "funnel", str(table), "-o", str(tmp_path / "a.svg"), "--set", "gap=9999"],
        env=env, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert wrong.returncode == 3
    assert "Die Einstellung Abstand kann nicht 9.999 sein. Möglich sind 0 bis 500." in wrong.stderr
    helped = subprocess.run([*command, "make", "--help"], env=env, capture_output=True, text=True, check=True)
    assert "Wohin; die Endung entscheidet." in helped.stdout
    listed = subprocess.run([*command, "recipes", "--json"], env=env, capture_output=True, text=True, check=True)
    assert next(one for one in json.loads(listed.stdout) if one["name"] == "funnel")["title"] == "Funnel"


def test_functions_show_their_arguments_in_the_readers_language() -> None:
    assert FUNCTIONS["ROUND"].shown == "ROUND(number; [decimals])"
    assert FUNCTIONS["PI"].shown == "PI()"
    speak("de")
    assert FUNCTIONS["ROUND"].shown == "ROUND(Zahl; [Stellen])"
    assert FUNCTIONS["SUM"].shown == "SUM(Zahl; …)"
    speak(PSEUDO)
    for one in FUNCTIONS.values():
        assert re.sub(r"⟦[^⟧]*⟧", "", one.shown).strip(f"{one.name}()[]; ") == "", one.shown


@pytest.mark.parametrize("number", [1e308, -1e308, 1e20, 123.5, 0.0])
def test_numbers_of_any_size_are_written(number: float) -> None:
    for code in ("en", "de", "xx"):
        assert words_in(code, "{a}", a=number)
        assert words_in(code, "{a}", a=Percent(number))
    assert words_in("en", "{a}", a=1e25) == "1E25"
