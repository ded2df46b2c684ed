"""The window as a user works it: typing, clicking, dragging."""

import gc
import weakref
from pathlib import Path

import pytest
from PySide6.QtCore import QEvent, QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent, QGuiApplication
from PySide6.QtWidgets import QAbstractButton, QAbstractItemView, QApplication, QDialog, QFileDialog, QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pipeline.stages import NO_PICTURE, picture
from kavlet.desktop import recent_files
from kavlet.desktop.deliver.deliver_dialog import DeliverDialog
from kavlet.desktop.figures.formula_edit import FormulaEdit
from kavlet.desktop.main import Window, open_window
from kavlet.paint.pdf import pdf
from tests.desktop.hands import bar_values, figure


def type_into(qtbot: QtBot, window: Window, column: int, row: int, text: str) -> None:
    """Click a cell, type over it, press Enter."""
    grid = window.figures.grid
    qtbot.mouseClick(
        grid.viewport(), Qt.MouseButton.LeftButton, pos=grid.visualRect(grid.cells.index(row, column)).center()
    )
    qtbot.keyClick(grid, text[0])
    editor = QApplication.focusWidget()
    assert isinstance(editor, FormulaEdit)
    qtbot.keyClicks(editor, text[1:])
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert grid.state() != QAbstractItemView.State.EditingState


def test_the_demo_shows_its_table_and_its_funnel(window: Window) -> None:
    assert window.windowTitle() == "Mirefen year[*] – Kavlet"
    assert bar_values(window) == [18400, 6900, 2760, 1035, 310]
    model = window.figures.grid.cells
    shown = [model.data(model.index(1, column)) for column in range(model.columnCount())]
    assert shown == ["Visits", "18,400", "0", "", "100%"]
    assert model.data(model.index(2, 2)) == "5,750"
    assert model.data(model.index(2, 2), Qt.ItemDataRole.ToolTipRole) == "=(MAX(B$2:B$6)-B3)/2"


def test_a_typed_number_moves_chart_and_helpers(window: Window, qtbot: QtBot) -> None:
    type_into(qtbot, window, 1, 2, "9200")
    assert bar_values(window)[1] == 9200
    model = window.figures.grid.cells
    assert model.data(model.index(2, 2)) == "4,600"
    assert model.data(model.index(2, 3)) == "50%"
    assert window.figures.grid.currentIndex().row() == 3
    assert window.windowTitle().startswith("Mirefen year")
    assert window.isWindowModified()
    assert window.actions_by_name["undo"].text() == "Undo: type in B3"
    window.actions_by_name["undo"].trigger()
    assert bar_values(window)[1] == 6900
    assert not window.isWindowModified()
    window.actions_by_name["redo"].trigger()
    assert bar_values(window)[1] == 9200


def test_a_row_in_the_middle_and_one_at_the_end(window: Window, qtbot: QtBot) -> None:
    grid = window.figures.grid
    grid.go_to(0, 3)
    window.actions_by_name["insert_rows"].trigger()
    assert grid.cells.rowCount() == 8
    type_into(qtbot, window, 1, 3, "5000")
    assert bar_values(window) == [18400, 6900, 5000, 2760, 1035, 310]
    type_into(qtbot, window, 1, 7, "100")
    assert bar_values(window)[-1] == 100
    assert grid.cells.data(grid.cells.index(7, 2), Qt.ItemDataRole.EditRole) == "=(MAX(B$2:B$8)-B8)/2"
    grid.go_to(0, 7)
    window.actions_by_name["delete_rows"].trigger()
    assert bar_values(window)[-1] == 310
    for _ in range(4):
        window.actions_by_name["undo"].trigger()
    assert bar_values(window) == [18400, 6900, 2760, 1035, 310]


def test_the_formula_line_shows_and_takes_formulas(window: Window, qtbot: QtBot) -> None:
    grid, line = window.figures.grid, window.figures.line
    grid.go_to(3, 2)
    assert line.text() == '=IF(COUNT(B2:B3)=2;B3/B2;"")'
    grid.go_to(1, 5)
    line.setFocus()
    line.selectAll()
    qtbot.keyClicks(line, "=B5/5")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert bar_values(window)[-1] == 207


def test_a_wrong_cell_is_said_and_the_chart_comes_back(window: Window, qtbot: QtBot) -> None:
    type_into(qtbot, window, 1, 2, "many")
    assert "B3 holds “many”, which is not a number." in window.stage.view.problem
    assert window.stage.view.picture is not NO_PICTURE
    window.actions_by_name["undo"].trigger()
    assert window.stage.view.problem == ""


def test_a_chip_gives_a_column_its_role(window: Window, qtbot: QtBot) -> None:
    grid = window.figures.grid
    grid.go_to(1, 1)
    window.actions_by_name["insert_column"].trigger()
    for row, text in enumerate(("last year", "9000", "3000", "1000", "500", "200")):
        type_into(qtbot, window, 2, row, text)
    header = grid.roles
    menu = header.role_menu(2)
    next(action for action in menu.actions() if action.text().startswith("value")).trigger()
    menu.close()
    assert bar_values(window)[:2] == [9000, 3000]
    assert header.chip_text(1) == ""
    start, end = header.chip_rect(2).center(), header.chip_rect(1).center()
    qtbot.mousePress(header.viewport(), Qt.MouseButton.LeftButton, pos=start)
    qtbot.mouseMove(header.viewport(), pos=QPoint((start.x() + end.x()) // 2, end.y()))
    qtbot.mouseMove(header.viewport(), pos=end)
    qtbot.mouseRelease(header.viewport(), Qt.MouseButton.LeftButton, pos=end)
    assert bar_values(window)[:2] == [18400, 6900]
    assert header.chip_text(1) == "value"


def test_cells_are_copied_and_pasted(window: Window, qtbot: QtBot) -> None:
    grid = window.figures.grid
    QGuiApplication.clipboard().setText("Quiz\t4,200\nTour\t2,100\n")
    grid.go_to(0, 3)
    qtbot.keyClick(grid, Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    assert bar_values(window) == [18400, 6900, 4200, 2100, 310]
    grid.go_to(1, 1)
    qtbot.keyClick(grid, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    assert QGuiApplication.clipboard().text() == "18,400"
    assert "<td>18,400</td>" in QGuiApplication.clipboard().mimeData().html()
    qtbot.keyClick(grid, Qt.Key.Key_Delete)
    assert len(bar_values(window)) == 4


def test_an_empty_window_shows_no_field_of_a_chart(window: Window) -> None:
    empty = open_window()
    QApplication.processEvents()
    seen = [one for one in empty.dress.findChildren(QAbstractButton) if one.isVisible()]
    assert not seen
    assert not empty.stage.final_size.isVisible()
    empty.close()
    assert window.stage.final_size.isVisible()


def test_title_and_settings_are_dressed_live(window: Window, qtbot: QtBot) -> None:
    title = window.dress.texts["title"]
    window.actions_by_name["edit_title"].trigger()
    title.setFocus()
    title.selectAll()
    qtbot.keyClicks(title, "Who stays?")
    qtbot.keyClick(title, Qt.Key.Key_Return)
    assert figure(window).title == "Who stays?"
    window.figures.grid.go_to(0, 1)
    window.actions_by_name["title_from_cell"].trigger()
    assert figure(window).title == "Visits"
    assert title.text() == "=A2"
    shape = window.dress.settings["shape"]
    qtbot.mouseClick(shape.button("tapered"), Qt.MouseButton.LeftButton)  # type: ignore[attr-defined]
    assert not [mark for mark in figure(window).marks if mark.kind.name == "flank"]
    gap = window.dress.settings["gap"]
    gap.setFocus()
    gap.selectAll()  # type: ignore[attr-defined]
    qtbot.keyClicks(gap, "10")
    qtbot.keyClick(gap, Qt.Key.Key_Return)
    assert window.store.chart is not None
    assert window.store.chart.settings == {"shape": "tapered", "gap": 10.0}
    gap.selectAll()  # type: ignore[attr-defined]
    qtbot.keyClicks(gap, "9999")
    qtbot.keyClick(gap, Qt.Key.Key_Return)
    assert window.store.chart.settings["gap"] == 10.0
    assert "can’t be 9,999" in window.saying.text()


def test_a_colour_by_hand_survives_a_theme_and_is_given_back(window: Window, qtbot: QtBot) -> None:
    field = window.dress.fill
    assert field is not None
    field.colour.hex.setFocus()
    field.colour.hex.selectAll()
    qtbot.keyClicks(field.colour.hex, "#0a6847")
    qtbot.keyClick(field.colour.hex, Qt.Key.Key_Return)
    window.dress.look.dark.click()
    bar = next(mark for mark in figure(window).marks if mark.key == "value")
    assert bar.fill is not None
    assert bar.fill.hex == "#0a6847"
    assert field.colour.dot.isVisible()
    qtbot.mouseClick(field.colour.dot, Qt.MouseButton.LeftButton)
    bar = next(mark for mark in figure(window).marks if mark.key == "value")
    assert bar.fill is not None
    assert bar.fill.hex == "#d58bb8"
    assert not field.colour.dot.isVisible()


def test_save_open_and_recent(window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "year.kavlet"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "year"), ""))
    type_into(qtbot, window, 1, 2, "7000")
    window.actions_by_name["save"].trigger()
    assert kavlet_file.load(path) == window.store.document
    assert not window.isWindowModified()
    type_into(qtbot, window, 1, 2, "7100")
    assert window.isWindowModified()
    window.actions_by_name["save"].trigger()
    assert recent_files.recent() == [path]
    window.files.new_document()
    assert window.store.document.tables == ()
    assert window.stage.view.picture is NO_PICTURE
    window.files.open_path(path)
    assert bar_values(window)[1] == 7100


def test_a_csv_is_opened_by_dropping_it(window: Window, visitor_csv: Path) -> None:
    visitor_csv.write_text("gate;people\nNorth;1.200,5\nSouth;600\n", encoding="utf-8")
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(visitor_csv))])
    drop = QDropEvent(
        QPointF(10, 10), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    )
    window.dropEvent(drop)
    assert window.places.currentWidget() is window.wall
    window.wall.chosen.emit("funnel")
    assert bar_values(window) == [1200.5, 600]
    assert window.places.currentWidget() is window.splitter
    assert window.isWindowModified()
    window.store.history.saved()


def test_cells_pasted_into_an_empty_window_become_a_chart(window: Window) -> None:
    window.files.new_document()
    QGuiApplication.clipboard().setText("Visits\t400\nWalks\t100\n")
    window.actions_by_name["paste"].trigger()
    assert window.places.currentWidget() is window.wall
    window.wall.chosen.emit("funnel")
    assert bar_values(window) == [400, 100]
    window.store.history.saved()


@pytest.mark.parametrize("name", ["broken.kavlet", "picture.csv", "missing.csv", "table.docx"])
def test_a_file_that_cannot_be_read_changes_nothing(window: Window, tmp_path: Path, name: str) -> None:
    if name != "missing.csv":
        (tmp_path / name).write_bytes(b"\x00\x01\x02")
    before = window.store.document
    window.files.open_path(tmp_path / name)
    assert window.saying.text()
    assert window.store.document is before


@pytest.mark.parametrize("ending", [".png", ".jpg", ".svg", ".pdf"])
def test_deliver_writes_what_its_sheet_promises(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, ending: str
) -> None:
    target = tmp_path / f"funnel{ending}"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    qtbot.mouseClick(window.deliver_button, Qt.MouseButton.LeftButton)
    sheet = window.findChild(DeliverDialog)
    assert isinstance(sheet, DeliverDialog)
    qtbot.mouseClick(sheet.format.buttons[ending], Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: "kB" in sheet.says.text(), timeout=10_000)
    if ending == ".png":
        sheet.resolution.chosen.emit("300")
        qtbot.waitUntil(lambda: "2,667 × 1,500 pixels" in sheet.says.text(), timeout=10_000)
    qtbot.waitUntil(sheet.save.isEnabled, timeout=10_000)
    promised = len(sheet.made.content)
    qtbot.mouseClick(sheet.save, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(target.exists, timeout=10_000)
    assert target.stat().st_size == promised


def test_closing_asks_about_changes(window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    type_into(qtbot, window, 1, 2, "7000")
    answers: list[str] = []

    def answer(box: QMessageBox) -> int:
        answers.append(box.text())
        button = next(one for one in box.buttons() if one.text() == wanted)
        button.click()
        return 0

    monkeypatch.setattr(QMessageBox, "exec", answer)
    wanted = "Cancel"
    assert not window.close()
    assert window.isVisible()
    wanted = "Don’t save"
    assert window.close()
    assert answers == ["Save the changes to “Mirefen year”?"] * 2


def test_an_unwritable_place_is_said(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "no" / "year.kavlet"), ""))
    window.actions_by_name["save_as"].trigger()
    assert "can’t be written" in window.saying.text()
    assert window.store.path is None


def test_an_empty_window_invites(qtbot: QtBot, window: Window) -> None:
    other = open_window()
    qtbot.addWidget(other)
    assert other.store.document == Document(locale=other.store.document.locale)
    assert not other.deliver_button.isEnabled()
    assert other.figures.line.isVisible() is False
    assert window.isVisible()


def test_every_command_is_carried_out_by_a_method(window: Window) -> None:
    texts = [action.text() for action in window.actions_by_name.values()]
    of_widgets = {command.name for command in window.menus.commands.all if command.own_keys}
    keys = {name: action.shortcut().toString() for name, action in window.actions_by_name.items()}
    shortcuts = [key for name, key in keys.items() if key and name not in of_widgets]
    assert len(set(texts)) == len(texts)
    assert len(set(shortcuts)) == len(shortcuts)


def test_a_pdf_holds_translucent_gradients_as_they_look_on_its_ground(window: Window) -> None:
    chart = next(one for one in window.store.document.charts if one.recipe == "columns")
    fill = {"fill": "gradient", "colours": ["#ff0000", "#ff000000"], "run": "along"}
    made = look_edits.set_looks(window.store.document, chart.id, {"layers.series 1.fill": fill})
    content = pdf(picture(made, window.store.values, chart.id).scene)
    assert b"/SMask << /S" not in content  # a mask that readers would take for full
    assert b"/ShadingType 2" in content  # still a gradient, not a picture


def test_choices_that_hold_have_a_tick_in_the_menu(window: Window) -> None:
    actions = window.actions_by_name
    assert [name for name in actions if actions[name].isChecked()] == [
        "show_stage", "read_as_everyone", "look_system", "language_desktop",
    ]  # fmt: skip
    actions["look_dark"].trigger()
    assert (actions["look_dark"].isChecked(), actions["look_system"].isChecked()) == (True, False)
    actions["look_dark"].trigger()
    assert actions["look_dark"].isChecked()
    actions["toggle_xray"].trigger()
    assert actions["toggle_xray"].isChecked()
    window.stage.xray.click()
    assert not actions["toggle_xray"].isChecked()
    actions["fold_helpers"].trigger()
    assert actions["fold_helpers"].isChecked()
    actions["look_system"].trigger()


def _visited(qtbot: QtBot) -> "weakref.ref[Window]":
    """A window in which every place was seen, and which has ended."""
    made = open_window(demo=True)
    for name in (
        "show_pages",
        "send_to_page",
        "open_recipes",
        "show_stage",
        "toggle_solid",
        "show_proof",
        "deliver",
        "outbox",
    ):
        made.actions_by_name[name].trigger()
        qtbot.wait(1)
    sheets = made.findChildren(QDialog)
    assert sheets
    for sheet in sheets:
        sheet.close()
    made.store.history.saved()
    made.store.attended.stop()
    made.close()
    made.deleteLater()
    return weakref.ref(made)


def test_a_window_that_went_leaves_nothing_behind(window: Window, qtbot: QtBot) -> None:
    assert window.isVisible()
    _visited(qtbot)  # what all windows share is made
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    before = len(QApplication.allWidgets())
    gone = _visited(qtbot)
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    gc.collect()
    assert len(QApplication.allWidgets()) == before
    assert gone() is None
