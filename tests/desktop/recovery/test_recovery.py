"""Recovery in the real window and in a program of its own that is killed."""

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.files import journal
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.messages import say
from kavlet.desktop.main import Window, offer_kept
from kavlet.desktop.recovery.recovery_dialog import RecoveryDialog

SCRIPT = """
import sys, time
from PySide6.QtCore import QTimer
from kavlet.core.document import edits
from kavlet.core.messages import say
from kavlet.desktop import main

def typed(window, number):
    table = window.store.document.tables[0].id
    window.store.edit(say("type"), lambda document: edits.set_cells(document, table, {(1, 2): float(number)}))
    print(number, flush=True)

real = main.open_window
def opened(*given):
    window = real(*given)
    count = [0]
    def one():
        if not window.isVisible():
            return
        count[0] += 1
        typed(window, count[0])
    window.timer = QTimer(window)
    window.timer.timeout.connect(one)
    window.timer.start(50)
    return window
main.open_window = opened
sys.exit(main.run(demo=True))
"""


TYPING = """
import sys
from PySide6.QtCore import QTimer
from PySide6.QtTest import QTest
from kavlet.desktop import main

real = main.open_window
def opened(*given):
    window = real(*given)
    grid = window.figures.grid
    def begin():
        window.activateWindow()
        grid.setFocus()
        grid.go_to(1, 2)
        QTest.keyClicks(grid, "4")
        QTest.keyClicks(grid.formula, "17")
        print("typed", flush=True)
    QTimer.singleShot(300, window, begin)
    return window
main.open_window = opened
sys.exit(main.run(demo=True))
"""


def journals() -> list[Path]:
    return list(journal.folder().glob("*.journal"))


def kept_at(number: int) -> bool:
    found = journal.left_behind()
    return bool(found) and float(found[0].document.tables[0].columns[1].cells[2]) >= number  # type: ignore[arg-type]


def run_until(number: int) -> subprocess.Popen[str]:
    made = subprocess.Popen([sys.executable, "-c", SCRIPT], stdout=subprocess.PIPE, text=True)
    assert made.stdout is not None
    for line in made.stdout:
        if int(line) >= number:
            return made
    raise AssertionError("It ended by itself.")


def test_a_kill_loses_no_more_than_two_seconds() -> None:
    made = run_until(5)
    then = 5
    time.sleep(2.0)
    made.send_signal(signal.SIGKILL)
    made.wait(10)
    assert made.stdout is not None
    made.stdout.close()
    assert kept_at(then)


def test_a_kill_while_typing_loses_nothing_typed_two_seconds_before() -> None:
    made = subprocess.Popen([sys.executable, "-c", TYPING], stdout=subprocess.PIPE, text=True)
    assert made.stdout is not None
    assert made.stdout.readline() == "typed\n"
    time.sleep(2.0)
    made.send_signal(signal.SIGKILL)
    made.wait(10)
    made.stdout.close()
    assert kept_at(417)
    (kept,) = journal.left_behind()
    assert kept.document.tables[0].columns[1].cells[2] == 417.0
    assert str(kept.history.undo_name) == "type in B3"


def test_a_request_to_end_keeps_everything() -> None:
    made = run_until(8)
    made.send_signal(signal.SIGTERM)
    assert made.stdout is not None
    last = [int(line) for line in made.stdout][-1:] or [8]
    assert made.wait(20) == 0
    made.stdout.close()
    assert kept_at(last[0])


def edit(window: Window, value: float) -> None:
    table = window.store.document.tables[0].id
    window.store.edit(say("type"), lambda document: edits.set_cells(document, table, {(1, 2): value}))


def crash(window: Window) -> None:
    """The window as it is left by a crash: the journal stays."""
    window.keeper.close(keep=True)


def test_nothing_is_written_while_nothing_is_edited(window: Window, qtbot: QtBot) -> None:
    qtbot.wait(600)
    assert not window.store.history.changed
    assert journals() == []


def test_what_was_kept_is_offered_with_name_picture_and_difference(window: Window, qtbot: QtBot,
                                                                   tmp_path: Path) -> None:  # fmt: skip
    path = tmp_path / "year.kavlet"
    kavlet_file.save(window.store.document, path)
    window.store.saved(path)
    edit(window, 7777.0)
    crash(window)
    offer_kept(window)
    sheet = window.findChild(RecoveryDialog)
    assert sheet is not None
    assert "year.kavlet" in sheet.list.item(0).text()
    assert not sheet.picture.pixmap().isNull()
    assert "1 cell of “Visitor path”" in sheet.says.text()
    before = path.read_bytes()
    qtbot.mouseClick(sheet.take, Qt.MouseButton.LeftButton)
    assert window.store.document.tables[0].columns[1].cells[2] == 7777.0
    assert window.store.path == path
    assert window.store.history.changed
    assert path.read_bytes() == before  # nothing is overwritten unasked
    window.store.undo()  # into the time before the crash
    assert window.store.document == kavlet_file.load(path)


def test_what_is_taken_up_is_kept_again_before_the_old_journal_goes(window: Window) -> None:
    edit(window, 7777.0)
    crash(window)
    (old,) = journals()
    from kavlet.desktop.recovery.journal_writer import JournalWriter

    window.keeper = JournalWriter(window.store, window)
    (kept,) = [one for one in (journal.read(old),) if one is not None]
    window.store.take_up(kept.history, kept.path, kept.name, kept.stamp)
    window.keeper.flush()
    assert len(journals()) == 2
    journal.remove(old)
    window.keeper.close(keep=True)
    assert journal.left_behind()[0].document == window.store.document


def test_what_is_thrown_away_is_gone_and_later_keeps_it(window: Window, qtbot: QtBot) -> None:
    edit(window, 7777.0)
    crash(window)
    sheet = RecoveryDialog(journal.left_behind())
    qtbot.addWidget(sheet)
    sheet.reject()
    assert len(journals()) == 1
    sheet = RecoveryDialog(journal.left_behind())
    qtbot.addWidget(sheet)
    qtbot.mouseClick(sheet.drop, Qt.MouseButton.LeftButton)
    assert journals() == []


def test_an_orderly_end_leaves_no_journal(window: Window, qtbot: QtBot) -> None:
    edit(window, 7777.0)
    window.keeper.flush()
    assert len(journals()) == 1
    window.store.history.saved()
    assert window.close()
    assert journals() == []
    del qtbot


def test_a_full_disk_is_said_once_and_editing_goes_on(window: Window, qtbot: QtBot,
                                                      monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    def full(_handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    edit(window, 1.0)
    qtbot.waitUntil(lambda: "can’t be kept" in window.saying.text(), timeout=5_000)
    edit(window, 2.0)
    assert window.store.document.tables[0].columns[1].cells[2] == 2.0


def test_editing_does_not_wait_for_the_journal(window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    real = os.fsync

    def slow(handle: int) -> None:
        time.sleep(0.5)
        real(handle)

    monkeypatch.setattr(os, "fsync", slow)
    edit(window, 0.0)
    qtbot.wait(500)
    start = time.perf_counter()
    window.keeper._follow()
    assert time.perf_counter() - start < 0.1


def test_what_was_saved_elsewhere_meanwhile_is_not_overwritten_unasked(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "year.kavlet"
    kavlet_file.save(window.store.document, path)
    window.store.saved(path)
    edit(window, 7777.0)
    crash(window)
    other = edits.set_cells(window.store.document, window.store.document.tables[0].id, {(1, 2): 5.0})
    kavlet_file.save(other, path)  # by another window, after the crash
    offer_kept(window)
    sheet = window.findChild(RecoveryDialog)
    assert sheet is not None
    qtbot.mouseClick(sheet.take, Qt.MouseButton.LeftButton)
    asked: list[str] = []
    monkeypatch.setattr(QMessageBox, "exec", lambda box: asked.append(box.text()))
    assert not window.files.save()
    assert asked == ["“year.kavlet” was written by another window or program since then."]
    assert kavlet_file.load(path) == other


def test_what_nobody_wrote_meanwhile_is_saved_without_a_question(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    path = tmp_path / "year.kavlet"
    kavlet_file.save(window.store.document, path)
    window.store.saved(path)
    edit(window, 7777.0)
    crash(window)
    os.utime(path)  # only touched
    offer_kept(window)
    sheet = window.findChild(RecoveryDialog)
    assert sheet is not None
    qtbot.mouseClick(sheet.take, Qt.MouseButton.LeftButton)
    assert window.files.save()
    assert kavlet_file.load(path).tables[0].columns[1].cells[2] == 7777.0
