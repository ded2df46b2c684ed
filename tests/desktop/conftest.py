"""A real window with the demo, and no question left open."""

from pathlib import Path

import pytest
from PySide6.QtCore import QCoreApplication, QEvent, QSettings
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.desktop.main import application, open_window
from kavlet.desktop.window import Window


@pytest.fixture(scope="session")
def qapp_cls() -> type:
    from PySide6.QtWidgets import QApplication

    return QApplication


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
    qtbot.addWidget(made, before_close_func=lambda one: one.store.history.saved())
    qtbot.waitExposed(made)
    monkeypatch.setattr(QMessageBox, "exec", lambda _box: pytest.fail("A question was left open."))
    for asks, names in ((QFileDialog, ("getOpenFileName", "getSaveFileName")), (QInputDialog, ("getText", "getItem"))):
        for name in names:
            monkeypatch.setattr(asks, name, lambda *_a, **_k: pytest.fail("A question was left open."))
    return made
