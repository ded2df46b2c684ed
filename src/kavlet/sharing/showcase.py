"""The showcase: pages published on this machine under lasting addresses, with versions, until they are taken back.

What is published is kept in a folder with an index; `server.py` shows it.
"""

import secrets
from datetime import datetime
from pathlib import Path

import msgspec
import platformdirs
from msgspec import Struct

from kavlet.core.files import atomic
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

MAX_BYTES = 100_000_000
FIRST_PORT = 47_210  # of those that nobody has registered (IANA); the one that was free at first is kept


class PublishedVersion(Struct, frozen=True):
    """One version of a published page: its number from 1, and when it was published."""

    number: int
    when: datetime


class Publication(Struct, frozen=True):
    """A page: what is in its address, what it was made of (so that it is found again), its title and versions."""

    token: str
    key: str
    title: str
    versions: tuple[PublishedVersion, ...]
    taken_back: bool = False


class Index(Struct, frozen=True):
    """All that was ever published, and the port of all addresses."""

    port: int = FIRST_PORT
    pages: tuple[Publication, ...] = ()


def folder() -> Path:
    """Where published pages are kept."""
    return Path(platformdirs.user_data_dir("kavlet")) / "showcase"


def index() -> Index:
    """What is published; nothing where the index can't be read."""
    path = folder() / "index.json"
    if not path.exists():
        return Index()
    try:
        return msgspec.json.decode(atomic.read(path, MAX_BYTES), type=Index)
    except (msgspec.MsgspecError, KavletError):
        return Index()


def keep(held: Index) -> None:
    """Write the index. Raises KavletError where it can't be written."""
    home = folder()
    try:
        home.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise KavletError(say("{file} can’t be written: {reason}.", file=home, reason=atomic.reason(error))) from None
    atomic.write(home / "index.json", msgspec.json.format(msgspec.json.encode(held), indent=1))


def page_file(token: str, version: int) -> Path:
    """Where a version is kept."""
    return folder() / token / f"{version}.html"


def publish(key: str, title: str, content: bytes, when: datetime | None = None) -> Publication:
    """Publish a page: what was published of the same before gets a new version under its old address. Raises
    KavletError where it can't be kept."""
    known = index()
    old = next((publication for publication in known.pages if publication.key == key), None)
    token = old.token if old is not None else secrets.token_urlsafe(9)
    versions = old.versions if old is not None else ()
    version = PublishedVersion(len(versions) + 1, (when or datetime.now()).replace(microsecond=0))
    new_publication = Publication(token, key, title, (*versions, version))
    path = page_file(token, version.number)
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise KavletError(
            say("{file} can’t be written: {reason}.", file=path.parent, reason=atomic.reason(error))
        ) from None
    atomic.write(path, content)
    others = tuple(publication for publication in known.pages if publication.key != key)
    keep(msgspec.structs.replace(known, pages=(new_publication, *others)))
    return new_publication


def take_back(token: str) -> None:
    """Take a page back: its address stays, and says that it is gone; its files are deleted."""
    held = index()
    pages = []
    for publication in held.pages:
        if publication.token == token:
            for version in publication.versions:
                page_file(token, version.number).unlink(missing_ok=True)
            publication = msgspec.structs.replace(publication, taken_back=True)  # noqa: PLW2901
        pages.append(publication)
    keep(msgspec.structs.replace(held, pages=tuple(pages)))


def address(page: Publication, version: int = 0) -> str:
    """The lasting address of a page; of one of its versions where that is not 0."""
    return f"http://127.0.0.1:{index().port}/{page.token}" + (f"/v{version}" if version else "")
