"""From a CSV file to a delivered chart: ten tasks, four actions each, by the tile a careful author would choose."""

from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QFileDialog
from pytestqt.qtbot import QtBot

from kavlet.desktop.deliver.deliver_dialog import DeliverDialog
from kavlet.desktop.main import Window

TASKS = {
    "stage,people\nVisits,18400\nWalks,6900\nNewsletter,2760\nMembers,310\n": "funnel",
    "gift,crowns,goal\nMembers,14200,48000\nGrants,12500,\nCafé,5340,\n": "thermometer",
    "habitat,share\nReed,41.6\nWater,23.3\nMeadow,19.8\nCarr,15.3\n": "waffle",
    "what,change\nStart,212\nDonations,86\nWages,-94\nEnd,204\n": "bridge",
    "butterfly,2024,2025\nSwallowtail,26,40\nCopper,38,30\n": "growth-bars",
    "plot,planted,plan\nNorth,420,400\nMere,310,380\n": "target-columns",
    "month,2024,2025\nJan,128,131\nFeb,134,129\nMar,131,120\nApr,122,108\n": "lines",
    "kind,habitat,species\nBirds,Reed,41\nFish,Water,14\nBirds,Water,27\nPlants,Reed,9\n": "two-level-ring",
    "pond,depth (cm),species,visitors\nMere,120,14,900\nCarr,60,9,300\nLock,200,21,450\nLong,90,16,120\n": "bubbles",
    "bird,pairs\nReed warbler,88\nWater rail,27\nBittern,5\n": "pictogram",
}


@pytest.mark.parametrize(("text", "recipe"), TASKS.items(), ids=list(TASKS.values()))
def test_four_actions_lead_to_a_delivered_chart(window: Window, qtbot: QtBot, tmp_path: Path, text: str, recipe: str,
                                                monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    table, out = tmp_path / "figures.csv", tmp_path / "chart.svg"
    table.write_text(text, "utf-8")
    window.store.history.saved()
    window.files.open_path(table)  # 1: the file is opened, or dropped
    qtbot.waitUntil(lambda: window.places.currentWidget() is window.wall and not window.wall.drawing, timeout=20_000)
    assert window.wall._shown().index(window.wall.tiles[recipe]) < 8  # in sight without scrolling
    qtbot.mouseClick(window.wall.tiles[recipe], Qt.MouseButton.LeftButton, pos=QPoint(60, 60))  # 2
    assert window.store.chart.recipe == recipe
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(out), ""))
    window.delivering.deliver_as(".svg")  # 3: Ctrl+E
    sheet = window.findChild(DeliverDialog)
    assert sheet is not None
    qtbot.waitUntil(sheet.save.isEnabled, timeout=10_000)
    qtbot.mouseClick(sheet.save, Qt.MouseButton.LeftButton)  # 4
    qtbot.waitUntil(out.exists, timeout=10_000)
    assert out.read_text("utf-8").startswith("<svg")
