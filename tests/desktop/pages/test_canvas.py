"""Items chosen, moved, sized, grouped and typed on the real page, by mouse and keys."""

import msgspec
import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document.pages import page_edits
from kavlet.core.pages.arrangements import bays
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.values.geometry import Rect
from kavlet.desktop.main import Window
from tests.desktop.hands import open_menu
from tests.desktop.pages.hands import (
    ALT,
    CONTROL,
    SHIFT,
    boxes,
    click,
    double_click,
    drag,
    fresh,
    key,
    middle,
    spot,
)

ONE, TWO, THREE = Rect(100, 120, 120, 80), Rect(300, 131, 90, 60), Rect(150, 400, 70, 50)


def three(window: Window, qtbot: QtBot) -> list[str]:
    return fresh(window, qtbot, *((DrawnShape(""), box) for box in (ONE, TWO, THREE)))


def near(box: Rect, other: Rect, by: float = 2.0) -> bool:
    sides = zip(msgspec.structs.astuple(box), msgspec.structs.astuple(other), strict=True)
    return all(abs(a - b) <= by for a, b in sides)


def test_a_click_chooses_and_a_click_beside_lets_go(window: Window, qtbot: QtBot) -> None:
    one, two, _ = three(window, qtbot)
    click(window, middle(window, one))
    assert window.store.chosen.items == (one,)
    click(window, middle(window, two), SHIFT)
    assert window.store.chosen.items == (one, two)
    click(window, middle(window, one), SHIFT)
    assert window.store.chosen.items == (two,)
    click(window, spot(window, 500, 700))
    assert window.store.chosen.items == ()


def test_a_drag_moves_and_is_one_step(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    steps = len(window.store.history.undo_name or "")
    start = middle(window, one)
    drag(window, start, spot(window, ONE.center[0] + 57, ONE.center[1] + 203), ALT)
    assert near(boxes(window)[one], ONE.moved(57, 203))
    assert str(window.store.history.undo_name) == "move item"
    window.store.undo()
    assert boxes(window)[one] == ONE
    assert steps >= 0


def test_a_drag_snaps_to_another_s_edge_and_alt_does_not(window: Window, qtbot: QtBot) -> None:
    one, two, _ = three(window, qtbot)
    start = middle(window, two)
    end = spot(window, TWO.center[0] + 20, TWO.center[1] - 9)  # its top 2 points below the other's
    drag(window, start, end)
    assert boxes(window)[two].y == pytest.approx(boxes(window)[one].y, abs=1e-6)
    window.store.undo()
    drag(window, start, end, ALT)
    assert boxes(window)[two].y != pytest.approx(boxes(window)[one].y, abs=0.3)


def test_lines_are_shown_while_it_snaps(window: Window, qtbot: QtBot) -> None:
    _, two, _ = three(window, qtbot)
    drag(window, middle(window, two), spot(window, TWO.center[0] + 20, TWO.center[1] - 9), let_go=False)
    hold = window.pages.canvas._hold
    assert hold is not None
    assert any(not guide.upright for guide in hold.guides)
    assert window.pages.canvas.grab().width() > 0
    qtbot.keyClick(window.pages.canvas, Qt.Key.Key_Escape)
    assert boxes(window)[two] == TWO
    assert not window.store.trying


def test_a_rubber_band_chooses_what_it_touches(window: Window, qtbot: QtBot) -> None:
    one, two, _ = three(window, qtbot)
    drag(window, spot(window, 80, 100), spot(window, 320, 150))
    assert set(window.store.chosen.items) == {one, two}


def test_handles_size_and_shift_keeps_proportion(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    click(window, middle(window, one))
    drag(window, spot(window, ONE.right, ONE.bottom), spot(window, ONE.right + 41, ONE.bottom + 23), ALT)
    assert near(boxes(window)[one], Rect(100, 120, 161, 103))
    window.store.undo()
    drag(window, spot(window, ONE.right, ONE.bottom), spot(window, ONE.right + 60, ONE.bottom + 3), SHIFT)
    made = boxes(window)[one]
    assert made.width / made.height == pytest.approx(ONE.width / ONE.height)
    assert str(window.store.history.undo_name) == "size item"


def test_pictures_keep_their_proportion_and_are_cropped_with_control(window: Window, qtbot: QtBot) -> None:
    box = Rect(100, 100, 120, 120)
    (one,) = fresh(window, qtbot, (PlacedPicture("", picture="bird"), box))
    click(window, middle(window, one))
    drag(window, spot(window, box.right, box.bottom), spot(window, box.right + 50, box.bottom + 10), ALT)
    assert boxes(window)[one].width == pytest.approx(boxes(window)[one].height)
    window.store.undo()
    whole = window.store.page_picture().made[one].whole
    drag(window, spot(window, box.right, box.center[1]), spot(window, box.right - 40, box.center[1]), CONTROL | ALT)
    item = window.store.page.item(one)
    assert isinstance(item, PlacedPicture)
    assert item.crop[2] > 0.2
    after = window.store.page_picture().made[one].whole
    assert whole is not None
    assert after is not None
    assert after.width == pytest.approx(whole.width, rel=0.02)  # what is seen stays where it was
    drag(window, middle(window, one), spot(window, boxes(window)[one].center[0] - 15, box.center[1]), ALT)
    moved = window.store.page.item(one)
    assert isinstance(moved, PlacedPicture)
    assert moved.crop[0] > 0.03
    assert moved.box == item.box
    assert str(window.store.history.undo_name) == "crop picture"


def test_control_drag_copies(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    drag(window, middle(window, one), spot(window, 400, 600), CONTROL | ALT)
    assert len(window.store.page.items) == 4
    assert boxes(window)[one] == ONE
    (copy,) = window.store.chosen.items
    assert boxes(window)[copy].center == pytest.approx((400, 600), abs=2)
    window.store.undo()
    assert len(window.store.page.items) == 3


def test_a_locked_item_stays_and_its_words_too(window: Window, qtbot: QtBot) -> None:
    (one,) = fresh(window, qtbot, (Words("", paragraphs=plain("stays")), ONE))
    click(window, middle(window, one))
    key(window, qtbot, Qt.Key.Key_L, CONTROL)
    assert window.store.page.item(one).locked
    drag(window, middle(window, one), spot(window, 400, 600))
    key(window, qtbot, Qt.Key.Key_Right)
    assert boxes(window)[one] == ONE
    double_click(window, middle(window, one))
    assert not window.pages.canvas.editor.is_open


def test_arrows_nudge_by_one_and_ten_points(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    click(window, middle(window, one))
    key(window, qtbot, Qt.Key.Key_Right)
    key(window, qtbot, Qt.Key.Key_Down, SHIFT)
    assert boxes(window)[one] == ONE.moved(1, 10)


def test_tab_goes_from_item_to_item_and_return_opens(window: Window, qtbot: QtBot) -> None:
    items = fresh(window, qtbot, (DrawnShape(""), ONE), (Words("", paragraphs=plain("hello")), TWO))
    canvas = window.pages.canvas
    key(window, qtbot, Qt.Key.Key_Tab)
    assert window.store.chosen.items == (items[0],)
    assert "1 of 2" in canvas.accessibleDescription()
    key(window, qtbot, Qt.Key.Key_Tab)
    assert window.store.chosen.items == (items[1],)
    key(window, qtbot, Qt.Key.Key_Return)
    assert canvas.editor.is_open
    qtbot.keyClick(canvas.editor, Qt.Key.Key_Escape)
    assert not canvas.editor.is_open


def test_groups_are_chosen_and_moved_together(window: Window, qtbot: QtBot) -> None:
    one, two, three_ = three(window, qtbot)
    window.store.choose_items(one, two)
    key(window, qtbot, Qt.Key.Key_G, CONTROL)
    click(window, spot(window, 500, 700))
    click(window, middle(window, one))
    assert set(window.store.chosen.items) == {one, two}
    drag(window, middle(window, one), spot(window, ONE.center[0] + 31, ONE.center[1] + 77), ALT)
    assert near(boxes(window)[two], TWO.moved(31, 77))
    assert boxes(window)[three_] == THREE
    key(window, qtbot, Qt.Key.Key_G, CONTROL | SHIFT)
    click(window, spot(window, 500, 700))
    click(window, middle(window, one))
    assert window.store.chosen.items == (one,)


def test_aligned_distributed_and_of_one_size_from_the_menu(window: Window, qtbot: QtBot) -> None:
    one, two, three_ = three(window, qtbot)
    actions = window.actions_by_name
    window.store.choose_items(one, two, three_)
    actions["align_left"].trigger()
    assert len({box.x for box in boxes(window).values()}) == 1
    window.store.undo()
    actions["distribute_down"].trigger()
    held = sorted(boxes(window).values(), key=lambda box: box.y)
    assert held[1].y - held[0].bottom == pytest.approx(held[2].y - held[1].bottom)
    window.store.undo()
    actions["same_size"].trigger()
    assert {(box.width, box.height) for box in boxes(window).values()} == {(120, 80)}


def test_a_single_item_is_aligned_to_the_margins(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    window.store.choose_items(one)
    window.actions_by_name["align_right"].trigger()
    assert boxes(window)[one].right == pytest.approx(window.store.page.inner.right)


def test_order_by_keys(window: Window, qtbot: QtBot) -> None:
    one, two, three_ = three(window, qtbot)
    click(window, middle(window, one))
    window.actions_by_name["order_front"].trigger()
    assert [item.id for item in window.store.page.items] == [two, three_, one]
    key(window, qtbot, Qt.Key.Key_BracketLeft, CONTROL)
    assert [item.id for item in window.store.page.items] == [two, one, three_]


def test_copy_cut_paste_duplicate_and_delete_by_keys(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    click(window, middle(window, one))
    key(window, qtbot, Qt.Key.Key_C, CONTROL)
    key(window, qtbot, Qt.Key.Key_V, CONTROL)
    assert len(window.store.page.items) == 4
    key(window, qtbot, Qt.Key.Key_D, CONTROL)
    assert len(window.store.page.items) == 5
    key(window, qtbot, Qt.Key.Key_Delete)
    assert len(window.store.page.items) == 4
    key(window, qtbot, Qt.Key.Key_A, CONTROL)
    assert len(window.store.chosen.items) == 4
    key(window, qtbot, Qt.Key.Key_X, CONTROL)
    assert window.store.page.items == ()
    key(window, qtbot, Qt.Key.Key_V, CONTROL)
    assert len(window.store.page.items) == 4


def test_items_are_pasted_on_another_page(window: Window, qtbot: QtBot) -> None:
    chart = window.store.document.charts[0].id
    fresh(window, qtbot, (ChartFrame("", chart=chart), ONE), arrangement="two beside")
    key(window, qtbot, Qt.Key.Key_A, CONTROL)
    key(window, qtbot, Qt.Key.Key_C, CONTROL)
    charts = window.store.document.charts
    window.actions_by_name["add_page"].trigger()
    window.pages.canvas.setFocus()
    key(window, qtbot, Qt.Key.Key_V, CONTROL)
    (item,) = window.store.page.items
    assert isinstance(item, ChartFrame)
    assert item.chart == chart
    assert window.store.document.charts == charts


def test_words_are_typed_in_place_with_their_own_undo(window: Window, qtbot: QtBot) -> None:
    (one,) = fresh(window, qtbot, (Words("", paragraphs=plain("old")), ONE))
    double_click(window, middle(window, one))
    editor = window.pages.canvas.editor
    assert editor.is_open
    qtbot.keyClicks(editor, "Mirefen ")
    qtbot.keyClick(editor, Qt.Key.Key_B, CONTROL)
    qtbot.keyClicks(editor, "grows")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    qtbot.keyClicks(editor, "{page}")
    qtbot.keyClick(editor, Qt.Key.Key_Escape)
    item = window.store.page.item(one)
    assert isinstance(item, Words)
    assert [paragraph.text for paragraph in item.paragraphs] == ["Mirefen grows", "{page}"]
    assert [run.bold for run in item.paragraphs[0].runs] == [False, True]
    assert str(window.store.history.undo_name) == "type words"
    window.store.undo()
    assert window.store.page.item(one).text == "old"  # type: ignore[union-attr]


def test_words_left_as_they_were_are_no_step(window: Window, qtbot: QtBot) -> None:
    (one,) = fresh(window, qtbot, (Words("", paragraphs=plain("two\nlines", "middle"), size=18), ONE))
    name = window.store.history.undo_name
    double_click(window, middle(window, one))
    click(window, spot(window, 500, 700))
    assert window.store.history.undo_name == name
    assert not window.pages.canvas.editor.is_open


def test_a_chart_goes_into_the_bay_it_is_dropped_in(window: Window, qtbot: QtBot) -> None:
    first, second = (one.id for one in window.store.document.charts[:2])
    fresh(window, qtbot, arrangement="two above")
    page = window.store.page
    top, bottom = bays(page)
    window.pages.canvas.put_chart(second, QPointF(*bottom.center))
    window.pages.charts.put_wanted.emit(first)
    assert [(item.chart, item.bay) for item in window.store.page.items if isinstance(item, ChartFrame)] == [
        (second, 1), (first, 0),
    ]  # fmt: skip
    assert boxes(window)["i2"] == top


def test_a_seam_is_dragged_and_both_bays_follow(window: Window, qtbot: QtBot) -> None:
    charts = [one.id for one in window.store.document.charts[:2]]
    fresh(window, qtbot, arrangement="two above")
    for chart in charts:
        window.pages.canvas.put_chart(chart)
    top, bottom = bays(window.store.page)
    y = (top.bottom + bottom.y) / 2
    drag(window, spot(window, 300, y), spot(window, 300, y + 60))
    new_top, new_bottom = bays(window.store.page)
    assert new_top.bottom == pytest.approx(top.bottom + 60, abs=2)
    assert new_bottom.height == pytest.approx(bottom.height - 60, abs=2)
    assert str(window.store.history.undo_name) == "move seam"


def test_dragging_an_item_from_bay_to_bay_swaps(window: Window, qtbot: QtBot) -> None:
    charts = [one.id for one in window.store.document.charts[:2]]
    fresh(window, qtbot, arrangement="two above")
    for chart in charts:
        window.pages.canvas.put_chart(chart)
    drag(window, middle(window, "i1"), middle(window, "i2"))
    assert [window.store.page.item(one).bay for one in ("i1", "i2")] == [1, 0]
    assert str(window.store.history.undo_name) == "put into bay"


def test_step_controls_offer_their_periods(window: Window, qtbot: QtBot) -> None:
    chart = next(one.id for one in window.store.document.charts if one.recipe == "stepping")
    _, steps = fresh(window, qtbot, (ChartFrame("", chart=chart), Rect(60, 100, 400, 240)),
                     (StepControl(""), Rect(60, 380, 300, 40)))  # fmt: skip
    double_click(window, middle(window, steps))
    menu = open_menu(window)
    second = menu.actions()[1]
    second.trigger()
    assert window.store.document.chart(chart).settings["step"] == 2.0
    assert window.store.page_picture().made[steps].says == second.text()


def test_colours_are_dropped_on_items_and_on_the_page(window: Window, qtbot: QtBot) -> None:
    one, two = fresh(window, qtbot, (DrawnShape(""), ONE), (KeyFigure("", value="=1"), TWO))
    canvas = window.pages.canvas
    for item, at in ((one, ONE.center), (two, TWO.center), ("", (500.0, 700.0))):
        canvas.dropped.emit(item, "#336644", QPointF(*at))
    page = window.store.page
    assert page.item(one).fill == "#336644"  # type: ignore[union-attr]
    assert page.item(two).colour == "#336644"  # type: ignore[union-attr]
    assert page.ground == "#336644"


def test_the_picture_of_the_page_is_drawn_while_items_move(window: Window, qtbot: QtBot) -> None:
    """What stands still comes from a picture made once; what moves lies where it is tried out."""
    one, *_ = three(window, qtbot)
    canvas = window.pages.canvas
    before = canvas.grab().toImage()
    drag(window, middle(window, one), spot(window, 400, 600), ALT, let_go=False)
    during = canvas.grab().toImage()
    place = spot(window, 400, 600)
    assert during.pixelColor(place) == before.pixelColor(middle_of(window, ONE))
    assert during.pixelColor(middle_of(window, ONE)) != before.pixelColor(middle_of(window, ONE))
    assert during.pixelColor(middle_of(window, THREE)) == before.pixelColor(middle_of(window, THREE))


def middle_of(window: Window, box: Rect):  # type: ignore[no-untyped-def]
    return spot(window, *box.center)


def test_items_that_overflow_are_marked(window: Window, qtbot: QtBot) -> None:
    (one,) = fresh(window, qtbot, (Words("", paragraphs=plain("word " * 300)), ONE))
    assert window.store.page_picture().overflowing == [one]
    image = window.pages.canvas.grab().toImage()
    corner = spot(window, ONE.right, ONE.bottom)
    red = image.pixelColor(corner.x() - 4, corner.y() - 4)
    assert red.red() > red.green() + 60


def test_zoom_and_back(window: Window, qtbot: QtBot) -> None:
    three(window, qtbot)
    canvas = window.pages.canvas
    fit = canvas.factor
    window.actions_by_name["page_larger"].trigger()
    assert canvas.factor == pytest.approx(1.25 * fit)
    window.actions_by_name["page_fit"].trigger()
    qtbot.waitUntil(lambda: abs(canvas.factor - fit) < 1e-6)


def test_undo_of_a_page_s_edit_when_the_page_is_gone(window: Window, qtbot: QtBot) -> None:
    three(window, qtbot)
    count = len(window.store.document.pages)
    window.store.edit_page(page_edits.say("x"), lambda document, page: page_edits.delete_page(document, page.id))
    assert len(window.store.document.pages) == count - 1
    window.store.undo()
    window.store.undo()
    assert len(window.store.document.pages) == count - 1
    assert window.store.has_page


def test_control_and_arrows_stretch_and_move_the_seam_of_a_bay(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    click(window, middle(window, one))
    key(window, qtbot, Qt.Key.Key_Right, CONTROL | SHIFT)
    key(window, qtbot, Qt.Key.Key_Up, CONTROL)
    assert boxes(window)[one] == Rect(100, 120, 130, 79)
    charts = [chart.id for chart in window.store.document.charts[:2]]
    fresh(window, qtbot, arrangement="two above")
    for chart in charts:
        window.pages.canvas.put_chart(chart)
    top, bottom = bays(window.store.page)
    window.store.choose_items("i2")
    key(window, qtbot, Qt.Key.Key_Down, CONTROL | SHIFT)
    new_top, new_bottom = bays(window.store.page)
    assert new_top.height == pytest.approx(top.height + 10)
    assert new_bottom.height == pytest.approx(bottom.height - 10)
    assert window.store.page.item("i2").bay == 1


def test_a_click_moves_nothing_after_a_drag_that_was_let_go_elsewhere(window: Window, qtbot: QtBot) -> None:
    one, *_ = three(window, qtbot)
    start = middle(window, one)
    drag(window, start, start + QPoint(40, 30), let_go=False)
    window.store.try_out(None)
    before = boxes(window)[one]
    click(window, middle(window, one))
    assert boxes(window)[one] == before


def test_f2_touches_a_chart_s_parts(window: Window, qtbot: QtBot) -> None:
    chart = window.store.document.charts[0].id
    (one,) = fresh(window, qtbot, (ChartFrame("", chart=chart), Rect(60, 100, 400, 300)))
    key(window, qtbot, Qt.Key.Key_Tab)
    key(window, qtbot, Qt.Key.Key_F2)
    assert window.pages.canvas.frame.item == one
    qtbot.keyClick(window.pages.canvas.frame, Qt.Key.Key_Tab)
    assert window.store.selection


def typing(window: Window, qtbot: QtBot, text: str) -> str:
    """Words with a text in them, being typed, all of it chosen."""
    (one,) = fresh(window, qtbot, (Words("", paragraphs=plain(text)), Rect(60, 100, 400, 200)))
    double_click(window, middle(window, one))
    return one


def test_the_bar_over_words_sets_their_look(window: Window, qtbot: QtBot) -> None:
    one = typing(window, qtbot, "Reeds and water")
    editor = window.pages.canvas.editor
    bar = editor.bar
    assert bar.isVisible()
    cursor = editor.textCursor()
    cursor.setPosition(0)
    cursor.setPosition(5, cursor.MoveMode.KeepAnchor)
    editor.setTextCursor(cursor)
    for name in ("bold", "italic", "larger"):
        bar.buttons[name].click()
    bar.buttons["colour"].click()
    open_menu(window).actions()[2].trigger()
    bar.buttons["face"].click()
    next(one for one in open_menu(window).actions() if one.text() == "serif").trigger()
    editor.finish()
    assert not bar.isVisible()
    item = window.store.page.item(one)
    assert isinstance(item, Words)
    first, rest = item.paragraphs[0].runs
    assert (first.text, first.bold, first.italic, first.colour) == ("Reeds", True, True, "tone2")
    assert first.size is not None
    assert (first.family, rest.family) == ("serif", None)
    assert (rest.text, rest.bold, rest.italic, rest.size, rest.colour) == (" and water", False, False, None, "")


def test_what_the_bar_set_is_shown_again_and_kept(window: Window, qtbot: QtBot) -> None:
    one = typing(window, qtbot, "Reeds")
    editor = window.pages.canvas.editor
    editor.resize_type(1.5)
    editor.colour("tone3")
    editor.finish()
    before = window.store.page.item(one)
    double_click(window, middle(window, one))
    qtbot.keyClick(editor, Qt.Key.Key_Escape)
    assert window.store.page.item(one) is before


def test_alignment_and_lists_by_keys(window: Window, qtbot: QtBot) -> None:
    one = typing(window, qtbot, "one\ntwo")
    editor = window.pages.canvas.editor
    qtbot.keyClick(editor, Qt.Key.Key_E, CONTROL)
    qtbot.keyClick(editor, Qt.Key.Key_L, CONTROL | SHIFT)
    editor.finish()
    item = window.store.page.item(one)
    assert isinstance(item, Words)
    assert [(p.text, p.align, p.listing) for p in item.paragraphs] == [
        ("one", "middle", "dots"), ("two", "middle", "dots"),
    ]  # fmt: skip
    double_click(window, middle(window, one))
    editor.selectAll()
    qtbot.keyClick(editor, Qt.Key.Key_L, CONTROL | SHIFT)
    qtbot.keyClick(editor, Qt.Key.Key_R, CONTROL)
    editor.finish()
    item = window.store.page.item(one)
    assert isinstance(item, Words)
    assert [(p.align, p.listing) for p in item.paragraphs] == [("end", ""), ("end", "")]


def test_a_field_is_put_in_from_the_bar_and_f10_reaches_it(window: Window, qtbot: QtBot) -> None:
    one = typing(window, qtbot, "old")
    editor = window.pages.canvas.editor
    qtbot.keyClick(editor, Qt.Key.Key_F10)
    assert editor.is_open
    editor.bar.buttons["field"].click()
    open_menu(window).actions()[1].trigger()
    editor.finish()
    item = window.store.page.item(one)
    assert isinstance(item, Words)
    assert item.text == "{page}"
    number = str(window.store.page_picture().number)
    assert window.store.page_picture().made[one].says == number


def test_what_does_not_fit_or_fails_is_said_beside(window: Window, qtbot: QtBot) -> None:
    items = fresh(window, qtbot, (Words("", paragraphs=plain("word " * 300)), ONE),
                  (KeyFigure("", value="=1/0"), TWO), (ChartFrame("", chart="gone"), THREE))  # fmt: skip
    note = window.pages.fields.note
    said = []
    for item in items:
        window.store.choose_items(item)
        assert note.isVisible()
        said.append(note.text())
    assert "fits" in said[0]
    assert "#DIV/0!" in said[1]
    assert "chart" in said[2]
    window.store.choose_items()
    assert not note.isVisible()
