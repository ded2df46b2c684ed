"""What a file was like at some time, to tell whether another window or program has written it since."""

import hashlib
from pathlib import Path

from msgspec import Struct


class FileStamp(Struct, frozen=True, array_like=True):
    """A file's length in bytes, when it was changed (nanoseconds since 1970), and the SHA-256 of what it held."""

    length: int
    changed: int
    digest: bytes

    def fits(self, path: Path) -> bool:
        """Whether a file is as it was. One that was only touched is; one that is gone, or can't be read, is not."""
        now = _state(path)
        return now is not None and (now == (self.length, self.changed) or _digest(path) == self.digest)


def stamp_of(path: Path | None) -> FileStamp | None:
    """What a file is like now; None where there is none, or it can't be read."""
    state = _state(path) if path is not None else None
    digest = _digest(path) if path is not None else b""
    return FileStamp(*state, digest) if state is not None and digest else None


def _state(path: Path) -> tuple[int, int] | None:
    try:
        found = path.stat()
    except (OSError, ValueError):
        return None
    return found.st_size, found.st_mtime_ns


def _digest(path: Path) -> bytes:
    try:
        return hashlib.sha256(path.read_bytes()).digest()
    except (OSError, ValueError):
        return b""
