"""A finding that can be mended offers it beside its sentence: one click, one step."""

from PySide6.QtCore import Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.figures.cells import Cell
from kavlet.core.messages import say
from kavlet.desktop.documents import from_rows
from kavlet.desktop.window import Window


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
