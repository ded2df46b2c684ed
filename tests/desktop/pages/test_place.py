"""The Pages place as a whole: its switch, strip, fields, commands; charts touched on the page; charts carried along."""

from pathlib import Path

import msgspec
import pypdf
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.files.formats import ExportOptions
from kavlet.core.layout.figure import Mark
from kavlet.core.messages import say
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.pages.page import Page, named_size
from kavlet.core.values.geometry import Rect
from kavlet.core.values.sizes import MM
from kavlet.desktop.command_search import Findable
from kavlet.desktop.deliver.deliver_dialog import DeliverDialog
from kavlet.desktop.deliver.last_delivery import DeliveryChoice
from kavlet.desktop.main import Window
from kavlet.desktop.store import Store
from tests.desktop.hands import pick, pulled, type_in
from tests.desktop.pages.hands import boxes, click, double_click, fresh, middle

BOX = Rect(60, 100, 460, 300)


def chart_page(window: Window, qtbot: QtBot, recipe: str = "columns") -> tuple[str, str]:
    """A page with a chart of the demo. Returns the chart's and the frame's id."""
    chart = next(one.id for one in window.store.document.charts if one.recipe == recipe)
    (frame,) = fresh(window, qtbot, (ChartFrame("", chart=chart), BOX))
    return chart, frame


def touch(window: Window, frame: str) -> None:
    """Two clicks: the first chooses the frame, the second reaches into it."""
    at = middle(window, frame) + QPoint(0, 1)
    click(window, at)
    click(window, at)


def bar(window: Window, row: int = 0) -> Mark:
    figure = window.pages.canvas.frame.picture.figure
    return next(one for one in figure.marks if one.visible and not one.helper and one.row == row)


def on_frame(window: Window, mark: Mark) -> QPoint:
    x, y = mark.bounds.center
    return window.pages.canvas.frame.from_chart(x, y).toPoint()


# Coming and going


def test_the_switch_goes_to_pages_and_back(window: Window) -> None:
    window.place_switch.buttons["show_pages"].click()
    assert window.places.currentWidget() is window.pages
    assert window.place_switch.buttons["show_pages"].isChecked()
    window.place_switch.buttons["show_stage"].click()
    assert window.places.currentWidget() is window.splitter
    assert not window.place_switch.buttons["show_pages"].isChecked()


def test_a_document_without_pages_invites_to_the_first(window: Window) -> None:
    store = window.store
    for page in store.document.pages:
        store.edit(say("delete page"), lambda document, page=page: page_edits.delete_page(document, page.id))
    window.places.show_pages()
    assert window.pages.first.isVisible()
    assert not window.pages.puts["words"].isEnabled()
    window.pages.first.click()
    assert len(store.document.pages) == 1
    assert window.pages.canvas.isVisible()
    assert store.page.size == named_size("A4")


def test_send_to_page_makes_the_first_page_and_shows_it(window: Window) -> None:
    store = window.store
    for page in store.document.pages:
        store.edit(say("delete page"), lambda document, page=page: page_edits.delete_page(document, page.id))
    window.places.show_stage()
    chart = store.chart.id
    window.actions_by_name["send_to_page"].trigger()
    assert window.places.currentWidget() is window.pages
    (item,) = store.page.items
    assert isinstance(item, ChartFrame)
    assert (item.chart, item.bay) == (chart, 0)
    assert store.chosen.items == (item.id,)


def test_a_double_click_opens_the_chart_and_one_key_returns(window: Window, qtbot: QtBot) -> None:
    chart, frame = chart_page(window, qtbot, "funnel")
    page = window.store.page.id
    double_click(window, middle(window, frame))
    assert window.places.currentWidget() is window.splitter
    assert window.store.chart.id == chart
    assert window.store.table.id == window.store.chart.table
    window.actions_by_name["show_pages"].trigger()
    assert window.places.currentWidget() is window.pages
    assert window.store.page.id == page


# A chart's parts on the page


def test_a_second_click_touches_a_part_and_its_dress_stands_beside(window: Window, qtbot: QtBot) -> None:
    _, frame = chart_page(window, qtbot)
    touch(window, frame)
    view = window.pages.canvas.frame
    assert view.item == frame
    assert window.dress.isVisible()
    assert window.pages.side.currentWidget() is window.dress
    qtbot.mouseClick(view, Qt.MouseButton.LeftButton, pos=on_frame(window, bar(window)))
    qtbot.mouseClick(view, Qt.MouseButton.LeftButton, pos=on_frame(window, bar(window)))
    assert window.store.selection[0].kind == "mark"
    qtbot.keyClick(view, Qt.Key.Key_Escape)
    qtbot.keyClick(view, Qt.Key.Key_Escape)
    qtbot.keyClick(view, Qt.Key.Key_Escape)
    assert not view.item
    assert window.pages.side.currentWidget() is window.pages.fields
    window.places.show_stage()
    assert window.dress.isVisible()


def test_a_colour_dropped_on_a_bar_of_the_page_fills_it(window: Window, qtbot: QtBot) -> None:
    chart, frame = chart_page(window, qtbot)
    touch(window, frame)
    view = window.pages.canvas.frame
    window.store.select()
    view.take_drop(view.from_chart(*bar(window).bounds.center), "#226688")
    assert "#226688" in str(window.store.document.chart(chart).dress.overrides)
    drawn = window.store.page_picture().made[frame].picture
    assert drawn is not None
    assert any(mark.fill is not None and mark.fill.hex == "#226688" for mark in drawn.figure.marks)


def test_a_title_is_typed_on_the_page(window: Window, qtbot: QtBot) -> None:
    chart, frame = chart_page(window, qtbot, "funnel")
    touch(window, frame)
    view = window.pages.canvas.frame
    title = next(text for text in view.picture.figure.texts if text.kind == "title")
    view.in_place.open(next(part for part in [_part(title)]), title.bounds)
    editor = view.in_place.editor
    assert editor is not None
    editor.selectAll()
    qtbot.keyClicks(editor, "Typed on its page")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert window.store.document.chart(chart).title == "Typed on its page"


def _part(text):  # type: ignore[no-untyped-def]
    from kavlet.core.interaction.parts import text_part

    return text_part(text)


def test_a_legend_is_dragged_on_the_page_and_is_one_step(window: Window, qtbot: QtBot) -> None:
    chart, frame = chart_page(window, qtbot, "areas")
    touch(window, frame)
    view = window.pages.canvas.frame
    key = view.picture.figure.keys[0]
    start = view.from_chart(*key.bounds.center).toPoint()
    pulled(view, start, start + QPoint(30, 40))
    assert any(path.startswith("legend.") for path in window.store.document.chart(chart).dress.overrides)
    window.store.undo()
    assert not any(path.startswith("legend.") for path in window.store.document.chart(chart).dress.overrides)


def test_an_edit_elsewhere_keeps_the_touched_chart_in_its_place(window: Window, qtbot: QtBot) -> None:
    _, frame = chart_page(window, qtbot)
    touch(window, frame)
    page = window.store.page.id
    window.store.edit(say("x"), lambda document: page_edits.placed(document, page, {frame: BOX.moved(0, 40)}))
    view, box = window.pages.canvas.frame, window.pages.canvas.on_screen(boxes(window)[frame])
    assert abs(view.mapToParent(view.sheet().topLeft()).y() - box.y()) <= 1
    window.store.edit(say("x"), lambda document: page_edits.delete_items(document, page, [frame]))
    assert not view.item
    assert not view.isVisible()


# The strip


def test_pages_are_chosen_copied_ordered_skipped_and_deleted(window: Window, qtbot: QtBot) -> None:
    store, actions = window.store, window.actions_by_name
    window.places.show_pages()
    strip = window.pages.strip
    strip.setCurrentRow(2)
    assert store.page is store.document.pages[2]
    name = store.page.name
    actions["copy_page"].trigger()
    assert store.page.name == f"{name} 2"
    assert strip.currentRow() == 3
    actions["page_up"].trigger()
    assert [page.name for page in store.document.pages][2] == f"{name} 2"
    actions["skip_page"].trigger()
    assert store.page.skipped
    strip.setFocus()
    qtbot.keyClick(strip, Qt.Key.Key_Delete)
    assert f"{name} 2" not in [page.name for page in store.document.pages]
    assert store.page.name == name
    for _ in range(4):
        store.undo()
    assert [page.name for page in store.document.pages].count(name) == 1


def test_pages_are_dragged_to_another_place(window: Window) -> None:
    window.places.show_pages()
    strip, before = window.pages.strip, [page.id for page in window.store.document.pages]
    item = strip.takeItem(1)
    strip.insertItem(4, item)
    strip._moved()
    order = [page.id for page in window.store.document.pages]
    assert order == [before[0], *before[2:5], before[1], *before[5:]]
    assert str(window.store.history.undo_name) == "move page"


def test_pictures_of_pages_follow_edits(window: Window, qtbot: QtBot) -> None:
    from kavlet.desktop.pages.page_strip import PICTURE

    window.places.show_pages()
    strip = window.pages.strip
    qtbot.waitUntil(lambda: all(strip.item(i).data(PICTURE) is not None for i in range(strip.count())), timeout=20_000)
    at = window.pages.strip.currentRow()
    before = strip.item(at).data(PICTURE).toImage()
    window.store.edit_page(say("x"), lambda document, page: page_edits.change_page(document, page.id, ground="#224422"))
    qtbot.waitUntil(lambda: strip.item(at).data(PICTURE).toImage() != before, timeout=10_000)


def test_a_page_is_renamed(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    window.places.show_pages()
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("Opening", True))
    window.actions_by_name["rename_page"].trigger()
    assert window.store.page.name == "Opening"
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("", True))
    window.actions_by_name["rename_page"].trigger()
    assert window.store.page.name == "Opening"
    assert "name" in window.saying.text()


# Putting things onto it


@pytest.mark.parametrize("kind", ["words", "key figure", "table", "legend", "shape", "steps"])
def test_each_kind_is_put_and_has_fields(window: Window, qtbot: QtBot, kind: str) -> None:
    fresh(window, qtbot)
    window.pages.puts[kind].click()
    (item,) = window.store.page.items
    assert item.kind == kind
    assert window.store.chosen.items == (item.id,)
    assert {"x", "y", "width", "height", "locked"} <= set(window.pages.fields.rows)
    if kind == "words":
        assert window.pages.canvas.editor.is_open
    if kind == "key figure":
        assert isinstance(item, KeyFigure)
        assert item.value.startswith("=")


def test_a_picture_is_put_from_the_shelf_and_changed_by_its_field(window: Window, qtbot: QtBot) -> None:
    fresh(window, qtbot)
    window.pages.puts["picture"].click()
    window.items.shelf.chosen.emit("bird")
    (item,) = window.store.page.items
    assert isinstance(item, PlacedPicture)
    assert item.picture == "bird"
    window.pages.fields.rows["picture"].symbol_wanted.emit(QPoint(0, 0))
    window.items.shelf.chosen.emit("fish")
    assert window.store.page.items[0].picture == "fish"  # type: ignore[union-attr]


def test_a_picture_file_is_dropped_onto_the_page(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    file = tmp_path / "crest.svg"
    file.write_text('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 20 10"><path d="M0 0H20V10H0Z"/></svg>')
    fresh(window, qtbot)
    from PySide6.QtCore import QPointF

    window.pages.canvas.dropped.emit("", str(file), QPointF(200, 300))
    (item,) = window.store.page.items
    assert isinstance(item, PlacedPicture)
    assert item.width == pytest.approx(2 * item.height)
    assert item.box.center == pytest.approx((200, 300))
    assert [one.name for one in window.store.document.pictures][-1] == item.picture


# Fields


def test_what_is_typed_belongs_to_the_item_it_was_typed_for(window: Window, qtbot: QtBot) -> None:
    one, other = fresh(
        window, qtbot, (DrawnShape(""), Rect(100, 120, 120, 80)), (DrawnShape(""), Rect(300, 120, 120, 80))
    )
    window.store.choose_items(one)
    before, field = boxes(window), window.pages.fields.rows["x"].field
    for typed, moved in (("25.4", 72.0), ("far", 72.0)):
        field.setFocus()
        field.selectAll()
        qtbot.keyClicks(field, typed)
        window.actions_by_name["zoom_in"].trigger()
        assert boxes(window)[one].x == pytest.approx(moved)
    window.say("")
    window.store.choose_items(other)
    window.pages.canvas.setFocus()
    assert boxes(window)[other] == before[other]
    assert window.saying.text() == ""


def test_exact_numbers_in_millimetres_and_points(window: Window, qtbot: QtBot) -> None:
    (one,) = fresh(window, qtbot, (DrawnShape(""), Rect(100, 120, 120, 80)))
    window.store.choose_items(one)
    fields = window.pages.fields
    type_in(qtbot, fields.rows["x"].field, "25.4")
    type_in(qtbot, fields.rows["width"].field, "50.8")
    assert boxes(window)[one] == Rect(72, 120, 144, 80)
    assert fields.rows["y"].field.text() == f"{120 / MM:.2f}"
    window.actions_by_name["in_points"].trigger()
    assert fields.rows["x"].field.text() == "72"
    type_in(qtbot, fields.rows["height"].field, "33")
    assert boxes(window)[one].height == 33
    window.actions_by_name["in_points"].trigger()


def test_a_field_sets_all_items_of_a_kind_that_are_chosen(window: Window, qtbot: QtBot) -> None:
    items = fresh(window, qtbot, *((DrawnShape(""), Rect(100, 100 * i, 50, 50)) for i in (1, 2)),
                  (Words("", paragraphs=plain("x")), Rect(300, 300, 90, 40)))  # fmt: skip
    window.store.choose_items(*items)
    type_in(qtbot, window.pages.fields.rows["fill"].field, "#115533")
    held = [window.store.page.item(one) for one in items]
    assert [getattr(one, "fill", "") for one in held] == ["#115533", "#115533", ""]


@pytest.mark.parametrize(("path", "text"), [("width", "0"), ("width", "9999999"), ("x", "far"), ("fill", "reddish")])
def test_what_a_field_cannot_be_is_said_and_nothing_changes(window: Window, qtbot: QtBot, path: str, text: str) -> None:
    (one,) = fresh(window, qtbot, (DrawnShape(""), Rect(100, 120, 120, 80)))
    window.store.choose_items(one)
    before = window.store.document
    type_in(qtbot, window.pages.fields.rows[path].field, text)
    assert window.store.document is before
    assert window.saying.text()
    assert window.pages.fields.rows[path].field.is_wrong


def test_the_page_s_own_fields(window: Window, qtbot: QtBot) -> None:
    fresh(window, qtbot)
    fields, store = window.pages.fields, window.store
    pick(fields.size_field, "A5 lying")
    assert store.page.size == named_size("A5 lying")
    pick(fields.rows["arrangement"].field, "two beside")
    assert store.page.arrangement == "two beside"
    type_in(qtbot, fields.rows["margins.0"].field, "10")
    assert store.page.margins[0] == pytest.approx(10 * MM)
    fields.rows["dark"].field.click()
    assert store.page.dark is True
    type_in(qtbot, fields.rows["footer"].field, "{page} / {pages}")
    assert store.page.footer == "{page} / {pages}"
    speaker = fields.rows["speaker"].field
    speaker.setFocus()
    qtbot.keyClicks(speaker, "Welcome to")
    qtbot.keyClick(speaker, Qt.Key.Key_Return)
    qtbot.keyClicks(speaker, "the reserve")
    window.pages.canvas.setFocus()
    assert store.page.speaker == "Welcome to\nthe reserve"


@pytest.mark.parametrize("text", ["0", "10000"])
def test_a_page_of_nothing_or_ten_metres_is_refused(window: Window, qtbot: QtBot, text: str) -> None:
    fresh(window, qtbot)
    before = window.store.page.size
    type_in(qtbot, window.pages.fields.rows["width"].field, text)
    assert window.store.page.size == before
    assert window.saying.text()


def test_a_chart_s_frame_can_leave_its_title_and_legend_out(window: Window, qtbot: QtBot) -> None:
    _, frame = chart_page(window, qtbot, "areas")
    window.store.choose_items(frame)
    rows = window.pages.fields.rows
    rows["title"].field.click()
    rows["legend"].field.click()
    type_in(qtbot, rows["caption"].field, "By way of arrival")
    item = window.store.page.item(frame)
    assert isinstance(item, ChartFrame)
    assert (item.title, item.legend, item.caption) == (False, False, "By way of arrival")
    drawn = window.store.page_picture().made[frame].picture
    assert drawn is not None
    assert not drawn.figure.keys


# Repeated, and carried along


def test_a_page_of_all_rows_in_one_command(window: Window) -> None:
    from tests.desktop.hands import show

    show(window, "areas")
    count = len(window.store.chart.roles["value"])
    window.actions_by_name["page_of_all_rows"].trigger()
    assert window.places.on_pages
    frames = [item for item in window.store.page.items if isinstance(item, ChartFrame)]
    assert len(frames) == count
    assert len({(one.low, one.high) for one in frames}) == 1
    window.store.undo()
    assert not any(page.arrangement == "small multiples" and page.name == window.store.chart.name
                   for page in window.store.document.pages)  # fmt: skip


def test_one_page_per_row_in_one_command(window: Window) -> None:
    from tests.desktop.hands import show

    show(window, "gauge")
    before = len(window.store.document.pages)
    window.actions_by_name["page_per_row"].trigger()
    new = window.store.document.pages[before:]
    assert len(new) > 1
    assert window.store.page is new[0]
    assert all(isinstance(page, Page) for page in new)


def test_a_chart_that_shows_all_says_why_it_cannot_be_repeated(window: Window) -> None:
    from tests.desktop.hands import show

    show(window, "funnel")
    before = window.store.document
    window.actions_by_name["page_of_all_rows"].trigger()
    assert window.store.document is before
    assert "repeated" in window.saying.text()


def test_a_page_of_this_chart(window: Window) -> None:
    chart = window.store.chart.id
    window.actions_by_name["page_of_chart"].trigger()
    (item,) = window.store.page.items
    assert isinstance(item, ChartFrame)
    assert item.chart == chart


def test_a_chart_is_copied_into_another_document(window: Window) -> None:
    from tests.desktop.hands import show

    show(window, "funnel")
    chart = window.store.chart
    window.actions_by_name["copy_chart_to_clipboard"].trigger()
    other: Document
    other, _ = edits.add_table(Document(), "Walks", [["Walk", "Number"], ["Short", 3.0]])
    window.store.load(other, None, "Other")
    window.actions_by_name["paste_chart"].trigger()
    new = window.store.chart
    assert new.name == chart.name
    assert next(table.name for table in window.store.document.tables) == "Walks"
    assert window.store.picture.figure.marks
    window.store.undo()
    assert window.store.document == other


def test_words_of_another_program_become_an_item(window: Window, qtbot: QtBot) -> None:
    from PySide6.QtGui import QGuiApplication

    fresh(window, qtbot)
    QGuiApplication.clipboard().setText("From a letter\nin two lines")
    window.actions_by_name["paste_items"].trigger()
    (item,) = window.store.page.items
    assert isinstance(item, Words)
    assert item.text == "From a letter\nin two lines"


def test_a_page_in_view_that_is_gone_gives_way_to_another() -> None:
    store = Store()
    document, first = page_edits.add_page(Document())
    document, second = page_edits.add_page(document)
    store.load(document, None, "x")
    store.show_page(second)
    store.edit(say("delete page"), lambda held: page_edits.delete_page(held, second))
    assert store.page.id == first


def test_items_are_not_offered_where_the_page_is_not_shown(window: Window, qtbot: QtBot) -> None:
    (one,) = fresh(window, qtbot, (DrawnShape(""), Rect(0, 0, 10, 10)))
    window.store.choose_items(one)
    assert window.actions_by_name["delete_items"].isEnabled()
    window.places.show_stage()
    assert not window.actions_by_name["delete_items"].isEnabled()


def test_a_page_of_no_size_in_a_file_is_said_and_can_be_mended(window: Window, qtbot: QtBot) -> None:
    fresh(window, qtbot, (DrawnShape(""), Rect(0, 0, 10, 10)))
    store = window.store
    broken = msgspec.structs.replace(store.page, width=0.0)
    store.load(msgspec.structs.replace(store.document, pages=(broken,)), None, "broken")
    assert "10 mm" in window.pages.canvas.problem
    assert window.pages.canvas.grab().width() > 0
    pick(window.pages.fields.size_field, "A4")
    assert not window.pages.canvas.problem
    assert len(store.page.items) == 1


def test_a_deleted_chart_says_which_pages_it_was_on(window: Window, qtbot: QtBot) -> None:
    chart, _ = chart_page(window, qtbot, "funnel")
    name = window.store.page.name
    window.places.show_stage()
    window.store.show_chart(chart)
    window.actions_by_name["delete_chart"].trigger()
    assert name in window.saying.text()
    assert not any(isinstance(item, ChartFrame) and item.chart == chart
                   for page in window.store.document.pages for item in page.items)  # fmt: skip
    window.store.undo()
    assert any(isinstance(item, ChartFrame) and item.chart == chart
               for page in window.store.document.pages for item in page.items)  # fmt: skip


@pytest.mark.parametrize(("ending", "count"), [(".pdf", 1), (".svg", 12)])
def test_pages_are_delivered_from_their_place(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, ending: str, count: int
) -> None:
    window.places.show_pages()
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(tmp_path / f"report{ending}"), ""))
    window.deliver_button.click()
    sheet = window.findChild(DeliverDialog)
    assert sheet is not None
    assert sheet.choice.what == "page"  # what is in view
    qtbot.mouseClick(sheet.what.button("pages"), Qt.MouseButton.LeftButton)
    qtbot.mouseClick(sheet.format.buttons[ending], Qt.MouseButton.LeftButton)
    qtbot.waitUntil(sheet.save.isEnabled, timeout=20_000)
    qtbot.mouseClick(sheet.save, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: len(list(tmp_path.glob("report*"))) == count, timeout=20_000)
    written = sorted(tmp_path.glob("report*"))
    if count == 1:
        assert written[0].read_bytes().startswith(b"%PDF")
        assert len(pypdf.PdfReader(written[0]).pages) == len(window.store.document.pages)
    else:
        assert all(one.read_bytes().startswith(b"<svg") for one in written)


def test_pages_that_cannot_be_written_are_said(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    window.places.show_pages()
    window.delivering._write(DeliveryChoice("pages", wish=ExportOptions(".svg")), tmp_path / "no" / "a.svg")
    qtbot.waitUntil(lambda: window.findChild(QMessageBox) is not None, timeout=20_000)
    box = window.findChild(QMessageBox)
    assert box is not None
    assert "can’t be written" in box.text()
    assert not list(tmp_path.iterdir())
    box.close()


def test_an_excerpt_shows_another_table_and_some_of_its_columns(window: Window, qtbot: QtBot) -> None:
    first, second = window.store.document.tables[:2]
    (one,) = fresh(window, qtbot, (Excerpt("", table=first.id), Rect(60, 100, 400, 200)))
    window.store.choose_items(one)
    rows = window.pages.fields.rows
    pick(rows["table"].field, second.id)
    name = str(second.called(0))
    type_in(qtbot, window.pages.fields.rows["columns"].field, "A")
    item = window.store.page.item(one)
    assert isinstance(item, Excerpt)
    assert (item.table, item.columns) == (second.id, (second.columns[0].id,))
    assert window.pages.fields.rows["columns"].field.text() == name
    type_in(qtbot, window.pages.fields.rows["columns"].field, "No such column")
    assert window.store.page.item(one) is item
    assert "No such column" in window.saying.text()


def test_a_frame_shows_another_chart(window: Window, qtbot: QtBot) -> None:
    _, frame = chart_page(window, qtbot, "funnel")
    other = next(one.id for one in window.store.document.charts if one.recipe == "waffle")
    window.store.choose_items(frame)
    pick(window.pages.fields.rows["chart"].field, other)
    assert window.store.page.item(frame).chart == other  # type: ignore[union-attr]


def test_no_field_beside_the_page_has_the_tip_of_another_place(window: Window, qtbot: QtBot) -> None:
    (one,) = fresh(window, qtbot, (DrawnShape(""), Rect(0, 0, 10, 10)))
    window.store.choose_items(one)
    assert window.pages.fields.rows["width"].field.toolTip() == "How wide it is."


def test_another_document_does_not_keep_the_chart_of_the_last_one_touched(window: Window, qtbot: QtBot) -> None:
    """Its pages may have items of the same ids."""
    chart, frame = chart_page(window, qtbot, "funnel")
    touch(window, frame)
    assert window.pages.canvas.frame.item == frame
    other = msgspec.structs.replace(
        window.store.document, pages=(window.store.page,), charts=tuple(reversed(window.store.document.charts))
    )
    window.store.load(other, None, "other")
    assert window.store.chart.id != chart
    assert not window.pages.canvas.frame.item
    assert window.pages.side.currentWidget() is window.pages.fields


def test_a_new_document_from_the_pages_shows_its_start_and_then_its_table(window: Window, qtbot: QtBot) -> None:
    _, frame = chart_page(window, qtbot, "funnel")
    touch(window, frame)
    window.store.load(Document(), None, "")
    assert window.places.currentWidget() is window.start
    window.files.open_cells([["stage", "people"], ["Visits", 5.0], ["Walks", 2.0]])
    window.places.show_stage()
    assert window.dress.isVisible()
    assert window.splitter.indexOf(window.dress) == 2


def test_a_double_click_on_the_shelf_puts_one_chart(window: Window, qtbot: QtBot) -> None:
    fresh(window, qtbot)
    shelf = window.pages.charts
    at = shelf.visualItemRect(shelf.item(1)).center()
    qtbot.mouseClick(shelf.viewport(), Qt.MouseButton.LeftButton, pos=at)
    qtbot.mouseDClick(shelf.viewport(), Qt.MouseButton.LeftButton, pos=at)
    assert len(window.store.page.items) == 1
    shelf.setCurrentRow(2)
    qtbot.keyClick(shelf, Qt.Key.Key_Return)
    assert len(window.store.page.items) == 2


def test_what_is_sought_by_its_words_is_seen_from_the_pages_too(window: Window) -> None:
    def found(name: str, kind: str) -> Findable:
        return next(one for one in window.findable() if one.text == name and one.kind == kind)

    window.places.show_pages()
    window.actions_by_name["edit_title"].trigger()
    assert window.places.on_stage
    assert window.dress.texts["title"].hasFocus()
    page = window.store.document.pages[4]
    found(page.name, "page").do()
    assert window.places.on_pages
    assert window.store.page.id == page.id
    chart = window.store.document.charts[3]
    found(chart.name, "chart").do()
    assert window.places.on_stage
    assert window.store.chart.id == chart.id


@pytest.mark.at_rest
def test_fields_follow_whatever_is_chosen_while_they_are_built(window: Window, qtbot: QtBot) -> None:
    window.places.show_pages()
    store, beside = window.store, window.pages.fields
    for item in (*store.page.items, None):
        store.choose_items(*([item.id] if item is not None else []))
        qtbot.wait(2)
    qtbot.waitUntil(lambda: "Page" in beside.head.text())
    assert "arrangement" in beside.rows
