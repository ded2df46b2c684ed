"""Writing a file so that it holds the old content or the new, never a part."""

import os
import tempfile
from pathlib import Path

from kavlet.core.values.errors import KavletError


def write(path: Path, content: bytes) -> None:
    """Write through a neighbouring file and a rename. Raises KavletError when the place can't be written."""
    target = path.resolve()
    try:
        handle, name = tempfile.mkstemp(prefix=f".{target.name[:40]}.", dir=target.parent)
        try:
            with os.fdopen(handle, "wb") as file:
                file.write(content)
                file.flush()
                os.fsync(file.fileno())
            os.chmod(name, _mode(target))
            os.replace(name, target)
        except BaseException:
            Path(name).unlink(missing_ok=True)
            raise
    except OSError as error:
        reason = (error.strerror or str(error)).lower()
        raise KavletError(f"{path} can’t be written: {reason}.", remedy="Choose another place.") from None


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
            raise KavletError(f"{path} is a folder, not a file.")
        if path.stat().st_size > most:
            raise KavletError(f"{path.name} is larger than {most // 1_000_000} MB.")
        return path.read_bytes()
    except FileNotFoundError:
        raise KavletError(f"{path} is not there.") from None
    except OSError as error:
        raise KavletError(f"{path} can’t be read: {(error.strerror or str(error)).lower()}.") from None
