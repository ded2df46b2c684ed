"""The window in other languages: nothing is said past the catalogue, and what was done goes along."""

import re
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

import msgspec
import pytest
from PySide6.QtCore import QLocale, QPoint, Qt
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import (
    QAbstractButton,
    QComboBox,
    QLabel,
    QLineEdit,
    QListWidget,
    QMenu,
    QPushButton,
    QTabBar,
    QWidget,
)
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables.samples import samples
from kavlet.core.files.journal import JournalContent
from kavlet.core.interaction.parts import Part, marks_of, walk
from kavlet.core.messages import LANGUAGES, PSEUDO, language, say, speak
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.table import Source
from kavlet.core.text.faces import FACES
from kavlet.core.text.numbers import LOCALES, locale_title
from kavlet.desktop import document_loading, languages
from kavlet.desktop.command_finder import CommandFinder
from kavlet.desktop.command_registry import stage_menu
from kavlet.desktop.deliver.deliver_dialog import DeliverDialog
from kavlet.desktop.deliver.last_delivery import DeliveryChoice
from kavlet.desktop.deliver.outbox_dialog import OutboxDialog
from kavlet.desktop.deliver.printing import SHEETS, PrintDialog
from kavlet.desktop.deliver.showcase_dialog import ShowcaseDialog
from kavlet.desktop.figures.import_dialog import ENCODINGS, ImportDialog
from kavlet.desktop.main import OpenWindow, Window, application, open_window
from kavlet.desktop.recovery.recovery_dialog import RecoveryDialog
from kavlet.sharing.server import Server
from tests.desktop.hands import figure, show
from tests.desktop.taken_again import OneWindow, settled

SHOWN = ("text", "placeholderText", "toolTip", "accessibleName", "accessibleDescription", "title", "windowTitle")
OF_OTHERS = {"Scroll Left", "Scroll Right", "Cancel", "OK", *(locale_title(one, PSEUDO) for one in LOCALES)}  # Qt, CLDR
TERMS = {
    "Kavlet", "CSV", "PNG", "JPEG", "SVG", "PDF", "XLSX", "ODS", "JSON", "UTF", "pt", "mm",
    "Ctrl", "Shift", "Alt", "Del", "Return", "Left", "Right", "Up", "Down",
}  # fmt: skip
WORD = re.compile(r"[^\W\d_]{2,}")


@pytest.fixture
def speaking(qtbot: QtBot, settings: Path) -> Iterator[None]:
    """Settings of its own, and English again afterwards."""
    del qtbot, settings
    yield
    languages.choose(languages.AS_DESKTOP)
    languages.apply_language(application())
    assert language() == "en"


def _of(document: Document) -> set[str]:
    """The words of a document, which are its author's."""
    texts = {text for chart in document.charts for text in (chart.name, chart.title, chart.subtitle, chart.source)}
    for table in document.tables:
        texts |= {table.name, *(str(getattr(cell, "text", cell)) for column in table.columns for cell in column.cells)}
    for chart in document.charts:
        written = [one.name for one in RECIPES[chart.recipe].parameters if one.type == "text"] if chart.recipe else []
        texts |= {str(chart.settings.get(name, "")) for name in written}
    texts |= set(_strings(msgspec.to_builtins(document.pages)))
    texts |= {one.name for one in samples("en")}  # which have a file of their own in each language
    return {word for text in texts for word in WORD.findall(text)}


def _strings(held: object) -> Iterator[str]:
    """All texts in a value of plain types."""
    if isinstance(held, str):
        yield held
    elif isinstance(held, dict):
        for inner in held.values():
            yield from _strings(inner)
    elif isinstance(held, list | tuple):
        for inner in held:
            yield from _strings(inner)


def _texts(root: QWidget) -> Iterator[tuple[str, str]]:
    """What a widget and all inside it show or tell, with where."""
    for one in (root, *root.findChildren(QWidget)):
        where = type(one).__name__
        for name in SHOWN:
            tells = getattr(one, name, None)
            if callable(tells) and not (name == "text" and isinstance(one, QLineEdit)):
                yield f"{where}.{name}", str(tells())
        if isinstance(one, QTabBar):
            yield from ((f"{where}.tab", one.tabText(i)) for i in range(one.count()))
        if isinstance(one, QListWidget):
            for i in range(one.count()):
                yield f"{where}.item", one.item(i).text()
                yield f"{where}.item", one.item(i).toolTip()
        for action in one.actions():
            yield f"{where}.action", action.text()
            yield f"{where}.action", action.toolTip()


def _choices(root: QWidget) -> set[str]:
    """What can be chosen inside a widget; of choices that are alike but for the one chosen, once."""
    alike = {(one.count(), one.itemText(0), one.itemText(one.count() - 1)): one for one in root.findChildren(QComboBox)}
    return {one.itemText(i) for one in alike.values() for i in range(one.count())}


def _is_unsaid(text: str, own: set[str]) -> bool:
    bare = re.sub(r"<[^>]*>|#[0-9a-f]{6}\b|⟦.*⟧", " ", text, flags=re.DOTALL)
    return text not in OF_OTHERS and any(word not in own and word not in TERMS for word in WORD.findall(bare))


def _unsaid(root: QWidget, own: set[str]) -> set[tuple[str, str]]:
    """Texts with words that are neither from the catalogue nor the author's."""
    texts = set(_texts(root)) | {("item", text) for text in _choices(root)}
    return {(where, text) for where, text in texts if _is_unsaid(text, own)}


@pytest.fixture(scope="module")
def marked(tmp_path_factory: pytest.TempPathFactory) -> Iterator[OneWindow]:
    """Windows with the demo whose own words are in the language that marks what is from the catalogue."""
    document = msgspec.structs.replace(document_loading.demo(), locale=PSEUDO)
    made = OneWindow(tmp_path_factory.mktemp("nowhere"), document)
    yield made
    made.end()


@pytest.fixture
def pseudo(qtbot: QtBot, settings: Path, answered: None, marked: OneWindow) -> Iterator[Window]:
    """A window in the language that marks what is from the catalogue."""
    del qtbot, answered
    speak(PSEUDO)
    made = marked.take(settings)
    made.store.edit_chart(say("size item"), lambda document, chart: edits.change_chart(document, chart.id, width=300.0))
    yield made
    speak("en")


@pytest.fixture
def own(pseudo: Window) -> set[str]:
    faces = {word for face in FACES.values() for word in WORD.findall(face.css_family)}
    return _of(pseudo.store.document) | faces | {word for name in LANGUAGES.values() for word in WORD.findall(name)}


def test_every_chart_and_part_is_said_from_the_catalogue(pseudo: Window, own: set[str]) -> None:
    """Every recipe's own fields and layers, and each kind of part of each layer type and frame once."""
    unsaid, met = _unsaid(pseudo, own), set()
    for recipe in {chart.recipe for chart in pseudo.store.document.charts if chart.recipe}:
        show(pseudo, recipe)
        settled()  # what the last one showed is gone
        assert pseudo.dress.parameters.fields.keys() == {one.name for one in RECIPES[recipe].parameters}
        unsaid |= _unsaid(pseudo.dress.parameters, own) | _unsaid(pseudo.stage, own)
        made, spec = figure(pseudo), pseudo.store.spec
        parts = [*walk(made), Part("plot", "")]
        for key in {part.key for part in parts if part.kind == "layer"}:
            parts += [*marks_of(made, key)[:1], Part("label", key)]
        for part in parts:
            kind = (part.kind, type(spec.layer(part.key) or spec.frame), part.key if part.kind == "text" else "")
            if kind not in met:
                met.add(kind)
                pseudo.store.select(part)
                settled()
                unsaid |= _unsaid(pseudo.dress, own)
    assert len(met) > 40
    assert not unsaid


def test_solids_and_x_ray_are_said_from_the_catalogue(pseudo: Window, own: set[str]) -> None:
    show(pseudo, "pie")
    pseudo.actions_by_name["toggle_solid"].trigger()
    pseudo.store.select(marks_of(figure(pseudo), "value")[0])
    pseudo.store.show_xray(True)
    assert not _unsaid(pseudo, own)
    assert "⟦" in pseudo.menus.commands.actions["undo"].text().partition(":")[2]


KNOWN_AS_THEY_ARE = (*SHEETS, "kB", "MB", "mm")


def test_dialogs_and_shelves_are_said_from_the_catalogue(
    pseudo: Window, own: set[str], tmp_path: Path, qtbot: QtBot
) -> None:
    path = tmp_path / "ab.csv"
    path.write_text("stage,people\nVisits,3\n")
    own |= {"ab", *(word for name in ENCODINGS for word in WORD.findall(name))}
    deliver = DeliverDialog(pseudo.store, DeliveryChoice(one=pseudo.store.here.id), pseudo.worker)
    own |= set(WORD.findall(" ".join((*KNOWN_AS_THEY_ARE, "name@example.org", "160mm x 90mm"))))
    for ending in deliver.format.buttons:
        deliver.choose(ending)
        deliver._ask()
        qtbot.waitUntil(deliver.save.isEnabled, timeout=20_000)
        assert not _unsaid(deliver, own), ending
    recovery = RecoveryDialog(
        [JournalContent(path, pseudo.store.history, None, "ab", datetime(2026, 1, 2), unsaved=True)]
    )
    printing = PrintDialog((pseudo.store.drawn.scene,))
    for sheet in (OutboxDialog(), ShowcaseDialog(Server(), lambda do: do()), printing, recovery):
        assert not _unsaid(sheet, own), sheet
    reading = ImportDialog(Source(str(path)))
    finder = CommandFinder(pseudo.findable(), pseudo)
    shelf = pseudo.dress.parameters.shelf
    shelf.refresh()
    pseudo.actions_by_name["open_recipes"].trigger()
    qtbot.wait(50)
    for place in (reading, finder, shelf, pseudo.wall):
        assert not _unsaid(place, own), place
    for made in (deliver, reading, finder):
        made.deleteLater()


def test_menus_are_said_from_the_catalogue(pseudo: Window, own: set[str]) -> None:
    key = figure(pseudo).marks[0].key
    pseudo.layers.add_menu(QPoint(0, 0))
    pseudo.layers.menu(key, QPoint(0, 0))
    pseudo.menus.popup("grid", QPoint(0, 0))
    stage_menu(pseudo, Part("layer", key), QPoint(0, 0))
    menus = [*pseudo.findChildren(QMenu), pseudo.figures.grid.roles.role_menu(0)]
    assert len(menus) > 10
    for menu in menus:
        assert not _unsaid(menu, own)
        menu.close()


def test_pages_and_presenting_are_said_from_the_catalogue(pseudo: Window, own: set[str]) -> None:
    """The fields of the page and of each kind of item once, the strip, and what is presented."""
    pseudo.places.show_pages()
    unsaid, met = _unsaid(pseudo.pages, own), set()
    for page in pseudo.store.document.pages:
        pseudo.store.show_page(page.id)
        for item in page.items:
            if item.kind not in met:
                met.add(item.kind)
                pseudo.store.choose_items(item.id)
                unsaid |= _unsaid(pseudo.pages, own)
    assert len(met) == 8
    pseudo.presenting.present()
    pseudo.presenting.toggle_speaker()
    stage, speaker = pseudo.presenting.stage, pseudo.presenting.speaker
    assert stage is not None
    assert speaker is not None
    unsaid |= _unsaid(stage, own) | _unsaid(speaker, own)
    pseudo.presenting.end()
    assert not unsaid


@pytest.mark.parametrize("typed", ["many", "9999", "=nothing"])
def test_what_is_refused_is_said_from_the_catalogue(pseudo: Window, own: set[str], typed: str) -> None:
    pseudo.dress.parameters.fields["gap"].committed.emit(typed)
    said = pseudo.saying.text() or pseudo.stage.view.problem
    assert "⟦" in said
    assert not _unsaid(pseudo, own)


@pytest.mark.usefixtures("pseudo")
def test_an_empty_window_is_said_from_the_catalogue(own: set[str]) -> None:
    empty = open_window()
    assert not _unsaid(empty, own)
    empty.close()
    empty.deleteLater()


@pytest.mark.usefixtures("speaking")
def test_the_language_of_the_desktop_is_spoken(monkeypatch: pytest.MonkeyPatch) -> None:
    for asked, spoken in (("de:en", "de"), ("de_AT.UTF-8", "de"), ("C", "en"), ("fr_FR.UTF-8", "en"), ("en_GB", "en")):
        monkeypatch.setenv("LANGUAGE", asked)
        languages.apply_language(application())
        assert language() == spoken
    monkeypatch.setenv("LANGUAGE", "en")


@pytest.mark.usefixtures("speaking")
def test_a_language_chosen_in_view_is_spoken_at_once_and_keeps_the_work() -> None:
    opened = OpenWindow(open_window(demo=True))
    opened.window.store.show_chart(opened.window.store.document.charts[3].id)
    opened.window.dress.texts["title"].committed.emit("Otters")
    before = opened.window
    opened.window.actions_by_name["language_de"].trigger()
    made = opened.window
    assert made is not before
    assert not before.isVisible()
    assert made.isVisible()
    assert [action.text() for action in made.menuBar().actions()][:2] == ["Datei", "Bearbeiten"]
    assert made.store.here.title == "Otters"
    assert made.store.chosen.chart == before.store.chosen.chart
    assert made.menus.commands.actions["undo"].text() == "Rückgängig: Titel ändern"
    made.actions_by_name["undo"].trigger()
    assert made.store.here.title != "Otters"
    assert QLocale().name().startswith("de")
    made.actions_by_name["language_en"].trigger()
    assert opened.window.menuBar().actions()[0].text() == "File"
    assert languages.chosen() == "en"
    opened.window.store.history.saved()
    opened.window.close()
    opened.window.deleteLater()


@pytest.mark.usefixtures("speaking")
def test_numbers_go_with_the_language() -> None:
    languages.choose("de")
    languages.apply_language(application())
    assert languages.locale_name() == "de_DE"
    made = open_window()
    made.files.open_cells([["stage", "people"], ["Visits", 1234.5], ["Walks", 2.0]])
    assert made.store.document.locale == "de_DE"
    assert made.figures.grid.cells.index(1, 1).data() == "1.234,5"
    made.dress.parameters.fields["gap"].committed.emit("62,5")
    assert made.store.here.settings["gap"] == 62.5
    assert made.dress.parameters.fields["gap"].text() == "62,5"
    made.dress.parameters.fields["gap"].committed.emit("9999")
    assert made.saying.text() == "Die Einstellung Abstand kann nicht 9.999 sein. Möglich sind 0 bis 500."
    made.store.history.saved()
    made.close()
    made.deleteLater()


@pytest.mark.usefixtures("speaking")
def test_words_of_qt_go_with_the_language(qtbot: QtBot) -> None:
    field = QLineEdit()
    qtbot.addWidget(field)
    languages.choose("de")
    languages.apply_language(application())
    menu = field.createStandardContextMenu()
    assert any("Rückgängig" in action.text() for action in menu.actions())
    languages.choose("en")
    languages.apply_language(application())
    assert any("Undo" in action.text().replace("&", "") for action in field.createStandardContextMenu().actions())


@pytest.mark.usefixtures("speaking")
def test_symbols_are_found_and_typed_in_the_readers_language() -> None:
    languages.choose("de")
    languages.apply_language(application())
    made = open_window(demo=True)
    show(made, "picture-bars")
    field = made.dress.parameters.fields["symbol"]
    assert field.text() == "Baum"
    field.committed.emit("leuchtturm")
    assert made.store.here.settings["symbol"] == "lighthouse"
    shelf = made.dress.parameters.shelf
    shelf.search.setText("leucht")
    shelf.refresh()
    assert shelf.list.item(0).data(Qt.ItemDataRole.UserRole) == "lighthouse"
    assert shelf.list.item(0).toolTip() == "Leuchtturm"
    made.store.history.saved()
    made.close()
    made.deleteLater()


@pytest.mark.usefixtures("speaking")
def test_labels_and_buttons_have_room_for_german(qtbot: QtBot, tmp_path: Path) -> None:
    languages.choose("de")
    languages.apply_language(application())
    made = open_window(demo=True)
    assert made.stage.recipes.text() == "Rezepte"
    made.worker.patience = made.store.attended.patience = 60.0
    made.resize(1024, 700)
    qtbot.wait(20)
    for recipe in {chart.recipe for chart in made.store.document.charts if chart.recipe}:
        show(made, recipe)
        settled()
        narrow = {label.text() for label in made.dress.findChildren(QLabel) if label.buddy() is not None
                  and label.maximumWidth() < label.fontMetrics().horizontalAdvance(label.text())}  # fmt: skip
        assert not narrow
        inside = made.dress.parameters.parentWidget()
        assert inside is not None
        assert inside.minimumSizeHint().width() <= 296 - 24, recipe  # Dress at its narrowest, without its margins
    made.places.show_pages()
    qtbot.wait(20)
    assert made.width() == 1024
    assert made.menuBar().sizeHint().width() <= 1024
    for page in made.store.document.pages:
        made.store.show_page(page.id)
        for chosen in ((), *((item.id,) for item in page.items)):
            made.store.choose_items(*chosen)
            narrow = {label.text() for label in made.pages.fields.findChildren(QLabel) if label.buddy() is not None
                      and label.maximumWidth() < label.fontMetrics().horizontalAdvance(label.text())}  # fmt: skip
            assert not narrow
    made.places.show_stage()
    path = tmp_path / "eine Tabelle mit einem sehr langen Namen.csv"
    path.write_text("Ort;Leute\nInsel;3\nUfer;4\n")
    made.store.history.saved()
    made.files.open_path(path)
    made.places.show_stage()
    qtbot.wait(20)
    assert made.figures.source.says.text().endswith(path.name)
    assert made.dress.look.numbers.currentData() == "de"
    seen = [one for one in made.findChildren(QAbstractButton) if one.isVisible() and one.text()]
    assert made.figures.source.otherwise in seen
    for button in seen:
        if isinstance(button, QPushButton) or button in (made.stage.xray, made.stage.solid):
            assert button.width() >= button.fontMetrics().horizontalAdvance(button.text()), button.text()
    made.store.history.saved()
    made.close()
    made.deleteLater()


def test_cells_pasted_into_an_empty_german_window_are_read_as_german_numbers(qtbot: QtBot) -> None:
    languages.choose("de")
    languages.apply_language(application())
    made = open_window()
    qtbot.addWidget(made, before_close_func=lambda one: one.store.history.saved())
    QGuiApplication.clipboard().setText("Ort\tLeute\nInsel\t1.037\nUfer\t0,25\n")
    made.actions_by_name["paste"].trigger()
    assert made.store.table.columns[1].cells[1:] == (1037.0, 0.25)
