"""Keeps the journal of the window's document, off its thread: an edit is safe at most two seconds after it was made."""

import threading
from pathlib import Path

from PySide6.QtCore import QObject, Signal

from kavlet.core.document.document import Document
from kavlet.core.document.history import Step
from kavlet.core.files.journal import Journal
from kavlet.core.messages import say
from kavlet.desktop.store import Store

PAUSE = 0.4  # seconds that edits are gathered before they are written together

_Seen = tuple[tuple[Step, ...], int, Document | None, Path | None, str]


class Keeper(QObject):
    """Follows a store. `failed` tells, once, why edits can't be kept, such as a full disk."""

    failed = Signal(str)

    def __init__(self, store: Store, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._journal: Journal | None = None
        self._first: object = None
        self._seen: _Seen | None = None
        self._written: _Seen | None = None
        self._ended = False
        self._told = False
        self._changed = threading.Condition()
        self._writing = threading.Lock()
        self._thread: threading.Thread | None = None
        store.edited.connect(self._follow)
        self._follow()

    def _follow(self) -> None:
        """Note what there is now; nothing is written while nothing is unsaved."""
        history = self._store.history
        with self._changed:
            if self._ended:
                return
            if not history.changed and self._journal is None:
                return
            self._seen = (history.steps, history.place, history.held, self._store.path, self._store.name)
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
        steps, place, saved, path, name = seen
        try:
            if self._journal is None or self._first is not steps[0]:
                if self._journal is not None:  # another document is open
                    self._journal.close(keep=False)
                self._journal, self._first = Journal(path, name), steps[0]
            self._journal.follow(steps, place, saved, path)
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
