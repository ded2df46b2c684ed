"""Earlier versions of saved documents: what a file held before it was saved over, kept in the state folder."""

import hashlib
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path

import platformdirs
from msgspec import Struct

from kavlet.core.document.document import Document
from kavlet.core.files import atomic
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.values.errors import KavletError

MAX_VERSIONS = 10  # of one document; where more are kept, those closest in time to another go first
_FORM = "%Y%m%dT%H%M%S%f"


class Version(Struct, frozen=True):
    """One earlier version: when the file was saved so, and where its copy lies."""

    when: datetime
    file: Path

    @property
    def document(self) -> Document:
        """Raises KavletError when it can't be read."""
        return kavlet_file.load(self.file)


def _folder(path: Path) -> Path:
    name = hashlib.sha256(str(path.resolve()).encode("utf-8", "surrogateescape")).hexdigest()[:32]
    return Path(platformdirs.user_state_dir("kavlet")) / "versions" / name


def versions(path: Path) -> list[Version]:
    """What is kept of a document's file, the newest first."""
    found: list[Version] = []
    for file in _folder(path).glob(f"*{kavlet_file.SUFFIX}"):
        with suppress(ValueError):
            when = datetime.strptime(file.name.removesuffix(kavlet_file.SUFFIX), _FORM).replace(tzinfo=UTC)
            found.append(Version(when.astimezone(), file))
    return sorted(found, key=lambda version: version.when, reverse=True)


def keep(path: Path) -> None:
    """Keep what a file holds now, before it is saved over. Raises KavletError when it can't be kept."""
    if not path.exists():
        return
    content = atomic.read(path, kavlet_file.MAX_BYTES)
    held = versions(path)
    with suppress(KavletError):
        if held and atomic.read(held[0].file, kavlet_file.MAX_BYTES) == content:
            return
    folder = _folder(path)
    when = datetime.fromtimestamp(path.stat().st_mtime, UTC)
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    except OSError as error:
        raise KavletError(atomic.reason(error)) from None
    atomic.write(folder / f"{when:{_FORM}}{kavlet_file.SUFFIX}", content)
    _thin(versions(path))


def _thin(held: list[Version]) -> None:
    """Leave out the version that is closest to the one before it, the newest and the oldest never."""
    while len(held) > MAX_VERSIONS:
        gaps = [(held[i - 1].when - held[i + 1].when, i) for i in range(1, len(held) - 1)]
        held.pop(min(gaps)[1]).file.unlink(missing_ok=True)
