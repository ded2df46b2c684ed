"""What is made when it is first asked for is whole then, whatever happened before."""

from collections.abc import Iterator

import pytest
from pytestqt.qtbot import QtBot

from kavlet.desktop.main import Window, open_window
from kavlet.desktop.on_demand import OnDemand


@pytest.fixture
def demo_window(qtbot: QtBot) -> Iterator[Window]:
    window = open_window(None, demo=True)
    yield window
    window.leave()
    window.hide()
    window.deleteLater()
    qtbot.wait(1)


def test_the_first_call_makes_it_and_tells_those_that_wait() -> None:
    made: list[int] = []
    part, told = OnDemand(lambda: made.append(1) or len(made)), []
    part.when_made(told.append)
    assert (part.made, told) == (None, [])
    assert part() == part() == 1
    part.when_made(told.append)
    assert told == [1, 1]


@pytest.mark.at_rest
def test_places_are_whole_when_they_are_first_seen(demo_window: Window, qtbot: QtBot) -> None:
    places, document = demo_window.places, demo_window.store.document
    assert (places.pages_part.made, places.wall_part.made, places.start_part.made) == (None, None, None)
    demo_window.actions_by_name["show_pages"].trigger()
    assert demo_window.pages.strip.count() == len(document.pages)
    qtbot.waitUntil(lambda: bool(demo_window.pages.fields.rows), timeout=10_000)
    demo_window.actions_by_name["show_stage"].trigger()
    qtbot.waitUntil(lambda: bool(demo_window.dress.rows), timeout=10_000)
    assert demo_window.dress.isVisible()
    assert demo_window.splitter.indexOf(demo_window.dress) == 2
    demo_window.actions_by_name["open_recipes"].trigger()
    assert demo_window.wall.isVisible()


@pytest.mark.at_rest
@pytest.mark.parametrize("first", ["stage", "pages"])
def test_dress_takes_the_room_that_was_kept_for_it(demo_window: Window, qtbot: QtBot, first: str) -> None:
    """Whether the splitter is seen while Dress is made or not."""
    demo_window.resize(1280, 800)
    qtbot.waitExposed(demo_window)
    before = demo_window.splitter.sizes()
    if first == "pages":
        demo_window.actions_by_name["show_pages"].trigger()
    dress = demo_window.dress
    demo_window.actions_by_name["show_stage"].trigger()
    assert [demo_window.splitter.indexOf(place) for place in (demo_window.figures, demo_window.stage, dress)] == [
        0,
        1,
        2,
    ]
    assert demo_window.splitter.count() == 3
    assert demo_window.splitter.sizes() == pytest.approx(before, abs=2)


@pytest.mark.at_rest
def test_a_document_that_was_there_before_its_window_is_read_by_proof(demo_window: Window, qtbot: QtBot) -> None:
    qtbot.waitUntil(lambda: demo_window.desk.is_up_to_date, timeout=60_000)
    demo_window.actions_by_name["show_proof"].trigger()
    assert demo_window.desk.proof is not None
    assert demo_window.proof_panel.isVisible()
    assert demo_window.proof_panel.list.topLevelItemCount() > 0
