"""Drawing a symbol: strokes by mouse, holes, mirrored, points moved by mouse and keys, kept in the document."""

import math

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from pytestqt.qtbot import QtBot

from kavlet.core.shapes.symbol import raw_path
from kavlet.core.styling.fills import PictureFill
from kavlet.desktop.dress.drawing_board import POINTS, DrawingBoard
from kavlet.desktop.main import Window
from tests.desktop.hands import figure, show


@pytest.fixture
def board(window: Window) -> DrawingBoard:
    show(window, "picture-bars")
    window.store.select()
    window.actions_by_name["draw_symbol"].trigger()
    found = window.findChild(DrawingBoard)
    assert found is not None
    return found


def circle(board: DrawingBoard, x: int, y: int, radius: int) -> None:
    """Draw a circle by mouse."""
    way = [QPoint(round(x + radius * math.cos(a / 20 * math.tau)), round(y + radius * math.sin(a / 20 * math.tau)))
           for a in range(20)]  # fmt: skip
    QTest.mousePress(board.board, Qt.MouseButton.LeftButton, pos=way[0])
    for place in way[1:]:
        QTest.mouseMove(board.board, place)
        QTest.qWait(1)
    QTest.mouseRelease(board.board, Qt.MouseButton.LeftButton, pos=way[-1])


def test_a_stroke_becomes_a_symbol_of_the_document(window: Window, board: DrawingBoard, qtbot: QtBot) -> None:
    assert not board.keep.isEnabled()
    board.board.add_stroke([(190 + 90 * math.cos(a / 9), 190 + 90 * math.sin(a / 9)) for a in range(56)])
    board.board.add_stroke([(190 + 30 * math.cos(a / 9), 190 + 30 * math.sin(a / 9)) for a in range(56)])
    assert "points" in board.says.text()
    board.name.setText("Ring of reed")
    qtbot.mouseClick(board.keep, Qt.MouseButton.LeftButton)
    made = window.store.document.pictures[-1]
    assert made.name == "Ring of reed"
    assert made.outline.count("M") == 2
    assert raw_path(made.outline).bounds.width == pytest.approx(180, abs=6)
    assert window.store.history.undo_name == "draw symbol"


def test_it_fills_what_is_chosen(window: Window, board: DrawingBoard) -> None:
    layer = figure(window).marks[-1]
    board.reject()
    window.store.select(next(part for part in _parts(window) if part.kind == "layer" and part.key == layer.key))
    window.pictures.keep("Blob", "M0 0L10 0L10 10Z")
    held = [mark.dressed for mark in figure(window).marks if mark.visible and mark.key == layer.key]
    assert held
    assert all(isinstance(fill, PictureFill) and fill.name == "Blob" for fill in held)


def _parts(window: Window) -> list:  # type: ignore[type-arg]
    from kavlet.core.interaction.parts import walk

    return list(walk(figure(window)))


def test_strokes_are_drawn_by_mouse_and_taken_back(board: DrawingBoard) -> None:
    circle(board, 120, 150, 70)
    assert len(board.board.outlines) == 1
    board.back.click()
    assert board.board.outlines == []
    assert board.board.data == ""


def test_it_mirrors_and_smooths(board: DrawingBoard) -> None:
    wavy = [((90 + 12 * math.sin(a)) * math.cos(a / 16) + 120, (90 + 12 * math.sin(a)) * math.sin(a / 16) + 190)
            for a in range(100)]  # fmt: skip
    board.board.add_stroke(wavy)
    fine = len(board.board.outlines[0])
    board.smooth.setValue(board.smooth.maximum())
    assert len(board.board.outlines[0]) <= fine
    one = board.board.data.count("M")
    board.mirror.click()
    assert board.board.data.count("M") == 2 * one
    bounds = raw_path(board.board.data).bounds
    assert bounds.center[0] == pytest.approx(190, abs=1)


def test_points_are_moved_by_mouse_and_keys_and_taken_out(board: DrawingBoard, qtbot: QtBot) -> None:
    board.board.add_stroke([(100 + i, 100.0) for i in range(0, 160, 4)] + [(260.0, 100 + i) for i in range(0, 160, 4)]
                           + [(260 - i, 260 - i) for i in range(0, 160, 4)])  # fmt: skip
    board.mode.button(POINTS).click()
    i, k, (x, y) = board.board.points()[0]
    start = QPoint(round(x), round(y))
    QTest.mousePress(board.board, Qt.MouseButton.LeftButton, pos=start)
    QTest.mouseMove(board.board, start + QPoint(20, 30))
    QTest.qWait(1)
    QTest.mouseRelease(board.board, Qt.MouseButton.LeftButton, pos=start + QPoint(20, 30))
    moved = board.board.outlines[i][k].start
    assert moved == pytest.approx((start.x() + 20, start.y() + 30), abs=2)
    qtbot.keyClick(board.board, Qt.Key.Key_Right)
    qtbot.keyClick(board.board, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    assert board.board.outlines[i][k].start == pytest.approx((moved[0] + 1, moved[1] - 10))
    count = len(board.board.outlines[0])
    qtbot.keyClick(board.board, Qt.Key.Key_Space)
    qtbot.keyClick(board.board, Qt.Key.Key_Delete)
    assert len(board.board.outlines[0]) == max(2, count - 1)
