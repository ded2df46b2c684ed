"""The sheet that makes a small table: what is selected comes first, a preview, one step with its chart."""

import pytest
from PySide6.QtCore import Qt
from pytestqt.qtbot import QtBot

from kavlet.core.spreadsheet.cells import Cell
from kavlet.desktop.document_loading import from_rows
from kavlet.desktop.figures.small_table_dialog import SmallTableDialog
from kavlet.desktop.main import Window

ROWS: list[list[Cell]] = [
    ["gate", "month", "visitors"],
    ["Mill", "Jan", 410.0], ["Ferry", "Jan", 120.0], ["Mill", "Feb", 380.0], ["Ferry", "Feb", 90.0],
]  # fmt: skip


@pytest.fixture
def sheet(window: Window) -> SmallTableDialog:
    window.store.load(from_rows("Gates", ROWS, "en"), None, "gates")
    window.figures.grid.go_to(0, 1)
    window.actions_by_name["small_table"].trigger()
    found = window.findChild(SmallTableDialog)
    assert found is not None
    return found


def shown(sheet: SmallTableDialog) -> list[list[str]]:
    table = sheet.preview
    items = [[table.item(r, c) for c in range(table.columnCount())] for r in range(table.rowCount())]
    return [[item.text() if item is not None else "" for item in line] for line in items]


def test_groups_are_gathered_with_a_preview_and_made_in_one_step(window: Window, sheet: SmallTableDialog,
                                                                 qtbot: QtBot) -> None:  # fmt: skip
    before = window.store.document
    sheet.by.setCurrentIndex(sheet.by.findData("c1"))
    sheet.by.activated.emit(sheet.by.currentIndex())
    assert shown(sheet) == [["Mill", "790"], ["Ferry", "210"]]
    sheet.how.button("mean").click()
    assert shown(sheet) == [["Mill", "395"], ["Ferry", "105"]]
    qtbot.mouseClick(sheet.take, Qt.MouseButton.LeftButton)
    assert window.store.table.name == "Gates, small"
    assert window.store.chart.table == window.store.table.id
    assert window.places.currentWidget() is window.wall
    window.actions_by_name["undo"].trigger()
    assert window.store.document == before


def test_one_period_and_ticked_columns(sheet: SmallTableDialog) -> None:
    sheet.rows.setCurrentIndex(sheet.rows.findData("c2\nFeb"))
    sheet.rows.activated.emit(sheet.rows.currentIndex())
    sheet.columns.item(1).setCheckState(Qt.CheckState.Unchecked)
    assert shown(sheet) == [["Mill", "380"], ["Ferry", "90"]]
    for i in range(3):
        sheet.columns.item(i).setCheckState(Qt.CheckState.Unchecked)
    assert "would be empty" in sheet.says.text()
    assert not sheet.take.isEnabled()


def test_selected_rows_are_what_it_begins_with(window: Window) -> None:
    window.store.load(from_rows("Gates", ROWS, "en"), None, "gates")
    window.figures.grid.choose((0, 2, 2, 3))
    window.actions_by_name["small_table"].trigger()
    found = window.findChild(SmallTableDialog)
    assert found is not None
    assert found.pick.rows == (1, 2)
    assert [line[0] for line in shown(found)] == ["Ferry", "Mill"]
