"""The recipe wall, parameters, cutting loose, recipes of one's own, repeating, stepping, trying out."""

import json
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QFileDialog
from pytestqt.qtbot import QtBot

from kavlet.core.recipes.registry import RECIPES
from kavlet.desktop.document_loading import demo
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.figures.what_if import CHOICES
from kavlet.desktop.main import Window
from tests.desktop.hands import figure, show


def open_wall(window: Window, qtbot: QtBot) -> None:
    qtbot.mouseClick(window.stage.recipes, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not window.wall.drawing, timeout=20_000)


def test_the_wall_draws_every_recipe_with_the_author_s_figures(window: Window, qtbot: QtBot) -> None:
    open_wall(window, qtbot)
    tiles = window.wall.tiles
    assert set(tiles) == set(RECIPES)
    drawn = [name for name, tile in tiles.items() if tile.scene is not None]
    refused = {name: tile.problem for name, tile in tiles.items() if tile.problem}
    assert len(drawn) >= 17
    assert all(refused.values())
    assert tiles["thermometer"].pale  # it rests on a goal that is only proposed
    assert (tiles["thermometer"].reason, tiles["thermometer"].figure.text()) == ("proposed: goal", "40000")
    assert tiles["thermometer"].accessibleDescription() == "goal 40,000, proposed"
    assert not tiles["funnel"].pale
    assert tiles["funnel"].reason == "each row smaller than the one before"
    assert window.wall._shown()[0].name == "funnel"  # best fits come first


def test_choosing_a_recipe_is_one_undoable_step_and_keeps_the_title(window: Window, qtbot: QtBot) -> None:
    before = window.store.document
    open_wall(window, qtbot)
    qtbot.mouseClick(window.wall.tiles["pictogram"], Qt.MouseButton.LeftButton)
    assert window.places.currentWidget() is window.splitter
    chart = window.store.chart
    assert chart is not None
    assert (chart.recipe, chart.title) == ("pictogram", before.charts[0].title)
    assert {mark.kind.name for mark in figure(window).marks} == {"cells"}
    window.actions_by_name["undo"].trigger()
    assert window.store.document == before


def test_what_is_proposed_is_typed_over_on_its_tile(window: Window, qtbot: QtBot) -> None:
    open_wall(window, qtbot)
    tile = window.wall.tiles["thermometer"]
    before = tile.scene
    qtbot.mouseClick(tile.figure, Qt.MouseButton.LeftButton)
    assert window.places.currentWidget() is window.wall  # the field is no part of the tile's click
    tile.figure.setText("48000")
    qtbot.keyClick(tile.figure, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: not window.wall.drawing, timeout=20_000)
    assert window.places.currentWidget() is window.wall
    assert (tile.pale, tile.reason, tile.scene is before) == (False, "with your goal", False)
    tile.figure.setText("many")
    qtbot.keyClick(tile.figure, Qt.Key.Key_Return)
    assert window.saying.text()
    qtbot.mouseClick(tile, Qt.MouseButton.LeftButton, pos=QPoint(40, 40))
    assert window.store.here.settings["goal"] == 48000


def test_what_was_proposed_is_set_when_the_recipe_is_taken(window: Window, qtbot: QtBot) -> None:
    open_wall(window, qtbot)
    qtbot.mouseClick(window.wall.tiles["battery"], Qt.MouseButton.LeftButton)
    assert window.store.here.settings["budget"] == 40000
    assert not window.stage.view.problem
    window.dress.go_to(window.dress.settings["budget"])  # and waits there to be set right


def test_the_wall_is_searched_and_walked_by_keys(window: Window, qtbot: QtBot) -> None:
    open_wall(window, qtbot)
    qtbot.keyClicks(window.wall.search, "goal")
    shown = {tile.name for tile in window.wall._shown()}
    assert {"gauge", "thermometer", "battery"} <= shown
    assert "bridge" not in shown
    window.wall.search.clear()
    first = window.wall._shown()[0]
    qtbot.keyClick(window.wall.search, Qt.Key.Key_Down)
    assert first.hasFocus() or QApplication.focusWidget() in (first, None)
    qtbot.keyClick(first, Qt.Key.Key_Right)
    qtbot.keyClick(window.wall, Qt.Key.Key_Escape)
    assert window.places.currentWidget() is window.splitter


@pytest.mark.parametrize("recipe", list(RECIPES))
def test_every_recipe_of_the_demo_is_drawn_with_its_parameters_beside(window: Window, recipe: str) -> None:
    show(window, recipe)
    assert figure(window).marks
    assert set(window.dress.settings) == {one.name for one in RECIPES[recipe].parameters}


def test_a_parameter_redraws_at_once_and_takes_a_cell(window: Window, qtbot: QtBot) -> None:
    show(window, "gauge")
    field = window.dress.settings["maximum"]
    assert isinstance(field, TextField)
    for text, sweep in (("126", 0.5), ("=B3", 63 / 78)):
        field.setFocus()
        field.selectAll()
        qtbot.keyClicks(field, text)
        qtbot.keyClick(field, Qt.Key.Key_Return)
        needle = next(mark for mark in figure(window).marks if mark.key == "needle")
        assert needle.sector is not None
        assert needle.sector.start == pytest.approx(sweep * 180 - 90)


def test_a_parameter_takes_the_current_cell(window: Window) -> None:
    show(window, "gauge")
    window.figures.grid.go_to(1, 2)
    field = window.dress.settings["minimum"]
    assert isinstance(field, TextField)
    next(action for action in field.actions() if action.toolTip() == "Take the current cell").trigger()
    chart = window.store.chart
    assert chart is not None
    assert chart.settings["minimum"] == "=B3"
    assert field.text() == "=B3"
    assert window.store.history.undo_name == "set minimum"


def test_cut_loose_and_saved_as_a_recipe(window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    from PySide6.QtWidgets import QInputDialog

    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("House funnel", True))
    window.actions_by_name["save_as_recipe"].trigger()
    assert [own.name for own in window.store.document.recipes] == ["house-funnel"]
    show(window, "bars")
    open_wall(window, qtbot)
    tile = window.wall.tiles["house-funnel"]
    assert tile.scene is not None
    qtbot.mouseClick(tile, Qt.MouseButton.LeftButton)
    assert any(mark.key == "value" and mark.visible for mark in figure(window).marks)
    window.actions_by_name["cut_chart_loose"].trigger()
    chart = window.store.chart
    assert chart is not None
    assert chart.recipe == ""
    assert figure(window).marks
    assert not window.actions_by_name["cut_chart_loose"].isEnabled()


def test_an_own_recipe_goes_by_file_to_another_document(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    show(window, "bars")
    window.store.guard(window.recipes.export)
    assert "no recipe of your own" in window.saying.text()
    window.recipes.save("House bars")
    assert "“House bars” stands on the wall of recipes now." in window.saying.text()
    path = tmp_path / "house.kavlet-recipe"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(path.with_suffix("")), ""))
    window.store.guard(window.recipes.export)
    assert json.loads(path.read_text(encoding="utf-8"))["title"] == "House bars"
    window.store.load(demo(), None, "other")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(path), ""))
    window.recipes.import_()
    show(window, "columns")
    window.recipes.take("house-bars")
    assert figure(window).marks
    assert window.store.chart is not None
    assert window.store.chart.recipe == "house-bars"


def test_one_gauge_for_each_row(window: Window) -> None:
    show(window, "gauge")
    window.dress.repeat.click()
    assert len([mark for mark in figure(window).marks if mark.key == "needle"]) == 4
    window.dress.repeat.click()
    assert len([mark for mark in figure(window).marks if mark.key == "needle"]) == 1


def test_stepping_by_slider_and_play(window: Window, qtbot: QtBot) -> None:
    show(window, "stepping")
    stepper = window.stage.stepper
    assert stepper.isVisible()
    assert stepper.period.currentText() == "April"
    qtbot.keyClick(stepper.slider, Qt.Key.Key_Right)
    assert stepper.period.currentText() == "May"
    assert window.store.history.undo_name == "step to another period"
    heights: list[float] = []
    stepper.slider.setSliderDown(True)
    for value in (40, 45, 50, 55, 60):
        stepper.slider.setValue(value)
        heights.append(next(mark for mark in figure(window).marks if mark.key == "shown").value)
    assert heights == sorted(heights, reverse=True)  # warblers: 410 in May, 380 in June
    assert len(set(heights)) == 5
    stepper.slider.setSliderDown(False)
    assert stepper.period.currentText() == "June"
    stepper.slider.setValue(0)
    stepper.play.setChecked(True)
    qtbot.waitUntil(lambda: not stepper.play.isChecked(), timeout=20_000)
    assert stepper.period.currentText() == "June"
    show(window, "funnel")
    assert not stepper.isVisible()


def test_what_if_only_tries_out(window: Window, qtbot: QtBot) -> None:
    before = window.store.document
    window.figures.grid.go_to(1, 3)
    strip = window.figures.what_if
    assert strip.isVisible()
    seen: list[Any] = []
    for text, _ in CHOICES:
        qtbot.mouseClick(strip.buttons[str(text)], Qt.MouseButton.LeftButton)
        mark = [mark for mark in figure(window).marks if mark.key == "value" and mark.row == 2]
        seen.append(mark[0].value if mark else None)
    assert seen == [0, 4600, 9200, 13800, 18400, pytest.approx(23920), None]
    assert window.store.history.current is before
    qtbot.mouseClick(strip.back, Qt.MouseButton.LeftButton)
    assert window.store.document is before
    qtbot.mouseClick(strip.buttons["½"], Qt.MouseButton.LeftButton)
    qtbot.mouseClick(strip.keep, Qt.MouseButton.LeftButton)
    assert window.store.document.tables[0].columns[1].cells[3] == 9200
    assert window.store.history.undo_name == "try a value"
