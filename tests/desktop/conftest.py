"""A real window with the demo, and no question left open."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QCoreApplication, QEvent, QSettings
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.desktop.bit_by_bit import BitByBit
from kavlet.desktop.main import application, open_window
from kavlet.desktop.rest import Rest
from kavlet.desktop.window import Window


@pytest.fixture(scope="session")
def qapp_cls() -> type:
    from PySide6.QtWidgets import QApplication

    return QApplication


@pytest.fixture(autouse=True)
def unhurried(monkeypatch: pytest.MonkeyPatch, request: pytest.FixtureRequest) -> None:
    """What follows the document at rest follows at once, so that no test has to wait; but where resting is tested."""
    if request.node.get_closest_marker("at_rest") is None:
        wait = Rest.wait

        def at_once(rest: Rest) -> None:
            wait(rest)
            if not rest._store.trying:
                rest.now()

        monkeypatch.setattr(Rest, "wait", at_once)
        begin = BitByBit.begin

        def wholly(bits: BitByBit, of: Iterator[object]) -> None:
            begin(bits, of)
            bits.finish()

        monkeypatch.setattr(BitByBit, "begin", wholly)


def end(window: Window) -> None:
    """What is typed and not carried out yet ends with its test, and no question is asked at closing."""
    window.store.attended.stop()
    window.store.history.saved()


@pytest.fixture
def window(qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Window:
    """The demo document in a window of 1280 × 800."""
    QSettings.setDefaultFormat(QSettings.Format.IniFormat)
    QSettings.setPath(QSettings.Format.IniFormat, QSettings.Scope.UserScope, str(tmp_path / "settings"))
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)  # the window of the test before
    application()
    made = open_window(demo=True)
    made.resize(1280, 800)
    made.worker.patience = 60.0  # what is asked for is done when the call returns
    made.store.attended.patience = 60.0
    qtbot.addWidget(made, before_close_func=end)
    qtbot.waitExposed(made)
    monkeypatch.setattr(QMessageBox, "exec", lambda _box: pytest.fail("A question was left open."))
    for asks, names in ((QFileDialog, ("getOpenFileName", "getSaveFileName")), (QInputDialog, ("getText", "getItem"))):
        for name in names:
            monkeypatch.setattr(asks, name, lambda *_a, **_k: pytest.fail("A question was left open."))
    return made
