"""The Start place: ways to figures, questions with samples, documents opened last; and what comes up by itself."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document.document import Document
from kavlet.core.files import kavlet
from kavlet.core.recipes.recipe import QUESTIONS
from kavlet.desktop import recent_files
from kavlet.desktop.document_loading import demo
from kavlet.desktop.main import Window
from kavlet.desktop.start.cards import RecentCard


@pytest.fixture
def empty(window: Window) -> Window:
    window.store.load(Document(), None, "")
    return window


def test_nothing_but_the_start_is_seen_without_a_table(empty: Window, qtbot: QtBot) -> None:
    assert empty.places.currentWidget() is empty.start
    qtbot.waitUntil(lambda: not empty.start.drawing, timeout=20_000)
    assert [card.samples[0].question for card in empty.start.cards] == list(QUESTIONS)
    assert all(card.drawing.scene is not None and card.drawing.accessibleName() for card in empty.start.cards)


def test_a_question_puts_in_figures_with_their_chart(empty: Window, qtbot: QtBot) -> None:
    card = empty.start.cards[2]
    qtbot.mouseClick(card.drawing, Qt.MouseButton.LeftButton)
    assert empty.places.currentWidget() is empty.splitter
    assert empty.store.chart.recipe == "funnel"
    assert empty.store.table.name == "Visitor path"
    assert empty.store.history.undo_name == "put in sample figures"
    empty.actions_by_name["undo"].trigger()
    assert empty.places.currentWidget() is empty.start
    card.links[1].click()
    assert empty.store.table.name == "Volunteers"
    assert empty.store.drawn.figure.marks


def test_pictures_are_chosen_by_keys(empty: Window, qtbot: QtBot) -> None:
    qtbot.keyClick(empty.start.cards[0].drawing, Qt.Key.Key_Return)
    assert empty.store.chart.recipe == "thermometer"


def test_typing_two_rows_brings_the_wall_once(empty: Window) -> None:
    empty.start.buttons["empty"].click()
    assert empty.places.currentWidget() is empty.splitter
    assert not empty.dress.isVisible()
    cells = empty.figures.grid.cells
    for row, (name, value) in enumerate((("Reed", "12"), ("Mill", "30")), 1):
        assert empty.places.currentWidget() is empty.splitter
        cells.setData(cells.index(row, 0), name)
        cells.setData(cells.index(row, 1), value)
    assert empty.places.currentWidget() is empty.wall
    empty.places.show_stage()
    cells.setData(cells.index(3, 1), "7")
    assert empty.places.currentWidget() is empty.splitter
    empty.recipes.take("bars")
    assert empty.dress.isVisible()


def test_documents_opened_last_are_pictures(empty: Window, qtbot: QtBot, tmp_path: Path,
                                            monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    path, broken = tmp_path / "Yearly.kavlet", tmp_path / "Broken.kavlet"
    kavlet.save(demo(), path)
    broken.write_bytes(b"no document")
    monkeypatch.setattr(recent_files, "recent", lambda: [path, broken])
    empty.start.hide()
    empty.start.show()
    qtbot.waitUntil(lambda: not empty.start.drawing, timeout=20_000)
    first, second = empty.start.recent
    assert (first.path, first.drawing.scene is not None, second.drawing.scene) == (path, True, None)
    assert isinstance(first, RecentCard)
    qtbot.mouseClick(first.drawing, Qt.MouseButton.LeftButton)
    assert empty.store.path == path


def test_samples_are_added_to_a_document_too(window: Window) -> None:
    tables = len(window.store.document.tables)
    window.start.cards[0].links[0].click()
    assert len(window.store.document.tables) == tables + 1
    assert window.store.table.name == "Boardwalk fund"


def test_all_tables_stand_in_a_list_with_a_search(window: Window, qtbot: QtBot) -> None:
    panel = window.figures
    qtbot.mouseClick(panel.all, Qt.MouseButton.LeftButton)
    assert panel.list.isVisible()
    assert panel.list.list.count() == len(window.store.document.tables)
    panel.list.search.setText("pond")
    shown = [item.text() for item in panel.list._shown()]
    assert shown
    assert all("pond" in name.casefold() for name in shown)
    qtbot.keyClick(panel.list.search, Qt.Key.Key_Return)
    assert window.store.table.name == shown[0]
    assert not panel.list.isVisible()


def test_charts_are_listed_with_pictures(window: Window, qtbot: QtBot) -> None:
    picker = window.stage.charts
    picker.showPopup()
    qtbot.waitUntil(lambda: not picker._pictures.isActive(), timeout=20_000)
    assert all(not picker.itemIcon(i).isNull() for i in range(picker.count()))
    picker.hidePopup()
    assert picker.iconSize().isEmpty()
