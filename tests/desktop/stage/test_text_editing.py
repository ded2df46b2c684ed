"""What is typed on the Stage is kept; keys go where they have a use; Proof leaves the chart its room."""

import pytest
from PySide6.QtCore import QPoint, Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.interaction.parts import Part
from kavlet.core.layout.figure import PlacedText
from kavlet.core.messages import say
from kavlet.desktop.main import Window
from kavlet.desktop.stage.text_editing import TextEdit
from tests.desktop.hands import figure, label, place, show, type_in


def editor_of(window: Window) -> TextEdit:
    editor = window.stage.view.in_place.editor
    assert editor is not None
    assert editor.isVisible()
    return editor


def typed_label(window: Window, qtbot: QtBot, text: str, *modifiers: Qt.KeyboardModifier) -> list[str]:
    show(window, "bars")
    held = label(window, "series 1", 0)
    qtbot.mouseDClick(window.stage.view, Qt.MouseButton.LeftButton, pos=place(window, *held.bounds.center))
    editor = editor_of(window)
    editor.selectAll()
    qtbot.keyClicks(editor, text)
    qtbot.keyClick(editor, Qt.Key.Key_Return, *modifiers)
    return [one.text for one in figure(window).texts if one.kind == "label" and one.key == "series 1"]


def test_a_title_typed_on_the_stage_is_kept_when_it_is_left(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.stage.view.in_place.open(Part("text", "title"))
    editor_of(window).selectAll()
    qtbot.keyClicks(editor_of(window), "Kept")
    qtbot.mouseClick(window.figures.grid.viewport(), Qt.MouseButton.LeftButton, pos=QPoint(90, 60))
    assert window.store.chart.title == "Kept"
    assert not window.stage.view.hasFocus()
    window.stage.view.in_place.open(Part("text", "title"))
    qtbot.keyClicks(editor_of(window), "Not this")
    qtbot.keyClick(editor_of(window), Qt.Key.Key_Escape)
    assert window.store.chart.title == "Kept"


def test_a_double_click_edits_that_label_alone(window: Window, qtbot: QtBot) -> None:
    said = typed_label(window, qtbot, "{name}\\nhas {value}")
    assert sum("has" in text for text in said) == 1
    assert window.store.history.undo_name == "change label"


def test_with_shift_it_is_all_labels(window: Window, qtbot: QtBot) -> None:
    said = typed_label(window, qtbot, "has {value}", Qt.KeyboardModifier.ShiftModifier)
    assert all(text.startswith("has ") for text in said)


@pytest.mark.parametrize("text", ["{nonsense}", "{=Z99}", "{=1/0}"])
def test_a_label_that_names_nothing_is_refused(window: Window, qtbot: QtBot, text: str) -> None:
    show(window, "bars")
    before = [one.text for one in figure(window).texts if one.kind == "label"]
    assert typed_label(window, qtbot, text) == before
    assert window.saying.text()


def test_undo_and_commands_reach_the_window_from_a_field(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    field = window.dress.texts["title"]
    type_in(qtbot, field, "New title")
    field.setFocus()
    qtbot.keyClick(field, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert window.store.chart.title != "New title"
    qtbot.keyClicks(field, "abc")
    qtbot.keyClick(field, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert "abc" not in field.text()


def test_rows_move_by_their_keys(window: Window, qtbot: QtBot) -> None:
    grid = window.figures.grid
    grid.setFocus()
    grid.go_to(0, 2)
    before = window.store.table.columns[0].cells
    qtbot.keyClick(grid, Qt.Key.Key_Up, Qt.KeyboardModifier.AltModifier)
    after = window.store.table.columns[0].cells
    assert (after[1], after[2]) == (before[2], before[1])
    qtbot.keyClick(grid, Qt.Key.Key_Down, Qt.KeyboardModifier.AltModifier)
    assert window.store.table.columns[0].cells == before


def test_proof_leaves_the_chart_its_room(window: Window, qtbot: QtBot) -> None:
    show(window, "funnel")
    tall = window.stage.view.height()
    rising: dict[tuple[int, int], object] = {(1, row): float(row) for row in range(1, 41)}
    named: dict[tuple[int, int], object] = {(0, row): f"Stage {row}" for row in range(1, 41)}
    window.store.edit_table(
        say("fill"),
        lambda document, table: edits.set_cells(document, table.id, rising | named),  # type: ignore[arg-type]
    )
    proof = window.stage.proof
    qtbot.waitUntil(lambda: len(proof.text().split("\n")) >= 30, timeout=5000)
    assert window.stage.view.height() >= tall - 8
    assert not window.proof_panel.isVisible()
    proof.badge.click()
    assert window.proof_panel.isVisible()
    assert window.stage.view.height() >= tall - 320


def type_at(window: Window, qtbot: QtBot, text: PlacedText, typed: str) -> None:
    qtbot.mouseDClick(window.stage.view, Qt.MouseButton.LeftButton, pos=place(window, *text.bounds.center))
    editor = editor_of(window)
    editor.selectAll()
    qtbot.keyClicks(editor, typed)
    qtbot.keyClick(editor, Qt.Key.Key_Return)


def text_of_kind(window: Window, kind: str, at: int = 0) -> PlacedText:
    return [one for one in figure(window).texts if one.kind == kind][at]


def test_a_name_is_typed_where_it_stands_and_goes_to_its_cell(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    name = text_of_kind(window, "name", 1)
    type_at(window, qtbot, name, "Renamed")
    assert "Renamed" in [one.text for one in figure(window).texts if one.kind == "name"]
    table = window.store.document.table(window.store.here.table)
    assert name.row is not None
    assert table.columns[0].cells[name.row + 1] == "Renamed"
    window.store.undo()
    assert "Renamed" not in [one.text for one in figure(window).texts if one.kind == "name"]


def test_a_legend_entry_is_typed_where_it_stands(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    entry = text_of_kind(window, "legend")
    type_at(window, qtbot, entry, "first series")
    assert text_of_kind(window, "legend").text == "first series"
    assert "first series" not in [column.name for column in window.store.there.columns]  # the table keeps its own
    type_at(window, qtbot, text_of_kind(window, "legend"), " ")
    assert text_of_kind(window, "legend").text == entry.text  # nothing gives it back


def test_a_waffle_entry_is_the_name_of_its_row(window: Window, qtbot: QtBot) -> None:
    show(window, "waffle")
    entry = text_of_kind(window, "legend")
    type_at(window, qtbot, entry, "Other")
    assert text_of_kind(window, "legend").text.startswith("Other  ")


def test_an_axis_is_titled_by_typing_over_its_figures(window: Window, qtbot: QtBot) -> None:
    show(window, "lines")
    type_at(window, qtbot, text_of_kind(window, "tick"), "Visits a year")
    assert text_of_kind(window, "axis title").text == "Visits a year"
    type_at(window, qtbot, text_of_kind(window, "axis title"), "Visits")
    assert text_of_kind(window, "axis title").text == "Visits"
    window.store.select(Part("axis", "along"))
    qtbot.keyClick(window.stage.view, Qt.Key.Key_F2)
    assert editor_of(window).text() == "Visits"


def test_a_dial_has_no_axis_to_be_titled(window: Window, qtbot: QtBot) -> None:
    show(window, "gauge")
    tick = text_of_kind(window, "tick")
    qtbot.mouseDClick(window.stage.view, Qt.MouseButton.LeftButton, pos=place(window, *tick.bounds.center))
    assert window.stage.view.in_place.editor is None
    window.store.select(Part("axis", "scale"))
    assert set(window.dress.rows) >= {"frame.scale.visible", "frame.scale.number.suffix"}
    assert "frame.scale.maximum" not in window.dress.rows
