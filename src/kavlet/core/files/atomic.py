"""Writing a file so that it holds the old content or the new, never a part."""

import errno
import glob
import os
import tempfile
import time
from collections.abc import Iterable
from contextlib import suppress
from pathlib import Path

from kavlet.core.messages import Message, say
from kavlet.core.values.errors import KavletError

_PART = ".part"
LEFT_AFTER = 60.0  # seconds: no write takes as long


def write(path: Path, content: bytes) -> None:
    """Write through a neighbouring file and a rename. Raises KavletError when the place can't be written."""
    write_all([(path, content)])


def write_all(files: Iterable[tuple[Path, bytes]]) -> None:
    """Write several files, none of them before all are on the disk beside their places. Raises KavletError when one
    can't be written; then none is."""
    ready: list[tuple[str, Path]] = []
    path = Path()
    try:
        for path, content in files:
            ready.append(_beside(path.resolve(), content))
        for name, target in ready:
            os.replace(name, target)
    except (RuntimeError, ValueError):  # a link to itself; a name that no file can have
        raise KavletError(say("There can be no file {file}.", file=path), remedy=say("Choose another place.")) from None
    except OSError as error:
        raise KavletError(
            say("{file} can’t be written: {reason}.", file=path, reason=reason(error)),
            remedy=say("Choose another place."),
        ) from None
    finally:
        for name, _ in ready:
            _away(name)


def _beside(target: Path, content: bytes) -> tuple[str, Path]:
    """The name of a new file beside a target with its content, and the target."""
    prefix = f".{os.fsencode(target.name)[:40].decode('utf-8', 'ignore')}."
    _clear(target.parent, prefix)
    handle, name = tempfile.mkstemp(prefix=prefix, suffix=_PART, dir=target.parent)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        _like(name, target)
    except BaseException:
        _away(name)
        raise
    return name, target


def _away(name: str) -> None:
    """Take a part of a file away; where that fails, it is cleared by a later write."""
    with suppress(OSError):
        os.unlink(name)


def _clear(folder: Path, prefix: str) -> None:
    """Take away what a write that was killed has left beside a target."""
    with suppress(OSError):
        for one in folder.glob(f"{glob.escape(prefix)}*{_PART}"):
            if time.time() - one.stat().st_mtime > LEFT_AFTER:
                one.unlink(missing_ok=True)


def _like(name: str, target: Path) -> None:
    """Give a new file the mode of its target and, where the system lets us, its owner and attributes."""
    with suppress(OSError):
        state = target.stat()
        os.chown(name, state.st_uid, state.st_gid)
        for attribute in os.listxattr(target):
            os.setxattr(name, attribute, os.getxattr(target, attribute))
    with suppress(PermissionError):
        os.chmod(name, _mode(target))  # last, as changing the owner takes marks away


REASONS = {
    errno.EACCES: say("permission denied"),
    errno.EPERM: say("permission denied"),
    errno.ENOENT: say("no such file or directory"),
    errno.ENOTDIR: say("not a directory"),
    errno.EISDIR: say("is a directory"),
    errno.ENOSPC: say("no space left on device"),
    errno.EDQUOT: say("disk quota exceeded"),
    errno.EROFS: say("read-only file system"),
    errno.ENAMETOOLONG: say("file name too long"),
    errno.ELOOP: say("too many levels of symbolic links"),
    errno.EIO: say("input/output error"),
}


def reason(error: OSError) -> Message:
    """Why the system refused a file: the usual reasons in the reader's language, others in the system's."""
    return REASONS.get(error.errno or 0) or say("{reason}", reason=(error.strerror or str(error)).lower())


def _mode(target: Path) -> int:
    if target.exists():
        return target.stat().st_mode & 0o7777
    mask = os.umask(0)
    os.umask(mask)
    return 0o666 & ~mask


def read(path: Path, most: int) -> bytes:
    """The bytes of a file of at most `most` bytes. Raises KavletError when it can't be read or is larger."""
    try:
        if path.is_dir():
            raise KavletError(say("{file} is a folder, not a file.", file=path))
        if path.exists() and not path.is_file():  # a pipe or a device, which may never end
            raise KavletError(say("{file} is no file that can be read from end to end.", file=path))
        if path.stat().st_size > most:
            raise KavletError(say("{file} is larger than {most} MB.", file=path.name, most=most // 1000000))
        return path.read_bytes()
    except (RuntimeError, ValueError):
        raise KavletError(say("There can be no file {file}.", file=path)) from None
    except FileNotFoundError:
        raise KavletError(say("{file} is not there.", file=path)) from None
    except OSError as error:
        raise KavletError(say("{file} can’t be read: {reason}.", file=path, reason=reason(error))) from None
