"""Keeps the journal of the window's document, off its thread: an edit is safe at most two seconds after it was made."""

import threading
from collections.abc import Callable
from pathlib import Path

from msgspec import Struct
from PySide6.QtCore import QObject, QTimer, Signal

from kavlet.core.document.document import Document
from kavlet.core.document.history import Step
from kavlet.core.files.file_stamp import FileStamp
from kavlet.core.files.journal import Draft, Journal
from kavlet.core.messages import say
from kavlet.desktop.draft_edits import DraftEdit
from kavlet.desktop.store import Store

PAUSE = 0.4  # seconds that edits are gathered before they are written together

TYPED = 400  # milliseconds after which what is being typed is looked at; typing on does not put it off


class _Snapshot(Struct, frozen=True, eq=False):
    """All there was to keep at one moment. `draft` is the edit that would take what is being typed, `typed` its
    text."""

    steps: tuple[Step, ...]
    place: int
    saved: Document | None
    path: Path | None
    name: str
    stamp: FileStamp | None
    draft: DraftEdit | None
    typed: str


class JournalWriter(QObject):
    """Follows a store. `failed` tells, once, why edits can't be kept, such as a full disk. `also` gives an edit that is
    not made yet, such as figures changed while presenting."""

    failed = Signal(str)

    def __init__(
        self, store: Store, parent: QObject | None = None, also: Callable[[], DraftEdit | None] = lambda: None
    ) -> None:
        super().__init__(parent)
        self._store, self._also = store, also
        self._journal: Journal | None = None
        self._first: object = None
        self._seen: _Snapshot | None = None
        self._written: _Snapshot | None = None
        self._ended = False
        self._told = False
        self._changed = threading.Condition()
        self._writing = threading.Lock()
        self._thread: threading.Thread | None = None
        self._typing = QTimer(self)
        self._typing.setSingleShot(True)
        self._typing.setInterval(TYPED)
        self._typing.timeout.connect(self._follow)
        store.edited.connect(self._follow)
        store.pending_text.changed.connect(self.look_soon)
        self._follow()

    def look_soon(self) -> None:
        """Something is being typed, or changed otherwise without an edit: keep it before long."""
        if not self._typing.isActive():
            self._typing.start()

    def _follow(self) -> None:
        """Note what there is now; nothing is written while nothing is unsaved."""
        store, history, pending = self._store, self._store.history, self._store.pending_text
        draft, typed = self._also(), ""
        if pending.editor is not None and pending.editor.keeps_draft and pending.is_changed:
            draft, typed = store.rehearse(pending.editor.hand_over), pending.editor.typed_text()
        with self._changed:
            if self._ended:
                return
            if not history.changed and self._journal is None and draft is None and not typed:
                return
            stamp = store.on_disk.stamp
            self._seen = _Snapshot(
                history.steps, history.place, history.held, store.path, store.name, stamp, draft, typed
            )
            if self._thread is None:
                self._thread = threading.Thread(target=self._run, name="kavlet-journal", daemon=True)
                self._thread.start()
            self._changed.notify_all()

    def _run(self) -> None:
        while True:
            with self._changed:
                while self._seen is self._written and not self._ended:
                    self._changed.wait()
                if self._ended:
                    return
                self._changed.wait(PAUSE)  # what is edited meanwhile goes along; an end does not wait
            self._write()

    def _write(self) -> None:
        with self._writing:
            self._write_seen()

    def _write_seen(self) -> None:
        with self._changed:
            seen = self._seen
        if seen is None or seen is self._written:
            return
        draft = _drafted(seen)
        try:
            if self._journal is None or self._first is not seen.steps[0]:
                if self._journal is not None:  # another document is open
                    self._journal.close(keep=False)
                self._journal, self._first = Journal(seen.path, seen.name), seen.steps[0]
            self._journal.follow(seen.steps, seen.place, seen.saved, seen.path, seen.stamp, draft)
            self._told = False
        except OSError as error:
            if not self._told:
                self._told = True
                reason = (error.strerror or str(error)).lower()
                self.failed.emit(str(say("Edits can’t be kept against a crash: {reason}.", reason=reason)))
        self._written = seen

    def flush(self) -> None:
        """Write what is not written yet, now."""
        self._write()

    def close(self, keep: bool) -> None:
        """End: the journal goes with the document, unless it is kept for the next start."""
        with self._changed:
            self._ended = True
            self._changed.notify_all()
        if self._thread is not None:
            self._thread.join(timeout=5)
        if keep:
            self._write()
        if self._journal is not None:
            self._journal.close(keep=keep)
            self._journal = None


def _drafted(seen: _Snapshot) -> Draft | None:
    """What is being typed, with the document after it; None where nothing is."""
    if seen.draft is None:
        return Draft("", seen.typed, None) if seen.typed else None
    try:
        document: Document | None = seen.draft.edit()
    except Exception:  # it is only tried out, and the thread that keeps all else must go on
        document = None
    return Draft(str(seen.draft.name), seen.typed, document)
