"""The journal of an open document: every edit, soon after it was made, so that a crash takes nothing along.

A file of records, each with its length and CRC-32 (ISO 3309): what was torn by a crash is cut off at the first record
that is not whole. The first holds the document it began with; each edit is a patch on the one before, small however
large the document is. A lock tells that somebody is still writing: what nobody holds was left behind.
"""

import fcntl
import io
import os
import struct
import time
import zlib
from collections.abc import Iterator, Sequence
from contextlib import suppress
from datetime import datetime
from pathlib import Path
from typing import Any, BinaryIO

import msgspec
import platformdirs
from msgspec import Struct

from kavlet.core.document.document import Document
from kavlet.core.document.history import History, Step
from kavlet.core.files import atomic
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.file_stamp import FileStamp
from kavlet.core.messages import NOTHING, say
from kavlet.core.values.errors import KavletError
from kavlet.core.values.patches import difference, patched
from kavlet.core.values.xml_text import encoded

MAGIC = b"KAVLET JOURNAL 1\n"
SUFFIX = ".journal"
UNREAD = ".unread"
HEAD = struct.Struct("<IIB")  # length, CRC-32, whether it is deflated
PACKED_FROM = 400  # bytes, from which on a record is deflated
MAX_BYTES = 64_000_000  # of a journal; beyond, it is written anew with the last steps
MAX_RECORD = 256_000_000
KEPT_STEPS = 200


class BeginRecord(Struct, frozen=True, array_like=True, tag="begun"):
    """The first record: the document it began with, its file and name, and when."""

    document: bytes
    path: str
    name: str
    when: float
    saved: bool
    stamp: FileStamp | None = None


class EditRecord(Struct, frozen=True, array_like=True, tag="edited"):
    """An edit: the place in the history it took, its name, and what it changed of the document before."""

    place: int
    name: str
    patch: list[Any] | None
    when: float


class MoveRecord(Struct, frozen=True, array_like=True, tag="moved"):
    """Undone or redone, to a place in the history."""

    place: int
    when: float


class SaveRecord(Struct, frozen=True, array_like=True, tag="saved"):
    """The document of a place in the history went into a file."""

    place: int
    path: str
    when: float
    stamp: FileStamp | None = None


class DraftRecord(Struct, frozen=True, array_like=True, tag="drafted"):
    """What was being typed after the record before: its text, the name of the edit that takes it and what that changes;
    not `taken` where it can't be taken as it was. An empty text says that nothing is typed any more."""

    name: str
    text: str
    patch: list[Any] | None
    taken: bool
    when: float


Record = BeginRecord | EditRecord | MoveRecord | SaveRecord | DraftRecord
_encode = msgspec.msgpack.Encoder().encode
_decode = msgspec.msgpack.Decoder(Record).decode


class Draft(Struct, frozen=True):
    """What is being typed: its text, the name of the edit that takes it, and the document after it; None where it can't
    be taken as it is."""

    name: str
    text: str
    document: Document | None


class JournalContent(Struct, frozen=True):
    """What a journal kept: the history, the document's file and name, when it was last edited, whether it holds what no
    file does, what the file was like, and what was being typed where it could not be taken. What could is the last
    step."""

    file: Path
    history: History
    path: Path | None
    name: str
    when: datetime
    unsaved: bool
    stamp: FileStamp | None = None
    typed: str = ""

    @property
    def document(self) -> Document:
        """The document as it was last."""
        return self.history.current


def folder() -> Path:
    """Where journals are kept."""
    return Path(platformdirs.user_state_dir("kavlet")) / "journals"


def record_bytes(record: Record) -> bytes:
    """A record as the file holds it."""
    content = encoded(_encode, record)
    deflated = len(content) >= PACKED_FROM
    held = zlib.compress(content, 1) if deflated else content
    return HEAD.pack(len(held), zlib.crc32(held), deflated) + held


def records(content: bytes) -> Iterator[Record]:
    """The records of a journal's bytes, up to the first that is not whole."""
    if not content.startswith(MAGIC):
        return
    at = len(MAGIC)
    while at + HEAD.size <= len(content):
        length, check, deflated = HEAD.unpack_from(content, at)
        held = content[at + HEAD.size : at + HEAD.size + length]
        if len(held) < length or zlib.crc32(held) != check:
            return
        try:
            yield _decode(_inflated(held) if deflated else held)
        except (msgspec.MsgspecError, zlib.error, ValueError):
            return
        at += HEAD.size + length


def _inflated(held: bytes) -> bytes:
    made = zlib.decompressobj()
    content = made.decompress(held, MAX_RECORD)
    if made.unconsumed_tail:
        raise ValueError("The record is too large.")
    return content


def read(file: Path) -> JournalContent | None:
    """What a journal kept; None where it holds nothing that can be used."""
    try:
        found = records(atomic.read(file, 4 * MAX_BYTES))
        first = next(found, None)
        if not isinstance(first, BeginRecord):
            return None
        steps = [Step(NOTHING, kavlet_file.loads(first.document, file.name))]
        place, path, when, stamp = 0, first.path, first.when, first.stamp
        draft: DraftRecord | None = None
        saved: Document | None = steps[0].document if first.saved else None
        for record in found:
            draft = record if isinstance(record, DraftRecord) else None
            match record:
                case EditRecord(at, name, patch, moment) if 0 < at <= len(steps):
                    document = _after(steps[at - 1].document, patch)
                    if document is None:
                        break  # what came before is good
                    steps[at:] = [Step(say("{name}", name=name), document)]
                    place, when = at, moment
                case MoveRecord(at, moment) if 0 <= at < len(steps):
                    place, when = at, moment
                case SaveRecord(at, where, moment, as_it_was) if 0 <= at < len(steps):
                    saved, path, when, stamp = steps[at].document, where, moment, as_it_was
                case DraftRecord():
                    when = record.when
                case _:
                    break
    except (KavletError, ValueError):
        return None
    typed = draft.text if draft is not None else ""
    taken = _after(steps[place].document, draft.patch) if draft is not None and draft.taken else None
    if taken is not None and draft is not None:
        steps[place + 1 :] = [Step(say("{name}", name=draft.name), taken)]
        place, typed = place + 1, ""
    history = History.of(steps, place, saved)
    unsaved = history.changed or bool(typed)
    where_to = Path(path) if path else None
    return JournalContent(file, history, where_to, first.name, datetime.fromtimestamp(when), unsaved, stamp, typed)


def _after(document: Document, patch: list[Any] | None) -> Document | None:
    """The document after an edit; None where the patch does not fit it."""
    try:
        return patched(document, patch)
    except (KavletError, msgspec.MsgspecError, ValueError, TypeError, KeyError, IndexError, AttributeError):
        return None


def left_behind() -> list[JournalContent]:
    """What nobody writes any more and holds edits that no file does, the latest first. Journals that hold nothing else
    are removed; those that can't be read, as a newer Kavlet's, are set aside and not looked at again."""
    found = []
    for half in folder().glob("*.new"):  # begun by a program that was killed
        if _free(half):
            with suppress(OSError):
                half.unlink()
    for file in sorted(folder().glob(f"*{SUFFIX}")):
        if not _free(file):
            continue
        content = read(file)
        if content is None:
            with suppress(OSError):
                file.replace(file.with_suffix(UNREAD))
        elif not content.unsaved:
            remove(file)
        else:
            found.append(content)
    return sorted(found, key=lambda content: content.when, reverse=True)


def _free(file: Path) -> bool:
    """Whether no running program writes a journal."""
    try:
        with file.open("rb") as held:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
            return True
    except OSError:
        return False


def remove(file: Path) -> None:
    """Remove a journal."""
    file.unlink(missing_ok=True)


def _drafted(draft: Draft | None, before: Document, now: float) -> DraftRecord:
    """The record of what is being typed; that nothing is, too."""
    if draft is None:
        return DraftRecord("", "", None, False, now)
    taken = draft.document is not None
    patch = difference(before, draft.document) if taken else None
    return DraftRecord(draft.name, draft.text, patch, taken, now)


class Journal:
    """Writes the journal of one document. `follow` takes the steps of a history as they are now."""

    def __init__(self, path: Path | None, name: str, home: Path | None = None) -> None:
        home = home or folder()
        home.mkdir(parents=True, exist_ok=True, mode=0o700)
        self.file = home / f"{time.time_ns():x}-{os.getpid()}{SUFFIX}"
        self._path, self._name = path, name
        self._held: BinaryIO | None = None
        self._steps: list[Step] = []
        self._place = 0
        self._saved: Document | None = None
        self._draft: Draft | None = None
        self._offset = 0  # steps of the history before the first that is kept
        self._length = 0

    def follow(
        self, steps: Sequence[Step], place: int, saved: Document | None, path: Path | None,
        stamp: FileStamp | None = None, draft: Draft | None = None,
    ) -> None:  # fmt: skip
        """Write what has changed since the last time, and wait until it is on the disk. Raises OSError where it can't
        be written; what was written before stays."""
        if self._held is None or self._length > MAX_BYTES or place < self._offset:
            self._begin(steps, place, saved, path, stamp, draft)
            return
        whole, steps, place = steps, steps[self._offset :], place - self._offset
        common = 0
        while common < min(len(steps), len(self._steps)) and steps[common] is self._steps[common]:
            common += 1
        if common == 0:
            self._begin(whole, place + self._offset, saved, path, stamp, draft)
            return
        made: list[Record] = []
        now = time.time()
        for at in range(common, len(steps)):
            patch = difference(steps[at - 1].document, steps[at].document)
            made.append(EditRecord(at, str(steps[at].name), patch, now))
            self._place = at
        if self._place != place:
            made.append(MoveRecord(place, now))
        if saved is steps[place].document and saved is not self._saved:
            made.append(SaveRecord(place, str(path or ""), now, stamp))
        if draft != self._draft or (made and draft is not None):
            made.append(_drafted(draft, steps[place].document, now))
        self._note(steps, place, saved, path)
        self._draft = draft
        if made:
            self._write(b"".join(map(record_bytes, made)))

    def _note(self, steps: Sequence[Step], place: int, saved: Document | None, path: Path | None) -> None:
        self._steps, self._place, self._saved, self._path = list(steps), place, saved, path

    def _begin(
        self, steps: Sequence[Step], place: int, saved: Document | None, path: Path | None, stamp: FileStamp | None,
        draft: Draft | None,
    ) -> None:  # fmt: skip
        """A journal of its own from a step on that is not too long ago, in the place of the one before."""
        first = max(0, place - KEPT_STEPS)
        now = time.time()
        document = steps[first].document
        begun = BeginRecord(kavlet_file.dumps(document), str(path or ""), self._name, now, saved is document, stamp)
        journal_records: list[Record] = [begun]
        for step in range(first + 1, len(steps)):
            patch = difference(steps[step - 1].document, steps[step].document)
            journal_records.append(EditRecord(step - first, str(steps[step].name), patch, now))
            if saved is steps[step].document:
                journal_records.append(SaveRecord(step - first, str(path or ""), now, stamp))
        if place != len(steps) - 1:
            journal_records.append(MoveRecord(place - first, now))
        if draft is not None:
            journal_records.append(_drafted(draft, steps[place].document, now))
        content = MAGIC + b"".join(map(record_bytes, journal_records))
        beside = self.file.with_suffix(".new")
        file = beside.open("w+b")
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
            os.replace(beside, self.file)
        except OSError:
            file.close()
            with suppress(OSError):
                beside.unlink()
            raise
        if self._held is not None:
            self._held.close()
        self._held, self._length = file, len(content)
        self._offset = first  # places of records count from the first step that is kept
        self._note(steps[first:], place - first, saved, path)
        self._draft = draft

    def _write(self, content: bytes) -> None:
        assert self._held is not None
        try:
            self._held.seek(0, io.SEEK_END)
            self._held.write(content)
            self._held.flush()
            os.fsync(self._held.fileno())
        except OSError:
            # Nobody knows what of it is there, and what comes after it would follow on what is not: begun anew.
            held, self._held = self._held, None
            with suppress(OSError):
                held.close()
            raise
        self._length += len(content)

    def close(self, keep: bool) -> None:
        """Let go of the file; unless it is kept, remove it."""
        if self._held is not None:
            self._held.close()
            self._held = None
        if not keep:
            remove(self.file)
