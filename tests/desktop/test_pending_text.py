"""What is being typed, in every editor: taken before any command, save, close and change of place, kept against a
crash, never given to another thing; undo and redo are the editor's own."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget
from pytestqt.qtbot import QtBot

from kavlet.core.document.document import Document
from kavlet.core.files import journal
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.words import Words
from kavlet.desktop.command import Command, Commands
from kavlet.desktop.main import Window, offer_kept
from kavlet.desktop.pending_text import TextEditor
from kavlet.desktop.recovery.recovery_dialog import RecoveryDialog
from tests.desktop.editors import EDITORS, TYPED, escape
from tests.desktop.hands import show, start_typing

each = pytest.mark.parametrize("name", EDITORS)


def test_every_kind_of_editor_is_among_those_tried() -> None:
    tried = tuple(one.kind for one in EDITORS.values())
    assert all(issubclass(kind, tried) for kind in TextEditor.kinds if kind.__module__.startswith("kavlet."))


@each
def test_what_is_typed_is_pending_until_it_is_taken(window: Window, qtbot: QtBot, name: str) -> None:
    editor, taken = EDITORS[name].open(window, qtbot)
    assert window.pending_text.editor is editor
    assert window.isWindowModified()
    assert window.actions_by_name["undo"].text() == "Undo: typing"
    assert not taken(window.store.document)
    assert window.pending_text.take()
    assert taken(window.store.document)
    assert window.pending_text.editor is None
    assert not window.actions_by_name["undo"].text().endswith("typing")


def test_every_command_takes_what_is_typed_first(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    done: list[str] = []
    monkeypatch.setattr(type(window.pending_text), "take", lambda _self: done.append("taken") or True)
    ours = [command for command in window.menus.commands.all if not command.of_typing]
    assert {command.name for command in window.menus.commands.all} - {command.name for command in ours} == {
        "undo", "redo"
    }  # fmt: skip
    for command in ours:
        probe = Command(command.name, command.menu, command.text, lambda: done.append("done"))
        done.clear()
        Commands._carry_out(window.menus.commands, probe)
        assert done[:2] == ["taken", "done"], command.name


@each
@pytest.mark.parametrize("command", ["zoom_in", "show_pages", "copy_chart"])
def test_a_command_finds_what_was_typed_in_the_document(window: Window, qtbot: QtBot, name: str, command: str) -> None:
    _, taken = EDITORS[name].open(window, qtbot)
    typed_before = len(window.store.history.steps)
    action = window.actions_by_name[command]
    assert action.isEnabled()
    action.trigger()
    assert taken(window.store.history.steps[typed_before].document)
    assert not window.pending_text.is_changed


@each
def test_keys_of_commands_come_through_every_editor(
    window: Window, qtbot: QtBot, name: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: asked.append("save") or ("", ""))
    editor, taken = EDITORS[name].open(window, qtbot)
    qtbot.keyClick(editor, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)
    assert taken(window.store.document)
    assert asked == ["save"]


@each
def test_saving_saves_what_is_typed(window: Window, qtbot: QtBot, name: str, tmp_path: Path) -> None:
    path = tmp_path / "year.kavlet"
    window.store.saved(path)
    kavlet_file.save(window.store.document, path)
    window.store.saved(path)
    _, taken = EDITORS[name].open(window, qtbot)
    window.actions_by_name["save"].trigger()
    assert taken(kavlet_file.load(path))
    assert not window.isWindowModified()


@each
def test_closing_asks_for_what_is_typed(
    window: Window, qtbot: QtBot, name: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []

    def gives_up(box: QMessageBox) -> None:
        asked.append(box.text())

    monkeypatch.setattr(QMessageBox, "exec", gives_up)
    window.store.history.saved()
    _, taken = EDITORS[name].open(window, qtbot)
    window.store.history.saved()  # opening some of them was an edit
    assert not window.close()
    assert asked == ["Save the changes to “Mirefen year”?"]
    assert taken(window.store.document)


@each
def test_what_is_typed_is_kept_against_a_crash(window: Window, qtbot: QtBot, name: str) -> None:
    _, taken = EDITORS[name].open(window, qtbot)
    before = window.store.document
    window.keeper._follow()
    window.keeper.flush()
    (held,) = journal.folder().glob("*.journal")
    kept = journal.read(held)
    assert kept is not None
    assert kept.unsaved
    assert taken(kept.document)
    assert window.store.document is before  # it was only tried out
    assert not taken(before)
    assert window.pending_text.is_changed


@each
def test_what_is_given_up_is_kept_no_more(window: Window, qtbot: QtBot, name: str) -> None:
    editor, taken = EDITORS[name].open(window, qtbot)
    window.keeper._follow()
    window.keeper.flush()
    if name == "words on a page":
        return  # whose Escape takes them
    escape(qtbot, editor)
    window.keeper._follow()
    window.keeper.flush()
    (held,) = journal.folder().glob("*.journal")
    kept = journal.read(held)
    assert kept is not None
    assert not taken(kept.document)
    assert kept.typed == ""
    assert not taken(window.store.document)


@each
def test_undo_and_redo_are_the_editor_s_while_something_is_typed(window: Window, qtbot: QtBot, name: str) -> None:
    editor, taken = EDITORS[name].open(window, qtbot)
    before, text = window.store.document, editor.typed_text()
    undo, redo = window.actions_by_name["undo"], window.actions_by_name["redo"]
    undo.trigger()
    assert window.store.document is before
    assert editor.typed_text() != text
    assert redo.text() == "Redo: typing"
    for _ in range(20):
        if editor.typed_text() != text:
            redo.trigger()
    assert editor.typed_text() == text
    assert window.pending_text.take()
    assert taken(window.store.document)
    undo.trigger()
    assert not taken(window.store.document)
    redo.trigger()
    assert taken(window.store.document)


def test_an_unchanged_editor_closes_before_an_undo(window: Window, qtbot: QtBot) -> None:
    start_typing(qtbot, window, 1, 1, "5")
    assert window.pending_text.take()
    grid = window.figures.grid
    grid.go_to(1, 1)
    qtbot.keyClick(grid, Qt.Key.Key_F2)
    assert grid.formula is not None
    window.actions_by_name["undo"].trigger()
    assert grid.formula is None
    assert window.store.table.columns[1].cells[1] == 18400.0


def test_words_go_to_their_own_page_whatever_is_in_view(window: Window, qtbot: QtBot) -> None:
    editor, taken = EDITORS["words on a page"].open(window, qtbot)
    pages = [page.id for page in window.store.document.pages]
    window.store.show_page(pages[-1])
    assert taken(window.store.document)
    escape(qtbot, editor)
    assert sum(TYPED in str(page) for page in window.store.document.pages) == 1


def test_words_of_a_page_that_is_deleted_come_back_with_it(window: Window, qtbot: QtBot) -> None:
    _, taken = EDITORS["words on a page"].open(window, qtbot)
    window.actions_by_name["delete_page"].trigger()
    assert not any(TYPED in str(page) for page in window.store.document.pages)
    window.store.undo()
    assert taken(window.store.document)


def test_the_formula_line_belongs_to_the_cell_it_was_typed_for(window: Window, qtbot: QtBot) -> None:
    _, taken = EDITORS["formula line"].open(window, qtbot)
    window.figures.grid.go_to(1, 4)
    assert taken(window.store.document)
    assert window.figures.line.text() == str(int(window.store.table.columns[1].cells[4]))  # type: ignore[arg-type]


@pytest.mark.parametrize("answer", ["close", "stay"])
def test_closing_asks_about_a_text_that_can_t_be_taken(
    window: Window, qtbot: QtBot, answer: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []
    chosen: list[object] = []

    def reply(box: QMessageBox) -> None:
        asked.append(box.text())
        close = next(button for button in box.buttons() if button.text() == "Close without it")
        chosen[:] = [close if answer == "close" else None]

    monkeypatch.setattr(QMessageBox, "exec", reply)
    monkeypatch.setattr(QMessageBox, "clickedButton", lambda _box: chosen[0])
    show(window, "thermometer")
    field = window.dress.settings["goal"]
    field.setFocus()
    qtbot.keyClicks(field, "plenty")
    assert window.files.may_close() is (answer == "close")
    assert len(asked) == 1
    assert "plenty" in asked[0]


def test_a_text_that_can_t_be_taken_is_offered_after_a_crash(window: Window, qtbot: QtBot) -> None:
    field = window.dress.texts["title"]
    field.setFocus()
    field.selectAll()
    qtbot.keyClicks(field, "=1+")
    window.keeper._follow()
    window.keeper.flush()
    window.keeper.close(keep=True)
    offer_kept(window)
    sheet = window.findChild(RecoveryDialog)
    assert sheet is not None
    assert "“=1+”" in sheet.says.text()
    window.pending_text.drop()


def test_keys_in_a_touched_chart_are_no_commands_of_the_page(window: Window, qtbot: QtBot) -> None:
    from tests.desktop.editors import _page_with

    _page_with(window, ChartFrame)
    canvas, before = window.pages.canvas, window.store.document
    canvas.touch(next(one.id for one in window.store.page.items if isinstance(one, ChartFrame)))
    figure = canvas.frame.picture.figure
    from kavlet.core.interaction.parts import walk

    window.store.select(next(part for part in walk(figure) if part.kind == "layer"))
    for key, held in ((Qt.Key.Key_Delete, None), (Qt.Key.Key_Backspace, None), (Qt.Key.Key_X, 1), (Qt.Key.Key_D, 1)):
        modifier = Qt.KeyboardModifier.ControlModifier if held else Qt.KeyboardModifier.NoModifier
        qtbot.keyClick(canvas.frame, key, modifier)
        assert window.store.document is before
    qtbot.keyClick(canvas.frame, Qt.Key.Key_Delete)
    assert "hide them in Dress" in window.saying.text()


def test_places_without_a_table_say_so(window: Window) -> None:
    window.store.load(Document(), None, "")
    for command in ("show_pages", "show_stage"):
        window.say("")
        window.actions_by_name[command].trigger()
        assert "There is no table" in window.saying.text()


def test_words_are_still_one_step(window: Window, qtbot: QtBot) -> None:
    steps = len(window.store.history.steps)
    editor, _ = EDITORS["words on a page"].open(window, qtbot)
    escape(qtbot, editor)
    assert len(window.store.history.steps) == steps + 1
    assert str(window.store.history.undo_name) == "type words"
    assert isinstance(next(one for one in window.store.page.items if isinstance(one, Words)), Words)


@each
def test_another_program_in_front_takes_nothing_and_loses_nothing(window: Window, qtbot: QtBot, name: str) -> None:
    editor, taken = EDITORS[name].open(window, qtbot)
    before, text = window.store.document, editor.typed_text()
    other = QWidget()
    qtbot.addWidget(other)
    other.show()
    other.activateWindow()
    qtbot.waitUntil(lambda: not window.isActiveWindow())
    window.store.edited.emit()  # all is shown anew
    assert window.store.document is before
    assert editor.typed_text() == text
    window.activateWindow()
    qtbot.waitUntil(window.isActiveWindow)
    assert window.pending_text.take()
    assert taken(window.store.document)
