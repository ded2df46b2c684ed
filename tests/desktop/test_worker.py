"""Work beside the window: answered here, nothing stale, shown and given up where it lasts."""

import threading
from pathlib import Path
from threading import Event

import pytest
from PySide6.QtCore import QCoreApplication, QEvent, QObject
from pytestqt.qtbot import QtBot

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError
from kavlet.desktop.background_edit import BackgroundEdit
from kavlet.desktop.main import Window
from kavlet.desktop.work_bar import WorkBar
from kavlet.desktop.worker import Worker


@pytest.fixture
def refused() -> list[str]:
    return []


@pytest.fixture
def worker(qtbot: QtBot, refused: list[str]) -> Worker:
    del qtbot
    made = Worker(refused.append)
    made.patience = 0.0
    yield made  # type: ignore[misc]
    made.stop()


def test_an_answer_is_taken_here(worker: Worker, qtbot: QtBot) -> None:
    here, found = threading.get_ident(), []
    worker.ask("x", say("x"), threading.get_ident, lambda there: found.append((there, threading.get_ident())))
    qtbot.waitUntil(lambda: bool(found))
    ((there, back),) = found
    assert there != here
    assert back == here
    assert not worker.working


def test_what_is_quick_is_done_when_asked(worker: Worker) -> None:
    worker.patience = 10.0
    found: list[int] = []
    worker.ask("x", say("x"), lambda: 6 * 7, found.append)
    assert found == [42]


def test_only_the_latest_answer_for_a_purpose_is_taken(worker: Worker, qtbot: QtBot) -> None:
    gate, found = Event(), []
    worker.ask("size", say("x"), lambda: gate.wait(5) and "old", found.append)
    worker.ask("size", say("x"), lambda: "new", found.append)
    worker.ask("other", say("x"), lambda: "other", found.append)
    gate.set()
    qtbot.waitUntil(lambda: len(found) == 2)
    assert found == ["new", "other"]


def test_what_lasts_is_shown_and_can_be_given_up(worker: Worker, qtbot: QtBot) -> None:
    bar, gate, found = WorkBar(worker, BackgroundEdit()), Event(), []
    qtbot.addWidget(bar)
    worker.ask("x", say("Reading {file}", file="gates.csv"), lambda: gate.wait(5), found.append)
    assert bar.isHidden()
    qtbot.waitUntil(lambda: not bar.isHidden())
    assert bar.says.text() == "Reading gates.csv"
    bar.cancel.click()
    assert bar.isHidden()
    assert not worker.working
    gate.set()
    worker.ask("y", say("y"), lambda: "next", found.append)
    qtbot.waitUntil(lambda: bool(found))
    assert found == ["next"]


def test_what_is_quick_is_never_shown(worker: Worker, qtbot: QtBot) -> None:
    shown: list[object] = []
    worker.busy.connect(shown.append)
    found: list[int] = []
    worker.ask("x", say("x"), lambda: 1, found.append)
    qtbot.waitUntil(lambda: bool(found))
    qtbot.wait(400)
    assert shown == [None]


def test_what_can_not_be_done_is_said(worker: Worker, qtbot: QtBot, refused: list[str]) -> None:
    def fail() -> None:
        raise KavletError("The file is damaged.")

    own: list[str] = []
    worker.ask("x", say("x"), fail, lambda _: pytest.fail("there is no answer"))
    worker.ask("y", say("y"), fail, lambda _: pytest.fail("there is no answer"), own.append)
    qtbot.waitUntil(lambda: bool(refused) and bool(own))
    assert refused == own == ["The file is damaged."]


def test_a_defect_is_not_swallowed(worker: Worker) -> None:
    worker.patience = 10.0
    with pytest.raises(ZeroDivisionError):
        worker.ask("x", say("x"), lambda: 1 / 0, lambda _: None)
    assert not worker.working


def test_the_window_answers_while_a_file_is_read(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    from kavlet.desktop import document_loading

    gate, path = Event(), tmp_path / "gates.csv"
    path.write_text("gate,count\nNorth,3\nSouth,4\n", encoding="utf-8")
    opened = document_loading.opened
    monkeypatch.setattr(document_loading, "opened", lambda *arguments: gate.wait(5) and opened(*arguments))
    window.store.history.saved()
    window.worker.patience = 0.0
    window.files.open_path(path)
    window.stage.view.set_zoom(2.0)
    assert window.store.name == "Mirefen year", "the old document is still there"
    gate.set()
    qtbot.waitUntil(lambda: window.store.name == "gates")
    assert window.store.there.name == "Gates"


def test_a_file_given_up_changes_nothing(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    from kavlet.desktop import document_loading

    gate = Event()
    monkeypatch.setattr(document_loading, "opened", lambda *_: gate.wait(5))
    window.worker.patience = 0.0
    before = window.store.document
    window.files.open_path(tmp_path / "gates.csv")
    window.work_bar.cancel.click()
    gate.set()
    qtbot.wait(50)
    assert window.store.document is before


def test_who_has_ended_meanwhile_is_told_nothing(worker: Worker, qtbot: QtBot) -> None:
    gate, found, asker = Event(), list[object](), QObject()
    worker.ask("x", say("x"), lambda: gate.wait(5), found.append, found.append, asker)
    asker.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    gate.set()
    qtbot.waitUntil(lambda: not worker.working)
    assert not found
