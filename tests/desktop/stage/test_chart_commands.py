"""Commands on charts and their layers, carried out as an author does: by menu, card and key."""

from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMenu
from pytestqt.qtbot import QtBot

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.line import Line
from kavlet.core.interaction.parts import Part
from kavlet.desktop.main import Window
from tests.desktop.hands import figure, open_menu, show, spec


def do(window: Window, command: str) -> None:
    window.actions_by_name[command].trigger()


def entry(menu: QMenu, *texts: str) -> None:
    """Walk through a menu by the texts of its entries, and trigger the last."""
    for text in texts[:-1]:
        action = next(one for one in menu.actions() if one.text() == text)
        inner = action.menu()
        assert isinstance(inner, QMenu)
        menu = inner
    next(one for one in menu.actions() if one.text() == texts[-1]).trigger()
    for one in menu.window().findChildren(QMenu):
        one.close()


def card_menu(window: Window, key: str, *texts: str) -> None:
    window.layers.menu(key, QPoint(400, 400))
    menu = open_menu(window)
    entry(menu, *texts)
    menu.close()


def add_menu(window: Window, *texts: str) -> None:
    window.layers.add_menu(QPoint(400, 400))
    menu = open_menu(window)
    entry(menu, *texts)
    menu.close()


def test_a_chart_is_copied_and_deleted(window: Window) -> None:
    show(window, "columns")
    before = len(window.store.document.charts)
    first = window.store.chart
    do(window, "copy_chart")
    assert len(window.store.document.charts) == before + 1
    copy = window.store.chart
    assert copy is not None
    assert first is not None
    assert copy.id != first.id
    assert copy.dress == first.dress
    do(window, "delete_chart")
    assert len(window.store.document.charts) == before
    window.store.undo()
    assert len(window.store.document.charts) == before + 1


def test_zooming(window: Window) -> None:
    show(window, "columns")
    view = window.stage.view
    fitted = view.sheet().width()
    do(window, "zoom_in")
    assert view.sheet().width() == pytest.approx(1.25 * fitted)
    do(window, "zoom_out")
    assert view.sheet().width() == pytest.approx(fitted)
    do(window, "zoom_actual")
    assert view.zoom == pytest.approx(window.logicalDpiX() / 72)
    do(window, "zoom_fit")
    assert view.sheet().width() == pytest.approx(fitted)


def test_a_layer_changes_its_type_and_axis_from_its_card(window: Window) -> None:
    show(window, "columns")
    card_menu(window, "series 2", "Draw as line")
    assert isinstance(spec(window).layer("series 2"), Line)
    card_menu(window, "series 2", "To the second axis")
    layer = spec(window).layer("series 2")
    assert layer is not None
    assert layer.second
    assert {axis.name for axis in figure(window).axes} & {"second", "y2"}
    card_menu(window, "series 2", "To the first axis")
    card_menu(window, "series 2", "Draw as bars")
    assert isinstance(spec(window).layer("series 2"), Bars)


def test_a_layer_is_hidden_shown_and_ordered_from_its_card(window: Window) -> None:
    show(window, "columns")
    card_menu(window, "series 1", "Hide layer")
    assert not any(mark.key == "series 1" and mark.visible for mark in figure(window).marks)
    card_menu(window, "series 1", "Show layer")
    assert any(mark.key == "series 1" and mark.visible for mark in figure(window).marks)
    card_menu(window, "series 1", "Further front")
    assert [layer.key for layer in spec(window).layers][:2] == ["series 2", "series 1"]
    card_menu(window, "series 1", "Further back")
    assert [layer.key for layer in spec(window).layers][:2] == ["series 1", "series 2"]


def test_a_layer_is_added_from_a_column_and_removed(window: Window) -> None:
    show(window, "columns")
    before = len(spec(window).layers)
    add_menu(window, "Add line", "2024")
    assert len(spec(window).layers) == before + 1
    added = spec(window).layers[-1]
    assert isinstance(added, Line)
    assert added.name == "2024"
    card_menu(window, added.key, "Remove layer")
    assert len(spec(window).layers) == before


def test_a_layer_is_added_from_a_formula(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    show(window, "columns")
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("=B2+C2", True))
    add_menu(window, "Add line", "From a new helper column…")
    held = [mark.value for mark in figure(window).marks if mark.key.startswith("added")]
    table = window.store.table
    assert table is not None
    sums = [float(table.columns[1].cells[row]) + float(table.columns[2].cells[row]) for row in range(1, 5)]  # type: ignore[arg-type]
    assert held == sums
    window.store.undo()  # one edit: the column and its layer
    assert not any(layer.key.startswith("added") for layer in spec(window).layers)


def test_a_helper_of_a_wrong_formula_is_refused_where_it_is_typed(
    window: Window, monkeypatch: pytest.MonkeyPatch
) -> None:
    show(window, "columns")
    asked: list[tuple[str, str]] = []
    answers = iter([("=B2+", True), ("=Z99", True), ("=B2*2", True)])

    def ask(_parent: object, _title: str, says: str, **held: str) -> tuple[str, bool]:
        asked.append((says, held["text"]))
        return next(answers)

    monkeypatch.setattr(QInputDialog, "getText", ask)
    add_menu(window, "Add line", "From a new helper column…")
    assert [text for _, text in asked] == ["", "=B2+", "=Z99"]  # what was typed is still there to be mended
    assert "There is no cell Z99." in asked[2][0]
    assert any(layer.key.startswith("added") for layer in spec(window).layers)


def card_entries(window: Window, key: str) -> list[str]:
    window.layers.menu(key, QPoint(400, 400))
    menu = open_menu(window)
    found = [one.text() for one in menu.actions()]
    menu.close()
    return found


def test_a_card_offers_only_what_can_be(window: Window) -> None:
    show(window, "columns")
    first, *_, last = [layer.key for layer in spec(window).layers]
    assert "Further back" not in card_entries(window, first)
    assert "Further front" not in card_entries(window, last)
    offered = card_entries(window, first)
    assert "Draw as line" in offered
    assert "Draw as bars" not in offered  # it is that already
    assert "Remove layer" not in offered  # the recipe's own can be hidden
    show(window, "pie")
    assert card_entries(window, spec(window).main) == ["Hide layer"]


def test_what_a_round_chart_can_t_show_is_not_offered_to_be_added(window: Window) -> None:
    show(window, "pie")
    window.layers.add_menu(QPoint(400, 400))
    menu = open_menu(window)
    texts = [one.text() for one in menu.actions()]
    menu.close()
    assert not any(text.startswith(("Add line", "Add bars", "Add a reference line")) for text in texts)


def test_a_reference_line_stands_in_the_middle_of_the_scale(window: Window) -> None:
    show(window, "columns")
    add_menu(window, "Add a reference line")
    line = next(mark for mark in figure(window).marks if mark.kind.name == "reference")
    axis = next(axis for axis in figure(window).axes if axis.name == "y")
    assert line.value == (axis.minimum + axis.maximum) / 2


def test_rows_become_series_but_not_in_a_chart_cut_loose(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    add_menu(window, "Turn rows into series")
    assert len(spec(window).layers) == 4
    window.store.undo()
    do(window, "cut_chart_loose")
    assert window.store.chart is not None
    assert window.store.chart.free is not None
    with qtbot.waitSignal(window.store.refused) as said:
        add_menu(window, "Turn rows into series")
    assert "cut loose" in said.args[0]


def test_an_own_recipe_goes_through_a_file(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    show(window, "columns")
    with qtbot.waitSignal(window.store.refused):
        do(window, "export_recipe")  # none yet
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("House columns", True))
    do(window, "save_as_recipe")
    assert window.store.document.recipes
    name = window.store.document.recipes[0].name  # the chart has still the recipe it was saved from
    target = str(tmp_path / "house")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (target, ""))
    do(window, "export_recipe")
    written = next(tmp_path.iterdir())
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(written), ""))
    do(window, "import_recipe")
    assert [one.name for one in window.store.document.recipes] == [name]


def test_a_solid_is_made_and_seen_from_all_sides_by_command(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    for command, turned, tilted in (
        ("see_from_above", False, True), ("see_from_corner", True, True), ("see_from_front", False, False)
    ):  # fmt: skip
        do(window, command)
        solid = spec(window).as_solid
        assert solid is not None
        assert (solid.turn != 0, solid.tilt != 0) == (turned, tilted)
    do(window, "toggle_solid")
    assert spec(window).as_solid is None
    show(window, "areas")
    with qtbot.waitSignal(window.store.refused):
        do(window, "see_from_corner")


def test_pictures_are_added_and_fill_what_they_are_dropped_on(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, qtbot: QtBot
) -> None:
    show(window, "columns")
    path = tmp_path / "reed.svg"
    path.write_text('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><path d="M0 10 L5 0 L10 10 Z"/></svg>')
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(path), ""))
    do(window, "add_picture")
    assert [one.name for one in window.store.document.pictures] == ["reed"]
    window.pictures.drop(Part("layer", "series 1"), str(path))
    fill = spec(window).layer("series 1").fill  # type: ignore[union-attr]
    assert getattr(fill, "name", "") == "reed"
    window.pictures.drop(Part("mark", "series 2", 1), "#123456")  # not chosen: its layer
    assert spec(window).layer("series 2").fill == "#123456"  # type: ignore[union-attr]
    with qtbot.waitSignal(window.store.refused):
        window.pictures.drop(None, str(tmp_path / "missing.png"))


def test_arrow_keys_walk_and_leave(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    view = window.stage.view
    view.setFocus()
    window.store.select(Part("layer", "series 1"))
    qtbot.keyClick(view, Qt.Key.Key_Right)
    assert window.store.selection == (Part("mark", "series 1", 0),)
    qtbot.keyClick(view, Qt.Key.Key_Right)
    assert window.store.selection == (Part("mark", "series 1", 1),)
    qtbot.keyClick(view, Qt.Key.Key_Escape)
    assert window.store.selection == (Part("layer", "series 1"),)
    qtbot.keyClick(view, Qt.Key.Key_Escape)
    assert window.store.selection == ()
