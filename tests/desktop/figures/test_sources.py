"""A table that follows a file: own edits are named, kept all at once or one by one, and never lost in silence."""

from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.messages import say
from kavlet.desktop.main import Window

BEFORE = "post,x\nWages,60\nRent,30\nPower,10\n"
AFTER = "post,x\nWages,61\nRent,30\nPower,11\nTax,5\n"


@pytest.fixture
def costs(window: Window, qtbot: QtBot, tmp_path: Path) -> Path:
    """A file that the window has open, with an edit and a column of the author's own, and which has changed since."""
    path = tmp_path / "costs.csv"
    path.write_text(BEFORE, encoding="utf-8")
    window.store.history.saved()
    window.files.open_path(path)
    qtbot.waitUntil(lambda: window.store.name == "costs", timeout=3000)
    window.places.show_stage()
    window.store.edit_table(say("x"), lambda document, table: edits.insert_columns(document, table.id, 2))
    window.store.edit_table(
        say("x"),
        lambda document, table: edits.set_cells(document, table.id, {(1, 1): 999.0, (2, 0): "mine", (2, 3): "m"}),
    )
    path.write_text(AFTER, encoding="utf-8")
    window.figures.source.look()
    return path


def column(window: Window, place: int) -> list[object]:
    return list(window.store.table.columns[place].cells)


def updated(window: Window, qtbot: QtBot, command: str) -> None:
    before = window.store.document
    window.actions_by_name[command].trigger()
    qtbot.waitUntil(lambda: window.store.document is not before, timeout=3000)


@pytest.mark.usefixtures("costs")
def test_the_bar_names_own_edits_and_has_room_for_what_it_says(window: Window) -> None:
    window.resize(1024, 700)
    bar = window.figures.source
    assert bar.says.text() == "costs.csv has changed: 4 cells differ, 1 of them an edit of yours"
    assert bar.says.width() > 200
    for button in (bar.take, bar.keep):
        assert button.isVisible()
        assert button.width() >= button.fontMetrics().horizontalAdvance(button.text())


@pytest.mark.usefixtures("costs")
def test_mine_are_kept_and_the_rest_is_taken(window: Window, qtbot: QtBot) -> None:
    updated(window, qtbot, "update_but_mine")
    assert column(window, 0) == ["post", "Wages", "Rent", "Power", "Tax"]
    assert column(window, 1) == ["x", 999.0, 30.0, 11.0, 5.0]
    assert column(window, 2) == ["mine", None, None, "m", None]
    assert window.saying.text() == "1 edit of yours is kept."
    window.store.undo()
    assert column(window, 0) == ["post", "Wages", "Rent", "Power"]


@pytest.mark.usefixtures("costs")
def test_one_cell_is_kept_and_update_takes_the_others(window: Window, qtbot: QtBot) -> None:
    window.figures.grid.go_to(1, 1)
    window.actions_by_name["keep_mine"].trigger()
    assert "of yours" not in window.figures.source.says.text()
    updated(window, qtbot, "update_figures")
    assert column(window, 1) == ["x", 999.0, 30.0, 11.0, 5.0]
    window.actions_by_name["keep_mine"].trigger()
    assert window.saying.text() == "The file does not differ here."


@pytest.mark.usefixtures("costs")
def test_always_never_takes_an_edit_over(window: Window, qtbot: QtBot) -> None:
    before = window.store.document
    window.figures.source.always.click()
    qtbot.waitUntil(lambda: window.store.table.rows == 4, timeout=3000)
    assert window.store.document is not before
    assert column(window, 1) == ["x", 999.0, 30.0, 11.0, 5.0]


@pytest.mark.usefixtures("costs")
def test_a_turned_table_says_that_it_follows_no_longer(window: Window) -> None:
    window.figures.grid.work.transpose()
    assert window.store.table.source is None
    assert window.saying.text() == "The table is turned, so it follows its file no longer."
