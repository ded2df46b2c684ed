"""Figures across a row in the window: chosen in Dress and on the wall, picked, stepped through, typed over."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QMenu
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell
from kavlet.desktop.document_loading import from_rows, with_best_chart
from kavlet.desktop.dress.direction_choice import ACROSS, DOWN
from kavlet.desktop.main import Window

WALKS: list[list[Cell]] = [
    ["month", "Enquiries", "Tours", "Signed"],
    ["April", 520.0, 180.0, 61.0],
    ["May", 480.0, 210.0, 70.0],
    ["June", 610.0, 260.0, 91.0],
]


@pytest.fixture
def walks(window: Window) -> Window:
    """A window with a table of months, its chart a funnel."""
    window.store.load(from_rows("Walks", WALKS, "en"), None, "walks")
    window.recipes.take("funnel")
    return window


def drawn(window: Window) -> dict[str, float]:
    read = window.store.drawn.build.inputs
    return dict(zip(read.names, read.figures("value"), strict=True))


def test_it_is_chosen_in_dress_and_taken_back_by_one_step(walks: Window, qtbot: QtBot) -> None:
    before = walks.store.document
    assert not walks.stage.stepper.isVisible()
    qtbot.waitUntil(lambda: not walks.dress.run.button(ACROSS).visibleRegion().isEmpty(), timeout=5_000)
    qtbot.mouseClick(walks.dress.run.button(ACROSS), Qt.MouseButton.LeftButton)
    assert drawn(walks) == {"Enquiries": 610.0, "Tours": 260.0, "Signed": 91.0}
    assert walks.figures.tabs.tabText(walks.figures.tabs.currentIndex()) == "Walks, across"
    assert walks.actions_by_name["read_across"].isChecked()
    qtbot.mouseClick(walks.dress.run.button(DOWN), Qt.MouseButton.LeftButton)
    assert walks.store.document == before
    walks.actions_by_name["undo"].trigger()
    assert walks.dress.run.button(ACROSS).isChecked()
    walks.actions_by_name["undo"].trigger()
    assert walks.store.document == before


def test_the_row_is_picked_from_a_list_by_slider_and_by_playing(walks: Window, qtbot: QtBot) -> None:
    walks.actions_by_name["read_across"].trigger()
    stepper = walks.stage.stepper
    assert [stepper.period.itemText(i) for i in range(stepper.period.count())] == ["April", "May", "June"]
    assert stepper.period.currentText() == "June"
    stepper.period.setCurrentIndex(0)
    stepper.period.activated.emit(0)
    assert drawn(walks)["Tours"] == 180.0
    assert walks.store.history.undo_name == "read another row"
    qtbot.keyClick(stepper.slider, Qt.Key.Key_Right)
    assert (drawn(walks)["Tours"], stepper.period.currentText()) == (210.0, "May")
    stepper.play.setChecked(True)
    qtbot.waitUntil(lambda: not stepper.play.isChecked(), timeout=20_000)
    assert stepper.period.currentText() == "June"


def test_columns_are_ticked_in_a_list(walks: Window, qtbot: QtBot) -> None:
    walks.actions_by_name["read_across"].trigger()
    qtbot.mouseClick(walks.stage.stepper.columns, Qt.MouseButton.LeftButton)
    menu = walks.stage.stepper.findChild(QMenu)
    assert menu is not None
    assert [(one.text(), one.isChecked()) for one in menu.actions()] == [
        ("Enquiries", True), ("Tours", True), ("Signed", True),
    ]  # fmt: skip
    menu.actions()[1].trigger()
    menu.close()
    assert list(drawn(walks)) == ["Enquiries", "Signed"]


def test_what_is_typed_goes_to_the_table_that_is_read(walks: Window) -> None:
    walks.actions_by_name["read_across"].trigger()
    walks.figures.grid.go_to(1, 2)
    model = walks.figures.grid.cells
    index = model.index(2, 1)
    assert model.is_helper(index)
    model.setData(index, "300")
    assert walks.store.document.tables[0].columns[2].cells[3] == 300.0
    assert not model.is_hand_made(model.index(2, 1))
    model.setData(model.index(2, 1), "=2*B2")
    assert model.is_hand_made(model.index(2, 1))


def test_the_wall_draws_all_recipes_of_a_row(walks: Window, qtbot: QtBot) -> None:
    walks.actions_by_name["open_recipes"].trigger()
    qtbot.waitUntil(lambda: not walks.wall.drawing, timeout=20_000)
    assert walks.wall.run.button(DOWN).isChecked()
    qtbot.mouseClick(walks.wall.run.button(ACROSS), Qt.MouseButton.LeftButton)
    assert walks.store.chart.reading is not None
    qtbot.waitUntil(lambda: not walks.wall.drawing, timeout=20_000)
    qtbot.mouseClick(walks.wall.tiles["pie"], Qt.MouseButton.LeftButton)
    assert walks.store.chart.recipe == "pie"
    assert drawn(walks) == {"Enquiries": 610.0, "Tours": 260.0, "Signed": 91.0}


def test_a_table_without_a_chart_can_be_read_across_from_the_wall(walks: Window, qtbot: QtBot) -> None:
    document, table = edits.add_table(walks.store.document, "More walks", WALKS)
    walks.store.apply(say("add table"), document)
    walks.store.show_table(table)
    walks.actions_by_name["open_recipes"].trigger()
    qtbot.mouseClick(walks.wall.run.button(ACROSS), Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not walks.wall.drawing, timeout=20_000)
    assert len(walks.store.document.charts) == 1  # only looked at
    qtbot.mouseClick(walks.wall.tiles["funnel"], Qt.MouseButton.LeftButton)
    assert (len(walks.store.document.charts), list(drawn(walks))) == (2, ["Enquiries", "Tours", "Signed"])


def test_the_first_chart_of_a_single_row_reads_across_it() -> None:
    document, table = edits.add_table(Document(), "Walks", WALKS[:2])
    made, chart = with_best_chart(document, table)
    assert made.chart(chart).reading is not None
