"""A document from elsewhere opens no other file unasked; what its author agreed to is remembered for its path."""

from pathlib import Path

import msgspec
import pytest
from pytestqt.qtbot import QtBot

from kavlet.core.document.document import Document
from kavlet.core.document.tables import source_updates
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import tables
from kavlet.desktop import document_loading
from kavlet.desktop.main import Window


def opened(window: Window, qtbot: QtBot, path: Path) -> None:
    window.store.history.saved()
    before = window.store.document
    window.files.open_path(path)
    qtbot.waitUntil(lambda: window.store.document is not before, timeout=3000)
    qtbot.wait(50)


@pytest.fixture
def foreign(tmp_path: Path) -> Path:
    """A document that would take over a file of the reader's, and the file, which holds what is nobody's business."""
    secret = tmp_path / "secret.csv"
    secret.write_text("post,x\nWages,60\n", encoding="utf-8")
    made: Document = document_loading.opened(secret, "en")[0]
    table = made.tables[0]
    assert table.source is not None
    made = source_updates.link(made, table.id, msgspec.structs.replace(table.source, always=True))
    path = tmp_path / "from-elsewhere.kavlet"
    kavlet_file.save(made, path)
    secret.write_text("post,x\nWages,61\n", encoding="utf-8")
    return path


def wages(window: Window) -> object:
    return window.store.document.tables[0].columns[1].cells[1]


def test_nothing_is_read_before_the_author_says_so(
    window: Window, qtbot: QtBot, foreign: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    read: list[object] = []
    real = tables.read_source
    monkeypatch.setattr(tables, "read_source", lambda *given: (read.append(given), real(*given))[1])
    opened(window, qtbot, foreign)
    bar = window.figures.source
    assert (wages(window), read, bar._watcher.files()) == (60.0, [], [])
    assert bar.says.text() == f"Would follow secret.csv in {foreign.parent}"
    assert [one.isVisible() for one in (bar.follow, bar.take, bar.always, bar.otherwise)] == [True, False, False, False]
    bar.follow.click()
    qtbot.waitUntil(lambda: wages(window) == 61.0, timeout=3000)
    assert not bar.follow.isVisible()


def test_what_was_agreed_to_is_remembered_for_that_document_and_file(
    window: Window, qtbot: QtBot, foreign: Path, tmp_path: Path
) -> None:
    opened(window, qtbot, foreign)
    window.figures.source.follow.click()
    qtbot.waitUntil(lambda: wages(window) == 61.0, timeout=3000)
    elsewhere = tmp_path / "copy.kavlet"
    elsewhere.write_bytes(foreign.read_bytes())
    opened(window, qtbot, elsewhere)
    assert wages(window) == 60.0
    opened(window, qtbot, foreign)
    qtbot.waitUntil(lambda: wages(window) == 61.0, timeout=3000)


def test_a_file_that_the_author_opened_is_followed_without_a_question(
    window: Window, qtbot: QtBot, tmp_path: Path
) -> None:
    own = tmp_path / "own.csv"
    own.write_text("post,x\nWages,60\n", encoding="utf-8")
    opened(window, qtbot, own)
    assert window.figures.source.says.text() == "From own.csv"
    assert not window.figures.source.follow.isVisible()
    window.files._save(tmp_path / "own.kavlet")
    opened(window, qtbot, tmp_path / "own.kavlet")
    assert window.figures.source.says.text() == "From own.csv"
