"""The sheet's handles make the chart larger and smaller, as far as a chart may be."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from kavlet.desktop.main import Window
from kavlet.desktop.stage.sizing import handles
from tests.desktop.hands import drag, moved, show


@pytest.mark.parametrize(("number", "wide", "high"), [(0, True, False), (1, False, True), (2, True, True)])
def test_a_handle_moves_its_sides_with_the_mouse(
    window: Window, qtbot: QtBot, number: int, wide: bool, high: bool
) -> None:
    show(window, "bars")
    window.store.select()
    view, chart = window.stage.view, window.store.here
    sheet = view.sheet()
    scale = sheet.width() / chart.width
    at = handles(sheet)[number][2].toPoint()
    drag(window, qtbot, at, at + QPointF(-30, -18).toPoint())
    after = window.store.here
    assert after.width == pytest.approx(chart.width - (60 / scale if wide else 0), abs=2 / scale)
    assert after.height == pytest.approx(chart.height - (36 / scale if high else 0), abs=2 / scale)
    assert window.store.history.undo_name == "set size"
    window.store.undo()
    assert (window.store.here.width, window.store.here.height) == (chart.width, chart.height)


def test_with_shift_the_proportion_stays(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.store.select()
    view, chart = window.stage.view, window.store.here
    at = handles(view.sheet())[2][2].toPoint()
    drag(window, qtbot, at, at + QPointF(-40, -3).toPoint(), Qt.KeyboardModifier.ShiftModifier)
    after = window.store.here
    assert after.width < chart.width
    assert after.width / after.height == pytest.approx(chart.width / chart.height, rel=1e-3)


def test_a_chart_never_gets_too_small_to_be_one(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.store.select()
    view = window.stage.view
    at = handles(view.sheet())[2][2].toPoint()
    drag(window, qtbot, at, at - QPointF(3000, 3000).toPoint())
    assert window.store.here.width >= 36
    assert window.stage.view.problem == ""


def test_escape_gives_a_drag_up(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.store.select()
    view, chart = window.stage.view, window.store.here
    at = handles(view.sheet())[0][2].toPoint()
    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=at)
    QApplication.sendEvent(view, moved(at + QPointF(-60, 0).toPoint()))
    assert window.store.here.width != chart.width
    qtbot.keyClick(view, Qt.Key.Key_Escape)
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=at)
    assert window.store.here.width == chart.width
