"""The document's file as it was when it was opened or saved here, to tell when another has written it since."""

import hashlib
from pathlib import Path

from kavlet.core.messages import say


class OnDisk:
    """A file's state: its size and date, and its content, as some programs only touch a file."""

    def __init__(self, path: Path | None) -> None:
        self._path = path
        self._state, self._digest = _state(path), _digest(path)

    def doubt(self, path: Path) -> str:
        """Why it should be asked before writing to a path; empty when nothing speaks against it."""
        state = _state(path)
        if self._path is not None and path.resolve() == self._path.resolve():
            if state is None:
                return str(say("“{file}” is not there any more.", file=path.name))
            if state != self._state and _digest(path) != self._digest:
                return str(say("“{file}” was written by another window or program since then.", file=path.name))
        if state is not None and not path.stat().st_mode & 0o200:
            return str(say("“{file}” is write-protected.", file=path.name))
        if state is not None and path.stat().st_nlink > 1:
            return str(say("“{file}” has another name, which would keep what it holds now.", file=path.name))
        return ""


def _state(path: Path | None) -> tuple[int, int] | None:
    try:
        found = path.stat() if path is not None else None
    except (OSError, ValueError):
        return None
    return None if found is None else (found.st_size, found.st_mtime_ns)


def _digest(path: Path | None) -> bytes:
    try:
        return hashlib.sha256(path.read_bytes()).digest() if path is not None else b""
    except (OSError, ValueError):
        return b""
