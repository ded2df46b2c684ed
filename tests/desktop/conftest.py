"""A real window with the demo, and no question left open."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.desktop.debounce import Debounce
from kavlet.desktop.incremental import IncrementalTask
from kavlet.desktop.main import Window, application
from tests.desktop.taken_again import OneWindow, settings_in


@pytest.fixture(scope="session")
def qapp_cls() -> type:
    from PySide6.QtWidgets import QApplication

    return QApplication


@pytest.fixture(autouse=True)
def unhurried(monkeypatch: pytest.MonkeyPatch, request: pytest.FixtureRequest) -> None:
    """What follows the document at rest follows at once, so that no test has to wait; but where resting is tested."""
    if request.node.get_closest_marker("at_rest") is None:
        wait = Debounce.wait

        def at_once(rest: Debounce) -> None:
            wait(rest)
            if not rest._store.trying:
                rest.now()

        monkeypatch.setattr(Debounce, "wait", at_once)
        begin = IncrementalTask.begin

        def wholly(bits: IncrementalTask, of: Iterator[object]) -> None:
            begin(bits, of)
            bits.finish()

        monkeypatch.setattr(IncrementalTask, "begin", wholly)


@pytest.fixture
def settings(tmp_path: Path) -> Path:
    """The folder of settings of the test's own."""
    folder = tmp_path / "settings"
    settings_in(folder)
    application()  # whose names they stand under
    return folder


@pytest.fixture
def answered(monkeypatch: pytest.MonkeyPatch) -> None:
    """No question is left open."""
    monkeypatch.setattr(QMessageBox, "exec", lambda _box: pytest.fail("A question was left open."))
    for asks, names in ((QFileDialog, ("getOpenFileName", "getSaveFileName")), (QInputDialog, ("getText", "getItem"))):
        for name in names:
            monkeypatch.setattr(asks, name, lambda *_a, **_k: pytest.fail("A question was left open."))


@pytest.fixture(scope="session")
def one_window(tmp_path_factory: pytest.TempPathFactory) -> Iterator[OneWindow]:
    """The window that tests take after each other."""
    made = OneWindow(tmp_path_factory.mktemp("nowhere"))
    yield made
    made.end()


@pytest.fixture
def window(qtbot: QtBot, one_window: OneWindow, settings: Path, answered: None) -> Window:
    """The demo document in a window of 1280 × 800."""
    del qtbot, answered
    return one_window.take(settings)
