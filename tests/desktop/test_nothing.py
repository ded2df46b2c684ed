"""A window that holds nothing, or a chart that can't be drawn: every hand and command does no harm, or says why."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QApplication, QFileDialog, QInputDialog, QMessageBox, QWidget
from pytestqt.qtbot import QtBot

from kavlet.core.document.document import NO_CHART
from kavlet.core.interaction.parts import Part
from kavlet.core.pipeline.stages import NO_PICTURE
from kavlet.core.spreadsheet.table import NO_TABLE
from kavlet.desktop.main import Window, open_window
from tests.desktop.hands import show

ASKS = ("deliver", "close", "about", "find_command", "language_de", "language_en", "language_desktop")


@pytest.fixture
def empty(settings: Path, answered: None, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> Iterator[Window]:
    del settings, answered
    for name in ("getOpenFileName", "getSaveFileName"):
        monkeypatch.setattr(QFileDialog, name, lambda *_args, **_more: ("", ""))
    monkeypatch.setattr(QInputDialog, "getText", lambda *_args, **_more: ("", False))
    monkeypatch.setattr(QMessageBox, "about", lambda *_args: None)
    made = open_window()
    made.resize(1280, 800)
    made.worker.patience = 60.0
    qtbot.waitExposed(made)
    yield made
    made.store.history.saved()
    made.close()
    made.deleteLater()


def _hands(window: Window, qtbot: QtBot) -> None:
    """Click, drag, turn, type, zoom and ask for a menu on the Stage."""
    view = window.stage.view
    middle = view.rect().center()
    for at in (middle, QPoint(4, 4)):
        qtbot.mouseClick(view, Qt.MouseButton.LeftButton, pos=at)
        qtbot.mouseDClick(view, Qt.MouseButton.LeftButton, pos=at)
        for button, more in (
            (Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier),
            (Qt.MouseButton.LeftButton, Qt.KeyboardModifier.AltModifier),
            (Qt.MouseButton.MiddleButton, Qt.KeyboardModifier.NoModifier),
        ):
            qtbot.mousePress(view, button, more, at)
            qtbot.mouseMove(view, at + QPoint(40, 25))
            qtbot.mouseRelease(view, button, more, at + QPoint(40, 25))
    for key in (Qt.Key.Key_Left, Qt.Key.Key_Up, Qt.Key.Key_Return, Qt.Key.Key_F2, Qt.Key.Key_Tab, Qt.Key.Key_Escape):
        qtbot.keyClick(view, key)
    turned = QWheelEvent(
        QPointF(middle), QPointF(view.mapToGlobal(middle)), QPoint(0, 0), QPoint(0, 120), Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.ControlModifier, Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(view, turned)
    view.set_zoom(0.0)
    view.grab()


def test_what_is_not_there_has_a_stand_in(empty: Window) -> None:
    store = empty.store
    assert (store.chart, store.table, store.picture) == (NO_CHART, NO_TABLE, NO_PICTURE)
    assert (store.has_chart, store.has_table, store.chart_is_of_table) == (False, False, False)
    assert store.recipe is None
    assert empty.figures.grid.cells.columnCount() == 0
    assert not empty.stage.strip.cards
    assert empty.stage.view.part_at(QPointF(empty.stage.view.rect().center())) is None


def test_hands_on_an_empty_stage_do_no_harm(empty: Window, qtbot: QtBot) -> None:
    _hands(empty, qtbot)
    assert not empty.store.selection
    assert not empty.store.history.undo_name
    assert not empty.store.trying


def test_no_command_of_an_empty_window_breaks_it(empty: Window) -> None:
    for name, action in empty.actions_by_name.items():
        if action.isEnabled() and name not in ASKS and not name.startswith(("new", "open", "paste", "add_empty")):
            action.trigger()
    assert not empty.store.has_chart
    assert not empty.store.history.undo_name


def test_edits_of_what_is_not_there_are_not_made(empty: Window) -> None:
    empty.dress.set_value("layers.value.fill", "#123456")
    empty.dress.parameters._set("gap", 3.0)
    empty.figures.grid.roles.give("value", 0)
    empty.figures.grid.find_text("x")
    empty.figures.grid.fold()
    assert empty.figures.grid.roles.chip_text(3) == ""
    assert empty.figures.what_if._number() is None
    assert empty.stage.stepper.periods() == []
    assert empty.dress.look.theme.preview("clear") is None
    assert not [one for one in empty.dress.findChildren(QWidget) if one.isVisible() and one is not empty.dress.head]
    assert empty.dress.head.geometry().top() < 40
    assert not empty.store.history.undo_name


@pytest.mark.parametrize("recipe", ["funnel", "pie", "bridge"])
def test_a_chart_that_can_t_be_drawn_is_said_and_takes_hands(window: Window, qtbot: QtBot, recipe: str) -> None:
    show(window, recipe)
    column = window.store.there.place(window.store.here.roles["value"][0])
    window.figures.grid.cells.put({(column, 2): "many"}, window.menus.commands.all[0].text)  # type: ignore[arg-type]
    assert window.stage.view.problem
    assert window.store.picture is NO_PICTURE
    before = window.store.document
    _hands(window, qtbot)
    window.store.select(Part("layer", "value"))
    window.actions_by_name["toggle_solid"].trigger()
    assert window.saying.text() or window.store.document is before
    window.store.undo()
    assert not window.stage.view.problem
    assert window.store.picture is not NO_PICTURE


def test_files_opened_after_nothing_fill_the_window(empty: Window) -> None:
    empty.files.open_cells([["stage", "people"], ["Visits", 5.0], ["Walks", 2.0]])
    assert empty.store.has_table
    assert empty.figures.grid.cells.columnCount() >= 2
    empty.places.show_stage()
    assert empty.stage.view.picture is not NO_PICTURE
    while empty.store.history.undo_name:
        empty.store.undo()
    assert empty.stage.view.picture is not None
