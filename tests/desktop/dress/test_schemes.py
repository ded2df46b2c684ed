"""The sheet that proposes colours: drawn on the author's chart, kept ones stay, taken in one step."""

from pathlib import Path

import pytest
from PIL import Image
from PySide6.QtCore import Qt
from pytestqt.qtbot import QtBot

from kavlet.desktop.dress.schemes_dialog import PICTURE, SchemesDialog
from kavlet.desktop.main import Window
from tests.desktop.hands import show


@pytest.fixture
def sheet(window: Window, qtbot: QtBot) -> SchemesDialog:
    show(window, "columns")
    window.actions_by_name["propose_colours"].trigger()
    found = window.findChild(SchemesDialog)
    assert found is not None
    qtbot.waitUntil(lambda: not found.drawing, timeout=20_000)
    return found


def test_each_proposal_is_drawn_on_the_author_s_chart(sheet: SchemesDialog) -> None:
    assert all(tile.scheme is not None and tile.drawing.scene is not None for tile in sheet.tiles)
    assert all(tile.scheme.colours[0] == sheet.house.text() for tile in sheet.tiles if tile.scheme is not None)


def test_what_is_kept_stays_in_the_next_set(sheet: SchemesDialog) -> None:
    before = [tile.scheme for tile in sheet.tiles]
    sheet.tiles[2].keep.setChecked(True)
    sheet.next_set()
    after = [tile.scheme for tile in sheet.tiles]
    assert after[2] == before[2]
    assert after != before
    assert len({one.colours for one in after if one is not None}) == 6


def test_a_scheme_is_taken_in_one_step(window: Window, sheet: SchemesDialog, qtbot: QtBot) -> None:
    qtbot.mouseClick(sheet.tiles[4].drawing, Qt.MouseButton.LeftButton)
    wanted = sheet.tiles[4].scheme
    qtbot.mouseClick(sheet.take, Qt.MouseButton.LeftButton)
    assert wanted is not None
    assert window.store.chart.dress.palette == wanted.colours
    assert window.store.history.undo_name == "choose palette"


def test_it_may_be_for_all_charts(window: Window, sheet: SchemesDialog) -> None:
    sheet.for_document.setChecked(True)
    sheet.take.click()
    assert window.store.document.palette == (sheet.tiles[0].scheme.colours if sheet.tiles[0].scheme else None)


def test_a_house_colour_that_is_none_is_said(sheet: SchemesDialog) -> None:
    sheet.house.setText("plum")
    sheet.house.committed.emit("plum")
    assert "plum" in sheet.says.text()


def test_the_colours_of_a_picture_lead(sheet: SchemesDialog, tmp_path: Path) -> None:
    path = tmp_path / "pond.png"
    held = Image.new("RGB", (40, 20), (20, 90, 160))
    held.paste((170, 60, 30), (0, 0, 12, 20))
    held.save(path)
    sheet.read_picture(path)
    sheet._from = PICTURE
    sheet.propose()
    assert {tile.scheme.colours[0] for tile in sheet.tiles if tile.scheme is not None} <= {"#145aa0", "#aa3c1e"}
