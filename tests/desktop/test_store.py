"""The store: what it announces, trials, refusals, and views that do not depend on who was told first."""

import gc
from collections.abc import Callable
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.interaction.parts import Part
from kavlet.core.layout.figure import Figure
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError
from kavlet.desktop.main import Window, open_window
from kavlet.desktop.store import Store
from tests.desktop.hands import figure, show
from tests.making import document, table

ROWS = table(["stage", "people"], ["Visits", "Walks", "Members"], [90, 60, 30])


class Heard:
    """What a store has announced since it was asked last."""

    def __init__(self, store: Store) -> None:
        self._names: list[str] = []
        for name in ("edited", "shown", "viewed", "selected"):
            getattr(store, name).connect(lambda name=name: self._names.append(name))

    def __call__(self) -> list[str]:
        names, self._names = self._names, []
        return names


@pytest.fixture
def store(request: pytest.FixtureRequest) -> Store:
    request.getfixturevalue("qapp")
    made = Store()
    made.load(document("funnel", ROWS), None, "Visitor path")
    return made


def inked(of: Document, ink: int) -> Document:
    return look_edits.set_looks(of, "k1", {"ink": ink})


def ink(store: Store) -> object:
    return store.here.dress.overrides.get("ink")


def test_edits_views_and_choices_are_told_apart(store: Store) -> None:
    heard = Heard(store)
    store.apply("change ink", inked(store.document, 1))
    assert heard() == ["edited"]
    store.apply("change ink", inked(store.document, 1))
    assert heard() == [], "nothing has changed"
    store.try_out(inked(store.document, 2))
    assert heard() == ["shown"]
    store.show_xray(True)
    store.fold(True)
    assert heard() == ["viewed", "viewed"]
    store.select(Part("layer", "value"))
    assert heard() == ["selected"]
    store.show_table("t1")
    assert heard() == ["shown"]


@pytest.mark.parametrize("way", ["undo", "redo"])
def test_undo_and_redo_end_a_trial_and_move(store: Store, way: str) -> None:
    for value in (1, 2, 3):
        store.apply("change ink", inked(store.document, value))
    store.undo()
    store.try_out(inked(store.document, 0))
    getattr(store, way)()
    assert not store.trying
    assert ink(store) == {"undo": 1, "redo": 3}[way]


@pytest.mark.parametrize("way", ["undo", "redo"])
def test_where_nothing_can_be_undone_or_redone_a_trial_ends_all_the_same(store: Store, way: str) -> None:
    store.try_out(inked(store.document, 0))
    heard = Heard(store)
    getattr(store, way)()
    assert heard() == ["shown"]
    assert ink(store) is None


@pytest.mark.usefixtures("qapp")
def test_an_edit_of_the_chart_does_nothing_without_one() -> None:
    store, heard = Store(), Heard(empty := Store())
    assert not store.edit_chart("change ink", lambda *_: pytest.fail("there is no chart"))
    assert not empty.edit_table("insert rows", lambda *_: pytest.fail("there is no table"))
    assert heard() == []
    with pytest.raises(KavletError, match="There is no chart"):
        _ = store.here
    with pytest.raises(KavletError, match="There is no table"):
        _ = store.there


def test_what_the_core_refuses_is_said_in_one_place(store: Store, qtbot: QtBot) -> None:
    with qtbot.waitSignal(store.refused) as said:
        done = store.edit_table("delete rows", lambda document, table: edits.delete_rows(document, table.id, 0))
    assert not done
    assert "The row of names stays." in said.args[0]
    assert ink(store) is None


def test_names_of_edits_are_written_in_the_readers_language(store: Store) -> None:
    store.apply(say("change {what}", what=say("label position")), inked(store.document, 1))
    assert store.history.undo_name == "change label position"


def test_pictures_of_deleted_charts_are_let_go(store: Store) -> None:
    def held() -> int:
        gc.collect()
        return sum(isinstance(one, Figure) and one.title == "To be let go" for one in gc.get_objects())

    store.edit_chart("x", lambda document, chart: edits.change_chart(document, chart.id, title="To be let go"))
    assert store.drawn.figure.title == "To be let go"
    assert held() == 1
    store.edit_chart("x", lambda document, chart: chart_edits.delete_chart(document, chart.id))
    assert held() == 0


def test_undoing_all_counts_as_unchanged(store: Store, tmp_path: Path) -> None:
    store.saved(tmp_path / "path.kavlet")
    store.apply("change ink", inked(store.document, 1))
    assert store.history.changed
    store.apply("change ink", look_edits.give_back(store.document, "k1", ["ink"]))
    assert not store.history.changed, "it is another document, but an equal one"


@pytest.mark.usefixtures("window")
def test_views_do_not_depend_on_who_is_told_first(qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    """All followers of a second window are told in the opposite order; it shows the same."""
    following: list[tuple[Store, Callable[[], object], bool]] = []
    follow = Store.follow
    monkeypatch.setattr(Store, "follow", lambda store, call, view=False: following.append((store, call, view)))
    made = open_window(demo=False)
    qtbot.addWidget(made, before_close_func=lambda one: one.store.history.saved())
    assert len(following) > 8
    for one in reversed(following):
        follow(*one)
    made.files.open_demo()
    show(made, "pie")
    made.store.edit_chart("x", lambda document, chart: edits.change_chart(document, chart.id, title="Another title"))
    made.store.show_xray(True)
    assert [text.text for text in figure(made).texts if text.kind == "title"] == ["Another title"]
    assert made.stage.xray.isChecked()
    assert made.stage.ink.value() == made.store.spec.ink
    assert made.dress.texts["title"].text() == "Another title"
    assert made.figures.tabs.tabText(made.figures.tabs.currentIndex()) == made.store.there.name
    assert made.figures.grid.cells.table is made.store.there


def test_the_sentence_at_the_foot_goes_with_the_next_edit(window: Window) -> None:
    window.store.tell("Something is wrong.")
    assert window.saying.text() == "Something is wrong."
    show(window, "funnel")
    window.store.edit_chart("x", lambda document, chart: edits.change_chart(document, chart.id, title="New"))
    assert window.saying.text() == ""


def test_every_command_is_declared_once_and_has_words(window: Window) -> None:
    names = [one.name for one in window.menus.commands.all]
    assert len(names) == len(set(names)) > 80
    assert all(one.text and one.menu for one in window.menus.commands.all)
    keys = [one.shortcut for one in window.menus.commands.all if one.shortcut and not one.own_keys]
    assert len(keys) == len(set(keys))
    by_place = [(one.menu, one.shortcut) for one in window.menus.commands.all if one.shortcut]
    assert len(by_place) == len(set(by_place))  # a page and the table each have their own Copy


def test_commands_that_need_something_are_off_without_it(window: Window) -> None:
    window.store.load(Document(), None, "")
    actions = window.actions_by_name
    for name in ("deliver", "insert_rows", "copy_chart", "toggle_solid", "paste_dress", "rename_table", "find"):
        assert not actions[name].isEnabled(), name
    for name in ("new_document", "open_document", "paste", "add_empty_table", "about", "find_command"):
        assert actions[name].isEnabled(), name
