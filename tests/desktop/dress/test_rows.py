"""The rows of Dress from chart to chart: those wanted again are taken again, Tab goes through them as they stand."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.interaction.parts import Part, marks_of
from kavlet.core.messages import say
from kavlet.desktop.dress.fields import FieldNote, PickField
from kavlet.desktop.dress.rows import DressRow
from kavlet.desktop.main import Window, open_window
from tests.desktop.hands import figure, row, show, type_in
from tests.desktop.taken_again import settled


def place(window: Window, widget: QWidget) -> int:
    return widget.mapTo(window.dress, widget.rect().topLeft()).y()


def test_rows_that_are_wanted_again_are_taken_again(window: Window) -> None:
    show(window, "columns")
    before = dict(window.dress.rows)
    show(window, "bars")
    after = dict(window.dress.rows)
    kept = [path for path in before if before[path] is after.get(path)]
    assert {"frame.along.step", "legend.side"} <= set(kept)
    for path in kept:
        assert before[path].offer == after[path].offer
    settled()
    held = [one for one in window.dress.findChildren(DressRow) if not one.isHidden()]
    assert set(held) == set(after.values())


def test_a_row_taken_again_sets_and_shows_the_chart_in_view(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    type_in(qtbot, row(window, "frame.along.step"), "5")
    first = window.store.chart.id
    show(window, "bars")
    assert row(window, "frame.along.step").text() == ""
    assert window.dress.rows["frame.along.step"].dot.isHidden()
    type_in(qtbot, row(window, "frame.along.step"), "2")
    assert window.store.chart.dress.overrides["frame.along.step"] == 2
    assert window.store.document.chart(first).dress.overrides["frame.along.step"] == 5


def test_tab_goes_through_the_rows_as_they_stand(window: Window, qtbot: QtBot) -> None:
    for recipe in ("funnel", "columns", "lines", "bars"):
        show(window, recipe)
    settled()  # what is new is seen
    rows = [one for one in window.dress.rows.values() if one.offer.kind != "fill"]
    window.activateWindow()
    window.dress.edit("title")
    met = []
    for _ in range(400):
        qtbot.keyClick(window.focusWidget(), Qt.Key.Key_Tab)
        now = window.focusWidget()
        met += [one for one in rows if one.isAncestorOf(now) and one not in met[-1:]]
        if not window.dress.isAncestorOf(now):
            break
    assert met == rows
    assert [place(window, one) for one in met] == sorted(place(window, one) for one in met)


def test_what_is_refused_is_said_no_longer_than_its_field_is_seen(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    type_in(qtbot, row(window, "frame.along.step"), "many")
    assert [one for one in window.findChildren(FieldNote) if one.isVisible()]
    show(window, "pie")
    settled()
    assert "frame.along.step" not in window.dress.rows
    assert not [one for one in window.findChildren(FieldNote) if one.isVisible()]


def test_a_column_with_another_name_is_offered_by_it(window: Window) -> None:
    show(window, "columns")
    table = window.store.table
    says = next(one for one in window.dress.rows.values() if one.offer.kind == "says").offer.path
    window.store.edit(say("type"), lambda document: edits.set_cells(document, table.id, {(1, 0): "otters seen"}))
    field = window.dress.rows[says].field
    assert any("otters seen" in field.itemText(at) for at in range(field.count()))  # type: ignore[attr-defined]


@pytest.mark.parametrize("other", ["columns", "pie"])
def test_what_is_typed_belongs_to_the_chart_it_was_typed_for(window: Window, qtbot: QtBot, other: str) -> None:
    """Commands, such as one that brings another chart into view, come by keys while a field has the focus."""
    show(window, "bars")
    settled()
    mine = window.store.chart.id
    field = row(window, "frame.along.step")
    field.setFocus()
    qtbot.keyClicks(field, "30")
    window.actions_by_name["copy_chart"].trigger()
    assert window.store.document.chart(mine).dress.overrides["frame.along.step"] == 30
    field.setFocus()
    field.selectAll()
    qtbot.keyClicks(field, "many")
    window.actions_by_name["zoom_in"].trigger()
    assert field.is_wrong
    window.store.show_chart(next(one.id for one in window.store.document.charts if one.recipe == other))
    settled()
    before = window.store.document
    window.figures.grid.setFocus()
    settled()
    assert window.store.document is before
    assert "many" not in window.saying.text()
    if other == "columns":
        assert row(window, "frame.along.step").text() == ""


@pytest.mark.at_rest
@pytest.mark.usefixtures("settings", "answered")
@pytest.mark.parametrize("after", [0, 3, 12, 60, 300])
def test_nothing_of_the_chart_is_left_beside_a_part_s_fields(qtbot: QtBot, after: int) -> None:
    """In a new window, however many of the chart's fields stood when the part was chosen."""
    made = open_window(demo=True)
    qtbot.addWidget(made)
    qtbot.wait(after)
    seen = next(one for one in figure(made).marks if one.visible and not one.helper)
    made.store.select(marks_of(figure(made), seen.key)[0])
    qtbot.waitUntil(lambda: made.dress.head.text().startswith("Dress: mark"), timeout=10_000)
    qtbot.wait(80)
    of_chart = (made.dress.look, made.dress.parameters, made.dress.solid, made.dress.texts["title"])
    assert not any(one.isVisible() for one in of_chart)


def test_a_text_typed_on_the_stage_belongs_to_its_chart(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    mine, place = window.store.chart.id, window.stage.view.in_place
    place.open(Part("text", "title"))
    assert place.editor is not None
    qtbot.keyClicks(place.editor, "Otters at the weir")
    window.actions_by_name["zoom_in"].trigger()
    assert not place.editor.isVisible()
    assert window.store.document.chart(mine).title == "Otters at the weir"
    assert str(window.store.history.undo_name) == "change title"


@pytest.mark.parametrize("by_command", [True, False])
def test_a_label_s_own_text_belongs_to_its_chart(window: Window, qtbot: QtBot, by_command: bool) -> None:
    show(window, "bars")
    settled()
    mine = window.store.chart.id
    path = next(one.offer.path for one in window.dress.rows.values() if one.offer.kind == "says")
    field = window.dress.rows[path].field
    assert isinstance(field, PickField)
    field.setFocus()
    line = field.lineEdit()
    assert line is not None
    line.selectAll()
    qtbot.keyClicks(line, "about {value}")
    if by_command:
        window.actions_by_name["zoom_in"].trigger()
    assert (window.store.document.chart(mine).dress.overrides.get(path) == "about {value}") == by_command
    window.store.show_chart(next(one.id for one in window.store.document.charts if one.recipe == "columns"))
    settled()
    before = window.store.document
    window.figures.grid.setFocus()
    settled()
    assert window.store.document is before
