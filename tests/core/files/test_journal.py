"""The journal: patches that make the new document of the old one, and records that are whole or cut off."""

import itertools
import os
from pathlib import Path

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.history import History
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages import page_edits
from kavlet.core.files import journal
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.journal import Journal
from kavlet.core.messages import say
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.values.patches import difference, patched

DEMO = Path(__file__).parents[3] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"


@pytest.fixture
def demo() -> Document:
    return kavlet_file.load(DEMO)


def edited(document: Document) -> list[Document]:
    """The document after one edit of each kind after the other."""
    made = [document]
    table = document.tables[0].id
    made.append(edits.set_cells(made[-1], table, {(1, 2): 9000.0, (0, 3): "Letter"}))
    made.append(edits.insert_rows(made[-1], table, 3, 2))
    made.append(edits.delete_rows(made[-1], table, 2))
    made.append(edits.insert_columns(made[-1], table, 1))
    made.append(edits.set_cells(made[-1], table, {(1, 1): "=B2*2"}))
    made.append(look_edits.set_looks(made[-1], "k1", {"layers.value.fill": "#aa3311", "title.size": 18.0}))
    made.append(look_edits.set_looks(made[-1], "k1", {"layers.value.fill": {"fill": "hatch", "colour": "tone2"}}))
    made.append(look_edits.set_setting(made[-1], "k1", "gap", 30.0))
    made.append(edits.change_chart(made[-1], "k2", title="=A1", width=400.0))
    after, page = page_edits.add_page(made[-1], "A4", name="More")
    made.append(after)
    after, item = page_edits.put(after, page, Words("", paragraphs=plain("Some words\nand more")))
    made.append(after)
    made.append(edits.set_locale(made[-1], "de"))
    made.append(msgspec.structs.replace(made[-1], charts=made[-1].charts[:-3]))
    made.append(msgspec.structs.replace(made[-1], pages=()))
    del item
    return made


def sent(value: object) -> object:
    """As it is written and read again."""
    return msgspec.msgpack.decode(msgspec.msgpack.encode(value))


def test_a_patch_makes_the_new_document_of_the_old_one(demo: Document) -> None:
    made = edited(demo)
    for old, new in itertools.pairwise(made):
        assert patched(old, sent(difference(old, new))) == new  # type: ignore[arg-type]
        assert patched(new, sent(difference(new, old))) == old  # type: ignore[arg-type]


def test_a_patch_of_nothing_is_nothing(demo: Document) -> None:
    assert difference(demo, demo) is None
    assert difference(demo, kavlet_file.loads(kavlet_file.dumps(demo), "again")) is None


def test_what_an_edit_did_not_touch_stays_the_same_object(demo: Document) -> None:
    new = edits.set_cells(demo, demo.tables[0].id, {(1, 2): 9000.0})
    made = patched(demo, sent(difference(demo, new)))  # type: ignore[arg-type]
    assert made.tables[1] is demo.tables[1]
    assert made.charts is demo.charts


def test_an_edit_of_a_large_table_is_small() -> None:
    rows = [["name", "value"], *([f"Row {i}", float(i)] for i in range(20_000))]
    document, table = edits.add_table(Document(), "Large", rows)
    new = edits.set_cells(document, table, {(1, 777): 1.5})
    assert len(msgspec.msgpack.encode(difference(document, new))) < 200


def history(documents: list[Document]) -> History:
    made = History(documents[0])
    for number, document in enumerate(documents[1:], 1):
        made.apply(say("edit {number}", number=number), document)
    return made


def written(made: History, home: Path) -> Journal:
    held = Journal(home / "year.kavlet", "year", home)
    held.follow(made.steps, made.place, made.held, home / "year.kavlet")
    return held


def test_what_was_kept_is_read_back_with_its_history(demo: Document, tmp_path: Path) -> None:
    documents = edited(demo)
    made = history(documents[:5])
    held = written(made, tmp_path)
    for number, document in enumerate(documents[5:], 5):
        made.apply(say("edit {number}", number=number), document)
        held.follow(made.steps, made.place, made.held, tmp_path / "year.kavlet")
    made.undo()
    made.undo()
    held.follow(made.steps, made.place, made.held, tmp_path / "year.kavlet")
    held.close(keep=True)
    kept = journal.read(held.file)
    assert kept is not None
    assert (kept.path, kept.name, kept.unsaved) == (tmp_path / "year.kavlet", "year", True)
    assert kept.document == made.current
    assert kept.history.undo_name == made.undo_name
    while made.undo():
        assert kept.history.undo()
        assert kept.history.current == made.current
    while made.redo():
        assert kept.history.redo()
    assert kept.history.current == documents[-1]


def test_an_edit_after_undoing_takes_the_place_of_what_was_undone(demo: Document, tmp_path: Path) -> None:
    made = history(edited(demo)[:4])
    held = written(made, tmp_path)
    made.undo()
    made.undo()
    made.apply(say("another"), edits.set_locale(made.current, "fr"))
    held.follow(made.steps, made.place, made.held, None)
    held.close(keep=True)
    kept = journal.read(held.file)
    assert kept is not None
    assert kept.document == made.current
    assert not kept.history.redo()


def test_a_torn_journal_is_cut_off_at_the_last_whole_record(demo: Document, tmp_path: Path) -> None:
    documents = edited(demo)
    made = history(documents[:1])
    made.apply(say("first"), documents[1])
    held = written(made, tmp_path)
    ends = [held.file.stat().st_size]
    for document in documents[2:6]:
        made.apply(say("edit"), document)
        held.follow(made.steps, made.place, made.held, None)
        ends.append(held.file.stat().st_size)
    held.close(keep=True)
    content = held.file.read_bytes()
    for place in range(len(ends) - 1):
        for cut in (ends[place], ends[place] + 1, (ends[place] + ends[place + 1]) // 2, ends[place + 1] - 1):
            held.file.write_bytes(content[:cut])
            kept = journal.read(held.file)
            assert kept is not None
            assert kept.document == documents[place + 1]
    for at in (ends[0] + 3, ends[1] + 12, len(content) - 2):  # a byte that went wrong
        held.file.write_bytes(content[:at] + bytes([content[at] ^ 0x5A]) + content[at + 1 :])
        kept = journal.read(held.file)
        assert kept is not None
        assert kept.document in documents


@pytest.mark.parametrize("content", [b"", b"KAVLET JOURNAL 1\n", b"KAVLET JOURNAL 9\n" + bytes(50), bytes(4000),
                                     b"KAVLET JOURNAL 1\n" + b"\xff" * 300])  # fmt: skip
def test_what_is_no_journal_is_read_as_none(tmp_path: Path, content: bytes) -> None:
    file = tmp_path / "x.journal"
    file.write_bytes(content)
    assert journal.read(file) is None


def test_a_journal_in_use_is_left_alone(demo: Document, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(journal, "folder", lambda: tmp_path)
    held = written(history(edited(demo)[:3]), tmp_path)
    assert journal.left_behind() == []
    held.close(keep=True)
    (kept,) = journal.left_behind()
    assert kept.file == held.file


def test_what_a_file_holds_is_not_offered(demo: Document, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(journal, "folder", lambda: tmp_path)
    made = history(edited(demo)[:3])
    held = written(made, tmp_path)
    made.saved()
    held.follow(made.steps, made.place, made.held, tmp_path / "year.kavlet")
    held.close(keep=True)
    assert journal.left_behind() == []
    assert not held.file.exists()


def test_a_long_journal_is_written_anew_with_the_last_steps(demo: Document, tmp_path: Path,
                                                           monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    monkeypatch.setattr(journal, "MAX_BYTES", len(kavlet_file.dumps(demo)) + 1_500)
    monkeypatch.setattr(journal, "KEPT_STEPS", 5)
    made = History(demo)
    held = Journal(None, "demo", tmp_path)
    table = demo.tables[0].id
    for number in range(60):
        made.apply(say("type"), edits.set_cells(made.current, table, {(1, 2): float(number)}))
        held.follow(made.steps, made.place, made.held, None)
    held.close(keep=True)
    kept = journal.read(held.file)
    assert kept is not None
    assert kept.document == made.current
    assert 0 < len(kept.history.steps) < 60
    assert kept.history.undo()
    made.undo()
    assert kept.history.current == made.current


def test_a_closed_journal_is_removed(demo: Document, tmp_path: Path) -> None:
    held = written(history(edited(demo)[:3]), tmp_path)
    held.close(keep=False)
    assert os.listdir(tmp_path) == []


def test_an_edit_that_cannot_be_taken_over_loses_nothing_before_it(demo: Document, tmp_path: Path) -> None:
    documents = edited(demo)[:4]
    held = written(history(documents), tmp_path)
    held.close(keep=True)
    for patch in (["no", "patch"], [["tables", 99, {}]], [1, 2, 3], [None]):
        odd = journal.record_bytes(journal.EditRecord(len(documents), "odd", patch, 0.0))
        file = tmp_path / "odd.journal"
        file.write_bytes(held.file.read_bytes() + odd)
        kept = journal.read(file)
        assert kept is not None
        assert kept.document == documents[-1]


def test_a_journal_that_cannot_be_read_is_set_aside_and_not_thrown_away(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(journal, "folder", lambda: tmp_path)
    file = tmp_path / "tomorrow.journal"
    file.write_bytes(b"KAVLET JOURNAL 9\n" + bytes(50))
    assert journal.left_behind() == []
    assert [one.name for one in tmp_path.iterdir()] == ["tomorrow.unread"]
    assert (tmp_path / "tomorrow.unread").read_bytes().startswith(b"KAVLET JOURNAL 9")


def test_after_an_edit_that_could_not_be_written_the_next_is_kept(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    document = Document()
    history, kept = History(document), journal.Journal(None, "x", tmp_path)
    for locale in ("de-DE", "fr-FR", "nl-NL"):
        history.apply(say("locale"), msgspec.structs.replace(document, locale=locale))
        if locale == "fr-FR":
            with monkeypatch.context() as full:
                full.setattr(journal.os, "fsync", lambda _: (_ for _ in ()).throw(OSError("full")))
                with pytest.raises(OSError, match="full"):
                    kept.follow(history.steps, history.place, None, None)
        else:
            kept.follow(history.steps, history.place, None, None)
    kept.close(keep=True)
    found = journal.read(kept.file)
    assert found is not None
    assert found.document.locale == "nl-NL"


def test_what_a_killed_program_has_begun_is_cleared(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(journal, "folder", lambda: tmp_path)
    half = tmp_path / "1-1.new"
    half.write_bytes(b"half")
    assert journal.left_behind() == []
    assert not half.exists()
