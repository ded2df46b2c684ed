"""The outbox: a simulated mail service. It keeps what was "sent", and shows it; nothing leaves this machine."""

import email
import email.policy
from datetime import datetime
from email.message import EmailMessage
from pathlib import Path

import platformdirs
from msgspec import Struct

from kavlet.core.files import atomic
from kavlet.core.files.mail import SUFFIX
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

MAX_BYTES = 200_000_000


class OutboxMail(Struct, frozen=True):
    """A mail that was put there: its file, when, to whom, its subject, its words, its pictures, its files' names."""

    path: Path
    when: datetime
    to: str
    subject: str
    words: str
    pictures: tuple[bytes, ...]
    files: tuple[str, ...]


def folder() -> Path:
    """Where mails are kept."""
    return Path(platformdirs.user_data_dir("kavlet")) / "outbox"


def send(content: bytes, when: datetime | None = None) -> OutboxMail:
    """Put a mail into the outbox. Raises KavletError for one without an addressee, or where it can't be kept."""
    made = _parsed(content)
    if not made["to"]:
        raise KavletError(say("The mail has no addressee."), remedy=say("Type one, such as name@example.org."))
    moment = when or datetime.now()
    home = folder()
    try:
        home.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise KavletError(say("{file} can’t be written: {reason}.", file=home, reason=atomic.reason(error))) from None
    number, stem = 1, f"{moment:%Y%m%d-%H%M%S}"
    while (path := home / f"{stem}-{number}{SUFFIX}").exists():
        number += 1
    atomic.write(path, content)
    return read(path)


def mails() -> list[OutboxMail]:
    """All that was sent, the latest first; what can't be read is left out."""
    found = []
    for path in sorted(folder().glob(f"*{SUFFIX}"), reverse=True):
        try:
            found.append(read(path))
        except KavletError:
            continue
    return found


def read(path: Path) -> OutboxMail:
    """A mail of the outbox. Raises KavletError where it can't be read."""
    made = _parsed(atomic.read(path, MAX_BYTES))
    body = made.get_body(("plain",))
    pictures = tuple(
        bytes(part.get_payload(decode=True))
        for part in made.walk()
        if part.get_content_maintype() == "image" and part.get_content_disposition() == "inline"
    )
    return OutboxMail(
        path,
        _moment(path),
        str(made["to"] or ""),
        str(made["subject"] or ""),
        body.get_content() if body is not None else "",
        pictures,
        tuple(part.get_filename() or "" for part in made.iter_attachments()),
    )


def delete(path: Path) -> None:
    """Take a mail out of the outbox."""
    if path.parent == folder():
        path.unlink(missing_ok=True)


def _parsed(content: bytes) -> EmailMessage:
    made = email.message_from_bytes(content, policy=email.policy.default)
    assert isinstance(made, EmailMessage)
    return made


def _moment(path: Path) -> datetime:
    """When a mail was sent, from its file's name; else when that was written."""
    try:
        return datetime.strptime(path.stem.rpartition("-")[0], "%Y%m%d-%H%M%S")
    except ValueError:
        return datetime.fromtimestamp(path.stat().st_mtime)
