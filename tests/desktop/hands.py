"""Hands for the real window: choose, drag, click and type, and look at what the chart shows."""

from typing import Any

from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QApplication, QMenu, QWidget
from pytestqt.qtbot import QtBot

from kavlet.core.charts.chart import Chart
from kavlet.core.layout.figure import Figure, Mark, PlacedText
from kavlet.core.pipeline.stages import NO_PICTURE
from kavlet.core.shapes.arc import at
from kavlet.core.spreadsheet.cells import Formula
from kavlet.desktop.dress.fields import ChoiceField, PickField, TextField
from kavlet.desktop.figures.formula_edit import FormulaEdit
from kavlet.desktop.main import Window


def figure(window: Window) -> Figure:
    picture = window.stage.view.picture
    assert picture is not NO_PICTURE
    assert not window.stage.view.problem
    return picture.figure


def show(window: Window, recipe: str) -> None:
    """Bring the demo's chart of a recipe into view, by the picker over the Stage."""
    chart = next(one for one in window.store.document.charts if one.recipe == recipe)
    box = window.stage.charts
    box.setCurrentIndex(box.findData(chart.id))
    box.activated.emit(box.currentIndex())


def spec(window: Window) -> Chart:
    picture = window.stage.view.picture
    assert picture is not NO_PICTURE
    return picture.build.chart


def mark(window: Window, key: str, row: int = 0) -> Mark:
    return next(one for one in figure(window).marks if one.key == key and one.row == row and one.visible)


def label(window: Window, key: str, row: int = 0) -> PlacedText:
    return next(one for one in figure(window).texts if one.kind == "label" and one.key == key and one.row == row)


def place(window: Window, x: float, y: float) -> QPoint:
    return window.stage.view.from_chart(x, y).toPoint()


def inside(window: Window, one: Mark) -> QPoint:
    """A point of a mark that no label covers."""
    if one.sector is not None:
        s = one.sector
        return place(window, *at(s.center, s.inner + 0.85 * (s.outer - s.inner), s.start + 0.25 * (s.end - s.start)))
    return place(window, one.bounds.x + 2.5, one.bounds.y + 0.72 * one.bounds.height)


def click(window: Window, qtbot: QtBot, at: QPoint) -> None:
    qtbot.mouseClick(window.stage.view, Qt.MouseButton.LeftButton, pos=at)


def drag(
    window: Window, qtbot: QtBot, start: QPoint, end: QPoint,
    keys: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier,
) -> None:  # fmt: skip
    view = window.stage.view
    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=start)
    middle = QPoint((start.x() + end.x()) // 2, (start.y() + end.y()) // 2)
    for step in (middle, end):
        qtbot.mouseMove(view, step)
        QApplication.sendEvent(view, moved(step, keys))
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=end)


def moved(at: QPoint, keys: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> Any:
    return QMouseEvent(
        QEvent.Type.MouseMove, QPointF(at), QPointF(at), Qt.MouseButton.NoButton, Qt.MouseButton.LeftButton, keys
    )


def type_in(qtbot: QtBot, field: object, text: str) -> None:
    assert isinstance(field, TextField)
    field.setFocus()
    field.selectAll()
    qtbot.keyClicks(field, text)
    qtbot.keyClick(field, Qt.Key.Key_Return)


def pick(field: object, value: str) -> None:
    """Choose from a field of words, as a click or a key does."""
    if isinstance(field, ChoiceField):
        field.button(value).click()
    else:
        assert isinstance(field, PickField)
        index = field.findData(value)
        assert index >= 0, value
        field.setCurrentIndex(index)
        field.activated.emit(index)


def row(window: Window, path: str) -> Any:
    return window.dress.rows[path].field


def hovered(at: QPoint) -> Any:
    none = Qt.MouseButton.NoButton
    return QMouseEvent(QEvent.Type.MouseMove, QPointF(at), QPointF(at), none, none, Qt.KeyboardModifier.NoModifier)


def shown(window: Window, column: int) -> list[str]:
    model = window.figures.grid.cells
    return [model.shown(model.index(row, column)) for row in range(1, model.rowCount() - 1)]


def cell(window: Window, column: int, row: int) -> object:
    model = window.figures.grid.cells
    held = model.cell(model.index(row, column))
    return held.text if isinstance(held, Formula) else held


def centre(window: Window, column: int, row: int) -> QPoint:
    grid = window.figures.grid
    return grid.visualRect(grid.cells.index(row, column)).center()


def start_typing(qtbot: QtBot, window: Window, column: int, row: int, text: str) -> FormulaEdit:
    grid = window.figures.grid
    grid.setFocus()
    grid.go_to(column, row)
    qtbot.keyClick(grid, text[0])
    editor = grid.formula
    assert isinstance(editor, FormulaEdit)
    qtbot.keyClicks(editor, text[1:])
    return editor


def open_menu(window: Window) -> QMenu:
    """The menu that was opened last."""
    return [one for one in window.findChildren(QMenu) if one.isVisible()][-1]


def send(
    view: QWidget, kind: QEvent.Type, at: QPoint, held: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier
) -> None:
    left, none = Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton
    button = none if kind == QEvent.Type.MouseMove else left
    down = none if kind == QEvent.Type.MouseButtonRelease else left
    QApplication.sendEvent(view, QMouseEvent(kind, QPointF(at), view.mapToGlobal(QPointF(at)), button, down, held))


def pulled(view: QWidget, start: QPoint, end: QPoint, held: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier,
           let_go: bool = True) -> None:  # fmt: skip
    send(view, QEvent.Type.MouseButtonPress, start, held)
    for i in range(1, 6):
        send(view, QEvent.Type.MouseMove, start + (end - start) * (i / 5), held)
    if let_go:
        send(view, QEvent.Type.MouseButtonRelease, end, held)


def bar_values(window: Window) -> list[float]:
    return [mark.value for mark in figure(window).marks if mark.key == "value"]
