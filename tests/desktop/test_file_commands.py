"""Nothing that another wrote is overwritten unasked."""

import os
from pathlib import Path

import pytest
from PySide6.QtWidgets import QFileDialog, QMessageBox

from kavlet.core.document import edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.messages import say
from kavlet.desktop.main import Window


@pytest.fixture
def mine(window: Window, tmp_path: Path) -> Path:
    """A saved document with an edit that is not saved yet."""
    path = tmp_path / "mine.kavlet"
    window.files._save(path)
    edit(window, 5.0)
    return path


def edit(window: Window, value: float) -> None:
    table = window.store.document.tables[0].id
    window.store.edit(say("type"), lambda document: edits.set_cells(document, table, {(1, 1): value}))


def held(path: Path) -> object:
    return kavlet_file.load(path).tables[0].columns[1].cells[1]


class Asked:
    """Answers the question with a button, and keeps what was asked."""

    def __init__(self, monkeypatch: pytest.MonkeyPatch, button: str) -> None:
        self.texts: list[str] = []

        def answered(box: QMessageBox) -> int:
            self.texts.append(box.text())
            next(one for one in box.buttons() if one.text() == button).click()
            return 0

        monkeypatch.setattr(QMessageBox, "exec", answered)


def test_saving_again_asks_nothing(window: Window, mine: Path) -> None:
    assert window.files.save()
    edit(window, 6.0)
    os.utime(mine)  # touched, and as it was
    assert window.files.save()
    assert held(mine) == 6.0


def test_what_another_window_wrote_stays_until_the_author_says_so(
    window: Window, mine: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    other = edits.set_cells(window.store.document, window.store.document.tables[0].id, {(1, 1): 77.0})
    kavlet_file.save(other, mine)
    asked = Asked(monkeypatch, "Cancel")
    assert not window.files.save()
    assert held(mine) == 77.0
    assert asked.texts == ["“mine.kavlet” was written by another window or program since then."]
    assert window.store.history.changed
    Asked(monkeypatch, "Save there anyway")
    assert window.files.save()
    assert held(mine) == 5.0
    edit(window, 6.0)
    monkeypatch.setattr(QMessageBox, "exec", lambda _box: pytest.fail("Asked again."))
    assert window.files.save()


def test_it_can_be_saved_beside_it(window: Window, mine: Path, monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    mine.write_bytes(b"another's")
    Asked(monkeypatch, "Save as…")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(tmp_path / "both.kavlet"), ""))
    assert window.files.save()
    assert (mine.read_bytes(), held(tmp_path / "both.kavlet")) == (b"another's", 5.0)


def test_a_file_that_is_gone_or_write_protected_is_asked_about(
    window: Window, mine: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    mine.chmod(0o444)
    asked = Asked(monkeypatch, "Cancel")
    assert not window.files.save()
    mine.unlink()
    assert not window.files.save()
    assert asked.texts == ["“mine.kavlet” is write-protected.", "“mine.kavlet” is not there any more."]
    assert not mine.exists()


def test_a_file_with_another_name_is_asked_about(
    window: Window, mine: Path, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    os.link(mine, tmp_path / "other name.kavlet")
    before = mine.read_bytes()
    asked = Asked(monkeypatch, "Cancel")
    assert not window.files.save()
    assert asked.texts == ["“mine.kavlet” has another name, which would keep what it holds now."]
    assert mine.read_bytes() == before
    Asked(monkeypatch, "Save there anyway")
    assert window.files.save()
    assert (tmp_path / "other name.kavlet").read_bytes() == before
    assert window.files.save()  # by now it has one name alone, and nothing is asked


def test_an_ending_that_is_added_overwrites_nothing_unasked(
    window: Window, mine: Path, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    taken = tmp_path / "taken.kavlet"
    taken.write_bytes(b"another's")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(tmp_path / "taken"), ""))
    asked = Asked(monkeypatch, "Cancel")
    assert not window.files.save_as()
    assert (asked.texts, taken.read_bytes()) == (["“taken.kavlet” is there already."], b"another's")
    assert window.store.path == mine
