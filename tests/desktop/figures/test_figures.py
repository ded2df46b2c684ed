"""The Figures place as a user works it: formulas, filling, pasting, arranging, tables and sources."""

import itertools
import os
import subprocess
import sys
from pathlib import Path

import pytest
import xlsxwriter
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QApplication, QFileDialog, QInputDialog, QMessageBox
from pytestqt.qtbot import QtBot
from python_calamine import CalamineWorkbook

from kavlet.core.files import tables as table_files
from kavlet.core.spreadsheet.cells import FormattedNumber, Formula
from kavlet.desktop.figures import clipboard
from kavlet.desktop.figures.formula_edit import FormulaEdit, spans
from kavlet.desktop.figures.import_dialog import ImportDialog
from kavlet.desktop.figures.what_if import WhatIf
from kavlet.desktop.main import Window
from tests.desktop.hands import cell, centre, shown, start_typing


def do(window: Window, name: str) -> None:
    window.actions_by_name[name].trigger()


def new_column(window: Window) -> None:
    window.figures.grid.go_to(1, 1)
    do(window, "insert_column")


def test_references_are_picked_by_clicking_and_dragging(window: Window, qtbot: QtBot) -> None:
    new_column(window)
    editor = start_typing(qtbot, window, 2, 1, "=")
    viewport = window.figures.grid.viewport()
    qtbot.mouseClick(viewport, Qt.MouseButton.LeftButton, pos=centre(window, 1, 1))
    qtbot.keyClicks(editor, "/sum(")
    qtbot.mousePress(viewport, Qt.MouseButton.LeftButton, pos=centre(window, 1, 1))
    qtbot.mouseMove(viewport, pos=centre(window, 1, 3))
    qtbot.mouseMove(viewport, pos=centre(window, 1, 5))
    qtbot.mouseRelease(viewport, Qt.MouseButton.LeftButton, pos=centre(window, 1, 5))
    assert editor.text() == "=B2/sum(B2:B6"
    qtbot.keyClick(editor, Qt.Key.Key_F4)
    assert editor.text() == "=B2/sum($B$2:$B$6"
    qtbot.keyClicks(editor, ")")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert cell(window, 2, 1) == "=B2/SUM($B$2:$B$6)"
    assert window.figures.grid.currentIndex().row() == 2


def test_functions_complete_and_explain_themselves(window: Window, qtbot: QtBot) -> None:
    new_column(window)
    editor = start_typing(qtbot, window, 2, 1, "=aver")
    names = [editor.completer.completionModel().index(i, 0).data() for i in range(editor.completer.completionCount())]
    assert names == [
        "AVERAGE(number; …)",
        "AVERAGEIF(range; criterion; [range to average])",
        "AVERAGEIFS(range to average; range; criterion; …)",
    ]
    qtbot.keyClick(editor, Qt.Key.Key_Tab)
    assert editor.text() == "=AVERAGE("
    assert editor.called() == "AVERAGE"
    qtbot.keyClicks(editor, "B2:B3)")
    qtbot.keyClick(editor, Qt.Key.Key_Tab)
    assert shown(window, 2)[0] == "12,650"
    assert window.figures.grid.currentIndex().column() == 3


def test_f4_goes_round_and_equal_references_share_a_colour(qtbot: QtBot) -> None:
    editor = FormulaEdit()
    qtbot.addWidget(editor)
    editor.set_text("=B2")
    seen = []
    for _ in range(4):
        editor.cycle_absolute()
        seen.append(editor.text())
    assert seen == ["=$B$2", "=B$2", "=$B2", "=B2"]
    assert [index for *_, index in spans('=A1+$A$1+B2&"C3"')] == [0, 0, 1]


def test_escape_leaves_the_cell_as_it_was(window: Window, qtbot: QtBot) -> None:
    editor = start_typing(qtbot, window, 1, 1, "99")
    qtbot.keyClick(editor, Qt.Key.Key_Escape)
    assert shown(window, 1)[0] == "18,400"
    assert window.figures.grid.formula is None


def test_filling_by_key_and_by_handle(window: Window, qtbot: QtBot) -> None:
    new_column(window)
    grid = window.figures.grid
    editor = start_typing(qtbot, window, 2, 1, "=B2*2")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    grid.choose((2, 1, 2, 3))
    do(window, "fill_down")
    assert cell(window, 2, 3) == "=B4*2"
    grid.choose((2, 3, 2, 3))
    handle = grid._handle().center()
    qtbot.mousePress(grid.viewport(), Qt.MouseButton.LeftButton, pos=handle)
    qtbot.mouseMove(grid.viewport(), pos=centre(window, 2, 4))
    qtbot.mouseMove(grid.viewport(), pos=centre(window, 2, 5))
    qtbot.mouseRelease(grid.viewport(), Qt.MouseButton.LeftButton, pos=centre(window, 2, 5))
    assert cell(window, 2, 5) == "=B6*2"
    assert window.actions_by_name["undo"].text() == "Undo: fill"


def test_copied_formulas_adjust_and_moved_cells_take_references_along(window: Window, qtbot: QtBot) -> None:
    new_column(window)
    grid = window.figures.grid
    editor = start_typing(qtbot, window, 2, 1, "=B2*2")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    grid.go_to(2, 1)
    qtbot.keyClick(grid, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    grid.choose((2, 2, 2, 5))
    qtbot.keyClick(grid, Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    assert cell(window, 2, 5) == "=B6*2"
    grid.go_to(2, 6)
    do(window, "paste_values")
    assert cell(window, 2, 6) == 36800.0
    grid.go_to(1, 1)
    qtbot.keyClick(grid, Qt.Key.Key_X, Qt.KeyboardModifier.ControlModifier)
    grid.go_to(1, 6)
    qtbot.keyClick(grid, Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    assert cell(window, 1, 1) is None
    assert cell(window, 2, 1) == "=B7*2"


@pytest.mark.parametrize(
    "html", ["<table><tr><td colspan='²'>1</td></tr><![", "<table><tr><td>1<![CDATA[", "<![<table>"]
)
def test_odd_html_is_pasted_as_far_as_it_is_a_table(window: Window, html: str) -> None:
    del window
    mime = QMimeData()
    mime.setHtml(html)
    mime.setText("2")
    QGuiApplication.clipboard().setMimeData(mime)
    assert clipboard.fields(".") in ([["1"]], [["2"]])


def test_an_html_table_is_pasted(window: Window, qtbot: QtBot) -> None:
    mime = QMimeData()
    mime.setHtml(
        "<p>x</p><table><tr><th>Quiz</th><td>4,200</td></tr><tr><td>A <b>tour</b></td><td>12 %</td></tr></table>"
    )
    mime.setText("something else")
    QGuiApplication.clipboard().setMimeData(mime)
    window.figures.grid.go_to(0, 3)
    qtbot.keyClick(window.figures.grid, Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    assert cell(window, 0, 4) == "A tour"
    assert cell(window, 1, 3) == 4200.0
    assert isinstance(cell(window, 1, 4), FormattedNumber)


def test_rows_and_columns_move_sort_and_turn(window: Window) -> None:
    grid = window.figures.grid
    grid.go_to(0, 1)
    do(window, "rows_down")
    assert shown(window, 0)[:2] == ["Guided walks", "Visits"]
    grid.go_to(1, 1)
    do(window, "sort_up")
    assert shown(window, 1) == ["310", "1,035", "2,760", "6,900", "18,400"]
    do(window, "columns_left")
    assert shown(window, 0)[0] == "310"
    assert grid.roles.chip_text(0) == "value"
    do(window, "transpose")
    assert window.store.table is not None
    assert window.store.table.rows == 1
    for _ in range(4):
        do(window, "undo")
    assert shown(window, 0)[0] == "Visits"


def test_numbers_are_written_as_wished(window: Window) -> None:
    grid = window.figures.grid
    grid.choose((1, 1, 1, 5))
    do(window, "more_decimals")
    assert shown(window, 1)[0] == "18,400.0"
    labels = [text.text for text in window.stage.view.picture.figure.texts if text.layer == "people"]  # type: ignore[union-attr]
    assert labels[0] == "18,400.0"
    grid.go_to(1, 1)
    do(window, "as_percent")
    assert shown(window, 1)[0] == "1,840,000%"
    assert shown(window, 1)[1] == "6,900.0"
    do(window, "as_date")
    assert "1950" in shown(window, 1)[0]


def test_helpers_fold_are_given_back_and_cut_loose(window: Window) -> None:
    grid = window.figures.grid
    do(window, "fold_helpers")
    assert [grid.isColumnHidden(i) for i in range(5)] == [False, False, True, True, True]
    do(window, "fold_helpers")
    grid.cells.put({(2, 2): 1.0}, "type")
    grid.go_to(2, 2)
    do(window, "give_back")
    assert cell(window, 2, 2) == "=(MAX(B$2:B$6)-B3)/2"
    do(window, "cut_loose")
    assert window.store.table is not None
    assert [column.helper is None for column in window.store.table.columns] == [True, True, True, False, False, False]


def test_cells_are_found(window: Window, qtbot: QtBot) -> None:
    do(window, "find")
    finder = window.figures.finder
    qtbot.keyClicks(finder.text, "dona")
    qtbot.keyClick(finder.text, Qt.Key.Key_Return)
    assert window.figures.grid.currentIndex().row() == 4
    finder.text.setText("no such thing")
    qtbot.keyClick(finder.text, Qt.Key.Key_Return)
    assert finder.says.text() == "not found"
    qtbot.keyClick(finder.text, Qt.Key.Key_Escape)
    assert not finder.isVisible()


def test_several_tables(window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    before = window.figures.tabs.count()
    qtbot.mouseClick(window.figures.add, Qt.MouseButton.LeftButton)
    editor = start_typing(qtbot, window, 1, 1, "='Visitor path'!B2/2")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert shown(window, 1)[0] == "9,200"
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("Gates", True))
    do(window, "rename_table")
    assert [window.figures.tabs.tabText(i) for i in (0, before)] == ["Visitor path", "Gates"]
    do(window, "copy_table")
    assert window.figures.tabs.tabText(before + 1) == "Gates 2"
    do(window, "delete_table")
    window.figures.tabs.setCurrentIndex(0)
    assert window.figures.grid.roles.chip_text(1) == "value"
    asked: list[str] = []

    def answer(box: QMessageBox) -> int:
        asked.append(box.text())
        next(button for button in box.buttons() if button.text() == "Delete").click()
        return 0

    monkeypatch.setattr(QMessageBox, "exec", answer)
    do(window, "delete_table")
    assert "“Visitor path” is read by “Visitor path”" in asked[0]
    assert window.figures.tabs.count() == before
    do(window, "undo")
    assert window.figures.tabs.count() == before + 1


def test_cells_and_marks_light_up_together(window: Window, qtbot: QtBot) -> None:
    view = window.stage.view
    window.figures.grid.go_to(1, 3)
    assert view._lit == {2}
    picture = view.picture
    assert picture is not None
    mark = next(mark for mark in picture.figure.marks if mark.key == "value" and mark.row == 1)
    sheet = view.sheet()
    scale = sheet.width() / picture.scene.size.width
    x, y = mark.bounds.x + 3, mark.bounds.center[1]
    at = QPointF(sheet.x() + x * scale, sheet.y() + y * scale).toPoint()
    qtbot.mouseClick(view, Qt.MouseButton.LeftButton, pos=at)
    index = window.figures.grid.currentIndex()
    assert (index.column(), index.row()) == (1, 2)


def test_a_source_that_changes_shows_what_and_is_taken_over(window: Window, qtbot: QtBot, visitor_csv: Path) -> None:
    window.store.history.saved()
    window.files.open_path(visitor_csv)
    bar = window.figures.source
    assert bar.says.text() == "From visitor_path.csv"
    visitor_csv.write_text(visitor_csv.read_text("utf-8").replace("6900", "7000"), "utf-8")
    qtbot.waitUntil(lambda: "1 cell differs" in bar.says.text(), timeout=3000)
    assert shown(window, 1)[1] == "6,900"
    assert window.figures.grid.cells.coming == {(1, 2): 7000.0}
    qtbot.mouseClick(bar.take, Qt.MouseButton.LeftButton)
    assert shown(window, 1)[1] == "7,000"
    assert bar.says.text() == "From visitor_path.csv"
    qtbot.mouseClick(bar.always, Qt.MouseButton.LeftButton)
    visitor_csv.write_text(visitor_csv.read_text("utf-8").replace("7000", "7100"), "utf-8")
    qtbot.waitUntil(lambda: shown(window, 1)[1] == "7,100", timeout=3000)
    visitor_csv.unlink()
    qtbot.waitUntil(lambda: "is not there any more" in bar.says.text(), timeout=3000)
    assert shown(window, 1)[1] == "7,100"
    window.store.history.saved()


def test_a_text_is_read_otherwise(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    path = tmp_path / "gates.csv"
    path.write_text("gate;count\nNorth;1,5\nSouth;2,5\n", encoding="utf-8")
    window.tables.add_path(path)
    assert shown(window, 1) == ["1.5", "2.5"]
    do(window, "read_otherwise")
    sheet = window.findChild(ImportDialog)
    assert isinstance(sheet, ImportDialog)
    assert sheet.preview.item(0, 1).text() == "1.5"
    qtbot.mouseClick(sheet.decimal.button("."), Qt.MouseButton.LeftButton)
    assert sheet.preview.item(0, 1).text() == "1,5"
    sheet.encoding.setCurrentText("utf-16")
    assert not sheet.take.isEnabled() or "not written" not in sheet.says.text()
    sheet.encoding.setCurrentText("utf-8")
    qtbot.mouseClick(sheet.take, Qt.MouseButton.LeftButton)
    assert cell(window, 1, 1) == "1,5"
    window.store.history.saved()


def test_a_sheet_of_a_workbook_is_chosen(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    path = tmp_path / "year.xlsx"
    book = xlsxwriter.Workbook(str(path))
    for name, number in (("One", 1), ("Two", 2)):
        page = book.add_worksheet(name)
        page.write_row(0, 0, ["gate", "count"])
        page.write_row(1, 0, ["North", number])
        page.write_formula(1, 2, "=B2*2", None, 2 * number)
    book.close()
    window.tables.add_path(path)
    sheet = window.findChild(ImportDialog)
    assert isinstance(sheet, ImportDialog)
    sheet.sheet.setCurrentText("Two")
    assert sheet.preview.item(0, 2).text() == "=B2*2"
    qtbot.mouseClick(sheet.take, Qt.MouseButton.LeftButton)
    assert shown(window, 2) == ["4"]


@pytest.mark.parametrize("ending", [".csv", ".xlsx", ".ods"])
def test_a_table_is_exported(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, ending: str) -> None:
    window.figures.grid.cells.put({(0, 1): "=not a formula"}, "type")
    window.figures.grid.cells.put({(0, 2): "'=HYPERLINK"}, "type")
    target = tmp_path / f"out{ending}"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), f"X (*{ending})"))
    do(window, "export_table")
    if ending == ".csv":
        assert "'=HYPERLINK" in target.read_text("utf-8")
        assert "0.375" in target.read_text("utf-8")
        return
    assert table_files.read(target).cells[2][2] == Formula("=(MAX(B$2:B$6)-B3)/2")
    assert CalamineWorkbook.from_path(str(target)).get_sheet_by_index(0).to_python()[2][2] == 5750


def test_a_dragged_width_is_kept_and_undone(window: Window, qtbot: QtBot) -> None:
    header = window.figures.grid.roles
    edge = QPoint(header.sectionViewportPosition(1) - 1, 40)
    qtbot.mousePress(header.viewport(), Qt.MouseButton.LeftButton, pos=edge)
    qtbot.mouseMove(header.viewport(), pos=edge + QPoint(20, 0))
    qtbot.mouseMove(header.viewport(), pos=edge + QPoint(60, 0))
    qtbot.mouseRelease(header.viewport(), Qt.MouseButton.LeftButton, pos=edge + QPoint(60, 0))
    assert window.store.table is not None
    assert window.store.table.columns[0].width > 100
    assert QApplication.instance() is not None


def test_the_first_row_below_a_table_is_committed_once(
    window: Window, qtbot: QtBot, qtlog: pytest.LogCaptureFixture
) -> None:
    bottom = window.store.table.height
    editor = start_typing(qtbot, window, 0, bottom, "Shop")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert cell(window, 0, bottom) == "Shop"
    assert window.store.table.height == bottom + 1
    assert not [record for record in qtlog.records if "does not belong" in record.message]


def test_what_was_copied_is_let_go_before_python_ends() -> None:
    lines = (
        "from PySide6.QtCore import QMimeData",
        "from PySide6.QtGui import QGuiApplication",
        "from kavlet.desktop.main import application",
        "app = application()",
        "held = QMimeData()",
        "held.setText('Mere')",
        "QGuiApplication.clipboard().setMimeData(held)",
    )
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    ended = subprocess.run([sys.executable, "-c", "\n".join(lines)], env=environment, capture_output=True, check=False)
    assert ended.returncode == 0, ended.stderr.decode()


@pytest.mark.parametrize(
    ("to", "filled"),
    [
        ((1, 5), (1, 3, 1, 5)),
        ((2, 3), (1, 3, 2, 3)),
        ((2, 4), (1, 3, 1, 4)),
        ((2, 5), (1, 3, 1, 5)),
        ((0, 3), (0, 3, 1, 3)),
    ],
)
def test_the_fill_handle_goes_along_one_axis(
    window: Window, qtbot: QtBot, to: tuple[int, int], filled: tuple[int, int, int, int]
) -> None:
    new_column(window)
    grid = window.figures.grid
    grid.choose((1, 3, 1, 3))
    qtbot.mousePress(grid.viewport(), Qt.MouseButton.LeftButton, pos=grid._handle().center())
    qtbot.mouseMove(grid.viewport(), pos=centre(window, *to))
    assert grid._fill_target == filled  # on the diagonal it goes down
    qtbot.mouseRelease(grid.viewport(), Qt.MouseButton.LeftButton, pos=centre(window, 1, 3))


def test_a_helpers_own_formula_typed_again_stays_the_recipes(window: Window, qtbot: QtBot) -> None:
    made = cell(window, 2, 2)
    assert isinstance(made, str)
    editor = start_typing(qtbot, window, 2, 2, made)
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    grid = window.figures.grid
    assert not grid.model().is_hand_made(grid.model().index(2, 2))  # type: ignore[attr-defined]
    assert not window.store.history.changed
    editor = start_typing(qtbot, window, 2, 2, f"{made}+1")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert grid.model().is_hand_made(grid.model().index(2, 2))  # type: ignore[attr-defined]


def test_cells_are_found_both_ways_and_round_the_end(window: Window) -> None:
    """Columns that are folded are passed over."""
    grid, table = window.figures.grid, window.store.table
    width = len(table.columns)
    places = [grid.model().index(row, column) for row in range(table.height) for column in range(width)]
    texts = [str(place.data() or "").casefold() for place in places]
    letter = "i"
    shown = [i for i, text in enumerate(texts) if letter in text and not grid.isColumnHidden(i % width)]
    assert len(shown) > 2
    grid.go_to(shown[1] % width, shown[1] // width)
    assert grid.find_text(letter)
    assert (grid.currentIndex().row(), grid.currentIndex().column()) == divmod(shown[2], width)
    assert grid.find_text(letter, backward=True)
    assert grid.find_text(letter, backward=True)
    assert (grid.currentIndex().row(), grid.currentIndex().column()) == divmod(shown[0], width)
    assert grid.find_text(letter, backward=True)
    assert (grid.currentIndex().row(), grid.currentIndex().column()) == divmod(shown[-1], width)


def test_quick_values_do_not_lie_over_each_other_in_a_narrow_panel(window: Window) -> None:
    strip = window.figures.findChild(WhatIf)
    assert strip is not None
    window.figures.grid.go_to(1, 1)
    buttons = list(strip.buttons.values())
    for width in (sum(button.minimumWidth() for button in buttons), 600):
        strip.resize(width, strip.height())
        strip.layout().activate()
        edges = [(button.x(), button.x() + button.width()) for button in buttons]
        assert all(before[1] <= after[0] for before, after in itertools.pairwise(edges)), width
        assert strip._label.isHidden() == (width < 600)
