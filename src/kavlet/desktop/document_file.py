"""The document's file as it was when it was opened or saved here, to tell when another has written it since."""

from pathlib import Path

from kavlet.core.files.file_stamp import FileStamp, stamp_of
from kavlet.core.messages import say


class DocumentFile:
    """A file, and what it was like; `stamp` None where nobody knows, so that it is asked before it is overwritten."""

    def __init__(self, path: Path | None, stamp: FileStamp | None) -> None:
        self._path, self.stamp = path, stamp

    @staticmethod
    def now(path: Path | None) -> "DocumentFile":
        """A file as it is now."""
        return DocumentFile(path, stamp_of(path))

    def doubt(self, path: Path) -> str:
        """Why it should be asked before writing to a path; empty when nothing speaks against it."""
        there = _stat(path)
        if self._path is not None and path.resolve() == self._path.resolve():
            if there is None:
                return str(say("“{file}” is not there any more.", file=path.name))
            if self.stamp is None or not self.stamp.fits(path):
                return str(say("“{file}” was written by another window or program since then.", file=path.name))
        if there is not None and not there[0] & 0o200:
            return str(say("“{file}” is write-protected.", file=path.name))
        if there is not None and there[1] > 1:
            return str(say("“{file}” has another name, which would keep what it holds now.", file=path.name))
        return ""


def _stat(path: Path) -> tuple[int, int] | None:
    """A file's mode and the number of its names; None where there is none."""
    try:
        found = path.stat()
    except (OSError, ValueError):
        return None
    return found.st_mode, found.st_nlink
