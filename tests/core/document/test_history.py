"""Undo as a list of documents, by name."""

import msgspec

from kavlet.core.document.document import Document
from kavlet.core.document.history import History
from kavlet.core.messages import say


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
