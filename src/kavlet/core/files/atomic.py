"""Writing a file so that it holds the old content or the new, never a part."""

import errno
import os
import tempfile
from collections.abc import Iterable
from pathlib import Path

from kavlet.core.messages import Message, say
from kavlet.core.values.errors import KavletError


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
    except OSError as error:
        raise KavletError(
            say("{file} can’t be written: {reason}.", file=path, reason=reason(error)),
            remedy=say("Choose another place."),
        ) from None
    finally:
        for name, _ in ready:
            Path(name).unlink(missing_ok=True)


def _beside(target: Path, content: bytes) -> tuple[str, Path]:
    """The name of a new file beside a target with its content, and the target."""
    handle, name = tempfile.mkstemp(prefix=f".{target.name[:40]}.", dir=target.parent)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        os.chmod(name, _mode(target))
    except BaseException:
        Path(name).unlink(missing_ok=True)
        raise
    return name, target


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
        return target.stat().st_mode & 0o777
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
    except FileNotFoundError:
        raise KavletError(say("{file} is not there.", file=path)) from None
    except OSError as error:
        raise KavletError(say("{file} can’t be read: {reason}.", file=path, reason=reason(error))) from None
