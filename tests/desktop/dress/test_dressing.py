"""Words and colours chosen in the window: labels typed in place, the colour field, themes, looks kept and spread."""

import gc
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtGui import QColor, QPixmap, QScreen
from PySide6.QtWidgets import QApplication, QInputDialog
from pytestqt.qtbot import QtBot

from kavlet.core.document.looks import look_edits
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.styling.fills import GradientFill, PictureFill
from kavlet.desktop import document_loading
from kavlet.desktop.dress.screen_pick import ScreenPick
from kavlet.desktop.main import Window
from tests.desktop.hands import drag, figure, label, place, row, show, spec, type_in


def test_a_label_is_typed_in_place_with_fields_and_cells_offered(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    text = label(window, "series 1", 0)
    qtbot.mouseDClick(window.stage.view, Qt.MouseButton.LeftButton, pos=place(window, *text.bounds.center))
    editor = window.stage.view.in_place.editor
    assert editor is not None
    editor.selectAll()
    qtbot.keyClicks(editor, "{na")
    assert editor.offered() == ["{name}"]
    qtbot.keyClick(editor, Qt.Key.Key_Tab)
    qtbot.keyClicks(editor, ": {=B2")
    assert "{=B2}" in editor.offered()
    qtbot.keyClicks(editor, "}")
    assert editor.text() == "{name}: {=B2}"
    qtbot.keyClick(editor, Qt.Key.Key_Return, Qt.KeyboardModifier.ShiftModifier)
    rows = {one.row: one for one in figure(window).texts if one.kind == "label" and one.key == "series 1"}
    assert all(one.text.endswith(f": {rows[0].text.rsplit(': ', 1)[1]}") for one in rows.values())
    assert window.store.history.undo_name == "change labels"


def test_a_cell_is_offered_for_the_title(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.stage.view.in_place.open(Part("text", "title"))
    editor = window.stage.view.in_place.editor
    assert editor is not None
    qtbot.keyClicks(editor, "=a")
    assert {"=A1", "=A2"} <= set(editor.offered())
    qtbot.keyClick(editor, Qt.Key.Key_Escape)
    assert not editor.isVisible()


def test_the_colour_field_tells_contrast_and_offers_tints(window: Window) -> None:
    show(window, "bars")
    window.store.select(Part("layer", "series 1"))
    field = window.dress.fill
    assert field is not None
    field.colour.chosen.emit("#ffffff")
    assert field.colour.contrast.text() == "1.0 : 1"
    field.colour.chosen.emit("#000000")
    assert float(field.colour.contrast.text().split()[0]) > 18
    assert [swatch.hex for swatch in field.colour.tint_row.swatches][-1] == "#000000"
    tint = field.colour.tint_row.swatches[0]
    assert tint.hex == "#aeaeae"  # OKLab lightness 0.75 of a grey: 0.75 ** 3 in linear light
    tint.click()
    assert {one.fill.hex for one in figure(window).marks if one.key == "series 1" and one.fill} == {"#aeaeae"}


def test_a_colour_is_picked_from_the_screen(qtbot: QtBot) -> None:
    shot = QPixmap(40, 30)
    shot.fill(QColor("#315f4f"))
    over = ScreenPick(shot, QRect(0, 0, 40, 30))
    over.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose, False)
    qtbot.addWidget(over)
    over.show()
    with qtbot.waitSignal(over.picked) as told:
        qtbot.mouseClick(over, Qt.MouseButton.LeftButton, pos=QPoint(7, 9))
    assert told.args == ["#315f4f"]


def test_the_picker_stays_until_a_pixel_is_clicked(
    window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    shot = QPixmap(40, 30)
    shot.fill(QColor("#315f4f"))
    monkeypatch.setattr(ScreenPick, "of_screen_under", staticmethod(lambda _at: ScreenPick(shot, QRect(0, 0, 40, 30))))
    show(window, "bars")
    window.store.select(Part("layer", "series 1"))
    field = window.dress.fill
    assert field is not None
    field.colour.pick.click()
    gc.collect()
    over = next(one for one in QApplication.topLevelWidgets() if isinstance(one, ScreenPick))
    qtbot.mouseClick(over, Qt.MouseButton.LeftButton, pos=QPoint(7, 9))
    assert {one.fill.hex for one in figure(window).marks if one.key == "series 1" and one.fill} == {"#315f4f"}


def test_a_screen_that_is_not_shown_is_said(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(QScreen, "grabWindow", lambda *_: QPixmap())
    show(window, "bars")
    window.store.select(Part("layer", "series 1"))
    field = window.dress.fill
    assert field is not None
    before = window.store.document
    field.colour.pick.click()
    assert "hex code" in window.saying.text()
    assert window.store.document is before


def test_themes_are_shown_as_the_chart_in_view(window: Window) -> None:
    field = window.dress.look.theme
    previews = [field.preview(str(field.itemData(i))) for i in range(field.count())]
    corners = {one.toImage().pixelColor(66, 20).name() for one in previews if one is not None}
    assert len(previews) == 8
    assert None not in previews
    assert len(corners) > 1


def test_a_look_is_remembered_for_its_recipe(window: Window) -> None:
    show(window, "bars")
    window.layers.look("colour", {"layers.series 1.fill": "#123456"})
    window.looks.remember()
    show(window, "lines")
    window.recipes.take("bars")
    assert {one.fill.hex for one in figure(window).marks if one.key == "series 1" and one.fill} == {"#123456"}
    window.store.undo()
    window.looks.forget()
    show(window, "bars")
    window.looks.forget()
    show(window, "lines")
    window.recipes.take("bars")
    assert "#123456" not in {one.fill.hex for one in figure(window).marks if one.fill}


def test_a_remembered_look_holds_gap_and_connectors_and_comes_with_a_new_table(window: Window) -> None:
    show(window, "bridge")
    window.store.edit_chart(
        say("settings"),
        lambda document, chart: look_edits.set_setting(
            look_edits.set_setting(document, chart.id, "gap", 12.0), chart.id, "connectors", False
        ),
    )
    told: list[str] = []
    window.store.refused.connect(told.append)
    window.looks.remember()
    assert told == ["New charts by this recipe will look like this one."]
    rows: list[list[Cell]] = [["step", "change"], ["Start", 100.0], ["More", 40.0], ["Less", -30.0], ["More yet", 9.0]]
    made = document_loading.from_rows("steps", rows, "en")
    chart = made.charts[0]
    assert chart.recipe == "bridge"
    assert chart.settings == {"gap": 12.0, "connectors": False}
    window.looks.forget()
    assert document_loading.from_rows("steps", rows, "en").charts[0].settings == {}


def test_a_remembered_symbol_comes_before_a_proposed_one(window: Window) -> None:
    show(window, "capsule")
    window.store.edit_chart(
        say("settings"), lambda document, chart: look_edits.set_setting(document, chart.id, "symbol", "tree")
    )
    window.looks.remember()
    show(window, "columns")
    window.recipes.take("capsule")
    assert window.store.here.settings["symbol"] == "tree"
    window.looks.forget()


def test_what_figures_depend_on_is_not_remembered(window: Window) -> None:
    show(window, "bridge")
    window.store.edit_chart(
        say("settings"), lambda document, chart: look_edits.set_setting(document, chart.id, "totals", "first")
    )
    assert look_edits.settings_of_looks(window.store.document, window.store.here.id).get("totals") is None


def test_both_colours_of_a_gradient_have_a_field(window: Window, qtbot: QtBot) -> None:
    show(window, "funnel")
    fill = window.dress.fill
    assert fill is not None
    fill._kind("along")
    fill = window.dress.fill
    assert fill is not None
    assert fill.second.isVisibleTo(fill)
    type_in(qtbot, fill.second.hex, "#112233")
    held = spec(window).layer("value")
    assert held is not None
    assert isinstance(held.fill, GradientFill)
    assert held.fill.colours[-1] == "#112233"
    assert held.fill.colours[0] != "#112233"


def test_a_picture_turns_with_its_bar_and_keeps_its_colours_by_choice(window: Window, tmp_path: Path) -> None:
    show(window, "bars")
    path = tmp_path / "flag.svg"
    shapes = "<rect width='9' height='9' fill='#d03030'/><rect x='9' width='9' height='9' fill='navy'/><text>x</text>"
    path.write_text(f"<svg xmlns='http://www.w3.org/2000/svg'>{shapes}</svg>")
    told: list[str] = []
    window.store.refused.connect(told.append)
    window.pictures.add(path, "layers.series 1.fill")
    assert told == ["flag.svg is used without its text: a symbol is made of filled shapes."]
    window.store.select(Part("layer", "series 1"))
    fill = window.dress.fill
    assert fill is not None
    assert fill.own.isVisibleTo(fill)
    assert fill.own.isChecked()
    fill.own.click()
    assert not window.store.document.pictures[0].own_colours
    fill.turned.click()
    held = spec(window).layer("series 1")
    assert held is not None
    assert isinstance(held.fill, PictureFill)
    assert held.fill.turned


def test_a_palette_is_kept_by_a_name(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    show(window, "bars")
    QApplication.clipboard().setText("#101010 #a0a0a0 #c0ffee")
    window.looks.paste_palette()
    monkeypatch.setattr(QInputDialog, "getText", lambda *_args, **_more: ("Reeds in winter", True))
    window.actions_by_name["name_palette"].trigger()
    field = window.dress.look.palette_field
    assert field.currentText() == "Reeds in winter"
    show(window, "lines")
    assert not window.actions_by_name["drop_palette"].isEnabled()
    field.chosen.emit("Reeds in winter")
    assert {one.fill.hex for one in figure(window).marks if one.fill} <= {"#101010", "#a0a0a0", "#c0ffee"}
    window.actions_by_name["drop_palette"].trigger()
    assert not window.store.document.palettes
    assert field.currentText() == "own, 3 colours"
    window.store.undo()
    assert field.currentText() == "Reeds in winter"


def test_a_pasted_palette_is_named_and_can_serve_the_document(window: Window) -> None:
    show(window, "bars")
    QApplication.clipboard().setText("#101010 #a0a0a0 #c0ffee")
    window.looks.paste_palette()
    look = window.dress.look
    assert look.palette_field.currentText() == "own, 3 colours"
    assert look.for_document.isEnabled()
    look.for_document.click()
    assert window.store.document.palette == ("#101010", "#a0a0a0", "#c0ffee")
    show(window, "lines")
    assert look.palette_field.currentText() == "the document’s: own, 3 colours"
    assert look.for_document.isChecked()
    assert {one.fill.hex for one in figure(window).marks if one.fill} <= {"#101010", "#a0a0a0", "#c0ffee"}
    look.for_document.click()
    assert window.store.document.palette is None
    assert window.store.here.dress.palette == ("#101010", "#a0a0a0", "#c0ffee")


def test_a_reference_line_has_a_field_for_its_value(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    window.layers.add_reference()
    key = spec(window).layers[-1].key
    window.store.select(Part("layer", key))
    type_in(qtbot, window.dress.rows[f"layers.{key}.at"].field, "=B2")
    line = next(mark for mark in figure(window).marks if mark.key == key)
    assert line.value == window.store.there.columns[1].cells[1]


def test_dress_is_pasted_on_all_charts_as_one_edit(window: Window) -> None:
    show(window, "bars")
    window.layers.look("size", {"layers.series 1.label.size": 21.0})
    window.looks.copy("labels")
    window.looks.paste_everywhere()
    changed = [one for one in window.store.document.charts if 21.0 in one.dress.overrides.values()]
    assert len(changed) == len(window.store.document.charts)
    window.store.undo()
    assert len([one for one in window.store.document.charts if 21.0 in one.dress.overrides.values()]) == 1


def test_a_setting_has_one_field_and_whatever_sets_it_shows_there(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    assert "frame.gap_width" not in window.dress.rows
    field = window.dress.parameters.fields["gap"]
    side = next(one for one in figure(window).marks if one.key == "series 1").block.rect  # type: ignore[union-attr]
    start = place(window, side.x + 1, side.y + side.height / 2)
    drag(window, qtbot, start, start + QPoint(-6, 0))
    gap = spec(window).frame.gap_width  # type: ignore[union-attr]
    assert gap < 60
    assert field.text() == f"{gap:g}"  # type: ignore[attr-defined]
    type_in(qtbot, field, "25")
    assert spec(window).frame.gap_width == 25  # type: ignore[union-attr]
    assert "frame.gap_width" not in window.store.here.dress.overrides
    window.store.select(Part("axis", "along"))
    assert "frame.along.maximum" in window.dress.rows  # chosen by itself, its fields are all here
    type_in(qtbot, row(window, "frame.along.maximum"), "90")
    window.store.select()
    assert window.dress.parameters.fields["maximum"].text() == "90"  # type: ignore[attr-defined]


def test_tab_goes_through_the_texts_to_the_source_line(window: Window, qtbot: QtBot) -> None:
    show(window, "funnel")
    window.activateWindow()
    names = ["title", "subtitle", "source"]
    window.dress.edit("title")
    for name in names:
        assert window.focusWidget() is window.dress.texts[name]
        qtbot.keyClick(window.focusWidget(), Qt.Key.Key_Tab)
    assert window.focusWidget() not in window.dress.texts.values()


@pytest.mark.at_rest
def test_a_document_that_goes_while_fields_are_built_is_no_fault(window: Window, qtbot: QtBot) -> None:
    for _ in range(3):
        show(window, "target-columns")
        qtbot.wait(3)  # the first fields stand
        window.store.history.saved()
        window.files.new_document()
        qtbot.wait(60)
        window.store.history.saved()
        window.files.open_demo()
        window.places.show_stage()
        qtbot.wait(3)
    qtbot.waitUntil(lambda: "gap" in window.dress.settings)
