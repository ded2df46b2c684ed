"""Earlier versions in the real window: kept by choice, shown with what has changed, gone back to as a step."""

from pathlib import Path

import pytest

from kavlet.core.document import edits
from kavlet.core.files import versions
from kavlet.core.messages import say
from kavlet.desktop.main import Window
from kavlet.desktop.recovery.version_list import VersionsDialog


def edit(window: Window, value: float) -> None:
    table = window.store.document.tables[0].id
    window.store.edit(say("type"), lambda document: edits.set_cells(document, table, {(1, 1): value}))


def first(window: Window) -> object:
    return window.store.document.tables[0].columns[1].cells[1]


def test_nothing_is_kept_before_the_author_chooses_it(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "year.kavlet"
    window.files._save(path)
    edit(window, 5.0)
    window.files.save()
    assert versions.versions(path) == []
    assert not window.actions_by_name["earlier_versions"].isEnabled()


def test_a_version_is_shown_and_gone_back_to_as_a_step(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "year.kavlet"
    window.files._save(path)
    before = first(window)
    window.actions_by_name["keep_versions"].trigger()
    for value in (5.0, 6.0):
        edit(window, value)
        window.files.save()
    window.menus.refresh()
    assert window.actions_by_name["keep_versions"].isChecked()
    window.actions_by_name["earlier_versions"].trigger()
    sheet = window.findChild(VersionsDialog)
    assert sheet is not None
    assert sheet.list.count() == 2
    sheet.list.setCurrentRow(1)
    assert sheet.says.text() == f"Changed since then:\n·  1 cell of “{window.store.document.tables[0].name}”"
    assert not sheet.picture.pixmap().isNull()
    sheet.back.click()
    assert first(window) == before
    assert window.store.history.changed
    window.store.undo()
    assert first(window) == 6.0


def test_a_version_that_cannot_be_kept_or_read_hinders_nothing(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "year.kavlet"
    window.files._save(path)
    window.actions_by_name["keep_versions"].trigger()
    edit(window, 5.0)
    assert window.files.save()
    versions.versions(path)[0].file.write_bytes(b"rotten")
    window.actions_by_name["earlier_versions"].trigger()
    sheet = window.findChild(VersionsDialog)
    assert sheet is not None
    assert "is not a Kavlet document" in sheet.says.text()
    assert not sheet.back.isEnabled()
    sheet.reject()
    (tmp_path / "file").write_bytes(b"")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "file"))
    edit(window, 7.0)
    assert window.files.save()
    assert window.saying.text().startswith("The earlier version was not kept.")
