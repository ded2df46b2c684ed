"""Touching the chart: choosing, dragging, typing, the layer strip, Dress, X-ray; and the thirteen things authors do."""

from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, QRectF, Qt, QUrl
from PySide6.QtGui import QColor, QDropEvent, QPainterPathStroker, QPen
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from kavlet.core.interaction.parts import Part, boxes
from kavlet.core.values.sizes import CHARTS
from kavlet.desktop.command_finder import CommandFinder
from kavlet.desktop.dress.fill_field import FillField
from kavlet.desktop.main import Window
from kavlet.desktop.stage.hit_testing import outline
from tests.desktop.hands import (
    click,
    drag,
    figure,
    hovered,
    inside,
    label,
    mark,
    moved,
    pick,
    place,
    row,
    show,
    spec,
    type_in,
)

# The thirteen operations. Each comment line is one user action; there are three at most.


def test_1_strip_title_legend_gridlines_and_axis(window: Window) -> None:
    show(window, "columns")
    # press Ctrl+Shift+B (Dress > Strip the chart)
    window.actions_by_name["strip_chart"].trigger()
    made = figure(window)
    assert not made.keys
    assert not made.under
    assert not [text for text in made.texts if text.kind in ("title", "subtitle", "tick", "legend")]


def test_2_lock_a_scale_from_0_to_100_percent(window: Window) -> None:
    show(window, "columns")
    # press Ctrl+Shift+L (Dress > Lock the scale from 0 to 100 %)
    window.actions_by_name["lock_scale"].trigger()
    assert (figure(window).axes[0].minimum, figure(window).axes[0].maximum) == (0, 100)


def test_3_gap_to_0(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    # type 0 into Gap
    type_in(qtbot, window.dress.settings["gap"], "0")
    assert mark(window, "series 1", 0).bounds.bottom == pytest.approx(mark(window, "series 1", 1).bounds.y)


def test_4_overlap_to_100(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    # type 100 into Overlap
    type_in(qtbot, window.dress.settings["overlap"], "100")
    assert mark(window, "series 1").bounds.x == pytest.approx(mark(window, "series 2").bounds.x)


def test_5_reorder_two_series(window: Window) -> None:
    show(window, "columns")
    # drag the first card behind the second
    QApplication.processEvents()  # the cards are laid out
    strip = window.stage.strip
    data = QMimeData()
    data.setData("application/x-kavlet-layer", b"series 1")
    second = strip.card("series 2")
    at = strip.mapFromGlobal(second.mapToGlobal(QPoint(second.width() - 2, 30)))
    drop = QDropEvent(
        QPointF(at), Qt.DropAction.MoveAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    )
    strip.dropEvent(drop)
    assert [layer.key for layer in spec(window).layers] == ["series 2", "series 1", "series 3"]
    assert mark(window, "series 2").bounds.x < mark(window, "series 1").bounds.x


def test_6_one_series_as_line(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    # click the third card
    qtbot.mouseClick(window.stage.strip.card("series 3"), Qt.MouseButton.LeftButton, pos=QPoint(20, 20))
    # choose line in Drawn as
    pick(row(window, "layers.series 3.type"), "line")
    assert [layer.__struct_config__.tag for layer in spec(window).layers] == ["bars", "bars", "line"]
    assert mark(window, "series 3").kind.name == "line"


def test_7_one_bar_s_colour(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    at = inside(window, mark(window, "series 1", 1))
    # click the bar: its layer is chosen
    click(window, qtbot, at)
    # click it again: the one bar
    click(window, qtbot, at)
    # click the palette's third colour
    field = window.dress.fill
    assert field is not None
    field.colour.palette_row.swatches[2].click()
    fills = [one.fill.hex for one in figure(window).marks if one.key == "series 1" and one.fill]
    assert fills[1] == field.colour.palette_row.swatches[2].hex
    assert len(set(fills)) == 2


def test_8_a_symbol_as_fill_stretched_then_repeated(window: Window) -> None:
    show(window, "bars")
    field = window.dress.fill
    assert field is not None
    # click Symbol…: the shelf opens
    field.symbol.click()
    # click a symbol: it fills, stretched
    window.dress.shelf.search.setText("tree")
    window.dress.shelf.list.itemClicked.emit(window.dress.shelf.list.item(0))
    assert len(mark(window, "series 1").items) == 2
    # click repeated
    field = window.dress.fill
    assert field is not None
    pick(field.how, "repeated")
    assert len(mark(window, "series 1", 2).items) > 2


def test_9_labels_to_base_white_larger(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    # choose base in Stands
    pick(row(window, "layers.series 1.label.position"), "base")
    # type white into Colour
    type_in(qtbot, row(window, "layers.series 1.label.colour"), "white")
    # type 16 into Size
    type_in(qtbot, row(window, "layers.series 1.label.size"), "16")
    text, bar = label(window, "series 1", 2), mark(window, "series 1", 2)
    assert text.bounds.x - bar.bounds.x < text.size
    assert (text.colour.hex, text.size) == ("#ffffff", 16)


def test_10_label_text_from_another_column(window: Window) -> None:
    show(window, "bars")
    # choose the column in Says
    pick(row(window, "layers.series 1.label.template"), "{c1}")
    assert label(window, "series 1", 0).text == "School classes"


def test_11_title_from_a_cell(window: Window) -> None:
    show(window, "bars")
    # click the cell
    window.figures.grid.go_to(0, 3)
    # press Ctrl+T
    window.actions_by_name["title_from_cell"].trigger()
    assert figure(window).title == "Saturday group"


def test_12_explode_a_slice_by_dragging(window: Window, qtbot: QtBot) -> None:
    show(window, "pie")
    before = mark(window, "value", 0)
    assert before.sector is not None
    start = inside(window, before)
    # drag the slice outward
    drag(window, qtbot, start, start + QPoint(40, 12))
    after = mark(window, "value", 0).sector
    assert after is not None
    moved = after.center[0] - before.sector.center[0], after.center[1] - before.sector.center[1]
    assert moved[0] > 5
    chart = window.store.chart
    assert chart is not None
    assert chart.dress.overrides["layers.value.rows.0.explode"] > 0.05
    assert window.store.history.undo_name == "move slice"
    window.store.undo()
    assert mark(window, "value", 0).sector.center == pytest.approx(before.sector.center)  # type: ignore[union-attr]


def test_13_copy_only_the_labels_look_to_a_second_chart(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.dress.set_value("layers.series 1.label.size", 17.0)
    window.dress.set_value("layers.series 1.fill", "#0a6847")
    # choose Dress > Copy only the labels' look
    window.actions_by_name["copy_label_looks"].trigger()
    # choose the second chart over the Stage
    show(window, "highlight-bars")
    # press Ctrl+Alt+V (Dress > Paste dress)
    window.actions_by_name["paste_dress"].trigger()
    chart = window.store.chart
    assert chart is not None
    assert list(chart.dress.overrides.values()) == [17.0]
    del qtbot


# Stage


def test_hovering_says_what_a_part_is(window: Window, qtbot: QtBot) -> None:
    view = window.stage.view
    at = inside(window, mark(window, "value", 1))
    qtbot.mouseMove(view, at)
    QApplication.sendEvent(view, hovered(at))
    assert view.toolTip() == "Guided walks: 6,900  (people)"


def test_click_chooses_layer_then_mark_and_escape_goes_out(window: Window, qtbot: QtBot) -> None:
    at = inside(window, mark(window, "value", 1))
    click(window, qtbot, at)
    assert window.store.selection == (Part("layer", "value"),)
    click(window, qtbot, at)
    assert window.store.selection == (Part("mark", "value", 1),)
    index = window.figures.grid.currentIndex()
    assert (index.column(), index.row()) == (1, 2)
    view = window.stage.view
    qtbot.keyClick(view, Qt.Key.Key_Down)
    assert window.store.selection == (Part("mark", "value", 2),)
    for wanted in ((Part("layer", "value"),), ()):
        qtbot.keyClick(view, Qt.Key.Key_Escape)
        assert window.store.selection == wanted


def test_tab_walks_through_the_parts(window: Window, qtbot: QtBot) -> None:
    view = window.stage.view
    view.setFocus()
    seen = []
    for _ in range(6):
        qtbot.keyClick(view, Qt.Key.Key_Tab)
        seen.append(window.store.selection[0] if window.store.selection else None)
    assert seen[:3] == [Part("text", "title"), Part("text", "subtitle"), Part("layer", "flanks")]
    assert Part("layer", "value") in seen


def test_a_dragged_label_keeps_its_offset_and_gets_a_leader(window: Window, qtbot: QtBot) -> None:
    text = label(window, "value", 0)
    start = place(window, *text.bounds.center)
    drag(window, qtbot, start, start + QPoint(-90, 60))
    moved = label(window, "value", 0)
    assert moved.bounds.center[0] < text.bounds.center[0] - 50
    assert moved.leader
    assert window.store.history.undo_name == "move label"
    window.figures.grid.cells.put({(1, 1): 17000.0}, "type")
    again = label(window, "value", 0)
    assert again.bounds.center[0] - mark(window, "value", 0).bounds.center[0] == pytest.approx(
        moved.bounds.center[0] - text.bounds.center[0], abs=2
    )


def test_texts_are_typed_where_they_stand(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    title = next(text for text in figure(window).texts if text.kind == "title")
    qtbot.mouseDClick(window.stage.view, Qt.MouseButton.LeftButton, pos=place(window, *title.bounds.center))
    editor = window.stage.view.in_place.editor
    assert editor is not None
    editor.selectAll()
    qtbot.keyClicks(editor, "Days of help")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert figure(window).title == "Days of help"


def test_legend_title_plot_and_hole_are_dragged(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    key = figure(window).keys[0]
    start = place(window, *key.bounds.center)
    drag(window, qtbot, start, start + QPoint(200, 60))
    chart = window.store.chart
    assert chart is not None
    assert chart.dress.overrides["legend.side"] == "inside"
    plot = figure(window).plot
    edge = place(window, plot.right, plot.y + 0.3 * plot.height)
    drag(window, qtbot, edge, edge - QPoint(60, 0))
    assert figure(window).plot.right < plot.right - 20
    show(window, "pie")
    ring = mark(window, "value", 0).sector
    assert ring is not None
    click(window, qtbot, inside(window, mark(window, "value", 0)))
    start = place(window, ring.center[0] + ring.inner, ring.center[1])
    drag(window, qtbot, start, start - QPoint(30, 0))
    smaller = mark(window, "value", 0).sector
    assert smaller is not None
    assert smaller.inner / smaller.outer < ring.inner / ring.outer - 0.05


def test_escape_gives_a_drag_up(window: Window, qtbot: QtBot) -> None:
    view, before = window.stage.view, window.store.document
    text = label(window, "value", 0)
    start = place(window, *text.bounds.center)
    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=start)
    QApplication.sendEvent(view, moved(start + QPoint(-60, 30)))
    assert label(window, "value", 0).bounds.center != text.bounds.center
    qtbot.keyClick(view, Qt.Key.Key_Escape)
    assert label(window, "value", 0).bounds == text.bounds
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=start)
    assert window.store.document is before


def test_the_cap_is_dragged_by_the_end_of_a_cut_bar(window: Window, qtbot: QtBot) -> None:
    show(window, "capped-bars")
    cut = next(one for one in figure(window).marks if one.value == 402)
    middle = cut.bounds.center[0]
    before = cut.bounds.height / mark(window, cut.key, 0).bounds.height
    start = place(window, middle, cut.bounds.y + 1)
    drag(window, qtbot, start, start + QPoint(0, 30))
    chart = window.store.chart
    assert chart is not None
    assert 0 < float(chart.settings["cap"]) < 100
    assert window.store.history.undo_name == "move cap"
    after = next(one for one in figure(window).marks if one.value == 402)
    assert after.bounds.height / mark(window, cut.key, 0).bounds.height < before


def test_colours_symbols_and_pictures_are_dropped_on_parts(window: Window, tmp_path: Path) -> None:
    show(window, "bars")
    at = QPointF(inside(window, mark(window, "series 1", 0)))

    def drop(data: QMimeData) -> None:
        event = QDropEvent(
            at, Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
        )
        window.stage.view.dropEvent(event)

    colour = QMimeData()
    colour.setColorData(QColor("#0a6847"))
    drop(colour)
    assert mark(window, "series 1").fill.hex == "#0a6847"  # type: ignore[union-attr]
    symbol = QMimeData()
    symbol.setData("application/x-kavlet-symbol", b"bird")
    drop(symbol)
    assert len(mark(window, "series 1").items) == 2
    svg = tmp_path / "mark.svg"
    svg.write_text('<svg xmlns="http://www.w3.org/2000/svg"><rect width="4" height="2"/></svg>', encoding="utf-8")
    file = QMimeData()
    file.setUrls([QUrl.fromLocalFile(str(svg))])
    drop(file)
    assert [one.name for one in window.store.document.pictures] == ["mark"]


def test_several_parts_are_dressed_at_once_and_mixed_values_are_shown(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    window.dress.set_value("layers.series 2.thickness", 0.5)
    window.store.select(Part("layer", "series 1"), Part("layer", "series 2"))
    field = row(window, "layers.series 1.thickness")
    assert field.text() == "mixed"
    type_in(qtbot, field, "80")
    assert [layer.thickness for layer in spec(window).layers] == [0.8, 0.8, 1.0]  # type: ignore[union-attr]
    window.dress.rows["layers.series 1.thickness"].dot.click()
    assert [layer.thickness for layer in spec(window).layers] == [1.0, 1.0, 1.0]  # type: ignore[union-attr]


def test_a_wrong_value_is_refused_in_a_sentence(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    field = row(window, "frame.along.step")
    type_in(qtbot, field, "many")
    assert field.property("wrong")
    assert window.store.chart is not None
    assert not window.store.chart.dress.overrides


# Layer strip


def test_layers_are_added_hidden_and_removed(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    before = len(window.stage.strip.cards)
    window.layers.add("line", "c2")
    assert len(window.stage.strip.cards) == before + 1
    assert [one.kind.name for one in figure(window).marks][-1] == "line"
    window.layers.add_on_helper("points", "=B2/2")
    assert next(one.value for one in figure(window).marks if one.kind.name == "point") == 32
    window.layers.add_reference()
    assert any(one.kind.name == "reference" for one in figure(window).marks)
    card = window.stage.strip.card("series 1")
    qtbot.keyClick(card, Qt.Key.Key_Space)
    assert not [one for one in figure(window).marks if one.key == "series 1"]
    window.layers.remove("added 1")
    assert "line" not in {one.kind.name for one in figure(window).marks}


def test_rows_are_turned_into_series_and_back(window: Window) -> None:
    show(window, "columns")
    before = [layer.name for layer in spec(window).layers]
    window.actions_by_name["rows_to_series"].trigger()
    assert [layer.name for layer in spec(window).layers] == ["Spring", "Summer", "Autumn", "Winter"]
    assert mark(window, spec(window).layers[1].key, 2).value == 52
    window.actions_by_name["rows_to_series"].trigger()
    assert [layer.name for layer in spec(window).layers] == before
    window.store.undo()
    window.store.undo()
    assert [layer.name for layer in spec(window).layers] == before


def test_a_combined_chart_is_made_from_scratch(window: Window) -> None:
    show(window, "columns")
    window.actions_by_name["cut_chart_loose"].trigger()
    window.layers.look("change type", {"layers.series 3.type": "line"})
    window.layers.to_second_axis("series 3", True)
    made = figure(window)
    assert [axis.name for axis in made.axes] == ["y", "y2"]
    assert {one.kind.name for one in made.marks} == {"bar", "line"}


# X-ray, finder, looks of the window


def test_xray_shows_helpers_and_formulas(window: Window) -> None:
    before = window.stage.view.grab().toImage()
    window.actions_by_name["toggle_xray"].trigger()
    assert window.stage.view.grab().toImage() != before
    assert window.stage.xray.isChecked()


def test_any_command_is_found(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    window.actions_by_name["find_command"].trigger()
    finder = window.findChild(CommandFinder)
    assert finder is not None
    qtbot.keyClicks(finder.search, "lock")
    qtbot.keyClick(finder.search, Qt.Key.Key_Return)
    assert figure(window).axes[0].maximum == 100


def found_by(window: Window, qtbot: QtBot, typed: str, at: int = 0) -> None:
    window.actions_by_name["find_command"].trigger()
    finder = window.findChildren(CommandFinder)[-1]
    qtbot.keyClicks(finder.search, typed)
    finder.list.setCurrentRow(at)
    qtbot.keyClick(finder.search, Qt.Key.Key_Return)


def test_recipes_fields_sizes_and_charts_are_found_by_what_people_call_them(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    found_by(window, qtbot, "scatter correlation")
    assert window.store.here.recipe == "points"
    show(window, "bars")
    found_by(window, qtbot, "page width size")
    assert window.store.here.width == pytest.approx(CHARTS["page width"].width)
    found_by(window, qtbot, "legend position")
    assert window.dress.rows["legend.side"].field.hasFocus()
    found_by(window, qtbot, "gap setting")
    assert window.dress.settings["gap"].hasFocus()
    other = next(one for one in window.store.document.charts if one.recipe == "funnel")
    found_by(window, qtbot, f"{other.name.casefold()} chart")
    assert window.store.here.id == other.id


@pytest.mark.parametrize(
    ("typed", "found"),
    [("donut", "pie"), ("dial", "gauge"), ("percent", "waffle"), ("before after", "growth-bars"), ("3d", "columns"),
     ("people", "pictogram"), ("budget left", "battery"), ("progress", "capsule"), ("money", "thermometer")],
)  # fmt: skip
def test_the_wall_knows_what_people_call_its_recipes(window: Window, typed: str, found: str) -> None:
    show(window, "columns")
    window.recipes.wall_wanted.emit()
    window.wall.search.setText(typed)
    assert found in window.wall._matching()


def test_hex_codes_are_pasted_as_palette(window: Window) -> None:
    show(window, "columns")
    QApplication.clipboard().setText("house: #112233, #445566 and #778899")
    window.actions_by_name["paste_palette"].trigger()
    assert [mark(window, f"series {i}").fill.hex for i in (1, 2, 3)] == ["#112233", "#445566", "#778899"]  # type: ignore[union-attr]


def test_ink_and_size_over_the_stage(window: Window) -> None:
    show(window, "columns")
    window.dress.set_value("frame.along.visible", None)
    window.stage.ink.setValue(3)
    ruled = len(figure(window).under) + len(figure(window).over)
    window.stage.ink.setValue(1)
    assert len(figure(window).under) + len(figure(window).over) < ruled
    window.charts.set_size("half width")
    chart = window.store.chart
    assert chart is not None
    assert chart.width == pytest.approx(77 * 72 / 25.4)


def test_zoom(window: Window) -> None:
    view = window.stage.view
    fitted = view.sheet().width()
    window.actions_by_name["zoom_in"].trigger()
    assert view.sheet().width() > fitted
    window.actions_by_name["zoom_fit"].trigger()
    assert view.sheet().width() == pytest.approx(fitted)


def test_kits_go_from_document_to_document(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    from PySide6.QtWidgets import QFileDialog

    show(window, "columns")
    window.dress.set_value("layers.series 1.fill", "#0a6847")
    window.dress.look.theme.chosen.emit("harbour")
    path = str(tmp_path / "house.kavlet-kit")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (path, ""))
    window.actions_by_name["save_kit"].trigger()
    window.store.undo()
    window.store.undo()
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (path, ""))
    window.actions_by_name["load_kit"].trigger()
    assert {chart.dress.theme for chart in window.store.document.charts} == {"harbour"}
    assert mark(window, "series 1").fill.hex == "#0a6847"  # type: ignore[union-attr]


def test_only_what_a_part_has_is_offered(window: Window) -> None:
    show(window, "pie")
    window.store.select(Part("layer", "value"))
    paths = set(window.dress.rows)
    assert "layers.value.explode" in paths
    assert "layers.value.thickness" not in paths
    assert isinstance(window.dress.fill, FillField)
    window.store.select(Part("text", "title"))
    assert "title.size" in window.dress.rows


def test_what_marks_a_chosen_part_crosses_none_of_its_words(window: Window) -> None:
    show(window, "columns")
    window.dress.set_value("frame.along.title", "Visits")
    held = figure(window)
    for part in (Part("axis", "along"), Part("axis", "across"), Part("text", "title"), Part("legend", "")):
        marked = outline(held, part, 4.0)
        line = QPainterPathStroker(QPen(Qt.GlobalColor.black, 3.0)).createStroke(marked)
        for box in boxes(held, part):
            assert not line.intersects(QRectF(box.x, box.y, box.width, box.height)), (part, box)
