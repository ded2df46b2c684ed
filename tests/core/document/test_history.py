"""Undo as a list of documents, by name."""

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document import history as history_module
from kavlet.core.document.document import Document
from kavlet.core.document.history import History
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Formula


def _documents() -> list[Document]:
    return [msgspec.structs.replace(Document(), locale=name) for name in ("en", "de", "fr")]


def test_steps_go_back_and_forth_by_name() -> None:
    first, second, third = _documents()
    history = History(first)
    assert (history.undo_name, history.redo_name, history.undo(), history.redo()) == ("", "", False, False)
    assert history.apply(say("set gap"), second)
    assert history.apply(say("set hole"), third)
    assert (history.undo_name, history.redo_name) == ("set hole", "")
    assert history.undo()
    assert (history.undo_name, history.redo_name) == ("set gap", "set hole")
    assert history.current is second
    assert history.undo()
    assert not history.undo()
    assert (history.undo_name, history.redo_name, history.current is first) == ("", "set gap", True)
    assert history.redo()
    assert history.redo()
    assert not history.redo()
    assert (history.redo_name, history.current is third) == ("", True)


def test_an_edit_that_changes_nothing_is_none_and_a_new_one_ends_what_could_be_redone() -> None:
    first, second, third = _documents()
    history = History(first)
    assert not history.apply(say("nothing"), first)
    assert not history.apply(say("nothing"), msgspec.structs.replace(first))
    assert history.undo_name == ""
    history.apply(say("one"), second)
    history.undo()
    history.apply(say("other"), third)
    assert (history.redo_name, history.undo_name) == ("", "other")


def test_what_is_saved_is_unchanged_until_the_next_edit() -> None:
    first, second, _ = _documents()
    history = History(first)
    assert not history.changed
    history.apply(say("one"), second)
    assert history.changed
    history.saved()
    assert not history.changed
    history.undo()
    assert history.changed
    history.redo()
    assert not history.changed


def test_a_document_that_equals_the_saved_one_is_unchanged() -> None:
    first, second, _ = _documents()
    history = History(first)
    history.apply(say("one"), second)
    history.apply(say("back by hand"), msgspec.structs.replace(second, locale="en"))
    assert history.current is not first
    assert not history.changed


def test_old_steps_are_undone_exactly_and_hold_no_columns(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(history_module, "WHOLE_STEPS", 5)
    document, table = edits.add_table(Document(), "T", [["a", "b"], *([float(i), "x"] for i in range(50))])
    history, seen = History(document), [document]
    for i in range(40):
        cell = Formula("=A2*2") if i % 5 == 0 else f"text {i}"
        changed = edits.set_cells(history.current, table, {(i % 2, 1 + i % 9): cell})
        if history.apply(say("edit"), edits.insert_rows(changed, table, 3) if i % 7 == 3 else changed):
            seen.append(history.current)
    assert sum(step._whole is not None for step in history.steps) <= 6
    for document in reversed(seen[:-1]):
        assert history.undo()
        assert history.current == document
    assert not history.undo()
    for document in seen[1:]:
        assert history.redo()
        assert history.current == document
    history.undo()
    history.apply(say("another"), edits.set_cells(history.current, table, {(0, 1): 9.0}))
    while history.undo():
        pass
    assert history.current == seen[0]
