"""A finding that can be mended offers it beside its sentence: one click, one step."""

from PySide6.QtCore import Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell
from kavlet.desktop.document_loading import from_rows
from kavlet.desktop.main import Window


def test_crowded_names_are_mended_by_lying_bars(window: Window, qtbot: QtBot) -> None:
    rows: list[list[Cell]] = [["pond", "depth"], *([f"Pond number {i}", float(i)] for i in range(1, 41))]
    window.store.load(from_rows("Ponds", rows, "en"), None, "ponds")
    window.recipes.take("columns")
    window.store.edit_chart(
        say("size"), lambda document, chart: edits.change_chart(document, chart.id, width=221.0, height=420.0)
    )
    qtbot.waitUntil(lambda: window.stage.proof.mend.text() == "Lay the bars down", timeout=10_000)
    button = window.stage.proof.mend
    before = window.store.document
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert window.store.spec.frame.lying  # type: ignore[union-attr]
    assert window.store.history.undo_name == "Lay the bars down"
    window.actions_by_name["undo"].trigger()
    assert window.store.document == before


def test_what_says_something_else_is_asked_before_it_is_done(window: Window, qtbot: QtBot) -> None:
    parts: list[list[Cell]] = [["task", "hours"], *([f"Task {i}", 12.0 - i] for i in range(11))]
    window.store.load(from_rows("Hours", parts, "en"), None, "hours")
    window.recipes.take("pie")
    button = window.stage.proof.mend
    qtbot.waitUntil(lambda: button.text() == "Gather the small ones …", timeout=10_000)
    before = window.store.document
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert window.store.trying
    assert window.proof_panel.isVisible()
    window.proof_panel.take.click()
    assert window.store.history.undo_name == "Gather the small ones"
    qtbot.waitUntil(lambda: window.desk.is_up_to_date, timeout=10_000)
    assert "many-slices" not in {one.check for one in window.proof_panel.list.findings}
    window.actions_by_name["undo"].trigger()
    assert window.store.document == before
