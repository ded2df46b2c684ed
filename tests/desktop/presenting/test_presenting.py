"""Pages presented: turned, stepped, darkened, listed; figures changed before the audience, kept or dropped."""

import itertools
from collections.abc import Iterator

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtWidgets import QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.document.pages import page_edits
from kavlet.core.files import journal
from kavlet.core.messages import say
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pipeline.page_items.page_context import chart_box
from kavlet.core.pipeline.page_items.step_control import parts
from kavlet.core.values.geometry import Rect
from kavlet.desktop.main import Window
from kavlet.desktop.presenting import show as showing
from kavlet.desktop.presenting.audience_screen import AudienceScreen
from kavlet.desktop.presenting.show import Show, eased

Key = Qt.Key


@pytest.fixture
def stage(window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> Iterator[AudienceScreen]:
    """Three pages presented: a chart that steps with its control, a key figure with a chart, an empty one."""
    monkeypatch.setattr(showing, "MOVE", 60)
    monkeypatch.setattr(showing, "PAUSE", 20)
    charts = window.store.document.charts
    stepping = next(one.id for one in charts if one.recipe == "stepping")
    columns = next(one.id for one in charts if one.recipe == "funnel")
    table = next(one for one in window.store.document.tables if one.id == window.store.document.chart(columns).table)

    def made(document):  # type: ignore[no-untyped-def]
        for page in document.pages:
            document = page_edits.delete_page(document, page.id)
        document, first = page_edits.add_page(document, "Slide 16:9", name="Steps", speaker="Say hello")
        document, _ = page_edits.put(document, first, ChartFrame("", chart=stepping), Rect(60, 60, 600, 300))
        document, _ = page_edits.put(document, first, StepControl(""), Rect(60, 400, 400, 40))
        document, second = page_edits.add_page(document, "Slide 16:9", name="Figures")
        value = f"='{table.name}'!B2"
        document, _ = page_edits.put(
            document, second, KeyFigure("", value=value, caption="visits"), Rect(60, 60, 200, 120)
        )
        document, _ = page_edits.put(document, second, ChartFrame("", chart=columns), Rect(300, 60, 560, 400))
        document, _skipped = page_edits.add_page(document, "Slide 16:9", name="Skipped", skipped=True)
        document, _ = page_edits.add_page(document, "A4", name="Last")
        return document

    assert window.store.edit(say("x"), made)
    window.presenting.present()
    shown = window.presenting.stage
    assert shown is not None
    shown.resize(1280, 720)
    qtbot.waitExposed(shown)
    yield shown
    if window.presenting.stage is not None:
        window.presenting.stage.show_of.figures.clear()
        window.presenting.end()


def name(stage: AudienceScreen) -> str:
    return stage.show_of.page.name


def rest(stage: AudienceScreen, qtbot: QtBot) -> None:
    qtbot.waitUntil(lambda: not stage.show_of.moving, timeout=5000)


def on_screen(stage: AudienceScreen, x: float, y: float) -> QPoint:
    picture = stage.show_of.picture()
    sheet = stage.sheet(picture)
    by = sheet.width() / picture.scene.size.width
    return QPointF(sheet.x() + x * by, sheet.y() + y * by).toPoint()


def test_pages_turn_by_all_keys_and_skipped_ones_are_left_out(stage: AudienceScreen, qtbot: QtBot) -> None:
    stage.show_of.go_to(1)
    for forth, back in ((Key.Key_Right, Key.Key_Left), (Key.Key_PageDown, Key.Key_PageUp), (Key.Key_Space,
                        Key.Key_Backspace), (Key.Key_Down, Key.Key_Up)):  # fmt: skip
        qtbot.keyClick(stage, forth)
        assert name(stage) == "Last"
        qtbot.keyClick(stage, back)
        assert name(stage) == "Figures"
    qtbot.keyClick(stage, Key.Key_Space)
    qtbot.keyClick(stage, Key.Key_Space, Qt.KeyboardModifier.ShiftModifier)
    assert name(stage) == "Figures"
    qtbot.keyClick(stage, Key.Key_Home)
    assert name(stage) == "Steps"
    qtbot.keyClick(stage, Key.Key_End)
    assert name(stage) == "Last"
    qtbot.keyClick(stage, Key.Key_Right)
    assert name(stage) == "Last"


def test_a_number_and_return_go_to_that_page(stage: AudienceScreen, qtbot: QtBot) -> None:
    qtbot.keyClicks(stage, "2")
    qtbot.keyClick(stage, Key.Key_Return)
    assert name(stage) == "Figures"
    qtbot.keyClicks(stage, "77")
    qtbot.keyClick(stage, Key.Key_Return)
    assert name(stage) == "Figures"


def test_arrows_step_through_periods_before_the_page_turns(stage: AudienceScreen, qtbot: QtBot) -> None:
    steps = stage.show_of.steps
    assert steps is not None
    for at in range(2, len(steps.periods) + 1):
        qtbot.keyClick(stage, Key.Key_Right)
        rest(stage, qtbot)
        now = stage.show_of.steps
        assert now is not None
        assert (name(stage), now.at) == ("Steps", at)
    qtbot.keyClick(stage, Key.Key_Right)
    assert name(stage) == "Figures"
    qtbot.keyClick(stage, Key.Key_Left)
    assert name(stage) == "Steps"
    now = stage.show_of.steps
    assert now is not None
    assert now.at == len(steps.periods)  # from behind, one comes to the last period


def test_stepping_moves_there_and_never_back(stage: AudienceScreen, qtbot: QtBot) -> None:
    found: list[float] = []

    def seen() -> None:
        drawn = stage.show_of.picture().made["i1"].picture
        assert drawn is not None
        found.append(drawn.figure.marks[0].value)

    seen()
    stage.show_of.moved.connect(seen)
    qtbot.keyClick(stage, Key.Key_Down)
    rest(stage, qtbot)
    way = 1 if found[-1] >= found[0] else -1
    assert len(set(found)) > 2
    assert all((after - before) * way >= -1e-9 for before, after in itertools.pairwise(found))


def test_playing_goes_through_all_periods(stage: AudienceScreen, qtbot: QtBot) -> None:
    steps = stage.show_of.steps
    assert steps is not None
    qtbot.keyClick(stage, Key.Key_P)
    qtbot.waitUntil(lambda: stage.show_of.steps is not None and stage.show_of.steps.at == len(steps.periods)
                    and not stage.show_of.playing, timeout=10_000)  # fmt: skip
    assert name(stage) == "Steps"


def test_a_click_on_the_step_control_goes_to_its_period(stage: AudienceScreen, qtbot: QtBot) -> None:
    qtbot.mouseClick(stage, Qt.MouseButton.LeftButton, pos=on_screen(stage, 458, 420))
    rest(stage, qtbot)
    steps = stage.show_of.steps
    assert steps is not None
    assert steps.at == len(steps.periods)
    assert name(stage) == "Steps"


def test_the_arrows_of_the_step_control_go_one_period(stage: AudienceScreen, qtbot: QtBot) -> None:
    picture = stage.show_of.picture()
    item = picture.page.item("i2")
    assert isinstance(item, StepControl)
    where = parts(item, picture.boxes["i2"], picture.style)
    assert where.back is not None
    assert where.forth is not None
    found = []
    for place in (where.forth, where.forth, where.back):
        qtbot.mouseClick(stage, Qt.MouseButton.LeftButton, pos=on_screen(stage, *place.center))
        rest(stage, qtbot)
        steps = stage.show_of.steps
        assert steps is not None
        found.append(steps.at)
    assert found == [2, 3, 2]
    assert name(stage) == "Steps"


def test_black_and_back(stage: AudienceScreen, qtbot: QtBot) -> None:
    for key in (Key.Key_B, Key.Key_Period):
        qtbot.keyClick(stage, key)
        image = stage.grab().toImage()
        assert image.pixelColor(stage.rect().center()).lightness() == 0
        assert image.pixelColor(200, 200).lightness() == 0
        qtbot.keyClick(stage, key)
        assert not stage.show_of.black
    qtbot.keyClick(stage, Key.Key_B)
    qtbot.keyClick(stage, Key.Key_End)
    assert not stage.show_of.black


def test_the_list_of_pages(stage: AudienceScreen, qtbot: QtBot) -> None:
    qtbot.keyClick(stage, Key.Key_Tab)
    assert stage.list.isVisible()
    assert [stage.list.item(i).text() for i in range(stage.list.count())] == ["1  Steps", "2  Figures", "3  Last"]
    qtbot.keyClick(stage.list, Key.Key_Escape)
    assert not stage.list.isVisible()
    qtbot.keyClick(stage, Key.Key_Tab)
    stage.list.setCurrentRow(2)
    qtbot.keyClick(stage.list, Key.Key_Return)
    assert name(stage) == "Last"
    assert not stage.list.isVisible()


def test_a_click_turns_and_the_other_button_turns_back(stage: AudienceScreen, qtbot: QtBot) -> None:
    stage.show_of.go_to(1)
    qtbot.mouseClick(stage, Qt.MouseButton.LeftButton, pos=QPoint(20, 700))
    assert name(stage) == "Last"
    qtbot.mouseClick(stage, Qt.MouseButton.RightButton, pos=QPoint(20, 700))
    assert name(stage) == "Figures"


def change(stage: AudienceScreen, qtbot: QtBot, text: str) -> None:
    """Click the funnel's first bar and type another number."""
    stage.show_of.go_to(1)
    picture = stage.show_of.picture()
    frame = picture.page.item("i2")
    drawn = picture.made["i2"].picture
    assert isinstance(frame, ChartFrame)
    assert drawn is not None
    area = chart_box(picture.boxes["i2"], False, picture.style)
    mark = next(one for one in drawn.figure.marks if one.row == 0 and one.visible and not one.helper)
    x, y = mark.bounds.center
    qtbot.mouseClick(stage, Qt.MouseButton.LeftButton, pos=on_screen(stage, area.x + x, area.y + y))
    assert stage.field.isVisible()
    stage.field.selectAll()
    qtbot.keyClicks(stage.field, text)
    qtbot.keyClick(stage.field, Key.Key_Return)


def test_a_figure_is_changed_and_all_that_shows_it_moves(stage: AudienceScreen, qtbot: QtBot, window: Window) -> None:
    before = window.store.document
    change(stage, qtbot, "9200")
    assert stage.show_of.moving
    rest(stage, qtbot)
    assert "9,200" in stage.show_of.picture().made["i1"].says
    assert window.store.document is before
    assert len(stage.show_of.figures) == 1


@pytest.mark.parametrize(("answer", "kept"), [("Keep", True), ("Drop", False)])
def test_leaving_asks_whether_to_keep_it(
    stage: AudienceScreen, qtbot: QtBot, window: Window, answer: str, kept: bool
) -> None:
    before = window.store.document
    change(stage, qtbot, "9200")
    rest(stage, qtbot)
    qtbot.keyClick(stage, Key.Key_Escape)
    question = window.presenting.question
    assert isinstance(question, QMessageBox)
    next(one for one in question.buttons() if one.text() == answer).click()
    assert window.presenting.stage is None
    if kept:
        assert window.store.document != before
        assert str(window.store.history.undo_name) == "change figures while presenting"
        window.store.undo()
    assert window.store.document == before


def test_going_on_presenting_keeps_everything_open(stage: AudienceScreen, qtbot: QtBot, window: Window) -> None:
    change(stage, qtbot, "9200")
    rest(stage, qtbot)
    qtbot.keyClick(stage, Key.Key_Escape)
    question = window.presenting.question
    assert question is not None
    next(one for one in question.buttons() if one.text() == "Go on presenting").click()
    assert window.presenting.stage is stage
    assert stage.show_of.figures


def test_steps_alone_ask_nothing(stage: AudienceScreen, qtbot: QtBot, window: Window) -> None:
    before = window.store.document
    qtbot.keyClick(stage, Key.Key_Right)
    qtbot.keyClick(stage, Key.Key_Escape)
    assert window.presenting.stage is None
    assert window.store.document is before


def test_a_number_that_is_none_is_said_and_stays(stage: AudienceScreen, qtbot: QtBot) -> None:
    change(stage, qtbot, "many")
    assert stage.field.isVisible()
    assert stage._said
    qtbot.keyClick(stage, Key.Key_Escape)
    assert not stage.field.isVisible()
    assert not stage.show_of.figures


def test_a_key_figure_is_changed_too(stage: AudienceScreen, qtbot: QtBot) -> None:
    stage.show_of.go_to(1)
    qtbot.mouseClick(stage, Qt.MouseButton.LeftButton, pos=on_screen(stage, 120, 90))
    assert stage.field.isVisible()
    stage.field.selectAll()
    qtbot.keyClicks(stage.field, "123")
    qtbot.keyClick(stage.field, Key.Key_Return)
    rest(stage, qtbot)
    assert "123" in stage.show_of.picture().made["i1"].says


def test_the_speaker_sees_words_the_next_page_and_the_time(stage: AudienceScreen, qtbot: QtBot, window: Window) -> None:
    qtbot.keyClick(stage, Key.Key_S)
    speaker = window.presenting.speaker
    assert speaker is not None
    assert speaker.words.text() == "Say hello"
    assert "Steps" in speaker.place.text()
    assert speaker.clock.text().count(":") == 1
    assert speaker.elapsed.text().startswith("0:00:")
    assert not speaker.soon.pixmap().isNull()
    qtbot.keyClick(speaker, Key.Key_End)
    assert name(stage) == "Last"
    assert "3" in speaker.place.text()
    assert speaker.soon.text()
    qtbot.keyClick(stage, Key.Key_S)
    assert window.presenting.speaker is None


def test_a_turned_page_is_ready(stage: AudienceScreen, qtbot: QtBot) -> None:
    stage.show_of.go_to(1)
    last = stage.show_of.pages[2]
    qtbot.waitUntil(lambda: last in stage._ready, timeout=5000)
    pixmap = stage._ready[last][2]
    stage.show_of.go_to(2)
    assert stage._pixmap(stage.show_of.picture()) is pixmap


def test_one_chart_in_full_view(window: Window, qtbot: QtBot) -> None:
    before = window.store.document
    window.actions_by_name["full_view"].trigger()
    stage = window.presenting.stage
    assert stage is not None
    assert len(stage.show_of.pages) == 1
    (item,) = stage.show_of.page.items
    assert isinstance(item, ChartFrame)
    assert item.chart == window.store.chart.id
    qtbot.keyClick(stage, Key.Key_Escape)
    assert window.presenting.stage is None
    assert window.store.document is before


def test_nothing_to_present_is_said(window: Window) -> None:
    store = window.store
    for page in store.document.pages:
        store.edit(say("x"), lambda document, page=page: page_edits.change_page(document, page.id, skipped=True))
    window.actions_by_name["present"].trigger()
    assert window.presenting.stage is None
    assert "present" in window.saying.text()


def test_presenting_begins_at_the_page_in_view_even_a_skipped_one(window: Window) -> None:
    page = window.store.document.pages[3]
    window.store.edit(say("x"), lambda document: page_edits.change_page(document, page.id, skipped=True))
    window.places.show_pages()
    window.store.show_page(page.id)
    window.pages.present.click()
    stage = window.presenting.stage
    assert stage is not None
    assert stage.show_of.page.id == page.id
    window.presenting.end()


def test_easing_is_monotone_from_nothing_to_all() -> None:
    path = [eased(i / 50) for i in range(51)]
    assert (path[0], path[-1]) == (0.0, 1.0)
    assert all(a <= b for a, b in itertools.pairwise(path))
    assert (eased(-1), eased(2)) == (0.0, 1.0)


def test_a_show_of_one_page_has_no_other(window: Window) -> None:
    document = window.store.document
    show = Show(document, (document.pages[0].id,))
    assert not show.turn(1)
    assert not show.turn(-1)


@pytest.mark.parametrize(("answer", "kept"), [("Keep", True), ("Drop", False), ("Go on presenting", None)])
def test_closing_the_window_asks_about_changed_figures_first(
    stage: AudienceScreen, qtbot: QtBot, window: Window, answer: str, kept: bool | None,
    monkeypatch: pytest.MonkeyPatch,
) -> None:  # fmt: skip
    asked: list[str] = []
    monkeypatch.setattr(QMessageBox, "exec", lambda box: asked.append(box.text()))
    window.store.history.saved()
    change(stage, qtbot, "9200")
    rest(stage, qtbot)
    assert not window.close()
    question = window.presenting.question
    assert question is not None
    next(one for one in question.buttons() if one.text() == answer).click()
    if kept is None:
        assert window.presenting.stage is stage
        assert window.isVisible()
        return
    assert window.presenting.stage is None
    if kept:
        qtbot.waitUntil(lambda: bool(asked))  # what is kept is no file's
        assert asked == ["Save the changes to “Mirefen year”?"]
        assert window.isVisible()
        assert str(window.store.history.undo_name) == "change figures while presenting"
    else:
        qtbot.waitUntil(lambda: not window.isVisible())
        assert not asked


def test_a_show_without_changes_ends_with_its_window(stage: AudienceScreen, window: Window) -> None:
    assert stage.isVisible()
    window.store.history.saved()
    assert window.close()
    assert window.presenting.stage is None


def test_a_number_that_is_left_is_taken(stage: AudienceScreen, qtbot: QtBot) -> None:
    change(stage, qtbot, "abc")
    assert stage.field.isVisible()
    assert stage._said
    stage.field.selectAll()
    qtbot.keyClicks(stage.field, "9200")
    qtbot.mouseClick(stage, Qt.MouseButton.LeftButton, pos=QPoint(20, 700))
    assert not stage.field.isVisible()
    assert list(stage.show_of.figures.values()) == [9200.0]
    assert not stage._said  # nothing wrong is left before the audience


def test_figures_whose_cells_are_gone_are_said_and_the_others_kept(
    stage: AudienceScreen, qtbot: QtBot, window: Window
) -> None:
    change(stage, qtbot, "9200")
    rest(stage, qtbot)
    (place,) = stage.show_of.figures
    window.store.edit(say("type"), lambda document: edits.insert_rows(document, place.table, 1))
    before = window.store.document
    qtbot.keyClick(stage, Key.Key_Escape)
    question = window.presenting.question
    assert question is not None
    next(one for one in question.buttons() if one.text() == "Keep").click()
    assert window.store.document is before
    assert "no cell any more" in window.saying.text()


def test_figures_changed_before_the_audience_are_kept_against_a_crash(
    stage: AudienceScreen, qtbot: QtBot, window: Window
) -> None:
    change(stage, qtbot, "9200")
    rest(stage, qtbot)
    (place,) = stage.show_of.figures
    window.keeper._follow()
    window.keeper.flush()
    (held,) = journal.folder().glob("*.journal")
    kept = journal.read(held)
    assert kept is not None
    assert kept.document.table(place.table).columns[place.column].cells[place.row] == 9200.0
