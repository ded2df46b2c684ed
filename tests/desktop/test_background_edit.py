"""What takes long is done beside the window, wholly or not at all; what is typed meanwhile is kept."""

import threading
import time
from collections.abc import Callable
from concurrent.futures import Future
from typing import Any

import pytest
from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QAction
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QMainWindow
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.messages import say
from kavlet.core.spreadsheet import recalculate as recalculation
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Column, Table
from kavlet.core.values.cancellation import Cancelled, check_cancelled
from kavlet.core.values.errors import KavletError
from kavlet.desktop import current_view
from kavlet.desktop.background_edit import BackgroundEdit
from kavlet.desktop.main import Window
from tests.desktop.hands import show


def slowly(until: Callable[[], bool]) -> Callable[[], str]:
    """Work that asks whether to go on until something holds."""

    def work() -> str:
        pause = threading.Event()
        while not until():
            check_cancelled()
            pause.wait(0.002)
        return threading.current_thread().name

    return work


@pytest.fixture
def attended(qtbot: QtBot) -> BackgroundEdit:
    del qtbot
    made = BackgroundEdit()
    made.patience = 0.0
    yield made  # type: ignore[misc]
    made.stop()


def test_the_window_is_served_meanwhile(attended: BackgroundEdit) -> None:
    ticks: list[int] = []
    timer = QTimer()
    timer.timeout.connect(lambda: ticks.append(1))
    timer.start(1)
    assert attended(say("x"), slowly(lambda: len(ticks) > 20)).startswith("kavlet-attended")
    assert not attended.working


def test_its_error_is_raised_here(attended: BackgroundEdit) -> None:
    def fail() -> None:
        raise KavletError(say("It does not fit."))

    with pytest.raises(KavletError, match="It does not fit"):
        attended(say("x"), fail)


def test_only_one_thing_is_done_at_a_time(attended: BackgroundEdit) -> None:
    found: list[str] = []

    def another() -> None:
        with pytest.raises(KavletError) as error:
            attended(say("x"), lambda: 1)
        found.append(str(error.value))

    QTimer.singleShot(0, another)
    attended(say("x"), slowly(lambda: bool(found)))
    assert found == ["Something else is still being worked out."]


def test_what_is_typed_and_clicked_meanwhile_comes_after_it(attended: BackgroundEdit, qtbot: QtBot) -> None:
    field = QLineEdit()
    qtbot.addWidget(field)
    field.show()
    field.setFocus()
    seen: list[str] = []

    def typed() -> None:
        qtbot.keyClicks(field, "12")
        qtbot.mouseDClick(field, Qt.MouseButton.LeftButton)
        seen.append(field.text())

    QTimer.singleShot(0, typed)
    attended(say("x"), slowly(lambda: bool(seen)))
    assert seen == [""]
    qtbot.waitUntil(lambda: field.selectedText() == "12")


def test_escape_gives_it_up(attended: BackgroundEdit, qtbot: QtBot) -> None:
    field = QLineEdit()
    qtbot.addWidget(field)
    QTimer.singleShot(0, lambda: qtbot.keyClick(field, Qt.Key.Key_Escape))
    with pytest.raises(Cancelled):
        attended(say("x"), slowly(lambda: False))


def test_closing_waits_for_it(attended: BackgroundEdit, qtbot: QtBot) -> None:
    field = QLineEdit()
    qtbot.addWidget(field)
    field.show()
    seen: list[bool] = []

    def close() -> None:
        field.close()
        seen.append(field.isVisible())

    QTimer.singleShot(0, close)
    attended(say("x"), slowly(lambda: bool(seen)))
    assert seen == [True]
    qtbot.waitUntil(lambda: not field.isVisible())


def test_an_edit_given_up_changes_nothing(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    show(window, "funnel")
    store, told = window.store, []
    store.refused.connect(told.append)
    held, picture, steps = store.document, store.picture, store.history.place
    store.attended.patience = 0.0
    store.attended.busy.connect(lambda name: name and told.append(str(name)))
    monkeypatch.setattr("kavlet.desktop.background_edit.SHOWN_AFTER", 0)
    QTimer.singleShot(50, window.work_bar.cancel.click)
    seen: list[bool] = []
    QTimer.singleShot(40, lambda: seen.append(window.work_bar.isVisible()))

    def edit(document: Document) -> Document:
        slowly(lambda: False)()
        return document

    assert not store.edit(say("change cells"), edit)
    assert (store.document, store.picture, store.history.place) == (held, picture, steps)
    assert told == ["change cells", "This was given up; nothing has changed."]
    assert seen == [True]
    assert not window.work_bar.isVisible()
    assert store.edit(say("x"), lambda document: edits.change_chart(document, store.chart.id, title="Another"))
    assert store.picture.build.chart.title.text == "Another"


def test_figures_typed_while_the_first_is_worked_out_follow_in_their_cells(
    window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    """7 and Return into B2, 8 into B3, 9 into B4 and undo, all while the first of them takes long."""
    show(window, "funnel")
    store, grid = window.store, window.figures.grid
    store.attended.patience = 0.0
    grid.go_to(1, 1)
    grid.setFocus()
    qtbot.waitActive(window)
    real = current_view.make_ready

    def long(*given: Any) -> None:
        until = time.monotonic() + 0.15
        slowly(lambda: time.monotonic() > until)()
        real(*given)

    monkeypatch.setattr("kavlet.desktop.store.make_ready", long)
    keys = (Qt.Key.Key_7, Qt.Key.Key_Return, Qt.Key.Key_8, Qt.Key.Key_Return, Qt.Key.Key_9, Qt.Key.Key_Return)
    for place, key in enumerate(keys):
        QTimer.singleShot(12 * place, lambda key=key: QTest.keyClick(window.windowHandle(), key))  # type: ignore[misc]
    undo = (window.windowHandle(), Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    QTimer.singleShot(12 * len(keys), lambda: QTest.keyClick(*undo))
    qtbot.waitUntil(lambda: store.history.redo_name == "type in B4", timeout=10_000)
    assert [store.there.columns[1].cells[row] for row in (1, 2, 3)] == [7.0, 8.0, 2760.0]


def test_another_chart_that_is_not_waited_for_is_not_shown(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    show(window, "funnel")
    store, before = window.store, window.store.chart.id
    other = next(chart.id for chart in store.document.charts if chart.id != before)
    monkeypatch.setattr(type(store), "_made", lambda *_a, **_k: (_ for _ in ()).throw(Cancelled()))
    store.show_chart(other)
    assert store.chart.id == before
    store.undo()
    store.redo()
    assert not store.load(Document(), None, "")
    assert store.chart.id == before


def test_formulas_that_take_too_long_are_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(recalculation, "MAX_SECONDS", 0.0)
    column = Column("a", ("sum", *(Formula(f"=1+{i}") for i in range(50))))
    with pytest.raises(KavletError, match="take longer than 0 seconds"):
        recalculate((Table("t", "T", (column,)),))


def test_what_is_done_at_the_last_moment_is_taken(attended: BackgroundEdit, monkeypatch: pytest.MonkeyPatch) -> None:
    """Between the end of the wait and the look whether it is done, it is done."""
    real = Future.result

    def late(future: Future[str], patience: float | None = None) -> str:
        if patience is None:
            return real(future)
        real(future)
        raise TimeoutError

    monkeypatch.setattr(Future, "result", late)
    assert attended(say("x"), lambda: "made") == "made"


def test_a_command_by_its_keys_comes_after_it(attended: BackgroundEdit, qtbot: QtBot) -> None:
    window, asked = QMainWindow(), []
    qtbot.addWidget(window)
    action = QAction("Undo", window)
    action.setShortcut("Ctrl+Z")
    action.triggered.connect(lambda: asked.append(attended.working))
    window.addAction(action)
    window.show()
    qtbot.waitActive(window)
    pressed: list[bool] = []

    def press() -> None:
        QTest.keyClick(window.windowHandle(), Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
        pressed.append(True)

    QTimer.singleShot(0, press)
    attended(say("x"), slowly(lambda: bool(pressed)))
    qtbot.waitUntil(lambda: asked == [False])


def test_a_trial_that_is_not_waited_for_ends(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    show(window, "funnel")
    store, told = window.store, []
    store.refused.connect(told.append)
    held = store.document
    tried = edits.change_chart(held, store.chart.id, title="Tried")
    store.try_out(tried)
    made, calls = store._made, []

    def once(*args: object, **named: object) -> object:
        calls.append(args)
        if len(calls) == 1:
            raise Cancelled
        return made(*args, **named)  # type: ignore[arg-type]

    monkeypatch.setattr(store, "_made", once)
    assert not store.apply(say("change"), tried)
    assert (store.trying, store.document is held) == (False, True)
    assert told == ["This was given up; nothing has changed."]
    assert window.saying.text() == told[0]


def test_a_copy_that_is_not_waited_for_is_not_gone_to(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    show(window, "funnel")
    store, before = window.store, window.store.chart.id
    monkeypatch.setattr(store, "_take", lambda *_: (_ for _ in ()).throw(Cancelled()))
    for command in ("copy_chart", "copy_table", "add_empty_table", "make_chart"):
        window.actions_by_name[command].trigger()
        assert store.chart.id == before
        assert window.saying.text() == "This was given up; nothing has changed."
